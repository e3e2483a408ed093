"""Text and numbers as people type them, checked before the core reads them."""

import re
from typing import Annotated

from pydantic import AfterValidator, Field

# lone surrogates and control characters but for tab and new line
_UNPRINTABLE = re.compile("[\ud800-\udfff\x00-\x08\x0b-\x1f]")


def printable(text: str) -> str:
    """Return text without white space around it, or refuse what cannot be written down."""
    if _UNPRINTABLE.search(text):
        raise ValueError("This holds characters that cannot be written; type it again.")
    return text.strip()


def _written(text: str) -> str:
    if not text:
        raise ValueError("Write something here; it cannot be empty.")
    return text


Typed = Annotated[str, Field(max_length=40), AfterValidator(printable)]
"""An amount as people type it, read by the core."""

TypedList = Annotated[str, Field(max_length=160), AfterValidator(printable)]
"""Several amounts one after another, as people type them."""

Key = Annotated[str, Field(max_length=80), AfterValidator(printable)]
"""A catalogue key."""

Note = Annotated[str, Field(max_length=400), AfterValidator(printable)]
LongNote = Annotated[str, Field(max_length=2000), AfterValidator(printable)]
Name = Annotated[str, Field(max_length=80), AfterValidator(printable), AfterValidator(_written)]
Reason = Annotated[str, Field(max_length=160), AfterValidator(printable), AfterValidator(_written)]
MaybeName = Annotated[str, Field(max_length=80), AfterValidator(printable)]
"""A name that may be empty while it is typed; that is said at its field."""

Version = Annotated[int, Field(ge=1, le=2**31)]
Number = Annotated[float, Field(allow_inf_nan=False, ge=-1e9, le=1e9)]

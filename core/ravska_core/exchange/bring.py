"""Whatever form a blend comes in: the form is guessed, read, and told by line and column where it cannot be."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from ravska_core.blend import MOST_STEPS, parse_step
from ravska_core.catalogue import catalogue
from ravska_core.exchange.csv import from_csv
from ravska_core.exchange.forms import LONGEST_FILE, Brought
from ravska_core.exchange.jsonld import from_jsonld
from ravska_core.exchange.lists import read_list
from ravska_core.exchange.markdown import from_markdown
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.working import BadInput

# bringing in


def _readable(text: str) -> str:
    if len(text) > LONGEST_FILE:
        raise BadInput(
            "text", f"That is more than {LONGEST_FILE // 1000} kB, too much for a recipe; bring in one at a time."
        )
    text = text.removeprefix("\ufeff")
    fault = re.search("[\ud800-\udfff\x00-\x08\x0b\x0c\x0e-\x1f\ufffd]", text)
    if fault:
        line = text.count("\n", 0, fault.start()) + 1
        column = fault.start() - (text.rfind("\n", 0, fault.start()) + 1) + 1
        raise BadInput(
            "text", f"Line {line}, column {column}: this character cannot be read; save the file as UTF-8 text."
        )
    return text


def guess_format(text: str) -> str:
    """Return which format a text most likely is in."""
    start = text.lstrip()[:2000]
    if start[:1] in ("{", "[") and re.search(r'[{\[]\s*["{\[]', start):
        return "jsonld"
    if re.search(r"<script[^<>]{0,400}ld\+json", text, re.IGNORECASE):
        return "jsonld"
    first = start.split("\n", 1)[0].lower()
    if "ingredient" in first and re.search(r"[,;\t]", first) and not re.search(r"\d", first):
        return "csv"
    if re.search(r"^#{1,3} \S", start, re.MULTILINE) or re.search(r"^\|.*\|\s*$", start, re.MULTILINE):
        return "markdown"
    return "list"


def bring(
    text: str,
    format_: str = "",
    owned: SpoonSet = SPOON_SETS["us"],
    blends: Mapping[str, str] | None = None,
) -> Brought:
    """Read a text or file as a blend, line by line; nothing of it is dropped without a word.

    Parameters
    ----------
    text : str
        A list, or a file's content.
    format_ : str
        One of `FORMATS`, or "" to go by what it looks like.

    Raises
    ------
    BadInput
        At ``text``, with line and column, for a file that is damaged or holds no recipe.
    """
    text = _readable(text)
    if not text.strip():
        raise BadInput("text", "There is nothing here; paste a list of ingredients or a recipe.")
    format_ = format_ or guess_format(text)
    if format_ == "jsonld":
        found = from_jsonld(text, owned, blends or {})
    elif format_ == "csv":
        found = from_csv(text, owned, blends or {})
    elif format_ == "markdown":
        found = from_markdown(text, owned, blends or {})
    else:
        found = Brought("list", "", "", "", read_list(text, owned, blends), (), ())
    if not any(line.items for line in found.lines):
        raise BadInput("text", "I find no ingredient in this; paste a list with one ingredient a line.")
    if len(found.steps) > MOST_STEPS:
        notes = (*found.notes, f"Only the first {MOST_STEPS} steps fit; the others are left out.")
        found = replace(found, steps=found.steps[:MOST_STEPS], notes=notes)
    return found


def steps_of(steps: Sequence[str], names: Sequence[str]) -> list[Any]:
    """Read sentences as steps of a blend whose lines are called `names`."""

    grinds = sorted({grind.name for grind in catalogue().grinds.values()})
    return [parse_step(step, names, grinds) for step in steps]

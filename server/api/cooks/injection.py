"""How a piece is injected, and what was weighed of its baths, as typed."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field
from ravska_core.coat import MOST_SITES

from api.plumbing.typed import Number, Typed


class InjectionDocument(BaseModel):
    """How a piece is injected, as typed; what is empty is as usual. Weights are what was weighed around it.

    `wants` is the salt it is to bring [% of raw edible weight]; `sites` are places set by hand as shares of the
    piece's length and width, none for those of the grid.
    """

    wants: Typed = ""
    grid: Literal["hexagonal", "square"] = "hexagonal"
    spacing: Typed = ""
    sites: Annotated[list[Annotated[list[Number], Field(min_length=2, max_length=2)]], Field(max_length=MOST_SITES)] = (
        Field(default=[])
    )
    bore: Typed = ""
    syringe: Typed = ""
    stroke: Typed = ""
    before: Typed = ""
    after: Typed = ""
    used: Typed = ""


class BathWeighedDocument(BaseModel):
    """What was weighed of a bath, as typed; what is empty was not.

    `left_salt` is the salt of what is left [%]; `times` how many times as much goes in as is reckoned, of one's own.
    """

    used: Typed = ""
    left: Typed = ""
    before: Typed = ""
    after: Typed = ""
    left_salt: Typed = ""
    times: Typed = ""

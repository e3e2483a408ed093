"""What a list is read as: lines, the ingredients in them, and how much of each."""

import math
from dataclasses import dataclass, replace
from fractions import Fraction

from ravska_core.blend import HIGHEST_ERROR, say_parts
from ravska_core.measure import SCALE_ERROR, SPOON_ERROR, Measure, Quantity
from ravska_core.working import BadInput

MEASURED = ("ml", "g", "part", "percent")
"""Kinds of amount that say how much by themselves; all others count pieces."""

SAME_AGAIN_ERROR = 0.25
"""How far "same again" by eye may be off (common practice, no source)."""


@dataclass(frozen=True)
class Amount:
    """How much: `kind` ml, g, part, percent, a counted unit or "count"; how far it may be off; as it was written.

    `exact` is the number itself where it counts parts or percent, `spooned` the spoons it was said in, in figures.
    """

    kind: str
    value: float
    error: float
    said: str
    basis: str = ""
    exact: Fraction | None = None
    spooned: str = ""


@dataclass(frozen=True)
class Item:
    """An ingredient of a line: what it was understood as, how much, and what must be asked.

    `column` is where it begins in its line (from 1), `understood` says back what was read; `held` says that of `blend`
    what its sieve holds back is meant. `unread` are the places of words that were not used, from and to in the line;
    `swap` is what the line names to take instead, `uses` what else it is for, `usual` amounts to choose from where one
    is asked for.
    """

    line: int
    column: int
    text: str
    status: str
    name: str = ""
    grind: str = ""
    blend: str = ""
    closest: tuple[str, ...] = ()
    amount: Amount | None = None
    note: str = ""
    question: str = ""
    held: bool = False
    unread: tuple[tuple[int, int], ...] = ()
    swap: str = ""
    uses: tuple[str, ...] = ()
    usual: tuple[str, ...] = ()


@dataclass(frozen=True)
class ListLine:
    """A line of a list as it was written, with the ingredients found in it; a heading or remark has none."""

    number: int
    text: str
    status: str
    items: tuple[Item, ...] = ()


def amount_of(said: Quantity[Measure], text: str, basis: str = "") -> Amount:
    """Return a quantity in a measure as an amount.

    Raises
    ------
    BadInput
        At no field, for nothing and for more than any kitchen holds.
    """
    number, measure = said.number.middle, said.unit
    if not 0 < number < 1_000_000:
        raise BadInput("", "This amount is nothing or beyond any kitchen; write it again.")
    if measure is None:
        return Amount("count", float(number) * said.factor, _error(said.number.error, said.doubt), text)
    if measure.kind not in MEASURED:
        error = _error(measure.error, said.number.error, said.doubt)
        return Amount(measure.kind, float(number) * said.factor, error, text, basis)
    exact = number if measure.kind in ("part", "percent") and said.factor == 1.0 else None
    error = _error(measure.error, said.number.error, said.doubt)
    value = float(number) * said.factor * measure.amount
    return Amount(measure.kind, value, error, text, basis, exact, _spooned(said, measure))


def _spooned(said: Quantity[Measure], measure: Measure) -> str:
    """Return an amount in the spoon or cup it was said in: ``2½ tbsp``; "" for others and for heaped ones."""
    if measure.kind != "ml" or said.factor != 1.0 or said.number.low != said.number.high:
        return ""
    plural = "s" if measure.said == "cup" and said.number.low > 1 else ""
    return f"{say_parts(said.number.low)} {measure.said}{plural}"


def _error(*errors: float) -> float:
    return min(HIGHEST_ERROR, math.hypot(*errors))


def added(a: Amount, b: Amount) -> Amount:
    """Add two amounts of a kind; their errors are taken as independent.

    Raises
    ------
    BadInput
        At no field, for amounts of unlike kinds.
    """
    if a.kind != b.kind:
        raise BadInput("", f"“{a.said}” and “{b.said}” add unlike things; write one of them.")
    value = a.value + b.value
    exact = a.exact + b.exact if a.exact and b.exact else None
    error = math.hypot(a.value * a.error, b.value * b.error) / value
    spooned = f"{a.spooned} + {b.spooned}" if a.spooned and b.spooned else ""
    return Amount(a.kind, value, error, f"{a.said} + {b.said}", a.basis or b.basis, exact, spooned)


def again(before: Amount, factor: float, said: str) -> Amount:
    """Return the same amount once more, or so much of it, by eye."""
    error = _error(before.error, SAME_AGAIN_ERROR)
    exact = before.exact * Fraction(factor) if before.exact else None
    return replace(before, value=before.value * factor, error=error, said=said, exact=exact, spooned="")


def by_eye(amount: Amount) -> bool:
    """Return whether an amount was taken by eye: a handful, a pinch, a range, "about"."""
    usual = {"ml": SPOON_ERROR, "g": SCALE_ERROR}.get(amount.kind, 0.0)
    return amount.error > usual + 1e-9

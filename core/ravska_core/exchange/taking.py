"""A list that was understood, taken as the lines of a blend."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from ravska_core.blend import HIGHEST_BATCH_G, HIGHEST_ERROR, MOST_LINES, Line, masses, parts_of
from ravska_core.catalogue import catalogue, counted
from ravska_core.exchange.items import Amount, Item, by_eye
from ravska_core.measure import HIGHEST_PARTS, LOWEST_PARTS, SPOON_SETS, SpoonSet
from ravska_core.working import BadInput

_US = SPOON_SETS["us"]


def weighed(amount: Amount, grind: str, note: str) -> tuple[Amount | None, str]:
    """Return a count as grams by what one piece weighs."""
    ingredient = grind.split("/")[0]
    units = ("piece", "clove", "leaf", "stick") if amount.kind == "count" else (amount.kind, "piece")
    for unit in units:
        one = counted(ingredient, unit)
        if one is not None:
            error = math.hypot(amount.error, (one.high - one.low) / 2 / one.grams)
            said = f"one weighs about {one.grams:g} g, {one.low:g} to {one.high:g}"
            weighed = Amount("g", amount.value * one.grams, min(HIGHEST_ERROR, error), amount.said, "scale")
            return weighed, f"{note}; {said}" if note else said
    return None, note


@dataclass(frozen=True)
class Taken:
    """Lines for a blend out of a list: how they are written, the batch they make [g], what was said of each."""

    lines: tuple[Line, ...]
    said: tuple[str, ...]
    written: str
    batch_g: float


def take(items: Sequence[tuple[Item, Line | None]]) -> Taken:
    """Make the lines of a blend from the understood items of a list.

    Parts stay parts. Spoons and weights keep their basis: where all are spoons, a part is a teaspoon; as soon as one is
    weighed, a part is 1 g on the scale and 1 ml by spoon.

    Parameters
    ----------
    items : sequence
        Every item with the line for a blend of the cook's own, where it names one.

    Raises
    ------
    BadInput
        At ``items.N`` for one without an amount, for parts among weights, and for an empty list.
    """
    if not items:
        raise BadInput("items", "Nothing in this list is an ingredient yet; choose what its lines are.")
    if len(items) > MOST_LINES:
        raise BadInput("items", f"A blend holds at most {MOST_LINES} lines; leave some out or make two blends.")
    kinds = {item.amount.kind for item, _ in items if item.amount is not None}
    for at, (item, _) in enumerate(items):
        if item.amount is None:
            raise BadInput(f"items.{at}.amount", "How much of it? Write an amount, or leave it out.")
        if "part" in kinds and len(kinds) > 1 and item.amount.kind == "part":
            raise BadInput(f"items.{at}.amount", "Parts among spoons and weights: write how much a part is here.")
        if "percent" in kinds and len(kinds) > 1:
            raise BadInput(
                f"items.{at}.amount", "Percent and other amounts do not go together; write one or the other."
            )
    weighed = "g" in kinds
    unit_ml = 1.0 if weighed else 5.0
    amounts = [item.amount for item, _ in items if item.amount is not None]
    if not weighed and "ml" in kinds:
        unit_ml = _spoon_of(amounts)
    lines = []
    for at, ((item, own), amount) in enumerate(zip(items, amounts, strict=True)):
        basis = "spoon" if amount.kind == "ml" else "scale"
        value = amount.value / (unit_ml if amount.kind == "ml" else 1.0)
        if amount.kind == "part":
            basis = amount.basis or "spoon"
        parts = amount.exact or Fraction(value).limit_denominator(10_000)
        if not LOWEST_PARTS <= parts <= HIGHEST_PARTS:
            raise BadInput(f"items.{at}.amount", "That is too little or too much for one line; check the measure.")
        error = round(amount.error, 3) if by_eye(amount) else 0.0
        blend = own.blend if own else None
        lines.append(Line(item.grind, parts, basis, "", blend, error, blend is not None and item.held))
    written = "percent" if kinds == {"percent"} else "parts"
    batch = 100.0
    if kinds <= {"g", "ml"}:
        batch = sum(
            a.value * (1.0 if a.kind == "g" else _density(item, own))
            for (item, own), a in zip(items, amounts, strict=True)
        )
    return Taken(tuple(lines), tuple(a.said for a in amounts), written, round(batch, 1))


@dataclass(frozen=True)
class Put:
    """An amount put into a batch: its line, and what the batch then weighs [g]."""

    line: Line
    batch_g: float


def put_in(
    lines: Sequence[Line], batch_g: float, line: Line, amount: Amount, fixed: bool = False, owned: SpoonSet = _US
) -> Put:
    """Put an amount of something into a batch as it stands: its parts beside the others', and the batch grown by it.

    A part of the batch is u = batch / sum of (parts x density or 1); of an empty one it is a tablespoon. With a `fixed`
    total the new line gets the share it then has.

    Raises
    ------
    BadInput
        At ``amount`` for a percentage, or for so much or so little that no number of parts says it.
    """
    if amount.kind not in ("ml", "g", "part"):
        raise BadInput("amount", "Write it in spoons, cups, grams or parts.")
    if amount.kind == "part":
        line = replace(
            line, parts=amount.exact or Fraction(amount.value).limit_denominator(1000), basis=amount.basis or line.basis
        )
        return Put(line, batch_g)
    density = parts_of([line])[0].density_g_ml
    basis = "spoon" if amount.kind == "ml" else "scale"
    grams = amount.value * (density if basis == "spoon" else 1.0)
    if lines:
        part_g = batch_g / sum(masses(lines, parts_of(lines)))
        grown = batch_g + grams
        share = batch_g / grown if fixed else 1.0
    else:
        part_g = next(spoon.volume_ml for spoon in owned.spoons if spoon.name == "tbsp")
        grown, share = grams, 1.0
    parts = Fraction(amount.value / part_g * share).limit_denominator(10_000)
    if not LOWEST_PARTS <= parts <= HIGHEST_PARTS or grown > HIGHEST_BATCH_G:
        raise BadInput("amount", "That is too little or too much beside the others; check the measure.")
    error = round(amount.error, 3) if by_eye(amount) else 0.0
    return Put(replace(line, parts=parts, basis=basis, error=error), grown)


def _density(item: Item, own: Line | None) -> float:
    if own is not None:
        return parts_of([own])[0].density_g_ml
    return catalogue().grinds[item.grind].density_g_ml


def _spoon_of(amounts: Sequence[Amount]) -> float:
    """Return the teaspoon [ml] that makes the rounder numbers: the US one or the metric one."""
    us, metric = SPOON_SETS["us"].spoons, SPOON_SETS["metric"].spoons
    sizes = [next(s.volume_ml for s in spoons if s.name == "tsp" and s.fraction == 1) for spoons in (us, metric)]

    def odd(size: float) -> int:
        return sum(abs(a.value / size * 8 - round(a.value / size * 8)) > 1e-6 for a in amounts)

    return min(sizes, key=odd)

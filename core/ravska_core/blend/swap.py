"""Putting one ingredient in another's place: grinds, crystals, fresh and dried, chillies, sugars, stand-ins."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from ravska_core.blend.lines import Line
from ravska_core.blend.parts import parts_of
from ravska_core.blend.qualities import heat_scale
from ravska_core.blend.ratios import exact_parts
from ravska_core.catalogue import Grind, Ingredient, catalogue
from ravska_core.working import BadInput


@dataclass(frozen=True)
class Swapped:
    """Another ingredient in a line's place: the new line, of what kind the swap is, and why."""

    line: Line
    kind: str
    name: str
    reason: str
    source: str


def tidy(parts: Fraction, basis: str) -> Fraction:
    """Round parts as a kitchen can measure them: eighths below 1 spoon, quarters above, two figures on the scale."""
    if basis == "spoon":
        step = Fraction(1, 8) if parts < 1 else Fraction(1, 4)
        return max(Fraction(1, 8), round(parts / step) * step)
    value = float(parts)
    if value <= 0.001:
        return Fraction(1, 1000)
    digits = 1 - math.floor(math.log10(value))
    return max(Fraction(1, 1000), Fraction(str(round(value, digits))))


def swapped_line(line: Line, grind: Grind, ratio: float, tidied: bool = False) -> Line:
    """Return the line with another grind of `ratio` times its mass, in its own basis."""
    (before,) = parts_of([line])
    parts = line.parts * Fraction(ratio)
    if line.basis == "spoon":
        parts = parts * Fraction(before.density_g_ml) / Fraction(grind.density_g_ml)
    return Line(grind.key, tidy(parts, line.basis) if tidied else exact_parts(parts, 0), line.basis, line.lock)


def _aroma(grind: Grind) -> tuple[float, ...]:
    i = grind.ingredient
    return (
        heat_scale(i.scoville), i.bite, i.smoke, i.herb, i.nacl * 10, i.sugars * 10, i.acid * 100, i.fat * 5,
        i.water * 5, min(5.0, i.glutamate * 100),
    )  # fmt: skip


def _distance(a: Grind, b: Grind) -> float:
    return math.dist(_aroma(a), _aroma(b))


Offer = tuple[Grind, float, str, str, str]
"""A grind that could stand in, at which ratio of the mass, as what kind of swap, why, and from which source."""


def _crystals(of: Ingredient, others: Sequence[Grind]) -> list[Offer]:
    """Return salts at equal salt."""
    if of.nacl <= 0.9 or "cure" in of.flags:
        return []
    salts = [grind for grind in others if grind.ingredient.nacl > 0.9]
    reason = "the same salt in other spoons"
    return [(grind, of.nacl / grind.ingredient.nacl, "crystal", reason, "arithmetic") for grind in salts]


def _chillies(of: Ingredient, others: Sequence[Grind]) -> list[Offer]:
    """Return the six nearest chillies at equal Scoville heat."""
    if of.scoville < 1000 or of.water >= 0.5:
        return []
    hot = [g for g in others if g.ingredient.scoville >= 1000 and g.ingredient.water < 0.5]
    return [
        (
            grind, of.scoville / grind.ingredient.scoville, "chilli",
            f"the same heat: {of.scoville:,.0f} against {grind.ingredient.scoville:,.0f} Scoville units", "scoville",
        )
        for grind in sorted(hot, key=lambda g: abs(math.log(g.ingredient.scoville / of.scoville)))[:6]
    ]  # fmt: skip


def _sugars(of: Ingredient, others: Sequence[Grind]) -> list[Offer]:
    """Return sugars at equal sugar, each with what it does to the water."""
    if of.family != "sugar":
        return []
    found = []
    for grind in others:
        if grind.ingredient.family == "sugar" and grind.ingredient.sugars > 0.4:
            wet = grind.ingredient.water - of.water
            more = "; brings water" if wet > 0.1 else "; brings less water" if wet < -0.1 else ""
            found.append((grind, of.sugars / grind.ingredient.sugars, "sugar", f"the same sugar{more}", "arithmetic"))
    return found


def swaps(line: Line, named: str = "") -> tuple[Swapped, ...]:
    """Return what can stand in a line's place, best first: another grind or form, crystal, chilli, sugar, stand-in.

    Before them all stands the grind that the line's recipe itself names to take instead, `named`, by the same weight.

    Crystals change places at equal salt, chillies at equal Scoville heat, sugars at equal sugar, grinds and
    forms at equal mass or by the table of swaps; what has no row there gets the two nearest of its family.

    Raises
    ------
    BadInput
        At ``line`` for a blend inside, which is swapped line by line after it is unfolded.
    """
    known = catalogue()
    if line.blend is not None:
        raise BadInput("line", "A blend inside is changed in its own place, or line by line once it is unfolded.")
    if line.grind not in known.grinds:
        raise BadInput("line", "This ingredient is not in the catalogue any more; choose another or remove it.")
    here = known.grinds[line.grind]
    of = here.ingredient
    found: dict[str, Swapped] = {}

    def offer(grind: Grind, ratio: float, kind: str, reason: str, source: str) -> None:
        if grind.key == here.key or grind.key in found or "cure" in grind.ingredient.flags:
            return
        try:
            swapped = swapped_line(line, grind, ratio)
        except BadInput:
            return
        found[grind.key] = Swapped(swapped, kind, grind.said, reason, source)

    if named in known.grinds:
        offer(known.grinds[named], 1.0, "named", "the recipe names it too; by the same weight", "arithmetic")
    others = [grind for grind in known.grinds.values() if grind.key != here.key]
    for grind in others:
        if grind.ingredient.key == of.key:
            offer(grind, 1.0, "grind", "the same weight in another grind", "arithmetic")
    for swap in known.swaps.values():
        if swap.grind == here.key:
            fresh = (of.family == "fresh") != (known.grinds[swap.instead].ingredient.family == "fresh")
            offer(known.grinds[swap.instead], swap.ratio, "form" if fresh else "stand-in", swap.reason, swap.source)
    for grind, ratio, kind, reason, source in (*_crystals(of, others), *_chillies(of, others), *_sugars(of, others)):
        offer(grind, ratio, kind, reason, source)
    if sum(swap.kind in ("stand-in", "form") for swap in found.values()) < 2:
        kin = [g for g in others if g.ingredient.family == of.family and g.ingredient.key != of.key]
        for grind in sorted(kin, key=lambda g: _distance(here, g))[:2]:
            offer(grind, 1.0, "nearest", "the nearest of its kind by what it brings", "estimate")
    order = ("named", "grind", "crystal", "form", "stand-in", "chilli", "sugar", "nearest")
    return tuple(sorted(found.values(), key=lambda swap: order.index(swap.kind)))

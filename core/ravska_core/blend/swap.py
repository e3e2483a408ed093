"""Putting one ingredient in another's place: grinds, crystals, fresh and dried, chillies, sugars, stand-ins."""

import math
from dataclasses import dataclass
from fractions import Fraction

from ravska_core.blend.lines import Line
from ravska_core.blend.parts import parts_of
from ravska_core.blend.qualities import heat_scale
from ravska_core.blend.ratios import exact_parts
from ravska_core.catalogue import Grind, catalogue
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


def swaps(line: Line) -> tuple[Swapped, ...]:
    """Return what can stand in a line's place, best first: another grind or form, crystal, chilli, sugar, stand-in.

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
        name = grind.ingredient.name.lower()
        said = name if grind.name in name or grind.name == "liquid" else f"{name}, {grind.name}"
        try:
            swapped = swapped_line(line, grind, ratio)
        except BadInput:
            return
        found[grind.key] = Swapped(swapped, kind, said, reason, source)

    others = [grind for grind in known.grinds.values() if grind.key != here.key]
    for grind in others:
        if grind.ingredient.key == of.key:
            offer(grind, 1.0, "grind", "the same weight in another grind", "arithmetic")
    for swap in known.swaps.values():
        if swap.grind == here.key:
            fresh = (of.family == "fresh") != (known.grinds[swap.instead].ingredient.family == "fresh")
            offer(known.grinds[swap.instead], swap.ratio, "form" if fresh else "stand-in", swap.reason, swap.source)
    if of.nacl > 0.9 and "cure" not in of.flags:
        for grind in others:
            if grind.ingredient.nacl > 0.9:
                offer(grind, of.nacl / grind.ingredient.nacl, "crystal", "the same salt in other spoons", "arithmetic")
    if of.scoville >= 1000 and of.water < 0.5:
        hot = [g for g in others if g.ingredient.scoville >= 1000 and g.ingredient.water < 0.5]
        for grind in sorted(hot, key=lambda g: abs(math.log(g.ingredient.scoville / of.scoville)))[:6]:
            ratio = of.scoville / grind.ingredient.scoville
            reason = f"the same heat: {of.scoville:,.0f} against {grind.ingredient.scoville:,.0f} Scoville units"
            offer(grind, ratio, "chilli", reason, "scoville")
    if of.family == "sugar":
        for grind in others:
            if grind.ingredient.family == "sugar" and grind.ingredient.sugars > 0.4:
                wet = grind.ingredient.water - of.water
                more = "; brings water" if wet > 0.1 else "; brings less water" if wet < -0.1 else ""
                offer(grind, of.sugars / grind.ingredient.sugars, "sugar", f"the same sugar{more}", "arithmetic")
    if sum(swap.kind in ("stand-in", "form") for swap in found.values()) < 2:
        kin = [g for g in others if g.ingredient.family == of.family and g.ingredient.key != of.key]
        for grind in sorted(kin, key=lambda g: _distance(here, g))[:2]:
            offer(grind, 1.0, "nearest", "the nearest of its kind by what it brings", "estimate")
    order = ("grind", "crystal", "form", "stand-in", "chilli", "sugar", "nearest")
    return tuple(sorted(found.values(), key=lambda swap: order.index(swap.kind)))

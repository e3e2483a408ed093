"""What passes a needle: salt that dissolves, grains against the bore, and how thick a syrup runs."""

import math
from collections.abc import Sequence
from itertools import pairwise

from ravska_core.blend.method import SOLUBLE
from ravska_core.blend.reading import BlendReading
from ravska_core.catalogue import Grind

SATURATION = 0.264
"""Salt that water takes at 20 C, over salt and water together [g/g] (handbook figure, from memory)."""

BORE_MM = 2.0
"""Bore of a usual marinade needle [mm] (common practice, no source)."""

CLOGS_AT = 1 / 3
"""Share of the bore from which on a grain clogs it (common practice, no source)."""

THICK_BRIX = 0.6

_SYRUP = ((0.60, 58.0), (0.65, 147.0), (0.70, 480.0), (0.75, 2300.0))
"""Viscosity [mPa s] of sucrose solutions at 20 C by sugar over sugar and water."""


def brine_share(reading: BlendReading) -> float:
    """Return salt over salt and water [mass fraction]; 0 for a dry blend, whose salt is not in water at all."""
    salt, water = reading.salt.value / 100, reading.water_share
    return salt / (salt + water) if water > 0.05 else 0.0


def sugar_of_water(reading: BlendReading) -> float:
    """Return sugar over sugar and water [mass fraction], what a syrup's thickness goes by; 0 where it is dry."""
    sugar, water = reading.sugar.value / 100, reading.water_share
    return sugar / (sugar + water) if water > 0.05 else 0.0


def syrup_viscosity(brix: float) -> float:
    """Determine the viscosity [mPa s] of a sugar solution at 20 C between 60 and 75 Brix, log-linear in between."""
    for (low, thin), (high, thick) in pairwise(_SYRUP):
        if brix <= high:
            along = (brix - low) / (high - low)
            return math.exp(math.log(thin) + along * (math.log(thick) - math.log(thin)))
    return _SYRUP[-1][1]


def clogging(leaves: Sequence[tuple[Grind, float]], bore_mm: float = BORE_MM) -> list[Grind]:
    """Return the grinds that clog a needle, the coarsest first: what does not dissolve and is over a third of the bore.

    Parameters
    ----------
    leaves : sequence
        What the finished liquid holds; what was strained off is no leaf any more.
    """
    solid = [grind for grind, share in leaves if share > 0 and grind.ingredient.family not in SOLUBLE]
    found = [grind for grind in solid if grind.grain_mm > bore_mm * CLOGS_AT]
    return sorted(found, key=lambda grind: -grind.grain_mm)

"""How heavy coats are, what sticks, how much a vessel takes, and the zones of salt."""

import math
from types import MappingProxyType

from ravska_core.blend import BlendReading

COAT_WEIGHTS = MappingProxyType({"light": 3.0, "standard": 5.0, "heavy": 8.0, "bark": 12.0})
"""Rub by surface [g/100 cm2] (common practice, estimates)."""

ADHESION_CEILING = MappingProxyType({"dry": 4.0, "moist": 6.0, "oil": 8.0, "mustard": 12.0})
"""Most rub that sticks, by what the surface is [g/100 cm2] (estimates until weighed back)."""

ADHESION_ERROR = 0.25
"""How far what sticks may lie off, relative (estimate)."""

MELTED_CLINGS, MELTED_ERROR = 3.0, 0.3
"""What of a coat of fat still clings when it has melted [g/100 cm2], and how far that may lie off (estimates)."""

USUAL_SALT = (1.2, 1.8)
"""The usual zone of total salt [% of raw edible weight] (common practice)."""

BINDER_DOSES = MappingProxyType({"oil": 1.5, "mustard": 2.4, "moist": 2.0})
"""How much of a binder usually goes on, by the surface it leaves; syrup as a moist one [g/100 cm2] (no source)."""

STICKY_SUGAR = 35.0
"""Sugar from which a binder is sticky [% of it] (estimate)."""

VESSELS = MappingProxyType({"bag": 250.0, "snug dish": 400.0, "open bowl": 700.0})
"""Marinade by weight of meat [ml/kg] (common practice, estimates)."""

SALT_ZONES = ((0.8, "flat"), (1.2, "light"), (1.8, "usual"), (2.2, "salty"), (float("inf"), "too salty"))
"""Total salt, % of raw edible weight, up to which a zone reaches (common practice)."""


def coat_word(g_100cm2: float) -> str:
    """Return what a coat of rub is called: as the weight in `COAT_WEIGHTS` that it comes nearest to."""
    return min(COAT_WEIGHTS, key=lambda name: abs(math.log(COAT_WEIGHTS[name] / g_100cm2))) if g_100cm2 > 0 else ""


def surface_after(binder: "BlendReading") -> str:
    """Return what surface a binder or a paste leaves: mustard for a sticky one, oil for a fat one, else moist.

    Sticky is what holds mustard, or more sugar than a thin syrup does (estimate).
    """
    if "mustard" in binder.allergens or binder.sugar.value > STICKY_SUGAR:
        return "mustard"
    return "oil" if melts(binder) else "moist"


def melts(blend: "BlendReading") -> bool:
    """Tell whether a coat is mostly fat, so that on the fire it runs off."""
    return blend.fat_share > 0.4


def salt_zone(salt_percent: float) -> str:
    """Return the zone a total salt [% of raw edible weight] lies in."""
    return next(name for limit, name in SALT_ZONES if salt_percent < limit)

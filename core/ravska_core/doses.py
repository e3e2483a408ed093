"""How much goes on: rub by surface, marinade by weight, and what sticks."""

from types import MappingProxyType

COAT_WEIGHTS = MappingProxyType({"light": 3.0, "standard": 5.0, "heavy": 8.0, "bark": 12.0})
"""Rub by surface [g/100 cm2] (common practice, estimates)."""

ADHESION_CEILING = MappingProxyType({"dry": 4.0, "moist": 6.0, "oil": 8.0, "mustard": 12.0})
"""Most rub that sticks, by what the surface is [g/100 cm2] (estimates until weighed back)."""

BINDER_WEIGHT = MappingProxyType({"dry": 0.0, "moist": 0.0, "oil": 1.5, "mustard": 2.4})
"""Binder spread on the surface [g/100 cm2] (estimates)."""

BINDER_GRIND = MappingProxyType({"oil": "vegetable-oil/liquid", "mustard": "mustard-prepared/paste"})

VESSELS = MappingProxyType({"bag": 250.0, "snug dish": 400.0, "open bowl": 700.0})
"""Marinade by weight of meat [ml/kg] (common practice, estimates)."""

RUB_RETENTION = 0.9
"""Share of a dry coat that stays on the meat (estimate)."""

SALT_ZONES = ((0.8, "flat"), (1.2, "light"), (1.8, "usual"), (2.2, "salty"), (float("inf"), "too salty"))
"""Total salt, % of raw edible weight, up to which a zone reaches (common practice)."""


def rub_mass_g(area_cm2: float, coat_g_100cm2: float) -> float:
    """Determine the rub that coats an area: m = coat x A / 100."""
    return coat_g_100cm2 * area_cm2 / 100


def marinade_volume_ml(mass_g: float, vessel: str) -> float:
    """Determine the marinade for a weight of meat in a vessel: V = (ml/kg) x m / 1000."""
    return VESSELS[vessel] * mass_g / 1000


def salt_zone(salt_percent: float) -> str:
    """Return the zone a total salt [% of raw edible weight] lies in."""
    return next(name for limit, name in SALT_ZONES if salt_percent < limit)

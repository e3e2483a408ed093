"""People's units: one table of exact factors a quantity, and how times are said.

References
----------
NIST Handbook 44 (2024), appendix C: the pound is 453.592 37 g, the inch 2.54 cm and the US gallon 231 cubic inches, all
three exactly; ounces, cups and spoons are parts of those.
"""

import re
from collections.abc import Mapping
from fractions import Fraction
from types import MappingProxyType

_POUND_G = Fraction("453.59237")
_INCH_CM = Fraction("2.54")
_GALLON_ML = 231 * _INCH_CM**3


def _named(*units: tuple[Fraction | int, tuple[str, ...]]) -> Mapping[str, Fraction]:
    return MappingProxyType({name: Fraction(factor) for factor, names in units for name in names})


MASS_G = _named(
    (1, ("g", "gram", "grams", "gr")),
    (Fraction(1, 1000), ("mg",)),
    (1000, ("kg", "kilo", "kilos", "kilogram", "kilograms")),
    (_POUND_G, ("lb", "lbs", "pound", "pounds")),
    (_POUND_G / 16, ("oz", "ounce", "ounces")),
)
"""Grams in a unit of weight, by each name it is written with."""

TIME_S = _named(
    (60, ("min", "mins", "minute", "minutes", "m")),
    (3600, ("h", "hr", "hrs", "hour", "hours")),
    (86_400, ("d", "day", "days")),
)
"""Seconds in a unit of time."""

PHASE_S = MappingProxyType({**TIME_S, **_named((1, ("s", "sec", "secs", "second", "seconds")))})
"""Seconds in a unit of time at the heat, where seconds count too."""

KEEPING_DAYS = _named(
    (1, ("d", "day", "days")),
    (7, ("week", "weeks")),
    (30, ("month", "months")),
    (365, ("year", "years")),
)
"""Days in a unit of how long something keeps; of a month at least 30."""

LENGTH_CM = _named(
    (Fraction(1, 10), ("mm", "millimetre", "millimetres", "millimeter", "millimeters")),
    (1, ("cm", "centimetre", "centimetres", "centimeter", "centimeters")),
    (100, ("m", "metre", "metres", "meter", "meters")),
    (_INCH_CM, ("in", "inch", "inches", '"')),
    (12 * _INCH_CM, ("ft", "foot", "feet")),
)
"""Centimetres in a unit of length."""

VOLUME_ML = _named(
    (1, ("ml",)),
    (10, ("cl",)),
    (100, ("dl",)),
    (1000, ("l", "litre", "liter", "litres", "liters")),
    (_GALLON_ML / 4, ("quart", "quarts")),
    (_GALLON_ML / 8, ("pint", "pints")),
    (_GALLON_ML / 16, ("cup", "cups")),
    (_GALLON_ML / 128, ("floz",)),
    (_GALLON_ML / 256, ("tbsp",)),
    (_GALLON_ML / 768, ("tsp",)),
)
"""Millilitres in a unit of volume, US customary where it is not metric."""

US_TEASPOON_ML = float(VOLUME_ML["tsp"])


def say_duration(seconds: float) -> str:
    """Return a time as people say it: ``45 min``, ``16 h``, ``2 h 30 min``."""
    minutes = round(seconds / 60)
    hours, rest = divmod(minutes, 60)
    if not hours:
        return f"{rest} min"
    return f"{hours} h" if not rest else f"{hours} h {rest} min"


_CELSIUS = re.compile(r"(-?\d+(?:\.\d+)?) °C(?! \()")
"""A temperature in a sentence, but for one that is said in both scales already."""


def in_scale(text: str, scale: str) -> str:
    """Return a sentence with its temperatures in a scale, ``C`` or ``F``."""
    return _CELSIUS.sub(lambda found: say_temperature(float(found[1]), scale), text) if scale == "F" else text


def say_mass(grams: float, units: str) -> str:
    """Return a mass as finely as a kitchen scale tells: ``1.25 kg``, ``48 g``, ``7.6 g``; ``2.76 lb``, ``1.7 oz``."""
    if units == "us":
        pounds = grams / float(MASS_G["lb"])
        return f"{pounds:.2f} lb" if pounds >= 1 else f"{pounds * 16:.1f} oz"
    if grams >= 1000:
        return f"{grams / 1000:.2f} kg"
    return f"{grams:.0f} g" if grams >= 10 else f"{grams:.1f} g"


def say_temperature(celsius: float, scale: str = "C") -> str:
    """Return a temperature in a scale, ``C`` or ``F``, as people write it: ``107 °C``, ``225 °F``."""
    return f"{celsius * 1.8 + 32:.0f} °F" if scale == "F" else f"{celsius:.0f} °C"

"""What people type, read into canonical units.

The one place where people's units enter the core.
"""

import math
import re
import unicodedata
from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache

from ravska_core.units import LENGTH_CM, MASS_G, TIME_S, VOLUME_ML
from ravska_core.working import BadInput

_NUMBER = re.compile(r"(?P<whole>\d+)\s+(?P<num>\d+)/(?P<den>\d+)|(?P<n>\d+)/(?P<d>\d+)|(?P<dec>\d*\.\d+|\d+\.?)")

_UNIT = re.compile(r"\s*(?P<unit>[a-z]+|\")\.?")

_LONGEST = 40

LOWEST_PARTS, HIGHEST_PARTS = Fraction(1, 1000), Fraction(10_000)


def _plain(text: str, field: str) -> str:
    """Return `text` in ASCII digits with vulgar fractions written out (``1½`` as ``1 1/2``)."""
    if len(text) > _LONGEST:
        raise BadInput(field, f"That is too long to be an amount; write it in at most {_LONGEST} characters.")
    out = []
    for char in text.strip().lower():
        expanded = unicodedata.normalize("NFKC", char)
        if "\u2044" in expanded and len(expanded) > 1:  # fraction slash: the character was a vulgar fraction
            out.append(" " + expanded.replace("\u2044", "/"))
        elif char.isdecimal():
            out.append(str(unicodedata.decimal(char)))
        else:
            out.append(expanded)
    plain = "".join(out).replace("\u2044", "/").strip()
    if re.search(r"\d,\d{3}(?!\d)", plain):
        raise BadInput(field, f"{text.strip()} can be read two ways; write it without the comma, as 1500 or 1.5.")
    return re.sub(r"(?<=\d),(?=\d)", ".", plain)


def _number(match: re.Match[str], field: str) -> Fraction:
    found = match.groupdict()
    if found["dec"]:
        return Fraction(found["dec"].rstrip(".") if found["dec"].endswith(".") else found["dec"])
    denominator = int(found["den"] or found["d"])
    if denominator == 0:
        raise BadInput(field, "Nothing can be divided by 0; write the fraction again.")
    return Fraction(int(found["whole"] or 0)) + Fraction(int(found["num"] or found["n"]), denominator)


def read_number(text: str, field: str) -> Fraction:
    """Read a bare number as people write it: ``2``, ``1½``, ``1 1/2``, ``0.5`` or ``0,5``."""
    plain = _plain(text, field)
    match = _NUMBER.fullmatch(plain)
    if match is None:
        raise BadInput(field, f"“{text.strip()}” is not a number; write for example 2, 1½, 1/8 or 0.5.")
    return _number(match, field)


@lru_cache(maxsize=4096)
def parse_parts(text: str, field: str = "parts") -> Fraction:
    """Read parts as people write them: ``2``, ``1½``, ``1 1/2``, ``1/8``, ``0.5``.

    Returns
    -------
    Fraction
        Exact parts, between 1/1000 and 10,000.

    Raises
    ------
    BadInput
        When the text is no number, or the number is out of that range.
    """
    plain = _plain(text, field)
    if not plain:
        raise BadInput(field, "Write how many parts, for example 2, 1½ or 1/8.")
    if plain.startswith(("-", "\u2212")):
        raise BadInput(field, "Parts cannot be below nothing; write a number above 0.")
    match = _NUMBER.fullmatch(plain)
    if match is None:
        raise BadInput(field, f"“{text.strip()}” is not a number of parts; write for example 2, 1½, 1/8 or 0.5.")
    parts = _number(match, field)
    if parts == 0:
        raise BadInput(field, "0 parts is nothing; write a number above 0, or remove the line.")
    if not LOWEST_PARTS <= parts <= HIGHEST_PARTS:
        raise BadInput(field, "Parts lie between 1/1000 and 10,000; scale the whole ratio instead.")
    return parts.limit_denominator(1_000_000)


def _parse(
    text: str, units: Mapping[str, Fraction], field: str, noun: str, example: str, bare: str | None = None
) -> float:
    plain = _plain(text, field)
    if not plain:
        raise BadInput(field, f"Write a {noun}, for example {example}.")
    if plain.startswith(("-", "\u2212")):
        raise BadInput(field, f"A {noun} cannot be below nothing; write for example {example}.")
    total, at = Fraction(0), 0
    while at < len(plain):
        number = _NUMBER.match(plain, at)
        if number is None:
            raise BadInput(field, f"“{text.strip()}” is not a {noun} I can read; write for example {example}.")
        unit = _UNIT.match(plain, number.end())
        if unit is None and bare is not None and number.end() == len(plain) and at == 0:
            return float(_number(number, field) * units[bare])
        if unit is None:
            raise BadInput(field, f"{text.strip()} of what? Add the unit, for example {example}.")
        name = unit["unit"]
        if name not in units:
            raise BadInput(field, f"“{name}” is not a unit of {noun} I know; write for example {example}.")
        total += _number(number, field) * units[name]
        at = unit.end()
        while at < len(plain) and plain[at] in " ,+":
            at += 1
    try:
        value = float(total)
    except OverflowError:
        value = math.inf
    return value


def parse_mass_g(
    text: str, field: str = "mass", low_g: float = 1.0, high_g: float = 100_000.0, bare: str | None = None
) -> float:
    """Read a weight such as ``2.3 kg``, ``5 lb 1 oz`` or ``4½ lb`` as grams between the two limits.

    A number without a unit is refused unless `bare` says which unit it then has.
    """
    value = _parse(text, MASS_G, field, "weight", "2.3 kg or 5 lb 1 oz", bare)
    if not low_g <= value <= high_g:
        raise BadInput(field, f"A weight here lies between {low_g:g} g and {high_g / 1000:g} kg; check the unit.")
    return value


def parse_duration_s(text: str, field: str = "hold", high_s: float = 7 * 86_400.0) -> float:
    """Read a time such as ``16 h``, ``2 h 30 min`` or ``45 min`` as seconds, above 0 and at most `high_s`."""
    value = _parse(text, TIME_S, field, "time", "45 min or 16 h")
    if value <= 0:
        raise BadInput(field, "A time of 0 is no time; write for example 45 min or 16 h.")
    if value > high_s:
        raise BadInput(field, f"That is longer than {high_s / 86_400:g} days; write a shorter time.")
    return value


def parse_length_cm(
    text: str, field: str = "length", low_cm: float = 0.2, high_cm: float = 200.0, bare: str | None = None
) -> float:
    """Read a length such as ``24 cm`` or ``9 1/2 in`` as centimetres between the two limits.

    A number without a unit is refused unless `bare` says which unit it then has.
    """
    value = _parse(text, LENGTH_CM, field, "length", "25 mm" if bare == "mm" else "24 cm or 9½ in", bare)
    if not low_cm <= value <= high_cm:
        limits = [f"{cm * 10:g} mm" if cm < 1 else f"{cm:g} cm" if cm < 100 else f"{cm / 100:g} m"
                  for cm in (low_cm, high_cm)]  # fmt: skip
        raise BadInput(field, f"A length here lies between {limits[0]} and {limits[1]}; check the unit.")
    return value


@dataclass(frozen=True)
class Amount:
    """An amount of a liquid as it was measured: in g, or in ml."""

    value: float
    unit: str

    def grams(self, density_g_ml: float) -> float:
        """Return its mass [g]."""
        return self.value if self.unit == "g" else self.value * density_g_ml


def parse_amount(text: str, field: str, most: float = 20_000.0) -> Amount:
    """Read an amount of liquid such as ``120 ml``, ``½ cup`` or ``4 oz``; a bare number is ml, ``oz`` a weight."""
    said = re.sub(r"fl\.? *oz|fluid ounces?", "floz", text.lower())
    example = "120 ml, ½ cup or 120 g"
    if any(name in MASS_G for name in re.findall(r"[a-z]+", said)):
        value, unit = _parse(said, MASS_G, field, "amount", example), "g"
    else:
        value, unit = _parse(said, VOLUME_ML, field, "amount", example, "ml"), "ml"
    if not 0 < value <= most:
        raise BadInput(field, f"An amount here lies above 0 and at most {most / 1000:g} litres; check the unit.")
    return Amount(value, unit)


def _celsius(text: str, field: str) -> float:
    """Read a temperature such as ``57 °C`` or ``135 F`` as C; a bare number is C up to 100, else F."""
    match = re.fullmatch(r"([-−]?\d+(?:\.\d+)?)\s*°?\s*([cf]?)", _plain(text, field))
    if match is None:
        raise BadInput(field, f"“{text.strip()}” is not a temperature; write for example 63 °C or 145 °F.")
    value = float(match[1].replace("−", "-"))
    return (value - 32) * 5 / 9 if match[2] == "f" or (not match[2] and value > 100) else value


def parse_temperature_c(text: str, field: str = "endpoint") -> float:
    """Read the temperature of a centre such as ``57 °C``, ``135 F`` or a bare number: up to 100 it is °C, above °F."""
    value = _celsius(text, field)
    if not 30 <= value <= 100:
        raise BadInput(field, "A centre is done between 30 and 100 °C (86 and 212 °F); write for example 63 °C.")
    return value


def parse_held_c(text: str, field: str = "hold_c") -> float:
    """Read the temperature of a place that meat is held at, such as ``4 °C``, ``40 °F`` or ``57 °C``, as C."""
    value = _celsius(text, field)
    if not -2 <= value <= 100:
        raise BadInput(field, "Meat is held between −2 and 100 °C (28 and 212 °F); write for example 4 °C or 40 °F.")
    return value


def parse_number(text: str, field: str, low: float, high: float, noun: str) -> float:
    """Read a plain number such as ``5``, ``4½`` or ``0.7`` between the two limits; `noun` names it in sentences."""
    plain = _plain(text, field)
    match = _NUMBER.fullmatch(plain)
    if match is None:
        raise BadInput(field, f"Write {noun} as a number, between {low:g} and {high:g}.")
    value = float(_number(match, field))
    if not low <= value <= high:
        raise BadInput(field, f"That is out of range: {noun} lies between {low:g} and {high:g}.")
    return value

"""What people type, read into canonical units.

The one place where people's units enter the core.
"""

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from types import MappingProxyType

from ravska_core.measure.measures import measures
from ravska_core.measure.numbers import number_at
from ravska_core.measure.quantities import phrase_at, quantity_at
from ravska_core.measure.tokens import Token, tokens_of
from ravska_core.units import KEEPING_DAYS, LENGTH_CM, MASS_G, TIME_S
from ravska_core.working import BadInput

_LONGEST = 40

LOWEST_PARTS, HIGHEST_PARTS = Fraction(1, 1000), Fraction(10_000)


def typed_tokens(text: str, field: str) -> tuple[Token, ...]:
    """Return what was typed as tokens; what is too long or can be read two ways is refused."""
    if len(text) > _LONGEST:
        raise BadInput(field, f"That is too long to be an amount; write it in at most {_LONGEST} characters.")
    if re.search(r"\d,\d{3}(?!\d)", text):
        raise BadInput(field, f"{text.strip()} can be read two ways; write it without the comma, as 1500 or 1.5.")
    return tokens_of(text.strip())


def _below_nothing(tokens: Sequence[Token]) -> bool:
    return bool(tokens) and tokens[0].text == "-"


def _one_number(tokens: Sequence[Token], field: str) -> Fraction | None:
    """Return the number that the tokens are and nothing else; the middle of a range is none."""
    if tokens and tokens[-1].text == "." and tokens[-1].glued:  # "5."
        tokens = tokens[:-1]
    try:
        found = number_at(tokens, 0)
    except BadInput as refusal:
        raise BadInput(field, refusal.sentence) from None
    if found is None or found[1] != len(tokens) or found[0].low != found[0].high or found[0].doubt:
        return None
    return found[0].low


def read_number(text: str, field: str) -> Fraction:
    """Read a bare number as people write it: ``2``, ``1½``, ``1 1/2``, ``0.5``, ``0,5``, ``two and a half``."""
    number = _one_number(typed_tokens(text, field), field)
    if number is None:
        raise BadInput(field, f"“{text.strip()}” is not a number; write for example 2, 1½, 1/8 or 0.5.")
    return number


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
    tokens = typed_tokens(text, field)
    if not tokens:
        raise BadInput(field, "Write how many parts, for example 2, 1½ or 1/8.")
    if _below_nothing(tokens):
        raise BadInput(field, "Parts cannot be below nothing; write a number above 0.")
    parts = _one_number(tokens, field)
    if parts is None:
        raise BadInput(field, f"“{text.strip()}” is not a number of parts; write for example 2, 1½, 1/8 or 0.5.")
    if parts == 0:
        raise BadInput(field, "0 parts is nothing; write a number above 0, or remove the line.")
    if not LOWEST_PARTS <= parts <= HIGHEST_PARTS:
        raise BadInput(field, "Parts lie between 1/1000 and 10,000; scale the whole ratio instead.")
    return parts.limit_denominator(1_000_000)


_SMALLER = MappingProxyType({"lb": "oz", "lbs": "oz", "pound": "oz", "pounds": "oz", "h": "min", "hour": "min",
                             "hours": "min", "hr": "min"})  # fmt: skip
"""What a bare number after a unit is of: "4 lb 6", "2 h 30"."""

_MORE = frozenset(", + and plus & und".split())  # noqa: SIM905


def summed(
    text: str, units: Mapping[str, Fraction], field: str, noun: str, example: str, bare: str | None = None,
    longest: bool = False,
) -> float:  # fmt: skip
    """Add up the amounts that a text is; every word of it must be one of theirs.

    A range counts with its middle, or as the longest it may be.
    """
    tokens = typed_tokens(text, field)
    if not tokens:
        raise BadInput(field, f"Write a {noun}, for example {example}.")
    if _below_nothing(tokens):
        raise BadInput(field, f"A {noun} cannot be below nothing; write for example {example}.")
    if units is LENGTH_CM and any(token.text == "x" for token in tokens):
        raise BadInput(field, f"Write one {noun} here, for example {example}.")
    total, at, last = Fraction(0), 0, bare
    while at < len(tokens):
        try:
            found = quantity_at(tokens, at, units)
        except BadInput as refusal:
            raise BadInput(field, refusal.sentence) from None
        if found is None:
            raise BadInput(field, f"“{text.strip()}” is no {noun} I can read; write for example {example}.")
        said, after = found
        factor = said.unit
        if factor is None and last is not None and after == len(tokens) and not said.number.doubt:
            factor = units[last]
        elif factor is None and after == len(tokens):
            raise BadInput(field, f"{text.strip()} of what? Add the unit, for example {example}.")
        elif factor is None:
            word = tokens[after].text
            raise BadInput(field, f"“{word}” is not a unit of {noun} I know; write for example {example}.")
        else:
            last = _SMALLER.get(tokens[after - 1].text)
        exact = (said.number.high if longest else said.number.middle) * factor
        total += exact if said.factor == 1 else exact * Fraction(said.factor)
        at = after
        while at < len(tokens) - 1 and tokens[at].text in _MORE:
            at += 1
        if at < len(tokens) and tokens[at].text == "." and at == len(tokens) - 1:
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
    value = summed(text, MASS_G, field, "weight", "2.3 kg or 5 lb 1 oz", bare)
    if not low_g <= value <= high_g:
        raise BadInput(field, f"A weight here lies between {low_g:g} g and {high_g / 1000:g} kg; check the unit.")
    return value


SAID_TIMES = MappingProxyType({"overnight": 12 * 3600.0, "over night": 12 * 3600.0, "uber nacht": 12 * 3600.0,
                           "all day": 10 * 3600.0, "a day and a night": 24 * 3600.0})  # fmt: skip
"""Times that are said without a number [s] (common practice, no source)."""


LONGEST_TIME_S = 7 * 86_400.0


def _time_s(text: str, field: str, longest: bool = False) -> float:
    tokens = typed_tokens(text, field)
    said = phrase_at(tokens, 0, SAID_TIMES)
    if said and said[1] == len(tokens):
        return SAID_TIMES[said[0]]
    return summed(text, TIME_S, field, "time", "45 min or 16 h", longest=longest)


def parse_duration_s(text: str, field: str = "hold", high_s: float = LONGEST_TIME_S) -> float:
    """Read a time such as ``16 h``, ``2 h 30``, ``half an hour`` or ``overnight`` as seconds, above 0 to `high_s`.

    Of a range such as ``2 to 3 hours`` the middle counts.
    """
    value = _time_s(text, field)
    if value <= 0:
        raise BadInput(field, "A time of 0 is no time; write for example 45 min or 16 h.")
    if value > high_s:
        raise BadInput(field, f"That is longer than {high_s / 86_400:g} days; write a shorter time.")
    return value


_NO_TIME = frozenset(
    ("0", "none", "no", "nothing", "not at all", "no hold", "no time", "not held", "straight on", "straight away",
     "straight onto the fire", "straight on the fire", "straight to the fire", "straight on the grill", "at once",
     "immediately", "right away", "directly", "keine", "sofort", "gar nicht")
)  # fmt: skip


def parse_hold_s(text: str, field: str = "hold") -> float:
    """Read how long something is held as seconds, as `parse_duration_s`, or 0 where it is not: ``none, straight on``.

    Of a range the longer counts: it is the one that the clocks of caution must hold for.
    """
    words = " ".join(token.text for token in typed_tokens(text, field) if token.text != ".")
    if words and all(part.strip() in _NO_TIME for part in words.split(",")):
        return 0.0
    value = _time_s(text, field, longest=True)
    if value > LONGEST_TIME_S:
        raise BadInput(field, "That is longer than 7 days; write a shorter time.")
    return value


_LONGEST_KEEPING_DAYS = 3650.0


def parse_keeping_days(text: str, field: str = "keeps") -> float:
    """Read how long something keeps, such as ``6 months`` or ``10 days``, as days between 1 and 3650."""
    value = summed(text, KEEPING_DAYS, field, "time", "10 days or 6 months")
    if not 1 <= value <= _LONGEST_KEEPING_DAYS:
        raise BadInput(field, "It keeps between a day and ten years; write for example 10 days or 6 months.")
    return value


def parse_length_cm(
    text: str, field: str = "length", low_cm: float = 0.2, high_cm: float = 200.0, bare: str | None = None
) -> float:
    """Read a length such as ``24 cm`` or ``9 1/2 in`` as centimetres between the two limits.

    A number without a unit is refused unless `bare` says which unit it then has.
    """
    value = summed(text, LENGTH_CM, field, "length", "25 mm" if bare == "mm" else "24 cm or 9½ in", bare)
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


@lru_cache(maxsize=1)
def _liquid_measures() -> tuple[Mapping[str, Fraction], Mapping[str, Fraction]]:
    """Return the measures of weight [g] and of volume [ml], by their names."""
    of_mass, of_volume = (
        MappingProxyType(
            {name: Fraction(one.amount) for name, one in measures().items() if one.kind == kind and not one.eyed}
        )
        for kind in ("g", "ml")
    )
    return of_mass, of_volume


def parse_amount(text: str, field: str, most: float = 20_000.0) -> Amount:
    """Read an amount of liquid such as ``120 ml``, ``half a cup`` or ``4 oz``; a bare number is ml, ``oz`` a weight."""
    example = "120 ml, ½ cup or 120 g"
    of_mass, of_volume = _liquid_measures()
    words = [token.text for token in typed_tokens(text, field)]
    fluid = re.search(r"\bfl(uid)?\b|\bfloz\b", " ".join(words)) is not None
    if not fluid and any(word in of_mass for word in words):
        value, unit = summed(text, of_mass, field, "amount", example), "g"
    else:
        value, unit = summed(text, of_volume, field, "amount", example, "ml"), "ml"
    if not 0 < value <= most:
        raise BadInput(field, f"An amount here lies above 0 and at most {most / 1000:g} litres; check the unit.")
    return Amount(value, unit)


_DEGREES = frozenset("° degree degrees deg grad".split())  # noqa: SIM905
_SCALES = MappingProxyType({"c": "c", "celsius": "c", "centigrade": "c", "f": "f", "fahrenheit": "f"})


_NO_UNITS: Mapping[str, Fraction] = MappingProxyType({})


def read_celsius(text: str, field: str, warmest: bool, asks: bool = False) -> float:
    """Read a temperature such as ``57 °C``, ``about 135 F`` or ``63 degrees`` as C; a bare number is C up to 100.

    Of a range the warmer end counts, or the colder. A bare number above that is F, or asked about.
    """
    tokens = typed_tokens(text, field)
    below = _below_nothing(tokens)
    words = list(tokens[1:] if below else tokens)
    scale = _SCALES.get(words[-1].text, "") if words else ""
    words = words[: len(words) - bool(scale)]
    words = words[:-1] if words and words[-1].text in _DEGREES else words
    found = quantity_at(words, 0, _NO_UNITS) if words else None
    if found is None or found[1] != len(words):
        raise BadInput(field, f"“{text.strip()}” is not a temperature; write for example 63 °C or 145 °F.")
    number = found[0].number
    value = float(number.high if warmest else number.low) * (-1 if below else 1)
    if asks and not scale and value > 100:
        raise BadInput(field, f"{value:g} of what? Write {value:g} °F or {value:g} °C.")
    return (value - 32) * 5 / 9 if scale == "f" or (not scale and value > 100) else value


def parse_temperature_c(text: str, field: str = "endpoint") -> float:
    """Read the temperature of a centre such as ``57 °C``, ``135 F`` or a bare number: up to 100 it is °C, above °F.

    Of a range the colder end counts: it is the one that cautions must hold for.
    """
    value = read_celsius(text, field, warmest=False)
    if not 30 <= value <= 100:
        raise BadInput(field, "A centre is done between 30 and 100 °C (86 and 212 °F); write for example 63 °C.")
    return value


def parse_held_c(text: str, field: str = "hold_c") -> float:
    """Read the temperature of a place that meat is held at, such as ``4 °C``, ``40 °F`` or ``57 °C``, as C.

    Of a range the warmer end counts: it is the one that cautions must hold for.
    """
    value = read_celsius(text, field, warmest=True)
    if not -2 <= value <= 100:
        raise BadInput(field, "Meat is held between −2 and 100 °C (28 and 212 °F); write for example 4 °C or 40 °F.")
    return value


def parse_number(text: str, field: str, low: float, high: float, noun: str) -> float:
    """Read a plain number such as ``5``, ``4½`` or ``0.7`` between the two limits; `noun` names it in sentences."""
    number = _one_number(typed_tokens(text, field), field)
    if number is None:
        raise BadInput(field, f"Write {noun} as a number, between {low:g} and {high:g}.")
    value = float(number)
    if not low <= value <= high:
        raise BadInput(field, f"That is out of range: {noun} lies between {low:g} and {high:g}.")
    return value

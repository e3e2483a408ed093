"""Heat and times at a fire, grates and heights, as people write them."""

import math
import re

from ravska_core.measure.amounts import (
    LONGEST_TIME_S,
    SAID_TIMES,
    parse_length_cm,
    parse_number,
    read_celsius,
    summed,
    typed_tokens,
)
from ravska_core.measure.quantities import phrase_at
from ravska_core.units import PHASE_S
from ravska_core.working import BadInput

MOST_SPOTS = 12
"""So many places of a grate are measured at most."""

_DEGREES = re.compile(r"(.+?)\s*(?:°|degrees?)?\s*([cfCF])?", re.DOTALL)


def parse_fire_c(text: str, field: str = "aimed") -> tuple[float, float]:
    """Read the heat of a fire such as ``225 °F``, ``107 °C`` or ``225 to 250 F`` as C, its lower and its upper end.

    A bare number above 100 is asked about: a fire may well be of so many degrees in either scale.
    """
    low, high = (read_celsius(text, field, warmest, asks=True) for warmest in (False, True))
    if not -5 <= low <= high <= 500:
        raise BadInput(field, "A fire is between −5 and 500 °C (23 and 932 °F); check the number and its scale.")
    return low, high


def parse_read_c(text: str, field: str = "celsius") -> float:
    """Read what a thermometer shows, such as ``72 °C`` or ``160 F``, as C; a bare number above 100 is asked about."""
    value = read_celsius(text, field, warmest=False, asks=True)
    if not -40 <= value <= 600:
        raise BadInput(field, "A thermometer shows between −40 and 600 °C (−40 and 1112 °F); check the number.")
    return value


def parse_phase_s(text: str, field: str = "lasts") -> float:
    """Read how long something is at the heat, such as ``45 s``, ``1 min`` or ``2 h 30``, as seconds above 0."""
    tokens = typed_tokens(text, field)
    said = phrase_at(tokens, 0, SAID_TIMES)
    if said and said[1] == len(tokens):
        return SAID_TIMES[said[0]]
    value = summed(text, PHASE_S, field, "time", "45 s, 20 min or 2 h 30")
    if not 0 < value <= LONGEST_TIME_S:
        raise BadInput(field, "A time here is more than nothing and at most 7 days; write for example 45 s or 2 h 30.")
    return value


def parse_sears_s(text: str, field: str = "sears") -> tuple[float, ...]:
    """Read how long each face is at the heat, one after another: ``60 s, 60 s, 20 s`` or ``1 min a side``."""
    words = " ".join(text.split())
    for ending in (" a side", " each side", " per side", " a face", " each face", " each"):
        if words.lower().endswith(ending):
            return (parse_phase_s(words[: -len(ending)], field),) * 2
    return tuple(parse_phase_s(part, field) for part in words.replace(" and ", ", ").split(",") if part.strip())


def parse_hotter_k(text: str, field: str = "hotter") -> float:
    """Read how much hotter one side is, such as ``25 °C`` or ``45 °F``, as a difference [K]."""
    found = _DEGREES.fullmatch(text.strip())
    assert found is not None or not text.strip()
    if found is None or not found[2]:
        raise BadInput(field, "Write how many degrees hotter, with the scale: 25 °C or 45 °F.")
    value = parse_number(found[1], field, 0, 400, "a difference in degrees")
    return value / 1.8 if found[2] in "fF" else value


def parse_spots_c(text: str, field: str = "spots") -> tuple[float, ...]:
    """Read what was measured over a grate, such as ``108, 115 and 131 °C``, a temperature a place [C]."""
    parts = [part.strip() for part in re.split(r"[,;]|\band\b", text) if part.strip()]
    if len(parts) < 2 or len(parts) > MOST_SPOTS:
        raise BadInput(field, f"Write two to {MOST_SPOTS} temperatures, one a place: 108, 115 and 131 °C.")
    scale = next((part[-1] for part in reversed(parts) if part[-1] in "cfCF"), "")
    whole = [part if part[-1] in "cfCF" else f"{part} {scale}".strip() for part in parts]
    return tuple(parse_fire_c(part, field)[1] for part in whole)


def parse_grate_cm2(text: str, field: str = "grate") -> float:
    """Read how large a grate is, such as ``57 cm`` across where it is round, or ``45 x 60 cm``, as its area [cm2]."""
    sides = [side.strip() for side in re.split(r"[x×*]|\bby\b", text) if side.strip()]
    if len(sides) not in (1, 2):
        raise BadInput(field, "Write 57 cm for a round grate, or 45 x 60 cm.")
    unit = re.search(r"[a-z\"]+\.?$", sides[-1].lower())
    if unit is None:
        raise BadInput(field, f"{text.strip()} of what? Add the unit: 57 cm, or 45 x 60 cm.")
    lengths = [
        parse_length_cm(side if re.search(r"[a-z\"]", side.lower()) else f"{side} {unit[0]}", field, 5, 300)
        for side in sides
    ]
    return math.pi / 4 * lengths[0] ** 2 if len(lengths) == 1 else lengths[0] * lengths[1]


def parse_height_m(text: str, field: str = "height") -> float:
    """Read how high above the sea a place is, such as ``650 m`` or ``2,100 ft``, in metres."""
    if text.strip() in ("0", "none"):
        return 0.0
    sentence = "A kitchen lies between the sea and 5,500 m (18,000 ft) above it; write for example 650 m."
    try:
        return parse_length_cm(text.replace(",", ""), field, 0, 550_000) / 100
    except BadInput as refusal:
        raise BadInput(field, sentence if "lies between" in refusal.sentence else refusal.sentence) from None

"""Weights of several pieces, as people write them one after another."""

import re
from functools import lru_cache

from ravska_core.measure.amounts import parse_mass_g
from ravska_core.working import BadInput

MOST_WEIGHTS = 24
"""So many pieces are weighed one by one at most."""

_BETWEEN = re.compile(
    r"\s*(?:;|\+|&|\n|,(?!\d)|\b(?:and|und)\b(?!\s+(?:(?:an?|one|three)\s+)?(?:half|quarter|quarters|third|bit|½|¼|¾)))"
    r"\s*(?:(?:and|und)\s+)?",
    re.IGNORECASE,
)
"""What stands between two weights; “two and a half kg” is one."""
_TIMES = re.compile(r"(\d{1,2})\s*(?:x|×|\*|times|of)\s*(.+)", re.IGNORECASE)
_EACH = re.compile(r"(.+?)\s*,?\s*(?:each|a piece|apiece|per piece)\.?", re.IGNORECASE)
_UNIT = re.compile(r"[a-zäöü]+\.?\s*$", re.IGNORECASE)
_LARGE, _SMALL = ("kg", "kilo", "kilos", "kilogram", "kilograms", "lb", "lbs", "pound", "pounds"), (
    "g", "gram", "grams", "gr", "oz", "ounce", "ounces", ""
)  # fmt: skip


def _unit(part: str) -> str:
    found = _UNIT.search(part)
    return found[0].strip().rstrip(".").lower() if found else ""


def _one_weight(parts: list[str]) -> bool:
    """Tell whether two parts are one weight in two units, as ``4 lb, 6 oz`` and ``1 kg and 200 g`` are."""
    if len(parts) != 2:
        return False
    whole = re.fullmatch(r"\d+\s*[a-zäöü]+\.?", parts[0], re.IGNORECASE)
    return bool(whole) and _unit(parts[0]) in _LARGE and _unit(parts[1]) in _SMALL


@lru_cache(maxsize=2048)
def parse_masses_g(text: str, count: int = 1, field: str = "mass") -> tuple[float, ...]:
    """Read what one or several pieces weigh: ``2.3 kg``, ``620, 580, 710 and 640 g``, ``2 x 600 g``, ``600 g each``.

    Parameters
    ----------
    count : int
        How many pieces there are, for a weight that is each one's; and two weights are those of two pieces, where they
        may also be one in two units.

    Returns
    -------
    tuple of float
        The weight of all together [g] by itself; or that of each, of two or more.

    Raises
    ------
    BadInput
        At `field`.
    """
    each = _EACH.fullmatch(text.strip())
    if each is not None:
        return (parse_mass_g(each[1], field),) * max(1, min(count, MOST_WEIGHTS))
    parts = [part for part in _BETWEEN.split(text.strip()) if part]
    if len(parts) < 2 and _TIMES.fullmatch(text.strip()) is None:
        return (parse_mass_g(text, field),)
    if _one_weight(parts) and count != 2:
        return (parse_mass_g(text, field),)
    found: list[float] = []
    unit = next((_unit(part) for part in reversed(parts) if _unit(part)), "")
    for part in parts:
        times = _TIMES.fullmatch(part)
        said, often = (times[2], int(times[1])) if times else (part, 1)
        # what is written without a unit has that of the last: 620, 580 and 640 g
        found += [parse_mass_g(said if _unit(said) else f"{said} {unit}".strip(), field)] * max(1, often)
    if len(found) > MOST_WEIGHTS:
        raise BadInput(field, f"At most {MOST_WEIGHTS} pieces are weighed one by one; write what they weigh together.")
    return tuple(found)

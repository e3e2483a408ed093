"""Spoons: volumes as the fewest level spoonfuls, the way people write them."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from ravska_core.units import US_TEASPOON_ML
from ravska_core.working import Figure, Step

_SIGNS = {3: "⅛", 6: "¼", 8: "⅓", 9: "⅜", 12: "½", 15: "⅝", 16: "⅔", 18: "¾", 21: "⅞"}
"""Fractions as people write them, by twenty-fourths."""


@dataclass(frozen=True)
class Spoon:
    """A measure: its name as written, the fraction of it this one is, and its volume [ml]."""

    name: str
    fraction: float
    volume_ml: float


@dataclass(frozen=True, eq=False)  # one of a kind: looked up by identity
class SpoonSet:
    """The measures a cook owns, largest first."""

    key: str
    title: str
    spoons: tuple[Spoon, ...]


def _set(key: str, title: str, cup_ml: float, tablespoon_ml: float, teaspoon_ml: float) -> SpoonSet:
    spoons = [
        *(Spoon("cup", f, cup_ml * f) for f in (1, 0.5, 1 / 3, 0.25)),
        Spoon("tbsp", 1, tablespoon_ml),
        *(Spoon("tsp", f, teaspoon_ml * f) for f in (1, 0.5, 0.25, 0.125)),
        Spoon("pinch", 1, teaspoon_ml / 16),
    ]
    return SpoonSet(key, title, tuple(sorted(spoons, key=lambda s: -s.volume_ml)))


SPOON_SETS = {
    "us": _set("us", "US customary", 48 * US_TEASPOON_ML, 3 * US_TEASPOON_ML, US_TEASPOON_ML),
    "metric": _set("metric", "Metric, 15 and 5 ml", 250, 15, 5),
    "australian": _set("australian", "Australian, 20 and 5 ml", 250, 20, 5),
}


def spoon_name(spoon: Spoon) -> str:
    """Return a measure as people call it: ``½ tsp``, ``cup``."""
    return spoon.name if spoon.fraction == 1 else f"{_SIGNS[round(spoon.fraction * 24)]} {spoon.name}"


@lru_cache(maxsize=256)
def own_spoons(key: str, lacking: frozenset[str] = frozenset()) -> SpoonSet:
    """Return a set of spoons less those a cook does not own, by name; one measure always stays.

    Raises
    ------
    KeyError
        For a set that is none of `SPOON_SETS`.
    """
    whole = SPOON_SETS[key]
    owned = tuple(spoon for spoon in whole.spoons if spoon_name(spoon) not in lacking)
    if len(owned) == len(whole.spoons) or not owned:
        return whole
    return SpoonSet(f"{key} less {', '.join(sorted(lacking))}", whole.title, owned)


@dataclass(frozen=True)
class Spoonfuls:
    """A volume measured out: words such as ``2 tbsp + 1½ tsp``, what they hold, how many scoops.

    `error` is that of the rounding: (measured - wanted) / wanted; `volume` [ml] says so in its working.
    """

    text: str
    volume_ml: float
    count: int
    error: float
    volume: Figure


def _measured(text: str, held_ml: float, count: int, wanted_ml: float) -> Spoonfuls:
    error = held_ml / wanted_ml - 1 if wanted_ml > 0 else 0.0
    steps = (
        Step("Wanted", "mass / level density", wanted_ml, "ml"),
        Step("Measured out", text, held_ml, "ml", "nist-units"),
        Step("Rounding", "measured / wanted − 1", error * 100, "%"),
    )
    said = f"rounding {error * 100:+.1f} %, and ±10 % of a level spoon"
    return Spoonfuls(text, held_ml, count, error, Figure(held_ml, "ml", said, steps, None, None))


def _words(spoons: Sequence[Spoon]) -> str:
    """Write spoonfuls as people do: wholes with their largest fraction, ``2½ tsp + ⅛ tsp``."""
    words = []
    for name in dict.fromkeys(spoon.name for spoon in spoons):
        fractions = [spoon.fraction for spoon in spoons if spoon.name == name]
        whole = sum(1 for fraction in fractions if fraction == 1)
        parts = [fraction for fraction in fractions if fraction != 1]
        if len(parts) > 1 and round(sum(parts) * 24) in _SIGNS:  # ½ and ¼ are said as ¾
            parts = [sum(parts)]
        first = _SIGNS[round(parts[0] * 24)] if parts else ""
        plural = {"cup": "s", "pinch": "es"}.get(name, "") if whole > 1 or (whole and parts) else ""
        words.append(f"{whole or ''}{first} {name}{plural}")
        words += [f"{_SIGNS[round(part * 24)]} {name}" for part in parts[1:]]
    return " + ".join(words)


@lru_cache(maxsize=4096)
def measure_out(volume_ml: float, owned: SpoonSet = SPOON_SETS["us"], tolerance: float = 0.04) -> Spoonfuls:
    """Determine the fewest level spoonfuls that hold a volume.

    Greedy from the largest measure, tried from every starting measure, keeps the fewest
    spoonfuls whose error lies within the tolerance, or else the closest.

    Parameters
    ----------
    volume_ml : float
        Wanted volume [ml].
    owned : SpoonSet
        The measures to take.
    tolerance : float
        Relative rounding error that is accepted to save spoonfuls.

    Returns
    -------
    Spoonfuls
        With the relative error the rounding makes.

    References
    ----------
    NIST Handbook 44, appendix C, for the US measures.
    """
    spoons = owned.spoons
    smallest = spoons[-1].volume_ml
    if volume_ml < smallest / 2:
        return _measured("less than a pinch", 0.0, 0, volume_ml)
    # ranked: outside the tolerance and by how much, how many, by how much within it
    best: tuple[bool, float, float, float] = (True, math.inf, math.inf, math.inf)
    chosen = [spoons[0]] * max(1, round(volume_ml / spoons[0].volume_ml))

    def rank(held_ml: float, count: int) -> tuple[bool, float, float, float]:
        # the last digits of a sum of volumes say nothing: equal ones go to the fewest spoonfuls
        error = round(abs(held_ml / volume_ml - 1), 6)
        outside = error > tolerance + 1e-9
        return outside, error if outside else 0.0, count, error

    for start, largest in enumerate(spoons):
        taken: list[Spoon] = []
        held, left = 0.0, volume_ml
        # one that is too large for it alone is tried alone; what follows it begins with the next one
        for spoon in spoons[start : start + 1] if largest.volume_ml > volume_ml * (1 + 1e-9) else spoons[start:]:
            whole = int(left / spoon.volume_ml + 1e-9)
            # one kind of measure is counted out dozens of times by nobody; a larger start covers it
            if whole > 12:
                break
            if whole:
                taken += [spoon] * whole
                held += whole * spoon.volume_ml
                left -= whole * spoon.volume_ml
                found = rank(held, len(taken))
                if found < best:
                    best, chosen = found, [*taken]
            if not best[0] and len(taken) >= best[2]:
                break  # within the tolerance already with as few: more spoonfuls are no better
            found = rank(held + spoon.volume_ml, len(taken) + 1)
            if found < best:
                best, chosen = found, [*taken, spoon]
    held = sum(spoon.volume_ml for spoon in chosen)
    return _measured(_words(chosen), held, len(chosen), volume_ml)

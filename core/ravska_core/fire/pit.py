"""The pit: its band, the dips below it, and when the fire wants more fuel. Times in s from when the fire began."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ravska_core.heat import Cooker, Phase, Seen, by_minute

_BAND_K, _BAND_SHARE = 8.0, 0.08
"""What will do where nobody said a band: so far to each side of what is aimed at, or that share of it (estimate)."""

_LEAST_DIP_S, _JOINED_S = 180.0, 300.0
OUT_FOR_S = 300.0
"""The pit is out of its band when it has been so for so long [s]."""

_LASTS_S = {"charcoal": 75 * 60.0, "wood": 45 * 60.0, "pellets": 8 * 3600.0}
"""How long fuel usually lasts in an open cook's fire until more goes on [s] (common practice, no source)."""


@dataclass(frozen=True)
class Dip:
    """A time below the band: from when to when [s], how low it went and how low its band goes [°C]; still so or not."""

    from_s: float
    to_s: float
    lowest_c: float
    band_c: float
    goes_on: bool


def band_of(phase: Phase) -> tuple[float, float]:
    """Return the band that will do [°C]: as it was said, else a little to each side of what is aimed at."""
    if phase.low_c is not None and phase.high_c is not None:
        return phase.low_c, phase.high_c
    wide = max(_BAND_K, _BAND_SHARE * phase.aimed_c)
    return phase.aimed_c - wide, phase.aimed_c + wide


def dips_of(pit: Seen, low_c: float, since_s: float, now_s: float) -> tuple[Dip, ...]:
    """Return the times of three minutes or more that the pit was below its band, since it was first in it."""
    times, celsius = by_minute(pit)
    inside = np.flatnonzero((celsius >= low_c) & (times >= since_s))
    if not len(inside):
        return ()
    found: list[list[float]] = []
    for at in range(int(inside[0]), len(times)):
        if celsius[at] >= low_c:
            continue
        begins = times[at - 1] if at else times[at]
        ends = times[at + 1] if at + 1 < len(times) else max(times[at], min(now_s, times[at] + 60))
        if found and begins - found[-1][1] <= _JOINED_S:
            found[-1][1], found[-1][2] = ends, min(found[-1][2], celsius[at])
        else:
            found.append([begins, ends, celsius[at]])
    last = float(times[-1])
    return tuple(
        Dip(float(begins), float(ends), float(lowest), low_c, bool(ends >= last and celsius[-1] < low_c))
        for begins, ends, lowest in found
        if ends - begins >= _LEAST_DIP_S
    )


def out_since(pit: Seen, low_c: float, high_c: float, now_s: float) -> tuple[float, bool] | None:
    """Return since when the pit has been out of its band, and whether it is above it; None where it is in it."""
    times, celsius = by_minute(pit)
    if not len(times) or low_c <= celsius[-1] <= high_c:
        return None
    above = bool(celsius[-1] > high_c)
    out = celsius > high_c if above else celsius < low_c
    last = np.flatnonzero(~out)
    since = float(times[last[-1]]) if len(last) else float(times[0])
    return (since, above) if now_s - since >= OUT_FOR_S else None


def filled(pit: Seen, dips: Sequence[Dip], fire_c: float) -> Seen:
    """Return the pit as it would have been without its dips: as hot as it is expected to be."""
    celsius = [
        max(value, fire_c) if any(dip.from_s <= time <= dip.to_s for dip in dips) else value
        for time, value in zip(pit.times_s, pit.celsius, strict=True)
    ]
    return Seen(pit.times_s, tuple(celsius))


@dataclass(frozen=True)
class FuelDue:
    """When the next fuel is due [s], and what that is judged by; none for a fire that is not fed."""

    at_s: float
    every_s: float
    says: str


def fuel_due(cooker: Cooker, fed_s: Sequence[float], began_s: float) -> FuelDue | None:
    """Tell when the next fuel is due: by how far apart it went on so far, as is usual for the fuel before that."""
    usual = next((lasts for fuel, lasts in _LASTS_S.items() if fuel in cooker.fuel_unit), None)
    if usual is None:
        return None
    times = sorted(fed_s)
    gaps = np.diff([began_s, *times])
    gaps = gaps[gaps > 300]
    if len(gaps) >= 2:
        every = float(np.median(gaps[-4:]))
        says = "as far apart as it went on so far"
    else:
        every, says = usual, "as is usual for this fuel (common practice, no source)"
    return FuelDue((times[-1] if times else began_s) + every, every, says)

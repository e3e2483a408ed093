"""What readings tell of their probes: dead, out of the meat, slipping, swapped; and which readings not to go by."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ravska_core.heat import Seen, by_minute

Array = NDArray[np.float64]

DEAD_S, _USUAL_GAPS = 120.0, 6.0
"""A probe is dead that has said nothing for so long, or for so many times its usual gap [s]."""

_JUMP_K, _FASTEST_K_MIN, _MOST_RISE_K = 12.0, 3.0, 25.0
_DROP_K, _JUMP_MIN, _MOST_DROPS = 4.0, 3.0, 3.0
"""How much a centre rises at once, by the minute and at most, and how much it falls in three minutes (estimates)."""

_NEAR_PIT_K, _SETTLED_MIN = 12.0, 30.0

_SWAP_K, _ALIKE_K = 5.0, 2.0


@dataclass(frozen=True)
class Fault:
    """A probe that is not to be gone by: what is wrong with it, since when [s], and what to do."""

    kind: str
    since_s: float
    says: str


def fault_of(centre: Seen, pit: Seen, now_s: float, dead_s: float = DEAD_S) -> Fault | None:
    """Say what is wrong with a centre's probe now; None where nothing seems to be.

    It is dead when it is silent; out of the meat when it jumped up to where the pit is, slipping when it jumped or fell
    as no centre does. A lid, a wrap or a spritz moves a centre by less than that.
    """
    silent = silent_since(centre, now_s, dead_s)
    if silent is not None:
        return Fault("dead", silent, "Silent: see to its plug, its battery and its link.")
    times, celsius = by_minute(centre)
    around = _around(times, pit)
    good = _plausible(times, celsius, around)
    if not len(times) or good[-1]:
        return None
    since = float(times[np.flatnonzero(good)[-1] + 1])
    if abs(celsius[-1] - around[-1]) <= _NEAR_PIT_K:
        return Fault("out", since, "It shows what the pit has: it is out of the meat. Put it back.")
    return Fault("slipping", since, "It jumped as no centre does: it has slipped. Put it back to the middle.")


def _around(times: Array, pit: Seen) -> Array:
    pit_times, pits = by_minute(pit)
    return np.interp(times, pit_times, pits) if len(pit_times) else np.full(len(times), np.inf)


def _plausible(times: Array, celsius: Array, around: Array) -> NDArray[np.bool_]:
    """Tell which minutes a centre can have come to from the last one that it could.

    What has stayed away for half an hour is where it is, unless that is as hot as the pit.
    """
    good = np.ones(len(times), bool)
    level, since = (celsius[0], times[0]) if len(times) else (0.0, 0.0)
    for at in range(1, len(times)):
        minutes = (times[at] - since) / 60
        change = celsius[at] - level
        least = -_DROP_K * min(max(1.0, minutes / _JUMP_MIN), _MOST_DROPS)
        most = max(_JUMP_K, min(_FASTEST_K_MIN * minutes, _MOST_RISE_K))
        settled = minutes > _SETTLED_MIN and abs(celsius[at] - around[at]) > _NEAR_PIT_K
        good[at] = least <= change <= most or settled
        if good[at]:
            level, since = celsius[at], times[at]
    return good


def silent_since(seen: Seen, now_s: float, dead_s: float = DEAD_S) -> float | None:
    """Return since when a probe has been silent that spoke before [s]; None where it speaks."""
    times = seen.times_s
    if not times:
        return None
    gaps = np.diff(times[-20:])
    usual = float(np.median(gaps)) if len(gaps) else 0.0
    return times[-1] if now_s - times[-1] > max(dead_s, _USUAL_GAPS * usual) else None


def without_faults(centre: Seen, pit: Seen) -> Seen:
    """Return readings to go by: none of the minutes that no centre could have come to."""
    times, celsius = by_minute(centre)
    good = _plausible(times, celsius, _around(times, pit))
    if good.all():
        return centre
    bad = {int(one // 60) for one in times[~good]}
    kept = [at for at, time in enumerate(centre.times_s) if int(time // 60) not in bad]
    return Seen(tuple(centre.times_s[at] for at in kept), tuple(centre.celsius[at] for at in kept))


def swapped(centres: Mapping[str, Seen], now_s: float) -> tuple[str, str, float] | None:
    """Return two pieces whose probes changed places within the last half hour, and when [s]."""
    names = list(centres)
    rows = {name: by_minute(Seen(*_recent(seen, now_s))) for name, seen in centres.items()}
    for at, first in enumerate(names):
        for second in names[at + 1 :]:
            found = _swap(*rows[first], *rows[second])
            if found is not None:
                return first, second, found
    return None


def _recent(seen: Seen, now_s: float) -> tuple[tuple[float, ...], tuple[float, ...]]:
    kept = [at for at, time in enumerate(seen.times_s) if time > now_s - 1800]
    return tuple(seen.times_s[at] for at in kept), tuple(seen.celsius[at] for at in kept)


def _swap(times: Array, one: Array, other_times: Array, other: Array) -> float | None:
    if len(times) < 3 or len(other_times) < 3:
        return None
    there = np.interp(times, other_times, other)
    for at in range(1, len(times)):
        for gap in (1, 2, 3):
            if at - gap < 0:
                continue
            apart = abs(one[at - gap] - there[at - gap])
            if (
                apart > _SWAP_K
                and abs(one[at] - there[at - gap]) < _ALIKE_K
                and abs(there[at] - one[at - gap]) < _ALIKE_K
                # and they stay so
                and abs(one[-1] - there[at - gap]) < apart / 2 + _ALIKE_K
            ):
                return float(times[at])
    return None


def offset_says(offset_s: float) -> str:
    """Say how wrong a device's clock is; empty where it is right to within five seconds."""
    if abs(offset_s) < 5:
        return ""
    amount = f"{abs(offset_s):.0f} s" if abs(offset_s) < 120 else f"{abs(offset_s) / 60:.0f} min"
    way = "fast" if offset_s > 0 else "slow"
    return f"Its clock is {amount} {way}; its readings are told by this server's."


def rate_k_h(seen: Seen, now_s: float, over_s: float = 1800.0) -> float | None:
    """Return how fast a temperature rises [K/h]: the slope through the last half hour; None from too few readings.

    Of what is read now and then two that are ten minutes apart will do.
    """
    times, celsius = by_minute(seen)
    near = times > now_s - over_s
    if near.sum() < 2 or np.ptp(times[near]) < (240 if near.sum() > 2 else 600):
        return None
    return float(np.polyfit(times[near], celsius[near], 1)[0] * 3600)


def shown_now(seen: Seen, now_s: float, dead_s: float = DEAD_S) -> float | None:
    """Return what a probe shows now: the median of its last minute with readings; None once it is silent."""
    if not seen.times_s or silent_since(seen, now_s, dead_s) is not None:
        return None
    return float(np.median([c for t, c in zip(seen.times_s, seen.celsius, strict=True) if t > seen.times_s[-1] - 30]))

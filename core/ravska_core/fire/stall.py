"""The stall: the centre hardly rises although the fire is hot, as the water that comes out of the meat cools it."""

import numpy as np

from ravska_core.heat import Seen, by_minute

_FROM_C, _TO_C = 55.0, 85.0
_SLOW_K_H, _SHARE, _OVER_S = 5.0, 0.45, 1800.0
"""A stall is slower than this, and than that share of the fastest so far, over half an hour (estimates)."""

_PIT_ABOVE_K = 20.0


def stall_since(centre: Seen, now_s: float, pit_c: float | None, wrapped: bool) -> float | None:
    """Return since when a centre has been stalling [s]; None where it is not.

    A fire that has gone out is none, nor is meat in a wrap.
    """
    times, celsius = by_minute(centre)
    if wrapped or len(times) < 30 or now_s - times[-1] > 600:
        return None
    now_c = float(celsius[-1])
    if not _FROM_C <= now_c <= _TO_C or (pit_c is not None and pit_c < now_c + _PIT_ABOVE_K):
        return None
    grid = np.arange(times[0] + _OVER_S, times[-1] + 1, 60.0)
    if len(grid) < 2:
        return None
    smooth = np.interp(grid, times, celsius), np.interp(grid - _OVER_S, times, celsius)
    rates = (smooth[0] - smooth[1]) * 3600 / _OVER_S
    slow = (rates < min(_SLOW_K_H, _SHARE * float(rates.max()))) & (smooth[0] >= _FROM_C)
    if not slow[-1]:
        return None
    fast = np.flatnonzero(~slow)
    begun = grid[fast[-1] + 1] if len(fast) else grid[0]
    # it began within the half hour that the first slow rate is over
    return float(max(times[0], begun - _OVER_S / 2))

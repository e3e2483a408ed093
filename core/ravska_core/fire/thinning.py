"""Thinning: which readings of a probe stay when a household asks for less. Extremes and what is near an event stay."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

_STRETCH_S, _ROUND_S = 60.0, 120.0
"""Of each so long the lowest and the highest stay, and all that lies so near an event [s]."""


def stay(times_s: NDArray[np.float64], celsius: NDArray[np.float64], events_s: Sequence[float]) -> NDArray[np.bool_]:
    """Tell which readings stay: of each minute the lowest and the highest, the first and the last, all round events."""
    keeps = np.zeros(len(times_s), bool)
    if not len(times_s):
        return keeps
    keeps[[int(np.argmin(times_s)), int(np.argmax(times_s))]] = True
    minute = (times_s // _STRETCH_S).astype(int)
    order = np.lexsort((celsius, minute))
    edges = np.flatnonzero(np.diff(minute[order]))
    keeps[order[np.concatenate(([0], edges + 1))]] = True
    keeps[order[np.concatenate((edges, [len(order) - 1]))]] = True
    for event in events_s:
        keeps |= np.abs(times_s - event) <= _ROUND_S
    return keeps

"""What of a coat turns bitter, phase by phase: its surface against what each ingredient stands."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

LEAST_S, LEAST_SHARE, COARSE_MM = 20.0, 0.02, 1.5
"""What stands its heat for less [s], or is less of the coat, is not told; grains from here on stand off iron [mm]
(estimates)."""

_SHIELDED, _BETWEEN = 0.5, 0.5
"""Wetness of a surface above which what lies on it is kept from burning; how far from the meat's heat to the iron's
what lies between them is, fine as it is (estimates)."""


@dataclass(frozen=True)
class Coated:
    """An ingredient of what lies on the meat: where it turns bitter [°C], its share of the coat, its grain [mm]."""

    name: str
    scorch_c: float
    share: float
    grain_mm: float


@dataclass(frozen=True)
class Scorched:
    """An ingredient that turns bitter in a phase: for how long it is too hot [s], how hot it gets [°C], and why."""

    name: str
    lasts_s: float
    celsius: float
    scorch_c: float
    on_iron: bool


def scorching(
    coat: Sequence[Coated], times_s: Array, surface: Array, wet: Array, iron_c: float | None
) -> tuple[Scorched, ...]:
    """Determine what of a coat is too hot for longer than it stands, the worst first.

    Parameters
    ----------
    surface : array
        The hottest side's temperature at each time [°C].
    wet : array
        How wet the surface is at each time, 0 to 1; above a half water keeps what lies on it cool.
    iron_c : float
        Heat of the iron that coarse grains stand on [°C]; None where there is none.
    """
    lasts = np.diff(times_s, append=times_s[-1:])
    found = []
    for one in coat:
        if one.share < LEAST_SHARE:
            continue
        stands = iron_c is not None and one.grain_mm >= COARSE_MM
        heat = surface
        if iron_c is not None:
            heat = surface + (iron_c - surface) * (1.0 if stands else _BETWEEN)
        over = (heat >= one.scorch_c) & ((wet < _SHIELDED) if iron_c is None else True)
        seconds = float(lasts[over].sum())
        if seconds >= LEAST_S:
            found.append(Scorched(one.name, seconds, float(heat[over].max()), one.scorch_c, stands))
    return tuple(sorted(found, key=lambda one: one.scorch_c - one.celsius))

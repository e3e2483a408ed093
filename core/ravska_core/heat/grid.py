"""Cells from the surface to the centre, and the pace a run goes at."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

CELLS, _GROWTH = 12, 1.08
"""Cells between a surface and the centre, and how much wider each is than the one before it."""

_DIFFUSIVITY = 1.3e-7
"""Meat's thermal diffusivity, for the size of steps alone [m2/s]."""

GROWS, _LONGEST_S = 1.15, 240.0
"""How much longer each step of time is than the one before it, and the longest [s]."""

THROUGH_MOST = 0.8
"""Most that the exponent of a whole column is at its middle, where it would close up otherwise."""


@dataclass(frozen=True)
class Cells:
    """Cells of draws, a row each: half depths [m], volumes [m3/m2 of surface], links to the next cell and of the first
    [1/m].

    `inmost` is how much of the last difference the centre lies beyond the inmost middle, by a straight line in r^2.
    `middles` are the depths of the middles [m].
    """

    half_m: Array
    volumes: Array
    links: Array
    first: Array
    inmost: Array
    middles: Array


@lru_cache(maxsize=8)
def _edges(cells: int) -> Array:
    widths = _GROWTH ** np.arange(cells)
    return np.minimum(np.concatenate(([0.0], np.cumsum(widths) / widths.sum())), 1.0)


def cells_of(half_m: Array, exponent: Array, cells: int, sides: int) -> Cells:
    """Return the cells of draws of half depths [m] and exponents; of both sides' columns where there are two."""
    edges = _edges(cells)
    inside = 1 - edges
    power = exponent[:, None] + 1
    volumes = half_m[:, None] / power * (inside[:-1] ** power - inside[1:] ** power)
    middles = (edges[1:] + edges[:-1]) / 2 * half_m[:, None]
    links = inside[1:-1] ** exponent[:, None] / (middles[:, 1:] - middles[:, :-1])
    r2 = (half_m[:, None] - middles) ** 2
    inmost = r2[:, -1] / (r2[:, -2] - r2[:, -1])
    if sides == 2:
        # what is between the two inmost middles: the integral of dr / |r|^m through the centre
        least = 1 - np.minimum(exponent, THROUGH_MOST)
        through = least / (2 * ((half_m - middles[:, -1]) / half_m) ** least * half_m)
        volumes = np.concatenate((volumes, volumes[:, ::-1]), axis=1)
        links = np.concatenate((links, through[:, None], links[:, ::-1]), axis=1)
        middles = np.concatenate((middles, 2 * half_m[:, None] - middles[:, ::-1]), axis=1)
    return Cells(half_m, volumes, links, 1 / middles[:, 0], inmost, middles)


def pace_of(half_m: Array) -> tuple[Array, Array]:
    """Return the first step of a leg and the longest one, of each draw [s].

    tau / 5000 and min(240 s, max(tau / 62, 45 s)), tau = R^2 / 1.3e-7 m2/s; each step is 15 % longer than the last.
    """
    tau = half_m**2 / _DIFFUSIVITY
    longest: Array = np.minimum(_LONGEST_S, np.maximum(tau / 62, 45.0))
    return np.minimum(longest, tau / 5000), longest

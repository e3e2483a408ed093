"""A column of meat from its seasoned surface to the centre, and what diffuses in it.

Finite volumes below 1 cm2 of surface. The area shrinks towards the centre as (r/R)^m, so that a sheet (m 0), a log
(1), a ball (2) and a real joint between them all keep their volume for their surface. Several solutes, one for
each layer of seasoning, move by the same diffusion side by side, so that salt can be told by the layer it came from.
"""

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import eigh_tridiagonal

Array = NDArray[np.float64]

_FIRST_CM, _CELLS = 0.0012, 66
"""Width of the cell at the surface [cm], fine enough for a wash of a minute (2 sqrt(Dt) is 0.24 mm), and how many."""

DISSOLVES = 0.264 / (1 - 0.264)
"""Most salt that water takes [g/g of water]; what a cell holds above it lies there as crystals."""


@dataclass(frozen=True)
class Column:
    """Meat under 1 cm2 of seasoned surface: depth of the centre [cm], shape exponent, edible meat [g/cm3]."""

    half_cm: float
    exponent: float
    density_g_cm3: float

    @property
    def mass_g_cm2(self) -> float:
        """Edible meat under 1 cm2 of surface [g]."""
        return float(np.sum(self.cells_g))

    @property
    def edges_cm(self) -> Array:
        """Depths of the cells' edges [cm]: each cell wider than the one before it."""
        return _edges(self.half_cm)

    @cached_property
    def middles_cm(self) -> Array:
        """Depths of the cells' middles [cm]."""
        edges = self.edges_cm
        found: Array = (edges[1:] + edges[:-1]) / 2
        return found

    @cached_property
    def cells_g(self) -> Array:
        """Edible meat in each cell [g/cm2 of surface]."""
        found: Array = _cells(self.half_cm, self.exponent) * self.density_g_cm3
        return found

    def lying(self, salt_g: Array, water_share: float) -> Array:
        """Return the share of each cell's salt [g/cm2 of surface] that its water cannot hold: crystals, not gone in."""
        most = DISSOLVES * water_share * self.cells_g
        found: Array = np.clip(1 - most / np.maximum(salt_g, 1e-300), 0.0, 1.0)
        return found


def column_of(volume_cm3: float, open_cm2: float, half_thickness_cm: float, edible_g: float) -> Column:
    """Return the column of a piece: R its half thickness, m = R A / V - 1.

    Where the open surface is too small for that, as with a joint under its skin, R = V / A and the column is a sheet
    seasoned from one side.
    """
    reach = volume_cm3 / open_cm2
    half = max(half_thickness_cm, reach)
    return Column(round(half, 4), round(half / reach - 1, 4), edible_g / volume_cm3)


@lru_cache(maxsize=256)
def _edges(half_cm: float) -> Array:
    first = min(_FIRST_CM, half_cm / _CELLS)
    # the ratio of a geometric grid that begins with the surface's cell and ends at the centre
    low, high = 1.0, 2.0
    for _ in range(60):
        ratio = (low + high) / 2
        total = first * (ratio**_CELLS - 1) / (ratio - 1) if ratio > 1 + 1e-12 else first * _CELLS
        low, high = (ratio, high) if total < half_cm else (low, ratio)
    widths = high ** np.arange(_CELLS)
    return np.concatenate(([0.0], half_cm * np.cumsum(widths) / np.sum(widths)))


@lru_cache(maxsize=256)
def _cells(half_cm: float, exponent: float) -> Array:
    left = np.clip(1 - _edges(half_cm) / half_cm, 0, 1) ** (exponent + 1)
    volumes: Array = half_cm / (exponent + 1) * (left[:-1] - left[1:])
    return np.maximum(volumes, 1e-12)


@lru_cache(maxsize=256)
def _modes(half_cm: float, exponent: float, bath_cm: float) -> tuple[Array, Array, Array]:
    """Return decay rates [1/cm2], modes, and square roots of the capacities; cell 0 is the bath when there is one."""
    edges, volumes = _edges(half_cm), _cells(half_cm, exponent)
    middles = (edges[1:] + edges[:-1]) / 2
    areas = np.clip(1 - edges / half_cm, 0, 1) ** exponent
    links = areas[1:-1] / (middles[1:] - middles[:-1])
    if bath_cm > 0:
        volumes = np.concatenate(([bath_cm], volumes))
        links = np.concatenate(([1 / middles[0]], links))
    # every cell exchanges with its two neighbours only, so that the matrix has three diagonals
    beside = np.zeros(len(volumes))
    beside[:-1] += links
    beside[1:] += links
    root = np.sqrt(volumes)
    rates, modes = eigh_tridiagonal(
        beside / volumes, -links / (root[:-1] * root[1:]), check_finite=False, lapack_driver="stevd"
    )
    return np.maximum(rates, 0.0), modes, root


def diffuse(column: Column, solutes: Array, dt_cm2: float) -> Array:
    """Determine where solutes have got to after D t [cm2], nothing entering or leaving: dm/dt = D div grad c.

    Parameters
    ----------
    solutes : array
        Mass in each cell, one column for each solute.
    """
    return _moved(column, solutes, dt_cm2, 0.0)


def soak(column: Column, solutes: Array, bath: Array, dt_cm2: float, bath_cm: float) -> tuple[Array, Array]:
    """Determine what a well-stirred bath and the meat exchange in D t [cm2].

    Parameters
    ----------
    bath : array
        Mass in the bath under 1 cm2 of surface, one for each solute.
    bath_cm : float
        What the bath holds in balance with the meat, as a depth of meat [cm], by `bath_depth_cm`.
    """
    both = _moved(column, np.vstack((bath[None, :], solutes)), dt_cm2, round(bath_cm, 6))
    return both[1:], both[0]


def bath_depth_cm(column: Column, bath_g_cm2: float, bath_water: float, meat_water: float) -> float:
    """Determine the depth of meat that holds as much in balance as a bath of `bath_g_cm2` does [cm].

    Salt lives in the water of both sides, so that in balance meat holds w_meat / w_bath times the bath's mass share:
    V_bath w_bath / (w_meat A), with the water shares as mass fractions.
    """
    return bath_g_cm2 * bath_water / meat_water / column.density_g_cm3


def _moved(column: Column, masses: Array, dt_cm2: float, bath_cm: float) -> Array:
    if dt_cm2 <= 0 or not masses.any():
        return masses
    rates, modes, root = _modes(column.half_cm, column.exponent, bath_cm)
    decay = np.exp(-rates * dt_cm2)
    moved: Array = root[:, None] * (modes @ (decay[:, None] * (modes.T @ (masses / root[:, None]))))
    # round-off must neither make mass nor lose it
    np.maximum(moved, 0.0, out=moved)
    moved *= masses.sum(axis=0) / np.maximum(moved.sum(axis=0), 1e-300)
    return moved


def even(column: Column) -> Array:
    """Return one solute spread evenly through the meat, as an injection is on the whole; its sum is 1."""
    cells = column.cells_g
    found: Array = cells / cells.sum()
    return found


def at_depths(column: Column, masses: Array, depths_cm: Array) -> Array:
    """Return the concentration [g/g of meat] at depths [cm], between the cells' middles by straight lines."""
    found: Array = np.interp(depths_cm, column.middles_cm, masses / column.cells_g)
    return found


def reach_share(column: Column, masses: Array, depth_cm: float) -> float:
    """Return the share of a solute that lies deeper than a depth [cm]."""
    total = float(masses.sum())
    if total <= 0:
        return 0.0
    edges = column.edges_cm
    inside = np.concatenate(([0.0], np.cumsum(masses)))
    return 1 - float(np.interp(depth_cm, edges, inside)) / total

"""Meat as the simulated thermometer has it: heat and water over a section of a piece, two dimensions, step by step.

A round piece is a cylinder over radius and half length, a flat one a long bar over half thickness and half width. Heat
is conducted; water is driven by what the fibres no longer hold once they have warmed (a swelling pressure, as Darcy
flow), evaporates at the surface and drips where more of it comes; where less of it comes the place that it evaporates
at recedes beneath a dry crust, which lets less through. It is written for itself: Ravska's own heat, which it stands
against, has another geometry, another water and other numbers, and this one is not changed to please it.

Temperatures in °C, other quantities in SI units. Numbers without a source are estimates.

References
----------
R. G. M. van der Sman, *Soft condensed matter perspective on moisture transport in cooking meat*, AIChE J. 53 (2007),
for what drives the water (from memory).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

_CELLS = 9
"""Cells from the middle to each surface."""

_DRY_KG_M3, _WATER_CAPACITY, _DRY_CAPACITY = 290.0, 4180.0, 1900.0
_LATENT, _RADIATES, _BOILS_C, _CARRIES = 2.37e6, 0.88 * 5.67e-8, 100.0, 6.9e-9
"""Heat of vaporization [J/kg], emissivity by Stefan and Boltzmann's, boiling point, what h carries [kg K/(J Pa)]."""

_THROUGH_CRUST, _DEEPEST_M = 3.5e-12, 0.012
"""What a metre of crust lets through [kg/(m s Pa)], and how far a crust goes at most [m]."""


@dataclass(frozen=True)
class Cut:
    """A piece: round or flat, its half thickness or radius and its half width or half length [m], and its own numbers.

    `water` is what it holds [kg/kg dry], `holds` how much of that it still holds when it is well done, `at_c` where it
    gives up half of what it gives up [°C], `moves` how easily water goes through it [m2/s], `conducts` [W/mK].
    """

    is_round: bool
    half_m: float
    across_m: float
    start_c: float = 5.0
    water: float = 2.7
    holds: float = 0.45
    at_c: float = 63.0
    moves: float = 8e-8
    conducts: float = 0.52


@dataclass(frozen=True)
class Around:
    """What is around it: air or liquid [°C], walls as warm, h [W/m2K], its vapour's pressure [Pa], and how it lies.

    `wrapped` is in foil or paper, `liquid` in a pot or a bag: then no water leaves it but what drips.
    """

    celsius: float
    h: float = 9.0
    vapour_pa: float = 3500.0
    wrapped: bool = False
    liquid: bool = False


def vapour_pa(celsius: Array | float) -> Array:
    """Return the pressure of saturated vapour [Pa], by Antoine's equation for water."""
    return np.asarray(133.322 * 10 ** (8.07131 - 1730.63 / (233.426 + np.minimum(celsius, 150.0))))


class Meat:
    """A piece on its way: temperatures and water of its cells, rows from the middle outwards, columns along it."""

    def __init__(self, cut: Cut) -> None:
        self.cut = cut
        edges = [size * (1 - (1 - np.linspace(0, 1, _CELLS + 1)) ** 1.1) for size in (cut.half_m, cut.across_m)]
        # cells are finer towards the surface, where the water goes
        self.r_edges, self.z_edges = edges
        self.r, self.z = ((one[1:] + one[:-1]) / 2 for one in edges)
        power = 2 if cut.is_round else 1
        ring, wide = np.diff(self.r_edges**power) / power, np.diff(self.z_edges)
        self.volume = np.outer(ring, wide)
        side = self.r_edges if cut.is_round else np.ones(_CELLS + 1)
        self.out_r = np.outer(side[1:], wide)
        self.out_z = np.outer(ring, np.ones(_CELLS))
        self.gap_r, self.gap_z = np.diff(self.r)[:, None], np.diff(self.z)[None, :]
        self.skin_r, self.skin_z = cut.half_m - self.r[-1], cut.across_m - self.z[-1]
        self.t = np.full((_CELLS, _CELLS), cut.start_c)
        self.water = np.full((_CELLS, _CELLS), cut.water)
        self.hottest = self.t.copy()
        self.seconds = 0.0
        self.lost = 0.0
        self._whole = float((self.volume * _DRY_KG_M3 * (1 + self.water)).sum())
        self.surface_r, self.surface_z = np.full(_CELLS, cut.start_c), np.full(_CELLS, cut.start_c)
        finest = min(float(np.diff(one).min()) for one in edges)
        self.longest_s = min(20.0, 0.22 * finest**2 / 3e-7)
        self.crust_r, self.crust_z = np.zeros(_CELLS), np.zeros(_CELLS)

    @property
    def loss(self) -> float:
        """What it has lost, as a share of its raw weight."""
        return self.lost / self._whole

    def at(self, off: float = 0.0, along: float = 0.0) -> float:
        """Return the temperature at a place: shares of the way from the middle to the surfaces [°C]."""
        row = np.array([np.interp(along * self.cut.across_m, self.z, line) for line in self.t])
        return float(np.interp(off * self.cut.half_m, self.r, row))

    def surface(self) -> float:
        """Return the temperature of its surface, half-way along [°C]."""
        return float(self.surface_r[_CELLS // 2])

    def go(self, seconds: float, around: Around) -> None:
        """Let time go by."""
        steps = max(1, int(np.ceil(seconds / self.longest_s)))
        for _ in range(steps):
            self._step(seconds / steps, around)

    def _step(self, dt: float, around: Around) -> None:
        cut = self.cut
        capacity = self.volume * _DRY_KG_M3 * (_DRY_CAPACITY + self.water * _WATER_CAPACITY)
        conducts = cut.conducts * (0.35 + 0.65 * self.water / cut.water)
        heat = np.zeros_like(self.t)
        _flows(heat, self.t, conducts, self)
        # water is driven by what is held no longer; it does not flow back into what could hold it
        over = np.maximum(self.water - self._held(), 0.0)
        moved = np.zeros_like(self.t)
        _flows(moved, over, np.full_like(over, cut.moves * _DRY_KG_M3), self)
        out = np.zeros_like(self.t)
        for surface, crust, cells, area, skin in (
            (self.surface_r, self.crust_r, (-1, slice(None)), self.out_r[-1], self.skin_r),
            (self.surface_z, self.crust_z, (slice(None), -1), self.out_z[:, -1], self.skin_z),
        ):
            link = conducts[cells] / skin
            found, gone = self._skin(surface, crust, self.t[cells], self.water[cells], link, around)
            surface[:] = found
            heat[cells] += area * link * (found - self.t[cells])
            comes = cut.moves * _DRY_KG_M3 * over[cells] / skin
            # what comes wets the crust again, and drips once that is wet
            refills = np.minimum(np.maximum(comes - gone, 0.0), crust * _DRY_KG_M3 * cut.water / dt)
            crust[:] = np.clip(crust + (np.maximum(gone - comes, 0.0) - refills) * dt / (_DRY_KG_M3 * cut.water),
                               0.0, _DEEPEST_M)  # fmt: skip
            out[cells] += area * (np.maximum(gone, comes) - refills)
        self.t = self.t + heat * dt / capacity
        dry = self.volume * _DRY_KG_M3
        before = self.water
        self.water = np.maximum(before + (moved - out) * dt / dry, 0.02)
        boils = np.maximum(self.t - _BOILS_C, 0.0)
        if boils.any():
            gone = np.minimum(boils * capacity / _LATENT, (self.water - 0.02) * dry)
            self.water = self.water - gone / dry
            self.t = self.t - gone * _LATENT / capacity
        self.lost += float(((before - self.water) * dry).sum())
        self.hottest = np.maximum(self.hottest, self.t)
        self.seconds += dt

    def _held(self) -> Array:
        cut = self.cut
        gives = (1 - cut.holds) / (1 + np.exp(-(self.hottest - cut.at_c) / 6.0))
        return np.asarray(cut.water * (1 - gives))

    def _skin(
        self, t: Array, crust: Array, inner: Array, water: Array, link: Array, around: Around
    ) -> tuple[Array, Array]:
        """Return a surface's temperatures and what evaporates there [kg/m2 s]: the balance of heat, by Newton."""
        walls = around.celsius + 273.15
        radiated = 0.0 if around.liquid else _RADIATES
        carries = 1 / (1 / (around.h * _CARRIES) + crust / _THROUGH_CRUST)
        # what is nearly dry holds its water back
        active = 1 - np.exp(-5.0 * water)
        gone = np.zeros_like(t)
        for _ in range(3):
            kelvin = t + 273.15
            gains = around.h * (around.celsius - t) + radiated * (walls**4 - kelvin**4)
            slope = around.h + 4 * radiated * kelvin**3
            if around.wrapped:
                u = 1 / (1 / (around.h + 3.0 * radiated * kelvin * walls * (kelvin + walls) / 2) + 1 / 110.0)
                gains, slope = u * (around.celsius - t), u
            elif not around.liquid:
                pressure = active * vapour_pa(t)
                gone = np.maximum(carries * (pressure - around.vapour_pa), 0.0)
                gains = gains - _LATENT * gone
                slope = slope + _LATENT * carries * pressure * 0.04
            change = (gains - link * (t - inner)) / (slope + link)
            t = t + np.clip(change, -40.0, 40.0)
        return t, gone


def _flows(into: Array, of: Array, by: Array, meat: Meat) -> None:
    """Add what flows between neighbouring cells to each of them."""
    out = (by[:-1] + by[1:]) / 2 * meat.out_r[:-1] * (of[:-1] - of[1:]) / meat.gap_r
    into[:-1] -= out
    into[1:] += out
    along = (by[:, :-1] + by[:, 1:]) / 2 * meat.out_z[:, :-1] * (of[:, :-1] - of[:, 1:]) / meat.gap_z
    into[:, :-1] -= along
    into[:, 1:] += along

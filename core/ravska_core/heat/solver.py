"""Heat and water in a piece through its legs: implicit finite volumes over depth, many draws of its numbers in one run.

Every step is one of variable-step BDF2, the first after a change of surround one of backward Euler. Each draw goes at
its own pace, small after every change and to the very end of what ends by time. The tridiagonal systems of all draws
are laid end to end and solved at once, with a column for no flux and one for a unit of flux on each side, so that the
balance of each surface is one scalar equation, solved by Newton's steps.

Temperatures in °C, other quantities in SI units, those of a surface by m2 of it.

References
----------
E. Hairer, S. P. Norsett, G. Wanner, *Solving Ordinary Differential Equations I*, III.5, for the variable-step BDF2.
S. V. Patankar, *Numerical Heat Transfer and Fluid Flow*, 4.2, for the finite volumes.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.linalg.lapack import dptsv

from ravska_core.heat.grid import GROWS, Cells, cells_of, pace_of
from ravska_core.heat.properties import GIVEN_UP, KELVIN, R_VAPOUR, Material, given_up, saturation_pa
from ravska_core.heat.surface import (
    AIR_CAPACITY,
    AIR_DENSITY_K,
    EMISSIVITY,
    FOIL_RADIATES,
    FOIL_U,
    HALF_WET,
    LEWIS,
    MOST_STORE,
    STEFAN_BOLTZMANN,
    Leg,
    Legs,
)
from ravska_core.heat.tenderness import rate

Array = NDArray[np.float64]
Flags = NDArray[np.bool_]

BOILING_J_KG, _BOILING_CAPACITY = 2.257e6, 3400.0
"""Heat of boiling at 100 °C [J/kg], and the capacity that what boils off is told by [J/kgK]."""

_BASE = 0.40
"""Water of meat that has given up what heat drives out [kg/kg]."""

_NEAR_S = 4.0
"""A goal is met within about so long [s]."""

_LONG_AHEAD = 2.5
"""How much longer steps are in what is only expected."""

_GIVES_TO_CRUST = 10.0
"""h that a crust's depth is told at [W/m2K]."""


@dataclass(frozen=True)
class Body:
    """A piece as it goes through heat; numbers may be arrays, a value a draw.

    `half_m` and `exponent` are the dimension of equal lag; `start_c` its temperature [°C]; `first_store` the water on
    its surface [kg/m2]; `reaches` the share of the water it gives up that comes to the surface, the rest drips;
    `h_factor`, `k_factor`, `dew_shift` [K] and `fire_shift` [spreads] change the fire's h, its own conductivity, the
    dew point and the fire's heat; `slower` is how many times as long it takes; `open_share` how much of its surface
    can dry; `crust_m` the depth of dried crust that halves what evaporates at h 10 [m], none for no crust; `boils_c`
    where its water boils [°C], none for no limit.
    """

    half_m: Array | float
    exponent: Array | float
    material: Material
    start_c: Array | float = 4.0
    first_store: Array | float = 0.1
    reaches: Array | float = 0.6
    h_factor: Array | float = 1.0
    k_factor: Array | float = 1.0
    dew_shift: Array | float = 0.0
    fire_shift: Array | float = 0.0
    slower: Array | float = 1.0
    open_share: float = 1.0
    crust_m: Array | float | None = None
    boils_c: float | None = 100.0


class Solver:
    """All draws of a run and where they stand; cells of all draws and surfaces of all draws lie end to end."""

    def __init__(self, body: Body, legs: Sequence[Leg], sides: int, cells: int) -> None:
        given = (
            body.half_m, body.exponent, body.start_c, body.first_store, body.reaches, body.h_factor, body.k_factor,
            body.dew_shift, body.fire_shift, body.slower, body.crust_m,
        )  # fmt: skip
        wide = np.broadcast_arrays(*(np.atleast_1d(np.asarray(1.0 if one is None else one, float)) for one in given))
        half, exponent, start, store, reaches, h_factor, k_factor, dew_shift, fire_shift, slower, crust_m = wide
        self.material, self.body, self.legs, self.sides = body.material, body, Legs(legs, sides), sides
        self.cells: Cells = cells_of(half, exponent, cells, sides)
        self.draws, self.deep = self.cells.volumes.shape
        self.last_leg = len(legs) - 1
        mass = self.cells.volumes * (body.material.density * slower[:, None])
        self.whole_mass = mass.sum(axis=1)
        self.mass = mass.ravel()
        links = np.concatenate((self.cells.links, np.zeros((self.draws, 1))), axis=1).ravel()[:-1]
        self.link = links * 0.5 * np.repeat(k_factor, self.deep)[:-1]
        self.first_link = np.repeat(self.cells.first * k_factor, sides)
        self.tops = (np.arange(self.draws)[:, None] * self.deep + np.array([0, self.deep - 1][:sides])).ravel()
        self.draw = np.repeat(np.arange(self.draws), sides)
        self.column = np.tile(np.arange(1, sides + 1), self.draws)
        self.parts = np.arange(0, self.draws * self.deep, self.deep // sides)
        self.h_factor, self.dew_shift, self.reach = h_factor[self.draw], dew_shift[self.draw], reaches[self.draw]
        self.fire_shift = fire_shift
        self.density = np.repeat(body.material.density * slower, sides)
        self.crusts = body.crust_m is not None
        self.crust_m = crust_m[self.draw]
        self.unit = np.zeros((self.draws * self.deep, sides), order="F")
        for side in range(sides):
            self.unit[side * (self.deep - 1) :: self.deep, side] = 1.0
        self.rhs = np.zeros((self.draws * self.deep, 1 + sides), order="F")
        self.first_step, self.longest_step = pace_of(half)
        depths = self.cells.middles[0] / half[0]
        self.inner = (depths > 0.5) & (depths < 1.5)
        self._begin(start, store)

    def _begin(self, start: Array, store: Array) -> None:
        surfaces = self.draws * self.sides
        self.start = np.repeat(start, self.deep)
        self.t_cells, self.t_before, self.dt_before = self.start, self.start, np.ones(self.draws)
        self.t_surface = np.repeat(start, self.sides).astype(float)
        self.t_surface_before = self.t_surface
        self.fresh: Flags = np.ones(self.draws, bool)
        self.seen = self.start.copy()
        self.given_up = given_up(self.seen)
        self.store = np.repeat(store, self.sides).astype(float)
        self.supply, self.crust = np.zeros(surfaces), np.zeros(surfaces)
        self.heat, self.heat_before = np.zeros(surfaces), np.zeros(surfaces)
        self.dripped, self.evaporated, self.ran_off = np.zeros(surfaces), np.zeros(surfaces), np.zeros(surfaces)
        self.boiled = np.zeros(surfaces)
        # a cell may boil off what it holds beyond what heat has driven out of it
        self.can_boil = (self.material.water - GIVEN_UP) * self.mass
        self.dose, self.dosed = np.zeros(self.draws), rate(start)
        self.at, self.entered, self.time = np.zeros(self.draws, int), np.zeros(self.draws), np.zeros(self.draws)
        self.fire: Array | None = None
        self.pace = self.first_step
        self.warmest, self.rising = self.centre(), np.zeros(self.draws)
        self._enter()

    def _enter(self) -> None:
        """Look up the surround of each draw's leg."""
        legs = self.legs

        def of(rows: Array) -> Array:
            found: Array = rows[self.at].ravel()
            return found

        factor = np.where(of(legs.by_the_fire), self.h_factor, 1.0)
        self.h = of(legs.h) * factor
        self.radiates, self.flux, self.wrapped = of(legs.radiates), of(legs.flux), of(legs.wrapped)
        self.dries = of(legs.dries) * self.body.open_share
        self.carries = self.dries * of(legs.h_drying) * factor / (AIR_DENSITY_K * AIR_CAPACITY * LEWIS * R_VAPOUR)
        self.over_dew = saturation_pa(of(legs.dew) + self.dew_shift)
        own = of(legs.env)
        fire = self.fire
        if fire is None:
            fire = legs.fire[self.at] + self.fire_shift * legs.fire_spread[self.at]
        self.env = np.where(np.isnan(own), np.repeat(fire, self.sides), own)
        self.crust_by = of(legs.h_drying) / _GIVES_TO_CRUST / self.crust_m
        goals = np.stack((legs.until[self.at], legs.dose[self.at], legs.browns[self.at]))
        self.any_goal = bool(np.isfinite(goals).any())
        self.any_wrapped, self.any_dries = bool(self.wrapped.any()), bool(self.dries.any())

    def be_fired(self, celsius: Array | None) -> None:
        """Have the fire at what it was seen to be, for each draw [°C], until told again; None as its leg says."""
        self.fire = celsius
        own = self.legs.env[self.at].ravel()
        if celsius is None:
            self._enter()
        else:
            self.env = np.where(np.isnan(own), np.repeat(celsius, self.sides), own)

    def go_on(self) -> None:
        """Go on in a leg that is like the one before it as if it were that one: by long steps from the first on."""
        # from a short step to a long one only backward Euler is stable
        self.fresh = np.ones(self.draws, bool)
        self.longest_step = _LONG_AHEAD * self.longest_step
        self.pace = self.longest_step / _LONG_AHEAD

    def _inside(self, dt: Array) -> tuple[Array, Array, Array, Array, Array, Array]:
        """Solve all cells for no flux and for a unit of flux on each side; return that and each surface's line."""
        ratio = np.where(self.fresh, 0.0, dt / self.dt_before)
        more = 1 + ratio
        lead, back = (1 + 2 * ratio) / more, ratio * ratio / more
        t = self.t_cells
        (k0, k1, k2), (c0, c1, c2) = self.material.conductivity, self.material.capacity
        k = k0 + t * (k1 + t * k2)
        by_draw = (c0 + t * (c1 + t * c2)) * self.mass
        capacity = by_draw.reshape(self.draws, self.deep) / dt[:, None]
        link = self.link * (k[1:] + k[:-1])
        diagonal = (capacity * lead[:, None]).ravel()
        diagonal[:-1] += link
        diagonal[1:] += link
        was = more[:, None] * t.reshape(capacity.shape) - back[:, None] * self.t_before.reshape(capacity.shape)
        self.rhs[:, 0] = (capacity * was).ravel()
        self.rhs[:, 1:] = self.unit
        solved = dptsv(diagonal, -link, self.rhs, overwrite_d=1, overwrite_e=1)[2]
        lead_s, more_s, back_s = lead[self.draw], more[self.draw], back[self.draw]
        conducts = self.first_link * k[self.tops]
        line = conducts / (1 + conducts * solved[self.tops, self.column])
        return solved, line, solved[self.tops, 0], lead_s, more_s, back_s

    def _surfaces(self, dt: Array, line: Array, inner: Array) -> tuple[Array, Array, Array]:
        """Solve each surface's balance; return its temperature, the water it gives off and that out of its crust."""
        env_k = self.env + KELVIN
        h, radiates = self.h, self.radiates
        if self.any_wrapped:
            s_k = self.t_surface + KELVIN
            walls = EMISSIVITY * STEFAN_BOLTZMANN * (env_k * env_k + s_k * s_k) * (env_k + s_k)
            h = np.where(self.wrapped, 1 / (1 / (h + FOIL_RADIATES * walls) + 1 / FOIL_U), h)
            radiates = np.where(self.wrapped, 0.0, radiates)
        gained = h * self.env + radiates * env_k**4 + self.flux + line * inner
        sloped = h + line
        fresh = bool(self.fresh.any())
        t = self.t_surface
        if not fresh:
            t = t + (t - self.t_surface_before) * (dt / self.dt_before)[self.draw]
        off = crusted = np.zeros(1)
        for _ in range(3 if fresh else 1):
            t_k = t + KELVIN
            cubed = radiates * t_k * t_k * t_k
            rest = gained - sloped * t - cubed * t_k
            slope = sloped + 4 * cubed
            if self.any_dries:
                off, crusted, by_degree = self._dries(dt[self.draw], t, env_k)
                latent = self.material.latent[0] + self.material.latent[1] * t
                rest = rest - latent * off
                slope = slope + latent * by_degree
            t = t + np.clip(rest / slope, -60.0, 60.0)
        return t, off, crusted

    def _dries(self, dt: Array, t: Array, env_k: Array) -> tuple[Array, Array, Array]:
        """Return what evaporates [kg/m2 s], that of it out of the crust, and how it rises with the surface's T."""
        carries = self.carries * np.minimum(env_k, 473.0) / (t + KELVIN)
        above = 243.12 + np.minimum(t, 180.0)
        pressure = 611.2 * np.exp(17.62 - 17.62 * 243.12 / above)
        rate = carries * (pressure - self.over_dew)
        wet = self.store + self.supply
        # the store at the step's end, M + dt rate M / (M + half) = wet, is a quadratic's root
        linear = wet - HALF_WET - np.maximum(rate, 0.0) * dt
        root = np.sqrt(linear * linear + 4 * HALF_WET * wet)
        left = 0.5 * (linear + root)
        condenses = rate < 0
        off = np.where(condenses, rate, (wet - left) / dt)
        share = np.where(condenses, 1.0, left / root)
        crusted = np.zeros(1)
        if self.crusts:
            through = 1 / (1 + self.crust * self.crust_by)
            crusted = np.maximum(rate, 0.0) * HALF_WET / (left + HALF_WET) * through
            off = off + crusted
            share = share + through
        return off, crusted, carries * pressure * (17.62 * 243.12) / (above * above) * share

    def _boil(self) -> None:
        """Let what would heat a cell past the boiling point boil its water off instead."""
        limit = self.body.boils_c
        if limit is None or self.t_cells.max() <= limit:
            return
        capacity = self.mass * _BOILING_CAPACITY
        gone = np.minimum(np.maximum(self.t_cells - limit, 0.0) * capacity / BOILING_J_KG, self.can_boil)
        self.can_boil = self.can_boil - gone
        self.t_cells = self.t_cells - gone * BOILING_J_KG / capacity
        self.boiled = self.boiled + np.add.reduceat(gone, self.parts)

    def _waters(self, dt: Array, off: Array, crusted: Array) -> None:
        """Take what evaporated out of the stores, and let the meat give up water to them."""
        if self.any_dries:
            wet = self.store + self.supply
            self.store = np.maximum(wet - (off - crusted) * dt, 0.0)
            self.evaporated = self.evaporated + off * dt
            if self.crusts:
                self.crust = self.crust + crusted * (dt / (self.density * _BASE))
        self.seen = np.maximum(self.seen, self.t_cells)
        gives = given_up(self.seen)
        out = np.add.reduceat(self.mass * (gives - self.given_up), self.parts)
        self.given_up = gives
        self.supply = out * self.reach * self.dries
        self.dripped = self.dripped + (out - self.supply)
        over = np.maximum(self.store + self.supply - MOST_STORE, 0.0)
        lain = np.minimum(over, self.store)
        self.store, self.supply = self.store - lain, self.supply - (over - lain)
        self.ran_off = self.ran_off + over

    def step(self, dt: Array) -> None:
        """Go on by one step of each draw's time [s]."""
        self.time = self.time + dt
        solved, line, inner, lead, more, back = self._inside(dt)
        t, off, crusted = self._surfaces(dt, line, inner)
        self.t_surface_before, self.t_surface = self.t_surface, t
        flux = line * (t - inner)
        # heat let in by the same differences as the cells, so that the books close
        self.heat, self.heat_before = (
            (flux * dt[self.draw] + more * self.heat - back * self.heat_before) / lead,
            self.heat,
        )
        self.t_before, self.dt_before = self.t_cells, dt
        if self.sides == 1:
            self.t_cells = solved[:, 0] + np.repeat(flux, self.deep) * solved[:, 1]
        else:
            both = np.repeat(flux.reshape(self.draws, 2), self.deep, axis=0)
            self.t_cells = solved[:, 0] + (both * solved[:, 1:]).sum(axis=1)
        self.fresh = np.zeros(self.draws, bool)
        self._boil()
        self._waters(dt[self.draw], off, crusted)

    def next_step(self) -> Array:
        """Return each draw's next step of time [s]: it ends where a timed leg does, and about where a goal is met."""
        legs, at = self.legs, self.at
        left = legs.lasts[at] - (self.time - self.entered)
        found = np.where((left > 1e-6) & (left <= 1.3 * self.pace), left, self.pace)
        self.pace = np.minimum(self.longest_step, self.pace * GROWS)
        if not self.any_goal:
            return found
        with np.errstate(divide="ignore", invalid="ignore"):
            warm = np.where(self.rising > 0, (legs.until[at] - self.warmest) / self.rising, np.inf)
            tender = (legs.dose[at] - self.dose) * 3600.0 / self.dosed
        goal: Array = np.minimum(warm, tender) + _NEAR_S
        return np.minimum(found, np.maximum(goal, np.minimum(_NEAR_S, found)))

    def centre(self) -> Array:
        """Return the temperature of each draw's centre, between two unlike sides the coldest of its inner half [°C]."""
        cells = self.t_cells.reshape(self.draws, self.deep)
        if self.sides == 1:
            found: Array = cells[:, -1] - self.cells.inmost * (cells[:, -2] - cells[:, -1])
            return found
        return np.asarray(cells[:, self.inner].min(axis=1))

    def tip(self, off: Array) -> Array:
        """Return the temperature at a share of the way from each draw's centre to its surface [°C], straight in r^2.

        Between two unlike sides it is that of the centre.
        """
        centre = self.centre()
        if self.sides == 2:
            return centre
        cells = self.t_cells.reshape(self.draws, self.deep)
        squares = np.concatenate(([0.0], (1 - self.cells.middles[0] / self.cells.half_m[0])[::-1] ** 2))
        at = np.clip(np.searchsorted(squares, off**2), 1, self.deep)
        draw = np.arange(self.draws)
        inner = np.where(at == 1, centre, cells[draw, self.deep - np.maximum(at - 1, 1)])
        part = (off**2 - squares[at - 1]) / (squares[at] - squares[at - 1])
        return np.asarray(inner + (cells[draw, self.deep - at] - inner) * np.minimum(part, 1.0))

    def ends(self, centre: Array, dt: Array) -> Flags:
        """Take each draw whose leg or phase ends on to its next one; return which of them have ended their last."""
        dosed = rate(centre)
        self.rising, self.warmest = (centre - self.warmest) / dt, centre
        self.dose = self.dose + (dosed + self.dosed) * (dt / 7200.0)
        self.dosed = dosed
        legs, at = self.legs, self.at
        by_time: Flags = self.time - self.entered >= legs.lasts[at] - 1e-6
        if not self.any_goal and not by_time.any():
            return by_time
        phase: Flags = (centre >= legs.until[at]) | (self.dose >= legs.dose[at])
        phase = phase | (self.t_surface.reshape(self.draws, self.sides).min(axis=1) >= legs.browns[at])
        after = np.where(phase, legs.next_phase[at], np.where(by_time, at + 1, at))
        over: Flags = after > self.last_leg
        on = (after != at) & ~over
        if on.any():
            self.at = np.where(on, after, at)
            self.entered = np.where(on, self.time, self.entered)
            self.fresh = on
            self.pace = np.where(on, self.first_step, self.pace)
            self.store = self.store + legs.spritz[self.at][self.draw] * on[self.draw]
            self._enter()
        return over

    def each(self, surfaces: Array) -> Array:
        """Return sums over each draw's sides."""
        found: Array = surfaces.reshape(self.draws, self.sides).sum(axis=1)
        return found

    def stored(self) -> Array:
        """Return the heat that each draw holds beyond its start [J/m2]."""
        c0, c1, c2 = self.material.capacity
        by_cell = self.mass * (
            c0 * (self.t_cells - self.start)
            + c1 / 2 * (self.t_cells**2 - self.start**2)
            + c2 / 3 * (self.t_cells**3 - self.start**3)
        )
        found: Array = by_cell.reshape(self.draws, self.deep).sum(axis=1)
        return found

"""A run: how a piece goes through its legs of heat, and what is noted of it.

Temperatures in °C, other quantities in SI units, those of a surface by m2 of it.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from ravska_core.heat.grid import CELLS
from ravska_core.heat.solver import Body, Solver
from ravska_core.heat.surface import HALF_WET, Leg

Array = NDArray[np.float64]

_MOST_S, _MOST_STEPS = 72 * 3600.0, 6000
"""How long a run is at most [s, steps]."""

_STILL_K, _STILL_S = 0.1, 4 * 3600.0
"""A centre that moved no more than this [K] in so long [s] stays where it is."""

_LOOKS = 8
"""Every so many steps it is seen whether anything moves."""


@dataclass(frozen=True)
class HeatRun:
    """What a run gives, a row a step and a column a draw; each draw has times of its own.

    Times [s], temperatures of centre and surface (a third axis for its sides) [°C], the leg it is in, how wet the
    surface is, loss as a share of the raw mass; `mean` is the whole piece at its end [°C]. `depth_c` is the first draw
    from its surface inwards, at `depths_m`, and `first_mean` the whole of it. `ended_s` is when each draw came to the
    end of its last leg, nan where it did not [s]. `heat` let in and `stored`, and where the water went, are sums in J
    and kg for each draw. `tip` is what a probe off the centre is at [°C].
    """

    times_s: Array
    centre: Array
    surface: Array
    mean: Array
    leg: NDArray[np.int64]
    wet: Array
    loss: Array
    depths_m: Array
    depth_c: Array
    first_mean: Array
    ended_s: Array
    heat: Array
    stored: Array
    tip: Array
    water: dict[str, Array] = field(default_factory=dict)

    def reaches(self, celsius: float) -> Array:
        """Return when each draw's centre first is at a temperature [s], by straight lines; nan where it never is."""
        return first_time(self.times_s, self.centre, celsius)


@dataclass(frozen=True)
class SoFar:
    """The fire up to now: steps of time [s] and how hot it was over each, a row a step and a column a draw [°C]."""

    steps_s: Array
    fire_c: Array


def first_time(times_s: Array, values: Array, goal: float) -> Array:
    """Return when each column first is at a goal [s], by straight lines between rows; nan where it never is.

    Where there is no value before, it is when the first one is.
    """
    above = values >= goal
    at = above.argmax(axis=0)
    found = np.full(values.shape[1], np.nan)
    for draw in np.flatnonzero(above.any(axis=0)):
        row = at[draw]
        if row == 0:
            found[draw] = times_s[0, draw]
            continue
        (before, after), (left, right) = values[row - 1 : row + 1, draw], times_s[row - 1 : row + 1, draw]
        if not math.isfinite(before):
            found[draw] = right
            continue
        found[draw] = left + (goal - before) / (after - before) * (right - left)
    return found


def run(
    body: Body,
    legs: Sequence[Leg],
    whole_s: float = _MOST_S,
    cells: int = CELLS,
    steps: Sequence[float] | None = None,
    patience: float = 2.5,
    so_far: SoFar | None = None,
    probe: Array | None = None,
) -> HeatRun:
    """Determine the temperatures and the water of a piece through legs of heat.

    It ends when every draw has ended its last leg; where some are much slower, when they have gone on `patience` times
    as long from now as the first draw took; and where nothing moves any more without an end in sight.

    Parameters
    ----------
    whole_s : float
        How long it is followed at most [s].
    steps : sequence of float
        Steps of time [s] instead of the usual ones.
    so_far : SoFar
        What was seen of the fire up to now; legs must end with its steps.
    probe : array
        How far off the centre each draw's probe is, as a share of the way to the surface.
    """
    solver = Solver(body, legs, 2 if any(leg.lopsided for leg in legs) else 1, cells)
    rows, stuck, ended = _Rows(solver, probe), _Stuck(solver), np.full(solver.draws, np.nan)
    most = whole_s
    past, over_s = (0, 0.0) if so_far is None else (len(so_far.steps_s), float(so_far.steps_s.sum()))
    for number in range(_MOST_STEPS if steps is None else len(steps)):
        if so_far is not None and number < past:
            dt = np.full(solver.draws, so_far.steps_s[number])
            solver.be_fired(so_far.fire_c[number])
        else:
            if past and number == past:
                solver.be_fired(None)
                solver.go_on()
            dt = solver.next_step() if steps is None else np.full(solver.draws, steps[number])
        solver.step(dt)
        centre = solver.centre()
        rows.note(solver, centre)
        over = solver.ends(centre, dt)
        ended = np.where(over & np.isnan(ended), solver.time, ended)
        if not math.isnan(ended[0]):
            most = min(whole_s, over_s + patience * (float(ended[0]) - over_s))
        if ((~np.isnan(ended)) | (solver.time >= most)).all() or (number % _LOOKS == 0 and stuck.at(solver, centre)):
            break
    return rows.as_run(solver, ended)


class _Stuck:
    """Whether every draw has come to rest in a leg that waits for a heat it does not get."""

    def __init__(self, solver: Solver) -> None:
        self.since, self.centre = solver.time, solver.centre()

    def at(self, solver: Solver, centre: Array) -> bool:
        legs, at = solver.legs, solver.at
        waits = np.isinf(legs.dose[at]) & (np.isfinite(legs.until[at]) | np.isfinite(legs.browns[at]))
        still = waits & (np.abs(centre - self.centre) <= _STILL_K)
        self.since = np.where(still, self.since, solver.time)
        self.centre = np.where(still, self.centre, centre)
        return bool((solver.time - self.since > _STILL_S).all())


class _Rows:
    """What is noted of a run, a row a step."""

    def __init__(self, solver: Solver, probe: Array | None) -> None:
        self.rows: list[tuple[Array, ...]] = []
        self.probe = probe
        self.note(solver, solver.centre())

    def note(self, solver: Solver, centre: Array) -> None:
        # each step makes these anew, so that they are kept as they are
        self.rows.append((
            solver.time, centre, solver.t_surface, solver.at, solver.store + solver.supply,
            solver.dripped + solver.evaporated + solver.ran_off + solver.boiled, solver.t_cells[: solver.deep],
            centre if self.probe is None else solver.tip(self.probe),
        ))  # fmt: skip

    def as_run(self, solver: Solver, ended: Array) -> HeatRun:
        times, centre, surface, leg, store, gone, depth, tip = (np.array(one) for one in zip(*self.rows, strict=True))
        by_side = (len(times), solver.draws, solver.sides)
        wet = store.reshape(by_side).mean(axis=2)
        loss = gone.reshape(by_side).sum(axis=2) / solver.whole_mass
        mean = (solver.t_cells * solver.mass).reshape(solver.draws, -1).sum(axis=1) / solver.whole_mass
        water = {
            "dripped": solver.dripped, "evaporated": solver.evaporated, "ran off": solver.ran_off,
            "boiled": solver.boiled, "store": solver.store,
        }  # fmt: skip
        return HeatRun(
            times, centre, surface.reshape(by_side), mean, leg, wet / (wet + HALF_WET), loss,
            solver.cells.middles[0], depth, depth @ solver.mass[: solver.deep] / solver.whole_mass[0], ended,
            solver.each(solver.heat), solver.stored(), tip,
            {name: solver.each(one) for name, one in water.items()},
        )  # fmt: skip

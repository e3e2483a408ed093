"""A piece on the fire as it is known so far: stretches that are over, what is ahead, and what probes and hands told.

Temperatures in °C, times in s from when it went on.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ravska_core.heat.chances import with_numbers
from ravska_core.heat.cookers import Cooker
from ravska_core.heat.heated import Heated
from ravska_core.heat.phases import Phase, legs_of
from ravska_core.heat.solver import Body
from ravska_core.heat.surface import Leg
from ravska_core.heat.trade import Factor

Array = NDArray[np.float64]

MOST_READINGS = 48
"""So many minutes of readings are kept for the fit, even over the cook."""

_FIRST_STEP_S, _GROWS = 15.0, 1.25
_LEAST_STEP_S, _MOST_STEP_S, _STEPS_OF_PAST = 30.0, 600.0, 36

SPRITZED_KG_M2 = 0.05
"""What a spritz puts on a surface (estimate)."""

BEYOND_K, BEYOND_DOSES = 4.0, 3.0
"""How far beyond its end a run goes on, so that a late draw still comes to it: degrees, and times the dose."""

_SPREADS = {
    "ln h": 0.45, "logit reaches": 0.7, "dew": 8.0, "start": 3.0, "ln R": 0.08, "ln slower": 1.9, "probe": 1.0,
    "pit": 5.0, "ln crust": 1.2, "m": 0.12,
}  # fmt: skip
"""How far each number of a live cook spreads, one standard deviation (estimates; tried as docs/calibration.md says)."""

NUMBERS = len(_SPREADS)


@dataclass(frozen=True)
class Stretch:
    """A time on the fire that is over: what phase it was, on which cooker, how long [s], whether it began wetted."""

    phase: Phase
    cooker: Cooker
    lasts_s: float
    spritzed: bool = False


@dataclass(frozen=True)
class Seen:
    """Readings: times [s] in order, and temperatures [°C]."""

    times_s: tuple[float, ...] = ()
    celsius: tuple[float, ...] = ()

    def arrays(self) -> tuple[Array, Array]:
        return np.asarray(self.times_s, float), np.asarray(self.celsius, float)


NOTHING = Seen()
"""No readings."""


@dataclass(frozen=True)
class Felt:
    """How it felt under a probe at a time [s]: ``tough``, ``giving`` or ``like butter``."""

    at_s: float
    feel: str


@dataclass(frozen=True)
class Live:
    """A piece on the fire at `now_s`.

    `past` are its stretches up to now, the last one going on as `ahead[0]` says; `ahead` what is left of its phases,
    each on its cooker, time already spent in the first one taken off it.
    """

    heated: Heated
    past: tuple[Stretch, ...]
    ahead: tuple[tuple[Phase, Cooker], ...]
    centre: Seen = NOTHING
    pit: Seen = NOTHING
    felt: tuple[Felt, ...] = ()

    @property
    def now_s(self) -> float:
        return sum(one.lasts_s for one in self.past)


def drawn(body: Body, trade: Factor, xi: Array, fire_shift: Array | float = 0.0) -> Body:
    """Return the bodies of draws `xi`, standard normals, a row a draw; and how much hotter their fire is [K]."""
    z = dict(zip(_SPREADS, (xi * np.array(list(_SPREADS.values()))).T, strict=True))
    return with_numbers(body, trade, z | {"fire": np.asarray(fire_shift, float)})


def pit_shift(xi: Array) -> Array:
    """Return how much hotter it is where each draw lies than the pit's probe says [K]."""
    return np.asarray(xi[:, list(_SPREADS).index("pit")] * _SPREADS["pit"])


def by_minute(seen: Seen) -> tuple[Array, Array]:
    """Return medians of each minute that has readings: mean times [s] and temperatures [°C]."""
    times, celsius = seen.arrays()
    if not len(times):
        return times, celsius
    minute = (times // 60).astype(int)
    sizes = np.diff(np.concatenate((np.flatnonzero(np.diff(minute, prepend=minute[0] - 1)), [len(minute)])))
    begins = np.concatenate(([0], np.cumsum(sizes)[:-1]))
    ranked = celsius[np.lexsort((celsius, minute))]
    middles = (ranked[begins + (sizes - 1) // 2] + ranked[begins + sizes // 2]) / 2
    return np.add.reduceat(times, begins) / sizes, middles


def thinned(times: Array, celsius: Array) -> tuple[Array, Array]:
    """Return at most 48 readings, even over the cook, the newest always among them."""
    if len(times) <= MOST_READINGS:
        return times, celsius
    at = np.unique(np.round(np.linspace(len(times) - 1, 0, MOST_READINGS)).astype(int))
    return times[at], celsius[at]


def past_steps(live: Live) -> Array:
    """Return the steps of time up to now [s]: small after each change, and ending where a stretch does."""
    most = float(np.clip(live.now_s / _STEPS_OF_PAST, _LEAST_STEP_S, _MOST_STEP_S))
    steps = []
    for one in live.past:
        left, dt = one.lasts_s, min(_FIRST_STEP_S, most)
        while left > 1e-6:
            step = dt if left > 1.3 * dt else left
            steps.append(step)
            left -= step
            dt = min(most, dt * _GROWS)
    return np.array(steps)


def fire_over(live: Live, steps: Array) -> Array:
    """Return how hot the fire was over each step [°C]: the mean of what was read, what was aimed at without readings.

    Between readings that are long apart it goes by straight lines; before the first one, and where nothing was read,
    it was what the phase was aimed at.
    """
    if not len(steps):
        return steps
    ends = np.cumsum(steps)
    starts = ends - steps
    stretch = np.searchsorted(np.cumsum([one.lasts_s for one in live.past]), (starts + ends) / 2)
    aimed = np.array([one.phase.aimed_c for one in live.past])[np.minimum(stretch, len(live.past) - 1)]
    times, celsius = by_minute(live.pit)
    if not len(times):
        return np.asarray(aimed, float)
    fine = np.arange(0.0, float(ends[-1]) + 60.0, 30.0)
    area = np.concatenate(([0.0], np.cumsum(np.interp(fine, times, celsius) * 30.0)))
    at = np.arange(len(area)) * 30.0
    seen = (np.interp(ends, at, area) - np.interp(starts, at, area)) / steps
    return np.asarray(np.where(ends < times[0] - 600, aimed, seen))


def live_legs(live: Live, fire_c: float, spread_k: float, beyond: bool = True) -> tuple[Leg, ...]:
    """Return the legs of a live cook: stretches by their time, then what is ahead, the fire as it is expected to be.

    Where it is to go `beyond`, the last phase goes on past its end, so that this is found afterwards, in what is read
    rather than in the model.
    """
    height = live.heated.boils_c
    legs: list[Leg] = []
    for number, one in enumerate(live.past):
        phase = replace(one.phase, lasts_s=one.lasts_s, centre_c=None, feel="", colour="")
        mine = [replace(leg, phase=number) for leg in legs_of([phase], [one.cooker], height)]
        legs += _as_long(mine, one.lasts_s)
        if one.spritzed and len(mine):
            at = len(legs) - len(mine)
            legs[at] = replace(legs[at], spritz=SPRITZED_KG_M2)
    first = live.ahead[0]
    for at, (phase, cooker) in enumerate(live.ahead):
        same = cooker == first[1] and phase.surround == first[0].surround
        for leg in legs_of([phase], [cooker], height):
            fire = fire_c + leg.fire_c - first[0].aimed_c if same else leg.fire_c
            ahead = replace(leg, phase=len(live.past) + at, fire_c=fire, fire_spread=spread_k)
            legs.append(_beyond(ahead) if beyond and at == len(live.ahead) - 1 else ahead)
    return tuple(legs)


def _beyond(leg: Leg) -> Leg:
    """Return a leg that goes on beyond its end by number and by feel."""
    until = None if leg.until_c is None else leg.until_c + BEYOND_K
    return replace(leg, until_c=until, until_dose=None if leg.until_dose is None else leg.until_dose * BEYOND_DOSES)


def _as_long(legs: Sequence[Leg], lasts_s: float) -> list[Leg]:
    """Return a phase's legs so that they take as long as it did: a face goes on where nobody turned it."""
    found, left = [], lasts_s
    for at, leg in enumerate(legs):
        lasts = min(leg.lasts_s, left) if at < len(legs) - 1 else left
        if lasts > 1e-6:
            found.append(replace(leg, lasts_s=lasts))
            left -= lasts
    return found or [replace(legs[0], lasts_s=lasts_s)]

"""When a piece on the fire will be done: its numbers fitted to what was read so far, and drawn on to its end.

Sixty-four draws of what the readings leave open go on to the end of what is ahead; the fire to come is as it has been,
drawn towards what is aimed at. What the model is off by now fades over two hours. Twenty chances come out of it.
"""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.stats import norm, qmc

from ravska_core.heat.chances import grains
from ravska_core.heat.fit import DRIFT_K, DRIFT_S, Past, fit, tip_off
from ravska_core.heat.heated import body_of
from ravska_core.heat.live import NUMBERS, Live, Seen, by_minute, drawn, live_legs, pit_shift
from ravska_core.heat.phases import COLOURS, Phase, legs_of
from ravska_core.heat.run import HeatRun, first_time, run
from ravska_core.heat.tenderness import FEELS, TOUGH_BELOW_H, dose_h
from ravska_core.heat.trade import factor_of

Array = NDArray[np.float64]

DRAWS = 64

_WANDERS_K, _RECENT_S, _SETTLED_S, _SHRUNK = 4.0, 3 * 3600.0, 1200.0, 0.5
"""How far the fire to come is off [K], what of the past it is judged by [s], and the weight of what is aimed at."""

_LEAST_SPREAD, _MORE_SPREAD, _LATE = 0.13, 0.19, 0.10
"""Log spread that no number stands for: 0.13 + 0.19 s^2, s the share of the cook that is left, and how much later than
the model says it is: 0.10 s (estimates)."""

_DOSE_SPREAD, _FELT_SPREAD = 0.5, 0.35
"""Log spread of the dose a feel takes, and of what a finger says (estimates)."""

_ROUNDS, _ON_S, _PATIENCE, _POINTS = 4, 30 * 3600.0, 3.0, 41


_ENDS = ("number", "feel", "colour", "time")


@dataclass(frozen=True)
class Forecast:
    """When a piece is done, told at `now_s`; times from when it went on [s].

    `done` are twenty chances in order, None where it never comes to it so; `done_s` the middle one. `by` says how many
    chances in twenty end it by ``number``, ``feel``, ``colour`` or ``time``. The fan ahead [s, °C]: `low` to `high`
    hold eight draws in ten. `numbers` are the fit, to begin the next one from.
    """

    now_s: float
    done: tuple[float | None, ...]
    done_s: float | None
    low_s: float | None
    high_s: float | None
    by: dict[str, int]
    times_s: tuple[float, ...]
    low: tuple[float, ...]
    middle: tuple[float, ...]
    high: tuple[float, ...]
    fire_c: float
    numbers: tuple[float, ...]


@lru_cache(maxsize=1)
def _normals() -> Array:
    """Return standard normals, a row a draw: the numbers, the fire, the discrepancy, the dose and what is left over."""
    even = qmc.Sobol(NUMBERS + 4, seed=1).random(DRAWS)
    found = norm.ppf(np.clip(even, 1e-3, 1 - 1e-3))
    # the first draw is the likeliest: the others are waited for by it
    found[0] = 0.0
    return np.asarray(found)


def forecast(live: Live, begin: tuple[float, ...] = ()) -> Forecast:
    """Forecast when a piece on the fire comes to the end of what is ahead of it.

    Parameters
    ----------
    begin : tuple of float
        The numbers of the last forecast of this piece: one round does then instead of four.
    """
    body, trade = body_of(live.heated), factor_of(live.heated.cut)
    past = Past(live, body, trade)
    start = np.array(begin) if len(begin) == NUMBERS else None
    found = fit(past, start, _ROUNDS if start is None else 1)
    z = _normals()
    xi = np.clip(found.xi + z[:, :NUMBERS] @ found.root.T, -3.5, 3.5)
    fire_c = fire_to_come(live)
    went = _on(live, past, xi, fire_c, z[:, NUMBERS])
    told = _told(live, past, went, _gap(live, past, went), z[:, NUMBERS + 1])
    ends, by = _ends(live, went, told, z[:, NUMBERS + 2])
    left = ends - live.now_s
    share = np.nanmedian(left) / (np.nanmedian(left) + live.now_s) if np.isfinite(left).any() else 1.0
    timed = by == "time"
    left = np.where(
        timed, left, left * np.exp(_LATE * share + (_LEAST_SPREAD + _MORE_SPREAD * share**2) * z[:, NUMBERS + 3])
    )
    chances = grains(live.now_s + left)
    return Forecast(
        live.now_s, chances, _middle(chances), chances[1], chances[-2],
        {one: round(float((by == one).mean()) * 20) for one in _ENDS if (by == one).any()},
        **_fan(live, went, told, _until(live, chances)), fire_c=fire_c, numbers=tuple(float(one) for one in found.xi),
    )  # fmt: skip


def fire_to_come(live: Live) -> float:
    """Return how hot the fire is expected to be [°C]: the mean of its last three hours, drawn to what is aimed at."""
    aimed = live.ahead[0][0].aimed_c
    times, celsius = by_minute(live.pit)
    begun = live.now_s - live.past[-1].lasts_s if live.past else 0.0
    since = max(live.now_s - _RECENT_S, min(begun + _SETTLED_S, (begun + live.now_s) / 2))
    recent = celsius[times > since]
    if not len(recent):
        return aimed
    weight = min(len(recent) / 60.0, 3.0)
    return float((recent.mean() * weight + aimed * _SHRUNK) / (weight + _SHRUNK))


def _on(live: Live, past: Past, xi: Array, fire_c: float, wanders: Array) -> HeatRun:
    """Return draws run from the beginning, through what was seen, on to the end of what is ahead."""
    body = drawn(past.body, past.trade, xi, pit_shift(xi) + _WANDERS_K * wanders)
    legs = live_legs(live, fire_c, 1.0)
    return run(body, legs, whole_s=live.now_s + _ON_S, so_far=past.so_far(xi), probe=tip_off(xi), patience=_PATIENCE)


def _gap(live: Live, past: Past, went: HeatRun) -> Array:
    """Return how much more probes show now than the model, of each draw [K]; the older the readings, the less."""
    if not len(past.times):
        return np.zeros(went.centre.shape[1])
    near = past.times >= min(live.now_s - 600.0, past.times[-1])
    stale = np.exp(-(live.now_s - past.times[-1]) / DRIFT_S)
    return np.asarray(stale * (past.read[near, None] - past.at_readings(went)[near]).mean(axis=0))


def _told(live: Live, past: Past, went: HeatRun, gap: Array, z: Array) -> Array:
    """Return what probes will show from now on: what the model is off by now fades, and it goes off anew."""
    begin = len(past.steps)
    fade = np.exp(-np.maximum(went.times_s[begin:] - live.now_s, 0.0) / DRIFT_S)
    return np.asarray(went.tip[begin:] + gap * fade + DRIFT_K * np.sqrt(1 - fade**2) * z)


def _ends(live: Live, went: HeatRun, told: Array, z: Array) -> tuple[Array, NDArray[np.str_]]:
    """Return when each draw comes to its end [s], nan where it never does, and by what."""
    last = live.ahead[-1][0]
    begin = len(went.times_s) - len(told)
    times = went.times_s[begin:]
    number = len(live.past) + len(live.ahead) - 1
    phase = np.array([leg.phase for leg in live_legs(live, 0.0, 0.0)])[went.leg[begin:]]
    there = phase == number
    found: dict[str, Array] = {}
    if last.centre_c is not None:
        so_far = np.maximum.accumulate(np.where(there, told, -np.inf), axis=0)
        found["number"] = first_time(times, so_far, last.centre_c)
    if last.feel:
        doses = _doses(went) * _tenders(live, went, z)
        found["feel"] = first_time(times, np.where(there, doses[begin:], 0.0), FEELS[last.feel])
    if last.colour:
        browned = np.where(there, went.surface[begin:].min(axis=2), -np.inf)
        found["colour"] = first_time(times, browned, COLOURS[last.colour])
    if last.lasts_s is not None:
        # a row is noted before what it leads to is entered
        first = np.maximum(there.argmax(axis=0) - 1, 0)
        entered = np.where(there.any(axis=0), np.take_along_axis(times, first[None, :], 0)[0], np.nan)
        found["time"] = entered + last.lasts_s
    names = np.array(list(found))
    rows = np.stack([np.where(np.isnan(one), np.inf, one) for one in found.values()])
    ends = rows.min(axis=0)
    by = np.where(np.isfinite(ends), names[rows.argmin(axis=0)], "")
    return np.where(np.isfinite(ends), np.maximum(ends, live.now_s), np.nan), by


def _doses(went: HeatRun) -> Array:
    """Return the tender dose of each draw's centre over its own times [h at 82 °C]."""
    columns = [dose_h(went.times_s[:, at], went.centre[:, at : at + 1]) for at in range(went.centre.shape[1])]
    return np.concatenate(columns, axis=1)


def _tenders(live: Live, went: HeatRun, z: Array) -> Array:
    """Return how much sooner than usual each draw turns tender: as fingers have told so far, or as cuts differ."""
    if not live.felt:
        return np.exp(_DOSE_SPREAD * z)
    grid = np.linspace(-3, 3, 241)
    log = -(grid**2) / 2
    middle = np.median(_doses(went), axis=1)
    middle_times = np.median(went.times_s, axis=1)
    for one in live.felt:
        dose = max(1e-4, float(np.interp(one.at_s, middle_times, middle)))
        seems = math.log(dose) + _DOSE_SPREAD * grid
        low, high = _FEELS_LIKE[one.feel]
        log = log + np.log(norm.cdf((high - seems) / _FELT_SPREAD) - norm.cdf((low - seems) / _FELT_SPREAD) + 1e-6)
    chances = np.cumsum(np.exp(log - log.max()))
    return np.asarray(np.exp(_DOSE_SPREAD * np.interp(norm.cdf(z), chances / chances[-1], grid)))


_FIRM, _SOFT = (
    math.log(math.sqrt(low * high)) for low, high in ((TOUGH_BELOW_H, FEELS["giving"]), tuple(FEELS.values()))
)

_FEELS_LIKE = {"tough": (-math.inf, _FIRM), "giving": (_FIRM, _SOFT), "like butter": (_SOFT, math.inf)}
"""Between which logarithms of a dose it feels so."""


def _fan(live: Live, went: HeatRun, told: Array, until_s: float) -> dict[str, tuple[float, ...]]:
    """Return the fan of what probes will show, from now on until a time."""
    begin = len(went.times_s) - len(told)
    times = np.linspace(live.now_s, until_s, _POINTS)
    each = [np.interp(times, went.times_s[begin:, at], told[:, at]) for at in range(told.shape[1])]
    low, middle, high = np.quantile(each, (0.1, 0.5, 0.9), axis=0)
    return {
        name: tuple(round(float(one), 2) for one in values)
        for name, values in (("times_s", times), ("low", low), ("middle", middle), ("high", high))
    }


def _until(live: Live, chances: tuple[float | None, ...]) -> float:
    """Return how far a fan is drawn [s]: a little beyond the last chance, half as long again where there is none."""
    known = [one for one in chances if one is not None]
    return live.now_s + 1.05 * (known[-1] - live.now_s) + 300 if known else 1.5 * live.now_s + 3600


def _middle(chances: tuple[float | None, ...]) -> float | None:
    two = chances[9], chances[10]
    return None if two[0] is None or two[1] is None else (two[0] + two[1]) / 2


@dataclass(frozen=True)
class Changed:
    """What would be otherwise: the fire so much hotter from now on [K], wrapped, or the past `pit` another."""

    hotter_k: float = 0.0
    wrapped: bool = False
    pit: Seen | None = None


def later_s(live: Live, numbers: tuple[float, ...], changed: Changed) -> float | None:
    """Determine how much later it would be done with something changed [s], by the likeliest draw; None if never."""
    body, trade = body_of(live.heated), factor_of(live.heated.cut)
    past, xi, none = Past(live, body, trade), np.array(numbers)[None, :], np.zeros(1)
    went = _on(live, past, xi, fire_to_come(live), none)
    gap = _gap(live, past, went)
    as_it_is, _ = _ends(live, went, _told(live, past, went, gap, none), none)
    (phase, cooker), *others = live.ahead
    if changed.wrapped:
        phase = replace(phase, vessel="foil")
    otherwise = replace(live, ahead=((phase, cooker), *others), pit=changed.pit or live.pit)
    past = Past(otherwise, body, trade)
    went = _on(otherwise, past, xi, fire_to_come(live) + changed.hotter_k, none)
    then, _ = _ends(otherwise, went, _told(otherwise, past, went, gap, none), none)
    found = float(then[0] - as_it_is[0])
    return found if math.isfinite(found) else None


def carry_k(live: Live, numbers: tuple[float, ...], rest: Phase) -> float:
    """Determine how much the centre still rises once it is off and rests [K], by the likeliest draw."""
    none = np.zeros(1)
    past = Past(live, body_of(live.heated), factor_of(live.heated.cut))
    xi = np.array(numbers)[None, :]
    legs = live_legs(live, fire_to_come(live), 1.0, beyond=False)
    resting = replace(
        legs_of([rest], [live.ahead[-1][1]], live.heated.boils_c)[0], phase=len(live.past) + len(live.ahead)
    )
    body = drawn(past.body, past.trade, xi, pit_shift(xi) + none)
    went = run(body, (*legs, resting), whole_s=live.now_s + _ON_S, so_far=past.so_far(xi), probe=tip_off(xi))
    off = np.flatnonzero(went.leg[:, 0] == len(legs))
    return float(went.centre[off, 0].max() - went.centre[off[0] - 1, 0]) if len(off) else 0.0

"""What readings so far say of a live cook's numbers: Gauss-Newton to the likeliest, Laplace's spread about it.

The numbers are independent standard normals xi. Readings are medians of a minute, at most 48. Their misfit is white
noise and, as no model is the meat, an Ornstein-Uhlenbeck discrepancy that is wider where the centre warms fast:
cov(t, t') = 0.3^2 [t = t'] + w(t) w(t') exp(-|t - t'| / 2 h), w = 0.7 + 0.03 t |dT/dt|.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ravska_core.heat.live import NUMBERS, Live, by_minute, drawn, fire_over, live_legs, past_steps, pit_shift, thinned
from ravska_core.heat.run import HeatRun, SoFar, run
from ravska_core.heat.solver import Body
from ravska_core.heat.trade import Factor

Array = NDArray[np.float64]

WHITE_K, DRIFT_K, _LAG, DRIFT_S, _FASTEST_K_S = 0.3, 0.7, 0.03, 7200.0, 40 / 3600
"""Noise of a reading and the model's discrepancy [K], its share of the time gone, how long it lasts [s] (estimates)."""

_STEP, _FARTHEST, _MOST_XI = 0.15, 1.2, 3.5
_TYPICAL_OFF, _MOST_OFF = 0.62, 0.45
"""Where a probe's tip is: normal's share of at most 0.45 of the way from the centre to the surface (estimates)."""


@dataclass(frozen=True)
class Fit:
    """The likeliest numbers and a root of their covariance."""

    xi: Array
    root: Array


def tip_off(xi: Array) -> Array:
    """Return how far off the centre each draw's probe is: a share of the way to the surface."""
    return np.asarray(_MOST_OFF / (1 + np.exp(1.6 * (_TYPICAL_OFF - xi[:, 6]))))


class Past:
    """A live cook up to now, run for any numbers and compared with what was read."""

    def __init__(self, live: Live, body: Body, trade: Factor) -> None:
        self.live, self.body, self.trade = live, body, trade
        self.steps = past_steps(live)
        self.fire = fire_over(live, self.steps)
        self.times, self.read = thinned(*by_minute(live.centre))
        self.legs = live_legs(live, float(self.fire[-1]) if len(self.fire) else live.ahead[0][0].aimed_c, 0.0)
        self.whiten = self._whitened()

    def _whitened(self) -> Array:
        times, read = self.times, self.read
        rate = np.abs(np.gradient(read, times)) if len(times) > 2 else np.zeros(len(times))
        if len(times) > 5:
            rate = np.convolve(rate, np.ones(5) / 5, "same")
        width = DRIFT_K + _LAG * times * np.minimum(rate, _FASTEST_K_S)
        apart = np.abs(times[:, None] - times[None, :])
        together = WHITE_K**2 * np.eye(len(times)) + np.outer(width, width) * np.exp(-apart / DRIFT_S)
        return np.asarray(np.linalg.inv(np.linalg.cholesky(together)))

    def so_far(self, xi: Array) -> SoFar:
        return SoFar(self.steps, self.fire[:, None] + pit_shift(xi)[None, :])

    def run(self, xi: Array) -> HeatRun:
        """Return the past alone of draws."""
        body = drawn(self.body, self.trade, xi)
        return run(body, self.legs, steps=[0.0] * len(self.steps), so_far=self.so_far(xi), probe=tip_off(xi))

    def at_readings(self, went: HeatRun) -> Array:
        """Return what probes would have shown at the times of the readings, a column a draw."""
        times = went.times_s[:, 0]
        at = np.clip(np.searchsorted(times, self.times), 1, len(times) - 1)
        part = ((self.times - times[at - 1]) / (times[at] - times[at - 1]))[:, None]
        return np.asarray(went.tip[at - 1] * (1 - part) + went.tip[at] * part)

    def misfit(self, xi: Array) -> tuple[Array, Array]:
        """Return whitened residuals of draws and what each costs with its distance from what is usual."""
        off = self.whiten @ (self.read[:, None] - self.at_readings(self.run(xi)))
        return off, (off**2).sum(axis=0) + (xi**2).sum(axis=1)


def fit(past: Past, begin: Array | None, rounds: int) -> Fit:
    """Determine the likeliest numbers from a beginning by so many rounds of Gauss-Newton; a step too long is halved."""
    if not len(past.times):
        return Fit(np.zeros(NUMBERS), np.eye(NUMBERS))
    xi = np.zeros(NUMBERS) if begin is None else begin
    best, best_at = np.inf, xi
    precision = np.eye(NUMBERS)
    for _ in range(rounds):
        tries = np.vstack((xi, xi + _STEP * np.eye(NUMBERS), (xi + best_at) / 2))
        off, costs = past.misfit(tries)
        if costs[0] > best:
            xi = tries[-1] if costs[-1] < best else best_at
            off, costs = past.misfit(np.vstack((xi, xi + _STEP * np.eye(NUMBERS))))
        best, best_at = costs[0], xi
        slopes = (off[:, 1 : NUMBERS + 1] - off[:, :1]) / _STEP
        precision = slopes.T @ slopes + np.eye(NUMBERS)
        xi = xi + np.clip(np.linalg.solve(precision, -(slopes.T @ off[:, 0] + xi)), -_FARTHEST, _FARTHEST)
        xi = np.clip(xi, -_MOST_XI, _MOST_XI)
    return Fit(xi, np.linalg.cholesky(np.linalg.inv(precision)))

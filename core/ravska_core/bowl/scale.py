"""A kitchen scale that behaves like one: it settles, trembles, drifts, rounds, overloads and drops out.

The pan is a damped spring; what it shows is what lies on it less the tare, with noise and drift, rounded.
"""

import math
import random
from collections import deque
from dataclasses import dataclass

from ravska_core.working import in_range

READINGS_A_SECOND = 10

_SPRING = 14.0
"""Natural frequency of the pan [rad/s] (estimate from how kitchen scales settle in about half a second)."""

_DAMPING = 0.55

_SUBSTEP_S = 0.005

_SETTLED_S = 0.6


@dataclass(frozen=True)
class ScaleSettings:
    """What a scale is like: capacity, resolution and noise [g], drift [g/min], drop-outs a minute and their length [s].

    `noise_g` None stands for 0.3 of the resolution.
    """

    capacity_g: float = 5000.0
    resolution_g: float = 0.1
    noise_g: float | None = None
    drift_g_min: float = 0.05
    drop_outs_a_minute: float = 0.0
    drop_out_s: float = 3.0


@dataclass(frozen=True)
class ScaleReading:
    """What a scale shows at a time [s]: weight less tare [g] or nothing under overload, and whether it has settled."""

    at_s: float
    grams: float | None
    settled: bool
    overload: bool


class SimulatedScale:
    """A scale with something on it. The same seed and the same handling give the same readings."""

    def __init__(self, settings: ScaleSettings, seed: int = 0) -> None:
        in_range("resolution_g", settings.resolution_g, 0.01, 10, "A kitchen scale reads by 0.1 g or 1 g; choose one.")
        in_range("capacity_g", settings.capacity_g, 10, 50_000, "A kitchen scale carries between 10 g and 50 kg.")
        in_range("drop_outs_a_minute", settings.drop_outs_a_minute, 0, 60, "At most 60 drop-outs a minute.")
        self.settings = settings
        self._random = random.Random(seed)
        self._load_g = self._tare_g = self._drift_g = 0.0
        self._shown_g = self._speed = 0.0
        self._at_s = self._silent_until_s = 0.0
        self._last: deque[tuple[float, float]] = deque()

    def put(self, grams: float) -> None:
        """Put something on the pan, or take it off again where `grams` is below 0; it gets no lighter than empty."""
        self._load_g = max(0.0, self._load_g + grams)

    def clear(self) -> None:
        """Take everything off the pan."""
        self._load_g = 0.0

    def tare(self) -> None:
        """Show what lies on the pan now as nothing."""
        self._tare_g = self._load_g
        self._drift_g = 0.0
        self._last.clear()

    def drop_out(self, seconds: float) -> None:
        """Say nothing for a while, as a scale does whose connection is lost."""
        self._silent_until_s = self._at_s + seconds

    def read(self, step_s: float = 1 / READINGS_A_SECOND) -> ScaleReading | None:
        """Let time pass and return what the scale shows then; None while it is out of reach."""
        left = step_s
        while left > 1e-12:
            step = min(_SUBSTEP_S, left)
            self._speed += step * (_SPRING**2 * (self._load_g - self._shown_g) - 2 * _DAMPING * _SPRING * self._speed)
            self._shown_g += step * self._speed
            left -= step
        self._at_s += step_s
        self._drift_g += self.settings.drift_g_min * step_s / 60
        if self._random.random() < self.settings.drop_outs_a_minute * step_s / 60:
            self.drop_out(self.settings.drop_out_s)
        resolution = self.settings.resolution_g
        noise = resolution * 0.3 if self.settings.noise_g is None else self.settings.noise_g
        raw = self._shown_g - self._tare_g + self._drift_g + self._random.gauss(0, noise)
        self._last.append((self._at_s, raw))
        while self._last[0][0] < self._at_s - _SETTLED_S - 1e-9:
            self._last.popleft()
        if self._at_s < self._silent_until_s:
            return None
        if self._load_g > self.settings.capacity_g or self._shown_g > self.settings.capacity_g * 1.02:
            return ScaleReading(self._at_s, None, False, True)
        spread = max(w for _, w in self._last) - min(w for _, w in self._last)
        whole = self._last[-1][0] - self._last[0][0] >= _SETTLED_S * 0.9
        # what trembles by less than two steps of the display lies still; the mean of it is shown
        settled = whole and spread <= max(2 * resolution, 6 * noise)
        shown = math.fsum(w for _, w in self._last) / len(self._last) if settled else raw
        steps = round(shown / resolution)
        return ScaleReading(self._at_s, steps * resolution + 0.0, settled, False)

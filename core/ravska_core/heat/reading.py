"""What the fire does to a piece: curves, when it is done, carry-over, loss, feel, smoke, and what to mind."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ravska_core.cautions import COOKS_C, SAFE_C, Caution, HeatSituation, fire_cautions
from ravska_core.heat.chances import draws_of, grains, patience_for
from ravska_core.heat.endpoints import credit, credited
from ravska_core.heat.heated import FRIDGE_C, Heated, body_of, last_hot, legs_of_heated, planned, worth_saying
from ravska_core.heat.phases import SURROUNDS, Phase
from ravska_core.heat.run import run
from ravska_core.heat.scorch import Scorched, scorching
from ravska_core.heat.skewers import unlike_on_a_skewer
from ravska_core.heat.solver import Body
from ravska_core.heat.surface import Leg
from ravska_core.heat.tenderness import dose_h, feel_of
from ravska_core.heat.trade import Factor, factor_of
from ravska_core.units import say_duration
from ravska_core.working import Figure, Step, figure

Array = NDArray[np.float64]

_POINTS, _MOST_CREDIT = 121, 100.0
"""Points of a curve, and most credit that is told."""

_LOSS_ERROR, _WET = 0.25, 0.3
"""Relative error of a loss, and how wet a surface is that smoke takes on (estimates)."""

_RENDERS = frozenset({"pork-belly", "duck-breast", "duck-leg", "goose-whole", "beef-rib-steak", "lamb-rack"})
"""Cuts whose fat drips over a flame (common practice, no source)."""


@dataclass(frozen=True)
class PhaseReading:
    """A phase as it went: in words, begin and end [s], centre and highest surface at its end [°C], loss in it.

    `open` says that it never ended as it should; `wet_s` is how long its surface was wet [s], `scorched` what of the
    coat turns bitter in it.
    """

    says: str
    begins_s: float
    ends_s: float
    centre_c: float
    surface_c: float
    lost: float
    open: bool
    wet_s: float
    scorched: tuple[Scorched, ...]


@dataclass(frozen=True)
class HeatReading:
    """What the fire does to a piece.

    Curves [s, °C]: centre with the span that eight draws in ten lie in, surface, and depths [cm] by time. `done` are
    twenty chances of when it comes off, in order [s], None where it never does. `carry` is how much the centre still
    rises at rest [K], `pull_c` when to take it off for the endpoint that was wanted [°C].
    """

    times_s: tuple[float, ...]
    centre: tuple[float, ...]
    centre_low: tuple[float, ...]
    centre_high: tuple[float, ...]
    surface: tuple[float, ...]
    depths_cm: tuple[float, ...]
    by_depth: tuple[tuple[float, ...], ...]
    phases: tuple[PhaseReading, ...]
    done: tuple[float | None, ...]
    done_s: float | None
    done_low_s: float | None
    done_high_s: float | None
    carry: Figure
    pull_c: float | None
    peak_c: float
    loss: Figure
    cooked: Figure
    cook_yield: float
    dose: Figure
    feel: str
    smoke_wet_s: float
    danger_s: float
    surface_safe_s: float | None
    credit: Figure | None
    factor: Figure
    rests: str
    says: tuple[str, ...]
    cautions: tuple[Caution, ...] = field(default=())


class _Went:
    """A run of a piece with the phase each draw is in: rows of time, columns of draws; the first is the likeliest."""

    def __init__(self, body: Body, trade: Factor, legs: tuple[Leg, ...]) -> None:
        self.run = run(draws_of(body, trade), legs, patience=patience_for(trade))
        self.phase = np.array([leg.phase for leg in legs])[self.run.leg]
        times, ended = self.run.times_s[:, 0], float(self.run.ended_s[0])
        self.finished = not math.isnan(ended)
        self.rows = int(np.searchsorted(times, ended - 1e-6)) + 1 if self.finished else len(times)

    @property
    def times_s(self) -> Array:
        return np.asarray(self.run.times_s[: self.rows, 0])

    @property
    def centre(self) -> Array:
        return np.asarray(self.run.centre[: self.rows, 0])

    @property
    def surface(self) -> Array:
        """The hotter side [°C]."""
        return np.asarray(self.run.surface[: self.rows, 0].max(axis=1))

    def in_phase(self, phase: int) -> NDArray[np.int64]:
        """Return the likeliest draw's rows in a phase, from the one it begins at."""
        found = np.flatnonzero(self.phase[: self.rows, 0] == phase)
        return np.concatenate(([found[0] - 1], found)) if len(found) and found[0] else found

    def end_of(self, phase: int) -> Array:
        """Return when each draw left a phase [s]; nan where it never did."""
        after = self.phase > phase
        before = np.maximum(after.argmax(axis=0) - 1, 0)
        first = np.take_along_axis(self.run.times_s, before[None, :], axis=0)[0]
        left = np.where(after.any(axis=0), first, np.nan)
        return np.where(self.phase.max(axis=0) == phase, self.run.ended_s, left)


@lru_cache(maxsize=24)
def _went(body: Body, trade: Factor, legs: tuple[Leg, ...]) -> _Went:
    """Return a run by all it depends on: a screen asks for the same one as long as nothing of it changes."""
    return _Went(body, trade, legs)


def read_heat(heated: Heated) -> HeatReading:
    """Determine what a piece's phases do to it, 64 draws of its numbers beside the most likely ones.

    Raises
    ------
    BadInput
        At ``phases`` where there are none, and at ``phases.N.…`` for what a phase cannot be.
    """
    phases, rests = planned(heated)
    went = _went(body_of(heated), factor_of(heated.cut), legs_of_heated(heated, phases))
    last = last_hot(phases)
    off = went.end_of(last)
    chances = grains(off)
    known = [one for one in chances if one is not None]
    carry, peak = _carry(went, off)
    read = tuple(_phase_reading(heated, phases, at, went) for at in range(len(phases)))
    situation = _situation(heated, phases, went, peak)
    dose = float(dose_h(went.times_s, went.centre[:, None])[-1, 0])
    safe = np.flatnonzero(went.run.surface[: went.rows, 0].min(axis=1) >= SAFE_C)
    return HeatReading(
        **_curves(went),
        phases=read,
        done=chances,
        done_s=None if math.isnan(off[0]) else float(off[0]),
        done_low_s=known[1] if len(known) > 1 else None,
        done_high_s=chances[-2],
        carry=carry,
        pull_c=None if heated.piece.endpoint_c is None else heated.piece.endpoint_c - max(0.0, carry.value),
        peak_c=peak,
        loss=_loss(went),
        cooked=_cooked(heated, went),
        cook_yield=1 - float(went.run.loss[went.rows - 1, 0]),
        dose=figure(
            [Step("Tender dose", "∫ exp(−12000 (1/T − 1/355.15)) dt of the centre", dose, "h at 82 °C", "estimate")],
            "a factor of 2: cuts, ages and animals differ", low=dose / 2, high=dose * 2,
        ),
        feel=feel_of(dose) if heated.cut.meat_class == "tough" else "",
        smoke_wet_s=sum(one.wet_s for one, phase in zip(read, phases, strict=True) if phase.wood),
        danger_s=situation.centre_s,
        surface_safe_s=float(went.times_s[safe[0]]) if len(safe) else None,
        credit=_credit(heated, went),
        factor=_factor(factor_of(heated.cut)),
        rests=rests,
        says=(*_says(phases, went, chances), *worth_saying(heated), *_between(phases, read)),
        cautions=fire_cautions(situation),
    )  # fmt: skip


def _curves(went: _Went) -> dict[str, Any]:
    """Return the curves of a run at so many times that they can be drawn."""
    times = went.times_s
    at = np.unique(np.searchsorted(times, np.linspace(0, times[-1], _POINTS)).clip(0, len(times) - 1))
    spans = _span(went, times[at])
    deep = went.run.depth_c[at]
    half = deep.shape[1] // (2 if went.run.surface.shape[2] == 2 else 1)

    def told(values: Array) -> tuple[float, ...]:
        return tuple(round(float(one), 2) for one in values)

    return {
        "times_s": told(times[at]),
        "centre": told(went.centre[at]),
        "centre_low": told(spans[0]),
        "centre_high": told(spans[1]),
        "surface": told(went.surface[at]),
        "depths_cm": told(went.run.depths_m[:half] * 100),
        "by_depth": tuple(told(row[:half]) for row in deep),
    }


def _span(went: _Went, times_s: Array) -> Array:
    """Return the centre's lower and upper tenth of all draws at times [°C]."""
    each = [
        np.interp(times_s, went.run.times_s[:, draw], went.run.centre[:, draw])
        for draw in range(went.run.centre.shape[1])
    ]
    return np.asarray(np.quantile(each, (0.1, 0.9), axis=0))


def _phase_reading(heated: Heated, phases: Sequence[Phase], number: int, went: _Went) -> PhaseReading:
    phase, rows = phases[number], went.in_phase(number)
    if not len(rows):
        end = float(went.times_s[-1])
        return PhaseReading(phase.says, end, end, float(went.centre[-1]), 0.0, 0.0, True, 0.0, ())
    times, wet = went.times_s[rows], went.run.wet[rows, 0]
    loss = went.run.loss[rows, 0]
    iron = phase.aimed_c if phase.surround == "hot iron" else None
    coat = () if phase.vessel in ("foil", "pot", "bag") or not SURROUNDS[phase.surround].hot else heated.coat
    lasts = np.diff(times, append=times[-1:])
    ended = number < len(phases) - 1 and bool((went.phase[: went.rows, 0] > number).any())
    return PhaseReading(
        phase.says, float(times[0]), float(times[-1]), float(went.centre[rows[-1]]),
        float(went.surface[rows[1:]].max()), float(loss[-1] - loss[0]), not (ended or went.finished),
        float(lasts[wet >= _WET].sum()), scorching(coat, times, went.surface[rows], wet, iron),
    )  # fmt: skip


def _carry(went: _Went, off: Array) -> tuple[Figure, float]:
    """Return how much the centre still rises once it is off the fire [K], and the highest it comes to [°C]."""
    times, centres = went.run.times_s, went.run.centre
    at = [
        min(len(times) - 1, int(np.searchsorted(times[:, draw], one))) if math.isfinite(one) else len(times) - 1
        for draw, one in enumerate(off)
    ]
    rested_s = np.where(np.isnan(went.run.ended_s), np.inf, went.run.ended_s + 1e-6)
    centres = np.where(times <= rested_s, centres, -np.inf)
    rises = [float(centres[row:, draw].max() - centres[row, draw]) for draw, row in enumerate(at)]
    low, high = np.quantile(rises, (0.1, 0.9))
    pulled, peak = float(centres[at[0], 0]), float(went.centre.max())
    steps = [
        Step("Centre when it comes off", "the likeliest run", pulled, "°C"),
        Step("Highest at rest", "the likeliest run", pulled + rises[0], "°C"),
        Step("Still rises by", "the difference", rises[0], "K"),
    ]
    return figure(steps, "eight of ten draws lie in the span", low=float(low), high=float(high)), peak


def _loss(went: _Went) -> Figure:
    percent = float(went.run.loss[went.rows - 1, 0]) * 100
    parts = {name: float(values[0]) for name, values in went.run.water.items() if name != "store"}
    whole = sum(parts.values()) or 1.0
    steps = [Step(f"Water {name}", "of what is lost", part / whole * percent, "%") for name, part in parts.items()]
    steps.append(Step("Loss", "of the raw weight, without the fat that melts", percent, "%", "heat-water"))
    return figure(steps, f"±{_LOSS_ERROR * 100:.0f} %: meat and fires differ", spread=_LOSS_ERROR)


def _cooked(heated: Heated, went: _Went) -> Figure:
    edible, kept = heated.reading.edible.value, 1 - float(went.run.loss[went.rows - 1, 0])
    steps = [
        Step("Edible, raw", "without bone", edible, "g"),
        Step("Left after the fire", f"{edible:.0f} g × {kept:.2f}", edible * kept, "g", "heat-water"),
    ]
    lost = (1 - kept) * _LOSS_ERROR / kept
    return figure(steps, f"±{lost * 100:.0f} %: as the loss", spread=lost)


def _situation(heated: Heated, phases: Sequence[Phase], went: _Went, peak: float) -> HeatSituation:
    times, centre = went.times_s, went.centre
    cold_side = went.run.surface[: went.rows, 0].min(axis=1)
    lasts = np.diff(times, append=times[-1:])
    safe = np.flatnonzero(centre >= SAFE_C)
    until = int(safe[0]) if len(safe) else len(times)
    baths = [
        (float(np.ptp(times[went.in_phase(at)])), phase.aimed_c) for at, phase in enumerate(phases)
        if phase.surround == "water bath" and phase.aimed_c < COOKS_C and len(went.in_phase(at))
    ]  # fmt: skip
    safe_side = np.flatnonzero(cold_side >= SAFE_C)
    gentle = all(phase.surround == "water bath" or not SURROUNDS[phase.surround].hot for phase in phases)
    return HeatSituation(
        animal=heated.cut.animal,
        minced=heated.cut.minced,
        peak_c=peak,
        intact=not (heated.piece.pierced or heated.cut.minced),
        surface_s=0.0 if gentle else float(times[safe_side[0]] if len(safe_side) else times[-1]),
        centre_s=float(lasts[:until][centre[:until] >= FRIDGE_C].sum()),
        bath_s=max((lasted for lasted, _ in baths), default=0.0),
        bath_c=min((celsius for _, celsius in baths), default=0.0),
        fat_over_flame=(heated.cut.like or heated.cut.key) in _RENDERS
        and any(phase.surround == "direct flame" and phase.tray != "drip" for phase in phases),
    )


def _credit(heated: Heated, went: _Went) -> Figure | None:
    """Return the endpoint credit, for information; none for meat it is not given for."""
    intact = not (heated.piece.pierced or heated.cut.minced)
    if not credited(heated.cut.animal, intact):
        return None
    found = min(credit(went.times_s, went.centre), _MOST_CREDIT)
    steps = [Step("Endpoint credit", "Σ dt / τ(T) of the centre", found, "× of 6.5 log", "fsis-appendix-a")]
    return figure(steps, "information only: never a permission below the usual minimum")


def _factor(trade: Factor) -> Figure:
    steps = [Step("Time factor of the cut", trade.says, trade.factor, "×", "trade")]
    return figure(steps, f"±{trade.spread * 100:.0f} %", spread=trade.spread)


def _between(phases: Sequence[Phase], read: Sequence[PhaseReading]) -> tuple[str, ...]:
    """Say what lies between the meat on its skewers and is not done when that is; all skewered phases together."""
    skewered = [(phase, one) for phase, one in zip(phases, read, strict=True) if phase.vessel == "skewer"]
    threaded = dict.fromkeys(key for phase, _ in skewered for key in phase.threaded)
    return unlike_on_a_skewer(tuple(threaded), sum(one.ends_s - one.begins_s for _, one in skewered))


def _says(phases: Sequence[Phase], went: _Went, chances: Sequence[float | None]) -> tuple[str, ...]:
    """Say what is worth knowing of a run: what never ends, and where its centre rests."""
    said = []
    if not went.finished:
        at = int(went.phase[went.rows - 1, 0])
        said.append(
            f"Phase {at + 1}, {phases[at].says}, does not end within {say_duration(float(went.times_s[-1]))}: its "
            f"centre stays at {went.centre[-1]:.0f} °C. Raise the heat, cut it smaller, or end it otherwise."
        )
    never = sum(one is None for one in chances)
    if went.finished and never:
        said.append(f"{never} chances in 20 that it is not done so: a little hotter would do it.")
    return tuple(said)

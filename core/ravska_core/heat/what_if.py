"""What would be otherwise: ten degrees hotter, half as thick, wrapped; each against the run as it is planned."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from ravska_core.heat.chances import middle_of
from ravska_core.heat.heated import Heated, body_of, last_hot, legs_of_heated, planned, rested
from ravska_core.heat.phases import SURROUNDS, Phase
from ravska_core.heat.run import run
from ravska_core.heat.solver import Body
from ravska_core.heat.trade import factor_of

HOTTER_K = 10.0


@dataclass(frozen=True)
class Otherwise:
    """One thing otherwise: in words, when it comes off then [s], how much sooner than as planned [s], its loss [%].

    None where it is not done so.
    """

    says: str
    done_s: float | None
    sooner_s: float | None
    loss_percent: float | None


def _hotter(phase: Phase) -> Phase:
    around = SURROUNDS[phase.surround]
    if not around.hot:
        return phase
    return replace(phase, aimed_c=min(around.high_c, phase.aimed_c + HOTTER_K), low_c=None, high_c=None)


def _wrapped(phase: Phase) -> Phase:
    return replace(phase, vessel="foil") if phase.surround in ("indirect", "oven") else phase


_Changes = tuple[str, Callable[[Phase], Phase], float]

_CHANGES: tuple[_Changes, ...] = (
    ("10 °C hotter (18 °F)", _hotter, 1.0), ("Half as thick", lambda phase: phase, 0.5), ("Wrapped", _wrapped, 1.0),
)  # fmt: skip


def what_if(heated: Heated) -> tuple[Otherwise, ...]:
    """Determine what three changes would do, each by the most likely run; those that change nothing are left out.

    Raises
    ------
    BadInput
        At ``phases`` where there are none, and at ``phases.N.…`` for what a phase cannot be.
    """
    planned(heated)
    body = middle_of(body_of(heated), factor_of(heated.cut))
    as_planned, _ = _off(heated, body)
    found = []
    for says, change, thick in _CHANGES:
        phases = tuple(change(phase) for phase in heated.phases)
        if phases == heated.phases and thick == 1.0:
            continue
        done, loss = _off(replace(heated, phases=phases), replace(body, half_m=float(body.half_m) * thick))
        sooner = None if done is None or as_planned is None else as_planned - done
        found.append(Otherwise(says, done, sooner, None if done is None else loss * 100))
    return tuple(found)


def _off(heated: Heated, body: Body) -> tuple[float | None, float]:
    """Return when a piece comes off the fire [s], None where it never does, and what it has lost when it is through."""
    phases, _ = rested(heated.phases, heated.cut)
    legs = legs_of_heated(heated, phases)
    gone = run(body, legs)
    hot = last_hot(phases)
    in_hot = [row for row, leg in enumerate(gone.leg[:, 0]) if legs[leg].phase <= hot]
    if len(in_hot) == len(gone.leg):
        return None, 0.0
    return float(gone.times_s[in_hot[-1], 0]), float(gone.loss[-1, 0])

"""When each step of an arm begins, counted back from serving by its holds."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from types import MappingProxyType

from ravska_core.working import Figure, Step, figure

MIX_S, WIPE_S, SALT_S = 15 * 60.0, 10 * 60.0, 30 * 60.0
"""Default lengths of the short steps [s] (common practice)."""

STEP_NAMES = MappingProxyType(
    {
        "mix": "Mix",
        "coat": "Coat and hold",
        "bag": "Bag and hold",
        "wipe": "Wipe",
        "salt": "Salt",
        "on": "On the fire",
        "rest": "Rest",
        "plate": "Plate",
    }
)
STEP_KINDS = tuple(STEP_NAMES)


@dataclass(frozen=True)
class Planned:
    """A step of an arm: what it is and how long it lasts until the next one [s]."""

    kind: str
    lasts_s: float


def usual_steps(layers: Sequence[str], hold_s: float, fire_s: float, rest_s: float) -> tuple[Planned, ...]:
    """Return the steps an arm usually goes through, in order.

    Parameters
    ----------
    layers : sequence of str
        Kinds of its layers in order: ``rub``, ``marinade`` or ``salt``.
    hold_s, fire_s, rest_s : float
        Hold of the rub or marinade, time on the fire, rest [s].
    """
    steps = [Planned("mix", MIX_S)] if {"rub", "marinade"} & set(layers) else []
    for kind in layers:
        if kind == "rub":
            steps.append(Planned("coat", hold_s))
        elif kind == "marinade":
            steps += [Planned("bag", hold_s), Planned("wipe", WIPE_S)]
        else:
            steps.append(Planned("salt", SALT_S))
    return (*steps, Planned("on", fire_s), Planned("rest", rest_s), Planned("plate", 0.0))


def count_back(serve_at: datetime, steps: Sequence[Planned]) -> tuple[tuple[datetime, Figure], ...]:
    """Determine when each step begins so that the last one ends at serving, and how long before serving that is.

    t_i = t_serve - sum of the lengths of step i and all after it.
    """
    found = []
    total = 0.0
    working: list[Step] = []
    for step in reversed(steps):
        total += step.lasts_s
        if step.lasts_s:
            working.insert(0, Step(STEP_NAMES[step.kind], "lasts", step.lasts_s, "s"))
        before = Step("Before serving", "this step and all after it", total, "s")
        found.append((serve_at - timedelta(seconds=total), figure([*working, before], "as exact as the times set")))
    return tuple(reversed(found))

"""When each step of a piece begins, counted back from serving."""

from collections.abc import Sequence
from datetime import datetime, timedelta

from ravska_core.coat import STEP_NAMES, Planned
from ravska_core.working import Figure, Step, figure


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

"""When each step of a piece begins, counted back from serving."""

from collections.abc import Sequence
from datetime import datetime, timedelta

from ravska_core.coat import ON_THE_FIRE, STEP_NAMES, Planned
from ravska_core.working import Figure, Step, figure


def count_back(serve_at: datetime, steps: Sequence[Planned]) -> tuple[tuple[datetime, Figure], ...]:
    """Determine when each step begins so that the last one ends at serving, and how long before serving that is.

    t_i = t_serve - sum of the lengths of step i and all after it; a step within the time on the fire lasts until the
    piece comes off, so the others on the fire do not add to it, and it never begins before the piece is on.
    """
    found = []
    total = 0.0
    working: list[Step] = []
    fire_s = max((step.lasts_s for step in steps if step.kind == "on"), default=0.0)
    for step in reversed(steps):
        within = step.kind in ON_THE_FIRE
        lasts = Step(STEP_NAMES[step.kind], "lasts", step.lasts_s, "s")
        if within:
            lasts = Step(STEP_NAMES[step.kind], "before it comes off", min(step.lasts_s, fire_s), "s")
        ahead = total + lasts.value
        chain = [lasts, *working] if step.lasts_s else working
        before = Step("Before serving", "this step and all after it", ahead, "s")
        found.append((serve_at - timedelta(seconds=ahead), figure([*chain, before], "as exact as the times set")))
        if not within:
            total, working = ahead, chain
    return tuple(reversed(found))

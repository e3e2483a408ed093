"""One batch shared out over its uses, and what is left for the jar."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ravska_core.blend import Blend, parts_of, shares
from ravska_core.working import BadInput, Figure, Step, figure, in_range

MOST_USES = 20


@dataclass(frozen=True)
class Use:
    """What some of a batch is for, and how much that takes [g]."""

    name: str
    mass_g: float


@dataclass(frozen=True)
class SharedOut:
    """What all uses take, what is left for the jar (below 0 when the batch is short), and a batch that would do."""

    taken: Figure
    left: Figure
    enough_g: float


def share_out(batch_g: float, uses: Sequence[Use]) -> SharedOut:
    """Determine what is left of a batch [g] after its uses.

    Raises
    ------
    BadInput
        At ``uses.N.mass`` for a weight out of range, at ``uses`` for too many.
    """
    if len(uses) > MOST_USES:
        raise BadInput("uses", f"A batch is shared out over at most {MOST_USES} uses.")
    for at, use in enumerate(uses):
        in_range(f"uses.{at}.mass", use.mass_g, 0.1, 50_000, "A use takes between 0.1 g and 50 kg.")
    steps = [Step(use.name, "planned", use.mass_g, "g") for use in uses]
    taken = sum(use.mass_g for use in uses)
    all_uses = Step("All uses", "sum of the uses" if uses else "nothing is planned yet", taken, "g")
    left = Step("Left for the jar", f"{batch_g:g} g − {taken:.1f} g", batch_g - taken, "g")
    error = "as exact as the uses are; what sticks to bowl and spoon is extra"
    return SharedOut(
        figure([*steps, all_uses], error), figure([*steps, all_uses, left], error), float(math.ceil(round(taken, 3)))
    )


def mass_inside(blend: Blend, at: int) -> float:
    """Determine how much of the blend in line `at` a batch of `blend` takes [g]: its share of the batch."""
    return shares(blend.lines, parts_of(blend.lines))[at] * blend.batch_g

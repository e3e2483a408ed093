"""What to mix of a blend for all that takes it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ravska_core.working import Figure, Step, figure, say


def batch_for_dose_g(dose_g: float) -> float:
    """Return the batch [g] that covers a dose: up to the next gram, as a kitchen scale reads."""
    return float(math.ceil(round(dose_g, 3)))


@dataclass(frozen=True)
class ToMix:
    """What all pieces take of one blend, what is to be mixed [g], and what is left over then [g]."""

    takes: Figure
    mix: Figure
    left_g: float


def to_mix(doses_g: Sequence[float], shelf_g: float, in_and_out: float = 1.0) -> ToMix:
    """Determine what to mix of a blend for doses [g], with `shelf_g` in clean jars already.

    `in_and_out` is what goes into the bowl over what comes out of its method.
    """
    total = sum(doses_g)
    takes = Step("All pieces", " + ".join(f"{dose:.1f}" for dose in doses_g), total, "g")
    missing = max(0.0, total - shelf_g)
    mixed = batch_for_dose_g(missing * in_and_out) if missing > 0.05 else 0.0
    steps = [
        takes,
        Step("On the shelf", "in clean jars", shelf_g, "g"),
        Step("Missing", f"{total:.1f} − {shelf_g:.1f} g", missing, "g"),
        Step("Into the bowl", f"× {say(in_and_out, 3)} for what its method loses, up to the next gram", mixed, "g"),
    ]
    said = "as the doses it adds up"
    return ToMix(figure([takes], said), figure(steps, said), shelf_g + mixed / in_and_out - total)

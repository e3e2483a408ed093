"""The core sample: salt from the surface to the centre at any hour of the hold, and what the hold does in words."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ravska_core.column import reach_share
from ravska_core.depth import DIFFUSIVITY_BAND, diffusivity_m2_s, reach_cm
from ravska_core.fates import Moment
from ravska_core.layers import Layer
from ravska_core.quantities import say_duration
from ravska_core.stack import Arm, Stack, holding
from ravska_core.working import Figure, Step, figure

DEPTHS = 41
NEAR_CM = 0.5


@dataclass(frozen=True)
class CoreSample:
    """Salt from the surface to the centre at one time of the hold [% of raw edible weight], with the band of D.

    `says` is what this hold does and what twice the time would add, in words.
    """

    time_s: float
    whole_s: float
    depths_cm: tuple[float, ...]
    percent: tuple[float, ...]
    low: tuple[float, ...]
    high: tuple[float, ...]
    reach: Figure
    says: tuple[str, ...]


def reach_of(layers: Sequence[Layer]) -> Figure:
    """Return how far salt has reached over a run of holds [mm]: 2 sqrt(sum of D t)."""
    dt_cm2 = sum(diffusivity_m2_s(layer.hold_c) * layer.hold_s for layer in layers) * 1e4
    mm = reach_cm(dt_cm2) * 10
    held = say_duration(sum(layer.hold_s for layer in layers))
    steps = [
        Step("D t", f"{held} of hold", dt_cm2 * 100, "mm²", "diffusivity"),
        Step("Salt has reached", "2 √(D t)", mm, "mm", "crank"),
    ]
    root = math.sqrt(DIFFUSIVITY_BAND[1])
    return figure(steps, "±40 %: diffusivity halved and doubled", low=mm / root, high=mm * root)


def core_sample(stack: Stack, arm: Arm, at_s: float | None) -> CoreSample | None:
    """Return the core sample at a time of the hold, at its end when none is given."""
    held = holding(arm.layers)
    if stack.middle is None or not held:
        return None
    whole = sum(layer.hold_s for layer in held)
    at = whole if at_s is None else min(max(0.0, at_s), whole)
    depths = np.linspace(0, 1, DEPTHS) ** 1.6 * stack.middle.half_cm
    low, mid, high = (stack.at_hold(factor, at, whole) for factor in (DIFFUSIVITY_BAND[0], 1.0, DIFFUSIVITY_BAND[1]))
    curves = [stack.curve(moment, depths) for moment in (low, mid, high)]
    past: list[Layer] = []
    left = at
    for layer in held:
        past.append(replace(layer, hold_s=min(left, layer.hold_s)))
        left -= past[-1].hold_s
    ends = np.array(curves)
    return CoreSample(
        at,
        whole,
        tuple(float(depth) for depth in depths),
        tuple(float(value) for value in curves[1]),
        tuple(float(value) for value in ends.min(axis=0)),
        tuple(float(value) for value in ends.max(axis=0)),
        reach_of(past),
        _in_words(stack, arm, whole),
    )


def _in_words(stack: Stack, arm: Arm, whole_s: float) -> tuple[str, ...]:
    """Say what the hold does, and what twice the time would add."""
    assert stack.middle is not None
    salt = stack.salt_g
    centre = np.array([stack.middle.half_cm])
    near = min(NEAR_CM, stack.middle.half_cm / 2)

    def told(moment: Moment) -> tuple[float, float, float]:
        cells = moment.cells @ salt
        total = float(cells.sum())
        return reach_share(stack.middle, cells, near), float(stack.curve(moment, centre)[0]), total  # type: ignore[arg-type]

    deeper, middle, total = told(stack.at_hold(1.0, whole_s, whole_s))
    if total <= 0:
        return ("Nothing salty is in the meat yet.",)
    again, middle_again, total_again = told(stack.follow(until_s=2 * whole_s, times=2))
    held = holding(arm.layers)
    mm, mm_again = reach_of(held).value, reach_of([replace(x, hold_s=2 * x.hold_s) for x in held]).value
    said = say_duration(whole_s)
    words = [
        f"In {said} salt reaches {mm:.1f} mm; {deeper * 100:.0f} % of it lies deeper than {near * 10:.0f} mm, "
        f"and the centre has {middle:.2f} %."
    ]
    more = f", and {(total_again / total - 1) * 100:.0f} % more of it goes in" if total_again > total * 1.02 else ""
    words.append(
        f"Twice the time would reach {mm_again:.1f} mm, put {again * 100:.0f} % deeper than {near * 10:.0f} mm and "
        f"bring the centre to {middle_again:.2f} %{more}."
    )
    if mm < 4:
        words.append(
            "So it seasons the surface. Spices and herbs stay there whatever the time: they do not follow the salt."
        )
    else:
        words.append("Spices and herbs do not follow the salt: they stay in the outer few millimetres.")
    return tuple(words)

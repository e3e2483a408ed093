"""The cook's own coat weight, learned from weighing back what was not used."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ravska_core.working import BadInput, Figure, Step, figure

WEIGHT_OF_USUAL = 2
"""How many weigh-backs the usual coat counts as, before the cook's own outweigh it (estimate)."""

SPREAD_OF_COOKS = 0.3
"""Relative spread of coat weights between cooks (estimate)."""


@dataclass(frozen=True)
class WeighBack:
    """What was taken to a piece, what is left over, what fell off [g], and the surface it went on [cm2]."""

    taken_g: float
    left_g: float
    fell_g: float
    area_cm2: float


def own_coat(back: WeighBack) -> Figure:
    """Determine the real coat of one piece [g/100 cm2]: (taken - left - fell) / area.

    Raises
    ------
    BadInput
        At ``taken``, ``left`` or ``fell`` when they cannot all be right.
    """
    if not 0 < back.taken_g <= 20_000:
        raise BadInput("taken", "What was taken weighs more than nothing and at most 20 kg.")
    if back.left_g < 0 or back.left_g >= back.taken_g:
        raise BadInput("left", "What is left over weighs less than what was taken; weigh both again.")
    if back.fell_g < 0 or back.left_g + back.fell_g >= back.taken_g:
        raise BadInput("fell", "What fell off and what is left together weigh less than what was taken.")
    on = back.taken_g - back.left_g - back.fell_g
    steps = [
        Step("On the meat", f"{back.taken_g:g} − {back.left_g:g} − {back.fell_g:g} g", on, "g"),
        Step("Your coat", f"{on:g} g / {back.area_cm2:.0f} cm²", on / back.area_cm2 * 100, "g/100 cm²"),
    ]
    return figure(steps, "±15 %, as the area", spread=0.15)


def learned_coat(usual: float, own: Sequence[float]) -> Figure:
    """Determine the coat this cook puts on [g/100 cm2]: the mean of their weigh-backs, shrunk towards the usual one.

    m = (k usual + sum own) / (k + n), with k `WEIGHT_OF_USUAL`; its spread is that of the own ones, pooled with the
    spread between cooks in the same way.
    """
    n = len(own)
    mean = (WEIGHT_OF_USUAL * usual + sum(own)) / (WEIGHT_OF_USUAL + n)
    squares = sum((value - mean) ** 2 for value in own) + WEIGHT_OF_USUAL * (SPREAD_OF_COOKS * usual) ** 2
    spread = math.sqrt(squares / (WEIGHT_OF_USUAL + n) / (WEIGHT_OF_USUAL + n)) if n else SPREAD_OF_COOKS * usual
    said = ", ".join(f"{value:.1f}" for value in own) or "none yet"
    steps = [
        Step("Usual coat", f"counts as {WEIGHT_OF_USUAL}", usual, "g/100 cm²", "trade"),
        Step("Weighed back", said, float(n), "times"),
        Step("Your coat", "mean of all, the usual one among them", mean, "g/100 cm²"),
    ]
    return figure(steps, f"from {n} weigh-backs", low=max(0.0, mean - 1.28 * spread), high=mean + 1.28 * spread)

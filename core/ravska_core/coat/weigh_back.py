"""The cook's own coat weight, and what of it stays, learned from weighing back what was not used."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ravska_core.working import BadInput, Figure, Step, figure

WEIGHT_OF_USUAL = 2
"""How many weigh-backs the usual coat counts as, before the cook's own outweigh it (estimate)."""

SPREAD_OF_COOKS = 0.3
"""Relative spread of coat weights between cooks (estimate)."""

TAKEN_FROM = 3
"""From so many weighings on one's own are taken by themselves, and that is said (a convention of ours)."""


@dataclass(frozen=True)
class WeighBack:
    """What was taken to a piece, what is left over, what fell off [g], and the surface it went on [cm2].

    `pan_g` is the fat found in the pan afterwards, `rendered_g` what of that the meat gives by itself [g].
    """

    taken_g: float
    left_g: float
    fell_g: float
    area_cm2: float
    pan_g: float = 0.0
    rendered_g: float = 0.0

    @property
    def put_on_g(self) -> float:
        """What went from hand or shaker to the meat [g]."""
        return self.taken_g - self.left_g

    @property
    def melted_g(self) -> float:
        """What melted off into the pan: the fat there, less what the meat gives by itself [g]."""
        return max(0.0, self.pan_g - self.rendered_g)

    @property
    def stays(self) -> float:
        """Share of what was put on that stays [0 to 1]: (taken - left - fell - melted off) / (taken - left)."""
        return (self.put_on_g - self.fell_g - self.melted_g) / self.put_on_g


def own_coat(back: WeighBack) -> Figure:
    """Determine the real coat of one piece [g/100 cm2]: (taken - left - fell) / area.

    Raises
    ------
    BadInput
        At ``taken``, ``left``, ``fell`` or ``pan`` when they cannot all be right.
    """
    if not 0 < back.taken_g <= 20_000:
        raise BadInput("taken", "What was taken weighs more than nothing and at most 20 kg.")
    if back.left_g < 0 or back.left_g >= back.taken_g:
        raise BadInput("left", "What is left over weighs less than what was taken; weigh both again.")
    if back.fell_g < 0 or back.left_g + back.fell_g >= back.taken_g:
        raise BadInput("fell", "What fell off and what is left together weigh less than what was taken.")
    if back.pan_g < 0 or back.stays < 0:
        said = (
            f"{back.melted_g:.0f} g of fat in the pan is more than was on the meat; what dripped out of it counts too."
        )
        raise BadInput("pan", said)
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

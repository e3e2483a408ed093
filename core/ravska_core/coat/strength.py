"""How salty an injected liquid must be for the salt wanted, what makes it so, and whether it is a solution at all."""

import math
from dataclasses import dataclass

from ravska_core.blend import SATURATION, BlendReading, brine_share
from ravska_core.working import BadInput, Figure, Step, figure, say

SALT_FOR_STRENGTH = ("table-salt/fine", 0.985)

WATER = "water/liquid"
"""What is added to a liquid to make it as salty as wanted: salt with its share of NaCl, or water."""


@dataclass(frozen=True)
class Strength:
    """How salty the liquid must be for the salt wanted [% of it], and what to add to it for that.

    `add_g` of `grind` go to `of_g` of the blend; nothing when it is right as it is.
    """

    needed: Figure
    now_percent: float
    add_g: float
    of_g: float
    grind: str
    says: str


def salt_needed(wants_percent: float, edible_g: float, liquid: float, stays: float) -> float:
    """Determine the salt share of the liquid [0 to 1] for the salt wanted: target x W / (liquid x stays)."""
    return wants_percent / 100 * edible_g / (liquid * stays)


def strengthen(blend: BlendReading, needed: float, liquid: float) -> tuple[str, float, float]:
    """Determine what makes a liquid of `liquid` g hold `needed` salt [0 to 1]: grind, its grams, the blend's grams."""
    now = blend.salt.value / 100
    salt, purity = SALT_FOR_STRENGTH
    if needed <= now:
        of = liquid * needed / now if now > 0 else liquid
        return WATER, liquid - of, of
    add = (needed - now) / (purity - now)
    return salt, liquid * add, liquid * (1 - add)


def strongest(blend: BlendReading) -> float:
    """Determine the most salt a liquid can hold when salt is stirred into it [mass fraction of it].

    From NaCl / (NaCl + water) = 26.4 % with the water the blend brings.
    """
    now, purity = blend.salt.value / 100, SALT_FOR_STRENGTH[1]
    room = SATURATION / (1 - SATURATION)
    add = max(0.0, (room * blend.water_share - now) / (purity - now + room * blend.water_share))
    return now * (1 - add) + purity * add


def check_liquid(blend: BlendReading) -> None:
    """Refuse a liquid that is no solution: with hardly any water, or above saturation.

    Raises
    ------
    BadInput
        At ``blend``.
    """
    if blend.water_share < 0.05:
        raise BadInput("blend", "This holds hardly any water, so it cannot be injected; add a juice, stock or water.")
    brine = brine_share(blend)
    if brine > SATURATION:
        salt = blend.salt.value / 100
        water_g = 1000 * (salt * (1 - SATURATION) / SATURATION - blend.water_share)
        raise BadInput(
            "blend",
            f"Of its salt and water {brine * 100:.0f} % is salt, and water takes only {SATURATION * 100:.1f} %: the "
            f"rest stays crystals and clogs the needle. Thin 1 kg of it with {math.ceil(water_g / 10) * 10} g of "
            "water, or take salt out.",
        )


def strength_of(
    wants_percent: float, blend: BlendReading, edible_g: float, dose_g: float, stays: float, pump: float
) -> Strength:
    """Determine how salty `dose_g` of liquid must be for the salt wanted [% of edible meat], and what makes it so.

    `stays` is the share of it that stays [0 to 1], `pump` what that is of the raw piece [%].

    Raises
    ------
    BadInput
        At ``injection.wants`` when water does not take that much salt.
    """
    needed = salt_needed(wants_percent, edible_g, dose_g, stays)
    most = strongest(blend)
    if needed > most:
        raise BadInput(
            "injection.wants",
            f"That takes a liquid of {needed * 100:.1f} % salt, and its water takes only {most * 100:.1f} %. "
            f"Pump at least {pump * needed / most:.1f} %, or want less salt from it.",
        )
    grind, add, of = strengthen(blend, needed, dose_g)
    now = blend.salt.value
    steps = [
        Step("Salt wanted", f"{wants_percent:g} % × {edible_g:.0f} g edible", needed * dose_g * stays, "g"),
        Step("Liquid that stays", f"{dose_g:.0f} g × {say(stays, 3)}", dose_g * stays, "g", "pump"),
        Step("Salt of the liquid", "wanted / liquid that stays", needed * 100, "%"),
    ]
    if abs(needed * 100 - now) <= max(0.02 * needed * 100, 0.02):
        says, add, of = "The blend is as salty as that.", 0.0, dose_g
    elif grind == WATER:
        says = f"Thin {of:.0f} g of the blend with {add:.0f} g of water." if of < dose_g else "It needs no salt at all."
    else:
        says = f"Stir {add:.1f} g of table salt into {of:.0f} g of the blend."
    said = figure(steps, "as exact as what stays, ±10 %", spread=0.1)
    return Strength(said, now, add, of, grind, says)

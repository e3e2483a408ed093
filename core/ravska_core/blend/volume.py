"""What a mixture fills: dry grains with the air between them, or, wet, without it and with salt and sugar dissolved."""

from collections.abc import Sequence

from ravska_core.catalogue import Grind

LeafMass = tuple[Grind, float]

WATER_G_ML = 0.9982
"""Density of water at 20 C."""

SALT_TAKES, SUGAR_TAKES = 0.264 / (1 - 0.264), 2.0
"""Most salt, and most sugar, that a gram of water dissolves at 20 C [g] (as handbooks give them, from memory)."""

_CRYSTAL_SALT, _CRYSTAL_SUGAR = 1 / 2.165, 1 / 1.587

_DISSOLVED_SUGAR = 0.621

_FAT, _ACID, _REST = 1 / 0.92, 1 / 1.5, 1 / 1.45
"""Volumes of a gram [ml]: crystals by their densities, fat and acid as handbooks give them, the rest (starch, fibre,
protein) between 1.3 and 1.6 g/ml, as the Choi and Okos model has them (from memory)."""

FLUID_GRINDS = ("liquid", "melted", "soft", "paste", "mashed", "blended")
"""Grinds that hold no air between grains, so that their level density is their own."""


def dissolved_salt_ml_g(share: float) -> float:
    """Determine what a gram of salt fills in water [ml/g], by its share of salt and water.

    0.298 + 0.245 x, fitted to the densities of sodium chloride solutions at 20 C (5 % 1.0340, 10 % 1.0707, 20 %
    1.1478, 26 % 1.1972 g/ml) within 0.5 % of the solution's density.

    References
    ----------
    CRC Handbook of Chemistry and Physics, concentrative properties of aqueous solutions (from memory).
    """
    return 0.298 + 0.245 * share


def true_ml_g(grind: Grind) -> float:
    """Determine what a gram of an ingredient fills without any air between its grains [ml/g], from what it holds."""
    i = grind.ingredient
    rest = max(0.0, 1 - i.water - i.fat - i.nacl - i.sugars - i.acid)
    return (
        i.water / WATER_G_ML
        + i.fat * _FAT
        + i.nacl * _CRYSTAL_SALT
        + i.sugars * _CRYSTAL_SUGAR
        + i.acid * _ACID
        + rest * _REST
    )


def is_fluid(grind: Grind) -> bool:
    """Tell whether a grind flows: a liquid, a fat or a paste."""
    return not grind.grain_mm or grind.name in FLUID_GRINDS


def volume_ml(
    leaves: Sequence[LeafMass], steeped: Sequence[LeafMass] = (), spent: Sequence[LeafMass] = (), gone: float = 0.0
) -> float:
    """Determine what a mixture fills [ml].

    Liquids keep their density; salt and sugar dissolve in their water as far as it takes them; all other solids sink
    in and lose the air between their grains. Where there is too little liquid for that, it fills what the grains do.

    Parameters
    ----------
    leaves : sequence
        Grinds with their masses [g].
    steeped, spent : sequence
        What was strained off, of which only what dissolves is in it, and what a sieve held back, of which only that
        is not.
    gone : float
        Water that was driven off [g].
    """
    fluid = water = brine = salt = sugar = bulk = true = 0.0
    for grind, mass in leaves:
        i = grind.ingredient
        if is_fluid(grind):
            fluid += mass / grind.density_g_ml
            water += mass * i.water
            brine += mass * i.nacl
        elif i.family in ("salt", "sugar"):
            salt += mass * i.nacl
            sugar += mass * i.sugars
            other = mass * max(0.0, 1 - i.nacl - i.sugars)
            true += other * _REST
            bulk += mass / grind.density_g_ml
        else:
            bulk += mass / grind.density_g_ml
            true += mass * true_ml_g(grind)
    for grind, mass in steeped:
        i = grind.ingredient
        water += mass * i.water
        brine += mass * i.nacl
        fluid += mass * (
            i.water / WATER_G_ML + i.nacl * dissolved_salt_ml_g(0.1) + (i.sugars + i.acid) * _DISSOLVED_SUGAR
        )
    for grind, mass in spent:
        left = mass * solid_share(grind)
        bulk += left / 0.5
        true += left * _REST
    fluid = max(0.0, fluid - gone / WATER_G_ML)
    water = max(0.0, water - gone)
    in_salt = min(salt, max(0.0, SALT_TAKES * water - brine))
    in_sugar = min(sugar, SUGAR_TAKES * water)
    if salt > 0 or sugar > 0:
        held = brine + in_salt
        fluid += in_salt * dissolved_salt_ml_g(held / (held + water) if held else 0.0) + in_sugar * _DISSOLVED_SUGAR
        true += (salt - in_salt) * _CRYSTAL_SALT + (sugar - in_sugar) * _CRYSTAL_SUGAR
        # what has dissolved is no heap any more
        solid = salt + sugar
        crystals = sum(
            mass / grind.density_g_ml
            for grind, mass in leaves
            if grind.ingredient.family in ("salt", "sugar") and not is_fluid(grind)
        )
        bulk -= crystals * (in_salt + in_sugar) / solid
    return max(bulk, fluid + true)


def soluble_share(grind: Grind) -> float:
    """Return the share of an ingredient that passes a sieve dissolved: its water, salt, sugars and acid."""
    i = grind.ingredient
    return min(1.0, i.water + i.nacl + i.sugars + i.acid)


def solid_share(grind: Grind) -> float:
    """Return the share of an ingredient that no water dissolves."""
    return 1 - soluble_share(grind)

"""Ingredients of the cook's own: from a label, from amounts, or as another one with changes."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType

from ravska_core.catalogue.rows import ALLERGENS, PORTION_ML, SODIUM_IN_NACL, Grind, Ingredient
from ravska_core.catalogue.tables import shipped
from ravska_core.working import BadInput, in_range

MADE_FROM = MappingProxyType({"label": 0.2, "amounts": 0.05, "like": 0.15})
"""What an own ingredient is known from, and how far its composition may be off, relative: a panel may be off by 20 %
(US 21 CFR 101.9(g)(5), from memory), amounts and likeness by what seems usual (estimates)."""

SHARES = ("nacl", "sugars", "fat", "water", "acid")

MOST_WHOLE = 1.03
"""What shares may add up to: analyses and panels are rounded one by one."""

OWN_GRIND = "own"


@dataclass(frozen=True)
class OwnIngredient:
    """An ingredient of the cook's own: key, name, how it is known, what it is like ("" for nothing) and what is known.

    Shares are mass fractions, None where the one it is like stands for them. `spoon_g` is what a level `spoon` of it
    weighs [g], None where that is as of the other; `wet` says how it looks and keeps where it is like nothing.
    """

    key: str
    name: str
    made_from: str
    like: str = ""
    nacl: float | None = None
    sodium: float | None = None
    sugars: float | None = None
    fat: float | None = None
    water: float | None = None
    acid: float | None = None
    acid_kind: str = ""
    spoon: str = "tbsp"
    spoon_g: float | None = None
    wet: bool = False
    allergens: tuple[str, ...] = ()
    keeps_days: float | None = None


def panel_shares(
    portion_g: float, sodium_g: float, sugars_g: float, fat_g: float, carbohydrate_g: float | None,
    protein_g: float | None,
) -> Mapping[str, float]:  # fmt: skip
    """Determine the shares a nutrition panel stands for; all its sodium counts as salt.

    Water is what fat, carbohydrate, protein and salt leave of the portion, where both of those are on the panel.

    Raises
    ------
    BadInput
        At ``portion``, for a panel whose parts weigh more than its portion.
    """
    in_range("portion", portion_g, 0.1, 1000, "A portion weighs between 0.1 g and 1 kg.")
    salt_g = sodium_g / SODIUM_IN_NACL
    solids = salt_g + fat_g + max(sugars_g, carbohydrate_g or 0.0) + (protein_g or 0.0)
    if solids > portion_g * MOST_WHOLE:
        raise BadInput("portion", "Salt, sugars, fat and protein weigh more than the portion; check the panel.")
    found = {"sodium": sodium_g, "nacl": salt_g, "sugars": sugars_g, "fat": fat_g}
    if carbohydrate_g is not None and protein_g is not None:
        found["water"] = max(0.0, portion_g - solids)
    return {name: grams / portion_g for name, grams in found.items()}


def grind_of_own(own: OwnIngredient) -> Grind:
    """Return an own ingredient as a grind, like those of the catalogue.

    Raises
    ------
    BadInput
        At ``name``, ``like``, ``made_from``, a share, ``spoon_g``, ``allergens`` or ``keeps_days``.
    """
    if own.made_from not in MADE_FROM:
        raise BadInput("made_from", f"It is known from {', '.join(MADE_FROM)}.")
    if not own.name.strip():
        raise BadInput("name", "Give it a name.")
    like = shipped().grinds.get(own.like)
    if own.like and like is None:
        raise BadInput("like", "What it is like is not in the catalogue, or is one of your own; choose another.")
    if own.made_from == "like" and like is None:
        raise BadInput("like", "Choose what it is like.")
    base = like.ingredient if like is not None else _blank(own.wet)
    given = {name: getattr(own, name) for name in (*SHARES, "sodium") if getattr(own, name) is not None}
    for name, value in given.items():
        in_range(name, value, 0, 1, "A share lies between 0 and 100 %.")
    if "nacl" in given and "sodium" not in given:
        given["sodium"] = given["nacl"] * SODIUM_IN_NACL
    made = replace(
        base, key=own.key, name=own.name.strip(), code="",
        source=f"own-{own.made_from}", error=MADE_FROM[own.made_from],
        allergens=tuple(sorted({*own.allergens})) if own.allergens or like is None else base.allergens,
        acid_kind=own.acid_kind or base.acid_kind, **given,
    )  # fmt: skip
    whole = sum(getattr(made, name) for name in SHARES)
    if whole > MOST_WHOLE:
        raise BadInput("water", f"Water, salt, sugar, fat and acid add up to {whole * 100:.0f} %; check them.")
    made = replace(made, acid_kind=(made.acid_kind or "citric") if made.acid else "")
    for allergen in made.allergens:
        if allergen not in ALLERGENS:
            raise BadInput("allergens", f"“{allergen}” is none of {', '.join(ALLERGENS)}.")
    if own.keeps_days is not None:
        in_range("keeps_days", own.keeps_days, 1, 3650, "It keeps between a day and ten years.")
        made = replace(made, keeps_days=own.keeps_days)
    return _ground(own, like, made)


def _ground(own: OwnIngredient, like: Grind | None, made: Ingredient) -> Grind:
    if own.spoon not in PORTION_ML:
        raise BadInput("spoon", f"Weigh a level {', '.join(PORTION_ML)}.")
    if own.spoon_g is None and like is None:
        raise BadInput("spoon_g", "Weigh a level spoon of it, so that spoons of it can be told in grams.")
    portion, grams = own.spoon, own.spoon_g
    if grams is None and like is not None:
        portion, grams = like.portion, like.portion_g
    assert grams is not None
    density = grams / PORTION_ML[portion]
    says = f"{grams:g} g a level {portion} is {density:.2f} g/ml; food lies between 0.05 and 2.2. Weigh it again."
    in_range("spoon_g", density, 0.05, 2.2, says)
    grain = like.grain_mm if like is not None else 0.0 if own.wet else 0.5
    return Grind(f"{own.key}/{OWN_GRIND}", made, OWN_GRIND, density, grain, portion, grams, f"own-{own.made_from}")


def _blank(wet: bool) -> Ingredient:
    """Return what stands for an ingredient that is like none of the catalogue."""
    return Ingredient(
        key="", name="", family="liquid" if wet else "spice", code="", nacl=0, sodium=0, sugars=0, fat=0, water=0,
        acid=0, acid_kind="", scoville=0, bite=0, glutamate=0, smoke=0, herb=0, scorch_c=155.0,
        keeps_days=14.0 if wet else 365.0, price_100g=1.0, colour="#b79c74", allergens=(), flags=frozenset(),
        source="estimate",
    )  # fmt: skip

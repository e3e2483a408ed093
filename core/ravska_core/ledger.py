"""The salt ledger: all layers together, the thin end by itself, and what a serving gets of it."""

import math
from collections.abc import Callable, Sequence
from dataclasses import replace

from ravska_core.cuts import PieceReading
from ravska_core.fates import Moment
from ravska_core.stack import Put
from ravska_core.working import Figure, Step, figure


def ends(found: Figure) -> tuple[float, float]:
    """Return how far a figure may lie below and above its value, relative to it."""
    if not found.value or found.low is None or found.high is None:
        return 0.0, 0.0
    return 1 - found.low / found.value, found.high / found.value - 1


def total_salt(salts: Sequence[Figure], puts: Sequence[Put], area_error: float) -> Figure:
    """Return the salt of all layers [% of raw edible weight]: surface errors go together, others are independent."""
    if not salts:
        return figure([Step("Salt", "no layer yet", 0.0, "%")], "nothing is on the meat yet")
    if len(salts) == 1:
        return salts[0]
    total = sum(salt.value for salt in salts)
    common = [area_error * salt.value if put.kind.by == "area" else 0.0 for salt, put in zip(salts, puts, strict=True)]

    def apart(end: Callable[[Figure], float]) -> float:
        """Combine how far the layers may be off to one side, their surface's share taken together."""
        alone = (math.sqrt(max(0.0, end(salt) ** 2 - of**2)) for salt, of in zip(salts, common, strict=True))
        return math.hypot(sum(common), *alone)

    low = total - apart(lambda salt: salt.value - (salt.value if salt.low is None else salt.low))
    high = total + apart(lambda salt: (salt.value if salt.high is None else salt.high) - salt.value)
    steps = [
        Step(f"{put.kind.key.capitalize()}, stays", "see the layer", salt.value, "%")
        for salt, put in zip(salts, puts, strict=True)
    ]
    steps.append(Step("All layers", " + ".join(f"{salt.value:.2f}" for salt in salts), total, "%"))
    said = "the surface's error is the same for every coat; the others are taken as independent"
    return figure(steps, said, low=max(0.0, low), high=high)


def thin_end(piece: PieceReading, salt: Figure, value: float, more: float) -> Figure:
    steps = [
        Step("Thin end", "thickness", piece.thin_cm, "cm", "estimate"),
        Step("Surface for its weight", "over that of the whole piece", more, "×"),
        Step("Salt of the whole piece", "all layers", salt.value, "%"),
        Step("Salt of the thin end", "what goes by surface × that, what goes by weight × 1", value, "%"),
    ]
    below, above = ends(salt)
    return replace(figure(steps, "as the whole piece, and ±10 % of its thickness"),
                   low=value * (1 - math.hypot(below, 0.1)), high=value * (1 + math.hypot(above, 0.1)))  # fmt: skip


def servings_of(piece: PieceReading, portion_g: float) -> Figure:
    cooked = piece.edible.value * piece.cook_yield
    steps = [
        Step("Edible, cooked", f"{piece.edible.value:.0f} g × {piece.cook_yield:.2f} yield", cooked, "g", "estimate"),
        Step("Servings", f"{cooked:.0f} g / {portion_g:.0f} g", cooked / portion_g, "servings"),
    ]
    return figure(steps, "±15 %: yield differs with the cook", spread=0.15)


def a_serving(puts: Sequence[Put], moment: Moment, servings: float) -> tuple[Figure, Figure]:
    """Return sodium [mg] and sugar [g] that seasoning puts into a serving."""
    sodium = sugar = 0.0
    for put, fate in zip(puts, moment.fates, strict=True):
        if put.blend is None:
            continue
        leaves = put.blend.leaves
        nacl = sum(share * grind.ingredient.nacl for grind, share in leaves)
        all_sodium = sum(share * grind.ingredient.sodium for grind, share in leaves)
        # what a method drives off is water, so the finished blend's salt says how much its sodium rose
        on = put.salt_g / nacl * all_sodium if nacl > 0 else put.dose_g * all_sodium
        sodium += on * fate.stays * 1000
        sugar += put.dose_g * put.blend.sugar.value / 100 * fate.stays
    return (
        figure(
            [
                Step("Sodium that stays", "salt and other sodium of all layers", sodium, "mg", "molar"),
                Step("A serving", f"{sodium:.0f} mg / {servings:.1f}", sodium / servings, "mg"),
            ],
            "±25 %; the meat's own, about 65 mg in 100 g, comes to it",
            spread=0.25,
        ),
        figure(
            [
                Step("Sugar that stays", "taken to stay as the layer's salt does", sugar, "g"),
                Step("A serving", f"{sugar:.1f} g / {servings:.1f}", sugar / servings, "g"),
            ],
            "±40 %: sugar diffuses slower than salt, so a bath gives less",
            spread=0.4,
        ),
    )

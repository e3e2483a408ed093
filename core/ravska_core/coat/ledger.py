"""The salt ledger: all layers together, the thin end by itself, and what a serving gets of it."""

import math
from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, replace

from ravska_core.coat.fates import Moment
from ravska_core.coat.stack import Put
from ravska_core.meat import PieceReading
from ravska_core.working import Figure, Step, figure


def ends(found: Figure) -> tuple[float, float]:
    """Return how far a figure may lie below and above its value, relative to it."""
    if not found.value or found.low is None or found.high is None:
        return 0.0, 0.0
    return 1 - found.low / found.value, found.high / found.value - 1


@dataclass(frozen=True)
class Doubts:
    """What makes a salt uncertain, by where that comes from: how far it may lie below and above [points of %].

    What comes from one place moves all layers together, so it adds up; places are independent of each other. `moves`
    is what half and double the diffusivity add.
    """

    below: Mapping[Hashable, float]
    above: Mapping[Hashable, float]
    moves: tuple[float, float]

    def ends(self) -> tuple[float, float]:
        """Return how far it may lie below and above in all."""
        down, up = max(0.0, -min(self.moves)), max(0.0, *self.moves)
        return math.hypot(down, *self.below.values()), math.hypot(up, *self.above.values())


def together(doubts: Sequence[Doubts]) -> Doubts:
    """Return the doubts of several layers together."""
    below: dict[Hashable, float] = {}
    above: dict[Hashable, float] = {}
    for one in doubts:
        for into, of in ((below, one.below), (above, one.above)):
            for source, off in of.items():
                into[source] = into.get(source, 0.0) + off
    return Doubts(below, above, (sum(one.moves[0] for one in doubts), sum(one.moves[1] for one in doubts)))


def total_salt(salts: Sequence[Figure], puts: Sequence[Put], doubts: Sequence[Doubts]) -> Figure:
    """Return the salt of all layers [% of raw edible weight]: what makes several of them uncertain counts together."""
    if not salts:
        return figure([Step("Salt", "no layer yet", 0.0, "%")], "nothing is on the meat yet")
    if len(salts) == 1:
        return salts[0]
    total = sum(salt.value for salt in salts)
    below, above = together(doubts).ends()
    steps = [
        Step(f"{put.kind.key.capitalize()}, stays", "see the layer", salt.value, "%")
        for salt, put in zip(salts, puts, strict=True)
    ]
    steps.append(Step("All layers", " + ".join(f"{salt.value:.2f}" for salt in salts), total, "%"))
    said = "surface, diffusivity, a blend and what stays are the same for all layers they concern; else independent"
    return figure(steps, said, low=max(0.0, total - below), high=total + above)


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
        Step(
            "Edible, cooked",
            f"{piece.edible.value:.0f} g × {piece.cook_yield:.2f} yield",
            cooked,
            "g",
            piece.yield_from,
        ),
        Step("Servings", f"{cooked:.0f} g / {portion_g:.0f} g", cooked / portion_g, "servings"),
    ]
    return figure(steps, "±15 %: yield differs with the cook", spread=0.15)


def a_serving(puts: Sequence[Put], moment: Moment, servings: float) -> tuple[Figure, Figure]:
    """Return sodium [mg] and sugar [g] that seasoning puts into a serving."""
    sodium = sugar = 0.0
    for put, fate in zip(puts, moment.fates, strict=True):
        if put.blend is None:
            continue
        sodium += put.dose_g * put.blend.sodium_share * fate.stays * 1000
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

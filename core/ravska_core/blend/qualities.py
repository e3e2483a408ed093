"""What a blend has more or less of: salt, sugar, heat and the rest as share-weighted sums over its lines."""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from operator import mul

from ravska_core.blend.lines import Line
from ravska_core.blend.method import STEEPED
from ravska_core.blend.parts import Part, parts_of
from ravska_core.blend.parts import shares as shares_of
from ravska_core.catalogue import Grind, Ingredient, while_it_stands

_HEAT_BEGINS, _HEAT_ENDS = 200.0, 100_000.0


def heat_scale(scoville: float) -> float:
    """Determine heat from 0 to 10 as it is felt: 10 log(1 + S/200) / log(1 + 100,000/200), at most 10.

    Parameters
    ----------
    scoville : float
        Heat in Scoville units, other pungents counted in [SHU].
    """
    return min(10.0, 10 * math.log1p(scoville / _HEAT_BEGINS) / math.log1p(_HEAT_ENDS / _HEAT_BEGINS))


def heat_scoville(scale: float) -> float:
    """Determine the Scoville units [SHU] that feel like `scale` of 10; the inverse of `heat_scale`."""
    return _HEAT_BEGINS * math.expm1(scale / 10 * math.log1p(_HEAT_ENDS / _HEAT_BEGINS))


@dataclass(frozen=True)
class Quality:
    """Something a blend has more or less of, linear in its shares.

    `of` gives it for an ingredient in `unit`, `field` names the ingredient's value it is made from, `words`
    says how much that is, each up to its limit, and `full` is the end of the scale for dry blends and for wet ones.
    """

    key: str
    label: str
    unit: str
    field: str
    of: Callable[[Ingredient], float]
    full: tuple[float, float]
    words: tuple[tuple[float, str], ...] = ()


_NONE, _END = (1e-9, "none"), math.inf

QUALITIES: dict[str, Quality] = {
    quality.key: quality
    for quality in (
        Quality("salt", "Salt", "%", "nacl", lambda i: i.nacl * 100, (60, 10)),
        Quality("sugar", "Sugar", "%", "sugars", lambda i: i.sugars * 100, (60, 40)),
        Quality(
            "heat", "Heat", "SHU", "scoville", lambda i: i.scoville + heat_scoville(i.bite), (10, 10),
            ((0.3, "none"), (2, "hardly any"), (4, "mild"), (6, "warm"), (8, "hot"), (_END, "fierce")),
        ),
        Quality("sour", "Sour", "%", "acid", lambda i: i.acid * 100, (3, 3),
                (_NONE, (0.2, "hardly any"), (0.7, "mild"), (2, "sharp"), (_END, "very sharp"))),
        Quality("savoury", "Savoury", "%", "glutamate", lambda i: i.glutamate * 100, (2, 1),
                (_NONE, (0.05, "a trace"), (0.25, "some"), (1, "deep"), (_END, "very deep"))),
        Quality("smoke", "Smoke", "of 10", "smoke", lambda i: i.smoke, (4, 2),
                (_NONE, (0.4, "a hint"), (1.2, "clear"), (2.5, "smoky"), (_END, "heavy"))),
        Quality("herb", "Herb", "of 10", "herb", lambda i: i.herb, (4, 2),
                (_NONE, (0.3, "a hint"), (0.9, "clear"), (2, "herbal"), (_END, "heavy"))),
        Quality("fat", "Fat", "%", "fat", lambda i: i.fat * 100, (30, 60)),
        Quality("water", "Water", "%", "water", lambda i: i.water * 100, (30, 100)),
        Quality("cost", "Cost", "per 100 g", "price_100g", lambda i: i.price_100g, (8, 3), ((_END, "of 100 g"),)),
    )
}  # fmt: skip
"""What a blend is read by and can be aimed at."""

SPREAD = "spread"
"""The grain spread, which is no sum over lines but can be aimed at too."""


@while_it_stands(None)
def qualities_of(ingredient: Ingredient) -> tuple[float, ...]:
    return tuple(quality.of(ingredient) for quality in QUALITIES.values())


_COST, _WATER = list(QUALITIES).index("cost"), list(QUALITIES).index("water")

_STEEPED = tuple(STEEPED.get(quality.field, 0.0) for quality in QUALITIES.values())

_SPENT = tuple(1 - steeped for steeped in _STEEPED)


def _methodical(total: list[float], of: Part) -> None:
    """Add what went into the liquid of what was strained off, what a sieve kept of it, and take water driven off."""
    for leaves, kept in ((of.strained, _STEEPED), (of.spent, _SPENT)):
        for grind, share in leaves:
            for at, value in enumerate(qualities_of(grind.ingredient)):
                total[at] += share * value * kept[at]
    total[_WATER] -= of.gone * 100


def part_qualities(part: Part, prices: Mapping[str, float] | None = None) -> list[float]:
    """Determine every quality of a line's stuff, in the order of `QUALITIES`; own prices [per 100 g] go first."""
    total = _of_all(part.leaves)
    for grind, share in part.leaves if prices else ():
        own = prices.get(grind.ingredient.key)  # type: ignore[union-attr]  # gone through only where there are some
        if own is not None:
            total[_COST] += share * (own - grind.ingredient.price_100g)
    if part.strained or part.gone or part.spent:
        _methodical(total, part)
    return total


def _of_all(leaves: Sequence[tuple[Grind, float]]) -> list[float]:
    if len(leaves) == 1 and leaves[0][1] == 1.0:
        return list(qualities_of(leaves[0][0].ingredient))
    columns = zip(*(qualities_of(grind.ingredient) for grind, _ in leaves), strict=True)
    shares = [share for _, share in leaves]
    return [sum(map(mul, shares, column)) for column in columns] if leaves else [0.0] * len(QUALITIES)


def salt_percent(lines: Sequence[Line]) -> float:
    """Determine the salt of lines mixed together [% of mass]."""
    parts = parts_of(lines)
    return sum(share * part_qualities(part)[0] for share, part in zip(shares_of(lines, parts), parts, strict=True))


def grain_percentile(leaves: Sequence[tuple[Grind, float]], share: float) -> float:
    """Determine the grain size [mm] below or at which `share` of the solid mass lies; 0 where all is liquid."""
    solid = sorted((grind.grain_mm, mass) for grind, mass in leaves if grind.grain_mm > 0)
    total, sum_ = sum(mass for _, mass in solid), 0.0
    for size, mass in solid:
        sum_ += mass
        if sum_ >= share * total * (1 - 1e-12):
            return size
    return 0.0

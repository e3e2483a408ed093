"""What a blend comes to: salt, sugar, heat and the rest as share-weighted sums over its lines."""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cache

from ravska_core.blends import DRY_KINDS, Blend, Line, Part, check_blend, masses, parts_of
from ravska_core.blends import shares as shares_of
from ravska_core.catalogue import VALUE_SOURCES, Catalogue, Grind, Ingredient
from ravska_core.spoons import Spoonfuls, measure_out
from ravska_core.working import BadInput, Figure, Step, figure

_DENSITY_ERROR = 0.1
"""Relative error of a level-spoon density: portion weights of one ingredient differ by about this much (estimate)."""

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


@cache
def _qualities_of(ingredient: Ingredient) -> tuple[float, ...]:
    return tuple(quality.of(ingredient) for quality in QUALITIES.values())


_COST = list(QUALITIES).index("cost")


def part_qualities(part: Part, prices: Mapping[str, float] | None = None) -> list[float]:
    """Determine every quality of a line's stuff, in the order of `QUALITIES`; own prices [per 100 g] go first."""
    total = [0.0] * len(QUALITIES)
    for grind, share in part.leaves:
        for at, value in enumerate(_qualities_of(grind.ingredient)):
            total[at] += share * value
        if prices and grind.ingredient.key in prices:
            own = prices[grind.ingredient.key]
            total[_COST] += share * (own - grind.ingredient.price_100g)
    return total


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


@dataclass(frozen=True)
class Scale:
    """One scale a blend is read on: where it stands, of what full length, in words, with its working."""

    key: str
    label: str
    value: float
    unit: str
    full: float
    word: str
    figure: Figure


@dataclass(frozen=True)
class Keeping:
    """How long a blend keeps at its best [days], where, what limits it, and the working."""

    days: float
    place: str
    because: str
    figure: Figure


@dataclass(frozen=True)
class LineReading:
    """What one line of a blend comes to in the batch, and the grinds it is drawn with."""

    grind: str
    name: str
    share: Figure
    mass: Figure
    volume_ml: float
    spoons: Spoonfuls
    leaves: tuple[tuple[Grind, float], ...]


@dataclass(frozen=True)
class BlendReading:
    """What a blend comes to: its lines, the whole batch, its scales, and what it holds."""

    lines: tuple[LineReading, ...]
    leaves: tuple[tuple[Grind, float], ...]
    batch: Figure
    volume: Figure
    density_g_ml: float
    scales: tuple[Scale, ...]
    keeping: Keeping
    dairy_acid_share: float
    allergens: tuple[str, ...]
    flags: frozenset[str]

    def scale(self, key: str) -> Scale:
        """Return one scale by key."""
        return next(scale for scale in self.scales if scale.key == key)

    @property
    def salt(self) -> Figure:
        """Salt [% of mass]."""
        return self.scale("salt").figure

    @property
    def sugar(self) -> Figure:
        """Sugars [% of mass]."""
        return self.scale("sugar").figure

    @property
    def acid(self) -> Figure:
        """Titratable acid [% of mass]."""
        return self.scale("sour").figure

    @property
    def water_share(self) -> float:
        """Water, mass fraction."""
        return self.scale("water").value / 100

    @property
    def fat_share(self) -> float:
        """Fat, mass fraction."""
        return self.scale("fat").value / 100


_TELLS = 0.01
"""What a line must bring of a scale's total to be named in its working."""


def _word(quality: Quality, value: float) -> str:
    return next((word for limit, word in quality.words if value < limit), "")


def _scale(
    quality: Quality, parts: Sequence[Part], shares: Sequence[float], values: Sequence[float], wet: bool, spread: float
) -> Scale:
    steps: list[Step] = []
    brought = [share * value for share, value in zip(shares, values, strict=True)]
    total = sum(brought)
    rest, others = 0.0, 0
    for part, share, value, mine in zip(parts, shares, values, brought, strict=True):
        if mine > total * _TELLS:
            source = "arithmetic"
            if len(part.leaves) == 1:
                source = VALUE_SOURCES.get(quality.field) or part.leaves[0][0].ingredient.source
            steps.append(
                Step(f"{quality.label} of {part.name}", f"counts with {share * 100:.2f} %", value, quality.unit, source)
            )
        elif mine > 0:
            rest, others = rest + mine, others + 1
    if others:
        steps.append(Step(f"{others} more lines", "each brings under 1 % of it", rest, quality.unit))
    formula = "sum of share × value" if steps else "no line holds any"
    steps.append(Step(f"{quality.label} in the blend", formula, total, quality.unit))
    error = "exact" if not steps[:-1] else _ERRORS.get(quality.key, "±10 % of it: level spoons and kinds differ")
    value, unit = total, quality.unit
    if quality.key == "heat":
        value, unit = heat_scale(total), "of 10"
    full = max(quality.full[wet], math.ceil(value)) if value > quality.full[wet] else quality.full[wet]
    found = figure(steps, error, spread=_SPREADS.get(quality.key, spread))
    return Scale(quality.key, quality.label, value, unit, float(full), _word(quality, value), found)


_ERRORS = {
    "heat": "±40 %: chillies of one kind differ by that much; pepper, mustard and ginger are counted as what they feel "
    "like",
    "smoke": "±30 %: an estimate of aroma",
    "herb": "±30 %: an estimate of aroma",
    "savoury": "±30 %: free glutamate differs by ripeness and age",
    "cost": "±30 % until your own prices are in",
}
_SPREADS = {"heat": 0.4, "smoke": 0.3, "herb": 0.3, "savoury": 0.3, "cost": 0.3}


def _spread_scale(leaves: Sequence[tuple[Grind, float]]) -> Scale:
    low, high = grain_percentile(leaves, 0.1), grain_percentile(leaves, 0.9)
    ratio = high / low if low else 1.0
    steps = (
        Step("Finest tenth ends at", "grains by mass, smallest first", low, "mm", "estimate"),
        Step("Coarsest tenth begins at", "grains by mass, smallest first", high, "mm", "estimate"),
        Step("Grain spread", f"{high:g} mm / {low:g} mm" if low else "nothing solid", ratio, "times"),
    )
    word = "even" if ratio < 2.5 else "mixed" if ratio < 6 else "wide"
    found = figure(steps, "±50 %: middle grain sizes, each with a spread of its own", spread=0.5)
    return Scale(SPREAD, "Grain spread", ratio, "times", max(25.0, math.ceil(ratio)), word if low else "", found)


def keeping(kind: str, leaves: Sequence[tuple[Grind, float]], values: Mapping[str, float]) -> Keeping:
    """Determine how long a blend keeps at its best.

    Dry blends keep as long as their shortest-lived line. Wet ones belong in the cold: raw allium or fresh herb
    under oil four days (usual guidance), otherwise their shortest-lived line, at most 5 days, or 30 where 2 % acid,
    10 % salt or 60 % sugar hold spoilage back (common practice, no source).

    Parameters
    ----------
    values : mapping
        The blend's qualities by key, in the units of `QUALITIES`.
    """
    shortest, days = min(((g, g.ingredient.keeps_days) for g, share in leaves if share > 1e-6), key=lambda x: x[1])
    name = shortest.ingredient.name.lower()
    flags = {flag for grind, _ in leaves for flag in grind.ingredient.flags}
    first = Step(f"{shortest.ingredient.name} keeps", "the shortest-lived of its lines", days, "days", "keeping")

    def found(most: float, place: str, because: str, source: str, rule: str = "") -> Keeping:
        steps = [first]
        if rule:
            steps.append(Step("At most", rule, most, "days", source))
        kept = min(most, days)
        steps.append(Step("Keeps", "the shorter of these" if rule else "as long as that", kept, "days"))
        return Keeping(kept, place, because, figure(steps, "±30 %: at its best, not for ever", spread=0.3))

    cold = "at 4 °C or below"
    if flags & {"raw_allium", "fresh_herb"} and values["fat"] > 20:
        return found(
            4.0, cold, "raw garlic, onion or herbs lie in oil", "guidance", "raw garlic, onion or herbs in oil"
        )
    if values["water"] <= 15:
        if days <= 30:
            return found(days, cold, f"{name} is moist", "keeping")
        return found(days, "airtight, dark and dry", f"{name} fades first", "keeping")
    held = values["sour"] >= 2 or values["salt"] >= 10 or values["sugar"] >= 60
    because = "its acid, salt or sugar holds spoilage back" if held else "it is wet and little holds spoilage back"
    most = 30.0 if held else 5.0
    rule = "wet, with 2 % acid, 10 % salt or 60 % sugar" if held else "wet, with little acid, salt or sugar"
    return found(most, cold, f"{name} goes first" if days < most else because, "trade", rule)


def read_salt(blend: Blend, tables: Catalogue | None = None) -> Figure:
    """Determine the salt of a blend [% of mass] with its working, and nothing else; for lists.

    Raises
    ------
    BadInput
        For a blend that cannot be read, as `read_blend`.
    """
    parts = check_blend(blend, tables)
    quality = QUALITIES["salt"]
    values = [part_qualities(part)[0] for part in parts]
    spread = _DENSITY_ERROR if any(line.basis == "spoon" for line in blend.lines) else 0.05
    return _scale(quality, parts, shares_of(blend.lines, parts), values, False, spread).figure


def read_blend(
    blend: Blend, spoon_set: str = "us", tables: Catalogue | None = None, prices: Mapping[str, float] | None = None
) -> BlendReading:
    """Determine what a blend comes to in its batch.

    Parameters
    ----------
    blend : Blend
        Lines with parts by spoon or scale, and the batch [g].
    spoon_set : str
        Which spoons amounts are measured out in.
    prices : mapping
        The cook's own prices by ingredient key [per 100 g].

    Raises
    ------
    BadInput
        For an empty blend, a line out of range or an ingredient that is not in the catalogue.
    """
    parts = check_blend(blend, tables)
    if not blend.lines:
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")
    relative = masses(blend.lines, parts)
    total = sum(relative)
    shares = [mass / total for mass in relative]
    by_spoon = any(line.basis == "spoon" for line in blend.lines)

    lines = []
    for line, part, mass, share in zip(blend.lines, parts, relative, shares, strict=True):
        steps = []
        if line.basis == "spoon":
            steps.append(Step(f"Density of {part.name}", part.density_from, part.density_g_ml, "g/ml", part.source))
            formula = f"{float(line.parts):g} parts × {part.density_g_ml:.3f} g/ml"
            steps.append(Step("Mass of this line", formula, mass, "parts by mass"))
        steps.append(Step("Share by mass", f"{mass:.4g} / {total:.4g}, all lines", share * 100, "%"))
        # the error of a share falls to nothing as the line becomes the whole blend
        spread = _DENSITY_ERROR * (1 - share) if by_spoon else 0.0
        error = "from the ±10 % of a level spoon" if by_spoon else "as exact as the scale"
        grams = Step("Weigh", f"{share * 100:.2f} % × {blend.batch_g:g} g", share * blend.batch_g, "g")
        volume = share * blend.batch_g / part.density_g_ml
        lines.append(
            LineReading(
                grind=line.grind,
                name=part.name,
                share=figure(steps, error, spread=spread),
                mass=figure((steps[-1], grams), error, spread=spread),
                volume_ml=volume,
                spoons=measure_out(volume, spoon_set),
                leaves=part.leaves,
            )
        )

    gathered: dict[str, tuple[Grind, float]] = {}
    for part, share in zip(parts, shares, strict=True):
        for grind, of in part.leaves:
            before = gathered[grind.key][1] if grind.key in gathered else 0.0
            gathered[grind.key] = (grind, before + share * of)
    leaves = tuple(gathered.values())

    volume = sum(line.volume_ml for line in lines)
    volume_step = Step("Volume of the batch", "sum of the lines' level volumes", volume, "ml")
    columns = [part_qualities(part, prices) for part in parts]
    wet = blend.kind not in DRY_KINDS
    spread = _DENSITY_ERROR if by_spoon else 0.05
    scales = [
        _scale(quality, parts, shares, [column[at] for column in columns], wet, spread)
        for at, quality in enumerate(QUALITIES.values())
    ]
    lactic = sum(share * g.ingredient.acid for g, share in leaves if "dairy" in g.ingredient.flags)
    return BlendReading(
        lines=tuple(lines),
        leaves=leaves,
        batch=figure([Step("Batch", "as chosen", blend.batch_g, "g")], "as chosen"),
        volume=figure([volume_step], "±15 %: fine grains fill the gaps between coarse ones", spread=0.15),
        density_g_ml=blend.batch_g / volume,
        scales=(*scales, _spread_scale(leaves)),
        keeping=keeping(blend.kind, leaves, {scale.key: scale.figure.value for scale in scales}),
        dairy_acid_share=lactic,
        allergens=tuple(sorted({a for g, _ in leaves for a in g.ingredient.allergens})),
        flags=frozenset(f for g, _ in leaves for f in g.ingredient.flags),
    )

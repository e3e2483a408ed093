"""What a blend comes to: salt, sugar, heat and the rest as share-weighted sums over its lines."""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cache

import numpy as np

from ravska_core.blends import (
    DRY_KINDS,
    SCALE_ERROR,
    Blend,
    Line,
    Mixed,
    Part,
    check_blend,
    density_of,
    masses,
    mix,
    parts_of,
    seen_in,
)
from ravska_core.blends import shares as shares_of
from ravska_core.bought import Label, estimate, label_figure
from ravska_core.catalogue import VALUE_SOURCES, Catalogue, Grind, Ingredient, catalogue
from ravska_core.method import STEEPED, enters_at, method_working
from ravska_core.spoons import SPOON_SETS, Spoonfuls, SpoonSet, measure_out
from ravska_core.working import BadInput, Figure, Step, figure, say

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


_COST, _WATER = list(QUALITIES).index("cost"), list(QUALITIES).index("water")
_STEEPED = tuple(STEEPED.get(quality.field, 0.0) for quality in QUALITIES.values())
_SPENT = tuple(1 - steeped for steeped in _STEEPED)


def _methodical(total: list[float], of: Part) -> None:
    """Add what went into the liquid of what was strained off, what a sieve kept of it, and take water driven off."""
    for leaves, kept in ((of.strained, _STEEPED), (of.spent, _SPENT)):
        for grind, share in leaves:
            for at, value in enumerate(_qualities_of(grind.ingredient)):
                total[at] += share * value * kept[at]
    total[_WATER] -= of.gone * 100


def part_qualities(part: Part, prices: Mapping[str, float] | None = None) -> list[float]:
    """Determine every quality of a line's stuff, in the order of `QUALITIES`; own prices [per 100 g] go first."""
    total = [0.0] * len(QUALITIES)
    for grind, share in part.leaves:
        for at, value in enumerate(_qualities_of(grind.ingredient)):
            total[at] += share * value
        if prices and grind.ingredient.key in prices:
            own = prices[grind.ingredient.key]
            total[_COST] += share * (own - grind.ingredient.price_100g)
    if part.strained or part.gone or part.spent:
        _methodical(total, part)
    return total


def salt_percent(lines: Sequence[Line]) -> float:
    """Determine the salt of lines mixed together [% of mass]."""
    parts = parts_of(lines)
    return sum(share * part_qualities(part)[0] for share, part in zip(shares_of(lines, parts), parts, strict=True))


_VALUE_ERRORS = {"heat": 0.4, "smoke": 0.3, "herb": 0.3, "savoury": 0.3, "cost": 0.3}
"""Relative error of an ingredient's own values, where it is not the usual 5 % (estimates)."""

_VALUE_ERROR = 0.05
_SALT_ERROR = 0.01
_SIEVE_ERROR = 0.3
"""Relative error of the salt in what is sold as salt, and of all that a sieve holds back (estimates)."""


@cache
def _value_errors(ingredient: Ingredient) -> tuple[float, ...]:
    """Return how far an ingredient's own qualities may lie off, in the order of `QUALITIES`."""
    own = _SALT_ERROR if ingredient.nacl > 0.9 else _VALUE_ERROR
    return tuple(
        value * (own if key == "salt" else _VALUE_ERRORS.get(key, _VALUE_ERROR))
        for key, value in zip(QUALITIES, _qualities_of(ingredient), strict=True)
    )


Errors = tuple[list[float], list[float]]
"""How far every quality may lie below and above, in the order of `QUALITIES`."""


def _label_errors(label: Label, leaves: Sequence[tuple[Grind, float]], values: Sequence[float]) -> Errors:
    found = estimate(label, tuple(grind for grind, _ in leaves)).qualities
    ranges = [found[key] for key in QUALITIES]
    return (
        [max(0.0, value - r.low) for value, r in zip(values, ranges, strict=True)],
        [max(0.0, r.high - value) for value, r in zip(values, ranges, strict=True)],
    )


def mixture_errors(
    shares: Sequence[float], mass_errors: Sequence[float], values: Sequence[Sequence[float]], own: Sequence[Errors]
) -> Errors:
    """Determine how far the qualities of a mixture may lie off; errors of lines are taken as independent.

    With Q = sum(x q), dQ/dm = x (q - Q) for a relative change of a line's mass and dQ/dq = x; their squares add up.

    Parameters
    ----------
    shares, mass_errors : sequence
        Mass share of every line and the relative error of its mass.
    values, own : sequence
        Every line's qualities, and how far these may lie off themselves.

    References
    ----------
    JCGM 100:2008, Guide to the expression of uncertainty in measurement, 5.1.2.
    """
    share, error = np.array(shares)[:, None], np.array(mass_errors)[:, None]
    value = np.array(values)
    amounts = (share * error * (value - (share * value).sum(axis=0))) ** 2
    ends = ((amounts + (share * np.array([of[end] for of in own])) ** 2).sum(axis=0) for end in (0, 1))
    low, high = (np.sqrt(end).tolist() for end in ends)
    return low, high


_MOST_KEPT = 512
_kept_errors: dict[int, tuple[Part, Errors]] = {}


def part_errors(part: Part, values: Sequence[float]) -> Errors:
    """Determine how far the qualities of a line's stuff may lie off: by its ingredients, its recipe or its label."""
    if part.label is not None:
        return _label_errors(part.label, part.leaves, values)
    if part.inside:
        kept = _kept_errors.get(id(part))
        if kept is not None and kept[0] is part:
            return kept[1]
        inner = [part_qualities(of) for of, _, _ in part.inside]
        low, high = mixture_errors(
            [share for _, share, _ in part.inside],
            [error for _, _, error in part.inside],
            inner,
            [part_errors(of, found) for (of, _, _), found in zip(part.inside, inner, strict=True)],
        )
        # what was simmered down holds more of everything in less
        found = [x * (1 + part.gone) for x in low], [x * (1 + part.gone) for x in high]
        if len(_kept_errors) >= _MOST_KEPT:
            _kept_errors.clear()
        _kept_errors[id(part)] = (part, found)
        return found
    if part.spent:
        # nobody weighed what a sieve keeps of aroma and liquid
        rough = [abs(value) * _SIEVE_ERROR for value in values]
        return rough, rough
    errors = list(_value_errors(part.leaves[0][0].ingredient))
    return errors, errors


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
    """What a blend comes to: its lines, the whole batch, its scales, and what it holds.

    `batch` goes into the bowl, `finished` comes out of its method, `after_g` is what is left after each step [g].
    `held_g` is what its sieve holds back [g], with `held_salt_percent` salt [%]; `sodium_share` is all sodium of the
    finished blend, not only that of salt [mass fraction].
    """

    lines: tuple[LineReading, ...]
    leaves: tuple[tuple[Grind, float], ...]
    batch: Figure
    finished: Figure
    after_g: tuple[float, ...]
    volume: Figure
    density_g_ml: float
    scales: tuple[Scale, ...]
    keeping: Keeping
    dairy_acid_share: float
    allergens: tuple[str, ...]
    flags: frozenset[str]
    held_g: float = 0.0
    held_salt_percent: float = 0.0
    sodium_share: float = 0.0

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
    quality: Quality,
    lines: Sequence[Line],
    parts: Sequence[Part],
    shares: Sequence[float],
    values: Sequence[float],
    wet: bool,
    total: float,
    ends: tuple[float, float],
    share: float,
    labelled: bool = False,
) -> Scale:
    """Return a scale; `total` and `ends` are of the finished blend, `share` is its mass over what went in."""
    steps: list[Step] = []
    brought = [of * value for of, value in zip(shares, values, strict=True)]
    mixed = sum(brought)
    rest, others = 0.0, 0
    for part, of, value, mine in zip(parts, shares, values, brought, strict=True):
        if mine > mixed * _TELLS:
            source = "arithmetic"
            if len(part.leaves) == 1:
                source = VALUE_SOURCES.get(quality.field) or part.leaves[0][0].ingredient.source
            steps.append(
                Step(f"{quality.label} of {part.name}", f"counts with {of * 100:.2f} %", value, quality.unit, source)
            )
        elif mine > 0:
            rest, others = rest + mine, others + 1
    if others:
        steps.append(Step(f"{others} more lines", "each brings under 1 % of it", rest, quality.unit))
    formula = "sum of share × value" if steps else "no line holds any"
    steps.append(Step(f"{quality.label} in the blend", formula, mixed, quality.unit))
    if abs(total - mixed) > 1e-9 * max(1.0, abs(mixed)):
        rule = f"after its method, {say(share * 100, 3)} % of what went in is left"
        steps.append(Step(f"{quality.label} in the finished blend", rule, total, quality.unit))
    low, high = ends
    error = _error_words(quality, lines, parts, shares, values, low, high, total, labelled) if total > 0 else "exact"
    value, unit = total, quality.unit
    if quality.key == "heat":
        value, unit = heat_scale(total), "of 10"
    full = max(quality.full[wet], math.ceil(value)) if value > quality.full[wet] else quality.full[wet]
    found = figure(steps, error, low=low, high=high)
    return Scale(quality.key, quality.label, value, unit, float(full), _word(quality, value), found)


_ERRORS = {
    "heat": "chillies of one kind differ by 40 %; pepper, mustard and ginger are counted as what they feel like",
    "smoke": "an estimate of aroma, ±30 % a line",
    "herb": "an estimate of aroma, ±30 % a line",
    "savoury": "free glutamate differs by ripeness and age, ±30 % a line",
    "cost": "±30 % a line until your own prices are in",
}


def _error_words(
    quality: Quality,
    lines: Sequence[Line],
    parts: Sequence[Part],
    shares: Sequence[float],
    values: Sequence[float],
    low: float,
    high: float,
    total: float,
    labelled: bool,
) -> str:
    """Say how far a scale may lie off and where most of that comes from."""
    if labelled:
        return f"{say(low, 3)} to {say(high, 3)} {quality.unit}: every mixture that fits the label"
    wide = (high - low) / 2 / total * 100
    said = f"±{say(wide, 2)} %" if wide < 9.5 else f"±{wide:.0f} %"
    mean = sum(share * value for share, value in zip(shares, values, strict=True))
    amounts = [
        abs(share * line.mass_error * (value - mean)) for line, share, value in zip(lines, shares, values, strict=True)
    ]
    by = max(range(len(lines)), key=lambda at: amounts[at])
    if any(part.inside and any(of.label for of, _, _ in part.inside) for part in parts):
        said += ", a bought blend inside"
    bought = [part.name for part, value in zip(parts, values, strict=True) if part.label is not None and value > 0]
    if bought:
        return f"{said}: most of it from the label of {' and '.join(bought)}"
    if lines[by].error and amounts[by] > 0.3 * (high - low) / 2:
        return f"{said}: most of it from {parts[by].name}, by eye ±{lines[by].error * 100:.0f} %"
    if quality.key in _ERRORS:
        return f"{said}: {_ERRORS[quality.key]}"
    if any(line.basis == "spoon" for line in lines):
        return f"{said}: level spoons ±10 %, kinds ±5 %, taken as independent"
    return f"{said}: kinds of one ingredient differ by 5 %"


def _ends(total: float, low: float, high: float) -> tuple[float, float]:
    return max(0.0, total - low), total + high


def _amount_error(line: Line) -> str:
    if line.error:
        return f"by eye ±{line.error * 100:.0f} %"
    return "a level spoon ±10 %" if line.basis == "spoon" else f"a scale ±{SCALE_ERROR * 100:.0f} %"


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


def _finished(mixed: Mixed, prices: Mapping[str, float] | None) -> list[float]:
    """Determine the qualities of a finished blend, in the order of `QUALITIES`."""
    return part_qualities(Part("", 1.0, "", "", mixed.leaves, mixed.strained, mixed.gone, spent=mixed.spent), prices)


def _errors(
    blend: Blend, parts: Sequence[Part], shares: Sequence[float], columns: Sequence[Sequence[float]], mixed: Mixed
) -> Errors:
    """Determine how far the qualities of the finished blend may lie off."""
    if blend.label is not None:
        return _label_errors(blend.label, [part.leaves[0] for part in parts], _finished(mixed, None))
    own = [part_errors(part, column) for part, column in zip(parts, columns, strict=True)]
    low, high = mixture_errors(shares, [line.mass_error for line in blend.lines], columns, own)
    return [x / mixed.share for x in low], [x / mixed.share for x in high]


def _held_salt(mixed: Mixed) -> float:
    """Return the salt of what the sieve held back [% of its mass]; 0 when it holds nothing."""
    held = mixed.held
    if held.mass <= 1e-9:
        return 0.0
    one = held.times(1 / held.mass)
    return part_qualities(Part("", 1.0, "", "", one.leaves, one.steeped, one.gone, spent=one.spent))[0]


def read_salt(blend: Blend, tables: Catalogue | None = None) -> Figure:
    """Determine the salt of a finished blend [% of mass] with its working, and nothing else; for lists.

    Raises
    ------
    BadInput
        For a blend that cannot be read, as `read_blend`.
    """
    known = tables or catalogue()
    parts = check_blend(blend, known)
    if blend.label is not None:
        return label_figure(blend.label, estimate(blend.label, tuple(part.leaves[0][0] for part in parts)))
    shares = shares_of(blend.lines, parts)
    mixed = mix(blend, shares, parts, known)
    columns = [part_qualities(part) for part in parts]
    low, high = _errors(blend, parts, shares, columns, mixed)
    total = _finished(mixed, None)[0]
    values, ends = [column[0] for column in columns], _ends(total, low[0], high[0])
    quality = QUALITIES["salt"]
    return _scale(quality, blend.lines, parts, shares, values, False, total, ends, mixed.share).figure


def _flags(blend: Blend, parts: Sequence[Part], leaves: Sequence[tuple[Grind, float]]) -> frozenset[str]:
    """Return the flags of what a blend holds; an enzyme that went through a simmer is dead."""
    found = {flag for grind, _ in leaves for flag in grind.ingredient.flags}
    first = next((at for at, step in enumerate(blend.method) if step.do == "simmer"), None)
    if "protease" in found and first is not None:
        enters = enters_at(blend.method, len(parts))
        live = [
            part for part, at in zip(parts, enters, strict=True)
            if at > first and any("protease" in grind.ingredient.flags for grind, _ in part.leaves)
        ]  # fmt: skip
        if not live:
            found = found - {"protease"} | {"heat_treated"}
    return frozenset(found)


def read_blend(
    blend: Blend,
    spoon_set: SpoonSet = SPOON_SETS["us"],
    tables: Catalogue | None = None,
    prices: Mapping[str, float] | None = None,
) -> BlendReading:
    """Determine what a blend comes to in its batch: its lines as they go in, its scales as it is finished.

    Parameters
    ----------
    blend : Blend
        Lines with parts by spoon or scale, and the batch [g].
    spoon_set : SpoonSet
        Which spoons amounts are measured out in.
    prices : mapping
        The cook's own prices by ingredient key [per 100 g].

    Raises
    ------
    BadInput
        For an empty blend, a line out of range or an ingredient that is not in the catalogue.
    """
    known = tables or catalogue()
    parts = check_blend(blend, known)
    if not blend.lines:
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")
    relative = masses(blend.lines, parts)
    total = sum(relative)
    shares = [mass / total for mass in relative]
    mixed = mix(blend, shares, parts, known)
    errors = [line.mass_error for line in blend.lines]
    # a share moves with its own line and against all others
    squares = sum((share * error) ** 2 for share, error in zip(shares, errors, strict=True))
    ranges = None
    if blend.label is not None:
        ranges = estimate(blend.label, tuple(part.leaves[0][0] for part in parts)).shares

    lines = []
    for at, (line, part, mass, share) in enumerate(zip(blend.lines, parts, relative, shares, strict=True)):
        steps = []
        if line.basis == "spoon":
            steps.append(Step(f"Density of {part.name}", part.density_from, part.density_g_ml, "g/ml", part.source))
            formula = f"{float(line.parts):g} parts × {part.density_g_ml:.3f} g/ml"
            steps.append(Step("Mass of this line", formula, mass, "parts by mass"))
        steps.append(Step("Share by mass", f"{say(mass, 4)} / {say(total, 4)}, all lines", share * 100, "%"))
        own = errors[at] ** 2
        spread = math.sqrt(max(0.0, own * (1 - share) ** 2 + squares - own * share**2))
        error = f"±{say(spread * 100, 2)} %: {_amount_error(line)}, the other lines' errors with it"
        ends = {"low": share * (1 - spread), "high": share * (1 + spread)}
        if ranges is not None:
            ends = {"low": ranges[at].low, "high": ranges[at].high}
            least, most = say(ranges[at].low * 100, 3), say(ranges[at].high * 100, 3)
            error = f"{least} to {most} %: every mixture that fits the label"
        grams = Step("Weigh", f"{share * 100:.2f} % × {blend.batch_g:g} g", share * blend.batch_g, "g")
        volume = share * blend.batch_g / part.density_g_ml
        lines.append(
            LineReading(
                grind=line.grind,
                name=part.name,
                share=figure(steps, error, **{end: value * 100 for end, value in ends.items()}),
                mass=figure((steps[-1], grams), error, **{end: value * blend.batch_g for end, value in ends.items()}),
                volume_ml=volume,
                spoons=measure_out(volume, spoon_set),
                leaves=seen_in(part.leaves, part.spent),
            )
        )

    density = density_of(blend, mixed)
    volume = mixed.share * blend.batch_g / density
    fluid = any(not grind.grain_mm for grind, _ in mixed.leaves)
    volume_step = Step("Volume of the batch", mixed.density_from(blend), volume, "ml")
    columns = [part_qualities(part, prices) for part in parts]
    wet = blend.kind not in DRY_KINDS
    below, above = _errors(blend, parts, shares, columns, mixed)
    totals = _finished(mixed, prices)
    scales = [
        _scale(
            quality, blend.lines, parts, shares, [column[at] for column in columns], wet, totals[at],
            _ends(totals[at], below[at], above[at]), mixed.share, blend.label is not None,
        )
        for at, quality in enumerate(QUALITIES.values())
    ]  # fmt: skip
    if ranges is not None and blend.label is not None:
        salt_figure = label_figure(blend.label, estimate(blend.label, tuple(part.leaves[0][0] for part in parts)))
        scales[0] = replace(scales[0], figure=salt_figure)
    leaves, all_leaves = seen_in(mixed.leaves, mixed.spent), (*mixed.leaves, *mixed.strained, *mixed.spent)
    finished = method_working(blend.method, mixed.after, mixed.share, blend.batch_g)
    lactic = sum(share * g.ingredient.acid for g, share in mixed.leaves if "dairy" in g.ingredient.flags)
    return BlendReading(
        lines=tuple(lines),
        leaves=leaves,
        batch=figure([Step("Batch", "as chosen", blend.batch_g, "g")], "as chosen"),
        finished=figure(finished, "as exact as its steps" if len(finished) > 2 else "as chosen"),
        after_g=tuple(after * blend.batch_g for after in mixed.after),
        volume=figure([volume_step], "±5 %: from what it holds", spread=0.05)
        if fluid
        else figure([volume_step], "±15 %: fine grains fill the gaps between coarse ones", spread=0.15),
        density_g_ml=density,
        held_g=mixed.held.mass * blend.batch_g,
        held_salt_percent=_held_salt(mixed),
        sodium_share=sum(share * grind.ingredient.sodium for grind, share in (*mixed.leaves, *mixed.strained)),
        scales=(*scales, _spread_scale(leaves)),
        keeping=keeping(blend.kind, all_leaves, {scale.key: scale.figure.value for scale in scales}),
        dairy_acid_share=lactic,
        allergens=tuple(sorted({a for g, _ in all_leaves for a in g.ingredient.allergens})),
        flags=_flags(blend, parts, all_leaves),
    )

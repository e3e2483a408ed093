"""Mixtures by ratio: shares, batch amounts and composition of a blend.

Mass of a line = parts x density when its parts are spoons, parts when they are weighed;
share = mass over the total of all lines.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from ravska_core.catalogue import Catalogue, Grind, catalogue
from ravska_core.spoons import Spoonfuls, measure_out
from ravska_core.working import BadInput, Figure, Step, figure

KINDS = (
    "dry rub", "paste", "binder", "marinade", "injection", "glaze", "spritz", "cooking liquid", "finishing salt",
)  # fmt: skip
BASES = ("spoon", "scale")
LOWEST_BATCH_G, HIGHEST_BATCH_G = 0.5, 50_000.0
MOST_LINES = 60

_DENSITY_ERROR = 0.1
"""Relative error of a level-spoon density: portion weights of one ingredient differ by about this much (estimate)."""


@dataclass(frozen=True)
class Line:
    """A line of a blend: a grind by key, how many parts of it, and whether parts are spoons or weights."""

    grind: str
    parts: Fraction
    basis: str


@dataclass(frozen=True)
class Blend:
    """A mixture by ratio and the batch it is mixed in [g]."""

    kind: str
    lines: tuple[Line, ...]
    batch_g: float


@dataclass(frozen=True)
class LineReading:
    """What one line of a blend comes to in the batch."""

    grind: str
    share: Figure
    mass: Figure
    volume_ml: float
    spoons: Spoonfuls


@dataclass(frozen=True)
class BlendReading:
    """What a blend comes to: its lines, the whole batch, and its composition as mass fractions."""

    lines: tuple[LineReading, ...]
    batch: Figure
    volume: Figure
    density_g_ml: float
    salt: Figure
    sugar: Figure
    acid: Figure
    water_share: float
    fat_share: float
    nitrite_cure: bool
    dairy_acid_share: float
    allergens: tuple[str, ...]
    flags: frozenset[str]


def masses(lines: Sequence[Line], grinds: Sequence[Grind]) -> list[float]:
    """Determine the relative mass of every line: parts x density [g/ml] for spoons, parts for the scale."""
    return [
        float(line.parts) * (grind.density_g_ml if line.basis == "spoon" else 1.0)
        for line, grind in zip(lines, grinds, strict=True)
    ]


def shares(lines: Sequence[Line], grinds: Sequence[Grind]) -> list[float]:
    """Determine the mass share of every line; they sum to 1 for any blend that has a line."""
    relative = masses(lines, grinds)
    total = sum(relative)
    return [mass / total for mass in relative]


def grinds_of(lines: Sequence[Line], tables: Catalogue | None = None) -> list[Grind]:
    """Look up the grind of every line.

    Raises
    ------
    BadInput
        When a line names a grind the catalogue does not hold, at ``lines.N.grind``.
    """
    known = (tables or catalogue()).grinds
    found = []
    for at, line in enumerate(lines):
        if line.grind not in known:
            raise BadInput(
                f"lines.{at}.grind", "This ingredient is not in the catalogue any more; choose another or remove it."
            )
        found.append(known[line.grind])
    return found


def check_blend(blend: Blend, tables: Catalogue | None = None) -> list[Grind]:
    """Refuse a blend that cannot be mixed, with a sentence at the field; return the grinds of its lines."""
    if blend.kind not in KINDS:
        raise BadInput("kind", f"“{blend.kind}” is no kind of blend; choose one of {', '.join(KINDS)}.")
    if len(blend.lines) > MOST_LINES:
        raise BadInput("lines", f"A blend holds at most {MOST_LINES} lines; put some of them in a blend of their own.")
    if not LOWEST_BATCH_G <= blend.batch_g <= HIGHEST_BATCH_G:  # also refuses nan
        raise BadInput("batch_g", "A batch lies between 0.5 g and 50 kg; write for example 150.")
    for at, line in enumerate(blend.lines):
        if line.basis not in BASES:
            raise BadInput(f"lines.{at}.basis", "Parts are measured by spoon or by scale; choose one.")
        if line.parts <= 0:
            raise BadInput(f"lines.{at}.parts", "0 parts is nothing; write a number above 0, or remove the line.")
    return grinds_of(blend.lines, tables)


def _weighted(
    label: str, title: str, lines: Sequence[tuple[Grind, float]], values: Sequence[float], source: str
) -> Figure:
    terms = [
        f"{share * 100:.1f} % × {value * 100:.4g} %"
        for (_, share), value in zip(lines, values, strict=True)
        if value > 0
    ]
    total = sum(share * value for (_, share), value in zip(lines, values, strict=True))
    each = [
        Step(f"{title} in {grind.ingredient.name.lower()}", "composition", value * 100, "%", grind.ingredient.source)
        for (grind, _), value in zip(lines, values, strict=True)
        if value > 0
    ]
    formula = " + ".join(terms) if terms else "no line holds any"
    error = "±10 % of it where lines go by spoon: a level spoon differs by about that" if total > 0 else "exact"
    return figure([*each, Step(label, formula, total * 100, "%", source)], error, spread=_DENSITY_ERROR)


def read_blend(blend: Blend, spoon_set: str = "us", tables: Catalogue | None = None) -> BlendReading:
    """Determine what a blend comes to in its batch.

    Parameters
    ----------
    blend : Blend
        Lines with parts by spoon or scale, and the batch [g].
    spoon_set : str
        Which spoons amounts are measured out in.

    Raises
    ------
    BadInput
        For an empty blend, a line out of range or an ingredient that is not in the catalogue.
    """
    grinds = check_blend(blend, tables)
    if not blend.lines:
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")
    relative = masses(blend.lines, grinds)
    total = sum(relative)
    weighted = [(grind, mass / total) for grind, mass in zip(grinds, relative, strict=True)]
    by_spoon = any(line.basis == "spoon" for line in blend.lines)

    lines = []
    for line, grind, mass in zip(blend.lines, grinds, relative, strict=True):
        share = mass / total
        name = grind.ingredient.name.lower()
        steps = []
        if line.basis == "spoon":
            steps.append(
                Step(
                    f"Density of {name}, {grind.name}",
                    f"{grind.portion_g:g} g a level {grind.portion}",
                    grind.density_g_ml,
                    "g/ml",
                    grind.source,
                )
            )
            formula = f"{float(line.parts):g} parts × {grind.density_g_ml:.3f} g/ml"
            steps.append(Step("Mass of this line", formula, mass, "parts by mass"))
        steps.append(Step("Mass of all lines", "sum of all lines", total, "parts by mass"))
        steps.append(Step("Share by mass", f"{mass:.4g} / {total:.4g}", share * 100, "%"))
        # the error of a share falls to nothing as the line becomes the whole blend
        spread = _DENSITY_ERROR * (1 - share) if by_spoon else 0.0
        error = "from the ±10 % of a level spoon" if by_spoon else "as exact as the scale"
        grams = Step("Weigh", f"{share * 100:.2f} % × {blend.batch_g:g} g", share * blend.batch_g, "g")
        volume = share * blend.batch_g / grind.density_g_ml
        lines.append(
            LineReading(
                grind=line.grind,
                share=figure(steps, error, spread=spread),
                mass=figure([*steps, grams], error, spread=spread),
                volume_ml=volume,
                spoons=measure_out(volume, spoon_set),
            )
        )

    volume = sum(line.volume_ml for line in lines)
    density = blend.batch_g / volume
    volume_step = Step("Volume of the batch", "sum of the lines' level volumes", volume, "ml")
    lactic = sum(share * g.ingredient.acid for g, share in weighted if "dairy" in g.ingredient.flags)
    return BlendReading(
        lines=tuple(lines),
        batch=figure([Step("Batch", "as chosen", blend.batch_g, "g")], "as chosen"),
        volume=figure([volume_step], "±15 %: fine grains fill the gaps between coarse ones", spread=0.15),
        density_g_ml=density,
        salt=_weighted("Salt in the blend", "Salt", weighted, [g.ingredient.nacl for g in grinds], "arithmetic"),
        sugar=_weighted("Sugar in the blend", "Sugar", weighted, [g.ingredient.sugars for g in grinds], "arithmetic"),
        acid=_weighted("Acid in the blend", "Acid", weighted, [g.ingredient.acid for g in grinds], "arithmetic"),
        water_share=sum(share * g.ingredient.water for g, share in weighted),
        fat_share=sum(share * g.ingredient.fat for g, share in weighted),
        nitrite_cure=any("cure" in g.ingredient.flags for g in grinds),
        dairy_acid_share=lactic,
        allergens=tuple(sorted({a for g in grinds for a in g.ingredient.allergens})),
        flags=frozenset(f for g in grinds for f in g.ingredient.flags),
    )

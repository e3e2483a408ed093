"""What a blend comes to: its lines weighed and measured, its scales, keeping time and errors."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ravska_core.blend.estimate import estimate, label_figure
from ravska_core.blend.keeping import Keeping, keeping
from ravska_core.blend.lines import DRY_KINDS, Blend
from ravska_core.blend.method import enters_at, method_working
from ravska_core.blend.parts import Mixed, Part, check_blend, density_of, masses, mix, seen_in
from ravska_core.blend.parts import shares as shares_of
from ravska_core.blend.qualities import QUALITIES, part_qualities
from ravska_core.blend.scales import Scale, scale_of, spread_scale
from ravska_core.blend.uncertainty import amount_error, blend_errors, ends_of, finished_qualities, summed
from ravska_core.catalogue import Grind, while_it_stands
from ravska_core.measure import SPOON_SETS, Spoonfuls, SpoonSet, measure_out
from ravska_core.working import BadInput, Figure, Step, figure, say


@dataclass(frozen=True)
class Band:
    """A stretch of a grain strip: a grind by key and its share of the mass [0 to 1]."""

    grind: str
    share: float


def bands_of(leaves: Sequence[tuple[Grind, float]]) -> tuple[Band, ...]:
    """Return what leaves are drawn with."""
    return tuple(Band(grind.key, share) for grind, share in leaves)


@while_it_stands(512)
def _drawn(part: Part) -> tuple[tuple[tuple[Grind, float], ...], tuple[Band, ...]]:
    """Return the leaves and bands of what a line is made of, which no share changes."""
    leaves = seen_in(part.leaves, part.spent)
    return leaves, bands_of(leaves)


@dataclass(frozen=True)
class LineShown:
    """What one line of a blend comes to in the batch; `bands` is what it is drawn with."""

    grind: str
    name: str
    share: Figure
    mass: Figure
    volume_ml: float
    spoons: Spoonfuls
    bands: tuple[Band, ...]


@dataclass(frozen=True)
class LineReading(LineShown):
    """What one line of a blend comes to, with its grinds and their shares [mass fraction]."""

    leaves: tuple[tuple[Grind, float], ...]


@dataclass(frozen=True)
class BlendShown:
    """What of a blend's reading is shown: its lines, the whole batch, its scales, how long it keeps.

    `batch` goes into the bowl, `finished` comes out of its method, `after_g` is what is left after each step [g].
    `held_g` is what its sieve holds back [g], with `held_salt_percent` salt [%]; `notes` say what does not fit on a
    bought blend's label.
    """

    lines: tuple[LineShown, ...]
    batch: Figure
    finished: Figure
    after_g: tuple[float, ...]
    volume: Figure
    salt: Figure
    scales: tuple[Scale, ...]
    keeping: Keeping
    allergens: tuple[str, ...]
    held_g: float
    held_salt_percent: float
    notes: tuple[str, ...]


@dataclass(frozen=True)
class BlendReading(BlendShown):
    """What a blend comes to, with all that is reckoned further from it.

    `leaves` are the grinds of the finished blend, `holds` all that anything of is in it, those a sieve took out again
    too. `sodium_share` is all its sodium, not only that of salt [mass fraction].
    """

    lines: tuple[LineReading, ...]
    leaves: tuple[tuple[Grind, float], ...]
    holds: tuple[Grind, ...]
    density_g_ml: float
    dairy_acid_share: float
    flags: frozenset[str]
    sodium_share: float

    def scale(self, key: str) -> Scale:
        """Return one scale by key."""
        return next(scale for scale in self.scales if scale.key == key)

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


def _held_salt(mixed: Mixed) -> float:
    """Return the salt of what the sieve held back [% of its mass]; 0 when it holds nothing."""
    held = mixed.held
    if held.mass <= 1e-9:
        return 0.0
    one = held.times(1 / held.mass)
    return part_qualities(Part("", 1.0, "", "", one.leaves, one.steeped, one.gone, spent=one.spent))[0]


def read_salt(blend: Blend) -> Figure:
    """Determine the salt of a finished blend [% of mass] with its working, and nothing else; for lists.

    Raises
    ------
    BadInput
        For a blend that cannot be read, as `read_blend`.
    """
    parts = check_blend(blend)
    if blend.label is not None:
        return label_figure(blend.label, estimate(blend.label, tuple(part.leaves[0][0] for part in parts)))
    shares = shares_of(blend.lines, parts)
    mixed = mix(blend, shares, parts)
    columns = [part_qualities(part) for part in parts]
    low, high = blend_errors(blend, parts, shares, columns, mixed)
    total = finished_qualities(mixed, None)[0]
    of, ends = summed(blend.lines, parts, shares, columns), ends_of(total, low[0], high[0])
    return scale_of(QUALITIES["salt"], of, False, total, ends, mixed.share, False).figure


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
    parts = check_blend(blend)
    if not blend.lines:
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")
    relative = masses(blend.lines, parts)
    total = sum(relative)
    shares = [mass / total for mass in relative]
    mixed = mix(blend, shares, parts)
    errors = [line.mass_error for line in blend.lines]
    # a share moves with its own line and against all others
    squares = sum((share * error) ** 2 for share, error in zip(shares, errors, strict=True))
    labelled = None if blend.label is None else estimate(blend.label, tuple(part.leaves[0][0] for part in parts))
    ranges = None if labelled is None else labelled.shares

    said_total, lines = say(total, 4), []
    for at, (line, part, mass, share) in enumerate(zip(blend.lines, parts, relative, shares, strict=True)):
        steps = []
        if line.basis == "spoon":
            steps.append(Step(f"Density of {part.name}", part.density_from, part.density_g_ml, "g/ml", part.source))
            formula = f"{float(line.parts):g} parts × {part.density_g_ml:.3f} g/ml"
            steps.append(Step("Mass of this line", formula, mass, "parts by mass"))
        steps.append(Step("Share by mass", f"{say(mass, 4)} / {said_total}, all lines", share * 100, "%"))
        own = errors[at] ** 2
        spread = math.sqrt(max(0.0, own * (1 - share) ** 2 + squares - own * share**2))
        error = f"±{say(spread * 100, 2)} %: {amount_error(line)}, the other lines' errors with it"
        ends = {"low": share * (1 - spread), "high": share * (1 + spread)}
        if ranges is not None:
            ends = {"low": ranges[at].low, "high": ranges[at].high}
            least, most = say(ranges[at].low * 100, 3), say(ranges[at].high * 100, 3)
            error = f"{least} to {most} %: every mixture that fits the label"
        grams = Step("Weigh", f"{share * 100:.2f} % × {blend.batch_g:g} g", share * blend.batch_g, "g")
        volume = share * blend.batch_g / part.density_g_ml
        leaves, bands = _drawn(part)
        lines.append(
            LineReading(
                grind=line.grind,
                name=part.name,
                share=figure(steps, error, **{end: value * 100 for end, value in ends.items()}),
                mass=figure((steps[-1], grams), error, **{end: value * blend.batch_g for end, value in ends.items()}),
                volume_ml=volume,
                spoons=measure_out(volume, spoon_set),
                bands=bands,
                leaves=leaves,
            )
        )

    density = density_of(blend, mixed)
    volume = mixed.share * blend.batch_g / density
    fluid = any(not grind.grain_mm for grind, _ in mixed.leaves)
    volume_step = Step("Volume of the batch", mixed.density_from(blend), volume, "ml")
    columns = [part_qualities(part, prices) for part in parts]
    wet = blend.kind not in DRY_KINDS
    below, above = blend_errors(blend, parts, shares, columns, mixed)
    totals = finished_qualities(mixed, prices)
    of = summed(blend.lines, parts, shares, columns)
    scales = [
        scale_of(quality, of, wet, total, ends_of(total, low, high), mixed.share, labelled is not None)
        for quality, total, low, high in zip(QUALITIES.values(), totals, below, above, strict=True)
    ]
    if blend.label is not None and labelled is not None:
        scales[0] = replace(scales[0], figure=label_figure(blend.label, labelled))
    leaves, all_leaves = seen_in(mixed.leaves, mixed.spent), (*mixed.leaves, *mixed.strained, *mixed.spent)
    finished = method_working(blend.method, mixed.after, mixed.share, blend.batch_g)
    lactic = sum(share * g.ingredient.acid for g, share in mixed.leaves if "dairy" in g.ingredient.flags)
    return BlendReading(
        lines=tuple(lines),
        leaves=leaves,
        holds=tuple({grind.key: grind for grind, _ in all_leaves}.values()),
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
        salt=scales[0].figure,
        scales=(*scales, spread_scale(leaves)),
        keeping=keeping(all_leaves, {scale.key: scale.figure.value for scale in scales}),
        dairy_acid_share=lactic,
        allergens=tuple(sorted({a for g, _ in all_leaves for a in g.ingredient.allergens})),
        flags=_flags(blend, parts, all_leaves),
        notes=() if labelled is None else tuple(labelled.notes),
    )

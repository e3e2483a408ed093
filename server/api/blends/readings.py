"""What a blend comes to, as it is answered."""

from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID

from ravska_core.blend import Blend, BlendReading, estimate, findings_of
from ravska_core.bowl import jar_for
from ravska_core.coat import thin_cut_salt
from ravska_core.working import Figure

from api.plumbing.shown import BandOut, CautionOut, JarOut, SpoonsOut, caution_out, jar_out, spoons_out


@dataclass(frozen=True, slots=True)
class InsideOut:
    """The blend that a line holds, as it is in the book now."""

    id: UUID
    name: str
    version: int
    deleted: bool


@dataclass(frozen=True, slots=True)
class LineReadingOut:
    """What a line comes to; `bands` is what it is drawn with: one grind, or those of the blend inside."""

    grind: str
    inside: InsideOut | None
    name: str
    share: Figure
    mass: Figure
    volume_ml: float
    spoons: SpoonsOut
    bands: list[BandOut]


@dataclass(frozen=True, slots=True)
class BlendScaleOut:
    """One scale a blend is read on, in the unit it is aimed at; its figure may be in another, as heat is."""

    key: str
    label: str
    value: float
    unit: str
    full: float
    word: str
    figure: Figure


@dataclass(frozen=True, slots=True)
class KeepingOut:
    days: float
    place: str
    because: str
    figure: Figure


@dataclass(frozen=True, slots=True)
class BlendReadingOut:
    """What a blend comes to: shares, grams and spoons a line, its scales, keeping time, cautions and findings.

    `batch` goes into the bowl, `finished` comes out of the method, `after_g` is what is left after each of its steps.
    `notes` say what does not fit on a bought blend's label; `held_g` is what its sieve holds back, with so much salt.
    """

    lines: list[LineReadingOut]
    batch: Figure
    finished: Figure
    after_g: list[float]
    volume: Figure
    jar: JarOut
    notes: list[str]
    salt: Figure
    scales: list[BlendScaleOut]
    keeping: KeepingOut
    allergens: list[str]
    cautions: list[CautionOut]
    held_g: float
    held_salt_percent: float


def _label_notes(blend: Blend, found: BlendReading) -> list[str]:
    if blend.label is None:
        return []
    return list(estimate(blend.label, tuple(line.leaves[0][0] for line in found.lines)).notes)


def blend_reading_out(blend: Blend, found: BlendReading, inside: Sequence[InsideOut | None]) -> BlendReadingOut:
    return BlendReadingOut(
        lines=[
            LineReadingOut(
                grind=line.grind,
                inside=held,
                name=line.name,
                share=line.share,
                mass=line.mass,
                volume_ml=line.volume_ml,
                spoons=spoons_out(line.spoons, line.volume_ml),
                bands=[BandOut(grind.key, share) for grind, share in line.leaves],
            )
            for line, held in zip(found.lines, inside, strict=True)
        ],
        batch=found.batch,
        finished=found.finished,
        after_g=list(found.after_g),
        volume=found.volume,
        jar=jar_out(jar_for(found.volume)),
        notes=_label_notes(blend, found),
        salt=found.salt,
        scales=[BlendScaleOut(s.key, s.label, s.value, s.unit, s.full, s.word, s.figure) for s in found.scales],
        keeping=KeepingOut(found.keeping.days, found.keeping.place, found.keeping.because, found.keeping.figure),
        allergens=list(found.allergens),
        cautions=[caution_out(caution) for caution in findings_of(blend, found, thin_cut_salt())],
        held_g=found.held_g,
        held_salt_percent=found.held_salt_percent,
    )

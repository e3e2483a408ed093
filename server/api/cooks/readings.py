"""What a coat comes to, as it is answered."""

from contextlib import suppress
from dataclasses import dataclass

from book.models import Blend, Revision
from ravska_core.blend import flatten, same_mixture
from ravska_core.catalogue import catalogue
from ravska_core.coat import CoatReading, Window
from ravska_core.working import BadInput, Figure

from api.cooks.injection import InjectionOut, injection_out
from api.plumbing.shown import CautionOut, SpoonsOut, caution_out, spoons_out


@dataclass(frozen=True, slots=True)
class WeakerOut:
    """The class of acid that water to 100 g [g] takes a marinade down to, and how long it may work then [min]."""

    acid_class: str
    water_g: float
    long_high_min: float


@dataclass(frozen=True, slots=True)
class WindowOut:
    """How long a marinade may work [min], after the cautious and the long school.

    `weaker` says what takes it down a class of acid, where that is what limits it.
    """

    acid_class: str
    because: str
    thickness: str
    cautious_low_min: float
    cautious_high_min: float
    long_low_min: float
    long_high_min: float
    reason: str
    mark: str
    weaker: WeakerOut | None


def window_out(found: Window) -> WindowOut:
    window, weaker = found.window, found.weaker
    return WindowOut(
        acid_class=found.acid_class,
        because=found.because,
        thickness=found.thickness,
        cautious_low_min=window.cautious_low_min,
        cautious_high_min=window.cautious_high_min,
        long_low_min=window.long_low_min,
        long_high_min=window.long_high_min,
        reason=window.reason,
        mark=catalogue().sources[window.source].title,
        weaker=None if weaker is None else WeakerOut(weaker.acid_class, weaker.water_g, weaker.long_high_min),
    )


@dataclass(frozen=True, slots=True)
class SolidOut:
    """Outer dimensions of one piece [cm] and how many pieces."""

    shape: str
    length_cm: float
    width_cm: float
    thickness_cm: float
    pieces: int


@dataclass(frozen=True, slots=True)
class FaceOut:
    name: str
    state: str
    area_cm2: float


@dataclass(frozen=True, slots=True)
class CutUpOut:
    """What cutting the joint up does to its surface: before, after [cm2] and how many times as much."""

    whole_cm2: float
    cut_cm2: float
    times: Figure


@dataclass(frozen=True, slots=True)
class PieceReadingOut:
    """What is read of a piece; `meat_cm` is the thickness of its meat [cm], of a hollow bird that of its breast."""

    solid: SolidOut
    coatable: Figure
    open_cm2: float
    faces: list[FaceOut]
    edible: Figure
    trimmed_g: float
    thin_cm: float
    thick_cm: float
    meat_cm: float
    question: str
    bones: list[list[float]]
    cut_up: CutUpOut | None


@dataclass(frozen=True, slots=True)
class LostOut:
    """A share of what was put on that is lost [0 to 1], and where it is then."""

    where: str
    share: float


@dataclass(frozen=True, slots=True)
class LayerReadingOut:
    """What a layer takes and where its salt ends; shares are of what was put on, salt is % of raw edible weight."""

    kind: str
    dose: Figure
    dose_g: float
    dose_setting: float
    spoons: SpoonsOut
    salt: Figure
    in_meat: float
    at_surface: float
    on_plate: float
    lost: list[LostOut]
    so_far: float
    rest: float | None
    surface: str
    note: str
    says: str
    window: WindowOut | None
    standing: str
    too_long: bool
    reserve_g: float
    injection: InjectionOut | None
    reach: Figure | None
    hold_s: float
    begins_s: float


@dataclass(frozen=True, slots=True)
class SampleOut:
    """The core sample: salt [% of raw edible weight] by depth [cm] at a time of the hold [s], and what it says.

    `least` is the salt of the tenth of the meat that a needle reached least, empty without one.
    """

    time_s: float
    whole_s: float
    depths_cm: list[float]
    percent: list[float]
    low: list[float]
    high: list[float]
    least: list[float]
    reach: Figure
    says: list[str]


@dataclass(frozen=True, slots=True)
class LayerMarkOut:
    """What a layer is of, as the book has it, and what it is drawn with.

    `changed_since` says that its blend moved on since it was mixed; `shares` are those of the grinds.
    """

    blend_name: str
    blend_deleted: bool
    changed_since: bool
    grinds: list[str]
    shares: list[float]


def layer_mark(blend: Blend | None, revision: Revision | None, grind: str) -> LayerMarkOut:
    """Return what a layer of a blend, pinned at a revision or not, or of a plain grind is of."""
    if blend is None:
        grinds = [grind] if grind else []
        return LayerMarkOut("", False, False, grinds, [1.0] * len(grinds))
    leaves: dict[str, float] = {}
    changed = False
    with suppress(BadInput):  # the piece's own reading says which line is at fault
        mixture = blend.as_core(revision)
        leaves = flatten(mixture.lines)
        changed = revision is not None and not same_mixture(mixture, blend.as_core())
    return LayerMarkOut(blend.name, blend.deleted_at is not None, changed, list(leaves), list(leaves.values()))


@dataclass(frozen=True, slots=True)
class CoatReadingOut:
    """What a coat comes to on a piece: surface, doses, the salt ledger, a serving, the core sample, cautions.

    `gives` is the place of the layer that usually gives way to a target.
    """

    piece: PieceReadingOut
    layers: list[LayerReadingOut]
    salt: Figure
    zone: str
    target: float | None
    gives: int | None
    thin: Figure
    servings: Figure
    sodium: Figure
    sugar: Figure
    sample: SampleOut | None
    cautions: list[CautionOut]
    marks: list[LayerMarkOut]


def coat_reading_out(found: CoatReading, marks: list[LayerMarkOut]) -> CoatReadingOut:
    piece, solid, cut_up, sample = found.piece, found.piece.solid, found.cut_up, found.sample
    return CoatReadingOut(
        piece=PieceReadingOut(
            solid=SolidOut(solid.shape, solid.length_cm, solid.width_cm, solid.thickness_cm, solid.pieces),
            coatable=piece.coatable,
            open_cm2=piece.open_cm2,
            faces=[FaceOut(face.name, face.state, face.area_cm2) for face in piece.faces],
            edible=piece.edible,
            trimmed_g=piece.trimmed_g,
            thin_cm=piece.thin_cm,
            thick_cm=piece.thick_cm,
            meat_cm=piece.meat_cm,
            question=piece.question,
            bones=[[bone.x0, bone.y0, bone.x1, bone.y1, bone.wide] for bone in piece.bones],
            cut_up=None if cut_up is None else CutUpOut(cut_up.whole_cm2, cut_up.cut_cm2, cut_up.times),
        ),
        layers=[
            LayerReadingOut(
                kind=layer.kind,
                dose=layer.dose,
                dose_g=layer.dose_g,
                dose_setting=layer.dose_setting,
                spoons=spoons_out(layer.spoons, layer.spoons_wanted_ml),
                salt=layer.salt,
                in_meat=layer.fate.meat,
                at_surface=layer.fate.surface,
                on_plate=layer.fate.plate,
                lost=[LostOut(where, share) for where, share in layer.fate.lost.items() if share > 1e-6],
                so_far=layer.so_far,
                rest=layer.rest,
                surface=layer.surface,
                note=layer.note,
                says=layer.says,
                window=window_out(layer.window) if layer.window else None,
                standing=layer.standing,
                too_long=layer.too_long,
                reserve_g=layer.reserve_g,
                injection=injection_out(layer.injection) if layer.injection else None,
                reach=layer.reach,
                hold_s=layer.hold_s,
                begins_s=layer.begins_s,
            )
            for layer in found.layers
        ],
        salt=found.salt,
        zone=found.zone,
        target=found.target,
        gives=found.gives,
        thin=found.thin,
        servings=found.servings,
        sodium=found.sodium,
        sugar=found.sugar,
        sample=None
        if sample is None
        else SampleOut(
            sample.time_s, sample.whole_s, list(sample.depths_cm), list(sample.percent), list(sample.low),
            list(sample.high), list(sample.least), sample.reach, list(sample.says),
        ),
        cautions=[caution_out(c) for c in found.cautions],
        marks=marks,
    )  # fmt: skip

"""Documents that several stations' routes speak: figures, spoons, cautions, blends and typed text.

What comes in is a validated schema; what goes out is a plain dataclass, built whole by the server itself.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cache, wraps
from typing import Annotated, Any, Literal, get_type_hints
from uuid import UUID

from book.models import line_key
from django.http import HttpResponse
from ninja import Schema, Status
from pydantic import BaseModel, Field, TypeAdapter
from pydantic_core import to_json
from ravska_core.blend import MOST_LINES, MOST_STEPS, TARGETS, Blend, BlendReading, estimate, findings_of
from ravska_core.bowl import MOST_USES, JarFit, jar_for
from ravska_core.catalogue import catalogue
from ravska_core.cautions import Caution
from ravska_core.coat import CoatReading, Window, thin_cut_salt
from ravska_core.measure import Spoonfuls
from ravska_core.working import Figure

from api.injection_document import InjectionOut, injection_out
from api.typed import Key, Name, Note, Typed, Version


def sends(view: Callable[..., Any]) -> Callable[..., HttpResponse]:
    """Send what a view returns as JSON straight from its models, by the type it says it returns.

    The framework would validate and dump every answer once more, which costs more than the computation. How an answer
    is written is worked out when it is first sent, so that the server is there sooner.
    """

    @cache
    def writer() -> Callable[[Any], bytes]:
        returns = get_type_hints(view).get("return")
        return TypeAdapter(returns).dump_json if returns else to_json

    @wraps(view)
    def answer(*args: Any, **kwargs: Any) -> HttpResponse:
        found, status = view(*args, **kwargs), 200
        if isinstance(found, Status):
            found, status = found.value, found.status_code
        return HttpResponse(writer()(found), status=status, content_type="application/json")

    return answer


class VersionDocument(Schema):
    """The version a document was read at."""

    version: Version


@dataclass(frozen=True, slots=True)
class SpoonsOut:
    """A volume in level spoonfuls, with what the rounding does."""

    text: str
    volume: Figure


def spoons_out(found: Spoonfuls, wanted_ml: float) -> SpoonsOut:
    return SpoonsOut(text=found.text, volume=found.working(wanted_ml))


@dataclass(frozen=True, slots=True)
class CautionOut:
    """A caution; one with a `layer` stands at that layer's step, by its place."""

    id: str
    level: Literal["stop", "caution", "note"]
    sentence: str
    action: str
    source: str
    layer: int | None = None


def caution_out(found: Caution) -> CautionOut:
    return CautionOut(
        id=found.id,
        level=found.level,  # type: ignore[arg-type]
        sentence=found.sentence,
        action=found.action,
        source=catalogue().sources[found.source].title,
        layer=found.layer,
    )


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
        weaker=weaker and WeakerOut(weaker.acid_class, weaker.water_g, weaker.long_high_min),
    )


@dataclass(frozen=True, slots=True)
class BandOut:
    """A stretch of a grain strip: a grind and its share of the mass."""

    grind: str
    share: float


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
class JarOut:
    """The jar a batch goes in [ml], how many of them, and how full [%]."""

    jar_ml: float
    count: int
    full: Figure


def jar_out(found: JarFit) -> JarOut:
    return JarOut(found.jar_ml, found.count, found.full)


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
class ArmReadingOut:
    """What an arm comes to: surface, doses, the salt ledger, a serving, the core sample, cautions.

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


def arm_reading_out(found: CoatReading) -> ArmReadingOut:
    piece, solid, cut_up, sample = found.piece, found.piece.solid, found.cut_up, found.sample
    return ArmReadingOut(
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
    )  # fmt: skip


class LineDocument(BaseModel):
    """A line as typed: a grind by key or a blend inside, parts as text, their basis and the line's lock.

    `error` says how far an amount by eye may be off [%], `said` how it was written where it came from.

    `exact` is the fraction the text stands for where it was rounded, such as 1359/50; it is left out as soon as
    someone types. `least` and `most` bound the line's share [%] when the blend is aimed. `held` says that of the
    blend what its sieve held back goes in.
    """

    grind: Key = ""
    blend: UUID | None = None
    parts: Typed
    exact: Typed = ""
    basis: Literal["spoon", "scale"] = "spoon"
    lock: Literal["", "share", "ratio"] = ""
    least: Typed = ""
    most: Typed = ""
    error: Typed = ""
    said: Key = ""
    held: bool = False

    def key(self) -> str:
        """Return what a step of the method calls this line."""
        return line_key(self.grind, self.blend, self.held)


class MethodStepDocument(BaseModel):
    """A step of a method as typed: to which lines (by grind or blend key; none: all), and how far or how long."""

    do: Literal["mix", "grind", "strain", "simmer", "rest", "note"]
    of: Annotated[list[Key], Field(max_length=MOST_LINES)] = Field(default=[])
    to: Key = ""
    by: Typed = ""
    lasts: Typed = ""
    note: Note = ""


Method = Annotated[list[MethodStepDocument], Field(max_length=MOST_STEPS)]


class StatedShare(BaseModel):
    """A share [0 to 1] that a label's list gives itself, by the place of its ingredient."""

    place: Annotated[int, Field(ge=0, le=MOST_LINES)]
    share: Annotated[float, Field(gt=0, le=1)]


class LabelDocument(BaseModel):
    """A bought blend's panel as printed; its lines stand in the order of the label's ingredients.

    `minor_from` is the place of the first ingredient under "2 % or less of", `stated` holds the shares that
    the list itself gives.
    """

    portion: Typed
    sodium: Typed
    sodium_as: Literal["sodium", "salt"] = "sodium"
    sugars: Typed = ""
    fat: Typed = ""
    rule: Literal["us", "eu"] = "us"
    minor_from: Annotated[int, Field(ge=0, le=MOST_LINES)] | None = None
    stated: Annotated[list[StatedShare], Field(max_length=MOST_LINES)] = Field(default=[])


Lines = Annotated[list[LineDocument], Field(max_length=MOST_LINES)]

BlendKind = Literal[
    "dry rub", "paste", "binder", "marinade", "injection", "glaze", "spritz", "cooking liquid", "finishing salt"
]
Written = Literal["parts", "percent", "relative"]
Total = Literal["free", "fixed"]
Fire = Literal["", "direct flame", "hot iron", "indirect", "oven", "broiler"]
TargetKey = Literal["salt", "sugar", "heat", "sour", "savoury", "smoke", "herb", "fat", "water", "cost", "spread"]


class TargetDocument(BaseModel):
    """What a blend is aimed at: at least, at most, or both, as typed, in the scale's unit."""

    what: TargetKey
    low: Typed = ""
    high: Typed = ""


Targets = Annotated[list[TargetDocument], Field(max_length=len(TARGETS))]


class UseDocument(BaseModel):
    """What some of a batch is for: a weight as typed, or what the blend or layer named in `of` takes."""

    name: Name
    of: Key = ""
    mass: Typed = ""


Uses = Annotated[list[UseDocument], Field(max_length=MOST_USES)]

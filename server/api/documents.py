"""Documents that several stations' routes speak: figures, spoons, cautions, blends and typed text.

What comes in is a validated schema; what goes out is a plain dataclass, built whole by the server itself.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import wraps
from typing import Annotated, Any, Literal

from django.http import HttpResponse
from ninja import Schema, Status
from pydantic import AfterValidator, Field
from pydantic_core import to_json
from ravska_core import blends, coat, marinade, spoons, working
from ravska_core.catalogue import catalogue
from ravska_core.cautions import BLEND_RULES, Caution, Situation, cautions_for


def _printable(text: str) -> str:
    if any(0xD800 <= ord(char) <= 0xDFFF or (ord(char) < 32 and char not in "\t\n") for char in text):
        raise ValueError("This holds characters that cannot be written; type it again.")
    return text.strip()


def _written(text: str) -> str:
    if not text:
        raise ValueError("Write something here; it cannot be empty.")
    return text


Typed = Annotated[str, Field(max_length=40), AfterValidator(_printable)]
"""An amount as people type it, read by the core."""

Key = Annotated[str, Field(max_length=80), AfterValidator(_printable)]
"""A catalogue key."""

Name = Annotated[str, Field(max_length=80), AfterValidator(_printable), AfterValidator(_written)]
Version = Annotated[int, Field(ge=1, le=2**31)]
Number = Annotated[float, Field(allow_inf_nan=False, ge=-1e9, le=1e9)]


def sends(view: Callable[..., Any]) -> Callable[..., HttpResponse]:
    """Send what a view returns as JSON straight from its models.

    The framework would validate and dump every answer once more, which costs more than the computation.
    """

    @wraps(view)
    def answer(*args: Any, **kwargs: Any) -> HttpResponse:
        found, status = view(*args, **kwargs), 200
        if isinstance(found, Status):
            found, status = found.value, found.status_code
        return HttpResponse(to_json(found), status=status, content_type="application/json")

    return answer


class VersionDocument(Schema):
    """The version a document was read at."""

    version: Version


@dataclass(frozen=True, slots=True)
class StepOut:
    """One line of working, with its source spelled out."""

    label: str
    formula: str
    value: float
    unit: str
    source: str
    mark: str


@dataclass(frozen=True, slots=True)
class FigureOut:
    """A number that can say why."""

    value: float
    unit: str
    low: float | None
    high: float | None
    error: str
    steps: list[StepOut]


def figure_out(found: working.Figure) -> FigureOut:
    sources = catalogue().sources
    steps = [
        StepOut(
            label=step.label,
            formula=step.formula,
            value=step.value,
            unit=step.unit,
            source=sources[step.source].title,
            mark=sources[step.source].mark,
        )
        for step in found.steps
    ]
    return FigureOut(value=found.value, unit=found.unit, low=found.low, high=found.high, error=found.error, steps=steps)


@dataclass(frozen=True, slots=True)
class SpoonsOut:
    """A volume in level spoonfuls, with what the rounding does."""

    text: str
    volume: FigureOut


def spoons_out(found: spoons.Spoonfuls, wanted_ml: float) -> SpoonsOut:
    return SpoonsOut(text=found.text, volume=figure_out(found.working(wanted_ml)))


@dataclass(frozen=True, slots=True)
class CautionOut:
    id: str
    level: Literal["stop", "caution", "note"]
    sentence: str
    action: str
    source: str


def caution_out(found: Caution) -> CautionOut:
    return CautionOut(
        id=found.id,
        level=found.level,  # type: ignore[arg-type]
        sentence=found.sentence,
        action=found.action,
        source=catalogue().sources[found.source].title,
    )


@dataclass(frozen=True, slots=True)
class WindowOut:
    """How long a marinade may work [min], after the cautious and the long school."""

    acid_class: str
    because: str
    cautious_low_min: float
    cautious_high_min: float
    long_low_min: float
    long_high_min: float
    reason: str
    mark: str


def window_out(found: marinade.Window) -> WindowOut:
    window = found.window
    return WindowOut(
        acid_class=found.acid_class,
        because=found.because,
        cautious_low_min=window.cautious_low_min,
        cautious_high_min=window.cautious_high_min,
        long_low_min=window.long_low_min,
        long_high_min=window.long_high_min,
        reason=window.reason,
        mark=catalogue().sources[window.source].title,
    )


@dataclass(frozen=True, slots=True)
class LineReadingOut:
    grind: str
    share: FigureOut
    mass: FigureOut
    volume_ml: float
    spoons: SpoonsOut


@dataclass(frozen=True, slots=True)
class BlendReadingOut:
    """What a blend comes to: shares, grams and spoons a line, salt, sugar, acid, cautions."""

    lines: list[LineReadingOut]
    batch: FigureOut
    volume: FigureOut
    salt: FigureOut
    sugar: FigureOut
    acid: FigureOut
    allergens: list[str]
    cautions: list[CautionOut]


def blend_reading_out(found: blends.BlendReading) -> BlendReadingOut:
    situation = Situation(flags=found.flags, allergens=found.allergens, fat_share=found.fat_share)
    return BlendReadingOut(
        lines=[
            LineReadingOut(
                grind=line.grind,
                share=figure_out(line.share),
                mass=figure_out(line.mass),
                volume_ml=line.volume_ml,
                spoons=spoons_out(line.spoons, line.volume_ml),
            )
            for line in found.lines
        ],
        batch=figure_out(found.batch),
        volume=figure_out(found.volume),
        salt=figure_out(found.salt),
        sugar=figure_out(found.sugar),
        acid=figure_out(found.acid),
        allergens=list(found.allergens),
        cautions=[caution_out(c) for c in cautions_for(situation, BLEND_RULES)],
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
class PieceReadingOut:
    solid: SolidOut
    coatable: FigureOut
    bare_face: str
    bare_area_cm2: float
    edible: FigureOut
    question: str


@dataclass(frozen=True, slots=True)
class LayerReadingOut:
    kind: Literal["rub", "marinade", "salt"]
    dose: FigureOut
    dose_g: float
    spoons: SpoonsOut
    salt: FigureOut
    binder: FigureOut | None
    window: WindowOut | None
    reach: FigureOut | None
    hold_s: float


@dataclass(frozen=True, slots=True)
class ArmReadingOut:
    """What an arm comes to: surface, doses, salt on the meat, cautions."""

    piece: PieceReadingOut
    layers: list[LayerReadingOut]
    salt: FigureOut
    zone: str
    cautions: list[CautionOut]


def arm_reading_out(found: coat.ArmReading) -> ArmReadingOut:
    piece = found.piece
    return ArmReadingOut(
        piece=PieceReadingOut(
            solid=SolidOut(
                shape=piece.solid.shape,
                length_cm=piece.solid.length_cm,
                width_cm=piece.solid.width_cm,
                thickness_cm=piece.solid.thickness_cm,
                pieces=piece.solid.pieces,
            ),
            coatable=figure_out(piece.coatable),
            bare_face=piece.bare_face,
            bare_area_cm2=piece.bare_area_cm2,
            edible=figure_out(piece.edible),
            question=piece.question,
        ),
        layers=[
            LayerReadingOut(
                kind=layer.kind,  # type: ignore[arg-type]
                dose=figure_out(layer.dose),
                dose_g=layer.dose_g,
                spoons=spoons_out(layer.spoons, layer.spoons_wanted_ml),
                salt=figure_out(layer.salt),
                binder=figure_out(layer.binder) if layer.binder else None,
                window=window_out(layer.window) if layer.window else None,
                reach=figure_out(layer.reach) if layer.reach else None,
                hold_s=layer.hold_s,
            )
            for layer in found.layers
        ],
        salt=figure_out(found.salt),
        zone=found.zone,
        cautions=[caution_out(c) for c in found.cautions],
    )


class LineDocument(Schema):
    """A line as typed: a grind by key, parts as text, and their basis."""

    grind: Key
    parts: Typed
    basis: Literal["spoon", "scale"] = "spoon"


Lines = Annotated[list[LineDocument], Field(max_length=blends.MOST_LINES)]

BlendKind = Literal[
    "dry rub", "paste", "binder", "marinade", "injection", "glaze", "spritz", "cooking liquid", "finishing salt"
]

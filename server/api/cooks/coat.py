"""Coat: pieces, their stacks of layers, what they take and what salt that puts on the meat."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal, cast
from uuid import UUID

from book.fires import own_eaten, own_yields
from book.layers import own_trims, own_words, usual_layer
from book.models import Blend
from django.http import HttpRequest
from ninja import Schema
from pydantic import Field
from ravska_core.catalogue import catalogue
from ravska_core.coat import (
    LAYER_KINDS,
    LAYER_OF_BLEND,
    CoatReading,
    Seasoned,
    give_way,
    place_for,
    plain,
    read_coat,
    usual_binder_g,
)
from ravska_core.meat import PORTION_G, find_cut, raw_weight, skin_piece
from ravska_core.units import say_duration
from ravska_core.working import BadInput, Figure, say

from api.cooks.documents import (
    Appetite,
    Blends,
    CoatDocument,
    FaceState,
    LayerDocument,
    LayerKindKey,
    Letter,
    MeatDocument,
    PieceDocument,
    layer_document,
    layers_of,
    read_layer,
    read_piece,
    read_pieces,
)
from api.cooks.readings import LayerMarkOut
from api.cooks.unread import ReadOn, read_on, with_the_worst
from api.cooks.ways import free_letter, piece_row, stack_of
from api.plumbing.answers import Router, with_more
from api.plumbing.household import household, spoon_set
from api.plumbing.problems import FieldError, Gather, field_error
from api.plumbing.quantities import Numeral
from api.plumbing.typed import Key
from api.shelf.router import TrimOut

router = Router()


@dataclass(frozen=True, kw_only=True)
class CoatReadingOut(CoatReading):
    """What a coat comes to on a piece, with what its layers are of as the book has it.

    `errors` says what could not be read, and `before` is the piece as it was read instead, whose figures these are;
    `places` tells where a layer as typed stands in it.
    """

    marks: list[LayerMarkOut]
    errors: list[FieldError]
    before: PieceDocument | None
    places: list[int | None]


@router.asks("/coat/read")
def read_pieces_of_coat(request: HttpRequest, document: CoatDocument) -> list[CoatReadingOut | None]:
    """Say what a coat comes to on every piece, without saving anything; None for one that could never be read."""
    before = {piece.letter: piece for piece in document.before or []}
    blends = Blends(layers_of([*document.pieces, *before.values()]))
    blends.share(document.pieces, document.appetite)
    gather, spoons = Gather(), spoon_set()
    answers: list[CoatReadingOut | None] = []
    read: list[PieceDocument] = []

    def judge(core: Seasoned) -> CoatReading:
        return read_coat(core, spoons, document.at_s)

    for at, typed in enumerate(document.pieces):
        piece = read_on(typed, before.get(typed.letter), blends, document.appetite, judge)
        if piece.is_old and document.before is None:
            gather.errors += [refusal.under(f"pieces.{at}") for refusal in piece.errors.values()]
            continue
        found: CoatReading | None = piece.judged
        if found is not None and piece.is_old:
            found = with_the_worst(found, piece, blends, document.appetite)
        answers.append(None if found is None else _reading_out(found, piece, blends))
        read.append(piece.good)
    gather.finish()
    _say_what_is_left(answers, read, blends)
    return answers


def _say_what_is_left(answers: Sequence[CoatReadingOut | None], read: Sequence[PieceDocument], blends: Blends) -> None:
    """Say of every layer of a blend what all pieces together leave of its batch, and what the jars hold of it."""
    layers = [
        (reading, at, typed, shown)
        for reading, piece in zip(answers, read, strict=True)
        if reading is not None
        for at, (typed, shown) in enumerate(zip(piece.layers, reading.layers, strict=True))
        if typed.blend_id is not None
    ]
    takes: dict[UUID, float] = {}
    for _, _, typed, shown in layers:
        assert typed.blend_id is not None
        takes[typed.blend_id] = takes.get(typed.blend_id, 0.0) + shown.dose_g + shown.reserve_g
    for reading, at, typed, shown in layers:
        assert typed.blend_id is not None
        left = shown.batch_g - takes[typed.blend_id]
        reading.marks[at] = replace(reading.marks[at], left_g=left, jars_g=blends.jars_g(typed.blend_id))


def _reading_out(found: CoatReading, piece: ReadOn, blends: Blends) -> CoatReadingOut:
    marks = [blends.mark(layer) for layer in piece.good.layers]
    errors = [field_error(one) for one in piece.errors.values()]
    before = piece.good if piece.is_old else None
    return with_more(CoatReadingOut, found, marks=marks, errors=errors, before=before, places=piece.places)


class NewLayer(Schema):
    """What to put on: a blend or a plain grind, as which kind of layer (as the blend's usual one when empty).

    `layers` are those it goes among, in order.
    """

    piece: MeatDocument
    kind: LayerKindKey | None = None
    blend_id: UUID | None = None
    grind: Key = ""
    layers: Annotated[list[LayerDocument], Field(max_length=12)] = Field(default=[])


@dataclass(frozen=True, slots=True)
class PlacedLayerOut:
    """A layer as it is typed, the place it usually goes to, and what of it is as this household weighed it itself."""

    layer: LayerDocument
    place: int
    own: str = ""


def _blend(key: UUID) -> Blend:
    blend = Blend.objects.filter(pk=key, household=household(), deleted_at__isnull=True).first()
    if blend is None:
        raise BadInput("blend_id", "This blend is not in the book any more; choose another.")
    return blend


@router.asks("/coat/layer")
def new_layer(request: HttpRequest, document: NewLayer) -> PlacedLayerOut:
    """Return a layer at its usual dose, hold and place for this blend and cut, without saving anything."""
    among = [layer.kind for layer in document.layers]
    if document.blend_id is not None:
        blend = _blend(document.blend_id)
        place = place_for(document.kind or LAYER_OF_BLEND[blend.kind], among)
        # a layer that cannot be read says so where it stands; it does not keep another from going on
        gather, blends = Gather(), Blends(document.layers)
        cores = [read_layer(layer, blends, gather, f"layers.{n}") for n, layer in enumerate(document.layers)]
        others = [core for core in cores if core is not None] if all(cores) else []
        piece = piece_row(document.piece)
        row = usual_layer(piece, min(place, len(others)), blend, document.kind or "", others)
        return PlacedLayerOut(layer_document(row), place, own_words(blend.household, row.kind, piece, others[:place]))
    if document.kind is None:
        raise BadInput("kind", "Say which kind of layer this is, or choose a blend.")
    kind = LAYER_KINDS[document.kind]
    of_the_bath = document.kind == "cooking liquid" and not document.grind
    layer = LayerDocument(
        kind=document.kind,
        grind=document.grind,
        dose=""
        if of_the_bath
        else f"{usual_binder_g(plain(document.grind)):g}"
        if document.kind == "binder" and document.grind in catalogue().grinds
        else f"{kind.usual:g}",
        hold="" if kind.hold_s is None else say_duration(kind.hold_s),
        hold_c=90.0 if document.kind == "cooking liquid" else 4.0,
        place="" if kind.hold_s is None or document.kind == "cooking liquid" else "fridge",
        times=4 if document.kind == "spritz" else 3 if document.kind == "baste" else 1,
        vessel="bag" if document.kind == "marinade" else "",
    )
    return PlacedLayerOut(layer, place_for(document.kind, among))


class WayDocument(Schema):
    """A shipped way for a piece; blends already on it, or named here, are taken before others of their kind."""

    way: Key
    piece: PieceDocument
    blend_ids: Annotated[list[UUID], Field(max_length=12)] = Field(default=[])


@router.asks("/coat/way")
def take_way(request: HttpRequest, document: WayDocument) -> PieceDocument:
    """Return a piece with a way's stack on it, without saving anything."""
    layers = stack_of(document.way, document.piece, document.blend_ids)
    target = document.piece.target
    if not target and any(not layer.dose and layer.kind != "drippings" for layer in layers):
        target = Numeral("1.5")
    return document.piece.model_copy(update={"layers": layers, "target": target})


class AimDocument(Schema):
    """Which layer of a piece gives way so that its salt meets the target; `others` are on the board beside it."""

    piece: PieceDocument
    others: Annotated[list[PieceDocument], Field(max_length=8)] = Field(default=[])
    layer: Annotated[int, Field(ge=0, le=11)]


@dataclass(frozen=True, slots=True)
class AimedOut:
    """The layer that gave way; `says` by how much the target is missed, why and what would do it, empty when met."""

    layer: LayerDocument
    says: str


@router.asks("/coat/aim")
def aim(request: HttpRequest, document: AimDocument) -> AimedOut:
    """Return the layer with the dose or hold that meets the piece's target, or comes nearest; nothing is saved."""
    board = [document.piece, *document.others]
    blends = Blends(layers_of(board))
    blends.share(board, "usual")
    (seasoned,) = read_pieces([document.piece], blends, "usual", "piece")
    seasoned = blends.told(seasoned)
    found, says = give_way(seasoned, document.layer, spoon_set())
    before = document.piece.layers[document.layer]
    if found.hold_s != seasoned.layers[document.layer].hold_s:
        return AimedOut(before.model_copy(update={"hold": say_duration(found.hold_s)}), says)
    vessel = "" if before.kind == "marinade" else before.vessel
    return AimedOut(before.model_copy(update={"dose": say(found.dose or 0.0, 3), "vessel": vessel}), says)


class SkinDocument(Schema):
    piece: PieceDocument
    taken: Annotated[list[Letter], Field(max_length=8)] = Field(default=[])


@router.asks("/coat/skin")
def take_skin(request: HttpRequest, document: SkinDocument) -> list[PieceDocument]:
    """Return a piece with its skin off, and the skin as a piece of its own, without saving anything."""
    gather = Gather()
    typed = document.piece
    piece = read_piece(typed, gather, "piece")
    gather.finish()
    assert piece is not None
    skin = skin_piece(piece)
    mass = piece.mass_g - skin.mass_g
    if mass < 1:
        raise BadInput("piece.mass", "The skin alone would weigh that much; check the weight of the piece.")
    kept = typed.model_copy(
        update={
            "faces": {**typed.faces, "skin": "off"},
            "mass": f"{say(mass / 1000, 3)} kg",
            "untrimmed": typed.untrimmed or typed.mass,
        }
    )
    salted = LayerDocument(kind="pre-salt", grind="kosher-dense/flake", dose="1.5", hold="2 h", place="fridge")
    return [
        kept,
        PieceDocument(
            letter=free_letter([*document.taken, typed.letter]), name=f"Skin of {typed.name}"[:40], cut=skin.cut,
            mass=f"{skin.mass_g:.0f} g", surface="dry", faces=cast(dict[str, FaceState], dict(skin.faces)),
            layers=[salted],
        ),
    ]  # fmt: skip


class EatersDocument(Schema):
    """How many eat, with what appetite, of which cut."""

    cut: Key
    eaters: Annotated[int, Field(ge=1, le=500)]
    appetite: Appetite = "usual"
    grade: Literal["lean", "ordinary", "marbled", "dry-aged"] = "ordinary"


@dataclass(frozen=True, slots=True)
class RawWeightOut:
    """The raw weight on the board and the weight to buy for it, each also as it is typed, and what comes off."""

    mass: str
    buy_mass: str
    figure: Figure
    buy: Figure
    trim: Figure
    trims: list[TrimOut]
    times: int


@router.asks("/coat/raw-weight")
def for_eaters(request: HttpRequest, document: EatersDocument) -> RawWeightOut:
    """Say how much raw meat feeds so many."""
    own = own_trims(household(), document.cut)
    found = raw_weight(
        document.cut, document.eaters, PORTION_G[document.appetite], document.grade, own,
        own_yields(household(), document.cut), own_eaten(household()),
    )  # fmt: skip
    trims = [TrimOut(trim.what, trim.share * 100, trim.becomes) for trim in find_cut(document.cut).trims]
    masses = (_kilos(found.trimmed.value), _kilos(found.bought.value))
    return RawWeightOut(*masses, found.trimmed, found.bought, found.trim, trims, len(own))


def _kilos(grams: float) -> str:
    return f"{grams / 1000:.2f} kg" if grams < 10_000 else f"{grams / 1000:.1f} kg"

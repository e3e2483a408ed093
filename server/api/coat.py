"""Coat: pieces, their stacks of layers, what they take and what salt that puts on the meat."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal
from uuid import UUID

from book.cooks import FROZEN, compare, lay_out_steps, take_cut, usual_layer
from book.models import Arm, Blend, Cook, Layer, Piece, Stale, claim_version
from django.db import transaction
from ninja import Router, Schema
from pydantic import AwareDatetime, Field
from ravska_core.catalogue import catalogue
from ravska_core.coat import (
    LAYER_KINDS,
    LAYER_OF_BLEND,
    CoatReading,
    Seasoned,
    give_way,
    place_for,
    plain,
    usual_binder_g,
)
from ravska_core.coat import Layer as CoreLayer
from ravska_core.coat import read_coat as core_read_coat
from ravska_core.meat import PORTION_G, raw_weight, skin_piece
from ravska_core.units import say_duration
from ravska_core.working import BadInput, Figure, say

from api.coat_document import (
    Appetite,
    ArmDocument,
    Arms,
    Blends,
    CoatDocument,
    LayerDocument,
    LayerKindKey,
    PieceDocument,
    layer_document,
    layers_of,
    read_arms,
    read_layer,
    read_piece,
    same_arm,
    typed_arm,
    write_layer,
    write_piece,
)
from api.coat_schools import free_label, piece_row, stack_of
from api.cook_document import CookOut, cook_out, one_cook
from api.documents import ArmReadingOut, arm_reading_out, sends
from api.household import household, spoon_set
from api.problems import ANSWERS, Conflict, Gather, Refused
from api.typed import Key, Name, Version

router = Router(tags=["coat"])


def _read(arms: Sequence[Seasoned], at_s: float | None = None) -> list[CoatReading]:
    gather = Gather()
    spoons = spoon_set()
    readings = [
        gather.attempt(f"arms.{at}", lambda arm=arm: core_read_coat(arm, spoons, at_s=at_s))
        for at, arm in enumerate(arms)
    ]
    gather.finish()
    return readings


@router.post("/coat/read", response={200: list[ArmReadingOut], **ANSWERS})
@sends
def read_coat(request, document: CoatDocument) -> list[ArmReadingOut]:
    """Say what a coat comes to on every arm, without saving anything."""
    arms = read_arms(document.arms, Blends(layers_of(document.arms)), document.appetite)
    return [arm_reading_out(found) for found in _read(arms, document.at_s)]


class NewLayer(Schema):
    """What to put on: a blend or a plain grind, as which kind of layer (as the blend's usual one when empty).

    `layers` are those it goes among, in order.
    """

    piece: PieceDocument
    kind: LayerKindKey | None = None
    blend_id: UUID | None = None
    grind: Key = ""
    layers: Annotated[list[LayerDocument], Field(max_length=12)] = Field(default=[])


@dataclass(frozen=True, slots=True)
class PlacedLayerOut:
    """A layer as it is typed, and the place it usually goes to."""

    layer: LayerDocument
    place: int


def _blend(key: UUID) -> Blend:
    blend = Blend.objects.filter(pk=key, household=household(), deleted_at__isnull=True).first()
    if blend is None:
        raise BadInput("blend_id", "This blend is not in the book any more; choose another.")
    return blend


@router.post("/coat/layer", response={200: PlacedLayerOut, **ANSWERS})
@sends
def new_layer(request, document: NewLayer) -> PlacedLayerOut:
    """Return a layer at its usual dose, hold and place for this blend and cut, without saving anything."""
    among = [layer.kind for layer in document.layers]
    if document.blend_id is not None:
        blend = _blend(document.blend_id)
        place = place_for(document.kind or LAYER_OF_BLEND[blend.kind], among)
        # a layer that cannot be read says so where it stands; it does not keep another from going on
        gather, blends = Gather(), Blends(document.layers)
        cores = [read_layer(layer, blends, gather, f"layers.{n}") for n, layer in enumerate(document.layers)]
        others = [core for core in cores if core is not None] if all(cores) else []
        row = usual_layer(piece_row(document.piece), min(place, len(others)), blend, document.kind or "", others)
        return PlacedLayerOut(layer_document(row), place)
    if document.kind is None:
        raise BadInput("kind", "Say which kind of layer this is, or choose a blend.")
    kind = LAYER_KINDS[document.kind]
    layer = LayerDocument(
        kind=document.kind,
        grind=document.grind,
        dose=f"{usual_binder_g(plain(document.grind)):g}"
        if document.kind == "binder" and document.grind in catalogue().grinds
        else f"{kind.usual:g}",
        hold="" if kind.hold_s is None else say_duration(kind.hold_s),
        hold_c=90.0 if document.kind == "cooking liquid" else 4.0,
        place="" if kind.hold_s is None or document.kind == "cooking liquid" else "fridge",
        times=4 if document.kind == "spritz" else 3 if document.kind == "baste" else 1,
        vessel="bag" if document.kind == "marinade" else "",
    )
    return PlacedLayerOut(layer, place_for(document.kind, among))


class SchoolDocument(Schema):
    """A school's stack for an arm; blends already on it, or named here, are taken before others of their kind."""

    school: Key
    arm: ArmDocument
    blend_ids: Annotated[list[UUID], Field(max_length=12)] = Field(default=[])


@router.post("/coat/school", response={200: ArmDocument, **ANSWERS})
@sends
def take_school(request, document: SchoolDocument) -> ArmDocument:
    """Return an arm with a school's stack on it, without saving anything."""
    layers = stack_of(document.school, document.arm, document.blend_ids)
    target = document.arm.target
    if not target and any(not layer.dose and layer.kind != "drippings" for layer in layers):
        target = "1.5"
    return document.arm.model_copy(update={"layers": layers, "target": target})


class AimDocument(Schema):
    """Which layer of an arm gives way so that its salt meets the target."""

    arm: ArmDocument
    layer: Annotated[int, Field(ge=0, le=11)]


@dataclass(frozen=True, slots=True)
class AimedOut:
    """The layer that gave way; `says` by how much the target is missed, why and what would do it, empty when met."""

    layer: LayerDocument
    says: str


@router.post("/coat/aim", response={200: AimedOut, **ANSWERS})
@sends
def aim(request, document: AimDocument) -> AimedOut:
    """Return the layer with the dose or hold that meets the arm's target, or comes nearest, without saving anything."""
    arms = read_arms([document.arm], Blends(document.arm.layers), "usual")
    found, says = give_way(arms[0], document.layer, spoon_set())
    before = document.arm.layers[document.layer]
    if found.hold_s != arms[0].layers[document.layer].hold_s:
        return AimedOut(before.model_copy(update={"hold": say_duration(found.hold_s)}), says)
    vessel = "" if before.kind == "marinade" else before.vessel
    return AimedOut(before.model_copy(update={"dose": say(found.dose, 3), "vessel": vessel}), says)


class SkinDocument(Schema):
    arm: ArmDocument
    taken: Annotated[list[str], Field(max_length=8)] = Field(default=[])


@router.post("/coat/skin", response={200: list[ArmDocument], **ANSWERS})
@sends
def take_skin(request, document: SkinDocument) -> list[ArmDocument]:
    """Return a piece with its skin off, and the skin as a piece of its own, without saving anything."""
    gather = Gather()
    arm = document.arm
    piece = read_piece(arm.piece, gather, "arm.piece")
    gather.finish()
    assert piece is not None
    skin = skin_piece(piece)
    mass = piece.mass_g - skin.mass_g
    if mass < 1:
        raise BadInput("piece.mass", "The skin alone would weigh that much; check the weight of the piece.")
    kept = arm.piece.model_copy(
        update={
            "faces": {**arm.piece.faces, "skin": "off"},
            "mass": f"{say(mass / 1000, 3)} kg",
            "untrimmed": arm.piece.untrimmed or arm.piece.mass,
        }
    )
    alone = arm.piece.__class__(cut=skin.cut, mass=f"{skin.mass_g:.0f} g", surface="dry", faces=dict(skin.faces))
    salted = LayerDocument(kind="pre-salt", grind="kosher-dense/flake", dose="1.5", hold="2 h", place="fridge")
    return [
        arm.model_copy(update={"piece": kept}),
        ArmDocument(
            label=free_label([*document.taken, arm.label]), name=f"Skin of {arm.name}"[:40], piece=alone,
            layers=[salted], beside=True,
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
    """The raw weight to buy, and as it is typed."""

    mass: str
    figure: Figure


@router.post("/coat/raw-weight", response={200: RawWeightOut, **ANSWERS})
@sends
def for_eaters(request, document: EatersDocument) -> RawWeightOut:
    """Say how much raw meat feeds so many."""
    found = raw_weight(document.cut, document.eaters, PORTION_G[document.appetite], document.grade)
    kilos = found.value / 1000
    return RawWeightOut(f"{kilos:.2f} kg" if kilos < 10 else f"{kilos:.1f} kg", found)


@router.get("/cooks/{uuid:cook_id}", response={200: CookOut, **ANSWERS})
@sends
def get_cook(request, cook_id: UUID) -> CookOut:
    """Return a cook with its arms, steps and readings."""
    return cook_out(one_cook(cook_id))


class CookSave(Schema):
    """A cook as typed. Arms that are not sent are taken off the board; new ones come onto it."""

    name: Name
    serve_at: AwareDatetime
    version: Version
    arms: Arms
    eaters: Annotated[int, Field(ge=1, le=500)] | None = None
    appetite: Appetite = "usual"


def _store_layers(piece: Piece, documents: Sequence[LayerDocument], cores: Sequence[CoreLayer], blends: Blends) -> None:
    before = list(piece.layers.order_by("position"))
    same_kinds = [layer.kind for layer in before] == [document.kind for document in documents]
    if not same_kinds:
        # layers that stay keep their weigh-backs and ticks; the rest goes, and new ones come
        kept: list[Layer | None] = []
        for document in documents:
            row = next((x for x in before if x.kind == document.kind and x.blend_id == document.blend_id), None)
            row = row or next((x for x in before if x.kind == document.kind), None)
            if row is not None:
                before.remove(row)
            kept.append(row)
        for row in before:
            row.delete()
        for at, row in enumerate(kept):  # out of each other's way first
            if row is not None:
                Layer.objects.filter(pk=row.pk).update(position=100 + at)
    else:
        kept = list(before)
    for at, (row, document, core) in enumerate(zip(kept, documents, cores, strict=True)):
        layer = row if row is not None else Layer(piece=piece)
        layer.position = at
        blend, layer.revision = blends.row(document) if document.blend_id else (None, None)
        write_layer(layer, document, core, blend)
        layer.save()
    if not same_kinds:
        lay_out_steps(piece)


def _store(cook: Cook, document: CookSave, cores: Sequence[Seasoned], blends: Blends) -> None:
    trial = cook.trial
    by_label = {arm.label: arm for arm in trial.arms.all()}
    sent = {typed.label for typed in document.arms}
    if trial.is_tasted() and any(hasattr(arm, "sample") and arm.label not in sent for arm in by_label.values()):
        raise BadInput("arms", FROZEN)
    cook.name, cook.serve_at = document.name, document.serve_at
    cook.eaters, cook.appetite = document.eaters, document.appetite
    cook.save(update_fields=["name", "serve_at", "eaters", "appetite"])
    tasted = trial.is_tasted()
    compared, kept = [], set()
    for typed, core in zip(document.arms, cores, strict=True):
        arm = by_label.get(typed.label)
        if arm is not None and tasted and hasattr(arm, "sample"):
            if not same_arm(typed_arm(arm), typed):
                raise BadInput(f"arms.{document.arms.index(typed)}", FROZEN)
        elif arm is None:
            piece = Piece(cook=cook, cut=typed.piece.cut)
            write_piece(piece, typed.piece, core.piece)
            piece.target_percent, piece.target_typed = core.target_percent, typed.target
            piece.save()
            arm = Arm.objects.create(trial=trial, label=typed.label, name=typed.name, piece=piece)
            _store_layers(piece, typed.layers, core.layers, blends)
            lay_out_steps(piece)
        else:
            arm.name = typed.name
            arm.save(update_fields=["name"])
            piece = arm.piece
            if piece.cut != typed.piece.cut:
                take_cut(piece, typed.piece.cut)
            write_piece(piece, typed.piece, core.piece)
            piece.target_percent, piece.target_typed = core.target_percent, typed.target
            piece.save()
            _store_layers(piece, typed.layers, core.layers, blends)
        kept.add(typed.label)
        if not typed.beside:
            compared.append(arm)
    if len(document.arms) > 1 or not tasted:
        compare(trial, compared if len(compared) == 2 else [])
    for label, arm in by_label.items():
        if label not in kept:
            arm.delete()
            arm.piece.delete()


@router.put("/cooks/{uuid:cook_id}", response={200: CookOut, **ANSWERS})
@sends
def save_cook(request, cook_id: UUID, document: CookSave) -> CookOut:
    """Save a cook as typed; 409 with the other version when it was changed meanwhile."""
    if not 2000 <= document.serve_at.year <= 2100:
        raise BadInput("serve_at", "Serve between the years 2000 and 2100.")
    labels = [arm.label for arm in document.arms]
    if len(set(labels)) != len(labels):
        raise Refused([BadInput("arms", "Send every piece of this cook once, each under a letter of its own.")])
    if sum(not arm.beside for arm in document.arms) > 2:
        raise Refused([BadInput("arms", "Two pieces are compared at most; set the others beside them.")])
    blends = Blends(layers_of(document.arms))
    cores = read_arms(document.arms, blends, document.appetite)
    _read(cores)
    try:
        with transaction.atomic():
            cook = one_cook(cook_id)
            claim_version(cook, document.version)
            _store(cook, document, cores, blends)
    except Stale:
        raise Conflict(cook_out(one_cook(cook_id))) from None
    return cook_out(one_cook(cook_id))

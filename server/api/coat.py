"""Coat: pieces, their layers, what they take and what salt that puts on the meat."""

from dataclasses import dataclass
from typing import Annotated, Literal
from uuid import UUID

from book.cooks import lay_out_steps, take_cut, usual_layer
from book.models import Blend, Cook, Layer, Piece, Revision, Stale, claim_version, load_inside
from django.db import transaction
from ninja import Router, Schema
from pydantic import AwareDatetime, Field
from ravska_core import coat, cuts
from ravska_core.composition import read_blend
from ravska_core.quantities import parse_duration_s, parse_length_cm, parse_mass_g, parse_number
from ravska_core.working import BadInput

from api.cook_document import CookOut, cook_out, one_cook
from api.documents import ArmReadingOut, Key, Name, Number, Typed, Version, arm_reading_out, sends
from api.household import household, spoon_set
from api.problems import ANSWERS, Conflict, Gather, Refused

router = Router(tags=["coat"])


class PieceDocument(Schema):
    """A piece as typed. Measures are given all three or not at all."""

    cut: Key
    mass: Typed
    count: Annotated[int, Field(ge=1, le=200)] = 1
    coat_bare_face: bool = False
    length: Typed = ""
    width: Typed = ""
    thickness: Typed = ""


class LayerDocument(Schema):
    """A layer as typed: a rub or marinade of a blend, or salt by weight. `revision` pins what was mixed."""

    kind: Literal["rub", "marinade", "salt"]
    blend_id: UUID | None = None
    revision: Annotated[int, Field(ge=1, le=2**31)] | None = None
    coat: Typed = ""
    surface: Key = ""
    vessel: Key = ""
    grind: Key = ""
    percent: Typed = ""
    hold: Typed = ""
    hold_c: Number = 4.0


class ArmDocument(Schema):
    label: Annotated[str, Field(pattern="^[A-H]$")]
    name: Name
    piece: PieceDocument
    layers: Annotated[list[LayerDocument], Field(max_length=12)]


Arms = Annotated[list[ArmDocument], Field(min_length=1, max_length=8)]


class CoatDocument(Schema):
    arms: Arms


class CookSave(Schema):
    name: Name
    serve_at: AwareDatetime
    version: Version
    arms: Arms


class _Blends:
    """The blends a document names, loaded once."""

    def __init__(self, arms: list[ArmDocument]) -> None:
        keys = {layer.blend_id for arm in arms for layer in arm.layers if layer.blend_id}
        rows = Blend.objects.filter(household=household(), pk__in=keys).with_drafts()
        self.by_key = {row.pk: row for row in rows}
        load_inside(line for row in self.by_key.values() for line in row.draft().lines.all())

    def of(self, layer: LayerDocument) -> tuple[Blend, Revision | None]:
        blend = self.by_key.get(layer.blend_id) if layer.blend_id else None
        if blend is None:
            raise BadInput("blend", "This blend is not in the book any more; choose another.")
        revision = None
        if layer.revision is not None:
            revision = blend.revisions.filter(number=layer.revision).prefetch_related("lines").first()
            if revision is None:
                raise BadInput("blend", "That revision is not in the book; use the blend as it is now.")
        return blend, revision


def _piece(document: PieceDocument, gather: Gather, at: str) -> cuts.Piece | None:
    mass = gather.attempt(at, lambda: parse_mass_g(document.mass, "mass"))
    sizes = {"length": document.length, "width": document.width, "thickness": document.thickness}
    measures = None
    given = {name: text for name, text in sizes.items() if text}
    if given and len(given) < 3:
        for name in sizes.keys() - given.keys():
            gather.refuse(f"{at}.{name}", "Give all three measures, or clear them to go by weight.")
    elif given:
        lengths = [gather.attempt(at, lambda n=name, t=text: parse_length_cm(t, n)) for name, text in sizes.items()]
        if all(length is not None for length in lengths):
            measures = cuts.Measures(*lengths)
    if mass is None:
        return None
    return cuts.Piece(document.cut, mass, document.count, document.coat_bare_face, measures)


def _layer(document: LayerDocument, blends: _Blends, gather: Gather, at: str) -> coat.Layer | None:
    if document.kind == "salt":
        percent = gather.attempt(at, lambda: parse_number(document.percent, "percent", 0.01, 5, "salt in %"))
        return None if percent is None else coat.SaltLayer(document.grind, percent)
    found = gather.attempt(at, lambda: blends.of(document))
    hold = gather.attempt(at, lambda: parse_duration_s(document.hold, "hold"))
    if found is None or hold is None:
        return None
    blend = found[0].as_core(found[1])
    if document.kind == "rub":
        noun = "a coat in g on 100 cm²"
        weight = gather.attempt(at, lambda: parse_number(document.coat, "coat", 0.2, 40, noun))
        return None if weight is None else coat.RubLayer(blend, weight, document.surface, hold, document.hold_c)
    return coat.MarinadeLayer(blend, document.vessel, hold, document.hold_c)


def _core_arms(arms: list[ArmDocument], blends: _Blends) -> list[coat.Arm]:
    """Read every arm as typed; all fields that cannot be read are named together."""
    gather = Gather()
    found = []
    for at, arm in enumerate(arms):
        piece = _piece(arm.piece, gather, f"arms.{at}.piece")
        layers = [_layer(layer, blends, gather, f"arms.{at}.layers.{n}") for n, layer in enumerate(arm.layers)]
        kinds = [layer.kind for layer in arm.layers]
        if len(kinds) != len(set(kinds)) or {"rub", "marinade"} <= set(kinds):
            gather.refuse(f"arms.{at}.layers", "An arm takes one rub or one marinade so far, and salt once beside it.")
        elif kinds == ["salt", "marinade"]:
            sentence = "Salt before a bath is washed off again; put it after the marinade."
            gather.refuse(f"arms.{at}.layers", sentence)
        if piece is not None and all(layer is not None for layer in layers):
            found.append(coat.Arm(arm.label, piece, tuple(layers)))  # type: ignore[arg-type]
    gather.finish()
    return found


def _read(arms: list[coat.Arm]) -> list[coat.ArmReading]:
    gather = Gather()
    spoons = spoon_set()
    readings = [gather.attempt(f"arms.{at}", lambda arm=arm: coat.read_arm(arm, spoons)) for at, arm in enumerate(arms)]
    gather.finish()
    return readings


@router.post("/coat/read", response={200: list[ArmReadingOut], **ANSWERS})
@sends
def read_coat(request, document: CoatDocument) -> list[ArmReadingOut]:
    """Say what a coat comes to on every arm, without saving anything."""
    return [arm_reading_out(found) for found in _read(_core_arms(document.arms, _Blends(document.arms)))]


class ChoiceDocument(Schema):
    """Another blend for an arm, with its cut and its layers as they are typed."""

    blend_id: UUID
    cut: Key
    layers: Annotated[list[LayerDocument], Field(max_length=12)]


@router.post("/coat/choose", response={200: list[LayerDocument], **ANSWERS})
@sends
def choose_blend(request, document: ChoiceDocument) -> list[LayerDocument]:
    """Return an arm's layers with another blend on it, without saving anything.

    A layer of the same kind keeps its dose and hold; a new one begins as usual for this blend and cut.
    Salt stands after a bath, which would wash it off, and before a rub.
    """
    blend = Blend.objects.filter(pk=document.blend_id, household=household(), deleted_at__isnull=True).first()
    if blend is None:
        raise BadInput("blend_id", "This blend is not in the book any more; choose another.")
    usual = usual_layer(Piece(cut=document.cut), 0, blend)
    before = next((layer for layer in document.layers if layer.kind == usual.kind), None)
    if before is not None:
        chosen = before.model_copy(update={"blend_id": blend.id, "revision": None})
    else:
        chosen = LayerDocument(
            kind=usual.kind,
            blend_id=blend.id,
            coat="" if usual.coat_g_100cm2 is None else f"{usual.coat_g_100cm2:g}",
            surface=usual.surface,
            vessel=usual.vessel,
            hold=usual.hold_typed,
        )
    salt = [layer for layer in document.layers if layer.kind == "salt"]
    return [chosen, *salt] if usual.kind == "marinade" else [*salt, chosen]


@router.get("/cooks/{uuid:cook_id}", response={200: CookOut, **ANSWERS})
@sends
def get_cook(request, cook_id: UUID) -> CookOut:
    """Return a cook with its arms, steps and readings."""
    return cook_out(one_cook(cook_id))


def _store_layers(piece, documents: list[LayerDocument], cores: list[coat.Layer], blends: _Blends) -> None:
    before = list(piece.layers.order_by("position"))
    same_kinds = [layer.kind for layer in before] == [document.kind for document in documents]
    if not same_kinds:
        piece.layers.all().delete()
        before = [Layer(piece=piece, position=at, kind=d.kind) for at, d in enumerate(documents)]
    for row, document, core in zip(before, documents, cores, strict=True):
        if document.kind == "salt":
            row.grind, row.percent = document.grind, core.percent  # type: ignore[union-attr]
        else:
            row.blend, row.revision = blends.of(document)
            row.hold_s, row.hold_typed, row.hold_c = core.hold_s, document.hold, document.hold_c  # type: ignore[union-attr]
            row.coat_g_100cm2 = core.coat_g_100cm2 if isinstance(core, coat.RubLayer) else None
            row.surface = document.surface if document.kind == "rub" else ""
            row.vessel = document.vessel if document.kind == "marinade" else ""
        row.save()
    if not same_kinds:
        lay_out_steps(piece)


def _store(cook: Cook, document: CookSave, cores: list[coat.Arm], blends: _Blends) -> None:
    by_label = {arm.label: arm for arm in cook.trial.arms.all()}
    cook.name, cook.serve_at = document.name, document.serve_at
    cook.save(update_fields=["name", "serve_at"])
    for typed, core in zip(document.arms, cores, strict=True):
        arm = by_label[typed.label]
        arm.name = typed.name
        arm.save(update_fields=["name"])
        piece = arm.piece
        if piece.cut != typed.piece.cut:
            take_cut(piece, typed.piece.cut)
        piece.mass_g, piece.mass_typed = core.piece.mass_g, typed.piece.mass
        piece.count, piece.coat_bare_face = typed.piece.count, typed.piece.coat_bare_face
        piece.length_typed, piece.width_typed = typed.piece.length, typed.piece.width
        piece.thickness_typed = typed.piece.thickness
        measures = core.piece.measures
        piece.length_cm = measures.length_cm if measures else None
        piece.width_cm = measures.width_cm if measures else None
        piece.thickness_cm = measures.thickness_cm if measures else None
        piece.save()
        _store_layers(piece, typed.layers, list(core.layers), blends)


@router.put("/cooks/{uuid:cook_id}", response={200: CookOut, **ANSWERS})
@sends
def save_cook(request, cook_id: UUID, document: CookSave) -> CookOut:
    """Save a cook as typed; 409 with the other version when it was changed meanwhile."""
    if not 2000 <= document.serve_at.year <= 2100:
        raise BadInput("serve_at", "Serve between the years 2000 and 2100.")
    blends = _Blends(document.arms)
    cores = _core_arms(document.arms, blends)
    _read(cores)
    try:
        with transaction.atomic():
            cook = one_cook(cook_id)
            labels = [arm.label for arm in document.arms]
            if sorted(labels) != [arm.label for arm in cook.trial.arms.all()]:
                raise Refused([BadInput("arms", "Send every arm of this cook, each once.")])
            claim_version(cook, document.version)
            _store(cook, document, cores, blends)
    except Stale:
        raise Conflict(cook_out(one_cook(cook_id))) from None
    return cook_out(one_cook(cook_id))


class BatchDocument(Schema):
    """Which blend to size to what this cook takes of it."""

    blend_id: UUID


@dataclass(frozen=True, slots=True)
class SizedBatchOut:
    blend_id: UUID
    batch: str
    batch_g: float


@router.post("/cooks/{uuid:cook_id}/batch", response={200: SizedBatchOut, **ANSWERS})
@sends
def size_batch(request, cook_id: UUID, document: BatchDocument) -> SizedBatchOut:
    """Set a blend's batch to what all pieces of this cook take of it."""
    with transaction.atomic():
        cook = one_cook(cook_id)
        spoons = spoon_set()
        total = 0.0
        for arm in cook.trial.arms.all():
            layers = list(arm.piece.layers.all())
            if not any(layer.blend_id == document.blend_id for layer in layers):
                continue
            reading = coat.read_arm(arm.as_core(), spoons)
            total += sum(
                found.dose_g
                for layer, found in zip(layers, reading.layers, strict=True)
                if layer.blend_id == document.blend_id
            )
        blend = Blend.objects.filter(pk=document.blend_id, household=household(), deleted_at__isnull=True).first()
        if blend is None or total <= 0:
            raise BadInput("blend_id", "No piece of this cook is seasoned with that blend; choose one that is.")
        claim_version(blend, blend.version)
        load_inside(blend.draft().lines.all())
        # what is simmered down takes more than comes out of it
        finished = read_blend(blend.as_core())
        blend.batch_g = coat.batch_for_dose_g(total * finished.batch.value / finished.finished.value)
        blend.batch_typed = f"{blend.batch_g:g} g"
        blend.save(update_fields=["batch_g", "batch_typed"])
    return SizedBatchOut(blend_id=blend.id, batch=blend.batch_typed, batch_g=blend.batch_g)

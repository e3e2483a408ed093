"""What a coat's injection and binder need beside the reading: sites off the bone, a liquid as salty as wanted."""

from contextlib import suppress
from dataclasses import dataclass
from typing import Annotated
from uuid import UUID

from book.models import Blend
from django.db import transaction
from django.http import HttpRequest
from ninja import Schema
from pydantic import Field
from ravska_core.coat import (
    INJECTIONS,
    LAYER_KINDS,
    MOST_SITES,
    Binder,
    Bound,
    Seasoned,
    bind_at,
    binders_for,
    face_of,
    lay_sites,
    off_the_bone,
    plain_binders,
    read_coat,
    spread_sites,
)
from ravska_core.meat import read_piece
from ravska_core.working import BadInput, Figure, say

from api.blends.documents import BlendDocument, LineDocument
from api.blends.reading import read_document
from api.blends.store import begin_blend
from api.cooks.documents import Appetite, Blends, LayerDocument, Letter, PieceDocument, read_pieces
from api.cooks.store import one_cook, piece_of
from api.plumbing.answers import Created, Router, with_more
from api.plumbing.household import household, spoon_set
from api.plumbing.typed import Key

router = Router()

Place = Annotated[int, Field(ge=0, le=11)]


class LayerOfPiece(Schema):
    """A piece, and the place of one of its layers."""

    piece: PieceDocument
    layer: Place


def _injection(document: LayerOfPiece) -> tuple[Seasoned, LayerDocument]:
    layers = document.piece.layers
    if document.layer >= len(layers) or layers[document.layer].kind not in INJECTIONS:
        raise BadInput("layer", "That layer is no injection; open the injection's own sites.")
    return read_pieces([document.piece], Blends(layers), "usual", "piece")[0], layers[document.layer]


class SitesAsked(LayerOfPiece):
    """How many sites each piece is to have, spread evenly; none moves those off the bone that there are."""

    count: Annotated[int, Field(ge=1, le=MOST_SITES)] | None = None


@router.asks("/coat/sites")
def lay_out(request: HttpRequest, document: SitesAsked) -> LayerDocument:
    """Return an injection with so many sites as asked; or with those moved that no needle can go in at."""
    seasoned, typed = _injection(document)
    piece = read_piece(seasoned.piece)
    face = face_of(piece.solid, piece.bones)
    plan = seasoned.layers[document.layer].injection
    if document.count is None:
        sites = off_the_bone(face, plan.sites or lay_sites(face, plan.spacing_cm, plan.grid))
    else:
        sites = spread_sites(face, document.count)
    injection = typed.injection.model_copy(update={"sites": [[x, y] for x, y in sites]})
    return typed.model_copy(update={"injection": injection})


class StrengthDocument(Schema):
    """Which injection of which piece is to be made as salty as it is wanted."""

    letter: Letter
    layer: Place


@dataclass(frozen=True, slots=True)
class MadeOut:
    blend_id: UUID
    name: str


@router.posts("/{uuid:cook_id}/strength")
def make_strength(request: HttpRequest, cook_id: UUID, document: StrengthDocument) -> Created[MadeOut]:
    """Make a blend of an injection's own blend with the salt or water that makes it as salty as wanted."""
    cook = one_cook(cook_id)
    piece = piece_of(cook, document.letter)
    layers = list(piece.layers.all())
    if document.layer >= len(layers):
        raise BadInput("layer", "That layer is not on the board any more.")
    reading = read_coat(piece.seasoned(cook.appetite), spoon_set(), cored=False).layers[document.layer].injection
    blend = layers[document.layer].blend
    if reading is None or reading.strength is None or blend is None:
        raise BadInput("wants", "Say first how much salt this injection is to bring.")
    strength = reading.strength
    if strength.add_g <= 0:
        raise BadInput("wants", "The blend is as salty as that already.")
    name = f"{blend.name}, {strength.needed.value:.1f} % salt"
    lines = [
        LineDocument(blend=blend.pk, parts=say(max(strength.of_g, 0.001), 4), basis="scale"),
        LineDocument(grind=strength.grind, parts=say(strength.add_g, 3), basis="scale"),
    ]
    batch = f"{strength.of_g + strength.add_g:.0f} g"
    typed = read_document(BlendDocument(name=name[:80], kind="injection", batch=batch, lines=lines))
    with transaction.atomic():
        row = begin_blend(typed)
    return Created(MadeOut(row.pk, row.name))


class BindersDocument(Schema):
    piece: PieceDocument
    appetite: Appetite = "usual"


@dataclass(frozen=True, kw_only=True)
class BinderOut(Bound):
    """What one binder does for the coat; `layers` is the stack with it, `grind` and `name` say what it is."""

    name: str
    grind: str
    layers: list[LayerDocument]


@dataclass(frozen=True, slots=True)
class BindersOut:
    """What the coat needs to stick, and every choice; `least` is the place of the first that holds all of it."""

    needs: Figure
    choices: list[BinderOut]
    least: int | None
    says: str


@router.asks("/coat/binders")
def binder_or_none(request: HttpRequest, document: BindersDocument) -> BindersOut:
    """Say what every binder, plain or of the book, and none, does for the coat of a piece, without saving anything."""
    (seasoned,) = read_pieces([document.piece], Blends(document.piece.layers), document.appetite, "piece")
    rows = list(
        Blend.objects.filter(household=household(), kind="binder", deleted_at__isnull=True, archived_at__isnull=True)
        .with_drafts()
    )  # fmt: skip
    usual = LAYER_KINDS["binder"].usual
    own = [row for row in rows if row.draft().lines.all()][:6]
    tried = list(plain_binders())
    for row in own:
        with suppress(BadInput):  # what cannot be read is no choice
            tried.append(Binder(str(row.pk), row.as_core(), usual))
    found = binders_for(seasoned, tried, spoon_set())
    names: dict[Key, str] = {str(row.pk): row.name for row in own}
    doses = {binder.key: binder.dose for binder in tried}
    binders, place = bind_at(seasoned.layers)
    bare = [layer for at, layer in enumerate(document.piece.layers) if at not in binders]
    choices = []
    for one in found.choices:
        stack, grind = list(bare), ""
        if one.key != "none":
            grind = "" if one.key in names else one.key
            blend_id = UUID(one.key) if one.key in names else None
            stack.insert(
                place, LayerDocument(kind="binder", dose=f"{doses[one.key]:g}", grind=grind, blend_id=blend_id)
            )
        choices.append(with_more(BinderOut, one, name=names.get(one.key, ""), grind=grind, layers=stack))
    return BindersOut(found.needs, choices, found.least, found.says)

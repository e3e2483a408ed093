"""A way's stack for a piece, with the blends at hand: for one, for a pair, or side by side; and own ways, kept."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated
from uuid import UUID

from book.cooks import unweighed
from book.layers import begin_usual, layer_of_slot, usual_hold_s
from book.models import LETTERS, Blend, Layer, Piece, Way, WayLayer
from django.db import transaction
from django.db.models import QuerySet
from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Schema
from pydantic import Field
from ravska_core.coat import MOST_LAYERS, WAYS
from ravska_core.units import say_duration
from ravska_core.working import BadInput

from api.cooks.documents import (
    Blends,
    LayerDocument,
    MeatDocument,
    PieceDocument,
    layer_document,
    read_layer,
    read_piece,
    write_layer,
    write_piece,
)
from api.plumbing.answers import Created, Router
from api.plumbing.household import household
from api.plumbing.lists import NEVER, SPOILED, each_shown, rows_of
from api.plumbing.problems import Gather
from api.plumbing.typed import Name


def piece_row(document: MeatDocument) -> Piece:
    """Return a piece as typed as a row that is not saved; one whose typing cannot be read stands for its cut alone."""
    row = Piece(cut=document.cut)
    core = read_piece(document, Gather(), "piece")
    if core is not None:
        write_piece(row, document, core)
    return row


def at_hand(piece: PieceDocument, blend_ids: Sequence[UUID]) -> dict[str, Blend]:
    """Return a blend of each kind: those named first, then those on the piece, then the one worked on last."""
    rows = list(Blend.objects.filter(household=household(), deleted_at__isnull=True, archived_at__isnull=True)
                .order_by("-created_at"))  # fmt: skip
    wanted = [*blend_ids, *(layer.blend_id for layer in piece.layers if layer.blend_id)]
    ranked = sorted(rows, key=lambda row: wanted.index(row.pk) if row.pk in wanted else len(wanted))
    found: dict[str, Blend] = {}
    for row in ranked:
        found.setdefault(row.kind, row)
    return found


def stack_of(
    way: str, piece: PieceDocument, blend_ids: Sequence[UUID], known_blends: Mapping[str, Blend] | None = None
) -> list[LayerDocument]:
    """Return the layers of a shipped way for a piece; `known_blends` saves looking up what is `at_hand`.

    Raises
    ------
    BadInput
        At ``way`` when there is no such way, or the book has no blend it needs.
    """
    known = WAYS.get(way)
    if known is None:
        raise BadInput("way", f"A way is one of {', '.join(WAYS)}.")
    blends = at_hand(piece, blend_ids) if known_blends is None else known_blends
    meat = piece_row(piece)
    rows = [layer_of_slot(slot, at, blends) for at, slot in enumerate(known.slots)]
    for row in rows:
        if row.kind == "marinade" and row.blend is not None:
            row.hold_s = usual_hold_s("marinade", row.blend, meat)
            row.hold_typed = say_duration(row.hold_s or 0.0)
    for at, row in enumerate(rows):
        # a way's coat is for a joint; on thin pieces, racks and birds it begins lighter
        begin_usual(row, meat, [x.as_core() for x in rows[:at]], [x.as_core() for x in rows[at + 1 :]])
    return [layer_document(row) for row in rows]


def free_letter(taken: Sequence[str]) -> str:
    """Return the first letter that no piece has; refuse a ninth piece at ``pieces``."""
    free = next((letter for letter in LETTERS if letter not in taken), None)
    if free is None:
        raise BadInput("pieces", "A cook has at most eight pieces; remove one first.")
    return free


router = Router()


@dataclass(frozen=True, slots=True)
class WayOut:
    """A way of the household's own; `names` says what each layer is of, empty where its blend was deleted.

    `problem` says that it cannot be read, else empty.
    """

    id: UUID
    name: str
    made_at: datetime
    layers: list[LayerDocument]
    names: list[str]
    problem: str = ""


class KeptWayDocument(Schema):
    name: Name
    layers: Annotated[list[LayerDocument], Field(min_length=1, max_length=MOST_LAYERS)]


@dataclass(frozen=True, slots=True)
class StackOut:
    """The stack of a piece of another cook, as one that nothing was mixed or weighed of yet."""

    letter: str
    name: str
    layers: list[LayerDocument]


@router.reads("/{uuid:cook_id}/stacks")
def read_stacks(request: HttpRequest, cook_id: UUID) -> list[StackOut]:
    """Return the stacks of a cook's pieces, to be put on a piece of another."""
    pieces = Piece.objects.filter(cook=cook_id, cook__household=household(), cook__deleted_at__isnull=True)
    return [
        StackOut(piece.letter, piece.name, [_afresh(layer) for layer in piece.layers.all()])
        for piece in pieces.prefetch_related("layers__blend").order_by("position")
        if piece.layers.all()
    ]


def _afresh(layer: Layer) -> LayerDocument:
    """Return a layer as typed that follows its blend as it is now, with nothing of it mixed or weighed."""
    layer.revision = layer.mixed_g = None
    for column, value in unweighed(layer).items():
        setattr(layer, column, value)
    return layer_document(layer)


def _own_ways() -> QuerySet[Way]:
    return Way.objects.filter(household=household(), deleted_at__isnull=True).prefetch_related("layers__blend")


def _way_out(way: Way) -> WayOut:
    layers, names = [], []
    for row in way.layers.all():
        deleted = row.blend is not None and row.blend.deleted_at is not None
        document = layer_document(row)
        layers.append(document.model_copy(update={"blend_id": None}) if deleted else document)
        names.append("" if deleted else row.blend.name if row.blend else row.grind)
    return WayOut(way.pk, way.name, way.made_at, layers, names)


def _ways_out() -> list[WayOut]:
    ways, lost = rows_of(_own_ways())
    found = each_shown(ways, _way_out, lambda way: WayOut(way.pk, way.name, way.made_at or NEVER, [], [], SPOILED))
    return [*found, *(WayOut(key, Way.objects.values_list("name", flat=True).get(pk=key), NEVER, [], [], SPOILED)
                      for key in lost)]  # fmt: skip


@router.reads("/ways")
def list_own_ways(request: HttpRequest) -> list[WayOut]:
    """Return the own ways."""
    return _ways_out()


@router.posts("/ways")
def keep_way(request: HttpRequest, document: KeptWayDocument) -> Created[WayOut]:
    """Keep the layers of a piece under a name, to copy onto others; doses are by surface and weight, so they scale."""
    blends = Blends(document.layers)
    gather = Gather()
    cores = [read_layer(layer, blends, gather, f"layers.{at}") for at, layer in enumerate(document.layers)]
    gather.finish()
    with transaction.atomic():
        way = Way.objects.create(household=household(), name=document.name)
        for at, (layer, core) in enumerate(zip(document.layers, cores, strict=True)):
            assert core is not None
            row = WayLayer(way=way, position=at)
            write_layer(row, layer, core, blends)
            row.save()
    return Created(_way_out(Way.objects.prefetch_related("layers__blend").get(pk=way.pk)))


@router.posts("/ways/{uuid:way_id}/delete")
def delete_way(request: HttpRequest, way_id: UUID) -> list[WayOut]:
    """Take a way off the list; `restore` brings it back."""
    if not Way.objects.filter(pk=way_id, household=household()).update(deleted_at=timezone.now()):
        raise Http404
    return _ways_out()


@router.posts("/ways/{uuid:way_id}/restore")
def restore_way(request: HttpRequest, way_id: UUID) -> list[WayOut]:
    """Undo a delete."""
    if not Way.objects.filter(pk=way_id, household=household()).update(deleted_at=None):
        raise Http404
    return _ways_out()

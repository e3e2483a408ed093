"""Who eats: tasters of the household and guests by nickname, what they avoid, and what of a cook leaves them out."""

from dataclasses import dataclass
from typing import Annotated, cast
from uuid import UUID

from book.models import Cook, Seat, Stale, Taster, claim_version
from django.db import transaction
from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Schema
from pydantic import AfterValidator, Field
from ravska_core.blend import read_blend
from ravska_core.day import AVOIDS, Eater, LeftOut, leaves_out, portions
from ravska_core.meat import find_cut
from ravska_core.working import BadInput

from api.cooks.documents import Appetite
from api.cooks.store import one_cook
from api.plumbing.answers import Created, Router
from api.plumbing.household import household, spoon_set
from api.plumbing.problems import Conflict
from api.plumbing.typed import Version, printable

router = Router()

Nickname = Annotated[str, Field(max_length=40), AfterValidator(printable)]
Avoided = Annotated[str, Field(max_length=40), AfterValidator(printable)]


class TasterDocument(Schema):
    """Somebody at the table: a nickname, of the household or a `guest`, what they avoid, how much they eat."""

    nickname: Nickname
    guest: bool = False
    avoids: Annotated[list[Avoided], Field(max_length=24)] = Field(default=[])
    appetite: Appetite = "usual"


class TasterSave(TasterDocument):
    version: Version


@dataclass(frozen=True, slots=True)
class TasterOut:
    """Somebody at the table as the book has them."""

    id: UUID
    version: int
    nickname: str
    guest: bool
    avoids: list[str]
    appetite: Appetite


@dataclass(frozen=True, slots=True)
class EatersOut:
    """Who eats at a cook: everybody, who of them has a seat, whom what leaves out, how many usual portions they eat.

    `avoids` are the words that are checked; `unread` are the letters of pieces that nothing can be said of.
    """

    id: UUID
    version: int
    tasters: list[TasterOut]
    seats: list[UUID]
    left_out: list[LeftOut]
    unread: list[str]
    portions: float
    avoids: tuple[str, ...]


def _taster_out(row: Taster) -> TasterOut:
    return TasterOut(row.pk, row.version, row.nickname, row.guest, row.avoids, cast(Appetite, row.appetite))


def eater_of(row: Taster) -> Eater:
    """Return somebody of the book as the core takes them."""
    return Eater(row.nickname, tuple(row.avoids), row.appetite)


def _table(cook_id: UUID) -> EatersOut:
    cook = one_cook(cook_id)
    everybody = list(Taster.objects.filter(household=cook.household, deleted_at__isnull=True))
    seated = set(cook.seats.values_list("taster_id", flat=True))
    eaters = [eater_of(row) for row in everybody if row.pk in seated]
    excluded, unread = left_out(cook, eaters)
    seats = [row.pk for row in everybody if row.pk in seated]
    tasters = [_taster_out(row) for row in everybody]
    return EatersOut(cook.pk, cook.version, tasters, seats, excluded, unread, portions(eaters), AVOIDS)


def left_out(cook: Cook, eaters: list[Eater]) -> tuple[list[LeftOut], list[str]]:
    """Return whom what of a cook leaves out, and the letters of pieces that nothing can be said of."""
    found, unread, spoons = list[LeftOut](), list[str](), spoon_set()
    for piece in cook.pieces.all():
        try:
            layers = piece.seasoned(cook.appetite).layers
            blends = [read_blend(layer.blend, spoons) for layer in layers if layer.blend is not None]
            cut = find_cut(piece.cut)
        except BadInput:
            unread.append(piece.letter)
            continue
        for eater in eaters:
            one = leaves_out(eater, piece.letter, cut, blends)
            if one is not None:
                found.append(one)
    return found, unread


@router.reads("/{uuid:cook_id}/table")
def read_table(request: HttpRequest, cook_id: UUID) -> EatersOut:
    """Return who eats at a cook, and what of it leaves whom out."""
    return _table(cook_id)


class SeatsDocument(Schema):
    """Who has a seat at a cook."""

    version: Version
    seats: Annotated[list[UUID], Field(max_length=200)]


@router.puts("/{uuid:cook_id}/table")
def save_table(request: HttpRequest, cook_id: UUID, document: SeatsDocument) -> EatersOut:
    """Seat these at a cook, and nobody else; meat is then bought for what they eat."""
    try:
        with transaction.atomic():
            cook = one_cook(cook_id)
            claim_version(cook, document.version)
            wanted = set(document.seats)
            there = set(
                Taster.objects.filter(household=cook.household, pk__in=wanted, deleted_at__isnull=True).values_list(
                    "pk", flat=True
                )
            )
            if wanted - there:
                raise BadInput("seats", "Somebody of them is not in the book any more; choose again.")
            cook.seats.exclude(taster_id__in=wanted).delete()
            seated = set(cook.seats.values_list("taster_id", flat=True))
            Seat.objects.bulk_create(Seat(cook=cook, taster_id=key) for key in wanted - seated)
            if wanted:
                cook.eaters = len(wanted)
                cook.save(update_fields=["eaters"])
    except Stale:
        raise Conflict(_table(cook_id)) from None
    return _table(cook_id)


def _checked(document: TasterDocument, besides: UUID | None = None) -> dict[str, object]:
    """Return what is kept of somebody.

    Raises
    ------
    BadInput
        At ``nickname``.
    """
    if not document.nickname:
        raise BadInput("nickname", "Give them a nickname.")
    same = Taster.objects.filter(household=household(), nickname__iexact=document.nickname, deleted_at__isnull=True)
    if any(row.pk != besides for row in same):
        raise BadInput("nickname", "Somebody has this nickname already; choose another.")
    avoids = [word for word in dict.fromkeys(word.strip().lower() for word in document.avoids) if word]
    return {
        "nickname": document.nickname, "guest": document.guest, "avoids": avoids, "appetite": document.appetite,
    }  # fmt: skip


@router.reads("/tasters")
def list_tasters(request: HttpRequest) -> list[TasterOut]:
    """Return everybody who eats with this household."""
    return [_taster_out(row) for row in Taster.objects.filter(household=household(), deleted_at__isnull=True)]


@router.posts("/tasters")
def make_taster(request: HttpRequest, document: TasterDocument) -> Created[TasterOut]:
    """Keep somebody who eats with this household; one who was taken out of the book comes back under their nickname."""
    with transaction.atomic():
        kept = _checked(document)
        row = Taster.objects.filter(household=household(), nickname__iexact=document.nickname).first()
        if row is None:
            row = Taster(household=household())
        for field, value in kept.items():
            setattr(row, field, value)
        row.deleted_at = None
        row.save()
    return Created(_taster_out(row))


def _one_taster(taster_id: UUID) -> Taster:
    row = Taster.objects.filter(pk=taster_id, household=household()).first()
    if row is None:
        raise Http404
    return row


@router.puts("/tasters/{uuid:taster_id}")
def save_taster(request: HttpRequest, taster_id: UUID, document: TasterSave) -> TasterOut:
    """Save what is known of somebody; 409 with what is there when it was changed meanwhile."""
    try:
        with transaction.atomic():
            row = _one_taster(taster_id)
            kept = _checked(document, row.pk)
            claim_version(row, document.version)
            for field, value in kept.items():
                setattr(row, field, value)
            row.save(update_fields=list(kept))
    except Stale:
        raise Conflict(_taster_out(_one_taster(taster_id))) from None
    return _taster_out(row)


@router.posts("/tasters/{uuid:taster_id}/delete")
def remove_taster(request: HttpRequest, taster_id: UUID) -> TasterOut:
    """Take somebody out of those who are offered; their cards stay."""
    return _shelved(taster_id, out=True)


@router.posts("/tasters/{uuid:taster_id}/restore")
def restore_taster(request: HttpRequest, taster_id: UUID) -> TasterOut:
    """Bring somebody back who was taken out."""
    return _shelved(taster_id, out=False)


def _shelved(taster_id: UUID, out: bool) -> TasterOut:
    with transaction.atomic():
        row = _one_taster(taster_id)
        row.deleted_at = timezone.now() if out else None
        row.save(update_fields=["deleted_at"])
    return _taster_out(row)

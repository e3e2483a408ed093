"""Blend: begin, list, save and put away mixtures by ratio."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from book.mixtures import load_mixtures
from book.models import Blend, Layer, Revision
from django.db import transaction
from django.db.models import Count, F, OuterRef, Q, QuerySet, Subquery
from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Schema
from ravska_core.blend import LOWEST_BATCH_G, flatten, read_salt
from ravska_core.working import BadInput, Figure

from api.blends.documents import BlendDocument, LineDocument
from api.blends.reading import read_document
from api.blends.readings import reading_of
from api.blends.store import BlendOut, TypedBlendOut, begin_blend, blend_out, claimed, one_blend, write_blend, writing
from api.plumbing.answers import Created, Router
from api.plumbing.household import household
from api.plumbing.lists import SPOILED, each_shown, rows_of
from api.plumbing.typed import Version
from api.plumbing.versions import VersionDocument

router = Router()


class BlendSave(BlendDocument):
    """A blend as typed. `version` is the one it was read at; without it nothing is overwritten."""

    version: Version


class ArchiveDocument(Schema):
    version: Version
    archived: bool


@dataclass(frozen=True, slots=True)
class BlendRow:
    """A blend in a list; `last_cook` is when it was served last, or will be; `problem` says that it cannot be read."""

    id: UUID
    version: int
    name: str
    kind: str
    lines: int
    grinds: list[str]
    shares: list[float]
    salt: Figure | None
    archived: bool
    kept: int
    branch_of: str
    last_cook: datetime | None = None
    problem: str = ""


def _rows() -> QuerySet[Blend]:
    kept = Count("revisions", filter=Q(revisions__kept_at__isnull=False))
    # where a branch left: its first revision or draft goes on from one of another blend
    left = Revision.objects.filter(blend=OuterRef("pk"), parent__isnull=False).exclude(parent__blend=OuterRef("pk"))
    branch_of = Subquery(left.values("parent__blend__name")[:1])
    on = Layer.objects.filter(blend=OuterRef("pk"), piece__cook__deleted_at__isnull=True)
    last_cook = Subquery(on.order_by("-piece__cook__serve_at").values("piece__cook__serve_at")[:1])
    mine = Blend.objects.filter(household=household())
    rows = mine.annotate(kept=kept, branch_of=branch_of, last_cook=last_cook)  # type: ignore[no-redef]  # the model says that they are there
    return rows.order_by("created_at", "name")


@router.reads("")
def list_blends(request: HttpRequest) -> list[BlendRow]:
    """Return the household's blends with what their strips are drawn from."""
    found, lost = rows_of(_rows().filter(deleted_at__isnull=True))
    load_mixtures(found)
    return [*each_shown(found, _row, _spoiled), *(_lost(key) for key in lost)]


def _row(blend: Blend) -> BlendRow:
    leaves: dict[str, float] = {}
    salt = None
    try:
        mixture = blend.as_core()
        if mixture.lines:
            leaves = flatten(mixture.lines)
            salt = read_salt(mixture)
    except BadInput:
        pass  # opened, the blend says which line is at fault
    return BlendRow(
        id=blend.id,
        version=blend.version,
        name=blend.name,
        kind=blend.kind,
        lines=len(blend.draft().lines.all()),
        grinds=list(leaves),
        shares=list(leaves.values()),
        salt=salt,
        archived=blend.archived_at is not None,
        kept=blend.kept,
        branch_of=blend.branch_of or "",
        last_cook=blend.last_cook,
    )


def _spoiled(blend: Blend) -> BlendRow:
    return BlendRow(blend.id, blend.version, blend.name, blend.kind, 0, [], [], None, False, 0, "", None, SPOILED)


def _lost(key: UUID) -> BlendRow:
    name, version = Blend.objects.values_list("name", "version").get(pk=key)
    return BlendRow(key, version, name, "", 0, [], [], None, False, 0, "", None, SPOILED)


@router.posts("")
def create_blend(request: HttpRequest, document: BlendDocument) -> Created[BlendOut]:
    """Start a blend; it may be empty."""
    typed = read_document(document)
    with transaction.atomic():
        row = begin_blend(typed)
    return Created(blend_out(one_blend(row.id)))


@router.reads("/{uuid:blend_id}")
def get_blend(request: HttpRequest, blend_id: UUID) -> BlendOut:
    """Return one blend with its reading."""
    return blend_out(one_blend(blend_id))


@router.puts("/{uuid:blend_id}")
def save_blend(request: HttpRequest, blend_id: UUID, document: BlendSave) -> TypedBlendOut:
    """Save the working draft as typed; 409 with the other version when it was changed meanwhile."""
    with writing(blend_id, document.version) as row:
        # read inside the transaction: two blends put into each other at once would make a circle
        return write_blend(row, row.draft(), read_document(document, blend_id))


@router.posts("/{uuid:blend_id}/sieve")
def keep_sieve(request: HttpRequest, blend_id: UUID) -> Created[BlendOut]:
    """Make a blend of what the sieve holds back of another, to go into the pot or into one more."""
    row = one_blend(blend_id)
    reading = reading_of(row.as_core())
    if reading.held_g < LOWEST_BATCH_G:
        raise BadInput("method", "This blend is not strained, or hardly anything stays in the sieve.")
    line = LineDocument(blend=row.pk, parts="1", basis="scale", held=True)
    document = BlendDocument(
        name=f"Sieved out of {row.name}"[:80], kind="cooking liquid", batch=f"{reading.held_g:.0f} g", lines=[line]
    )
    with transaction.atomic():
        kept = begin_blend(read_document(document))
    return Created(blend_out(one_blend(kept.pk)))


@router.posts("/{uuid:blend_id}/archive")
def archive_blend(request: HttpRequest, blend_id: UUID, document: ArchiveDocument) -> VersionDocument:
    """Put a blend away, or take it out again; it stays where it is used."""
    with transaction.atomic():
        row = claimed(blend_id, document.version)
        Blend.objects.filter(pk=row.pk).update(archived_at=timezone.now() if document.archived else None)
    return VersionDocument(version=row.version)


@router.posts("/{uuid:blend_id}/delete")
def delete_blend(request: HttpRequest, blend_id: UUID, document: VersionDocument) -> VersionDocument:
    """Take a blend off the list; cooks and blends that use it keep it, and `restore` brings it back."""
    with transaction.atomic():
        row = claimed(blend_id, document.version)
        Blend.objects.filter(pk=row.pk).update(deleted_at=timezone.now())
    return VersionDocument(version=row.version)


@router.posts("/{uuid:blend_id}/restore")
def restore_blend(request: HttpRequest, blend_id: UUID) -> BlendOut:
    """Undo a delete."""
    if not Blend.objects.filter(pk=blend_id, household=household()).update(deleted_at=None, version=F("version") + 1):
        raise Http404
    return blend_out(one_blend(blend_id))

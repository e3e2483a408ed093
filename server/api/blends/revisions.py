"""Blend: revisions that never change, branches, and how a blend got here."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from graphlib import TopologicalSorter
from heapq import heappop, heappush
from typing import Annotated, cast
from uuid import UUID

from book.mixtures import load_mixtures
from book.models import Blend, Revision
from django.db.models import Q
from django.http import HttpRequest
from ninja import Schema
from pydantic import AfterValidator, Field
from ravska_core.blend import (
    Band,
    BlendReading,
    Corrections,
    bands_of,
    corrections,
    differ,
    read_blend,
    same_mixture,
    short,
)
from ravska_core.blend import Blend as CoreBlend
from ravska_core.working import BadInput

from api.blends.documents import BlendDocument, BlendKind, Fire, Total, Written
from api.blends.reading import read_document
from api.blends.store import BlendOut, begin_blend, blend_out, line_documents, one_blend, writing
from api.plumbing.answers import Created, Router
from api.plumbing.typed import Name, Version, printable

router = Router()

Note = Annotated[str, Field(max_length=200), AfterValidator(printable)]


class KeepDocument(Schema):
    version: Version
    note: Note = ""


class BranchDocument(Schema):
    """A branch to begin: its name, and its lines where they are not those of the blend as it stands."""

    version: Version
    name: Name
    document: BlendDocument | None = None


class GoBackDocument(Schema):
    version: Version
    revision: UUID


@dataclass(frozen=True, slots=True)
class NodeOut:
    """A revision, or a working draft, in the tree of a blend and its branches; `words` say what its parent differs in.

    A draft that holds what its parent holds is left out. `now` marks where the blend at hand stands. A revision stays
    as it was read when it was kept; `corrected` says what the tables corrected since.
    """

    id: UUID
    blend_id: UUID
    blend_name: str
    number: int | None
    note: str
    kept_at: datetime | None
    parent: UUID | None
    words: str
    salt: float | None
    now: bool
    bands: Sequence[Band]
    corrected: Corrections | None


@router.posts("/{uuid:blend_id}/keep")
def keep_blend(request: HttpRequest, blend_id: UUID, document: KeepDocument) -> BlendOut:
    """Keep the draft as a revision that never changes, with a note; the same lines are not kept twice."""
    with writing(blend_id, document.version) as row:
        _something(row)
        row.keep(document.note)
    return blend_out(one_blend(blend_id))


def _something(row: Blend) -> None:
    if not row.draft().lines.exists():
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")


@router.posts("/{uuid:blend_id}/branch")
def branch_blend(request: HttpRequest, blend_id: UUID, document: BranchDocument) -> Created[BlendOut]:
    """Begin a branch: a blend of its own that goes on from this one, which is kept as it stands."""
    with writing(blend_id, document.version) as row:
        _something(row)
        parent = row.keep(f"where {document.name} branches off"[:200])
        given = document.document or BlendDocument(
            name=document.name,
            kind=cast(BlendKind, row.kind),
            fire=cast(Fire, row.fire),
            batch=row.batch_typed,
            lines=line_documents(row.draft().lines.all()),
            written=cast(Written, parent.written),
            base=parent.base,
            total=cast(Total, parent.total),
        )
        made = begin_blend(read_document(given.model_copy(update={"name": document.name, "uses": []})), parent)
    return Created(blend_out(one_blend(made.id)))


@router.posts("/{uuid:blend_id}/go-back")
def go_back(request: HttpRequest, blend_id: UUID, document: GoBackDocument) -> BlendOut:
    """Go on from an earlier revision. What the draft holds now is kept first, so that nothing is lost."""
    with writing(blend_id, document.version) as row:
        kept = _family(row).get(document.revision)
        if kept is None or kept.kept_at is None:
            raise BadInput("revision", "This revision is not in the book any more; choose another.")
        if row.draft().lines.exists():
            row.keep(f"before going back to {kept.number}")
        row.follow(kept)
    return blend_out(one_blend(blend_id))


def _family(row: Blend) -> dict[UUID, Revision]:
    """Return the revisions and drafts of a blend, the blends it branched from, and all their branches."""
    keys, waiting = set(), {row.pk}
    while waiting:
        keys |= waiting
        of = Revision.objects.filter(blend__in=waiting)
        linked = {*of.values_list("parent__blend", flat=True), *of.values_list("children__blend", flat=True)}
        waiting = {key for key in linked if key is not None} - keys
    found = (
        Revision.objects.filter(blend__in=keys)
        .filter(Q(kept_at__isnull=False) | Q(blend__deleted_at__isnull=True))
        .select_related("blend")
        .prefetch_related("lines")
        .order_by("kept_at")
    )
    return {revision.pk: revision for revision in found}


def _mixture(revision: Revision) -> CoreBlend | None:
    try:
        return revision.blend.as_core(revision)
    except BadInput:
        return None  # it stands in the tree without its strip


def _reading(mixture: CoreBlend | None) -> BlendReading | None:
    try:
        return read_blend(mixture) if mixture is not None and mixture.lines else None
    except BadInput:
        return None


def _in_order(family: Mapping[UUID, Revision]) -> Iterator[Revision]:
    """Give revisions in the order they came about, drafts last; by time only where nothing else tells.

    A clock can be set back: what a revision goes on from, and the one numbered before it, come before it all the same.
    """
    numbered = {(one.blend_id, one.number): key for key, one in family.items() if one.number is not None}
    order: TopologicalSorter[UUID] = TopologicalSorter()
    for key, one in family.items():
        before = (one.parent_id, numbered.get((one.blend_id, (one.number or 0) - 1)))
        order.add(key, *(earlier for earlier in before if earlier is not None and earlier in family))
    order.prepare()
    ready: list[tuple[bool, datetime, UUID]] = []
    while order.is_active():
        for key in order.get_ready():
            kept_at = family[key].kept_at
            heappush(ready, (kept_at is None, kept_at or datetime.min.replace(tzinfo=UTC), key))
        _, _, first = heappop(ready)
        order.done(first)
        yield family[first]


@router.reads("/{uuid:blend_id}/tree")
def read_tree(request: HttpRequest, blend_id: UUID) -> list[NodeOut]:
    """Return how a blend got here: its revisions and branches, each with what changed in words."""
    family = _family(one_blend(blend_id))
    load_mixtures([], family.values())
    mixtures = {key: found for key, revision in family.items() if (found := _mixture(revision)) is not None}
    now = next((key for key, x in family.items() if x.blend_id == blend_id and x.kept_at is None), None)
    for key, revision in list(family.items()):
        parent = revision.parent_id
        if (
            revision.kept_at is None
            and key in mixtures
            and parent in mixtures
            and same_mixture(mixtures[key], mixtures[parent])
        ):
            del family[key]
            now = parent if key == now else now
    readings = {key: _reading(mixtures.get(key)) for key in family}
    nodes = []
    for revision in _in_order(family):
        reading = readings[revision.pk]
        before = readings.get(revision.parent_id) if revision.parent_id else None
        words = ""
        if before is not None and reading is not None:
            words = short(differ(before, reading).words)
        nodes.append(
            NodeOut(
                id=revision.id,
                blend_id=revision.blend_id,
                blend_name=revision.blend.name,
                number=revision.number,
                note=revision.note,
                kept_at=revision.kept_at,
                parent=revision.parent_id if revision.parent_id in family else None,
                words=words,
                salt=reading.salt.value if reading else None,
                now=revision.pk == now,
                bands=bands_of(reading.leaves) if reading else (),
                corrected=corrections(mixtures[revision.pk], reading) if reading else None,
            )
        )
    return nodes

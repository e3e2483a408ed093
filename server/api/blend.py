"""Blend: keep and change mixtures by ratio, their revisions and their branches."""

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated
from uuid import UUID

from book.models import Blend, Line, Revision, Stale, Target, Use, claim_version, load_inside
from django.db import transaction
from django.db.models import Count, F, Prefetch, Q
from django.http import Http404
from django.utils import timezone
from ninja import Router, Schema, Status
from pydantic import AfterValidator, Field
from ravska_core import blends as core
from ravska_core import comparing
from ravska_core.composition import BlendReading, read_blend, read_salt
from ravska_core.working import BadInput, Figure

from api.blend_document import BlendAsTyped, BlendDocument, read_document, reading_of, reading_out
from api.documents import (
    BandOut,
    BlendReadingOut,
    LineDocument,
    Name,
    TargetDocument,
    UseDocument,
    Version,
    VersionDocument,
    printable,
    sends,
)
from api.household import household
from api.problems import ANSWERS, Conflict, FieldError

router = Router(tags=["blend"])

Note = Annotated[str, Field(max_length=200), AfterValidator(printable)]


class BlendSave(BlendDocument):
    """A blend as typed. `version` is the one it was read at; without it nothing is overwritten."""

    version: Version


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


class ArchiveDocument(Schema):
    version: Version
    archived: bool


@dataclass(frozen=True, slots=True)
class GhostScale:
    key: str
    value: float


@dataclass(frozen=True, slots=True)
class BeforeOut:
    """The revision a draft goes on from: what its scales said, and its strip."""

    id: UUID
    number: int
    note: str
    blend_name: str
    scales: list[GhostScale]
    bands: list[BandOut]


@dataclass(frozen=True, slots=True)
class BlendOut:
    """A blend as it stands in the book, with what it comes to, or why that cannot be said."""

    id: UUID
    version: int
    name: str
    kind: str
    fire: str
    batch: str
    batch_g: float
    lines: list[LineDocument]
    written: str
    base: int
    total: str
    targets: list[TargetDocument]
    uses: list[UseDocument]
    archived: bool
    kept: int
    before: BeforeOut | None
    reading: BlendReadingOut | None
    problems: list[FieldError]


@dataclass(frozen=True, slots=True)
class BlendRow:
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


@dataclass(frozen=True, slots=True)
class NodeOut:
    """A revision, or a working draft, in the tree of a blend and its branches; `words` say what its parent differs in.

    A draft that holds what its parent holds is left out. `now` marks where the blend at hand stands.
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
    bands: list[BandOut]


def _rows():
    kept = Count("revisions", filter=Q(revisions__kept_at__isnull=False))
    return Blend.objects.filter(household=household()).annotate(kept=kept).with_drafts().order_by("created_at", "name")


def _one(blend_id: UUID) -> Blend:
    parents = Revision.objects.select_related("blend").prefetch_related("lines")
    drafts = (
        Revision.objects.filter(kept_at__isnull=True)
        .prefetch_related("lines", Prefetch("parent", queryset=parents))
    )  # fmt: skip
    kept = Count("revisions", filter=Q(revisions__kept_at__isnull=False))
    found = (
        Blend.objects.filter(household=household(), pk=blend_id, deleted_at__isnull=True)
        .annotate(kept=kept)
        .prefetch_related(Prefetch("revisions", queryset=drafts, to_attr="drafts"), "targets", "uses")
        .first()
    )
    if found is None:
        raise Http404
    draft = found.draft()
    load_inside([*draft.lines.all(), *(draft.parent.lines.all() if draft.parent else ())])
    return found


def _bands(lines: tuple[core.Line, ...]) -> list[BandOut]:
    return [BandOut(grind, share) for grind, share in core.flatten(lines).items()]


def _before(parent: Revision | None) -> BeforeOut | None:
    if parent is None:
        return None
    scales: list[GhostScale] = []
    bands: list[BandOut] = []
    old = parent.blend.as_core(parent)
    try:
        if old.lines:
            scales = [GhostScale(scale.key, scale.value) for scale in reading_of(old).scales]
            bands = _bands(old.lines)
    except BadInput:
        pass  # an ingredient left the catalogue: the ghost is left out
    return BeforeOut(parent.id, parent.number or 0, parent.note, parent.blend.name, scales, bands)


def _percent(value: float | None) -> str:
    return "" if value is None else f"{value:g}"


def line_documents(draft: Revision) -> list[LineDocument]:
    """Return the lines of a draft as they were typed."""
    return [
        LineDocument(
            grind=line.grind,
            blend=line.inside_id,
            parts=line.parts_typed,
            exact=line.exact_typed,
            basis=line.basis,
            lock=line.lock,
            least=_percent(line.least_percent),
            most=_percent(line.most_percent),
        )
        for line in draft.lines.all()
    ]


def _out(blend: Blend) -> BlendOut:
    draft = blend.draft()
    problems: list[FieldError] = []
    reading = None
    lines = line_documents(draft)
    try:
        inside = {line.inside_id: line.inside for line in draft.lines.all() if line.inside_id}
        reading = reading_out(blend.as_core(draft), lines, inside)
    except BadInput as refusal:
        problems.append(FieldError(field=refusal.field, sentence=refusal.sentence))
    return BlendOut(
        id=blend.id,
        version=blend.version,
        name=blend.name,
        kind=blend.kind,
        fire=blend.fire,
        batch=blend.batch_typed,
        batch_g=blend.batch_g,
        lines=lines,
        written=draft.written,
        base=draft.base,
        total=draft.total,
        targets=[TargetDocument(what=x.what, low=_percent(x.low), high=_percent(x.high)) for x in blend.targets.all()],
        uses=[UseDocument(name=x.name, of=x.of, mass=x.mass_typed) for x in blend.uses.all()],
        archived=blend.archived_at is not None,
        kept=blend.kept,
        before=_before(draft.parent),
        reading=reading,
        problems=problems,
    )


def _write(row: Blend, typed: BlendAsTyped) -> None:
    """Write what was typed over a blend, its draft's lines, targets and uses."""
    core.check_blend(typed.blend)
    document, draft = typed.document, row.draft()
    row.name, row.kind, row.fire = document.name, document.kind, document.fire
    row.batch_g, row.batch_typed = typed.batch_g, document.batch
    row.save(update_fields=["name", "kind", "fire", "batch_g", "batch_typed"])
    draft.written, draft.base, draft.total = document.written, typed.ratio.base, document.total
    draft.save(update_fields=["written", "base", "total"])
    bounds = {bound.line: bound for bound in typed.bounds}
    draft.lines.all().delete()
    Line.objects.bulk_create(
        Line(
            revision=draft,
            position=at,
            grind=line.grind,
            inside_id=as_typed.blend,
            parts_numerator=line.parts.numerator,
            parts_denominator=line.parts.denominator,
            parts_typed=as_typed.parts,
            exact_typed=as_typed.exact,
            basis=line.basis,
            lock=line.lock,
            least_percent=bounds[at].low * 100 if as_typed.least else None,
            most_percent=bounds[at].high * 100 if as_typed.most else None,
        )
        for at, (as_typed, line) in enumerate(zip(document.lines, typed.blend.lines, strict=True))
    )
    row.targets.all().delete()
    Target.objects.bulk_create(Target(blend=row, what=x.what, low=x.low, high=x.high) for x in typed.targets)
    row.uses.all().delete()
    Use.objects.bulk_create(
        Use(blend=row, position=at, name=use.name, of=use.of, mass_g=mass, mass_typed=use.mass)
        for at, (use, mass) in enumerate(zip(document.uses, typed.masses_g, strict=True))
    )


def _begin(typed: BlendAsTyped, parent: Revision | None = None) -> Blend:
    row = Blend.objects.create(household=household(), name=typed.document.name, kind=typed.document.kind)
    Revision.objects.create(blend=row, parent=parent)
    _write(row, typed)
    return row


@router.get("/blends", response=list[BlendRow])
@sends
def list_blends(request) -> list[BlendRow]:
    """Return the household's blends with what their strips are drawn from."""
    found = list(_rows().filter(deleted_at__isnull=True))
    load_inside(line for row in found for line in row.draft().lines.all())
    rows = []
    for blend in found:
        mixture = blend.as_core()
        leaves: dict[str, float] = {}
        salt = None
        try:
            if mixture.lines:
                leaves = core.flatten(mixture.lines)
                salt = read_salt(mixture)
        except BadInput:
            pass  # opened, the blend says which line is at fault
        parent = blend.draft().parent
        rows.append(
            BlendRow(
                id=blend.id,
                version=blend.version,
                name=blend.name,
                kind=blend.kind,
                lines=len(mixture.lines),
                grinds=list(leaves),
                shares=list(leaves.values()),
                salt=salt,
                archived=blend.archived_at is not None,
                kept=blend.kept,
                branch_of=parent.blend.name if parent is not None and parent.blend_id != blend.id else "",
            )
        )
    return rows


@router.post("/blends", response={201: BlendOut, **ANSWERS})
@sends
def create_blend(request, document: BlendDocument):
    """Start a blend; it may be empty."""
    typed = read_document(document)
    with transaction.atomic():
        row = _begin(typed)
    return Status(201, _out(_one(row.id)))


@router.get("/blends/{uuid:blend_id}", response={200: BlendOut, **ANSWERS})
@sends
def get_blend(request, blend_id: UUID) -> BlendOut:
    """Return one blend with its reading."""
    return _out(_one(blend_id))


@router.put("/blends/{uuid:blend_id}", response={200: BlendOut, **ANSWERS})
@sends
def save_blend(request, blend_id: UUID, document: BlendSave) -> BlendOut:
    """Save the working draft as typed; 409 with the other version when it was changed meanwhile."""
    with _writing(blend_id, document.version) as row:
        # read inside the transaction: two blends put into each other at once would make a circle
        _write(row, read_document(document, blend_id))
    return _out(_one(blend_id))


@contextmanager
def _writing(blend_id: UUID, version: int) -> Iterator[Blend]:
    """Claim a blend for one write; 409 with the other version when it was changed meanwhile."""
    try:
        with transaction.atomic():
            yield _claimed(blend_id, version)
    except Stale:
        raise Conflict(_out(_one(blend_id))) from None


def _claimed(blend_id: UUID, version: int) -> Blend:
    row = _one(blend_id)
    claim_version(row, version)
    return row


@router.post("/blends/{uuid:blend_id}/keep", response={200: BlendOut, **ANSWERS})
@sends
def keep_blend(request, blend_id: UUID, document: KeepDocument) -> BlendOut:
    """Keep the draft as a revision that never changes, with a note; the same lines are not kept twice."""
    with _writing(blend_id, document.version) as row:
        _something(row)
        row.keep(document.note)
    return _out(_one(blend_id))


def _something(row: Blend) -> None:
    if not row.draft().lines.exists():
        raise BadInput("lines", "There is nothing in this blend yet; add a first ingredient.")


@router.post("/blends/{uuid:blend_id}/branch", response={201: BlendOut, **ANSWERS})
@sends
def branch_blend(request, blend_id: UUID, document: BranchDocument):
    """Begin a branch: a blend of its own that goes on from this one, which is kept as it stands."""
    with _writing(blend_id, document.version) as row:
        _something(row)
        parent = row.keep(f"where {document.name} branches off"[:200])
        given = document.document or BlendDocument(
            name=document.name,
            kind=row.kind,
            fire=row.fire,
            batch=row.batch_typed,
            lines=line_documents(row.draft()),
            written=parent.written,
            base=parent.base,
            total=parent.total,
        )
        made = _begin(read_document(given.model_copy(update={"name": document.name, "uses": []})), parent)
    return Status(201, _out(_one(made.id)))


@router.post("/blends/{uuid:blend_id}/go-back", response={200: BlendOut, **ANSWERS})
@sends
def go_back(request, blend_id: UUID, document: GoBackDocument) -> BlendOut:
    """Go on from an earlier revision. What the draft holds now is kept first, so that nothing is lost."""
    with _writing(blend_id, document.version) as row:
        kept = _family(row).get(document.revision)
        if kept is None or kept.kept_at is None:
            raise BadInput("revision", "This revision is not in the book any more; choose another.")
        if row.draft().lines.exists():
            row.keep(f"before going back to {kept.number}")
        row.follow(kept)
    return _out(_one(blend_id))


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


def _reading(revision: Revision) -> BlendReading | None:
    try:
        mixture = revision.blend.as_core(revision)
        return read_blend(mixture) if mixture.lines else None
    except BadInput:
        return None


@router.get("/blends/{uuid:blend_id}/tree", response={200: list[NodeOut], **ANSWERS})
@sends
def read_tree(request, blend_id: UUID) -> list[NodeOut]:
    """Return how a blend got here: its revisions and branches, each with what changed in words."""
    family = _family(_one(blend_id))
    load_inside(line for revision in family.values() for line in revision.lines.all())
    mixtures = {key: revision.blend.as_core(revision).lines for key, revision in family.items()}
    now = next((key for key, x in family.items() if x.blend_id == blend_id and x.kept_at is None), None)
    for key, revision in list(family.items()):
        parent = revision.parent_id
        if revision.kept_at is None and parent in mixtures and core.same_mixture(mixtures[key], mixtures[parent]):
            del family[key]
            now = parent if key == now else now
    readings = {key: _reading(revision) for key, revision in family.items()}
    nodes = []
    for revision in sorted(family.values(), key=lambda r: (r.kept_at is None, r.kept_at or timezone.now())):
        reading = readings[revision.pk]
        before = readings.get(revision.parent_id) if revision.parent_id else None
        words = ""
        if before is not None and reading is not None:
            words = comparing.short(comparing.differ(before, reading).words)
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
                bands=[BandOut(grind.key, share) for grind, share in reading.leaves] if reading else [],
            )
        )
    return nodes


@router.post("/blends/{uuid:blend_id}/archive", response={200: VersionDocument, **ANSWERS})
@sends
def archive_blend(request, blend_id: UUID, document: ArchiveDocument) -> VersionDocument:
    """Put a blend away, or take it out again; it stays where it is used."""
    with transaction.atomic():
        row = _claimed(blend_id, document.version)
        Blend.objects.filter(pk=row.pk).update(archived_at=timezone.now() if document.archived else None)
    return VersionDocument(version=row.version)


@router.post("/blends/{uuid:blend_id}/delete", response={200: VersionDocument, **ANSWERS})
@sends
def delete_blend(request, blend_id: UUID, document: VersionDocument) -> VersionDocument:
    """Take a blend off the list; cooks and blends that use it keep it, and `restore` brings it back."""
    with transaction.atomic():
        row = _claimed(blend_id, document.version)
        Blend.objects.filter(pk=row.pk).update(deleted_at=timezone.now())
    return VersionDocument(version=row.version)


@router.post("/blends/{uuid:blend_id}/restore", response={200: BlendOut, **ANSWERS})
@sends
def restore_blend(request, blend_id: UUID) -> BlendOut:
    """Undo a delete."""
    if not Blend.objects.filter(pk=blend_id, household=household()).update(deleted_at=None, version=F("version") + 1):
        raise Http404
    return _out(_one(blend_id))

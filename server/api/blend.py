"""Blend: read, keep and change mixtures by ratio."""

from dataclasses import dataclass
from uuid import UUID

from book.models import Blend, Line, Revision, Stale, claim_version
from django.db import transaction
from django.db.models import Count, Q
from django.http import Http404
from django.utils import timezone
from ninja import Router, Schema, Status
from ravska_core import blends as core
from ravska_core.quantities import parse_mass_g, parse_parts
from ravska_core.working import BadInput

from api.documents import (
    BlendKind,
    BlendReadingOut,
    FigureOut,
    LineDocument,
    Lines,
    Name,
    Typed,
    Version,
    VersionDocument,
    blend_reading_out,
    figure_out,
    sends,
)
from api.household import household, spoon_set
from api.problems import ANSWERS, Conflict, FieldError, Gather

router = Router(tags=["blend"])


class BlendDocument(Schema):
    """A blend as typed. `version` is the one it was read at; without it nothing is overwritten."""

    name: Name
    kind: BlendKind
    batch: Typed
    lines: Lines


class BlendSave(BlendDocument):
    version: Version


@dataclass(frozen=True, slots=True)
class BlendOut:
    """A blend as it stands in the book, with what it comes to, or why that cannot be said."""

    id: UUID
    version: int
    name: str
    kind: str
    batch: str
    batch_g: float
    lines: list[LineDocument]
    kept: int
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
    salt: FigureOut | None


def read_document(document: BlendDocument) -> core.Blend:
    """Read what was typed into a core blend; every field that cannot be read is named.

    Raises
    ------
    Refused
        With a sentence at each such field.
    """
    gather = Gather()
    batch = gather.attempt(
        "", lambda: parse_mass_g(document.batch, "batch", core.LOWEST_BATCH_G, core.HIGHEST_BATCH_G, bare="g"), 100.0
    )
    lines = []
    for at, line in enumerate(document.lines):
        parts = gather.attempt(f"lines.{at}", lambda line=line: parse_parts(line.parts))
        if parts is not None:
            lines.append(core.Line(line.grind, parts, line.basis))
    gather.finish()
    blend = core.Blend(document.kind, tuple(lines), batch)
    core.check_blend(blend)
    return blend


def _rows():
    kept = Count("revisions", filter=Q(revisions__kept_at__isnull=False))
    return Blend.objects.filter(household=household()).annotate(kept=kept).with_drafts().order_by("created_at", "name")


def _one(blend_id: UUID) -> Blend:
    found = _rows().filter(pk=blend_id, deleted_at__isnull=True).first()
    if found is None:
        raise Http404
    return found


def _out(blend: Blend) -> BlendOut:
    draft = blend.draft()
    problems: list[FieldError] = []
    reading = None
    try:
        reading = blend_reading_out(core.read_blend(blend.as_core(draft), spoon_set()))
    except BadInput as refusal:
        problems.append(FieldError(field=refusal.field, sentence=refusal.sentence))
    return BlendOut(
        id=blend.id,
        version=blend.version,
        name=blend.name,
        kind=blend.kind,
        batch=blend.batch_typed,
        batch_g=blend.batch_g,
        lines=[LineDocument(grind=x.grind, parts=x.parts_typed, basis=x.basis) for x in draft.lines.all()],
        kept=blend.kept,
        reading=reading,
        problems=problems,
    )


def _write_lines(draft: Revision, document: BlendDocument, blend: core.Blend) -> None:
    draft.lines.all().delete()
    Line.objects.bulk_create(
        Line(
            revision=draft,
            position=at,
            grind=typed.grind,
            parts_numerator=line.parts.numerator,
            parts_denominator=line.parts.denominator,
            parts_typed=typed.parts,
            basis=typed.basis,
        )
        for at, (typed, line) in enumerate(zip(document.lines, blend.lines, strict=True))
    )


@router.get("/blends", response=list[BlendRow])
@sends
def list_blends(request) -> list[BlendRow]:
    """Return the household's blends with what their strips are drawn from."""
    rows = []
    for blend in _rows().filter(deleted_at__isnull=True):
        found = blend.as_core()
        try:
            reading = core.read_blend(found) if found.lines else None
        except BadInput:
            reading = None  # opened, the blend says which line is at fault
        rows.append(
            BlendRow(
                id=blend.id,
                version=blend.version,
                name=blend.name,
                kind=blend.kind,
                lines=len(found.lines),
                grinds=[line.grind for line in found.lines],
                shares=[line.share.value / 100 for line in reading.lines] if reading else [],
                salt=figure_out(reading.salt) if reading else None,
            )
        )
    return rows


@router.post("/blends", response={201: BlendOut, **ANSWERS})
@sends
def create_blend(request, document: BlendDocument):
    """Start a blend; it may be empty."""
    blend = read_document(document)
    with transaction.atomic():
        row = Blend.objects.create(
            household=household(),
            name=document.name,
            kind=document.kind,
            batch_g=blend.batch_g,
            batch_typed=document.batch,
        )
        _write_lines(Revision.objects.create(blend=row), document, blend)
    return Status(201, _out(_one(row.id)))


@router.post("/blends/read", response={200: BlendReadingOut, **ANSWERS})
@sends
def read_blend(request, document: BlendDocument) -> BlendReadingOut:
    """Say what a blend comes to, without saving anything."""
    return blend_reading_out(core.read_blend(read_document(document), spoon_set()))


@router.get("/blends/{uuid:blend_id}", response={200: BlendOut, **ANSWERS})
@sends
def get_blend(request, blend_id: UUID) -> BlendOut:
    """Return one blend with its reading."""
    return _out(_one(blend_id))


@router.put("/blends/{uuid:blend_id}", response={200: BlendOut, **ANSWERS})
@sends
def save_blend(request, blend_id: UUID, document: BlendSave) -> BlendOut:
    """Save the working draft as typed; 409 with the other version when it was changed meanwhile."""
    blend = read_document(document)
    try:
        with transaction.atomic():
            row = _one(blend_id)
            claim_version(row, document.version)
            row.name, row.kind = document.name, document.kind
            row.batch_g, row.batch_typed = blend.batch_g, document.batch
            row.save(update_fields=["name", "kind", "batch_g", "batch_typed"])
            _write_lines(row.draft(), document, blend)
    except Stale:
        raise Conflict(_out(_one(blend_id))) from None
    return _out(_one(blend_id))


@router.post("/blends/{uuid:blend_id}/delete", response={200: VersionDocument, **ANSWERS})
@sends
def delete_blend(request, blend_id: UUID, document: VersionDocument) -> VersionDocument:
    """Take a blend off the list; cooks that used it keep it, and `restore` brings it back."""
    with transaction.atomic():
        row = _one(blend_id)
        claim_version(row, document.version)
        Blend.objects.filter(pk=row.pk).update(deleted_at=timezone.now())
    return VersionDocument(version=row.version)


@router.post("/blends/{uuid:blend_id}/restore", response={200: BlendOut, **ANSWERS})
@sends
def restore_blend(request, blend_id: UUID) -> BlendOut:
    """Undo a delete."""
    if not Blend.objects.filter(pk=blend_id, household=household()).update(deleted_at=None):
        raise Http404
    return _out(_one(blend_id))

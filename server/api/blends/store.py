"""A blend's row and its document: loaded, written, claimed for a write. Shared by Blend's own routers."""

from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, fields
from typing import cast
from uuid import UUID

from book.layers import follow_kind
from book.mixtures import load_mixtures
from book.models import Blend, Line, Revision, Stale, Target, Use, claim_version
from book.models.values import stored_label, stored_method, typed_of
from django.db import transaction
from django.db.models import Count, Q
from django.http import Http404
from ravska_core.blend import Band, bands_of, check_blend, mix, shares
from ravska_core.working import BadInput

from api.blends.documents import (
    Basis,
    LabelDocument,
    LineDocument,
    Lock,
    MethodStepDocument,
    TargetDocument,
    TargetKey,
    UseDocument,
)
from api.blends.reading import BlendAsTyped
from api.blends.readings import BlendReadingOut, reading_of, reading_out
from api.plumbing.household import household
from api.plumbing.problems import Conflict, FieldError, field_error


@dataclass(frozen=True, slots=True)
class GhostScale:
    key: str
    value: float


@dataclass(frozen=True, slots=True)
class BeforeOut:
    """The revision a draft goes on from: what its scales said, how long it kept, what it held, and its strip."""

    id: UUID
    number: int
    note: str
    blend_name: str
    scales: list[GhostScale]
    keeps_days: float | None
    allergens: list[str]
    bands: Sequence[Band]


@dataclass(frozen=True, slots=True)
class TypedBlendOut:
    """A blend as it is typed in the book."""

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
    method: list[MethodStepDocument]
    label: LabelDocument | None


@dataclass(frozen=True, slots=True)
class BlendOut(TypedBlendOut):
    """A blend as it stands in the book, with what it comes to, or why that cannot be said."""

    archived: bool
    kept: int
    before: BeforeOut | None
    reading: BlendReadingOut | None
    problems: list[FieldError]


def one_blend(blend_id: UUID) -> Blend:
    """Return a blend with its draft, the revision that goes on from, and all that lies inside both."""
    kept = Count("revisions", filter=Q(revisions__kept_at__isnull=False))
    found = (
        Blend.objects.filter(pk=blend_id, deleted_at__isnull=True)
        .annotate(kept=kept)  # type: ignore[no-redef]  # the model says that it is there
        .prefetch_related("targets", "uses")
        .first()
    )
    if found is None:
        raise Http404
    parent = Revision.objects.filter(children__blend=found, children__kept_at__isnull=True).first()
    load_mixtures([found], [parent] if parent else [])
    draft = found.draft()
    if parent is not None:
        draft.parent = parent
    return found


def _before(parent: Revision | None) -> BeforeOut | None:
    if parent is None:
        return None
    try:
        old = parent.blend.as_core(parent)
        found = reading_of(old) if old.lines else None
    except BadInput:
        found = None  # it cannot be read any more: the ghost is left out
    return BeforeOut(
        id=parent.id,
        number=parent.number or 0,
        note=parent.note,
        blend_name=parent.blend.name,
        scales=[GhostScale(scale.key, scale.value) for scale in found.scales] if found else [],
        keeps_days=found.keeping.days if found else None,
        allergens=list(found.allergens) if found else [],
        bands=bands_of(found.leaves) if found else (),
    )


def _percent(value: float | None) -> str:
    return "" if value is None else f"{value:g}"


def line_documents(lines: Iterable[Line]) -> list[LineDocument]:
    """Return lines as they were typed."""
    return [
        LineDocument(
            grind=line.grind,
            blend=line.inside_id,
            parts=line.parts_typed,
            exact=line.exact_typed,
            basis=cast(Basis, line.basis),
            lock=cast(Lock, line.lock),
            least=_percent(line.least_percent),
            most=_percent(line.most_percent),
            error=f"{line.error * 100:g}" if line.error else "",
            said=line.said,
            swap=line.swap,
            held=line.held,
        )
        for line in lines
    ]


def typed_out(
    blend: Blend, draft: Revision, lines: Iterable[Line], targets: Iterable[Target], uses: Iterable[Use]
) -> TypedBlendOut:
    """Return a blend as it is typed, from its rows."""
    return TypedBlendOut(
        id=blend.id,
        version=blend.version,
        name=blend.name,
        kind=blend.kind,
        fire=blend.fire,
        batch=blend.batch_typed,
        batch_g=blend.batch_g,
        lines=line_documents(lines),
        written=draft.written,
        base=draft.base,
        total=draft.total,
        targets=[
            TargetDocument(what=cast(TargetKey, x.what), low=_percent(x.low), high=_percent(x.high)) for x in targets
        ],
        uses=[UseDocument(name=x.name, of=x.of, mass=x.mass_typed) for x in uses],
        method=[MethodStepDocument(**step) for step in typed_of(draft.method)],
        label=LabelDocument(**typed_of(draft.label)) if draft.label else None,
    )


def blend_out(blend: Blend) -> BlendOut:
    """Return a blend, loaded through `one_blend`, with what it comes to."""
    draft = blend.draft()
    problems: list[FieldError] = []
    reading = None
    typed = typed_out(blend, draft, draft.lines.all(), blend.targets.all(), blend.uses.all())
    try:
        inside = {line.inside.pk: line.inside for line in draft.lines.all() if line.inside is not None}
        reading = reading_out(blend.as_core(draft), typed.lines, inside)
    except BadInput as refusal:
        problems.append(field_error(refusal))
    return BlendOut(
        **{field.name: getattr(typed, field.name) for field in fields(typed)},
        archived=blend.archived_at is not None,
        kept=blend.kept,
        before=_before(draft.parent),
        reading=reading,
        problems=problems,
    )


def write_blend(row: Blend, draft: Revision, typed: BlendAsTyped) -> TypedBlendOut:
    """Write what was typed over a blend, its draft's lines, targets and uses."""
    parts = check_blend(typed.blend)
    if typed.blend.method and parts:
        mix(typed.blend, shares(typed.blend.lines, parts), parts)
    document, kind_before = typed.document, row.kind
    row.name, row.kind, row.fire = document.name, document.kind, document.fire
    row.batch_g, row.batch_typed = typed.batch_g, document.batch
    row.save(update_fields=["name", "kind", "fire", "batch_g", "batch_typed"])
    draft.written, draft.base, draft.total = document.written, typed.ratio.base, document.total
    draft.method = stored_method([step.model_dump() for step in document.method])
    draft.label = stored_label(document.label.model_dump(mode="json") if document.label else None)
    draft.save(update_fields=["written", "base", "total", "method", "label"])
    lines = _lines(draft, typed)
    targets = [Target(blend=row, what=x.what, low=x.low, high=x.high) for x in typed.targets]
    uses = [
        Use(blend=row, position=at, name=use.name, of=use.of, mass_g=mass, mass_typed=use.mass)
        for at, (use, mass) in enumerate(zip(document.uses, typed.masses_g, strict=True))
    ]
    draft.lines.all().delete()
    Line.objects.bulk_create(lines)
    row.targets.all().delete()
    Target.objects.bulk_create(targets)
    row.uses.all().delete()
    Use.objects.bulk_create(uses)
    if row.kind != kind_before:
        follow_kind(Blend.objects.get(pk=row.pk), kind_before)
    return typed_out(row, draft, lines, targets, uses)


def _lines(draft: Revision, typed: BlendAsTyped) -> list[Line]:
    bounds = {bound.line: bound for bound in typed.bounds}
    return [
        Line(
            revision=draft,
            position=at,
            grind=line.grind,
            inside_id=as_typed.blend,
            parts_numerator=line.parts.numerator,
            parts_denominator=line.parts.denominator,
            parts_typed=as_typed.parts,
            exact_typed=as_typed.exact,
            error=line.error,
            said=as_typed.said,
            swap=as_typed.swap,
            basis=line.basis,
            lock=line.lock,
            least_percent=bounds[at].low * 100 if as_typed.least else None,
            most_percent=bounds[at].high * 100 if as_typed.most else None,
            held=as_typed.held,
        )
        for at, (as_typed, line) in enumerate(zip(typed.document.lines, typed.blend.lines, strict=True))
    ]


def begin_blend(typed: BlendAsTyped, parent: Revision | None = None) -> Blend:
    row = Blend.objects.create(household=household(), name=typed.document.name, kind=typed.document.kind)
    draft = Revision.objects.create(blend=row, parent=parent)
    write_blend(row, draft, typed)
    return row


@contextmanager
def writing(blend_id: UUID, version: int) -> Iterator[Blend]:
    """Claim a blend for one write; 409 with the other version when it was changed meanwhile."""
    try:
        with transaction.atomic():
            yield claimed(blend_id, version)
    except Stale:
        raise Conflict(blend_out(one_blend(blend_id))) from None


def claimed(blend_id: UUID, version: int) -> Blend:
    """Return a blend claimed for a write, with its draft."""
    drafts = Revision.objects.select_related("blend").filter(kept_at__isnull=True, blend__deleted_at__isnull=True)
    draft = drafts.filter(blend=blend_id).first()
    if draft is None:
        raise Http404
    row = draft.blend
    claim_version(row, version)
    row.drafts = [draft]
    return row

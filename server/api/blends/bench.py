"""Blend: what a blend on the bench would come to if it were changed. Nothing here is saved."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Annotated, Literal, cast
from uuid import UUID

from book.mixtures import load_mixtures
from book.models import Blend, Layer, Line, Revision, Taster, line_key
from book.models.values import method_of
from django.http import Http404, HttpRequest
from pydantic import Field
from ravska_core.blend import (
    MOST_LINES,
    Band,
    BlendReading,
    Change,
    Ratio,
    add_line,
    check_blend,
    differ,
    exact_parts,
    flatten,
    move_border,
    nudge_parts,
    parts_of,
    read_blend,
    remove_line,
    restate,
    salt_percent,
    same_mixture,
    say_share,
    set_parts,
    settle,
    switch_basis,
    switch_grind,
    unfold,
    usual_steps,
    write_as,
)
from ravska_core.blend import Blend as CoreBlend
from ravska_core.blend import Line as CoreLine
from ravska_core.blend import adapt as core_adapt
from ravska_core.blend import aim as core_aim
from ravska_core.blend import nudge as core_nudge
from ravska_core.blend import swaps as core_swaps
from ravska_core.bowl import Use, mass_inside
from ravska_core.bowl import share_out as core_share_out
from ravska_core.catalogue import ALLERGENS, catalogue
from ravska_core.coat import read_coat
from ravska_core.day import Eater, LeftOut, leaves_out
from ravska_core.exchange import MEASURED, Amount, Put, put_in, read_amount, weighed
from ravska_core.working import BadInput, Figure, say

from api.blends.documents import Basis, LineDocument, MethodStepDocument, Total, WhatIf, Written
from api.blends.reading import BlendAsTyped, read_document, written_lines
from api.blends.readings import BlendReadingOut, reading_out
from api.blends.store import one_blend
from api.plumbing.answers import Router
from api.plumbing.household import household, spoon_set
from api.plumbing.quantities import ByEye, Parts
from api.plumbing.typed import Key, Number, Typed

router = Router()

Place = Annotated[int, Field(ge=0, le=MOST_LINES)]


class Rework(WhatIf):
    """One change of a ratio. `do` says which, and which of the other fields count.

    set (line, parts), nudge (line, up), basis (line, to_basis), write (to_written, line: the base of relative
    numbers), grind (line, grind, hold), border (line, share: what the line gets of itself and the next),
    add (grind or inside, and an amount of it), remove (line), unfold (line).
    """

    do: Literal["set", "nudge", "basis", "write", "grind", "border", "add", "remove", "unfold"]
    line: Place = 0
    parts: Parts = Parts("")
    up: bool = True
    to_basis: Literal["spoon", "scale"] = "spoon"
    to_written: Written = "parts"
    grind: Key = ""
    inside: UUID | None = None
    amount: Typed = ""
    hold: Literal["spoons", "grams"] = "spoons"
    share: Number = 0.0


@dataclass(frozen=True, slots=True)
class ReworkOut:
    """The ratio after a change, as it is written, and what it comes to; `batch` where that grew by what was added."""

    batch: str
    lines: list[LineDocument]
    written: Written
    base: int
    total: Total
    method: list[MethodStepDocument]
    reading: BlendReadingOut | None


@dataclass(frozen=True, slots=True)
class ChangeOut:
    id: str
    text: str
    reason: str
    source: str
    mark: str


@dataclass(frozen=True, slots=True)
class RowOut:
    """A line of either blend with its share before and after [%]."""

    name: str
    before: float | None
    after: float | None


@dataclass(frozen=True, slots=True)
class DifferenceOfBlends:
    words: list[str]
    rows: list[RowOut]


@dataclass(frozen=True, slots=True)
class ProposalOut:
    """A blend that could be taken: its lines, what it comes to, how it differs, why, and what stands in the way."""

    lines: list[LineDocument]
    written: Written
    base: int
    total: Total
    reading: BlendReadingOut | None
    difference: DifferenceOfBlends
    changes: list[ChangeOut]
    met: bool
    notes: list[str]
    unchanged: bool


class NudgeWhatIf(WhatIf):
    towards: Literal["sweeter", "less-salt", "hotter", "smokier", "herbal"]


class AdaptWhatIf(WhatIf):
    """What to adapt a blend to; `skip` names changes that are not wanted."""

    for_meat: Literal["", "poultry", "pork", "beef", "lamb", "fish", "game"] = ""
    for_fire: Literal["", "direct flame", "hot iron", "indirect", "oven", "broiler"] = ""
    without: Annotated[list[Key], Field(max_length=len(ALLERGENS), default=[])]
    lacking: Annotated[list[Key], Field(max_length=MOST_LINES, default=[])]
    skip: Annotated[list[Key], Field(max_length=100, default=[])]


class SwapWhatIf(WhatIf):
    line: Place


@dataclass(frozen=True, slots=True)
class SwapOut:
    """What could stand in a line's place, with the salt of the whole before and after [%]."""

    line: LineDocument
    kind: str
    name: str
    reason: str
    source: str
    mark: str
    salt_before: float
    salt_after: float


class CompareWhatIf(WhatIf):
    against: UUID


@dataclass(frozen=True, slots=True)
class CompareOut:
    """How a blend differs from a kept revision, in words and line by line, and the revision's own strip."""

    difference: DifferenceOfBlends
    same: bool
    bands: Sequence[Band]


@dataclass(frozen=True, slots=True)
class UseOut:
    """A planned use: what it takes [g], or why that is not known."""

    mass_g: float | None
    sentence: str


@dataclass(frozen=True, slots=True)
class OfferOut:
    """A use that the book knows of: a blend that holds this one, or a layer of a cook."""

    of: str
    name: str
    mass_g: float


@dataclass(frozen=True, slots=True)
class SharedOut:
    uses: list[UseOut]
    taken: Figure
    left: Figure
    enough_g: float
    offers: list[OfferOut]


def _with_lines(
    typed: BlendAsTyped, lines: Sequence[CoreLine], steps: Sequence[MethodStepDocument] | None = None
) -> CoreBlend:
    """Return the blend with other lines; its method goes on with those of its lines that are still there."""
    of = typed.blend
    keys = [line_key(line.grind, UUID(line.blend.key) if line.blend is not None else None, line.held) for line in lines]
    method = method_of([step.model_dump() for step in (typed.document.method if steps is None else steps)], keys)
    return CoreBlend(of.kind, tuple(lines), of.batch_g, of.name, of.fire, method, of.label)


def _read_lines(
    typed: BlendAsTyped,
    lines: Sequence[CoreLine],
    written: list[LineDocument],
    steps: Sequence[MethodStepDocument] | None = None,
) -> BlendReadingOut | None:
    return reading_out(_with_lines(typed, lines, steps), written, typed.inside) if lines else None


def _off_by(ratio: Ratio, at: int, error: float) -> Ratio:
    lines = list(ratio.lines)
    lines[at] = replace(lines[at], error=error)
    return replace(ratio, lines=tuple(lines))


def _typed_parts(document: Rework, typed: BlendAsTyped, at: int) -> tuple[Fraction, Amount | None]:
    """Return the parts that were typed, or taken by eye: a spoon then counts as a tablespoon."""
    field = f"lines.{at}.parts"
    try:
        return document.parts.read(field), None
    except BadInput as refusal:
        if not document.parts.strip()[:1].isalpha():
            raise
        lines = typed.ratio.lines
        if not 0 <= at < len(lines):
            raise
        owned = spoon_set()
        spoon_ml = next(spoon.volume_ml for spoon in owned.spoons if spoon.name == "tbsp")
        above = lines[at - 1] if at else lines[at]
        before = Amount("ml", float(above.parts) * spoon_ml, above.mass_error, "")
        try:
            amount = read_amount(document.parts, owned, before)
        except BadInput:
            raise refusal from None
        if amount.kind != "ml" or lines[at].basis != "spoon":
            sentence = "An amount by eye goes by spoon; choose spoon for this line first, or write parts."
            raise BadInput(field, sentence) from None
        return exact_parts(Fraction(amount.value / spoon_ml).limit_denominator(1000), at), amount


def _proposal(
    typed: BlendAsTyped,
    lines: Sequence[CoreLine],
    changes: Sequence[Change] = (),
    met: bool = True,
    notes: Sequence[str] = (),
    unchanged: bool = False,
) -> ProposalOut:
    ratio = Ratio(tuple(lines), typed.ratio.written, typed.ratio.base, typed.ratio.total)
    if not unchanged:
        ratio = settle(lines, typed.ratio)
    written = written_lines(ratio.lines, typed)
    difference = DifferenceOfBlends([], [])
    if ratio.lines and not unchanged:
        difference = _difference(read_blend(typed.blend), read_blend(_with_lines(typed, ratio.lines)))
    sources = catalogue().sources
    return ProposalOut(
        lines=written,
        written=cast(Written, ratio.written),
        base=ratio.base,
        total=cast(Total, ratio.total),
        reading=_read_lines(typed, ratio.lines, written),
        difference=difference,
        changes=[ChangeOut(c.id, c.text, c.reason, sources[c.source].title, sources[c.source].mark) for c in changes],
        met=met,
        notes=list(notes),
        unchanged=unchanged,
    )


def _difference(before: BlendReading, after: BlendReading) -> DifferenceOfBlends:
    found = differ(before, after)
    return DifferenceOfBlends(list(found.words), [RowOut(row.name, row.before, row.after) for row in found.rows])


@router.asks("/read")
def read(request: HttpRequest, document: WhatIf) -> BlendReadingOut:
    """Say what a blend comes to."""
    typed = read_document(document, document.id)
    return reading_out(typed.blend, document.lines, typed.inside)


@router.asks("/rework")
def rework(request: HttpRequest, document: Rework) -> ReworkOut:
    """Change one number, basis, grind, border or line of a ratio; the rest follows by its locks and its total."""
    if document.do == "add" and len(document.lines) >= MOST_LINES:
        raise BadInput("lines", f"A blend holds at most {MOST_LINES} lines.")
    typed = read_document(_with_new(document), document.id)
    ratio, at = typed.ratio, document.line
    eyed: Amount | None = None
    batch_g = typed.batch_g
    if document.do == "set":
        parts, eyed = _typed_parts(document, typed, at)
        ratio = set_parts(ratio, at, parts)
        if eyed is not None:
            ratio = _off_by(ratio, at, eyed.error)
    elif document.do == "nudge":
        ratio = nudge_parts(ratio, at, document.up)
    elif document.do == "basis":
        ratio = switch_basis(ratio, at, document.to_basis)
    elif document.do == "write":
        ratio = write_as(ratio, document.to_written, at)
    elif document.do == "grind":
        ratio = switch_grind(ratio, at, document.grind, document.hold)
    elif document.do == "border":
        ratio = move_border(ratio, at, document.share)
    elif document.do == "unfold":
        ratio = unfold(ratio, at)
    elif document.do == "remove":
        ratio = remove_line(ratio, at)
    else:
        ratio, batch_g = _added(document, typed, ratio)
    if document.do in ("basis", "grind", "unfold", "add", "remove"):
        ratio = restate(ratio)
    grown = batch_g != typed.batch_g
    if grown:
        typed = replace(typed, blend=replace(typed.blend, batch_g=batch_g))
    check_blend(_with_lines(typed, ratio.lines))
    lines = written_lines(ratio.lines, typed)
    if document.do == "add" and document.amount:
        off = ratio.lines[-1].error
        lines[-1].said, lines[-1].error = document.amount, ByEye(say(off * 100, 3) if off else "")
    if document.do == "set":
        off = ratio.lines[at].error if eyed else 0.0
        lines[at].error, lines[at].said = (ByEye(say(off * 100, 3)), document.parts) if eyed else (ByEye(""), "")
        ratio = _off_by(ratio, at, off)
        if eyed is None and ratio.lines[at].parts == document.parts.value:
            lines[at].parts, lines[at].exact = document.parts, ""
    method = _renamed(document, typed, lines, at)
    if document.do == "grind":
        lines[at].least, lines[at].most = document.lines[at].least, document.lines[at].most
    return ReworkOut(
        batch=f"{say(batch_g, 4)} g" if grown else document.batch,
        lines=lines,
        written=cast(Written, ratio.written),
        base=ratio.base,
        total=cast(Total, ratio.total),
        method=method,
        reading=_read_lines(typed, ratio.lines, lines, method),
    )


def _with_new(document: Rework) -> Rework:
    """Return a document with the line to add, so that a blend that would hold itself is refused at its place."""
    if document.do != "add":
        return document
    basis: Basis = "scale" if document.lines and all(line.basis == "scale" for line in document.lines) else "spoon"
    grind = "" if document.inside else document.grind
    new = LineDocument(grind=grind, blend=document.inside, parts="1", basis=basis)
    return document.model_copy(update={"lines": [*document.lines, new]})


def _added(document: Rework, typed: BlendAsTyped, ratio: Ratio) -> tuple[Ratio, float]:
    """Return a ratio with its last line added to the others, and the batch, grown where an amount was put in."""
    *before, line = ratio.lines
    batch_g = typed.batch_g
    if document.amount:
        put = _put(document, typed, before, line)
        line, batch_g = put.line, put.batch_g
    base = min(ratio.base, max(0, len(before) - 1))
    return add_line(Ratio(tuple(before), ratio.written, base, ratio.total), line), batch_g


def _put(document: Rework, typed: BlendAsTyped, before: Sequence[CoreLine], line: CoreLine) -> Put:
    """Return the new line with the amount of it that was typed, and the batch grown by it."""
    amount = read_amount(document.amount, spoon_set())
    if amount.kind not in MEASURED:
        found, _ = weighed(amount, line.grind, "") if line.grind else (None, "")
        if found is None:
            raise BadInput("amount", "How much is one of these? Write it as a weight or in spoons.")
        amount = found
    return put_in(before, typed.batch_g, line, amount, typed.ratio.total == "fixed", spoon_set())


def _renamed(document: Rework, typed: BlendAsTyped, lines: Sequence[LineDocument], at: int) -> list[MethodStepDocument]:
    """Return the method with the keys that a change of lines gave other names: another grind, a blend unfolded."""
    if document.do not in ("grind", "unfold"):
        return document.method
    before = document.lines[at]
    was = before.key()
    inside = typed.blend.lines[at].blend
    count = len(inside.lines) if inside is not None and document.do == "unfold" else 1
    now = [line.key() for line in lines[at : at + count]]
    return [
        step.model_copy(update={"of": [new for key in step.of for new in (now if key == was else [key])]})
        for step in document.method
    ]


@router.asks("/usual-method")
def usual_method(request: HttpRequest, document: WhatIf) -> list[MethodStepDocument]:
    """Say how such a blend is usually made: dry parts first, oil last, strained for a needle."""
    typed = read_document(document, document.id)
    parts = parts_of(typed.blend.lines)
    keys = [line.key() for line in document.lines]
    return [
        MethodStepDocument(
            do=step.do,
            of=[keys[line] for line in step.of],
            by=f"by {say_share(step.by)}" if step.by else "",
            note=step.note,
        )
        for step in usual_steps(typed.blend.kind, [part.leaves for part in parts])
    ]


@router.asks("/aim")
def aim(request: HttpRequest, document: WhatIf) -> ProposalOut:
    """Find the nearest blend that meets the targets, or the closest that can be had and what stands against it."""
    typed = read_document(document, document.id)
    found = core_aim(typed.blend, typed.targets, typed.bounds)
    return _proposal(typed, found.lines, met=found.met, notes=found.conflicts, unchanged=found.unchanged)


@router.asks("/nudge")
def nudge(request: HttpRequest, document: NudgeWhatIf) -> ProposalOut:
    """Move a blend a little: sweeter, less salt, hotter, smokier, more herbal."""
    typed = read_document(document, document.id)
    found = core_nudge(typed.blend, document.towards)
    return _proposal(typed, found.lines, met=found.met, notes=found.conflicts, unchanged=found.unchanged)


@router.asks("/adapt")
def adapt(request: HttpRequest, document: AdaptWhatIf) -> ProposalOut:
    """Propose a branch for a meat, a fire, what cannot be eaten and what is not at hand; each change says why."""
    typed = read_document(document, document.id)
    found = core_adapt(
        typed.blend,
        document.for_meat,
        document.for_fire,
        frozenset(document.without),
        frozenset(document.lacking),
        frozenset(document.skip),
    )
    notes = list(found.notes)
    if not found.changes:
        notes.append("Nothing needs to change: it suits that already.")
    elif not found.lines:
        notes = ["Nothing would be left of it; leave one of the changes out."]
    return _proposal(
        typed, found.lines, found.changes, bool(found.lines), notes, unchanged=found.lines == typed.blend.lines
    )


@router.asks("/swaps")
def swaps(request: HttpRequest, document: SwapWhatIf) -> list[SwapOut]:
    """Return what can stand in a line's place, best first, and what each does to the salt."""
    typed = read_document(document, document.id)
    at, lines = document.line, typed.blend.lines
    if at >= len(lines):
        raise BadInput("line", "This line is not there any more.")
    before, sources = salt_percent(lines), catalogue().sources
    found = []
    for swap in core_swaps(lines[at], document.lines[at].swap):
        after = salt_percent([*lines[:at], swap.line, *lines[at + 1 :]])
        (line,) = written_lines([swap.line], typed)
        source = sources[swap.source]
        found.append(SwapOut(line, swap.kind, swap.name, swap.reason, source.title, source.mark, before, after))
    return found


@router.asks("/compare")
def compare(request: HttpRequest, document: CompareWhatIf) -> CompareOut:
    """Say how a blend differs from a kept revision."""
    typed = read_document(document, document.id)
    kept = (
        Revision.objects.filter(pk=document.against, blend__household=household(), kept_at__isnull=False)
        .select_related("blend")
        .prefetch_related("lines")
        .first()
    )
    if kept is None:
        raise Http404
    load_mixtures([], [kept])
    old = kept.blend.as_core(kept)
    same = same_mixture(old, typed.blend)
    bands = [Band(grind, share) for grind, share in flatten(old.lines).items()]
    if not old.lines or not typed.blend.lines:
        return CompareOut(DifferenceOfBlends([], []), same, bands)
    return CompareOut(_difference(read_blend(old), read_blend(typed.blend)), same, bands)


def _offers(key: UUID | None) -> dict[str, OfferOut]:
    """Return what the book knows to take of a blend, by key: blends that hold it, layers of the cook in hand."""
    if key is None:
        return {}
    found: dict[str, OfferOut] = {}
    holding = (
        Line.objects.filter(inside_id=key, revision__kept_at__isnull=True, revision__blend__deleted_at__isnull=True)
        .values_list("revision__blend_id", flat=True)
        .distinct()
    )
    outer = list(Blend.objects.filter(pk__in=holding))
    load_mixtures(outer)
    for row in outer:
        blend = row.as_core()
        at = next(i for i, line in enumerate(row.draft().lines.all()) if line.inside_id == key)
        try:
            mass = mass_inside(blend, at)
        except BadInput:
            continue
        found[f"blend:{row.pk}"] = OfferOut(f"blend:{row.pk}", f"in {row.name}, {row.batch_typed}", mass)
    layers = Layer.objects.filter(blend_id=key, piece__cook__in_hand=True).select_related("piece__cook")
    for layer in layers:
        try:
            reading = read_coat(layer.piece.seasoned(layer.piece.cook.appetite), cored=False)
        except BadInput:
            continue
        at = [other.pk for other in layer.piece.layers.all()].index(layer.pk)
        name = f"{layer.piece.name}, {layer.piece.cook.name}"
        found[f"layer:{layer.pk}"] = OfferOut(f"layer:{layer.pk}", name, reading.layers[at].dose_g)
    return found


@router.asks("/share-out")
def share_out(request: HttpRequest, document: WhatIf) -> SharedOut:
    """Share one batch out over its uses, and say what is left for the jar."""
    typed = read_document(document, document.id)
    offers = _offers(document.id)
    uses, found = [], []
    for use, mass in zip(document.uses, typed.masses_g, strict=True):
        known = offers.get(use.of)
        taken = known.mass_g if known else mass
        sentence = ""
        if taken is None:
            gone = "This use is not in the book any more; remove it or write a weight."
            sentence = gone if use.of else "How much of it? Write a weight; it is not counted yet."
        found.append(UseOut(taken, sentence))
        if taken is not None and taken >= 0.1:
            uses.append(Use(use.name, min(taken, 50_000.0)))
    shared = core_share_out(typed.batch_g, uses)
    return SharedOut(found, shared.taken, shared.left, shared.enough_g, list(offers.values()))


@router.reads("/{uuid:blend_id}/left-out")
def read_left_out(request: HttpRequest, blend_id: UUID) -> list[LeftOut]:
    """Return whom of those who eat here a blend leaves out, as it is saved; words that no table has are asked."""
    reading = read_blend(one_blend(blend_id).as_core(), spoon_set())
    rows = Taster.objects.filter(household=household(), deleted_at__isnull=True)
    told = (leaves_out(Eater(row.nickname, tuple(row.avoids), row.appetite), "", None, [reading]) for row in rows)
    return [one for one in told if one is not None]

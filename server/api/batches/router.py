"""Batches: a blend weighed out line by line, put right, tasted and corrected, and the jars on the shelf."""

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal, cast
from uuid import UUID

from book import batches as book
from book.mixtures import load_mixtures
from book.models import Batch, BatchLine, Blend, Jar, Pour, Stale, claim_version
from django.db import transaction
from django.db.models import Exists, F, OuterRef, Prefetch, Q, QuerySet
from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Schema
from pydantic import Field
from ravska_core.blend import Band, BlendReading, bands_of, read_blend, read_salt, say_step
from ravska_core.bowl import (
    TASTES,
    Change,
    Correction,
    JarFit,
    Rescue,
    Stand,
    allowed_g,
    as_weighed,
    corrections,
    jar_fill_percent,
    jar_for,
)
from ravska_core.bowl import rescues as core_rescues
from ravska_core.bowl import stand as core_stand
from ravska_core.catalogue import said_name
from ravska_core.cautions import Caution, Situation, cautions_for
from ravska_core.working import BadInput, Figure

from api.plumbing.answers import Created, Router
from api.plumbing.household import household, spoon_set
from api.plumbing.lists import NEVER, SPOILED, each_shown, rows_of
from api.plumbing.problems import Conflict
from api.plumbing.quantities import Grams, JarMass, WantedMass
from api.plumbing.typed import Number, Version
from api.plumbing.versions import VersionDocument

router = Router()


class BatchBegin(Schema):
    """What to weigh out: a blend at the version it was read, how much as typed, what the scale shows by [g]."""

    blend: UUID
    version: Version
    wanted: WantedMass
    resolution_g: Annotated[float, Field(ge=0.01, le=10)] = 0.1


class PourDocument(Schema):
    """A weight for one line of a batch. The key is the screen's own, so that one sent twice counts once."""

    version: Version
    line: UUID
    grams: Number
    how: Literal["weighed", "by hand", "spooned out"] = "weighed"
    key: UUID


class HandPour(Schema):
    """A weight that was typed in: what went in, or what was spooned out again."""

    version: Version
    line: UUID
    amount: Grams
    out: bool = False
    key: UUID


class RescueDocument(Schema):
    version: Version
    line: UUID
    choice: Literal["scale up", "accept", "spoon out"]


class EnoughDocument(Schema):
    """A line that is left short, as when the jar ran out."""

    version: Version
    line: UUID


class FinishDocument(Schema):
    version: Version
    size_ml: Annotated[float, Field(ge=1, le=50_000)]


class TasteDocument(Schema):
    taste: str
    strength: Literal["a little", "clearly", "a lot"] = "clearly"


class CorrectDocument(TasteDocument):
    """A correction that was chosen, by what it says."""

    version: Version
    says: str
    key: UUID


class JarDocument(Schema):
    """What of a jar changed: how much is left as typed, whether it is still clean, and whether it is frozen."""

    version: Version
    left: JarMass = JarMass("")
    clean: bool
    frozen: bool | None = None


@dataclass(frozen=True, slots=True)
class AdditionOut:
    name: str
    grams: float


@dataclass(frozen=True, slots=True)
class BatchLineOut:
    """A line in the order it is weighed: what is wanted and what lies in the bowl [g], and where that stands."""

    id: UUID
    name: str
    bands: Sequence[Band]
    wanted_g: float
    poured_g: float
    low_g: float
    high_g: float
    stand: Stand
    done: bool
    added: bool
    spoons: str


@dataclass(frozen=True, slots=True)
class JarRowOut:
    """A jar on the shelf, and what there is to be said of keeping it."""

    size_ml: float
    left_g: float
    clean: bool
    frozen: bool
    full: float
    cautions: Sequence[Caution]


State = Literal["weighing", "mixed", "left"]


@dataclass(frozen=True, slots=True)
class BatchOut:
    """A batch as it stands: what is in the bowl, which line is on now, and what it comes to so far."""

    id: UUID
    version: int
    blend: UUID
    name: str
    kind: str
    state: State
    started_at: datetime
    mixed_at: datetime | None
    resolution_g: float
    wanted_g: float
    poured_g: float
    lines: list[BatchLineOut]
    current: UUID | None
    rescues: Sequence[Rescue]
    last_pour: UUID | None
    salt_wanted: Figure | None
    salt: Figure | None
    finished_g: float
    steps: list[str]
    jar_fit: JarFit | None
    jar: JarRowOut | None


@dataclass(frozen=True, slots=True)
class BatchRow:
    """A batch in a list: what its jar is drawn from; `problem` says that it cannot be read, empty where it can."""

    id: UUID
    version: int
    blend: UUID
    name: str
    kind: str
    state: State
    started_at: datetime
    mixed_at: datetime | None
    wanted_g: float
    poured_g: float
    salt: Figure | None
    bands: Sequence[Band]
    jar: JarRowOut | None
    problem: str = ""


@dataclass(frozen=True, slots=True)
class TasteOut:
    key: str
    says: str


@dataclass(frozen=True, slots=True)
class CorrectionOut:
    """One way to put a taste right by adding, with what it does to every scale."""

    says: str
    why: str
    adds: list[AdditionOut]
    total_g: float
    changes: Sequence[Change]
    figure: Figure


def _rows() -> QuerySet[Batch]:
    pours = Prefetch("lines", queryset=BatchLine.objects.prefetch_related("pours"))
    found = Batch.objects.filter(household=household(), deleted_at__isnull=True)
    return found.select_related("blend", "revision", "jar").prefetch_related(pours)


def one_batch(batch_id: UUID) -> Batch:
    """Return a batch with its lines, its pours and what its revision holds."""
    found: Batch | None = _rows().filter(pk=batch_id).first()
    if found is None:
        raise Http404
    load_mixtures([], [found.revision])
    return found


@contextmanager
def _writing(batch_id: UUID, version: int, *states: str) -> Iterator[Batch]:
    """Claim a batch for one write; 409 with the other version when it was changed meanwhile."""
    try:
        with transaction.atomic():
            batch = one_batch(batch_id)
            claim_version(batch, version)
            if states and batch.state not in states:
                now = {"weighing": "is still being weighed", "mixed": "is mixed already", "left": "was left off"}
                raise BadInput("state", f"This batch {now[batch.state]}, so that cannot be done any more.")
            yield batch
    except Stale:
        raise Conflict(batch_out(one_batch(batch_id))) from None


def _line(batch: Batch, line_id: UUID) -> BatchLine:
    found = next((line for line in batch.lines.all() if line.pk == line_id), None)
    if found is None:
        raise BadInput("line", "This line is not in the batch any more; load it again.")
    return found


def _jar(batch: Batch, reading: BlendReading | None) -> JarRowOut | None:
    jar = getattr(batch, "jar", None)
    if jar is None:
        return None
    density, cautions = 1.0, tuple[Caution, ...]()
    if reading is not None:
        density = reading.density_g_ml
        kept = Situation(flags=reading.flags, fat_share=reading.fat_share, in_jar=True, frozen=jar.frozen)
        cautions = cautions_for(kept, ("garlic-oil",))
    full = jar_fill_percent(jar.left_g, density, jar.size_ml)
    return JarRowOut(jar.size_ml, jar.left_g, jar.clean, jar.frozen, full, cautions)


def batch_out(batch: Batch) -> BatchOut:
    """Return a batch, loaded through `one_batch`, as its document."""
    bowl = book.in_bowl(batch)
    spoons = spoon_set()
    # the lines as wanted now; what a correction brought in is wanted by weight
    reading = read_blend(as_weighed(bowl.blend, [max(0.001, g) for g in bowl.wanted_g], False), spoons)
    by_row = {row.pk: at for at, row in enumerate(bowl.lines)}
    lines = []
    for row in batch.lines.all():
        at = by_row[row.pk]
        wanted, now = bowl.wanted_g[at], bowl.poured_g[at]
        low, high = allowed_g(wanted, batch.resolution_g)
        lines.append(
            BatchLineOut(
                id=row.pk,
                name=row.name,
                bands=reading.lines[at].bands,
                wanted_g=wanted,
                poured_g=now,
                low_g=low,
                high_g=high,
                stand=core_stand(wanted, now, batch.resolution_g),
                done=row.done,
                added=row.line is None,
                spoons=reading.lines[at].spoons.text,
            )
        )
    current = next((line for line in lines if not line.done), None) if batch.state == "weighing" else None
    rescues: Sequence[Rescue] = ()
    if current is not None and current.stand == "over":
        at = by_row[current.id]
        rescues = core_rescues(bowl.blend, bowl.wanted_g, bowl.poured_g, at)
    weighed = book.read_bowl(batch, bowl, spoons)
    pours = [pour for row in batch.lines.all() for pour in row.pours.all()]
    last = max(pours, key=lambda pour: pour.number, default=None)
    method = bowl.blend.method
    names = [line.name for line in reading.lines]
    return BatchOut(
        id=batch.pk,
        version=batch.version,
        blend=batch.blend_id,
        name=batch.name,
        kind=batch.blend.kind,
        state=cast(State, batch.state),
        started_at=batch.started_at,
        mixed_at=batch.mixed_at,
        resolution_g=batch.resolution_g,
        wanted_g=batch.wanted_g,
        poured_g=sum(bowl.poured_g),
        lines=lines,
        current=current.id if current else None,
        rescues=rescues,
        last_pour=last.key if last and batch.state == "weighing" else None,
        salt_wanted=read_salt(bowl.recipe),
        salt=weighed.salt if weighed else None,
        finished_g=weighed.finished.value if weighed else 0.0,
        steps=[say_step(step, names) for step in method],
        jar_fit=jar_for(weighed.volume) if weighed else None,
        jar=_jar(batch, weighed) if weighed else None,
    )


@router.reads("")
def list_batches(request: HttpRequest) -> list[BatchRow]:
    """Return the household's batches, newest first: those being weighed and the jars on the shelf."""
    # one that was only looked at, with nothing in its bowl, is no jar
    begun = Exists(Pour.objects.filter(line__batch=OuterRef("pk")))
    batches, lost = rows_of(_rows().filter(~Q(state="weighing") | begun))
    load_mixtures([], [batch.revision for batch in batches])
    return [*each_shown(batches, _row, _spoiled), *(_lost(key) for key in lost)]


def _row(batch: Batch) -> BatchRow:
    weighed = book.read_bowl(batch, bowl := book.in_bowl(batch))
    return BatchRow(
        id=batch.pk,
        version=batch.version,
        blend=batch.blend_id,
        name=batch.name,
        kind=batch.blend.kind,
        state=cast(State, batch.state),
        started_at=batch.started_at,
        mixed_at=batch.mixed_at,
        wanted_g=batch.wanted_g,
        poured_g=sum(bowl.poured_g),
        salt=weighed.salt if weighed else None,
        bands=bands_of(weighed.leaves) if weighed else (),
        jar=_jar(batch, weighed),
    )


def _spoiled(batch: Batch) -> BatchRow:
    return BatchRow(
        batch.pk, batch.version, batch.blend_id, batch.name, batch.blend.kind, cast(State, batch.state),
        batch.started_at or NEVER, batch.mixed_at, batch.wanted_g, 0.0, None, (), None, SPOILED,
    )  # fmt: skip


def _lost(key: UUID) -> BatchRow:
    name, version, blend = Batch.objects.values_list("name", "version", "blend_id").get(pk=key)
    return BatchRow(key, version, blend, name, "", "left", NEVER, None, 0.0, 0.0, None, (), None, SPOILED)


@router.posts("")
def begin_batch(request: HttpRequest, document: BatchBegin) -> Created[BatchOut]:
    """Begin to weigh a blend out; it is kept as it is now."""
    wanted = document.wanted.read("wanted")
    with transaction.atomic():
        blend = Blend.objects.filter(pk=document.blend, household=household(), deleted_at__isnull=True).first()
        if blend is None:
            raise Http404
        claim_version(blend, document.version)
        batch = book.begin_batch(household(), blend, wanted, document.resolution_g)
    return Created(batch_out(one_batch(batch.pk)))


@router.reads("/{uuid:batch_id}")
def get_batch(request: HttpRequest, batch_id: UUID) -> BatchOut:
    """Return a batch as it stands."""
    return batch_out(one_batch(batch_id))


@router.posts("/{uuid:batch_id}/pour")
def pour(request: HttpRequest, batch_id: UUID, document: PourDocument) -> BatchOut:
    """Note what the scale showed for a line; met, the next one is on."""
    return _poured(batch_id, document)


def _poured(batch_id: UUID, document: PourDocument) -> BatchOut:
    if Pour.objects.filter(key=document.key, line__batch_id=batch_id).exists():
        return batch_out(one_batch(batch_id))  # it arrived before, only its answer was lost
    with _writing(batch_id, document.version, "weighing") as batch:
        row = _line(batch, document.line)
        book.pour(batch, row, document.grams, document.how, document.key)
        book.settle_line(batch, row)
    return batch_out(one_batch(batch_id))


@router.posts("/{uuid:batch_id}/pour-by-hand")
def pour_by_hand(request: HttpRequest, batch_id: UUID, document: HandPour) -> BatchOut:
    """Note a weight that was read off another scale and typed in."""
    grams = document.amount.read("amount")
    sent = PourDocument(
        version=document.version, line=document.line, grams=-grams if document.out else grams,
        how="spooned out" if document.out else "by hand", key=document.key,
    )  # fmt: skip
    return _poured(batch_id, sent)


@router.posts("/{uuid:batch_id}/take-back")
def take_back(request: HttpRequest, batch_id: UUID, document: VersionDocument) -> BatchOut:
    """Take the last pour back, as when the wrong jar was at hand and nothing went in."""
    with _writing(batch_id, document.version, "weighing") as batch:
        last = book.last_pour(batch)
        if last is None:
            raise BadInput("pour", "Nothing was weighed yet.")
        row = last.line
        last.delete()
        book.settle_line(batch, row)
    return batch_out(one_batch(batch_id))


@router.posts("/{uuid:batch_id}/rescue")
def rescue(request: HttpRequest, batch_id: UUID, document: RescueDocument) -> BatchOut:
    """Put an overshoot right: scale the batch up, accept it, or spoon it out while it lies on top."""
    with _writing(batch_id, document.version, "weighing") as batch:
        bowl = book.in_bowl(batch)
        row = _line(batch, document.line)
        book.rescue(batch, bowl, next(at for at, x in enumerate(bowl.lines) if x.pk == row.pk), document.choice)
    return batch_out(one_batch(batch_id))


@router.posts("/{uuid:batch_id}/enough")
def enough(request: HttpRequest, batch_id: UUID, document: EnoughDocument) -> BatchOut:
    """Leave a line as it is although it is short."""
    with _writing(batch_id, document.version, "weighing") as batch:
        row = _line(batch, document.line)
        BatchLine.objects.filter(pk=row.pk).update(done=True)
    return batch_out(one_batch(batch_id))


@router.posts("/{uuid:batch_id}/finish")
def finish(request: HttpRequest, batch_id: UUID, document: FinishDocument) -> BatchOut:
    """Put the batch on the shelf with what was really weighed."""
    with _writing(batch_id, document.version, "weighing") as batch:
        if any(not row.done for row in batch.lines.all()):
            raise BadInput("state", "Something is still to be weighed; weigh it, or say that it is enough.")
        weighed = book.read_bowl(batch, book.in_bowl(batch))
        if weighed is None:
            raise BadInput("state", "There is nothing in the bowl; weigh something first.")
        book.fill_jar(batch, weighed.finished.value, document.size_ml)
    return batch_out(one_batch(batch_id))


@router.posts("/{uuid:batch_id}/leave")
def leave(request: HttpRequest, batch_id: UUID, document: VersionDocument) -> VersionDocument:
    """Take a batch off the list; `restore` brings it back with all that was weighed."""
    with _writing(batch_id, document.version) as batch:
        Batch.objects.filter(pk=batch.pk).update(deleted_at=timezone.now())
    return VersionDocument(version=batch.version)


@router.posts("/{uuid:batch_id}/restore")
def restore(request: HttpRequest, batch_id: UUID) -> BatchOut:
    """Bring a batch back."""
    mine = Batch.objects.filter(pk=batch_id, household=household())
    if not mine.update(deleted_at=None, version=F("version") + 1):
        raise Http404
    return batch_out(one_batch(batch_id))


@router.reads("/tastes")
def list_tastes(request: HttpRequest) -> list[TasteOut]:
    """Return what can be said after tasting."""
    return [TasteOut(taste.key, taste.says) for taste in TASTES.values()]


def _correction_out(found: Correction, names: list[str]) -> CorrectionOut:
    adds = [AdditionOut(names[line], grams) for line, grams in found.lines]
    adds += [AdditionOut(said_name(key), grams) for key, grams in found.adds]
    return CorrectionOut(found.says, found.why, adds, found.total_g, found.changes, found.figure)


def _corrections(batch: Batch, document: TasteDocument) -> tuple[book.InBowl, tuple[Correction, ...]]:
    bowl = book.in_bowl(batch)
    return bowl, corrections(bowl.blend, bowl.poured_g, document.taste, document.strength)


@router.asks("/{uuid:batch_id}/tasted")
def tasted(request: HttpRequest, batch_id: UUID, document: TasteDocument) -> list[CorrectionOut]:
    """Say what could be added to put a taste right, and what each does to the rest. Nothing is saved."""
    bowl, found = _corrections(one_batch(batch_id), document)
    return [_correction_out(x, [row.name for row in bowl.lines]) for x in found]


@router.posts("/{uuid:batch_id}/correct")
def correct(request: HttpRequest, batch_id: UUID, document: CorrectDocument) -> BatchOut:
    """Note that a correction went into the bowl."""
    with _writing(batch_id, document.version, "mixed") as batch:
        bowl, found = _corrections(batch, document)
        chosen = next((x for x in found if x.says == document.says), None)
        if chosen is None:
            raise BadInput("says", "What is in the bowl has changed since; taste and choose again.")
        book.correct(batch, bowl, chosen, document.key)
    return batch_out(one_batch(batch_id))


@router.puts("/{uuid:batch_id}/jar")
def save_jar(request: HttpRequest, batch_id: UUID, document: JarDocument) -> BatchOut:
    """Say how much is left in a jar, and whether raw-meat hands touched it."""
    with _writing(batch_id, document.version, "mixed") as batch:
        jar = Jar.objects.get(batch=batch)
        if document.left:
            jar.left_g = document.left.read("left")
        if document.clean and not jar.clean:
            raise BadInput(
                "clean", "What raw-meat hands touched never gets clean again; use it up now or throw it away."
            )
        jar.clean = document.clean
        jar.frozen = jar.frozen if document.frozen is None else document.frozen
        jar.save(update_fields=["left_g", "clean", "frozen"])
    return batch_out(one_batch(batch_id))

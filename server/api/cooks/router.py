"""Cooks: the one in hand, the ways to begin another, saving, and what is done to one."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from book.cooks import Beginning, begin_cook, take_in_hand
from book.days import forget_others
from book.evening import even_faces, even_layers, even_salt, even_times, even_weights
from book.models import LETTERS, Blend, Cook, Stale, Step, claim_version
from book.tasting import check_untasted, new_codes
from django.db import transaction
from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Schema
from pydantic import AfterValidator, AwareDatetime, Field
from ravska_core.meat import find_cut, usual_mass_g
from ravska_core.trial import MOST_SAMPLES
from ravska_core.working import BadInput

from api.cooks.documents import CookSave
from api.cooks.shown import (
    BoardOut,
    CookOut,
    TrialMarkOut,
    board_out,
    cook_out,
    own_faults,
    trial_mark,
    typed_own,
)
from api.cooks.store import cooks, load, one_cook, one_typed, read_board, typed_cooks, write_cook
from api.cooks.ticking import tick_step
from api.plumbing.answers import Created, Router
from api.plumbing.household import household
from api.plumbing.lists import NEVER, SPOILED, each_shown, rows_of
from api.plumbing.problems import Conflict, Gather
from api.plumbing.quantities import Duration, Masses
from api.plumbing.typed import Key, Name, Version, printable
from api.plumbing.versions import VersionDocument

router = Router()

TOO_MANY = f"{MOST_SAMPLES} pieces are tasted against each other at most; set the others beside them."


@dataclass(frozen=True, slots=True)
class InHandOut:
    """The household and its cook in hand, if there is one."""

    household: str
    cook: BoardOut | None


@dataclass(frozen=True, slots=True)
class CookRow:
    """A cook in a list, with the names of its pieces in order; `problem` says that it cannot be read, else empty."""

    id: UUID
    name: str
    serve_at: datetime
    in_hand: bool
    version: int
    pieces: list[str]
    trial: TrialMarkOut | None
    problem: str = ""


class BeginningDocument(Schema):
    """A piece to begin with: its meat, its blend, and whether it is to be tasted against another.

    Without a name it has its blend's way or its cut's, without a weight the usual one, without a blend no layer yet.
    """

    name: Annotated[str, Field(max_length=40), AfterValidator(printable)] = ""
    cut: Key
    mass: Masses = Masses("")
    blend_id: UUID | None = None
    tasted: bool = True


class NewCook(Schema):
    """A cook to begin; of two pieces or more, six at most are tasted against each other."""

    name: Name
    serve_at: AwareDatetime
    pieces: Annotated[list[BeginningDocument], Field(min_length=1, max_length=len(LETTERS))]


class TickDocument(Schema):
    """Tick a step or take the tick away, or set how long it lasts."""

    version: Version
    done: bool | None = None
    lasts: Duration | None = None


class EvenDocument(Schema):
    """What to even out between the pieces that are tasted."""

    version: Version
    what: Literal["salt", "fire", "rest", "bare face", "weight", "layers on both", "layers off"]


def _board(cook_id: UUID) -> BoardOut:
    return board_out(one_cook(cook_id))


@router.reads("/in-hand")
def read_in_hand(request: HttpRequest) -> InHandOut:
    """Return the cook in hand as it stands."""
    cook = cooks().filter(in_hand=True).first()
    mine = cook.household if cook else household()
    return InHandOut(household=mine.name, cook=board_out(load(cook)) if cook else None)


@router.reads("")
def list_cooks(request: HttpRequest) -> list[CookRow]:
    """Return all cooks, the latest serving first."""
    found, lost = rows_of(typed_cooks().prefetch_related(None).prefetch_related("pieces"))
    return [*each_shown(found, _row, _spoiled), *(_lost(key) for key in lost)]


def _row(cook: Cook) -> CookRow:
    return CookRow(
        cook.pk, cook.name, cook.serve_at, cook.in_hand, cook.version,
        [piece.name for piece in cook.pieces.all()], trial_mark(cook),
    )  # fmt: skip


def _spoiled(cook: Cook) -> CookRow:
    return CookRow(cook.pk, cook.name, cook.serve_at or NEVER, cook.in_hand, cook.version, [], None, SPOILED)


def _lost(key: UUID) -> CookRow:
    name, in_hand, version = Cook.objects.values_list("name", "in_hand", "version").get(pk=key)
    return CookRow(key, name, NEVER, in_hand, version, [], None, SPOILED)


@router.posts("")
def begin(request: HttpRequest, document: NewCook) -> Created[CookOut]:
    """Begin a cook and take it in hand."""
    gather = Gather()
    gather.errors += own_faults(document.name, document.serve_at, None)
    if sum(piece.tasted for piece in document.pieces) > MOST_SAMPLES:
        gather.refuse("pieces", TOO_MANY)
    beginnings = []
    for at, piece in enumerate(document.pieces):
        place = f"pieces.{at}"
        cut = gather.attempt(place, find_cut, piece.cut)
        usual = Masses(f"{usual_mass_g(cut):g} g") if cut else Masses("")
        typed = piece.mass if piece.mass.strip() or not cut else usual
        mass = gather.attempt(place, typed.of, 1, "mass")
        blend = _blend(piece.blend_id, f"{place}.blend_id", gather)
        if mass is not None and cut is not None:
            name = piece.name.strip() or (WAY_NAMES.get(blend.kind, "") if blend else "") or cut.name[:40]
            beginnings.append(
                Beginning(name, piece.cut, mass.mass_g, typed, blend, piece.tasted, mass.count, mass.masses_g)
            )
    gather.finish()
    cook = begin_cook(household(), document.name, document.serve_at, beginnings)
    return Created(cook_out(one_typed(cook.pk)))


WAY_NAMES = {"dry rub": "Rubbed", "marinade": "Marinated", "injection": "Injected", "finishing salt": "Salted"}


def _blend(blend_id: UUID | None, field: str, gather: Gather) -> Blend | None:
    """Return the blend a piece begins with; one that is gone, or empty, is refused at its field."""
    if blend_id is None:
        return None
    mine = Blend.objects.filter(pk=blend_id, household=household(), deleted_at__isnull=True)
    blend = mine.with_drafts().first()
    if blend is None:
        gather.refuse(field, "This blend is not in the book any more; choose another.")
    elif not blend.draft().lines.all():
        gather.refuse(field, "There is nothing in this blend yet; add an ingredient to it first.")
    return blend


@router.reads("/{uuid:cook_id}")
def get_cook(request: HttpRequest, cook_id: UUID) -> CookOut:
    """Return a cook as typed."""
    return cook_out(one_typed(cook_id))


@router.puts("/{uuid:cook_id}")
def save_cook(request: HttpRequest, cook_id: UUID, document: CookSave) -> CookOut:
    """Save a cook as typed; 409 with the other version when it was changed meanwhile.

    What cannot be read is kept as typed beside what it was last read as, and named in `errors`; all else is saved.
    """
    letters = [piece.letter for piece in document.pieces]
    if len(set(letters)) != len(letters):
        raise BadInput("pieces", "Send every piece of this cook once, each under a letter of its own.")
    if sum(piece.tasted for piece in document.pieces) > MOST_SAMPLES:
        raise BadInput("pieces", TOO_MANY)
    try:
        with transaction.atomic():
            cook = _claim(cook_id, document.version)
            found, blends = read_board(cook_id, document)
            _write_own(cook, document)
            write_cook(cook, document, found, blends)
            forget_others(cook, letters)
    except Stale:
        raise Conflict(cook_out(one_typed(cook_id))) from None
    return cook_out(one_typed(cook_id))


def _write_own(cook: Cook, document: CookSave) -> None:
    """Write what a cook says of itself; what cannot be is kept as typed beside what it was."""
    wrong = own_faults(document.name, document.serve_at, document.eaters)
    cook.unread = {error.argument: typed_own(document, error.argument) for error in wrong}
    if "name" not in cook.unread:
        cook.name = document.name
    moved = "serve_at" not in cook.unread and cook.serve_at != document.serve_at
    if moved:
        cook.serve_at = document.serve_at
    if "eaters" not in cook.unread:
        cook.eaters = document.eaters
    cook.appetite, cook.note = document.appetite, document.note
    cook.save(update_fields=["name", "serve_at", "eaters", "appetite", "note", "unread"])
    if moved:
        new_codes(cook)


@router.posts("/{uuid:cook_id}/take")
def take(request: HttpRequest, cook_id: UUID) -> BoardOut:
    """Make this the cook in hand."""
    with transaction.atomic():
        take_in_hand(_mine(cook_id))
    return _board(cook_id)


@router.posts("/{uuid:cook_id}/delete")
def delete_cook(request: HttpRequest, cook_id: UUID, document: VersionDocument) -> VersionDocument:
    """Take a cook off the list; `restore` brings it back with all its cards."""
    with transaction.atomic():
        cook = _claim(cook_id, document.version)
        Cook.objects.filter(pk=cook_id).update(deleted_at=timezone.now(), in_hand=False)
    return VersionDocument(version=cook.version)


@router.posts("/{uuid:cook_id}/restore")
def restore_cook(request: HttpRequest, cook_id: UUID) -> BoardOut:
    """Undo a delete and take the cook in hand again when no other is."""
    with transaction.atomic():
        mine = Cook.objects.filter(household=household())
        free = not mine.filter(in_hand=True).exclude(pk=cook_id).exists()
        if not mine.filter(pk=cook_id).update(deleted_at=None):
            raise Http404
        if free:
            mine.filter(pk=cook_id).update(in_hand=True)
    return _board(cook_id)


def _mine(cook_id: UUID) -> Cook:
    cook = Cook.objects.select_related("trial").filter(pk=cook_id, household=household(), deleted_at__isnull=True)
    found = cook.first()
    if found is None:
        raise Http404
    return found


def _claim(cook_id: UUID, version: int) -> Cook:
    cook = _mine(cook_id)
    claim_version(cook, version)
    return cook


@router.posts("/{uuid:cook_id}/steps/{uuid:step_id}")
def tick(request: HttpRequest, cook_id: UUID, step_id: UUID, document: TickDocument) -> BoardOut:
    """Tick a step, or set its length. Ticking the mixing keeps the blend as it is mixed now."""
    try:
        with transaction.atomic():
            cook = _claim(cook_id, document.version)
            step = Step.objects.select_related("layer").filter(pk=step_id, piece__cook=cook).first()
            if step is None:
                raise Http404
            if document.lasts is not None:
                if step.layer is not None and step.layer.hold_s is not None:
                    raise BadInput("lasts", "This step lasts as long as its hold; change the hold in Coat.")
                if step.kind == "plate":
                    raise BadInput("lasts", "Plating is the end; move the serving time instead.")
                step.lasts_s = document.lasts.read("lasts")
            if document.done is not None:
                tick_step(cook, step, timezone.now() if document.done else None)
            step.save(update_fields=["lasts_s"])
    except Stale:
        raise Conflict(_board(cook_id)) from None
    return _board(cook_id)


@router.posts("/{uuid:cook_id}/even")
def even_out(request: HttpRequest, cook_id: UUID, document: EvenDocument) -> BoardOut:
    """Even out one difference: salt towards what is wanted, or usual; times by taking the longest; weights by lot;
    layers by putting what only one has on both, or leaving it off."""
    try:
        with transaction.atomic():
            cook = _claim(cook_id, document.version)
            check_read(cook)
            if document.what not in ("fire", "rest"):
                check_untasted(cook, "what")
            if document.what == "salt":
                even_salt(cook)
            elif document.what == "bare face":
                even_faces(cook)
            elif document.what == "weight":
                even_weights(cook, f"{cook.trial.seed} {document.version}")
            elif document.what.startswith("layers"):
                even_layers(cook, document.what == "layers on both")
            else:
                even_times(cook, {"fire": "on", "rest": "rest"}[document.what])
    except Stale:
        raise Conflict(_board(cook_id)) from None
    return _board(cook_id)


def check_read(cook: Cook) -> None:
    """Refuse to even out what rests on something that could not be read."""
    unread = cook.pieces.filter(sample__isnull=False, unread__isnull=False).first()
    if unread is not None:
        raise BadInput("what", f"Something of {unread.name} could not be read; put it right in Coat first.")

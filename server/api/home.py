"""Home: the cook in hand, its next step, and the ways to begin another."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Annotated, Literal
from uuid import UUID

from book.cooks import Beginning, begin_cook, check_untasted, copy_cook, even_salt, pin_layer
from book.models import Blend, Cook, Look, Piece, Stale, Step, Taster, claim_version
from django.db import transaction
from django.http import Http404
from django.utils import timezone
from ninja import Router, Schema, Status
from pydantic import AwareDatetime, Field
from ravska_core.measure import parse_duration_s, parse_mass_g
from ravska_core.meat import find_cut
from ravska_core.working import BadInput

from api.cook_document import CookOut, cook_out, cooks, one_cook
from api.documents import VersionDocument, sends
from api.household import household
from api.problems import ANSWERS, Conflict, Gather
from api.typed import Key, Name, Typed, Version

router = Router(tags=["home"])


@dataclass(frozen=True, slots=True)
class HomeOut:
    """The household and its cook in hand, if there is one."""

    household: str
    cook: CookOut | None


@dataclass(frozen=True, slots=True)
class CookRow:
    id: UUID
    name: str
    serve_at: datetime
    in_hand: bool
    version: int
    arms: list[str]
    cards: int
    trial_id: UUID


class BeginningDocument(Schema):
    name: Annotated[Name, Field(max_length=40)]
    cut: Key
    mass: Typed
    blend_id: UUID


class NewCook(Schema):
    """A cook to begin: one piece, or two arms to compare, each with its meat and its blend."""

    name: Name
    serve_at: AwareDatetime
    arms: Annotated[list[BeginningDocument], Field(min_length=1, max_length=2)]


class TickDocument(Schema):
    """Tick a step or take the tick away, or set how long it lasts."""

    version: Version
    done: bool | None = None
    lasts: Typed | None = None


class EvenDocument(Schema):
    """What to even out between the arms."""

    version: Version
    what: Literal["salt", "fire", "rest", "bare face"]


@router.get("/home", response={200: HomeOut, **ANSWERS})
@sends
def read_home(request) -> HomeOut:
    """Return the cook in hand as it stands."""
    mine = household()
    cook = cooks(mine).filter(in_hand=True).first()
    return HomeOut(household=mine.name, cook=cook_out(cook) if cook else None)


@router.get("/cooks", response=list[CookRow])
@sends
def list_cooks(request) -> list[CookRow]:
    """Return all cooks, the latest serving first."""
    return [
        CookRow(
            id=cook.id,
            name=cook.name,
            serve_at=cook.serve_at,
            in_hand=cook.in_hand,
            version=cook.version,
            arms=[arm.name for arm in cook.trial.arms.all()],
            cards=sum(1 for card in cook.trial.cards.all() if card.deleted_at is None),
            trial_id=cook.trial.id,
        )
        for cook in Cook.objects.filter(household=household(), deleted_at__isnull=True)
        .select_related("trial")
        .prefetch_related("trial__arms", "trial__cards")
    ]


@router.post("/cooks", response={201: CookOut, **ANSWERS})
@sends
def begin(request, document: NewCook):
    """Begin a cook and take it in hand."""
    gather = Gather()
    if not 2000 <= document.serve_at.year <= 2100:
        gather.refuse("serve_at", "Serve between the years 2000 and 2100.")
    beginnings = []
    for at, arm in enumerate(document.arms):
        mass = gather.attempt(f"arms.{at}", lambda arm=arm: parse_mass_g(arm.mass, "mass"))
        try:
            find_cut(arm.cut)
        except BadInput as refusal:
            gather.refuse(f"arms.{at}.cut", refusal.sentence)
        blend = (
            Blend.objects.filter(pk=arm.blend_id, household=household(), deleted_at__isnull=True).with_drafts().first()
        )
        if blend is None:
            gather.refuse(f"arms.{at}.blend_id", "This blend is not in the book any more; choose another.")
        elif not blend.draft().lines.all():
            gather.refuse(f"arms.{at}.blend_id", "There is nothing in this blend yet; add an ingredient to it first.")
        if mass is not None and blend is not None:
            beginnings.append(Beginning(arm.name, arm.cut, mass, arm.mass, blend))
    gather.finish()
    cook = begin_cook(household(), document.name, document.serve_at, beginnings)
    return Status(201, cook_out(one_cook(cook.id)))


@router.post("/cooks/{uuid:cook_id}/take", response={200: CookOut, **ANSWERS})
@sends
def take_in_hand(request, cook_id: UUID) -> CookOut:
    """Make this the cook in hand."""
    with transaction.atomic():
        one_cook(cook_id)
        Cook.objects.filter(household=household(), in_hand=True).update(in_hand=False)
        Cook.objects.filter(pk=cook_id).update(in_hand=True)
    return cook_out(one_cook(cook_id))


@router.post("/cooks/{uuid:cook_id}/delete", response={200: VersionDocument, **ANSWERS})
@sends
def delete_cook(request, cook_id: UUID, document: VersionDocument) -> VersionDocument:
    """Take a cook off the list; `restore` brings it back with all its cards."""
    with transaction.atomic():
        cook = one_cook(cook_id)
        claim_version(cook, document.version)
        Cook.objects.filter(pk=cook_id).update(deleted_at=timezone.now(), in_hand=False)
    return VersionDocument(version=cook.version)


@router.post("/cooks/{uuid:cook_id}/restore", response={200: CookOut, **ANSWERS})
@sends
def restore_cook(request, cook_id: UUID) -> CookOut:
    """Undo a delete and take the cook in hand again when no other is."""
    with transaction.atomic():
        mine = Cook.objects.filter(household=household())
        free = not mine.filter(in_hand=True).exclude(pk=cook_id).exists()
        if not mine.filter(pk=cook_id).update(deleted_at=None):
            raise Http404
        if free:
            mine.filter(pk=cook_id).update(in_hand=True)
    return cook_out(one_cook(cook_id))


def _claim(cook_id: UUID, version: int) -> Cook:
    cook = one_cook(cook_id)
    claim_version(cook, version)
    return cook


def _mix(cook: Cook, step: Step, done: bool) -> None:
    """Pin every blend of the piece as it is mixed now; or let it follow its draft again, until cards are in."""
    layers = step.piece.layers.filter(blend__isnull=False).select_related("blend")
    for layer in layers:
        assert layer.blend is not None
        if done:
            if not layer.blend.draft().lines.exists():
                sentence = f"There is nothing in {layer.blend.name} yet; add an ingredient to it first."
                raise BadInput("done", sentence)
            pin_layer(layer, cook)
        elif not cook.trial.cards.filter(deleted_at__isnull=True).exists():
            layer.revision = None
            layer.save(update_fields=["revision"])


@router.post("/cooks/{uuid:cook_id}/steps/{uuid:step_id}", response={200: CookOut, **ANSWERS})
@sends
def tick(request, cook_id: UUID, step_id: UUID, document: TickDocument) -> CookOut:
    """Tick a step, or set its length. Ticking the mixing keeps the blend as it is mixed now."""
    try:
        with transaction.atomic():
            cook = _claim(cook_id, document.version)
            step = Step.objects.select_related("layer", "piece").filter(pk=step_id, piece__cook=cook).first()
            if step is None:
                raise Http404
            if document.lasts is not None:
                if step.layer is not None:
                    raise BadInput("lasts", "This step lasts as long as its hold; change the hold in Coat.")
                if step.kind == "plate":
                    raise BadInput("lasts", "Plating is the end; move the serving time instead.")
                step.lasts_s = parse_duration_s(document.lasts, "lasts")
            if document.done is not None:
                step.done_at = timezone.now() if document.done else None
                if step.kind == "mix":
                    _mix(cook, step, document.done)
            step.save(update_fields=["lasts_s", "done_at"])
    except Stale:
        raise Conflict(cook_out(one_cook(cook_id))) from None
    return cook_out(one_cook(cook_id))


@router.post("/cooks/{uuid:cook_id}/even", response={200: CookOut, **ANSWERS})
@sends
def even_out(request, cook_id: UUID, document: EvenDocument) -> CookOut:
    """Even out one difference: salt towards what is wanted, or usual, on both; times by taking the longer for both."""
    try:
        with transaction.atomic():
            cook = _claim(cook_id, document.version)
            if document.what in ("salt", "bare face"):
                check_untasted(cook, "what")
            if document.what == "salt":
                even_salt(cook)
            elif document.what == "bare face":
                for piece in Piece.objects.filter(cook=cook):
                    # what nothing is said of is done as usual: a fat cap left bare, the skin of a bird coated
                    piece.faces = {face: done for face, done in piece.faces.items() if done not in ("coated", "bare")}
                    piece.save(update_fields=["faces"])
            else:
                kind = {"fire": "on", "rest": "rest"}[document.what]
                steps = Step.objects.filter(piece__cook=cook, kind=kind)
                steps.update(lasts_s=max(step.lasts_s for step in steps))
    except Stale:
        raise Conflict(cook_out(one_cook(cook_id))) from None
    return cook_out(one_cook(cook_id))


WEEK = timedelta(days=7)


@router.post("/cooks/{uuid:cook_id}/copy", response={201: CookOut, **ANSWERS})
@sends
def copy(request, cook_id: UUID):
    """Begin a cook like this one and take it in hand, a week or more later; what was tasted stays as it was."""
    cook = one_cook(cook_id)
    weeks = max(1, -((cook.serve_at - timezone.now()) // WEEK))
    made = copy_cook(cook, cook.serve_at + weeks * WEEK)
    return Status(201, cook_out(one_cook(made.pk)))


class LookDocument(Schema):
    """Who looks at which plate is which, as whoever plates has to."""

    who: Annotated[Name, Field(max_length=40)]


@dataclass(frozen=True, slots=True)
class PlatingOut:
    """Which number an arm is plated under."""

    label: str
    code: str


@dataclass(frozen=True, slots=True)
class PlatesOut:
    """The plates by arm, and who has seen them: their cards are not blind."""

    plates: list[PlatingOut]
    seen_by: list[str]


@router.post("/cooks/{uuid:cook_id}/plating", response={200: PlatesOut, **ANSWERS})
@sends
def look_at_plating(request, cook_id: UUID, document: LookDocument) -> PlatesOut:
    """Tell the plate numbers by arm, and write down who looked: no other answer tells them before the reveal."""
    trial = one_cook(cook_id).trial
    samples = list(trial.samples.select_related("arm").order_by("arm__label"))
    if not samples:
        raise BadInput("who", "No two pieces of this cook are compared, so there are no numbers to plate under.")
    with transaction.atomic():
        taster, _ = Taster.objects.get_or_create(household=household(), nickname=document.who)
        Look.objects.get_or_create(trial=trial, taster=taster)
    seen = trial.looks.select_related("taster").values_list("taster__nickname", flat=True)
    return PlatesOut([PlatingOut(label=s.arm.label, code=s.code) for s in samples], list(seen))

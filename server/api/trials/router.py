"""Table: blind tasting cards, and the reveal."""

from dataclasses import dataclass
from typing import Annotated
from uuid import UUID

from book.cooks import pin_cook
from book.models import Card, Score, Taster, Trial
from django.db import transaction
from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Schema
from pydantic import Field
from ravska_core.trial import LIKING_SCALES, MOST_CARDS, SALT_SCALE, scale_limits, serving_order
from ravska_core.working import BadInput

from api.plumbing.answers import Created, Router
from api.plumbing.household import household
from api.plumbing.problems import Gather
from api.plumbing.typed import Name

router = Router()

Code = Annotated[str, Field(pattern=r"^\d{3}$")]


@dataclass(frozen=True, slots=True)
class ScaleOut:
    """A scale of the card with its limits; `salt` is just-about-right with 3 in the middle."""

    name: str
    low: int
    high: int


@dataclass(frozen=True, slots=True)
class CardOut:
    id: UUID
    taster: str
    served: list[str]
    blind: bool
    prefers: str | None


@dataclass(frozen=True, slots=True)
class RevealOut:
    """Which piece a code was, told only after the reveal."""

    code: str
    letter: str
    name: str


@dataclass(frozen=True, slots=True)
class TableOut:
    """A trial as its tasters see it: codes, the next serving order, cards in. No names of pieces until the reveal.

    `planned_cards` is how many it takes, stated before the first is in; `seen_by` names who looked at the plating.
    `missing` says what it takes to taste anything, empty when two pieces are there.
    """

    trial_id: UUID
    cook_id: UUID
    cook: str
    question: str
    codes: list[str]
    next_order: list[str]
    scales: list[ScaleOut]
    cards: list[CardOut]
    planned_cards: int
    tasters: list[str]
    seen_by: list[str]
    revealed: list[RevealOut] | None
    missing: str


class ScoreDocument(Schema):
    code: Code
    scale: Annotated[str, Field(max_length=20)]
    value: Annotated[int, Field(ge=1, le=9)]


class CardDocument(Schema):
    """A card as filled in: who, the order served, scores, and the code preferred, if any."""

    taster: Annotated[Name, Field(max_length=40)]
    served: Annotated[list[Code], Field(max_length=8)]
    scores: Annotated[list[ScoreDocument], Field(max_length=100)]
    prefers: Code | None = None


def _trial(trial_id: UUID) -> Trial:
    found = (
        Trial.objects.select_related("cook")
        .filter(pk=trial_id, cook__household=household(), cook__deleted_at__isnull=True)
        .first()
    )
    if found is None:
        raise Http404
    return found


def _codes(trial: Trial) -> list[str]:
    """Return the codes in an order that says nothing about the pieces."""
    return sorted(trial.samples.values_list("code", flat=True))


def _next_order(trial: Trial, codes: list[str]) -> list[str]:
    if len(codes) < 2:
        return []
    number = trial.cards.count()
    return [codes[at] for at in serving_order(trial.seed, len(codes), number)]


def _out(trial: Trial) -> TableOut:
    codes = _codes(trial)
    cards = trial.cards.filter(deleted_at__isnull=True).select_related("taster", "prefers")
    revealed = None
    if trial.revealed_at is not None:
        samples = trial.samples.select_related("piece").order_by("piece__letter")
        revealed = [RevealOut(code=s.code, letter=s.piece.letter, name=s.piece.name) for s in samples]
    return TableOut(
        trial_id=trial.id,
        cook_id=trial.cook_id,
        cook=trial.cook.name,
        question=trial.question,
        codes=codes,
        next_order=_next_order(trial, codes),
        scales=[
            ScaleOut(name=name, low=scale_limits(name)[0], high=scale_limits(name)[1])
            for name in (*LIKING_SCALES, SALT_SCALE)
        ],
        cards=[
            CardOut(
                id=card.id,
                taster=card.taster.nickname,
                served=card.served,
                blind=card.blind,
                prefers=card.prefers.code if card.prefers else None,
            )
            for card in cards
        ],
        planned_cards=trial.planned_cards,
        seen_by=list(trial.looks.values_list("taster__nickname", flat=True)),
        tasters=list(Taster.objects.filter(household=household()).values_list("nickname", flat=True)),
        revealed=revealed,
        missing=what_is_missing(len(codes)),
    )


def what_is_missing(samples: int) -> str:
    """Say what a trial with so many samples needs before anything can be tasted against anything."""
    if samples >= 2:
        return ""
    said = "Only one piece of this cook is" if samples else "No piece of this cook is"
    return f"{said} ticked for the tasting; tick two of them in Coat."


def _check(document: CardDocument, codes: list[str]) -> None:
    gather = Gather()
    if len(codes) < 2:
        raise BadInput("served", what_is_missing(len(codes)))
    if sorted(document.served) != codes:
        gather.refuse("served", f"Every plate is served once: {' and '.join(codes)}.")
    if document.prefers is not None and document.prefers not in codes:
        gather.refuse("prefers", f"Choose {' or '.join(codes)}, or no preference.")
    seen = set()
    for at, score in enumerate(document.scores):
        if score.code not in codes:
            gather.refuse(f"scores.{at}.code", f"No plate has the number {score.code}.")
        limits = gather.attempt(f"scores.{at}", scale_limits, score.scale)
        if limits and not limits[0] <= score.value <= limits[1]:
            gather.refuse(f"scores.{at}.value", f"{score.scale} goes from {limits[0]} to {limits[1]}.")
        if (score.code, score.scale) in seen:
            gather.refuse(f"scores.{at}.scale", f"{score.scale} of {score.code} stands here twice.")
        seen.add((score.code, score.scale))
    scored = {code for code, scale in seen if scale == "overall"}
    for code in codes:
        if code not in scored:
            gather.refuse("scores", f"Say how much you like {code} overall before the card goes in.")
    gather.finish()


@router.reads("/{uuid:trial_id}")
def read_table(request: HttpRequest, trial_id: UUID) -> TableOut:
    """Return the trial as its tasters see it."""
    return _out(_trial(trial_id))


class PlanDocument(Schema):
    """How many cards a trial takes."""

    cards: Annotated[int, Field(ge=1, le=MOST_CARDS)]


@router.puts("/{uuid:trial_id}/plan")
def plan_cards(request: HttpRequest, trial_id: UUID, document: PlanDocument) -> TableOut:
    """State how many cards the trial takes, before the first is in: the more looks, the less each may decide."""
    with transaction.atomic():
        trial = _trial(trial_id)
        if trial.planned_cards != document.cards:
            if trial.is_tasted():
                raise BadInput("cards", "A card is in, so the number of cards stays; it was stated before the first.")
            trial.planned_cards = document.cards
            trial.save(update_fields=["planned_cards"])
    return _out(_trial(trial_id))


@router.posts("/{uuid:trial_id}/cards")
def add_card(request: HttpRequest, trial_id: UUID, document: CardDocument) -> Created[TableOut]:
    """Take in a card. After the reveal, or from who looked at the plating, it counts and is marked as not blind."""
    with transaction.atomic():
        trial = _trial(trial_id)
        _check(document, _codes(trial))
        taster, _ = Taster.objects.get_or_create(household=household(), nickname=document.taster)
        if trial.cards.filter(taster=taster, deleted_at__isnull=True).exists():
            raise BadInput("taster", f"{taster.nickname} has a card already; take it back first or use another name.")
        knew = trial.revealed_at is not None or trial.looks.filter(taster__nickname__iexact=taster.nickname).exists()
        samples = {sample.code: sample for sample in trial.samples.all()}
        card = Card.objects.create(
            trial=trial,
            taster=taster,
            number=trial.cards.count(),
            served=document.served,
            prefers=samples[document.prefers] if document.prefers else None,
            blind=not knew,
        )
        Score.objects.bulk_create(
            Score(card=card, sample=samples[s.code], scale=s.scale, value=s.value) for s in document.scores
        )
        pin_cook(trial.cook)
    return Created(_out(trial))


@router.posts("/{uuid:trial_id}/cards/{uuid:card_id}/delete")
def take_back_card(request: HttpRequest, trial_id: UUID, card_id: UUID) -> TableOut:
    """Take a card back; `restore` puts it in again."""
    trial = _trial(trial_id)
    if not trial.cards.filter(pk=card_id, deleted_at__isnull=True).update(deleted_at=timezone.now()):
        raise Http404
    return _out(trial)


@router.posts("/{uuid:trial_id}/cards/{uuid:card_id}/restore")
def restore_card(request: HttpRequest, trial_id: UUID, card_id: UUID) -> TableOut:
    """Undo taking a card back."""
    with transaction.atomic():
        trial = _trial(trial_id)
        card = trial.cards.select_related("taster").filter(pk=card_id).first()
        if card is None:
            raise Http404
        if trial.cards.filter(taster=card.taster, deleted_at__isnull=True).exclude(pk=card_id).exists():
            raise BadInput(
                "card", f"{card.taster.nickname} has filled in another card since; take that one back first."
            )
        card.deleted_at = None
        card.save(update_fields=["deleted_at"])
    return _out(trial)


@router.posts("/{uuid:trial_id}/reveal")
def reveal(request: HttpRequest, trial_id: UUID) -> TableOut:
    """Tell which piece each number was. Cards from here on are not blind."""
    trial = _trial(trial_id)
    if not trial.cards.filter(deleted_at__isnull=True).exists():
        raise BadInput("", "No card is in yet: a reveal before the first card would end the blind test.")
    if trial.revealed_at is None:
        Trial.objects.filter(pk=trial.pk).update(revealed_at=timezone.now())
    return _out(_trial(trial_id))

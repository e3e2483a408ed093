"""Verdict: what the cards of a trial say, and whether they say it yet."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from uuid import UUID

from book.models import Cook, Score
from django.http import Http404, HttpRequest
from ravska_core.trial import JUST_RIGHT, LIKING_SCALES, SALT_SCALE, Difference, mean_liking, read_verdict
from ravska_core.working import Figure

from api.cooks.shown import fair_test
from api.cooks.store import cooks, load, read_stored, spoons_for
from api.plumbing.answers import Router
from api.trials.router import what_is_missing

router = Router()


@dataclass(frozen=True, slots=True)
class SideOut:
    """One piece in the verdict. Before the reveal only its code is told."""

    code: str
    letter: str | None
    name: str | None
    preferred: int


@dataclass(frozen=True, slots=True)
class LikingOut:
    scale: str
    cards: int
    means: list[Figure]


@dataclass(frozen=True, slots=True)
class CardRow:
    """One card: overall liking of both sides, in their order, and which side it prefers."""

    taster: str
    blind: bool
    overall: list[int]
    prefers: int | None


@dataclass(frozen=True, slots=True)
class SaltVotes:
    """What the cards say of one side's salt: too little, just right, too much."""

    too_little: int
    just_right: int
    too_much: int


@dataclass(frozen=True, slots=True)
class VerdictOut:
    """State of a trial. `winner` is the index of the winning side; `cards_beyond` came after those it stated."""

    trial_id: UUID
    cook_id: UUID
    cook: str
    cut: str
    serve_at: datetime
    question: str
    revealed: bool
    state: str
    winner: int | None
    sides: list[SideOut]
    no_preference: int
    planned_cards: int
    cards_beyond: int
    probability: Figure
    bound: Figure
    cards_more: Figure | None
    salt: list[SaltVotes]
    liking: list[LikingOut]
    cards: list[CardRow]
    differs: list[Difference]
    unknown: list[str]
    missing: str


def _salt_votes(votes: Sequence[int | None]) -> SaltVotes:
    cast = [vote for vote in votes if vote is not None]
    return SaltVotes(
        sum(vote < JUST_RIGHT for vote in cast), cast.count(JUST_RIGHT), sum(vote > JUST_RIGHT for vote in cast)
    )


def _verdict(cook: Cook) -> VerdictOut:
    trial = cook.trial
    samples = list(trial.samples.select_related("piece").order_by("piece__letter"))
    revealed = trial.revealed_at is not None
    if not revealed:
        samples.sort(key=lambda sample: sample.code)  # their own order would tell
    cards = list(trial.cards.filter(deleted_at__isnull=True).select_related("taster"))
    # only the cards that were stated decide, in the order they came in
    counted = cards[: trial.planned_cards]
    preferred = [sum(1 for card in counted if card.prefers_id == sample.id) for sample in samples]
    no_preference = sum(1 for card in counted if card.prefers_id is None)
    first, second = (*preferred, 0, 0)[:2]
    found = read_verdict(first, second, no_preference, trial.planned_cards)

    given: dict[UUID, dict[tuple[UUID, str], int]] = {card.id: {} for card in cards}
    rows_of_scores = Score.objects.filter(card__in=cards).values_list("card_id", "sample_id", "scale", "value")
    for card_id, sample_id, scale, value in rows_of_scores:
        given[card_id][sample_id, scale] = value
    scored: dict[str, list[tuple[int, int]]] = {}
    rows = []
    for card in cards:
        values = given[card.id]
        for scale in LIKING_SCALES:
            pair = [score for sample in samples if (score := values.get((sample.id, scale))) is not None]
            if len(pair) == 2:
                scored.setdefault(scale, []).append((pair[0], pair[1]))
        keys = [sample.id for sample in samples]
        rows.append(
            CardRow(
                taster=card.taster.nickname,
                blind=card.blind,
                overall=[values[(key, "overall")] for key in keys if (key, "overall") in values],
                prefers=keys.index(card.prefers_id) if card.prefers_id in keys else None,
            )
        )
    liking = []
    for scale, pairs in scored.items():
        read = mean_liking(scale, tuple(pairs))
        liking.append(LikingOut(scale=scale, cards=read.cards, means=list(read.means)))
    fair = fair_test(cook, read_stored(cook, spoons_for(cook)))
    return VerdictOut(
        trial_id=trial.id,
        cook_id=cook.id,
        cook=cook.name,
        cut=cook.pieces.all()[0].cut,
        serve_at=cook.serve_at,
        question=trial.question,
        revealed=revealed,
        state=found.state,
        winner=found.winner,
        sides=[
            SideOut(
                code=sample.code,
                letter=sample.piece.letter if revealed else None,
                name=sample.piece.name if revealed else None,
                preferred=count,
            )
            for sample, count in zip(samples, preferred, strict=True)
        ],
        no_preference=no_preference,
        planned_cards=trial.planned_cards,
        cards_beyond=len(cards) - len(counted),
        probability=found.probability,
        bound=found.bound,
        cards_more=found.cards_more,
        salt=[_salt_votes([values.get((sample.id, SALT_SCALE)) for values in given.values()]) for sample in samples],
        liking=liking,
        cards=rows,
        # a difference named by its piece would undo the blinding
        differs=[replace(found, can_even=False) for found in fair.differs] if fair and revealed else [],
        unknown=list(fair.unknown) if fair else [],
        missing=what_is_missing(len(samples)),
    )


@router.reads("/{uuid:trial_id}/verdict")
def read_trial_verdict(request: HttpRequest, trial_id: UUID) -> VerdictOut:
    """Return what a trial's cards say."""
    cook = cooks().filter(trial__pk=trial_id).first()
    if cook is None:
        raise Http404
    return _verdict(load(cook))

"""Verdict: what the cards of a trial say, and whether they say it yet."""

from dataclasses import dataclass, replace
from datetime import datetime
from typing import cast
from uuid import UUID

from django.http import Http404, HttpRequest
from ravska_core.trial import (
    LIKING_SCALES,
    RANK_SCALE,
    Difference,
    Guesses,
    Penalty,
    TastedTrial,
    TasterRead,
    TrialReading,
    Votes,
    Word,
    agreement,
    guesses,
    mean_liking,
    penalties,
    picked_odd,
    read_trial,
    right_votes,
    tasters,
    words,
)
from ravska_core.working import Figure

from api.cooks.shown import fair_test
from api.cooks.store import cooks, load, read_stored, spoons_for
from api.plumbing.answers import Router
from api.trials.documents import KindKey
from api.trials.store import Loaded, as_core, loaded

router = Router()


@dataclass(frozen=True, slots=True)
class SideOut:
    """One sample in the verdict. Before the reveal only its code is told; `codes` are its plates, a twin's too.

    `votes` is how many of the cards that count prefer it, rank it first, or score it highest; `children` how many of
    theirs.
    """

    codes: list[str]
    letter: str | None
    name: str | None
    votes: int
    children: int
    right: list[Votes]


@dataclass(frozen=True, slots=True)
class LikingOut:
    scale: str
    cards: int
    means: list[Figure]


@dataclass(frozen=True, slots=True)
class CardRow:
    """One card: overall liking and rank of the samples in their order, which it prefers, and which it likes best.

    `right` tells of a triangle whether the odd plate was picked out.
    """

    taster: str
    blind: bool
    short: bool
    overall: list[int | None]
    ranks: list[int | None]
    prefers: int | None
    best: list[int]
    right: bool | None


@dataclass(frozen=True, slots=True)
class VerdictOut:
    """What a trial says.

    `reading` puts it in words first; `cards_beyond` came after those it stated. What explains it never decides:
    `liking`, `penalties`, `words`, how `tasters` agree and repeat, what they guessed. `differs` is what muddies it.
    Of a trial that is read once nothing but its number of cards is told before the reveal.
    """

    trial_id: UUID
    cook_id: UUID
    cook: str
    cut: str
    serve_at: datetime
    question: str
    kind: KindKey
    revealed: bool
    reading: TrialReading
    sides: list[SideOut]
    planned_cards: int
    cards_in: int
    cards_beyond: int
    liking: list[LikingOut]
    cards: list[CardRow]
    penalties: list[Penalty]
    words: list[Word]
    tasters: list[TasterRead]
    agreement: float | None
    guesses: Guesses | None
    changes_two: str
    differs: list[Difference]
    unknown: list[str]
    missing: str


def _sides(found: Loaded, core: TastedTrial, told: bool) -> list[SideOut]:
    plates = found.plates if found.revealed else sorted(found.plates, key=lambda plate: plate.code)
    first = [plate for plate in plates if plate.twin_of_id is None]
    right = right_votes(core) if told else ((),) * len(first)
    sides = []
    for at, plate in enumerate(first):
        twins = [other.code for other in plates if other.twin_of_id == plate.pk] if found.revealed else []
        piece = plate.meat()
        best = [card for card in core.counted() if told and at in core.best(card)]
        children = [card for card in core.cards if told and card.short and at in core.best(card)]
        sides.append(
            SideOut(
                codes=[plate.code, *twins],
                letter=piece.letter if found.revealed else None,
                name=core.names[at] if found.revealed else None,
                votes=len(best),
                children=len(children),
                right=list(right[at]),
            )
        )
    return sides


def _liking(core: TastedTrial) -> list[LikingOut]:
    found = []
    for scale in LIKING_SCALES:
        rows = []
        for card in core.cards:
            scores = [core.scored(card, sample, scale) for sample in range(len(core.names))]
            if None not in scores and not card.short:
                rows.append(tuple(score for score in scores if score is not None))
        if rows:
            read = mean_liking(scale, tuple(rows))
            found.append(LikingOut(scale=scale, cards=read.cards, means=list(read.means)))
    return found


def _rows(core: TastedTrial, told: bool) -> list[CardRow]:
    found = []
    for card in core.cards:
        samples = range(len(core.names))
        found.append(
            CardRow(
                taster=card.taster,
                blind=card.blind,
                short=card.short,
                overall=[core.scored(card, sample) if told else None for sample in samples],
                ranks=[core.scored(card, sample, RANK_SCALE) if told else None for sample in samples],
                prefers=core.plates[card.prefers].sample if told and card.prefers is not None else None,
                best=sorted(core.best(card)) if told else [],
                right=picked_odd(core, card) if told and card.odd is not None else None,
            )
        )
    return found


@router.reads("/{uuid:trial_id}/verdict")
def read_trial_verdict(request: HttpRequest, trial_id: UUID) -> VerdictOut:
    """Return what a trial's cards say."""
    cook = cooks().filter(trial__pk=trial_id).first()
    if cook is None:
        raise Http404
    load(cook)
    trial = cook.trial
    trial.cook = cook
    found = loaded(trial)
    core = as_core(found)
    revealed = found.revealed
    told = revealed or trial.kind == "preference"
    guessed = guesses(core) if revealed else None
    fair = fair_test(cook, read_stored(cook, spoons_for(cook)), guessed)
    counted = core.counted()
    return VerdictOut(
        trial_id=trial.id,
        cook_id=cook.id,
        cook=cook.name,
        cut=cook.pieces.all()[0].cut,
        serve_at=cook.serve_at,
        question=trial.question,
        kind=cast(KindKey, trial.kind),
        revealed=revealed,
        reading=read_trial(core, revealed),
        sides=_sides(found, core, told),
        planned_cards=trial.planned_cards,
        cards_in=len(core.cards),
        cards_beyond=max(0, len(core.cards) - len(counted)),
        liking=_liking(core) if told else [],
        cards=_rows(core, told),
        penalties=list(penalties(core)) if revealed else [],
        words=list(words(core)) if revealed else [],
        tasters=list(tasters(core)) if revealed else [],
        agreement=agreement(core) if revealed else None,
        guesses=guessed,
        # what differs is named by its piece, which would undo the blinding beside what is told by code
        changes_two=fair.clean if fair and revealed else "",
        differs=[replace(one, can_even=False) for one in fair.differs] if fair and revealed else [],
        unknown=list(fair.unknown) if fair else [],
        missing=found.missing(),
    )

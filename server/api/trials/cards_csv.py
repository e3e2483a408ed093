"""Table: cards as CSV, out and in, as they were filled on paper."""

from dataclasses import dataclass
from typing import Annotated
from uuid import UUID

from django.db import transaction
from django.http import HttpRequest, HttpResponse
from ninja import Schema
from pydantic import Field, ValidationError
from ravska_core.trial import CardFault, PaperCard, read_cards, write_cards
from ravska_core.working import BadInput

from api.plumbing.answers import Router
from api.plumbing.problems import Refused, sentence_of
from api.trials.documents import CardDocument
from api.trials.router import hand_in
from api.trials.store import Loaded, find_trial, load_trial, loaded, names_of

router = Router()


class CardsDocument(Schema):
    """A file of cards."""

    text: Annotated[str, Field(max_length=200_000)]


@dataclass(frozen=True, slots=True)
class CardsInOut:
    """Whose cards came in, whose were in already, and what could not be read, by line and column."""

    taken: list[str]
    known: list[str]
    faults: list[CardFault]


@router.reads("/{uuid:trial_id}/cards.csv")
def take_cards_out(request: HttpRequest, trial_id: UUID) -> HttpResponse:
    """Write all cards of a trial as CSV, by code; with the pieces once they are revealed."""
    found = load_trial(trial_id)
    pieces = {}
    if found.revealed:
        names = dict(zip([piece.letter for piece in found.pieces], names_of(found.pieces), strict=True))
        pieces = {plate.code: f"{plate.meat().letter} {names[plate.meat().letter]}" for plate in found.plates}
    answer = HttpResponse(write_cards(_cards(found), pieces), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="cards.csv"'
    return answer


def _cards(found: Loaded) -> list[PaperCard]:
    codes = {plate.pk: plate.code for plate in found.plates}
    return [
        PaperCard(
            taster=card.taster.nickname,
            line=0,
            served=list(card.served),
            scores=[(codes[score.sample_id], score.scale, score.value) for score in found.scores[card.pk]],
            words=[(code, list(said)) for code, said in card.words.items()],
            prefers=codes.get(card.prefers_id) if card.prefers_id else None,
            odd=codes.get(card.odd_id) if card.odd_id else None,
            guess=codes.get(card.guess_id) if card.guess_id else None,
            short=card.short,
        )
        for card in found.cards
    ]


@router.posts("/{uuid:trial_id}/cards.csv")
def bring_cards_in(request: HttpRequest, trial_id: UUID, document: CardsDocument) -> CardsInOut:
    """Take cards in from CSV; one that cannot be read stops no other, and is named by line and column."""
    trial = find_trial(trial_id)
    cards, faults = read_cards(document.text)
    taken, known = [], []
    there = {name.lower() for name in _names(loaded(trial))}
    for card in cards:
        if card.taster.lower() in there:
            known.append(card.taster)
            continue
        try:
            with transaction.atomic():
                hand_in(loaded(trial), _document(card))
            taken.append(card.taster)
            there.add(card.taster.lower())
        except BadInput as refusal:
            faults.append(_fault(card, refusal))
        except Refused as refused:
            faults.extend(_fault(card, refusal) for refusal in refused.errors)
        except ValidationError as refused:
            faults.append(CardFault(card.line, 1, sentence_of(dict(refused.errors()[0]))))
    return CardsInOut(taken, known, sorted(faults, key=lambda fault: (fault.line, fault.column)))


def _names(found: Loaded) -> list[str]:
    return [card.taster.nickname for card in found.cards]


def _document(card: PaperCard) -> CardDocument:
    return CardDocument.model_validate(
        {
            "taster": card.taster,
            "served": card.order(),
            "scores": [{"code": code, "scale": scale, "value": value} for code, scale, value in card.scores],
            "prefers": card.prefers, "odd": card.odd, "guess": card.guess, "short": card.short,
            "words": [{"code": code, "words": said} for code, said in card.words],
        }
    )  # fmt: skip


def _fault(card: PaperCard, refusal: BadInput) -> CardFault:
    """Return a refusal where the file has it: at its own cell, else where its card begins."""
    path = ".".join(refusal.argument.split(".")[:2])
    line, column = card.at.get(path, card.at["taster"])
    return CardFault(line, column, refusal.sentence)

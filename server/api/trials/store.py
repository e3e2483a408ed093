"""Trials of the book, loaded: their plates, servings and cards, and as the core reads them."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property
from uuid import UUID

from book.evening import puts_of
from book.models import Card, Cook, Layer, Piece, Sample, Score, Serving, Taster, Trial
from django.db.models import Prefetch, prefetch_related_objects
from django.http import Http404
from ravska_core.trial import KINDS, Plate, ReadCard, TastedTrial, TrialKind, looks_tell
from ravska_core.working import BadInput

from api.cooks.store import one_cook
from api.cooks.table import eater_of, left_out
from api.plumbing.household import household


@dataclass
class Loaded:
    """A trial with what is on its table."""

    trial: Trial
    plates: list[Sample]
    cards: list[Card]
    scores: dict[UUID, list[Score]] = field(default_factory=dict)

    @property
    def cook(self) -> Cook:
        """The cook it is of."""
        return self.trial.cook

    @cached_property
    def servings(self) -> list[Serving]:
        """Who is served what, in the order of their numbers."""
        return list(self.trial.servings.select_related("taster"))

    @property
    def revealed(self) -> bool:
        """Whether it is told which plate is which."""
        return self.trial.revealed_at is not None

    @property
    def kind(self) -> TrialKind:
        """What its cards ask first."""
        return KINDS[self.trial.kind]

    @cached_property
    def codes(self) -> list[str]:
        """The codes in an order that says nothing about the pieces."""
        return sorted(plate.code for plate in self.plates)

    @cached_property
    def pieces(self) -> list[Piece]:
        """The pieces that are tasted, by letter."""
        return [plate.meat() for plate in self.plates if plate.twin_of_id is None]

    @cached_property
    def looks(self) -> str:
        """How plates can be told apart by looks, by what lies on them; empty where nothing says so."""
        prefetch_related_objects(self.pieces, Prefetch("layers", queryset=Layer.objects.select_related("blend")))
        stacks = [(piece.letter, puts_of(piece)) for piece in self.pieces]
        if any(piece.cut != self.pieces[0].cut for piece in self.pieces):
            return "They are different cuts: looks tell them apart."
        found = (looks_tell(a, one, b, other) for at, (a, one) in enumerate(stacks) for b, other in stacks[at + 1 :])
        return next(filter(None, found), "")

    @property
    def guesses(self) -> bool:
        """Whether cards end with a guess: as it was said, else where looks tell."""
        if self.trial.kind == "triangle":
            return False
        return bool(self.looks) if self.trial.guess is None else self.trial.guess

    @property
    def asked_after(self) -> str:
        """The name of the piece that the guess is about."""
        return self.pieces[0].name if self.pieces else ""

    def missing(self) -> str:
        """Say what it takes to taste anything; empty where it can begin."""
        return what_is_missing(len(self.pieces))


def what_is_missing(samples: int) -> str:
    """Say what a trial with so many samples needs before anything can be tasted against anything."""
    if samples >= 2:
        return ""
    said = "Only one piece of this cook is" if samples else "No piece of this cook is"
    return f"{said} ticked for the tasting; tick two of them in Coat."


def find_trial(trial_id: UUID) -> Trial:
    """Return a trial of the household, or say that it is gone."""
    found = (
        Trial.objects.select_related("cook")
        .filter(pk=trial_id, cook__household=household(), cook__deleted_at__isnull=True)
        .first()
    )
    if found is None:
        raise Http404
    return found


def load_trial(trial_id: UUID) -> Loaded:
    """Return a trial with its plates, servings and cards."""
    return loaded(find_trial(trial_id))


def loaded(trial: Trial) -> Loaded:
    """Return a trial of the book with its plates, servings and cards."""
    rows = trial.samples.select_related("piece", "twin_of__piece")
    plates = sorted(rows, key=lambda sample: (sample.meat().letter, sample.twin_of_id is not None))
    cards = list(
        trial.cards.filter(deleted_at__isnull=True).select_related("taster").order_by("scored_at", "number")
    )  # fmt: skip
    scores: dict[UUID, list[Score]] = {card.pk: [] for card in cards}
    for score in Score.objects.filter(card__trial=trial, card__deleted_at__isnull=True):
        scores[score.card_id].append(score)
    return Loaded(trial, plates, cards, scores)


def as_core(found: Loaded) -> TastedTrial:
    """Return a trial as the core reads it: before the reveal by code, so that nothing tells which piece is which."""
    trial = found.trial
    plates = sorted(found.plates, key=lambda plate: plate.code) if not found.revealed else found.plates
    first = [plate for plate in plates if plate.twin_of_id is None]
    place = {plate.pk: at for at, plate in enumerate(first)}
    names = [f"plate {plate.code}" for plate in first]
    if found.revealed:
        names = names_of([plate.meat() for plate in first])
    at = {plate.pk: n for n, plate in enumerate(plates)}
    by_code = {plate.code: n for n, plate in enumerate(plates)}
    crossed = bool(trial.sides) and found.revealed and all(plate.row is not None for plate in first)
    return TastedTrial(
        kind=trial.kind,
        names=tuple(names),
        plates=tuple(
            Plate(place[plate.twin_of_id or plate.pk], plate.twin_of_id is not None) for plate in plates
        ),
        cards=tuple(_card(card, found, at, by_code) for card in found.cards),
        planned=trial.planned_cards,
        rows=tuple(plate.row or 0 for plate in first) if crossed else (),
        columns=tuple(plate.column or 0 for plate in first) if crossed else (),
        sides=tuple(trial.sides) if crossed else (),
    )  # fmt: skip


def names_of(pieces: Sequence[Piece]) -> list[str]:
    """Return what pieces are called, with their letters where two are called the same."""
    names = [piece.name for piece in pieces]
    return [
        f"{name} ({piece.letter})" if names.count(name) > 1 else name for name, piece in zip(names, pieces, strict=True)
    ]


def _card(card: Card, found: Loaded, at: dict[UUID, int], by_code: dict[str, int]) -> ReadCard:
    told_at = found.trial.revealed_at
    return ReadCard(
        taster=card.taster.nickname,
        blind=card.blind,
        short=card.short,
        late=told_at is not None and card.scored_at > told_at,
        served=tuple(by_code[code] for code in card.served if code in by_code),
        prefers=at.get(card.prefers_id) if card.prefers_id else None,
        odd=at.get(card.odd_id) if card.odd_id else None,
        guess=at.get(card.guess_id) if card.guess_id else None,
        scores={(at[score.sample_id], score.scale): score.value for score in found.scores[card.pk]},
        words={by_code[code]: tuple(said) for code, said in card.words.items() if code in by_code},
    )


def may_not_eat(found: Loaded, tasters: Sequence[Taster]) -> tuple[dict[UUID, str], dict[UUID, str]]:
    """Return who must not be served, and whom to ask first, each with a sentence; it never says which plate it is."""
    left, unread = left_out(one_cook(found.trial.cook_id), [eater_of(row) for row in tasters])
    letters = {piece.letter for piece in found.pieces}
    by_name = {row.nickname: row for row in tasters}
    no: dict[UUID, list[str]] = {}
    ask: dict[UUID, list[str]] = {}
    for one in left:
        if one.letter in letters:
            row = by_name[one.nickname]
            no.setdefault(row.pk, []).extend(one.why)
            ask.setdefault(row.pk, []).extend(one.asked)
    refused = {
        key: f"{_name(tasters, key)} does not eat {_and(words)}, which is in one of these plates: serve them something "
        "else."
        for key, words in no.items() if words
    }  # fmt: skip
    asked = {
        key: f"Ask {_name(tasters, key)} first: no table says whether these plates hold {_and(words)}."
        for key, words in ask.items() if words and key not in refused
    }  # fmt: skip
    if set(unread) & letters:
        unsure = "What one of these plates holds could not be read: ask {} first."
        asked |= {row.pk: unsure.format(row.nickname) for row in tasters if row.avoids and row.pk not in refused}
    return refused, asked


def _name(tasters: Sequence[Taster], key: UUID) -> str:
    return next(row.nickname for row in tasters if row.pk == key)


def _and(words: Sequence[str]) -> str:
    said = list(dict.fromkeys(words))
    return said[0] if len(said) == 1 else f"{', '.join(said[:-1])} and {said[-1]}"


def taster_named(nickname: str, guest: bool = False) -> Taster:
    """Return somebody of the household by nickname, however it is written; who is new becomes somebody of the book."""
    row = Taster.objects.filter(household=household(), nickname__iexact=nickname).first()
    if row is None:
        return Taster.objects.create(household=household(), nickname=nickname, guest=guest)
    if row.deleted_at is not None:
        row.deleted_at = None
        row.save(update_fields=["deleted_at"])
    return row


def check_may_eat(found: Loaded, taster: Taster) -> None:
    """Refuse to serve who may not eat one of the plates.

    Raises
    ------
    BadInput
        At ``taster``.
    """
    if taster.avoids:
        refused, _ = may_not_eat(found, [taster])
        if taster.pk in refused:
            raise BadInput("taster", refused[taster.pk])

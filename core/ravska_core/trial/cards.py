"""The cards of a trial as they are read: which plates there were, and what each taster said of them."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import combinations

from ravska_core.trial.ranks import midranks
from ravska_core.trial.tasting import FACE_SCALE, RANK_SCALE


@dataclass(frozen=True)
class Plate:
    """A plate that tasters meet: its sample [place in the list of samples], and whether it is its hidden twin."""

    sample: int
    twin: bool = False


@dataclass(frozen=True)
class ReadCard:
    """What a card says. Plates go by their place in the list of plates.

    `prefers` is one of them, or None; `odd` the one picked out of three of `served`; `guess` the one taken for the
    sample that was asked after. `short` is a child's card, which is a vote and never points; `late` one that came
    after the reveal.
    """

    taster: str
    blind: bool = True
    short: bool = False
    late: bool = False
    served: tuple[int, ...] = ()
    prefers: int | None = None
    odd: int | None = None
    guess: int | None = None
    scores: Mapping[tuple[int, str], int] = field(default_factory=dict)
    words: Mapping[int, tuple[str, ...]] = field(default_factory=dict)


@dataclass(frozen=True)
class TastedTrial:
    """A trial with its cards in the order they came in.

    `names` are what its samples are called; `rows` and `columns` the two sides of a two-by-two [0 or 1 for each
    sample], empty else, `sides` what those are called: both rows, then both columns; `asked_after` the sample that the
    guess is about; `planned` the cards it stated.
    """

    kind: str
    names: tuple[str, ...]
    plates: tuple[Plate, ...]
    cards: tuple[ReadCard, ...]
    planned: int
    rows: tuple[int, ...] = ()
    columns: tuple[int, ...] = ()
    sides: tuple[str, ...] = ()
    asked_after: int = 0

    def counted(self) -> tuple[ReadCard, ...]:
        """Return the cards that decide: those it stated, in the order they came in.

        A preference is told by looks that share what they may spend, and a child's vote is a vote. Everything else is
        read once, at the reveal: a card that came after it decides nothing, nor does a child's, which has no points.
        """
        if self.kind == "preference":
            return self.cards[: self.planned]
        return tuple(card for card in self.cards if not card.short and not card.late)[: self.planned]

    def first_plate(self, sample: int) -> int:
        """Return the plate of a sample that is no twin."""
        return next(at for at, plate in enumerate(self.plates) if plate.sample == sample and not plate.twin)

    def pairs(self) -> Iterator[tuple[int, int]]:
        """Return the pairs of samples that are compared: all of them, or the two in each row of a two-by-two."""
        for a, b in combinations(range(len(self.names)), 2):
            if not self.rows or self.rows[a] == self.rows[b]:
                yield (a, b) if not self.columns or self.columns[a] < self.columns[b] else (b, a)

    def scored(self, card: ReadCard, sample: int, scale: str = "overall") -> int | None:
        """Return what a card gives a sample on a scale."""
        return card.scores.get((self.first_plate(sample), scale))

    def differences(self, cards: Sequence[ReadCard], a: int, b: int, scale: str = "overall") -> list[int]:
        """Return second less first of a pair, for every card that scored both [points]."""
        found = []
        for card in cards:
            one, other = self.scored(card, a, scale), self.scored(card, b, scale)
            if one is not None and other is not None:
                found.append(other - one)
        return found

    def best(self, card: ReadCard) -> set[int]:
        """Return the samples that a card likes best: the one it prefers, those it ranks first, those it scores highest.

        None where it likes all of them alike; a hidden twin is left out, as it would give its sample a second chance.
        """
        if card.prefers is not None:
            return {self.plates[card.prefers].sample}
        ranks = {at: rank for at in range(len(self.names)) if (rank := self.scored(card, at, RANK_SCALE)) is not None}
        scale = FACE_SCALE if card.short else "overall"
        liked = {at: score for at in range(len(self.names)) if (score := self.scored(card, at, scale)) is not None}
        goods = {at: -rank for at, rank in ranks.items()} or liked
        best = {at for at, good in goods.items() if good == max(goods.values())}
        return best if len(best) < len(goods) else set()

    def ranked(self, cards: Sequence[ReadCard]) -> list[tuple[float, ...]]:
        """Return the midranks of the samples on every card that put all of them in order; twins left out."""
        places = [self.first_plate(sample) for sample in range(len(self.names))]
        rows = []
        for card in cards:
            ranks = [card.scores.get((place, RANK_SCALE)) for place in places]
            if None not in ranks:
                rows.append(midranks([float(rank) for rank in ranks if rank is not None]))
        return rows

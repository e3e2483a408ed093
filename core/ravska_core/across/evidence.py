"""What cooks say of two ways: cards, votes and what else differed, as the model takes it."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np

from ravska_core.across.model import Array, Cards
from ravska_core.across.rule import Counted, PairVotes

MOST_CONFOUNDS = 16
"""How many things that differ are told apart; the rarer ones share what they do."""

OTHER, KNEW = "other", "knew"
"""The name of those that share it, and of a taster's having known which was which."""

CONFOUND_SD = 1.0
"""What anything else that differs does at its usual size [points, SD]."""


@dataclass(frozen=True)
class PairCard:
    """A card that scored both: second less first [points], and 0.5 where the second came first on it, -0.5 where the
    first did, 0 where nobody knows.

    `liked` is what it gave either; `scores` the same by scale, where it gave both; `words` what it said of either.
    """

    taster: str
    difference: float
    first: float = 0.0
    blind: bool = True
    liked: tuple[float, float] = (0.0, 0.0)
    scores: Mapping[str, tuple[float, float]] = field(default_factory=dict)
    words: tuple[tuple[str, ...], tuple[str, ...]] = ((), ())


@dataclass(frozen=True)
class Muddy:
    """Something besides the ways that differed in a cook: its name, its size in its usual size, and a sentence."""

    what: str
    size: float
    sentence: str


NO_VOTES = PairVotes()


@dataclass(frozen=True)
class PairCook:
    """A cook that had both ways on the table, in the order of `at`; all its cards are of one cut."""

    key: str
    name: str
    at: str
    cut: str
    cards: tuple[PairCard, ...]
    votes: PairVotes = NO_VOTES
    muddied: tuple[Muddy, ...] = ()

    @property
    def is_clean(self) -> bool:
        """Whether nothing else differed; who knew spoils their own card only."""
        return not self.muddied

    @cached_property
    def numbers(self) -> Array:
        """Its cards as numbers: difference, what came first, 1 for blind, and what they gave both, (cards, 5)."""
        rows = [(card.difference, card.first, float(card.blind), *card.liked) for card in self.cards]
        return np.array(rows, float).reshape(len(rows), 5)

    @cached_property
    def blind_cards(self) -> int:
        """How many of its cards are of tasters who did not know."""
        return sum(card.blind for card in self.cards)


@dataclass(frozen=True)
class Evidence:
    """All that the book says of two ways, cook by cook in their order; `cuts` are its rows, with cards or without."""

    cooks: tuple[PairCook, ...]
    cuts: tuple[str, ...]

    @cached_property
    def scored(self) -> tuple[PairCook, ...]:
        """The cooks with a card that scored both."""
        return tuple(cook for cook in self.cooks if cook.cards)

    @cached_property
    def tasters(self) -> tuple[str, ...]:
        """Who scored, whoever did so most first."""
        cast: Counter[str] = Counter()
        for cook in self.scored:
            cast.update(card.taster for card in cook.cards)
        return tuple(sorted(cast, key=lambda name: (-cast[name], name)))

    @cached_property
    def _by_cut(self) -> dict[str, list[PairCook]]:
        found: dict[str, list[PairCook]] = {}
        for cook in self.cooks:
            found.setdefault(cook.cut, []).append(cook)
        return found

    def of(self, cut: str | None) -> Sequence[PairCook]:
        """Return the cooks of a cut, or all of them."""
        return self.cooks if cut is None else self._by_cut.get(cut, [])

    def numbers(self, cut: str | None = None) -> Array:
        """Return the cards of a cut, or all of them, as numbers; see `PairCook.numbers`."""
        return np.concatenate([np.zeros((0, 5)), *(cook.numbers for cook in self.of(cut))])

    def counted(self, cut: str | None = None) -> Counted:
        """Count what a cut rests on, or all of them."""
        here = [cook for cook in self.of(cut) if cook.cards]
        clean = [cook.blind_cards for cook in here if cook.is_clean]
        return Counted(
            len(here), sum(len(cook.cards) for cook in here), sum(cards > 0 for cards in clean), sum(clean)
        )  # fmt: skip

    def votes(self, cut: str | None = None) -> PairVotes:
        """Add up the preferences of a cut, or of all."""
        here = [cook.votes for cook in self.of(cut)]
        return PairVotes(sum(v.first for v in here), sum(v.second for v in here), sum(v.neither for v in here))

    def usual_tasters(self) -> tuple[str, ...]:
        """Return who usually tastes: as many as a cook of this pair has in the middle, whoever does so most."""
        sizes = sorted(len({card.taster for card in cook.cards}) for cook in self.scored)
        return self.tasters[: sizes[(len(sizes) - 1) // 2]] if sizes else ()

    def without(self, *keys: str) -> "Evidence":
        """Return what the book would say without some cooks."""
        return replace(self, cooks=tuple(cook for cook in self.cooks if cook.key not in keys))

    def up_to(self, key: str) -> "Evidence":
        """Return what the book said once a cook was in."""
        at = next(place for place, cook in enumerate(self.cooks) if cook.key == key)
        return replace(self, cooks=self.cooks[: at + 1])

    def confounds(self) -> tuple[str, ...]:
        """Return the names of what differs in some cook or card, the commonest first; the rarest go under one."""
        found = Counter(muddy.what for cook in self.scored for muddy in cook.muddied)
        if any(cook.blind_cards < len(cook.cards) for cook in self.scored):
            found[KNEW] += 1
        names = sorted(found, key=lambda name: (-found[name], name))
        return tuple(names) if len(names) <= MOST_CONFOUNDS else (*names[: MOST_CONFOUNDS - 1], OTHER)

    def as_cards(self) -> Cards:
        """Return the cards as the model takes them; there must be one."""
        names, tasters = self.confounds(), {name: at for at, name in enumerate(self.tasters)}
        column = {name: at for at, name in enumerate(names)}
        cuts = {cut: at for at, cut in enumerate(self.cuts)}
        sizes = [len(cook.cards) for cook in self.scored]
        numbers = self.numbers()
        differed = np.zeros((len(self.scored), len(names)))
        for at, cook in enumerate(self.scored):
            for muddy in cook.muddied:
                differed[at, column.get(muddy.what, len(names) - 1)] += muddy.size
        confounds = np.repeat(differed, sizes, axis=0)
        knew = numbers[:, 2] == 0
        if knew.any():
            confounds[knew, column.get(KNEW, len(names) - 1)] += 1.0
        who = [tasters[card.taster] for cook in self.scored for card in cook.cards]
        cut = [cuts[cook.cut] for cook in self.scored]
        return Cards(
            numbers[:, 0], np.repeat(np.arange(len(sizes)), sizes), np.array(who, np.intp),
            np.repeat(np.array(cut, np.intp), sizes), len(self.cuts), numbers[:, 1], confounds,
            np.full(len(names), CONFOUND_SD),
        )  # fmt: skip


def pair_votes(prefers: Sequence[int | None]) -> PairVotes:
    """Count preferences: 0 for the first, 1 for the second, None for neither."""
    return PairVotes(prefers.count(0), prefers.count(1), prefers.count(None))

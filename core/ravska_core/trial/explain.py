"""What explains a trial, and never decides it: votes of just right, words, how tasters agree and repeat, and guesses.

Everything is taken within tasters: what a taster gave a plate less what the same taster gave on average, so that one
who scores everything high says no more than another.
"""

from collections import Counter
from dataclasses import dataclass

import numpy as np

from ravska_core.trial.cards import ReadCard, TastedTrial
from ravska_core.trial.ranks import friedman, midranks
from ravska_core.trial.tasting import JUST_RIGHT, RANK_SCALE, RIGHT_SCALES
from ravska_core.trial.tests import CHANCE, at_least

FEWEST_VOTES, FEWEST_IN_GROUP = 12, 3
"""From how many just-about-right votes, and how many in a group, a penalty is told (common practice)."""

SIDES = ("too little", "too much")


@dataclass(frozen=True)
class Penalty:
    """How much less the plates of a group are liked than those that are just right [points], within tasters."""

    scale: str
    side: str
    votes: int
    points: float
    says: str


@dataclass(frozen=True)
class Word:
    """A word of the cards: how often it was said, of which samples, and how it goes with liking [points]."""

    word: str
    said: int
    by_sample: tuple[int, ...]
    points: float | None


@dataclass(frozen=True)
class TasterRead:
    """A taster: how far they scored a hidden twin apart [points or places], and how they go with the others [-1 to 1].

    None where they had no twin, or where nothing can be said; `says` puts it in words, kindly.
    """

    taster: str
    repeats: int | None
    agrees: float | None
    says: str


@dataclass(frozen=True)
class Guesses:
    """How many named the plate that was asked after, and how often chance alone gets as many; `half_blind` from 5 %."""

    right: int
    of: int
    probability: float
    half_blind: bool


@dataclass(frozen=True)
class Votes:
    """What the cards say of one sample on a just-about-right scale: too little, just right, too much."""

    scale: str
    too_little: int
    just_right: int
    too_much: int


def _liked(cards: tuple[ReadCard, ...]) -> dict[tuple[int, int], float]:
    """Return the overall liking of every plate on every card, less the card's own mean [points]."""
    found: dict[tuple[int, int], float] = {}
    for at, card in enumerate(cards):
        overall = {plate: value for (plate, scale), value in card.scores.items() if scale == "overall"}
        if len(overall) > 1:
            mean = sum(overall.values()) / len(overall)
            found.update({(at, plate): value - mean for plate, value in overall.items()})
    return found


def penalties(trial: TastedTrial) -> tuple[Penalty, ...]:
    """Determine what it costs a plate to have too little or too much of something, from 12 votes with 3 in the group.

    Penalty = mean liking of what is just right - mean liking of the group, both less each taster's own mean. Only
    tasters who voted both ways say anything, since what differs between tasters is no matter of the plates.

    References
    ----------
    Mean drop, or penalty, analysis: common practice of sensory panels, no source.
    """
    cards, found = trial.cards, []
    liked = _liked(cards)
    for scale in RIGHT_SCALES:
        votes = {
            (at, plate): value
            for at, card in enumerate(cards)
            for (plate, name), value in card.scores.items()
            if name == scale and (at, plate) in liked
        }
        right = [liked[key] for key, value in votes.items() if value == JUST_RIGHT]
        if len(votes) < FEWEST_VOTES or len(right) < FEWEST_IN_GROUP:
            continue
        for side, sign in zip(SIDES, (-1, 1), strict=True):
            off = [liked[key] for key, value in votes.items() if (value - JUST_RIGHT) * sign > 0]
            if len(off) >= FEWEST_IN_GROUP:
                points = float(np.mean(right) - np.mean(off))
                found.append(Penalty(scale, side, len(off), points, _say_penalty(scale, side, len(off), points)))
    return tuple(sorted(found, key=lambda one: -one.points))


def _say_penalty(scale: str, side: str, votes: int, points: float) -> str:
    apart = f"{abs(points):.1f}"
    how = "as well as" if apart == "0.0" else f"{apart} points {'less' if points > 0 else 'more'} than"
    return f"Plates with {side} {scale} are liked {how} those just right ({votes} votes)."


def right_votes(trial: TastedTrial) -> tuple[tuple[Votes, ...], ...]:
    """Count the votes of just right, sample by sample, of every scale that somebody voted on."""
    found = []
    for sample in range(len(trial.names)):
        votes = []
        for scale in RIGHT_SCALES:
            cast = [vote for card in trial.cards if (vote := trial.scored(card, sample, scale)) is not None]
            if cast:
                few, many = sum(v < JUST_RIGHT for v in cast), sum(v > JUST_RIGHT for v in cast)
                votes.append(Votes(scale, few, cast.count(JUST_RIGHT), many))
        found.append(tuple(votes))
    return tuple(found)


def words(trial: TastedTrial) -> tuple[Word, ...]:
    """Count what was said of the samples, and how much more the plates it was said of were liked, within tasters."""
    liked = _liked(trial.cards)
    said: dict[str, Counter[int]] = {}
    with_it: dict[str, list[float]] = {}
    for at, card in enumerate(trial.cards):
        for plate, of_it in card.words.items():
            for word in of_it:
                said.setdefault(word, Counter())[trial.plates[plate].sample] += 1
                if (at, plate) in liked:
                    with_it.setdefault(word, []).append(liked[at, plate])
    found = []
    for word, counts in said.items():
        points = with_it.get(word, [])
        others = [
            value for (at, plate), value in liked.items() if word not in trial.cards[at].words.get(plate, ())
        ]  # fmt: skip
        told = len(points) >= FEWEST_IN_GROUP and len(others) >= FEWEST_IN_GROUP
        by_sample = tuple(counts[sample] for sample in range(len(trial.names)))
        apart = float(np.mean(points) - np.mean(others)) if told else None
        found.append(Word(word, counts.total(), by_sample, apart))
    return tuple(sorted(found, key=lambda one: (-one.said, one.word)))


def _order_of(trial: TastedTrial, card: ReadCard) -> tuple[float, ...] | None:
    """Return the midranks that a card gives the samples, by its order or by its overall scores; None without."""
    ranked = trial.ranked((card,))
    if ranked:
        return ranked[0]
    scores = [trial.scored(card, sample) for sample in range(len(trial.names))]
    return None if None in scores else midranks([-float(score) for score in scores if score is not None])


def tasters(trial: TastedTrial) -> tuple[TasterRead, ...]:
    """Tell how well each taster repeats a hidden twin, and how their order goes with that of all the others."""
    orders = {card.taster: order for card in trial.cards if (order := _order_of(trial, card)) is not None}
    twins = [
        (trial.first_plate(plate.sample), at) for at, plate in enumerate(trial.plates) if plate.twin
    ] if trial.kind != "triangle" else []  # fmt: skip
    found = []
    for card in trial.cards:
        repeats = None
        for first, twin in twins:
            for scale in (RANK_SCALE, "overall"):
                one, other = card.scores.get((first, scale)), card.scores.get((twin, scale))
                if repeats is None and one is not None and other is not None:
                    repeats = abs(one - other)
        agrees = _agrees(card.taster, orders)
        found.append(TasterRead(card.taster, repeats, agrees, _say_taster(repeats, agrees)))
    return tuple(found)


GOES_WITH, OWN_TASTE = 0.5, -0.2
"""From which correlation on a taster goes with the others, and up to which has a taste of their own (estimates)."""


def _say_taster(repeats: int | None, agrees: float | None) -> str:
    said = []
    if agrees is not None:
        partly = "goes partly with the others" if agrees > OWN_TASTE else "has a taste of their own"
        said.append("goes with the others" if agrees >= GOES_WITH else partly)
    if repeats is not None:
        said.append(f"gave the twin {repeats} apart" if repeats else "gave the twin the same")
    return ", ".join(said)


def _agrees(taster: str, orders: dict[str, tuple[float, ...]]) -> float | None:
    """Return the correlation of a taster's order with the mean order of the others; None where one has no spread."""
    others = [order for name, order in orders.items() if name != taster]
    if taster not in orders or len(others) < 2 or len(orders[taster]) < 3:
        return None
    mine, theirs = np.array(orders[taster]), np.mean(others, axis=0)
    if mine.std() < 1e-9 or theirs.std() < 1e-9:
        return None
    return float(np.corrcoef(mine, theirs)[0, 1])


def agreement(trial: TastedTrial) -> float | None:
    """Determine how far the tasters' orders agree: Kendall's W, 0 for none and 1 for all alike; None with fewer than 3
    samples or tasters."""
    orders = [order for card in trial.cards if (order := _order_of(trial, card)) is not None]
    if len(orders) < 3 or len(trial.names) < 3:
        return None
    return friedman(orders).agreement


def guesses(trial: TastedTrial) -> Guesses | None:
    """Tell whether tasters could see which was which: a table that guesses above chance counts as half blind."""
    blind = [card for card in trial.cards if card.blind and card.guess is not None]
    if not blind:
        return None
    right = sum(trial.plates[card.guess].sample == trial.asked_after for card in blind if card.guess is not None)
    alike = sum(plate.sample == trial.asked_after for plate in trial.plates)
    return read_guesses(right, len(blind), alike / len(trial.plates))


def read_guesses(right: int, of: int, chance: float) -> Guesses:
    """Tell whether so many right guesses, each right by chance so often, are more than chance brings."""
    probability = at_least(right, of, chance)
    return Guesses(right, of, probability, probability <= CHANCE)

"""One cut of a page: what its cooks say, what it would be without each, what carries and muddies it, how it grew."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ravska_core.across import says
from ravska_core.across.ahead import more_needed
from ravska_core.across.evidence import Evidence, PairCook
from ravska_core.across.reading import Belief, CutRow, Fitted, row_of
from ravska_core.across.rule import MARGIN, Chances, named
from ravska_core.trial.tasting import JUST_RIGHT, LIKING_SCALES, RIGHT_SCALES

MOST_GROWTH, MOST_WITHOUT, MOST_LEFT_OUT = 16, 12, 6
"""Of how many cooks, the last of them, it is told how belief grew and what it would be without each, and of how many
things that differ what it would be without their cooks: 35 fits at most, with the one of all of it."""

OWN_WAY = 0.8
"""How likely it must be that a taster likes the other side better by the margin, to be told of."""

FEWEST_SAID = 2
"""From how many cards on a word is told of."""


@dataclass(frozen=True)
class Grown:
    """What was believed once a cook was in: its chances, mean and interval, and the state by the rule."""

    key: str
    name: str
    chances: Chances
    mean: float
    low: float
    high: float
    state: str


@dataclass(frozen=True)
class Without:
    """What it would be without some cooks: how many grains of twenty say the name or the likeliest side."""

    what: str
    cooks: tuple[str, ...]
    grains: int
    state: str
    says: str


@dataclass(frozen=True)
class Carries:
    """A scale that goes with the difference: second less first [points], and of how many cards."""

    scale: str
    points: float
    cards: int


@dataclass(frozen=True)
class CellReading:
    """The evidence of one cut."""

    row: CutRow
    cooks: tuple[PairCook, ...]
    grown: tuple[Grown, ...]
    without: tuple[Without, ...]
    muddies: tuple[Without, ...]
    carries: tuple[Carries, ...]
    carries_says: tuple[str, ...]
    tasters_says: tuple[str, ...]
    held: int
    held_says: str


def read_cell(
    evidence: Evidence, cut: str, names: tuple[str, str], who: str = "table", margin: float = MARGIN, quicker: str = ""
) -> CellReading | None:
    """Determine the evidence of one cut; None where the book has no card of this pair at all."""
    if not evidence.scored:
        return None
    fitted = Fitted(evidence, who, margin, tasters_of=cut)
    place = evidence.cuts.index(cut)
    at = fitted.sums.cut[cut]
    counted, votes = evidence.counted(cut), evidence.votes(cut)
    state, _ = named(fitted.chances(at), counted, votes)
    seats = [evidence.tasters.index(name) for name in evidence.usual_tasters()]
    more = more_needed(fitted.ahead(), at, place, seats, counted) if state == "not yet known" else None
    row = row_of(cut, fitted, at, names, more, evidence, quicker)
    mine = [cook for cook in evidence.cooks if cook.cut == cut]
    scored = [cook for cook in mine if cook.cards]
    grown = tuple(_grown(evidence, cook, cut, who, margin) for cook in scored[-MOST_GROWTH:])
    assert row.belief is not None
    told = row.state if row.state != "not yet known" else _likeliest(row.belief.chances)
    without = tuple(
        _without(evidence, (cook,), cook.name, cut, names, who, margin, told, row.belief)
        for cook in scored[-MOST_WITHOUT:]
    )  # fmt: skip
    held = _held(grown)
    return CellReading(
        row, tuple(mine), grown, without, _muddies(evidence, scored, cut, names, who, margin, told, row.belief),
        _carries(scored), tuple(_carried(scored, names)), tuple(_tasters(fitted, names, row.state)), held,
        says.say_held(held) if row.state != "not yet known" else "",
    )  # fmt: skip


def _likeliest(chances: Chances) -> str:
    sides = {"first": chances.first, "second": chances.second, "no matter": chances.neither}
    return max(sides, key=sides.__getitem__)


def _grown(evidence: Evidence, cook: PairCook, cut: str, who: str, margin: float) -> Grown:
    then = evidence.up_to(cook.key)
    fitted = Fitted(then, who, margin)
    at = fitted.sums.cut[cut]
    state, _ = named(fitted.chances(at), then.counted(cut), then.votes(cut))
    return Grown(cook.key, cook.name, fitted.chances(at), float(fitted.mean[at]), float(fitted.low[at]),
                 float(fitted.high[at]), state)  # fmt: skip


def _held(grown: Sequence[Grown]) -> int:
    """Return over how many looks in a row, up to the last, the state was what it is."""
    held = 0
    for one in reversed(grown):
        if one.state != grown[-1].state:
            break
        held += 1
    return held


def _without(
    evidence: Evidence, cooks: Sequence[PairCook], what: str, cut: str, names: tuple[str, str], who: str, margin: float,
    told: str, belief: Belief,
) -> Without:  # fmt: skip
    rest = evidence.without(*(cook.key for cook in cooks))
    keys = tuple(cook.key for cook in cooks)
    if not rest.scored:
        return Without(what, keys, 0, "not yet known", "Without it nothing is left to go by.")
    fitted = Fitted(rest, who, margin)
    chances = fitted.chances(fitted.sums.cut[cut])
    state, _ = named(chances, rest.counted(cut), rest.votes(cut))
    before, after = says.grains_of(belief.chances.of(told)), says.grains_of(chances.of(told))
    side = "of no matter" if told == "no matter" else f"for {names[told == 'second']}"
    verb = "stay" if before == after else "become"
    became = f"{verb}{'s' if before == 1 else ''} {after}"
    sentence = f"Left out, {says.say_counted(before, 'grain')} {side} {became}."
    return Without(what, keys, after, state, sentence)


def _muddies(
    evidence: Evidence, scored: Sequence[PairCook], cut: str, names: tuple[str, str], who: str, margin: float,
    told: str, belief: Belief,
) -> tuple[Without, ...]:  # fmt: skip
    """Return what muddies a cut: what differed in the same of its cooks, and what it would be without those."""
    found = Counter(muddy.what for cook in scored for muddy in cook.muddied)
    together: dict[tuple[str, ...], list[str]] = {}
    for what, _ in found.most_common():
        with_it = tuple(cook.key for cook in scored if any(muddy.what == what for muddy in cook.muddied))
        together.setdefault(with_it, []).append(what)
    rows = []
    for keys, whats in list(together.items())[:MOST_LEFT_OUT]:
        with_it_cooks = [cook for cook in scored if cook.key in keys]
        what = says.listed([one.partition(":")[0] for one in whats])
        left = _without(evidence, with_it_cooks, what, cut, names, who, margin, told, belief)
        said = [next(muddy.sentence for muddy in with_it_cooks[-1].muddied if muddy.what == one) for one in whats]
        where = says.listed([cook.name for cook in with_it_cooks])
        rows.append(Without(what, left.cooks, left.grains, left.state, f"{where}: {' '.join(said)} {left.says}"))
    return tuple(rows)


def _carries(scored: Sequence[PairCook]) -> tuple[Carries, ...]:
    """Return how the scales of liking differ on cards that scored both, the largest first."""
    found = []
    for scale in LIKING_SCALES[1:]:
        pairs = [card.scores[scale] for cook in scored for card in cook.cards if scale in card.scores]
        if pairs:
            found.append(Carries(scale, float(np.mean([other - one for one, other in pairs])), len(pairs)))
    return tuple(sorted(found, key=lambda one: -abs(one.points)))


def _carried(scored: Sequence[PairCook], names: tuple[str, str]) -> list[str]:
    """Say what goes with the difference: scales, what is too much or too little, and words."""
    told = []
    scales = _carries(scored)
    if scales:
        said = [
            f"{one.scale} the same" if abs(one.points) < 0.15 else f"{one.scale} +{abs(one.points):.1f} "
            f"{names[one.points > 0]}" for one in scales[:4]
        ]  # fmt: skip
        told.append(f"{says.upper(', '.join(said))}.")
    cards = [card for cook in scored for card in cook.cards]
    for scale in RIGHT_SCALES:
        for side, name in enumerate(names):
            votes = [card.scores[scale][side] for card in cards if scale in card.scores]
            few, many = sum(vote < JUST_RIGHT for vote in votes), sum(vote > JUST_RIGHT for vote in votes)
            for word, off in (("little", few), ("much", many)):
                if off >= FEWEST_SAID and off * 3 >= len(votes):
                    told.append(f"{off} of {len(votes)} say {name} has too {word} {scale}.")
    words = [Counter(word for card in cards for word in card.words[side]) for side in (0, 1)]
    for side, name in enumerate(names):
        often = [
            f"“{word}” {count}" for word, count in words[side].most_common(3)
            if count >= FEWEST_SAID and count > words[1 - side][word]
        ]  # fmt: skip
        if often:
            told.append(f"Said of {name}: {', '.join(often)}.")
    return told


def _tasters(fitted: Fitted, names: tuple[str, str], state: str) -> list[str]:
    """Name kindly who has the opposite taste of what is named, or of each other where nothing is."""
    told = []
    likes: dict[str, list[str]] = {"first": [], "second": []}
    for name, at in fitted.sums.taster.items():
        chances = fitted.chances(at)
        for side in likes:
            if chances.of(side) >= OWN_WAY:
                likes[side].append(name)
    for side, other in (("first", "second"), ("second", "first")):
        who = likes[side]
        if who and (state == other or (state in ("no matter", "not yet known") and likes[other])):
            verb = "likes" if len(who) == 1 else "like"
            told.append(f"{says.listed(who)} {verb} {names[side == 'second']} better: make theirs so, if you can.")
    return told

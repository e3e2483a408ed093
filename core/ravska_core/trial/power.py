"""What so many tasters can show: how often a trial finds a difference that is there, said before anything is cooked."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.special import nctdtr, ndtr, stdtrit

from ravska_core.trial.liking import FEWEST_SCORED
from ravska_core.trial.ranks import friedman
from ravska_core.trial.tests import CHANCE, FIRST_LOOK, GUESSED, look_bound, named
from ravska_core.working import Figure, Step, figure

SD = 1.5
"""SD of a taster's difference of two samples [points of 9] until own cards say otherwise (estimate)."""

TASTER_SD = 0.5
"""How far tasters differ in a difference of two samples [points of 9], part of `SD` (estimate)."""

DRAWS = 1500
"""How many rankings are drawn to see how often the best is found."""


def finds_scores(tasters: int, difference: float, sd: float = SD) -> float:
    """Determine how often tasters' scores show a true difference [points]: a two-sided t test of paired differences.

    Power = 1 - F(t; n - 1, delta) + F(-t; n - 1, delta), F the
    noncentral t distribution with delta = difference sqrt(n) / sd.
    """
    if tasters < FEWEST_SCORED:
        return 0.0
    df, delta = tasters - 1, difference * tasters**0.5 / sd
    limit = float(stdtrit(df, 1 - CHANCE / 2))
    return float(1 - nctdtr(df, delta, limit) + nctdtr(df, delta, -limit))


def finds_preference(tasters: int, difference: float, sd: float = SD) -> float:
    """Determine how often votes name the better of two: each goes to it with the chance Phi(difference / sd)."""
    rate = float(ndtr(difference / sd))
    return named(tasters, look_bound(tasters), FIRST_LOOK, "preference", rate)


def finds_triangle(tasters: int, telling: float) -> float:
    """Determine how often a triangle shows that a share of tasters can tell [0 to 1]; the others guess."""
    bound = look_bound(tasters, tasters, "triangle")
    return named(tasters, bound, tasters, "triangle", telling + (1 - telling) * GUESSED)


@lru_cache(maxsize=256)
def finds_ranking(tasters: int, samples: int, difference: float, sd: float = SD) -> float:
    """Determine how often rankings show the one sample that is better than all others, which are alike, by drawing.

    Drawn with a seed, so that the same question has the same answer; sure to about 3 of 100.
    """
    if tasters < 2:
        return 0.0
    random = np.random.default_rng(20270612)
    scores = random.normal(0, sd / 2**0.5, (DRAWS, tasters, samples))
    scores[:, :, 0] += difference
    ranks = (-scores).argsort(axis=2).argsort(axis=2) + 1.0
    sums = ranks.sum(axis=1)
    best = sums[:, 0, None] + friedman(ranks[0]).least <= sums[:, 1:]
    critical = _critical(tasters, samples)
    spread = ((sums - tasters * (samples + 1) / 2) ** 2).sum(axis=1)
    return float((best.all(axis=1) & (spread >= critical - 1e-9)).mean())


@lru_cache(maxsize=64)
def _critical(tasters: int, samples: int) -> float:
    """Return the least spread of rank sums that orders drawn by lot exceed at most 5 times in 100."""
    random = np.random.default_rng(7)
    lots = random.random((20_000, tasters, samples)).argsort(axis=2) + 1.0
    spread = np.sort(((lots.sum(axis=1) - tasters * (samples + 1) / 2) ** 2).sum(axis=1))
    edge = spread[-int(len(spread) * CHANCE)]
    above = spread[spread > edge]
    share = (spread >= edge).mean()
    return float(edge if share <= CHANCE else above[0] if len(above) else np.inf)


@dataclass(frozen=True)
class Shows:
    """How often a difference is found: with these tasters, with one more, and with a second evening of the same.

    `difference` is in points of 9; for a triangle it is the share of tasters that can tell.
    """

    difference: float
    now: Figure
    one_more: Figure
    second_evening: Figure


LARGE, SMALL = 1.5, 0.8
"""The differences that are spoken of [points of 9], one that most notice and a small one; halves for a triangle."""


def _finds(kind: str, tasters: int, samples: int, difference: float, sd: float) -> float:
    if kind == "triangle":
        return finds_triangle(tasters, difference)
    if kind == "preference":
        return finds_preference(tasters, difference, sd)
    if kind == "ranking":
        return finds_ranking(tasters, samples, difference, round(sd, 3))
    return finds_scores(tasters, difference, sd)


def _figure(kind: str, tasters: int, samples: int, difference: float, sd: float, what: str) -> Figure:
    size = "share of tasters that can tell" if kind == "triangle" else "points of 9"
    step = "SD of a taster’s difference"
    steps = [Step("Cards", what, tasters, "cards"), Step("True difference", "assumed", difference, size)]
    if kind != "triangle":
        steps.append(Step(step, "until own cards say otherwise", sd, "points of 9", "estimate"))
    chance = _finds(kind, tasters, samples, difference, sd) if tasters else 0.0
    steps.append(Step("Found", f"by the test of this trial, wrong at most {CHANCE:.0%} of the time", chance, ""))
    return figure(steps, "about: it rests on how far tasters differ")


def what_shows(kind: str, tasters: int, samples: int) -> tuple[Shows, ...]:
    """Determine what a trial of so many tasters can show, of a large and of a small difference.

    A second evening lets the same tasters score once more: the mean of two of a taster's differences varies less,
    sd^2 = taster_sd^2 + (SD^2 - taster_sd^2) / 2. Votes and orders of a second evening are counted as cards of their
    own.
    """
    found = []
    twice_sd = (TASTER_SD**2 + (SD**2 - TASTER_SD**2) / 2) ** 0.5
    for difference in (0.5, 0.25) if kind == "triangle" else (LARGE, SMALL):
        again = (tasters, twice_sd) if kind == "scores" else (2 * tasters, SD)
        found.append(
            Shows(
                difference,
                _figure(kind, tasters, samples, difference, SD, "these tasters"),
                _figure(kind, tasters + 1, samples, difference, SD, "one more"),
                _figure(kind, again[0], samples, difference, again[1], "these tasters, on two evenings"),
            )
        )
    return tuple(found)


def in_ten(chance: float) -> str:
    """Return a chance as people say it: so many times in 10."""
    tenths = round(chance * 10)
    if chance <= 0:
        return "never"
    if tenths == 0:
        return "hardly ever"
    return "nearly always" if tenths == 10 else f"{tenths} {'time' if tenths == 1 else 'times'} in 10"


def _found(chance: float) -> str:
    said = in_ten(chance)
    return f"would be found {said}" if said.endswith("10") else f"would {said} be found"


def fewest_cards(kind: str, samples: int) -> int:
    """Return with how many cards a trial can name anything at all."""
    return next(n for n in range(2, 40) if _finds(kind, n, samples, 1.0 if kind == "triangle" else 40.0, SD) > 0)


def say_shows(kind: str, tasters: int, samples: int, shows: tuple[Shows, ...]) -> str:
    """Put what a trial can show into a few sentences."""
    large, small = shows
    if large.now.value <= 0:
        least = fewest_cards(kind, samples)
        cards = f"With {tasters} {'card' if tasters == 1 else 'cards'}" if tasters else "Without cards"
        beside = " Together with other cooks of the same they count in Verdict." if kind == "scores" and tasters else ""
        return f"{cards} nothing can be named, however they fall; it takes at least {least}.{beside}"
    more = (
        f"One more taster makes it {in_ten(large.one_more.value)}; a second evening with the same {tasters}, about "
        f"{in_ten(large.second_evening.value)}."
    )
    if kind == "triangle":
        first = f"If half of them can tell, that {_found(large.now.value)}"
        return f"{first}; if a quarter can, {in_ten(small.now.value)}. {more}"
    first = f"A difference of {large.difference} points of nine {_found(large.now.value)}"
    return f"{first}; one of {small.difference}, {in_ten(small.now.value)}. {more}"

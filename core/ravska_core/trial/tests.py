"""What votes say: exact tests of preference and of triangles, and what looking after every card costs."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from types import MappingProxyType


@dataclass(frozen=True)
class Preference:
    """Cards that prefer each of two samples, and the exact two-sided probability of a split this lopsided by chance."""

    first: int
    second: int
    probability: float


def at_least(hits: int, n: int, chance: float) -> float:
    """Determine the probability of at least so many hits in n tries, each by chance alone: a binomial tail."""
    return min(1.0, sum(math.comb(n, k) * chance**k * (1 - chance) ** (n - k) for k in range(max(0, hits), n + 1)))


def preference(first: int, second: int) -> Preference:
    """Determine the exact two-sided binomial probability of a preference count at one half.

    p = min(1, 2 sum_{k >= max} C(n, k) / 2^n), n the cards with a preference.

    References
    ----------
    ISO 5495, paired comparison test, two-sided.
    """
    n = first + second
    if n == 0:
        return Preference(0, 0, 1.0)
    upper = sum(math.comb(n, k) for k in range(max(first, second), n + 1))
    return Preference(first, second, min(1.0, 2 * upper / 2**n))


GUESSED = 1 / 3
"""How often the odd plate of three is picked out by chance alone."""


def triangle(correct: int, cards: int) -> float:
    """Determine the probability that so many or more pick out the odd plate by chance: one-sided, at one third.

    References
    ----------
    ISO 4120, triangle test.
    """
    return at_least(correct, cards, GUESSED) if cards else 1.0


def fewest(cards: int, of: Callable[[int, int], float], level: float) -> int | None:
    """Return the fewest hits among so many cards that chance alone gives at most at this level; None where none do."""
    return next((hits for hits in range(cards + 1) if of(hits, cards) <= level * (1 + 1e-12)), None)


FIRST_LOOK, CHANCE = 8, 0.05
"""A trial is not looked at before so many cards, unless fewer were stated; and what its looks may spend together."""

_TESTS: Mapping[str, tuple[Callable[[int, int], float], float]] = MappingProxyType(
    {"preference": (lambda k, n: preference(k, n - k).probability, 0.5), "triangle": (triangle, GUESSED)}
)


@lru_cache(maxsize=1024)
def named(cards: int, bound: float, first: int, test: str, rate: float) -> float:
    """Determine how often a trial that is looked at after every card names something, where each card hits at `rate`.

    Exact: every way in which hits first fall so that at a look, between `first` and `cards` of them, their probability
    by chance alone is at most `bound`.
    """
    of = _TESTS[test][0]
    still = {0: 1.0}
    found = 0.0
    for n in range(1, cards + 1):
        following: dict[int, float] = {}
        for k, chance in still.items():
            following[k] = following.get(k, 0.0) + chance * (1 - rate)
            following[k + 1] = following.get(k + 1, 0.0) + chance * rate
        if n >= min(first, cards):
            out = [k for k in following if of(k, n) <= bound * (1 + 1e-12)]
            found += sum(following.pop(k) for k in out)
        still = following
    return found


def spent(cards: int, bound: float, first: int = FIRST_LOOK, test: str = "preference") -> float:
    """Determine how often chance alone names something in a trial looked at after every card."""
    return named(cards, bound, first, test, _TESTS[test][1])


@lru_cache(maxsize=256)
def look_bound(cards: int, first: int = FIRST_LOOK, test: str = "preference") -> float:
    """Determine the probability at which a trial of so many cards names something at any of its looks.

    The largest at which all looks together are wrong in at most 5 % of trials without a difference; with fewer cards
    than the first look takes there is only the last one.
    """
    of = _TESTS[test][0]
    found = {of(k, n) for n in range(min(first, cards), cards + 1) for k in range(n + 1)}
    steps = sorted(p for p in found if p <= CHANCE)
    low, high = 0, len(steps)
    while low < high:
        middle = (low + high) // 2
        low, high = (middle + 1, high) if spent(cards, steps[middle], first, test) <= CHANCE else (low, middle)
    return steps[low - 1] if low else 0.0

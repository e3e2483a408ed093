"""What preferences say: the exact two-sided test, and what looking after every card costs it."""

import math
from dataclasses import dataclass
from functools import lru_cache


@dataclass(frozen=True)
class Preference:
    """Cards that prefer each of two arms, and the exact two-sided probability of a split this lopsided by chance."""

    first: int
    second: int
    probability: float


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


FIRST_LOOK, CHANCE = 8, 0.05
"""A trial is not looked at before so many cards, unless fewer were stated; and what its looks may spend together."""


@lru_cache(maxsize=512)
def spent(cards: int, bound: float, first: int = FIRST_LOOK) -> float:
    """Determine how often chance alone names a winner in a trial looked at after every card.

    Exact: every way in which fair coins first fall so lopsided at a look, between `first` and `cards` of them, that
    the two-sided binomial probability is at most `bound`.
    """
    still = {0: 1.0}
    named = 0.0
    for n in range(1, cards + 1):
        following: dict[int, float] = {}
        for k, chance in still.items():
            for up in (0, 1):
                following[k + up] = following.get(k + up, 0.0) + chance / 2
        if n >= min(first, cards):
            out = [k for k in following if preference(k, n - k).probability <= bound * (1 + 1e-12)]
            named += sum(following.pop(k) for k in out)
        still = following
    return named


@lru_cache(maxsize=256)
def look_bound(cards: int) -> float:
    """Determine the probability at which a trial of so many cards names a winner at any of its looks.

    The largest at which all looks together are wrong in at most 5 % of trials without a difference; with fewer cards
    than the first look takes there is only the last one.
    """
    looks = range(min(FIRST_LOOK, cards), cards + 1)
    found = {preference(k, n - k).probability for n in looks for k in range((n + 1) // 2, n + 1)}
    steps = sorted(p for p in found if p <= CHANCE)
    low, high = 0, len(steps)
    while low < high:
        middle = (low + high) // 2
        low, high = (middle + 1, high) if spent(cards, steps[middle]) <= CHANCE else (low, middle)
    return steps[low - 1] if low else 0.0

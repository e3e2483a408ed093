"""Blind tasting: codes and serving orders from a stored seed, and what preferences say."""

import math
from dataclasses import dataclass
from functools import lru_cache
from random import Random

from ravska_core.working import BadInput

LIKING_SCALES = ("overall", "crust", "tenderness", "juiciness", "meat flavour")
"""Nine-point scales of a card, 1 dislike extremely to 9 like extremely."""

SALT_SCALE, JUST_RIGHT = "salt", 3
"""Five-point just-about-right scale: 1 far too little, 3 just right, 5 far too much."""


def scale_limits(scale: str) -> tuple[int, int]:
    """Return the lowest and highest score of a scale, or refuse an unknown one."""
    if scale in LIKING_SCALES:
        return 1, 9
    if scale == SALT_SCALE:
        return 1, 5
    raise BadInput("scale", f"“{scale}” is not on the card; it asks for {', '.join((*LIKING_SCALES, SALT_SCALE))}.")


def blind_codes(seed: int, count: int) -> tuple[str, ...]:
    """Return distinct three-digit codes without a leading 0 or three digits alike, the same for the same seed."""
    plain = [str(n) for n in range(100, 1000) if len(set(str(n))) == 3]
    return tuple(Random(f"codes {seed}").sample(plain, count))


def serving_order(seed: int, samples: int, card: int) -> tuple[int, ...]:
    """Return the order in which card number `card` (from 0) is served the samples.

    Cards come in blocks of one per sample. Within a block every sample stands in every place once
    (a Latin square by rotation); the seed shuffles rows and samples of each block, so that the
    next order cannot be guessed from the last.
    """
    block, row = divmod(card, samples)
    random = Random(f"orders {seed} {block}")
    first = list(range(samples))
    random.shuffle(first)
    rows = list(range(samples))
    random.shuffle(rows)
    turn = rows[row]
    return tuple(first[turn:] + first[:turn])


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

PLANNED_CARDS, MOST_CARDS = 12, 60
"""How many cards a trial states when nobody says otherwise, and how many it can."""


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

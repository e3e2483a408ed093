"""Blind tasting: codes, serving orders and the lot, all from a stored seed that nothing a taster sees gives away."""

import itertools
from collections.abc import Collection, Sequence
from dataclasses import dataclass
from functools import lru_cache
from random import Random

from ravska_core.working import BadInput

PLAIN_CODES = tuple(str(n) for n in range(100, 1000) if len(set(str(n))) == 3)
"""Three digits without a leading 0, all different, so that no plate has a number that stands out."""


def blind_codes(seed: str, count: int, taken: Collection[str] = ()) -> tuple[str, ...]:
    """Return distinct codes, none of those `taken` in the same evening, the same for the same seed.

    The seed is drawn from 256 bits, so that codes and orders, which tasters see, do not give it away.
    """
    lot = list(PLAIN_CODES)
    Random(f"codes {seed}").shuffle(lot)
    return tuple([code for code in lot if code not in taken][:count])


@lru_cache(maxsize=16)
def williams(samples: int) -> tuple[tuple[tuple[int, ...], ...], ...]:
    """Return the squares of a Williams design: one for an even number of samples, two for an odd one.

    In each square every sample stands in every place once; in all of them together every sample follows every other
    equally often.

    References
    ----------
    E. J. Williams, Experimental designs balanced for the estimation of residual effects of treatments, Australian
    Journal of Scientific Research A 2, 1949 (from memory).
    """
    zigzag = [0]
    for step in range(1, samples):
        zigzag.append((samples - (step // 2)) % samples if step % 2 == 0 else (step + 1) // 2)
    square = tuple(tuple((place + turn) % samples for place in zigzag) for turn in range(samples))
    if samples % 2 == 0:
        return (square,)
    return square, tuple(row[::-1] for row in square)


def block_size(samples: int) -> int:
    """Return how many cards a whole block takes: as many as samples where they are even, twice as many else."""
    return samples if samples % 2 == 0 else 2 * samples


def serving_order(seed: str, samples: int, card: int) -> tuple[int, ...]:
    """Return the order in which card number `card` (from 0) is served the samples.

    Cards come in blocks. In a whole one every sample stands in every place, and follows every other, equally often. A
    block that breaks off keeps its counts of places within one of each other, as its squares are served one after the
    other. The seed shuffles samples and rows of each block, so that the next order cannot be guessed from the last.
    """
    block, row = divmod(card, block_size(samples))
    random = Random(f"orders {seed} {block}")
    names = list(range(samples))
    random.shuffle(names)
    rows: list[tuple[int, ...]] = []
    for square in williams(samples):
        shuffled = list(square)
        random.shuffle(shuffled)
        rows += shuffled
    return tuple(names[at] for at in rows[row])


def triangle_order(seed: str, card: int) -> tuple[int, int, int]:
    """Return the three plates of a triangle in the order they are served: 0 and 1 are alike, and so are 2 and 3.

    In six cards each of the two ways is the odd one three times, and the odd one stands in every place twice; in
    three that follow each other from the start, once in every place. Which of two plates alike comes is by lot.

    References
    ----------
    ISO 4120, triangle test: the six orders, equally often.
    """
    block, row = divmod(card, 6)
    random = Random(f"triangles {seed} {block}")
    first_odd = [0, 1, 2]
    random.shuffle(first_odd)
    odd_way = [random.randrange(2) for _ in range(3)]
    place, way = first_odd[row % 3], odd_way[row % 3] if row < 3 else 1 - odd_way[row % 3]
    lot = Random(f"triangle {seed} {card}")
    like = [[0, 1], [2, 3]]
    for pair in like:
        lot.shuffle(pair)
    others = iter(like[1 - way])
    a, b, c = (like[way][0] if at == place else next(others) for at in range(3))
    return a, b, c


@dataclass(frozen=True)
class Balance:
    """How even serving orders are: `places` [plate][place] and `follows` [plate][the one before] count cards.

    `even` says that no count of a place differs from another by more than one card, which is as even as a block that
    breaks off can be; `says` puts both counts into words.
    """

    places: tuple[tuple[int, ...], ...]
    follows: tuple[tuple[int, ...], ...]
    even: bool
    says: str


_TIMES = {1: "once", 2: "twice"}


def _times(count: int) -> str:
    return _TIMES.get(count, f"{count} times")


def balance(codes: Sequence[str], orders: Sequence[Sequence[str]]) -> Balance:
    """Count how often every plate stands in every place, and after every other, over cards as they were served."""
    where = {code: at for at, code in enumerate(codes)}
    most = max((len(order) for order in orders), default=0)
    places = [[0] * most for _ in codes]
    follows = [[0] * len(codes) for _ in codes]
    for order in orders:
        for place, code in enumerate(order):
            places[where[code]][place] += 1
        for before, code in itertools.pairwise(order):
            follows[where[code]][where[before]] += 1
    flat = [count for row in places for count in row]
    after = [follows[i][j] for i in range(len(codes)) for j in range(len(codes)) if i != j]
    even_places, even_after = len(set(flat)) <= 1, len(set(after)) <= 1
    even = not flat or max(flat) - min(flat) <= 1
    if not orders:
        says = ""
    elif even_places and even_after:
        says = f"Every plate stands in every place {_times(flat[0])}, and follows every other {_times(after[0])}."
    else:
        says = _uneven(codes, places, even_places, max(after) - min(after))
    if orders and even and not even_places:
        says = f"As even as {len(orders)} can be: no plate stands in a place more than one card oftener than another."
    return Balance(tuple(map(tuple, places)), tuple(map(tuple, follows)), even, says)


def _uneven(codes: Sequence[str], places: Sequence[Sequence[int]], even: bool, apart: int) -> str:
    first = [row[0] for row in places]
    most, least = max(first), min(first)
    if even:
        return f"Every plate stands in every place as often; how often it follows another differs by {apart}."
    if most == least:
        return "Every plate comes first as often; the other places differ."
    often, seldom = codes[first.index(most)], codes[first.index(least)]
    return f"Out of balance: {often} comes first {_times(most)}, {seldom} {_times(least) if least else 'never'}."


def deal(seed: str, parts: Sequence[str], ways: int) -> tuple[tuple[str, ...], ...]:
    """Deal parts of a joint or a pack out to the ways by lot, as many to each.

    Raises
    ------
    BadInput
        At ``parts`` where they do not come out even, or two are called the same.
    """
    if len(set(parts)) < len(parts):
        raise BadInput("parts", "Two parts are called the same; give each a name of its own, such as left and right.")
    if len(parts) < ways or len(parts) % ways:
        raise BadInput("parts", f"{len(parts)} parts do not come out even over {ways} ways; name {ways} or a multiple.")
    lot = list(parts)
    Random(f"lot {seed}").shuffle(lot)
    each = len(parts) // ways
    dealt = [lot[way * each : (way + 1) * each] for way in range(ways)]
    return tuple(tuple(sorted(some, key=parts.index)) for some in dealt)


def deal_weights(seed: str, grams: Sequence[float], ways: int) -> tuple[tuple[float, ...], ...]:
    """Deal pieces of unlike weight [g] out by lot so that every way gets one of each size: in blocks by weight.

    From each run of as many as there are ways, heaviest first, every way gets one; which is by lot.

    Raises
    ------
    BadInput
        At ``what`` where they do not come out even.
    """
    if len(grams) < ways or len(grams) % ways:
        raise BadInput("what", f"{len(grams)} pieces do not come out even over {ways} ways; take one more or one less.")
    ordered, random = sorted(grams, reverse=True), Random(f"weights {seed}")
    dealt: list[list[float]] = [[] for _ in range(ways)]
    for at in range(0, len(ordered), ways):
        block = ordered[at : at + ways]
        random.shuffle(block)
        for way, one in zip(dealt, block, strict=True):
            way.append(one)
    return tuple(map(tuple, dealt))

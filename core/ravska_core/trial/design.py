"""Blind tasting: codes and serving orders from a stored seed."""

from random import Random


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

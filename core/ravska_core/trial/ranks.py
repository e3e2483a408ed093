"""What orders say: Friedman's test with ties, the least difference of rank sums, and how far tasters agree."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import permutations

import numpy as np
from scipy.special import chdtrc, ndtri

EXACT_WORK = 3e7
"""How many additions the exact distribution may take; above it the chi-square approximation stands in for it."""


@dataclass(frozen=True)
class Friedman:
    """Rank sums, Friedman's statistic, the probability of one so large by chance, and whether that is exact.

    `least` is the least significant difference of two rank sums at the level asked for, `agreement` Kendall's W.
    """

    sums: tuple[float, ...]
    statistic: float
    probability: float
    exact: bool
    least: float
    agreement: float


def midranks(ranks: Sequence[float]) -> tuple[float, ...]:
    """Return ranks with those that are alike at the mean of the places they take."""
    return tuple(
        sum(other < rank for other in ranks) + (sum(other == rank for other in ranks) + 1) / 2 for rank in ranks
    )


def friedman(rows: Sequence[Sequence[float]], level: float = 0.05) -> Friedman:
    """Compare samples by the orders that tasters put them in.

    F = (12 / (n k (k + 1)) sum R^2 - 3 n (k + 1)) / (1 - sum (t^3 - t) / (n (k^3 - k))), R the rank sums of k samples
    over n tasters, t the number of samples alike in a tie. LSRD = z sqrt(n k (k + 1) / 6).

    Parameters
    ----------
    rows
        A taster's ranks of all samples [1 for the best], midranks where some are alike.
    level
        The two-sided level of the least difference.

    References
    ----------
    ISO 8587, ranking; M. G. Kendall and B. Babington Smith, The problem of m rankings, 1939, for W.
    """
    n, k = len(rows), len(rows[0])
    table = np.array(rows, float)
    sums = table.sum(axis=0)
    ties = sum(int(t**3 - t) for row in rows for t in np.unique(np.array(row), return_counts=True)[1])
    tied = 1 - ties / (n * (k**3 - k))
    spread = float(((sums - n * (k + 1) / 2) ** 2).sum())
    least = float(ndtri(1 - level / 2)) * (n * k * (k + 1) / 6) ** 0.5
    told = tuple(float(value) for value in sums)
    if tied < 1e-12:
        return Friedman(told, 0.0, 1.0, True, least, 0.0)
    statistic = 12 * spread / (n * k * (k + 1)) / tied
    key = tuple(sorted(tuple(sorted(row)) for row in rows))
    chance = _by_chance(key, round(4 * spread, 6))
    exact = chance is not None
    return Friedman(
        told, statistic, float(chdtrc(k - 1, statistic)) if chance is None else chance, exact, least,
        statistic / (n * (k - 1)),
    )  # fmt: skip


@lru_cache(maxsize=64)
def _by_chance(rows: tuple[tuple[float, ...], ...], spread: float) -> float | None:
    """Return how often orders drawn by lot, with the same ties, spread their rank sums so far; None where that is long.

    The sums of all but the last sample are counted on a grid [half ranks], taster by taster; `spread` is theirs.
    """
    n, k = len(rows), len(rows[0])
    whole = all(rank == round(rank) for row in rows for rank in row)
    unit = 1.0 if whole else 0.5
    side = round(n * (k - 1) / unit) + 1
    perms = [sorted(set(permutations(row))) for row in rows]
    if side ** (k - 1) * sum(map(len, perms)) > EXACT_WORK:
        return None
    counts = np.zeros((side,) * (k - 1))
    counts[(0,) * (k - 1)] = 1.0
    reach = 0
    for orders in perms:
        following = np.zeros_like(counts)
        now = (slice(0, reach + 1),) * (k - 1)
        for order in orders:
            moved = [round((rank - 1) / unit) for rank in order[:-1]]
            following[tuple(slice(m, m + reach + 1) for m in moved)] += counts[now] / len(orders)
        counts, reach = following, reach + round((k - 1) / unit)
    middle = n * (k + 1) / 2
    axes = np.meshgrid(*[np.arange(side) * unit + n - middle] * (k - 1), indexing="ij")
    spreads = sum(axis**2 for axis in axes) + (-sum(axes)) ** 2
    return float(min(1.0, counts[4 * spreads >= spread - 1e-6].sum()))

"""What scores say: exact tests of tasters' differences, their mean with its interval, several pairs adjusted."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.special import stdtr, stdtrit


@lru_cache(maxsize=256)
def _turned(sizes: tuple[int, ...], total: int) -> float:
    reach = sum(sizes)
    counts = np.zeros(2 * reach + 1)
    counts[reach] = 1.0
    for size in sizes:
        counts = (np.roll(counts, size) + np.roll(counts, -size)) / 2
    sums = np.arange(-reach, reach + 1)
    return float(min(1.0, counts[np.abs(sums) >= total].sum()))


def turned(differences: Sequence[int]) -> float:
    """Determine how often a mean difference as large comes about where every taster's could as well be turned round.

    Exact and two-sided: over all 2^n ways to turn the signs of the differences; those of 0 say nothing.

    References
    ----------
    R. A. Fisher, The Design of Experiments, 1935, section 21: the test of paired differences without assumptions.
    """
    sizes = tuple(sorted(abs(difference) for difference in differences if difference))
    return _turned(sizes, abs(sum(differences))) if sizes else 1.0


@dataclass(frozen=True)
class Interval:
    """A mean difference [points] over n tasters and where it lies 95 times in 100; None where one card cannot tell."""

    mean: float
    low: float | None
    high: float | None
    n: int


def interval(differences: Sequence[float], level: float = 0.05) -> Interval:
    """Determine the mean of paired differences and its interval, mean +- t sd / sqrt(n).

    References
    ----------
    Student, The probable error of a mean, Biometrika 6, 1908.
    """
    n = len(differences)
    values = np.array(differences, float)
    mean = float(values.mean())
    if n < 2:
        return Interval(mean, None, None, n)
    half = float(stdtrit(n - 1, 1 - level / 2) * values.std(ddof=1) / n**0.5)
    return Interval(mean, mean - half, mean + half, n)


FEWEST_SCORED = 6
"""With fewer cards that scored both nothing is named: even if all agree, chance does as well in more than 5 %."""


def by_mean(differences: Sequence[float]) -> float:
    """Determine how often a mean difference as large comes about by chance: a two-sided t test of paired differences.

    t = mean sqrt(n) / sd with n - 1 degrees of freedom; where all differences are alike, which leaves it none, by
    turning their signs.

    References
    ----------
    Student, The probable error of a mean, Biometrika 6, 1908.
    """
    n = len(differences)
    values = np.array(differences, float)
    if n < 2:
        return 1.0
    sd = float(values.std(ddof=1))
    if sd < 1e-12:
        return min(1.0, 2 / 2**n) if abs(values[0]) > 1e-12 else 1.0
    return float(2 * stdtr(n - 1, -abs(float(values.mean())) * n**0.5 / sd))


def holm(chances: Sequence[float]) -> tuple[float, ...]:
    """Adjust probabilities of several pairs so that all of them together are wrong no oftener than one.

    References
    ----------
    S. Holm, A simple sequentially rejective multiple test procedure, Scandinavian Journal of Statistics 6, 1979.
    """
    order = sorted(range(len(chances)), key=chances.__getitem__)
    adjusted = [0.0] * len(chances)
    most = 0.0
    for place, at in enumerate(order):
        most = max(most, min(1.0, (len(chances) - place) * chances[at]))
        adjusted[at] = most
    return tuple(adjusted)

"""Looking ahead: what further cooks would settle, how many it takes, and what one more would gain."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.special import ndtr, ndtri

from ravska_core.across.model import Array, Asked
from ravska_core.across.posterior import Posterior
from ravska_core.across.rule import CLEAN_CARDS, CLEAN_COOKS, MARGIN, SURE, Counted
from ravska_core.working import Figure, Step, figure

MOST_MORE = 12
"""Beyond how many further cooks nobody is told that they would settle it."""

AS_LIKELY = 0.5

SPREAD_SETS = 12
"""Over how many sets of spreads that are believed a look ahead is averaged."""

GUEST, NEW_CUT = -1, -1


@dataclass(frozen=True)
class Sets:
    """Sets of spreads that stand for what is believed of them, each as likely as the others, shape (sets,)."""

    cook: Array
    cut: Array
    taster: Array
    sigma: Array


def _sets_of(found: Posterior) -> Sets:
    """Put the nodes in the order of how little a cook tells, and take one from the middle of each equal share."""
    spreads = found.spreads
    order = np.argsort(spreads.cook**2 + 0.25 * spreads.sigma**2, kind="stable")
    reached = np.cumsum(found.weights[order])
    at = order[np.minimum(np.searchsorted(reached, (np.arange(SPREAD_SETS) + 0.5) / SPREAD_SETS), len(order) - 1)]
    return Sets(spreads.cook[at], spreads.cut[at], spreads.taster[at], spreads.sigma[at])


class Ahead:
    """What is believed, so that further cooks can be looked at before they are cooked."""

    def __init__(self, found: Posterior, of: Asked, margin: float = MARGIN) -> None:
        left = found.statistics
        self.left, self.margin = left, margin
        self.mean, self.variance = found.mean(), found.variance()
        self.sets = _sets_of(found)
        self.covariance = self._covariance()
        fixed = np.zeros((len(of.mu), left.fixed))
        fixed[:, 0] = of.mu
        self.sums = np.concatenate([fixed, of.taster, of.cut], axis=1)

    def _covariance(self) -> Array:
        """Return the posterior covariance of fixed effects, tasters and cuts by each set of spreads, (sets, p, p)."""
        left, priors, sets = self.left, self.left.priors, self.sets
        e, t, c = left.fixed, left.tasters, left.cuts
        p = e + t + c
        n = left.sizes.astype(float)
        l2 = (sets.cook / sets.sigma)[:, None] ** 2
        g = l2 / (1 + n * l2)
        f = 1 - g * n
        q = np.zeros((len(g), p, p))
        q[:, : e + t, : e + t] = left.xx - np.einsum("hg,gpq->hpq", g, left.m)
        by_cut = np.einsum("hg,cgp->hcp", f, left.w_cut)
        q[:, e + t :, : e + t], q[:, : e + t, e + t :] = by_cut, np.swapaxes(by_cut, -1, -2)
        at = np.arange(p)
        q[:, at[e + t :], at[e + t :]] += (f * n) @ left.cooks.T
        q /= sets.sigma[:, None, None] ** 2
        known = np.empty((len(g), p))
        known[:, 0] = priors.mu_sd**-2
        known[:, 1:e] = left.precision / sets.sigma[:, None] ** 2
        if left.ordered:
            known[:, 1] = priors.order_sd**-2
        known[:, e : e + t] = np.maximum(sets.taster, 1e-3)[:, None] ** -2
        known[:, e + t :] = np.maximum(sets.cut, 1e-3)[:, None] ** -2
        q[:, at, at] += known
        return np.asarray(np.linalg.inv(q))

    def removed(self, sums: Sequence[int], cut: int, tasters: Sequence[int], most: int = 1) -> Array:
        """Determine what part of the variance of sums further cooks would remove, (sets, cooks, sums).

        Parameters
        ----------
        cut : int
            The place of their cut in the list, or -1 for a new one.
        tasters : sequence of int
            The places of who tastes, -1 for a guest.
        most : int
            They are 1, 2, ... up to so many cooks.
        """
        e, t, c = self.left.fixed, self.left.tasters, self.left.cuts
        sets, seats = self.sets, len(tasters)
        seen = np.zeros((seats, e + t + c))
        seen[:, 0] = 1
        seen[[row for row, who in enumerate(tasters) if who >= 0], [e + t_ for t_ in tasters if t_ >= 0]] = 1
        if cut >= 0:
            seen[:, e + t + cut] = 1
        noise = sets.sigma[:, None, None] ** 2 * np.eye(seats) + sets.cook[:, None, None] ** 2
        guests = np.diag([float(who < 0) for who in tasters]) * sets.taster[:, None, None] ** 2
        fixed = guests + (sets.cut[:, None, None] ** 2 if cut < 0 else 0.0)
        of = self.sums[list(sums)]
        crossed = np.matmul(self.covariance, seen.T)
        known = np.matmul(seen, crossed) + fixed
        cooks = np.arange(1, most + 1)[None, :, None, None]
        told = np.matmul(of, crossed)[:, None]
        solved = np.linalg.solve(known[:, None] + noise[:, None] / cooks, np.swapaxes(told, -1, -2))
        gained = (told * np.swapaxes(solved, -1, -2)).sum(-1)
        before = (np.matmul(of, self.covariance) * of).sum(-1)
        return np.asarray(np.clip(gained / np.maximum(before, 1e-12)[:, None], 1e-9, 1 - 1e-9))

    def settles(self, at: int, cut: int, tasters: Sequence[int], counted: Counted, most: int = 1) -> Array:
        """Determine how likely the rule names something of one sum once 1, 2, ... more clean cooks are in, (most,)."""
        cooks = np.arange(1, most + 1)
        enough = (counted.clean_cooks + cooks >= CLEAN_COOKS) & (
            counted.clean_cards + cooks * len(tasters) >= CLEAN_CARDS
        )
        removed = self.removed([at], cut, tasters, most)[..., 0]
        chances = speaks(float(self.mean[at]), float(self.variance[at]), removed, self.margin).mean(0)
        return np.where(enough, chances, 0.0)

    def gain(self, sums: Sequence[int], cut: int, tasters: Sequence[int]) -> float:
        """Determine by how much further guesses of which side is better improve with one cook [points a plate].

        The expected gain of acting on the mean after the cook over acting on it before, added up over sums.
        """
        at = list(sums)
        spread = np.sqrt(self.variance[at] * self.removed(at, cut, tasters)[:, 0])
        middle = np.abs(self.mean[at])
        z = middle / spread
        density = np.exp(-0.5 * z * z) / np.sqrt(2 * np.pi)
        return float((spread * density - middle * ndtr(-z)).sum(-1).mean())


def speaks(mean: float, variance: float, removed: Array, margin: float = MARGIN) -> Array:
    """Determine how likely the rule names something after looks that remove parts of a variance.

    The mean after one is N(mean, removed variance). Either side is named when it exceeds the margin by z SDs of what is
    left, and that nothing matters when enough of what is left lies within the margin.
    """
    left = np.sqrt(variance * (1 - removed))
    moves = np.sqrt(np.maximum(variance * removed, 1e-12))
    over = margin + float(ndtri(SURE)) * left
    chance = ndtr((mean - over) / moves) + ndtr((-mean - over) / moves)
    low, high = np.zeros_like(left), np.full_like(left, margin)
    for _ in range(30):
        half = 0.5 * (low + high)
        within = ndtr((margin - half) / left) - ndtr((-margin - half) / left) >= SURE
        low, high = np.where(within, half, low), np.where(within, high, half)
    nothing = ndtr((low - mean) / moves) - ndtr((-low - mean) / moves)
    return np.asarray(np.minimum(chance + np.where(2 * ndtr(margin / left) - 1 >= SURE, nothing, 0.0), 1.0))


@dataclass(frozen=True)
class More:
    """How many further cooks would as likely as not settle a cell, None where as many as are looked at are unlikely to;
    how many tasters each, and with what chance. `figure` says why, cook by cook."""

    cooks: int | None
    tasters: int
    chance: float
    figure: Figure | None = None


def more_needed(ahead: Ahead, at: int, cut: int, tasters: Sequence[int], counted: Counted) -> More:
    """Determine the fewest further cooks after which the rule speaks as likely as not, up to `MOST_MORE`."""
    chances = ahead.settles(at, cut, tasters, counted, MOST_MORE)
    enough = np.flatnonzero(chances >= AS_LIKELY)
    cooks = int(enough[0]) + 1 if len(enough) else None
    chance = float(chances[enough[0]] if len(enough) else chances.max())
    return More(cooks, len(tasters), chance, _why(chances, len(tasters), counted, cooks))


def _why(chances: Array, tasters: int, counted: Counted, cooks: int | None) -> Figure:
    steps = [
        Step("Tasters a cook", "who usually tastes", tasters, ""),
        Step("Clean cooks and cards so far", f"{counted.clean_cooks} cooks", counted.clean_cards, "cards"),
        *[Step(f"Chance after {at + 1} more", "that the rule names something", float(chances[at]), "", "across")
          for at in range(cooks or MOST_MORE)],
        Step("Cooks more", f"the fewest with a chance of {AS_LIKELY:g}" if cooks else "none of these is enough",
             float(cooks or MOST_MORE), "cooks"),
    ]  # fmt: skip
    return figure(steps, "about: averaged over what is believed of the spreads")

"""What is believed once cards are in: a normal mixture of every sum that was asked for."""

from dataclasses import dataclass

import numpy as np
from scipy.special import ndtr, ndtri

from ravska_core.across.model import Array, Asked, Cards, Moments, Priors, Statistics

LINEAR = 0.25
"""Ratios are laid out as 0.25 sinh t: even steps near none, where the density is even, longer ones in the tail."""

COARSE, COARSE_NODES, EDGE = 7, 3, 1e-5
"""Nodes of a ratio and of log sigma while it zooms in, and the mass that an interval may leave out."""

STEP, FEWEST, MOST, NODES, LEAST = 0.8, 5, 14, 7, 1e-7
"""Distance of nodes in posterior SDs, how many at least and at most, those in log sigma, and what weight is dropped."""

REACH = 12.0
"""The largest ratio first looked at, in scales of its prior at the usual sigma; 6 would cut the tail off."""

_HERMITE = {nodes: np.polynomial.hermite.hermgauss(nodes) for nodes in (COARSE_NODES, NODES)}


def _log_weights(
    left: Statistics, axes: tuple[Array, Array, Array], nodes: int, of: Asked
) -> tuple[Array, Array, Array, Moments]:
    """Return log weights on the grid of ratios times nodes in log sigma, sigma^2 there, and how far the prior of mu and
    pi draws there (its weights, over the same grid), with the moments before that."""
    priors = left.priors
    l_cook, l_cut, l_taster = (LINEAR * np.sinh(t) for t in axes)
    stretch = [np.log(np.cosh(t)) for t in axes]
    found = left.moments(l_cook, l_cut, l_taster, of)
    squares = np.maximum(found.squares, 0)
    penalty = (
        (l_cook[:, None, None] / priors.cook) ** 2
        + (l_cut[:, None] / priors.cut) ** 2
        + (l_taster / priors.taster) ** 2
    )
    jacobian = stretch[0][:, None, None] + stretch[1][None, :, None] + stretch[2]
    n, s0, w0 = left.count - 1, np.log(priors.sigma), priors.sigma_logsd**-2
    # the mode in log sigma, with the Jacobians of the three spreads; the density is log-concave, so Newton is safe
    s = 0.5 * np.log((squares + w0 * priors.sigma**2 / 4) / (n + w0 / 4))
    for _ in range(25):
        e2 = np.exp(2 * s)
        a, b = squares / e2, penalty * e2
        step = np.clip((3 - n + a - (s - s0) * w0 - b) / (2 * a + w0 + 2 * b), -1, 1)
        s = s + step
        if np.abs(step).max() < 1e-4:
            break
    e2 = np.exp(2 * s)
    sd = 1 / np.sqrt(2 * squares / e2 + w0 + 2 * penalty * e2)
    t, weight = _HERMITE[nodes]
    s = s[..., None] + np.sqrt(2) * sd[..., None] * t
    e2 = np.exp(2 * s)
    draw, log_prior = _fixed_scales(left, found, e2)
    log_weights = (
        (3 - n) * s
        - 0.5 * squares[..., None] / e2
        - 0.5 * w0 * (s - s0) ** 2
        - 0.5 * penalty[..., None] * e2
        + log_prior
        + (jacobian - 0.5 * found.log_det + np.log(sd))[..., None]
        + np.log(weight)
        + t * t
    )
    return log_weights, e2, draw, found


def _fixed_scales(left: Statistics, found: Moments, e2: Array) -> tuple[Array, Array]:
    """Return how mu, and pi where there is one, are drawn by priors whose scale is in points and no ratio, as W of

        mean - K' W m,  variance - K' W K,  K their covariances with a sum

    and the log of what that adds. mu had none until here, pi one that goes with sigma: W = D (1 + S D)^-1 with S their
    covariance and D the precision that is missing. Shapes (k, k, ...) and (...).
    """
    mean, spread = found.mean[..., None], found.covariance[..., None] * e2[:, :, :, None, None, :]
    priors = left.priors
    d0 = priors.mu_sd**-2
    if not left.ordered:
        s00 = spread[:, :, :, 0, 0]
        w00 = d0 / (1 + s00 * d0)
        return w00[None, None], -0.5 * np.log1p(s00 * d0) - 0.5 * w00 * mean[:, :, :, 0] ** 2
    order = -1
    s00, s01, s11 = spread[:, :, :, 0, 0], spread[:, :, :, 1, 0], spread[:, :, :, 1, order]
    d1 = priors.order_sd**-2 * (1 - priors.sigma**2 / e2)
    determinant = (1 + s00 * d0) * (1 + s11 * d1) - s01 * s01 * d0 * d1
    w00 = d0 * (1 + s11 * d1) / determinant
    w11 = d1 * (1 + s00 * d0) / determinant
    w01 = -d0 * d1 * s01 / determinant
    m0, m1 = mean[:, :, :, 0], mean[:, :, :, order]
    quadratic = w00 * m0 * m0 + 2 * w01 * m0 * m1 + w11 * m1 * m1
    log_prior = -0.5 * np.log(determinant) - 0.5 * quadratic + 0.5 * np.log(e2)
    return np.stack([np.stack([w00, w01]), np.stack([w01, w11])]), log_prior


def _nodes(low: float, high: float, count: int) -> Array:
    step = (high - low) / count
    return np.asarray(low + step * (np.arange(count) + 0.5))


def _zoomed(left: Statistics, of: Asked) -> tuple[Array, Array, Array]:
    """Return for each ratio the interval of t that holds the mass, and its posterior SD in t."""
    priors = left.priors
    low = np.zeros(3)
    high = np.arcsinh(np.array([priors.cook, priors.cut, priors.taster]) * REACH / priors.sigma / LINEAR)
    sd = np.zeros(3)
    for _ in range(8):
        axes = [_nodes(low[at], high[at], COARSE) for at in range(3)]
        logs = _log_weights(left, (axes[0], axes[1], axes[2]), COARSE_NODES, of)[0]
        mass = np.exp(logs - logs.max()).sum(-1)
        done = True
        for at in range(3):
            share = mass.sum(axis=tuple(other for other in range(3) if other != at))
            share /= share.sum()
            step = (high[at] - low[at]) / COARSE
            keep = np.flatnonzero(share > EDGE)
            first, last = keep[0], keep[-1]
            lower = max(0.0, axes[at][first] - step * (1.5 if first == 0 else 0.5))
            upper = axes[at][last] + step * (1.5 if last == COARSE - 1 else 0.5)
            mean = share @ axes[at]
            sd[at] = max(np.sqrt(share @ (axes[at] - mean) ** 2), 0.3 * step)
            done = done and upper - lower >= 0.6 * (high[at] - low[at])
            low[at], high[at] = lower, upper
        if done:
            break
    return low, high, sd


@dataclass(frozen=True)
class Spreads:
    """What the spreads may be at each node: between cooks, cuts and tasters, and of one card [points]."""

    cook: Array
    cut: Array
    taster: Array
    sigma: Array


@dataclass(frozen=True)
class Posterior:
    """Belief in sums of what is not known: a mixture of normals. Weights (h,), means and variances (h, f) [points]."""

    weights: Array
    means: Array
    variances: Array
    spreads: Spreads
    statistics: Statistics

    def mean(self) -> Array:
        """Return the expected value of every sum [points]."""
        return np.asarray(self.weights @ self.means)

    def variance(self) -> Array:
        """Return the variance of every sum."""
        return np.asarray(self.weights @ (self.variances + (self.means - self.mean()) ** 2))

    def below(self, points: float) -> Array:
        """Return the chance that a sum lies below so many points, for every sum."""
        return np.asarray(self.weights @ ndtr((points - self.means) / np.sqrt(self.variances)))

    def quantile(self, share: float, tolerance: float = 1e-6) -> Array:
        """Return the points below which every sum lies with the chance `share`.

        Newton's method on the probit of the mixture's distribution, which is nearly linear, within brackets.
        """
        return _quantile(self.weights, self.means, self.variances, share, tolerance)

    def interval(self) -> tuple[Array, Array]:
        """Return between what every sum lies 95 times in 100, to a thousandth of a point.

        Components that hold less than a ten-thousandth of the heaviest are left out.
        """
        keep = self.weights > self.weights.max() * 1e-4
        weights = self.weights[keep] / self.weights[keep].sum()
        means, variances = self.means[keep], self.variances[keep]
        low, high = (_quantile(weights, means, variances, share, 1e-4) for share in (0.025, 0.975))
        return low, high

    def grains(self, sums: int, count: int = 20) -> Array:
        """Return as many quantiles of one sum as there are grains, each of one chance in `count`, to be drawn.

        Components that hold less than a thousandth of the heaviest are left out: a grain is drawn, not decided by.
        """
        keep = self.weights > self.weights.max() * 1e-3
        weights = self.weights[keep] / self.weights[keep].sum()
        means, deviations = self.means[keep, sums], np.sqrt(self.variances[keep, sums])
        middle = float(weights @ means)
        spread = float(np.sqrt(weights @ (deviations**2 + (means - middle) ** 2)))
        at = middle + spread * np.linspace(-4.5, 4.5, 73)
        reached = weights @ ndtr((at[None] - means[:, None]) / deviations[:, None])
        probits = ndtri(np.clip(reached, 1e-9, 1 - 1e-9))
        return np.asarray(np.interp(ndtri((np.arange(count) + 0.5) / count), probits, at))


def _quantile(weights: Array, means: Array, variances: Array, share: float, tolerance: float) -> Array:
    probit = ndtri(share)
    middle = weights @ means
    sd = np.sqrt(weights @ (variances + (means - middle) ** 2))
    x = middle + probit * sd
    low, high = middle - 15 * sd, middle + 15 * sd
    precise = 1 / np.sqrt(variances)
    dense = weights[:, None] * precise / np.sqrt(2 * np.pi)
    for _ in range(40):
        z = (x - means) * precise
        over = weights @ ndtr(z) - share
        low, high = np.where(over < 0, x, low), np.where(over >= 0, x, high)
        slope = (dense * np.exp(-0.5 * z * z)).sum(0)
        q = ndtri(np.clip(over + share, 1e-12, 1 - 1e-12))
        after = x - (q - probit) * np.exp(-0.5 * q * q) / np.sqrt(2 * np.pi) / np.maximum(slope, 1e-300)
        after = np.where((after <= low) | (after >= high), 0.5 * (low + high), after)
        moved = np.abs(after - x).max()
        x = after
        if moved < tolerance:
            break
    return np.asarray(x)


def fit(cards: Cards, of: Asked, priors: Priors | None = None) -> Posterior:
    """Determine what cards say of the sums that are asked for; the first must be mu itself."""
    return fit_statistics(Statistics(cards, priors or Priors()), of)


def fit_statistics(left: Statistics, of: Asked) -> Posterior:
    """Determine what the cards behind these statistics say of the sums that are asked for."""
    few = Asked(of.mu[:1], of.cut[:1], of.taster[:1])
    low, high, sd = _zoomed(left, few)
    counts = np.clip(np.ceil((high - low) / (STEP * sd)).astype(int), FEWEST, MOST)
    axes = [_nodes(low[at], high[at], int(counts[at])) for at in range(3)]
    logs, e2, draw, found = _log_weights(left, (axes[0], axes[1], axes[2]), NODES, of)
    weights = np.exp(logs - logs.max())
    weights /= weights.sum()
    chosen = np.flatnonzero(weights.ravel() > LEAST)
    place = chosen // NODES
    kept = weights.ravel()[chosen]
    kept /= kept.sum()
    e2 = e2.ravel()[chosen][:, None]
    sums = found.mean.shape[-1]
    mean, variance = (part.reshape(-1, sums)[place] for part in (found.mean, found.variance))
    scaled = found.covariance.shape[3]
    covariance = found.covariance.reshape(-1, scaled, sums)[place] * e2[:, :, None]
    w = draw.reshape(scaled, scaled, -1)[:, :, chosen]
    fixed = mean[:, [0] if scaled == 1 else [0, -1]]
    pulled = np.einsum("kch,hcf->hkf", w, covariance)
    mean = mean - np.einsum("hkf,hk->hf", pulled, fixed)
    variance = e2 * variance - (pulled * covariance).sum(1)
    i, j, m = np.unravel_index(place, tuple(counts))
    sigma = np.sqrt(e2[:, 0])
    ratio = [LINEAR * np.sinh(axis) for axis in axes]
    spreads = Spreads(ratio[0][i] * sigma, ratio[1][j] * sigma, ratio[2][m] * sigma, sigma)
    return Posterior(kept, mean, np.maximum(variance, 1e-14), spreads, left)

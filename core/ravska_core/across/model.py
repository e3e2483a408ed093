"""How the liking of two ways differs over cooks, cuts and tasters: a mixed model of paired differences, exactly.

One card is one taster in one cook with both samples scored::

    d = mu + a[cut] + b[cook] + u[taster] + s pi + z . delta + e,   e ~ N(0, sigma^2)

a, b, u are normal with standard deviations tau; s says which came first on the card, z how far the two differed in
something else. Given the ratios tau / sigma all is Gaussian: cooks, then cuts, then mu, pi and delta drop out in closed
form, one eigendecomposition of the tasters' block gives every tau_taster. What is left is a sum over the three ratios
and sigma: a midpoint rule that zooms in on the mass, times Gauss-Hermite in log sigma about each mode. Nothing is
drawn, so that the same cards have the same answer.

References
----------
D. V. Lindley and A. F. M. Smith, Bayes estimates for the linear model, J. R. Stat. Soc. B 34, 1972, for the model;
A. Gelman, Prior distributions for variance parameters in hierarchical models, Bayesian Analysis 1, 2006, for
half-normal scales.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Index = NDArray[np.intp]


@dataclass(frozen=True)
class Priors:
    """What is taken for known before any card is in [points of 9; estimates, simulated first].

    `mu_sd` is of the difference over all cuts; `cut`, `cook` and `taster` the scales of the half-normal spreads between
    them; `sigma` the median of what one card varies by and `sigma_logsd` its doubt; `order_sd` of what coming first
    gives.
    """

    mu_sd: float = 1.0
    cut: float = 0.75
    cook: float = 0.50
    taster: float = 0.75
    sigma: float = 1.5
    sigma_logsd: float = 0.35
    order_sd: float = 0.5


PRIORS = Priors()


@dataclass(frozen=True)
class Cards:
    """The cards of a pair of ways, second less first.

    Parameters
    ----------
    difference : (n,) array
        Points.
    cook, taster, cut : (n,) arrays
        Places in the lists of cooks, tasters and cuts, each from 0.
    cuts : int
        How many cuts there are; some may have no card and lean on the others.
    first : (n,) array
        0.5 where the second sample came first, -0.5 where the first did, 0 where nobody knows.
    confounds, sizes : (n, j) and (j,) arrays
        How far the two differed in each other thing, in its usual size, and what that size does [points, SD].
    """

    difference: Array
    cook: Index
    taster: Index
    cut: Index
    cuts: int
    first: Array
    confounds: Array
    sizes: Array


@dataclass(frozen=True)
class Asked:
    """Sums of what is not known that are asked for, f = mu + a . cut + u . taster; the first is mu itself.

    Shapes (f,), (f, cuts) and (f, tasters). Where it is known who came first on a card, what that gives is added last.
    """

    mu: Array
    cut: Array
    taster: Array

    def with_order(self) -> "Asked":
        """Return the same sums and a last one that holds none of these, for what coming first gives."""
        return Asked(*(np.concatenate([part, np.zeros_like(part[:1])]) for part in (self.mu, self.cut, self.taster)))


def asked(rows: list[tuple[float, Array, Array]], cuts: int, tasters: int) -> Asked:
    """Return the sums that are asked for as arrays, mu itself before them."""
    rows = [(1.0, np.zeros(cuts), np.zeros(tasters)), *rows]
    return Asked(np.array([row[0] for row in rows]), np.array([row[1] for row in rows]),
                 np.array([row[2] for row in rows]))  # fmt: skip


@dataclass(frozen=True)
class _Reduced:
    """What is left per pair of ratios once cooks, cuts and the fixed effects are integrated out."""

    kappa: Array
    by_cut: Array
    sum_cut: Array
    inverse: Array
    solved: Array
    across: Array
    values: Array
    vectors: Array
    turned: Array
    squares: Array
    log_det: Array


@dataclass(frozen=True)
class Moments:
    """Residual squares and log determinants on a grid of ratios, and of every sum its mean, variance and covariances
    with the fixed effects whose scale is no ratio, all in sigma^2."""

    squares: Array
    log_det: Array
    mean: Array
    variance: Array
    covariance: Array


class Statistics:
    """Sums over the cards that say all the model needs; what follows costs the same for any number of cooks."""

    def __init__(self, cards: Cards, priors: Priors = PRIORS) -> None:
        d = cards.difference
        self.cards, self.priors = cards, priors
        self.count = len(d)
        cooks = int(cards.cook.max()) + 1
        self.tasters, self.cuts = int(cards.taster.max()) + 1, cards.cuts
        self.ordered = bool(cards.first.any())
        columns = [np.ones((self.count, 1)), *([cards.first[:, None]] if self.ordered else []), cards.confounds]
        fixed = np.concatenate(columns, axis=1)
        self.fixed = fixed.shape[1]
        people = np.zeros((self.count, self.tasters))
        people[np.arange(self.count), cards.taster] = 1.0
        x = np.concatenate([fixed, people], axis=1)
        p = x.shape[1]
        of_cook = np.bincount(cards.cook, minlength=cooks)
        sum_cook = np.bincount(cards.cook, d, minlength=cooks)
        w = np.zeros((cooks, p))
        for j in range(self.fixed):
            w[:, j] = np.bincount(cards.cook, fixed[:, j], minlength=cooks)
        w[:, self.fixed :] = np.bincount(
            cards.cook * self.tasters + cards.taster, minlength=cooks * self.tasters
        ).reshape(cooks, self.tasters)
        cut_of = np.zeros(cooks, dtype=np.intp)
        cut_of[cards.cook] = cards.cut
        self.sizes, group = np.unique(of_cook, return_inverse=True)
        groups = len(self.sizes)
        self.xx, self.xd, self.dd = x.T @ x, x.T @ d, float(d @ d)
        self.m = np.stack([w[group == g].T @ w[group == g] for g in range(groups)])
        self.ms = np.stack([w[group == g].T @ sum_cook[group == g] for g in range(groups)])
        self.ss = np.bincount(group, sum_cook**2, minlength=groups)
        key = cut_of * groups + group
        shape = (self.cuts, groups)
        length = self.cuts * groups
        self.cooks = np.bincount(key, minlength=length).reshape(shape).astype(float)
        self.w_cut = np.stack([np.bincount(key, w[:, j], minlength=length) for j in range(p)], -1).reshape(*shape, p)
        self.s_cut = np.bincount(key, sum_cook, minlength=length).reshape(shape)
        self.precision = (priors.sigma / np.concatenate([[priors.order_sd] if self.ordered else [], cards.sizes])) ** 2

    @property
    def shares(self) -> Array:
        """Return each taster's share of all cards, (tasters,)."""
        cast = np.bincount(self.cards.taster, minlength=self.tasters)
        return np.asarray(cast / cast.sum())

    def _reduced(self, l_cook: Array, l_cut: Array) -> _Reduced:
        e = self.fixed
        n = self.sizes.astype(float)
        g = l_cook[:, None] ** 2 / (1 + l_cook[:, None] ** 2 * n)
        a = self.xx - np.einsum("ig,gpq->ipq", g, self.m)
        r = self.xd - np.einsum("ig,gp->ip", g, self.ms)
        squares = self.dd - g @ self.ss
        log_det = np.log1p(l_cook[:, None] ** 2 * n) @ self.cooks.sum(0)
        f = 1 - g * n
        q = np.einsum("ig,cg->ic", f * n, self.cooks)
        by_cut = np.einsum("ig,cgp->icp", f, self.w_cut)
        sum_cut = np.einsum("ig,cg->ic", f, self.s_cut)
        l2 = l_cut[None, :, None] ** 2
        kappa = l2 / (1 + l2 * q[:, None, :])
        weighed = np.sqrt(kappa)[..., None] * by_cut[:, None]
        s = a[:, None] - np.matmul(np.swapaxes(weighed, -1, -2), weighed)
        rs = r[:, None] - np.einsum("ijc,ic,icp->ijp", kappa, sum_cut, by_cut, optimize=True)
        squares = squares[:, None] - np.einsum("ijc,ic->ij", kappa, sum_cut**2)
        log_det = log_det[:, None] + np.log1p(l2 * q[:, None, :]).sum(-1)
        see = s[..., :e, :e].copy()
        seu = s[..., :e, e:]
        if e == 1:
            inverse = 1 / see
            log_det = log_det + np.log(see[..., 0, 0])
        else:
            at = np.arange(1, e)
            see[..., at, at] += self.precision
            inverse = np.linalg.inv(see)
            log_det = log_det + np.linalg.slogdet(see)[1]
        across = inverse @ seu
        solved = np.matmul(inverse, rs[..., :e, None])[..., 0]
        values, vectors = np.linalg.eigh(s[..., e:, e:] - np.matmul(np.swapaxes(seu, -1, -2), across))
        left = rs[..., e:] - np.matmul(np.swapaxes(seu, -1, -2), solved[..., None])[..., 0]
        turned = np.matmul(np.swapaxes(vectors, -1, -2), left[..., None])[..., 0]
        squares = squares - (rs[..., :e] * solved).sum(-1)
        return _Reduced(kappa, by_cut, sum_cut, inverse, solved, across, np.maximum(values, 0), vectors, turned,
                        squares, log_det)  # fmt: skip

    def moments(self, l_cook: Array, l_cut: Array, l_taster: Array, of: Asked) -> Moments:
        """Determine the likelihood's pieces and every sum's moments on a tensor grid of ratios, shape (i, j, m)."""
        left = self._reduced(l_cook, l_cut)
        e, scaled = self.fixed, 2 if self.ordered else 1
        l2 = l_taster[:, None] ** 2
        phi = l2 / (1 + l2 * left.values[:, :, None, :])
        squares = left.squares[..., None] - (phi * left.turned[:, :, None, :] ** 2).sum(-1)
        log_det = left.log_det[..., None] + np.log1p(l2 * left.values[:, :, None, :]).sum(-1)
        of = of.with_order() if self.ordered else of
        fixed = np.zeros((len(of.mu), e))
        fixed[:, 0] = of.mu
        fixed[-1, 1:scaled] = 1.0
        x = np.concatenate([fixed, of.taster], axis=1)
        weighed = of.cut[None, None] * left.kappa[:, :, None, :]
        gx = x - np.matmul(weighed, left.by_cut[:, None])
        constant = np.matmul(weighed, left.sum_cut[:, None, :, None])[..., 0]
        ge = gx[..., :e]
        constant = constant + np.matmul(ge, left.solved[..., None])[..., 0]
        fu = np.matmul(gx[..., e:] - np.matmul(ge, left.across), left.vectors)
        mean = constant[:, :, None, :] + np.matmul(phi * left.turned[:, :, None, :], np.swapaxes(fu, -1, -2))
        base = (of.cut**2 * left.kappa[:, :, None, :]).sum(-1) + (np.matmul(ge, left.inverse) * ge).sum(-1)
        variance = base[:, :, None, :] + np.matmul(phi, np.swapaxes(fu**2, -1, -2))
        # covariances with mu, and with pi where there is one: their own rows of the fixed block
        own = np.matmul(-left.across[..., :scaled, :], left.vectors)
        block = np.matmul(left.inverse[..., :scaled, :], np.swapaxes(ge, -1, -2))
        covariance = block[:, :, None] + np.matmul(
            phi[:, :, :, None, :] * own[:, :, None], np.swapaxes(fu, -1, -2)[:, :, None]
        )
        return Moments(squares, log_det, mean, variance, covariance)

"""The model across cooks: check values, a dense model that is not ours, another library, and what must not matter."""

from dataclasses import replace

import numpy as np
import pytest
from ravska_core.across import Cards, Priors, Statistics, asked, fit, fit_statistics
from scipy.special import ndtr
from statsmodels.regression.mixed_linear_model import MixedLM, VCSpec

# rows of cooks: (taster, difference) each; from the design's check values, recomputed twice there
K1 = ([[(0, 2), (1, 1)]], None, None)
K2 = ([[(0, 1)], [(0, 2)], [(0, 0)], [(0, 1)]], None, None)
K3 = ([list(enumerate(row)) for row in ((2, 1, 0, 3), (1, 2, 1, 2))], None, None)
K4 = (
    [list(enumerate(row)) for row in ((2, 1, 3), (1, 0, 2), (-1, 0, 1), (0, -2, 0), (1, 1, 0), (2, 3, 1))],
    [0, 0, 1, 1, 2, 2], None,
)  # fmt: skip
K5 = (
    [[(0, 1), (1, 2), (2, 2)], [(0, 0), (1, 1)], [(2, 3)], [(0, -1), (1, 1), (2, 0), (3, 2)]], [0, 0, 1, 1], None,
)  # fmt: skip
K6 = (
    [list(enumerate(row)) for row in ((2, 1, 4), (-2, -3, 0), (2, 1, 5), (-1, -2, 3), (2, 0, 3))], [0, 1, 0, 1, 0],
    None,
)  # fmt: skip
K7 = (
    [list(enumerate(row)) for row in ((2, 1, 0, 2), (0, 1, 1, 2), (1, 1, 0, 1), (3, 2, 2, 3), (2, 3, 1, 2))], None,
    [0, 0, 0, 1, 1],
)  # fmt: skip

VALUES = [
    # case, whose, cut, mean, 2.5 %, 97.5 %, P(>= .5), P(<= -.5), P(within)
    (K1, "table", 0, 0.8567, -0.9273, 2.5134, 0.6737, 0.0625, 0.2638),
    (K1, "guest", 0, 0.7475, -1.0213, 2.4324, 0.6217, 0.0778, 0.3005),
    (K2, "table", 0, 0.7856, -0.5003, 1.9816, 0.6959, 0.0250, 0.2791),
    (K2, "guest", 0, 0.6201, -0.9244, 2.0319, 0.5825, 0.0685, 0.3490),
    (K3, "table", 0, 1.2726, 0.2241, 2.1859, 0.9377, 0.0018, 0.0605),
    (K3, "guest", 0, 1.1944, 0.0259, 2.2292, 0.8970, 0.0041, 0.0989),
    (K4, "table", 0, 1.1001, 0.1159, 2.1130, 0.8863, 0.0013, 0.1123),
    (K4, "table", 1, 0.1684, -0.9317, 1.2137, 0.2834, 0.1155, 0.6011),
    (K4, "table", 2, 1.0154, 0.0575, 1.9963, 0.8599, 0.0018, 0.1383),
    (K5, "table", 0, 0.9998, -0.0604, 2.0225, 0.8411, 0.0046, 0.1543),
    (K5, "table", 1, 0.9334, -0.1298, 1.9656, 0.8081, 0.0061, 0.1859),
    (K6, "table", 0, 1.8851, 0.6966, 2.8148, 0.9864, 0.0003, 0.0133),
    (K6, "table", 1, -0.4583, -1.5784, 0.9140, 0.0714, 0.5027, 0.4259),
    (K7, "table", 0, 1.1392, 0.5636, 1.7178, 0.9838, 0.0000, 0.0162),
    (K7, "guest", 0, 1.0864, 0.2977, 1.8161, 0.9397, 0.0007, 0.0596),
]


def cards_of(rows, cuts=None, muddied=None, firsts=None):
    """Return cards of cooks as the model takes them."""
    flat = [
        (difference, at, taster, cuts[at] if cuts else 0, muddied[at] if muddied else 0)
        for at, row in enumerate(rows)
        for taster, difference in row
    ]
    difference, cook, taster, cut, z = (np.array(column) for column in zip(*flat, strict=True))
    n = len(flat)
    return Cards(
        difference.astype(float), cook, taster, cut, int(cut.max()) + 1,
        np.zeros(n) if firsts is None else np.array(firsts, float),
        z[:, None].astype(float) if muddied else np.zeros((n, 0)), np.ones(1 if muddied else 0),
    )  # fmt: skip


def believed(cards, whose="table"):
    """Return what is believed of every cut."""
    left = Statistics(cards)
    shares = left.shares if whose == "table" else np.zeros(left.tasters)
    rows = [(1.0, np.eye(cards.cuts)[cut], shares) for cut in range(cards.cuts)]
    return fit_statistics(left, asked(rows, cards.cuts, left.tasters))


# science.md of the design, section 9
@pytest.mark.parametrize(("case", "whose", "cut", "mean", "low", "high", "more", "less", "within"), VALUES)
def test_the_check_values_come_out(case, whose, cut, mean, low, high, more, less, within):
    found = believed(cards_of(*case), whose)
    at = cut + 1
    assert found.mean()[at] == pytest.approx(mean, abs=5e-4)
    assert (found.quantile(0.025)[at], found.quantile(0.975)[at]) == pytest.approx((low, high), abs=2e-3)
    above, below = 1 - found.below(0.5)[at], found.below(-0.5)[at]
    assert (above, below, 1 - above - below) == pytest.approx((more, less, within), abs=5e-4)


def test_leaving_a_confound_out_or_its_cooks_is_what_was_told():
    rows, _, _ = K7
    assert believed(cards_of(rows)).mean()[1] == pytest.approx(1.4022, abs=2e-3)
    clean = believed(cards_of(rows[:3]))
    assert clean.mean()[1] == pytest.approx(0.9198, abs=2e-3)


def dense(cards, priors, shares, cut):
    """Return mean, chance of at least .5 and of at most -.5 of one sum, by brute force.

    All effects stand in one dense covariance; spreads are summed over Gauss-Legendre nodes in their own units. Nothing
    of it is shared with the model but its priors.
    """
    n, d = len(cards.difference), cards.difference
    same = {name: (part[:, None] == part[None, :]).astype(float) for name, part in
            (("cook", cards.cook), ("cut", cards.cut), ("taster", cards.taster))}  # fmt: skip
    x, w = np.polynomial.legendre.leggauss(18)
    spreads = {}
    for name, scale in (("cook", priors.cook), ("cut", priors.cut), ("taster", priors.taster)):
        tau = (x + 1) / 2 * 4.5 * scale
        spreads[name] = (tau, w * np.exp(-0.5 * (tau / scale) ** 2))
    z, zw = np.polynomial.legendre.leggauss(22)
    logs = np.log(priors.sigma) + 4.5 * priors.sigma_logsd * z
    sigma, sw = np.exp(logs), zw * np.exp(-0.5 * ((logs - np.log(priors.sigma)) / priors.sigma_logsd) ** 2)
    grid = np.meshgrid(*(spreads[name][0] for name in ("cook", "cut", "taster")), sigma, indexing="ij")
    weight = np.einsum("i,j,k,l->ijkl", *(spreads[name][1] for name in ("cook", "cut", "taster")), sw).ravel()
    cook, between, taster, noise = (part.ravel()[:, None, None] ** 2 for part in grid)
    first = np.outer(cards.first, cards.first) * priors.order_sd**2
    muddy = sum(
        (np.outer(z, z) * (sd / priors.sigma) ** 2 for z, sd in zip(cards.confounds.T, cards.sizes, strict=True)),
        np.zeros((n, n)),
    )  # fmt: skip
    v = (
        priors.mu_sd**2 + cook * same["cook"] + between * same["cut"] + taster * same["taster"]
        + noise * (np.eye(n) + muddy) + first
    )  # fmt: skip
    cross = (
        priors.mu_sd**2 + between[:, :, 0] * (cards.cut == cut) + taster[:, :, 0] * shares[cards.taster]
    )  # fmt: skip
    own = priors.mu_sd**2 + between[:, 0, 0] + taster[:, 0, 0] * (shares**2).sum()
    factor = np.linalg.cholesky(v)
    y = np.linalg.solve(factor, np.broadcast_to(d[:, None], (len(v), n, 1)))[..., 0]
    c = np.linalg.solve(factor, cross[..., None])[..., 0]
    likelihood = -0.5 * (y**2).sum(-1) - np.log(np.diagonal(factor, axis1=1, axis2=2)).sum(-1)
    mass = weight * np.exp(likelihood - likelihood.max())
    mass /= mass.sum()
    mean, sd = (c * y).sum(-1), np.sqrt(own - (c**2).sum(-1))
    return mass @ mean, mass @ ndtr((mean - 0.5) / sd), mass @ ndtr((-0.5 - mean) / sd)


@pytest.mark.parametrize("seed", range(20))
def test_a_dense_model_by_brute_force_says_the_same(seed):
    chance = np.random.default_rng(seed)
    tasters, cuts, cooks = int(chance.integers(1, 4)), int(chance.integers(1, 3)), int(chance.integers(1, 4))
    rows = [
        [(taster, int(chance.integers(-3, 4))) for taster in range(tasters) if taster == 0 or chance.random() < 0.7]
        for _ in range(cooks)
    ]
    of = [at % cuts for at in range(cooks)]
    n = sum(map(len, rows))
    firsts = chance.choice([-0.5, 0.5, 0.0], n) if seed % 2 else None
    cards = cards_of(rows, of, [float(chance.integers(0, 2)) for _ in rows] if seed % 3 == 0 else None, firsts)
    found = believed(cards)
    mean, more, less = dense(cards, Priors(), found.statistics.shares, 0)
    assert found.mean()[1] == pytest.approx(mean, abs=2e-3)
    assert 1 - found.below(0.5)[1] == pytest.approx(more, abs=5e-4)
    assert found.below(-0.5)[1] == pytest.approx(less, abs=5e-4)


def many(cooks=30, seed=4):
    """Return a book of whole-number differences of 5 tasters over 3 cuts."""
    chance = np.random.default_rng(seed)
    own, moved = chance.normal(0, 0.5, 5), chance.normal(0, 0.4, cooks)
    rows = [[(t, round(1.0 + own[t] + moved[k] + chance.normal(0, 1.4))) for t in range(5)] for k in range(cooks)]
    return cards_of(rows, [k % 3 for k in range(cooks)])


# statsmodels' MixedLM by restricted likelihood, without priors: with much data both say about the same
def test_a_mixed_model_of_another_library_says_about_the_same():
    cards = many(60)
    n = len(cards.difference)
    found = MixedLM(
        cards.difference, np.ones((n, 1)), groups=np.zeros(n),
        exog_vc=VCSpec(
            ["cook", "taster"], [[[f"{k}" for k in range(60)]], [[f"{t}" for t in range(5)]]],
            [[np.eye(60)[cards.cook]], [np.eye(5)[cards.taster]]],
        ),
    ).fit()  # fmt: skip
    ours = believed(cards, "guest")
    # five tasters and a prior about nothing: the mean may lie a bootstrap's width apart
    assert ours.mean()[0] == pytest.approx(found.fe_params[0], abs=0.3)
    assert float(ours.weights @ ours.spreads.sigma) == pytest.approx(found.scale**0.5, abs=0.1)
    assert float(ours.weights @ ours.spreads.cook) == pytest.approx(found.vcomp[0] ** 0.5, abs=0.2)


def test_the_same_cards_have_the_same_answer_to_the_last_bit():
    one, other = believed(many()), believed(many())
    assert one.mean().tobytes() == other.mean().tobytes()
    assert one.quantile(0.025).tobytes() == other.quantile(0.025).tobytes()


def test_turning_the_two_sides_round_turns_the_answer_round():
    cards = many()
    one = believed(cards)
    other = believed(replace(cards, difference=-cards.difference))
    assert one.mean() == pytest.approx(-other.mean(), abs=1e-9)
    assert 1 - one.below(0.5) == pytest.approx(other.below(-0.5), abs=1e-9)


def test_the_order_of_cards_says_nothing():
    cards = many()
    mixed = np.random.default_rng(8).permutation(len(cards.difference))
    shuffled = replace(
        cards, difference=cards.difference[mixed], cook=cards.cook[mixed], taster=cards.taster[mixed],
        cut=cards.cut[mixed], first=cards.first[mixed], confounds=cards.confounds[mixed],
    )  # fmt: skip
    assert believed(shuffled).mean() == pytest.approx(believed(cards).mean(), abs=1e-9)


def test_what_comes_first_is_taken_out_where_it_is_known():
    """Nothing is true but that the first on a card gets a point more, and nine cards in ten begin with the second."""
    chance = np.random.default_rng(3)
    firsts = np.where(chance.random(120) < 0.9, 0.5, -0.5)
    rows = [[(t, firsts[6 * k + t] * 2.0) for t in range(6)] for k in range(20)]
    known, unknown = believed(cards_of(rows, firsts=firsts)), believed(cards_of(rows))
    assert unknown.mean()[1] > 0.6
    assert abs(known.mean()[1]) < 0.3
    assert known.mean()[-1] == pytest.approx(2.0, abs=0.5)


def test_a_cut_without_a_cook_leans_on_the_rest_and_is_less_sure():
    cards = replace(many(), cuts=4)
    found = believed(cards)
    sd = np.sqrt(found.variance())
    assert found.mean()[4] == pytest.approx(found.mean()[1:4].mean(), abs=0.15)
    assert sd[4] > 1.3 * sd[1:4].max()


def test_grains_are_the_quantiles_of_what_is_believed():
    found = believed(many())
    for share, grain in zip((np.arange(20) + 0.5) / 20, found.grains(1), strict=True):
        assert grain == pytest.approx(found.quantile(float(share))[1], abs=0.02)


def test_a_wider_prior_is_less_sure():
    cards = cards_of(*K1)
    of = asked([(1.0, np.ones(1), np.full(2, 0.5))], 1, 2)
    assert fit(cards, of, Priors(mu_sd=2.0)).variance()[1] > fit(cards, of).variance()[1]

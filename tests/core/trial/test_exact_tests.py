"""Triangles, orders, scores and power, against published critical values and SciPy."""

from itertools import permutations, product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ravska_core.trial import what_shows
from ravska_core.trial.liking import by_mean, holm, interval, turned
from ravska_core.trial.power import (
    fewest_cards,
    finds_preference,
    finds_ranking,
    finds_scores,
    finds_triangle,
    in_ten,
    say_shows,
)  # fmt: skip
from ravska_core.trial.ranks import friedman, midranks
from ravska_core.trial.tests import FIRST_LOOK, at_least, fewest, look_bound, named, preference, spent, triangle
from scipy import stats


# ISO 4120, table A.1: the fewest correct answers at 5 %
@pytest.mark.parametrize(
    ("cards", "correct"), [(6, 5), (12, 8), (18, 10), (24, 13), (30, 15), (36, 18)]
)  # fmt: skip
def test_a_triangle_takes_as_many_right_answers_as_is_published(cards, correct):
    assert fewest(cards, triangle, 0.05) == correct
    assert triangle(correct, cards) == pytest.approx(stats.binomtest(correct, cards, 1 / 3, "greater").pvalue, rel=1e-9)


# ISO 5495, two-sided at 5 %: the fewest that agree of so many (from memory, and by SciPy)
@pytest.mark.parametrize(("cards", "agree"), [(6, 6), (8, 8), (9, 8), (10, 9), (12, 10), (15, 12), (20, 15), (30, 21)])
def test_a_preference_takes_as_many_that_agree_as_is_published(cards, agree):
    def at(k):
        return preference(k, cards - k).probability

    assert at(agree) <= 0.05 < at(agree - 1)
    assert at(agree) == pytest.approx(stats.binomtest(agree, cards, 0.5).pvalue, rel=1e-9)


@given(st.integers(0, 40), st.integers(0, 40), st.floats(0.05, 0.95))
def test_a_binomial_tail_is_scipys(hits, more, chance):
    n = hits + more
    assert at_least(hits, n, chance) == pytest.approx(stats.binom.sf(hits - 1, n, chance), rel=1e-9, abs=1e-12)


def every_fall(cards: int, bound: float, first: int) -> float:
    """All 2^n ways in which fair coins fall, one by one: how many are named at some look."""
    falls = 0
    for coins in product((0, 1), repeat=cards):
        up, is_named = 0, False
        for n, coin in enumerate(coins, 1):
            up += coin
            if n >= min(first, cards):
                is_named |= stats.binomtest(up, n).pvalue <= bound * (1 + 1e-9)
        falls += is_named
    return falls / 2**cards


@pytest.mark.parametrize("cards", [4, 6, 9, 11])
def test_what_looks_spend_is_counted_way_by_way(cards):
    bound = look_bound(cards)
    assert spent(cards, bound) == pytest.approx(every_fall(cards, bound, FIRST_LOOK))


@pytest.mark.parametrize("cards", range(4, 41))
def test_no_number_of_cards_names_a_winner_by_chance_oftener_than_5_in_100(cards):
    for test in ("preference", "triangle"):
        bound = look_bound(cards, test=test)
        assert spent(cards, bound, test=test) <= 0.05 + 1e-12
    assert (look_bound(cards) == 0) == (cards <= 5)  # with 5 or fewer nothing can be named


# Friedman's critical values at 5 %, tables for small numbers as in ISO 8587 (from memory): the least significant
@pytest.mark.parametrize(
    ("samples", "tasters", "value"),
    [(3, 4, 6.5), (3, 5, 6.4), (3, 6, 7.0), (3, 7, 7.143), (3, 8, 6.25), (3, 9, 6.222), (3, 10, 6.2),
     (4, 3, 7.4), (4, 4, 7.8), (4, 5, 7.8), (4, 6, 7.6), (4, 7, 7.8), (4, 8, 7.65)],
)  # fmt: skip
def test_friedman_is_significant_from_the_published_value_on(samples, tasters, value):
    found = {}
    orders = list(permutations(range(1, samples + 1)))
    random = np.random.default_rng(samples * 100 + tasters)
    for _ in range(4000):
        rows = [orders[at] for at in random.choice(len(orders), tasters)]
        one = friedman([orders[0], *rows[1:]])
        found[round(one.statistic, 3)] = one.probability
    assert one.exact
    assert found[value] <= 0.05
    below = max(statistic for statistic in found if statistic < value)
    assert found[below] > 0.05


@settings(max_examples=60)
@given(st.integers(3, 5), st.integers(3, 12), st.randoms())
def test_friedman_with_ties_is_scipys_and_its_chance_close_to_chi_square(samples, tasters, random):
    scores = [[random.randint(1, 5) for _ in range(samples)] for _ in range(tasters)]
    if all(len(set(row)) == 1 for row in scores):
        return
    rows = [midranks(row) for row in scores]
    assert rows == [tuple(stats.rankdata(row)) for row in scores]
    found = friedman(rows)
    theirs = stats.friedmanchisquare(*np.array(scores).T)
    assert found.statistic == pytest.approx(theirs.statistic, rel=1e-9)
    assert found.agreement == pytest.approx(found.statistic / tasters / (samples - 1))
    assert found.least == pytest.approx(1.959964 * (tasters * samples * (samples + 1) / 6) ** 0.5, rel=1e-6)
    if not found.exact:
        assert found.probability == pytest.approx(theirs.pvalue, rel=1e-9)


def test_friedmans_chance_is_counted_over_every_order():
    rows = [(1.0, 2.0, 3.0), (1.0, 2.5, 2.5), (2.0, 1.0, 3.0), (1.5, 1.5, 3.0)]

    def spread(some):
        return sum((sum(column) - 8) ** 2 for column in zip(*some, strict=True))

    every = list(product(*[sorted(set(permutations(row))) for row in rows]))
    by_hand = sum(spread(some) >= spread(rows) - 1e-9 for some in every) / len(every)
    assert friedman(rows).probability == pytest.approx(by_hand)
    assert friedman([(2.0, 2.0, 2.0)] * 4).probability == 1.0
    # six samples, twenty tasters: too many ways to count, and it says so
    assert not friedman([tuple(map(float, range(1, 7)))] * 20).exact


# ISO 8587: least significant rank difference of 10 tasters and 4 samples at 5 %, 1.96 (10 4 5 / 6)^0.5 = 11.3
def test_the_least_difference_of_rank_sums_is_the_published_one():
    assert friedman([(1.0, 2.0, 3.0, 4.0)] * 10).least == pytest.approx(11.316, abs=0.001)


@given(st.lists(st.integers(-8, 8), min_size=1, max_size=9))
def test_turned_differences_are_counted_over_all_ways_to_turn_them(differences):
    at = abs(sum(differences))
    ways = list(product((1, -1), repeat=len(differences)))
    by_hand = sum(abs(sum(s * d for s, d in zip(way, differences, strict=True))) >= at for way in ways) / len(ways)
    assert turned(differences) == pytest.approx(by_hand)


def test_an_interval_is_students():
    found = interval([2, 1, 0, 3, 1, 2])
    theirs = stats.ttest_1samp([2, 1, 0, 3, 1, 2], 0).confidence_interval(0.95)
    assert (found.low, found.high, found.mean) == pytest.approx((theirs.low, theirs.high, 1.5))
    assert (interval([2]).low, interval([2]).mean) == (None, 2)


@given(st.lists(st.integers(-8, 8), min_size=2, max_size=20))
def test_a_mean_difference_is_tested_as_students(differences):
    if len(set(differences)) == 1:
        assert by_mean(differences) == (1.0 if not differences[0] else min(1.0, 2 / 2 ** len(differences)))
        return
    assert by_mean(differences) == pytest.approx(stats.ttest_1samp(differences, 0).pvalue, rel=1e-6)


def test_whole_numbers_name_by_chance_about_as_often_as_5_in_100():
    random = np.random.default_rng(9)
    for tasters in (6, 8, 12, 24):
        scores = np.clip(np.round(random.normal(6.5, 1.06, (4000, tasters, 2))), 1, 9).astype(int)
        found = np.mean([by_mean(list(row)) <= 0.05 for row in scores[:, :, 1] - scores[:, :, 0]])
        assert found <= 0.058


# S. Holm 1979, by hand: 4 of .01, .04, .03, .005 in order .02, .03, .06, .06
def test_several_pairs_are_adjusted_step_by_step():
    assert holm((0.01, 0.04, 0.03, 0.005)) == pytest.approx((0.03, 0.06, 0.06, 0.02))
    assert holm((0.4, 0.9)) == pytest.approx((0.8, 0.9))


# science.md section 9: 6, 8, 10, 12 tasters find a true 1.5 in 51, 68, 80, 88 of 100
@pytest.mark.parametrize(("tasters", "of_100"), [(6, 51), (8, 68), (10, 80), (12, 88)])
def test_so_many_tasters_find_a_difference_as_often_as_said(tasters, of_100):
    assert round(finds_scores(tasters, 1.5) * 100) == of_100


def test_power_is_what_simulated_trials_of_the_same_test_find():
    random = np.random.default_rng(3)
    for tasters, difference in ((8, 1.5), (12, 0.8)):
        drawn = random.normal(difference, 1.5, (1500, tasters))
        found = np.mean([by_mean(row) <= 0.05 for row in drawn])
        assert finds_scores(tasters, difference) == pytest.approx(found, abs=0.03)
    assert finds_scores(12, 0.0) == pytest.approx(0.05, abs=1e-6)
    right = random.binomial(12, 0.5 + 0.5 / 3, 6000)
    assert finds_triangle(12, 0.5) == pytest.approx((right >= 8).mean(), abs=0.02)
    votes = random.random((4000, 12)) < stats.norm.cdf(1.0)
    ups = votes.cumsum(axis=1)
    bound = look_bound(12)
    hit = [
        any(preference(int(row[n - 1]), n - int(row[n - 1])).probability <= bound for n in range(8, 13)) for row in ups
    ]
    assert finds_preference(12, 1.5) == pytest.approx(np.mean(hit), abs=0.03)
    assert named(12, bound, FIRST_LOOK, "preference", 0.5) == pytest.approx(spent(12, bound))


def test_rankings_find_the_best_oftener_with_more_tasters_and_seldom_where_there_is_none():
    few, many = finds_ranking(6, 3, 1.5), finds_ranking(20, 3, 1.5)
    assert 0.1 < few < many < 1
    assert finds_ranking(12, 3, 0.0) < 0.03
    assert finds_ranking(1, 3, 1.5) == finds_scores(1, 1.5) == 0


@pytest.mark.parametrize(("kind", "least"), [("scores", 6), ("preference", 6), ("triangle", 3), ("ranking", 5)])
def test_with_too_few_cards_nothing_can_be_named_and_it_says_so(kind, least):
    samples = 3 if kind == "ranking" else 2
    assert fewest_cards(kind, samples) == least
    said = say_shows(kind, least - 1, samples, what_shows(kind, least - 1, samples))
    assert said.startswith(
        f"With {least - 1} cards nothing can be named, however they fall; it takes at least {least}."
    )
    assert ("count in Verdict" in said) == (kind == "scores")
    assert "1 card nothing" in say_shows(kind, 1, samples, what_shows(kind, 1, samples))
    assert say_shows(kind, 0, samples, what_shows(kind, 0, samples)).startswith("Without cards nothing")


def test_what_tasters_can_show_is_said_in_tens():
    shows = what_shows("scores", 10, 2)
    said = say_shows("scores", 10, 2, shows)
    assert said.startswith(
        "A difference of 1.5 points of nine would be found 8 times in 10; one of 0.8, 3 times in 10."
    )
    assert said.endswith(
        "One more taster makes it 8 times in 10; a second evening with the same 10, about nearly always."
    )
    assert shows[0].now.value < shows[0].one_more.value < shows[0].second_evening.value
    # by hand: (0.25 + (2.25 - 0.25) / 2)^0.5 = 1.118
    assert shows[0].second_evening.steps[2].value == pytest.approx(1.118, abs=0.001)
    assert say_shows("triangle", 12, 2, what_shows("triangle", 12, 2)).startswith(
        "If half of them can tell, that would be found 6 times in 10"
    )
    assert [in_ten(p) for p in (0, 0.02, 0.1, 0.5, 0.97)] == [
        "never", "hardly ever", "1 time in 10", "5 times in 10", "nearly always",
    ]  # fmt: skip

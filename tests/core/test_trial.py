"""Blind codes, serving orders, preference, the verdict, the fair test and the steps of the day."""

from collections import Counter
from dataclasses import replace
from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.confounds import ArmRecord, compare_arms
from ravska_core.layers import Layer, plain
from ravska_core.schedule import Planned, count_back, usual_steps
from ravska_core.tasting import blind_codes, preference, serving_order
from ravska_core.verdict import CHANCE, mean_liking, read_verdict
from scipy.stats import binomtest
from tests_blends import blend


@given(st.integers(0, 60), st.integers(0, 60))
def test_preference_is_the_exact_two_sided_binomial(first, second):
    if first + second:
        expected = binomtest(first, first + second, 0.5, alternative="two-sided").pvalue
        assert preference(first, second).probability == pytest.approx(expected, rel=1e-9)


def test_three_cards_are_not_yet_known_and_eight_of_eight_are_a_winner():
    three = read_verdict(3, 0)
    assert (three.state, three.winner, three.probability.value) == ("not yet known", None, 0.25)
    assert three.cards_more.value == 3  # six of six: 2 / 2^6 = 0.031
    eight = read_verdict(0, 8)
    assert (eight.state, eight.winner) == ("winner", 1)
    assert eight.probability.value == pytest.approx(2 / 256)
    assert read_verdict(0, 0).state == "no cards"
    assert read_verdict(0, 0, no_preference=2).state == "not yet known"


@given(st.integers(0, 30), st.integers(0, 30))
def test_the_cards_said_to_settle_it_do_and_one_fewer_does_not(first, second):
    more = int(read_verdict(first, second).cards_more.value)
    ahead, behind = max(first, second), min(first, second)
    assert preference(ahead + more, behind).probability <= CHANCE
    if more:
        assert preference(ahead + more - 1, behind).probability > CHANCE


def test_means_carry_their_standard_error():
    found = mean_liking("overall", ((6, 8), (8, 8), (7, 5)))
    assert found.means[0].value == 7
    assert found.means[0].high - 7 == pytest.approx(1 / 3**0.5)
    assert mean_liking("overall", ((6, 8),)).means[0].high is None


@given(st.integers(0, 2**31), st.integers(2, 5))
def test_codes_and_orders_come_from_the_seed_and_are_balanced(seed, samples):
    codes = blind_codes(seed, samples)
    assert codes == blind_codes(seed, samples)
    assert len(set(codes)) == samples
    assert all(len(set(code)) == 3 and code[0] != "0" for code in codes)
    block = [serving_order(seed, samples, card) for card in range(samples)]
    for place in range(samples):
        assert Counter(order[place] for order in block) == Counter(range(samples))
    orders = {serving_order(seed, samples, card) for card in range(40)}
    assert len(orders) > 1


A = ArmRecord("A", "lamb-shoulder", 1, 2300, 1.2, 18_000, 1800, False)
B = replace(A, label="B")


@pytest.mark.parametrize(
    ("change", "what", "can_even"),
    [
        ({"salt_percent": 1.5}, "salt", True),
        ({"mass_g": 2800}, "weight", False),
        ({"cut": "lamb-leg"}, "cut", False),
        ({"count": 2}, "count", False),
        ({"rest_s": 3600}, "rest", True),
        ({"fire_s": 14_000}, "fire", True),
        ({"surface_coated": True}, "bare face", True),
    ],
)
def test_what_differs_besides_the_seasoning_is_named(change, what, can_even):
    assert not compare_arms(A, B, 3, 0).differs
    (found,) = compare_arms(A, replace(B, **change), 3, 0).differs
    assert (found.what, found.can_even) == (what, can_even)


def test_what_is_not_known_is_not_called_the_same():
    found = compare_arms(A, replace(B, salt_percent=None), 3, 1)
    assert "salt" in found.unknown
    assert [d.what for d in found.differs] == ["blind"]


def test_steps_are_counted_back_from_serving_by_their_holds():
    serve = datetime(2027, 6, 12, 18, 30, tzinfo=UTC)
    rub = Layer("rub", blend(("table-salt/fine", 1, "spoon"), ("paprika/powder", 1, "spoon")), 5, 7200)
    steps = usual_steps([Layer("pre-salt", plain("table-salt/fine"), 0.7, 1800), rub], 5 * 3600, 1800)
    assert [step.kind for step in steps] == ["mix", "salt", "coat", "on", "rest", "plate"]
    times = [at.strftime("%H:%M") for at, _ in count_back(serve, steps)]
    assert times == ["10:15", "10:30", "11:00", "13:00", "18:00", "18:30"]
    assert [step.layer for step in steps[:3]] == [None, 0, 1]
    bath = usual_steps([replace(rub, kind="marinade")], 5 * 3600, 1800)
    assert [step.kind for step in bath] == ["mix", "bag", "wipe", "on", "rest", "plate"]
    begins, before = count_back(serve, [Planned("bag", 3600), Planned("plate", 0)])[0]
    assert before.value == (serve - begins).total_seconds() == 3600

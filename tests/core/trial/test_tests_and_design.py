"""Blind codes, serving orders, preference, the verdict, the fair test and the steps of the day."""

from collections import Counter
from dataclasses import replace
from datetime import UTC, datetime

import numpy as np
import pytest
from builders import blend
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.coat import Layer, Planned, Wanted, mixed_once, plain, usual_steps
from ravska_core.day import count_back
from ravska_core.trial import ArmRecord, blind_codes, compare_arms, mean_liking, read_verdict, serving_order
from ravska_core.trial.tests import look_bound, preference, spent
from ravska_core.trial.verdict import names
from scipy.stats import binomtest


@given(st.integers(0, 60), st.integers(0, 60))
def test_preference_is_the_exact_two_sided_binomial(first, second):
    if first + second:
        expected = binomtest(first, first + second, 0.5, alternative="two-sided").pvalue
        assert preference(first, second).probability == pytest.approx(expected, rel=1e-9)


def test_a_winner_is_named_at_a_look_from_the_eighth_card_on_or_at_the_number_stated():
    three = read_verdict(3, 0)
    assert (three.state, three.winner, three.probability.value) == ("not yet known", None, 0.25)
    assert three.cards_more.value == 5  # no look before the eighth card
    seven = read_verdict(7, 0)
    assert (seven.state, seven.cards_more.value) == ("not yet known", 1)
    eight = read_verdict(0, 8)
    assert (eight.state, eight.winner) == ("winner", 1)
    assert eight.probability.value == pytest.approx(2 / 256)
    assert read_verdict(0, 0).state == "no cards"
    assert read_verdict(0, 0, no_preference=2).state == "not yet known"
    # with fewer cards stated there is one look, at the last; four can name nobody
    assert read_verdict(5, 0, planned=6).state == "not yet known"
    assert read_verdict(6, 0, planned=6).state == "winner"  # 2 / 2^6 = 0.031
    assert read_verdict(4, 0, planned=4).state == "no winner"
    assert read_verdict(5, 5, planned=12).state == "no winner"
    assert read_verdict(5, 5, planned=12).cards_more is None


# science.md section 9: what looking after every card spends
@pytest.mark.parametrize(
    ("cards", "bound", "wrong"),
    [(20, 0.05, 0.1066), (30, 0.05, 0.1336), (20, 0.02, 0.040), (30, 0.016, 0.046), (40, 0.012, 0.041)],
)
def test_looking_after_every_card_is_wrong_as_often_as_said(cards, bound, wrong):
    assert spent(cards, bound, 1) == pytest.approx(wrong, abs=0.0005)


@pytest.mark.parametrize("cards", [6, 8, 9, 12, 20, 30, 60])
def test_all_looks_together_spend_at_most_five_percent_and_the_next_bound_would_spend_more(cards):
    limit = look_bound(cards)
    assert 0 < spent(cards, limit) <= 0.05
    steps = sorted({preference(k, n - k).probability for n in range(min(8, cards), cards + 1) for k in range(n + 1)})
    above = next(p for p in steps if p > limit * (1 + 1e-9))
    assert above > 0.05 or spent(cards, above) > 0.05


def test_chance_alone_names_a_winner_as_often_as_it_spends():
    # 40,000 trials of fair coins, looked at after every card from the eighth on: an own simulation
    flips = np.random.default_rng(5).random((40_000, 20)) < 0.5
    ups = flips.cumsum(axis=1)
    named = np.zeros(len(flips), bool)
    for n in range(8, 21):
        ahead = np.maximum(ups[:, n - 1], n - ups[:, n - 1])
        named |= np.isin(ahead, [k for k in range(n + 1) if names(k, n - k, 0, 20) and k > n - k])
    assert named.mean() == pytest.approx(spent(20, look_bound(20)), abs=0.004)


@given(st.integers(0, 15), st.integers(0, 15), st.integers(0, 4), st.integers(1, 30))
def test_the_cards_said_to_settle_it_do_and_one_fewer_does_not(first, second, neither, planned):
    found = read_verdict(first, second, neither, planned)
    ahead, behind = max(first, second), min(first, second)
    if found.cards_more is None:
        left = max(0, planned - first - second - neither)
        assert not any(names(ahead + more, behind, neither, planned) for more in range(left + 1))
        return
    more = int(found.cards_more.value)
    assert names(ahead + more, behind, neither, planned)
    assert (found.state == "winner") == (more == 0)
    if more:
        assert not names(ahead + more - 1, behind, neither, planned)


def test_means_carry_their_standard_error():
    found = mean_liking("overall", ((6, 8), (8, 8), (7, 5)))
    assert found.means[0].value == 7
    assert found.means[0].high - 7 == pytest.approx(1 / 3**0.5)
    assert mean_liking("overall", ((6, 8),)).means[0].high is None


@given(st.integers(0, 2**31), st.integers(2, 5))
def test_codes_and_orders_come_from_the_seed_and_are_balanced(seed, samples):
    codes = blind_codes(str(seed), samples)
    assert codes == blind_codes(str(seed), samples)
    assert len(set(codes)) == samples
    assert all(len(set(code)) == 3 and code[0] != "0" for code in codes)
    block = [serving_order(seed, samples, card) for card in range(samples)]
    for place in range(samples):
        assert Counter(order[place] for order in block) == Counter(range(samples))
    orders = {serving_order(seed, samples, card) for card in range(40)}
    assert len(orders) > 1


A = ArmRecord("A", "lamb-shoulder", 1, 2300, 1.2, 18_000, 1800, False)
B = replace(A, letter="B")


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


def test_what_is_eaten_beside_two_arms_is_the_same_or_a_difference_of_its_own():
    record = ArmRecord("A", "lamb-shoulder", 1, 2000, 1.5, 3600, 600, True, (("Quay sauce", 30.0),))
    said = lambda beside: compare_arms(record, replace(record, letter="B", beside=beside), 0, 0)  # noqa: E731
    assert "Quay sauce with it" in said((("Quay sauce", 32.0),)).same
    assert [one.what for one in said(()).differs] == ["beside"]
    assert said(()).differs[0].sentence.startswith("Only A is eaten with Quay sauce, B is not")
    assert "A gets 30 g of Quay sauce a serving, the other 20 g" in said((("Quay sauce", 20.0),)).differs[0].sentence
    both = said((("Quay sauce", 30.0), ("Lock relish", 10.0)))
    assert [one.sentence.split(" is not")[0] for one in both.differs] == ["Only B is eaten with Lock relish, A"]
    assert compare_arms(replace(record, beside=()), replace(record, letter="B", beside=()), 0, 0).differs == ()


def test_what_goes_on_over_the_fire_lasts_until_the_piece_comes_off():
    serve = datetime(2027, 6, 12, 18, 30, tzinfo=UTC)
    sauce = blend(("honey/liquid", 1, "spoon"), ("table-salt/fine", 1, "spoon"))
    layers = [
        Layer("binder", plain("mustard/yellow"), 1.5),
        Layer("rub", sauce, 5, 7200),
        Layer("spritz", plain("apple-juice/liquid"), 0.5),
        Layer("wrap", plain("butter/liquid"), 40),
        Layer("glaze", sauce, 4),
        Layer("cooking liquid", sauce, 300, 3600),
        Layer("drippings", None, 50),
        Layer("finishing salt", plain("table-salt/fine"), 3),
        Layer("stirred in", sauce, 80),
        Layer("at the table", sauce, 30),
    ]
    steps = usual_steps(layers, 6 * 3600, 1800)
    # serving 18:30, so off the fire 18:00 and on at 12:00; by hand from there
    assert {step.kind: at.strftime("%H:%M") for step, (at, _) in zip(steps, count_back(serve, steps), strict=True)} == {
        "mix": "09:40", "aside": "09:55", "bind": "09:55", "coat": "10:00", "on": "12:00", "spritz": "14:00",
        "wrap": "16:00", "pot": "17:00", "glaze": "17:40", "catch": "18:00", "rest": "18:00", "finish": "18:30",
        "stir": "18:30", "pass": "18:30", "plate": "18:30",
    }  # fmt: skip
    assert [step.kind for step in steps[-4:]] == ["finish", "stir", "plate", "pass"]
    # in the order they are done, whatever order the layers came in
    assert [step.kind for step in usual_steps(layers[::-1], 6 * 3600, 1800)][4:10] == [
        "on", "spritz", "wrap", "pot", "glaze", "catch",
    ]  # fmt: skip
    # over a fire of 18 min, by hand: two thirds, a third, a quarter, so that a wrap still goes on before a glaze
    short = {step.kind: step.lasts_s / 60 for step in usual_steps(layers[2:5], 18 * 60, 0)}
    assert (short["spritz"], short["wrap"], short["glaze"]) == (12, 6, 4.5)
    # one that is asked to last longer than the fire begins with it
    late = count_back(serve, [Planned("on", 3600), Planned("wrap", 7200), Planned("rest", 1800), Planned("plate", 0)])
    assert [at.strftime("%H:%M") for at, _ in late] == ["17:00", "17:00", "18:00", "18:30"]
    assert late[1][1].value == 5400


def test_a_blend_that_several_pieces_take_is_mixed_once_by_the_first():
    wanted = [Wanted(0, 1, "rub", False), Wanted(1, 0, "rub", False), Wanted(1, 1, "bath", False)]
    shared = mixed_once(wanted, [36000.0, 33000.0], [False, False])
    assert shared == ((), (wanted[1 - 1], wanted[1], wanted[2]))
    assert mixed_once(wanted, [33000.0, 36000.0], [False, False]) == ((wanted[0], wanted[1]), (wanted[2],))
    # what one piece has mixed already is not what another put on the board later still needs
    done = [replace(wanted[0], mixed=True), *wanted[1:]]
    assert mixed_once(done, [33000.0, 36000.0], [True, False]) == ((done[0],), (wanted[1], wanted[2]))
    # a piece that mixes nothing itself lets its blend be mixed with another's
    assert mixed_once(wanted[:2], [None, 36000.0], [False, False]) == ((), (wanted[0], wanted[1]))


def test_cards_without_a_preference_are_cards_and_decide_nothing():
    assert read_verdict(1, 1, 2).state == "not yet known"
    assert read_verdict(0, 0, 3).state == "not yet known"
    assert read_verdict(0, 0).state == "no cards"
    # six of six are 2/64, below the 0.0386 of 12 cards; two that do not care make it the eighth card, its first look
    assert not names(6, 0, 0, 12)
    assert not names(6, 0, 1, 12)
    assert names(6, 0, 2, 12)
    assert read_verdict(6, 0, 2).probability.value == pytest.approx(2 / 64)
    # and they use up cards: four left at 8 of 12, of which the fewest that settle it are counted
    found = read_verdict(5, 1, 2)
    more = found.cards_more.value
    assert more == next(k for k in range(5) if names(5 + k, 1, 2, 12))
    assert read_verdict(5, 1, 6).state == "no winner"


def test_the_working_of_a_verdict_says_its_looks_and_what_would_settle_it():
    early = read_verdict(5, 1, 0, 12)
    *_, reached, fewest = early.cards_more.steps
    assert f"{5 + fewest.value} to 1" in reached.formula
    assert reached.value == pytest.approx(preference(5 + int(fewest.value), 1).probability)
    assert reached.value <= early.bound.value
    assert [step.formula for step in early.bound.steps][2] == "looked at after each card from 8 to 12"
    assert [step.formula for step in read_verdict(2, 1, 0, 6).bound.steps][2] == "looked at once, at 6 cards"
    assert [step.formula for step in read_verdict(2, 1, 0, 8).bound.steps][2] == "looked at once, at 8 cards"
    assert early.bound.steps[2].value <= 0.05


def test_fires_wood_and_ends_are_compared_where_both_arms_say_them():
    first = replace(A, phases=("indirect, beside the fire at 110 °C",), wood=("alder",), done="to 92 °C")
    other = replace(first, letter="B", phases=("in the oven at 110 °C",), wood=(), done="to 95 °C")
    found = compare_arms(first, other, 0, 0)
    assert {one.what: one.sentence for one in found.differs} == {
        "phases": "The fire differs: A indirect, beside the fire at 110 °C, B in the oven at 110 °C.",
        "wood": "The wood differs: A alder, B none.",
        "endpoint": "The end of the cook differs: A to 92 °C, B to 95 °C.",
    }
    alike = compare_arms(first, replace(first, letter="B"), 0, 0)
    assert {"fire", "wood", "end of the cook"} <= set(alike.same)
    assert not alike.differs
    assert {"fire and wood", "end temperature"} <= set(compare_arms(first, replace(A, letter="B"), 0, 0).unknown)

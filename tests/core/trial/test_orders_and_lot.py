"""Serving orders, codes and the lot: balanced by counting, the same for the same seed, told by nothing else."""

from collections import Counter
from itertools import pairwise, permutations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.trial import (
    balance,
    blind_codes,
    block_size,
    check_samples,
    deal,
    deal_weights,
    find_kind,
    scale_limits,
    serving_order,
    triangle_order,
)  # fmt: skip
from ravska_core.trial.design import PLAIN_CODES, williams
from ravska_core.working import BadInput

SEEDS = st.text("0123456789abcdef", min_size=8, max_size=64)


# E. J. Williams 1949: n orders do for an even n, 2n for an odd one; counted here by hand, not by the project
@pytest.mark.parametrize(("samples", "orders"), [(2, 2), (3, 6), (4, 4), (5, 10), (6, 6)])
def test_a_whole_block_is_even_in_places_and_in_what_comes_before(samples, orders):
    rows = [row for square in williams(samples) for row in square]
    assert len(rows) == orders == block_size(samples)
    places = Counter((place, one) for row in rows for place, one in enumerate(row))
    assert set(places.values()) == {orders // samples}
    assert len(places) == samples * samples
    follows = Counter(pair for row in rows for pair in pairwise(row))
    assert set(follows.values()) == {orders // samples}
    assert len(follows) == samples * (samples - 1)


@given(SEEDS, st.integers(2, 6), st.integers(1, 24))
def test_serving_orders_keep_their_balance_for_any_number_of_tasters(seed, samples, tasters):
    orders = [serving_order(seed, samples, card) for card in range(tasters)]
    assert orders == [serving_order(seed, samples, card) for card in range(tasters)]
    assert all(sorted(order) == list(range(samples)) for order in orders)
    for place in range(samples):
        counts = Counter(dict.fromkeys(range(samples), 0))
        counts.update(order[place] for order in orders)
        assert max(counts.values()) - min(counts.values()) <= 1
    whole = tasters // block_size(samples) * block_size(samples)
    follows = Counter(pair for order in orders[:whole] for pair in pairwise(order))
    if whole:
        assert set(follows.values()) == {whole // samples}


@given(SEEDS, st.integers(1, 24))
def test_triangles_serve_each_way_as_the_odd_one_and_in_every_place_as_often(seed, tasters):
    orders = [triangle_order(seed, card) for card in range(tasters)]
    odd_places, odd_ways = Counter({0: 0, 1: 0, 2: 0}), Counter({0: 0, 1: 0})
    for order in orders:
        ways = [plate // 2 for plate in order]
        odd = next(way for way in (0, 1) if ways.count(way) == 1)
        assert len(set(order)) == 3
        odd_places[ways.index(odd)] += 1
        odd_ways[odd] += 1
    assert max(odd_places.values()) - min(odd_places.values()) <= 1
    if tasters % 6 == 0:
        assert odd_ways[0] == odd_ways[1]
        assert len({tuple(plate // 2 for plate in order) for order in orders[:6]}) == 6  # ISO 4120: all six orders


def test_every_order_comes_up_and_the_next_cannot_be_told_from_the_last():
    first = {serving_order(f"seed {n}", 3, 0) for n in range(200)}
    assert first == set(permutations(range(3)))
    after = {serving_order(f"seed {n}", 3, 1) for n in range(400) if serving_order(f"seed {n}", 3, 0) == (0, 1, 2)}
    assert len(after) > 1
    assert len({tuple(triangle_order(f"seed {n}", 0)) for n in range(300)}) == 24


@given(SEEDS, st.integers(1, 8), st.sets(st.sampled_from(PLAIN_CODES), max_size=40))
def test_codes_are_three_plain_digits_and_never_used_twice_in_an_evening(seed, count, taken):
    codes = blind_codes(seed, count, taken)
    assert codes == blind_codes(seed, count, taken)
    assert len(set(codes)) == count
    assert not set(codes) & taken
    assert all(len(code) == 3 and len(set(code)) == 3 and code[0] != "0" for code in codes)


def test_balance_is_said_in_words_and_what_a_dropout_leaves_uneven_too():
    codes = ["305", "417", "862"]
    orders = [[codes[at] for at in serving_order("a", 3, card)] for card in range(6)]
    whole = balance(codes, orders)
    assert whole.even
    assert whole.says == "Every plate stands in every place twice, and follows every other twice."
    broken = balance(codes, [["305", "417", "862"], ["305", "862", "417"], ["417", "305", "862"]])
    assert not broken.even
    assert broken.says == "Out of balance: 305 comes first twice, 862 never."
    assert broken.places == ((2, 1, 0), (1, 1, 1), (0, 1, 2))
    assert broken.follows[1] == (1, 0, 1)
    # one square of an odd number: places even, what comes before not
    three = balance(codes, [["305", "417", "862"], ["417", "862", "305"], ["862", "305", "417"]])
    assert three.even
    assert three.says.startswith(
        "Every plate stands in every place as often; how often it follows another differs by 2"
    )
    assert balance(codes, []).says == ""
    one = balance(["1", "2"], [["1", "2"]])
    assert one.even
    assert one.says == "As even as 1 can be: no plate stands in a place more than one card oftener than another."
    gone = balance(["1", "2"], [["1", "2"], ["1", "2"]])
    assert (gone.even, gone.says) == (False, "Out of balance: 1 comes first twice, 2 never.")
    assert balance(codes, [*orders[:6], ["305", "417", "862"], ["417", "862", "305"], ["862", "417", "305"]]).says == (
        "Every plate comes first as often; the other places differ."
    )


@given(SEEDS, st.integers(2, 4), st.integers(1, 3))
def test_parts_are_dealt_out_by_lot_as_many_to_each(seed, ways, each):
    parts = [f"part {n}" for n in range(ways * each)]
    dealt = deal(seed, parts, ways)
    assert [len(some) for some in dealt] == [each] * ways
    assert sorted(part for some in dealt for part in some) == sorted(parts)


def test_the_lot_falls_on_everything_as_often_and_refuses_what_does_not_come_out_even():
    first = Counter(deal(f"{n}", ["left", "right"], 2)[0][0] for n in range(400))
    assert 150 < first["left"] < 250
    for parts, said in ((["left", "middle", "right"], "do not come out even"), (["left"], "do not come out even"),
                        (["left", "left"], "called the same")):  # fmt: skip
        with pytest.raises(BadInput, match=said):
            deal("seed", parts, 2)


@given(SEEDS, st.lists(st.floats(50, 900), min_size=2, max_size=12))
def test_dealt_weights_differ_by_no_more_than_neighbours_do(seed, grams):
    if len(grams) % 2:
        with pytest.raises(BadInput):
            deal_weights(seed, grams, 2)
        return
    one, other = deal_weights(seed, grams, 2)
    assert sorted((*one, *other)) == sorted(grams)
    ordered = sorted(grams)
    # at worst one gets the heavier of every two that follow each other
    worst = sum(ordered[1::2]) - sum(ordered[::2])
    assert abs(sum(one) - sum(other)) <= worst + 1e-6


def test_a_kind_takes_the_samples_it_can_and_says_what_else():
    check_samples(find_kind("ranking"), 6, False, False)
    check_samples(find_kind("scores"), 5, True, False)
    check_samples(find_kind("scores"), 4, False, True)
    for kind, samples, twin, crossed, at in (
        ("preference", 3, False, False, "samples"), ("triangle", 3, False, False, "samples"),
        ("ranking", 7, False, False, "samples"), ("scores", 1, False, False, "samples"),
        ("preference", 2, True, False, "twin"), ("scores", 6, True, False, "twin"),
        ("scores", 3, False, True, "two_by_two"), ("triangle", 2, False, True, "two_by_two"),
    ):  # fmt: skip
        with pytest.raises(BadInput) as refused:
            check_samples(find_kind(kind), samples, twin, crossed)
        assert refused.value.argument == at
    with pytest.raises(BadInput, match="no kind of trial"):
        find_kind("duel")
    assert (scale_limits("overall"), scale_limits("bite"), scale_limits("rank"), scale_limits("face")) == (
        (1, 9), (1, 5), (1, 6), (1, 3),
    )  # fmt: skip

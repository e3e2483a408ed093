"""Blends inside blends: mass is conserved, circles are named, one batch is shared out."""

from fractions import Fraction
from itertools import pairwise

import pytest
from builders import blend, lines, nested
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.blend import Blend, Line, flatten, parts_of, read_blend, read_salt, salt_percent, same_mixture, shares
from ravska_core.blend.lines import DEEPEST, cycle_path
from ravska_core.bowl.sharing import Use, mass_inside, share_out
from ravska_core.working import BadInput


def grams(of: Blend, mass_g: float) -> dict[str, float]:
    """Each grind's mass in a blend, worked out the long way round: down every blend inside."""
    found: dict[str, float] = {}
    for line, share in zip(of.lines, shares(of.lines, parts_of(of.lines)), strict=True):
        inner = grams(line.blend, share * mass_g) if line.blend else {line.grind: share * mass_g}
        for key, mass in inner.items():
            found[key] = found.get(key, 0.0) + mass
    return found


@given(nested())
def test_flattening_conserves_the_mass_of_every_ingredient(of):
    flat, long_way = flatten(of.lines), grams(of, of.batch_g)
    assert flat.keys() == long_way.keys()
    for key, share in flat.items():
        assert share * of.batch_g == pytest.approx(long_way[key])
    assert sum(flat.values()) == pytest.approx(1)


@given(nested(), st.integers(2, 9))
def test_what_a_blend_comes_to_does_not_depend_on_how_it_is_put_together(of, times):
    whole = read_blend(of)
    # the same mixture as one flat blend by weight
    flat_lines = tuple(Line(key, Fraction(share), "scale") for key, share in flatten(of.lines).items())
    flat = read_blend(Blend(of.kind, flat_lines, of.batch_g)) if len(flat_lines) <= 60 else whole
    scaled = tuple(Line(x.grind, x.parts * times, x.basis, "", x.blend) for x in of.lines)
    again = read_blend(Blend(of.kind, scaled, of.batch_g * 2))
    for key in ("salt", "sugar", "heat", "sour", "savoury", "smoke", "herb", "fat", "water", "cost", "spread"):
        assert flat.scale(key).value == pytest.approx(whole.scale(key).value, rel=1e-6, abs=1e-9), key
        assert again.scale(key).value == pytest.approx(whole.scale(key).value, rel=1e-6, abs=1e-9), key
    assert flat.allergens == whole.allergens
    assert sum(line.share.value for line in whole.lines) == pytest.approx(100)
    assert read_salt(of) == whole.salt


def test_two_spoons_of_a_rub_in_a_sauce_by_hand():
    # rub: equal spoons of table salt (6.0 g) and ground pepper (2.3 g), so 8.3 g in 2 tsp, 71.2 % salt
    rub = blend(("table-salt/fine", 1, "spoon"), ("black-pepper/ground", 1, "spoon"), name="rub")
    # 2 tsp of it in 4 tsp of honey (339 g a cup, 7.0625 g a tsp): 8.3 g in 36.55 g
    sauce = blend(("honey/liquid", 4, "spoon"), (rub, 2, "spoon"))
    assert read_blend(sauce).lines[1].share.value == pytest.approx(8.3 / 36.55 * 100, abs=0.05)
    assert salt_percent(sauce.lines) == pytest.approx(71.2 * 8.3 / 36.55, abs=0.05)


def chain(depth: int) -> Blend:
    of = blend(("table-salt/fine", 1, "scale"), name="the last")
    for at in range(depth):
        of = blend((of, 1, "scale"), name=f"level {at}")
    return of


def test_blends_may_lie_eight_deep_and_no_deeper():
    assert salt_percent(chain(DEEPEST).lines) == pytest.approx(98.5)
    with pytest.raises(BadInput) as refusal:
        read_blend(chain(DEEPEST + 1))
    assert refusal.value.argument == "lines.0.blend"
    assert "deep" in refusal.value.sentence


def test_many_ways_to_one_blend_are_read_in_no_time():
    # each level holds the one below 40 times: read way by way that would be 40^7
    of = blend(("table-salt/fine", 1, "scale"), name="the last")
    for at in range(DEEPEST - 1):
        of = blend(*[(of, 1, "scale")] * 40, name=f"level {at}")
    assert salt_percent(of.lines) == pytest.approx(98.5)


def test_what_is_wrong_inside_is_said_at_the_line_that_holds_it():
    for inner, word in ((blend(name="Empty"), "nothing in it"), (blend(("gone/x", 1, "spoon"), name="Old"), "Old")):
        with pytest.raises(BadInput) as refusal:
            read_blend(blend(("honey/liquid", 1, "spoon"), (inner, 1, "spoon")))
        assert refusal.value.argument == "lines.1.blend"
        assert word in refusal.value.sentence


@given(st.dictionaries(st.integers(0, 7), st.lists(st.integers(0, 7), max_size=4), max_size=8), st.integers(0, 7))
def test_a_circle_is_found_with_its_path_if_and_only_if_there_is_one(uses, start):
    path = cycle_path(uses, start)
    reached, waiting = set(), list(uses.get(start, ()))
    while waiting:
        key = waiting.pop()
        if key not in reached:
            reached.add(key)
            waiting += uses.get(key, ())
    assert bool(path) == (start in reached)
    if path:
        assert path[0] == path[-1] == start
        assert all(after in uses[before] for before, after in pairwise(path))


@given(lines(), lines())
def test_the_same_mixture_is_the_same_lines_in_the_same_parts(a, b):
    locked = tuple(Line(x.grind, x.parts, x.basis, "share") for x in a)
    a, b, locked = (Blend("paste", of, 100) for of in (a, b, locked))
    assert same_mixture(a, locked)
    assert same_mixture(a, b) == (a == b)
    assert not same_mixture(a, Blend("paste", a.lines[:-1], 100))


@given(st.floats(10, 5000), st.lists(st.floats(0.1, 500), max_size=8))
def test_a_batch_is_its_uses_and_what_is_left(batch_g, taken):
    shared = share_out(batch_g, [Use(f"use {at}", mass) for at, mass in enumerate(taken)])
    assert shared.taken.value + shared.left.value == pytest.approx(batch_g)
    assert 0 <= shared.enough_g - sum(taken) < 1.0011


def test_a_batch_is_not_shared_out_over_nothing_or_too_much():
    rub = blend(("table-salt/fine", 1, "scale"), name="rub")
    sauce = blend(("honey/liquid", 3, "scale"), (rub, 1, "scale"), batch_g=200)
    assert mass_inside(sauce, 1) == pytest.approx(50)
    for uses in ([Use("a", 0.0)], [Use("a", float("nan"))], [Use("a", 1.0)] * 21):
        with pytest.raises(BadInput):
            share_out(100, uses)

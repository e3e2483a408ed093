"""Ratios rewritten and changed: the same blend in other numbers, and what gives way."""

from fractions import Fraction

import pytest
from builders import blend, lines, parts
from hypothesis import assume, given
from hypothesis import strategies as st
from ravska_core.blend import (
    Line,
    Ratio,
    add_line,
    exact_parts,
    move_border,
    parts_of,
    remove_line,
    salt_percent,
    say_parts,
    set_parts,
    shares,
    switch_basis,
    switch_grind,
    unfold,
    write_as,
)
from ravska_core.blend.ratio_edits import nudged
from ravska_core.measure import parse_parts
from ravska_core.working import BadInput


def shares_of(ratio: Ratio) -> list[float]:
    return shares(ratio.lines, parts_of(ratio.lines))


def rub(**kwargs) -> Ratio:
    of = blend(
        ("kosher-dense/flake", 4, "spoon"), ("black-pepper/cracked", 3, "spoon"), ("paprika/powder", 2, "scale"),
        ("garlic-granulated/granulated", 1, "spoon"),
    )  # fmt: skip
    return Ratio(of.lines, **kwargs)


@given(lines(least=2), st.data())
def test_other_numbers_are_the_same_blend(of, data):
    ratio = Ratio(of)
    before = shares_of(ratio)
    at = data.draw(st.integers(0, len(of) - 1))
    try:
        percent = write_as(ratio, "percent")
        relative = write_as(ratio, "relative", at)
        swapped = switch_basis(ratio, at, "scale" if of[at].basis == "spoon" else "spoon")
    except BadInput:
        assume(False)
    for other in (percent, relative, swapped, write_as(percent, "parts")):
        assert shares_of(other) == pytest.approx(before, abs=1e-7)
    assert float(sum(line.parts for line in percent.lines)) == pytest.approx(100)
    assert relative.lines[at].parts == 1
    assert [line.basis for line in relative.lines] == [line.basis for line in of]
    assert swapped.lines[at].basis != of[at].basis


@pytest.mark.parametrize(("hold", "share"), [("spoons", 37.8), ("grams", 52.1)])
def test_another_crystal_holds_the_spoons_or_the_grams(hold, share):
    # two spoons of pepper to one of kosher, by crystal: science.md section 2, portion weights of the US database
    dense = Ratio(blend(("kosher-dense/flake", 1, "spoon"), ("black-pepper/ground", 2, "spoon")).lines)
    light = switch_grind(dense, 0, "kosher-light/flake", hold)
    assert shares_of(light)[0] * 100 == pytest.approx(share, abs=0.05)
    assert light.lines[0].parts == pytest.approx(1 if hold == "spoons" else 5.0 / 2.8, rel=1e-6)


@given(lines(least=2), parts, st.data())
def test_with_a_free_total_one_line_moves_and_the_others_keep_their_ratio(of, amount, data):
    at = data.draw(st.integers(0, len(of) - 1))
    changed = set_parts(Ratio(of), at, amount)
    assert changed.lines[at].parts == amount
    assert [x for i, x in enumerate(changed.lines) if i != at] == [x for i, x in enumerate(of) if i != at]


@given(lines(least=3), st.floats(0.02, 0.9), st.data())
def test_with_a_fixed_total_the_free_lines_give_way_and_locked_ones_stay(of, share, data):
    at, held = data.draw(st.permutations(range(len(of))))[:2]
    of = tuple(Line(x.grind, x.parts, x.basis, "share" if i == held else "") for i, x in enumerate(of))
    try:
        percent = write_as(Ratio(of), "percent")
        before = shares_of(percent)
        assume(before[at] > 1e-3)
        changed = set_parts(percent, at, Fraction(share * (1 - before[held]) * 100).limit_denominator(1000))
    except BadInput:
        assume(False)
    after = shares_of(changed)
    assert float(sum(line.parts for line in changed.lines)) == pytest.approx(100)
    assert after[held] == pytest.approx(before[held], abs=1e-7)
    free = [i for i in range(len(of)) if i not in (at, held)]
    scale = [after[i] / before[i] for i in free]
    assert scale == pytest.approx([scale[0]] * len(free), rel=1e-4)


def test_a_line_locked_at_its_share_follows_a_free_total():
    of = blend(("table-salt/fine", 1, "scale", "share"), ("paprika/powder", 3, "scale"), ("cumin/ground", 1, "scale"))
    ratio = Ratio(of.lines)
    # salt is a fifth; with the paprika doubled the rest is 7, so salt must be 7/4
    assert [x.parts for x in set_parts(ratio, 1, Fraction(6)).lines] == [Fraction(7, 4), 6, 1]
    added = add_line(ratio, Line("oregano/leaf", Fraction(4), "scale"))
    assert [x.parts for x in added.lines] == [2, 3, 1, 4]
    assert [x.parts for x in remove_line(ratio, 2).lines] == [Fraction(3, 4), 3]


def test_lines_whose_ratio_is_held_move_together():
    of = blend(
        ("table-salt/fine", 2, "scale", "ratio"), ("black-pepper/ground", 4, "scale", "ratio"),
        ("paprika/powder", 4, "scale"),
    )  # fmt: skip
    assert [x.parts for x in set_parts(Ratio(of.lines), 0, Fraction(3)).lines] == [3, 6, 4]
    fixed = set_parts(Ratio(of.lines, total="fixed"), 0, Fraction(3))
    assert [float(x.parts) for x in fixed.lines] == pytest.approx([3, 6, 1])
    with pytest.raises(BadInput) as refusal:
        set_parts(Ratio(of.lines, total="fixed"), 0, Fraction(4))
    assert "stay below 33.33 %" in refusal.value.sentence


@given(lines(least=2), st.floats(-0.2, 1.2), st.data())
def test_a_border_moves_mass_between_its_two_neighbours_only(of, share, data):
    at = data.draw(st.integers(0, len(of) - 2))
    before = shares_of(Ratio(of))
    try:
        after = shares_of(move_border(Ratio(of), at, share))
    except BadInput:
        assume(False)
    assert after[at] + after[at + 1] == pytest.approx(before[at] + before[at + 1])
    assert min(after) > 0
    others = [i for i in range(len(of)) if i not in (at, at + 1)]
    assert [after[i] for i in others] == pytest.approx([before[i] for i in others], abs=1e-9)
    if before[at] * 0.1 < share < (before[at] + before[at + 1]) * 0.9 and share > 0.01:
        assert after[at] == pytest.approx(share, abs=1e-6)


@given(lines(least=2), lines(least=1, most=1), st.data())
def test_lines_come_and_go_with_a_fixed_total(of, new, data):
    assume(new[0].grind not in [line.grind for line in of])
    percent = write_as(Ratio(of), "percent")
    at = data.draw(st.integers(0, len(of) - 1))
    one = Line(new[0].grind, Fraction(1), "scale")
    try:
        added = add_line(percent, one)
        removed = remove_line(percent, at)
    except BadInput:
        assume(False)
    assert float(sum(line.parts for line in added.lines)) == pytest.approx(100)
    assert shares_of(added)[-1] == pytest.approx(0.01)
    assert float(sum(line.parts for line in removed.lines)) == pytest.approx(100)


def test_the_base_of_relative_numbers_counts_one_and_moves_when_it_is_removed():
    relative = write_as(rub(), "relative", 1)
    with pytest.raises(BadInput) as refusal:
        set_parts(relative, 1, Fraction(2))
    assert "counts 1" in refusal.value.sentence
    left = remove_line(relative, 1)
    assert (left.base, left.lines[0].parts) == (0, 1)
    assert remove_line(relative, 0).base == 0
    assert remove_line(relative, 0).lines[0].parts == 1


def test_a_blend_inside_is_unfolded_without_a_change():
    inner = blend(("table-salt/fine", 2, "spoon"), ("paprika/powder", 1, "scale"), name="inner")
    outer = Ratio(blend(("honey/liquid", 3, "spoon"), (inner, 2, "spoon"), ("cumin/ground", 1, "scale")).lines)
    flat = unfold(outer, 1)
    assert [line.grind for line in flat.lines] == ["honey/liquid", "table-salt/fine", "paprika/powder", "cumin/ground"]
    assert shares_of(flat)[0] == pytest.approx(shares_of(outer)[0])
    assert salt_percent(flat.lines) == pytest.approx(salt_percent(outer.lines))


@pytest.mark.parametrize(
    ("parts", "up", "down"),
    [
        ("1/8", "1/4", "1/16"), ("1/4", "3/8", "1/8"), ("1", "1 1/4", "3/4"), ("2", "2 1/2", "1 3/4"),
        ("3", "3 1/2", "2 1/2"), ("5", "6", "4"), ("6", "7", "5"), ("20", "25", "19"), ("2.7", "3", "2 1/2"),
    ],
)  # fmt: skip
def test_nudges_go_by_fractions_a_kitchen_has(parts, up, down):
    assert nudged(parse_parts(parts), True) == parse_parts(up)
    assert nudged(parse_parts(parts), False) == parse_parts(down)


@given(st.integers(1, 4000))
def test_nudging_up_goes_up_and_down_goes_down(eighths):
    parts = Fraction(eighths, 8)
    assert nudged(parts, True) > parts
    assert nudged(parts, False) < parts
    # parts with eighths are said so that they are read back exactly
    if parts <= 100:
        assert parse_parts(say_parts(parts)) == parts


def test_what_cannot_be_is_refused_at_its_line():
    held = Ratio(blend(("table-salt/fine", 1, "scale", "share"), ("paprika/powder", 1, "scale")).lines, total="fixed")
    for act in (
        lambda: set_parts(held, 1, Fraction(3)),
        lambda: move_border(held, 0, 0.2),
        lambda: set_parts(held, 7, Fraction(1)),
        lambda: set_parts(rub(total="fixed"), 0, Fraction(500)),
        lambda: switch_grind(rub(), 0, "gone/fine", "grams"),
        lambda: switch_grind(rub(), 0, "kosher-light/flake", "volume"),
        lambda: unfold(rub(), 0),
        lambda: write_as(rub(), "roman"),
        lambda: exact_parts(1e9, 2),
    ):
        with pytest.raises(BadInput) as refusal:
            act()
        assert refusal.value.sentence.endswith(".")

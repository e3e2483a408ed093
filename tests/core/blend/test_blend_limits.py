"""Where the rules of a blend change over: at each limit, and a step to either side of it."""

from dataclasses import replace
from fractions import Fraction

import pytest
from builders import blend
from ravska_core.blend import (
    MethodStep,
    Ratio,
    estimate,
    move_border,
    parse_label,
    parse_reduction,
    parts_of,
    read_blend,
    remove_line,
    say_parts,
    shares,
)
from ravska_core.blend.estimate import label_figure
from ravska_core.blend.label import rounding_half_g
from ravska_core.blend.label_list import read_ingredients
from ravska_core.blend.method import MOST_STEPS, check_method
from ravska_core.blend.parts import mix
from ravska_core.blend.qualities import QUALITIES
from ravska_core.blend.ratio_edits import set_parts
from ravska_core.blend.scales import spread_scale
from ravska_core.blend.uncertainty import Summed, ends_of, error_words
from ravska_core.blend.volume import volume_ml
from ravska_core.catalogue import SODIUM_IN_NACL, catalogue
from ravska_core.working import BadInput

SALT, PEPPER, SUGAR = "table-salt/fine", "black-pepper/ground", "white-sugar/granulated"


def refused(call, *given) -> str:
    with pytest.raises(BadInput) as refusal:
        call(*given)
    return refusal.value.argument


# methods


def test_a_method_has_so_many_steps_and_not_one_more():
    notes = tuple(MethodStep("note", note=f"step {n}") for n in range(MOST_STEPS + 1))
    check_method(notes[:-1], 1)
    assert refused(check_method, notes, 1).startswith("method")


@pytest.mark.parametrize(
    ("said", "gone"),
    [("by 0.5 %", 0.005), ("by 95 %", 0.95), ("to 5 %", 0.95), ("by 1.5", 0.015), ("by 0.5", 0.5), ("to half", 0.5)],
)
def test_a_simmer_goes_down_by_half_a_percent_to_ninety_five(said, gone):
    assert parse_reduction(said) == pytest.approx(gone)


@pytest.mark.parametrize("said", ["by 0.4 %", "by 95.1 %", "to 4.9 %", "by 1", "to 1", "to 99.6 %"])
def test_a_simmer_that_takes_all_or_nothing_is_refused(said):
    assert refused(parse_reduction, said) == "by"


# labels


def panel(portion: str = "40 g", sodium: str = "2000 mg", **more: str):
    return parse_label(portion, sodium, **more)


def test_the_working_of_a_label_names_the_portion_it_is_of():
    known = catalogue().grinds
    label = panel()
    found = estimate(label, (known[SALT], known[SUGAR], known[PEPPER]))
    said = label_figure(label, found)
    assert "for 40 g" in said.steps[0].formula
    assert said.steps[0].value == pytest.approx(2000)
    assert said.steps[1].value == pytest.approx(5.0, rel=0.01)  # 2 g in 40 g
    assert said.low <= said.value <= said.high


def test_a_list_within_a_list_gives_its_own_ingredients_however_deep_it_lies():
    text = "salt, mix (paprika, spices (cumin, heat (black pepper, white pepper)))"
    assert [name.name for name in read_ingredients(text)] == [
        "salt",
        "paprika",
        "cumin",
        "black pepper",
        "white pepper",
    ]


# errors


def told(error: float, moved: float, low: float, high: float, total: float = 10.0) -> str:
    """What is said of the salt of two lines, the first off by `error`, which moves the sum by `moved`."""
    of = blend((SALT, 1, "spoon"), (PEPPER, 1, "spoon"))
    lines = (of.lines[0].__class__(SALT, Fraction(1), "spoon", error=error), of.lines[1])
    by_key = {key: [0.0, 0.0] for key in QUALITIES} | {"sugar": [moved, 0.0]}
    sums = dict.fromkeys(QUALITIES, total)
    known = Summed(lines, parts_of(of.lines), [0.5, 0.5], by_key, by_key, sums, by_key, False, ["", ""])
    return error_words(QUALITIES["sugar"], known, low, high, total, False)


def test_an_amount_by_eye_is_named_once_it_moves_more_than_a_third_of_what_is_uncertain():
    # half the range is 1: more than 0.3 of it is most of it
    assert told(0.5, 0.31, 9, 11) == "±10 %: most of it from table salt, fine, by eye ±50 %"
    assert "by eye" not in told(0.5, 0.29, 9, 11)
    assert "by eye" not in told(0.0, 0.31, 9, 11)
    # two figures below a tenth, whole percents above
    assert told(0.5, 0.31, 9.1, 10.9).startswith("±9 %")
    assert told(0.5, 0.31, 9.26, 10.74).startswith("±7.4 %")
    assert told(0.5, 0.31, 8.76, 11.24).startswith("±12 %")


def test_nothing_of_a_range_lies_below_nought():
    assert ends_of(1.0, 0.4, 0.3) == (0.6, 1.3)
    assert ends_of(1.0, 1.5, 0.3) == (0.0, 1.3)


def test_what_holds_nothing_solid_has_no_spread_of_grains():
    of = read_blend(blend(("water/liquid", 1, "scale"), ("cider-vinegar/liquid", 1, "scale"), kind="marinade"))
    spread = of.scale("spread")
    assert (spread.value, spread.word) == (1.0, "")


# ratios


def test_a_ratio_says_its_numbers_as_people_do():
    assert Ratio(()).base == 0
    said = {"1/16": "1/16", "3/2": "1½", "201/2": "100.5", "1001/10": "100.1", "9999/1000": "10", "1234/100": "12.34",
            "101": "101", "1/3": "⅓", "27/10": "2.7"}  # fmt: skip
    assert {text: say_parts(Fraction(text)) for text in said} == said


def test_a_border_leaves_each_neighbour_a_fifth_of_a_percent_and_a_quarter_of_very_little():
    ratio = Ratio(blend((SALT, 1, "scale"), (PEPPER, 1, "scale"), (SUGAR, 2, "scale")).lines)
    of = shares(move_border(ratio, 0, 0.0).lines, parts_of(ratio.lines))
    assert of[0] == pytest.approx(0.002)
    assert of[1] == pytest.approx(0.498)
    of = shares(move_border(ratio, 0, 0.9).lines, parts_of(ratio.lines))
    assert of[1] == pytest.approx(0.002)
    tiny = Ratio(blend((SALT, "1/100", "scale"), (PEPPER, "1/100", "scale"), (SUGAR, 20, "scale")).lines)
    both = sum(shares(tiny.lines, parts_of(tiny.lines))[:2])
    of = shares(move_border(tiny, 0, 0.0).lines, parts_of(tiny.lines))
    assert of[0] == pytest.approx(both / 4, rel=1e-3)


def test_lines_locked_at_a_share_keep_it_when_another_goes_whichever_side_it_lay_on():
    ratio = Ratio(
        blend((SALT, 1, "scale", "share"), (PEPPER, 2, "scale"), (SUGAR, 3, "scale"),
              ("paprika/powder", 4, "scale", "share"), ("cumin/ground", 5, "scale")).lines
    )  # fmt: skip
    before = shares(ratio.lines, parts_of(ratio.lines))
    for gone in (1, 2, 4):
        left = remove_line(ratio, gone)
        kept = [share for at, share in enumerate(before) if at != gone]
        now = shares(left.lines, parts_of(left.lines))
        for at, line in enumerate(left.lines):
            if line.lock == "share":
                assert now[at] == pytest.approx(kept[at])
    # one that was locked itself holds nothing once it is gone
    left = remove_line(ratio, 0)
    now = shares(left.lines, parts_of(left.lines))
    assert now[2] == pytest.approx(before[3])


def test_what_locked_lines_leave_no_room_for_is_refused_and_a_little_room_is_enough():
    full = Ratio(blend((SALT, 1, "scale", "share"), (PEPPER, 1, "scale", "share"), (SUGAR, 2, "scale")).lines)
    moved = set_parts(full, 2, Fraction(6))
    assert shares(moved.lines, parts_of(moved.lines)) == pytest.approx([0.25, 0.25, 0.5])
    alone = Ratio(blend((SALT, 1, "scale", "share"), (PEPPER, 1, "scale", "share")).lines)
    # with every other line at its share this one is what is left
    moved = set_parts(alone, 1, Fraction(3))
    assert shares(moved.lines, parts_of(moved.lines)) == pytest.approx([0.5, 0.5])


# volumes


def test_where_a_density_is_from_is_said_as_it_is():
    dry, wet = blend((SALT, 1, "scale"), (PEPPER, 1, "scale")), blend((SALT, 1, "scale"), ("water/liquid", 9, "scale"))
    for of, says in ((dry, "its lines' level volumes added up"), (wet, "liquids, what dissolves in them")):
        mixed = mix(of, shares(of.lines, parts_of(of.lines)), parts_of(of.lines))
        assert mixed.density_from(of).startswith(says)
        spooned = replace(of, label=replace(panel("¼ tsp (1 g)", "300 mg")))
        assert mixed.density_from(spooned).endswith("within its label's own spoon")
        assert "spoon" not in mixed.density_from(replace(of, label=panel()))
        by_volume = replace(of, label=replace(spooned.label, by_volume=True))
        assert "spoon" not in mixed.density_from(by_volume)


def test_more_water_than_there_is_cannot_be_driven_off():
    water = catalogue().grinds["water/liquid"]
    assert volume_ml([(water, 10.0)], gone=4.0) == pytest.approx(6.0, rel=0.01)
    assert volume_ml([(water, 10.0)], gone=40.0) == 0.0


# US 21 CFR 101.9(c); EU guidance of 2012, from memory
@pytest.mark.parametrize(
    ("what", "amount", "rule", "half"),
    [
        ("sodium", 0.140, "us", 0.0025), ("sodium", 0.1401, "us", 0.005), ("fat", 4.9, "us", 0.25),
        ("fat", 5.0, "us", 0.5), ("sugars", 4.0, "us", 0.5), ("sugars", 9.9, "eu", 0.05), ("sugars", 10.0, "eu", 0.5),
        ("sodium", 0.99 * SODIUM_IN_NACL, "eu", 0.005 * SODIUM_IN_NACL),
        ("sodium", 1.0 * SODIUM_IN_NACL, "eu", 0.05 * SODIUM_IN_NACL),
    ],
)  # fmt: skip
def test_a_panel_is_rounded_by_the_steps_of_its_law(what, amount, rule, half):
    assert rounding_half_g(what, amount, rule) == pytest.approx(half)


@pytest.mark.parametrize(("coarse", "word"), [("2.4", "even"), ("2.6", "mixed"), ("5.9", "mixed"), ("6.1", "wide")])
def test_grains_are_even_mixed_or_wide(coarse, word):
    known = catalogue().grinds
    fine = replace(known[PEPPER], key="a", grain_mm=1.0)
    found = spread_scale([(fine, 0.5), (replace(fine, key="b", grain_mm=float(coarse)), 0.5)])
    assert (found.word, found.value) == (word, pytest.approx(float(coarse)))

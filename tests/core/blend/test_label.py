"""Bought blends: what a label allows, against mixtures drawn at random, a hand calculation, and in what uses them."""

import random
from fractions import Fraction
from itertools import pairwise

import pytest
from builders import KEYS
from hypothesis import given, settings
from hypothesis import strategies as st
from ravska_core.blend import QUALITIES, Blend, Label, Line, estimate, findings_of, parse_label, read_blend
from ravska_core.blend.label import rounding_half_g
from ravska_core.blend.label_list import read_ingredients
from ravska_core.catalogue import SODIUM_IN_NACL, catalogue
from ravska_core.coat import Layer, Seasoned, read_coat, thin_cut_salt
from ravska_core.meat import Piece
from ravska_core.working import BadInput

GRINDS = catalogue().grinds
RUB = tuple(
    GRINDS[key]
    for key in ("table-salt/fine", "brown-sugar/unpacked", "paprika/powder", "garlic-granulated/powder")
)  # fmt: skip


def as_blend(label: Label, grinds, batch_g: float = 100.0) -> Blend:
    shares = estimate(label, grinds).shares
    lines = tuple(Line(g.key, Fraction(share.middle), "scale") for g, share in zip(grinds, shares, strict=True))
    return Blend("dry rub", lines, batch_g, "Bought", label=label)


@settings(max_examples=25)
@given(st.lists(st.sampled_from(KEYS), min_size=2, max_size=7, unique=True), st.integers(0, 10_000))
def test_every_mixture_that_a_label_could_be_of_lies_inside_its_ranges(keys, seed):
    """A recipe nobody tells is drawn, its label printed and rounded as the rule says; the truth must lie inside."""
    chance = random.Random(seed)
    weights = sorted((chance.uniform(0.02, 1) for _ in keys), reverse=True)
    truth = [weight / sum(weights) for weight in weights]
    grinds = tuple(GRINDS[key] for key in keys)

    def holds(what: str) -> float:
        return sum(x * getattr(g.ingredient, what) for x, g in zip(truth, grinds, strict=True))

    portion = chance.choice([1.0, 5.0, 15.0, 28.0])
    step = {what: 2 * rounding_half_g(what, holds(what) * portion, "us") for what in ("sodium", "sugars", "fat")}
    printed = {what: round(holds(what) * portion / each) * each for what, each in step.items()}
    label = Label(portion, printed["sodium"], printed["sugars"], printed["fat"])
    found = estimate(label, grinds)
    assert found.notes == ()
    for share, x in zip(found.shares, truth, strict=True):
        assert share.low - 1e-6 <= x <= share.high + 1e-6
        assert share.low <= share.middle <= share.high
    for key, quality in QUALITIES.items():
        value = sum(x * quality.of(g.ingredient) for x, g in zip(truth, grinds, strict=True))
        span = found.qualities[key]
        assert span.low - 1e-4 * max(1, value) <= value <= span.high + 1e-4 * max(1, value)
    assert sum(share.middle for share in found.shares) == pytest.approx(1)
    middles = [share.middle for share in found.shares]
    assert all(after <= before + 1e-6 for before, after in pairwise(middles))


def test_the_salt_of_a_label_agrees_with_a_hand_calculation():
    # 230 mg in 1 g, give or take 5 mg, the portion half a tenth and the law 20 %: 0.225/1.05 x 0.8 to 0.235/0.95 x 1.2
    label = parse_label("1.0 g", "230 mg")
    assert (label.portion_half_g, label.sodium_g) == (0.05, 0.23)
    salt = estimate(label, RUB).qualities["salt"]
    assert salt.low == pytest.approx(0.225 / 1.05 * 0.8 / SODIUM_IN_NACL * 100, rel=0.02)
    assert salt.high == pytest.approx(0.235 / 0.95 * 1.2 / SODIUM_IN_NACL * 100, rel=0.02)
    assert salt.middle == pytest.approx(23 / SODIUM_IN_NACL, rel=0.02)
    eu = parse_label("100 g", "58 g", "salt", "12 g", "1,5 g", "eu")
    assert eu.sodium_g == pytest.approx(58 * SODIUM_IN_NACL)
    assert eu.portion_half_g == 0


def test_the_doubt_of_a_label_shows_in_every_result_that_uses_the_blend():
    label = parse_label("1.0 g", "230 mg")
    bought = as_blend(label, RUB)
    alone = read_blend(bought)
    assert alone.salt.high - alone.salt.low > 15
    assert "label-only" in {x.id for x in findings_of(bought, alone, thin_cut_salt())}
    half = Blend(
        "dry rub", (Line("", Fraction(1), "scale", "", bought), Line("paprika/powder", Fraction(1), "scale")), 80.0
    )
    within = read_blend(half).salt
    assert within.high - within.value == pytest.approx((alone.salt.high - alone.salt.value) / 2, rel=0.1)
    assert "label of Bought" in within.error
    twice = Blend(
        "paste", (Line("", Fraction(1), "scale", "", half), Line("olive-oil/liquid", Fraction(1), "scale")), 80.0
    )
    assert read_blend(twice).salt.high - read_blend(twice).salt.value == pytest.approx(
        (alone.salt.high - alone.salt.value) / 4, rel=0.1
    )
    arms = [
        read_coat(Seasoned("A", Piece("lamb-shoulder", 2300), (Layer("rub", of, 5, 3600),))) for of in (bought, half)
    ]
    known = Blend("dry rub", tuple(Line(x.grind, x.parts, "scale") for x in bought.lines), 100.0)
    sure = read_coat(Seasoned("A", Piece("lamb-shoulder", 2300), (Layer("rub", known, 5, 3600),)))
    wide = [(a.salt.high - a.salt.low) / a.salt.value for a in (*arms, sure)]
    assert wide[0] > 1.3 * wide[2]
    assert wide[1] > 1.2 * wide[2]


def test_a_label_that_contradicts_itself_says_what_does_not_fit():
    upside = estimate(parse_label("1 g", "10 mg", sugars="0 g"), RUB)  # salt comes first, but hardly any sodium
    assert "sodium" in upside.notes[0]
    assert "at least" in upside.notes[0]
    stated = estimate(Label(1.0, 0.23, stated=((3, 0.6),)), RUB)
    assert "does not fit the order" in stated.notes[0]
    held = estimate(Label(1.0, 0.23, stated=((1, 0.2),)), RUB)
    assert held.shares[1].low == pytest.approx(0.195, rel=1e-4)
    assert held.shares[1].high == pytest.approx(0.205, rel=1e-4)


@pytest.mark.parametrize(
    ("panel", "field"),
    [(("1 g", "900 mg"), "sodium"), (("0", "1 mg"), "portion"), (("1 g", "lots"), "sodium"),
     (("1 g", "10 mg", "sodium", "8 g"), "sugars"), (("1 g", "10 mg", "potassium"), "sodium_as"),
     (("2 m", "10 mg"), "portion")],
)  # fmt: skip
def test_a_panel_that_cannot_be_right_is_refused_at_its_field(panel, field):
    with pytest.raises(BadInput) as refusal:
        parse_label(*panel)
    assert refusal.value.argument == field


def test_a_list_of_ingredients_is_read_as_labels_write_it():
    names = read_ingredients(
        "Ingredients: Salt (35 %), sugar, spices (including paprika, cumin), dehydrated garlic, "
        "contains 2% or less of: silicon dioxide (to prevent caking), natural flavors."
    )
    assert [(x.grind, x.minor) for x in names] == [
        ("table-salt/fine", False), ("white-sugar/granulated", False), ("paprika/powder", False),
        ("cumin/ground", False),
        ("garlic-granulated/powder", False), ("silica/powder", True), ("flavouring-unnamed/powder", True),
    ]  # fmt: skip
    assert names[0].stated == pytest.approx(0.35)
    german = read_ingredients("Zutaten: Meersalz, Zucker, Gewürze (Paprika, Kreuzkümmel), Knoblauchpulver")
    assert all(name.grind for name in german)
    (unknown,) = read_ingredients("wizard root")
    assert unknown.grind is None
    nested = "x(a," * 700 + "b" + ")" * 700
    assert read_ingredients(nested)[0].grind is None
    with pytest.raises(BadInput, match="with commas"):
        read_ingredients(" ,, ")


def test_what_stands_under_two_percent_or_less_is_held_below_it():
    label = Label(1.0, 0.23, minor_from=2)
    found = estimate(label, RUB)
    assert all(share.high <= 0.02 + 1e-9 for share in found.shares[2:])

"""Numbers as they are said: what each comes to, by hand, and how many of the words were used for it."""

from fractions import Fraction

import pytest
from ravska_core.measure import parse_keeping_days
from ravska_core.measure.numbers import and_share, number_at
from ravska_core.measure.quantities import quantity_at
from ravska_core.measure.tokens import tokens_of
from ravska_core.units import MASS_G, VOLUME_ML
from ravska_core.working import BadInput


@pytest.mark.parametrize(
    ("text", "low", "high", "left"),
    [
        ("2", 2, 2, ""), ("0.5", "1/2", "1/2", ""), ("1/2", "1/2", "1/2", ""), ("½", "1/2", "1/2", ""),
        ("2½", "5/2", "5/2", ""), ("2 ½", "5/2", "5/2", ""), ("1 1/2", "3/2", "3/2", ""), ("1-1/2", "3/2", "3/2", ""),
        ("1 and 1/2", "3/2", "3/2", ""), ("⅟8", "1/8", "1/8", ""), ("1 3/2", 1, 1, "3/2"),
        ("dozen eggs", 12, 12, "eggs"), ("a dozen", 12, 12, ""), ("two dozen", 24, 24, ""), ("half a dozen", 6, 6, ""),
        ("half dozen", 6, 6, ""), ("a hundred", 100, 100, ""), ("two hundred and twenty", 220, 220, ""),
        ("two hundred and a half", "401/2", "401/2", ""), ("a hundred twenty five", 125, 125, ""),
        ("twenty five", 25, 25, ""), ("twenty a", 20, 20, "a"), ("twenty ten", 20, 20, "ten"),
        ("three eighths", "3/8", "3/8", ""), ("two thirds", "2/3", "2/3", ""), ("a quarter", "1/4", "1/4", ""),
        ("one half", "1/2", "1/2", ""), ("1 quarter", "1/4", "1/4", ""), ("two halves", 2, 2, "halves"),
        ("five quarters", 5, 5, "quarters"), ("two and a quarter", "9/4", "9/4", ""),
        ("1 to 2", 1, 2, ""), ("2 to 1", 1, 2, ""), ("1 and 2", 1, 1, "and 2"), ("between 1 and 2", 1, 2, ""),
        ("from 1 to 2", 1, 2, ""), ("1 1/2-2 1/2", "3/2", "5/2", ""), ("three or four", 3, 4, ""),
        ("a couple", 2, 2, ""), ("a few", 3, 3, ""), ("several", 4, 4, ""), ("anderthalb", "3/2", "3/2", ""),
    ],
)  # fmt: skip
def test_a_number_is_what_was_said(text, low, high, left):
    tokens = tokens_of(text)
    number, after = number_at(tokens, 0)
    assert (number.low, number.high) == (Fraction(low), Fraction(high))
    assert "".join(token.text for token in tokens[after:]) == left.replace(" ", "")


@pytest.mark.parametrize("text", ["", "a", "an ounce", "cup", "between 1", "salt", "and a half", "x"])
def test_what_is_no_number_is_none(text):
    assert number_at(tokens_of(text), 0) is None


def test_nothing_is_divided_by_nothing():
    with pytest.raises(BadInput, match="divided by 0"):
        number_at(tokens_of("1/0"), 0)


def test_a_share_after_a_measure_is_of_it_unless_it_has_one_of_its_own():
    assert and_share(tokens_of("and a half"), 0) == (Fraction(1, 2), 3)
    assert and_share(tokens_of("and half a teaspoon"), 0) is None
    assert and_share(tokens_of("and a quarter teaspoon"), 0) == (Fraction(1, 4), 3)
    assert and_share(tokens_of("with a half"), 0) is None


@pytest.mark.parametrize(
    ("text", "units", "ml", "doubt", "left"),
    [
        ("a cup and a half", VOLUME_ML, 1.5 * 236.588, 0, ""), ("half of a cup", VOLUME_ML, 118.294, 0, ""),
        ("a third of the cup", VOLUME_ML, 78.863, 0, ""), ("12-oz can", MASS_G, 340.194, 0, "can"),
        ("2 x 25 g", MASS_G, 50, 0, ""), ("2 oz.", MASS_G, 56.699, 0, ""),
        ("2 ounces. Then", MASS_G, 56.699, 0, ".then"),
        ("a cup or so", VOLUME_ML, 236.588, 0.15, ""),
    ],
)  # fmt: skip
def test_a_quantity_is_its_number_of_its_measure(text, units, ml, doubt, left):
    tokens = tokens_of(text)
    said, after = quantity_at(tokens, 0, units)
    assert float(said.number.middle * said.unit) * said.factor == pytest.approx(ml, rel=1e-4)
    assert said.doubt >= doubt
    assert "".join(token.text for token in tokens[after:]) == left


@pytest.mark.parametrize(
    ("text", "days"),
    [
        ("10 days", 10),
        ("6 weeks", 42),
        ("half a year", 182.5),
        ("6 months", 180),
        ("2 to 4 weeks", 21),
        ("a year", 365),
    ],
)
def test_how_long_something_keeps_is_read_in_days(text, days):
    assert parse_keeping_days(text) == days


@pytest.mark.parametrize("text", ["", "for long", "2 h", "half a day", "11 years", "-1 week"])
def test_what_is_no_keeping_is_refused(text):
    with pytest.raises(BadInput):
        parse_keeping_days(text)

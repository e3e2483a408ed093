"""Amounts as people type them."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.measure import (
    parse_amount,
    parse_duration_s,
    parse_held_c,
    parse_hold_s,
    parse_length_cm,
    parse_mass_g,
    parse_parts,
    parse_temperature_c,
)
from ravska_core.working import BadInput


@pytest.mark.parametrize(
    ("text", "parts"),
    [
        ("2", 2), ("1½", Fraction(3, 2)), ("1 1/2", Fraction(3, 2)), ("1/8", Fraction(1, 8)), ("0.5", Fraction(1, 2)),
        ("⅛", Fraction(1, 8)), (" 3/4 ", Fraction(3, 4)), ("2,5", Fraction(5, 2)), (".25", Fraction(1, 4)),
        ("1⁄3", Fraction(1, 3)),
    ],
)  # fmt: skip
def test_parts_are_read_exactly(text, parts):
    assert parse_parts(text) == parts


@pytest.mark.parametrize("text", ["0", "-1", "", "a lot", "1e308", "1/0", "20000", "1/2000", "1,000", "9" * 400, "nan"])
def test_parts_that_are_none_get_a_sentence(text):
    with pytest.raises(BadInput) as refusal:
        parse_parts(text, "lines.3.parts")
    assert refusal.value.argument == "lines.3.parts"
    assert refusal.value.sentence.endswith((".", "?"))


@pytest.mark.parametrize(
    ("text", "grams"),
    [
        # NIST Handbook 44, appendix C: 1 lb = 453.59237 g, 1 oz = 28.349523125 g
        ("2.3 kg", 2300), ("5 lb 1 oz", 5 * 453.59237 + 28.349523125), ("4 lb 6 oz", 1984.46661875),
        ("4½ lb", 4.5 * 453.59237), ("2,3 kg", 2300), ("1 kg 250 g", 1250), ("12oz", 340.1942775),
    ],
)  # fmt: skip
def test_weights_are_read_in_the_units_people_use(text, grams):
    assert parse_mass_g(text) == pytest.approx(grams, rel=1e-9)


@pytest.mark.parametrize("text", ["2.3", "-2 kg", "0 g", "800 kg", "12 stones", "heavy", "1e308 kg", "9999999 kg", ""])
def test_weights_that_are_none_get_a_sentence(text):
    with pytest.raises(BadInput) as refusal:
        parse_mass_g(text)
    assert len(refusal.value.sentence) > 20


def test_times_and_lengths_are_read_too():
    assert parse_duration_s("2 h 30 min") == 9000
    assert parse_duration_s("1½ days") == 129_600
    assert parse_length_cm("9½ in") == pytest.approx(24.13)


@given(st.text(max_size=60))
def test_no_text_at_all_ends_in_anything_but_a_number_or_a_sentence(text):
    for parse in (parse_parts, parse_mass_g, parse_duration_s, parse_length_cm):
        try:
            assert parse(text) > 0
        except BadInput as refusal:
            assert refusal.sentence  # noqa: PT017 - either outcome is right, no other is


@pytest.mark.parametrize(
    ("text", "grams"),
    [
        ("about 6 pounds", 6 * 453.59237),
        ("4 lb 6", 4.375 * 453.59237),
        ("half a pound", 226.796185),
        ("two and a half kilos", 2500),
        ("a pound and a half", 680.388555),
        ("2 to 3 kg", 2500),
        ("just under 2 kg", 1900),
        ("2 x 900 g", 1800),
    ],
)
def test_weights_are_read_as_people_say_them(text, grams):
    assert parse_mass_g(text) == pytest.approx(grams, rel=1e-9)


@pytest.mark.parametrize(
    ("text", "hours"),
    [
        ("overnight", 12), ("half an hour", 0.5), ("an hour and a half", 1.5), ("2 h 30", 2.5), ("two days", 48),
        ("2 to 3 hours", 3), ("none, straight on", 0), ("0", 0), ("none", 0), ("0 min", 0), ("about 20 minutes", 1 / 3),
    ],
)  # fmt: skip
def test_a_hold_is_read_as_people_say_it_and_of_a_range_the_longer_counts(text, hours):
    assert parse_hold_s(text) == pytest.approx(hours * 3600)


@pytest.mark.parametrize("text", ["the fire", "a while", "soon", "8 days", "straight", "none or two hours", ""])
def test_a_hold_that_is_not_understood_is_asked_for_again(text):
    with pytest.raises(BadInput):
        parse_hold_s(text)


def test_of_a_range_of_temperatures_the_end_counts_that_cautions_must_hold_for():
    assert parse_held_c("2 to 6 °C") == 6
    assert parse_temperature_c("60 to 63 °C") == 60
    assert parse_temperature_c("about 145 degrees F") == pytest.approx(62.78, abs=0.01)


@pytest.mark.parametrize(
    ("text", "value", "unit"),
    [("half a cup", 118.294, "ml"), ("1 cup plus 2 tbsp", 266.162, "ml"), ("4 oz", 113.398, "g"),
     ("4 fl. oz", 118.294, "ml"), ("a quart", 946.353, "ml")],
)  # fmt: skip
def test_amounts_of_a_liquid_are_read_as_people_say_them(text, value, unit):
    found = parse_amount(text, "reserve")
    assert (found.value, found.unit) == (pytest.approx(value, abs=0.001), unit)


def test_what_is_by_eye_or_two_lengths_is_no_amount_of_a_field():
    for read, text in ((parse_amount, "a bit"), (parse_length_cm, "10 x 5 cm"), (parse_mass_g, "2 kg of lamb")):
        with pytest.raises(BadInput):
            read(text, "here")

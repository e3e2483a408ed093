"""Amounts at their limits and a step beyond: what is still read, and where it is refused."""

import pytest
from ravska_core.measure import (
    parse_amount,
    parse_duration_s,
    parse_held_c,
    parse_length_cm,
    parse_mass_g,
    parse_number,
    parse_parts,
    parse_temperature_c,
)
from ravska_core.measure.amounts import read_number
from ravska_core.working import BadInput

DAY = 86_400.0


@pytest.mark.parametrize(
    ("read", "fine", "value"),
    [
        (parse_mass_g, "1 g", 1.0),
        (parse_mass_g, "100 kg", 100_000.0),
        (parse_duration_s, "1 min", 60.0),
        (parse_duration_s, "7 d", 7 * DAY),
        (parse_length_cm, "2 mm", 0.2),
        (parse_length_cm, "2 m", 200.0),
        (parse_temperature_c, "30 °C", 30.0),
        (parse_temperature_c, "100 °C", 100.0),
        (parse_temperature_c, "212 °F", 100.0),
        (parse_held_c, "-2 °C", -2.0),
        (parse_held_c, "100 °C", 100.0),
        (parse_parts, "1/1000", 0.001),
        (parse_parts, "10000", 10_000.0),
    ],
)
def test_what_lies_at_a_limit_is_read(read, fine, value):
    assert float(read(fine, "here")) == pytest.approx(value)


@pytest.mark.parametrize(
    ("read", "wrong"),
    [
        (parse_mass_g, "0.99 g"),
        (parse_mass_g, "100.1 kg"),
        (parse_duration_s, "0 min"),
        (parse_duration_s, "7 d 1 min"),
        (parse_length_cm, "1.9 mm"),
        (parse_length_cm, "200.1 cm"),
        (parse_temperature_c, "29.9 °C"),
        (parse_temperature_c, "100.1 °C"),
        (parse_held_c, "-2.1 °C"),
        (parse_held_c, "100.1 °C"),
        (parse_parts, "0.0009"),
        (parse_parts, "10000.1"),
        (parse_parts, "0"),
        (parse_amount, "0 ml"),
        (parse_amount, "20.001 l"),
    ],
)
def test_what_lies_beyond_is_refused_at_its_field(read, wrong):
    with pytest.raises(BadInput) as refusal:
        read(wrong, "here")
    assert refusal.value.argument == "here"


def test_a_liquid_is_read_up_to_twenty_litres_and_a_number_between_its_ends():
    assert parse_amount("20 l", "here").value == 20_000
    assert (parse_number("0.1", "here", 0.1, 5, "a target"), parse_number("5", "here", 0.1, 5, "a target")) == (0.1, 5)
    for wrong in ("0.09", "5.01"):
        with pytest.raises(BadInput):
            parse_number(wrong, "here", 0.1, 5, "a target")


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("1½", 1.5),
        ("½", 0.5),
        ("1⅟2", 1.5),
        ("1⁄2", 0.5),
        ("１½", 1.5),
        ("1 1/2", 1.5),
        ("0,5", 0.5),
        ("٣", 3.0),
        ("2.", 2.0),
    ],
)
def test_numbers_are_read_in_whatever_characters_they_are_written(text, value):
    assert float(read_number(text, "here")) == value

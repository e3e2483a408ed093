"""Heat, times at the heat, grates and heights as cooks write them."""

import math

import pytest
from ravska_core.measure import (
    parse_fire_c,
    parse_grate_cm2,
    parse_height_m,
    parse_hotter_k,
    parse_phase_s,
    parse_sears_s,
    parse_spots_c,
)
from ravska_core.working import BadInput


@pytest.mark.parametrize(
    ("text", "low", "high"),
    [("107 °C", 107, 107), ("225 °F", 107.22, 107.22), ("225 to 250 F", 107.22, 121.11), ("95", 95, 95),
     ("110-120 °C", 110, 120), ("about 180 C", 180, 180)],
)  # fmt: skip
def test_a_fire_is_as_hot_as_is_written(text, low, high):
    assert parse_fire_c(text) == (pytest.approx(low, abs=0.01), pytest.approx(high, abs=0.01))


@pytest.mark.parametrize(("text", "says"), [("225", "225 °F or 225 °C"), ("900 °C", "500 °C"), ("hot", "temperature")])
def test_a_fire_that_is_unclear_is_asked_about(text, says):
    with pytest.raises(BadInput, match=says):
        parse_fire_c(text)


@pytest.mark.parametrize(
    ("text", "seconds"), [("45 s", 45), ("1 min", 60), ("2 h 30", 9000), ("1 min 30 s", 90), ("overnight", 43_200)]
)
def test_seconds_count_at_the_heat(text, seconds):
    assert parse_phase_s(text) == seconds


@pytest.mark.parametrize("text", ["", "0 s", "a while", "9 days", "-3 min"])
def test_a_time_that_is_none_is_refused(text):
    with pytest.raises(BadInput):
        parse_phase_s(text)


def test_faces_are_seared_one_after_another():
    assert parse_sears_s("60 s, 45 s and 20 s") == (60, 45, 20)
    assert parse_sears_s("1 min a side") == (60, 60)


def test_a_difference_is_no_temperature():
    assert parse_hotter_k("25 °C") == 25
    assert parse_hotter_k("45 °F") == pytest.approx(25)
    for text in ("25", "", "much", "-4 °C"):
        with pytest.raises(BadInput):
            parse_hotter_k(text)


def test_spots_share_the_scale_that_is_written_last():
    assert parse_spots_c("108, 115 and 131 °C") == (108, 115, 131)
    assert parse_spots_c("225 F, 250 F") == (pytest.approx(107.2, abs=0.1), pytest.approx(121.1, abs=0.1))
    for text in ("110 °C", "110, 120, 300", "cold, hot °C"):
        with pytest.raises(BadInput):
            parse_spots_c(text)


def test_a_grate_is_round_by_one_length_and_square_by_two():
    assert parse_grate_cm2("57 cm") == pytest.approx(math.pi / 4 * 57**2)
    assert parse_grate_cm2("45 x 60 cm") == 2700
    assert parse_grate_cm2("18 by 24 in") == pytest.approx(18 * 24 * 2.54**2)
    for text in ("57", "1 x 2 x 3 cm", "big", "2 mm"):
        with pytest.raises(BadInput):
            parse_grate_cm2(text)


def test_a_kitchen_lies_above_the_sea():
    assert parse_height_m("650 m") == 650
    assert parse_height_m("2,100 ft") == pytest.approx(640.08)
    assert parse_height_m("0") == 0
    for text in ("9000 m", "high", "650"):
        with pytest.raises(BadInput) as refused:
            parse_height_m(text)
        assert refused.value.argument == "height"


def test_the_ends_of_what_a_fire_can_be_are_taken():
    assert parse_fire_c("500 °C") == (500.0, 500.0)
    assert parse_fire_c("−5 °C") == (-5.0, -5.0)
    for beyond in ("501 °C", "−6 °C"):
        with pytest.raises(BadInput):
            parse_fire_c(beyond)

"""When meat is done: the published credit, the words of the schools, and how tender it is."""

import math

import numpy as np
import pytest
from ravska_core.catalogue import catalogue
from ravska_core.cautions import ANIMAL_CLASSES, minimum_centre_c
from ravska_core.heat import FEELS, words_for
from ravska_core.heat.endpoints import credit, credit_s, credited
from ravska_core.heat.properties import material_of
from ravska_core.heat.run import run
from ravska_core.heat.solver import Body
from ravska_core.heat.surface import Leg, Side
from ravska_core.heat.tenderness import dose_h, feel_of

H = 3600.0


def test_the_credit_stands_at_the_rows_of_appendix_a():
    # USDA FSIS Appendix A, 6.5 log of Salmonella in beef and lamb (from memory)
    rows = {54.4: 112 * 60, 57.2: 36 * 60, 60.0: 12 * 60, 62.8: 4 * 60, 65.6: 67, 68.3: 22, 69.4: 14}
    assert credit_s(np.array(list(rows))) == pytest.approx(list(rows.values()))
    assert credit_s(np.array([54.39, 70.0, 80.0])).tolist() == [math.inf, 0.0, 0.0]


def test_between_its_rows_the_logarithm_goes_straight():
    found = credit_s(np.array([55.0, 56.0, 58.0, 61.0, 65.0, 69.9]))
    assert found == pytest.approx([5269.2, 3513.2, 1578.1, 486.33, 88.068, 14.0], rel=1e-4)


def test_the_credit_of_a_curve_adds_up_its_moments():
    assert credit(np.array([0, H]), np.array([58.0, 58.0])) == pytest.approx(2.2812, abs=1e-4)
    assert credit(np.array([0, 4800.0]), np.array([54.0, 62.0])) == pytest.approx(4.4122, abs=1e-3)
    assert credit(np.array([0, 2 * H]), np.array([53.0, 69.9])) == pytest.approx(88.09, abs=0.05)
    assert credit(np.array([0, H]), np.array([40.0, 54.0])) == 0
    assert math.isinf(credit(np.array([0, 60.0]), np.array([60.0, 70.0])))


def test_the_credit_is_given_for_intact_red_meat_alone():
    assert credited("beef", True)
    assert not credited("beef", False)
    assert not any(credited(animal, True) for animal in ("chicken", "duck", "fish", "venison"))


def test_every_animal_has_words_for_done_and_the_usual_minimum_is_among_them():
    for animal in ANIMAL_CLASSES:
        words = words_for(animal)
        least = minimum_centre_c(animal)[0]
        assert any(one.school == "usual guidance" and one.centre_c >= least for one in words)
        # who goes below the usual minimum is never said to be usual guidance
        assert all(one.centre_c >= least for one in words if one.school == "usual guidance")
    minced = next(cut for cut in catalogue().cuts.values() if cut.minced)
    assert words_for(minced.animal, True)[0].centre_c == 71


def test_schools_that_differ_are_both_there():
    both = {one.school: one.centre_c for one in words_for("beef") if one.word == "medium rare"}
    assert both == {"kitchens": 55.0, "usual guidance": 63.0}


def test_an_hour_at_82_is_one_hour_of_dose_and_ten_degrees_less_is_much_less():
    times = np.array([0.0, H])
    assert dose_h(times, np.full((2, 1), 82.0))[-1, 0] == pytest.approx(1)
    # by hand: exp(-12000 (1 / 345.15 - 1 / 355.15)) is 0.3758
    assert dose_h(times, np.full((2, 1), 72.0))[-1, 0] == pytest.approx(0.3758, abs=1e-4)


def test_the_dose_tells_the_feel():
    assert [feel_of(dose) for dose in (0.5, 2.0, 3.0, 4.9, 5.0)] == [
        "tough", "firm", "giving", "giving", "like butter"
    ]  # fmt: skip


def water(celsius: float, dose: float) -> list[Leg]:
    side = Side(300.0, celsius, 0.0, dries=False, by_the_fire=False)
    return [Leg(celsius, (side, side), until_dose=dose)]


def test_a_slow_shoulder_is_like_butter_at_about_ninety():
    # 4 kg, ellipsoid 1.3 : 1 : 0.8, pit at 107 °C, open (common practice: pulled at 88 to 95 °C)
    piece = Body(0.0924, 1.96, material_of(0.745), start_c=5.0, crust_m=2e-5)
    side = Side(10.0)
    gone = run(piece, [Leg(107, (side, side), until_dose=FEELS["like butter"])])
    assert 87 < gone.centre[-1, 0] < 92


def test_baths_and_braises_take_as_long_as_they_usually_do():
    # 1.5 and 4 kg ellipsoids (common practice: 24 h at 68 °C, 8 to 12 h at 82 °C, 4 to 6 h braised)
    for half in (0.0667, 0.0924):
        piece = Body(half, 1.96, material_of(0.745), start_c=5.0)
        assert 18 * H < float(run(piece, water(68, 5.0)).ended_s[0]) < 30 * H
        assert 7 * H < float(run(piece, water(82, 5.0)).ended_s[0]) < 11.5 * H
    # 2.6 kg in a pot at 97 °C
    assert 4 * H < float(run(Body(0.080, 1.96, material_of(0.745), start_c=5.0), water(97, 5.0)).ended_s[0]) < 6 * H


def test_ribs_two_hours_open_and_two_wrapped_are_like_butter():
    # a rack of 1.2 kg, box 18 : 6 : 1, at 120 °C (common practice)
    piece = Body(0.0138, 0.6, material_of(0.745), start_c=5.0, crust_m=2e-5)
    bare, foil = Side(10.0), Side(10.0, dries=False, wrapped=True)
    gone = run(piece, [Leg(120, (bare, bare), 2 * H), Leg(120, (foil, foil), 2 * H, phase=1)])
    assert dose_h(gone.times_s[:, 0], gone.centre)[-1, 0] > 5

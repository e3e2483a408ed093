"""Phases: what they may be, what is refused, and the legs they are run as."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.catalogue import catalogue
from ravska_core.heat import (
    COOKER_KINDS,
    SURROUNDS,
    Phase,
    check_phases,
    cooker_for,
    place_among,
    starts_for,
    usual_phase,
)
from ravska_core.heat.phases import COLOURS, legs_of
from ravska_core.heat.surface import Leg
from ravska_core.meat import find_cut
from ravska_core.working import BadInput

PIT = Phase("indirect", 110.0, "grate", centre_c=92.0)


def legs(*phases: Phase, boils_c: float = 100.0) -> tuple[Leg, ...]:
    return legs_of(phases, [cooker_for(phase.surround) for phase in phases], boils_c)


@pytest.mark.parametrize(
    ("phase", "field"),
    [
        (replace(PIT, surround="smoke ring"), "surround"),
        (replace(PIT, aimed_c=900.0), "aimed"),
        (replace(PIT, aimed_c=math.nan), "aimed"),
        (replace(PIT, vessel="bag"), "vessel"),
        (replace(PIT, low_c=120.0, high_c=140.0), "band"),
        (replace(PIT, centre_c=None), "lasts"),
        (replace(PIT, lasts_s=0.0), "lasts"),
        (replace(PIT, lasts_s=math.inf), "lasts"),
        (replace(PIT, feel="soft"), "feel"),
        (replace(PIT, colour="pink"), "colour"),
        (replace(PIT, setting="roaring"), "setting"),
        (replace(PIT, tray="gold"), "tray"),
        (replace(PIT, turned_s=1.0), "turned"),
        (replace(PIT, sears_s=(60.0,) * 9), "sears"),
        (replace(PIT, touching=0.0), "touching"),
        (replace(PIT, distance_cm=0.5), "distance_cm"),
        (replace(PIT, distance_cm=1.9), "distance_cm"),
        (replace(PIT, distance_cm=60.1), "distance_cm"),
        (replace(PIT, aimed_c=90.0), "centre"),
        (Phase("covered liquid", 120.0, "pot", centre_c=99.5), "centre"),
        (Phase("water bath", 57.0, "bag", centre_c=57.0), "centre"),
    ],
)
def test_what_a_phase_cannot_be_is_refused_at_its_field(phase, field):
    with pytest.raises(BadInput) as refused:
        check_phases([PIT, phase])
    assert refused.value.argument == f"phases.1.{field}"
    assert refused.value.sentence.endswith(".")


def test_there_are_only_so_many():
    with pytest.raises(BadInput, match="At most 12"):
        check_phases([PIT] * 13)


def test_up_a_mountain_a_pot_stays_below_what_it_does_at_the_sea():
    braise = Phase("covered liquid", 99.0, "pot", centre_c=95.5)
    check_phases([braise])
    with pytest.raises(BadInput, match="never reaches 96 °C"):
        check_phases([braise], boils_c=95.0)
    (leg,) = legs(braise, boils_c=95.0)
    assert leg.sides[0].env_c == 95.0


def test_each_turn_is_a_leg_and_the_other_side_is_at_the_heat():
    flame = Phase("direct flame", 230.0, "grate", lasts_s=240.0, turned_s=60.0)
    found = legs(flame)
    assert [leg.lasts_s for leg in found] == [60.0] * 4
    assert [leg.sides[0].flux > leg.sides[1].flux for leg in found] == [True, False, True, False]
    assert {leg.phase for leg in found} == {0}
    assert len(legs(replace(flame, turned_s=None))) == 1


def test_each_seared_face_is_a_leg_as_long_as_it_is_said():
    found = legs(Phase("hot iron", 280.0, "pan", sears_s=(60.0, 45.0, 20.0)), PIT)
    assert [leg.lasts_s for leg in found[:3]] == [60.0, 45.0, 20.0]
    assert [leg.phase for leg in found] == [0, 0, 0, 1]
    assert found[1].sides[1].h == 250.0
    assert found[1].sides[1].env_c == 280.0


def test_iron_that_touches_half_takes_half_and_shines_on_the_rest():
    (leg,) = legs(Phase("hot iron", 250.0, "pan", lasts_s=60.0, touching=0.5))
    assert leg.sides[0].h == pytest.approx(0.5 * 250 + 0.5 * 10)
    assert leg.sides[0].emissivity == pytest.approx(0.45)


def test_further_from_the_flame_less_shines_on_it():
    near = Phase("direct flame", 230.0, "grate", lasts_s=60.0, distance_cm=12.0)
    far = replace(near, distance_cm=24.0)
    assert legs(far)[0].sides[0].flux == pytest.approx(legs(near)[0].sides[0].flux / 2)
    assert legs(replace(near, setting="fierce"))[0].sides[0].flux > legs(near)[0].sides[0].flux


def test_the_hot_side_is_hotter_and_a_water_tray_makes_it_damp():
    assert legs(replace(PIT, near=True))[0].fire_c == 110 + cooker_for("indirect").near_k
    assert legs(replace(PIT, tray="water"))[0].sides[0].dew_c > legs(PIT)[0].sides[0].dew_c


def test_foil_and_lid_keep_water_in_and_a_pan_keeps_one_side_wet():
    for vessel in ("foil", "pot"):
        (leg,) = legs(replace(PIT, vessel=vessel))
        assert leg.sides[0].wrapped
        assert not leg.sides[0].dries
    (pan,) = legs(replace(PIT, vessel="pan"))
    assert (pan.sides[0].dries, pan.sides[1].dries) == (True, False)


def test_whichever_end_is_first_ends_a_phase():
    (leg,) = legs(Phase("indirect", 230.0, "rack", lasts_s=900.0, feel="giving", colour="brown"))
    assert (leg.lasts_s, leg.until_dose, leg.until_surface_c) == (900.0, 3.0, COLOURS["brown"])


def test_a_wider_band_lets_the_fire_wander_further():
    (leg,) = legs(replace(PIT, low_c=95.0, high_c=135.0))
    assert leg.fire_spread == 10.0


def test_a_phase_says_what_it_is():
    assert PIT.says == "indirect, beside the fire at 110 °C, to 92 °C"
    wrapped = Phase("indirect", 120.0, "foil", lasts_s=7200.0, feel="giving")
    assert wrapped.says == "indirect, beside the fire at 120 °C, wrapped, for 2 h or until it is giving"
    assert Phase("hot iron", 280.0, "pan", sears_s=(60.0, 45.0)).says.endswith("a face: 60 s, 45 s")


def test_every_cut_has_runs_to_begin_from_that_can_be_run():
    for cut in catalogue().cuts.values():
        starts = starts_for(cut)
        assert len(starts) >= 2
        for start in starts:
            check_phases(start.phases)
            assert start.school
            assert all(phase.surround in cooker_for(phase.surround).surrounds or not SURROUNDS[phase.surround].hot
                       for phase in start.phases)  # fmt: skip


def test_tough_cuts_begin_slow_and_tender_ones_by_the_number():
    assert {start.key for start in starts_for(find_cut("pork-shoulder"))} == {
        "open", "wrapped-late", "wrapped-smoked", "braise"
    }  # fmt: skip
    assert {"roast", "sear-first", "sear-last"} < {start.key for start in starts_for(find_cut("lamb-leg"))}
    assert "skin" in {start.key for start in starts_for(find_cut("duck-breast"))}


def test_a_cooker_of_every_kind_does_something_and_has_a_range():
    for cooker in COOKER_KINDS.values():
        assert set(cooker.surrounds) <= set(SURROUNDS)
        assert 0 < cooker.low_c < cooker.high_c
        assert cooker.ready_s > 0


def test_what_is_turned_without_end_is_turned_until_it_is_done():
    flame = Phase("direct flame", 230.0, "grate", centre_c=57.0, turned_s=60.0)
    found = legs(flame)
    assert [leg.lasts_s for leg in found[:2]] == [60.0, 60.0]
    # after four hours of turns it goes on being turned, and does not leave the fire
    assert found[-1].lasts_s > 72 * 3600
    assert not found[-1].lopsided


def test_what_is_turned_often_has_half_the_flame_on_each_side():
    (spit,) = legs(Phase("direct flame", 230.0, "skewer", centre_c=57.0, turned_s=10.0))
    one = legs(Phase("direct flame", 230.0, "skewer", centre_c=57.0))[0].sides
    assert spit.sides[0] == spit.sides[1]
    assert spit.sides[0].flux == pytest.approx((one[0].flux + one[1].flux) / 2)
    (pan,) = legs(Phase("hot iron", 250.0, "pan", lasts_s=120.0, turned_s=15.0))
    # by hand: 250 and 10 W/m2K at 250 and 120 °C
    assert (pan.sides[0].h, pan.sides[0].env_c) == (130.0, pytest.approx((250 * 250 + 10 * 120) / 260))
    assert pan.sides[0].h_drying == pytest.approx((15 + 10) / 2)


@given(st.floats(10, 3600), st.floats(5, 600))
def test_turns_fill_their_phase_and_nothing_more(lasts, turned):
    flame = Phase("direct flame", 230.0, "grate", lasts_s=lasts, turned_s=turned)
    assert sum(leg.lasts_s for leg in legs(flame)) == pytest.approx(lasts)


def test_one_more_phase_is_as_usual_and_goes_before_what_rests():
    assert (usual_phase("oven").aimed_c, usual_phase("oven").lasts_s) == (180.0, 3600.0)
    assert usual_phase("hot iron").lasts_s == 120.0
    assert usual_phase("rest").vessel == "board"
    for surround in SURROUNDS:
        check_phases([usual_phase(surround)])
    assert place_among([], "oven") == 0
    assert place_among(["indirect", "rest"], "hot iron") == 1
    assert place_among(["indirect", "rest"], "cold") == 2
    assert place_among(["rest", "indirect"], "oven") == 2
    with pytest.raises(BadInput):
        usual_phase("smoke ring")


def test_pork_is_taken_to_the_usual_minimum_where_nobody_says_otherwise():
    (roast,) = [start for start in starts_for(find_cut("pork-loin")) if start.key == "roast"]
    assert roast.phases[0].centre_c == 63.0


def test_two_and_sixty_centimetres_from_the_heat_are_still_taken():
    for cm in (2.0, 2.5, 60.0):
        check_phases([replace(PIT, distance_cm=cm)])

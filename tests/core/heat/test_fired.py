"""What a run says to a coat: D t of its heat, what a wet surface gives off, when it is off and in its liquid."""

import math
from collections.abc import Sequence

import numpy as np
import pytest
from ravska_core.coat import OnFire
from ravska_core.coat.wetness import evaporation_kg_m2_s
from ravska_core.heat import Phase, cooker_for, on_fire_of
from ravska_core.meat import Piece

HOUR = 3600.0


def fired(phases: Sequence[Phase], cut: str = "beef-round", mass_g: float = 2000.0, **more: object) -> OnFire:
    piece = Piece(cut, mass_g, **more)  # type: ignore[arg-type]
    return on_fire_of(piece, phases, [cooker_for(phase.surround) for phase in phases])


def test_in_a_bath_of_its_own_heat_salt_moves_by_arrhenius():
    # strips a centimetre thick are at the bath's 57 °C for all but the first minutes: D by hand,
    # 2.5e-10 exp(20000 / 8.314 (1 / 277.15 - 1 / 330.15))
    bath = Phase("water bath", 57.0, "bag", lasts_s=20 * HOUR)
    on = fired([bath, Phase("rest", 21.0, "board", lasts_s=60.0)], cut_into="strips", cut_cm=1.0)
    warm = 2.5e-10 * math.exp(20_000 / 8.314462618 * (1 / 277.15 - 1 / 330.15))
    assert warm == pytest.approx(1.009e-9, rel=0.01)
    # cm2, and less in its first and last minutes
    assert on.moved_cm2[-1] == pytest.approx(warm * 20 * HOUR * 1e4, rel=0.01)
    assert on.moves_cm2(5 * HOUR, 15 * HOUR) == pytest.approx(warm * 10 * HOUR * 1e4, rel=1e-3)


def test_it_moves_more_the_hotter_and_the_longer_and_not_in_a_liquid():
    pit = Phase("indirect", 110.0, "grate", lasts_s=2 * HOUR)
    short, long = fired([pit]), fired([Phase("indirect", 110.0, "grate", lasts_s=4 * HOUR)])
    hot = fired([Phase("indirect", 160.0, "grate", lasts_s=2 * HOUR)])
    assert short.moved_cm2[-1] < hot.moved_cm2[-1] < long.moved_cm2[-1]
    # meat from the fridge that is below 65 °C: between the fridge's D and that of 65 °C all the while
    assert 2.5e-6 * 2 * HOUR < short.moves_cm2(0, 2 * HOUR) < 4.9 * 2.5e-6 * 2 * HOUR
    braise = fired([pit, Phase("covered liquid", 95.0, "pot", lasts_s=3 * HOUR)])
    assert braise.pot_s == pytest.approx(2 * HOUR, abs=60)
    assert braise.off_s == pytest.approx(5 * HOUR, abs=120)
    assert braise.moves_cm2(2.1 * HOUR, 4.9 * HOUR) == pytest.approx(0, abs=1e-9)
    assert braise.moves_cm2(0, 2 * HOUR) == pytest.approx(short.moves_cm2(0, 2 * HOUR), rel=0.02)
    assert braise.moves_cm2(5.1 * HOUR, braise.lasts_s) > 0


def test_what_a_wet_surface_gives_off_is_that_of_a_hand_calculation():
    # 60 °C under air of 110 °C and dew point 40 °C, h 10: p_sat 19,993 and 7,367 Pa by Magnus, air of 0.9213 kg/m3;
    # 10 / (0.9213 x 1007 x 0.9) x 12,626 / (461.5 x 333.15) = 9.835e-4 kg/m2 s
    assert evaporation_kg_m2_s(60.0, 40.0, 10.0, 110.0) == pytest.approx(9.835e-4, rel=1e-3)
    rows = evaporation_kg_m2_s(*(np.array([value, value]) for value in (60.0, 40.0, 10.0, 110.0)))
    assert rows == pytest.approx(evaporation_kg_m2_s(60.0, 40.0, 10.0, 110.0))
    # colder than the dew point, water condenses
    assert evaporation_kg_m2_s(4.0, 40.0, 10.0, 110.0) < 0


def test_cold_meat_gathers_water_then_dries_and_in_foil_it_never_does():
    pit = fired([Phase("indirect", 110.0, "grate", lasts_s=3 * HOUR)])
    given = np.interp([300.0, 1800.0, 3 * HOUR], pit.times_s, pit.gives_off_kg_m2)
    assert given[0] < 0
    assert given[2] > given[1]
    moist, wet = pit.dry_after_s(0.1, 0.02), pit.dry_after_s(0.5, 0.02)
    assert moist
    assert wet
    # smoke takes for the first half hour or so of a cold wet piece (common practice, no source)
    assert 15 * 60 < moist < wet < 1.5 * HOUR
    foil = fired([Phase("oven", 150.0, "foil", lasts_s=2 * HOUR)])
    assert set(foil.gives_off_kg_m2[:40]) == {0.0}
    assert foil.dry_after_s(0.1, 0.02) is None
    iron = fired([Phase("hot iron", 250.0, "pan", lasts_s=240.0, turned_s=60.0)], "beef-rib-steak", 400.0)
    seared = iron.dry_after_s(0.1, 0.02)
    assert seared is not None
    assert seared < 180


def test_it_is_off_when_its_last_hot_phase_ends_and_carved_after_its_rest():
    on = fired([Phase("oven", 160.0, "rack", lasts_s=HOUR), Phase("rest", 21.0, "foil", lasts_s=1200.0)])
    assert on.off_s == pytest.approx(HOUR, abs=30)
    assert on.lasts_s == pytest.approx(HOUR + 1200, abs=1)
    assert on.pot_s is None

"""The cook behind the simulated thermometer: its heat against exact series, its books, what its probes go through."""

import numpy as np
import pytest
from devices.hidden.cook import HiddenCook, Wanted
from devices.hidden.fire import Burns, Fire
from devices.hidden.meat import Around, Cut, Meat
from scipy.optimize import brentq
from scipy.special import j0, j1

ROAST = Wanted("A", 20, 11, 10)


def _slab(biot: float, fo: float) -> float:
    """Centre of a slab, exact: Carslaw and Jaeger, *Conduction of Heat in Solids*, 3.11 (from memory)."""
    found = 0.0
    for n in range(8):
        z = brentq(lambda z: z * np.tan(z) - biot, n * np.pi + 1e-9, (n + 0.5) * np.pi - 1e-9)
        found += 4 * np.sin(z) / (2 * z + np.sin(2 * z)) * np.exp(-z * z * fo)
    return found


def _cylinder(biot: float, fo: float) -> float:
    """Centre of an endless cylinder, exact: the same, 7.7."""
    grid = np.linspace(1e-6, 25, 4000)
    values = grid * j1(grid) - biot * j0(grid)
    found = 0.0
    for at in np.flatnonzero(np.diff(np.sign(values))):
        z = brentq(lambda z: z * j1(z) - biot * j0(z), grid[at], grid[at + 1])
        found += 2 * j1(z) / z / (j0(z) ** 2 + j1(z) ** 2) * np.exp(-z * z * fo)
    return found


@pytest.mark.parametrize("is_round", [True, False])
def test_its_heat_goes_as_the_exact_series_of_a_cylinder_and_of_a_bar_say(is_round):
    cut = Cut(is_round, 0.04, 0.07, start_c=5.0, holds=1.0)
    meat, around = Meat(cut), Around(65.0, 60.0, liquid=True)
    meat.go(5400, around)
    diffusivity = cut.conducts / (290 * (1900 + cut.water * 4180))
    across = _slab(60 * cut.across_m / cut.conducts, diffusivity * 5400 / cut.across_m**2)
    through = (_cylinder if is_round else _slab)(60 * cut.half_m / cut.conducts, diffusivity * 5400 / cut.half_m**2)
    assert (65 - meat.at()) / 60 == pytest.approx(across * through, abs=0.03)
    assert meat.loss == pytest.approx(0, abs=1e-9)


def test_what_it_loses_is_the_water_that_is_missing():
    meat = Meat(Cut(True, 0.05, 0.09))
    meat.go(4 * 3600, Around(120.0))
    left = float((meat.volume * 290 * (1 + meat.water)).sum())
    assert meat.loss == pytest.approx(1 - left / float((meat.volume * 290 * 3.7).sum()), abs=1e-6)
    assert 0.1 < meat.loss < 0.4


def test_an_open_shoulder_stalls_and_a_wrapped_one_does_not():
    def slowest(wrapped: bool) -> float:
        meat, before, found = Meat(Cut(True, 0.073, 0.12)), 5.0, 99.0
        while meat.at() < 88:
            meat.go(1800, Around(110.0, 11.0, wrapped=wrapped))
            if before > 55:
                found = min(found, meat.at() - before)
            before = meat.at()
        return found

    assert slowest(False) < 1.3
    assert slowest(True) > 2 * slowest(False)


def test_a_lid_and_cold_fuel_are_dips_and_the_pit_comes_back():
    fire = Fire(Burns("charcoal", 110.0), np.random.default_rng(4))
    fire.go(3600)
    before = fire.celsius
    fire.lid(120)
    fire.go(120)
    assert fire.celsius < before - 20
    fire.go(3600)
    assert abs(fire.celsius - 110) < 25


def test_the_same_seed_is_the_same_cook_and_another_one_is_not():
    def shows(seed: int) -> dict[str, float]:
        cook = HiddenCook(Burns(), [ROAST], seed)
        cook.go(3600)
        return cook.shown()

    assert shows(1) == shows(1) != shows(2)


def test_a_slipped_probe_shows_the_pit_until_it_is_put_back():
    cook = HiddenCook(Burns(), [ROAST], 5, slips=1.0)
    while not cook.pieces[0].slipped:
        cook.go(600)
    cook.go(300)
    assert cook.shown()["A"] == pytest.approx(cook.fire.celsius, abs=8)
    cook.do("put back", "A")
    cook.go(600)
    assert cook.shown()["A"] < cook.fire.celsius - 15


def test_a_probe_drops_out_now_and_then_and_comes_back():
    cook = HiddenCook(Burns(), [ROAST], 6, drop_outs_an_hour=4.0)
    seen = []
    for _ in range(240):
        cook.go(60)
        seen.append("A" in cook.shown())
    assert 0 < seen.count(False) < 120


def test_a_piece_that_rests_cools_outside_and_one_in_the_pot_is_never_above_boiling():
    cook = HiddenCook(Burns("steady", 150.0), [ROAST, Wanted("B", 20, 11, 10, liquid=True)], 7)
    cook.go(2 * 3600)
    cook.do("rest", "A")
    before = cook.pieces[0].meat.surface()
    cook.go(1800)
    assert cook.pieces[0].meat.surface() < before - 10
    assert cook.pieces[1].meat.t.max() <= 98.1

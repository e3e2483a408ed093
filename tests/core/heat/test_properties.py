"""Meat as a thing that is heated, against the published constants."""

import numpy as np
import pytest
from ravska_core.heat.properties import (
    MEAT_FACTOR,
    Composition,
    boiling_c,
    composition_of,
    conductivity_w_mk,
    given_up,
    heat_capacity_j_kgk,
    material_of,
    saturation_pa,
)

LEAN = Composition(0.745, 0.215, 0.03, 0.01)


def test_lean_meat_has_the_conductivity_and_capacity_of_choi_and_okos():
    # Choi and Okos 1986 by the ASHRAE Refrigeration Handbook, constants from memory; worked out by hand
    at = np.array([20.0, 60.0])
    assert conductivity_w_mk(LEAN, at) == pytest.approx([0.5187, 0.5636], abs=5e-5)
    assert heat_capacity_j_kgk(LEAN, at) == pytest.approx([3620.0, 3641.8], abs=0.05)


def test_ordinary_meat_is_made_up_of_what_its_water_says():
    assert [share for _, share in composition_of(0.745).items()] == pytest.approx([0.745, 0.215, 0.03, 0.01])
    assert composition_of(0.68).fat == pytest.approx(0.1138, abs=1e-3)
    assert sum(share for _, share in composition_of(0.7).items()) == pytest.approx(1)


def test_a_material_follows_them_within_a_thousandth():
    meat = material_of(0.745)
    at = np.linspace(0, 110, 23)
    (k0, k1, k2), (c0, c1, c2) = meat.conductivity, meat.capacity
    assert k0 + at * (k1 + at * k2) == pytest.approx(conductivity_w_mk(LEAN, at) * MEAT_FACTOR, rel=1e-3)
    assert c0 + at * (c1 + at * c2) == pytest.approx(heat_capacity_j_kgk(LEAN, at), rel=1e-9)


def test_steam_has_the_pressure_that_steam_tables_print():
    # steam tables: 0.6113 kPa at 0.01 °C, 3.169 at 25, 19.94 at 60; Magnus' formula is meant for weather
    assert saturation_pa(np.array([0.0, 25.0, 60.0])) == pytest.approx([611.3, 3169, 19_940], rel=0.012)


def test_meat_gives_up_hardly_any_water_below_45_and_most_of_it_by_80():
    assert given_up(np.array([5.0]))[0] == pytest.approx(0, abs=1e-6)
    # at 52 °C: 0.345 / 31
    assert given_up(np.array([52.0]))[0] == pytest.approx(0.345 / 31)
    assert given_up(np.array([90.0]))[0] == pytest.approx(0.345, abs=0.002)


def test_water_boils_lower_up_a_mountain():
    assert boiling_c(0) == 100
    assert boiling_c(1500) == pytest.approx(95.05)

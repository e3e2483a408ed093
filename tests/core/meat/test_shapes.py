"""Surface: science.md section 3, every check value, and a mesh library as oracle."""

import math

import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.meat import ellipsoid_area_cm2
from ravska_core.meat.shapes import (
    ellipsoid_volume_cm3,
    poultry_skin_area_cm2,
    solid_of_dimensions,
    solid_of_equal_pieces,
    solid_of_mass,
)


@pytest.mark.parametrize(("axes", "area"), [((3, 2, 1), 48.8821), ((12, 8, 6), 924.993), ((1, 2, 3), 48.8821)])
def test_ellipsoid_area_is_exact(axes, area):
    assert ellipsoid_area_cm2(*axes) == pytest.approx(area, rel=2e-6)


def test_ellipsoid_area_meets_the_closed_forms_of_sphere_and_spheroids():
    assert ellipsoid_area_cm2(2, 2, 2) == pytest.approx(16 * math.pi)
    # prolate and oblate spheroids, DLMF 19.33 special cases
    e = math.sqrt(1 - 1 / 9)
    assert ellipsoid_area_cm2(3, 1, 1) == pytest.approx(2 * math.pi * (1 + 3 / e * math.asin(e)))
    assert ellipsoid_area_cm2(3, 3, 1) == pytest.approx(2 * math.pi * 9 * (1 + (1 - e * e) / e * math.atanh(e)))


@given(st.floats(1, 20), st.floats(1, 20), st.floats(1, 20))
def test_ellipsoid_area_and_volume_agree_with_a_mesh(a, b, c):
    mesh = trimesh.creation.icosphere(subdivisions=4)
    mesh.apply_scale([a, b, c])
    assert ellipsoid_area_cm2(a, b, c) == pytest.approx(mesh.area, rel=0.02)
    assert ellipsoid_volume_cm3(a, b, c) == pytest.approx(mesh.volume, rel=0.02)


def test_boxes_and_cylinders_agree_with_a_mesh():
    box = trimesh.creation.box(extents=(11, 7, 1.4))
    found = solid_of_dimensions("box", 11, 7, 1.4)
    assert (found.area_cm2, found.volume_cm3) == pytest.approx((box.area, box.volume))
    log = trimesh.creation.cylinder(radius=3, height=15, sections=400)
    found = solid_of_dimensions("cylinder", 15, 6, 6)
    assert (found.area_cm2, found.volume_cm3) == pytest.approx((log.area, log.volume), rel=1e-3)


@pytest.mark.parametrize(
    ("shape", "mass_g", "density", "sides", "area"),
    [
        ("ellipsoid", 1500, 1.06, (1.3, 1, 0.8), 629),
        ("box", 5400, 1.06, (11, 7, 1.4), 2670),
        ("rack", 1300, 1.15, (18, 6, 1), 1260),
        ("box", 400, 1.06, (6, 4, 1), 0.4 * 1070),
    ],
)
def test_usual_pieces_have_the_surface_they_should(shape, mass_g, density, sides, area):
    assert solid_of_mass(shape, mass_g, density, *sides).area_cm2 == pytest.approx(area, rel=0.005)


def test_skewer_cubes_have_1620_square_centimetres_a_kilo():
    assert solid_of_equal_pieces("cubes", 1000, 1.06, 3.5, 3.5, 3.5).area_cm2 == pytest.approx(1620, rel=0.005)


def test_poultry_skin_follows_mitchell():
    # H. H. Mitchell 1930, from memory: 1,800 g live gives 1,615 cm2
    assert poultry_skin_area_cm2(1800) == pytest.approx(1615, rel=0.001)
    bird = solid_of_mass("bird", 1800 * 0.72, 1.05, 1.4, 1, 0.9)
    assert bird.area_cm2 == pytest.approx(1615, rel=0.001)


@given(st.floats(100, 20_000), st.floats(1.1, 5))
def test_area_grows_with_two_thirds_of_one_piece_and_with_all_of_many(mass_g, times):
    one = solid_of_mass("ellipsoid", mass_g, 1.06, 1.3, 1, 0.8)
    larger = solid_of_mass("ellipsoid", mass_g * times, 1.06, 1.3, 1, 0.8)
    assert larger.area_cm2 / one.area_cm2 == pytest.approx(times ** (2 / 3))
    assert one.volume_cm3 * 1.06 == pytest.approx(mass_g)
    cubes = solid_of_equal_pieces("cubes", mass_g, 1.06, 3.5, 3.5, 3.5)
    more = solid_of_equal_pieces("cubes", mass_g * times, 1.06, 3.5, 3.5, 3.5)
    assert more.area_cm2 / cubes.area_cm2 == pytest.approx(times)

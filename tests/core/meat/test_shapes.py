"""Surface: science.md section 3, every check value, and a mesh library as oracle."""

import math

import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.catalogue import catalogue
from ravska_core.meat import Piece, ellipsoid_area_cm2, read_piece
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


# how thick and how long pieces of a kind are at the usual ends of their weight [cm] (common practice, no source)
LIMITS_CM = {
    "beef-strip-steak": (1.8, 3.5, 12, 20), "beef-rib-steak": (1.9, 4.5, 11, 24), "beef-flank": (1.2, 3, 22, 40),
    "beef-brisket": (4, 8, 30, 60), "beef-brisket-flat": (3, 6, 22, 45), "pork-ribs": (1.5, 3.5, 28, 55),
    "pork-spare-trimmed": (1.5, 3, 28, 42), "pork-chop": (1.5, 3.5, 9, 20), "pork-neck": (6, 13, 15, 30),
    "lamb-leg": (7, 14, 18, 36), "salmon-side": (1.6, 5, 28, 60), "mackerel-whole": (2.5, 6, 21, 45),
    "sea-bass-whole": (3, 6, 20, 40), "sardine-whole": (1.5, 3.5, 11, 24), "fish-fillet": (1, 2.5, 14, 26),
    "beef-top-blade": (2, 4.5, 16, 32), "chicken-thigh-boneless": (1.3, 2.5, 7, 12), 
    "beef-bottom-round": (7, 13, 20, 40),
}  # fmt: skip


@pytest.mark.parametrize("key", catalogue().cuts)
def test_every_cut_has_at_its_usual_weights_the_measures_of_such_a_piece(key):
    cut = catalogue().cuts[key]
    light, heavy = (read_piece(Piece(key, mass)).solid for mass in (cut.usual_low_g, cut.usual_high_g))
    least, most, short, long = LIMITS_CM.get(key, (0.2, 22, 3, 75))
    for solid in (light, heavy):
        assert least <= solid.thickness_cm <= most
        assert short <= solid.length_cm <= long
        # no piece stands on its edge
        assert solid.thickness_cm <= solid.width_cm * 1.01 or cut.shape in ("cylinder", "bird")
    assert light.volume_cm3 <= heavy.volume_cm3


def test_the_cuts_are_a_whole_counter_and_say_what_comes_off():
    assert len(catalogue().cuts) >= 85
    trimmed = [cut for cut in catalogue().cuts.values() if cut.trims]
    assert len(trimmed) >= 70
    for cut in trimmed:
        assert 0 < cut.trim_share <= 0.35
    # common practice, no source: a brisket loses about a quarter before it goes on, a fillet a fifth
    assert 0.2 <= catalogue().cuts["beef-brisket"].trim_share <= 0.3
    assert 0.15 <= catalogue().cuts["beef-fillet"].trim_share <= 0.3

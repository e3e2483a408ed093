"""Pieces of unlike weight: each has its own surface, thickness and salt, and together they have all of it."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.blend import Blend, Line
from ravska_core.coat import Layer, Portion, Seasoned, plain, read_coat
from ravska_core.meat import Piece, find_cut, read_piece
from ravska_core.meat.shapes import ellipsoid_area_cm2
from ravska_core.working import BadInput

MASSES = (620.0, 580.0, 710.0, 640.0)
FENNEL = Blend(
    "paste",
    (
        Line("fennel-seed/ground", Fraction(2), "scale"),
        Line("olive-oil/liquid", Fraction(5), "scale"),
        Line("table-salt/fine", Fraction(1), "scale"),
    ),
    200.0,
)
SALT = plain("table-salt/fine")
weights = st.lists(st.floats(200, 1500), min_size=2, max_size=8).map(tuple)


def of(masses, cut="lamb-breast", **more) -> Piece:
    return Piece(cut, sum(masses), len(masses), masses_g=tuple(masses), **more)


def test_two_joints_have_the_surface_of_the_two_by_themselves():
    cut = find_cut("lamb-shoulder")
    both = read_piece(of((900.0, 2700.0), "lamb-shoulder")).solid.area_cm2
    apart = [read_piece(Piece("lamb-shoulder", mass)).solid.area_cm2 for mass in (900.0, 2700.0)]
    assert both == pytest.approx(sum(apart), rel=1e-9)
    # by hand, with the exact surface of an ellipsoid of its proportions: volume m / density, axes in proportion
    by_hand = 0.0
    for mass in (900.0, 2700.0):
        volume = mass / cut.density
        scale = (volume / (3.141592653589793 / 6 * cut.length * cut.width * cut.thickness)) ** (1 / 3)
        by_hand += ellipsoid_area_cm2(*(scale * axis / 2 for axis in (cut.length, cut.width, cut.thickness)))
    assert both == pytest.approx(by_hand, rel=1e-6)


@pytest.mark.parametrize("cut", ["lamb-shoulder", "chicken-whole"])
def test_each_is_as_thick_and_has_as_much_surface_as_by_itself(cut):
    apart = [read_piece(Piece(cut, mass)).solid for mass in (900.0, 1800.0)]
    both = read_piece(of((900.0, 1800.0), cut))
    assert [one.thickness_cm for one in both.each] == pytest.approx([solid.thickness_cm for solid in apart], rel=1e-6)
    areas = [one.area_share * both.solid.area_cm2 for one in both.each]
    assert areas == pytest.approx([solid.area_cm2 for solid in apart], rel=1e-6)


def test_in_much_brine_for_long_all_become_nearly_as_salty():
    brine = Blend(
        "marinade",
        (Line("water/liquid", Fraction(95), "scale"), Line("table-salt/fine", Fraction(5), "scale")),
        20_000.0,
    )
    bath = Layer("marinade", brine, 3000.0, 7 * 86_400.0)
    light, heavy = read_coat(Seasoned("A", of((300.0, 600.0), "lamb-neck"), (bath,)), cored=False).each
    # what goes in nears the bath's own strength in the meat's water, however large a piece is; only by its surface the
    # small one would have 2^(1/3) = 1.26 times as much
    assert 1 < light / heavy < 1.2


@pytest.mark.parametrize("cut", ["lamb-breast", "duck-leg", "chicken-whole", "beef-strips"])
def test_shares_are_whole_and_alike_pieces_are_alike(cut):
    found = read_piece(of((500.0, 500.0, 500.0), cut))
    assert found.solid.area_cm2 == pytest.approx(read_piece(Piece(cut, 1500.0, 3)).solid.area_cm2)
    for one in found.each:
        assert (one.mass_share, one.area_share) == pytest.approx((1 / 3, 1 / 3))
        assert one.thickness_cm == pytest.approx(found.solid.thickness_cm)


@given(weights)
def test_what_goes_on_each_is_all_that_goes_on(masses):
    paste = Layer("paste", FENNEL, None, 7200.0, portion=Portion(1.0, "batch"))
    reading = read_coat(Seasoned("A", of(masses), (paste, Layer("pre-salt", SALT, 0.5, 7200.0))), cored=False)
    for layer in reading.layers:
        assert sum(layer.each_g) == pytest.approx(layer.dose_g)
    # a paste by its whole batch goes on by surface, m^(2/3); salt ahead by weight
    heavy, light = max(masses), min(masses)
    by_weight = dict(zip(masses, reading.layers[1].each_g, strict=True))
    by_area = dict(zip(masses, reading.layers[0].each_g, strict=True))
    assert by_weight[heavy] / by_weight[light] == pytest.approx(heavy / light)
    assert by_area[heavy] / by_area[light] == pytest.approx((heavy / light) ** (2 / 3))
    # and the salt of each, by its weight, is the salt of all
    mean = sum(salt * mass for salt, mass in zip(reading.each, masses, strict=True)) / sum(masses)
    assert mean == pytest.approx(reading.salt.value, rel=1e-6)


def test_the_lightest_is_the_saltiest_of_a_coat_and_of_a_bath_and_no_saltier_of_salt_by_weight():
    brine = Blend(
        "marinade", (Line("water/liquid", Fraction(95), "scale"), Line("table-salt/fine", Fraction(5), "scale")), 2000.0
    )
    piece = of((300.0, 1200.0), "lamb-leg")
    for layer in (Layer("rub", SALT, 1.0, 7200.0), Layer("marinade", brine, 400.0, 8 * 3600.0)):
        light, heavy = read_coat(Seasoned("A", piece, (layer,)), cored=False).each
        assert light > 1.15 * heavy
    light, heavy = read_coat(Seasoned("A", piece, (Layer("pre-salt", SALT, 0.9, 7200.0),)), cored=False).each
    assert light == pytest.approx(heavy)
    # by hand: a quarter of the weight has 4^(1/3) times the surface for it
    light, heavy = read_coat(Seasoned("A", piece, (Layer("rub", SALT, 1.0, 7200.0),)), cored=False).each
    assert light / heavy == pytest.approx(4 ** (1 / 3))


def test_so_many_weights_as_pieces_and_none_twenty_times_another():
    with pytest.raises(BadInput, match="2 weights of 3 pieces"):
        read_piece(Piece("lamb-leg", 1500.0, 3, masses_g=(700.0, 800.0)))
    with pytest.raises(BadInput, match="twenty times"):
        read_piece(of((20.0, 1500.0)))


def test_a_joint_is_cut_as_large_as_is_usual_where_it_is_as_thick_as_that():
    assert read_piece(Piece("lamb-shoulder", 2300.0)).usual_edge_cm == 3.5
    thin = read_piece(Piece("lamb-breast", 600.0))
    # by hand: 1.98 cm thick, so 1.5 cm in steps of half a centimetre
    assert thin.solid.thickness_cm == pytest.approx(1.976, abs=0.001)
    assert thin.usual_edge_cm == 1.5
    read_piece(Piece("lamb-breast", 600.0, cut_into="strips", cut_cm=thin.usual_edge_cm))


def test_what_a_raw_weight_covers_is_said():
    duck = read_piece(Piece("duck-leg", 1200.0, 4))
    assert (
        duck.covers
        == "Weigh what goes on the board: after trimming, with its bone (22 %) and its skin; all 4 together."
    )
    assert "without its skin" in read_piece(Piece("duck-leg", 300.0, faces={"skin": "off"})).covers

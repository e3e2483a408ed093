"""Cuts of one's own: shape, three measures, bone, faces and trim make a cut like those of the catalogue."""

import math

import pytest
from ravska_core.catalogue import NOTHING_OWN, Own, Trim, catalogue, take_own
from ravska_core.meat import (
    Measures,
    OwnCut,
    Piece,
    cut_named,
    cut_of_own,
    find_cut,
    raw_weight,
    read_piece,
    trim_share,
    usual_mass_g,
)
from ravska_core.working import BadInput


def of(**known) -> OwnCut:
    given = {"key": "own-1", "name": "Lock-keeper's roll", "like": "lamb-shoulder-boneless"}
    return OwnCut(**given | known)


def test_three_measures_and_a_weight_give_the_surface_of_a_log_by_its_weight():
    # a log 20 cm long and 10 cm through: by hand pi d l + pi d^2 / 2 = 785.4 cm2, pi d^2 l / 4 x 1.06 = 1665 g
    cut = cut_of_own(of(shape="cylinder", measures=Measures(20, 10, 10), mass_g=1665.0, bone_share=0.1))
    reading = read_piece(Piece(cut.key, 1665.0), cut)
    assert reading.solid.area_cm2 == pytest.approx(math.pi * 10 * 20 + math.pi * 50, rel=1e-3)
    assert reading.edible.value == pytest.approx(1665 * 0.9)
    # twice as long, wide and thick weighs eight times as much and has four times the surface
    big = read_piece(Piece(cut.key, 8 * 1665.0), cut)
    assert big.solid.area_cm2 == pytest.approx(4 * reading.solid.area_cm2, rel=1e-9)
    assert (cut.usual_low_g, cut.usual_high_g) == (pytest.approx(999), pytest.approx(2664))
    like = find_cut("lamb-shoulder-boneless")
    assert (cut.source, cut.animal, cut.cook_yield) == ("own-cut", "lamb", like.cook_yield)


def test_what_weight_and_measures_lie_apart_is_the_doubt_of_the_surface():
    exact = cut_of_own(of(shape="box", measures=Measures(20, 10, 5), mass_g=1060.0))
    assert read_piece(Piece("x", 1060.0), exact).area_error == pytest.approx(0.15)
    # a box of 1000 cm3 would weigh 1060 g; at 700 g it is 51 % too large, which is 34 % of surface
    loose = cut_of_own(of(shape="box", measures=Measures(20, 10, 5), mass_g=700.0))
    assert read_piece(Piece("x", 700.0), loose).area_error == pytest.approx(2 / 3 * (1060 / 700 - 1))
    tight = cut_of_own(of(shape="box", measures=Measures(20, 10, 5), mass_g=1800.0))
    assert read_piece(Piece("x", 1800.0), tight).area_error == pytest.approx(2 / 3 * (1 - 1060 / 1800))
    with pytest.raises(BadInput, match=r"would weigh 1\.06 kg, not 0\.50 kg"):
        cut_of_own(of(shape="box", measures=Measures(20, 10, 5), mass_g=500.0))
    with pytest.raises(BadInput, match=r"would weigh 1\.06 kg, not 2\.20 kg"):
        cut_of_own(of(shape="box", measures=Measures(20, 10, 5), mass_g=2200.0))


def test_equal_pieces_grow_in_number_and_not_in_size():
    cubes = cut_of_own(of(shape="cubes", measures=Measures(3, 3, 3), mass_g=28.6))
    one, ten = (read_piece(Piece("x", grams), cubes).solid for grams in (28.62, 286.2))
    assert ten.area_cm2 == pytest.approx(10 * one.area_cm2)
    assert one.area_cm2 == pytest.approx(54)


def test_what_is_not_given_is_as_of_the_nearest():
    like = find_cut("lamb-shoulder")
    cut = cut_of_own(of(like="lamb-shoulder"))
    assert (cut.faces, cut.trims, cut.bones, cut.bone_share) == (like.faces, like.trims, like.bones, like.bone_share)
    assert cut.other_names == ()
    boned = cut_of_own(of(like="lamb-shoulder", bone_share=0.0))
    assert (boned.bones, boned.bone_share) == ((), 0.0)
    goat = cut_of_own(of(like="lamb-shoulder", animal="goat", mass_g=1000.0))
    assert (goat.animal, goat.usual_low_g, goat.usual_high_g) == ("goat", 600, 1600)


def test_faces_are_left_bare_and_trim_is_bought():
    cut = cut_of_own(
        of(measures=Measures(20, 10, 5), shape="box", faces=(("skin", 0.25),), trims=(Trim("flap", 0.2, "pot"),))
    )
    reading = read_piece(Piece("x", 1060.0), cut)
    # 2 (200 + 100 + 50) = 700 cm2, a quarter of it skin
    assert reading.coatable.value == pytest.approx(525)
    try:
        take_own(Own(cuts=(cut,)))
        found = raw_weight("own-1", 4, 170.0)
        assert found.bought.value == pytest.approx(found.trimmed.value / 0.8)
    finally:
        take_own(NOTHING_OWN)


@pytest.mark.parametrize(
    ("known", "argument"),
    [
        ({"name": " "}, "name"), ({"like": "sea-cow"}, "like"), ({"shape": "pear"}, "shape"),
        ({"animal": "pixie"}, "animal"), ({"shape": "box"}, "length"),
        ({"measures": Measures(0.1, 5, 5)}, "length"), ({"measures": Measures(5, 500, 5)}, "width"),
        ({"measures": Measures(5, 5, 0)}, "thickness"), ({"mass_g": 0.0}, "mass_g"),
        ({"bone_share": 0.7}, "bone_share"),
        ({"faces": (("nose", 0.1),)}, "faces"), ({"faces": (("skin", 0.1), ("skin", 0.2))}, "faces"),
        ({"faces": (("skin", 0.6), ("fat cap", 0.5))}, "faces"), ({"faces": (("skin", -0.1),)}, "faces"),
        ({"trims": (Trim("", 0.1, "pot"),)}, "trims"), ({"trims": (Trim("fat", 0.1, "moon"),)}, "trims"),
        ({"trims": (Trim("fat", 0.3, "bin"), Trim("flap", 0.3, "pot"))}, "trims"),
        ({"trims": (Trim("fat", 0.0, "bin"),)}, "trims"), ({"trims": (Trim("fat", 0.01, "bin"),) * 7}, "trims"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_at_its_field(known, argument):
    with pytest.raises(BadInput) as refusal:
        cut_of_own(of(**known))
    assert refusal.value.argument == argument


def test_the_catalogue_holds_own_cuts_and_own_names_of_cuts_until_they_are_taken_out():
    assert cut_named("shoulder on the bone").key == "lamb-shoulder"
    assert cut_named("weir cut") is None
    try:
        take_own(Own(cuts=(cut_of_own(of()),), names=(("weir cut", "duck-leg"), ("old roll", "own-1"))))
        assert catalogue().cuts["own-1"].other_names == ("old roll",)
        assert cut_named("Weir cut").key == "duck-leg"
        assert "weir cut" in catalogue().cuts["duck-leg"].other_names
    finally:
        take_own(NOTHING_OWN)
    assert "own-1" not in catalogue().cuts
    assert "weir cut" not in catalogue().cuts["duck-leg"].other_names


def test_a_bird_that_was_measured_takes_its_surface_from_its_skin():
    bird = cut_of_own(of(like="duck-whole", measures=Measures(30, 20, 14), mass_g=2200.0))
    shipped = read_piece(Piece("duck-whole", 2200.0))
    assert read_piece(Piece("x", 2200.0), bird).solid.area_cm2 == pytest.approx(shipped.solid.area_cm2)


def test_limits_are_met_exactly_and_no_further():
    for grams in (1.0, 100_000.0):
        assert cut_of_own(of(mass_g=grams)).usual_low_g == pytest.approx(0.6 * grams)
    with pytest.raises(BadInput):
        cut_of_own(of(mass_g=100_000.5))
    assert cut_of_own(of(bone_share=0.6)).bone_share == 0.6
    assert cut_of_own(of(faces=(("skin", 0.9), ("fat cap", 0.05)))).faces[1] == ("fat cap", 0.05)
    with pytest.raises(BadInput):
        cut_of_own(of(faces=(("skin", 0.9), ("fat cap", 0.051))))
    assert cut_of_own(
        of(trims=(Trim("fat", 0.1, "bin"), Trim("sinew", 0.2, "bin"), Trim("flap", 0.2, "pot")))
    ).trim_share == pytest.approx(0.5)
    assert len(cut_of_own(of(trims=(Trim("fat", 0.01, "bin"),) * 6)).trims) == 6
    # a box of 1000 cm3 weighs 1060 g: half and twice that are the most between them
    for grams in (530.0, 2120.0):
        assert cut_of_own(of(shape="box", measures=Measures(20, 10, 5), mass_g=grams)).area_error > 0.3
    for grams in (529.0, 2121.0):
        with pytest.raises(BadInput):
            cut_of_own(of(shape="box", measures=Measures(20, 10, 5), mass_g=grams))


def test_a_cut_that_was_only_weighed_is_shaped_as_its_nearest_and_equal_pieces_stay_usual():
    cubes = (
        find_cut("lamb-cubes")
        if "lamb-cubes" in catalogue().cuts
        else next(cut for cut in catalogue().cuts.values() if cut.unit_cm)
    )
    own = cut_of_own(of(like=cubes.key, mass_g=40.0))
    assert (own.usual_low_g, own.usual_high_g) == (cubes.usual_low_g, cubes.usual_high_g)


def test_what_comes_off_is_surer_with_every_trimming_of_ones_own():
    cut = cut_of_own(of(trims=(Trim("flap", 0.2, "pot"),)))
    usual, mine = trim_share(cut), trim_share(cut, [0.1, 0.1, 0.1])
    # ±40 % of 20 %, and with three of one's own half of that on (2 x 20 + 3 x 10) / 5 = 14 %
    assert (usual.value, usual.high - usual.value) == (pytest.approx(20), pytest.approx(8))
    assert (mine.value, mine.high - mine.value) == (pytest.approx(14), pytest.approx(2.8))


def test_a_usual_weight_lies_in_the_middle_of_its_span_by_ratio():
    # lamb shoulder, 1000 to 3500 g: the root of 3,500,000 is 1871, to two figures 1900
    assert usual_mass_g(find_cut("lamb-shoulder")) == 1900

"""Marinades: classes of acid, the window of every class, meat and thickness, uptake, reserve. Science.md section 7."""

import dataclasses
from itertools import product

import pytest
from builders import blend
from ravska_core.blend import MethodStep, read_blend
from ravska_core.catalogue import THICKNESSES, catalogue
from ravska_core.catalogue.row import CatalogueError
from ravska_core.catalogue.rows import ACID_CLASSES, MEAT_CLASSES
from ravska_core.catalogue.tables import read_windows
from ravska_core.coat import Layer, Seasoned, hold_window, read_coat
from ravska_core.coat.marinade import acid_class, says_where
from ravska_core.measure import parse_amount
from ravska_core.meat import Piece, read_piece

HOUR = 3600.0
BATH = blend(("buttermilk/liquid", 4, "spoon"), ("table-salt/fine", "1/4", "spoon"), kind="marinade", batch_g=500)
SHARP = blend(("cider-vinegar/liquid", 1, "scale"), ("water/liquid", 1, "scale"), ("table-salt/fine", 0.06, "scale"),
              kind="marinade", batch_g=500)  # fmt: skip


@pytest.mark.parametrize(
    ("lines", "kind"),
    [
        ([("olive-oil/liquid", 3, "spoon"), ("stock/liquid", 1, "spoon")], "none"),
        ([("yoghurt/liquid", 5, "spoon")], "dairy"),
        ([("red-wine/liquid", 3, "spoon"), ("water/liquid", 1, "spoon")], "mild"),
        ([("cider-vinegar/liquid", 1, "spoon"), ("water/liquid", 4, "spoon")], "medium"),  # dilution counts
        ([("cider-vinegar/liquid", 1, "spoon")], "strong"),
        ([("pineapple-fresh/liquid", 1, "spoon")], "enzyme"),
        ([("pineapple-canned/liquid", 1, "spoon"), ("water/liquid", 1, "spoon")], "mild"),  # heat kills the enzyme
        ([("yoghurt/liquid", 1, "spoon"), ("lemon-juice/liquid", 1, "spoon")], "strong"),
    ],
)
def test_a_marinade_falls_in_the_class_of_its_acid(lines, kind):
    assert acid_class(read_blend(blend(*lines, kind="marinade")))[0] == kind


def test_the_table_has_a_cell_for_every_acid_meat_and_thickness_with_a_reason_and_a_source_mark():
    windows = catalogue().windows
    assert set(windows) == set(product(ACID_CLASSES, MEAT_CLASSES, THICKNESSES))
    for window in windows.values():
        ends = (window.cautious_low_min, window.cautious_high_min, window.long_low_min, window.long_high_min)
        assert list(ends) == sorted(ends)
        assert len(window.reason) > 15
        assert catalogue().sources[window.source].mark
    table = (
        "acid_class,meat_class,thickness,cautious_low_min,cautious_high_min,long_low_min,long_high_min,reason,source"
    )
    with pytest.raises(CatalogueError, match="no window for none, fish, medium"):
        read_windows(f"{table}\nnone,fish,thin,5,10,10,20,Short.,trade", catalogue().sources)


def test_no_window_breaks_a_limit_of_the_trade():
    # common practice, no source
    windows = catalogue().windows
    for (acid, meat, _), window in windows.items():
        assert window.long_high_min <= 1440
        if acid == "enzyme":
            assert window.long_high_min <= 60
        if acid in ("medium", "strong") and meat in ("poultry", "tender_red"):
            assert window.long_high_min <= 120
    assert windows["strong", "fish", "medium"].long_high_min == 30
    assert windows["medium", "sliced_pork", "thin"].cautious_high_min == 30
    tough = windows["medium", "tough", "medium"]
    assert (tough.cautious_high_min, tough.long_high_min) == (240, 720)  # 4 h to overnight


def test_thicker_meat_and_weaker_acid_never_shorten_a_window():
    windows = catalogue().windows
    for meat in MEAT_CLASSES:
        for acid in ACID_CLASSES:
            ends = [windows[acid, meat, thickness].long_high_min for thickness in THICKNESSES]
            assert ends == sorted(ends)
        for thickness, (weaker, stronger) in product(
            THICKNESSES, (("none", "mild"), ("mild", "medium"), ("medium", "strong"))
        ):
            assert windows[weaker, meat, thickness].long_high_min >= windows[stronger, meat, thickness].long_high_min


def test_the_cut_as_it_lies_on_the_board_decides_its_thickness():
    joint = Piece("lamb-shoulder-boneless", 1500)
    assert read_piece(joint).thickness == "thick"
    assert read_piece(dataclasses.replace(joint, cut_into="cubes", cut_cm=3.5)).thickness == "medium"
    assert read_piece(dataclasses.replace(joint, cut_into="strips", cut_cm=1.5)).thickness == "thin"
    # a bird is as thick as its breast, 3.5 cm, not as it is high
    assert read_piece(Piece("chicken-whole", 1800)).thickness == "medium"
    assert read_piece(Piece("quail-whole", 180)).thickness == "thin"
    acid = read_blend(SHARP)
    ends = [hold_window(acid, "tough", thickness).limits.long_high_min for thickness in THICKNESSES]
    assert ends == [240, 480, 480]


def test_a_hold_is_said_to_stand_where_it_does():
    window = catalogue().windows["strong", "tough", "medium"]
    said = [says_where(window, minutes * 60) for minutes in (30, 60, 120, 121, 480, 481)]
    assert said == [
        "shorter than either school", *["inside the cautious school"] * 2, *["inside the long school only"] * 2,
        "longer than either school",
    ]  # fmt: skip


def test_water_takes_a_marinade_down_a_class_as_said():
    found = hold_window(read_blend(SHARP), "tough", "medium")
    assert (found.acid_class, found.weaker.acid_class) == ("strong", "medium")
    # by hand: 2.43 % acid to 1.96 % takes 23.8 g of water to 100 g
    thinned = blend(
        *((line.grind, line.parts, "scale") for line in SHARP.lines),
        ("water/liquid", round(found.weaker.water_g / 100 * 2.06, 4), "scale"), kind="marinade",
    )  # fmt: skip
    assert found.weaker.water_g == pytest.approx(23.8, abs=0.3)
    assert acid_class(read_blend(thinned))[0] == "medium"
    assert hold_window(read_blend(BATH), "tough", "medium").weaker is None


def test_an_enzyme_that_was_simmered_is_dead_and_one_stirred_in_later_is_not():
    lines = (("water/liquid", 4, "scale"), ("pineapple-fresh/liquid", 2, "scale"))
    boiled = dataclasses.replace(blend(*lines, kind="marinade"), method=(MethodStep("simmer", by=0.1),))
    assert read_blend(boiled).flags == {"heat_treated"}
    late = (MethodStep("mix", (0,)), MethodStep("simmer", by=0.1), MethodStep("mix", (1,)))
    assert "protease" in read_blend(dataclasses.replace(boiled, method=late)).flags


def read(*layers: Layer, piece: Piece | None = None):
    return read_coat(Seasoned("A", piece or Piece("lamb-shoulder", 2250), layers), cored=False)


def test_what_a_bath_gives_is_said_in_grams_and_agrees_with_the_ledger():
    found = read(Layer("marinade", BATH, 250, 16 * HOUR))
    layer = found.layers[0]
    inside = (layer.fate.meat + layer.fate.surface) * layer.dose_g * read_blend(BATH).salt.value / 100
    cling = 0.05 * found.piece.open_cm2
    assert f"{inside:.1f} g go into the meat" in layer.says
    assert f"about {cling:.0f} g of the bath cling" in layer.says
    assert "wiped off" in layer.says
    assert "all of it stays" in read(Layer("marinade", BATH, 250, 16 * HOUR, after="as it is")).layers[0].says


def test_the_reserve_is_mixed_too_and_must_be_enough_for_what_goes_on_later():
    bath = Layer("marinade", BATH, 250, 4 * HOUR)
    baste = Layer("baste", BATH, 1.5, times=2)
    short, enough = (read(dataclasses.replace(bath, reserve=parse_amount(text, "x") if text else None), baste)
                     for text in ("", "1 cup"))  # fmt: skip
    assert [c.sentence for c in short.cautions if c.id == "reserve"] == [
        "The baste is of the same blend as the bath, and less of it is set aside than the baste takes."
    ]
    assert "reserve" not in {c.id for c in enough.cautions}
    assert enough.layers[0].reserve_g == pytest.approx(236.59 * read_blend(BATH).density_g_ml, rel=1e-3)
    other = Layer("baste", SHARP, 1.5, times=2)
    assert "reserve" not in {c.id for c in read(bath, other).cautions}


def test_a_bath_that_becomes_a_sauce_is_boiled_first_and_its_salt_is_counted():
    thrown, eaten = (read(Layer("marinade", BATH, 250, 4 * HOUR, eaten=share)) for share in (None, 0.5))
    assert {"discard-or-boil"} == {"discard-or-boil", "boil-first"} & {c.id for c in thrown.cautions}
    assert {"boil-first"} == {"discard-or-boil", "boil-first"} & {c.id for c in eaten.cautions}
    assert eaten.salt.value > thrown.salt.value * 1.5

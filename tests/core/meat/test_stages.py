"""The clocks of raw meat, and every caution of time and temperature, over all animals, places, holds and endpoints."""

import math
from dataclasses import replace

import pytest
from builders import blend
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.catalogue import catalogue
from ravska_core.catalogue.tables import read_cuts
from ravska_core.cautions import ANIMAL_CLASSES, Situation, cautions_for, minimum_centre_c
from ravska_core.cautions.guidance import raw_keeps_days
from ravska_core.coat import Layer, Seasoned, plain, read_coat
from ravska_core.coat.situations import stages_of
from ravska_core.meat import PLACES, Piece, Stage, check_place, clocks_of, place_of
from ravska_core.meat.stages import centre_warms_s, surface_warms_s
from ravska_core.working import BadInput
from scipy.special import erfcx

HOUR, DAY = 3600.0, 86_400.0
SALT, WATER = plain("table-salt/fine"), plain("water/liquid")
BRINE = blend(("water/liquid", 19, "scale"), ("table-salt/fine", 1, "scale"), kind="marinade", batch_g=1000)
ANIMALS = sorted({cut.animal for cut in catalogue().cuts.values()})

# usual US guidance, from memory: minimum in the centre [C], and for how many days it keeps raw and cold
MINIMUM = {
    **dict.fromkeys(("chicken", "turkey", "duck", "goose", "quail", "pheasant"), (74, 2)),
    **dict.fromkeys(("venison", "rabbit"), (71, 5)),
    **dict.fromkeys(("beef", "veal", "lamb", "goat", "pork"), (63, 5)),
    "fish": (63, 2),
}

# one hold: place, C, hours, and the level that its clocks come to; usual US guidance, from memory
HOLDS = [
    ("fridge", 4.0, 40, ""), ("fridge", 40 / 1.8 - 32 / 1.8, 40, ""), ("fridge", 4.5, 40, ""),
    ("fridge", 4.6, 2, ""), ("fridge", 4.6, 2.1, "stop"), ("fridge", 8, 12, "stop"),
    ("cool box", 4, 12, ""), ("cool box", 9, 1.9, ""), ("cool box", 9, 3, "stop"),
    ("bench", 21, 2, ""), ("bench", 21, 2.01, "stop"), ("bench", 32, 2, ""),
    ("outside", 32, 2, ""), ("outside", 32.1, 1, ""), ("outside", 32.1, 1.01, "stop"), ("outside", 40, 1.5, "stop"),
    ("outside", 20, 1.9, ""), ("outside", 20, 2.1, "stop"),
    ("warm water", 30, 2, ""), ("warm water", 30, 2.1, "stop"), ("warm water", 50, 1, ""),
    ("warm water", 50, 1.01, "caution"), ("warm water", 50, 4, "caution"), ("warm water", 50, 4.01, "stop"),
    ("warm water", 54.3, 3, "caution"), ("warm water", 54.4, 24, ""), ("warm water", 60, 24, ""),
]  # fmt: skip


def levels(of: Situation) -> dict[str, str]:
    return {caution.id: caution.level for caution in cautions_for(of)}


def test_every_animal_of_the_catalogue_has_a_class_and_one_without_is_refused_at_its_cell():
    assert {animal: (minimum_centre_c(animal)[0], raw_keeps_days(animal)) for animal in ANIMALS} == MINIMUM
    assert set(ANIMAL_CLASSES) == set(MINIMUM)
    row = (
        "key,name,other_names,animal,meat_class,shape,length,width,thickness,unit_cm,density,bone_share,bones,faces,"
        "cook_yield,thin_share,usual_low_g,usual_high_g,fire_min,rest_min,form,source\n"
        "emu-fan,Emu fan,,emu,tender_red,box,4,3,1,,1.06,0,,,0.8,1,300,900,20,5,whole,estimate"
    )
    with pytest.raises(ValueError, match=r"cuts\.csv.*2.*animal.*emu"):
        read_cuts(row, catalogue().sources)
    assert minimum_centre_c("lamb", minced=True)[0] == 71
    assert minimum_centre_c("turkey", minced=True)[0] == 74


@pytest.mark.parametrize("animal", ANIMALS)
def test_every_hold_place_temperature_and_endpoint_says_what_usual_guidance_says(animal):
    least, days = MINIMUM[animal]
    for place, celsius, hours, level in HOLDS:
        clocks = clocks_of([Stage("hold", place, celsius, hours * HOUR)], 5.0, True)
        for end in (None, 40, 57, 62.5, 62.78, 63, 70.5, 71, 73.5, 73.9, 74, 95):
            found = levels(Situation(animal=animal, clocks=clocks, endpoint_c=end))
            assert (found.get("warm-hold") or found.get("warm-bath") or "") == level, (place, celsius, hours)
            assert ("warm-hold" in found) == (level == "stop")
            low = end is not None and end < least - 0.34  # 145 F is said to be 63 C
            assert found.get("below-minimum-poultry") == ("stop" if low and least == 74 else None)
            assert found.get("below-minimum-fish") == ("caution" if low and animal == "fish" else None)
            red = low and least < 74 and animal != "fish"
            assert found.get("below-minimum") == ("caution" if red else None)
            # these never disappear, whatever the plan
            assert found["minimum-centre"] == "note"
            pierced = levels(Situation(animal=animal, clocks=clocks, endpoint_c=end, pierced=True))
            assert pierced.get("not-intact") == ("stop" if low else None)
            assert ("pierced" in pierced) == (not low)
    for raw, level in ((days, ""), (days * 1.01, "caution"), (2 * days, "caution"), (2 * days * 1.01, "stop")):
        clocks = clocks_of([Stage("hold", "fridge", 4, raw * DAY / 2)] * 2, 5.0, True)
        found = levels(Situation(animal=animal, clocks=clocks))
        assert (found.get("raw-too-long") or found.get("raw-long") or "") == level
        # a layer with curing salt has the pointer to a tested recipe instead, never silence
        cured = levels(Situation(animal=animal, clocks=clocks, cure=True, flags=frozenset({"cure"})))
        assert cured["cure"] == "stop"
        assert not {"raw-long", "raw-too-long"} & set(cured)


def test_minced_meat_keeps_two_days_and_is_never_intact():
    two = clocks_of([Stage("hold", "fridge", 4, 2.1 * DAY)], 1.0, False)
    found = levels(Situation(animal="beef", minced=True, clocks=two, endpoint_c=65))
    assert (found["raw-long"], found["not-intact"]) == ("caution", "stop")
    patties = read_coat(Seasoned("A", Piece("beef-patties", 800, 5, endpoint_c=65.0), ()))
    stop = next(caution for caution in patties.cautions if caution.level == "stop")
    assert "Minced meat is not intact" in stop.sentence
    assert "71 °C (160 °F)" in stop.action


def stops(*stages: Stage, intact: bool = True, half: float = 1.25) -> str:
    clocks = clocks_of(stages, half, intact)
    return "stop" if clocks.stops else "caution" if clocks.warns else ""


def test_the_clocks_run_on_over_all_stages_of_a_piece():
    bench = Stage("hold", "bench", 21, 1.1 * HOUR)
    bath = Stage("hold", "warm water", 50, 0.9 * HOUR)
    assert stops(bench) == stops(bath) == ""
    assert stops(bench, bench) == "stop"
    assert stops(bench, bath) == ""  # 2 h in all, 54 min of them above 32 C
    assert stops(bench, bath, Stage("temper", "bench", 21, 0.2 * HOUR)) == "caution"
    # bench and bag time included: 1.9 h and 2.2 h are over 4 h
    assert stops(Stage("temper", "bench", 21, 1.9 * HOUR), replace(bath, lasts_s=2.2 * HOUR)) == "stop"
    # outside counts towards the hour above 32 C that a bath is warned of
    assert stops(Stage("hold", "outside", 35, 0.5 * HOUR), replace(bath, lasts_s=0.6 * HOUR)) == "caution"
    # in the cold nothing adds up
    assert stops(*[Stage("hold", "fridge", 4, DAY)] * 6) == ""


def test_thawing_in_warm_water_is_a_stop_and_in_the_cold_none():
    assert stops(Stage("thaw", "warm water", 38, 0.3 * HOUR)) == "stop"
    assert stops(Stage("thaw", "warm water", 60, 0.3 * HOUR)) == "stop"
    assert stops(Stage("thaw", "fridge", 4, 30 * HOUR)) == ""
    assert stops(Stage("thaw", "bench", 21, 3 * HOUR)) == "stop"
    # frozen meat keeps: thawing is no day of the days it is raw
    thawed = clocks_of([Stage("thaw", "fridge", 4, 3 * DAY), Stage("hold", "fridge", 4, DAY)], 5, True)
    assert thawed.raw_s == DAY


def test_a_bath_that_cooks_counts_only_while_it_warms_up():
    # of a surface: exp(x^2) erfc(x) = 0.1 at x = 5.56, so t = (x k / h)^2 / a; SciPy's scaled erfc
    x = surface_warms_s() ** 0.5 * 1.35e-7**0.5 * 300 / 0.5
    assert erfcx(x) == pytest.approx(0.1, rel=1e-6)
    assert surface_warms_s() == pytest.approx(636, abs=10)
    # of a centre: 4/pi exp(-pi^2/4 Fo) = 0.1, Fo 1.031: R 2.5 cm takes 1.031 x 6.25e-4 / 1.35e-7 = 4,773 s
    assert centre_warms_s(2.5) == pytest.approx(4773, rel=1e-3)
    assert centre_warms_s(5) == pytest.approx(4 * centre_warms_s(2.5))
    long = Stage("hold", "warm water", 57, 20 * HOUR)
    assert clocks_of([long], 5, True).bath_s == pytest.approx(surface_warms_s())
    assert clocks_of([replace(long, lasts_s=60)], 5, True).bath_s == 60
    assert stops(long) == ""
    # what is not intact must warm up to its middle: 4 cm thick in 51 min, 6 cm in nearly 2 h, 10 cm in 5.3 h
    assert [stops(long, intact=False, half=half) for half in (2, 3, 5)] == ["", "caution", "stop"]
    # it is raw no more, so days in the cold after it are no raw days, and a second bath warms nothing raw up
    after = clocks_of([long, Stage("hold", "fridge", 4, 3 * DAY), long], 5, True)
    assert after.raw_s == after.bath_s == pytest.approx(surface_warms_s())


@given(st.floats(-2, 95))
def test_a_hold_that_names_no_place_is_where_its_temperature_can_be(celsius):
    check_place(place_of(celsius), celsius)
    place = PLACES[place_of(celsius)]
    assert place.low_c <= celsius <= place.high_c


@pytest.mark.parametrize(
    ("place", "celsius", "field", "says"),
    [
        ("cellar", 10, "place", "fridge, cool box, bench, outside, warm water"),
        ("pot", 90, "place", "choose one"),
        ("fridge", 30, "hold_c", "between -2 and 15 °C (28 and 59 °F); 4 °C is usual"),
        ("warm water", 120, "hold_c", "between 20 and 95"),
        ("bench", math.nan, "hold_c", "on the bench".capitalize()),
    ],
)
def test_a_place_that_cannot_be_is_refused_at_its_field(place, celsius, field, says):
    with pytest.raises(BadInput) as refusal:
        check_place(place, celsius)
    assert refusal.value.argument == field
    assert says in refusal.value.sentence


def test_the_stages_of_a_piece_are_its_thaw_its_holds_and_its_time_out_before_the_fire():
    thaw, temper = Stage("thaw", "fridge", 4, DAY), Stage("temper", "bench", 21, HOUR)
    piece = Piece("lamb-leg", 2000, stages=(temper, thaw))
    layers = (
        Layer("pre-salt", SALT, 1, 8 * HOUR),
        Layer("rub", SALT, 1, 1.2 * HOUR, 21.0, place="bench"),
        Layer("spritz", WATER, 0.5),
    )
    assert [(stage.what, stage.place, stage.lasts_s) for stage in stages_of(Seasoned("A", piece, layers))] == [
        ("thaw", "fridge", DAY), ("hold", "fridge", 8 * HOUR), ("hold", "bench", 1.2 * HOUR), ("temper", "bench", HOUR),
    ]  # fmt: skip
    found = {caution.id: caution for caution in read_coat(Seasoned("A", piece, layers)).cautions}
    assert found["warm-hold"].sentence == "Raw, it is off the cold for 2 h 12 min in all."
    assert "warm-hold" not in {c.id for c in read_coat(Seasoned("A", replace(piece, stages=(thaw,)), layers)).cautions}
    for bad in ((temper,) * 3, (replace(temper, place="cellar"),), (replace(temper, lasts_s=0),),
                (replace(temper, what="hang"),)):  # fmt: skip
        with pytest.raises(BadInput) as refusal:
            read_coat(Seasoned("A", replace(piece, stages=bad), ()))
        assert refusal.value.argument.startswith("piece.stages")


def test_a_bath_in_warm_water_is_warned_of_through_the_whole_coat():
    def ids(celsius: float, hours: float, **piece) -> dict[str, str]:
        bath = Layer("marinade", BRINE, 250, hours * HOUR, celsius, place="warm water")
        read = read_coat(Seasoned("A", Piece("beef-rib-steak", 400, **piece), (bath,)), cored=False)
        return {caution.id: caution.level for caution in read.cautions}

    assert ids(52, 3)["warm-bath"] == "caution"
    assert ids(52, 5)["warm-hold"] == "stop"
    assert not {"warm-bath", "warm-hold"} & set(ids(57, 5))
    # needled, a roast 11 cm thick warms up for hours
    roast = Layer("marinade", BRINE, 250, 9 * HOUR, 57, place="warm water")
    thick = Piece("beef-round", 3000, pierced=True, endpoint_c=63.0)
    assert "warm-hold" in {c.id for c in read_coat(Seasoned("A", thick, (roast,)), cored=False).cautions}


def test_on_the_fire_what_is_not_intact_and_what_goes_there_wet_are_timed():
    wet = Layer("marinade", BRINE, 250, HOUR, after="as it is")
    shoulder = read_coat(
        Seasoned("A", Piece("pork-shoulder", 2500, pierced=True, endpoint_c=90.0), (wet,)), cored=False
    )
    ids = {caution.id: caution.level for caution in shoulder.cautions}
    assert (ids["centre-slow"], ids["surface-slow"]) == ("caution", "caution")
    dry = read_coat(Seasoned("A", Piece("pork-shoulder", 2500), (replace(wet, after="wiped"),)), cored=False)
    assert not {"centre-slow", "surface-slow"} & {caution.id for caution in dry.cautions}
    chop = read_coat(Seasoned("A", Piece("pork-chop", 250, pierced=True), (wet,)), cored=False)
    assert not {"centre-slow", "surface-slow"} & {caution.id for caution in chop.cautions}

"""Where the rules of a coat change over: at each limit, and a step to either side of it."""

import math
from dataclasses import replace
from types import SimpleNamespace

import pytest
from builders import blend
from ravska_core.blend import read_blend
from ravska_core.coat import Injection, Layer, Seasoned, bind_at, drippings_of, plain, read_coat
from ravska_core.coat.doses import melts
from ravska_core.coat.fates import CLINGS_G_CM2, RINSED, WIPED, Fate
from ravska_core.coat.layers import check_layer
from ravska_core.coat.ledger import Doubts, together
from ravska_core.coat.sites import MOST_SITES, Face, check_grid, wrong_with
from ravska_core.coat.strength import strength_of, strengthen, strongest
from ravska_core.coat.target import dose_stack
from ravska_core.coat.wetness import DRY_KG_M2, MOIST_KG_M2, SALTED_KG_M2, SALTED_S, surface_at_fire
from ravska_core.measure import SPOON_SETS
from ravska_core.meat import Piece, read_piece
from ravska_core.working import BadInput

HOUR = 3600.0
JOINT = Piece("beef-brisket", 3000)
RUB = blend(("table-salt/fine", 2, "scale"), ("black-pepper/ground", 3, "scale"))
BATH = blend(("water/liquid", 94, "scale"), ("table-salt/fine", 6, "scale"), kind="marinade")


def refused(call, *given) -> BadInput:
    with pytest.raises(BadInput) as refusal:
        call(*given)
    return refusal.value


def surface(*layers: Layer, piece: Piece = JOINT):
    stack, _ = dose_stack(Seasoned("A", piece, layers), SPOON_SETS["us"])
    return surface_at_fire(stack)


# what makes a salt uncertain


def test_doubts_add_up_where_they_come_from_one_place_and_as_squares_where_not():
    one = Doubts({"area": 0.3}, {"area": 0.4}, (0.1, 0.2))
    assert one.ends() == pytest.approx((0.3, math.hypot(0.4, 0.2)))  # nothing that moves it lies below
    assert Doubts({"area": 0.3}, {}, (-0.4, -0.2)).ends() == pytest.approx((0.5, 0.0))
    assert Doubts({}, {}, (0.0, 0.0)).ends() == (0.0, 0.0)
    other = Doubts({"area": 0.1, "stays": 0.3}, {"area": 0.2}, (-0.1, 0.1))
    both = together([one, other])
    assert both.below == pytest.approx({"area": 0.4, "stays": 0.3})
    assert both.above == pytest.approx({"area": 0.6})
    assert both.moves == pytest.approx((0.0, 0.3))


def test_of_what_is_not_on_yet_nothing_is_anywhere():
    assert Fate().whole == 0
    assert Fate(0.2, 0.3, 0.1, {"the grill": 0.4}).whole == pytest.approx(1)
    assert Fate(0.2, 0.3, 0.1, {"the grill": 0.4}).stays == pytest.approx(0.6)


# drippings


def test_drippings_are_kept_from_five_grams_on():
    def caught(mass_g: float) -> float:
        return sum(grams for _, grams in drippings_of(Seasoned("A", Piece("beef-brisket", mass_g), ())))

    piece = read_piece(Piece("beef-brisket", 1000))
    share = piece.edible.value * (1 - piece.cook_yield) / 2 / 1000  # half of what is lost drips
    assert caught(5.1 / share) == pytest.approx(5.1, rel=1e-6)
    assert refused(caught, 4.9 / share).argument == "letter"


def test_a_trace_of_salt_is_left_off_what_drips():
    def kinds(dose: float) -> list[str]:
        salted = Layer("pre-salt", plain("table-salt/fine"), dose, 24 * HOUR)
        return [grind for grind, _ in drippings_of(Seasoned("A", JOINT, (salted,)))]

    assert kinds(1.0) == ["water/liquid", "tallow/melted", "table-salt/fine"]
    bare = [grind for grind, _ in drippings_of(Seasoned("A", JOINT, ()))]
    assert bare == ["water/liquid", "tallow/melted"]
    fish = [grind for grind, _ in drippings_of(Seasoned("A", Piece("salmon-side", 1500), ()))]
    assert fish == ["water/liquid"]


# wetness


def test_a_bare_surface_is_as_wet_as_it_was_patted():
    assert surface().water.value == pytest.approx(MOIST_KG_M2 * 10)
    dry = surface(Layer("rub", RUB, 3, HOUR), piece=Piece("beef-brisket", 3000, surface="dry"))
    assert dry.water.value == pytest.approx(DRY_KG_M2 * 10)
    assert dry.says.startswith("dry")
    assert dry.dries.value == 0
    assert dry.crust_g_100cm2 == pytest.approx(3)


@pytest.mark.parametrize(("after", "kept"), [("as it is", 1.0), ("wiped", 1 - WIPED), ("rinsed", 1 - RINSED)])
def test_out_of_its_bath_it_is_as_wet_as_what_clings(after, kept):
    found = surface(Layer("rub", RUB, 3, HOUR), Layer("marinade", BATH, 1000, 8 * HOUR, after=after))
    # g/cm2 is ten kg/m2, and a hundred g/100 cm2
    assert found.water.value == pytest.approx(max(MOIST_KG_M2 * 10, CLINGS_G_CM2 * 100 * kept * 0.94), rel=1e-3)
    assert found.crust_g_100cm2 == 0  # what lay on it before went into the bath
    assert found.says.startswith({"as it is": "wet", "wiped": "wet", "rinsed": "moist"}[after])


def test_salt_ahead_draws_the_water_in_from_eight_hours_on():
    long, short = (surface(Layer("pre-salt", plain("table-salt/fine"), 1, h)) for h in (SALTED_S, SALTED_S - 1))
    assert long.water.value == pytest.approx(SALTED_KG_M2 * 10)
    assert short.water.value == pytest.approx(MOIST_KG_M2 * 10)


def test_what_weeps_out_of_the_sites_clings_as_half_a_bath_does_at_most():
    def wept(pump: float, stays: float = 0.5) -> float:
        liquid = blend(("stock/liquid", 1, "scale"), kind="injection")
        return surface(Layer("injection", liquid, pump, HOUR, stays=stays)).water.value

    area = read_piece(JOINT).coatable.value
    assert wept(0.5, 0.9) == pytest.approx(MOIST_KG_M2 * 10)  # less than lies on it anyway
    # 6 % stay of 12 %: 180 g more weep out
    most = CLINGS_G_CM2 / 2 * 100
    assert wept(6) == pytest.approx(min(most, 180 / area * 100), rel=1e-6)
    assert wept(15) == pytest.approx(most)


def test_a_binder_brings_its_water():
    mustard = surface(Layer("binder", plain("mustard-prepared/paste"), 2.4), Layer("rub", RUB, 3, HOUR))
    water = read_blend(plain("mustard-prepared/paste")).water_share
    assert mustard.water.value == pytest.approx(MOIST_KG_M2 * 10 + 2.4 * water)


# injection


def test_a_liquid_is_thinned_stirred_up_or_left_as_it_is():
    stock = read_blend(blend(("water/liquid", 95, "scale"), ("table-salt/fine", 5, "scale"), kind="injection"))
    bare = read_blend(blend(("water/liquid", 1, "scale"), kind="injection"))
    now = stock.salt.value / 100
    assert strengthen(stock, now / 2, 200) == ("water/liquid", pytest.approx(100), pytest.approx(100))
    assert strengthen(stock, now, 200) == ("water/liquid", pytest.approx(0), pytest.approx(200))
    grind, grams, of = strengthen(stock, 0.1, 200)
    assert grind == "table-salt/fine"
    assert (of * now + grams * 0.985) / 200 == pytest.approx(0.1)
    # of what holds no salt none has to be taken out
    assert strengthen(bare, 0.0, 200) == ("water/liquid", 0.0, 200)
    # by hand: 0.985 a of salt to 1 − a of water are 26.4 to 73.6, so a = 0.267
    for of in (stock, bare):
        assert strongest(of) == pytest.approx(0.985 * 0.267, abs=2e-4)


@pytest.mark.parametrize(("off", "right"), [(1.019, True), (1.021, False), (0.981, True), (0.978, False)])
def test_within_two_percent_a_liquid_is_as_salty_as_was_wanted(off, right):
    stock = read_blend(blend(("water/liquid", 95, "scale"), ("table-salt/fine", 5, "scale"), kind="injection"))
    wants = stock.salt.value * off * 200 * 0.8 / 2000
    found = strength_of(wants, stock, 2000, 200, 0.8, 8)
    assert (found.says == "The blend is as salty as that.") == right
    assert (found.add_g == 0) == right


def test_a_grid_is_laid_from_eight_millimetres_to_a_hundred_with_so_many_sites_at_most():
    face = Face(30, 20, False, 5)
    for spacing in (1.1, 10.0):
        check_grid(face, spacing, "square")
    assert refused(check_grid, face, 0.79, "square").argument == "spacing"
    assert refused(check_grid, face, 10.1, "square").argument == "spacing"
    assert refused(check_grid, face, 2.5, "round").argument == "grid"
    check_grid(Face(5, 5, False, 5), 0.8, "hexagonal")
    # 600 cm2 over 1 cm2 are as many as there may be; of triangles a site takes 0.87 of a square's room
    assert MOST_SITES == 600
    check_grid(face, 1.0, "square")
    large = Face(40, 30, False, 5)
    check_grid(large, 1.42, "square")
    assert "at least 15 mm" in refused(check_grid, large, 1.41, "square").sentence
    assert "at least 10 mm" in refused(check_grid, face, 0.99, "square").sentence
    assert "at least 11 mm" in refused(check_grid, face, 1.0, "hexagonal").sentence


def test_a_site_is_wrong_beyond_the_edge_or_on_bone_and_right_beside_it():
    face = Face(20, 10, False, 5)
    assert wrong_with(face, [(0.5, 0.5), (0.0, 1.0), (1.001, 0.5), (0.5, -0.001)]) == ("", "", "edge", "edge")
    disc = Face(10, 10, True, 5)
    assert wrong_with(disc, [(0.5, 0.001), (0.0, 0.0)]) == ("", "edge")


def test_a_needle_of_no_bore_or_stroke_is_refused():
    def read(**plan):
        liquid = blend(("stock/liquid", 1, "scale"), kind="injection")
        return read_coat(Seasoned("A", JOINT, (Layer("injection", liquid, 10, HOUR, injection=Injection(**plan)),)))

    for field, low, high in (("bore_mm", 0.5, 8), ("syringe_ml", 5, 1000), ("stroke_ml", 0.5, 50)):
        for fine in (low, high):
            assert read(**{field: fine}).layers
        for wrong in (low * 0.99, high * 1.01):
            said = refused(lambda field=field, wrong=wrong: read(**{field: wrong}))
            assert said.argument == f"layers.0.injection.{field.split('_')[0]}"


# binders


def test_another_binder_goes_under_the_rub_that_lies_on_the_surface():
    rub, bath = Layer("rub", RUB, 3, HOUR), Layer("marinade", BATH, 1000)
    binder = Layer("binder", plain("mustard-prepared/paste"), 2)
    assert bind_at([rub]) == ([], 0)
    assert bind_at([binder, rub]) == ([0], 0)
    assert bind_at([rub, bath, rub]) == ([], 2)
    assert bind_at([binder, rub, bath, binder, rub]) == ([3], 3)
    assert refused(bind_at, [rub, bath]).argument == "layers"


# layers


@pytest.mark.parametrize(
    ("field", "fine", "wrong"),
    [
        ("hold_s", (60, 7 * 86_400), (59, 7 * 86_400 + 1)),
        ("stays", (0, 1), (-0.01, 1.01)),
        ("eaten", (0, 1), (-0.01, 1.01)),
        ("times", (1, 40), (0, 41)),
        ("dose", (0.2, 40), (0.19, 40.1)),
    ],
)
def test_a_layer_is_one_that_can_be_put_on(field, fine, wrong):
    rub = Layer("rub", RUB, 3, HOUR)
    for value in fine:
        assert check_layer(replace(rub, **{field: value})).key == "rub"
    for value in wrong:
        assert refused(check_layer, replace(rub, **{field: value})).argument == field


def test_of_an_injection_a_twentieth_stays_at_least():
    liquid = blend(("stock/liquid", 1, "scale"), kind="injection")

    def read(stays: float):
        return read_coat(Seasoned("A", JOINT, (Layer("injection", liquid, 5, HOUR, stays=stays),)), cored=False)

    assert read(0.05).layers
    assert refused(read, 0.049).argument == "layers.0.stays"


def test_a_coat_is_mostly_fat_above_two_fifths():
    assert [melts(SimpleNamespace(fat_share=share)) for share in (0.39, 0.4, 0.41)] == [False, False, True]


def test_what_finds_no_room_on_the_surface_does_not_stick():
    full = Layer("rub", RUB, 40, HOUR)
    first, second = read_coat(Seasoned("A", JOINT, (full, full)), cored=False).layers
    assert 0 < first.fate.lost["did not stick"] < 1
    assert second.fate.lost["did not stick"] == pytest.approx(1)
    assert second.salt.value == 0


def test_drippings_weigh_what_they_are_and_hold_no_salt_of_their_own():
    found = read_coat(Seasoned("A", JOINT, (Layer("rub", RUB, 3, HOUR), Layer("drippings", None, 1))), cored=False)
    piece = read_piece(JOINT)
    assert found.layers[1].dose_g == pytest.approx(piece.edible.value * (1 - piece.cook_yield) / 2)
    stack, _ = dose_stack(Seasoned("A", JOINT, (Layer("drippings", None, 1),)), SPOON_SETS["us"])
    assert (stack.puts[0].dose_g, stack.puts[0].salt_g) == (0, 0)


def test_what_is_left_of_a_bath_goes_into_the_pot_with_its_water():
    pot = blend(("water/liquid", 1, "scale"), kind="cooking liquid")
    mass, dose = 500.0, 600.0
    bath = Layer("marinade", BATH, dose, 60, after="wiped", into_pot=True)
    piece = Piece("beef-shin", mass)
    found = read_coat(Seasoned("A", piece, (bath, Layer("cooking liquid", pot, 200, 3 * HOUR, 95.0))), cored=False)
    # the same liquid made beforehand: what does not cling of 600 ml/kg of bath, and 200 ml/kg of water
    grams = read_blend(BATH).density_g_ml * dose * mass / 1000 - CLINGS_G_CM2 * read_piece(piece).open_cm2
    whole = blend(
        ("water/liquid", round(grams * 0.94 + 100, 3), "scale"), ("table-salt/fine", round(grams * 0.06, 3), "scale"),
        kind="cooking liquid",
    )  # fmt: skip
    liquid = (grams + 100) / read_blend(whole).density_g_ml / mass * 1000
    made = read_coat(Seasoned("A", piece, (Layer("cooking liquid", whole, liquid, 3 * HOUR, 95.0),)), cored=False)
    # half of what clung was not wiped off: the little that differs
    assert found.salt.value == pytest.approx(made.salt.value, rel=0.06)

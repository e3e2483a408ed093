"""Where salt goes: bath, wash, fat that melts, drippings, one solver for all targets. Science.md sections 4 and 5."""

import dataclasses

import numpy as np
import pytest
from builders import blend
from crank import limited_bath_uptake
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.blend import Blend, read_blend
from ravska_core.coat import (
    ADHESION_CEILING,
    LAYER_KINDS,
    Layer,
    Seasoned,
    brought_to,
    common_salt,
    give_way,
    plain,
    read_coat,
    usual_coat,
)
from ravska_core.coat.fates import Dosed, follow
from ravska_core.coat.reading import CoatReading
from ravska_core.coat.stack import Stack
from ravska_core.coat.target import dose_stack
from ravska_core.diffusion import Column, bath_depth_cm, reach_cm, soak
from ravska_core.measure import SPOON_SETS
from ravska_core.meat import Piece, read_piece
from ravska_core.meat.pieces import Measures
from ravska_core.working import BadInput
from scipy.integrate import solve_ivp

HOUR = 3600.0
D = 2.5e-6  # cm2/s at 4 C
SALT = plain("table-salt/fine")
RUB = blend(("table-salt/fine", 1, "spoon"), ("black-pepper/ground", 1, "spoon"))
PEPPER = plain("black-pepper/ground")
BATH = blend(("buttermilk/liquid", 4, "spoon"), ("table-salt/fine", "1/4", "spoon"), kind="marinade", batch_g=500)
SHOULDER = Piece("pork-shoulder", 2500)


def read(*layers: Layer, piece: Piece = SHOULDER, target: float | None = None) -> CoatReading:
    return read_coat(Seasoned("A", piece, layers, target), cored=False)


# science.md section 5: a sheet of half thickness 0.8 cm, meat water 0.74, 4 C, 250 ml/kg, nothing clinging, 8 h
@pytest.mark.parametrize(
    ("g_ml", "water", "salt", "alpha", "balance", "after"),
    [
        (0.985, 0.391, 4 / 94, 0.130, 0.93, 0.83),  # oil 50, lemon 40, salt 4
        (1.12, 0.306, 0.0628, 0.116, 1.58, 1.43),  # soy 45, sugar 35, oil 20
    ],
)
def test_salt_of_a_bath_lives_in_the_water_of_both_sides(g_ml, water, salt, alpha, balance, after):
    density = 1.0
    column = Column(0.8, 0.0, density)
    bath = 0.25 * g_ml * 0.8 * density  # g over 1 cm2 that has 0.8 g of meat below it
    depth = bath_depth_cm(column, bath, water, 0.74)
    assert depth / 0.8 == pytest.approx(alpha, abs=0.001)
    cells, left = soak(column, np.zeros((len(column.middles_cm), 1)), np.array([1.0]), D * 8 * HOUR, depth)
    in_meat = bath * salt / (0.8 * density) * 100  # all of it, % of the meat
    assert in_meat * alpha / (1 + alpha) / alpha == pytest.approx(balance, abs=0.01)
    assert in_meat * cells.sum() == pytest.approx(after, abs=0.01)
    # Crank's limited bath with the same ratio, independently
    series = limited_bath_uptake(D * 8 * HOUR / 0.64, alpha) / (1 + alpha)
    assert cells.sum() == pytest.approx(series, rel=0.01)
    assert cells.sum() + left.sum() == pytest.approx(1, abs=1e-9)


def test_an_oily_bath_salts_more_than_its_share_of_salt_says():
    strips = Piece("beef-strips", 1000)
    watery = blend(("water/liquid", 90, "scale"), ("table-salt/fine", 4, "scale"), kind="marinade")
    oily = blend(
        ("olive-oil/liquid", 50, "scale"), ("lemon-juice/liquid", 40, "scale"), ("table-salt/fine", 4, "scale"),
        kind="marinade",
    )  # fmt: skip
    long = {"hold_s": 5 * 24 * HOUR, "after": "rinsed"}
    thin, thick = (read(Layer("marinade", of, 3000, **long), piece=strips) for of in (watery, oily))
    # in balance with much of it: 0.745 / water share times the bath's own share
    for found, of in ((thin, watery), (thick, oily)):
        reading = read_blend(of)
        grams = 3 * reading.density_g_ml * 1000
        alpha = grams * reading.water_share / 745
        share = reading.salt.value * grams / 1000 / (1 + alpha)
        assert found.salt.value == pytest.approx(share, rel=0.02)
    assert thick.salt.value / thin.salt.value > 1.8


def test_the_pot_too_exchanges_by_its_water():
    stock = blend(("stock/liquid", 19, "scale"), ("table-salt/fine", 1, "scale"), kind="cooking liquid")
    fat = blend(
        ("stock/liquid", 9, "scale"), ("table-salt/fine", 1, "scale"), ("lard/soft", 10, "scale"), kind="cooking liquid"
    )
    lean, rich = (
        read(Layer("cooking liquid", of, 300, 3 * HOUR, 95.0), piece=Piece("beef-shin", 500)).layers[0].fate.meat
        for of in (stock, fat)
    )
    # the same grams of salt in half the water: more of them go in
    assert rich > 1.4 * lean


def test_a_wash_takes_only_what_has_neither_dissolved_nor_gone_in():
    def lost(piece: Piece, salted_h: float) -> float:
        salted = Layer("pre-salt", SALT, 1.0, salted_h * HOUR)
        found = read(salted, Layer("marinade", plain("water/liquid"), 3000, 60, after="rinsed"), piece=piece)
        return sum(found.layers[0].fate.lost.values()) * 100

    # science.md section 5: 12 x 3 x 1 cm, salted for 24 h, then 60 s in much water, lose 3.9 to 4.1 %
    strips = Piece("beef-strips", 500)
    assert lost(strips, 24) == pytest.approx(3.9, abs=0.15)
    # salted a minute ago much of it still lies there as crystals
    assert lost(strips, 1 / 60) > 45
    assert lost(strips, 1 / 60) > lost(strips, 1 / 2) > lost(strips, 2) > lost(strips, 24)


SHEET = Column(2.0, 0.0, 1.0)


def dosed(kind: str, hold_s: float, **of) -> Dosed:
    more = {key: of.pop(key) for key in ("after", "eaten", "into_pot") if key in of}
    return Dosed(Layer(kind, SALT, 1.0, hold_s, **more), 0.01, **of)


@pytest.mark.parametrize(("half_cm", "exponent"), [(0.05, 0.0), (0.8, 0.0), (3.0, 1.0), (6.5, 1.7)])
def test_the_column_is_fine_at_its_surface_and_keeps_its_volume(half_cm, exponent):
    column = Column(half_cm, exponent, 1.06)
    widths = np.diff(column.edges_cm)
    # 12 um at the surface, or as fine as evenly cut where the piece is thinner than that needs
    assert widths[0] == pytest.approx(min(0.0012, half_cm / 66), rel=0.01)
    assert np.all(np.diff(widths) > -1e-12)
    assert column.edges_cm[-1] == pytest.approx(half_cm)
    # under 1 cm2 of a sheet lies R, of a log R / 2, of a ball R / 3 (m = 0, 1, 2)
    assert column.mass_g_cm2 == pytest.approx(1.06 * half_cm / (exponent + 1), rel=1e-6)
    assert np.all(np.diff(column.middles_cm) > 0)


def test_crystals_are_what_is_above_a_saturated_brine_in_the_meats_own_water():
    # 26.4 g of salt in 100 g of brine: 1 g of meat, 0.7 of it water, dissolves 0.251 g
    column = Column(1.0, 0.0, 1.0)
    most = 0.7 * 26.4 / 73.6 * column.cells_g
    assert column.lying(2 * most, 0.7) == pytest.approx(0.5)
    assert column.lying(0.99 * most, 0.7) == pytest.approx(0)
    assert column.lying(0 * most, 0.7) == pytest.approx(0)


def test_a_stack_is_told_at_any_time_of_its_holds():
    stack = [dosed("rub", 2 * HOUR), dosed("marinade", 8 * HOUR, bath_g_cm2=5.0, after="rinsed"), dosed("glaze", 0)]

    def lost(hours: float, at: int) -> dict[str, float]:
        return follow(stack, SHEET, 0.74, until_s=hours * HOUR).fates[at].lost

    # the bath has not begun, it is in it, it is out of it; the glaze is of the fire, and not on at any of them
    assert follow(stack, SHEET, 0.74, until_s=HOUR).fates[1].whole == 0
    assert set(lost(5, 1)) == {"in the bath"}
    assert set(lost(10, 1)) == {"left in the bath", "wiped or rinsed off"}
    assert all(follow(stack, SHEET, 0.74, until_s=h * HOUR).fates[2].whole == 0 for h in (1, 5, 10, 30))
    # rinsed in the bath the rub gives up more the longer it lies there, and none of it before
    assert "in the bath" not in lost(1, 0)
    assert 0 < lost(3, 0)["in the bath"] < lost(6, 0)["in the bath"]
    # a first layer that is not held is on at once
    assert follow([dosed("binder", 0), *stack], SHEET, 0.74, until_s=0.0).fates[0].whole == pytest.approx(1)
    whole = follow(stack, SHEET, 0.74)
    assert whole.time_s == 10 * HOUR
    assert whole.fates[2].whole == pytest.approx(1)


@pytest.mark.parametrize(("after", "kept"), [("as it is", 1.0), ("wiped", 0.5), ("rinsed", 0.0)])
def test_of_a_bath_5_g_on_100_cm2_cling_and_of_a_pot_none(after, kept):
    # 0.05 of 5 g/cm2 cling; in a tenth of a second next to nothing goes in
    (bath,) = follow([dosed("marinade", 0.1, bath_g_cm2=5.0, after=after)], SHEET, 0.74).fates
    assert bath.stays == pytest.approx(0.01 * kept, abs=1e-4)
    assert bath.lost["left in the bath"] == pytest.approx(0.99, abs=1e-3)
    (thin,) = follow([dosed("marinade", 0.1, bath_g_cm2=0.02, after=after)], SHEET, 0.74).fates
    assert thin.lost.get("left in the bath", 0.0) == 0
    (pot,) = follow([dosed("cooking liquid", 0.1, bath_g_cm2=5.0, after=after, eaten=0.25)], SHEET, 0.74).fates
    assert pot.stays == pytest.approx(0.25, abs=1e-3)
    assert pot.lost == {"left in the liquid": pytest.approx(0.75, abs=1e-3)}
    # on skin all over nothing goes in, but it clings
    (covered,) = follow([dosed("marinade", HOUR, bath_g_cm2=5.0, after=after)], None, 0.74).fates
    assert (covered.meat, covered.surface) == (0, pytest.approx(0.01 * kept))


def test_a_sheet_in_much_water_gives_up_what_diffusion_takes_in_a_minute():
    # M lost / M = 2 sqrt(D t / pi) / l of an evenly salted sheet: 2.76 % in 60 s at 4 C, l 0.5 cm
    column = Column(0.5, 0.0, 1.0)
    even = (column.cells_g / column.mass_g_cm2)[:, None]
    cells, _ = soak(column, even, np.zeros(1), D * 60, 1e4)
    assert (1 - cells.sum()) * 100 == pytest.approx(2.76, abs=0.02)


def test_the_soak_agrees_with_an_independent_solver():
    column = Column(1.2, 0.6, 0.98)
    depth, dt = 0.31, D * 6 * HOUR
    cells, bath = soak(column, np.zeros((len(column.middles_cm), 1)), np.ones(1), dt, depth)
    # method of lines on a fine even grid of its own
    n = 600
    edges = np.linspace(0, 1.2, n + 1)
    area = (1 - edges / 1.2) ** 0.6
    volume = 1.2 / 1.6 * ((1 - edges[:-1] / 1.2) ** 1.6 - (1 - edges[1:] / 1.2) ** 1.6)
    width = 1.2 / n

    def moves(_, m):
        c = np.concatenate(([m[0] / depth], m[1:] / volume))
        flux = np.concatenate(([(c[0] - c[1]) * area[0] / (width / 2)], (c[1:-1] - c[2:]) * area[1:-1] / width))
        return np.concatenate(([-flux[0]], flux[:-1] - flux[1:], [flux[-1]]))

    start = np.zeros(n + 1)
    start[0] = 1.0
    found = solve_ivp(moves, (0, dt), start, method="BDF", rtol=1e-7, atol=1e-10).y[:, -1]
    assert bath[0] == pytest.approx(found[0], rel=0.003)
    assert cells.sum() == pytest.approx(found[1:].sum(), rel=0.003)


def test_what_is_left_of_a_bath_becomes_the_pots_liquid_counted_once():
    salted = Layer("pre-salt", SALT, 0.5, HOUR)
    bath = Layer("marinade", BATH, 250, 8 * HOUR, into_pot=True)
    pot = Layer("cooking liquid", plain("water/liquid"), 100, HOUR, 90.0, eaten=1.0)
    poured = read(salted, bath, pot)
    thrown = read(salted, dataclasses.replace(bath, into_pot=False), pot)
    assert poured.salt.value > 1.5 * thrown.salt.value
    for layer in poured.layers:
        assert layer.fate.whole == pytest.approx(1, abs=1e-9)
    # all of it is eaten but for what was wiped off, the salt the bath took from the meat too
    for layer, fate in ((salted, poured.layers[0].fate), (bath, poured.layers[1].fate)):
        assert fate.stays == pytest.approx(1 - fate.lost["wiped or rinsed off"], abs=1e-9), layer.kind
    assert "left in the bath" not in poured.layers[1].fate.lost
    # a sauce of it, boiled: the same salt, as it is eaten beside the meat
    sauce = read(salted, dataclasses.replace(bath, into_pot=False, eaten=1.0))
    assert sauce.salt.value == pytest.approx(poured.salt.value - poured.layers[2].salt.value, rel=0.02)
    with pytest.raises(BadInput, match="No pot comes after this") as refusal:
        read(bath, salted)
    assert refusal.value.argument == "layers.0.after"


BUTTER = blend(("lard/soft", 8, "scale"), ("table-salt/fine", 1, "scale"), ("thyme/leaf", 1, "scale"), kind="paste")


def test_of_a_coat_of_fat_only_what_clings_is_eaten():
    ten, three = (read(Layer("paste", BUTTER, dose, HOUR)).layers[0] for dose in (10, 3))
    # by hand: a tenth falls off, 3 of 10 g on 100 cm2 still cling
    assert ten.fate.stays == pytest.approx(0.9 * 0.3)
    assert ten.fate.lost["melted off"] == pytest.approx(0.9 * 0.7)
    assert three.fate.stays == pytest.approx(0.9)
    weighed = read(Layer("paste", BUTTER, 10, HOUR, stays=0.55)).layers[0]
    assert weighed.fate.stays == pytest.approx(0.55)  # one's own share by weighing goes first
    mustard = blend(("mustard-prepared/paste", 8, "scale"), ("table-salt/fine", 1, "scale"), kind="paste")
    assert read(Layer("paste", mustard, 10, HOUR)).layers[0].fate.stays == pytest.approx(0.9)
    # and nobody knows well how much clings: 30 % of it
    assert ten.salt.high / ten.salt.value - 1 > 0.3


@pytest.mark.parametrize("eaten", [1, 30, 50, 100])
def test_drippings_that_are_eaten_never_leave_a_piece_less_salty(eaten):
    ahead = Layer("pre-salt", SALT, 1.2, 16 * HOUR)
    without = read(ahead)
    found = read(ahead, Layer("drippings", None, eaten))
    assert without.salt.value == pytest.approx(1.2)
    assert found.salt.value == pytest.approx(without.salt.value)
    # by hand: 40 % loss, half of it drips, over 74.5 % water: 26.8 % of the salt, the eaten share of it on the plate
    assert found.layers[0].fate.plate == pytest.approx(0.4 * 0.5 / 0.745 * eaten / 100)


def test_a_rest_that_does_not_stick_is_not_prescribed_and_what_would_do_it_is_said():
    found = read(Layer("rub", RUB, None, HOUR), target=1.5)
    assert found.layers[0].dose_setting == pytest.approx(6)  # all that sticks to a moist surface, not 9.9
    assert found.salt.value == pytest.approx(1.256, abs=0.01)
    note = found.layers[0].note
    assert note.startswith("It comes to 1.26 %, 0.24 points short of 1.5 %: no more than 6 g on 100 cm² sticks")
    assert note.endswith("Oil under it, 0.24 % salt ahead by weight or an injection would do it.")
    # and each of them does
    oil = Layer("binder", plain("vegetable-oil/liquid"), 1.5)
    assert read(oil, Layer("rub", RUB, None, HOUR), target=1.5).salt.value == pytest.approx(1.5, abs=1e-6)
    ahead = Layer("pre-salt", SALT, 0.245, HOUR)
    assert read(ahead, Layer("rub", RUB, None, HOUR), target=1.5).salt.value == pytest.approx(1.5, abs=1e-6)
    far = read(Layer("rub", RUB, None, HOUR), target=2.4).layers[0].note
    assert "A mustard binder under it" in far
    assert "binder" not in read(Layer("rub", RUB, None, HOUR), target=4.0).layers[0].note


def test_the_rest_and_meet_are_one_solver():
    layers = (Layer("marinade", BATH, 250, 8 * HOUR), Layer("rub", RUB, None, HOUR))
    rest = read(*layers, target=1.3)
    assert rest.salt.value == pytest.approx(1.3, abs=1e-6)
    dosed = (layers[0], dataclasses.replace(layers[1], dose=2.0))
    given, says = give_way(Seasoned("A", SHOULDER, dosed, 1.3), 1)
    assert given.dose == pytest.approx(rest.layers[1].dose_setting, rel=0.01)
    assert says == ""
    most, says = give_way(Seasoned("A", SHOULDER, (Layer("rub", RUB, 5, HOUR),), 1.5), 0)
    assert most.dose == 6
    assert "0.24 points short of 1.5 %" in says


def test_a_rest_that_others_leave_nothing_of_says_what_they_hold():
    ahead = (Layer("pre-salt", SALT, 1.0, HOUR), Layer("rub", RUB, 3, HOUR))
    found = read(*ahead, Layer("rub", RUB, None, HOUR), target=1.2)
    others = sum(layer.salt.value for layer in found.layers[:2])
    assert found.layers[2].dose_g == 0
    assert f"The other layers already hold {others:.2f} %, more than the 1.2 % wanted" in found.layers[2].note
    # a target at what the others hold at least is met, not refused; below it, it is refused with what they hold
    with pytest.raises(
        BadInput, match=r"At its least this layer and the others already hold 1\.\d\d %, more than 0\.9"
    ):
        give_way(Seasoned("A", SHOULDER, ahead, 0.9), 1)


def test_a_bath_gives_way_by_its_hold_and_says_what_it_cannot():
    arm = Seasoned("A", SHOULDER, (Layer("marinade", BATH, 250, 8 * HOUR),), 0.3)
    given, says = give_way(arm, 0)
    assert says == ""
    assert read(given).salt.value == pytest.approx(0.3, abs=0.005)
    with pytest.raises(BadInput, match="Between 1 min and 7 days this bath brings 0"):
        give_way(dataclasses.replace(arm, target_percent=3.0), 0)
    # plain water takes salt away: for more of it, it is held shorter
    salted = (Layer("pre-salt", SALT, 1.5, 12 * HOUR), Layer("marinade", plain("water/liquid"), 3000, HOUR))
    long, _ = give_way(Seasoned("A", SHOULDER, salted, 1.0), 1)
    short, _ = give_way(Seasoned("A", SHOULDER, salted, 1.3), 1)
    assert short.hold_s < long.hold_s
    assert read(salted[0], short).salt.value == pytest.approx(1.3, abs=0.02)


@given(
    st.floats(0.1, 1.0), st.floats(0.3, 2.6), st.sampled_from(["rub", "pre-salt", "finishing salt", "paste"]),
    st.booleans(),
)  # fmt: skip
def test_a_rest_meets_its_target_or_says_how_far_it_misses(ahead, target, kind, bathed):
    bath = (Layer("marinade", BATH, 250, 4 * HOUR),) if bathed else ()
    of = SALT if kind in ("pre-salt", "finishing salt") else RUB
    found = read(Layer("pre-salt", SALT, ahead, 2 * HOUR), *bath, Layer(kind, of, None, HOUR), target=target)
    note = found.layers[-1].note
    if abs(found.salt.value - target) <= 0.005:
        assert "short of" not in note
    elif found.salt.value < target:
        assert f"{target - found.salt.value:.2f} points short of" in note
    else:
        assert found.layers[-1].dose_g == 0
        assert "already hold" in note


def test_two_arms_are_evened_towards_what_is_wanted_and_never_to_a_mistake():
    assert common_salt((0.61, 3.17), ()) == 1.8  # the usual zone's end, not 3.17
    assert common_salt((0.3, 0.6), ()) == 1.2
    assert common_salt((1.3, 0.6), ()) == 1.3
    assert common_salt((1.3, 1.6), ()) == 1.6
    assert common_salt((1.3, 3.0), (1.5,)) == 1.5
    salting = Layer("pre-salt", SALT, 0.01, HOUR / 2)
    salty = Seasoned("A", SHOULDER, (Layer("pre-salt", SALT, 2.7, HOUR), Layer("rub", RUB, 3, HOUR)))
    flat = Seasoned("B", SHOULDER, (Layer("marinade", BATH, 250, 4 * HOUR),))
    goal = common_salt((read(*salty.layers).salt.value, read(*flat.layers).salt.value), ())
    for arm in (salty, flat):
        evened = brought_to(arm, goal, salting, 1)
        assert read(*evened.layers).salt.value == pytest.approx(goal, abs=0.01)
    assert brought_to(salty, goal, salting, 0).layers[0].dose < 2.7  # the saltier one is lowered
    assert brought_to(flat, goal, salting, 1).layers[1].kind == "pre-salt"
    with pytest.raises(BadInput, match=r"cannot be lowered to 0\.30 % by one layer alone"):
        brought_to(salty, 0.3, salting, 0)


@pytest.mark.parametrize(
    ("cut", "mass_g"),
    [("lamb-cubes", 1000), ("beef-rib-steak", 400), ("pork-ribs", 1300), ("chicken-whole", 1800),
     ("quail-whole", 180), ("turkey-whole", 6000), ("beef-strips", 600)],
)  # fmt: skip
def test_a_default_coat_begins_where_the_usual_zone_is_met(cut, mass_g):
    half = blend(("black-pepper/ground", 2, "spoon"), ("kosher-dense/flake", 1, "spoon"))
    arm = Seasoned("A", Piece(cut, mass_g), (Layer("rub", half, 5, HOUR),))
    assert read(*arm.layers, piece=arm.piece).salt.value > 1.8
    dose = usual_coat(arm, 0)
    found = read(Layer("rub", half, dose, HOUR), piece=arm.piece)
    assert 1.2 <= found.salt.value <= 1.8
    if cut == "chicken-whole":
        assert 35 <= found.layers[0].dose_g <= 60
    # with salt ahead it is less, and on a thick joint it is the standard coat
    ahead = Layer("pre-salt", SALT, 0.7, HOUR)
    assert usual_coat(dataclasses.replace(arm, layers=(ahead, *arm.layers)), 1) < dose
    assert usual_coat(dataclasses.replace(arm, piece=SHOULDER), 0) == 5
    # a layer that takes the rest leaves room, it does not take it
    rest = Layer("pre-salt", SALT, None, HOUR)
    assert usual_coat(dataclasses.replace(arm, layers=(rest, *arm.layers), target_percent=1.5), 1) == dose


def test_a_bird_has_skin_and_a_breast():
    bird = Piece("chicken-whole", 1800)
    found = read_piece(bird)
    # Mitchell at live weight, dressed / 0.72 (from memory): 8.19 x 2500^0.705
    assert found.solid.area_cm2 == pytest.approx(8.19 * 2500**0.705, rel=1e-6) == pytest.approx(2036, abs=2)
    assert any("dressed / 0.72 = 2500 g" in step.formula for step in found.coatable.steps)
    assert read_piece(dataclasses.replace(bird, measures=Measures(19, 14, 12))).solid.area_cm2 == pytest.approx(
        2036, abs=2
    )
    # coated on its skin as it comes; a fifth is bare meat at its cuts
    assert (found.faces[0].name, found.faces[0].state) == ("skin", "coated")
    assert found.coatable.value == pytest.approx(2036, abs=2)
    assert found.open_cm2 == pytest.approx(0.2 * 2036, abs=2)
    # its breast is 3.5 cm thick, not an even sheet of 8 mm
    assert found.meat_cm == pytest.approx(0.28 * found.solid.thickness_cm) == pytest.approx(3.46, abs=0.05)
    open_cm2 = {
        state: read_piece(dataclasses.replace(bird, faces={"skin": state})).open_cm2
        for state in ("bare", "coated", "under", "off")
    }
    assert open_cm2["bare"] == open_cm2["coated"] == pytest.approx(0.2 * 2036, abs=2)
    assert open_cm2["under"] == open_cm2["off"] == pytest.approx(2036, abs=2)
    under, on_top = (
        read(Layer("rub", RUB, 2, 12 * HOUR), piece=dataclasses.replace(bird, faces={"skin": state})).layers[0].fate
        for state in ("under", "coated")
    )
    assert under.meat > 0.85
    assert on_top.surface > 0.7
    with pytest.raises(BadInput, match="Only skin can be lifted"):
        read_piece(Piece("lamb-shoulder", 2000, faces={"fat cap": "under"}))


def test_what_goes_into_the_meat_is_what_the_ledger_counts():
    found = read(Layer("marinade", BATH, 250, 16 * HOUR, after="rinsed"))
    grams = found.salt.value / 100 * found.piece.edible.value
    assert f"{grams:.1f} g go into the meat" in found.layers[0].says


def test_salt_reaches_from_the_first_layer_with_salt_on():
    pepper, rub = Layer("rub", PEPPER, 2, 20 * HOUR), Layer("rub", RUB, 3, 2 * HOUR)
    found = read_coat(Seasoned("A", SHOULDER, (pepper, rub)))
    assert found.layers[0].reach is None
    assert found.sample.reach.value == pytest.approx(reach_cm(D * 2 * HOUR) * 10) == pytest.approx(2.68, abs=0.01)
    assert found.sample.says[0].startswith("In 2 h salt reaches 2.7 mm")
    early = read_coat(Seasoned("A", SHOULDER, (pepper, rub)), at_s=20.5 * HOUR)
    assert early.sample.reach.value == pytest.approx(reach_cm(D * 0.5 * HOUR) * 10)


def test_a_coat_split_in_two_has_the_same_band_as_the_whole():
    whole = read(Layer("rub", RUB, 4, HOUR))
    split = read(Layer("rub", RUB, 1.5, HOUR), Layer("rub", RUB, 2.5, HOUR))
    assert split.salt.value == pytest.approx(whole.salt.value)
    assert split.salt.low == pytest.approx(whole.salt.low, rel=1e-3)
    assert split.salt.high == pytest.approx(whole.salt.high, rel=1e-3)
    # by hand: 15 % of surface, 10 % of what stays and the blend's own, independent of each other
    own = read_blend(RUB).salt
    up = np.hypot(np.hypot(0.15, 0.1), own.high / own.value - 1)
    assert whole.salt.high / whole.salt.value - 1 == pytest.approx(up, rel=1e-3)
    other = read(Layer("rub", RUB, 2, HOUR), Layer("pre-salt", SALT, 0.5, HOUR))
    assert other.salt.high - other.salt.value < sum(layer.salt.high - layer.salt.value for layer in other.layers)


def test_at_the_limit_of_what_sticks_its_own_doubt_is_in_the_band():
    below, at, over = (read(Layer("rub", RUB, dose, HOUR)).salt for dose in (4, 6, 10))
    assert at.low / at.value < below.low / below.value
    assert over.value == pytest.approx(at.value)
    # 25 % either way on what sticks (estimate), with 15 % of surface, 10 % of what stays and the blend's own
    own = read_blend(RUB).salt
    down = np.hypot(np.hypot(0.15, 0.1), np.hypot(1 - own.low / own.value, 0.25))
    assert 1 - over.low / over.value == pytest.approx(down, rel=1e-3)
    up = np.hypot(np.hypot(0.15, 0.1), np.hypot(own.high / own.value - 1, 0.25))
    assert over.high / over.value - 1 == pytest.approx(up, rel=1e-3)


KINDS = [kind for kind in LAYER_KINDS if kind not in ("drippings",)]
OF = {"pre-salt": SALT, "rub": RUB, "paste": BUTTER, "finishing salt": SALT, "binder": plain("mustard-prepared/paste")}


@st.composite
def stacks(draw) -> tuple[Layer, ...]:
    kinds = draw(st.lists(st.sampled_from(KINDS), min_size=1, max_size=5))
    order = ["before", "during", "after"]
    found = []
    for key in sorted(kinds, key=lambda k: order.index(LAYER_KINDS[k].when)):
        kind = LAYER_KINDS[key]
        dose = draw(st.floats(kind.low, min(kind.high, kind.usual * 3)))
        celsius = 90.0 if key == "cooking liquid" else 4.0
        after = draw(st.sampled_from(["wiped", "rinsed", "as it is"]))
        found.append(Layer(key, OF.get(key, BATH), dose, draw(st.floats(60, 30 * HOUR)), celsius, after=after))
    return tuple(found)


@given(stacks(), st.sampled_from(["pork-shoulder", "beef-rib-steak", "duck-leg", "chicken-whole"]))
def test_any_stack_keeps_its_mass_its_order_and_its_bands(layers, cut):
    found = read(*layers, piece=Piece(cut, 1500))
    assert [layer.kind for layer in found.layers] == [layer.kind for layer in layers]
    so_far = 0.0
    for layer in found.layers:
        assert layer.fate.whole == pytest.approx(1, abs=1e-9)
        assert min(layer.fate.meat, layer.fate.surface, layer.fate.plate) >= 0
        assert layer.salt.low <= layer.salt.value * (1 + 1e-9)
        assert layer.salt.high >= layer.salt.value * (1 - 1e-9)
        so_far += layer.salt.value
        assert layer.so_far == pytest.approx(so_far)
    assert found.salt.low <= found.salt.value * (1 + 1e-9) <= found.salt.high * (1 + 2e-9)
    # parts of a band never add up to more than if all were wrong in one direction
    assert (
        found.salt.high - found.salt.value <= sum(x.salt.high - x.salt.value for x in found.layers) * (1 + 1e-9) + 1e-9
    )


@given(st.floats(0.2, 5.9), st.floats(0.05, 0.95))
def test_a_coat_in_two_parts_is_the_coat(dose, share):
    whole, parts = Layer("rub", RUB, dose, HOUR), (dose * share, dose * (1 - share))
    if min(parts) < 0.2:
        return
    split = read(*(Layer("rub", RUB, part, HOUR) for part in parts))
    one = read(whole)
    assert split.salt.value == pytest.approx(one.salt.value)
    assert split.salt.high == pytest.approx(one.salt.high, rel=2e-3)


def test_more_of_a_surface_holds_more_and_a_full_one_no_more():
    for surface, most in ADHESION_CEILING.items():
        piece = dataclasses.replace(SHOULDER, surface="dry" if surface == "dry" else "moist")
        under = {"oil": "vegetable-oil/liquid", "mustard": "mustard-prepared/paste"}.get(surface)
        below = (Layer("binder", plain(under), 1.5),) if under else ()
        full = [read(*below, Layer("rub", PEPPER, dose, HOUR), piece=piece).layers[-1] for dose in (most, most + 3)]
        assert [layer.fate.lost.get("did not stick", 0) for layer in full] == [0, pytest.approx(3 / (most + 3))]


def test_a_blend_that_is_mostly_fat_is_followed_by_its_own_shares():
    # the column of a moment holds what is in the meat and lies on it, nothing else
    stack, _ = dose_stack(Seasoned("A", SHOULDER, (Layer("rub", RUB, 4, 0.2 * HOUR),)), SPOON_SETS["us"])
    assert isinstance(stack, Stack)
    moment = stack.follow()
    assert moment.cells.sum() == pytest.approx(moment.fates[0].meat + moment.fates[0].surface)
    assert 0 < moment.fates[0].surface < 0.9
    bare = follow([Dosed(Layer("rub", RUB, 4, HOUR), salt_g_cm2=0.02)], None, 0.745)
    assert (bare.fates[0].meat, bare.fates[0].surface) == (0, pytest.approx(0.9))
    assert isinstance(RUB, Blend)

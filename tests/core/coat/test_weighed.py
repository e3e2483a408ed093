"""What was weighed goes before what is reckoned: baths, what melts off, what is left of a bath for the pot.

Every figure here is worked out by hand beside its check, from the equations of `bath_weighed` and `weigh_back`.
"""

import dataclasses

import pytest
from builders import blend
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.coat import (
    BathWeighed,
    CoatReading,
    Layer,
    Portion,
    Seasoned,
    WeighBack,
    bath_weighed_of,
    drippings_of,
    learned_coat,
    learned_times,
    own_coat,
    plain,
    read_coat,
    rendered_g,
    usual_steps,
)
from ravska_core.coat.bath_weighed import BathWas, uptake
from ravska_core.coat.drippings import FAT_SHARE
from ravska_core.measure import Amount
from ravska_core.meat import Piece, bought, find_cut, for_so_many, read_piece, serving_of, trim_share
from ravska_core.working import BadInput, Step, figure

HOUR = 3600.0
LEG = Piece("lamb-leg", 2000.0)
BRINE = blend(("water/liquid", 95, "scale"), ("table-salt/fine", 5, "scale"), kind="marinade", batch_g=1000)
SALT_SHARE = 0.05 * 0.985  # table salt is 98.5 % salt
BATH = Layer("marinade", BRINE, 400.0, 16 * HOUR)


def read(*layers: Layer, piece: Piece = LEG) -> CoatReading:
    return read_coat(Seasoned("A", piece, layers), cored=False)


def weighed(**what) -> CoatReading:
    return read(dataclasses.replace(BATH, weighed=BathWeighed(used=Amount(900, "g"), **what)))


def test_a_salt_meter_in_what_is_left_says_how_much_went_in():
    found = weighed(after_g=2060.0, left_salt_percent=4.0)
    # by hand: 900 g of 4.925 %; 60 g more on the piece, so 840 g are left at 4.0 %: 44.325 − 33.6 = 10.725 g
    edible = read_piece(LEG).edible.value
    assert found.salt.value == pytest.approx(10.725 / edible * 100, rel=2e-3)
    by_bath = weighed(left=Amount(820, "g"), left_salt_percent=4.0)
    wiped = by_bath.layers[0].fate.lost["wiped or rinsed off"]
    # by hand: 820 g left at 4.0 % are 32.8 g; 11.525 g less what was wiped off
    assert by_bath.salt.value == pytest.approx((11.525 - wiped * 900 * SALT_SHARE) / edible * 100, rel=2e-3)


def test_the_least_certain_salt_becomes_the_best_known():
    def spread(found: CoatReading) -> float:
        return (found.salt.high - found.salt.low) / found.salt.value

    reckoned, by_weight, by_meter = (
        read(BATH), weighed(after_g=2060.0), weighed(after_g=2060.0, left_salt_percent=4.0),
    )  # fmt: skip
    assert spread(reckoned) > spread(by_weight) > 2 * spread(by_meter)
    assert "the salt meter" in by_meter.salt.error
    # weighed, the bath is no rule of thumb any more
    assert reckoned.layers[0].dose.high / reckoned.layers[0].dose.value == pytest.approx(1.2)
    assert by_weight.layers[0].dose.high == by_weight.layers[0].dose.value
    assert by_weight.layers[0].dose_g == pytest.approx(900)


def test_what_a_piece_gained_beyond_salt_and_film_is_bath_drawn_in():
    # by hand: 50 g gained, of 1000 g at 5 % a fifth of the salt is 10 g, 15 g cling: 25 g of bath, less the fifth
    was = BathWas(1000.0, 0.05, 0.2, 0.01, 15.0)
    assert uptake(BathWeighed(after_g=2050.0), was, 2000.0, 1.03) == pytest.approx(0.2 + 0.8 * 25 / 1000)
    # no more than the film: nothing was drawn in
    assert uptake(BathWeighed(after_g=2020.0), was, 2000.0, 1.03) == pytest.approx(0.2)
    # by the bath left over, 940 g of 1000: 60 g less 10.5 g of salt and 15 g of film
    left = BathWeighed(left=Amount(940, "g"))
    assert uptake(left, was, 2000.0, 1.03) == pytest.approx(0.2 + 0.8 * (60 - 0.21 * 50 - 15) / 1000)
    assert uptake(BathWeighed(times=1.5), was, 2000.0, 1.03) == pytest.approx(0.3)
    assert uptake(BathWeighed(times=5), dataclasses.replace(was, goes_in=0.9), 2000.0, 1.03) == 1.0
    # millilitres are weighed by the bath's density; a piece by its weight before, where that was weighed
    ml = BathWeighed(left=Amount(940 / 1.03, "ml"))
    assert uptake(ml, was, 2000.0, 1.03) == pytest.approx(uptake(left, was, 2000.0, 1.03))
    before = BathWeighed(before_g=1990.0, after_g=2040.0)
    assert uptake(before, was, 2000.0, 1.03) == pytest.approx(0.2 + 0.8 * 25 / 1000)


@given(st.floats(0.2, 5), st.floats(0, 4.9))
def test_a_weighed_bath_loses_nothing(times, left_salt):
    for what in (BathWeighed(times=times), BathWeighed(after_g=2040.0, left_salt_percent=left_salt)):
        for into_pot in (False, True):
            pot = [Layer("cooking liquid", None, None, 2 * HOUR, 90.0, eaten=0.3)] if into_pot else []
            found = read(dataclasses.replace(BATH, weighed=what, into_pot=into_pot), *pot)
            assert found.layers[0].fate.whole == pytest.approx(1, abs=1e-9)
            assert min(found.layers[0].fate.stays, *found.layers[0].fate.lost.values()) >= 0


@pytest.mark.parametrize(
    ("what", "field", "says"),
    [
        ({"left": Amount(950, "g")}, "left", "more than there was"),
        ({"after_g": 5000.0}, "after", "weigh it again"),
        ({"after_g": 1500.0}, "after", "weigh it again"),
        ({"after_g": 2950.0}, "after", "more than the whole bath"),
        ({"after_g": 2010.0, "left_salt_percent": 5.1}, "left_salt", "cannot hold so much"),
    ],
)
def test_weights_that_cannot_be_say_so_at_their_field(what, field, says):
    with pytest.raises(BadInput, match=says) as refusal:
        weighed(**what)
    assert refusal.value.argument == f"layers.0.weighed.{field}"


def test_a_meter_tells_nothing_where_salt_was_on_the_meat_before():
    salted = Layer("pre-salt", plain("table-salt/fine"), 0.5, HOUR)
    bath = dataclasses.replace(BATH, weighed=BathWeighed(after_g=2050.0, left_salt_percent=4.0))
    with pytest.raises(BadInput, match="tells nothing") as refusal:
        read(salted, bath)
    assert refusal.value.argument == "layers.1.weighed.left_salt"


def test_what_was_weighed_is_read_as_it_is_typed():
    typed = {
        "used": "0.9 l",
        "left": "820 g",
        "before": "2 kg",
        "after": "2060 g",
        "left_salt": "4.0 %",
        "times": "1.2",
    }
    assert bath_weighed_of(typed) == BathWeighed(Amount(900, "ml"), Amount(820, "g"), 2000.0, 2060.0, 4.0, 1.2)
    assert bath_weighed_of({}) == BathWeighed()
    for wrong, field in (({"after": "heavy"}, "after"), ({"left_salt": "3"}, "left"), ({"times": "9"}, "times"),
                         ({"left_salt": "40", "left": "1 l"}, "left_salt")):  # fmt: skip
        with pytest.raises(BadInput) as refusal:
            bath_weighed_of(wrong)
        assert refusal.value.argument == field


def test_ones_own_baths_count_against_two_reckoned_ones():
    assert learned_times([]) == 1.0
    assert learned_times([1.3, 1.4, 1.5]) == pytest.approx((2 + 4.2) / 5)
    own = read(dataclasses.replace(BATH, weighed=BathWeighed(times=1.24)))
    assert own.layers[0].times == pytest.approx(1.24)
    assert own.salt.value == pytest.approx(1.24 * read(BATH).salt.value, rel=1e-6)


def test_a_boiled_bath_is_poured_under_and_nothing_else_is_in_the_pot():
    pot = Layer("cooking liquid", None, None, 2 * HOUR, 90.0, eaten=1.0)
    found = read(dataclasses.replace(BATH, into_pot=True), pot)
    bath, under = found.layers
    # by hand: all of it is eaten but what was wiped off; 800 ml, less a film of 0.05 g/cm2
    assert bath.fate.stays == pytest.approx(1 - bath.fate.lost["wiped or rinsed off"], abs=1e-9)
    assert under.dose.value == pytest.approx(800 - 0.05 * read_piece(LEG).open_cm2, rel=1e-3)
    assert (under.dose_g, under.salt.value) == (0, 0)
    left = read(dataclasses.replace(BATH, into_pot=True), dataclasses.replace(pot, eaten=None))
    assert left.salt.value < found.salt.value
    with pytest.raises(BadInput, match="No bath before goes into the pot") as refusal:
        read(BATH, pot)
    assert refusal.value.argument == "layers.1.blend"


def test_solids_from_the_sieve_go_into_the_same_pot_as_the_liquid():
    solids = Layer("cooking liquid", BRINE, None, 2 * HOUR, 90.0, into_pot=True, portion=Portion(200, "g"))
    stock = Layer("cooking liquid", plain("water/liquid"), None, 2 * HOUR, 90.0, eaten=0.5, portion=Portion(600, "g"))
    found = read(solids, stock)
    assert found.layers[0].fate.whole == pytest.approx(1, abs=1e-9)
    # and where the salt has long evened out, as much liquid in all counts
    long = [dataclasses.replace(one, hold_s=150 * HOUR) for one in (solids, stock)]
    # one pot: as salty as if both had been mixed before; two pots one after the other are not that
    both = blend(("water/liquid", 395, "scale"), ("table-salt/fine", 5, "scale"), kind="cooking liquid")
    mixed = read(Layer("cooking liquid", both, None, 2 * HOUR, 90.0, eaten=0.5, portion=Portion(800, "g")))
    assert found.salt.value == pytest.approx(mixed.salt.value, rel=1e-3)
    whole = Layer("cooking liquid", both, None, 150 * HOUR, 90.0, eaten=0.5, portion=Portion(800, "g"))
    assert read(*long).salt.value == pytest.approx(read(whole).salt.value, rel=1e-3)
    dry = dataclasses.replace(solids, blend=plain("black-pepper/cracked"), portion=Portion(5, "g"))
    assert read(dry, stock).layers[0].dose_g == pytest.approx(5)
    with pytest.raises(BadInput, match="is dosed between"):
        read(dataclasses.replace(dry, into_pot=False), stock)
    steps = [step.kind for step in usual_steps([solids, stock], 3 * HOUR, 0)]
    assert steps.count("pot") == 1


BUTTER = blend(("butter/melted", 9, "scale"), ("table-salt/fine", 1, "scale"), kind="paste")


def test_a_coat_of_fat_drips_into_the_drippings_with_its_salt():
    bare, buttered = (dict(drippings_of(Seasoned("A", LEG, layers))) for layers in
                      ((), (Layer("paste", BUTTER, 30.0, HOUR),)))  # fmt: skip
    layer = read(Layer("paste", BUTTER, 30.0, HOUR)).layers[0]
    off = layer.dose_g * layer.fate.lost["melted off"]
    # by hand: a tenth falls off, 3 of 30 g still cling, so 0.9 x 0.9 of it runs down; 9 parts of 10 are butter
    assert off == pytest.approx(layer.dose_g * 0.9 * 0.9)
    assert buttered["butter/melted"] == pytest.approx(0.9 * off)
    assert buttered["table-salt/fine"] > 0.1 * off
    assert "butter/melted" not in bare
    assert buttered["water/liquid"] == pytest.approx(bare["water/liquid"])


def test_fat_in_the_pan_tells_what_melted_off():
    # by hand: 100 g taken, 10 left, 5 fell, 40 in the pan of which 12 are the meat's own: 57 of 90 stay
    back = WeighBack(100.0, 10.0, 5.0, 800.0, 40.0, 12.0)
    assert (back.put_on_g, back.melted_g, back.stays) == (90.0, 28.0, pytest.approx(57 / 90))
    assert own_coat(back).value == pytest.approx(85 / 8)
    assert dataclasses.replace(back, pan_g=8.0).stays == pytest.approx(85 / 90)  # less than the meat's own
    with pytest.raises(BadInput, match="more than was on the meat") as refusal:
        own_coat(dataclasses.replace(back, pan_g=120.0))
    assert refusal.value.argument == "pan"
    piece = read_piece(LEG)
    by_hand = piece.edible.value * (1 - piece.cook_yield) * 0.5 * FAT_SHARE["ordinary"]
    assert rendered_g(Seasoned("A", LEG, ())) == pytest.approx(by_hand)
    assert rendered_g(Seasoned("A", Piece("trout-whole", 400.0), ())) == 0
    assert learned_coat(5.0, [4.0, 4.0, 4.0]).value == pytest.approx((10 + 12) / 5)


def test_what_is_for_later_is_set_aside_before_raw_meat_is_touched():
    relish = blend(("yoghurt/liquid", 9, "scale"), ("table-salt/fine", 1, "scale"), kind="marinade")
    bath, table = Layer("marinade", relish, 250.0, HOUR), Layer("at the table", relish, 30.0)
    steps = [step.kind for step in usual_steps([bath, table], HOUR, 0)]
    assert steps.index("mix") < steps.index("aside") < steps.index("bag")
    kept = dataclasses.replace(bath, reserve=Amount(100, "ml"))
    assert "aside" in [step.kind for step in usual_steps([kept], HOUR, 0)]
    for layers in ([bath], [table], [bath, Layer("at the table", BUTTER, 30.0)]):
        assert "aside" not in [step.kind for step in usual_steps(layers, HOUR, 0)]


def test_what_to_buy_for_eight_counts_what_is_trimmed_off():
    # by hand: 2.3 kg serve five, so eight need 3.68 kg on the board
    raw = for_so_many(2300.0, 5.0, 8)
    assert raw.value == pytest.approx(3680)
    off = trim_share(find_cut("lamb-shoulder")).value / 100
    buy, trim = bought("lamb-shoulder", raw)
    assert (buy.value, trim.value) == pytest.approx((3680 / (1 - off), off * 100))
    own = bought("lamb-shoulder", figure([Step("On the board", "", 1000.0, "g")], ""), (0.3, 0.3))[0]
    assert own.value == pytest.approx(1000 / (1 - (2 * off + 0.6) / 4))
    with pytest.raises(BadInput):
        for_so_many(2300.0, 0.0, 8)


def test_a_skin_is_a_dish_with_a_serving_of_its_own():
    assert serving_of("poultry-skin", None, "hearty") == 15
    assert serving_of("duck-leg", None, "hearty") == 230
    assert serving_of("duck-leg", 90.0, "hearty") == 90

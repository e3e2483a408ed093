"""Doses as they are said: grams, spoons, shares of a batch and of the jars; over one piece and over all of a cook."""

from dataclasses import replace

import pytest
from builders import blend
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.blend import read_blend
from ravska_core.coat import LAYER_KINDS, Layer, Portion, Seasoned, parse_dose, plain, read_coat, share_out
from ravska_core.measure import SPOON_SETS, Amount
from ravska_core.meat import Piece, read_piece
from ravska_core.working import BadInput

RUB = replace(blend(("table-salt/fine", 1, "spoon"), ("paprika/powder", 2, "spoon")), batch_g=120.0)
LEG = Piece("lamb-shoulder", 2300.0)
AREA = "g/100 cm²"


def on(*layers: Layer, letter: str = "A", piece: Piece = LEG) -> Seasoned:
    return Seasoned(letter, piece, layers)


def rub(said: str, of=RUB, kind: str = "rub") -> Layer:
    found = parse_dose(said, LAYER_KINDS[kind].unit)
    hold = LAYER_KINDS[kind].hold_s or 0.0
    if isinstance(found, Portion):
        return Layer(kind, of, None, hold, portion=found)
    return Layer(kind, of, found, hold)


# NIST Handbook 44, appendix C: 1 oz = 28.349523125 g, 1 lb = 453.59237 g, 1 US cup = 236.5882365 ml
@pytest.mark.parametrize(
    ("said", "unit", "comes_to"),
    [
        ("5", AREA, 5), ("4½", AREA, 4.5), ("5 g/100 cm²", AREA, 5), ("5g per 100cm2", AREA, 5), ("10 %", "% pump", 10),
        ("250 ml/kg", "ml/kg", 250), ("20 g a kilo", "g/kg", 20),
        # 0.2 oz on 645.16 cm²; 0.3 oz = 8.505 g on 0.45359 kg
        ("0.2 oz per 100 in²", AREA, 0.2 * 28.349523125 / 6.4516), ("0.3 oz/lb", "g/kg", 18.75),
        ("30 g", AREA, ("g", 30)), ("1 oz", AREA, ("g", 28.349523125)), ("half a pound", "g/kg", ("g", 226.796185)),
        ("3 tbsp", AREA, ("ml", 44.360294)), ("three tablespoons", AREA, ("ml", 44.360294)),
        ("half a cup", "ml/kg", ("ml", 118.29412)), ("a cup and a quarter", "ml/kg", ("ml", 295.7353)),
        ("1½ tsp", AREA, ("ml", 7.3933824)), ("a pinch", "g/kg sliced", ("ml", 0.30805760)),
        ("all of this batch", AREA, ("batch", 1)), ("all", AREA, ("batch", 1)), ("the whole batch", AREA, ("batch", 1)),
        ("half of it", AREA, ("batch", 0.5)), ("a third of it", AREA, ("batch", 1 / 3)),
        ("two thirds of the batch", AREA, ("batch", 2 / 3)), ("1/4 of this paste", AREA, ("batch", 0.25)),
        ("25 % of the batch", "% pump", ("batch", 0.25)), ("half the jar", AREA, ("jar", 0.5)),
        ("all that's in the jar", AREA, ("jar", 1)), ("everything in the jar", AREA, ("jar", 1)),
    ],
)  # fmt: skip
def test_a_dose_is_read_as_it_is_said(said, unit, comes_to):
    found = parse_dose(said, unit)
    if isinstance(comes_to, tuple):
        assert (found.unit, found.per, found.rest) == (comes_to[0], "", False)
        assert found.value == pytest.approx(comes_to[1], rel=1e-6)
    else:
        assert found == pytest.approx(comes_to, rel=1e-9)


def test_a_rate_that_the_dial_does_not_count_in_goes_by_surface_or_weight():
    spooned = parse_dose("1 tsp a pound", AREA)
    assert (spooned.unit, spooned.per) == ("ml", "kg")
    assert spooned.value == pytest.approx(4.92892159 / 0.45359237)
    by_weight = read_coat(on(rub("15 g/kg")), cored=False).layers[0].dose_g
    assert by_weight == pytest.approx(15 * 2.3)
    area = read_piece(LEG).coatable.value
    salted = read_coat(on(rub("2 g per 100 cm2", plain("kosher-dense/flake"), "pre-salt")), cored=False).layers[0]
    assert salted.dose_g == pytest.approx(2 * area / 100)


def test_the_rest_is_of_something():
    for said, unit in (("the rest of the jar", "jar"), ("rest of jar", "jar"), ("what's left of the batch", "batch")):
        found = parse_dose(said, AREA)
        assert (found.unit, found.rest, found.value) == (unit, True, 1)
    with pytest.raises(BadInput, match="The rest of what"):
        parse_dose("the rest", AREA)


@pytest.mark.parametrize(
    ("said", "sentence"),
    [
        ("3 spoons", r"Which spoon\? Write 3 tsp or 3 tbsp\."), ("10 %", r"10 % of what\?"),
        ("2 cans", "How much is in 2 cans"), ("some", "How much is some"), ("a quarter", "Write it in g"),
        ("0 g", "nothing"),
        ("-3 g", "cannot be below nothing"), ("150 % of it", "at most all of it"), ("nothing", "no dose I can read"),
        ("", "no dose I can read"), ("thirty apples", "How much is in thirty apples|no dose"),
    ],
)  # fmt: skip
def test_what_is_no_dose_says_what_to_write(said, sentence):
    with pytest.raises(BadInput, match=sentence) as refused:
        parse_dose(said, AREA)
    assert refused.value.argument == "dose"


@given(st.floats(0.3, 30), st.sampled_from(["rub", "paste", "glaze", "binder"]))
def test_the_same_dose_said_otherwise_puts_the_same_salt_on(setting, kind):
    dialled = read_coat(on(Layer(kind, RUB, setting, LAYER_KINDS[kind].hold_s or 0.0)), cored=False)
    grams = dialled.layers[0].dose_g
    density, batch = read_blend(RUB).density_g_ml, read_blend(RUB).finished.value
    said = [Portion(grams, "g"), Portion(grams / density, "ml"), Portion(setting, "g", per="100 cm²"),
            Portion(grams / 2.3, "g", per="kg"), Portion(grams / (4 * batch), "jar", holds_g=4 * batch)]  # fmt: skip
    if grams <= batch:
        said.append(Portion(grams / batch, "batch"))
    for portion in said:
        layer = Layer(kind, RUB, None, LAYER_KINDS[kind].hold_s or 0.0, portion=portion)
        found = read_coat(on(layer), cored=False)
        assert found.salt.value == pytest.approx(dialled.salt.value, rel=1e-9)
        assert found.layers[0].dose_setting == pytest.approx(setting, rel=1e-9)
        assert found.layers[0].dose_g == pytest.approx(grams, rel=1e-9)


def test_thirty_grams_by_hand():
    # 30 g on the shoulder's surface; as much of a coat as that is, and its salt by what of it is eaten
    found = read_coat(on(rub("30 g")), cored=False)
    area, edible = found.piece.coatable.value, found.piece.edible.value
    salt = read_blend(RUB).salt.value / 100
    (layer,) = found.layers
    assert layer.dose_setting == pytest.approx(30 / area * 100)
    assert found.salt.value == pytest.approx(30 * salt * layer.fate.stays / edible * 100)
    # what is weighed does not hang on how large the surface is, what is dosed on a dial does
    assert layer.dose.high - layer.dose.value == pytest.approx(0.3)
    dialled = read_coat(on(rub(f"{layer.dose_setting}")), cored=False).layers[0]
    assert dialled.dose.high - dialled.dose.value > 3
    spooned = read_coat(on(rub("3 tbsp")), cored=False).layers[0]
    assert spooned.dose.high / spooned.dose.value == pytest.approx(1.1)


def test_spoons_are_the_household_s():
    metric = read_coat(
        on(Layer("rub", RUB, None, portion=parse_dose("3 tbsp", AREA, SPOON_SETS["metric"]))), cored=False
    )
    us = read_coat(on(rub("3 tbsp")), cored=False)
    assert metric.layers[0].dose_g / us.layers[0].dose_g == pytest.approx(45 / 44.36029434, rel=1e-6)


def test_all_of_a_batch_follows_the_batch():
    for batch in (60.0, 120.0, 200.0):
        of = replace(RUB, batch_g=batch)
        assert read_coat(on(rub("all of it", of)), cored=False).layers[0].dose_g == pytest.approx(batch)
        assert read_coat(on(rub("a third of it", of)), cored=False).layers[0].dose_g == pytest.approx(batch / 3)


def test_each_time_is_each_time_and_an_injection_takes_its_liquid():
    basted = replace(rub("20 g", kind="baste"), times=3)
    assert read_coat(on(basted), cored=False).layers[0].dose_g == pytest.approx(60)
    brine = blend(("water/liquid", 10, "spoon"), ("table-salt/fine", 1, "spoon"))
    found = read_coat(on(rub("200 ml", brine, "injection")), cored=False).layers[0]
    assert found.injection.liquid_ml == pytest.approx(200)
    # pump = liquid × what stays / raw weight
    assert found.injection.pump.value == pytest.approx(found.dose_g * 0.85 / 2300 * 100)


@pytest.mark.parametrize(
    ("layer", "sentence"),
    [
        (rub("2 kg"), "would be .* rub is dosed between 0.2 and 40"), (rub("1 g"), "would be 0.14"),
        (rub("half the jar"), "No clean jar"),
        (Layer("drippings", None, None, portion=Portion(30, "g")), "how much of them is eaten"),
        (Layer("rub", None, None, portion=Portion(30, "g")), "Choose what goes on"),
    ],
)  # fmt: skip
def test_what_cannot_be_dosed_is_refused_at_its_field(layer, sentence):
    with pytest.raises(BadInput, match=sentence) as refused:
        read_coat(on(layer), cored=False)
    assert refused.value.argument in ("layers.0.dose", "layers.0.blend")


def test_thick_coats_of_real_work_are_none_too_much():
    assert read_coat(on(rub("90", RUB, "paste")), cored=False).layers[0].dose_setting == 90
    assert read_coat(on(rub("45", RUB, "glaze")), cored=False).layers[0].dose_setting == 45


def jar(layer: Layer, holds_g: float) -> Layer:
    assert layer.portion is not None
    return replace(layer, portion=replace(layer.portion, holds_g=holds_g))


@given(st.floats(10, 60), st.floats(0.1, 0.4), st.floats(150, 280))
def test_what_is_taken_of_the_jars_and_left_for_the_rest_is_all_there_is(grams, share, holds):
    of_jar = Portion(share, "jar", holds_g=holds)
    others = on(Layer("rub", RUB, None, portion=of_jar), rub(f"{grams:.6f} g"))
    last = on(jar(rub("the rest of the jar"), holds), letter="B")
    shared = share_out([others, None, last])
    assert shared.faults == ()
    pieces = [shared.told(piece) for piece in (others, last)]
    takes = [layer.dose_g for piece in pieces for layer in read_coat(piece, cored=False).layers]
    assert sum(takes) == pytest.approx(holds, rel=1e-9)


def test_what_is_set_aside_is_not_there_for_the_rest():
    bath = replace(blend(("water/liquid", 10, "spoon"), ("table-salt/fine", 1, "spoon")), batch_g=2000.0)
    first = on(replace(rub("500 g", bath, "marinade"), reserve=Amount(200.0, "g")))
    second = on(rub("the rest of the batch", bath, "marinade"), letter="B")
    found = share_out([first, second]).told(second)
    assert read_coat(found, cored=False).layers[0].dose_g == pytest.approx(1300)


def test_more_than_all_of_it_is_said_where_it_becomes_too_much():
    two = [on(rub("two thirds of it")), on(rub("half of it"), letter="B")]
    ((at, fault),) = share_out(two).faults
    assert (at, fault.argument) == (1, "layers.0.dose")
    assert "117 % of the batch" in fault.sentence
    both = [on(rub("the rest of the batch")), on(rub("the rest of the batch"), letter="B")]
    ((at, fault),) = share_out(both).faults
    assert (at, "already" in fault.sentence) == (1, True)
    waits = Layer("rub", RUB, None)
    ((at, fault),) = share_out([replace(on(rub("the rest of the batch"), waits), target_percent=1.5)]).faults
    assert (at, fault.argument) == (0, "layers.1.dose")
    # nothing left is said by the layer that would get it
    last = on(rub("the rest of the batch"), letter="B")
    taken = share_out([on(rub("all of it")), last]).told(last)
    with pytest.raises(BadInput, match="take all 120 g of it"):
        read_coat(taken, cored=False)


SAUCE = blend(("ketchup/paste", 4, "spoon"), ("cider-vinegar/liquid", 1, "spoon"), kind="glaze")


def test_what_is_eaten_beside_the_meat_counts_in_salt_and_sodium_by_the_serving():
    salt, sodium = read_blend(SAUCE).salt.value / 100, read_blend(SAUCE).sodium_share
    for kind in ("at the board", "at the table"):
        found = read_coat(on(Layer(kind, SAUCE, 30.0)), cored=False)
        servings, edible = found.servings.value, found.piece.edible.value
        (layer,) = found.layers
        assert layer.dose_g == pytest.approx(30 * servings)
        # a serving of 30 g brings the sodium of 30 g, and all of its salt is eaten
        assert found.sodium.value == pytest.approx(30 * sodium * 1000)
        assert found.salt.value == pytest.approx(30 * servings * salt / edible * 100)
        assert (layer.fate.plate, layer.fate.meat, layer.fate.surface) == (pytest.approx(1), 0, 0)
        assert "30 g with each of" in layer.says
        # how many servings there are is not sure, nor how much goes with them in all
        assert layer.dose.high / layer.dose.value == pytest.approx(1.15)
    pulled = read_coat(on(Layer("stirred in", SAUCE, 100.0)), cored=False)
    sliced_kg = pulled.piece.edible.value * pulled.piece.cook_yield / 1000
    assert pulled.layers[0].dose_g == pytest.approx(100 * sliced_kg)
    # the same sauce in grams, whichever way it is passed
    grams = pulled.layers[0].dose_g
    for kind in ("at the board", "at the table"):
        said = read_coat(on(Layer(kind, SAUCE, None, portion=Portion(grams, "g"))), cored=False)
        assert said.salt.value == pytest.approx(pulled.salt.value, rel=1e-9)


def test_what_is_eaten_beside_it_is_no_depth_and_no_coat():
    alone, with_sauce = on(rub("5")), on(rub("5"), Layer("at the table", SAUCE, 40.0))
    one, two = read_coat(alone, at_s=3600.0), read_coat(with_sauce, at_s=3600.0)
    assert list(one.sample.percent) == pytest.approx(list(two.sample.percent))
    assert two.salt.value > one.salt.value

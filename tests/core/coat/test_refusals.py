"""What cannot be on a coat gets a sentence that says what to do, at its field; and the edges of what can."""

import pytest
from builders import blend
from ravska_core.blend import syrup_viscosity
from ravska_core.catalogue import Bone
from ravska_core.coat import (
    Injection,
    Layer,
    Seasoned,
    drippings_of,
    give_way,
    lay_sites,
    off_the_bone,
    plain,
    read_coat,
)
from ravska_core.coat.sites import Face
from ravska_core.measure import parse_amount, parse_temperature_c
from ravska_core.meat import Piece, raw_weight
from ravska_core.working import BadInput

HOUR = 3600.0
SALT = plain("table-salt/fine")
PEPPER = blend(("black-pepper/ground", 1, "spoon"))
STOCK = blend(("stock/liquid", 4, "scale"), ("table-salt/fine", "1/4", "scale"), kind="injection", batch_g=400)
BATH = blend(("buttermilk/liquid", 4, "spoon"), ("table-salt/fine", "1/4", "spoon"), kind="marinade", batch_g=500)
SHOULDER = Piece("pork-shoulder", 2000)
RUB = Layer("rub", SALT, 1, 2 * HOUR)
BATHED = Layer("marinade", BATH, 200, 8 * HOUR)


def arm(*layers: Layer, target: float | None = None, piece: Piece = SHOULDER) -> Seasoned:
    return Seasoned("A", piece, layers, target)


@pytest.mark.parametrize(
    ("asked", "field", "says"),
    [
        (arm(Layer("rub", SALT, 1, HOUR, stays=1.2)), "layers.0.stays", "Between 0 and 100 % of it stays"),
        (arm(Layer("wrap", STOCK, 30, eaten=1.5)), "layers.0.eaten", "Between 0 and 100 % of it is eaten"),
        (arm(Layer("spritz", STOCK, 0.5, times=60)), "layers.0.times", "Between once and 40 times"),
        (arm(Layer("injection", STOCK, 10, HOUR, stays=0.02)), "layers.0.stays", "at least 5 % stays"),
        (arm(Layer("rub", PEPPER, None, HOUR), target=1.5), "layers.0.blend", "holds no salt"),
        (arm(Layer("marinade", BATH, None, HOUR), target=1.5), "layers.0.dose", "cannot take the rest"),
        (arm(Layer("rub", SALT, None, HOUR)), "target", "Set the salt you want in all"),
        (
            arm(Layer("rub", SALT, None, HOUR), Layer("pre-salt", SALT, None, HOUR), target=1),
            "layers.1.dose",
            "Only one layer",
        ),
        (arm(RUB, target=9.0), "target", "between 0.1 and 5 %"),
        (arm(*[RUB] * 40), "layers", "at most"),
    ],
)
def test_a_stack_that_cannot_be_is_refused_at_its_field(asked, field, says):
    with pytest.raises(BadInput, match=says) as refusal:
        read_coat(asked)
    assert refusal.value.argument == field


@pytest.mark.parametrize(
    ("asked", "at", "field", "says"),
    [
        (arm(RUB), 0, "target", "Set the salt you want in all first"),
        (arm(RUB, target=1.5), 3, "layer", "not in the stack any more"),
        (arm(RUB, Layer("pre-salt", SALT, None, HOUR), target=1.5), 0, "target", "takes the rest already"),
        (arm(RUB, Layer("drippings", None, 50), target=1.5), 1, "layer", "Drippings follow the other layers"),
        (arm(BATHED, target=4.0), 0, "target", "Between 1 min and 7 days this bath brings 0.0"),
        (arm(RUB, Layer("pre-salt", SALT, 2.0, HOUR), target=0.4), 0, "target", "already hold"),
        (arm(Layer("rub", PEPPER, 5, HOUR), target=1.0), 0, "target", "holds no salt, so it brings none"),
    ],
)
def test_a_layer_that_cannot_give_way_says_what_to_do_instead(asked, at, field, says):
    with pytest.raises(BadInput, match=says) as refusal:
        give_way(asked, at)
    assert refusal.value.argument == field


def test_a_rest_that_no_dose_reaches_takes_the_most_there_is_and_says_so():
    found = read_coat(arm(Layer("finishing salt", SALT, None), target=5.0))
    assert "3.23 points short of 5 %: 30 g/kg sliced is the most this takes" in found.layers[0].note
    assert found.salt.value < 5.0


@pytest.mark.parametrize(
    ("ask", "says"),
    [
        (lambda: parse_amount("45 litres", "reserve"), "at most 20 litres"),
        (lambda: parse_amount("0 ml", "reserve"), "above 0"),
        (lambda: parse_temperature_c("medium rare"), "is not a temperature"),
        (lambda: parse_temperature_c("12 C"), "between 30 and 100 °C"),
        (lambda: parse_temperature_c("300 F"), "between 30 and 100 °C"),
        (lambda: raw_weight("pork-shoulder", 0, 170), "1 to 500 eaters"),
        (lambda: raw_weight("pork-shoulder", 8, 5), "between 20 g and 1 kg"),
        (lambda: drippings_of(arm(RUB, piece=Piece("quail-whole", 30))), "Hardly anything drips"),
    ],
)
def test_amounts_that_cannot_be_say_what_to_write(ask, says):
    with pytest.raises(BadInput, match=says):
        ask()


def test_a_centre_is_read_in_either_unit_and_a_bare_number_by_its_size():
    assert [round(parse_temperature_c(text), 1) for text in ("57 °C", "135 F", "135", "57")] == [57, 57.2, 57.2, 57]


def test_a_face_that_is_nearly_all_bone_still_gets_a_site_and_a_lost_site_comes_back_onto_the_meat():
    slim = Face(20, 3, False, 3, (Bone(0.0, 0.5, 1.0, 0.5, 0.9),))
    assert len(lay_sites(slim, 2.5)) >= 1
    # far beyond the edge: back along the line to the middle, a little inside
    (x, y), = off_the_bone(Face(20, 10, True, 5), [(1.4, 0.5)])  # fmt: skip
    assert 0.9 < x < 1
    assert y == pytest.approx(0.5)
    # a face all of bone keeps none of its sites
    assert off_the_bone(Face(20, 10, False, 5, (Bone(0.0, 0.5, 1.0, 0.5, 3.0),)), [(0.3, 0.5), (0.6, 0.5)]) == ()


def test_sites_that_no_needle_enters_are_named_together_and_none_left_says_so():
    def read(*sites: tuple[float, float]):
        plan = Injection(sites=sites)
        return read_coat(arm(Layer("injection", STOCK, 10, HOUR, injection=plan))).layers[0].injection

    some = read((0.5, 0.2), (1.1, 0.5), (1.2, 0.5))
    assert some.asks == ("Sites 2, 3 lie beyond the edge: drag them off, or let all be moved.",)
    none = read((1.1, 0.5), (1.2, 0.5))
    assert none.asks[-1] == "No site is left that a needle can go in at; lay them out again."
    assert none.gap is None


def test_a_syrup_is_as_thick_as_the_table_and_no_thicker_than_its_end():
    thick = [syrup_viscosity(brix) for brix in (60, 65, 70, 75, 80)]
    assert thick == sorted(thick)
    assert thick[-1] == thick[-2]

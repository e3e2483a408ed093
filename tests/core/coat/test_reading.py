"""Doses, the salt ledger, targets, portions, weigh-back and cautions: science.md sections 3, 4 and 7."""

import dataclasses

import pytest
from builders import blend
from ravska_core.bowl import to_mix
from ravska_core.catalogue import catalogue
from ravska_core.coat import (
    COAT_WEIGHTS,
    LAYER_KINDS,
    WAYS,
    CoatReading,
    Layer,
    Seasoned,
    WeighBack,
    give_way,
    learned_coat,
    own_coat,
    place_for,
    plain,
    read_coat,
)
from ravska_core.coat.doses import salt_zone
from ravska_core.coat.target import usually_gives
from ravska_core.meat import PORTION_G, Piece, cutting, raw_weight, read_piece
from ravska_core.meat.pieces import Measures
from ravska_core.meat.skin import skin_piece
from ravska_core.working import BadInput

RUB = blend(("table-salt/fine", 1, "spoon"), ("black-pepper/ground", 1, "spoon"))
BATH = blend(("buttermilk/liquid", 4, "spoon"), ("table-salt/fine", "1/4", "spoon"), kind="marinade", batch_g=500)
SALT, OIL, MUSTARD = plain("table-salt/fine"), plain("vegetable-oil/liquid"), plain("mustard-prepared/paste")
HOUR = 3600.0
BARE = {"fat cap": "coated"}


def rub(dose: float | None = 5, hold: float = HOUR) -> Layer:
    return Layer("rub", RUB, dose, hold)


def bath(hours: float = 16, **more) -> Layer:
    return Layer("marinade", BATH, 250, hours * HOUR, **more)


def arm(piece: Piece, *layers: Layer, target: float | None = None) -> CoatReading:
    return read_coat(Seasoned("A", piece, layers, target))


def test_a_standard_coat_on_a_small_shoulder_is_the_trades_thirty_grams():
    # common practice, no source: about 30 g of rub for 1.5 kg of shoulder
    whole = arm(Piece("lamb-shoulder-boneless", 1500, faces={"fat cap": "off"}), rub())
    assert whole.piece.coatable.value == pytest.approx(629, abs=1)
    assert whole.layers[0].dose.value == pytest.approx(31, abs=0.5)
    # the fat cap left bare is 12 % of the surface
    capped = arm(Piece("lamb-shoulder-boneless", 1500), rub())
    assert capped.piece.coatable.value == pytest.approx(0.88 * whole.piece.coatable.value)


def test_salt_of_a_rub_agrees_with_a_hand_calculation():
    found = arm(Piece("lamb-shoulder-boneless", 1500, faces={"fat cap": "off"}), rub())
    # 628.6 cm2 x 5 g/100 cm2 = 31.43 g; x 71.2 % NaCl x 0.9 that stays = 20.1 g; of 1500 g
    assert found.salt.value == pytest.approx(31.43 * 0.712 * 0.9 / 1500 * 100, rel=0.002)
    assert found.zone == "usual"


def test_the_same_coat_salts_a_rack_two_and_a_half_times_a_shoulder():
    shoulder = read_piece(Piece("lamb-shoulder-boneless", 1500))
    rack = read_piece(Piece("pork-ribs", 1300))
    assert rack.solid.area_cm2 == pytest.approx(1263, abs=2)
    # per raw weight it is 2.3 times; per raw edible weight the bone makes it more still
    assert rack.solid.area_cm2 / 1.3 / (shoulder.solid.area_cm2 / 1.5) == pytest.approx(2.3, abs=0.1)
    assert rack.faces[0].area_cm2 == pytest.approx(516, abs=2)  # the membrane on its bone side
    assert read_piece(Piece("pork-ribs", 1300, faces={"membrane": "off"})).coatable.value == pytest.approx(1263, abs=2)


def test_what_does_not_stick_salts_nothing_and_a_second_coat_finds_less_room():
    dry = Piece("lamb-shoulder", 2300, surface="dry")
    sticking, falling = arm(dry, rub(4)), arm(dry, rub(12))
    assert falling.salt.value == pytest.approx(sticking.salt.value)
    assert falling.layers[0].dose.value == pytest.approx(3 * sticking.layers[0].dose.value)
    assert "sticks" in falling.layers[0].note
    twice = arm(Piece("lamb-shoulder", 2300), rub(5), rub(5))
    assert twice.layers[1].salt.value == pytest.approx(twice.layers[0].salt.value / 5)  # 6 stick to a moist one
    washed = arm(Piece("lamb-shoulder", 2300), rub(5), bath(1), rub(5))
    assert washed.layers[2].note == ""  # the bath took the first coat off, so there is room


def test_a_binder_lets_more_stick_and_brings_its_own_salt():
    shoulder = Piece("lamb-shoulder", 2300)
    oiled, mustard = (arm(shoulder, Layer("binder", of, weight), rub(8)) for of, weight in ((OIL, 1.5), (MUSTARD, 2.4)))
    assert [layer.surface for layer in oiled.layers] == ["moist", "oil"]
    assert mustard.layers[1].surface == "mustard"
    assert arm(shoulder, rub(8)).salt.value < oiled.salt.value
    area, edible = oiled.piece.coatable.value, oiled.piece.edible.value
    assert mustard.layers[0].salt.value == pytest.approx(area * 0.024 * 0.0281 / edible * 100, rel=0.01)


def test_salt_by_weight_is_what_was_asked_for():
    found = arm(Piece("lamb-shoulder", 2000), Layer("pre-salt", plain("kosher-dense/flake"), 0.7, HOUR))
    assert found.salt.value == pytest.approx(0.7)
    assert found.layers[0].dose.value == pytest.approx(2000 * 0.82 * 0.007 / 0.99)


def test_layers_add_up():
    salted = Layer("pre-salt", SALT, 0.7, HOUR)
    rubbed = arm(Piece("lamb-shoulder", 2300), salted, rub())
    assert rubbed.salt.value == pytest.approx(sum(layer.salt.value for layer in rubbed.layers))


def test_the_rest_goes_to_the_layer_without_a_dose_and_the_ledger_runs():
    last = Layer("finishing salt", SALT, None)
    found = arm(Piece("lamb-shoulder", 2300), rub(3), last, target=1.5)
    assert found.salt.value == pytest.approx(1.5)
    assert found.layers[0].rest == pytest.approx(1.5 - found.layers[0].salt.value)
    assert found.layers[1].rest == pytest.approx(0, abs=1e-9)
    # by hand: what is missing of 1886 g edible, over 62 % of it sliced, as 98.5 % salt
    grams = (1.5 - found.layers[0].salt.value) / 100 * 1886 / 0.985
    assert found.layers[1].dose_g == pytest.approx(grams, rel=1e-3)
    over = arm(Piece("lamb-shoulder", 2300), rub(5), last, target=0.4)
    assert over.layers[1].dose_g == 0
    assert "already hold" in over.layers[1].note
    for refused in ((last, last), (rub(None), bath())):
        with pytest.raises(BadInput):
            arm(Piece("lamb-shoulder", 2300), *refused)


@pytest.mark.parametrize("at", [0, 1, 2])
def test_whichever_layer_gives_way_the_target_is_met(at):
    layers = (bath(8), Layer("pre-salt", SALT, 0.5, HOUR), rub(2))
    now = read_coat(Seasoned("A", Piece("goat-leg", 2100), layers)).salt.value
    target = round(now + 0.1, 2)
    given, says = give_way(Seasoned("A", Piece("goat-leg", 2100), layers, target), at)
    assert says == ""
    changed = tuple(given if n == at else layer for n, layer in enumerate(layers))
    assert read_coat(Seasoned("A", Piece("goat-leg", 2100), changed)).salt.value == pytest.approx(target, abs=0.02)
    with pytest.raises(BadInput) as refusal:
        give_way(Seasoned("A", Piece("goat-leg", 2100), (Layer("pre-salt", SALT, 2, HOUR), rub(5)), 0.9), 1)
    assert "already hold" in refusal.value.sentence


def test_a_new_layer_goes_where_it_usually_does_and_the_last_coat_gives_way():
    assert place_for("binder", ["pre-salt", "rub", "glaze"]) == 1
    assert place_for("rub", ["pre-salt", "rub", "glaze"]) == 2
    assert place_for("pre-salt", ["rub"]) == 0
    assert usually_gives((bath(), rub(), Layer("glaze", RUB, 4))) == 1
    assert usually_gives((bath(), Layer("drippings", None, 50))) == 0
    assert usually_gives(()) is None
    assert arm(Piece("lamb-shoulder", 2300), rub(None), target=1).gives is None


def test_what_is_missing_is_mixed_to_the_next_gram_and_more_where_its_method_loses_some():
    found = to_mix([36.8, 20.1], 26.0)
    assert found.takes.value == pytest.approx(56.9)
    assert (found.mix.value, found.left_g) == (31, pytest.approx(0.1))
    assert to_mix([10.0], 26.0).mix.value == 0
    assert to_mix([50.0], 0, 1.5).mix.value == 75


def test_sodium_counts_that_of_a_seasoning_without_salt():
    glutamate = next(grind.key for grind in catalogue().grinds.values() if grind.ingredient.key == "msg")
    found = arm(Piece("lamb-shoulder", 2300), Layer("rub", plain(glutamate), 1, HOUR))
    share = catalogue().grinds[glutamate].ingredient.sodium
    by_hand = found.layers[0].dose_g * 0.9 * share * 1000 / found.servings.value
    assert found.sodium.value == pytest.approx(by_hand)
    assert found.salt.value == 0


def test_the_thin_end_is_as_much_saltier_as_it_is_thinner_but_not_for_what_goes_by_weight():
    brisket = Piece("beef-brisket", 5400)
    found = arm(brisket, rub(3))
    assert found.thin.value == pytest.approx(found.salt.value / 0.55, rel=1e-3)
    injected = arm(brisket, Layer("injection", BATH, 10, HOUR))
    assert injected.thin.value == pytest.approx(injected.salt.value)
    even = arm(dataclasses.replace(brisket, thin_cm=found.piece.solid.thickness_cm), rub(3))
    assert even.thin.value == pytest.approx(even.salt.value)


def test_a_serving_agrees_with_a_hand_calculation():
    found = arm(Piece("lamb-shoulder-boneless", 1500), Layer("pre-salt", SALT, 1, HOUR))
    # 1500 g x 0.62 / 170 g = 5.47 servings; 15 g of salt x 0.3934 = 5.9 g sodium
    assert found.servings.value == pytest.approx(5.47, abs=0.01)
    assert found.sodium.value == pytest.approx(15 * 393.4 / 5.47, rel=0.005)


def test_what_is_trimmed_off_is_bought_too_and_ones_own_trimmings_teach_the_share():
    # by hand: 8 x 170 g / 0.62 / 0.82 = 2675 g on the board; fat cap 6 % and flap 3 % come off: / 0.91 = 2940 g
    usual = raw_weight("lamb-shoulder", 8, 170)
    assert usual.trimmed.value == pytest.approx(2675, abs=1)
    assert (usual.trim.value, usual.bought.value) == (pytest.approx(9), pytest.approx(2940, abs=1))
    # two own trimmings of 19 % beside the usual share, that counts as two: (2 x 9 + 2 x 19) / 4 = 14 %
    own = raw_weight("lamb-shoulder", 8, 170, own_trims=(0.19, 0.19))
    assert own.trim.value == pytest.approx(14)
    assert own.bought.value == pytest.approx(2675 / 0.86, abs=1)
    assert own.trim.high - own.trim.low < usual.trim.high - usual.trim.low + 5
    # one that needs none
    assert raw_weight("lamb-cubes", 4, 170).bought.value == raw_weight("lamb-cubes", 4, 170).trimmed.value


def test_a_coat_that_goes_straight_on_counts_its_salt_and_has_moved_none():
    held, straight = (
        read_coat(arm_of)
        for arm_of in (
            Seasoned("A", Piece("lamb-leg", 2000), (rub(5, HOUR),)),
            Seasoned("A", Piece("lamb-leg", 2000), (rub(5, 0),)),
        )
    )
    assert straight.salt.value == pytest.approx(held.salt.value)
    assert straight.sample.reach.value == 0
    assert "straight on" in straight.sample.says[0]
    with pytest.raises(BadInput, match="between 1 minute and 7 days"):
        read_coat(Seasoned("A", Piece("lamb-leg", 2000), (rub(5, 30),)))


def test_eaters_make_a_raw_weight_that_feeds_them():
    # common practice, no source: 1.5 kg of boneless shoulder feeds four to six
    assert 4 <= 1500 / raw_weight("pork-shoulder", 1, PORTION_G["usual"]).trimmed.value * 1.08 <= 6
    eight = raw_weight("lamb-shoulder", 8, 170).trimmed
    assert eight.value == pytest.approx(8 * 170 / 0.62 / 0.82)
    assert arm(Piece("lamb-shoulder", eight.value)).servings.value == pytest.approx(8)
    for bad in (0, 5000):
        with pytest.raises(BadInput):
            raw_weight("lamb-shoulder", bad, 170)


def test_cutting_a_joint_up_makes_surface_and_cubes_have_what_the_trade_counts_with():
    cubes = cutting(Piece("lamb-shoulder-boneless", 1500, cut_into="cubes", cut_cm=3.5, faces={"fat cap": "off"}))
    assert cubes is not None
    assert cubes.cut_cm2 / 1.5 == pytest.approx(1620, abs=5)  # science.md: 3.5 cm cubes have 1,620 cm2/kg
    assert cubes.times.value == pytest.approx(cubes.cut_cm2 / 629, rel=0.01)
    # a cylinder of 3 : 1 in steaks: each cut bares its round section twice
    loin = read_piece(Piece("venison-loin", 800))
    steaks = read_piece(Piece("venison-loin", 800, cut_into="steaks", cut_cm=2.5))
    section = 3.14159 / 4 * loin.solid.width_cm**2
    added = 2 * (loin.solid.length_cm / 2.5 - 1) * section
    assert steaks.solid.area_cm2 - loin.solid.area_cm2 == pytest.approx(added, rel=1e-4)


def test_a_skin_becomes_a_piece_of_its_own_as_large_as_it_was():
    breast = Piece("turkey-breast", 1400)
    skin = skin_piece(breast)
    area = read_piece(breast).faces[0].area_cm2
    alone = read_piece(skin)
    assert skin.mass_g == pytest.approx(area * 0.15 * 1.03, abs=1)
    belly = Piece("pork-belly", 2000)
    assert skin_piece(belly).mass_g == pytest.approx(read_piece(belly).faces[0].area_cm2 * 0.3 * 1.03, abs=1)
    assert alone.solid.length_cm * alone.solid.width_cm == pytest.approx(area, rel=0.5)
    with pytest.raises(BadInput):
        skin_piece(Piece("lamb-neck", 500))


def test_weigh_backs_move_the_usual_coat_towards_the_cooks_own():
    # by hand: (60 - 17.5 - 3) g on 830 cm2
    assert own_coat(WeighBack(60, 17.5, 3, 830)).value == pytest.approx(4.76, abs=0.005)
    assert learned_coat(5, []).value == 5
    assert learned_coat(5, [3.0] * 2).value == pytest.approx(4)
    many = learned_coat(5, [3.0] * 40)
    assert many.value == pytest.approx(3.1, abs=0.05)
    assert many.high - many.low < learned_coat(5, [3.0]).high - learned_coat(5, [3.0]).low
    for bad in (WeighBack(0, 0, 0, 800), WeighBack(10, 12, 0, 800), WeighBack(10, 5, 6, 800)):
        with pytest.raises(BadInput):
            own_coat(bad)


def test_measures_that_contradict_the_weight_are_asked_about():
    near = read_piece(Piece("lamb-shoulder", 2300, measures=Measures(20.6, 15.9, 12.7)))
    assert near.question == ""
    assert near.coatable.high / near.coatable.value == pytest.approx(1.08)
    assert "measure again" in read_piece(Piece("lamb-shoulder", 2300, measures=Measures(30, 20, 14))).question
    assert "check the weight" in read_piece(Piece("lamb-shoulder", 45_000)).question


@pytest.mark.parametrize("cut", sorted(catalogue().cuts))
def test_every_cut_of_the_catalogue_can_be_coated(cut):
    row = catalogue().cuts[cut]
    found = arm(Piece(cut, row.usual_low_g), rub(3))
    assert 0 < found.layers[0].dose.value < 0.4 * row.usual_low_g
    assert found.piece.edible.value <= row.usual_low_g
    assert found.thin.value >= found.salt.value * 0.999


@pytest.mark.parametrize("school", WAYS.values(), ids=lambda school: school.key)
def test_every_school_can_be_built_on_a_joint(school):
    of = {"dry rub": RUB, "marinade": BATH, "injection": BATH, "spritz": BATH, "glaze": BATH}
    layers = tuple(
        Layer(x.kind, plain(x.grind) if x.grind else of[LAYER_KINDS[x.kind].blend_kind], x.dose or None, x.hold_s,
              x.hold_c, after=x.after, times=x.times)
        for x in school.slots
    )  # fmt: skip
    assert 0.2 < arm(Piece("pork-shoulder", 2000), *layers, target=1.5).salt.value < 3


@pytest.mark.parametrize(
    ("piece", "layers", "field"),
    [
        (Piece("gone", 2000), (), "piece.cut"),
        (Piece("lamb-leg", -5), (), "piece.mass_g"),
        (Piece("lamb-leg", 1e308), (), "piece.mass_g"),
        (Piece("lamb-leg", 2000, count=0), (), "piece.count"),
        (Piece("lamb-leg", 2000, measures=Measures(0, 1, 1)), (), "piece.measures.length_cm"),
        (Piece("lamb-leg", 2000, untrimmed_g=1500), (), "piece.untrimmed_g"),
        (Piece("lamb-leg", 2000, grade="prime"), (), "piece.grade"),
        (Piece("lamb-leg", 2000, faces={"skin": "gone"}), (), "piece.faces"),
        (Piece("lamb-leg", 2000, thin_cm=90), (), "piece.thin_cm"),
        (Piece("lamb-leg", 2000, cut_into="cubes", cut_cm=14), (), "piece.cut_cm"),
        (Piece("lamb-cubes", 2000, cut_into="cubes", cut_cm=2), (), "piece.cut_into"),
        (Piece("lamb-leg", 2000), (rub(0.01),), "layers.0.dose"),
        (Piece("lamb-leg", 2000), (rub(5, 30),), "layers.0.hold_s"),
        (Piece("lamb-leg", 2000), (Layer("rub", RUB, 5, HOUR, 96),), "layers.0.hold_c"),
        (Piece("lamb-leg", 2000), (Layer("rub", RUB, 5, HOUR, 20, place="fridge"),), "layers.0.hold_c"),
        (Piece("lamb-leg", 2000), (Layer("rub", RUB, 5, HOUR, 4, place="attic"),), "layers.0.place"),
        (Piece("lamb-leg", 2000), (Layer("rub", blend(), 5, HOUR),), "layers.0.blend.lines"),
        (Piece("lamb-leg", 2000), (Layer("rub", None, 5, HOUR),), "layers.0.blend"),
        (Piece("lamb-leg", 2000), (Layer("marinade", RUB, 250, HOUR),), "layers.0.blend"),
        (Piece("lamb-leg", 2000), (Layer("pre-salt", plain("paprika/powder"), 1, HOUR),), "layers.0.blend"),
        (Piece("lamb-leg", 2000), (Layer("pre-salt", plain("curing-salt/fine"), 1, HOUR),), "layers.0.blend"),
        (Piece("lamb-leg", 2000), (Layer("pre-salt", SALT, 40, HOUR),), "layers.0.dose"),
        (Piece("lamb-leg", 2000), (Layer("frosting", SALT, 1, HOUR),), "layers.0.kind"),
        (Piece("lamb-leg", 2000), (bath(after="licked"),), "layers.0.after"),
        (Piece("lamb-leg", 2000), (rub(None),), "target"),
        (Piece("beef-strips", 500), (Layer("injection", BATH, 10, HOUR),), "layers.0.kind"),
        (Piece("lamb-leg", 2000), (rub(),) * 13, "layers"),
    ],
)
def test_a_coat_that_cannot_be_read_says_so_at_the_field(piece, layers, field):
    with pytest.raises(BadInput) as refusal:
        arm(piece, *layers)
    assert refusal.value.argument == field


def test_coat_weights_and_ceilings_are_the_trades():
    assert dict(COAT_WEIGHTS) == {"light": 3, "standard": 5, "heavy": 8, "bark": 12}
    assert [salt_zone(x) for x in (0.5, 1.0, 1.5, 2.0, 2.5)] == ["flat", "light", "usual", "salty", "too salty"]

"""Doses, salt on the meat, uptake from a bath and cautions: science.md sections 3, 4, 5 and 7."""

import dataclasses
import math

import numpy as np
import pytest
from ravska_core import cautions, coat, depth, doses
from ravska_core.catalogue import catalogue
from ravska_core.cautions import Situation, cautions_for
from ravska_core.coat import Arm, MarinadeLayer, RubLayer, SaltLayer, read_arm
from ravska_core.composition import read_blend
from ravska_core.cuts import Measures, Piece, read_piece
from ravska_core.marinade import acid_class
from ravska_core.working import BadInput
from scipy.integrate import solve_ivp
from tests_blends import blend

RUB = blend(("table-salt/fine", 1, "spoon"), ("black-pepper/ground", 1, "spoon"))
BATH = blend(("buttermilk/liquid", 4, "spoon"), ("table-salt/fine", "1/4", "spoon"), kind="marinade", batch_g=500)
HOUR = 3600.0


def arm(piece: Piece, *layers: coat.Layer) -> coat.ArmReading:
    return read_arm(Arm("A", piece, layers))


def test_a_standard_coat_on_a_small_shoulder_is_the_trades_thirty_grams():
    # common practice, no source: about 30 g of rub for 1.5 kg of shoulder
    whole = arm(Piece("lamb-shoulder-boneless", 1500, coat_bare_face=True), RubLayer(RUB, 5, "moist", HOUR))
    assert whole.piece.coatable.value == pytest.approx(629, abs=1)
    assert whole.layers[0].dose.value == pytest.approx(31, abs=0.5)
    # the fat cap left bare is 12 % of the surface
    capped = arm(Piece("lamb-shoulder-boneless", 1500), RubLayer(RUB, 5, "moist", HOUR))
    assert capped.piece.coatable.value == pytest.approx(0.88 * whole.piece.coatable.value)


def test_salt_of_a_rub_agrees_with_a_hand_calculation():
    found = arm(Piece("lamb-shoulder-boneless", 1500, coat_bare_face=True), RubLayer(RUB, 5, "moist", HOUR))
    # 628.6 cm2 x 5 g/100 cm2 = 31.43 g; x 71.2 % NaCl x 0.9 that stays = 20.1 g; of 1500 g
    assert found.salt.value == pytest.approx(31.43 * 0.712 * 0.9 / 1500 * 100, rel=0.002)
    assert found.zone == "usual"


def test_the_same_coat_salts_a_rack_two_and_a_half_times_a_shoulder():
    shoulder = read_piece(Piece("lamb-shoulder-boneless", 1500, coat_bare_face=True))
    rack = read_piece(Piece("pork-ribs", 1300, coat_bare_face=True))
    assert rack.solid.area_cm2 == pytest.approx(1263, abs=2)
    # per raw edible weight the bone makes it more still
    whole = rack.solid.area_cm2 / 1.3 / (shoulder.solid.area_cm2 / 1.5)
    assert whole == pytest.approx(2.3, abs=0.1)
    assert read_piece(Piece("pork-ribs", 1300)).bare_area_cm2 == pytest.approx(516, abs=2)


def test_what_does_not_stick_salts_nothing():
    sticking, falling = (arm(Piece("lamb-shoulder", 2300), RubLayer(RUB, weight, "dry", HOUR)) for weight in (4, 12))
    assert falling.salt.value == pytest.approx(sticking.salt.value)
    assert falling.layers[0].dose.value == pytest.approx(3 * sticking.layers[0].dose.value)


def test_a_mustard_binder_brings_its_own_salt():
    plain, bound = (
        arm(Piece("lamb-shoulder", 2300), RubLayer(RUB, 4, surface, HOUR)) for surface in ("oil", "mustard")
    )
    area, edible = plain.piece.coatable.value, plain.piece.edible.value
    assert bound.salt.value - plain.salt.value == pytest.approx(area * 0.024 * 0.0281 / edible * 100, rel=0.01)


# J. Crank, The Mathematics of Diffusion, 1975, plane sheet in a constant bath
@pytest.mark.parametrize(
    ("fourier", "uptake"),
    [(0.01, 0.11284), (0.05, 0.25231), (0.1, 0.35682), (0.2, 0.50409), (0.5, 0.76395), (1.0, 0.93126)],
)
def test_uptake_follows_the_published_series(fourier, uptake):
    assert depth.sheet_uptake(fourier) == pytest.approx(uptake, abs=5e-6)


def test_uptake_agrees_with_a_numerical_solution_and_its_two_series_meet():
    cells = 400
    edge = np.zeros(cells)
    edge[0] = 1.0

    def change(_, c):
        # half sheet: bath on the left face, mirror on the right
        left = np.concatenate(([2 * 1.0 - c[0]], c[:-1]))
        right = np.concatenate((c[1:], [c[-1]]))
        return (left - 2 * c + right) * cells**2

    solved = solve_ivp(change, (0, 0.3), np.zeros(cells), method="BDF", t_eval=[0.02, 0.1, 0.3], rtol=1e-8, atol=1e-10)
    for fourier, profile in zip(solved.t, solved.y.T, strict=True):
        assert depth.sheet_uptake(fourier) == pytest.approx(profile.mean(), rel=0.005)
    assert depth.sheet_uptake(0.05 - 1e-12) == pytest.approx(depth.sheet_uptake(0.05), abs=1e-9)


@pytest.mark.parametrize(("hours", "mm"), [(1, 1.9), (2, 2.7), (8, 5.4), (24, 9.3)])
def test_reach_is_what_people_are_told(hours, mm):
    assert depth.reach_cm(hours * HOUR) * 10 == pytest.approx(mm, abs=0.05)


def test_salt_of_a_bath_agrees_with_a_hand_calculation():
    found = arm(Piece("lamb-shoulder-boneless", 1500, coat_bare_face=True), MarinadeLayer(BATH, "bag", 16 * HOUR))
    layer = found.layers[0]
    assert layer.dose.value == pytest.approx(375)  # 250 ml/kg
    # half thickness of the like sheet: 1415.1 cm3 / 628.6 cm2 = 2.251 cm; Dt/l2 = 2.5e-10 x 57600 / 0.02251^2
    assert depth.sheet_uptake(0.02842) == pytest.approx(0.19023, abs=1e-4)
    bath_percent = next(step.value for step in layer.salt.steps if step.label == "Salt in the marinade")
    assert found.salt.value == pytest.approx(bath_percent * 0.745 * 0.19023, rel=1e-3)
    assert found.salt.low < found.salt.value < found.salt.high
    # early on, uptake goes with the root of the diffusivity, so its band is 1/sqrt(2) to sqrt(2); the bath's own adds
    own = read_blend(BATH).salt
    band = 1 + math.hypot(2**0.5 - 1, own.high / own.value - 1)
    assert found.salt.high / found.salt.value == pytest.approx(band, rel=0.01)


def test_salt_by_weight_is_what_was_asked_for():
    found = arm(Piece("lamb-shoulder", 2000), SaltLayer("kosher-dense/flake", 0.7))
    assert found.salt.value == pytest.approx(0.7)
    assert found.layers[0].dose.value == pytest.approx(2000 * 0.82 * 0.007 / 0.99)


def test_layers_add_up_and_the_difference_evens_out():
    rubbed = arm(Piece("lamb-shoulder", 2300), SaltLayer("table-salt/fine", 0.7), RubLayer(RUB, 5, "moist", HOUR))
    bathed = read_arm(Arm("B", Piece("lamb-shoulder", 2250), (MarinadeLayer(BATH, "bag", 16 * HOUR),)))
    assert rubbed.salt.value == pytest.approx(sum(layer.salt.value for layer in rubbed.layers))
    label, percent = coat.salt_to_even(rubbed, bathed)
    assert label == "B"
    evened = read_arm(
        Arm(
            "B",
            Piece("lamb-shoulder", 2250),
            (MarinadeLayer(BATH, "bag", 16 * HOUR), SaltLayer("table-salt/fine", percent)),
        )
    )
    assert evened.salt.value == pytest.approx(rubbed.salt.value)


def test_measures_that_contradict_the_weight_are_asked_about():
    near = read_piece(Piece("lamb-shoulder", 2300, measures=Measures(20.6, 15.9, 12.7)))
    assert near.question == ""
    assert near.coatable.high / near.coatable.value == pytest.approx(1.08)
    assert "measure again" in read_piece(Piece("lamb-shoulder", 2300, measures=Measures(30, 20, 14))).question
    assert "check the weight" in read_piece(Piece("lamb-shoulder", 45_000)).question


@pytest.mark.parametrize("cut", sorted(catalogue().cuts))
def test_every_cut_of_the_catalogue_can_be_coated(cut):
    row = catalogue().cuts[cut]
    found = arm(Piece(cut, row.usual_low_g), RubLayer(RUB, 3, "moist", HOUR))
    assert 0 < found.layers[0].dose.value < 0.2 * row.usual_low_g
    assert found.piece.edible.value <= row.usual_low_g


@pytest.mark.parametrize(
    ("piece", "layers", "field"),
    [
        (Piece("gone", 2000), (), "piece.cut"),
        (Piece("lamb-leg", -5), (), "piece.mass"),
        (Piece("lamb-leg", 1e308), (), "piece.mass"),
        (Piece("lamb-leg", 2000, count=0), (), "piece.count"),
        (Piece("lamb-leg", 2000, measures=Measures(0, 1, 1)), (), "piece.measures.length_cm"),
        (Piece("lamb-leg", 2000), (RubLayer(RUB, 0, "moist", HOUR),), "layers.0.coat"),
        (Piece("lamb-leg", 2000), (RubLayer(RUB, 5, "sticky", HOUR),), "layers.0.surface"),
        (Piece("lamb-leg", 2000), (RubLayer(RUB, 5, "moist", 0),), "layers.0.hold"),
        (Piece("lamb-leg", 2000), (RubLayer(blend(), 5, "moist", HOUR),), "layers.0.blend.lines"),
        (Piece("lamb-leg", 2000), (MarinadeLayer(RUB, "bucket", HOUR),), "layers.0.vessel"),
        (Piece("lamb-leg", 2000), (SaltLayer("paprika/powder", 1),), "layers.0.grind"),
        (Piece("lamb-leg", 2000), (SaltLayer("curing-salt/fine", 1),), "layers.0.grind"),
        (Piece("lamb-leg", 2000), (SaltLayer("table-salt/fine", 40),), "layers.0.percent"),
    ],
)
def test_a_coat_that_cannot_be_read_says_so_at_the_field(piece, layers, field):
    with pytest.raises(BadInput) as refusal:
        arm(piece, *layers)
    assert refusal.value.field == field


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
    from ravska_core.composition import read_blend

    assert acid_class(read_blend(blend(*lines, kind="marinade")))[0] == kind


def test_every_window_keeps_the_trades_limits():
    windows = catalogue().windows
    # common practice, no source
    assert windows["strong", "fish"].long_high_min <= 30
    assert windows["medium", "poultry"].long_high_min <= 120
    assert windows["medium", "tender_red"].long_high_min <= 120
    assert all(window.long_high_min <= 60 for key, window in windows.items() if key[0] == "enzyme")
    assert all(window.long_high_min <= 1440 for window in windows.values())


# each rule of the cautions, on and off
CAUTIONS = {
    "cure": ({"flags": frozenset({"cure"})}, {}),
    "garlic-oil": (
        {"flags": frozenset({"raw_allium"}), "fat_share": 0.5},
        {"flags": frozenset({"raw_allium"}), "fat_share": 0.05},
    ),
    "warm-hold": ({"hold_c": 21, "hold_s": 3 * HOUR}, {"hold_c": 21, "hold_s": HOUR}),
    "acid-24h": (
        {"has_marinade": True, "acid": True, "hold_s": 25 * HOUR},
        {"has_marinade": True, "acid": True, "hold_s": 23 * HOUR},
    ),
    "past-window": (
        {"has_marinade": True, "hold_s": 3 * HOUR, "window_high_s": 2 * HOUR},
        {"has_marinade": True, "hold_s": 2 * HOUR, "window_high_s": 2 * HOUR},
    ),
    "protease": (
        {"has_marinade": True, "flags": frozenset({"protease"}), "hold_s": 2 * HOUR},
        {"has_marinade": True, "flags": frozenset({"protease"}), "hold_s": HOUR},
    ),
    "discard-or-boil": ({"has_marinade": True}, {}),
    "over-salt": ({"salt_percent": 2.3}, {"salt_percent": 2.2}),
    "thin-salty": ({"thin": True, "salt_percent": 2.0}, {"thin": False, "salt_percent": 2.0}),
    "falls-off": ({"coat_over_ceiling": True}, {}),
    "cold-hold": ({"hold_s": 2 * HOUR}, {"hold_s": HOUR / 2}),
    "minimum-centre": ({"animal": "duck"}, {}),
    "allergens": ({"allergens": ("milk",)}, {}),
    "chilli-hands": ({"flags": frozenset({"chilli"})}, {}),
}


@pytest.mark.parametrize("rule", [rule.id for rule in cautions._RULES])
def test_every_caution_shows_when_it_applies_and_only_then(rule):
    on, off = CAUTIONS[rule]
    found = {c.id: c for c in cautions_for(dataclasses.replace(Situation(), **on))}
    assert found[rule].action.endswith(".")
    assert rule not in {c.id for c in cautions_for(dataclasses.replace(Situation(), **off))}


def test_minimum_temperatures_are_the_usual_ones():
    # usual US guidance, from memory
    usual = {"duck": 74, "turkey": 74, "lamb": 63, "venison": 71, "fish": 63, "goat": 63}
    assert {animal: cautions.minimum_centre_c(animal)[0] for animal in usual} == usual


def test_coat_weights_and_ceilings_are_the_trades():
    assert dict(doses.COAT_WEIGHTS) == {"light": 3, "standard": 5, "heavy": 8, "bark": 12}
    assert [doses.salt_zone(x) for x in (0.5, 1.0, 1.5, 2.0, 2.5)] == ["flat", "light", "usual", "salty", "too salty"]

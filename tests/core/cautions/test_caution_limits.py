"""Where cautions begin and end: at each limit, and just beyond it. Usual US guidance, from memory (work.md)."""

from types import SimpleNamespace

import pytest
from builders import blend
from ravska_core.blend import read_blend
from ravska_core.cautions import Clocks, Situation, cautions_for
from ravska_core.coat import Layer, Seasoned, read_coat, thin_cut_salt
from ravska_core.coat.additives import DRY, DRY_BELLY, PUMPED, PUMPED_BELLY, nitrite_of
from ravska_core.meat import Piece
from ravska_core.working import BadInput

HOUR, DAY = 3600.0, 86_400.0
GARLIC = {"flags": frozenset({"raw_allium"}), "fat_share": 0.5}
ENZYME = {"flags": frozenset({"protease"}), "has_marinade": True}
SOUR = {"has_marinade": True, "acid": True}


def said(rule: str, **known: object) -> bool:
    return rule in {caution.id for caution in cautions_for(Situation(**known))}


@pytest.mark.parametrize(
    ("clocks", "stops", "warns"),
    [
        (Clocks(), False, False),
        # in air: two hours in all, one above 32 C
        (Clocks(off_cold_s=2 * HOUR), False, False),
        (Clocks(off_cold_s=2 * HOUR + 1), True, False),
        (Clocks(off_cold_s=HOUR, off_cold_hot_s=HOUR), False, False),
        (Clocks(off_cold_s=HOUR + 1, off_cold_hot_s=HOUR + 1), True, False),
        # a warm bath: warned of from an hour, stopped from four, bench included
        (Clocks(bath_s=HOUR), False, False),
        (Clocks(bath_s=HOUR + 1), False, True),
        (Clocks(bath_s=4 * HOUR), False, True),
        (Clocks(bath_s=4 * HOUR + 1), True, True),
        (Clocks(off_cold_s=HOUR, bath_s=3 * HOUR), False, True),
        (Clocks(off_cold_s=HOUR, bath_s=3 * HOUR + 1), True, True),
        # an hour on the bench and as much in the bath are two, and nothing more
        (Clocks(off_cold_s=HOUR, bath_s=HOUR), False, False),
        (Clocks(off_cold_s=1.5 * HOUR, bath_s=0.5 * HOUR + 1), False, True),
        (Clocks(off_cold_s=2 * HOUR, bath_s=0.5), False, True),
        (Clocks(off_cold_s=0.5 * HOUR, off_cold_hot_s=0.5 * HOUR, bath_s=0.5 * HOUR), False, False),
        (Clocks(off_cold_s=0.5 * HOUR, off_cold_hot_s=0.5 * HOUR, bath_s=0.5 * HOUR + 1), False, True),
        (Clocks(thawed_warm=True), True, False),
    ],
)
def test_the_clocks_of_raw_meat(clocks, stops, warns):
    assert (clocks.stops, clocks.warns) == (stops, warns)
    known = {"clocks": clocks}
    assert said("warm-hold", **known) == stops
    assert said("warm-bath", **known) == (warns and not stops)


@pytest.mark.parametrize(
    ("rule", "known", "name", "limit", "beyond"),
    [
        ("phosphate", {}, "phosphate_percent", 0.5, 0.5001),
        ("saturation", {"has_marinade": True}, "brine_percent", 26.4, 26.41),
        ("over-salt", {}, "salt_percent", 2.2, 2.201),
        ("thin-salty", {"thin": True}, "salt_percent", 1.8, 1.801),
        ("thin-end-salty", {"salt_percent": 1.5}, "thin_percent", 2.2, 2.201),
        ("sodium", {}, "sodium_mg", 2000, 2001),
        ("sodium-share", {}, "sodium_mg", 400, 401),
        ("acid-24h", SOUR, "hold_s", 24 * HOUR, 24 * HOUR + 1),
        ("past-window", SOUR | {"window_high_s": 2 * HOUR}, "hold_s", 2 * HOUR, 2 * HOUR + 1),
        ("protease", ENZYME, "on_s", HOUR, HOUR + 1),
        ("garlic-oil", GARLIC, "on_s", 4 * DAY, 4 * DAY + 1),
        ("garlic-oil", GARLIC, "on_warm_s", 2 * HOUR, 2 * HOUR + 1),
        ("garlic-oil-cold", GARLIC, "on_s", DAY, DAY + 1),
        ("garlic-oil-today", {"flags": GARLIC["flags"]}, "fat_share", 0.2, 0.21),
        ("centre-slow", {"pierced": True}, "fire_s", 4 * HOUR, 4 * HOUR + 1),
        ("surface-slow", {"wet": True}, "fire_s", 4 * HOUR, 4 * HOUR + 1),
    ],
)
def test_a_caution_begins_beyond_its_limit_and_not_at_it(rule, known, name, limit, beyond):
    assert not said(rule, **known, **{name: limit})
    assert said(rule, **known, **{name: beyond})


@pytest.mark.parametrize(
    ("rule", "known", "name", "last", "beyond"),
    [
        ("thin-salty", {"thin": True}, "salt_percent", 2.2, 2.201),
        ("thin-end-salty", {"thin_percent": 2.5}, "salt_percent", 2.2, 2.201),
        ("sodium-share", {}, "sodium_mg", 2000, 2001),
        ("garlic-oil-cold", GARLIC, "on_s", 4 * DAY, 4 * DAY + 1),
        ("garlic-oil-today", GARLIC, "on_s", DAY, DAY + 1),
    ],
)
def test_a_caution_ends_where_a_graver_one_begins(rule, known, name, last, beyond):
    assert said(rule, **known, **{name: last})
    assert not said(rule, **known, **{name: beyond})


# poultry 165 F (73.9 C), whole red meat 145 F (62.8 C), minced 160 F (71.1 C); fish 145 F
@pytest.mark.parametrize(
    ("rule", "known", "least"),
    [
        ("below-minimum-poultry", {"animal": "duck"}, 74.0),
        ("below-minimum-poultry", {"animal": "turkey"}, 74.0),
        ("below-minimum", {"animal": "lamb"}, 63.0),
        ("below-minimum-fish", {"animal": "fish"}, 63.0),
        ("not-intact", {"animal": "beef", "minced": True}, 71.0),
        ("not-intact", {"animal": "duck", "pierced": True}, 74.0),
        ("not-intact", {"animal": "lamb", "pierced": True}, 63.0),
    ],
)
def test_a_centre_is_too_low_from_a_third_of_a_degree_below_the_minimum(rule, known, least):
    assert not said(rule, **known, endpoint_c=least - 0.33)
    assert said(rule, **known, endpoint_c=least - 0.35)
    assert not said(rule, **known)


@pytest.mark.parametrize(("animal", "minced", "days"), [("duck", False, 2), ("fish", False, 2), ("beef", True, 2)])
def test_raw_meat_is_kept_cold_for_its_days_and_stopped_at_twice_as_many(animal, minced, days):
    def rules(raw_s: float) -> set[str]:
        found = cautions_for(Situation(animal=animal, minced=minced, clocks=Clocks(raw_s=raw_s)))
        return {caution.id for caution in found} & {"raw-long", "raw-too-long"}

    assert rules(days * DAY) == set()
    assert rules(days * DAY + 1) == {"raw-long"}
    assert rules(2 * days * DAY) == {"raw-long"}
    assert rules(2 * days * DAY + 1) == {"raw-too-long"}
    cured = Situation(animal=animal, minced=minced, cure=True, clocks=Clocks(raw_s=9 * DAY))
    assert not {caution.id for caution in cautions_for(cured)} & {"raw-long", "raw-too-long"}


# nitrite and phosphate: 9 CFR 424.21, from memory


def test_the_usual_limits_of_nitrite_are_those_of_the_rule():
    assert (PUMPED, PUMPED_BELLY, DRY, DRY_BELLY) == (200.0, 120.0, 625.0, 200.0)


@pytest.mark.parametrize(("cut", "most"), [("pork-shoulder", 200.0), ("pork-belly", 120.0)])
def test_nitrite_is_what_stays_of_it_on_raw_meat_and_refused_beyond_the_limit(cut, most):
    liquid = blend(("water/liquid", 97, "scale"), ("curing-salt/fine", 3, "scale"), kind="injection")

    def nitrite(pump: float) -> float:
        # of 2 kg; the curing salt is 6.25 % sodium nitrite, and the pump is what stays
        piece = Piece(cut, 2000)
        read_coat(Seasoned("A", piece, (Layer("injection", liquid, pump, 24 * HOUR),)), cored=False)
        return pump / 100 * 2000 * 0.03 * 0.0625 * 1e6 / 2000

    just = most / (0.03 * 0.0625 * 1e4)
    assert nitrite(just * 0.99) == pytest.approx(most * 0.99)
    with pytest.raises(BadInput) as refusal:
        nitrite(just * 1.01)
    assert refusal.value.argument == "layers.0.dose"
    what = "belly" if cut == "pork-belly" else "meat"
    assert f"limit for pumped or immersed {what} is {most:.0f}" in str(refusal.value)


@pytest.mark.parametrize(
    ("kind", "cut", "most"),
    [("injection", "pork-shoulder", PUMPED), ("injection", "pork-belly", PUMPED_BELLY), ("rub", "pork-shoulder", DRY),
     ("rub", "pork-belly", DRY_BELLY)],
)  # fmt: skip
def test_as_much_nitrite_as_the_limit_is_still_within_it(kind, cut, most):
    cure = read_blend(blend(("curing-salt/fine", 1, "scale")))

    def brought(dose_g: float) -> list[float]:
        put = SimpleNamespace(blend=cure, dose_g=dose_g, layer=SimpleNamespace(kind=kind))
        return nitrite_of([put], [1.0], 1000, cut)

    grams = most / 1000 / 0.0625  # on a kilogram
    assert brought(grams) == [most]
    with pytest.raises(BadInput):
        brought(grams * 1.001)
    # each way of curing has a limit of its own, each layer counts to it
    half = SimpleNamespace(blend=cure, dose_g=grams / 2, layer=SimpleNamespace(kind=kind))
    assert nitrite_of([half, half], [1.0, 1.0], 1000, cut) == [most / 2, most / 2]
    with pytest.raises(BadInput) as refusal:
        nitrite_of([half, half, half], [1.0, 1.0, 1.0], 1000, cut)
    assert refusal.value.argument == "layers.2.dose"


def test_phosphate_is_a_share_of_raw_meat():
    liquid = blend(("water/liquid", 94, "scale"), ("phosphate/fine", 6, "scale"), kind="injection")
    piece = Piece("pork-shoulder", 2000)

    def cautions(pump: float) -> set[str]:
        found = read_coat(Seasoned("A", piece, (Layer("injection", liquid, pump, 24 * HOUR),)), cored=False)
        return {caution.id for caution in found.cautions}

    # 6 % of a liquid of which 8.33 % of the meat stays are 0.5 % of it
    assert "phosphate" not in cautions(8.3)
    assert "phosphate" in cautions(8.4)


def test_a_thin_cuts_salt_agrees_with_a_hand_calculation():
    # a rack of 1.1 kg, 0.3 of it bone, 5 g of salt on 100 cm2 of which nine tenths stay
    from ravska_core.catalogue import catalogue
    from ravska_core.meat import read_piece

    cut = catalogue().cuts["pork-ribs"]
    middling = (cut.usual_low_g + cut.usual_high_g) / 2
    area = read_piece(Piece("pork-ribs", middling)).coatable.value
    by_hand = 5 * area / 100 * 0.9 / (middling * (1 - cut.bone_share)) * 100
    assert thin_cut_salt.__wrapped__() == pytest.approx(by_hand)

"""Every caution of a coat, on and off, each judged from a situation. Work.md, cautions; clocks in test_clocks."""

import dataclasses
from fractions import Fraction

import pytest
from builders import blend
from ravska_core.blend import Line
from ravska_core.blend.swap import swaps
from ravska_core.catalogue import match
from ravska_core.cautions import Clocks, Situation, cautions_for
from ravska_core.cautions.rules import _RULES
from ravska_core.coat import Layer, Seasoned, plain, read_coat
from ravska_core.meat import Piece

HOUR, DAY = 3600.0, 86_400.0
GARLIC = {"flags": frozenset({"raw_allium"}), "fat_share": 0.5}
ENZYME = {"flags": frozenset({"protease"})}

# each rule of the cautions, on and off
CAUTIONS = {
    "cure": ({"flags": frozenset({"cure"})}, {}),
    "garlic-oil": (GARLIC | {"on_s": 4.1 * DAY}, GARLIC | {"on_s": 4 * DAY}),
    "garlic-oil-cold": (GARLIC | {"on_s": 1.1 * DAY}, GARLIC | {"on_s": DAY}),
    "garlic-oil-today": (GARLIC | {"on_s": 2 * HOUR}, {"flags": frozenset({"raw_allium"}), "fat_share": 0.05}),
    "warm-hold": ({"clocks": Clocks(off_cold_s=2.5 * HOUR)}, {"clocks": Clocks(off_cold_s=2 * HOUR)}),
    "warm-bath": ({"clocks": Clocks(bath_s=2 * HOUR)}, {"clocks": Clocks(bath_s=HOUR)}),
    "raw-long": (
        {"animal": "duck", "clocks": Clocks(raw_s=3 * DAY)},
        {"animal": "lamb", "clocks": Clocks(raw_s=3 * DAY)},
    ),
    "raw-too-long": (
        {"animal": "fish", "clocks": Clocks(raw_s=5 * DAY)},
        {"animal": "fish", "clocks": Clocks(raw_s=3 * DAY)},
    ),
    "acid-24h": (
        {"has_marinade": True, "acid": True, "hold_s": 25 * HOUR},
        {"has_marinade": True, "acid": True, "hold_s": 23 * HOUR},
    ),
    "past-window": (
        {"has_marinade": True, "hold_s": 30 * HOUR, "window_high_s": 24 * HOUR},
        {"has_marinade": True, "hold_s": 2 * HOUR, "window_high_s": 2 * HOUR},
    ),
    "protease": (ENZYME | {"coated": True, "on_s": 2 * HOUR}, ENZYME | {"has_marinade": True, "on_s": HOUR}),
    "discard-or-boil": ({"has_marinade": True}, {"has_marinade": True, "boiled": True}),
    "rinse-splash": ({"animal": "quail", "rinsed": True}, {"animal": "pork", "rinsed": True}),
    "below-minimum-fish": ({"animal": "fish", "endpoint_c": 50.0}, {"animal": "beef", "endpoint_c": 50.0}),
    "centre-slow": ({"minced": True, "fire_s": 5 * HOUR}, {"fire_s": 5 * HOUR}),
    "surface-slow": ({"wet": True, "fire_s": 5 * HOUR}, {"wet": True, "fire_s": 4 * HOUR}),
    "over-salt": ({"salt_percent": 2.3}, {"salt_percent": 2.2}),
    "thin-salty": ({"thin": True, "salt_percent": 2.0}, {"thin": False, "salt_percent": 2.0}),
    "thin-end-salty": ({"thin_percent": 2.5, "salt_percent": 1.5}, {"thin_percent": 2.1, "salt_percent": 1.5}),
    "sodium": ({"sodium_mg": 2100}, {"sodium_mg": 1900}),
    "sodium-share": ({"sodium_mg": 1900}, {"sodium_mg": 300}),
    "needle": ({"injected": True}, {}),
    "drippings": ({"drippings": True}, {}),
    "inject-again": ({"again": True}, {"injected": True}),
    "not-intact": (
        {"animal": "lamb", "pierced": True, "endpoint_c": 57.0},
        {"animal": "lamb", "pierced": False, "endpoint_c": 57.0},
    ),
    "pierced": (
        {"animal": "lamb", "pierced": True, "endpoint_c": 63.0},
        {"animal": "lamb", "pierced": True, "endpoint_c": 57.0},
    ),
    "below-minimum": (
        {"animal": "beef", "endpoint_c": 54.0},
        {"animal": "beef", "endpoint_c": 62.78},  # 145 F
    ),
    "below-minimum-poultry": (
        {"animal": "duck", "endpoint_c": 60.0},
        {"animal": "duck", "endpoint_c": 73.9},  # 165 F
    ),
    "phosphate": ({"phosphate_percent": 0.51}, {"phosphate_percent": 0.5}),
    "enzyme-inside": (
        {"injected": True, "flags": frozenset({"protease"})},
        {"has_marinade": True, "flags": frozenset({"protease"})},
    ),
    "boil-first": ({"has_marinade": True, "boiled": True}, {"has_marinade": True}),
    "reserve": (
        {"has_marinade": True, "used_after": "baste", "reserve_short": True},
        {"has_marinade": True, "used_after": "baste"},
    ),
    "saturation": ({"brine_percent": 27.0}, {"brine_percent": 26.0}),
    "clog": ({"clogs": "juniper, cracked (2 mm)"}, {}),
    "thick": ({"thick": True}, {}),
    "dead-enzyme": (
        {"has_marinade": True, "flags": frozenset({"heat_treated"})},
        {"has_marinade": True, "flags": frozenset({"heat_treated", "protease"})},
    ),
    "falls-off": ({"coat_over_ceiling": True}, {}),
    "cold-hold": ({"clocks": Clocks(cold_s=2 * HOUR)}, {"clocks": Clocks(cold_s=HOUR / 2)}),
    "minimum-centre": ({"animal": "duck"}, {}),
    "allergens": ({"allergens": ("milk",)}, {}),
    "chilli-hands": ({"flags": frozenset({"chilli"})}, {}),
}


@pytest.mark.parametrize("rule", [rule.id for rule in _RULES])
def test_every_caution_shows_when_it_applies_and_only_then(rule):
    on, off = CAUTIONS[rule]
    found = {c.id: c for c in cautions_for(dataclasses.replace(Situation(), **on))}
    said = found[rule].action or found[rule].sentence
    assert said.endswith((".", "measure."))
    assert rule not in {c.id for c in cautions_for(dataclasses.replace(Situation(), **off))}


def test_what_is_not_intact_asks_for_more_where_the_animal_does():
    def goal(animal: str) -> str:
        return next(c for c in cautions_for(Situation(animal=animal, pierced=True)) if c.id == "pierced").action

    assert "63 °C (145 °F) for 3 min, or 68 °C (155 °F) for 17 s" in goal("lamb")
    assert "74 °C (165 °F)" in goal("turkey")
    assert "71 °C (160 °F)" in goal("venison")
    assert "local food authority" in goal("lamb")


def test_what_the_plan_meets_is_one_line_and_keeps_what_must_never_disappear():
    def said(rule: str, **known) -> tuple[str, str, str]:
        found = next(c for c in cautions_for(Situation(**known)) if c.id == rule)
        return found.level, found.sentence, found.action

    level, sentence, action = said("minimum-centre", animal="duck", endpoint_c=80.0)
    assert (level, action) == ("note", "")
    assert "74 °C (165 °F). Met if the centre reaches 74 °C (165 °F): measure; your local food authority" in sentence
    assert said("minimum-centre", animal="duck")[2].endswith("your local food authority's rules come first.")
    assert "Met if" not in said("minimum-centre", animal="duck", endpoint_c=70.0)[1]
    met = said("pierced", animal="lamb", pierced=True, endpoint_c=65.0)[1]
    assert met.startswith("Not intact: surface bacteria are inside now. Met if the centre reaches 63 °C (145 °F)")
    assert met.endswith("It stays there 3 min.")
    assert "3 min" not in said("pierced", animal="venison", pierced=True, endpoint_c=72.0)[1]
    level, sentence, action = said("discard-or-boil", has_marinade=True)
    assert (level, action) == ("note", "")
    assert sentence.startswith("Met if the bath is thrown away")
    assert said("cold-hold", clocks=Clocks(cold_s=16 * HOUR))[2] == ""


def test_fish_below_its_minimum_is_only_for_frozen_fish_and_searing_does_not_help():
    (found,) = (c for c in cautions_for(Situation(animal="fish", endpoint_c=48.0)) if c.id == "below-minimum-fish")
    assert "a seared outside does not help" in found.sentence
    assert "−20 °C (−4 °F) for 7 days" in found.action
    beef = next(c for c in cautions_for(Situation(animal="beef", endpoint_c=48.0)) if c.id == "below-minimum")
    assert "sear all of its surface" in beef.action


@pytest.mark.parametrize(
    ("known", "rule", "level", "says"),
    [
        ({"on_s": 3 * HOUR}, "garlic-oil-today", "note", "made for today"),
        ({"on_s": 3 * DAY}, "garlic-oil-cold", "caution", "for 3.0 days"),
        ({"on_s": 5 * DAY}, "garlic-oil", "stop", "more than 4 days"),
        ({"on_s": 3 * HOUR, "on_warm_s": 2.1 * HOUR}, "garlic-oil", "stop", "warm for more than 2 h"),
        ({"in_jar": True}, "garlic-oil", "stop", "in a jar that is not frozen"),
        ({"in_jar": True, "frozen": True}, "garlic-oil-today", "note", ""),
    ],
)
def test_raw_garlic_in_oil_is_told_by_how_it_is_kept(known, rule, level, says):
    found = [c for c in cautions_for(Situation(**GARLIC, **known)) if c.id.startswith("garlic-oil")]
    assert [(c.id, c.level) for c in found] == [(rule, level)]
    assert says in found[0].sentence


PESTO = blend(
    ("garlic-fresh/crushed", 1, "scale"),
    ("olive-oil/liquid", 3, "scale"),
    ("table-salt/fine", 1, "scale"),
    kind="paste",
)
GINGER = blend(("ginger-fresh/grated", 1, "scale"), ("table-salt/fine", 1, "scale"), kind="paste")
BATH = blend(("buttermilk/liquid", 9, "scale"), ("table-salt/fine", 1, "scale"), kind="marinade", batch_g=500)


def coat(*layers: Layer, piece: Piece | None = None) -> dict[str, tuple[str, int | None]]:
    found = read_coat(Seasoned("A", piece or Piece("lamb-shoulder", 2300), layers), cored=False)
    return {caution.id: (caution.level, caution.layer) for caution in found.cautions}


def test_a_layer_is_on_for_its_own_hold_and_those_after_it_until_a_bath_takes_it_off():
    paste, rub = Layer("paste", PESTO, 5, 20 * HOUR), Layer("rub", plain("paprika/powder"), 1, 6 * HOUR)
    assert coat(paste)["garlic-oil-today"][0] == "note"
    assert coat(paste, rub)["garlic-oil-cold"][0] == "caution"
    assert coat(paste, Layer("marinade", BATH, 250, 6 * HOUR), rub)["garlic-oil-today"][0] == "note"
    warm = dataclasses.replace(paste, hold_s=1.5 * HOUR, hold_c=21.0)
    assert coat(warm)["garlic-oil-today"][0] == "note"
    assert coat(warm, dataclasses.replace(rub, hold_s=HOUR, hold_c=21.0))["garlic-oil"][0] == "stop"
    # an enzyme works in paste and rub as in a bath
    assert coat(Layer("paste", GINGER, 5, 2 * HOUR))["protease"][0] == "caution"
    assert "protease" not in coat(Layer("paste", GINGER, 5, 0.9 * HOUR))
    assert coat(Layer("paste", GINGER, 5, 0.9 * HOUR), rub)["protease"][0] == "caution"


def test_boiling_reserve_needle_and_splash_stand_at_the_step_they_concern():
    bath = Layer("marinade", BATH, 250, 4 * HOUR)
    stock = blend(("stock/liquid", 19, "scale"), ("table-salt/fine", 1, "scale"), kind="injection")
    needle = Layer("injection", stock, 10, HOUR)
    first = Layer("pre-salt", plain("table-salt/fine"), 0.3, HOUR)
    found = coat(first, needle, dataclasses.replace(bath, eaten=0.5), Layer("baste", BATH, 1.5))
    assert found["needle"] == ("caution", 1)
    assert found["boil-first"] == ("caution", 2)
    assert found["reserve"] == ("caution", 2)
    assert found["minimum-centre"][1] is None
    duck = coat(first, dataclasses.replace(bath, after="rinsed"), piece=Piece("duck-leg", 1100, 4))
    assert duck["rinse-splash"] == ("caution", 1)
    assert duck["discard-or-boil"] == ("note", 1)
    # a bath that goes into the pot is eaten too
    pot = Layer("cooking liquid", plain("stock/liquid"), 300, 2 * HOUR, 90.0)
    assert coat(dataclasses.replace(bath, into_pot=True), pot)["boil-first"] == ("caution", 0)


def test_a_bath_past_its_window_warns_however_long_and_in_warm_water_the_window_is_short():
    mild = blend(("water/liquid", 19, "scale"), ("table-salt/fine", 1, "scale"), kind="marinade", batch_g=500)
    steak = Piece("beef-rib-steak", 400)
    assert "past-window" in coat(Layer("marinade", mild, 250, 40 * HOUR), piece=steak)
    sharp = blend(("cider-vinegar/liquid", 1, "scale"), ("water/liquid", 1, "scale"), kind="marinade", batch_g=500)
    assert {"past-window", "acid-24h"} <= set(coat(Layer("marinade", sharp, 250, 30 * HOUR)))
    # at 54.4 C a bath works 2^(50.4/10) = 33 times as fast as at 4 C
    cold, warm = (
        read_coat(Seasoned("A", steak, (Layer("marinade", sharp, 250, HOUR, celsius),)), cored=False).layers[0].window
        for celsius in (4.0, 54.4)
    )
    assert warm.limits.long_high_min == pytest.approx(cold.limits.long_high_min / 2**5.04, rel=1e-6)
    assert "at 54 °C it works about 33 times as fast" in warm.because
    assert "past-window" in coat(Layer("marinade", sharp, 250, 0.2 * HOUR, 54.4), piece=steak)


def test_a_cure_is_never_offered_for_a_seasoning():
    for said in ("pink salt", "cure", "himalayan pink salt", "sea salt pink"):
        named = match(said)
        assert "curing-salt/fine" not in (named.grind, *named.closest)
    assert match("pink curing salt").grind == "curing-salt/fine"
    offered = swaps(Line("table-salt/fine", Fraction(1), "scale"))
    assert offered
    assert not any("curing" in swap.line.grind for swap in offered)


@pytest.mark.parametrize(
    ("known", "rule", "words"),
    [
        ({"sodium_mg": 1000.0}, "sodium-share", "puts 1,000 mg of sodium into a serving: 50 % of the 2,000 mg"),
        ({"sodium_mg": 1000.0}, "sodium-share", "43 % of the US guideline's 2,300 mg"),
        ({"sodium_mg": 2100.0}, "sodium", "puts 2,100 mg of sodium into a serving"),
        ({"animal": "duck", "clocks": Clocks(raw_s=3 * DAY)}, "raw-long", "Raw for 3.0 days: duck is usually kept"),
        ({"animal": "duck", "clocks": Clocks(raw_s=3 * DAY)}, "raw-long", "for at most 2. Cook it earlier, or freeze"),
        ({"animal": "goat", "clocks": Clocks(raw_s=6 * DAY)}, "raw-long", "from 10 days on do not eat it"),
        ({"animal": "beef", "minced": True, "clocks": Clocks(raw_s=5 * DAY)}, "raw-too-long",
         "Raw for 5.0 days: twice as long as minced beef is usually kept cold, 2 days"),
        ({"animal": "quail", "endpoint_c": 60.0}, "below-minimum-poultry",
         "60 °C (140 °F) in the centre is below the usual minimum for quail, 74 °C (165 °F)"),
        ({"animal": "beef", "pierced": True, "endpoint_c": 55.0}, "not-intact",
         "and 55 °C (131 °F) in the centre is too low for it. Bring the centre to 63 °C (145 °F) for 3 min"),
        ({"animal": "venison", "pierced": True, "endpoint_c": 63.0}, "not-intact", "the centre to 71 °C (160 °F)"),
        ({"has_marinade": True, "hold_s": 2 * HOUR, "window_high_s": HOUR, "hold_c": 57.0}, "past-window",
         "in this marinade at 57 °C: 1 h. Shorten the hold, or hold it in the cold."),
        ({"has_marinade": True, "hold_s": 30 * HOUR, "window_high_s": 24 * HOUR, "hold_c": 4.0}, "past-window",
         "in this marinade: 24 h. Shorten the hold, and let the rest of the time pass without it."),
        ({"has_marinade": True, "acid": True, "hold_s": 9 * HOUR, "window_high_s": 8 * HOUR}, "past-window",
         "or weaken the acid."),
        ({"clocks": Clocks(bath_s=2 * HOUR)}, "warm-bath", "it is above 32 °C (90 °F) for 2 h"),
        ({"clocks": Clocks(off_cold_s=1.5 * HOUR, bath_s=0.75 * HOUR)}, "warm-bath", "off the cold for 2 h 15 min"),
        ({"clocks": Clocks(off_cold_s=1.5 * HOUR, bath_s=0.75 * HOUR)}, "warm-bath", "or shorten it; 4 h in all is"),
        ({"clocks": Clocks(off_cold_s=2.5 * HOUR)}, "warm-hold", "Raw, it is off the cold for 2 h 30 min in all"),
        ({"clocks": Clocks(off_cold_s=1.5 * HOUR, off_cold_hot_s=1.25 * HOUR)}, "warm-hold",
         "Raw, it is above 32 °C (90 °F) for 1 h 15 min"),
        ({"clocks": Clocks(off_cold_s=HOUR, bath_s=3.5 * HOUR)}, "warm-hold",
         "off the cold for 4 h 30 min, bench, bag and bath together"),
        ({"clocks": Clocks(thawed_warm=True)}, "warm-hold", "It is thawed in warm water"),
        ({"phosphate_percent": 0.75}, "phosphate", "0.75 % phosphate of the meat's weight"),
        ({"thin_percent": 2.51, "salt_percent": 1.5}, "thin-end-salty", "The thin end comes to 2.51 % salt"),
        (GARLIC | {"on_s": 3 * DAY}, "garlic-oil-cold", "lie in oil for 3.0 days"),
        (GARLIC | {"on_s": HOUR, "on_warm_s": 2.5 * HOUR}, "garlic-oil", "in oil, warm for more than 2 h"),
        (GARLIC | {"on_s": 5 * DAY}, "garlic-oil", "in oil, kept for more than 4 days"),
        (GARLIC | {"in_jar": True}, "garlic-oil", "in oil, in a jar that is not frozen"),
    ],
)  # fmt: skip
def test_a_caution_says_its_own_figures(known, rule, words):
    (found,) = cautions_for(Situation(**known), (rule,))
    assert words in f"{found.sentence} {found.action}"


def test_a_stop_and_the_caution_before_it_are_never_both_said():
    for days in range(1, 12):
        said = {c.id for c in cautions_for(Situation(animal="goat", clocks=Clocks(raw_s=days * DAY)))}
        assert ({"raw-long"} <= said) == (5 < days <= 10)
        assert ({"raw-too-long"} <= said) == (days > 10)
    for hours in range(1, 7):
        said = {c.id for c in cautions_for(Situation(clocks=Clocks(bath_s=hours * HOUR)))}
        assert ({"warm-bath"} <= said) == (1 < hours <= 4)
        assert ({"warm-hold"} <= said) == (hours > 4)

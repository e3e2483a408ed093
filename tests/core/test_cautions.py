"""Every caution of a coat, on and off, each judged from a situation. Work.md, cautions."""

import dataclasses

import pytest
from ravska_core import cautions
from ravska_core.cautions import Situation, cautions_for

HOUR = 3600.0

# each rule of the cautions, on and off
CAUTIONS = {
    "cure": ({"flags": frozenset({"cure"})}, {}),
    "garlic-oil": (
        {"flags": frozenset({"raw_allium"}), "fat_share": 0.5},
        {"flags": frozenset({"raw_allium"}), "fat_share": 0.05},
    ),
    "warm-hold": ({"warm_s": 2.5 * HOUR}, {"warm_s": 2 * HOUR}),
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
    "discard-or-boil": ({"has_marinade": True}, {"has_marinade": True, "boiled": True}),
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


def test_what_is_not_intact_asks_for_more_where_the_animal_does():
    def goal(animal: str) -> str:
        return next(c for c in cautions_for(Situation(animal=animal, pierced=True)) if c.id == "pierced").action

    assert "63 °C (145 °F) for 3 min, or 68 °C (155 °F) for 17 s" in goal("lamb")
    assert "74 °C (165 °F)" in goal("turkey")
    assert "71 °C (160 °F)" in goal("venison")
    assert "local food authority" in goal("lamb")

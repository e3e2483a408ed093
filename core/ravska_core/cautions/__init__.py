"""Cautions: judged from a situation that others describe; they import none of them."""

from ravska_core.cautions.clocks import COLD_C, COOKS_C, HOT_C, OFF_COLD_S, Clocks
from ravska_core.cautions.guidance import ANIMAL_CLASSES, minimum_centre_c
from ravska_core.cautions.heat_rules import (
    BATH_S,
    CENTRE_STOP_S,
    SAFE_C,
    SURFACE_S,
    HeatSituation,
    fire_cautions,
)
from ravska_core.cautions.judging import LEVELS, Caution, Rule, judge
from ravska_core.cautions.rules import BLEND_RULES, cautions_for
from ravska_core.cautions.situation import Situation

__all__ = [
    "ANIMAL_CLASSES",
    "BATH_S",
    "BLEND_RULES",
    "CENTRE_STOP_S",
    "COLD_C",
    "COOKS_C",
    "HOT_C",
    "LEVELS",
    "OFF_COLD_S",
    "SAFE_C",
    "SURFACE_S",
    "Caution",
    "Clocks",
    "HeatSituation",
    "Rule",
    "Situation",
    "cautions_for",
    "fire_cautions",
    "judge",
    "minimum_centre_c",
]

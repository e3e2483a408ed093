"""How people measure and say it: spoons, measures, amounts."""

from ravska_core.measure.amounts import (
    HIGHEST_PARTS,
    LOWEST_PARTS,
    Amount,
    parse_amount,
    parse_duration_s,
    parse_held_c,
    parse_hold_s,
    parse_keeping_days,
    parse_length_cm,
    parse_mass_g,
    parse_number,
    parse_parts,
    parse_temperature_c,
    read_number,
)
from ravska_core.measure.fire import (
    parse_fire_c,
    parse_grate_cm2,
    parse_height_m,
    parse_hotter_k,
    parse_phase_s,
    parse_sears_s,
    parse_spots_c,
)
from ravska_core.measure.measures import BY_EYE_ERROR, PACKS, SCALE_ERROR, SIZES, SPOON_ERROR, Measure, measures
from ravska_core.measure.numbers import ARTICLES, number_at
from ravska_core.measure.quantities import Quantity, phrase_at, quantity_at
from ravska_core.measure.several import MOST_WEIGHTS, parse_masses_g
from ravska_core.measure.spoons import SPOON_SETS, Spoonfuls, SpoonSet, measure_out, own_spoons, spoon_name
from ravska_core.measure.tokens import Token, tokens_of

__all__ = [
    "ARTICLES",
    "BY_EYE_ERROR",
    "HIGHEST_PARTS",
    "LOWEST_PARTS",
    "MOST_WEIGHTS",
    "PACKS",
    "SCALE_ERROR",
    "SIZES",
    "SPOON_ERROR",
    "SPOON_SETS",
    "Amount",
    "Measure",
    "Quantity",
    "SpoonSet",
    "Spoonfuls",
    "Token",
    "measure_out",
    "measures",
    "number_at",
    "own_spoons",
    "parse_amount",
    "parse_duration_s",
    "parse_fire_c",
    "parse_grate_cm2",
    "parse_height_m",
    "parse_held_c",
    "parse_hold_s",
    "parse_hotter_k",
    "parse_keeping_days",
    "parse_length_cm",
    "parse_mass_g",
    "parse_masses_g",
    "parse_number",
    "parse_parts",
    "parse_phase_s",
    "parse_sears_s",
    "parse_spots_c",
    "parse_temperature_c",
    "phrase_at",
    "quantity_at",
    "read_number",
    "spoon_name",
    "tokens_of",
]

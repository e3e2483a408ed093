"""How people measure and say it: spoons, measures, amounts."""

from ravska_core.measure.amounts import (
    HIGHEST_PARTS,
    LOWEST_PARTS,
    Amount,
    parse_amount,
    parse_duration_s,
    parse_held_c,
    parse_length_cm,
    parse_mass_g,
    parse_number,
    parse_parts,
    parse_temperature_c,
    read_number,
)
from ravska_core.measure.measures import BY_EYE, SCALE_ERROR, SIZES, SPOON_ERROR, Measure, measures
from ravska_core.measure.spoons import SPOON_SETS, Spoonfuls, SpoonSet, measure_out, own_spoons, spoon_name

__all__ = [
    "BY_EYE",
    "HIGHEST_PARTS",
    "LOWEST_PARTS",
    "SCALE_ERROR",
    "SIZES",
    "SPOON_ERROR",
    "SPOON_SETS",
    "Amount",
    "Measure",
    "SpoonSet",
    "Spoonfuls",
    "measure_out",
    "measures",
    "own_spoons",
    "parse_amount",
    "parse_duration_s",
    "parse_held_c",
    "parse_length_cm",
    "parse_mass_g",
    "parse_number",
    "parse_parts",
    "parse_temperature_c",
    "read_number",
    "spoon_name",
]

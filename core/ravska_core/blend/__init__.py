"""Blends: from parts to what a mixture by ratio comes to, how sure that is, and how it is changed."""

from ravska_core.blend.adapt import adapt
from ravska_core.blend.adapt_rules import Change
from ravska_core.blend.aim import aim
from ravska_core.blend.compare import differ, short
from ravska_core.blend.estimate import estimate, parse_label
from ravska_core.blend.findings import findings_of, flagged_share, nitrite_share
from ravska_core.blend.kept import AsRead, Corrections, as_read, by_todays_tables, corrections
from ravska_core.blend.label import Label
from ravska_core.blend.label_list import DRIED, read_ingredients
from ravska_core.blend.lines import (
    BASES,
    DEEPEST,
    DRY_KINDS,
    FIRES,
    HIGHEST_BATCH_G,
    HIGHEST_ERROR,
    KINDS,
    LOCKS,
    LOWEST_BATCH_G,
    MOST_LINES,
    Blend,
    Line,
    cycle_path,
)
from ravska_core.blend.method import MOST_STEPS, MethodStep, order_of, say_share
from ravska_core.blend.method_words import parse_lasts_s, parse_reduction, parse_step, say_step, usual_steps
from ravska_core.blend.needle import (
    BORE_MM,
    CLOGS_AT,
    SATURATION,
    THICK_BRIX,
    brine_share,
    clogging,
    sugar_of_water,
    syrup_viscosity,
)
from ravska_core.blend.nudge import nudge
from ravska_core.blend.parts import Part, check_blend, flatten, masses, mix, parts_of, same_mixture, shares
from ravska_core.blend.qualities import QUALITIES, heat_scale, heat_scoville, part_qualities, salt_percent
from ravska_core.blend.ratio_edits import (
    add_line,
    move_border,
    nudge_parts,
    remove_line,
    set_parts,
    switch_grind,
    unfold,
)
from ravska_core.blend.ratios import (
    TOTALS,
    WRITTEN,
    Ratio,
    exact_parts,
    restate,
    say_parts,
    settle,
    switch_basis,
    write_as,
)
from ravska_core.blend.reading import BlendReading, read_blend, read_salt
from ravska_core.blend.swap import swaps
from ravska_core.blend.targets import TARGET_LIMITS, TARGETS, Bound, Target, check_targets

__all__ = [
    "BASES",
    "BORE_MM",
    "CLOGS_AT",
    "DEEPEST",
    "DRIED",
    "DRY_KINDS",
    "FIRES",
    "HIGHEST_BATCH_G",
    "HIGHEST_ERROR",
    "KINDS",
    "LOCKS",
    "LOWEST_BATCH_G",
    "MOST_LINES",
    "MOST_STEPS",
    "QUALITIES",
    "SATURATION",
    "TARGETS",
    "TARGET_LIMITS",
    "THICK_BRIX",
    "TOTALS",
    "WRITTEN",
    "AsRead",
    "Blend",
    "BlendReading",
    "Bound",
    "Change",
    "Corrections",
    "Label",
    "Line",
    "MethodStep",
    "Part",
    "Ratio",
    "Target",
    "adapt",
    "add_line",
    "aim",
    "as_read",
    "brine_share",
    "by_todays_tables",
    "check_blend",
    "check_targets",
    "clogging",
    "corrections",
    "cycle_path",
    "differ",
    "estimate",
    "exact_parts",
    "findings_of",
    "flagged_share",
    "flatten",
    "heat_scale",
    "heat_scoville",
    "masses",
    "mix",
    "move_border",
    "nitrite_share",
    "nudge",
    "nudge_parts",
    "order_of",
    "parse_label",
    "parse_lasts_s",
    "parse_reduction",
    "parse_step",
    "part_qualities",
    "parts_of",
    "read_blend",
    "read_ingredients",
    "read_salt",
    "remove_line",
    "restate",
    "salt_percent",
    "same_mixture",
    "say_parts",
    "say_share",
    "say_step",
    "set_parts",
    "settle",
    "shares",
    "short",
    "sugar_of_water",
    "swaps",
    "switch_basis",
    "switch_grind",
    "syrup_viscosity",
    "unfold",
    "usual_steps",
    "write_as",
]

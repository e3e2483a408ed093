"""Blind trials: their design, cards, tests and verdict."""

from ravska_core.trial.confounds import ArmRecord, Difference, FairTest, compare_arms
from ravska_core.trial.design import blind_codes, serving_order
from ravska_core.trial.tasting import JUST_RIGHT, LIKING_SCALES, MOST_CARDS, PLANNED_CARDS, SALT_SCALE, scale_limits
from ravska_core.trial.verdict import mean_liking, read_verdict

__all__ = [
    "JUST_RIGHT",
    "LIKING_SCALES",
    "MOST_CARDS",
    "PLANNED_CARDS",
    "SALT_SCALE",
    "ArmRecord",
    "Difference",
    "FairTest",
    "blind_codes",
    "compare_arms",
    "mean_liking",
    "read_verdict",
    "scale_limits",
    "serving_order",
]

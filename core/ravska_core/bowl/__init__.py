"""From formula to bowl: weighed, measured, corrected, shared out."""

from ravska_core.bowl.correcting import TASTES, Change, Correction, corrections
from ravska_core.bowl.measuring import JARS_ML, JarFit, Rounding, jar_fill_percent, jar_for, rounding, spoon_batch
from ravska_core.bowl.mixing import batch_for_dose_g, to_mix
from ravska_core.bowl.scale import READINGS_A_SECOND, ScaleSettings, SimulatedScale
from ravska_core.bowl.sharing import MOST_USES, Use, mass_inside, share_out
from ravska_core.bowl.weighing import RESCUES, Rescue, Stand, allowed_g, as_weighed, rescues, stand, weigh_order

__all__ = [
    "JARS_ML",
    "MOST_USES",
    "READINGS_A_SECOND",
    "RESCUES",
    "TASTES",
    "Change",
    "Correction",
    "JarFit",
    "Rescue",
    "Rounding",
    "ScaleSettings",
    "SimulatedScale",
    "Stand",
    "Use",
    "allowed_g",
    "as_weighed",
    "batch_for_dose_g",
    "corrections",
    "jar_fill_percent",
    "jar_for",
    "mass_inside",
    "rescues",
    "rounding",
    "share_out",
    "spoon_batch",
    "stand",
    "to_mix",
    "weigh_order",
]

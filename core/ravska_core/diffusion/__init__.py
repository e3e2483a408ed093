"""Salt in meat, and nothing else."""

from ravska_core.diffusion.column import (
    Array,
    Column,
    at_depths,
    bath_depth_cm,
    column_of,
    diffuse,
    even,
    reach_share,
    soak,
)
from ravska_core.diffusion.depth import DIFFUSIVITY_BAND, diffusivity_m2_s, lattice_evenness, reach_cm

__all__ = [
    "DIFFUSIVITY_BAND",
    "Array",
    "Column",
    "at_depths",
    "bath_depth_cm",
    "column_of",
    "diffuse",
    "diffusivity_m2_s",
    "even",
    "lattice_evenness",
    "reach_cm",
    "reach_share",
    "soak",
]

"""Warming again what is left of a piece."""

import math
from dataclasses import replace

from ravska_core.heat.cookers import cooker_for
from ravska_core.heat.heated import FRIDGE_C, Heated, body_of
from ravska_core.heat.phases import Phase, legs_of
from ravska_core.heat.run import run


def warmed_s(heated: Heated, share: float, oven_c: float, centre_c: float) -> float | None:
    """Determine how long what is left of a piece takes from the fridge to a centre, covered in the oven [s].

    It is as thick as the piece was by the cube root of `share`, the part of it that is left. None where it never does.
    """
    body = body_of(heated)
    body = replace(body, half_m=float(body.half_m) * share ** (1 / 3), start_c=FRIDGE_C)
    oven = Phase("oven", oven_c, "foil", centre_c=centre_c)
    took = float(run(body, legs_of((oven,), (cooker_for("oven"),), heated.boils_c)).ended_s[0])
    return took if math.isfinite(took) else None

"""How far a heat run may be off: its numbers drawn at once, and what comes out as twenty grains."""

import math
from collections.abc import Mapping
from dataclasses import replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.stats import norm, qmc

from ravska_core.heat.solver import Body
from ravska_core.heat.trade import Factor

Array = NDArray[np.float64]

DRAWS, GRAINS = 64, 20

_SPREADS = {
    "ln h": 0.3, "logit reaches": 0.5, "dew": 8.0, "start": 1.5, "ln R": 0.08, "ln k": 0.07, "fire": 1.0,
    "ln crust": 0.8, "m": 0.12, "ln slower": 1.0,
}  # fmt: skip
"""How far each number spreads, one standard deviation (estimates, tried against a hundred cooks of another model)."""

CRUST_M = 0.02e-3
"""Depth of dried crust that halves what evaporates (estimate, 0.01 to 0.03 mm)."""


@lru_cache(maxsize=2)
def _normals(draws: int) -> Array:
    """Return standard normals, a row a draw and a column a number, evenly spread; the first draw is the middle."""
    even = qmc.Sobol(len(_SPREADS), seed=1).random(draws)
    found: Array = norm.ppf(np.clip(even, 1e-3, 1 - 1e-3))
    found[0] = 0.0
    return found


def middle_of(body: Body, trade: Factor) -> Body:
    """Return a piece as it most likely is: the factor of its cut, and a crust that hinders drying."""
    return replace(body, slower=trade.factor, crust_m=CRUST_M)


def draws_of(body: Body, trade: Factor, draws: int = DRAWS) -> Body:
    """Return a piece with its numbers drawn as far as each may be off, the first draw as it most likely is."""
    z = dict(zip(_SPREADS, (_normals(draws) * np.array(list(_SPREADS.values()))).T, strict=True))
    return with_numbers(body, trade, z)


def with_numbers(body: Body, trade: Factor, off: Mapping[str, Array]) -> Body:
    """Return a piece with its numbers off by so much: `off` by their names, those left out as they are."""
    reaches = np.log(float(body.reaches) / (1 - float(body.reaches))) + off["logit reaches"]
    return replace(
        body,
        half_m=float(body.half_m) * np.exp(off["ln R"]),
        exponent=np.maximum(0.0, float(body.exponent) + off["m"]),
        start_c=float(body.start_c) + off["start"],
        reaches=1 / (1 + np.exp(-reaches)),
        h_factor=np.exp(off["ln h"]),
        k_factor=np.exp(off.get("ln k", np.zeros(1))),
        dew_shift=off["dew"],
        fire_shift=off["fire"],
        slower=trade.factor * np.exp(trade.spread * off["ln slower"]),
        crust_m=CRUST_M * np.exp(off["ln crust"]),
    )


_PHYSICS_SPREAD, _LATEST = 0.2, 2.4


def patience_for(trade: Factor) -> float:
    """Return how many times as long as the most likely draw the slowest are waited for: all but one in a hundred."""
    return math.exp(_LATEST * math.hypot(_PHYSICS_SPREAD, trade.spread))


def grains(values: Array) -> tuple[float | None, ...]:
    """Return twenty chances in twenty of draws, in order: their quantiles; None where it never came to it."""
    known = np.sort(values[np.isfinite(values)])
    at = (np.arange(GRAINS) + 0.5) / GRAINS * len(values) - 0.5
    return tuple(
        float(np.interp(one, np.arange(len(known)), known)) if len(known) and one <= len(known) - 0.5 else None
        for one in at
    )

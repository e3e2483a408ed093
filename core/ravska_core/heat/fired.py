"""What its phases do to a seasoned piece besides cooking it: what is left of it, salt that moves, water that dries."""

import math
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ravska_core.coat import OnFire, evaporation_kg_m2_s
from ravska_core.diffusion import diffusivity_m2_s
from ravska_core.heat.chances import middle_of
from ravska_core.heat.cookers import Cooker, kitchen
from ravska_core.heat.heated import Heated, body_of, last_hot, legs_of_heated, planned
from ravska_core.heat.phases import Phase
from ravska_core.heat.run import HeatRun, run
from ravska_core.heat.solver import Body
from ravska_core.heat.surface import Leg, Legs
from ravska_core.heat.trade import Factor, factor_of
from ravska_core.meat import Piece, find_cut, read_piece

Array = NDArray[np.float64]

_STEP = 0.02
"""Steps of depth that a run is reckoned at here, relative."""

_MOMENTS = 61
"""So many moments of a run are told, closer together at its beginning."""


def on_fire_of(piece: Piece, phases: Sequence[Phase], cookers: Sequence[Cooker]) -> OnFire:
    """Determine what its phases do to a seasoned piece, by the most likely run.

    Raises
    ------
    BadInput
        As the piece or a phase is refused.
    """
    cut = find_cut(piece.cut)
    heated = Heated(piece, cut, read_piece(piece), tuple(phases), tuple(cookers), height_m=kitchen().height_m)
    phases, _ = planned(heated)
    body = body_of(heated)
    # as deep as the nearest step of 2 %: while a weight is typed it is the same run, and what it says as good
    depth = math.exp(round(math.log(float(body.half_m)) / _STEP) * _STEP)
    near = replace(body, half_m=depth, exponent=round(float(body.exponent), 1), start_c=round(float(body.start_c)))
    liquid = tuple(at for at, phase in enumerate(phases) if phase.surround == "covered liquid")
    return _on_fire(near, factor_of(cut), legs_of_heated(heated, phases), liquid, last_hot(phases))


@lru_cache(maxsize=128)
def _on_fire(body: Body, trade: Factor, legs: tuple[Leg, ...], liquid: tuple[int, ...], last: int) -> OnFire:
    went = run(middle_of(body, trade), legs)
    times, phase = went.times_s[:, 0], np.array([leg.phase for leg in legs])[went.leg[:, 0]]
    in_liquid = np.isin(phase, liquid)
    told = times[-1] * np.linspace(0, 1, _MOMENTS) ** 2

    def at(rate: Array) -> tuple[float, ...]:
        summed = np.concatenate(([0.0], np.cumsum(np.diff(times) * rate[1:])))
        return tuple(np.interp(told, times, summed).tolist())

    moves = np.where(in_liquid, 0.0, [diffusivity_m2_s(celsius) * 1e4 for celsius in went.first_mean.tolist()])
    over = phase > last
    return OnFire(
        cook_yield=1 - float(went.loss[-1, 0]),
        times_s=tuple(told.tolist()),
        moved_cm2=at(moves),
        gives_off_kg_m2=at(_gives_off(went, legs)),
        off_s=float(times[max(0, int(over.argmax()) - 1)] if over.any() else times[-1]),
        pot_s=float(times[max(0, int(in_liquid.argmax()) - 1)]) if in_liquid.any() else None,
    )


def _gives_off(went: HeatRun, legs: Sequence[Leg]) -> Array:
    """Return what a wholly wet surface gives off at each row of a run [kg/m2 s], between two sides their mean."""
    sides = went.surface.shape[2]
    rows, leg = Legs(legs, sides), went.leg[:, 0]
    fire = np.repeat(rows.fire[leg][:, None], sides, axis=1)
    env = np.where(np.isnan(rows.env[leg]), fire, rows.env[leg])
    surface = np.minimum(went.surface[:, 0], 100.0)
    found = rows.dries[leg] * evaporation_kg_m2_s(surface, rows.dew[leg], rows.h_drying[leg], env)
    return np.asarray(found.mean(axis=1))

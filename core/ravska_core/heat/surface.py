"""What a surround does to a surface: heat by air, walls, flame, iron, water and foil, and the water it takes away.

q = h (T_env - T_s) + eps sigma (T_wall^4 - T_s^4) + flux - L E
E = w h / (rho c_p 0.9) (p_sat(T_s) - p_sat(T_dew)) / (R_v T_s), w = M / (M + 0.2)

Temperatures in °C, other quantities in SI units.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

STEFAN_BOLTZMANN = 5.670374e-8
"""[W/m2K4]"""

AIR_DENSITY_K, AIR_CAPACITY, LEWIS = 353.0, 1007.0, 0.9
"""Density of air times its absolute temperature [kg K/m3], its heat capacity [J/kgK], and Le^(2/3)."""

HALF_WET = 0.2
"""Store of water at which half a surface is wet [kg/m2] (estimate)."""

MOST_STORE = 1.5
"""What a surface holds before it runs off [kg/m2] (estimate)."""

EMISSIVITY = 0.9

FOIL_U, FOIL_RADIATES = 150.0, 0.7
"""Conductance from a wrap to the meat [W/m2K], and the share of walls' radiation it takes (estimates)."""


@dataclass(frozen=True)
class Side:
    """One side of a piece in its surround.

    `h` [W/m2K] couples it to `env_c` [°C], or to the fire where none is given; walls are as warm. `flux` radiates onto
    it besides [W/m2]. `dries` says whether water leaves it, over air with a dew point `dew_c` by `h_drying` [W/m2K];
    `wrapped` that it lies in foil or paper; `by_the_fire` that its h differs from one fire to the next.
    """

    h: float
    env_c: float | None = None
    emissivity: float = EMISSIVITY
    flux: float = 0.0
    dries: bool = True
    wrapped: bool = False
    h_drying: float | None = None
    dew_c: float = 40.0
    by_the_fire: bool = True


@dataclass(frozen=True)
class Leg:
    """A time during which a piece's surround stays as it is: its two sides, and when it ends.

    It ends after `lasts_s` [s]. Its whole phase, by its number, ends as soon as the centre reaches `until_c` [°C], the
    centre's tender dose `until_dose` [h at 82 °C], or every side `until_surface_c` [°C]. `fire_c` is the heat of the
    fire [°C], `fire_spread` how
    far that wanders [K], `spritz` the water put on when the leg begins [kg/m2].
    """

    fire_c: float
    sides: tuple[Side, Side]
    lasts_s: float = 7 * 86_400.0
    until_c: float | None = None
    until_dose: float | None = None
    until_surface_c: float | None = None
    spritz: float = 0.0
    phase: int = 0
    fire_spread: float = 0.0

    @property
    def lopsided(self) -> bool:
        """Whether its two sides are heated differently."""
        return self.sides[0] != self.sides[1]

    @property
    def timed(self) -> bool:
        """Whether it ends by time alone."""
        return self.until_c is None and self.until_dose is None and self.until_surface_c is None


class Legs:
    """Legs as arrays over legs and sides, to be looked up by the leg that each draw is in."""

    def __init__(self, legs: Sequence[Leg], sides: int) -> None:
        rows = [leg.sides[:sides] for leg in legs]
        self.h = np.array([[side.h for side in row] for row in rows])
        self.env = np.array([[np.nan if side.env_c is None else side.env_c for side in row] for row in rows])
        self.radiates = np.array([[side.emissivity for side in row] for row in rows]) * STEFAN_BOLTZMANN
        self.flux = np.array([[side.flux for side in row] for row in rows])
        self.dries = np.array([[float(side.dries) for side in row] for row in rows])
        self.wrapped = np.array([[side.wrapped for side in row] for row in rows])
        self.h_drying = np.array([[side.h if side.h_drying is None else side.h_drying for side in r] for r in rows])
        self.dew = np.array([[side.dew_c for side in row] for row in rows])
        self.by_the_fire = np.array([[side.by_the_fire for side in row] for row in rows])
        self.fire = np.array([leg.fire_c for leg in legs])
        self.fire_spread = np.array([leg.fire_spread for leg in legs])
        self.lasts = np.array([leg.lasts_s for leg in legs])
        self.until = np.array([np.inf if leg.until_c is None else leg.until_c for leg in legs])
        self.dose = np.array([np.inf if leg.until_dose is None else leg.until_dose for leg in legs])
        self.browns = np.array([np.inf if leg.until_surface_c is None else leg.until_surface_c for leg in legs])
        phases = np.array([leg.phase for leg in legs])
        # the first leg of the next phase; of the last phase, beyond its end
        self.next_phase = np.searchsorted(phases, phases, side="right")
        self.spritz = np.array([leg.spritz for leg in legs])

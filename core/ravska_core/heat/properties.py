"""What meat is as a thing that is heated: its conductivity, its heat capacity, the water it holds, and steam.

Temperatures in °C, other quantities in SI units.

References
----------
Y. Choi and M. R. Okos, *Effects of temperature and composition on the thermal properties of foods*, 1986, as printed
in the ASHRAE Refrigeration Handbook, chapter on thermal properties of foods (from memory).
R. G. M. van der Sman, *Moisture transport during cooking of meat: an analysis based on Flory-Rehner theory*, 2007
(from memory).
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from types import MappingProxyType

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

KELVIN = 273.15
R_VAPOUR = 461.5
"""Gas constant of water vapour [J/kgK]."""

_CONDUCTIVITY: Mapping[str, tuple[float, float, float]] = MappingProxyType(
    {
        "water": (5.7109e-1, 1.7625e-3, -6.7036e-6),
        "protein": (1.7881e-1, 1.1958e-3, -2.7178e-6),
        "fat": (1.8071e-1, -2.7604e-4, -1.7749e-7),
        "ash": (3.2962e-1, 1.4011e-3, -2.9069e-6),
    }
)
"""Conductivity of a constituent [W/mK]: a0 + a1 T + a2 T^2 (Choi and Okos)."""

_CAPACITY: Mapping[str, tuple[float, float, float]] = MappingProxyType(
    {
        "water": (4176.2, -9.0864e-2, 5.4731e-3),
        "protein": (2008.2, 1.2089, -1.3129e-3),
        "fat": (1984.2, 1.4733, -4.8008e-3),
        "ash": (1092.6, 1.8896, -3.6817e-3),
    }
)
"""Heat capacity of a constituent [J/kgK] (Choi and Okos)."""

_DENSITY: Mapping[str, tuple[float, float, float]] = MappingProxyType(
    {
        "water": (997.18, 3.1439e-3, -3.7574e-3),
        "protein": (1329.9, -0.5184, 0.0),
        "fat": (925.59, -0.41757, 0.0),
        "ash": (2423.8, -0.28063, 0.0),
    }
)
"""Density of a constituent [kg/m3] (Choi and Okos)."""

MEAT_FACTOR = 0.93
"""Conductivity of meat over that of its constituents side by side: heat runs across fibres as well (estimate)."""

_ASH, _PROTEIN_PER_WATER = 0.01, 0.215 / 0.745

RAW_WATER = 0.745
"""Water of ordinary raw lean meat, as a mass fraction (from memory)."""


@dataclass(frozen=True)
class Composition:
    """Meat as mass fractions that make up one."""

    water: float
    protein: float
    fat: float
    ash: float

    def items(self) -> tuple[tuple[str, float], ...]:
        return (("water", self.water), ("protein", self.protein), ("fat", self.fat), ("ash", self.ash))


def composition_of(water: float = RAW_WATER) -> Composition:
    """Return the composition of raw meat of a water share: protein goes with the water, the rest is fat (estimate)."""
    protein = _PROTEIN_PER_WATER * water
    return Composition(water, protein, max(0.0, 1 - water - protein - _ASH), _ASH)


def _at(row: tuple[float, float, float], celsius: Array) -> Array:
    return row[0] + celsius * (row[1] + celsius * row[2])


def conductivity_w_mk(meat: Composition, celsius: Array) -> Array:
    """Determine the conductivity of constituents side by side [W/mK]: k = sum v_i k_i, v_i their volume shares."""
    volumes = {name: share / _at(_DENSITY[name], celsius) for name, share in meat.items()}
    whole = np.sum(list(volumes.values()), axis=0)
    found: Array = np.sum([volumes[name] / whole * _at(_CONDUCTIVITY[name], celsius) for name in volumes], axis=0)
    return found


def heat_capacity_j_kgk(meat: Composition, celsius: Array) -> Array:
    """Determine the heat capacity [J/kgK]: c = sum x_i c_i, x_i the mass fractions."""
    found: Array = np.sum([share * _at(_CAPACITY[name], celsius) for name, share in meat.items()], axis=0)
    return found


@dataclass(frozen=True)
class Material:
    """Meat as a run takes it: k [W/mK] and c [J/kgK] as quadratics in T [°C], density [kg/m3], water held raw.

    `latent` is the heat of evaporation as a line in T [J/kg].
    """

    conductivity: tuple[float, float, float]
    capacity: tuple[float, float, float]
    density: float
    water: float = RAW_WATER
    latent: tuple[float, float] = (2.501e6, -2361.0)


@lru_cache(maxsize=64)
def material_of(water: float = RAW_WATER, density_kg_m3: float = 1060.0) -> Material:
    """Return raw meat of a water share as a material; c is a quadratic, k is fitted by one from 0 to 120 °C."""
    meat = composition_of(water)
    grid = np.linspace(0, 120, 61)
    k2, k1, k0 = np.polyfit(grid, conductivity_w_mk(meat, grid) * MEAT_FACTOR, 2)
    c2, c1, c0 = np.polyfit(grid, heat_capacity_j_kgk(meat, grid), 2)
    return Material((float(k0), float(k1), float(k2)), (float(c0), float(c1), float(c2)), density_kg_m3, water)


def saturation_pa(celsius: Array) -> Array:
    """Determine the saturation pressure of water [Pa] by Magnus' formula: 611.2 exp(17.62 T / (243.12 + T))."""
    found: Array = 611.2 * np.exp(17.62 * celsius / (243.12 + celsius))
    return found


GIVEN_UP = 0.345
"""Most water that meat gives up to heat, as a mass fraction of the raw (van der Sman)."""


def given_up(celsius: Array) -> Array:
    """Determine the water that meat has given up once it has been at T [kg/kg raw].

    It holds c(T) = 0.745 - 0.345 / (1 + 30 exp(-0.25 (T - 52))), given for meat of 0.745.
    """
    found: Array = GIVEN_UP / (1 + 30 * np.exp(-0.25 * (celsius - 52.0)))
    return found


def boiling_c(height_m: float) -> float:
    """Determine where water boils at a height above the sea [°C]: 3.3 °C lower every 1,000 m (common practice)."""
    return 100.0 - 3.3e-3 * height_m

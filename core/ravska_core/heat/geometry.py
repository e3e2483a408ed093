"""The depth that heat goes through: a solid as one dimension whose area shrinks inwards.

r runs over 0..R with an area like r^m, chosen so that volume to surface and the slowest mode of cooling are those of
the solid: R / (m + 1) = V / A and (j / R)^2 = lambda_1, j the first zero of the Bessel function of order (m - 1) / 2.
"""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import eigh
from scipy.optimize import brentq
from scipy.special import gamma, jv

from ravska_core.meat import BREAST_SHARE, Solid, area_and_volume

Array = NDArray[np.float64]

_DEGREE = 4
"""Highest degree of the trial functions of an ellipsoid, in squares of its axes."""

_MOST_EXPONENT, _ENDLESS = 8.0, 100.0


@dataclass(frozen=True)
class Lag:
    """One dimension with the lag of a solid: depth of its centre [m] and the exponent m of its area."""

    half_m: float
    exponent: float


def slowest_box(a: float, b: float, c: float) -> float:
    """Determine the slowest mode of a box of half sides a, b, c: (pi/2)^2 (1/a^2 + 1/b^2 + 1/c^2)."""
    return (math.pi / 2) ** 2 * (a**-2 + b**-2 + c**-2)


def slowest_cylinder(radius: float, half_length: float) -> float:
    """Determine the slowest mode of a cylinder: (2.4048 / radius)^2 + (pi / 2 half_length)^2."""
    return float((2.404826 / radius) ** 2 + (math.pi / 2 / half_length) ** 2)


@lru_cache(maxsize=1)
def _trial() -> tuple[Array, tuple[Array, Array, Array]]:
    """Return the mass and the three stiffness matrices of (1 - rho^2) xi^2i eta^2j zeta^2k in the unit ball."""
    powers = [
        (i, j, k)
        for i in range(_DEGREE + 1) for j in range(_DEGREE + 1 - i) for k in range(_DEGREE + 1 - i - j)
    ]  # fmt: skip

    def over_ball(p: Array) -> Array:
        """Integrate xi^p0 eta^p1 zeta^p2 of even powers over the ball."""
        half = (p + 1) / 2
        found: Array = np.prod(gamma(half), axis=-1) / gamma(half.sum(axis=-1) + 1)
        return found

    monomials = [np.array([[2 * i, 2 * j, 2 * k]] * 4) for i, j, k in powers]
    squares = np.array([[0, 0, 0], [2, 0, 0], [0, 2, 0], [0, 0, 2]])
    signs = np.array([1.0, -1.0, -1.0, -1.0])
    terms = [one + squares for one in monomials]
    size = len(terms)
    mass, stiff = np.zeros((size, size)), (np.zeros((size, size)), np.zeros((size, size)), np.zeros((size, size)))
    both = signs[:, None] * signs[None, :]
    for p, left in enumerate(terms):
        for q, right in enumerate(terms):
            added = left[:, None, :] + right[None, :, :]
            mass[p, q] = np.sum(both * over_ball(added))
            for axis in range(3):
                slopes = left[:, None, axis] * right[None, :, axis]
                lower = added.copy()
                lower[..., axis] = np.maximum(lower[..., axis] - 2, 0)
                stiff[axis][p, q] = np.sum(both * slopes * over_ball(lower))
    return mass, stiff


@lru_cache(maxsize=256)
def slowest_ellipsoid(a: float, b: float, c: float) -> float:
    """Determine the slowest mode of an ellipsoid of half axes a, b, c by Ritz's method.

    The trial functions are (1 - rho^2) xi^2i eta^2j zeta^2k, i + j + k <= 4, xi = x / a and so on.
    """
    mass, stiff = _trial()
    whole = stiff[0] / a**2 + stiff[1] / b**2 + stiff[2] / c**2
    return float(eigh(whole, mass, eigvals_only=True, subset_by_index=(0, 0))[0])


def _first_zero(order: float) -> float:
    """Return the first zero of the Bessel function J of an order from -1/2 to 7/2."""
    return float(brentq(lambda z: jv(order, z), order + 1.9, order + 4.0, xtol=1e-10))


@lru_cache(maxsize=512)
def equal_lag(volume: float, area: float, slowest: float) -> tuple[float, float]:
    """Determine R and m of a solid of volume V, area A and slowest mode lambda_1; R in the unit these are in.

    R / (m + 1) = V / A, (j / R)^2 = lambda_1.
    """
    reach = volume / area

    def over(exponent: float) -> float:
        return (_first_zero((exponent - 1) / 2) / ((exponent + 1) * reach)) ** 2 / slowest - 1

    # of a needle or a plate so long that its ends do nothing the exponent is at its end
    if over(0.0) <= 0:
        return reach, 0.0
    if over(_MOST_EXPONENT) >= 0:
        return (_MOST_EXPONENT + 1) * reach, _MOST_EXPONENT
    exponent = float(brentq(over, 0.0, _MOST_EXPONENT, xtol=1e-9))
    return (exponent + 1) * reach, exponent


def lag_of(solid: Solid, in_a_row: bool = False) -> Lag:
    """Determine the dimension of equal lag of one piece of a solid, or of many that touch each other in a row.

    A hollow bird is the ellipsoid of its breast, as deep as that on both sides: its cavity takes no heat (estimate).
    What touches in a row is a log without ends.
    """
    if in_a_row:
        solid = replace(solid, length_cm=_ENDLESS * solid.length_cm)
    length, width, thickness = solid.length_cm, solid.width_cm, solid.thickness_cm
    if solid.shape == "bird":
        thickness *= 2 * BREAST_SHARE
    if solid.shape in ("ellipsoid", "bird"):
        area, volume = area_and_volume("ellipsoid", length, width, thickness)
        slowest = slowest_ellipsoid(*sorted((length / 2, width / 2, thickness / 2)))
    elif solid.shape == "cylinder":
        area, volume = area_and_volume("cylinder", length, width, thickness)
        slowest = slowest_cylinder(math.sqrt(width * thickness) / 2, length / 2)
    else:
        area, volume = area_and_volume("box", length, width, thickness)
        slowest = slowest_box(length / 2, width / 2, thickness / 2)
    depth_cm, exponent = equal_lag(volume, area, slowest)
    return Lag(depth_cm / 100, exponent)

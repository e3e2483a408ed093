"""How far salt gets into meat: Fick's second law with an effective diffusivity."""

import math

import numpy as np

DIFFUSIVITY_M2_S = 2.5e-10
"""Effective diffusivity of salt in chilled meat at 4 C [m2/s]; literature spans about 2 to 4e-10 (from memory)."""

DIFFUSIVITY_BAND = (0.5, 2.0)
"""Factors on the diffusivity that the band of a result is drawn with."""

_ACTIVATION_J_MOL = 20_000.0

_GAS_J_MOL_K = 8.314462618

_REFERENCE_K = 277.15


def diffusivity_m2_s(temperature_c: float) -> float:
    """Determine the diffusivity of salt in meat [m2/s] at a temperature [C].

    D = D0 exp(-Ea/R (1/T - 1/T0)) with Ea = 20 kJ/mol (from memory) and T0 = 277.15 K.
    """
    kelvin = temperature_c + 273.15
    return DIFFUSIVITY_M2_S * math.exp(-_ACTIVATION_J_MOL / _GAS_J_MOL_K * (1 / kelvin - 1 / _REFERENCE_K))


def reach_cm(dt_cm2: float) -> float:
    """Determine how far salt has reached [cm], as people are shown it: 2 sqrt(D t), of diffusivity x time [cm2]."""
    return 2 * math.sqrt(dt_cm2)


def lattice_evenness(spacing_cm: float, dt_cm2: float, grid: str = "hexagonal") -> float:
    """Determine how even injected salt is: lowest over mean concentration between full-depth line sources.

    On an infinite lattice c / mean = sum over the reciprocal lattice of exp(-|G|^2 D t) cos(G r), lowest at the
    centre of a square, and of a triangle of the hexagonal lattice (Poisson summation of line sources).

    Parameters
    ----------
    spacing_cm : float
        Distance of neighbouring sites [cm].
    dt_cm2 : float
        Diffusivity times time [cm2].
    grid : str
        ``hexagonal`` or ``square``.
    """

    if dt_cm2 <= 0:
        return 0.0
    reduced = dt_cm2 / spacing_cm**2
    most = min(300, 2 + math.ceil(1.2 / math.sqrt(reduced)))
    n = np.arange(-most, most + 1)
    if grid == "square":
        line = float(np.sum(np.where(n % 2, -1.0, 1.0) * np.exp(-4 * math.pi**2 * n * n * reduced)))
        return max(0.0, line) ** 2
    h, k = np.meshgrid(n, n)
    squared = (16 * math.pi**2 / 3) * (h * h + h * k + k * k) * reduced
    return max(0.0, float(np.sum(np.exp(-squared) * np.cos(2 * math.pi * (h - k) / 3))))

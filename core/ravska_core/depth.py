"""How far salt gets into meat: Fick's second law with an effective diffusivity."""

import math

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


def sheet_uptake(fourier: float) -> float:
    """Determine the fractional uptake of a plane sheet from a constant bath on both faces.

    M_t / M_inf = 1 - sum 8 / ((2n+1)^2 pi^2) exp(-(2n+1)^2 pi^2 Dt / 4 l^2), with `fourier` = D t / l^2
    and l the half thickness. Below 0.05 the equivalent error-function series converges faster:
    2 sqrt(Dt/l^2) (1/sqrt(pi) + 2 sum (-1)^n ierfc(n l / sqrt(Dt))).

    References
    ----------
    J. Crank, The Mathematics of Diffusion, 2nd ed., 1975, equations 4.18 and 4.20.
    """
    if fourier <= 0:
        return 0.0
    if fourier < 0.05:
        root = math.sqrt(fourier)

        def ierfc(x: float) -> float:
            return math.exp(-x * x) / math.sqrt(math.pi) - x * math.erfc(x)

        tail = sum((1 if n % 2 == 0 else -1) * ierfc(n / root) for n in range(1, 6))
        return 2 * root * (1 / math.sqrt(math.pi) + 2 * tail)
    odd = [2 * n + 1 for n in range(40)]
    return 1 - sum(8 / (k * k * math.pi**2) * math.exp(-k * k * math.pi**2 * fourier / 4) for k in odd)


def reach_cm(time_s: float, temperature_c: float = 4.0) -> float:
    """Determine how far salt has reached [cm], as people are shown it: 2 sqrt(D t)."""
    return 2 * math.sqrt(diffusivity_m2_s(temperature_c) * time_s) * 100

"""Published solutions of diffusion, each an oracle for the column: series that share nothing with it."""

import math

from scipy.optimize import brentq


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


def sheet_centre(fourier: float) -> float:
    """Determine the centre of a plane sheet in a constant bath, as a share of balance: `fourier` = D t / l^2.

    c / c1 = 1 - 4/pi sum (-1)^n / (2n+1) exp(-(2n+1)^2 pi^2 Dt / 4 l^2).

    References
    ----------
    J. Crank, The Mathematics of Diffusion, 2nd ed., 1975, equation 4.17.
    """
    if fourier <= 1e-3:
        return 0.0
    terms = ((-1.0) ** n / (2 * n + 1) * math.exp(-((2 * n + 1) ** 2) * math.pi**2 * fourier / 4) for n in range(60))
    return 1 - 4 / math.pi * sum(terms)


def finite_source(depth_cm: float, thickness_cm: float, dt_cm2: float) -> float:
    """Determine c L / M at a depth [cm] below a face that held M g/cm2 at t = 0, the other face closed.

    By images, c L / M = L / sqrt(pi D t) sum exp(-(x + 2nL)^2 / 4Dt), which converges fast at short times; by
    cosines, 1 + 2 sum exp(-n^2 pi^2 Dt / L^2) cos(n pi x / L), at long ones.

    Parameters
    ----------
    dt_cm2 : float
        Diffusivity times time [cm2], above 0.

    References
    ----------
    J. Crank, The Mathematics of Diffusion, 2nd ed., 1975, equations 2.7 with 2.17, and 4.16 for the cosines.
    """
    reduced = dt_cm2 / thickness_cm**2
    if reduced < 0.2:
        images = range(-4, 5)
        near = sum(math.exp(-((depth_cm + 2 * n * thickness_cm) ** 2) / (4 * dt_cm2)) for n in images)
        return thickness_cm / math.sqrt(math.pi * dt_cm2) * near
    waves = range(1, 12)
    return 1 + 2 * sum(
        math.exp(-n * n * math.pi**2 * reduced) * math.cos(n * math.pi * depth_cm / thickness_cm) for n in waves
    )


def limited_bath_uptake(fourier: float, alpha: float) -> float:
    """Determine the fractional uptake of a plane sheet from a well-stirred bath that runs out of salt.

    M_t / M_inf = 1 - sum 2 alpha (1 + alpha) / (1 + alpha + alpha^2 q_n^2) exp(-q_n^2 Dt / l^2), where the q_n are
    the positive roots of tan q = -alpha q, and alpha = V_bath / (K V_meat). M_inf = alpha / (1 + alpha) of the salt.

    References
    ----------
    J. Crank, The Mathematics of Diffusion, 2nd ed., 1975, equations 4.37 to 4.39.
    """

    if fourier <= 0:
        return 0.0
    rest = 0.0
    for n in range(1, 400):
        low, high = (n - 0.5) * math.pi + 1e-10, n * math.pi
        root = float(brentq(lambda q: math.sin(q) + alpha * q * math.cos(q), low, high))
        term = 2 * alpha * (1 + alpha) / (1 + alpha + (alpha * root) ** 2) * math.exp(-root * root * fourier)
        rest += term
        if term < 1e-12:
            break
    return 1 - rest

"""How tough meat turns tender: collagen melts by time and temperature.

An estimate: the shape is Arrhenius', its heat and the doses of each feel are fitted to usual times of the trade.
"""

from collections.abc import Mapping
from types import MappingProxyType

import numpy as np
from numpy.typing import NDArray

from ravska_core.heat.properties import KELVIN

Array = NDArray[np.float64]

REFERENCE_C, _ACTIVATION_K = 82.0, 12_000.0
"""Temperature a dose is told at [°C], and activation energy over the gas constant [K], about 100 kJ/mol (estimates)."""

FEELS: Mapping[str, float] = MappingProxyType({"giving": 3.0, "like butter": 5.0})
"""Dose from which a tough cut feels so under a probe [h at 82 °C] (estimates)."""

TOUGH_BELOW_H = 1.5
"""Dose below which a tough cut is tough still [h at 82 °C] (estimate)."""


def rate(celsius: Array) -> Array:
    """Determine how much faster collagen melts than at 82 °C: exp(-12000 (1/T - 1/355.15)), T in kelvin."""
    found: Array = np.exp(-_ACTIVATION_K * (1 / (celsius + KELVIN) - 1 / (REFERENCE_C + KELVIN)))
    return found


def dose_h(times_s: Array, celsius: Array) -> Array:
    """Determine the tender dose along curves, a column each [h at 82 °C]: the integral of the rate."""
    rates = rate(celsius)
    steps = np.diff(times_s)[:, None] * (rates[1:] + rates[:-1]) / 2
    return np.vstack((np.zeros((1, celsius.shape[1])), np.cumsum(steps, axis=0))) / 3600


def feel_of(dose: float) -> str:
    """Say how a tough cut of a dose [h at 82 °C] feels under a probe."""
    if dose < TOUGH_BELOW_H:
        return "tough"
    reached = [word for word, least in FEELS.items() if dose >= least]
    return reached[-1] if reached else "firm"

"""When meat is done: the words for it, what a time at a temperature is worth, and the least that is usual.

Information only. Your local food authority's rules come first.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

import numpy as np
from numpy.typing import NDArray

from ravska_core.cautions import ANIMAL_CLASSES

Array = NDArray[np.float64]

_CREDIT = (
    (54.4, 112 * 60.0), (57.2, 36 * 60.0), (60.0, 12 * 60.0), (62.8, 4 * 60.0), (65.6, 67.0), (68.3, 22.0),
    (69.4, 14.0),
)  # fmt: skip
"""Temperature [°C] and how long it takes there for 6.5 log of Salmonella [s].

USDA FSIS, *Appendix A: compliance guidelines for meeting lethality performance standards* (from memory); intact
whole-muscle beef, lamb and pork.
"""

AT_ONCE_C = 70.0
"""From here on the credit is whole at once [°C] (Appendix A, from memory)."""

_CREDIT_STEP_S = 10.0


def credit_s(celsius: Array) -> Array:
    """Determine how long meat must be at a temperature for the whole credit [s].

    log tau goes by straight lines between the rows of Appendix A; inf below 54.4 °C, none from 70 °C on.
    """
    at = np.array([row[0] for row in _CREDIT])
    logs = np.log([row[1] for row in _CREDIT])
    tau = np.exp(np.interp(celsius, at, logs))
    found: Array = np.where(celsius < at[0], np.inf, np.where(celsius >= AT_ONCE_C, 0.0, tau))
    return found


def credit(times_s: Array, celsius: Array) -> float:
    """Determine the endpoint credit of a centre's curve: sum of dt / tau(T), 1 is whole; inf once it was at 70 °C."""
    if float(celsius.max()) >= AT_ONCE_C:
        return math.inf
    fine = np.arange(times_s[0], times_s[-1] + 1e-9, _CREDIT_STEP_S)
    middles = np.interp((fine[1:] + fine[:-1]) / 2, times_s, celsius)
    return float(np.sum(np.diff(fine) / credit_s(middles)))


def credited(animal: str, intact: bool) -> bool:
    """Tell whether the credit is given for an animal's meat: intact whole beef, veal, lamb, goat and pork."""
    return intact and ANIMAL_CLASSES.get(animal) == "red meat"


@dataclass(frozen=True)
class Done:
    """A word for how done meat is: what a school takes the centre to be [°C], when it has rested."""

    word: str
    school: str
    centre_c: float


_KITCHEN, _GUIDANCE, _LOW = "kitchens", "usual guidance", "slow cooks"

DONE: Mapping[str, tuple[Done, ...]] = MappingProxyType(
    {
        "red meat": (
            Done("rare", _KITCHEN, 50.0),
            Done("medium rare", _KITCHEN, 55.0),
            Done("medium rare", _GUIDANCE, 63.0),
            Done("medium", _KITCHEN, 60.0),
            Done("medium", _GUIDANCE, 71.0),
            Done("medium well", _KITCHEN, 66.0),
            Done("well done", _KITCHEN, 71.0),
            Done("well done", _GUIDANCE, 77.0),
            Done("sliced, tender", _LOW, 90.0),
            Done("pulled", _LOW, 95.0),
        ),
        "pork": (
            Done("just pink", _KITCHEN, 60.0),
            Done("just pink", _GUIDANCE, 63.0),
            Done("well done", _KITCHEN, 71.0),
            Done("well done", _GUIDANCE, 71.0),
            Done("sliced, tender", _LOW, 88.0),
            Done("pulled", _LOW, 95.0),
        ),
        "poultry": (
            Done("breast, juicy", _KITCHEN, 68.0),
            Done("breast, done", _GUIDANCE, 74.0),
            Done("legs, off the bone", _KITCHEN, 82.0),
            Done("legs, done", _GUIDANCE, 74.0),
        ),
        "duck": (
            Done("breast, rare", _KITCHEN, 52.0),
            Done("breast, pink", _KITCHEN, 57.0),
            Done("breast, done", _GUIDANCE, 74.0),
            Done("legs, off the bone", _KITCHEN, 85.0),
        ),
        "game": (
            Done("rare", _KITCHEN, 50.0),
            Done("pink", _KITCHEN, 56.0),
            Done("done", _GUIDANCE, 71.0),
            Done("pulled", _LOW, 95.0),
        ),
        "fish": (
            Done("glassy", _KITCHEN, 45.0),
            Done("just set", _KITCHEN, 52.0),
            Done("flakes", _GUIDANCE, 63.0),
        ),
        "minced": (Done("done", _GUIDANCE, 71.0), Done("done, of poultry", _GUIDANCE, 74.0)),
    }
)
"""Words for done by kind of meat and school (common practice, no source; guidance: usual US guidance, from memory)."""


def words_for(animal: str, minced: bool = False) -> tuple[Done, ...]:
    """Return what done is called of an animal's meat, each school's centre beside it."""
    if minced:
        return DONE["minced"]
    if animal in ("pork", "duck"):
        return DONE[animal]
    return DONE[ANIMAL_CLASSES.get(animal, "poultry")]

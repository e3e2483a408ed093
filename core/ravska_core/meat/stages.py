"""Where raw meat is held, stage by stage, and how long that makes it raw.

A hold is at a place with a temperature of its own. At 54.4 C or more it cooks, and only its warming up counts.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.cautions import COLD_C, COOKS_C, HOT_C, Clocks
from ravska_core.working import BadInput

_CONDUCTIVITY, _DIFFUSIVITY, _WATER_H = 0.5, 1.35e-7, 300.0
"""Meat's conductivity [W/mK] and thermal diffusivity [m2/s], and heat transfer of moved water [W/m2K] (estimates)."""

_LEFT = 0.1
"""What is warmed up has a tenth of the way to the bath's heat left (estimate)."""


@dataclass(frozen=True)
class Place:
    """Where meat is held: how it is said, its usual temperature and the coolest and warmest it can be [C]."""

    says: str
    usual_c: float
    low_c: float
    high_c: float


PLACES: Mapping[str, Place] = MappingProxyType(
    {
        "fridge": Place("in the fridge", 4.0, -2, 15),
        "cool box": Place("in a cool box", 4.0, -2, 20),
        "bench": Place("on the bench", 21.0, 4, 32),
        "outside": Place("outside on a hot day", 35.0, 4, 50),
        "warm water": Place("in a warm water bath", 57.0, 20, 95),
        "pot": Place("in the pot", 90.0, -2, 100),
    }
)
"""Places of a hold with their usual temperatures (common practice); the last is that of a cooking liquid."""

RAW_PLACES = tuple(key for key in PLACES if key != "pot")


def place_of(celsius: float) -> str:
    """Return the place of a hold that nobody named, by its temperature; of two that could be, the stricter one."""
    if celsius <= COLD_C:
        return "fridge"
    if celsius <= HOT_C:
        return "bench"
    return "outside" if celsius <= 45 else "warm water"


def check_place(place: str, celsius: float, places: Sequence[str] = RAW_PLACES) -> None:
    """Refuse a place that is none, or a temperature it cannot have.

    Raises
    ------
    BadInput
        At ``place`` or ``hold_c``.
    """
    found = PLACES.get(place)
    if found is None or place not in places:
        raise BadInput("place", f"It is held in one of these places: {', '.join(places)}; choose one.")
    if not found.low_c <= celsius <= found.high_c:
        raise BadInput(
            "hold_c",
            f"{found.says.capitalize()} it is between {found.low_c:g} and {found.high_c:g} °C "
            f"({found.low_c * 1.8 + 32:.0f} and {found.high_c * 1.8 + 32:.0f} °F); {found.usual_c:g} °C is usual.",
        )


STAGES = MappingProxyType({"thaw": "Thawed", "temper": "Taken out before the fire"})
"""What raw meat goes through beside its layers: before the first of them, and after the last."""


@dataclass(frozen=True)
class Stage:
    """A time that raw meat is kept: a layer's ``hold``, ``thaw`` or ``temper``; where, at [C], and how long [s]."""

    what: str
    place: str
    celsius: float
    lasts_s: float


def surface_warms_s() -> float:
    """Determine how long the surface of thick meat in moved water takes to warm up [s].

    What is left of the way is exp(x^2) erfc(x) with x = h sqrt(a t) / k, for a half space with a film.

    References
    ----------
    H. S. Carslaw, J. C. Jaeger, Conduction of Heat in Solids, 2nd ed., 1959, section 2.7.
    """
    low, high = 0.0, 20.0
    for _ in range(60):
        x = (low + high) / 2
        low, high = (x, high) if math.exp(x * x) * math.erfc(x) > _LEFT else (low, x)
    return (high * _CONDUCTIVITY / _WATER_H) ** 2 / _DIFFUSIVITY


def centre_warms_s(half_cm: float) -> float:
    """Determine how long the centre of a sheet of half thickness `half_cm` in moved water takes to warm up [s].

    4/pi exp(-pi^2 a t / 4 R^2) is left of the way: the first term of the series.

    References
    ----------
    J. Crank, The Mathematics of Diffusion, 2nd ed., 1975, equation 4.17 with heat for solute.
    """
    fourier = math.log(4 / math.pi / _LEFT) / (math.pi**2 / 4)
    return fourier * (half_cm / 100) ** 2 / _DIFFUSIVITY


def clocks_of(stages: Sequence[Stage], half_cm: float, intact: bool) -> Clocks:
    """Determine how long a piece is raw off the cold and in all, over all its stages in order.

    Parameters
    ----------
    half_cm : float
        Half its thickness [cm]; of meat that is not `intact` the centre must warm up, else the surface.
    """
    off = hot = bath = raw = cold = 0.0
    cooked = thawed_warm = False
    for stage in stages:
        lasts = stage.lasts_s
        thaw = stage.what == "thaw"
        thawed_warm = thawed_warm or (thaw and stage.place == "warm water")
        cooks = stage.place == "warm water" and stage.celsius >= COOKS_C and not thaw
        if cooks:
            lasts = 0.0 if cooked else min(lasts, surface_warms_s() if intact else centre_warms_s(half_cm))
        if stage.place == "warm water" and stage.celsius > HOT_C:
            bath += lasts
        elif stage.celsius > COLD_C:
            off += lasts
            hot += lasts if stage.celsius > HOT_C else 0.0
        else:
            cold += lasts
        # frozen meat keeps; what was cooked is raw no more
        raw += 0.0 if thaw or cooked else lasts
        cooked = cooked or cooks
    return Clocks(off, hot, bath, raw, cold, thawed_warm)

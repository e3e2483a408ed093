"""The clocks of raw meat: off the cold, warm in a water bath, raw at all. Every stage of a piece counts on them.

A hold is at a place with a temperature of its own. At 54.4 C or more it cooks, and only its warming up counts.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.working import BadInput

COLD_C, HOT_C, COOKS_C = 4.5, 32.0, 54.4
"""Cold up to here (40 F is 4.44 C), hot above 90 F, and the least heat that cooks (130 F) [C] (usual US guidance)."""

OFF_COLD_S, OFF_COLD_HOT_S = 2 * 3600.0, 3600.0
"""Most raw meat may be off the cold in all, and above 32 C [s] (usual US guidance, from memory)."""

BATH_CAUTION_S, BATH_STOP_S = 3600.0, 4 * 3600.0
"""From when raw meat in a warm bath is warned of, and stopped, bench and bag time included [s] (common practice)."""

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


@dataclass(frozen=True)
class Clocks:
    """How long a piece has been raw [s].

    `off_cold_s` above 4.5 C in air, `off_cold_hot_s` of that above 32 C; `bath_s` in a warm bath that does not cook
    it, and warming up in one that does; `raw_s` all of it, in the cold too, but the thaw. `thawed_warm` says that it
    was thawed in warm water, `cold_s` how long it was held cold.
    """

    off_cold_s: float = 0.0
    off_cold_hot_s: float = 0.0
    bath_s: float = 0.0
    raw_s: float = 0.0
    cold_s: float = 0.0
    thawed_warm: bool = False

    @property
    def warm_s(self) -> float:
        """All of it off the cold, bench and bath together [s]."""
        return self.off_cold_s + self.bath_s

    @property
    def hot_s(self) -> float:
        """All of it above 32 C [s]."""
        return self.off_cold_hot_s + self.bath_s

    @property
    def stops(self) -> bool:
        """Whether it was off the cold for longer than usual guidance allows."""
        return (
            self.off_cold_s > OFF_COLD_S
            or self.off_cold_hot_s > OFF_COLD_HOT_S
            or self.warm_s > BATH_STOP_S
            or self.thawed_warm
        )

    @property
    def warns(self) -> bool:
        """Whether a warm bath has it above 32 C, or off the cold in all, for longer than is warned of."""
        return self.bath_s > 0 and (self.hot_s > BATH_CAUTION_S or self.warm_s > OFF_COLD_S)


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

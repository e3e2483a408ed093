"""Cookers by kind, plain: what each usually does, to be corrected by who owns one. All of it is common practice."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType

from ravska_core.working import BadInput, in_range


@dataclass(frozen=True)
class Cooker:
    """A device that meat is cooked on or in.

    `surrounds` are what it can do; grate area [cm2]; usual range [°C]; `near_k` how much hotter its hot side is than
    where the heat is aimed at [K]; `recovers_s` how long its heat takes to come back once it was opened [s]; dew point
    inside [°C]; h [W/m2K]; `ready_s` from lighting it until it can be cooked on [s]; fuel [kg/h or kW], in `fuel_unit`.
    `uneven_k` is how far its heat differs over the grate, one standard deviation [K].
    """

    kind: str
    says: str
    surrounds: tuple[str, ...]
    grate_cm2: float
    low_c: float
    high_c: float
    near_k: float
    recovers_s: float
    dew_c: float
    h: float
    ready_s: float
    ready: str
    fuel: float
    fuel_unit: str
    uneven_k: float = 0.0


_PIT = ("indirect", "direct flame", "hot iron")


def _cooker(
    kind: str, says: str, surrounds: tuple[str, ...], grate_cm2: float, low_c: float, high_c: float, near_k: float,
    recovers_min: float, dew_c: float, h: float, ready_min: float, ready: str, fuel: float, fuel_unit: str,
) -> tuple[str, Cooker]:  # fmt: skip
    return kind, Cooker(
        kind, says, surrounds, grate_cm2, low_c, high_c, near_k, recovers_min * 60, dew_c, h, ready_min * 60, ready,
        fuel, fuel_unit,
    )  # fmt: skip


COOKER_KINDS: Mapping[str, Cooker] = MappingProxyType(
    dict(
        (
            _cooker("kettle", "kettle with a lid", _PIT, 2300, 105, 320, 25, 8, 38, 10, 30, "embers glow",
                    0.7, "kg charcoal/h"),
            _cooker("cabinet", "upright cabinet", ("indirect",), 4500, 90, 150, 8, 12, 45, 9, 45, "it holds its heat",
                    0.6, "kg charcoal/h"),
            _cooker("pellet grill", "pellet grill", ("indirect", "hot iron"), 4000, 80, 260, 10, 6, 36, 12, 20,
                    "it holds its heat", 0.6, "kg pellets/h"),
            _cooker("gas grill", "gas grill", _PIT, 3000, 110, 320, 30, 4, 34, 10, 15, "grates are hot",
                    8.0, "kW"),
            _cooker("offset", "offset with its fire beside", ("indirect", "direct flame"), 5500, 95, 180, 30, 12, 36,
                    11, 60, "embers lie and smoke is thin", 2.5, "kg wood/h"),
            _cooker("ceramic", "thick-walled ceramic", _PIT, 1600, 95, 380, 10, 6, 46, 8, 45, "its walls are warm",
                    0.35, "kg charcoal/h"),
            _cooker("hot iron", "iron plate or pan", ("hot iron",), 700, 120, 320, 0, 3, 30, 10, 10,
                    "water drops dance on it", 2.0, "kW"),
            _cooker("oven", "kitchen oven", ("oven", "indirect"), 1500, 50, 280, 0, 4, 32, 12, 15, "its lamp goes out",
                    1.2, "kW"),
            _cooker("broiler", "broiler of the oven", ("broiler", "oven"), 1500, 150, 300, 0, 3, 30, 12, 8,
                    "its bars glow", 2.5, "kW"),
            _cooker("water bath", "water bath with a heater", ("water bath",), 600, 40, 95, 0, 5, 40, 300, 25,
                    "the water is at its heat", 0.6, "kW"),
            _cooker("stove pot", "pot on the stove", ("covered liquid", "hot iron"), 500, 60, 100, 0, 3, 60, 400, 15,
                    "the liquid barely moves", 0.5, "kW"),
            _cooker("embers", "open embers", ("direct flame", "indirect"), 2500, 120, 400, 60, 1, 20, 12, 45,
                    "embers are grey", 1.5, "kg wood/h"),
        )
    )
)  # fmt: skip
"""Cookers by kind (common practice, no source)."""

_KIND_FOR: Mapping[str, str] = MappingProxyType(
    {
        "indirect": "kettle", "direct flame": "kettle", "hot iron": "hot iron", "oven": "oven", "broiler": "broiler",
        "covered liquid": "stove pot", "water bath": "water bath",
    }
)  # fmt: skip

DAMP: Mapping[str, float] = MappingProxyType({"dry": -8.0, "usual": 0.0, "damp": 10.0})
"""How much higher the dew point in a cooker is than is usual for its kind [K] (estimates)."""


@dataclass(frozen=True)
class OwnCooker:
    """A cooker of the household's own: its kind, and what of it is otherwise; None is as usual for the kind.

    `spots_c` is what was measured over its grate at one setting [°C]: the hottest of them over their mean is its hot
    side, unless `near_k` says that [K].
    """

    key: str
    name: str
    kind: str
    grate_cm2: float | None = None
    low_c: float | None = None
    high_c: float | None = None
    near_k: float | None = None
    recovers_s: float | None = None
    damp: str = "usual"
    ready_s: float | None = None
    fuel: float | None = None
    spots_c: tuple[float, ...] = ()


def cooker_of_own(own: OwnCooker) -> Cooker:
    """Return an own cooker as its kind with what was corrected of it.

    Raises
    ------
    BadInput
        At ``name``, ``kind``, ``damp``, ``range``, ``hotter`` or ``fuel``.
    """
    like = COOKER_KINDS.get(own.kind)
    if not own.name.strip():
        raise BadInput("name", "Give it a name.")
    if like is None:
        raise BadInput("kind", f"A cooker is one of these kinds: {', '.join(COOKER_KINDS)}; choose the nearest.")
    if own.damp not in DAMP:
        raise BadInput("damp", f"The air in it is {', '.join(DAMP)}.")
    given = {
        name: getattr(own, name)
        for name in ("grate_cm2", "low_c", "high_c", "near_k", "recovers_s", "ready_s", "fuel")
        if getattr(own, name) is not None
    }
    if own.spots_c:
        mean = sum(own.spots_c) / len(own.spots_c)
        given["uneven_k"] = math.sqrt(sum((one - mean) ** 2 for one in own.spots_c) / len(own.spots_c))
        given.setdefault("near_k", max(own.spots_c) - mean)
    made = replace(like, says=own.name.strip(), dew_c=like.dew_c + DAMP[own.damp], **given)
    if not made.low_c < made.high_c:
        raise BadInput("range", "Its range goes from a lower to a higher heat, for example 95 to 180 °C.")
    in_range("hotter", made.near_k, 0, 150, "A hot side is at most 150 °C (270 °F) hotter than where you aim.")
    in_range("fuel", made.fuel, 0, 100, "Fuel an hour lies between nothing and 100; check the unit.")
    return made


@dataclass(frozen=True)
class Kitchen:
    """Where the household cooks: its own cookers by their key, and how high above the sea that is [m]."""

    cookers: Mapping[str, Cooker]
    height_m: float = 0.0


NO_KITCHEN = Kitchen(MappingProxyType({}))

_kitchen = NO_KITCHEN


def take_kitchen(known: Kitchen) -> None:
    """Let heat be reckoned in this kitchen from now on."""
    global _kitchen
    _kitchen = known


def kitchen() -> Kitchen:
    """Return the kitchen that heat is reckoned in."""
    return _kitchen


def find_cooker(key: str, surround: str) -> Cooker:
    """Return a cooker by its kind or, of the household's own, its key; the usual one of a surround where none is said.

    Raises
    ------
    BadInput
        At ``cooker``.
    """
    if not key:
        return COOKER_KINDS[_KIND_FOR.get(surround, "kettle")]
    found = kitchen().cookers.get(key) or COOKER_KINDS.get(key)
    if found is None:
        raise BadInput("cooker", "This cooker is not in the book any more; choose another.")
    return found


def cooker_for(surround: str) -> Cooker:
    """Return the cooker that does a surround where nobody said which."""
    return find_cooker("", surround)

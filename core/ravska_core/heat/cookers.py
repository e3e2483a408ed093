"""Cookers by kind, plain: what each usually does, to be corrected by who owns one. All of it is common practice."""

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType


@dataclass(frozen=True)
class Cooker:
    """A device that meat is cooked on or in.

    `surrounds` are what it can do; grate area [cm2]; usual range [°C]; `near_k` how much hotter its hot side is than
    where the heat is aimed at [K]; `recovers_s` how long its heat takes to come back once it was opened [s]; dew point
    inside [°C]; h [W/m2K]; `ready_s` from lighting it until it can be cooked on [s]; fuel [kg/h or kW], in `fuel_unit`.
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


def cooker_for(surround: str) -> Cooker:
    """Return the cooker that does a surround where nobody said which."""
    return COOKER_KINDS[_KIND_FOR.get(surround, "kettle")]

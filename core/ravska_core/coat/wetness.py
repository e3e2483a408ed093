"""How wet a surface is when it goes to the fire: smoke takes while it is wet, a crust begins when it is dry.

All stores of water are estimates; how fast they dry follows the evaporation that science of heat uses.
"""

import math
from dataclasses import dataclass
from typing import TypeVar

import numpy as np

from ravska_core.coat.fates import CLINGS_G_CM2, RINSED, WIPED
from ravska_core.coat.layers import BATHS, INJECTIONS, LAYER_KINDS
from ravska_core.coat.on_fire import HALF_KG_M2, OnFire
from ravska_core.coat.stack import Stack
from ravska_core.diffusion import Array
from ravska_core.working import Figure, Step, figure

MOIST_KG_M2, DRY_KG_M2 = 0.10, 0.02
"""Water on bare moist meat, and what is left on a surface that is dry to the touch [kg/m2] (estimates)."""

SALTED_KG_M2 = 0.04
"""Water left where salt had hours to draw it out and take it in again, uncovered in the cold [kg/m2] (estimate)."""

SALTED_S = 8 * 3600.0

GATHERS_MIN = 10.0
"""A dry surface that is not dry again so soon has gathered water out of the fire's air [min]."""

PIT_C, SURFACE_C, DEW_C, H = 110.0, 60.0, 40.0, 10.0
"""A usual pit, a wet surface in it, its dew point [C], and its heat transfer [W/m2K] (estimates)."""


def wetness(store_kg_m2: float) -> float:
    """Return how wet a surface is [0 to 1] for its store of water: w = M / (M + 0.2)."""
    return store_kg_m2 / (store_kg_m2 + HALF_KG_M2)


Number = TypeVar("Number", float, Array)


def saturation_pa(celsius: Number) -> Number:
    """Determine the saturation pressure of water [Pa] by Magnus' formula: 611.2 exp(17.62 T / (243.12 + T))."""
    found: Number = 611.2 * np.exp(17.62 * celsius / (243.12 + celsius))
    return found


def evaporation_kg_m2_s(surface_c: Number, dew_c: Number, h: Number, air_c: Number) -> Number:
    """Determine what a wholly wet surface gives off [kg/m2 s], below nothing where water condenses on it.

    E = h / (rho c_p 0.9) (p_sat(T_s) - p_sat(T_dew)) / (R_v T_s), with air of density 353 / T [kg/m3] and
    c_p 1007 J/kgK, R_v 461.5 J/kgK.
    """
    rho = 353 / (air_c + 273.15)
    pressure = saturation_pa(surface_c) - saturation_pa(dew_c)
    found: Number = h / (rho * 1007 * 0.9) * pressure / (461.5 * (surface_c + 273.15))
    return found


def drying_s(store_kg_m2: float, evaporation: float) -> float:
    """Determine how long a store of water takes to dry [s]: the integral of dM / (w E) from M to dry."""
    if store_kg_m2 <= DRY_KG_M2:
        return 0.0
    return (store_kg_m2 - DRY_KG_M2 + HALF_KG_M2 * math.log(store_kg_m2 / DRY_KG_M2)) / evaporation


@dataclass(frozen=True)
class SurfaceReading:
    """A surface when it goes to the fire: water on it [g/100 cm2], wetness, rub on it [g/100 cm2], and drying [min].

    `dries` is None where it does not dry on its fire.
    """

    water: Figure
    wet: float
    crust_g_100cm2: float
    dries: Figure | None
    says: str


def surface_at_fire(stack: Stack) -> SurfaceReading:
    """Determine how wet the surface of a stack is when it goes to the fire, and what lies on it."""
    store = DRY_KG_M2 if stack.surfaces and stack.surfaces[0] == "dry" else MOIST_KG_M2
    steps = [Step("Bare meat", "patted dry" if store == DRY_KG_M2 else "moist", store * 10, "g/100 cm²", "estimate")]
    crust = 0.0
    for put, dosed in zip(stack.puts, stack.dosed, strict=True):
        layer, kind = put.layer, LAYER_KINDS[put.layer.kind]
        if kind.when != "before":
            continue
        if layer.kind in BATHS:
            kept = {"as it is": 1.0, "wiped": 1 - WIPED, "rinsed": 1 - RINSED}[layer.after]
            watery = put.blend.water_share if put.blend else 1.0
            # 0.1 g/cm2 is 1 kg/m2
            store = max(MOIST_KG_M2, CLINGS_G_CM2 * 10 * kept * watery)
            crust = 0.0
            steps.append(Step("Out of its bath", f"clings, {layer.after}", store * 10, "g/100 cm²", "estimate"))
        elif layer.kind in INJECTIONS:
            stays = kind.stays if layer.stays is None else layer.stays
            weeps = put.dose_g * (1 - (stays or 0.0))
            area = max(1.0, stack.piece.coatable.value)
            store = max(store, min(CLINGS_G_CM2 / 2, weeps / area) * 10)
            steps.append(
                Step("Weeps out of the sites", f"{weeps:.0f} g, what clings", store * 10, "g/100 cm²", "estimate")
            )
        elif layer.kind == "pre-salt" and layer.hold_s >= SALTED_S:
            store = min(store, SALTED_KG_M2)
            steps.append(Step("Salt draws it in again", "a long hold in the cold", store * 10, "g/100 cm²", "estimate"))
        elif layer.kind in ("binder", "paste"):
            added: float = put.dose_setting * dosed.sticks * (put.blend.water_share if put.blend else 0.0)
            store += added / 10
            steps.append(Step(f"Water of the {layer.kind}", "its dose × water", added, "g/100 cm²"))
        if layer.kind in ("rub", "paste"):
            crust += put.dose_setting * dosed.sticks
    steps.append(Step("Water on the surface", "when it goes to the fire", store * 10, "g/100 cm²"))
    dries = _in_a_usual_pit(store) if stack.fire is None else _on_its_fire(stack.fire, store)
    wet = wetness(store)
    said = "dry: a crust begins at once, smoke takes less" if wet < 0.2 else (
        "moist: smoke takes, a crust soon follows" if wet < 0.5 else "wet: smoke takes longest, a crust waits"
    )  # fmt: skip
    if dries is not None and wet < 0.2 and dries.value > GATHERS_MIN:
        said = "dry, but while it is cold water gathers on it: smoke takes then, a crust follows"
    if dries is None:
        said = f"{said.partition(':')[0]}: on this fire nothing dries, so no crust comes"
    water = figure(steps, "±50 %: estimates of what clings", spread=0.5)
    return SurfaceReading(water, wet, crust, dries, said)


def _on_its_fire(fire: OnFire, store: float) -> Figure | None:
    """Return how long the water on a surface takes to dry on its fire [min]; None where it does not."""
    dries_s = fire.dry_after_s(store, DRY_KG_M2)
    if dries_s is None:
        return None
    gives_off = float(np.interp(dries_s, fire.times_s, fire.gives_off_kg_m2)) * 10
    steps = [
        Step("A wholly wet surface gives off", "by then, on this fire", gives_off, "g/100 cm²", "evaporation"),
        Step("Dry after", "∫ dM / w from what lies on it to dry", dries_s / 60, "min", "heat-water"),
    ]
    said = "a factor of 2: fires, drafts and what clings differ"
    return figure(steps, said, low=dries_s / 120, high=dries_s / 30)


def _in_a_usual_pit(store: float) -> Figure:
    """Return how long the water on a surface takes to dry where no fire is planned [min]."""
    rate = evaporation_kg_m2_s(SURFACE_C, DEW_C, H, PIT_C)
    minutes = drying_s(store, rate) / 60
    return figure(
        [
            Step("A wholly wet surface gives off", f"pit {PIT_C:g} °C, surface {SURFACE_C:g} °C, dew {DEW_C:g} °C",
                 rate * 600, "g/100 cm² a minute", "evaporation"),
            Step("Dry after", "(M − dry + 0.2 ln(M / dry)) / E", minutes, "min", "estimate"),
        ],
        "a factor of 2: pits, drafts and what clings differ",
        low=minutes / 2, high=minutes * 2,
    )  # fmt: skip

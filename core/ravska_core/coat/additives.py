"""Nitrite and phosphate: counted only to refuse a dose or to stop. Ravska does not formulate cures.

Usual US limits (9 CFR 424.21, from memory); your local food authority's rules come first.
"""

from collections.abc import Sequence

from ravska_core.blend import flagged_share, nitrite_share
from ravska_core.coat.layers import BATHS, INJECTIONS
from ravska_core.coat.stack import Put
from ravska_core.working import BadInput

PUMPED, PUMPED_BELLY, DRY, DRY_BELLY = 200.0, 120.0, 625.0, 200.0
"""Most sodium nitrite that goes into pumped or immersed meat, and onto dry-cured meat [mg/kg raw]; bellies less."""

BELLY = "pork-belly"


def nitrite_mg_kg(put: Put, stays: float, mass_g: float) -> float:
    """Determine the nitrite a layer brings [mg/kg]: sodium nitrite that stays [g] x 10^6 / raw meat [g]."""
    return 0.0 if put.blend is None else nitrite_share(put.blend) * put.dose_g * stays * 1e6 / mass_g


def phosphate_percent(puts: Sequence[Put], stays: Sequence[float], mass_g: float) -> float:
    """Determine the phosphate that all layers bring [% of raw meat]."""
    grams = sum(
        flagged_share(put.blend, "phosphate") * put.dose_g * share
        for put, share in zip(puts, stays, strict=True)
        if put.blend is not None
    )
    return grams / mass_g * 100


def nitrite_of(puts: Sequence[Put], stays: Sequence[float], mass_g: float, cut: str) -> list[float]:
    """Return the nitrite each layer brings [mg/kg raw], and refuse a dose above the usual limit.

    Raises
    ------
    BadInput
        At ``layers.N.dose`` of the layer with which its way of curing goes over its limit.
    """
    found = [nitrite_mg_kg(put, share, mass_g) for put, share in zip(puts, stays, strict=True)]
    wet = {"so_far": 0.0, "most": PUMPED_BELLY if cut == BELLY else PUMPED}
    dry = {"so_far": 0.0, "most": DRY_BELLY if cut == BELLY else DRY}
    for at, (put, mg_kg) in enumerate(zip(puts, found, strict=True)):
        into = put.layer.kind in (*BATHS, *INJECTIONS)
        side = wet if into else dry
        side["so_far"] += mg_kg
        if mg_kg > 0 and side["so_far"] > side["most"]:
            way = "pumped or immersed" if into else "dry-cured"
            raise BadInput(
                f"layers.{at}.dose",
                f"This would put {side['so_far']:,.0f} mg of sodium nitrite into a kilogram of meat; the usual US "
                f"limit for {way} {'belly' if cut == BELLY else 'meat'} is {side['most']:.0f}. Ravska does not "
                "formulate cures: take the curing salt out, or follow a tested cure recipe with its own weights.",
            )
    return found

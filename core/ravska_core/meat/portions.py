"""From the eaters to the raw weight to buy, and back."""

from types import MappingProxyType

from ravska_core.meat.cuts import GRADES, find_cut
from ravska_core.working import BadInput, Figure, Step, figure

PORTION_G = MappingProxyType({"light": 120.0, "usual": 170.0, "hearty": 230.0})
"""Cooked meat on a plate by appetite [g] (common practice; 1.5 kg of boneless shoulder feeds four to six)."""

MOST_EATERS = 500
"""A cook feeds so many at most."""


def raw_weight(cut: str, eaters: int, portion_g: float, grade: str = "ordinary") -> Figure:
    """Determine the raw weight to buy [g]: eaters x portion / yield / (1 - bone share).

    Raises
    ------
    BadInput
        At ``eaters`` or ``portion`` outside what people cook for, at ``piece.cut`` for an unknown cut.
    """
    if not 1 <= eaters <= MOST_EATERS:
        raise BadInput("eaters", f"Cook for 1 to {MOST_EATERS} eaters: a whole number.")
    if not 20 <= portion_g <= 1000:
        raise BadInput("portion", "A portion is between 20 g and 1 kg of cooked meat; 170 g is usual.")
    found = find_cut(cut)
    kept = min(0.95, found.cook_yield + GRADES[grade].yield_points)
    cooked = eaters * portion_g
    edible = cooked / kept
    raw = edible / (1 - found.bone_share)
    steps = [
        Step("On the plates", f"{eaters} × {portion_g:.0f} g", cooked, "g", "trade"),
        Step("Edible, raw", f"{cooked:.0f} g / {kept:.2f} cooking yield", edible, "g", found.source),
        Step("With its bone", f"{edible:.0f} g / (1 − {found.bone_share:g})", raw, "g", found.source),
    ]
    return figure(steps, "±15 %: yield differs with the cook", spread=0.15)

"""Ways of seasoning a sample, by what lies on it."""

from collections.abc import Mapping, Sequence
from types import MappingProxyType

from ravska_core.units import say_duration

COATS, BATHS, NEEDLES, SALTINGS = ("rub", "paste"), ("marinade",), ("injection", "second injection"), ("pre-salt",)

SHORT_HOLD_S = 4 * 3600.0
"""Up to how long a hold is of the shorter school [s] (common practice, no source)."""

SCHOOLS = MappingProxyType({
    "shorter": f"up to {say_duration(SHORT_HOLD_S)}", "longer": f"longer than {say_duration(SHORT_HOLD_S)}",
})  # fmt: skip
"""The two schools of holding, by how long."""

WAYS: Mapping[str, str] = MappingProxyType({
    "rubbed": "rubbed", "marinated": "marinated", "both": "marinated and rubbed", "injected": "injected",
    "ahead": "salted ahead", "plain": "plain",
})  # fmt: skip
"""The ways that are compared, by the keys that ways of a stack have, and what a sentence calls them."""


def way_of(layers: Sequence[tuple[str, float | None]]) -> str:
    """Return the way of a sample whose layers are of these kinds, with their holds [s].

    What comes on the fire or at the board is no way, nor is what only brings its salt to that of another. A rub over
    salt that lay longer than the shorter school has it is salted ahead; nothing but salt is plain.
    """
    kinds = {kind for kind, _ in layers}
    coated, bathed = not kinds.isdisjoint(COATS), not kinds.isdisjoint(BATHS)
    if not kinds.isdisjoint(NEEDLES):
        return "injected"
    if bathed:
        return "both" if coated else "marinated"
    if not coated:
        return "plain"
    ahead = any(kind in SALTINGS and (hold_s or 0) > SHORT_HOLD_S for kind, hold_s in layers)
    return "ahead" if ahead else "rubbed"


def school_of(layers: Sequence[tuple[str, float | None]]) -> str:
    """Return the school a sample is of, by its longest hold: ``shorter`` or ``longer``."""
    return "longer" if max((hold_s or 0 for _, hold_s in layers), default=0.0) > SHORT_HOLD_S else "shorter"

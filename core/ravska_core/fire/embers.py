"""Where the embers lie on the grate, and how far from them a piece does."""

import math
from collections.abc import Callable, Mapping
from types import MappingProxyType

EMBERS: Mapping[str, Callable[[float, float], float]] = MappingProxyType(
    {
        "on the right": lambda x, y: 0.58 - x,
        "on the left": lambda x, y: x - 0.42,
        "in the middle": lambda x, y: math.hypot(x - 0.5, y - 0.5) - 0.2,
        "on both sides": lambda x, y: min(x - 0.28, 0.72 - x),
        "all over": lambda x, y: 0.0,
        "none": lambda x, y: 1.0,
    }
)
"""How far a place is from where the embers begin, as a share of the grate's width; 0 or less is over them."""

USUAL = "on the right"


def from_embers(x: float, y: float, embers: str) -> float:
    """Return how far a place lies from the embers [share of the grate's width]; 0 over them."""
    return max(0.0, EMBERS[embers or USUAL](x, y))


def turned_over(side: str) -> str:
    """Return which side is where once a piece was turned: ``skin down`` is ``skin up`` then."""
    face, _, way = side.rpartition(" ")
    return f"{face} {'up' if way == 'down' else 'down'}" if face else ""

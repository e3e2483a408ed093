"""What goes on skewers between pieces of meat, and how long it takes over a flame (common practice, no source)."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.units import say_duration


@dataclass(frozen=True)
class Threaded:
    """Something threaded between pieces of meat: how it is said, and from when to when it is good [s]."""

    says: str
    low_s: float
    high_s: float


THREADED: Mapping[str, Threaded] = MappingProxyType(
    {
        "tomato": Threaded("small tomatoes", 180.0, 360.0),
        "fruit": Threaded("pieces of fruit", 240.0, 480.0),
        "cheese": Threaded("cheese for the grill", 240.0, 420.0),
        "mushroom": Threaded("mushrooms", 360.0, 600.0),
        "courgette": Threaded("courgette", 360.0, 600.0),
        "pepper": Threaded("sweet pepper", 480.0, 720.0),
        "onion": Threaded("wedges of onion", 600.0, 900.0),
        "aubergine": Threaded("aubergine", 600.0, 900.0),
        "potato": Threaded("small potatoes, boiled before", 480.0, 900.0),
        "root": Threaded("raw roots", 1500.0, 2400.0),
    }
)

_UNLIKE = 1.35
"""How many times as long or as short it is on the fire, from which it is spoilt or not done (estimate)."""


def unlike_on_a_skewer(threaded: Sequence[str], lasts_s: float) -> tuple[str, ...]:
    """Say of things between the meat that are done long before it, or not by then, how else to thread them."""
    said = []
    for key in threaded:
        one = THREADED[key]
        takes = (
            f"{one.says.capitalize()}: {one.low_s / 60:.0f} to {one.high_s / 60:.0f} min over a flame, the meat about "
            f"{say_duration(round(lasts_s / 60) * 60)}."
        )
        if lasts_s > _UNLIKE * one.high_s:
            said.append(f"{takes} Thread them by themselves, and put them on later.")
        elif lasts_s * _UNLIKE < one.low_s:
            said.append(f"{takes} Thread them by themselves, and put them on before it.")
    return tuple(said)

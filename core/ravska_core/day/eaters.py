"""Who eats: what somebody may not or will not eat, and what of a meal leaves them out."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.blend import BlendReading
from ravska_core.catalogue import ALLERGENS, Cut, catalogue
from ravska_core.cautions import ANIMAL_CLASSES
from ravska_core.meat import PORTION_G

HOT_SHU = 1000.0
"""Heat of a blend from which on it leaves out who eats nothing hot [Scoville heat units] (estimate)."""

_HOT, _SUGAR = "hot spice", "added sugar"

AVOIDS = tuple(dict.fromkeys((*sorted(ALLERGENS), *ANIMAL_CLASSES, _HOT, _SUGAR)))
"""What can be said of somebody so that it is checked: allergens of the catalogue, kinds of meat, heat and sugar; other
words are kept, and said to be for the cook to look at."""


@dataclass(frozen=True)
class Eater:
    """Somebody at the table, by nickname: what they avoid, and how much they eat."""

    nickname: str
    avoids: tuple[str, ...] = ()
    appetite: str = "usual"


@dataclass(frozen=True)
class LeftOut:
    """Somebody who cannot eat something, by its letter, and why; `asked` are words that no table answers."""

    nickname: str
    letter: str
    why: tuple[str, ...]
    asked: tuple[str, ...]


def leaves_out(eater: Eater, letter: str, cut: Cut | None, blends: Sequence[BlendReading]) -> LeftOut | None:
    """Return why somebody cannot eat a piece, or blends by themselves; None where nothing is known against it."""
    why = tuple(dict.fromkeys(_why(eater, cut, blends)))
    asked = tuple(word for word in eater.avoids if word not in AVOIDS)
    return LeftOut(eater.nickname, letter, why, asked) if why or asked else None


def _why(eater: Eater, cut: Cut | None, blends: Sequence[BlendReading]) -> Iterator[str]:
    for word in eater.avoids:
        if cut is not None and word == cut.animal:
            yield word
        for blend in blends:
            hot = word == _HOT and blend.scale("heat").figure.value >= HOT_SHU
            sweet = word == _SUGAR and blend.sugar.value > 0
            if word in blend.allergens or hot or sweet:
                yield word


def portions(eaters: Sequence[Eater]) -> float:
    """Return how many usual portions a table eats."""
    return sum(PORTION_G[eater.appetite] for eater in eaters) / PORTION_G["usual"]


def instead_of(cut: Cut) -> tuple[str, ...]:
    """Return the names of cuts that will do instead: as tough or tender, about as thick, of the like animal first."""
    same = [
        other for other in catalogue().cuts.values()
        if other.key != cut.key and not other.like and other.meat_class == cut.meat_class
        and other.shape == cut.shape and other.minced == cut.minced
        and other.usual_low_g <= cut.usual_high_g and cut.usual_low_g <= other.usual_high_g
    ]  # fmt: skip
    same.sort(key=lambda other: (other.animal != cut.animal, abs(other.fire_min - cut.fire_min), other.name))
    return tuple(other.name for other in same[:3])


_LOOK_FOR: Mapping[str, str] = MappingProxyType(
    {
        "tough": "marbled through, fat cap whole and firm, no dried edges",
        "tender_red": "cut evenly thick, fine marbling, dry to the touch",
        "large_joint": "even in shape, fat white and firm, bone in where it is meant to be",
        "sliced_pork": "rosy and not wet, cut evenly thick",
        "poultry": "skin whole and dry, no smell, little liquid in the pack",
        "fish": "firm, springs back, smells of the sea and of nothing else",
    }
)
"""What to look for at the counter (common practice, no source)."""


def look_for(cut: Cut) -> str:
    """Return what to look for in a cut at the counter."""
    return _LOOK_FOR.get(cut.meat_class, "fresh, dry to the touch, without smell")

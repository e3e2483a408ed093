"""Cuts: what the catalogue says of one, grades of meat, and what can be done with a face."""

import math
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.catalogue import Cut, catalogue, words_of
from ravska_core.working import BadInput

FACE_STATES = MappingProxyType(
    {
        "bare": "stays on, nothing goes on it",
        "coated": "stays on and is coated too; it keeps the seasoning off the meat",
        "off": "comes off; the meat under it is coated",
        "tied back": "comes off, the meat is coated, and it is tied back on for part of the cook",
        "under": "stays on, and the seasoning goes under it, on the meat",
    }
)
"""What may be done with a face: left bare, coated over, taken off, taken off and tied back on, or (skin) lifted."""


@dataclass(frozen=True)
class Grade:
    """A grade of meat: water share of the raw lean, change of the cooking yield, and density [g/cm3] over ordinary."""

    water_share: float
    yield_points: float
    density_factor: float


GRADES = MappingProxyType(
    {
        "lean": Grade(0.755, -0.02, 1.005),
        "ordinary": Grade(0.745, 0.0, 1.0),
        "marbled": Grade(0.68, 0.01, 0.985),
        "dry-aged": Grade(0.70, 0.05, 1.005),
    }
)
"""Grades (estimates; water of ordinary lean from memory). Marbled: 10 points of fat at 0.92 g/cm3 in lean at 1.06."""

MOST_BONES = 16

CUT_INTO = ("cubes", "strips", "steaks")
"""What a joint may be cut into."""


def find_cut(key: str) -> Cut:
    """Look up a cut, or refuse with a sentence at the field ``piece.cut``."""
    cut = catalogue().cuts.get(key)
    if cut is None:
        raise BadInput("piece.cut", "This cut is not in the catalogue any more; choose another.")
    return cut


def cut_named(name: str) -> Cut | None:
    """Return the cut that is called so, by its name or another of its names, or None."""
    words = words_of(name)
    return next(
        (cut for cut in catalogue().cuts.values() if any(words_of(x) == words for x in (cut.name, *cut.other_names))),
        None,
    )


def usual_mass_g(cut: Cut) -> float:
    """Determine the weight that a piece of a cut usually has [g]: the geometric mean of its span, to two figures."""
    middle = math.sqrt(cut.usual_low_g * cut.usual_high_g)
    return float(f"{middle:.1e}")

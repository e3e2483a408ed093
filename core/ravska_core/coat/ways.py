"""Ways: named stacks to start from, as cooks build them; a school is what the two ends of a window are."""

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

from ravska_core.coat.doses import BINDER_DOSES

_HOUR = 3600.0

_MUSTARD, _OIL = BINDER_DOSES["mustard"], BINDER_DOSES["oil"]

COLD, BENCH = 4.0, 21.0


@dataclass(frozen=True)
class Slot:
    """A layer of a way: its kind, dose in its unit, hold [s] at [C], and the plain grind it may do with.

    Without a `grind` it takes a blend of the book, of the kind its layer takes.
    """

    kind: str
    dose: float
    hold_s: float = 0.0
    hold_c: float = COLD
    grind: str = ""
    after: str = "wiped"
    times: int = 1


@dataclass(frozen=True)
class Way:
    """A stack to start from: its name, what its cooks hold, and its layers in order."""

    key: str
    name: str
    says: str
    slots: tuple[Slot, ...]
    source: str = "trade"


def _salt(percent: float, hours: float = 16) -> Slot:
    return Slot("pre-salt", percent, hours * _HOUR, grind="kosher-dense/flake")


WAYS: Mapping[str, Way] = MappingProxyType(
    {
        way.key: way
        for way in (
            Way("rubbed", "Rubbed", "Salt inside the rub, two hours in the cold.", (Slot("rub", 5, 2 * _HOUR),)),
            Way("marinated", "Marinated", "A bath, wiped off so that smoke and crust take.",
                   (Slot("marinade", 250, 4 * _HOUR),)),
            Way("both", "Marinated, then rubbed", "Bath, wipe, then a lighter rub.",
                   (Slot("marinade", 250, 4 * _HOUR), Slot("rub", 4, 0.5 * _HOUR))),
            Way("injected", "Injected", "A tenth of its weight, an hour before the fire.",
                   (Slot("injection", 10, _HOUR),)),
            Way("plain", "Plain", "Nothing but salt by weight, ahead.", (_salt(1.2),)),
            Way("ahead", "Salt ahead, rub apart", "Salt by weight overnight, the rub just before the fire.",
                   (_salt(0.7), Slot("rub", 5, _HOUR))),
            Way("last", "Rub, and salt last", "A lean rub; the rest of the salt at the board, by the remainder.",
                   (Slot("rub", 3, 2 * _HOUR), Slot("finishing salt", 0.0, grind="sea-salt-flake/flake"))),
            Way("mustard", "Mustard under the rub", "A sticky binder holds a heavy coat.",
                   (Slot("binder", _MUSTARD, grind="mustard-prepared/paste"), Slot("rub", 8, 2 * _HOUR))),
            Way("oil", "Just enough oil", "A thin film of oil, then the rub, 20 minutes on the bench.",
                   (Slot("binder", _OIL, grind="vegetable-oil/liquid"), Slot("rub", 5, _HOUR / 3, BENCH))),
            Way("wrapped ribs", "Ribs, rubbed, wrapped and glazed", "Two hours open, two wrapped, glaze at the end.",
                   (Slot("rub", 3, 0.5 * _HOUR), Slot("spritz", 0.5, times=3), Slot("wrap", 40), Slot("glaze", 4))),
            Way("injected and rubbed", "Injected, then a bark", "Injection in the cold, mustard, a heavy rub.",
                   (Slot("injection", 10, 8 * _HOUR), Slot("binder", _MUSTARD, grind="mustard-prepared/paste"),
                    Slot("rub", 8, _HOUR))),
        )
    }
)  # fmt: skip
"""The shipped ways (common practice, no source)."""

SIDE_BY_SIDE = ("rubbed", "marinated", "both", "injected", "injected and rubbed", "plain")
"""The ways a joint is read in side by side, and that one of two pieces can take in one step."""

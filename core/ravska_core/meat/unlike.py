"""Pieces of unlike weight: what surface they have together, and what of it each."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType

from ravska_core.catalogue import Cut
from ravska_core.meat.shapes import Solid
from ravska_core.working import BadInput

MOST_UNLIKE = 20
"""How many times as heavy as another a piece beside it is at most, before the units are asked about (estimate)."""


@dataclass(frozen=True)
class OnePiece:
    """One of several pieces of unlike weight: its weight [g], its shares of weight and surface, its thickness [cm]."""

    mass_g: float
    mass_share: float
    area_share: float
    thickness_cm: float


_BY_SHAPE = MappingProxyType({"bird": 0.705})
"""The power of its weight that the surface of a shape grows with; 2/3 of those that only grow larger."""


def one_by_one(cut: Cut, masses: Sequence[float], solid: Solid) -> tuple[Solid, tuple[OnePiece, ...]]:
    """Return a solid with the surface that pieces of unlike weight really have, and each of them; none of alike.

    A = A_alike mean(m_i^p) / mean(m_i)^p, with p = 2/3, of birds 0.705: unlike pieces have less than alike ones.
    """
    if len(masses) < 2:
        return solid, ()
    mean = sum(masses) / len(masses)
    # pieces of fixed size are of that size whatever they weigh together
    power = 1.0 if cut.unit_cm is not None else _BY_SHAPE.get(cut.shape, 2 / 3)
    areas = [(mass / mean) ** power for mass in masses]
    thick = [1.0 if cut.unit_cm is not None else (mass / mean) ** (1 / 3) for mass in masses]
    each = tuple(
        OnePiece(mass, mass / sum(masses), area / sum(areas), solid.thickness_cm * times)
        for mass, area, times in zip(masses, areas, thick, strict=True)
    )
    return replace(solid, area_cm2=solid.area_cm2 * sum(areas) / len(areas)), each


def check_unlike(masses: Sequence[float]) -> None:
    """Refuse weights that lie too far apart to be those of pieces of one cut.

    Raises
    ------
    BadInput
        At ``piece.mass_g``.
    """
    if masses and min(masses) * MOST_UNLIKE < max(masses):
        raise BadInput("piece.mass_g", "One of these is over twenty times as heavy as another; check the units.")

"""Skin taken off a piece, as a piece of its own."""

from types import MappingProxyType

from ravska_core.meat.cuts import find_cut
from ravska_core.meat.pieces import Piece, read_piece
from ravska_core.working import BadInput

SKIN_CUTS = MappingProxyType({"pork": "pork-skin"})

POULTRY_SKIN = "poultry-skin"


def is_skin(cut: str) -> bool:
    """Tell whether a piece is skin by itself, a dish beside the meat."""
    return cut == POULTRY_SKIN or cut in SKIN_CUTS.values()


SKIN_CM = MappingProxyType({"pork": 0.3})

POULTRY_SKIN_CM, SKIN_DENSITY = 0.15, 1.03
"""Thickness of skin by animal, of a bird's with the fat that comes off with it [cm], and its density (estimates)."""


def skin_piece(piece: Piece) -> Piece:
    """Return the skin of a piece, taken off, as a piece of its own; its weight from its area.

    Raises
    ------
    BadInput
        When the cut has no skin.
    """
    found = read_piece(piece)
    skin = next((face for face in found.faces if face.name == "skin"), None)
    if skin is None:
        raise BadInput("piece.faces", "This cut has no skin that could be a piece of its own.")
    animal = find_cut(piece.cut).animal
    mass = skin.area_cm2 * SKIN_CM.get(animal, POULTRY_SKIN_CM) * SKIN_DENSITY
    return Piece(SKIN_CUTS.get(animal, POULTRY_SKIN), round(mass), 1, surface="dry", faces={"fat side": "bare"})

"""What a rub is judged on before any meat is chosen: a rack of ribs, thin as it is."""

from ravska_core.catalogue import catalogue, while_it_stands
from ravska_core.coat.doses import COAT_WEIGHTS
from ravska_core.coat.layers import LAYER_KINDS
from ravska_core.meat import Piece, read_piece

THIN_CUT = "pork-ribs"
"""The thin cut that a rub's salt is judged on."""


@while_it_stands(None)
def thin_cut_salt() -> float:
    """Determine what a standard coat of pure salt puts on the thin cut [% of raw edible weight].

    Coat [g/100 cm2] x surface of such a rack of middling weight [cm2] / 100 x what stays / edible [g].
    """
    cut = catalogue().cuts[THIN_CUT]
    piece = read_piece(Piece(THIN_CUT, (cut.usual_low_g + cut.usual_high_g) / 2))
    grams = COAT_WEIGHTS["standard"] * piece.coatable.value / 100 * (LAYER_KINDS["rub"].stays or 1.0)
    return grams / piece.edible.value * 100

"""The piece: its cut, shape, faces, surface and portions, and where it is held raw."""

from ravska_core.meat.cuts import CUT_INTO, FACE_STATES, GRADES, MOST_BONES, cut_named, find_cut, usual_mass_g
from ravska_core.meat.cutting import CutUp, cutting
from ravska_core.meat.own_cuts import MOST_TRIMS, OwnCut, cut_of_own, solid_of_own
from ravska_core.meat.pieces import BREAST_SHARE, Measures, Piece, PieceReading, PieceShown, read_piece
from ravska_core.meat.portions import (
    LEAST_SERVING_G,
    MOST_EATERS,
    MOST_SERVING_G,
    PORTION_G,
    RawWeight,
    bought,
    for_so_many,
    own_mean,
    raw_weight,
    serving_of,
    trim_share,
)
from ravska_core.meat.shapes import Solid, area_and_volume, ellipsoid_area_cm2
from ravska_core.meat.skin import is_skin, skin_piece
from ravska_core.meat.stages import PLACES, RAW_PLACES, STAGES, Stage, check_place, clocks_of, place_of

__all__ = [
    "BREAST_SHARE",
    "CUT_INTO",
    "FACE_STATES",
    "GRADES",
    "LEAST_SERVING_G",
    "MOST_BONES",
    "MOST_EATERS",
    "MOST_SERVING_G",
    "MOST_TRIMS",
    "PLACES",
    "PORTION_G",
    "RAW_PLACES",
    "STAGES",
    "CutUp",
    "Measures",
    "OwnCut",
    "Piece",
    "PieceReading",
    "PieceShown",
    "RawWeight",
    "Solid",
    "Stage",
    "area_and_volume",
    "bought",
    "check_place",
    "clocks_of",
    "cut_named",
    "cut_of_own",
    "cutting",
    "ellipsoid_area_cm2",
    "find_cut",
    "for_so_many",
    "is_skin",
    "own_mean",
    "place_of",
    "raw_weight",
    "read_piece",
    "serving_of",
    "skin_piece",
    "solid_of_own",
    "trim_share",
    "usual_mass_g",
]

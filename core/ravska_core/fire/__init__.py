"""A cook at its fire: what is noted by a tap, what probes tell, and how each piece stands until it is done."""

from ravska_core.fire.after import AfterReading, PieceAfter, read_after
from ravska_core.fire.at_fire import AtFire, Due, FirePiece, live_of, pit_dips
from ravska_core.fire.eaten import OnBoard, Weighed, eaten_an_eater, weighings
from ravska_core.fire.happened import Happened, happened
from ravska_core.fire.leftovers import LeftOver
from ravska_core.fire.log import PieceLog, Place, piece_log, usual_place
from ravska_core.fire.pit import Dip, band_of
from ravska_core.fire.probes import offset_says
from ravska_core.fire.reading import FireReading, read_fire
from ravska_core.fire.readings_csv import BY_HAND, MOST_REFUSED, ReadRow, RowFault, read_readings, write_readings
from ravska_core.fire.taps import KINDS, MEASURES, SPOTS, Tap, check_tap, in_order
from ravska_core.fire.thinning import stay
from ravska_core.fire.told import Told, tell, without_more

__all__ = [
    "BY_HAND",
    "KINDS",
    "MEASURES",
    "MOST_REFUSED",
    "SPOTS",
    "AfterReading",
    "AtFire",
    "Dip",
    "Due",
    "FirePiece",
    "FireReading",
    "Happened",
    "LeftOver",
    "OnBoard",
    "PieceAfter",
    "PieceLog",
    "Place",
    "ReadRow",
    "RowFault",
    "Tap",
    "Told",
    "Weighed",
    "band_of",
    "check_tap",
    "eaten_an_eater",
    "happened",
    "in_order",
    "live_of",
    "offset_says",
    "piece_log",
    "pit_dips",
    "read_after",
    "read_fire",
    "read_readings",
    "stay",
    "tell",
    "usual_place",
    "weighings",
    "without_more",
    "write_readings",
]

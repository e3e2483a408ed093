"""The day of a cook, planned back from serving."""

from ravska_core.day.nights import find_zone, nights
from ravska_core.day.reading import DayReading, Supper, read_day
from ravska_core.day.schedule import count_back
from ravska_core.day.tasks import DayPiece
from ravska_core.day.ways_out import OutOfClash, ways_out

__all__ = [
    "DayPiece",
    "DayReading",
    "OutOfClash",
    "Supper",
    "count_back",
    "find_zone",
    "nights",
    "read_day",
    "ways_out",
]

"""The day of a cook, planned back from serving."""

from ravska_core.day.eaters import AVOIDS, Eater, LeftOut, instead_of, leaves_out, look_for, portions
from ravska_core.day.lanes import BUY, Supper, waves_said
from ravska_core.day.moved import SHARED, OnFire, changes_on, on_fires
from ravska_core.day.nights import find_zone, nights
from ravska_core.day.reading import DayReading, DayStep, next_steps, read_day
from ravska_core.day.schedule import count_back
from ravska_core.day.sides import MOST_SIDES, TRAVELS, Away, Side, Waves, check_side
from ravska_core.day.start_now import StartNow, aimed_now_c, hold_left_s, start_now
from ravska_core.day.tasks import DayPiece
from ravska_core.day.ways_out import OutOfClash, held_s, ways_out
from ravska_core.day.written import write_calendar, write_markdown

__all__ = [
    "AVOIDS",
    "BUY",
    "MOST_SIDES",
    "SHARED",
    "TRAVELS",
    "Away",
    "DayPiece",
    "DayReading",
    "DayStep",
    "Eater",
    "LeftOut",
    "OnFire",
    "OutOfClash",
    "Side",
    "StartNow",
    "Supper",
    "Waves",
    "aimed_now_c",
    "changes_on",
    "check_side",
    "count_back",
    "find_zone",
    "held_s",
    "hold_left_s",
    "instead_of",
    "leaves_out",
    "look_for",
    "next_steps",
    "nights",
    "on_fires",
    "portions",
    "read_day",
    "start_now",
    "waves_said",
    "ways_out",
    "write_calendar",
    "write_markdown",
]

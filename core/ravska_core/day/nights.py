"""When a household sleeps, on a day's clock."""

from datetime import datetime, time, timedelta
from zoneinfo import ZoneInfo, available_timezones

from ravska_core.working import BadInput


def find_zone(name: str) -> ZoneInfo:
    """Return a zone by its name, such as ``Europe/Berlin``.

    Raises
    ------
    BadInput
        At ``zone``, for one that nobody knows.
    """
    if name not in available_timezones():
        raise BadInput("zone", "This is no zone of the world's clocks; choose one, for example Europe/Berlin.")
    return ZoneInfo(name)


def nights(serve_at: datetime, zone: ZoneInfo, sleeps: time, rises: time, days: int = 8) -> tuple[tuple[int, int], ...]:
    """Return from when to when the household sleeps [min, 0 at serving], over the days before and the one after.

    By the zone's own clock: a night in which it is put forward or back is an hour shorter or longer. None where it
    never sleeps: both times alike.
    """
    if sleeps == rises:
        return ()
    local = serve_at.astimezone(zone).date()
    found = []
    for back in range(days, -2, -1):
        day = local - timedelta(days=back)
        falls = datetime.combine(day, sleeps, zone)
        wakes = datetime.combine(day if rises > sleeps else day + timedelta(days=1), rises, zone)
        began, ended = ((one - serve_at).total_seconds() / 60 for one in (falls, wakes))
        found.append((round(began), round(ended)))
    return tuple(found)

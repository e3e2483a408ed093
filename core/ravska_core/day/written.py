"""A day to take along: as Markdown, and as a calendar file (RFC 5545) with alarms on the household's clock."""

from collections.abc import Mapping, Sequence
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

from icalendar import Alarm, Calendar, Event, Timezone, TimezoneDaylight, TimezoneStandard

from ravska_core.day.reading import DayReading, DayStep
from ravska_core.units import in_scale, say_duration

_AHEAD = timedelta(minutes=10)
"""An alarm rings so long before a step."""

_LEAST = timedelta(minutes=5)
"""What takes no time, as a look, stands in a calendar for so long."""


def says_of(step: DayStep, names: Mapping[str, str], scale: str) -> str:
    """Return a step as it is told by itself: whose it is, and what, its temperatures in a scale."""
    name, says = names.get(step.letter, ""), in_scale(step.says, scale)
    return f"{name}: {says[:1].lower()}{says[1:]}" if name else says


def write_calendar(
    uid: str, name: str, day: DayReading, names: Mapping[str, str], zone: ZoneInfo, stamp: datetime, scale: str = "C"
) -> bytes:
    """Return a day as a calendar file: an event a step and one for the meal, each with an alarm.

    Parameters
    ----------
    uid : str
        What is one and the same for this cook whenever its calendar is written.
    names : mapping of str to str
        What to call each lane by its letter.
    stamp : datetime
        When this is written.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Ravska//Day//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    calendar.add("x-wr-timezone", zone.key)
    seen = dict[str, int]()
    for step in day.steps:
        if step.done:
            continue
        key = f"{step.letter}.{step.key}".replace(" ", "-").replace("·", "-")
        seen[key] = seen.get(key, 0) + 1
        nth = f".{seen[key]}" if seen[key] > 1 else ""
        ends = max(step.ends_at, step.begins_at + _LEAST)
        calendar.add_component(
            _event(f"{key}{nth}.{uid}", says_of(step, names, scale), step.begins_at, ends, zone, stamp)
        )
    calendar.add_component(_event(f"serve.{uid}", f"{name}: at the table", day.serve_at,
                                  day.serve_at + timedelta(hours=1), zone, stamp))  # fmt: skip
    times = [day.serve_at, *(step.begins_at for step in day.steps)]
    calendar.add_component(_zone(zone, min(times), max(times)))
    written: bytes = calendar.to_ical()
    return written


_HOUR = timedelta(hours=1)
_ZONE_BEGINS, _ZONE_ENDS = timedelta(days=370), timedelta(days=8)


def _zone(zone: ZoneInfo, first: datetime, last: datetime) -> Timezone:
    """Return what a zone's clocks show over a calendar and the year before it, one component a change (RFC 5545 3.6.5).

    The library's own component dates a change by the clock after it, an hour late where clocks are put forward.
    """
    found = Timezone()
    found.add("tzid", zone.key)
    at = (first - _ZONE_BEGINS).astimezone(UTC).replace(minute=0, second=0, microsecond=0)
    before = at.astimezone(zone).utcoffset() or timedelta()
    changes = [(at, before, at.astimezone(zone))]
    while at < last + _ZONE_ENDS:
        at += _HOUR
        local = at.astimezone(zone)
        if local.utcoffset() != before:
            changes.append((at, before, local))
            before = local.utcoffset() or timedelta()
    for moment, was, local in changes:
        part = TimezoneDaylight() if local.dst() else TimezoneStandard()
        part.add("dtstart", (moment + was).replace(tzinfo=None))
        part.add("tzoffsetfrom", was)
        part.add("tzoffsetto", local.utcoffset())
        part.add("tzname", local.tzname())
        found.add_component(part)
    return found


def _event(uid: str, says: str, begins: datetime, ends: datetime, zone: ZoneInfo, stamp: datetime) -> Event:
    event = Event()
    event.add("uid", f"{uid}@ravska")
    event.add("dtstamp", stamp)
    event.add("dtstart", begins.astimezone(zone))
    event.add("dtend", ends.astimezone(zone))
    event.add("summary", says)
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", says)
    alarm.add("trigger", -_AHEAD)
    event.add_component(alarm)
    return event


def write_markdown(
    name: str,
    day: DayReading,
    names: Mapping[str, str],
    zone: ZoneInfo,
    lists: Sequence[tuple[str, Sequence[str]]],
    scale: str = "C",
) -> str:
    """Return a day as Markdown: what to do by the hour, day by day, then lists, each under its heading."""
    serve_at = day.serve_at.astimezone(zone)
    said = [f"# {_plain(name)}", "", f"At the table {_when(serve_at)} ({zone.key}).", ""]
    if day.light_at is not None:
        said += [f"**{day.lights}: {_when(day.light_at.astimezone(zone))}.**", ""]
    last = ""
    for step in day.steps:
        begins = step.begins_at.astimezone(zone)
        if f"{begins:%Y-%m-%d}" != last:
            said += ["" if last else "## Step by step", "", f"### {begins:%A} {begins.day} {begins:%B}", ""]
            last = f"{begins:%Y-%m-%d}"
        lasts = (step.ends_at - step.begins_at).total_seconds()
        long = f" ({say_duration(lasts)})" if lasts else ""
        said.append(f"- [{'x' if step.done else ' '}] {begins:%H:%M} {_plain(says_of(step, names, scale))}{long}")
    for heading, rows in lists:
        if rows:
            said += ["", f"## {heading}", "", *(f"- {_plain(in_scale(row, scale))}" for row in rows)]
    text = "\n".join(said)
    while "\n\n\n" in text:
        text = text.replace("\n\n\n", "\n\n")
    return text + "\n"


def _when(at: datetime) -> str:
    return f"{at:%A} {at.day} {at:%B} {at:%H:%M}"


def _plain(text: str) -> str:
    """Return text of somebody's own in which nothing stands for a mark of Markdown."""
    for mark in "\\`*_[]<>#|":
        text = text.replace(mark, f"\\{mark}")
    return " ".join(text.split())

"""When a household sleeps, by its own clock: summer time, midnight, zones."""

from datetime import UTC, datetime, time

import pytest
from ravska_core.day import find_zone, nights
from ravska_core.working import BadInput

BERLIN = find_zone("Europe/Berlin")


def around(serve_at: datetime, zone=BERLIN, sleeps=time(23), rises=time(7)) -> list[tuple[int, int]]:
    return [one for one in nights(serve_at, zone, sleeps, rises, 2) if one[0] < 0]


def test_nights_are_counted_from_serving():
    supper = datetime(2026, 12, 5, 18, 0, tzinfo=UTC)  # 19:00 on the wall
    assert around(supper)[-2:] == [(-44 * 60, -36 * 60), (-20 * 60, -12 * 60)]


@pytest.mark.parametrize(
    ("day", "long_h"),
    [((2026, 3, 29), 7), ((2026, 10, 25), 9), ((2026, 6, 1), 8)],
)
def test_the_night_the_clocks_are_put_forward_is_an_hour_short_and_back_an_hour_long(day, long_h):
    # summer time in the EU begins on the last Sunday of March and ends on that of October (directive 2000/84/EC)
    noon = datetime(*day, 10, 0, tzinfo=UTC)
    falls, rises = around(noon)[-1]
    assert rises - falls == long_h * 60


def test_a_cook_across_zones_sleeps_by_the_clock_it_was_told():
    supper = datetime(2026, 12, 5, 18, 0, tzinfo=UTC)
    there = around(supper, find_zone("America/Denver"))
    # 11:00 on the wall there: up for four hours
    assert there[-1] == (-12 * 60, -4 * 60)


def test_who_sleeps_after_midnight_and_who_never_does():
    supper = datetime(2026, 12, 5, 18, 0, tzinfo=UTC)
    assert around(supper, sleeps=time(1), rises=time(9, 30))[-1] == (-18 * 60, -9 * 60 - 30)
    assert nights(supper, BERLIN, time(7), time(7)) == ()


def test_no_zone_of_the_world_is_asked_about():
    for name in ("", "Mars/Olympus", "../etc/passwd"):
        with pytest.raises(BadInput, match="Europe/Berlin"):
            find_zone(name)

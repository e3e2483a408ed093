"""Begun now instead, who eats, and the day as a file: against a hand's sums and two readers that are not ours."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest
import vobject
from builders import blend
from ical.calendar_stream import IcsCalendarStream
from ravska_core.blend import read_blend
from ravska_core.coat import Layer
from ravska_core.day import (
    AVOIDS,
    Eater,
    Supper,
    aimed_now_c,
    find_zone,
    hold_left_s,
    instead_of,
    leaves_out,
    look_for,
    nights,
    portions,
    read_day,
    start_now,
    write_calendar,
    write_markdown,
)
from ravska_core.day.start_now import hurried
from ravska_core.heat import Phase
from ravska_core.measure import SPOON_SETS
from ravska_core.meat import PORTION_G, find_cut
from ravska_core.units import in_scale, say_mass
from ravska_core.working import BadInput
from test_day_of_a_cook import BATH, HOUR, OTHER, RUB, SALTED, SHOULDER, SUPPER, asleep

NAMES = {"A": "Rubbed", "B": "Plain"}


def test_begun_now_each_way_is_quicker_and_costs_more_than_the_one_before():
    now = SUPPER - timedelta(hours=11)  # eight in the morning
    ways = start_now(Supper((SHOULDER,), SUPPER, asleep(SUPPER), 2), now, asleep)
    assert [way.key for way in ways] == ["as set", "shorter", "no holds", "hotter"]
    suppers = [way.serve_at for way in ways]
    assert suppers == sorted(suppers, reverse=True)
    assert all(supper.minute % 15 == 0 for supper in suppers)
    as_set, shorter, without, hotter = ways
    assert not as_set.in_time
    assert as_set.pieces[0].reach_mm == as_set.pieces[0].wanted_mm
    # 2 sqrt(D t) goes with the root of the hold: half of it is 0.71 of the reach
    assert shorter.pieces[0].reach_mm == pytest.approx(shorter.pieces[0].wanted_mm * 0.5**0.5)
    assert without.pieces[0].reach_mm < 1
    assert f"A: salt reaches {shorter.pieces[0].reach_mm:.0f} mm before the fire instead of" in shorter.costs[-1]
    assert any("shorter school" in cost for cost in without.costs)
    # hotter it is done sooner, and less tender for it
    assert hotter.serve_at < without.serve_at
    assert hotter.pieces[0].dose != without.pieces[0].dose
    (planned,) = [
        read_day(Supper((hurried(SHOULDER, without.key),), without.serve_at, asleep(without.serve_at), 2, now))[0]
    ]
    assert planned.clashes == ()


def test_how_short_a_hold_becomes_and_how_hot_a_fire():
    salt = SALTED[0]
    bath = Layer("marinade", BATH, 250, 8 * HOUR)
    spritz = Layer("spritz", RUB, 0.5)
    assert [hold_left_s(salt, key) for key in ("as set", "shorter", "no holds")] == [16 * HOUR, 8 * HOUR, 300.0]
    assert hold_left_s(bath, "no holds") == 1800.0
    assert hold_left_s(replace(bath, hold_s=600.0), "no holds") == 600.0
    assert hold_left_s(spritz, "no holds") == 0.0
    assert aimed_now_c(Phase("indirect", 110.0)) == 140.0
    assert aimed_now_c(Phase("indirect", 140.0)) == 160.0
    assert aimed_now_c(Phase("indirect", 151.0)) == 151.0
    assert aimed_now_c(Phase("water bath", 57.0)) == 57.0
    with pytest.raises(BadInput):
        hurried(SHOULDER, "faster")


def test_who_eats_is_left_out_by_what_is_in_it():
    spoons = SPOON_SETS["us"]
    milky, rub = read_blend(BATH, spoons), read_blend(RUB, spoons)
    lamb = find_cut("lamb-shoulder")
    heron = Eater("Heron", ("milk", "pork", "fennel"))
    found = leaves_out(heron, "B", lamb, [milky, rub])
    assert found is not None
    assert (found.why, found.asked) == (("milk",), ("fennel",))
    assert leaves_out(heron, "A", lamb, [rub]).why == ()
    assert leaves_out(Eater("Coot"), "A", lamb, [milky]) is None
    assert leaves_out(Eater("Coot", ("lamb",)), "A", lamb, [rub]).why == ("lamb",)
    hot = read_blend(blend(("table-salt/fine", 1, "spoon"), ("cayenne/powder", "1/4", "spoon")), spoons)
    assert leaves_out(Eater("Coot", ("hot spice",)), "A", lamb, [hot]).why == ("hot spice",)
    assert leaves_out(Eater("Coot", ("hot spice",)), "A", lamb, [milky]) is None
    assert leaves_out(Eater("Coot", ("added sugar",)), "A", lamb, [milky]).why == ("added sugar",)
    assert {"milk", "sesame", "lamb", "fish"} <= set(AVOIDS)


def test_a_table_eats_by_its_appetites():
    table = [Eater("Coot", (), "light"), Eater("Heron"), Eater("Teal", (), "hearty")]
    assert portions(table) == pytest.approx(sum(PORTION_G.values()) / PORTION_G["usual"])


def test_another_cut_will_do_instead_that_is_cooked_alike():
    shoulder = find_cut("lamb-shoulder")
    others = instead_of(shoulder)
    assert 1 <= len(others) <= 3
    assert shoulder.name not in others
    assert "marbled" in look_for(shoulder)
    assert "smells of the sea" in look_for(find_cut("cod-loin"))


def read(zone: str, serve_at: datetime, never_asleep: bool = False):
    clock = find_zone(zone)
    from datetime import time

    slept = () if never_asleep else nights(serve_at, clock, time(23), time(7))
    day, _ = read_day(Supper((SHOULDER, OTHER), serve_at, slept, 2))
    return day, clock


@pytest.mark.parametrize(
    ("zone", "serve_at"),
    [
        ("Europe/Berlin", datetime(2027, 3, 28, 16, 0, tzinfo=UTC)),  # the clocks are put forward that night
        ("Europe/Berlin", datetime(2026, 10, 25, 17, 0, tzinfo=UTC)),  # and back
        ("America/Denver", datetime(2027, 1, 1, 2, 0, tzinfo=UTC)),  # over the end of a year
        ("Australia/Sydney", datetime(2027, 4, 4, 9, 0, tzinfo=UTC)),  # back in the southern autumn
        ("Asia/Kolkata", datetime(2026, 12, 5, 14, 30, tzinfo=UTC)),  # half an hour off, and never changed
    ],
)
def test_a_calendar_says_the_same_moments_to_two_readers_that_are_not_ours(zone, serve_at):
    day, clock = read(zone, serve_at)
    written = write_calendar(
        "0a", "Supper, at the lock; all", day, NAMES, clock, datetime(2026, 11, 1, tzinfo=UTC)
    ).decode()
    wanted = sorted([*(step.begins_at for step in day.steps), serve_at])
    events = vobject.readOne(written).vevent_list
    assert sorted(event.dtstart.value.astimezone(UTC) for event in events) == wanted
    assert {event.valarm.trigger.value for event in events} == {timedelta(minutes=-10)}
    other = IcsCalendarStream.calendar_from_ics(written)
    assert sorted(event.start_datetime.astimezone(UTC) for event in other.events) == wanted
    assert {event.dtstart.tzinfo.key for event in other.events} == {zone}
    assert any(event.summary == "Supper, at the lock; all: at the table" for event in other.events)
    # written again it is the same, so that no calendar has a step twice
    assert (
        written
        == write_calendar(
            "0a", "Supper, at the lock; all", day, NAMES, clock, datetime(2026, 11, 1, tzinfo=UTC)
        ).decode()
    )
    assert len({event.uid.value for event in events}) == len(events)


def test_markdown_tells_every_step_by_the_hour_and_leaves_no_mark_of_its_own():
    day, clock = read("Europe/Berlin", SUPPER)
    text = write_markdown("Supper *by* [the] lock", day, NAMES, clock, [("Buy", ["2 kg lamb #1"]), ("Mix", [])])
    assert text.startswith("# Supper \\*by\\* \\[the\\] lock\n")
    assert "At the table Saturday 5 December 19:00 (Europe/Berlin)." in text
    assert text.count("- [ ] ") == len(day.steps)
    lit = next(step for step in day.steps if step.key.startswith("light"))
    assert f"- [ ] {lit.begins_at.astimezone(clock):%H:%M} {NAMES[lit.letter]}: light the kettle (5 min)" in text
    assert "## Buy\n\n- 2 kg lamb \\#1\n" in text
    assert "## Mix" not in text


def test_what_is_taken_along_is_in_the_households_scale_and_weights():
    # 92 °C is 197.6 °F; what is said in both already stays
    assert in_scale("centre at 92 °C, pit at 54.4 °C", "F") == "centre at 198 °F, pit at 130 °F"
    assert in_scale("74 °C (165 °F)", "F") == "74 °C (165 °F)"
    assert in_scale("centre at 92 °C", "C") == "centre at 92 °C"
    assert [say_mass(grams, "metric") for grams in (7.62, 48.4, 1254)] == ["7.6 g", "48 g", "1.25 kg"]
    # NIST Handbook 44: a pound is 453.59237 g, an ounce its sixteenth part
    assert [say_mass(grams, "us") for grams in (28.349523125, 453.59237, 1254)] == ["1.0 oz", "1.00 lb", "2.76 lb"]

"""Readings as a file, out and in, and thinned."""

from datetime import UTC, datetime, timedelta, timezone
from zoneinfo import ZoneInfo

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.fire import ReadRow, read_readings, stay, write_readings
from ravska_core.fire.readings_csv import MOST_ROWS
from ravska_core.working import BadInput

NOON = datetime(2027, 6, 12, 12, tzinfo=timezone(timedelta(hours=2)))

rows = st.lists(
    st.builds(
        ReadRow,
        at=st.datetimes(datetime(2020, 1, 1), datetime(2040, 1, 1), timezones=st.just(UTC)),
        measured=st.sampled_from(("centre", "surface")), letter=st.sampled_from("AB"),
        probe=st.text("abc=+-@,;\"' \t", max_size=20).map(lambda said: said.strip().lstrip("'").strip() or "file"),
        celsius=st.floats(-60, 700).map(lambda one: round(one, 2)),
    ),
    max_size=20,
)  # fmt: skip


@given(rows)
def test_what_was_written_is_read_again(written):
    assert read_readings(write_readings(written), "AB") == (written, [])


def test_a_name_that_a_spreadsheet_would_take_for_a_formula_is_written_as_text():
    row = ReadRow(NOON, "pit", "", "=SUM(A1)", 110.0)
    assert "'=SUM(A1)" in write_readings([row])
    assert read_readings(write_readings([row]), "A")[0] == [row]


def test_a_file_of_another_hand_is_read_with_its_own_marks_and_scale():
    text = "At;Piece;Fahrenheit\n2027-06-12T12:00:00+02:00;a;160,5\n2027-06-12 10:01:00Z;;\u200b230"
    found, faults = read_readings(text.replace("\u200b", ""), "AB")
    assert [(row.at, row.measured, row.letter) for row in found] == [
        (NOON, "centre", "A"), (NOON + timedelta(minutes=1), "pit", ""),
    ]  # fmt: skip
    assert [row.celsius for row in found] == [pytest.approx(71.39, abs=0.01), 110]
    assert faults == []


def test_what_cannot_be_read_is_told_by_line_and_column_and_stops_no_others():
    text = (
        "at,measured,piece,probe,celsius\n"
        "2027-06-12T12:00:00+02:00,centre,A,1,61\n"
        "yesterday,centre,A,1,61\n"
        "\n"
        "2027-06-12T12:02:00+02:00,crust,A,1,61\n"
        "2027-06-12T12:02:00+02:00,centre,Q,1,61\n"
        "2027-06-12T12:03:00+02:00,centre,A,1,hot\n"
        "2027-06-12T12:04:00+02:00,centre,A,1,7000\n"
        "2027-06-12T12:05:00,centre,A,1,61\n"
        "2027-06-12T12:06:00+02:00,centre,A\n"
    )
    found, faults = read_readings(text, ["A", "B"])
    assert [row.celsius for row in found] == [61]
    assert [(one.line, one.column) for one in faults] == [
        (3, 1), (5, 2), (6, 3), (7, 5), (8, 5), (9, 1), (10, 5),
    ]  # fmt: skip
    assert all(one.sentence.endswith(".") for one in faults)
    # a part of a long file counts on from where it was cut
    assert read_readings(text, ["A", "B"], first_line=1002)[1][0].line == 1003


def test_a_time_without_an_offset_is_of_the_zone_that_was_said_and_asked_in_the_hour_that_is_twice():
    berlin = ZoneInfo("Europe/Berlin")
    text = "at,celsius\n2027-06-12T12:00,110\n2027-10-31T02:30,110\n2027-03-28T02:30,110\n2027-10-31T02:30+01:00,110"
    found, faults = read_readings(text, "A", berlin)
    assert [row.at.astimezone(UTC).hour for row in found] == [10, 1]
    assert [one.line for one in faults] == [3, 4]
    assert "offset" in faults[0].sentence


@pytest.mark.parametrize("text", ["", "time,temp\n1,2", "at,piece\n2027-06-12T12:00Z,A"])
def test_a_file_that_does_not_say_what_its_columns_are_is_refused(text):
    with pytest.raises(BadInput) as refused:
        read_readings(text, "A")
    assert refused.value.argument == "text"


def test_no_file_keeps_a_server_busy():
    line = "2027-06-12T12:00:00+02:00,110\n"
    assert len(read_readings("at,celsius\n" + line * MOST_ROWS, "A")[0]) == MOST_ROWS
    with pytest.raises(BadInput):
        read_readings("at,celsius\n" + line * (MOST_ROWS + 1), "A")


def test_thinned_readings_keep_extremes_the_first_and_the_last_and_all_round_an_event():
    times = np.arange(0, 3600, 5.0)
    celsius = 60 + 5 * np.sin(times / 37.0)
    celsius[100], celsius[333] = 95.0, 20.0
    left = stay(times, celsius, [1800.0])
    assert left[[0, -1, 100, 333]].all()
    assert left[np.abs(times - 1800) <= 120].all()
    for minute in range(60):
        mine = times // 60 == minute
        assert celsius[left & mine].min() == celsius[mine].min()
        assert celsius[left & mine].max() == celsius[mine].max()
    quiet = left & (np.abs(times - 1800) > 120)
    assert quiet.sum() <= 2 * 60 + 2
    # thinned again, nothing more goes
    assert stay(times[left], celsius[left], [1800.0]).all()
    assert not stay(np.array([]), np.array([]), [1.0]).any()

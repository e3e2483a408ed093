"""The log of a fire: taps, a piece's stretches through its phases, the pit's dips, when fuel is due."""

from datetime import datetime, timedelta, timezone

import numpy as np
import pytest
from ravska_core.fire import KINDS, Place, Tap, band_of, check_tap, in_order, piece_log, usual_place
from ravska_core.fire.pit import dips_of, filled, fuel_due, out_since
from ravska_core.heat import NO_KITCHEN, Phase, Seen, find_cooker, take_kitchen
from ravska_core.working import BadInput

NOON = datetime(2027, 6, 12, 12, tzinfo=timezone(timedelta(hours=2)))

OPEN = Phase("indirect", 110.0, "grate", centre_c=68.0)
FOIL = Phase("indirect", 110.0, "foil", centre_c=92.0)
REST = Phase("rest", 21.0, "foil", lasts_s=1800)


@pytest.fixture(autouse=True)
def _no_kitchen():
    take_kitchen(NO_KITCHEN)


def _tap(minute: float, what: str, letter: str = "A", **more) -> Tap:
    return Tap(f"{minute}{what}{letter}", what, NOON + timedelta(minutes=minute), letter, **more)


def _log(*taps: Tap, now: float = 240, phases=(OPEN, FOIL, REST)):
    kettle = find_cooker("kettle", "indirect")
    return piece_log(
        "A", phases, (kettle,) * len(phases), in_order(taps), NOON + timedelta(minutes=now), Place(0.3, 0.5)
    )  # fmt: skip


def _spans(log) -> list[tuple[str, float]]:
    return [(one.phase.vessel, one.lasts_s / 60) for one in log.past]


def test_a_piece_waits_until_it_is_on_and_has_then_all_its_phases_ahead():
    assert _log().state == "waiting"
    log = _log(_tap(0, "on"))
    assert (log.state, _spans(log)) == ("on", [("grate", 240)])
    assert [phase.vessel for phase, _ in log.ahead] == ["grate", "foil"]


def test_what_is_on_when_the_fire_is_ended_is_off_from_then_and_what_was_off_stays_as_it_was():
    ended = _log(_tap(0, "on"), _tap(100, "ended", ""))
    assert (ended.state, ended.off_at, _spans(ended)) == ("off", NOON + timedelta(minutes=100), [("grate", 100)])
    served = _log(_tap(0, "on"), _tap(90, "off"), _tap(95, "slice"), _tap(100, "ended", ""))
    assert (served.state, served.off_at) == ("served", NOON + timedelta(minutes=90))
    assert _log(_tap(0, "on"), _tap(300, "ended", "")).state == "on"


def test_a_wrap_that_was_planned_is_its_phase_and_one_that_was_not_is_this_one_wrapped():
    planned = _log(_tap(0, "on"), _tap(100, "wrap"))
    assert _spans(planned) == [("grate", 100), ("foil", 140)]
    assert planned.wrapped
    assert [phase.centre_c for phase, _ in planned.ahead] == [92]
    own = _log(_tap(0, "on"), _tap(100, "wrap"), phases=(OPEN, REST))
    assert _spans(own) == [("grate", 100), ("foil", 140)]
    assert [(phase.vessel, phase.centre_c) for phase, _ in own.ahead] == [("foil", 68)]
    again = _log(_tap(0, "on"), _tap(100, "wrap"), _tap(130, "unwrap"), phases=(OPEN, REST))
    assert _spans(again) == [("grate", 100), ("foil", 30), ("grate", 110)]
    assert not again.wrapped


def test_a_phase_is_gone_into_by_its_number_and_time_spent_in_one_is_taken_off_it():
    timed = Phase("oven", 180.0, "rack", lasts_s=3600)
    log = _log(_tap(0, "on"), _tap(200, "move", phase=1), phases=(OPEN, timed))
    assert _spans(log) == [("grate", 200), ("rack", 40)]
    assert [phase.lasts_s for phase, _ in log.ahead] == [1200]


def test_a_spritz_begins_a_stretch_that_is_wetted():
    log = _log(_tap(0, "on"), _tap(60, "spritz"), _tap(60, "turn"), now=90)
    assert [(one.lasts_s / 60, one.spritzed) for one in log.past] == [(60, False), (30, True)]
    assert log.turned == 1


def test_the_pit_aimed_otherwise_is_so_from_then_on():
    log = _log(_tap(0, "on"), _tap(60, "set", "", celsius=130.0))
    assert [one.phase.aimed_c for one in log.past] == [110, 130]
    assert log.ahead[0][0].aimed_c == 130
    assert log.ahead[1][0].aimed_c == 110


def test_off_and_on_again_rests_between_and_a_slice_serves_it():
    log = _log(_tap(0, "on"), _tap(60, "off"), _tap(70, "on"), now=90)
    assert [(one.phase.surround, one.lasts_s / 60) for one in log.past] == [
        ("indirect", 60), ("rest", 10), ("indirect", 20),
    ]  # fmt: skip
    served = _log(_tap(0, "on"), _tap(60, "off"), _tap(80, "slice"))
    assert (served.state, served.off_at, served.served_at) == (
        "served", NOON + timedelta(minutes=60), NOON + timedelta(minutes=80),
    )  # fmt: skip
    assert served.ahead == ()


def test_what_is_noted_later_than_now_has_not_happened():
    assert _log(_tap(0, "on"), _tap(300, "off")).state == "on"


def test_it_lies_where_it_was_moved_to():
    log = _log(_tap(0, "on", x=0.2, y=0.4), _tap(5, "move", near=True), _tap(9, "turn", side="bottom"))
    assert (log.place.x, log.place.y, log.place.near, log.place.side) == (0.2, 0.4, True, "bottom down")
    # dragged over to the embers it is near them, and back it is not
    over, back = _tap(10, "move", x=0.7, y=0.5), _tap(11, "move", x=0.3, y=0.5)
    assert _log(_tap(0, "on"), over).place.near
    assert not _log(_tap(0, "on"), over, back).place.near
    places = [usual_place(at, 5) for at in range(5)]
    assert len({(one.x, one.y) for one in places}) == 5


@pytest.mark.parametrize(
    ("embers", "far"),
    [
        ("", 0.38), ("on the right", 0.38), ("on the left", 0.0), ("in the middle", 0.1), ("on both sides", 0.0),
        ("all over", 0.0), ("none", 1.0),
    ],
)  # fmt: skip
def test_how_far_from_the_embers_it_lies_goes_by_where_they_are_said_to_be(embers, far):
    said = [_tap(30, "embers", "", word=embers)] if embers else []
    place = _log(_tap(0, "on", x=0.2, y=0.5), *said).place
    assert place.from_embers == pytest.approx(far)
    assert place.near == (far == 0)
    # what is said later is not known yet
    assert _log(_tap(0, "on", x=0.2, y=0.5), _tap(300, "embers", "", word="all over")).place.from_embers > 0.3


def test_an_oven_has_no_embers_unless_somebody_says_so():
    oven = Phase("oven", 180.0, "rack", centre_c=74.0)
    assert _log(_tap(0, "on", x=0.9, y=0.5), phases=(oven,)).place.from_embers == 1
    said = _log(_tap(0, "on", x=0.9, y=0.5), _tap(1, "embers", "", word="on the right"), phases=(oven,))
    assert said.place.from_embers == 0


def test_a_side_that_is_down_is_up_when_it_was_turned_and_down_again():
    turns = [_tap(at, "turn") for at in (10, 20, 30)]
    sides = [_log(_tap(0, "on", side="fat cap"), *turns[:many]).place.side for many in range(4)]
    assert sides == ["fat cap down", "fat cap up", "fat cap down", "fat cap up"]
    assert _log(_tap(0, "on"), *turns).place.side == ""


def test_what_it_lies_in_is_that_of_its_phase_or_what_was_done_since():
    assert _log(_tap(0, "on")).vessel == "grate"
    assert _log(_tap(0, "on"), _tap(10, "wrap")).vessel == "foil"


def test_pieces_lie_one_before_the_other_until_there_are_four():
    assert [(one.x, one.y) for one in (usual_place(0, 1), usual_place(1, 2))] == [
        (0.3, 0.5),
        (0.3, pytest.approx(2 / 3)),
    ]
    five = [usual_place(at, 5) for at in range(5)]
    assert [one.y for one in five] == [0.25, 0.25, 0.5, 0.5, 0.75]
    assert [one.x for one in five] == [0.22, pytest.approx(0.46), 0.22, pytest.approx(0.46), 0.22]


def test_the_pit_is_out_once_it_has_been_so_for_five_minutes_and_not_before():
    pit = Seen(tuple(60.0 * at for at in range(11)), (*[120.0] * 5, *[100.0] * 6))
    assert out_since(pit, 110, 130, 240 + 299) is None
    assert out_since(pit, 110, 130, 240 + 300) == (240, False)
    assert out_since(Seen(pit.times_s, (*[120.0] * 5, *[140.0] * 6)), 110, 130, 600) == (240, True)
    assert out_since(Seen(pit.times_s, (*[120.0] * 5, *[110.0] * 6)), 110, 130, 900) is None


def test_two_orders_of_the_same_taps_are_one_log():
    taps = [_tap(0, "on"), _tap(100, "wrap"), _tap(30, "spritz"), _tap(150, "feel", word="tough")]
    assert _log(*taps) == _log(*reversed(taps))


@pytest.mark.parametrize(
    ("tap", "field"),
    [
        (Tap("k", "dance", NOON), "what"),
        (Tap("k", "wrap", NOON), "letter"),
        (Tap("k", "wrap", NOON, "Q"), "letter"),
        (Tap("k", "feel", NOON, "A", word="soggy"), "word"),
        (Tap("k", "feel", NOON, "A"), "word"),
        (Tap("k", "note", NOON), "note"),
        (Tap("k", "silence", NOON), "note"),
        (Tap("k", "read", NOON, "A", word="centre"), "celsius"),
        (Tap("k", "read", NOON, word="centre", celsius=50.0), "letter"),
        (Tap("k", "read", NOON, word="pit", celsius=900.0), "celsius"),
        (Tap("k", "weight", NOON, "A"), "grams"),
        (Tap("k", "weight", NOON, "A", grams=-1.0), "grams"),
        (Tap("k", "move", NOON, "A", x=1.2, y=0.0), "x"),
        (Tap("k", "fed", NOON, count=900), "count"),
    ],
)
def test_what_cannot_be_noted_is_refused_at_its_field(tap, field):
    with pytest.raises(BadInput) as refused:
        check_tap(tap, ("A", "B"))
    assert refused.value.argument == field


def test_every_kind_of_tap_can_be_noted():
    for what, kind in KINDS.items():
        word = kind.words[0] if kind.words else ""
        check_tap(Tap("k", what, NOON, "A", "note", word, celsius=60.0, grams=500.0, count=4), ("A",))


def _pit(*values: float) -> Seen:
    return Seen(tuple(60.0 * at for at in range(len(values))), values)


def test_a_dip_is_three_minutes_below_the_band_once_the_pit_was_in_it():
    pit = _pit(60, 70, 90, 110, 112, 95, 94, 90, 93, 97, 108, 110, 109, 108)
    (dip,) = dips_of(pit, 102, 0, 780)
    assert (dip.from_s, dip.to_s, dip.lowest_c, dip.goes_on) == (240, 600, 90, False)
    # a gap of less than five minutes joins two; a minute alone is none
    assert dips_of(_pit(110, 99, 110, 111), 102, 0, 300) == ()
    assert dips_of(_pit(110, 99, 98, 97, 96), 102, 0, 240)[0].goes_on
    assert dips_of(_pit(60, 70, 80), 102, 0, 180) == ()


def test_a_pit_without_its_dip_is_as_hot_as_it_is_expected_to_be():
    pit = _pit(110, 99, 90, 99, 110)
    dips = dips_of(_pit(110, 99, 90, 99, 110, 111), 102, 0, 300)
    assert filled(pit, dips, 108).celsius == (110, 108, 108, 108, 110)


def test_a_band_is_as_said_or_a_little_to_each_side():
    assert band_of(OPEN) == (pytest.approx(110 - 8.8), pytest.approx(110 + 8.8))
    assert band_of(Phase("indirect", 110.0, low_c=100.0, high_c=125.0)) == (100, 125)


def test_a_pit_is_out_of_its_band_after_five_minutes_above_or_below():
    assert out_since(_pit(110, 130, 131, 130), 100, 120, 200) is None
    assert out_since(_pit(110, 130, 131, 130, 130, 130, 131), 100, 120, 360) == (0, True)
    assert out_since(_pit(110, 90, 91, 90, 90, 90, 91, 90), 100, 120, 420) == (0, False)
    assert out_since(_pit(110, 90, 91, 90, 90, 90, 91, 110), 100, 120, 420) is None


def test_fuel_is_due_as_is_usual_and_then_as_it_went_on_so_far():
    kettle = find_cooker("kettle", "indirect")
    assert fuel_due(kettle, [], 0.0).at_s == 75 * 60
    assert fuel_due(kettle, [3000.0], 0.0).at_s == 3000 + 75 * 60
    learned = fuel_due(kettle, [3000.0, 6000.0, 9000.0], 0.0)
    assert (learned.at_s, learned.every_s) == (12000, 3000)
    assert fuel_due(find_cooker("oven", "oven"), [], 0.0) is None
    assert np.isfinite(learned.at_s)

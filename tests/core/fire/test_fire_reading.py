"""How a cook stands at its fire: probes that go wrong, the stall, alarms, clocks, and what is told."""

from dataclasses import replace
from datetime import datetime, timedelta, timezone

import numpy as np
import pytest
from calibrate import hidden_cook
from ravska_core.fire import (
    AtFire,
    Due,
    FirePiece,
    Place,
    Tap,
    happened,
    live_of,
    offset_says,
    piece_log,
    pit_dips,
    read_fire,
    tell,
)
from ravska_core.fire.probes import fault_of, rate_k_h, shown_now, swapped, without_faults
from ravska_core.fire.stall import stall_since
from ravska_core.fire.standing import beside_plan
from ravska_core.heat import NO_KITCHEN, NOTHING, Heated, Phase, Seen, find_cooker, take_kitchen
from ravska_core.meat import Piece, find_cut, read_piece

NOON = datetime(2027, 6, 12, 12, tzinfo=timezone(timedelta(hours=2)))

PIT = Phase("indirect", 120.0, "grate", centre_c=74.0)


@pytest.fixture(autouse=True)
def _no_kitchen():
    take_kitchen(NO_KITCHEN)


def _seen(celsius, every: float = 60.0, begin: float = 0.0) -> Seen:
    return Seen(tuple(begin + every * at for at in range(len(celsius))), tuple(float(one) for one in celsius))


def _rises(minutes: int, first: float = 20.0, by: float = 0.4) -> list[float]:
    return [first + by * at for at in range(minutes)]


HOT = _seen([120.0] * 200)


def test_a_silent_probe_is_dead_and_one_that_speaks_every_five_minutes_is_not():
    assert fault_of(_seen(_rises(30)), HOT, 1800) is None
    assert fault_of(_seen(_rises(30)), HOT, 29 * 60 + 400).kind == "dead"
    assert fault_of(_seen(_rises(30), every=300), HOT, 29 * 300 + 800) is None
    assert shown_now(_seen(_rises(30)), 29 * 60 + 400) is None


def test_a_probe_is_dead_beyond_its_limit_and_not_at_it():
    seen = _seen(_rises(30), every=10)
    assert fault_of(seen, HOT, 290 + 120) is None
    assert fault_of(seen, HOT, 290 + 121).since_s == 290


def test_one_that_jumps_to_where_the_pit_is_is_out_of_the_meat():
    fault = fault_of(_seen([*_rises(30), 90, 112, 118, 119]), HOT, 33 * 60)
    assert fault.kind == "out"
    assert fault.since_s == pytest.approx(30 * 60, abs=61)
    assert without_faults(_seen([*_rises(30), 90, 112, 118, 119]), HOT).celsius == tuple(_rises(30))


def test_one_that_falls_as_no_centre_does_is_slipping_and_is_right_again_when_put_back():
    rises = _rises(40, 50)
    slipped = [*rises[:30], 48, 46, 45]
    assert fault_of(_seen(slipped), HOT, 32 * 60).kind == "slipping"
    back = [*rises[:30], 48, 46, *rises[32:]]
    assert fault_of(_seen(back), HOT, 39 * 60) is None
    assert 46 not in without_faults(_seen(back), HOT).celsius
    assert rises[35] in without_faults(_seen(back), HOT).celsius


def test_cooks_without_a_fault_raise_none():
    """Hidden cooks whose probes stay where they are: noise, dips, drop-outs and a wrap are no faults."""
    false = seen = 0
    for seed in (5, 9, 14):
        cook = hidden_cook(seed)
        there = np.isfinite(cook.centre)
        pit = np.isfinite(cook.pit)
        for now in np.arange(1800, cook.done_s, 1200):
            mine, fire = there & (cook.times <= now), pit & (cook.times <= now)
            fault = fault_of(
                Seen(tuple(cook.times[mine]), tuple(cook.centre[mine])),
                Seen(tuple(cook.times[fire]), tuple(cook.pit[fire])), now,
            )  # fmt: skip
            false += fault is not None and fault.kind != "dead"
            seen += 1
    assert seen > 20
    assert false == 0


def test_two_that_changed_places_are_named():
    one, other = _rises(40, 30), _rises(40, 50)
    found = swapped({"A": _seen([*one[:30], *other[30:]]), "B": _seen([*other[:30], *one[30:]])}, 39 * 60)
    assert found[:2] == ("A", "B")
    assert found[2] == pytest.approx(30 * 60)
    assert swapped({"A": _seen(one), "B": _seen(other)}, 39 * 60) is None


def test_a_rate_is_the_slope_of_the_last_half_hour():
    assert rate_k_h(_seen(_rises(60, 20, 0.4)), 3600) == pytest.approx(24)
    assert rate_k_h(_seen(_rises(2)), 120) is None
    # two that were read by hand, twenty minutes apart: 12.5 K in a third of an hour
    assert rate_k_h(Seen((0.0, 1200.0), (24.0, 36.5)), 1200) == pytest.approx(37.5)


def test_the_stall_is_named_while_it_is_there():
    rising, stall, after = (
        _rises(120, 10, 0.45),
        [64 + 0.02 * at for at in range(90)],
        [66 + 0.2 * at for at in range(60)],
    )
    assert stall_since(_seen(rising), 7200, 120, False) is None
    since = stall_since(_seen([*rising, *stall]), 210 * 60, 120, False)
    assert since == pytest.approx(120 * 60, abs=1500)
    assert stall_since(_seen([*rising, *stall, *after]), 270 * 60, 120, False) is None
    assert stall_since(_seen([*rising, *stall]), 210 * 60, 120, True) is None
    assert stall_since(_seen([*rising, *stall]), 210 * 60, 70, False) is None


def _tap(minute: float, what: str, letter: str = "A", **more) -> Tap:
    return Tap(f"{minute}{what}{letter}{more}", what, NOON + timedelta(minutes=minute), letter, **more)


def _fire(*taps: Tap, now: float, centre: Seen = NOTHING, pit: Seen = HOT, pierced: bool = False, **more) -> AtFire:
    piece = Piece("turkey-breast", 1800.0, pierced=pierced)
    kettle = find_cooker("kettle", "indirect")
    heated = Heated(piece, find_cut(piece.cut), read_piece(piece), (PIT,), (kettle,))
    log = piece_log("A", (PIT,), (kettle,), taps, NOON + timedelta(minutes=now), Place(0.3, 0.5))
    at = FirePiece("Rubbed", heated, log, centre)
    return AtFire(NOON + timedelta(minutes=now), NOON, (at,), taps, pit, **more)


def _kinds(fire: AtFire) -> list[str]:
    return [one.kind for one in read_fire(fire).alarms]


def test_a_target_rings_until_it_is_silenced_and_rings_anew_for_nothing_else():
    centre = _seen(_rises(100, 5, 0.72))
    fire = _fire(_tap(0, "on"), now=99, centre=centre)
    (alarm,) = [one for one in read_fire(fire).alarms if one.kind == "target"]
    assert alarm.says == "A has its 74 °C."
    quiet = _fire(_tap(0, "on"), _tap(99, "silence", "", note=alarm.key), now=99, centre=centre)
    assert [one.silenced for one in read_fire(quiet).alarms if one.kind == "target"] == [True]
    assert "target" not in _kinds(_fire(_tap(0, "on"), now=60, centre=_seen(_rises(60))))
    assert "target" not in _kinds(_fire(_tap(0, "on"), _tap(98, "off"), now=99, centre=centre))


def test_the_pit_rings_when_it_is_out_of_its_band_and_when_its_probe_is_silent():
    low = _seen([*[120.0] * 50, *[95.0] * 10])
    assert "pit" in _kinds(_fire(_tap(0, "on"), now=59, pit=low))
    assert "pit" not in _kinds(_fire(_tap(0, "on"), now=49, pit=low))
    assert "probe" in _kinds(_fire(_tap(0, "on"), now=90, pit=_seen([120.0] * 50)))


def test_a_step_and_fuel_ring_when_they_are_due():
    due = Due("A", "turn.0.1", "Turn it", NOON + timedelta(minutes=30), "turn", "A")
    later = Due("", "light.oven", "Heat the oven", NOON + timedelta(minutes=31))
    (alarm,) = [one for one in read_fire(_fire(_tap(0, "on"), now=31, due=(later, due))).alarms if one.kind == "step"]
    assert (alarm.says, alarm.letter) == ("A: Turn it", "A")
    assert "step" not in _kinds(_fire(_tap(0, "on"), now=29, due=(due,)))
    assert "fuel" in _kinds(_fire(_tap(0, "on"), now=76))
    assert "fuel" not in _kinds(_fire(_tap(0, "on"), _tap(70, "fuel", ""), now=76))


@pytest.mark.parametrize("pierced", [False, True])
def test_the_clocks_run_by_the_logs_own_time(pierced):
    slow = _seen([min(5 + 0.1 * at, 48) for at in range(300)])
    fire = _fire(_tap(0, "on"), now=290, centre=slow, pierced=pierced)
    clocks = {one.kind: one for one in read_fire(fire).clocks}
    assert (clocks["fire"].took_s, clocks["fire"].over, clocks["fire"].runs) == (290 * 60, True, True)
    assert ("centre" in clocks) is pierced
    assert "clock" in _kinds(fire)
    warm = _fire(_tap(0, "on"), now=200, centre=_seen(_rises(200, 5, 0.3)), pierced=pierced)
    read = {one.kind: one for one in read_fire(warm).clocks}
    # its centre is at 50 after 150 min: then its surface has long been at 60
    assert read["fire"].took_s == pytest.approx(150 * 60, abs=61)
    assert not read["fire"].over


def test_what_is_off_cools_by_a_clock_until_it_is_put_away():
    centre = _seen(_rises(100, 5, 0.72))
    fire = _fire(_tap(0, "on"), _tap(100, "off"), now=230, centre=centre)
    (clock,) = [one for one in read_fire(fire).clocks if one.kind == "cooling"]
    assert (clock.took_s, clock.over) == (130 * 60, True)
    away = _fire(_tap(0, "on"), _tap(100, "off"), _tap(160, "left over", grams=300.0, word="fridge"), now=230)
    (clock,) = [one for one in read_fire(away).clocks if one.kind == "cooling"]
    assert (clock.took_s, clock.over, clock.runs) == (60 * 60, False, False)


def test_meat_taken_off_below_the_usual_minimum_is_said():
    fire = _fire(_tap(0, "on"), _tap(60, "off"), now=70, centre=_seen(_rises(60, 5, 1.0)))
    (said,) = read_fire(fire).says
    assert "highest its centre was read at is 64.0 °C" in said
    assert "Local food-safety rules" in said


def test_a_forecast_is_told_with_its_chances_what_dips_cost_and_what_else_would_do():
    cook = hidden_cook(4)
    now = 60 * round(cook.done_s / 120)
    seen = (cook.times <= now) & np.isfinite(cook.centre) & np.isfinite(cook.pit)
    pit = [one - 45 * (2400 <= t <= 4200) for t, one in zip(cook.times[seen], cook.pit[seen], strict=True)]
    fire = _fire(
        _tap(0, "on"), now=now / 60, centre=Seen(tuple(cook.times[seen]), tuple(cook.centre[seen])),
        pit=Seen(tuple(cook.times[seen]), tuple(pit)),
    )  # fmt: skip
    live, dips = live_of(fire.pieces[0], fire), pit_dips(fire)
    assert live.now_s == now
    told = tell(live, dips, (), Phase("rest", 21.0, "foil", lasts_s=1200), more=True)
    read = read_fire(replace(fire, told={"A": (fire.now, told)}))
    outlook = read.pieces[0].outlook
    assert len(outlook.done) == 20
    assert outlook.low_at < outlook.done_at < outlook.high_at
    assert not outlook.old
    assert max(dip.cost_s or 0 for dip in read.pit.dips) > 60
    assert [one.says for one in outlook.otherwise] == ["10 °C hotter (18 °F) from now on", "Wrapped now"]
    assert outlook.otherwise[0].sooner_s > 60
    assert outlook.carry_k > 0.3
    later = read_fire(replace(fire, told={"A": (fire.now - timedelta(minutes=5), told)}))
    assert later.pieces[0].outlook.old


def test_a_clock_that_is_wrong_is_said():
    assert offset_says(3) == ""
    assert offset_says(-40) == "Its clock is 40 s slow; its readings are told by this server's."
    assert offset_says(3600) == "Its clock is 60 min fast; its readings are told by this server's."


def test_a_pit_that_is_read_by_hand_stands_with_its_time_and_is_never_silent():
    pit = Seen((0.0, 60.0, 120.0, 1800.0), (115.0, 116.0, 116.0, 121.0))
    by_hand = _fire(_tap(0, "on"), now=90, pit=pit, pit_typed=True)
    pit = read_fire(by_hand).pit
    assert (pit.celsius, pit.read_at) == (121.0, NOON + timedelta(minutes=30))
    assert "probe" not in _kinds(by_hand)
    probe = replace(by_hand, pit_typed=False)
    assert "probe" in _kinds(probe)
    assert (read_fire(probe).pit.celsius, read_fire(probe).pit.read_at) == (None, None)


def _cooling(*taps: Tap, now: float) -> tuple[float, bool, bool]:
    found = read_fire(_fire(_tap(0, "on"), _tap(100, "off"), *taps, now=now)).clocks
    (clock,) = [one for one in found if one.kind == "cooling"]
    return clock.took_s / 60, clock.runs, clock.over


def test_the_cooling_clock_ends_with_what_was_put_away_or_when_all_have_eaten_and_is_not_told_for_ever():
    assert _cooling(now=160) == (60, True, False)
    assert _cooling(now=221) == (121, True, True)
    assert _cooling(_tap(190, "left over", word="fridge", grams=200.0), now=300) == (90, False, False)
    assert _cooling(_tap(190, "left over", "B", word="fridge", grams=200.0), now=300)[1]
    assert _cooling(_tap(180, "fed", "", count=6), now=300) == (80, False, False)
    assert _cooling(now=100 + 13 * 60) == (720, False, True)
    assert "clock" not in _kinds(_fire(_tap(0, "on"), _tap(100, "off"), now=100 + 13 * 60))
    assert "clock" in _kinds(_fire(_tap(0, "on"), _tap(100, "off"), now=100 + 11 * 60))


@pytest.mark.parametrize(
    ("minutes", "says"),
    [
        (0, "as planned"), (3.9, "as planned"), (4, "4 min later than planned"), (-4, "4 min sooner than planned"),
        (75, "1 h 15 min later than planned"), (-599, "9 h 59 min sooner than planned"), (601, ""),
    ],
)  # fmt: skip
def test_how_something_is_beside_the_plan(minutes, says):
    assert beside_plan(NOON + timedelta(minutes=minutes), NOON) == says
    assert beside_plan(None, NOON) == beside_plan(NOON, None) == ""


SLIPPED = _seen([*_rises(60, 5, 0.4), *[121.0] * 60])
"""A probe that fell out of the meat after an hour, at 29 °C, and hangs in the pit."""


def test_a_probe_out_of_the_meat_ends_no_clock_reaches_no_target_and_hides_no_caution():
    off = _fire(_tap(0, "on"), _tap(119, "off"), now=125, centre=SLIPPED, pierced=True)
    (said,) = read_fire(off).says
    assert "before its probe was lost is 28.6 °C, below the usual minimum for turkey" in said
    on = _fire(_tap(0, "on"), now=119, centre=SLIPPED, pierced=True)
    assert "target" not in _kinds(on)
    clocks = {one.kind: one for one in read_fire(on).clocks}
    assert (clocks["centre"].runs, clocks["centre"].took_s) == (True, 119 * 60)
    assert (clocks["fire"].runs, clocks["fire"].took_s) == (True, 119 * 60)
    (piece,) = read_fire(off).pieces
    assert piece.fault.kind == "out"


def test_how_it_came_off_is_not_known_of_a_probe_that_was_lost_long_before():
    off = _fire(_tap(0, "on"), _tap(119, "off"), now=125, centre=SLIPPED)
    told = happened(off.pieces[0], off)
    assert (told.end_c, told.highest_c) == (None, None)
    short = _fire(_tap(0, "on"), _tap(70, "off"), now=75, centre=SLIPPED)
    assert happened(short.pieces[0], short).end_c == pytest.approx(28.6)
    # what hands read is gone by as it stands
    by_hand = replace(off, pieces=(replace(off.pieces[0], typed=True),))
    assert happened(by_hand.pieces[0], by_hand).end_c == pytest.approx(121)

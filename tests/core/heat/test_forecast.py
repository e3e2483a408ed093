"""The forecast of a live cook: what readings say of it, its chances, what else would do, and how often it is right."""

from dataclasses import replace
from functools import lru_cache

import numpy as np
import pytest
from calibrate import Hidden, hidden_cook, live_at, table, told_of
from ravska_core.heat import (
    NO_KITCHEN,
    Changed,
    Felt,
    Forecast,
    Heated,
    Live,
    Phase,
    Seen,
    Stretch,
    by_minute,
    carry_k,
    find_cooker,
    forecast,
    later_s,
    take_kitchen,
)
from ravska_core.heat.fit import Past, fit
from ravska_core.heat.forecasting import _gap, _on, _told, fire_to_come
from ravska_core.heat.heated import body_of
from ravska_core.heat.live import NUMBERS, fire_over, past_steps, thinned
from ravska_core.heat.run import first_time, run
from ravska_core.heat.trade import factor_of
from ravska_core.meat import Piece, find_cut, read_piece

H = 3600.0


@pytest.fixture(autouse=True)
def _no_kitchen():
    take_kitchen(NO_KITCHEN)


def _live(*phases: Phase, past: tuple[tuple[Phase, float], ...] = (), **more) -> Live:
    piece, kettle = Piece("lamb-leg", 2400.0), find_cooker("kettle", "indirect")
    heated = Heated(piece, find_cut(piece.cut), read_piece(piece), phases, (kettle,) * len(phases))
    stretches = tuple(Stretch(phase, kettle, lasts) for phase, lasts in past)
    return Live(heated, stretches, tuple((phase, kettle) for phase in phases), **more)


PIT = Phase("indirect", 130.0, "grate", centre_c=58.0)


def _own_cook(now_s: float) -> Live:
    """A cook of the model's own: its likeliest draw read at every minute, without noise."""
    live = _live(PIT, past=((PIT, now_s),))
    past = Past(live, body_of(live.heated), factor_of(live.heated.cut))
    went = past.run(np.zeros((1, NUMBERS)))
    times = np.arange(60.0, now_s, 60.0)
    read = np.interp(times, went.times_s[:, 0], went.tip[:, 0])
    return replace(live, centre=Seen(tuple(times), tuple(read)), pit=Seen(tuple(times), (130.0,) * len(times)))


@lru_cache(maxsize=4)
def _cook(seed: int) -> Hidden:
    found = hidden_cook(seed)
    assert found is not None
    return found


@lru_cache(maxsize=4)
def _forecast(seed: int, share: float) -> tuple[Live, Forecast]:
    cook = _cook(seed)
    live = live_at(cook, round(cook.done_s * share / 30) * 30)
    return live, forecast(live)


def test_of_a_cook_of_its_own_it_finds_the_numbers_it_was_made_of():
    live = _own_cook(1.5 * H)
    found = forecast(live)
    assert np.abs(found.numbers).max() < 0.15
    past = Past(live, body_of(live.heated), factor_of(live.heated.cut))
    off, _ = past.misfit(np.array([found.numbers]))
    assert np.abs(off).max() < 0.5


def test_the_likeliest_numbers_are_those_of_the_least_misfit_and_of_the_least_distance_from_what_is_usual():
    live = live_at(_cook(5), 5400.0)
    past = Past(live, body_of(live.heated), factor_of(live.heated.cut))
    found = fit(past, None, 8).xi
    _, costs = past.misfit(np.vstack((found, found + 0.3 * np.eye(NUMBERS), found - 0.3 * np.eye(NUMBERS))))
    assert np.abs(found).max() > 0.3
    assert (costs[1:] > costs[0]).all()


def test_what_the_model_is_off_by_now_goes_on_and_fades_over_two_hours():
    live = _own_cook(1.5 * H)
    hotter = [one + 4 * (time >= 4740) for time, one in zip(*_of(live.centre), strict=True)]
    live = replace(live, centre=Seen(live.centre.times_s, tuple(hotter)))
    past, none = Past(live, body_of(live.heated), factor_of(live.heated.cut)), np.zeros(1)
    went = _on(live, past, np.zeros((1, NUMBERS)), 130.0, none)
    gap = _gap(live, past, went)
    more = (_told(live, past, went, gap, none) - went.tip[len(past.steps) :])[:, 0]
    assert more[0] == pytest.approx(4.0, abs=0.1)
    ahead = went.times_s[len(past.steps) :, 0] - live.now_s
    assert np.interp(1800, ahead, more) == pytest.approx(4.0 * np.exp(-0.25), abs=0.1)


def test_it_is_surer_the_nearer_the_end_is():
    early, late = forecast(_own_cook(0.5 * H)), forecast(_own_cook(2 * H))

    def width(one: Forecast) -> float:
        return one.high_s - one.low_s

    assert width(late) < 0.6 * width(early)
    assert early.low_s < late.done_s < early.high_s


def test_without_any_reading_it_goes_by_what_is_usual_and_says_how_little_that_is():
    bare = forecast(_live(PIT, past=((PIT, 1.5 * H),)))
    read = forecast(_own_cook(1.5 * H))
    assert np.allclose(bare.numbers, 0)
    assert bare.done[14] - bare.done[4] > 1.5 * (read.done[14] - read.done[4])


def test_a_cook_of_another_model_ends_within_its_chances_and_the_middle_moves_there():
    for share in (0.5, 0.75):
        live, told = _forecast(5, share)
        assert told.done[0] < _cook(5).done_s < (told.done[-1] or 1e9)
        assert told.done == tuple(sorted(told.done, key=lambda one: one or 1e9))
        assert all(one is None or one >= live.now_s for one in told.done)
        assert sum(told.by.values()) == 20


def test_a_warm_start_comes_to_the_same():
    live, told = _forecast(5, 0.5)
    again = forecast(live, told.numbers)
    assert again.done_s == pytest.approx(told.done_s, rel=0.05)


def test_a_centre_read_hotter_is_done_sooner_and_a_hotter_pit_read_too():
    live, told = _forecast(5, 0.5)
    warmer = replace(live, centre=Seen(live.centre.times_s, tuple(one + 4 for one in live.centre.celsius)))
    assert forecast(warmer).done_s < told.done_s - 60
    cold = replace(live, pit=Seen(live.pit.times_s, tuple(one - 25 for one in live.pit.celsius)))
    assert fire_to_come(cold) == pytest.approx(fire_to_come(live) - 25 * 3 / 3.5, abs=6)


def test_the_fan_begins_at_what_is_read_and_widens():
    live, told = _forecast(5, 0.5)
    assert told.times_s[0] == pytest.approx(live.now_s)
    assert told.middle[0] == pytest.approx(live.centre.celsius[-1], abs=1.5)
    assert told.high[0] - told.low[0] < told.high[20] - told.low[20]


def test_what_is_aimed_at_rules_until_the_fire_was_seen_for_long():
    unseen = _live(PIT, past=((PIT, H),))
    assert fire_to_come(unseen) == 130.0
    times = np.arange(0, H, 60.0)
    # an hour less the first twenty minutes at 115: 40 medians weigh 2/3, what is aimed at 1/2
    seen = replace(unseen, pit=Seen(tuple(times), (115.0,) * 60))
    assert fire_to_come(seen) == pytest.approx((115 * 39 / 60 + 130 * 0.5) / (39 / 60 + 0.5), abs=0.3)


def test_hotter_and_wrapped_are_sooner_and_a_dip_made_it_later():
    live, told = _forecast(5, 0.5)
    assert later_s(live, told.numbers, Changed(hotter_k=10)) < -120
    assert later_s(live, told.numbers, Changed(wrapped=True)) < -120
    filled = Seen(live.pit.times_s, tuple(one + 30 * (3000 < t < 4800) for t, one in zip(*_of(live.pit), strict=True)))
    assert -1800 < later_s(live, told.numbers, Changed(pit=filled)) < -60
    assert later_s(live, told.numbers, Changed()) == 0


def _of(seen: Seen) -> tuple[tuple[float, ...], tuple[float, ...]]:
    return seen.times_s, seen.celsius


def test_a_hot_fast_roast_rises_more_at_rest_than_a_gentle_one():
    rest = Phase("rest", 21.0, "foil", lasts_s=1800)
    none = (0.0,) * NUMBERS

    def carries(aimed: float) -> float:
        phase = replace(PIT, aimed_c=aimed)
        return carry_k(_live(phase, past=((phase, 0.5 * H),)), none, rest)

    assert 1 < carries(120.0) < carries(170.0) < 18


def test_whichever_is_first_ends_it_and_each_says_how_often():
    butter = Phase("indirect", 125.0, "grate", centre_c=99.0, feel="like butter")
    found = forecast(_live(butter, past=((butter, H),)))
    assert found.by.get("feel", 0) > 10
    number = replace(butter, centre_c=85.0)
    assert forecast(_live(number, past=((number, H),))).by["number"] > 10


def test_a_finger_that_finds_it_tough_makes_it_later_and_one_that_finds_it_giving_sooner():
    butter = Phase("covered liquid", 96.0, "pot", feel="like butter")
    live = _live(butter, past=((butter, 3 * H),))

    def done(*felt: Felt) -> float:
        return forecast(replace(live, felt=felt)).done_s

    assert done(Felt(3 * H, "giving")) < done() < done(Felt(3 * H, "tough"))


def test_what_ends_by_time_ends_then_for_sure():
    timed = Phase("oven", 180.0, "rack", lasts_s=1200.0)
    found = forecast(_live(timed, past=((timed, 600.0),)))
    assert set(found.done) == {1800.0}
    assert found.by == {"time": 20}


def test_a_fire_too_cold_for_it_is_said_by_chances_that_never_come():
    cold = Phase("indirect", 57.0, "grate", centre_c=60.0)
    found = forecast(_live(cold, past=((cold, 2 * H),)))
    assert found.done.count(None) > 5


def test_a_phase_ahead_is_gone_through_before_the_end():
    first, last = replace(PIT, centre_c=50.0), Phase("oven", 230.0, "rack", centre_c=58.0)
    two = forecast(_live(first, last, past=((first, H),)))
    one = forecast(_live(PIT, past=((PIT, H),)))
    assert two.done_s < one.done_s


def test_a_goal_that_is_passed_as_its_phase_begins_is_met_then():
    times = np.array([[0.0], [60], [120]])
    assert first_time(times, np.array([[-np.inf], [70.0], [80]]), 65.0).tolist() == [60]
    assert first_time(times, np.array([[60.0], [70], [80]]), 65.0).tolist() == [30]
    assert np.isnan(first_time(times, np.array([[60.0], [61], [62]]), 65.0)).all()
    # wrapped at 50 and then taken to 45: it is done as soon as it is in there
    first, last = replace(PIT, centre_c=50.0), replace(PIT, vessel="foil", centre_c=45.0)
    assert None not in forecast(_live(first, last, past=((first, 0.7 * H),))).done


def test_medians_are_of_each_minute():
    times, celsius = by_minute(Seen((0.0, 10, 50, 61, 70, 200), (5.0, 50, 6, 7, 9, 11)))
    assert celsius.tolist() == [6.0, 8.0, 11.0]
    assert times.tolist() == [20.0, 65.5, 200.0]
    many = thinned(np.arange(500.0), np.arange(500.0))
    assert len(many[0]) == 48
    assert many[0][-1] == 499


def test_the_fire_of_the_past_is_what_was_read_and_what_was_aimed_at_before_that():
    live = _live(PIT, past=((PIT, 2 * H),), pit=Seen(tuple(np.arange(H, 2 * H, 60)), (100.0,) * 60))
    steps = past_steps(live)
    assert steps.sum() == pytest.approx(2 * H)
    fire = fire_over(live, steps)
    assert fire[0] == 130
    assert fire[-1] == pytest.approx(100)


def test_a_fire_that_was_seen_is_run_as_one_that_is_aimed_at():
    """The same steady fire given as readings and as a leg comes to the same centre."""
    live = replace(_live(PIT, past=((PIT, 2 * H),)), pit=Seen(tuple(np.arange(0, 2 * H, 60)), (130.0,) * 120))
    past = Past(live, body_of(live.heated), factor_of(live.heated.cut))
    seen = past.run(np.zeros((1, NUMBERS)))
    aimed = run(replace(past.body, slower=past.trade.factor, crust_m=0.02e-3), past.legs, steps=list(past.steps))
    assert seen.centre[-1, 0] == pytest.approx(aimed.centre[-1, 0], abs=0.05)


def test_a_probe_off_the_centre_is_warmer_and_one_in_it_is_not():
    live = _live(PIT, past=((PIT, H),))
    body = replace(body_of(live.heated), start_c=np.full(3, 4.0))
    past = Past(live, body_of(live.heated), factor_of(live.heated.cut))
    went = run(body, past.legs, steps=list(past.steps), probe=np.array([0.0, 0.3, 0.6]))
    assert went.tip[-1, 0] == pytest.approx(went.centre[-1, 0])
    assert went.centre[-1, 0] < went.tip[-1, 1] < went.tip[-1, 2] < went.surface[-1, 0, 0]


def test_a_sample_of_what_docs_calibration_says():
    """Six hidden cooks: the band holds most of them, and errors are below those of the two simple ways."""
    told = [one for seed in range(9000, 9006) for one in told_of(seed)]
    assert 0.6 <= np.mean([one.held for one in told]) <= 0.98
    halves = [one for one in told if one.share == 0.5]
    assert np.median([one.width for one in halves]) <= 0.85
    off = np.quantile(np.abs([[one.off, one.straight_off, one.exponential_off] for one in told]), 0.8, axis=0)
    assert off[0] < off[1]
    assert off[0] < off[2]
    assert len(table(told)) == 5

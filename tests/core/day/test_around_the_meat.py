"""Sides, waves, the way, what is done over the fire, the clocks that run: what a day has beside its pieces' chains."""

from dataclasses import replace
from datetime import timedelta

import pytest
from ravska_core.coat import Injection, Layer
from ravska_core.day import Away, DayReading, Side, Supper, Waves, check_side, read_day, waves_said
from ravska_core.day.lanes import comes_in_waves, lanes_of
from ravska_core.day.sides import side_doings
from ravska_core.heat import Phase, find_cooker
from ravska_core.meat import Stage
from ravska_core.working import BadInput
from test_day_of_a_cook import BATH, HOUR, OPEN, SALTED, SHOULDER, STOCK, SUPPER, TUNA, WRAPPED, asleep, piece

OVEN = find_cooker("oven", "oven")
BREAD = Side("S1", "Bread", 20, 25, 10, "oven", OVEN, 230.0)
SPRITZ = Layer("spritz", STOCK, 0.5, times=3)
GLAZE = Layer("glaze", BATH, 4.0)
TENDED = Phase("direct flame", 230.0, "skewer", lasts_s=600.0, turned_s=60.0)


def day(*pieces, **more) -> DayReading:
    return read_day(Supper(pieces, SUPPER, asleep(SUPPER), more.pop("people", 3), **more))[0]


def steps(found: DayReading, letter: str, start: str) -> list[float]:
    """When steps of a lane begin whose keys start so [min before supper]."""
    return [
        (step.begins_at - found.serve_at).total_seconds() / 60
        for step in found.steps if step.letter == letter and step.key.startswith(start)
    ]  # fmt: skip


def test_a_side_is_worked_on_lit_for_cooked_and_dished_up():
    found = day(SHOULDER, sides=(BREAD,))
    (lane,) = [one for one in found.lanes if one.letter == "S1"]
    chain = [(block.key, (block.ends_at - block.begins_at).total_seconds() / 60) for block in lane.blocks]
    assert chain == [("make", 25), ("light.oven", 5), ("light.oven.waits", 10), ("on", 20), ("serve", 5)]
    oven = next(cooker for cooker in found.cookers if cooker.key == "oven")
    # a tray is one of the oven's two grates
    assert [(burns.low_c, burns.high_c, burns.share) for burns in oven.burns] == [(220.0, 240.0, 0.5)]
    # an offset is an hour until its embers lie
    pit = replace(BREAD, cooker="offset", device=find_cooker("offset", "indirect"), aimed_c=150.0)
    (light,) = [one.task for one in side_doings(pit) if one.kind == "light"]
    assert (light.lasts, light.least, light.most) == (5, 55, 55 + 60)
    # what needs no cooker is only worked on, and can be made long before
    slaw = day(SHOULDER, sides=(Side("S1", "Slaw", 0, 20, 180),))
    assert [block.key for block in slaw.lanes[-1].blocks if block.hands] == ["make", "serve"]
    # somebody is beside what is tended, and nobody beside what is not
    assert not any(block.hands for block in lane.blocks if block.key == "on")
    tended = day(SHOULDER, sides=(replace(BREAD, tended=True),)).lanes[-1]
    assert any(block.hands for block in tended.blocks if block.key == "on")


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": " "}, "name"),
        ({"cooks_min": 3000}, "minutes"),
        ({"cooks_min": 0, "hands_min": 0}, "minutes"),
        ({"hands_min": 500}, "hands"),
        ({"waits_min": 3000}, "waits"),
        ({"aimed_c": 300.0}, "aimed"),
    ],
)
def test_a_side_that_cannot_be_is_refused_at_its_field(change, field):
    check_side(BREAD)
    with pytest.raises(BadInput) as refused:
        check_side(replace(BREAD, **change))
    assert refused.value.argument == field


def test_what_goes_on_over_the_fire_is_done_beside_it_and_counted_back_from_coming_off():
    sprayed = piece("A", "lamb-shoulder", 2300, (replace(OPEN, centre_c=92.0),), *SALTED, SPRITZ, GLAZE)
    found = day(sprayed)
    (off,) = steps(found, "A", "off")
    (on,) = steps(found, "A", "to.0")
    # sprayed three times over the last two thirds: at a third, five ninths and seven ninths of its time on the fire
    fire = off - on
    assert steps(found, "A", "spritz") == pytest.approx([on + fire * share for share in (1 / 3, 5 / 9, 7 / 9)], abs=4)
    assert steps(found, "A", "glaze") == [off - 20]
    # nobody gets up at night to spray
    night = ((round(on + fire / 3) - 20, round(on + fire / 3) + 20),)
    slept = read_day(Supper((sprayed,), SUPPER, night, 3))[0]
    assert len(steps(slept, "A", "spritz")) == 2


def test_raw_is_washed_off_and_a_grate_is_cleaned_once_before_it_is_used():
    other = replace(SHOULDER, letter="B", seasoned=replace(SHOULDER.seasoned, letter="B"))
    found = day(SHOULDER, other)
    oiled = [step for step in found.steps if step.key == "oil.kettle"]
    assert len(oiled) == 1
    assert oiled[0].ends_at <= min(step.begins_at for step in found.steps if step.key == "to.0")
    (washed,) = steps(found, "A", "wash")
    (coated,) = steps(found, "A", "coat")
    assert washed >= coated + 10


def test_a_cooker_for_a_later_phase_is_lit_so_that_it_is_ready_by_then():
    moved = piece("A", "lamb-shoulder", 2300, (OPEN, replace(WRAPPED, surround="oven")), *SALTED)
    found = day(moved)
    (to_oven,) = steps(found, "A", "to.1")
    (lit,) = steps(found, "A", "light.oven")
    assert to_oven - 25 - OVEN.ready_s / 60 <= lit <= to_oven - OVEN.ready_s / 60
    oven = next(cooker for cooker in found.cookers if cooker.key == "oven")
    assert oven.lit_at == SUPPER + timedelta(minutes=lit)


def test_a_fire_that_one_piece_wants_at_two_heats_is_taken_there_in_time():
    sear, rest = Phase("indirect", 260.0, "grate", lasts_s=600.0), Phase("rest", 21.0, "board", lasts_s=900.0)
    slow = replace(OPEN, aimed_c=110.0)
    found = day(piece("A", "lamb-shoulder", 2300, (slow, rest, sear), *SALTED))
    (stoked,) = [step for step in found.steps if step.key == "heat.2"]
    assert stoked.says == "Bring the kettle up to 260 °C"
    # ten minutes of searing keep somebody beside it
    (on_again,) = steps(found, "A", "phase.2")
    assert on_again - 20 - 25 <= steps(found, "A", "heat.2")[0] <= on_again - 20
    # looked at is what ends before the sear, from its own earliest chance on and to its likeliest
    seared = piece("A", "lamb-shoulder", 2300, (slow, rest, sear), *SALTED)
    looks = [step for step in found.steps if step.key.startswith("look")]
    assert {step.says for step in looks} == {"Look: is its centre at 68 °C? Where it looks dry, spritz it."}
    on = next(step.begins_at for step in found.steps if step.key == "to.0")
    earliest = min(one for one in seared.heat.done if one is not None)
    assert (looks[0].begins_at - on).total_seconds() == pytest.approx(earliest - 900 - 600, abs=60)
    assert on + timedelta(seconds=seared.heat.phases[0].ends_s) > looks[-1].begins_at
    assert 3 <= len(looks) <= 6
    cooled = piece("A", "lamb-shoulder", 2300, (sear, OPEN), *SALTED)
    assert [step.says for step in day(cooled).steps if step.key.startswith("heat.")] == [
        "Let the kettle come down to 125 °C"
    ]
    # within its band, or over the flame of the same fire, nothing has to be done to it
    warmer, flame = replace(OPEN, aimed_c=140.0, centre_c=80.0), Phase("direct flame", 230.0, lasts_s=300.0)
    for then in (warmer, flame):
        steady = day(piece("A", "lamb-shoulder", 2300, (OPEN, then), *SALTED))
        assert not [step for step in steady.steps if step.key.startswith("heat.")]


def test_home_is_told_when_each_of_its_steps_is():
    found = day(piece("A", "lamb-shoulder", 2300, (OPEN, WRAPPED), *SALTED))
    times = {(time.step, time.layer): time for time in found.times}
    assert list(times) == [("mix", None), ("salt", 0), ("coat", 1), ("on", None), ("rest", None), ("plate", None)]
    off = next(step for step in found.steps if step.key == "off")
    # on the fire is all of it, also once it is wrapped, until it is taken off
    on = times["on", None]
    assert (on.begins_at, on.ends_at) == (
        next(step.begins_at for step in found.steps if step.key == "to.0"),
        off.begins_at,
    )
    assert times["rest", None].begins_at == off.ends_at
    coat = times["coat", 1]
    assert coat.ends_at - coat.begins_at == timedelta(minutes=10)


def test_what_is_turned_now_and_then_is_a_step_and_what_is_turned_all_the_while_is_not():
    now_and_then = piece("A", "lamb-shoulder", 2300, (replace(OPEN, centre_c=None, lasts_s=4 * HOUR, turned_s=HOUR),))
    assert len(steps(day(now_and_then), "A", "turn")) == 3
    assert steps(day(TUNA), "C", "turn") == []


def test_it_is_carried_hot_in_one_way_for_all_or_cooled_and_carried_cold():
    found = day(SHOULDER, away=Away(45), sides=(BREAD,))
    way = next(lane for lane in found.lanes if lane.letter == "way")
    assert [block.says for block in way.blocks] == ["On the way with the cool box", "Slice and serve"]
    leaves = way.blocks[0].begins_at
    # two things to serve there: a quarter of an hour
    assert SUPPER - leaves == timedelta(minutes=45 + 15)
    for letter in ("A", "S1"):
        lane = next(one for one in found.lanes if one.letter == letter)
        packed = next(block for block in lane.blocks if block.key == "pack")
        assert timedelta() <= leaves - packed.ends_at <= timedelta(minutes=30)
    cold = day(SHOULDER, away=Away(45, "cold"))
    chill = next(block for block in cold.lanes[-1].blocks if block.key == "chill.waits")
    assert chill.ends_at - chill.begins_at >= timedelta(hours=6)
    (cooling,) = [clock for clock in cold.clocks if clock.kind == "cooling"]
    assert cooling.minutes == cooling.most == 360
    with pytest.raises(BadInput) as refused:
        lanes_of(Supper((SHOULDER,), SUPPER, away=Away(0)))
    assert refused.value.argument == "away"


def test_what_is_many_and_short_comes_in_waves():
    skewers = piece("A", "lamb-leg", 900, (TENDED,), count=9)
    assert comes_in_waves(skewers, Waves(3, 20))
    assert not comes_in_waves(SHOULDER, Waves(3, 20))
    assert not comes_in_waves(skewers, Waves(1, 20))
    three = Supper((skewers, SHOULDER), SUPPER, waves=Waves(3, 20))
    assert waves_said(three) == ("A: 9 pieces, 3 a wave",)
    assert waves_said(replace(three, waves=Waves(2, 20)), 4) == ("A: 9 pieces, 4 or 5 a wave, 2 or 3 an eater",)
    assert waves_said(replace(three, waves=None), 4) == waves_said(replace(three, away=Away(30)), 4) == ()
    found = day(skewers, waves=Waves(3, 20))
    (lane,) = found.lanes
    served = sorted(block.ends_at for block in lane.blocks if block.key.endswith("serve"))
    assert [end - SUPPER for end in served] == [timedelta(minutes=20 * nth) for nth in range(3)]
    once = max(burns.share for burns in day(skewers).cookers[0].burns)
    assert max(burns.share for burns in found.cookers[0].burns) == pytest.approx(once / 3)


def kinds(found: DayReading) -> dict[str, tuple[int, int, bool]]:
    return {clock.kind: (clock.minutes, clock.most, clock.over) for clock in found.clocks}


def test_the_clocks_run_from_their_step_on_to_their_step_off():
    out = piece("A", "lamb-shoulder", 2300, (OPEN, WRAPPED), SALTED[1], stages=(Stage("temper", "bench", 21.0, HOUR),))
    found = day(out)
    # by hand: trimmed 10 min, coated 10 min, and an hour on the bench
    assert kinds(found)["raw"] == (80, 120, False)
    long = piece("A", "lamb-shoulder", 2300, (OPEN,), SALTED[1], stages=(Stage("temper", "bench", 21.0, 2 * HOUR),))
    (raw,) = [clock for clock in day(long).clocks if clock.kind == "raw"]
    assert (raw.minutes, raw.over) == (140, True)
    assert "2 h 20 min of at most 2 h" in raw.says
    fire = next(clock for clock in found.clocks if clock.kind == "fire")
    assert out.heat is not None
    assert fire.minutes == round(out.heat.surface_safe_s / 60)
    embers = next(clock for clock in found.clocks if clock.kind == "embers")
    assert embers.begins_at == found.light_at
    assert "outdoors only" in embers.says
    # intact meat has no clock for its centre, what was needled has
    assert "centre" not in kinds(found)
    needled = piece("A", "lamb-shoulder", 2300, (OPEN,), Layer("injection", STOCK, 10, HOUR, injection=Injection()))
    minutes, most, over = kinds(day(needled))["centre"]
    assert needled.heat is not None
    assert (minutes, most) == (round(needled.heat.danger_s / 60), 360)
    assert over == (minutes > 360)


def test_a_bath_below_what_cooks_has_a_clock_and_an_oven_no_embers():
    bath = Phase("water bath", 52.0, "bag", lasts_s=5 * HOUR)
    found = kinds(day(piece("A", "venison-loin", 800, (bath,))))
    assert found["bath"] == (300, 240, True)
    warm = kinds(day(piece("A", "venison-loin", 800, (replace(bath, aimed_c=57.0),))))
    assert "bath" not in warm
    assert "embers" not in warm


def test_how_long_it_is_kept_hot_is_a_clock_of_its_own():
    found = day(SHOULDER)
    lane = found.lanes[0]
    hot = next(block for block in lane.blocks if block.kind == "hot")
    clock = next(clock for clock in found.clocks if clock.kind == "hot")
    assert (clock.begins_at, clock.ends_at, clock.most) == (hot.begins_at, hot.ends_at, 0)
    boxed = next(clock for clock in day(SHOULDER, away=Away(230)).clocks if clock.kind == "box")
    # packed five minutes before all leave at the latest, and opened when they are there
    assert (boxed.most, boxed.minutes, boxed.over) == (240, 230, False)
    assert next(clock for clock in day(SHOULDER, away=Away(241)).clocks if clock.kind == "box").over

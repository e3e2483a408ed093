"""A day planned backwards: nothing over its capacity, order kept, waits in their windows, nobody woken."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from ravska_core.day.plan import Lane, Need, Placed, Plan, Resource, Task, Within, _Day, plan

H = 60
RESOURCES = (Resource("hands", 1.0), Resource("kettle", 1.0, 20), Resource("oven", 2.0, 15))
NIGHTS = tuple((-day * 24 * H + 4 * H, -day * 24 * H + 12 * H) for day in range(-1, 6))
"""Supper at 19:00: asleep from 23:00 to 7:00."""

hands = Need("hands")


@st.composite
def lanes(draw):
    found = []
    for key in "ABCD"[: draw(st.integers(1, 4))]:
        tasks = []
        for at in range(draw(st.integers(1, 5))):
            most = draw(st.sampled_from([0, 0, 30, 4 * H, 24 * H]))
            least = draw(st.integers(0, most))
            fire = draw(st.sampled_from([(), (), (Need("kettle", 0.6, 110, 130),), (Need("oven", 1.0, 170, 190),)]))
            awake = draw(st.booleans())
            tasks.append(
                Task(f"{at}", draw(st.integers(1, 300)), (*fire, *((hands,) if awake else ())), least,
                     draw(st.integers(least, most)), most, awake)
            )  # fmt: skip
        found.append(Lane(key, tuple(tasks), draw(st.sampled_from([0, 0, -30, 45]))))
    return found


def held(found: Plan, asked: list[Lane]) -> None:
    for lane in asked:
        mine = [one for one in found.placed if one.lane == lane.key]
        assert [one.task for one in mine] == list(lane.tasks)
        following = lane.serves
        for one in reversed(mine):
            assert one.ends - one.begins == one.task.lasts
            assert one.ends + one.waits == following
            assert one.task.least <= one.waits <= one.task.most
            following = one.begins


def over(found: Plan, resource: Resource) -> bool:
    """Whether more is taken of a resource than there is, or two heats at once, by looking at every beginning."""
    uses = [(one.begins, one.ends, need) for one in found.placed for need in one.task.needs
            if need.resource == resource.key]  # fmt: skip
    for begins, _, need in uses:
        there = [other for low, high, other in uses if low <= begins < high]
        if sum(other.amount for other in there) > resource.capacity + 1e-9:
            return True
        if any(not need.agrees(other) for other in there):
            return True
    return False


@given(lanes())
def test_order_and_windows_hold_and_what_cannot_be_is_said(asked):
    found = plan(asked, RESOURCES, NIGHTS)
    held(found, asked)
    kinds = {clash.kind for clash in found.clashes}
    for one in found.placed:
        if one.task.awake and any(min(one.ends, rises) > max(one.begins, falls) for falls, rises in NIGHTS):
            assert "asleep" in kinds
    for resource in RESOURCES:
        if over(found, resource):
            assert any(clash.where == resource.key for clash in found.clashes)
    if not found.clashes:
        assert not any(over(found, resource) for resource in RESOURCES)


@given(lanes(), st.sampled_from([-90, 15, 240]))
def test_moving_supper_moves_everything_where_nobody_sleeps(asked, by):
    found = plan(asked, RESOURCES)
    moved = plan([replace(lane, serves=lane.serves + by) for lane in asked], RESOURCES)
    assert [(one.lane, one.task.key, one.begins + by, one.waits) for one in found.placed] == [
        (one.lane, one.task.key, one.begins, one.waits) for one in moved.placed
    ]


@given(lanes())
def test_the_same_comes_to_the_same_in_whatever_order_it_is_told(asked):
    assert plan(asked, RESOURCES, NIGHTS) == plan(list(reversed(asked)), RESOURCES, NIGHTS)


@given(lanes(), st.lists(st.integers(-3000, 100), min_size=1, max_size=6), st.sampled_from([-(10**9), -1000]))
def test_what_a_place_costs_is_what_is_said_to_stand_against_it(asked, begins, not_before):
    day = _Day({one.key: one for one in RESOURCES}, NIGHTS, not_before)
    for lane in asked[:-1]:
        for nth, task in enumerate(lane.tasks):
            day.place(Placed(lane.key, task, -400 * nth - task.lasts, -400 * nth, 0))
    for task in asked[-1].tasks:
        said = [sum(100 + minutes for *_, minutes in day.against(task, one)) for one in begins]
        assert day.costs(task, np.array(begins)).tolist() == said


@given(lanes(), st.integers(-2000, -10))
def test_what_was_said_to_be_at_a_time_is_at_that_time(asked, begins):
    first = asked[0]
    pinned = replace(first, tasks=(replace(first.tasks[0], begins=begins), *first.tasks[1:]))
    found = plan([pinned, *asked[1:]], RESOURCES, NIGHTS)
    mine = [one for one in found.placed if one.lane == first.key]
    (one,) = [one for one in mine if one.task == pinned.tasks[0]]
    assert one.begins == begins
    # its wait is what that leaves, and that is said where it is outside its window by more than a grain
    task, waits = one.task, one.waits
    off = max(task.least - waits, waits - task.most)
    assert (off >= 5) == any(clash.kind in ("short", "long", "late") for clash in found.clashes)


def test_what_is_done_beside_a_task_is_where_hands_are_free_and_nobody_sleeps():
    on = Task("on", 300, (Need("kettle", 1, 100, 120),))
    spritz = Task("spritz", 5, (hands,), awake=True)
    beside = Within(spritz, "on", 60, 20, 20)
    busy = Lane("B", (Task("knead", 15, (hands,), awake=True),), -235)
    found = plan([Lane("A", (on,), 0, (beside,)), busy], RESOURCES)
    at = next(one for one in found.placed if one.task.key == "spritz")
    # wished at −240 while hands knead from −250 to −235: the nearest free place is at −235
    assert (at.begins, found.clashes) == (-235, ())
    tight = plan([Lane("A", (on,), 0, (replace(beside, sooner=0, later=0),)), busy], RESOURCES)
    assert [(clash.kind, clash.where, clash.minutes) for clash in tight.clashes] == [("full", "hands", 5)]
    night = ((-260, -200),)
    asleep = plan([Lane("A", (on,), 0, (replace(beside, only_awake=True),))], RESOURCES, night)
    assert [one.task.key for one in asleep.placed] == ["on"]
    woken = plan([Lane("A", (on,), 0, (replace(beside, sooner=10, later=10),))], RESOURCES, night)
    assert {clash.kind for clash in woken.clashes} == {"asleep"}


def test_raw_and_ready_never_share_a_board_before_it_is_washed():
    raw = Lane("A", (Task("coat", 10, (hands, Need("board", 1, 0, 0)), awake=True),), 0)
    ready = Lane("B", (Task("slice", 10, (hands, Need("board", 1, 1, 1)), awake=True),), 0)
    board = (Resource("hands", 2.0), Resource("board", 99.0, 5))
    assert [(clash.kind, clash.where, clash.minutes) for clash in plan([raw, ready], board).clashes] == [
        ("two heats", "board", 10)
    ]
    assert plan([raw, replace(ready, serves=15)], board).clashes == ()
    assert plan([raw, replace(ready, serves=14)], board).clashes[0].minutes == 1
    assert plan([raw, replace(raw, key="C")], board).clashes == ()


def test_what_takes_more_than_there_is_says_so_by_itself():
    crowd = Lane("A", (Task("carry", 10, (Need("hands", 3.0),)),))
    (clash,) = plan([crowd], RESOURCES).clashes
    assert (clash.kind, clash.other, clash.minutes) == ("full", None, 10)


def one_lane(*tasks: Task, nights=NIGHTS, **more) -> Plan:
    return plan([Lane("A", tasks)], RESOURCES, nights, **more)


def test_a_hold_is_stretched_so_that_nobody_is_woken():
    # on at 4:00 to be done by 19:00 after a hold of an hour: coated at 2:45 it would be night, so it is held from 22:45
    coat = Task("coat", 15, (hands,), 30, 60, 12 * H, awake=True)
    found = one_lane(coat, Task("on", 15 * H, (Need("kettle", 1, 100, 120),)))
    assert found.clashes == ()
    coated = found.placed[0]
    assert coated.ends <= -20 * H
    assert coated.waits == 5 * H
    # where the hold cannot be so long, that is said, with how much of it is in the night
    short = one_lane(replace(coat, most=120), Task("on", 15 * H, (Need("kettle", 1, 100, 120),)))
    assert [(clash.kind, clash.minutes) for clash in short.clashes] == [("asleep", 15)]


def test_one_pair_of_hands_does_one_thing_after_another_and_two_do_both():
    slices = Task("slice", 10, (hands,), 0, 0, 30, awake=True)
    both = [Lane("A", (slices,)), Lane("B", (slices,))]
    found = plan(both, RESOURCES)
    assert sorted((one.begins, one.waits) for one in found.placed) == [(-20, 10), (-10, 0)]
    tight = [Lane(lane.key, (replace(slices, most=0),)) for lane in both]
    (clash,) = plan(tight, RESOURCES).clashes
    assert (clash.kind, clash.where, clash.minutes, clash.at) == ("full", "hands", 10, -10)
    assert plan(tight, (Resource("hands", 2.0), *RESOURCES[1:])).clashes == ()


def test_one_fire_at_two_heats_clashes_by_what_it_takes_to_change_it_too():
    slow = Lane("A", (Task("on", 120, (Need("kettle", 0.5, 110, 130),), 0, 0, 0),))
    hot = Lane("B", (Task("on", 30, (Need("kettle", 0.2, 200, 260),), 0, 0, 60),))
    found = plan([slow, hot], RESOURCES)
    assert {clash.kind for clash in found.clashes} == {"two heats"}
    assert found.clashes[0].minutes == 30
    # after the slow one has come off and the fire has changed by 20 minutes it can be, and no sooner
    later = plan([slow, replace(hot, serves=50)], RESOURCES)
    assert later.clashes == ()
    assert plan([slow, replace(hot, serves=45)], RESOURCES).clashes[0].minutes == 5
    # a band that both do with is one heat
    near = Lane("B", (Task("on", 30, (Need("kettle", 0.2, 125, 145),)),))
    assert plan([slow, near], RESOURCES).clashes == ()


def test_a_grate_takes_as_much_as_it_holds():
    each = [Lane(key, (Task("on", 60, (Need("kettle", 0.4, 110, 130),)),)) for key in "ABC"]
    assert plan(each[:2], RESOURCES).clashes == ()
    (clash,) = plan(each, RESOURCES).clashes
    assert (clash.kind, clash.where, clash.minutes) == ("full", "kettle", 60)


def test_nothing_begins_before_now_as_long_as_waits_can_be_cut_short():
    salt = Task("salt", 5, (hands,), 2 * H, 12 * H, 24 * H, awake=True)
    on = Task("on", 3 * H, (Need("kettle", 1, 100, 120),))
    assert one_lane(salt, on, nights=()).placed[0].waits == 12 * H
    hurried = one_lane(salt, on, nights=(), not_before=-8 * H)
    assert hurried.clashes == ()
    assert hurried.placed[0].begins >= -8 * H
    assert hurried.placed[0].waits == pytest.approx(5 * H - 5, abs=5)
    (late,) = one_lane(salt, on, nights=(), not_before=-4 * H).clashes
    assert (late.kind, late.minutes) == ("past", H + 5)

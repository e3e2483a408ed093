"""Aiming a blend: met where it can be, the nearest of all that meet it, and why where it cannot."""

import numpy as np
import pytest
from builders import blend, lines
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from ravska_core.blend import Blend, Bound, Line, Target, parts_of, read_blend, shares
from ravska_core.blend.aim import aim, meets
from ravska_core.blend.nudge import NUDGES, nudge
from ravska_core.blend.targets import TARGETS, say_target
from ravska_core.working import BadInput


def shares_of(found) -> np.ndarray:
    return np.array(shares(found, parts_of(found)))


RUB = blend(
    ("kosher-dense/flake", 4, "spoon"), ("brown-sugar/unpacked", 4, "spoon"), ("paprika/powder", 4, "spoon"),
    ("black-pepper/ground", 2, "spoon"), ("cayenne/powder", 1, "spoon"), ("garlic-granulated/powder", 2, "spoon"),
)  # fmt: skip


def distance(x: np.ndarray, today: np.ndarray) -> float:
    return float((((x - today) / np.maximum(today, 0.05)) ** 2).sum())


@given(lines(least=2, most=10), st.sampled_from([t for t in TARGETS if t != "spread"]))
def test_a_satisfied_target_returns_the_blend_unchanged(of, what):
    found = Blend("dry rub", of, 100.0)
    value = read_blend(found).scale(what).value
    answer = aim(found, [Target(what, max(0.0, value * 0.9), value * 1.1)])
    assert answer.unchanged
    assert answer.met
    assert answer.lines == of


@settings(max_examples=60)
@given(lines(least=3, most=8), st.sampled_from(["salt", "sugar", "fat", "cost"]), st.floats(0.15, 0.85), st.data())
def test_a_target_that_can_be_met_is_met_within_a_thousandth_and_locks_hold(of, what, along, data):
    held = data.draw(st.integers(0, len(of) - 1))
    of = tuple(Line(x.grind, x.parts, x.basis, "share" if at == held else "") for at, x in enumerate(of))
    found = Blend("dry rub", of, 100.0)
    today = shares_of(of)
    # what each free line alone would make of it: anything in between can be had
    readings = []
    for at in range(len(of)):
        if at != held:
            only = np.zeros(len(of))
            only[held], only[at] = today[held], 1 - today[held]
            readings.append(float(only @ values_of(of, what)))
    assume(max(readings) - min(readings) > 1)
    goal = min(readings) + along * (max(readings) - min(readings))
    try:
        answer = aim(found, [Target(what, goal, goal)])
    except BadInput:
        assume(False)  # a part would fall out of the range a book holds
    assert answer.met
    after = Blend("dry rub", answer.lines, 100.0)
    assert read_blend(after).scale(what).value == pytest.approx(goal, abs=0.1)
    kept = next(at for at, line in enumerate(answer.lines) if line.lock)
    assert shares_of(answer.lines)[kept] == pytest.approx(today[held], abs=1e-5)


def values_of(of: tuple[Line, ...], what: str) -> np.ndarray:
    return np.array([read_blend(Blend("dry rub", (line,), 100.0)).scale(what).value for line in of])


@pytest.mark.parametrize("seed", range(6))
def test_of_all_blends_that_meet_the_targets_it_is_the_nearest(seed):
    """Against a search by chance: no blend met on a random way is nearer."""
    random = np.random.default_rng(seed)
    salt_goal, sugar_goal = random.uniform(8, 40), random.uniform(5, 30)
    answer = aim(RUB, [Target("salt", salt_goal, salt_goal), Target("sugar", None, sugar_goal)])
    assert answer.met
    today, x = shares_of(RUB.lines), shares_of(answer.lines)
    assert len(x) == len(today)
    salt, sugar = values_of(RUB.lines, "salt"), values_of(RUB.lines, "sugar")
    best = distance(x, today)
    for _ in range(4000):
        other = np.abs(x + random.normal(0, random.choice([0.002, 0.02, 0.1]), len(x)))
        # put it on the salt target by trading salt against the rest in proportion
        rest = other[1:] / other[1:].sum()
        pure, weak = salt[0], float(rest @ salt[1:])
        other[0] = (salt_goal - weak) / (pure - weak)
        other[1:] = rest * (1 - other[0])
        if other.min() >= 0 and other @ sugar <= sugar_goal:
            assert distance(other, today) >= best - 1e-6


def test_salt_by_hand():
    # equal masses of salt and pepper, aimed at 25 % salt: the salt line must fall to 25/98.5 = 25.4 %
    of = blend(("table-salt/fine", 1, "scale"), ("white-pepper/ground", 1, "scale"))
    answer = aim(of, [Target("salt", 25, 25)])
    assert shares_of(answer.lines) == pytest.approx([0.2538, 0.7462], abs=2e-4)


def test_held_ratios_and_bounds_stay():
    of = blend(
        ("kosher-dense/flake", 4, "scale", "ratio"), ("black-pepper/ground", 2, "scale", "ratio"),
        ("brown-sugar/unpacked", 4, "scale"), ("paprika/powder", 3, "scale"),
    )  # fmt: skip
    answer = aim(of, [Target("salt", 20, 20)], [Bound(2, 0.0, 0.35)])
    x = shares_of(answer.lines)
    assert x[0] / x[1] == pytest.approx(2, abs=1e-4)
    assert x[2] <= 0.35 + 1e-6
    assert x[0] * 99 == pytest.approx(20, abs=0.1)


@pytest.mark.parametrize("high", [3.0, 5.0, 8.0])
def test_a_grain_spread_can_be_aimed_at(high):
    of = blend(
        ("sea-salt-flake/flake", 4, "scale"), ("paprika/powder", 3, "scale"), ("black-pepper/cracked", 3, "scale"),
        ("oregano/ground", 1, "scale"), ("mustard-seed/whole", 1, "scale"),
    )  # fmt: skip
    assert read_blend(of).scale("spread").value > high
    answer = aim(of, [Target("spread", None, high)])
    assert answer.met
    assert read_blend(Blend("dry rub", answer.lines, 100.0)).scale("spread").value <= high + 1e-6


@pytest.mark.parametrize(
    ("of", "targets", "bounds", "says"),
    [
        (RUB, [Target("smoke", 5.0)], (), "No line of this blend brings any smoke"),
        (RUB, [Target("heat", 9.9)], (), "No line reaches that much heat"),
        (RUB, [Target("salt", 50), Target("sugar", 60)], (), "at least 50 % salt; at least 60 % sugar"),
        (RUB, [Target("salt", None, 1.0)], [Bound(0, 0.2)], "at least 20 % Kosher salt"),
        (
            blend(("table-salt/fine", 1, "scale", "share"), ("paprika/powder", 2, "scale")),
            [Target("salt", 60)], (), "the lock on Table salt",
        ),
    ],
)  # fmt: skip
def test_what_cannot_be_is_said_in_words_with_the_closest_that_can(of, targets, bounds, says):
    answer = aim(of, targets, bounds)
    assert not answer.met
    assert any(says in sentence for sentence in answer.conflicts), answer.conflicts
    assert "The closest that can be had" in answer.conflicts[-1]
    # the closest is a blend that can be mixed
    assert shares_of(answer.lines).sum() == pytest.approx(1)


@pytest.mark.parametrize(
    ("targets", "bounds", "field"),
    [
        ([Target("salt", 30, 20)], (), "targets.0.high"),
        ([Target("salt", 130)], (), "targets.0.low"),
        ([Target("salt", float("nan"))], (), "targets.0.low"),
        ([Target("zest", 3)], (), "targets.0.what"),
        ([Target("spread", None, 0.5)], (), "targets.0.high"),
        ([], [Bound(9, 0, 1)], "bounds.0.line"),
        ([], [Bound(0, 0.5, 0.2)], "bounds.0.high"),
        ([Target("salt", 10)], [Bound(0, 0.6), Bound(1, 0.6)], "lines"),
        ([Target("salt", 10)], [Bound(at, 0, 0.1) for at in range(6)], "lines"),
    ],
)
def test_targets_and_bounds_that_contradict_themselves_are_refused_at_their_field(targets, bounds, field):
    with pytest.raises(BadInput) as refusal:
        aim(RUB, targets, bounds)
    assert refusal.value.argument == field


def test_a_lock_that_contradicts_a_bound_is_named():
    of = blend(("table-salt/fine", 1, "scale", "share"), ("paprika/powder", 1, "scale"))
    with pytest.raises(BadInput) as refusal:
        aim(of, [Target("salt", 20)], [Bound(0, 0.0, 0.3)])
    assert "Table salt is locked at 50 % but bounded" in refusal.value.sentence


@pytest.mark.parametrize(
    ("towards", "what", "up"),
    [
        ("sweeter", "sugar", 1), ("less-salt", "salt", -1), ("hotter", "heat", 1), ("smokier", "smoke", 1),
        ("herbal", "herb", 1),
    ],
)  # fmt: skip
def test_a_nudge_goes_where_it_says_and_leaves_locked_lines(towards, what, up):
    of = Blend(
        "dry rub", (*RUB.lines[:2], Line("paprika/powder", RUB.lines[2].parts, "spoon", "share"), *RUB.lines[3:]), 100.0
    )
    before, answer = read_blend(of), nudge(of, towards)
    assert not answer.unchanged
    after = read_blend(Blend("dry rub", answer.lines, 100.0))
    moved = after.scale(what).value - before.scale(what).value
    assert moved * up > 0
    assert after.lines[2].share.value == pytest.approx(before.lines[2].share.value, abs=1e-4)
    # a nudge is small: the blend is still that blend
    assert max(abs(a.share.value - b.share.value) for a, b in zip(before.lines, after.lines, strict=False)) < 15


def test_a_nudge_that_cannot_be_says_why():
    plain = blend(("paprika/powder", 1, "scale"), ("cumin/ground", 1, "scale"))
    assert "no salt in it" in nudge(plain, "less-salt").conflicts[0]
    locked = blend(("table-salt/fine", 1, "scale", "share"), ("paprika/powder", 1, "scale"))
    assert "locked" in nudge(locked, "less-salt").conflicts[0]
    for wrong, of in (("tastier", plain), ("hotter", blend())):
        with pytest.raises(BadInput):
            nudge(of, wrong)
    assert set(NUDGES) == {"sweeter", "less-salt", "hotter", "smokier", "herbal"}


def test_targets_are_said_as_people_say_them():
    assert say_target(Target("salt", 20, 20)) == "20 % salt"
    assert say_target(Target("heat", 5, None)) == "at least 5 of 10 heat"
    assert say_target(Target("spread", None, 4)) == "at most 4 times grain spread"
    assert meets(Target("salt", 10, 20), 15)
    assert not meets(Target("salt", 10, 20), 21)

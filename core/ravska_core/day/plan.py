"""A day planned backwards: lanes of tasks, each as late as its waits, the fires, the hands and the nights allow.

Greedy list scheduling, deterministic. A lane is a chain of tasks whose last one ends at its serving time. Lanes are
placed one after another; within a lane every chain of waits is looked through for the one that clashes least with what
lies there already and keeps closest to what is wished. When something clashes the lanes it concerns go first, and the
day is planned anew. Times are whole minutes, 0 at serving and negative before it.
"""

from collections import deque
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

GRAIN_MIN = 5
"""Waits are tried in steps of so many minutes."""

_OFF, _CLASH = 0.01, 100.0
"""Cost of a minute that a wait is off its wish, and of a clash beside each of its minutes."""

ORDERS = 24
"""So many orders of the lanes are tried at most."""


@dataclass(frozen=True)
class Need:
    """What a task takes up: a resource, how much of it, and for a fire the heat that does [°C]."""

    resource: str
    amount: float = 1.0
    low_c: float | None = None
    high_c: float | None = None

    def agrees(self, other: "Need") -> bool:
        """Tell whether one fire can do for both at once."""
        if self.low_c is None or self.high_c is None or other.low_c is None or other.high_c is None:
            return True
        return max(self.low_c, other.low_c) <= min(self.high_c, other.high_c)


@dataclass(frozen=True)
class Task:
    """Something that is done: how long it takes [min], what it needs, and the wait that may follow it.

    The wait is `usual` where that can be, else between `least` and `most` [min]; `awake` says that somebody has to be
    up all the while.
    """

    key: str
    lasts: int
    needs: tuple[Need, ...] = ()
    least: int = 0
    usual: int = 0
    most: int = 0
    awake: bool = False


@dataclass(frozen=True)
class Resource:
    """What tasks share: how much there is of it, and for a fire how long it takes from one heat to another [min]."""

    key: str
    capacity: float = 1.0
    settles: int = 0


@dataclass(frozen=True)
class Lane:
    """Tasks one after another, the last of which ends at `serves` [min]."""

    key: str
    tasks: tuple[Task, ...]
    serves: int = 0


@dataclass(frozen=True)
class Placed:
    """A task where it lies in the day [min], and how long it waits after it."""

    lane: str
    task: Task
    begins: int
    ends: int
    waits: int


@dataclass(frozen=True)
class Clash:
    """What cannot be: ``asleep``, ``past``, ``two heats`` or ``full``; where, at what time and for how long [min].

    `first` is the task that was placed when it was found, `other` the one that is in its way, None for night and past.
    """

    kind: str
    where: str
    first: Placed
    other: Placed | None
    at: int
    minutes: int


@dataclass(frozen=True)
class Plan:
    """A day: its tasks where they lie, in order of time, and what clashes."""

    placed: tuple[Placed, ...]
    clashes: tuple[Clash, ...]


Against = tuple[str, str, Placed | None, int, int]
"""Kind of a clash, where, by what, at and for how many minutes."""


class _Day:
    """What lies in a day already, by what it takes up."""

    def __init__(self, resources: Mapping[str, Resource], nights: Sequence[tuple[int, int]], not_before: int) -> None:
        self.resources, self.nights, self.not_before = resources, nights, not_before
        self.by: dict[str, list[tuple[Need, Placed]]] = {}

    def place(self, placed: Placed) -> None:
        for need in placed.task.needs:
            self.by.setdefault(need.resource, []).append((need, placed))

    def against(self, task: Task, begins: int) -> list[Against]:
        """Return what stands against a task at a time: kind, where, by what, at and for how many minutes."""
        ends, found = begins + task.lasts, list[Against]()
        if begins < self.not_before:
            found.append(("past", "", None, begins, self.not_before - begins))
        if task.awake:
            for falls, rises in self.nights:
                over = min(ends, rises) - max(begins, falls)
                if over > 0:
                    found.append(("asleep", "", None, max(begins, falls), over))
        if ends == begins:
            return found
        for need in task.needs:
            near = self.by.get(need.resource)
            if near:
                found += self._shared(need, self.resources[need.resource], near, begins, ends)
        return found

    def _shared(
        self, need: Need, of: Resource, near: list[tuple[Need, Placed]], begins: int, ends: int
    ) -> Iterable[Against]:
        for other, placed in near:
            gap = of.settles
            if not need.agrees(other) and placed.begins - gap < ends and begins < placed.ends + gap:
                at = max(begins, placed.begins - gap)
                yield "two heats", of.key, placed, at, min(ends, placed.ends + gap) - at
        during = [(other, placed) for other, placed in near if placed.begins < ends and begins < placed.ends]
        if need.amount + sum(other.amount for other, _ in during) <= of.capacity + 1e-9:
            return
        edges = {edge for _, placed in during for edge in (placed.begins, placed.ends)}
        over, since, who = 0, begins, dict[Placed, int]()
        for at, until in pairwise(sorted({begins, ends, *(edge for edge in edges if begins < edge < ends)})):
            there = [(other, placed) for other, placed in during if placed.begins <= at < placed.ends]
            if need.amount + sum(other.amount for other, _ in there) <= of.capacity + 1e-9:
                continue
            since = since if over else at
            over += until - at
            for _, placed in there:
                who[placed] = who.get(placed, 0) + until - at
        if over:
            yield "full", of.key, max(who, key=lambda placed: (who[placed], placed.lane)), since, over


def _waits(task: Task) -> list[int]:
    """Return the waits that may follow a task, the wished one first, then ever further from it."""
    wished = min(max(task.usual, task.least), task.most)
    tried = {task.least, task.most, wished, *range(task.least, task.most + 1, GRAIN_MIN)}
    return sorted(tried, key=lambda wait: (abs(wait - wished), wait))


def _lane_back(day: _Day, lane: Lane) -> tuple[list[Placed], list[Clash]]:
    """Place a lane backwards from its serving with the least cost."""
    waits = [_waits(task) for task in lane.tasks]
    known: dict[tuple[int, int], tuple[float, tuple[int, ...]]] = {}

    def best(at: int, following: int) -> tuple[float, tuple[int, ...]]:
        """Return the least cost of all tasks up to one, with the waits after them, where the next begins then."""
        if at < 0:
            return 0.0, ()
        if (at, following) in known:
            return known[at, following]
        task = lane.tasks[at]
        least: tuple[float, tuple[int, ...]] = (float("inf"), ())
        for wait in waits[at]:
            off = _OFF * abs(wait - waits[at][0])
            if off >= least[0]:
                break
            begins = following - wait - task.lasts
            found = day.against(task, begins)
            cost = off + sum(_CLASH + minutes for *_, minutes in found)
            if cost >= least[0]:
                continue
            before, chain = best(at - 1, begins)
            if cost + before < least[0]:
                least = (cost + before, (*chain, wait))
        known[at, following] = least
        return least

    chain = best(len(lane.tasks) - 1, lane.serves)[1]
    following, placed, clashes = lane.serves, [], []
    for task, wait in zip(reversed(lane.tasks), reversed(chain), strict=True):
        ends = following - wait
        one = Placed(lane.key, task, ends - task.lasts, ends, wait)
        clashes += [Clash(kind, where, one, other, at, minutes)
                    for kind, where, other, at, minutes in day.against(task, one.begins)]  # fmt: skip
        placed.append(one)
        following = one.begins
    for one in placed:
        day.place(one)
    return placed, clashes


def plan(
    lanes: Sequence[Lane],
    resources: Sequence[Resource],
    nights: Sequence[tuple[int, int]] = (),
    not_before: int = -(10**9),
    orders: int = ORDERS,
) -> Plan:
    """Plan a day backwards from its servings, clashes where they cannot be helped.

    Parameters
    ----------
    nights : sequence of (int, int)
        From when to when everybody sleeps [min].
    not_before : int
        Nothing begins before that [min]: it is now.
    """
    by_key = {one.key: one for one in lanes}
    shared = {one.key: one for one in resources}

    def at_fires(lane: Lane) -> int:
        return sum(task.lasts for task in lane.tasks if any(need.low_c is not None for need in task.needs))

    first = tuple(sorted(by_key, key=lambda key: (-at_fires(by_key[key]), key)))
    queue, seen = deque([first]), set[tuple[str, ...]]()
    least: tuple[tuple[float, ...], Plan] | None = None
    while queue and len(seen) < orders:
        order = queue.popleft()
        if order in seen:
            continue
        seen.add(order)
        day, placed, clashes = _Day(shared, nights, not_before), list[Placed](), list[Clash]()
        for key in order:
            more = _lane_back(day, by_key[key])
            placed += more[0]
            clashes += more[1]
        off = sum(abs(one.waits - one.task.usual) for one in placed)
        score = (float(len(clashes)), float(sum(clash.minutes for clash in clashes)), float(off))
        if least is None or score < least[0]:
            in_time = sorted(placed, key=lambda one: (one.begins, one.ends, one.lane))
            least = score, Plan(tuple(in_time), tuple(sorted(clashes, key=lambda clash: clash.at)))
        if not clashes:
            break
        for clash in clashes:
            for one in (clash.first, clash.other):
                if one is not None:
                    queue.append((one.lane, *(key for key in order if key != one.lane)))
    assert least is not None
    return least[1]

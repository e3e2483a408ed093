"""A day planned backwards: lanes of tasks, each as late as its waits, the fires, the hands and the nights allow.

Greedy list scheduling, deterministic. A lane is a chain of tasks whose last one ends at its serving time. Lanes are
placed one after another; within a lane every chain of waits is looked through for the one that clashes least with what
lies there already and keeps closest to what is wished. When something clashes the lanes it concerns go first, and the
day is planned anew. Times are whole minutes, 0 at serving and negative before it.
"""

from collections import deque
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.int64]
Cost = npt.NDArray[np.float64]

GRAIN_MIN = 5
"""Waits are tried in steps of so many minutes."""

_OFF, _CLASH = 0.01, 100.0
"""Cost of a minute that a wait is off its wish, and of a clash beside each of its minutes."""

_AGAIN = 3
"""So often lanes that clash are placed anew among all others."""

ORDERS = 10
"""So many orders of the lanes are tried at most."""

Going = Callable[[], None]
"""Called before each order of the lanes is tried; what it raises ends the planning."""


def to_the_end() -> None:
    """Let the planning go on."""


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
    up all the while. `begins` is when it was said to begin [min]; of one that `begun` that is what happened.
    """

    key: str
    lasts: int
    needs: tuple[Need, ...] = ()
    least: int = 0
    usual: int = 0
    most: int = 0
    awake: bool = False
    begins: int | None = None
    begun: bool = False


@dataclass(frozen=True)
class Within:
    """A task beside another one of its lane: `after` so long after that begins, or so much `sooner` or `later` [min].

    One that is `only_awake` is left out where it would fall into a night; one that is done `once` is done where of all
    lanes that have it it is wished first.
    """

    task: Task
    of: str
    after: int
    sooner: int = 0
    later: int = 0
    only_awake: bool = False
    once: bool = False


@dataclass(frozen=True)
class Resource:
    """What tasks share: how much there is of it, and for a fire how long it takes from one heat to another [min]."""

    key: str
    capacity: float = 1.0
    settles: int = 0


@dataclass(frozen=True)
class Lane:
    """Tasks one after another, the last of which ends at `serves` [min], and what is done `within` them."""

    key: str
    tasks: tuple[Task, ...]
    serves: int = 0
    within: tuple[Within, ...] = ()


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
    """What cannot be: where, at what time and for how long [min].

    `kind` is ``asleep``, ``past``, ``two heats``, ``full``; ``short`` or ``long``, of a wait that is outside its window
    by so much; or ``late``, of what comes to its end so long after the next was to begin. `first` is the task that was
    placed when it was found, `other` the one that is in its way, None for night, past and waits.
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
        self.placed: list[Placed] = []

    def place(self, placed: Placed) -> None:
        for need in placed.task.needs:
            self.by.setdefault(need.resource, []).append((need, placed))

    def place_all(self, placed: Iterable[Placed]) -> None:
        for one in placed:
            self.placed.append(one)
            self.place(one)

    def all(self) -> list[Placed]:
        """Return all that lies in it."""
        return list(self.placed)

    def against(self, task: Task, begins: int) -> list[Against]:
        """Return what stands against a task at a time: kind, where, by what, at and for how many minutes."""
        ends, found = begins + task.lasts, list[Against]()
        if task.begun:
            return found
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
            near = self.by.get(need.resource, [])
            found += self._shared(need, self.resources[need.resource], near, begins, ends)
        return found

    def costs(self, task: Task, begins: Array) -> Cost:
        """Return what stands against a task at many times: of each of `against` 100 and its minutes."""
        found: Cost = np.zeros(len(begins))
        if task.begun:
            return found
        ends = begins + task.lasts

        def add(minutes: Array) -> None:
            nonlocal found
            found = found + np.where(minutes > 0, _CLASH + minutes, 0.0)

        add(self.not_before - begins)
        if task.awake:
            for falls, rises in self.nights:
                add(np.minimum(ends, rises) - np.maximum(begins, falls))
        if not task.lasts:
            return found
        for need in task.needs:
            near, of = self.by.get(need.resource, []), self.resources[need.resource]
            for other, placed in near:
                if not need.agrees(other):
                    add(np.minimum(ends, placed.ends + of.settles) - np.maximum(begins, placed.begins - of.settles))
            over = np.zeros(len(begins), dtype=np.int64)
            for at, until in pairwise(sorted({edge for _, one in near for edge in (one.begins, one.ends)})):
                taken = sum(other.amount for other, one in near if one.begins <= at < one.ends)
                if need.amount + taken > of.capacity + 1e-9:
                    over += np.maximum(0, np.minimum(ends, until) - np.maximum(begins, at))
            if need.amount > of.capacity + 1e-9:
                over = np.full(len(begins), task.lasts)
            add(over)
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
            yield "full", of.key, max(who, key=lambda placed: (who[placed], placed.lane), default=None), since, over


def _waits(task: Task) -> list[int]:
    """Return the waits that may follow a task, the wished one first, then ever further from it."""
    if task.begins is not None:
        return []
    wished = min(max(task.usual, task.least), task.most)
    tried = {task.least, task.most, wished, *range(task.least, task.most + 1, GRAIN_MIN)}
    return sorted(tried, key=lambda wait: (abs(wait - wished), wait))


def _outside(task: Task, wait: int, at: int) -> list[Against]:
    """Return what is wrong with a wait after a task whose beginning was said or happened."""
    # what happened, or was said, is not on the grain that waits are tried in
    if task.begins is None or task.least - GRAIN_MIN < wait < task.most + GRAIN_MIN:
        return []
    if wait > task.most:
        return [("long", "", None, at, wait - task.most)]
    return [("short" if task.least else "late", "", None, at, task.least - wait)]


def _once_each(minutes: Array) -> Array:
    """Return which minutes there are, in order; as numbers sorted it would take several times as long."""
    first = int(minutes.min())
    there = np.zeros(int(minutes.max()) - first + 1, dtype=bool)
    there[minutes - first] = True
    return np.flatnonzero(there) + first


def _chain(day: _Day, lane: Lane) -> list[int]:
    """Return the wait after each task of a lane, placed backwards from its serving, of the least cost.

    Bellman's recursion over when the next task begins: of a task, the least of all waits' costs, its own where it then
    lies, and that of all before it. Of waits that cost the same the first one tried is taken.
    """
    follows, tried = [np.array([lane.serves])], list[tuple[Array, Array]]()
    for task in reversed(lane.tasks):
        if task.begins is None:
            waits = np.array(_waits(task))
            begins = follows[-1][:, None] - waits - task.lasts
        else:
            waits = (follows[-1] - task.lasts - task.begins)[:, None]
            begins = np.full_like(waits, task.begins)
        tried.append((waits, begins))
        follows.append(_once_each(begins))
    least, chosen = np.zeros(len(follows[-1])), list[Array]()
    for at, task in enumerate(lane.tasks):
        waits, begins = tried[len(tried) - 1 - at]
        places = follows[len(follows) - 1 - at]
        at_minute = np.zeros(int(places[-1] - places[0]) + 1)
        at_minute[places - places[0]] = day.costs(task, places) + least
        cost = at_minute[begins - places[0]]
        if task.begins is None:
            cost = cost + _OFF * np.abs(waits - waits[0])
        else:
            outside = [_outside(task, int(wait), 0) for wait in waits[:, 0]]
            cost = cost + np.array([[sum(_CLASH + by for *_, by in one)] for one in outside])
        best = np.argmin(cost, axis=1)
        chosen.append(best)
        least = np.take_along_axis(cost, best[:, None], axis=1)[:, 0]
    found, following = list[int](), lane.serves
    for at in range(len(lane.tasks) - 1, -1, -1):
        waits, begins = tried[len(tried) - 1 - at]
        row = int(np.searchsorted(follows[len(follows) - 2 - at], following))
        column = int(chosen[at][row])
        found.append(int(waits[row, column] if waits.ndim == 2 else waits[column]))
        following = int(begins[row, column])
    return found[::-1]


def _lane_back(day: _Day, lane: Lane) -> list[Placed]:
    """Place a lane backwards from its serving with the least cost."""
    following, placed = lane.serves, []
    for task, wait in zip(reversed(lane.tasks), reversed(_chain(day, lane)), strict=True):
        ends = following - wait
        placed.append(Placed(lane.key, task, ends - task.lasts, ends, wait))
        following = ends - task.lasts
    day.place_all(placed)
    return placed


def _in_order(
    lanes: Sequence[Lane], shared: Mapping[str, Resource], nights: Sequence[tuple[int, int]], not_before: int
) -> tuple[_Day, list[Clash]]:
    """Place lanes one after another, then those that clash anew with all others where they are, as long as that helps.

    A lane that was placed first could not know what the later ones need.
    """
    empty = _Day(shared, nights, not_before)
    where: dict[str, list[Placed]] = {}
    day = _Day(shared, nights, not_before)
    for lane in lanes:
        where[lane.key] = _lane_back(day, lane)
    clashes = _clashes(empty, where)
    for _ in range(_AGAIN):
        if not clashes:
            break
        before = _weight(clashes)
        tight = {one.lane for clash in clashes for one in (clash.first, clash.other) if one is not None}
        for lane in lanes:
            if lane.key not in tight:
                continue
            others = {key: placed for key, placed in where.items() if key != lane.key}
            around = _Day(shared, nights, not_before)
            for placed in others.values():
                around.place_all(placed)
            moved = {**where, lane.key: _lane_back(around, lane)}
            found = _clashes(_Day(shared, nights, not_before), moved)
            if _weight(found) <= _weight(clashes):
                where, clashes = moved, found
        if _weight(clashes) >= before:
            break
    day = _Day(shared, nights, not_before)
    for placed in where.values():
        day.place_all(placed)
    return day, clashes


def _weight(clashes: Sequence[Clash]) -> tuple[int, int]:
    return len(clashes), sum(clash.minutes for clash in clashes)


def _clashes(day: _Day, where: Mapping[str, Sequence[Placed]]) -> list[Clash]:
    """Return what clashes where lanes are, told by the later one of two; the day is empty and filled by it."""
    found = list[Clash]()
    for placed in where.values():
        for one in placed:
            against = day.against(one.task, one.begins) + _outside(one.task, one.waits, one.ends)
            found += [Clash(kind, at_what, one, other, at, minutes) for kind, at_what, other, at, minutes in against]
        day.place_all(placed)
    return found


def _first_of(lanes: Mapping[str, Lane], placed: Sequence[Placed]) -> dict[str, str]:
    """Return in which lane what is done once is wished first, by the key of its task."""
    begins_of = {(one.lane, one.task.key): one.begins for one in placed}
    wished = sorted(
        (begins_of[key, one.of] + one.after, key, one.task.key)
        for key, lane in lanes.items() for one in lane.within if one.once and (key, one.of) in begins_of
    )  # fmt: skip
    return {task: key for _, key, task in reversed(wished)}


def _put_within(
    day: _Day, lane: Lane, placed: Sequence[Placed], first_of: Mapping[str, str]
) -> tuple[list[Placed], list[Clash]]:
    """Place what is done within a lane's tasks, each as near to when it is wished as nothing is in its way."""
    begins_of = {one.task.key: one.begins for one in placed if one.lane == lane.key}
    found, clashes = list[Placed](), list[Clash]()
    for one in lane.within:
        if one.of not in begins_of or (one.once and first_of[one.task.key] != lane.key):
            continue
        wished = begins_of[one.of] + one.after
        if one.only_awake and any(falls - one.task.lasts < wished < rises for falls, rises in day.nights):
            continue
        tried = [wished, *range(wished + GRAIN_MIN, wished + one.later + 1, GRAIN_MIN)]
        tried += range(wished - GRAIN_MIN, wished - one.sooner - 1, -GRAIN_MIN)
        against = {begins: day.against(one.task, begins) for begins in tried}
        begins = min(tried, key=lambda at: (bool(against[at]), abs(at - wished), -at))
        put = Placed(lane.key, one.task, begins, begins + one.task.lasts, 0)
        clashes += [Clash(kind, where, put, other, at, minutes) for kind, where, other, at, minutes in against[begins]]
        day.place(put)
        found.append(put)
    return found, clashes


def plan(
    lanes: Sequence[Lane],
    resources: Sequence[Resource],
    nights: Sequence[tuple[int, int]] = (),
    not_before: int = -(10**9),
    orders: int = ORDERS,
    going: Going = to_the_end,
) -> Plan:
    """Plan a day backwards from its servings, clashes where they cannot be helped.

    Parameters
    ----------
    nights : sequence of (int, int)
        From when to when everybody sleeps [min].
    not_before : int
        Nothing begins before that [min]: it is now.
    going : callable
        Called before each order is tried, to end it by what it raises.
    """
    asked = tuple(lanes), tuple(resources), tuple(nights), not_before, orders
    # what is asked again within the minute, as a step is ticked and the day then shown, is not searched for again
    return _known(*asked) if going is to_the_end else _search(*asked, going)


def _search(
    lanes: tuple[Lane, ...], resources: tuple[Resource, ...], nights: tuple[tuple[int, int], ...], not_before: int,
    orders: int, going: Going = to_the_end,
) -> Plan:  # fmt: skip
    by_key = {one.key: one for one in lanes}
    shared = {one.key: one for one in resources}

    def at_fires(lane: Lane) -> int:
        return sum(task.lasts for task in lane.tasks if any(need.low_c is not None for need in task.needs))

    first = tuple(sorted(by_key, key=lambda key: (-at_fires(by_key[key]), key)))
    # what can wait least at the end has the first choice of hands there
    tight = tuple(sorted(by_key, key=lambda key: (sum(one.most for one in by_key[key].tasks[-1:]), key)))
    queue, seen = deque([first, tight]), set[tuple[str, ...]]()
    least: tuple[tuple[float, ...], Plan] | None = None
    while queue and len(seen) < orders:
        order = queue.popleft()
        if order in seen:
            continue
        going()
        seen.add(order)
        day, clashes = _in_order([by_key[key] for key in order], shared, nights, not_before)
        placed = day.all()
        first_of = _first_of(by_key, placed)
        for key in sorted(by_key):
            more = _put_within(day, by_key[key], placed, first_of)
            placed += more[0]
            clashes += more[1]
        off = sum(abs(one.waits - one.task.usual) for one in placed if one.task.begins is None)
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


_known = lru_cache(maxsize=32)(_search)

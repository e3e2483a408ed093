"""A day as it is read: when to light the fire, lanes of pieces, hands and cookers, what clashes and how sure it is."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import pairwise
from types import MappingProxyType

from ravska_core.day.plan import ORDERS, Clash, Placed, Plan, Resource, plan
from ravska_core.day.tasks import HANDS, DayPiece, Doing, called, doings_of, lane_of, waits_hot_min
from ravska_core.heat import GRAINS, Cooker
from ravska_core.units import say_duration

_WAITS = MappingProxyType(
    {
        "cold": ("cold hold", "in the cold"), "bench": ("bench", "on the bench"),
        "ready": ("ready", "until it is ready"), "hot": ("hot", "waits hot, above 60 °C"),
    }
)  # fmt: skip
"""Kind and words of the block that a wait is."""

_LOOK = "look whether it is done, then every half hour"
"""How often one looks (common practice, no source)."""

_OFF_MIN = 5

_OFF_TOLD_MIN = 10
"""From so much on it is said that a hold is longer or shorter in the day than it was set."""

_SETTLES_MIN, _KEEPS_HOT_MIN = 20, 60
"""How long a fire takes from one heat to another, and how long one that is used again is kept up (common practice)."""

_GRATES = {"oven": 2, "stove pot": 4}
"""So many grates, or rings, that kind of cooker has; one otherwise (common practice, no source)."""


@dataclass(frozen=True)
class Block:
    """A time of a lane: what it is, in words, from when to when; `hands` says that somebody is busy with it.

    `kind` is that of a task (``hands``, ``light``, ``fire``, ``wrapped``, ``liquid``, ``cold``, ``rest``) or of a wait
    (``cold hold``, ``bench``, ``ready``, ``hot``). `step` and `layer` are those of Home's step that it begins.
    """

    key: str
    kind: str
    says: str
    begins_at: datetime
    ends_at: datetime
    hands: bool = False
    step: str = ""
    layer: int | None = None


@dataclass(frozen=True)
class DayLane:
    """A piece's lane: its blocks; twenty chances of when it comes off; until when it can wait hot.

    It comes off between `off_low` and `off_high` nine times in ten; both are alike where that is by time alone.
    `in_time` is in how many of the twenty chances it has rested by the time it is sliced; 20 where nothing is known.
    """

    letter: str
    blocks: tuple[Block, ...]
    off: tuple[datetime | None, ...]
    off_low: datetime | None
    off_high: datetime | None
    waits_until: datetime | None
    in_time: int


@dataclass(frozen=True)
class DayStep:
    """Something to do: of which piece, what, and from when to when; both are alike for a look at it."""

    letter: str
    says: str
    begins_at: datetime
    ends_at: datetime


@dataclass(frozen=True)
class Burns:
    """A cooker while it is at one heat [°C]; `share` is how much of its grate is taken at most [0 to 1]."""

    begins_at: datetime
    ends_at: datetime
    low_c: float
    high_c: float
    share: float
    letters: tuple[str, ...]


@dataclass(frozen=True)
class DayCooker:
    """A cooker in a day: when it is lit, when it is ready, and at which heats it burns."""

    key: str
    says: str
    lit_at: datetime
    ready_at: datetime
    burns: tuple[Burns, ...]


@dataclass(frozen=True)
class DayClash:
    """What cannot be, in words, at a time and for how long [min]; the blocks it concerns, by lane and key."""

    kind: str
    says: str
    at: datetime
    minutes: int
    blocks: tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class DayReading:
    """A day: its lanes, its cookers, its clashes; when the first fire is lit, and what is sure of supper.

    `in_time` is in how many of twenty chances all pieces are ready to be served by then.
    """

    serve_at: datetime
    begins_at: datetime
    lights: str
    light_at: datetime | None
    lanes: tuple[DayLane, ...]
    cookers: tuple[DayCooker, ...]
    clashes: tuple[DayClash, ...]
    steps: tuple[DayStep, ...]
    in_time: int
    hands_min: int


def resources_of(pieces: Sequence[DayPiece], people: int) -> tuple[Resource, ...]:
    """Return what the tasks of a day share: hands, and each cooker with its grate [cm2]; an oven has two of them."""
    found = {HANDS: Resource(HANDS, float(people))}
    for piece in pieces:
        for key, cooker in piece.cookers:
            found[key] = Resource(key, cooker.grate_cm2 * _GRATES.get(cooker.kind, 1), _SETTLES_MIN)
    return tuple(found.values())


Nights = tuple[tuple[int, int], ...]


@dataclass(frozen=True)
class Supper:
    """What a day is planned from: its pieces, when they are served, when everybody sleeps [min, 0 at serving].

    `people` is how many pairs of hands there are; nothing begins before `now`, where that is given.
    """

    pieces: tuple[DayPiece, ...]
    serve_at: datetime
    nights: Nights = ()
    people: int = 1
    now: datetime | None = None


def plan_day(supper: Supper, orders: int = ORDERS) -> tuple[Plan, dict[str, tuple[Doing, ...]]]:
    """Return the plan of a day, and what is done to each piece by its letter."""
    doings = {piece.letter: doings_of(piece) for piece in supper.pieces}
    not_before = -(10**9)
    if supper.now is not None:
        not_before = -int((supper.serve_at - supper.now).total_seconds() // 60)
    lanes = [lane_of(piece, doings[piece.letter]) for piece in supper.pieces]
    return plan(lanes, resources_of(supper.pieces, supper.people), supper.nights, not_before, orders), doings


def read_day(supper: Supper) -> tuple[DayReading, Plan]:
    """Plan the day of a cook backwards from its serving, and say what that comes to; return the plan beside it."""
    found, doings = plan_day(supper)
    return _Reading(supper, doings, found).read(), found


class _Reading:
    """What a plan comes to, in words and on the clock."""

    def __init__(self, supper: Supper, doings: Mapping[str, Sequence[Doing]], found: Plan) -> None:
        self.serve_at, self.pieces, self.people, self.plan = supper.serve_at, supper.pieces, supper.people, found
        self.cookers: dict[str, Cooker] = {key: cooker for piece in self.pieces for key, cooker in piece.cookers}
        self.doing = {(letter, one.task.key): one for letter, of in doings.items() for one in of}
        self.by_lane = {
            piece.letter: [one for one in found.placed if one.lane == piece.letter] for piece in self.pieces
        }

    def at(self, minutes: float) -> datetime:
        return self.serve_at + timedelta(minutes=minutes)

    def of(self, placed: Placed) -> Doing:
        return self.doing[placed.lane, placed.task.key]

    def read(self) -> DayReading:
        lanes = tuple(self._lane(piece) for piece in self.pieces)
        used = {need.resource for placed in self.plan.placed for need in placed.task.needs}
        cookers = tuple(self._cooker(key) for key in self.cookers if key in used)
        lit = sorted(cookers, key=lambda one: one.lit_at)
        chance = 1.0
        for lane in lanes:
            chance *= lane.in_time / GRAINS
        return DayReading(
            self.serve_at,
            min((block.begins_at for lane in lanes for block in lane.blocks), default=self.serve_at),
            self._lights(lit[0].key) if lit else "",
            lit[0].lit_at if lit else None,
            lanes,
            tuple(lit),
            tuple(self._clash(clash) for clash in self._told()),
            self._steps(lanes),
            round(chance * GRAINS),
            sum(one.task.lasts for one in self.plan.placed if any(need.resource == HANDS for need in one.task.needs)),
        )

    def _lane(self, piece: DayPiece) -> DayLane:
        mine = self.by_lane[piece.letter]
        blocks = tuple(block for placed in mine for block in self._blocks(placed))
        on = next((one for one in mine if self.of(one).step == "on"), None)
        if on is None or piece.heat is None or piece.heat.done_s is None:
            return DayLane(piece.letter, blocks, (), None, None, None, GRAINS)
        off = tuple(None if one is None else on.begins + round(one / 60) for one in piece.heat.done)
        rest = next(one for one in mine if one.task.key == "rest")
        sliced = rest.ends + rest.waits
        in_time = sum(one is not None and one + rest.task.lasts + _OFF_MIN <= sliced for one in off)
        known = [one for one in off if one is not None]
        low, high = known[min(1, len(known) - 1)], known[max(0, len(known) - 2)]
        return DayLane(
            piece.letter, blocks, tuple(None if one is None else self.at(one) for one in off),
            self.at(low), self.at(max(low, high)), self.at(rest.ends + waits_hot_min(piece.cut)), in_time,
        )  # fmt: skip

    def _steps(self, lanes: Sequence[DayLane]) -> tuple[DayStep, ...]:
        """Return what hands do in order, and from when on one looks whether a piece is done: at its first chance."""
        found = [
            DayStep(lane.letter, block.says, block.begins_at, block.ends_at)
            for lane in lanes for block in lane.blocks if block.hands
        ]  # fmt: skip
        for lane in lanes:
            known = [one for one in lane.off if one is not None]
            if known and known[0] < known[-1]:
                found.append(DayStep(lane.letter, _LOOK, known[0], known[0]))
        return tuple(sorted(found, key=lambda step: (step.begins_at, step.letter)))

    def _blocks(self, placed: Placed) -> Iterator[Block]:
        """Return a task and the wait after it as blocks, without what another piece's task does for it."""
        doing, key = self.of(placed), placed.task.key
        done_for_it = (doing.kind == "light" and self._hot_already(placed)) or self._mixed_already(placed)
        if not done_for_it:
            busy = any(need.resource == HANDS for need in placed.task.needs)
            begins, ends = self.at(placed.begins), self.at(placed.ends)
            yield Block(key, doing.kind, doing.says, begins, ends, busy, doing.step, doing.layer)
        if placed.waits and doing.waits and not done_for_it:
            kind, says = _WAITS[doing.waits]
            off = placed.waits - placed.task.usual
            if doing.waits == "cold" and placed.task.usual and abs(off) >= _OFF_TOLD_MIN:
                says += f", {say_duration(abs(off) * 60)} {'longer' if off > 0 else 'shorter'} than its hold"
            yield Block(f"{key}.waits", kind, says, self.at(placed.ends), self.at(placed.ends + placed.waits))

    def _mixed_already(self, placed: Placed) -> bool:
        """Tell whether another piece's mixing, which begins sooner, takes in all that this one is of."""
        mixes = self.of(placed).mixes
        return bool(mixes) and any(
            mixes <= self.of(one).mixes and (one.begins, one.lane) < (placed.begins, placed.lane)
            for one in self.plan.placed
        )

    def _lights(self, key: str) -> str:
        """Say what is done to a cooker so that it can be cooked on."""
        return next(
            (one.says for one in self.doing.values() if one.task.key == f"light.{key}"), called(self.cookers[key])
        )

    def _hot_already(self, light: Placed) -> bool:
        """Tell whether another piece has lit a cooker before, and keeps it up."""
        key = light.task.key.removeprefix("light.")
        for one in self.plan.placed:
            if one.lane == light.lane or not any(need.resource == key for need in one.task.needs):
                continue
            if one.begins <= light.ends + light.waits and light.begins <= one.ends + _KEEPS_HOT_MIN:
                return self._lit(key) < light.begins or (self._lit(key) == light.begins and one.lane < light.lane)
        return False

    def _lit(self, key: str) -> int:
        """Return when a cooker is lit first [min]."""
        return min(one.begins for one in self.plan.placed if one.task.key == f"light.{key}")

    def _cooker(self, key: str) -> DayCooker:
        uses = sorted(
            (one.begins, one.ends, need, one.lane) for one in self.plan.placed for need in one.task.needs
            if need.resource == key
        )  # fmt: skip
        burns: list[Burns] = []
        edges = sorted({edge for begins, ends, *_ in uses for edge in (begins, ends)})
        for at, until in pairwise(edges):
            there = [(need, lane) for begins, ends, need, lane in uses if begins <= at < ends]
            if not there:
                continue
            low, high = max(need.low_c or 0.0 for need, _ in there), min(need.high_c or 0.0 for need, _ in there)
            share = sum(need.amount for need, _ in there) / self.cookers[key].grate_cm2
            letters = tuple(sorted({lane for _, lane in there}))
            last = burns[-1] if burns else None
            if last is not None and (last.ends_at, last.low_c, last.high_c) == (self.at(at), low, high):
                burns[-1] = Burns(last.begins_at, self.at(until), low, high, max(share, last.share),
                                  tuple(sorted({*last.letters, *letters})))  # fmt: skip
            else:
                burns.append(Burns(self.at(at), self.at(until), low, high, share, letters))
        ready_min = self.cookers[key].ready_s / 60
        lit = next((one for one in self.plan.placed if one.task.key == f"light.{key}"), None)
        begins = uses[0][0]
        lit_at = self.at(lit.begins if lit is not None else begins - ready_min)
        return DayCooker(key, called(self.cookers[key]), lit_at, self.at(begins), tuple(burns))

    def _told(self) -> list[Clash]:
        """Return the clashes that are told: of several of the same two lanes at one place the longest."""
        longest: dict[tuple[object, ...], Clash] = {}
        for clash in self.plan.clashes:
            lanes = frozenset((clash.first.lane, clash.other.lane if clash.other else ""))
            key = (clash.kind, clash.where, lanes)
            if key not in longest or clash.minutes > longest[key].minutes:
                longest[key] = clash
        return sorted(longest.values(), key=lambda clash: clash.at)

    def _said(self, placed: Placed) -> str:
        says = self.of(placed).says
        return f"{placed.lane}: {says[:1].lower()}{says[1:]}"

    def _clash(self, clash: Clash) -> DayClash:
        blocks = [(one.lane, one.task.key) for one in (clash.first, clash.other) if one is not None]
        one = self._said(clash.first)
        other = "" if clash.other is None else self._said(clash.other)
        lasts = say_duration(clash.minutes * 60)
        if clash.kind == "past":
            says = f"{one} would have begun {lasts} ago."
        elif clash.kind == "asleep":
            says = f"{one} falls into the night, by {lasts}."
        elif clash.kind == "two heats":
            says = f"One {called(self.cookers[clash.where])} at two heats for {lasts}: {one}, and {other}."
        elif clash.where == HANDS:
            pairs = "One pair of hands is" if self.people == 1 else f"{self.people} pairs of hands are"
            says = f"{pairs} not enough for {lasts}: {one}, and {other}."
        else:
            says = f"The grate of the {called(self.cookers[clash.where])} is full for {lasts}: {one}, and {other}."
        return DayClash("hands" if clash.where == HANDS else clash.kind, says, self.at(clash.at), clash.minutes,
                        tuple(blocks))  # fmt: skip

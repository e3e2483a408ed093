"""A day as it is read: when to light the fire, lanes of pieces, hands and cookers, what clashes and how sure it is."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import pairwise
from types import MappingProxyType

from ravska_core.day.clocks import DayClock, clocks_of
from ravska_core.day.lanes import BUY, WAY, Said, Supper, lanes_of, letter_of, resources_of
from ravska_core.day.plan import ORDERS, Clash, Going, Placed, Plan, plan, to_the_end
from ravska_core.day.tasks import BOARD, HANDS, KEEPS_HOT_MIN, DayPiece, Doing, called, waits_hot_min
from ravska_core.heat import GRAINS
from ravska_core.units import say_duration

_WAITS = MappingProxyType(
    {
        "cold": ("cold hold", "in the cold"), "bench": ("bench", "on the bench"),
        "ready": ("ready", "until it is ready"), "hot": ("hot", "waits hot, above 60 °C"),
        "ready to eat": ("hot", "waits"), "cooling": ("cold hold", "cools, then in the cold"),
        "box": ("hot", "in the cool box"), "cold box": ("cold hold", "in the cool box"),
    }
)  # fmt: skip
"""Kind and words of the block that a wait is."""

_BUY = "Have all of it bought by now"

_OFF_MIN = 5

_OFF_TOLD_MIN = 10
"""From so much on it is said that a hold is longer or shorter in the day than it was set."""


@dataclass(frozen=True)
class Block:
    """A time of a lane: what it is, in words, from when to when; `hands` says that somebody is busy with it.

    `kind` is that of a task (``hands``, ``light``, ``fire``, ``wrapped``, ``liquid``, ``cold``, ``rest``, ``way``,
    ``beside``) or of a wait (``cold hold``, ``bench``, ``ready``, ``hot``). `step` and `layer` are those of Home's step
    that it begins; `done` says that it is over, or begun.
    """

    key: str
    kind: str
    says: str
    begins_at: datetime
    ends_at: datetime
    hands: bool = False
    step: str = ""
    layer: int | None = None
    done: bool = False
    pinned: bool = False


@dataclass(frozen=True)
class DayLane:
    """The lane of a piece or a side, or the way: its blocks; chances of when it comes off, until when it waits hot.

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
    """Something to do: of which lane, by which key, what, and from when to when; both are alike for a look at it.

    `step` and `layer` are those of Home's step that it is one with; `done` says that it is over.
    """

    letter: str
    key: str
    says: str
    begins_at: datetime
    ends_at: datetime
    done: bool = False
    step: str = ""
    layer: int | None = None


@dataclass(frozen=True)
class StepTime:
    """When a step of Home is planned, by its piece, kind and layer; one on the fire lasts until it is taken off."""

    letter: str
    step: str
    layer: int | None
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
    clocks: tuple[DayClock, ...]
    in_time: int
    hands_min: int
    times: tuple[StepTime, ...]


def plan_day(
    supper: Supper, orders: int = ORDERS, going: Going = to_the_end
) -> tuple[Plan, dict[str, Said]]:  # fmt: skip
    """Return the plan of a day, and its lanes in words by their key."""
    lanes = {one.lane.key: one for one in lanes_of(supper)}
    not_before = -(10**9)
    if supper.now is not None:
        not_before = -int((supper.serve_at - supper.now).total_seconds() // 60)
    asked = [one.lane for one in lanes.values()]
    return plan(asked, resources_of(supper), supper.nights, not_before, orders, going), lanes


def read_day(supper: Supper) -> tuple[DayReading, Plan]:
    """Plan the day of a cook backwards from its serving, and say what that comes to; return the plan beside it."""
    found, doings = plan_day(supper)
    return _Reading(supper, doings, found).read(), found


NEXT = 3


def next_steps(day: DayReading, now: datetime) -> tuple[DayStep, ...]:
    """Return the next three things to do: what should be done by now and is not, then what comes."""
    left = [step for step in day.steps if not step.done]
    late = [step for step in left if step.ends_at <= now and step.begins_at != step.ends_at]
    return (*late, *(step for step in left if step.ends_at > now))[:NEXT]


def _times(lane: DayLane) -> Iterator[StepTime]:
    """Return when each of Home's steps of a lane is, the first time that it is done."""
    off = next((block.begins_at for block in lane.blocks if block.key == "off"), None)
    seen = set[tuple[str, int | None]]()
    for block in lane.blocks:
        if block.step and (block.step, block.layer) not in seen:
            seen.add((block.step, block.layer))
            ends = off if block.step == "on" and off is not None else block.ends_at
            yield StepTime(lane.letter, block.step, block.layer, block.begins_at, ends)


class _Reading:
    """What a plan comes to, in words and on the clock."""

    def __init__(self, supper: Supper, lanes: Mapping[str, Said], found: Plan) -> None:
        self.supper, self.serve_at, self.people, self.plan = supper, supper.serve_at, supper.people, found
        self.cookers = supper.cookers
        self.holds = {one.key: one.capacity for one in resources_of(supper)}
        self.pieces = {piece.letter: piece for piece in supper.pieces}
        self.doing = {(key, of): doing for key, one in lanes.items() for of, doing in one.doings.items()}
        self.lanes = lanes
        self.by_lane = {key: [one for one in found.placed if one.lane == key] for key in lanes}

    def at(self, minutes: float) -> datetime:
        return self.serve_at + timedelta(minutes=minutes)

    def of(self, placed: Placed) -> Doing:
        return self.doing[placed.lane, placed.task.key]

    def read(self) -> DayReading:
        letters = dict.fromkeys(letter_of(key) for key in self.by_lane)
        lanes = tuple(self._lane(letter) for letter in letters)
        used = {need.resource for placed in self.plan.placed for need in placed.task.needs}
        cookers = tuple(self._cooker(key) for key in self.cookers if key in used)
        lit = sorted(cookers, key=lambda one: one.lit_at)
        fires = sorted([(one.lit_at, self._lights(one.key)) for one in lit] + self._unsaid_fires())
        chance = 1.0
        for lane in lanes:
            chance *= lane.in_time / GRAINS
        return DayReading(
            self.serve_at,
            min((block.begins_at for lane in lanes for block in lane.blocks), default=self.serve_at),
            fires[0][1] if fires else "",
            fires[0][0] if fires else None,
            lanes,
            tuple(lit),
            tuple(self._clash(clash) for clash in self._told()),
            self._steps(lanes),
            clocks_of(self.supper, self.lanes, self.plan.placed),
            round(chance * GRAINS),
            sum(one.task.lasts for one in self.plan.placed if any(need.resource == HANDS for need in one.task.needs)),
            tuple(time for lane in lanes for time in _times(lane)),
        )

    def _unsaid_fires(self) -> list[tuple[datetime, str]]:
        """Return when a fire is to be ready of which nobody said what it is."""
        return [
            (self.at(one.begins), "Have the fire ready")
            for one in self.plan.placed
            if one.lane in self.pieces and self.pieces[one.lane].heated is None and self.of(one).step == "on"
        ]

    def _lane(self, letter: str) -> DayLane:
        """Read the lane of a piece, a side or the way, with all its waves; the chances are those of the last wave."""
        keys = [key for key in self.by_lane if letter_of(key) == letter]
        blocks = tuple(block for key in keys for placed in self.by_lane[key] for block in self._blocks(placed))
        mine, piece = self.by_lane[keys[-1]], self.pieces.get(letter)
        on_min = None if piece is None else self._on_min(piece, mine)
        rest = next((one for one in mine if one.task.key == "rest"), None)
        if piece is None or on_min is None or rest is None or piece.heat is None or piece.heat.done_s is None:
            return DayLane(letter, blocks, (), None, None, None, GRAINS)
        off = tuple(None if one is None else on_min + round(one / 60) for one in piece.heat.done)
        sliced = rest.ends + rest.waits
        in_time = sum(one is not None and one + rest.task.lasts + _OFF_MIN <= sliced for one in off)
        known = [one for one in off if one is not None]
        low, high = known[min(1, len(known) - 1)], known[max(0, len(known) - 2)]
        return DayLane(
            letter, blocks, tuple(None if one is None else self.at(one) for one in off),
            self.at(low), self.at(max(low, high)), self.at(rest.ends + waits_hot_min(piece.cut)), in_time,
        )  # fmt: skip

    def _on_min(self, piece: DayPiece, mine: Sequence[Placed]) -> int | None:
        """Return when a piece goes on, or went on."""
        on = next((one for one in mine if self.of(one).step == "on"), None)
        if on is not None:
            return on.begins
        went = [piece.ticked[key] for key in ("to.0", "phase.0") if key in piece.ticked]
        return went[0] if went else piece.done.get(("on", None))

    def _steps(self, lanes: Sequence[DayLane]) -> tuple[DayStep, ...]:
        """Return what hands do, and when to look whether something is done, in order."""
        found = [
            DayStep(lane.letter, block.key, block.says, block.begins_at, block.ends_at, block.done, block.step,
                    block.layer)
            for lane in lanes for block in lane.blocks if block.hands
        ]  # fmt: skip
        for lane in self.lanes.values():
            for doing, at in lane.over:
                begins = self.at(at - doing.task.lasts)
                found.append(DayStep(lane.lane.key, doing.task.key, doing.says, begins, self.at(at), True, doing.step,
                                     doing.layer))  # fmt: skip
        if found:
            first = min(step.begins_at for step in found)
            at_bought = first if self.supper.bought is None else self.at(self.supper.bought)
            found.append(DayStep(BUY, BUY, _BUY, at_bought, at_bought, self.supper.bought is not None))
        return tuple(sorted(found, key=lambda step: (step.begins_at, step.letter != BUY, step.letter, step.key)))

    def _blocks(self, placed: Placed) -> Iterator[Block]:
        """Return a task and the wait after it as blocks, without what another piece's task does for it."""
        doing, key = self.of(placed), placed.task.key
        done_for_it = (key.startswith("light.") and self._hot_already(placed)) or self._mixed_already(placed)
        # what comes wave by wave is told apart by its lane
        told = key if placed.lane == letter_of(placed.lane) else f"{placed.lane} {key}"
        if not done_for_it:
            # what is over took hands too; a look takes them for no time
            busy = doing.kind == "beside" or placed.task.awake or (placed.task.begun and doing.kind == "hands")
            begins, ends = self.at(placed.begins), self.at(placed.ends)
            pinned = placed.task.begins is not None and not placed.task.begun
            yield Block(told, doing.kind, doing.says, begins, ends, busy, doing.step, doing.layer,
                        placed.task.begun, pinned)  # fmt: skip
        if placed.waits and doing.waits and not done_for_it:
            kind, says = _WAITS[doing.waits]
            off = placed.waits - placed.task.usual
            if doing.waits == "cold" and placed.task.usual and abs(off) >= _OFF_TOLD_MIN:
                says += f", {say_duration(abs(off) * 60)} {'longer' if off > 0 else 'shorter'} than its hold"
            if doing.waits == "ready":
                says = f"until {self.cookers[key.removeprefix('light.')].ready}"
            yield Block(f"{told}.waits", kind, says, self.at(placed.ends), self.at(placed.ends + placed.waits))

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
            if one.begins <= light.ends + light.waits and light.begins <= one.ends + KEEPS_HOT_MIN:
                return self._lit(key) < light.begins or (self._lit(key) == light.begins and one.lane < light.lane)
        return False

    def _lit(self, key: str) -> int:
        """Return when a cooker is lit first [min]."""
        return min(one.begins for one in self.plan.placed if one.task.key == f"light.{key}")

    def _cooker(self, key: str) -> DayCooker:
        uses = [
            (one.begins, one.ends, need, one.lane) for one in self.plan.placed for need in one.task.needs
            if need.resource == key
        ]  # fmt: skip
        burns: list[Burns] = []
        edges = sorted({edge for begins, ends, *_ in uses for edge in (begins, ends)})
        for at, until in pairwise(edges):
            there = [(need, lane) for begins, ends, need, lane in uses if begins <= at < ends]
            if not there:
                continue
            low = max((need.low_c for need, _ in there if need.low_c is not None), default=self.cookers[key].low_c)
            high = min((need.high_c for need, _ in there if need.high_c is not None), default=self.cookers[key].high_c)
            share = sum(need.amount for need, _ in there) / self.holds[key]
            letters = tuple(sorted({letter_of(lane) for _, lane in there}))
            last = burns[-1] if burns else None
            if last is not None and (last.ends_at, last.low_c, last.high_c) == (self.at(at), low, high):
                burns[-1] = Burns(last.begins_at, self.at(until), low, high, max(share, last.share),
                                  tuple(sorted({*last.letters, *letters})))  # fmt: skip
            else:
                burns.append(Burns(self.at(at), self.at(until), low, high, share, letters))
        ready_min = self.cookers[key].ready_s / 60
        lit = next((one for one in self.plan.placed if one.task.key == f"light.{key}"), None)
        begins = min(one for one, *_ in uses)
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
        letter = letter_of(placed.lane)
        whose = next((side.name for side in self.supper.sides if side.letter == letter), letter)
        return says if letter == WAY else f"{whose}: {says[:1].lower()}{says[1:]}"

    def _clash(self, clash: Clash) -> DayClash:
        blocks = [
            (letter_of(one.lane), one.task.key if one.lane == letter_of(one.lane) else f"{one.lane} {one.task.key}")
            for one in (clash.first, clash.other) if one is not None
        ]  # fmt: skip
        one = self._said(clash.first)
        other = "" if clash.other is None else self._said(clash.other)
        lasts = say_duration(clash.minutes * 60)
        if clash.kind == "past":
            says = f"{one} would have begun {lasts} ago."
        elif clash.kind == "asleep":
            says = f"{one} falls into the night, by {lasts}."
        elif clash.kind == "late":
            says = f"{one} goes on {lasts} longer than there is until what follows it."
        elif clash.kind == "short":
            says = f"After {one}, the wait is {lasts} shorter than it may be."
        elif clash.kind == "long":
            says = f"After {one}, the wait is {lasts} longer than it may be."
        elif clash.where == BOARD:
            says = f"Raw meat and what is eaten as it is on one board within {lasts}: {one}, and {other}."
        elif clash.kind == "two heats":
            says = f"One {called(self.cookers[clash.where])} at two heats for {lasts}: {one}, and {other}."
        elif clash.where == HANDS:
            pairs = "One pair of hands is" if self.people == 1 else f"{self.people} pairs of hands are"
            says = f"{pairs} not enough for {lasts}: {one}, and {other}."
        else:
            says = f"The grate of the {called(self.cookers[clash.where])} is full for {lasts}: {one}, and {other}."
        kind = {HANDS: "hands", BOARD: "board"}.get(clash.where, clash.kind)
        return DayClash(kind, says, self.at(clash.at), clash.minutes,
                        tuple(blocks))  # fmt: skip

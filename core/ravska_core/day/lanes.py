"""All lanes of a day: pieces, their later waves, sides, and the way to where it is eaten."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from ravska_core.day.during import Beside, within_of
from ravska_core.day.plan import Lane, Need, Resource, Task
from ravska_core.day.sides import Away, Side, Waves, packed, side_doings, the_way, whole_side
from ravska_core.day.tasks import BOARD, HANDS, SETTLES_MIN, DayPiece, Doing, doings_of, done_at_min, whole_of
from ravska_core.heat import Cooker, last_hot
from ravska_core.working import BadInput

Nights = tuple[tuple[int, int], ...]

WAY, BUY = "way", "buy"
"""Key of the lane that leads to where it is eaten, and of what is bought before all else."""

_WAVE = "·"

_WASHED_MIN = 5
"""How long it takes until a board is clean after raw meat (common practice)."""

_GRATES = {"oven": 2, "stove pot": 4}
"""So many grates, or rings, that kind of cooker has; one otherwise (common practice, no source)."""

_TO_ORDER_MIN = 40
"""What is on the fire for no longer can come in waves."""


@dataclass(frozen=True)
class Supper:
    """What a day is planned from: its pieces and sides, when it is served, when everybody sleeps [min, 0 at serving].

    `people` is how many pairs of hands there are; nothing begins before `now`, where that is given. It is eaten `away`
    where that is given; what is grilled to order comes in `waves`. `bought` is when all of it was bought [min].
    """

    pieces: tuple[DayPiece, ...]
    serve_at: datetime
    nights: Nights = ()
    people: int = 1
    now: datetime | None = None
    sides: tuple[Side, ...] = ()
    away: Away | None = None
    waves: Waves | None = None
    bought: int | None = None

    @property
    def cookers(self) -> Mapping[str, Cooker]:
        """The cookers of all pieces and sides by the key that they are shared by."""
        found = {key: cooker for piece in self.pieces for key, cooker in piece.cookers}
        for side in self.sides:
            if side.device is not None:
                found.setdefault(side.cooker, side.device)
        return found


@dataclass(frozen=True)
class Said:
    """A lane, what each of its tasks is in words, and what of it is over with when that was [min, 0 at serving]."""

    lane: Lane
    doings: Mapping[str, Doing]
    over: tuple[tuple[Doing, int], ...] = ()


def letter_of(lane: str) -> str:
    """Return the letter of the piece or side that a lane is of."""
    return lane.split(_WAVE)[0]


def comes_in_waves(piece: DayPiece, waves: Waves | None) -> bool:
    """Tell whether a piece is many, and so short on the fire, that it is grilled wave by wave."""
    if waves is None or waves.count < 2 or piece.heated is None or piece.heat is None:
        return False
    took_s = piece.heat.phases[last_hot(piece.heated.phases)].ends_s
    return piece.seasoned.piece.count >= waves.count and took_s <= _TO_ORDER_MIN * 60


def _shared_out(count: int, among: int) -> str:
    """Say how many of so many each has, of which some may have one more."""
    least, over = divmod(count, among)
    return f"{least} or {least + 1}" if over else str(least)


def waves_said(supper: Supper, eaters: int | None = None) -> tuple[str, ...]:
    """Say of what comes in waves how many pieces that is a wave and an eater."""
    waves = supper.waves
    if waves is None or supper.away is not None:
        return ()
    found = []
    for piece in supper.pieces:
        if comes_in_waves(piece, waves):
            count = piece.seasoned.piece.count
            each = f", {_shared_out(count, eaters)} an eater" if eaters else ""
            found.append(f"{piece.letter}: {count} pieces, {_shared_out(count, waves.count)} a wave{each}")
    return tuple(found)


def lanes_of(supper: Supper) -> tuple[Said, ...]:
    """Return every lane of a day with what its tasks are in words.

    Raises
    ------
    BadInput
        At ``sides`` and ``away`` for what cannot be.
    """
    away = supper.away
    if away is not None and not 0 < away.minutes <= 1440:
        raise BadInput("away", "The way lasts between a minute and a day.")
    there: tuple[Doing, ...] = ()
    found: list[Said] = []
    ends = 0
    if away is not None:
        there = the_way(away, max(1, len(supper.pieces) + len(supper.sides)), supper.people)
        ends = -sum(one.task.lasts for one in there)
        found.append(_said(WAY, there, 0))
    for piece in supper.pieces:
        doings = doings_of(piece)
        waved = doings and away is None and comes_in_waves(piece, supper.waves)
        if waved and supper.waves is not None:
            found += _in_waves(piece, doings, supper.waves)
            continue
        if away is not None:
            doings = packed(doings, away)
        beside = within_of(piece, doings)
        over = _over(whole_of(piece), piece.ticked, piece.done)
        found.append(_said(piece.letter, doings, ends, beside, over))
    for side in supper.sides:
        doings = side_doings(side)
        over = _over(whole_side(side), side.ticked, {})
        found.append(_said(side.letter, packed(doings, away) if away is not None else doings, ends, (), over))
    return tuple(found)


Over = tuple[tuple[Doing, int], ...]


def _over(
    whole: Sequence[Doing], ticked: Mapping[str, int], done: Mapping[tuple[str, int | None], int]
) -> Over:  # fmt: skip
    """Return what of a chain is over, with when that was."""
    found = [(one, done_at_min(one, ticked, done)) for one in whole]
    return tuple((one, at) for one, at in found if at is not None)


def _said(
    key: str, doings: Sequence[Doing], serves: int, beside: Sequence[Beside] = (), over: Over = ()
) -> Said:  # fmt: skip
    words = {one.task.key: one for one in doings} | {doing.task.key: doing for _, doing in beside}
    lane = Lane(key, tuple(one.task for one in doings), serves, tuple(within for within, _ in beside))
    return Said(lane, words, tuple((one, at) for one, at in over if one.task.key not in words))


def _in_waves(piece: DayPiece, doings: Sequence[Doing], waves: Waves) -> Iterator[Said]:
    """Return the lane of a first wave with all that is done before, and one of each later wave from the fire on."""

    def share(task: Task) -> Task:
        def part(need: Need) -> Need:
            on_a_grate = need.resource not in (HANDS, BOARD)
            return replace(need, amount=need.amount / waves.count) if on_a_grate else need

        return replace(task, needs=tuple(map(part, task.needs)))

    dealt = [replace(one, task=share(one.task)) for one in doings]
    yield _said(piece.letter, dealt, 0, within_of(piece, dealt))
    at = next((n for n, one in enumerate(dealt) if one.step == "on"), len(dealt))
    for nth in range(1, waves.count):
        again = [
            replace(one, says=f"{one.says}, wave {nth + 1}", task=replace(one.task, begins=None, begun=False))
            for one in dealt[at:]
        ]  # fmt: skip
        yield _said(f"{piece.letter}{_WAVE}{nth + 1}", again, nth * waves.apart_min)


def resources_of(supper: Supper) -> tuple[Resource, ...]:
    """Return what the tasks of a day share: hands, the board, and each cooker with its grates [cm2]."""
    cookers = [
        Resource(key, cooker.grate_cm2 * _GRATES.get(cooker.kind, 1), SETTLES_MIN)
        for key, cooker in supper.cookers.items()
    ]  # fmt: skip
    return (Resource(HANDS, float(supper.people)), Resource(BOARD, 99.0, _WASHED_MIN), *cookers)

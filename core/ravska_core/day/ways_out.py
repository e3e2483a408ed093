"""Ways out of what clashes in a day: each is tried by planning anew, and says what it costs."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from ravska_core.cautions import COLD_C
from ravska_core.coat import LAYER_KINDS, Layer
from ravska_core.day.lanes import Nights, Supper, letter_of
from ravska_core.day.moved import moved, smokes
from ravska_core.day.plan import Clash, Going, Plan, to_the_end
from ravska_core.day.reading import plan_day
from ravska_core.day.start_now import hold_left_s, reach_mm
from ravska_core.day.tasks import BOARD, HANDS, DayPiece, called
from ravska_core.heat import Phase, find_cooker
from ravska_core.units import say_duration
from ravska_core.working import BadInput

_LATER_MIN = (10, 15, 30, 45, 60, 90, 120, 180, 240, 360, 720, 1440)
"""So much later supper is tried."""

_MOST, _ORDERS = 5, 6
"""So many ways are told, and so many orders of the lanes are tried for each."""

_DEAR = {"oven": 40, "cooker": 70, "heat": 60}
"""How dear a change of what a piece is cooked on is, in minutes that everybody would rather wait (estimate)."""

_DEAR_HOLD = {"shorter": 50, "longer": 20}

_COVERED = ("foil", "pan", "pot")

_DRY = ("pre-salt", "rub", "paste")

_OVERNIGHT_S, _LONGEST_HOLD_S = 10 * 3600.0, 48 * 3600.0
"""What is held longer, so that nobody has to get up, is held for a night at least and two days at most [s] (common
practice, no source)."""

_TOLD_MM = 0.5


@dataclass(frozen=True)
class OutOfClash:
    """A change of the day that clashes less: what is done, what it costs, and how many clashes are left of it.

    `key` is ``later`` with its minutes, ``people`` with how many, ``oven`` with a piece's letter (what is covered of
    it), ``hold`` with a piece's letter and ``shorter``, or ``longer`` and which layer, ``cooker`` with a letter, the
    cooker it goes to and of a piece the one it goes from, ``heat`` with a piece's letter and the heat it is then aimed
    at [°C], ``loose`` with a letter (its steps may be when they fit), or ``less`` with a side's letter.
    """

    key: tuple[str, ...]
    says: str
    costs: str
    left: int


@dataclass(frozen=True)
class _Change:
    """A way out before it is tried: what supper then is, and in which order of dearness."""

    key: tuple[str, ...]
    says: str
    costs: Callable[[], str]
    supper: Supper
    dear: float


def ways_out(
    supper: Supper, nights: Callable[[datetime], Nights], planned: Plan, going: Going = to_the_end
) -> tuple[OutOfClash, ...]:
    """Return what would take clashes out of a day, the least dear first; none where nothing clashes.

    Parameters
    ----------
    nights : callable
        The nights of a day by its serving time.
    going : callable
        Called again and again while they are looked for, to end that by what it raises.
    """
    before = _score(planned)
    found: list[tuple[float, OutOfClash]] = []
    later: list[tuple[int, int, OutOfClash]] = []
    for change in _changes(supper, nights, planned.clashes):
        if change.key[0] == "later" and later and later[-1][0] == 0:
            continue  # the least delay that helps is enough
        after = _score(plan_day(change.supper, _ORDERS, going)[0])
        if after >= before:
            continue
        way = OutOfClash(change.key, change.says, change.costs(), after[0])
        if change.key[0] == "later":
            later.append((after[0], int(change.dear), way))
        else:
            found.append((change.dear, way))
    found += [(dear, way) for _, dear, way in sorted(later, key=lambda one: one[:2])[:1]]
    found.sort(key=lambda one: (one[1].left, one[0]))
    return tuple(way for _, way in found[:_MOST])


def _score(planned: Plan) -> tuple[int, int]:
    return len(planned.clashes), sum(clash.minutes for clash in planned.clashes)


def _changes(supper: Supper, nights: Callable[[datetime], Nights], clashes: Sequence[Clash]) -> Iterator[_Change]:
    if not clashes:
        return
    if any(clash.where == HANDS for clash in clashes):
        more = supper.people + 1
        changed = replace(supper, people=more)
        yield _Change(("people", str(more)), "Somebody helps", lambda: f"{more} pairs of hands", changed, 0)
    delays = _LATER_MIN if any(clash.kind in ("past", "asleep", "late") for clash in clashes) else ()
    for minutes in delays:
        serve_at = supper.serve_at + timedelta(minutes=minutes)
        changed = replace(supper, serve_at=serve_at, nights=nights(serve_at))
        says = f"Supper {say_duration(minutes * 60)} later"
        yield _Change(("later", str(minutes)), says, lambda: "all of you eat later", changed, minutes)
    yield from _loosened(supper, clashes)
    yield from _holds(supper, clashes)
    yield from _sides_moved(supper, clashes)
    by_letter = {piece.letter: piece for piece in supper.pieces}
    fires = [clash for clash in clashes if clash.other is not None and clash.where not in (HANDS, BOARD)]
    tried = set[tuple[str, ...]]()
    for clash in fires:
        assert clash.other is not None
        first, second = letter_of(clash.first.lane), letter_of(clash.other.lane)
        for lane, other in ((first, second), (second, first)):
            if lane not in by_letter:
                continue
            for change in (
                *_into_the_oven(by_letter[lane], clash.where),
                *_on_another(by_letter[lane], clash.where, ("oven", *supper.cookers)),
                *_at_the_heat_of(by_letter, lane, other, clash),
            ):
                key, says, piece = change
                if key not in tried:
                    tried.add(key)
                    if not _is_done(piece):
                        continue
                    pieces = tuple(piece if one.letter == lane else one for one in supper.pieces)
                    costs = _costs(by_letter[lane], piece)
                    yield _Change(key, says, costs, replace(supper, pieces=pieces), _DEAR[key[0]])


def _is_done(piece: DayPiece) -> bool:
    """Tell whether a piece with other phases is done at all: a centre can be beyond the other one's heat."""
    try:
        return piece.heat is not None and piece.heat.done_s is not None
    except BadInput:
        return False


def _costs(before: DayPiece, after: DayPiece) -> Callable[[], str]:
    """Return how a change of its phases is told: how much sooner or later it is done, and what it loses more."""

    def told() -> str:
        was, now = before.heat, after.heat
        if was is None or now is None or was.done_s is None or now.done_s is None:
            return "how long it then takes is not known"
        later = round((now.done_s - was.done_s) / 60)
        lost = now.loss.value - was.loss.value
        takes = (
            "takes as long"
            if later == 0
            else f"takes {say_duration(abs(later) * 60)} {'longer' if later > 0 else 'less'}"
        )
        return f"{before.letter} {takes}, {now.loss.value:.0f} % lost" if abs(lost) >= 1 else f"{before.letter} {takes}"

    return told


def _with(piece: DayPiece, phases: Sequence[Phase], keys: Sequence[str]) -> DayPiece:
    assert piece.heated is not None
    cookers = [
        old if key == was else find_cooker("", phase.surround)
        for phase, key, was, old in zip(phases, keys, piece.keys, piece.heated.cookers, strict=True)
    ]
    heated = replace(piece.heated, phases=tuple(phases), cookers=tuple(cookers))
    return replace(piece, heated=heated, keys=tuple(keys))


Changed = tuple[tuple[str, ...], str, DayPiece]


def _into_the_oven(piece: DayPiece, where: str) -> Iterator[Changed]:
    """Move what lies covered on a fire into the oven, where nothing of the fire is missed."""
    if piece.heated is None:
        return
    phases, keys = list(piece.heated.phases), list(piece.keys)
    for at, phase in enumerate(phases):
        if keys[at] == where and phase.surround == "indirect" and phase.vessel in _COVERED:
            phases[at], keys[at] = replace(phase, surround="oven", near=False, wood=""), "oven"
    if keys != list(piece.keys):
        yield ("oven", piece.letter), f"{piece.letter}, once it is covered, in the oven", _with(piece, phases, keys)


def _on_another(piece: DayPiece, where: str, others: Sequence[str]) -> Iterator[Changed]:
    """Move all that is on one cooker on to another one that is there, and miss its smoke where that has none."""
    for key in dict.fromkeys(others):
        found = moved(piece, where, key)
        if found is None or found.heated is None or piece.heated is None:
            continue
        onto = next(one for one, of in zip(found.heated.cookers, found.keys, strict=True) if of == key)
        says = f"{piece.letter} {'in' if onto.kind == 'oven' else 'on'} the {called(onto)}"
        less = ", without smoke" if smokes(piece.heated.phases) and not smokes(found.heated.phases) else ""
        yield ("cooker", piece.letter, key, where), says + less, found


def held_s(layer: Layer, longer: bool) -> float:
    """Return how long a layer is held by a way out [s]: half as long, or what is dry and cold twice and overnight."""
    kind = LAYER_KINDS[layer.kind]
    if not longer or kind.when != "before" or not layer.hold_s:
        return hold_left_s(layer, "shorter")
    if layer.kind not in _DRY or layer.hold_c > COLD_C:
        return layer.hold_s
    return min(_LONGEST_HOLD_S, max(2 * layer.hold_s, _OVERNIGHT_S))


def _holds(supper: Supper, clashes: Sequence[Clash]) -> Iterator[_Change]:
    """Hold what is held for half as long, or begin the evening before what somebody would have to get up for."""
    tight = {letter_of(one.lane) for clash in clashes for one in (clash.first, clash.other) if one is not None}
    up_for = {
        (letter_of(one.first.lane), one.first.task.key) for one in clashes if one.kind in ("asleep", "full")
    }  # fmt: skip
    for piece in supper.pieces:
        if piece.letter not in tight:
            continue
        layers = piece.seasoned.layers
        yield from _held(supper, piece, ("shorter",), tuple(held_s(one, False) for one in layers))
        for at, layer in enumerate(layers):
            if any(letter == piece.letter and key.endswith(f".{at}") for letter, key in up_for):
                longer = tuple(held_s(one, True) if one is layer else one.hold_s for one in layers)
                yield from _held(supper, piece, ("longer", str(at)), longer)


def _held(supper: Supper, piece: DayPiece, way: tuple[str, ...], holds: tuple[float, ...]) -> Iterator[_Change]:
    before = piece.seasoned.layers
    layers = tuple(replace(one, hold_s=hold_s) for one, hold_s in zip(before, holds, strict=True))
    if layers == before:
        return
    found = replace(piece, seasoned=replace(piece.seasoned, layers=layers))

    def costs() -> str:
        was, now = reach_mm(piece), reach_mm(found)
        if abs(now - was) < _TOLD_MM:
            return "salt gets as deep"
        return f"salt reaches {now:.0f} mm before the fire instead of {was:.0f} mm"

    which = [(one.hold_s, hold_s) for one, hold_s in zip(before, holds, strict=True) if one.hold_s != hold_s]
    said = ", ".join(f"{say_duration(now)} instead of {say_duration(was)}" for was, now in which)
    says = f"{piece.letter} held {said}" + (", begun earlier" if way[0] == "longer" else "")
    pieces = tuple(found if one is piece else one for one in supper.pieces)
    yield _Change(("hold", piece.letter, *way), says, costs, replace(supper, pieces=pieces), _DEAR_HOLD[way[0]])


def _loosened(supper: Supper, clashes: Sequence[Clash]) -> Iterator[_Change]:
    """Let what was said to be at a time be when it fits."""
    tight = {letter_of(one.lane) for clash in clashes for one in (clash.first, clash.other) if one is not None}
    for letter in sorted(tight):
        pieces = tuple(replace(one, pins={}) if one.letter == letter else one for one in supper.pieces)
        sides = tuple(replace(one, pins={}) if one.letter == letter else one for one in supper.sides)
        if (pieces, sides) != (supper.pieces, supper.sides):
            changed = replace(supper, pieces=pieces, sides=sides)
            says, costs = f"{letter} when it fits", "its steps are no longer at the times you set"
            yield _Change(("loose", letter), says, lambda costs=costs: costs, changed, 5)  # type: ignore[misc]


def _sides_moved(supper: Supper, clashes: Sequence[Clash]) -> Iterator[_Change]:
    """Cook a side that is in the way somewhere else, or leave it out."""
    tight = {letter_of(one.lane) for clash in clashes for one in (clash.first, clash.other) if one is not None}
    for side in supper.sides:
        if side.letter not in tight:
            continue
        others = tuple(one for one in supper.sides if one.letter != side.letter)
        others_there = {"oven": find_cooker("oven", "oven"), **supper.cookers} if side.device is not None else {}
        for key, device in others_there.items():
            aimed = side.aimed_c
            if key == side.cooker or (aimed is not None and not device.low_c <= aimed <= device.high_c):
                continue
            moved = replace(side, cooker=key, device=device)
            changed = replace(supper, sides=tuple(moved if one is side else one for one in supper.sides))
            new = key not in supper.cookers
            costs = f"the {called(device)} is {'lit' if new else 'used'} for it"
            says = f"{side.name} {'in' if key == 'oven' else 'on'} the {called(device)}"
            yield _Change(("cooker", side.letter, key), says, lambda costs=costs: costs, changed, 45 if new else 30)  # type: ignore[misc]
        says = f"No {side.name}"
        yield _Change(
            ("less", side.letter), says, lambda: "one thing less on the table", replace(supper, sides=others), 90
        )


def _at_the_heat_of(pieces: dict[str, DayPiece], lane: str, other: str, clash: Clash) -> Iterator[Changed]:
    """Cook one piece beside the fire at the heat that the other one needs there."""
    piece, beside = pieces[lane], pieces.get(other)
    if beside is None or clash.kind != "two heats" or piece.heated is None or beside.heated is None:
        return
    heats = {
        phase.aimed_c for phase, key in zip(beside.heated.phases, beside.keys, strict=True)
        if key == clash.where and phase.surround == "indirect"
    }  # fmt: skip
    for celsius in sorted(heats):
        phases = [
            replace(phase, aimed_c=celsius, low_c=None, high_c=None)
            if key == clash.where and phase.surround == "indirect" else phase
            for phase, key in zip(piece.heated.phases, piece.keys, strict=True)
        ]  # fmt: skip
        if tuple(phases) != piece.heated.phases:
            says = f"{lane} at {celsius:.0f} °C, as {other}"
            yield ("heat", lane, f"{celsius:g}"), says, _with(piece, phases, piece.keys)

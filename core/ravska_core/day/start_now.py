"""Begun now instead of when it was planned: what a short time leaves, and what that costs."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from ravska_core.coat import LAYER_KINDS, Layer, dose_stack, reach_by_fire_mm
from ravska_core.day.lanes import Nights, Supper, lanes_of
from ravska_core.day.plan import Going, Lane, Plan, to_the_end
from ravska_core.day.reading import plan_day
from ravska_core.day.tasks import DayPiece
from ravska_core.heat import SURROUNDS, Phase, heated
from ravska_core.measure import SPOON_SETS
from ravska_core.units import say_duration
from ravska_core.working import BadInput

_STEP_MIN, _ORDERS = 15, 2
_LATER_MIN = (0, 15, 30, 60, 90, 120, 180, 240, 360, 480, 600, 720)
"""Supper is told on the quarter of an hour, and tried so much later, with so many orders of the lanes."""

_HOTTER_K, _HOTTEST_C = 30.0, 160.0
"""By so much hotter a slow fire may be where time is short, up to this [K, °C] (common practice, no source)."""

_SLOW_C = 150.0
"""What is cooked up to this heat is hurried by a hotter fire [°C] (common practice, no source)."""

_LEAST_S, _LEAST_BATH_S = 300.0, 1800.0
"""What is dry lies on for as long as it takes to carry it out; a bath or an injection shorter than this leaves little
more than what clings [s] (common practice, no source)."""

HURRIES = ("as set", "shorter", "no holds", "hotter")
"""What can be done about a short time, from what was wanted to what is quickest."""


@dataclass(frozen=True)
class PieceNow:
    """A piece begun now: how far salt gets into it [mm] and would have [mm], and how tender it is and would have been.

    `reach` and `wanted` are over all its holds before the fire; `dose` is hours at 82 °C, none where it has no phases.
    """

    letter: str
    reach_mm: float
    wanted_mm: float
    dose: float | None
    wanted_dose: float | None


@dataclass(frozen=True)
class StartNow:
    """One way to begin now: supper by it, whether that is in time, what it costs, and what each piece comes to.

    `key` is one of `HURRIES`; `left` how many things still do not fit.
    """

    key: str
    says: str
    costs: tuple[str, ...]
    serve_at: datetime
    in_time: bool
    pieces: tuple[PieceNow, ...]
    left: int


def hurried(piece: DayPiece, key: str) -> DayPiece:
    """Return a piece with its holds cut short, and its fire hotter, as a way to begin now asks for.

    Raises
    ------
    BadInput
        At ``key`` for one that is none; as a phase is refused.
    """
    if key not in HURRIES:
        raise BadInput("key", "This is no way to begin now; ask for them again.")
    if key == "as set":
        return piece
    seasoned = replace(
        piece.seasoned, layers=tuple(replace(one, hold_s=hold_left_s(one, key)) for one in piece.seasoned.layers)
    )
    made = replace(piece, seasoned=seasoned, pins={})
    if key != "hotter" or piece.heated is None:
        return made
    phases = tuple(
        one if aimed_now_c(one) == one.aimed_c else replace(one, aimed_c=aimed_now_c(one), low_c=None, high_c=None)
        for one in piece.heated.phases
    )
    return replace(made, heated=heated(seasoned, phases, piece.heated.cookers))


def hold_left_s(layer: Layer, key: str) -> float:
    """Return how long a layer is held where time is short [s]: half of it, or no more than it needs to be of use."""
    kind = LAYER_KINDS[layer.kind]
    if kind.when != "before" or not layer.hold_s or key == "as set":
        return layer.hold_s
    if key == "shorter":
        return layer.hold_s / 2
    wet = layer.kind in ("marinade", "injection")
    return min(layer.hold_s, _LEAST_BATH_S if wet else _LEAST_S)


def aimed_now_c(phase: Phase) -> float:
    """Return the heat a phase is aimed at where time is short [°C]."""
    slow = phase.surround in ("indirect", "oven") and SURROUNDS[phase.surround].hot and phase.aimed_c <= _SLOW_C
    return min(_HOTTEST_C, phase.aimed_c + _HOTTER_K) if slow else phase.aimed_c


def start_now(
    supper: Supper, now: datetime, nights: Callable[[datetime], Nights], going: Going = to_the_end
) -> tuple[StartNow, ...]:
    """Return what can be done from now on, each way with the earliest supper that it allows.

    Parameters
    ----------
    nights : callable
        The nights of a day by its serving time.
    going : callable
        Called again and again while it is planned, to end that by what it raises.
    """
    found: list[StartNow] = []
    seen = set[tuple[object, ...]]()
    for key in HURRIES:
        try:
            pieces = tuple(hurried(piece, key) for piece in supper.pieces)
            as_it_is = tuple((one.seasoned.layers, one.heated.phases if one.heated else ()) for one in pieces)
            if as_it_is in seen or any(piece.heat is not None and piece.heat.done_s is None for piece in pieces):
                continue
        except BadInput:
            continue
        seen.add(as_it_is)
        found.append(_one(key, supper, replace(supper, pieces=pieces, now=now), nights, going))
    return tuple(found)


def _one(
    key: str, wanted: Supper, hurry: Supper, nights: Callable[[datetime], Nights], going: Going
) -> StartNow:  # fmt: skip
    now = hurry.now or wanted.serve_at
    serve_at, planned = _earliest(hurry, now, nights, going, full=key == "as set")
    told = tuple(_piece_now(before, after) for before, after in zip(wanted.pieces, hurry.pieces, strict=True))
    costs = [*_in_words(told), *_school(key, hurry.pieces)]
    late = round((serve_at - wanted.serve_at).total_seconds() / 60)
    if late > 0:
        costs.insert(0, f"supper is {say_duration(late * 60)} later than you wanted")
    says = {
        "as set": "Begin now, with every hold as long as it was set",
        "shorter": "Begin now, with the holds cut to half",
        "no holds": "Begin now, and hold nothing longer than it must be",
        "hotter": "Begin now, hold nothing, and make the slow fire hotter",
    }[key]
    return StartNow(key, says, tuple(costs), serve_at, late <= 0, told, len(planned.clashes))


def _earliest(
    supper: Supper, now: datetime, nights: Callable[[datetime], Nights], going: Going, full: bool
) -> tuple[datetime, Plan]:
    """Find the earliest supper, on the quarter of an hour, that all can be done by, with holds whole or cut short."""
    needs = max((_shortest_min(one.lane, full) for one in lanes_of(supper)), default=0)
    first = now + timedelta(minutes=needs)
    first += timedelta(minutes=-(first.hour * 60 + first.minute) % _STEP_MIN)
    best: tuple[int, datetime, Plan] | None = None
    for later in _LATER_MIN:
        serve_at = first + timedelta(minutes=later)
        planned, _ = plan_day(replace(supper, serve_at=serve_at, nights=nights(serve_at)), _ORDERS, going)
        if best is None or len(planned.clashes) < best[0]:
            best = len(planned.clashes), serve_at, planned
        if not any(clash.kind in ("past", "late", "full", "asleep") for clash in planned.clashes):
            break
    assert best is not None
    return best[1], best[2]


def _shortest_min(lane: Lane, full: bool) -> int:
    first = lane.tasks[0].begins if lane.tasks and lane.tasks[0].begun else None
    return sum(one.lasts + (one.usual if full else one.least) for one in lane.tasks) if first is None else 0


def reach_mm(piece: DayPiece) -> float:
    """Return how far salt gets into a piece over all its holds before the fire [mm]."""
    # what the spoons of the household hold moves no salt
    return reach_by_fire_mm(dose_stack(piece.seasoned, SPOON_SETS["us"])[0], piece.seasoned)


def _piece_now(before: DayPiece, after: DayPiece) -> PieceNow:
    was, now = before.heat, after.heat
    return PieceNow(
        before.letter, reach_mm(after), reach_mm(before),
        None if now is None else now.dose.value, None if was is None else was.dose.value,
    )  # fmt: skip


def _in_words(pieces: Sequence[PieceNow]) -> Iterator[str]:
    """Say what each piece loses by it: depth of its salt, and tenderness."""
    for one in pieces:
        if one.wanted_mm - one.reach_mm >= 0.5:
            yield f"{one.letter}: salt reaches {one.reach_mm:.0f} mm before the fire instead of {one.wanted_mm:.0f} mm"
        if one.dose is not None and one.wanted_dose is not None and one.wanted_dose - one.dose >= 0.3:
            yield f"{one.letter}: {one.dose:.1f} h at 82 °C instead of {one.wanted_dose:.1f} h, so tougher"


def _school(key: str, pieces: Sequence[DayPiece]) -> Iterator[str]:
    """Say which school a short time follows (common practice, no source)."""
    kinds = {layer.kind for piece in pieces for layer in piece.seasoned.layers}
    if key in ("no holds", "hotter"):
        if kinds & {"pre-salt", "rub", "paste"}:
            yield "the shorter school: seasoned just before the fire, a salty crust over plain meat"
        if "marinade" in kinds:
            yield "the shorter school: half an hour in the bath keeps the bite, and flavours the outside only"

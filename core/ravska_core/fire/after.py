"""After the cook: what each piece lost, how its times were against the plan, whom it fed, and what is left over."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from ravska_core.fire.at_fire import AtFire, FirePiece
from ravska_core.fire.eaten import (
    OnBoard,
    Weighed,
    Weighings,
    eaten_an_eater,
    eaten_of,
    fed_of,
    grams_of,
    weighings,
)
from ravska_core.fire.happened import Happened, happened
from ravska_core.fire.leftovers import LeftOver, left_over
from ravska_core.fire.standing import beside_plan
from ravska_core.fire.taps import Tap
from ravska_core.heat import Phase, Scorched, Stretch, read_heat
from ravska_core.meat import PORTION_G
from ravska_core.working import BadInput, Figure, Step, figure

_SCALE_SHARE = 0.01
"""How far a weighing at the fire may be off, relative (estimate)."""


@dataclass(frozen=True)
class PieceAfter:
    """A piece after its cook: how it was beside the plan, its weighings, what it lost against what was to be expected.

    `beside_plan` is how it came off beside the plan that was kept, in words; empty where none was kept. `loss` is in %
    of its raw weight, None until it is weighed; `expected` what the heat it had would take. `scorched` is what of its
    coat was too hot for too long by that heat.
    """

    letter: str
    name: str
    on_at: datetime
    off_at: datetime | None
    served_at: datetime | None
    planned_off_at: datetime | None
    beside_plan: str
    happened: Happened
    weighed: tuple[Weighed, ...]
    loss: Figure | None
    expected: Figure | None
    scorched: tuple[Scorched, ...]
    eaten_g: float | None


@dataclass(frozen=True)
class AfterReading:
    """A cook after its fire. `eaten` is what an eater ate of the meat [g], `share` that against the usual portion."""

    pieces: tuple[PieceAfter, ...]
    fed: int | None
    eaten: Figure | None
    share: float | None
    left: tuple[LeftOver, ...]
    says: tuple[str, ...]


def read_after(fire: AtFire, kept_off: Mapping[str, datetime], appetite: str) -> AfterReading:
    """Say how a cook went: `kept_off` is when each piece was to come off by the plan that was kept."""
    found = [(one, _piece(one, fire, kept_off.get(one.log.letter))) for one in fire.pieces]
    pieces = [(one, after) for one, after in found if after is not None]
    fed = fed_of(fire.taps)
    left = tuple(
        left_over(piece, tap.grams or 0.0, tap.word or "fridge", tap.at)
        for piece, _ in pieces
        for tap in _of(fire.taps, piece, "left over")
    )
    afters = tuple(after for _, after in pieces)
    eaten, says = _eaten(pieces, fed, fire.taps)
    share = None if eaten is None else eaten.value / PORTION_G[appetite]
    return AfterReading(afters, fed, eaten, share, left, says)


def _of(taps: Sequence[Tap], piece: FirePiece, what: str) -> list[Tap]:
    return [tap for tap in taps if tap.what == what and tap.letter == piece.log.letter]


def _piece(piece: FirePiece, fire: AtFire, planned: datetime | None) -> PieceAfter | None:
    log, told = piece.log, happened(piece, fire)
    if told is None or log.on_at is None:
        return None
    board = _on_board(piece)
    # of a piece that cannot be read nobody knows what it weighed raw
    scales = weighings(fire.taps, board) if board is not None else Weighings(0.0, False, (), None)
    expected, scorched = _by_its_heat(piece)
    return PieceAfter(
        log.letter, piece.name, log.on_at, log.off_at, log.served_at, planned,
        beside_plan(log.off_at, planned), told, scales.rows,
        None if scales.cooked is None else _loss(scales, scales.cooked), expected, scorched,
        eaten_of(fire.taps, board) if board is not None else None,
    )  # fmt: skip


def _on_board(piece: FirePiece) -> OnBoard | None:
    if piece.heated is None:
        return None
    return OnBoard(piece.log.letter, piece.heated.piece.mass_g, piece.heated.cut.bone_share)


def _loss(scales: Weighings, last: Weighed) -> Figure:
    steps = [
        Step("Raw", "weighed before it went on" if scales.before else "as it is in Coat", scales.raw_g, "g"),
        Step("Cooked", "weighed after", last.grams, "g"),
        Step("Yield", f"{last.grams:.0f} g / {scales.raw_g:.0f} g", last.grams / scales.raw_g * 100, "%"),
        Step("Lost", "the rest", last.lost_percent, "%"),
    ]
    kept = (100 - last.lost_percent) * _SCALE_SHARE
    return figure(steps, "as exact as the scale", low=last.lost_percent - kept, high=last.lost_percent + kept)


def _by_its_heat(piece: FirePiece) -> tuple[Figure | None, tuple[Scorched, ...]]:
    """Return what the heat that a piece had takes of it [%], and what of its coat that was too much for."""
    stretches = _joined(piece.log.past)
    if piece.heated is None or not stretches or piece.log.off_at is None:
        return None, ()
    phases = tuple(_timed(one) for one in stretches)
    try:
        read = read_heat(replace(piece.heated, phases=phases, cookers=tuple(one.cooker for one in stretches)))
    except BadInput:
        return None, ()
    return read.loss, tuple(one for phase in read.phases for one in phase.scorched)


def _joined(past: Sequence[Stretch]) -> list[Stretch]:
    """Return stretches with those joined that only a spritz or a lid parted."""
    found = list[Stretch]()
    for one in past:
        if found and (found[-1].phase, found[-1].cooker) == (one.phase, one.cooker):
            found[-1] = replace(found[-1], lasts_s=found[-1].lasts_s + one.lasts_s)
        else:
            found.append(one)
    return found


def _timed(one: Stretch) -> Phase:
    return replace(one.phase, lasts_s=max(1.0, one.lasts_s), centre_c=None, feel="", colour="", sears_s=())


def _eaten(
    pieces: Sequence[tuple[FirePiece, PieceAfter]], fed: int | None, taps: Sequence[Tap]
) -> tuple[Figure | None, tuple[str, ...]]:
    """Return what an eater ate [g], and what is still to be said for it."""
    if not pieces:
        return None, ()
    missing = []
    if fed is None:
        missing.append("how many it fed")
    unweighed = [after.letter for _, after in pieces if after.eaten_g is None]
    if unweighed:
        missing.append(f"what {' and '.join(unweighed)} {'weighs' if len(unweighed) == 1 else 'weigh'} cooked")
    if missing:
        return None, (f"Say {' and '.join(missing)}, and the next shopping goes by what is eaten here.",)
    assert fed is not None
    boards = [board for piece, _ in pieces if (board := _on_board(piece)) is not None]
    each = eaten_an_eater(taps, boards) or 0.0
    whole, back, left = each * fed, grams_of(taps, "came back"), grams_of(taps, "left over")
    steps = [
        Step("Cooked, without bone", "all pieces", whole + back + left, "g"),
        Step("Came back", "from the plates", back, "g"),
        Step("Left over", "put away or thrown away", left, "g"),
        Step("Eaten", f"by {fed}", whole, "g"),
        Step("An eater", f"{whole:.0f} g / {fed}", each, "g"),
    ]
    return figure(steps, "±5 %: bones are reckoned", spread=0.05), ()

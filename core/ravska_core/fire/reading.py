"""The fire as it stands: each piece with its temperatures and its forecast, the pit, alarms and clocks."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from ravska_core.catalogue import Cut
from ravska_core.cautions import minimum_centre_c
from ravska_core.fire.alarms import Alarm, alarms_of
from ravska_core.fire.at_fire import AtFire, Due, FirePiece, fire_band, good_centre, on_piece, pit_dips
from ravska_core.fire.clocks import FireClock, clocks_of
from ravska_core.fire.happened import KNOWN_FOR_S
from ravska_core.fire.log import embers_of
from ravska_core.fire.pit import Dip, fuel_due
from ravska_core.fire.probes import fault_of, rate_k_h, shown_now, swapped
from ravska_core.fire.stall import stall_since
from ravska_core.fire.standing import DipReading, Fan, Outlook, PieceAtFire, PitReading, beside_plan
from ravska_core.heat import VESSELS, Seen


@dataclass(frozen=True)
class FireReading:
    """A cook at its fire as it stands at `now`; `embers` says where on the grate they lie."""

    now: datetime
    embers: str
    pieces: tuple[PieceAtFire, ...]
    pit: PitReading
    due: tuple[Due, ...]
    clocks: tuple[FireClock, ...]
    alarms: tuple[Alarm, ...]
    says: tuple[str, ...]


def read_fire(fire: AtFire) -> FireReading:
    """Say how a cook stands at its fire."""
    dips = pit_dips(fire)
    pieces = tuple(_piece(one, fire) for one in fire.pieces)
    pit = _pit(fire, dips)
    clocks = tuple(clock for one in fire.pieces for clock in clocks_of(one, fire))
    return FireReading(
        fire.now, _embers(fire), pieces, pit, fire.due, clocks, alarms_of(fire, pieces, pit, clocks),
        tuple(_says(fire)),
    )  # fmt: skip


def _embers(fire: AtFire) -> str:
    """Return where the embers lie: as was said, else where they usually do for what is on."""
    phases = [phase for piece in fire.pieces if piece.heated is not None for phase in piece.heated.phases]
    return embers_of(fire.taps, fire.now, phases)


def _piece(piece: FirePiece, fire: AtFire) -> PieceAtFire:
    log, now_s = piece.log, 0.0
    at = log.on_at or fire.now
    if log.on_at is not None:
        now_s = (fire.now - log.on_at).total_seconds()
    on_s = (at - fire.began_at).total_seconds()
    pit = Seen(*on_piece(fire.pit, on_s, now_s))
    fault = fault_of(piece.centre, pit, now_s, fire.dead_s) if not piece.typed else None
    if fault is not None and fault.kind == "dead" and log.state != "on":
        fault = None  # what is off needs no probe
    good = good_centre(piece, fire)
    centre = (
        piece.centre.celsius[-1]
        if piece.typed and piece.centre.celsius
        else shown_now(piece.centre, now_s, fire.dead_s)
    )
    stall = stall_since(good, now_s, shown_now(pit, now_s, fire.dead_s), log.wrapped) if log.state == "on" else None
    phase, last = (log.ahead[0][0], log.ahead[-1][0]) if log.ahead else (None, None)
    return PieceAtFire(
        log.letter, piece.name, log.state, log.on_at, log.off_at, centre,
        at + timedelta(seconds=piece.centre.times_s[-1]) if piece.centre.times_s else None, piece.typed,
        shown_now(piece.surface, now_s, fire.dead_s), rate_k_h(good, now_s) if fault is None else None,
        None if stall is None else at + timedelta(seconds=stall), fault,
        log.place.x, log.place.y, log.place.near, log.place.side, VESSELS.get(log.vessel, ""), log.wrapped, log.turned,
        phase.where if phase else "", last.ends if last else "", last.centre_c if last else None,
        last.feel if last else "", _outlook(piece, fire), fire.planned_off.get(log.letter),
    )  # fmt: skip


def _outlook(piece: FirePiece, fire: AtFire) -> Outlook | None:
    found = fire.told.get(piece.log.letter)
    on_at = piece.log.on_at
    if found is None or on_at is None or piece.log.state != "on":
        return None
    at, told = found
    forecast = told.forecast

    def when(seconds: float | None) -> datetime | None:
        return None if seconds is None else on_at + timedelta(seconds=round(seconds))

    known = list(forecast.times_s)
    fan = Fan(
        tuple(on_at + timedelta(seconds=round(one)) for one in known), forecast.low, forecast.middle, forecast.high
    )
    endpoint = piece.heated.piece.endpoint_c if piece.heated is not None else None
    return Outlook(
        at, tuple(when(one) for one in forecast.done), when(forecast.done_s), when(forecast.low_s),
        when(forecast.high_s), forecast.by, fan, (fire.now - at).total_seconds() > fire.old_s, told.carry_k,
        None if endpoint is None else endpoint - max(0.0, told.carry_k),
        beside_plan(when(forecast.done_s), fire.planned_off.get(piece.log.letter)), told.otherwise,
    )  # fmt: skip


def _pit(fire: AtFire, dips: Sequence[Dip]) -> PitReading:
    band, now_s = fire_band(fire), (fire.now - fire.began_at).total_seconds()
    costs = [told.costs_s for _, told in fire.told.values() if len(told.costs_s) == len(dips)]

    def cost(at: int) -> float | None:
        known = [one[at] for one in costs if one[at] is not None]
        return max((one for one in known if one is not None), default=None)

    def when(seconds: float) -> datetime:
        return fire.began_at + timedelta(seconds=round(seconds))

    read = tuple(
        DipReading(when(dip.from_s), when(dip.to_s), dip.lowest_c, dip.band_c, dip.goes_on, cost(at))
        for at, dip in enumerate(dips)
    )
    fed = [(tap.at - fire.began_at).total_seconds() for tap in fire.taps if tap.what == "fuel" and tap.at <= fire.now]
    cooker = next((one.log.ahead[0][1] for one in fire.pieces if one.log.state == "on" and one.log.ahead), None)
    due = fuel_due(cooker, fed, 0.0) if cooker is not None else None
    low, high, aimed = band or (None, None, None)
    by_hand = fire.pit_typed and bool(fire.pit.times_s)
    return PitReading(
        fire.pit.celsius[-1] if by_hand else shown_now(fire.pit, now_s, fire.dead_s),
        when(fire.pit.times_s[-1]) if by_hand else None, low, high, aimed, read,
        sum(dip.to_s - dip.from_s for dip in dips), when(due.at_s) if due else None, due.says if due else "",
    )  # fmt: skip


def _says(fire: AtFire) -> list[str]:
    """Say what is worth knowing: two probes that changed places, meat that was taken off below the usual minimum."""
    said = []
    on = {one.log.letter: one for one in fire.pieces if one.log.state == "on" and one.log.on_at and not one.typed}
    if len(on) > 1:
        now_s = {letter: (fire.now - (one.log.on_at or fire.now)).total_seconds() for letter, one in on.items()}
        latest = max(now_s.values())
        moved = {
            letter: Seen(tuple(t + latest - now_s[letter] for t in one.centre.times_s), one.centre.celsius)
            for letter, one in on.items()
        }
        found = swapped(moved, latest)
        if found is not None:
            said.append(f"The probes of {found[0]} and {found[1]} seem to have changed places: swap them back.")
    for piece in fire.pieces:
        if piece.log.state in ("off", "served") and piece.heated is not None:
            said += _below_minimum(piece, piece.heated.cut, fire)
    return said


def _below_minimum(piece: FirePiece, cut: Cut, fire: AtFire) -> list[str]:
    """Say of what is off that its centre was below the usual minimum as far as it is known."""
    good, log = good_centre(piece, fire), piece.log
    least_c, least_says = minimum_centre_c(cut.animal, cut.minced)
    if not good.celsius or log.on_at is None or log.off_at is None or max(good.celsius) >= least_c - _WITHIN_K:
        return []
    lost = (log.off_at - log.on_at).total_seconds() - good.times_s[-1] > KNOWN_FOR_S
    read = "was read at before its probe was lost" if lost else "was read at"
    return [
        f"{log.letter}: the highest its centre {read} is {max(good.celsius):.1f} °C, below the usual minimum for "
        f"{cut.animal}, {least_says}. Local food-safety rules come first."
    ]


_WITHIN_K = 0.34
"""A probe that shows so little less than the minimum shows it [K] (estimate)."""

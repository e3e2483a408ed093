"""What to see to at the fire now, each under a key that it is silenced by."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from ravska_core.fire.at_fire import AtFire, good_centre
from ravska_core.fire.clocks import FireClock, first_above
from ravska_core.fire.pit import out_since
from ravska_core.fire.probes import silent_since
from ravska_core.fire.standing import PieceAtFire, PitReading
from ravska_core.units import say_duration

_COMES_UP_S = 1200.0
"""A pit that was out of its band before anything went on has so long to come into it [s]."""

_ALMOST = 0.9

_LATE = timedelta(minutes=5)

_FIRST = ("clock", "target", "probe", "pit", "step", "fuel")
"""What is told first of what rings at once."""


@dataclass(frozen=True)
class Alarm:
    """Something to see to: a key that it is silenced by, what, since when, and whether it was silenced since."""

    key: str
    kind: str
    letter: str
    says: str
    since: datetime
    silenced: bool


def alarms_of(
    fire: AtFire, pieces: Sequence[PieceAtFire], pit: PitReading, clocks: Sequence[FireClock]
) -> tuple[Alarm, ...]:
    quiet = {tap.note: tap.at for tap in fire.taps if tap.what == "silence"}
    found = list[Alarm]()

    def ring(kind: str, letter: str, says: str, since: datetime, of: str = "") -> None:
        key = ".".join(filter(None, (kind, letter, of)))
        # what is `of` one thing rings once; readings that come late move by a little since when the others ring
        silenced = key in quiet and (bool(of) or quiet[key] >= since - _LATE)
        found.append(Alarm(key, kind, letter, says, since, silenced))

    for one, piece in zip(pieces, fire.pieces, strict=True):
        if one.state != "on" or one.on_at is None:
            continue
        target = one.target_c
        reached = None if target is None or one.fault is not None else first_above(good_centre(piece, fire), target)
        if reached is not None and one.centre_c is not None and one.centre_c >= (target or 0) - 1:
            ring(
                "target", one.letter, f"{one.letter} has its {target:.0f} °C.", _at(one.on_at, reached), f"{target:.0f}"
            )
        if one.fault is not None:
            ring("probe", one.letter, f"{one.letter}'s probe: {one.fault.says}", _at(one.on_at, one.fault.since_s))
    now_s = (fire.now - fire.began_at).total_seconds()
    if pit.low_c is not None and pit.high_c is not None and any(one.state == "on" for one in pieces):
        out = out_since(fire.pit, pit.low_c, pit.high_c, now_s)
        on = [one.on_at for one in pieces if one.on_at is not None]
        if (
            out is not None
            and pit.celsius is not None
            and (_at(fire.began_at, out[0]) >= min(on) or now_s - out[0] > _COMES_UP_S)
        ):
            way = "above" if out[1] else "below"
            ring("pit", "", f"The pit is {way} its band.", _at(fire.began_at, out[0]))
        silent = None if fire.pit_typed else silent_since(fire.pit, now_s, fire.dead_s)
        if silent is not None:
            ring("probe", "", "The pit's probe is silent.", _at(fire.began_at, silent))
    late = [due for due in fire.due if due.at <= fire.now]
    if late:
        # the next one is rung for when this one is done
        first = min(late, key=lambda due: due.at)
        says = f"{first.whose}: {first.says}" if first.whose else first.says
        ring("step", first.letter, says, first.at, first.key)
    for clock in clocks:
        if clock.runs and clock.took_s > _ALMOST * clock.most_s:
            gone = "has run out" if clock.over else f"runs out in {say_duration(clock.most_s - clock.took_s)}"
            ring("clock", clock.letter, f"{clock.letter}: {clock.says}: this clock {gone}.",
                 clock.since + timedelta(seconds=_ALMOST * clock.most_s))  # fmt: skip
    if pit.fuel_at is not None and pit.fuel_at <= fire.now and any(one.state == "on" for one in pieces):
        ring("fuel", "", "More fuel is due.", pit.fuel_at)
    return tuple(sorted(found, key=lambda alarm: _FIRST.index(alarm.kind)))


def _at(begin: datetime, seconds: float) -> datetime:
    return begin + timedelta(seconds=round(seconds))

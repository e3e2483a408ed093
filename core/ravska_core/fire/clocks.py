"""The clocks of food safety at the fire, from the log's own times. Guidance: local food-safety rules go first."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from ravska_core.cautions import CENTRE_STOP_S, SAFE_C, SURFACE_S
from ravska_core.fire.at_fire import AtFire, FirePiece, good_centre
from ravska_core.heat import Seen

_COOLING_S = 2 * 3600.0
"""Food that is off the heat is eaten, kept hot or in the cold within so long [s] (usual US guidance, from memory)."""

_FORGOTTEN_S = 12 * 3600.0
"""Nobody is told of what has been off for so long; nothing of it is eaten any more [s] (estimate)."""

_SURFACE_LEADS_K = 10.0
"""How much hotter a surface on the fire is than its centre at the least (estimate)."""


@dataclass(frozen=True)
class FireClock:
    """A clock of food safety that runs: of which piece, in words, since when, how long it may be [s], over or not."""

    kind: str
    letter: str
    says: str
    since: datetime
    most_s: float
    took_s: float
    runs: bool
    over: bool


def clocks_of(piece: FirePiece, fire: AtFire) -> list[FireClock]:
    """Return a piece's clocks: on until its surface is hot, a centre not intact below 60 °C, cooling once it is off."""
    log, found = piece.log, list[FireClock]()
    if log.on_at is None or piece.heated is None:
        return found
    until = log.off_at or fire.now
    on_at = log.on_at
    centre = good_centre(piece, fire)
    hot = first_above(piece.surface, SAFE_C)
    if hot is None:
        # what its centre has passed its surface has long passed
        hot = first_above(centre, SAFE_C - _SURFACE_LEADS_K)
    found.append(_clock("fire", log.letter, f"On the fire until its surface is at {SAFE_C:.0f} °C", on_at,
                        SURFACE_S, hot, (until - on_at).total_seconds(), log.state == "on"))  # fmt: skip
    if piece.heated.piece.pierced or piece.heated.cut.minced:
        inside = first_above(centre, SAFE_C)
        found.append(_clock("centre", log.letter, "Not intact: its centre below 60 °C (caution from 4 h)", on_at,
                            CENTRE_STOP_S, inside, (until - on_at).total_seconds(), log.state == "on"))  # fmt: skip
    if log.off_at is not None and log.state != "on":
        put_away = [tap.at for tap in fire.taps if tap.what == "left over" and tap.letter == log.letter]
        eaten = [tap.at for tap in fire.taps if tap.what == "fed"]
        forgotten = log.off_at + timedelta(seconds=_FORGOTTEN_S)
        away = next(iter(put_away + eaten), forgotten if fire.now > forgotten else None)
        took = ((away or fire.now) - log.off_at).total_seconds()
        found.append(FireClock("cooling", log.letter, "Off the heat: eaten, hot or in the cold within 2 h", log.off_at,
                               _COOLING_S, took, away is None, took > _COOLING_S))  # fmt: skip
    return found


def _clock(
    kind: str, letter: str, says: str, since: datetime, most_s: float, ended_s: float | None, so_far_s: float, on: bool
) -> FireClock:  # fmt: skip
    took = so_far_s if ended_s is None else ended_s
    return FireClock(kind, letter, says, since, most_s, took, ended_s is None and on, took > most_s)


def first_above(seen: Seen, celsius: float) -> float | None:
    return next((t for t, c in zip(seen.times_s, seen.celsius, strict=True) if c >= celsius), None)

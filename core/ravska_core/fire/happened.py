"""What the log tells of a piece once it is off: what happened to it, for comparing and for the next time."""

from collections.abc import Sequence
from dataclasses import dataclass

from ravska_core.fire.at_fire import AtFire, FirePiece, good_centre, on_piece
from ravska_core.fire.taps import Tap
from ravska_core.heat import Seen, by_minute

KNOWN_FOR_S = 900.0
"""A centre is known for so long after it was read last [s] (estimate)."""


@dataclass(frozen=True)
class Happened:
    """What happened to a piece on the fire: times [s], temperatures [°C]; None or empty where nobody noted it.

    `on_s` is when it went on after the fire began; `from_embers` how far from them it lay, a share of the grate's
    width; `pit_c` the mean of the pit while it was on, `end_c` its centre as it came off and `highest_c` the most it
    came to; `plate_s` from the fire to the plates or the board.
    """

    letter: str
    on_s: float
    fire_s: float | None
    rest_s: float | None
    plate_s: float | None
    from_embers: float
    near: bool
    wrapped_s: float
    turned: int
    basted: int
    pit_c: float | None
    end_c: float | None
    highest_c: float | None
    feel: str
    colour: str
    served_at_s: float | None


def happened(piece: FirePiece, fire: AtFire) -> Happened | None:
    """Return what happened to a piece; None where it never went on."""
    log = piece.log
    if log.on_at is None:
        return None
    on_s = (log.on_at - fire.began_at).total_seconds()
    fire_s = None if log.off_at is None else (log.off_at - log.on_at).total_seconds()
    until = (fire.now - log.on_at).total_seconds() if fire_s is None else fire_s
    mine = [tap for tap in fire.taps if tap.letter == log.letter and tap.at <= fire.now]
    cut_at = _first(mine, "slice")
    plate_at = _first(mine, "plate") or cut_at
    pit_c = _mean(Seen(*on_piece(fire.pit, on_s, until)))
    times, centre = by_minute(good_centre(piece, fire))
    # what was read long before it came off says nothing of how it came off
    at_end = centre[(times <= until + 60) & (times >= until - KNOWN_FOR_S)]
    return Happened(
        log.letter, on_s, fire_s,
        None if log.off_at is None or cut_at is None else (cut_at.at - log.off_at).total_seconds(),
        None if log.off_at is None or plate_at is None else (plate_at.at - log.off_at).total_seconds(),
        log.place.from_embers, log.place.near,
        sum(one.lasts_s for one in log.past if one.phase.vessel == "foil"), log.turned,
        sum(tap.what in ("spritz", "baste") for tap in mine), pit_c,
        float(at_end[-1]) if len(at_end) and fire_s is not None else None,
        float(centre.max()) if len(at_end) else None,
        _last_word(mine, "feel"), _last_word(mine, "colour"),
        None if plate_at is None else (plate_at.at - fire.began_at).total_seconds(),
    )  # fmt: skip


def _first(taps: Sequence[Tap], what: str) -> Tap | None:
    return next((tap for tap in taps if tap.what == what), None)


def _last_word(taps: Sequence[Tap], what: str) -> str:
    return next((tap.word for tap in reversed(taps) if tap.what == what), "")


def _mean(seen: Seen) -> float | None:
    _, celsius = by_minute(seen)
    return float(celsius.mean()) if len(celsius) else None

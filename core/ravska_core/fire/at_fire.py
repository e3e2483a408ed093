"""A cook at its fire, as it is read from: pieces with their logs and readings, the pit, what the plan has next."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime

from ravska_core.fire.log import PieceLog
from ravska_core.fire.pit import Dip, band_of, dips_of
from ravska_core.fire.probes import DEAD_S, without_faults
from ravska_core.fire.taps import Tap
from ravska_core.fire.told import Told
from ravska_core.heat import NOTHING, SURROUNDS, Felt, Heated, Live, Seen


@dataclass(frozen=True)
class FirePiece:
    """A piece at the fire: what it is, what the log says of it, and its readings, in s from when it went on."""

    name: str
    heated: Heated | None
    log: PieceLog
    centre: Seen = NOTHING
    surface: Seen = NOTHING
    typed: bool = False


@dataclass(frozen=True)
class Due:
    """A step of the plan that is due or soon will be: of which lane, by which key, in words, when, and its tap.

    `whose` is what its lane is called before it: a piece's letter, a side's name, nothing. `phase` is the one that
    its tap goes into, where it does.
    """

    letter: str
    key: str
    says: str
    at: datetime
    what: str = ""
    whose: str = ""
    phase: int | None = None


@dataclass(frozen=True)
class AtFire:
    """A cook at its fire: pieces, all taps that stand, the pit in s from `began_at`, steps ahead, and what was told.

    What was told longer ago than `old_s` is old, and a probe dead that has been silent for `dead_s` [s]. `pit_typed`
    says that the pit is read by hand.
    """

    now: datetime
    began_at: datetime
    pieces: tuple[FirePiece, ...]
    taps: tuple[Tap, ...]
    pit: Seen
    due: tuple[Due, ...] = ()
    planned_off: Mapping[str, datetime] = field(default_factory=dict)
    told: Mapping[str, tuple[datetime, Told]] = field(default_factory=dict)
    old_s: float = 120.0
    dead_s: float = DEAD_S
    pit_typed: bool = False


def live_of(piece: FirePiece, fire: AtFire) -> Live | None:
    """Return a piece as its forecast takes it; None where it is not on the fire or has nothing ahead."""
    log = piece.log
    if piece.heated is None or log.state != "on" or log.on_at is None or not log.past or not log.ahead:
        return None
    on_s = (log.on_at - fire.began_at).total_seconds()
    now_s = sum(one.lasts_s for one in log.past)
    pit = Seen(*on_piece(fire.pit, on_s, now_s))
    felt = tuple(
        Felt((tap.at - log.on_at).total_seconds(), tap.word)
        for tap in fire.taps
        if tap.what == "feel" and tap.letter == log.letter and log.on_at < tap.at <= fire.now
    )
    by_fire = SURROUNDS[log.ahead[0][0].surround].hot and log.ahead[0][0].surround in ("indirect", "oven")
    return Live(
        piece.heated, log.past, log.ahead, without_faults(piece.centre, pit), pit if by_fire else Seen(), felt
    )  # fmt: skip


def good_centre(piece: FirePiece, fire: AtFire) -> Seen:
    """Return readings of a piece's centre to go by: what hands read, and of a probe nothing from out of the meat."""
    if piece.typed or piece.log.on_at is None:
        return piece.centre
    on_s = (piece.log.on_at - fire.began_at).total_seconds()
    pit = Seen(*on_piece(fire.pit, on_s, (fire.now - piece.log.on_at).total_seconds()))
    return without_faults(piece.centre, pit)


def on_piece(seen: Seen, on_s: float, now_s: float) -> tuple[tuple[float, ...], tuple[float, ...]]:
    rows = [(time - on_s, value) for time, value in zip(seen.times_s, seen.celsius, strict=True)]
    kept = [row for row in rows if -60 <= row[0] <= now_s + 1]
    return tuple(max(0.0, row[0]) for row in kept), tuple(row[1] for row in kept)


def pit_dips(fire: AtFire) -> tuple[Dip, ...]:
    """Return the dips of the pit below the band of what is on it."""
    band = fire_band(fire)
    now_s = (fire.now - fire.began_at).total_seconds()
    on = [piece.log.on_at for piece in fire.pieces if piece.log.on_at is not None]
    if band is None or not on:
        return ()
    return dips_of(fire.pit, band[0], (min(on) - fire.began_at).total_seconds(), now_s)


def fire_band(fire: AtFire) -> tuple[float, float, float] | None:
    for piece in fire.pieces:
        if piece.log.state == "on" and piece.log.ahead:
            phase = piece.log.ahead[0][0]
            if phase.surround in ("indirect", "oven"):
                return (*band_of(phase), phase.aimed_c)
    return None

"""What the log says of each piece: where it lies, how it is, and the stretches of heat it has been through."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime

from ravska_core.fire.embers import USUAL, from_embers, turned_over
from ravska_core.fire.taps import Tap
from ravska_core.heat import Cooker, Phase, Stretch, last_hot

_LEAST_S = 1.0
_AGAIN_S = 60.0
"""What is left at least of a phase by time that has gone on for longer than planned [s]."""


@dataclass(frozen=True)
class Place:
    """Where a piece lies: shares of the grate from its left and its back, whether near the fire, which side is where.

    `from_embers` is how far it is from them, a share of the grate's width; `side` as ``skin down``.
    """

    x: float
    y: float
    near: bool = False
    side: str = ""
    from_embers: float = 0.0


@dataclass(frozen=True)
class PieceLog:
    """What the log says of a piece.

    `state` is ``waiting``, ``on``, ``off`` (resting) or ``served``; `on_at` and `off_at` are when it went on and came
    off for good. `past` are its stretches from on to now or off, `ahead` what is left of its phases.
    """

    letter: str
    state: str
    on_at: datetime | None
    off_at: datetime | None
    served_at: datetime | None
    place: Place
    vessel: str
    wrapped: bool
    turned: int
    phase: int
    past: tuple[Stretch, ...] = field(default=())
    ahead: tuple[tuple[Phase, Cooker], ...] = field(default=())


class _Walk:
    """A piece's taps walked through in order."""

    def __init__(self, phases: Sequence[Phase], cookers: Sequence[Cooker]) -> None:
        self.phases, self.cookers = list(phases), list(cookers)
        self.last = last_hot(self.phases)
        self.at_phase, self.vessel = 0, ""
        self.since: datetime | None = None
        self.entered: datetime | None = None
        self.spritzed = False
        self.past: list[Stretch] = []
        self.aimed_c: float | None = None

    @property
    def now(self) -> Phase:
        planned = self.phases[self.at_phase]
        found = replace(planned, vessel=self.vessel) if self.vessel else planned
        return replace(found, aimed_c=self.aimed_c, low_c=None, high_c=None) if self.aimed_c is not None else found

    def close(self, at: datetime, spritzed: bool = False) -> None:
        """End the stretch that goes on, where one does."""
        if self.since is not None:
            lasts = (at - self.since).total_seconds()
            if lasts >= _LEAST_S:
                self.past.append(Stretch(self.now, self.cookers[self.at_phase], lasts, self.spritzed))
                self.since, self.spritzed = at, spritzed
            else:
                self.spritzed = self.spritzed or spritzed

    def enter(self, phase: int, at: datetime) -> None:
        """Go into a phase."""
        self.close(at)
        if phase != self.at_phase:
            self.at_phase, self.entered, self.aimed_c = phase, at, None
        self.vessel = ""

    def lies(self, vessel: str, at: datetime) -> None:
        """Go into the phase ahead that has it so, or have this one go on so."""
        self.close(at)
        ahead = next(
            (
                n
                for n in range(self.at_phase + 1, self.last + 1)
                if (self.phases[n].vessel == "foil") == (vessel == "foil")
            ),
            None,
        )
        if ahead is not None and (self.phases[self.at_phase].vessel == "foil") != (vessel == "foil"):
            self.enter(ahead, at)
        else:
            self.vessel = vessel

    def ahead(self, now: datetime) -> tuple[tuple[Phase, Cooker], ...]:
        """Return what is left: of the phase that goes on the time that is, then the others that cook."""
        first = self.now
        if first.lasts_s is not None and self.entered is not None:
            gone = (now - self.entered).total_seconds()
            first = replace(first, lasts_s=max(_AGAIN_S, first.lasts_s - gone))
        if first.sears_s:
            first = replace(first, sears_s=(), lasts_s=max(_AGAIN_S, sum(first.sears_s)))
        later = range(self.at_phase + 1, self.last + 1)
        return ((first, self.cookers[self.at_phase]), *((self.phases[n], self.cookers[n]) for n in later))


def piece_log(
    letter: str, phases: Sequence[Phase], cookers: Sequence[Cooker], taps: Sequence[Tap], now: datetime, place: Place
) -> PieceLog:
    """Read a piece's log: `taps` are all that stand, in order, and `place` where it lies unless one says otherwise."""
    walk, state, turned = _Walk(phases, cookers), "waiting", 0
    on_at: datetime | None = None
    off_at: datetime | None = None
    served_at: datetime | None = None
    said_near: bool | None = None
    for tap in taps:
        if tap.what == "set" and tap.celsius is not None and tap.at <= now and walk.since is not None:
            walk.close(tap.at)
            walk.aimed_c = tap.celsius
        if tap.what == "ended" and state == "on" and tap.at <= now:
            walk.close(tap.at)
            walk.since, off_at, state = None, tap.at, "off"
        if tap.letter != letter or tap.at > now:
            continue
        if tap.x is not None and tap.y is not None:
            place, said_near = replace(place, x=tap.x, y=tap.y), None
        said_near = said_near if tap.near is None else tap.near
        if tap.side:
            place = replace(place, side=f"{tap.side} down")
        elif tap.what == "turn":
            place = replace(place, side=turned_over(place.side))
        if tap.what == "on" and state in ("waiting", "off"):
            if state == "off" and off_at is not None:
                rested = Phase("rest", 21.0, "board", lasts_s=(tap.at - off_at).total_seconds())
                walk.past.append(Stretch(rested, walk.cookers[walk.at_phase], max(_LEAST_S, rested.lasts_s or 0)))
            on_at, state, off_at = on_at or tap.at, "on", None
            walk.since, walk.entered = tap.at, walk.entered or tap.at
        elif state == "on":
            turned += tap.what == "turn"
            if tap.phase is not None and tap.phase <= walk.last:
                walk.enter(tap.phase, tap.at)
            elif tap.what in ("wrap", "unwrap"):
                walk.lies("foil" if tap.what == "wrap" else "grate", tap.at)
            elif tap.what in ("spritz", "baste", "sauce"):
                walk.close(tap.at, spritzed=tap.what != "sauce")
            if tap.what in ("off", "rest", "slice", "plate"):
                walk.close(tap.at)
                walk.since, off_at, state = None, tap.at, "off"
        if tap.what in ("slice", "plate") and on_at is not None:
            state, served_at = "served", served_at or tap.at
    walk.close(now)
    wrapped = state == "on" and walk.now.vessel == "foil"
    ahead = walk.ahead(now) if state == "on" else ()
    far = from_embers(place.x, place.y, embers_of(taps, now, phases))
    place = replace(place, from_embers=far, near=far == 0 if said_near is None else said_near)
    return PieceLog(
        letter,
        state,
        on_at,
        off_at,
        served_at,
        place,
        walk.now.vessel,
        wrapped,
        turned,
        walk.at_phase,
        tuple(walk.past),
        ahead,
    )


def embers_of(taps: Sequence[Tap], now: datetime, phases: Sequence[Phase]) -> str:
    """Return where the embers lie, as it was said last; else where they usually do, and for an oven nowhere."""
    usual = USUAL if any(phase.surround in _OVER_EMBERS for phase in phases) else "none"
    return next((tap.word for tap in reversed(taps) if tap.what == "embers" and tap.at <= now), usual)


_OVER_EMBERS = ("indirect", "direct flame")


def usual_place(at: int, count: int) -> Place:
    """Return where the piece of a number lies unless somebody said otherwise: beside the fire, one before the other."""
    columns = 1 if count < 4 else 2
    rows = -(-count // columns)
    left = 0.3 if columns == 1 else 0.22 + 0.24 * (at % columns)
    return Place(left, (at // columns + 1) / (rows + 1))

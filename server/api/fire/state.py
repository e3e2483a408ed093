"""A cook at its fire from the book: what it is, its log, its readings; kept in mind between two looks of a page."""

import threading
from array import array
from bisect import bisect_right
from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from time import monotonic
from uuid import UUID

import numpy as np
from book.fires import began_at, clock_of, ended_at, stands, taps_of, uses_of
from book.models import Cook, CookClock, Event, Piece, ProbeUse
from book.models.values import phases_from
from django.db.models import Count, Max, Model
from django.http import Http404
from numpy.typing import NDArray
from ravska_core.day import BUY, DayStep, read_day
from ravska_core.fire import AtFire, Due, FirePiece, Tap, live_of, piece_log, pit_dips, usual_place
from ravska_core.heat import NOTHING, Heated, Phase, Seen, cooker_for, heated, kitchen, last_hot, starts_for
from ravska_core.meat import find_cut
from ravska_core.working import BadInput

from api.cooks.planned import planned
from api.cooks.store import one_cook
from api.fire.forecaster import forecaster
from api.fire.series import Span, numbers_of, seen_by_minute, spans_of

Array = NDArray[np.float64]
Shown = tuple[Array, Array]
"""What a probe showed: times [s since 1970] and temperatures [°C]."""

_REMEMBERED, _PLANNED_FOR_S, _MOST_DUE = 6, 20.0, 6
_OLD_AFTER_S, _DEAD_AFTER_S = 120.0, 120.0

_LAGS_S = 10.0
"""How far a simulated thermometer may lag behind its cook's clock, by everybody's time [s]."""


@dataclass
class Made:
    """A piece as its fire takes it: its heat, phases and cookers, and what is said where nobody planned any."""

    piece: Piece
    heated: Heated | None
    phases: tuple[Phase, ...]
    cookers: tuple[object, ...]
    says: str


@dataclass
class Series:
    """Readings of a channel in the order of their times: s since 1970, and °C; as small as they can be kept."""

    times: "array[float]" = field(default_factory=lambda: array("d"))
    celsius: "array[float]" = field(default_factory=lambda: array("d"))

    def add(self, at: float, celsius: float) -> None:
        place = len(self.times) if not self.times or at >= self.times[-1] else bisect_right(self.times, at)
        self.times.insert(place, at)
        self.celsius.insert(place, celsius)


@dataclass
class Kept:
    """What is kept in mind of a cook at its fire: its pieces and log as of a stamp, and all readings so far."""

    stamp: tuple[object, ...] = ()
    cook: Cook | None = None
    made: list[Made] = field(default_factory=list)
    events: list[Event] = field(default_factory=list)
    taps: tuple[Tap, ...] = ()
    uses: list[ProbeUse] = field(default_factory=list)
    last: int = 0
    series: dict[tuple[UUID, str], Series] = field(default_factory=dict)
    due: tuple[Due, ...] = ()
    planned_off: dict[str, datetime] = field(default_factory=dict)
    planned: float = -1e9
    planned_for: tuple[object, ...] = ()


@dataclass(frozen=True)
class Loaded:
    """A cook at its fire as it stands at a moment of its own clock."""

    cook: Cook
    fire: AtFire | None
    made: list[Made]
    events: list[Event]
    spans: list[Span]
    now: datetime
    speed: float
    began_at: datetime | None
    ended_at: datetime | None
    last: int
    shown: Mapping[Span, Shown]


_lock = threading.Lock()
_kept: OrderedDict[UUID, Kept] = OrderedDict()


def forget() -> None:
    """Let go all that is kept in mind."""
    with _lock:
        _kept.clear()


def load_fire(cook_id: UUID, wall: datetime) -> Loaded:
    """Return a cook at its fire."""
    with _lock:
        kept = _kept.setdefault(cook_id, Kept())
        _kept.move_to_end(cook_id)
        while len(_kept) > _REMEMBERED:
            _kept.popitem(last=False)
        return _load(kept, cook_id, wall)


def _load(kept: Kept, cook_id: UUID, wall: datetime) -> Loaded:
    version = Cook.objects.filter(pk=cook_id, deleted_at__isnull=True).values_list("version", flat=True).first()
    if version is None:
        raise Http404
    stamp = (
        version, *(_so_far(model, cook_id, by) for model, by in _ADDED_TO), kitchen(),
    )  # fmt: skip
    if stamp != kept.stamp:
        _take(kept, cook_id)
        kept.stamp = stamp
    assert kept.cook is not None
    cook = kept.cook
    now, speed = clock_of(cook, wall)
    begins, ends = began_at(kept.taps), ended_at(kept.taps)
    if begins is None:
        return Loaded(cook, None, kept.made, kept.events, [], now, speed, None, None, 0, {})
    until = now if ends is None else min(now, ends + timedelta(hours=12))
    spans = spans_of(kept.uses, begins - timedelta(hours=1), until)
    _read_on(kept, spans)
    shown = {span: series_of(kept.series, span) for span in spans}
    fire = _at_fire(kept, shown, begins, now, speed)
    return Loaded(cook, fire, kept.made, kept.events, spans, now, speed, begins, ends, kept.last, shown)


_ADDED_TO = ((Event, "noted_at"), (ProbeUse, "noted_at"), (CookClock, "wall_at"))


def _so_far(model: type[Model], cook_id: UUID, by: str) -> tuple[object, ...]:
    """Return how many rows a cook has of what is only added to, and when the last was: a write undone is told too."""
    return tuple(model._default_manager.filter(cook=cook_id).aggregate(many=Count("pk"), last=Max(by)).values())


def _take(kept: Kept, cook_id: UUID) -> None:
    cook = one_cook(cook_id)
    kept.cook, kept.made = cook, [_made(piece, cook) for piece in cook.pieces.all()]
    events = list(Event.objects.filter(cook=cook_id).select_related("photo").defer("photo__jpeg"))
    kept.events, kept.taps = stands(events), taps_of(events, cook.pieces.all())
    uses = uses_of(cook)
    if [use.pk for use in uses] != [use.pk for use in kept.uses]:
        kept.uses, kept.series, kept.last = uses, {}, 0


def _made(piece: Piece, cook: Cook) -> Made:
    """Return a piece with its phases; where none are planned, with those that its cut usually begins from."""
    says = ""
    try:
        seasoned = piece.seasoned(cook.appetite)
        if piece.phases:
            phases, cookers = phases_from(piece.phases)
        else:
            start = starts_for(find_cut(piece.cut))[0]
            phases, cookers = start.phases, tuple(cooker_for(phase.surround) for phase in start.phases)
            says = f"Reckoned as “{start.name}”, as nothing is planned for it; say in Coat how it is cooked."
        return Made(piece, heated(seasoned, phases, cookers), tuple(phases), tuple(cookers), says)
    except BadInput as refusal:
        return Made(piece, None, (), (), refusal.sentence)


def _read_on(kept: Kept, spans: list[Span]) -> None:
    """Take in the readings that came since."""
    last = kept.last
    for span in spans:
        series = kept.series.setdefault((span.use.device_id, span.use.channel), Series())
        for number, at, celsius in numbers_of(span, last):
            kept.last = max(kept.last, number)
            series.add(at, celsius)


def series_of(kept: Mapping[tuple[UUID, str], Series], span: Span) -> Shown:
    """Return readings of a span: times [s since 1970] and temperatures [°C]."""
    of = kept.get((span.use.device_id, span.use.channel))
    if of is None:
        return np.empty(0), np.empty(0)
    # copied, as what is looked at from outside cannot grow
    times, celsius = np.array(of.times), np.array(of.celsius)
    low = np.searchsorted(times, span.from_at.timestamp(), side="left")
    high = np.searchsorted(times, span.to_at.timestamp(), side="right")
    return times[low:high], celsius[low:high]


def _seen(parts: Sequence[Shown], typed: Sequence[Tap], since: datetime) -> Seen:
    """Return what probes showed and hands typed together, by minute, in s since a moment."""
    times = np.concatenate([*(part[0] for part in parts), [tap.at.timestamp() for tap in typed]])
    celsius = np.concatenate([*(part[1] for part in parts), [tap.celsius or 0.0 for tap in typed]])
    if not len(times):
        return NOTHING
    order = np.argsort(times, kind="stable")
    at = times[order] - since.timestamp()
    good = at >= -60
    return seen_by_minute(np.maximum(at[good], 0.0), celsius[order][good])


def _at_fire(kept: Kept, shown: Mapping[Span, Shown], begins: datetime, now: datetime, speed: float) -> AtFire:
    assert kept.cook is not None
    pieces, count = [], len(kept.made)
    for at, one in enumerate(kept.made):
        piece, letter = one.piece, one.piece.letter
        phases = one.phases if one.heated is not None else (Phase("indirect", 110.0, "grate", lasts_s=3600.0),)
        cookers = one.cookers if one.heated is not None else (cooker_for("indirect"),)
        log = piece_log(letter, phases, cookers, kept.taps, now, usual_place(at, count))  # type: ignore[arg-type]  # cookers
        if log.on_at is None:
            pieces.append(FirePiece(piece.name, one.heated, log))
            continue

        def of(role: str, letter: str = letter, key: UUID = piece.pk, on_at: datetime = log.on_at) -> tuple[Seen, bool]:
            mine = [one for span, one in shown.items() if span.use.role == role and span.use.piece_id == key]
            typed = [
                tap for tap in kept.taps
                if (tap.what, tap.word, tap.letter) == ("read", role, letter) and tap.at <= now
            ]  # fmt: skip
            return _seen(mine, typed, on_at), bool(typed) and not mine

        centre, by_hand = of("centre")
        pieces.append(FirePiece(piece.name, one.heated, log, centre, of("surface")[0], by_hand))
    pits = [one for span, one in shown.items() if span.use.role == "pit"]
    typed = [tap for tap in kept.taps if tap.what == "read" and tap.word == "pit" and tap.at <= now]
    pit = _seen(pits, typed, begins)
    _plan(kept, now)
    told = {
        one.log.letter: found
        for one in pieces
        if (found := forecaster.latest(kept.cook.pk, one.log.letter)) is not None
        # what was told by a clock that has been set back is of another cook
        and found[0] <= now + timedelta(seconds=60)
    }
    return AtFire(
        now,
        begins,
        tuple(pieces),
        kept.taps,
        pit,
        kept.due,
        kept.planned_off,
        told,
        _OLD_AFTER_S * max(1.0, speed),
        max(_DEAD_AFTER_S, _LAGS_S * speed),
        bool(typed) and not pits,
    )


def _plan(kept: Kept, now: datetime) -> None:
    """Take in what the plan has next; asked anew when the log has grown, and now and then."""
    assert kept.cook is not None
    if kept.planned_for == kept.stamp and monotonic() - kept.planned < _PLANNED_FOR_S:
        return
    kept.planned, kept.planned_for = monotonic(), kept.stamp
    of = planned(kept.cook, "")
    supper, names = of.supper, {one.letter: one.name for one in of.pieces if one.side is not None}
    if supper.now is not None:
        supper = replace(supper, now=now.replace(second=0, microsecond=0))
    try:
        day, _ = read_day(supper)
    except BadInput:
        kept.due, kept.planned_off = (), {}
        return
    kept.planned_off = {step.letter: step.begins_at for step in day.steps if step.key == "off"}
    ahead = sorted(
        (step for step in day.steps if not step.done and step.letter != BUY), key=lambda step: step.begins_at
    )
    # what was to be done before a piece went on is over once it is on
    on = {tap.letter for tap in kept.taps if tap.what == "on"}
    near = [
        step for step in ahead
        if now - timedelta(hours=6) < step.begins_at < now + timedelta(hours=18)
        and not (step.letter in on and _is_moot(step))
    ]  # fmt: skip
    pieces = {one.piece.letter for one in kept.made}
    kept.due = tuple(
        Due(step.letter, step.key, step.says, step.begins_at, tap_for(step, kept),
            step.letter if step.letter in pieces else names.get(step.letter, ""), _phase_of(step))
        for step in near[:_MOST_DUE]
    )  # fmt: skip


_BEFORE_IT_IS_ON = {
    "thaw", "temper", "trim", "aside", "way", "salt", "inject", "bag", "wipe", "mix", "coat", "bind", "light",
    "oil", "on",
}  # fmt: skip
"""What of a day is moot once a piece is on the fire, by the kind of its step."""


def _phase_of(step: DayStep) -> int | None:
    """Return which phase a step of the day goes into; None where it goes into none."""
    kind, _, number = step.key.partition(".")
    return int(number or 0) if kind in ("to", "phase") else None


def _is_moot(step: DayStep) -> bool:
    """Tell whether a step is over once its piece is on the fire: what goes before that, and putting it on."""
    return step.key.partition(".")[0] in _BEFORE_IT_IS_ON or _phase_of(step) == 0


_TAPS = {
    "on": "on", "off": "off", "rest": "rest", "serve": "plate", "spritz": "spritz", "baste": "baste", "glaze": "sauce",
    "again": "inject", "catch": "drain", "turn": "turn", "wrap": "wrap",
}  # fmt: skip


def tap_for(step: DayStep, kept: Kept) -> str:
    """Return the tap that ticks a step of the day."""
    kind, at = step.key.partition(".")[0], _phase_of(step)
    if at is not None:
        if at == 0:
            return "on"
        made = next((one for one in kept.made if one.piece.letter == step.letter), None)
        if made is not None and at <= last_hot(made.phases) and made.phases[at].vessel == "foil":
            return "wrap"
        return "move"
    return _TAPS.get(kind, "tick")


def step_of_tap(loaded: Loaded, tap: Tap) -> str:
    """Return the key of the day's step that a tap ticks: the one it names, else the next one that it is the tap of."""
    if tap.step or loaded.fire is None:
        return tap.step
    return next((due.key for due in loaded.fire.due if (due.letter, due.what) == (tap.letter, tap.what)), "")


def ask_forecasts(loaded: Loaded) -> None:
    """Have every piece on the fire forecast anew where more is known of it; what is told comes with a later look."""
    fire = loaded.fire
    if fire is None or loaded.ended_at is not None:
        return
    for one in fire.pieces:
        if one.log.state != "on":
            continue
        rest = next((phase for phase in one.heated.phases if phase.surround == "rest"), None) if one.heated else None
        seen = (
            len(fire.taps), one.centre.times_s[-1:], fire.pit.times_s[-1:],
            # without readings the time that goes by is all there is
            round(fire.now.timestamp() / (60 * max(1.0, loaded.speed))),
        )  # fmt: skip

        def made(piece: FirePiece = one, rest: Phase | None = rest) -> object:
            live = live_of(piece, fire)
            return None if live is None else (live, pit_dips(fire), rest)

        forecaster.want(loaded.cook.pk, one.log.letter, fire.now, seen, kitchen(), made)  # type: ignore[arg-type]

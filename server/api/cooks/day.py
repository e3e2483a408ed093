"""Day: a cook planned backwards from its serving, what clashes in it, and ways out."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Annotated, Any, Literal
from uuid import UUID

from book.days import pin, set_sides, tick
from book.models import Cook, Stale, Step, claim_version
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja import Schema
from pydantic import AwareDatetime, Field
from ravska_core.day import (
    DayReading,
    DayStep,
    OutOfClash,
    StartNow,
    next_steps,
    read_day,
    start_now,
    waves_said,
    ways_out,
)
from ravska_core.units import say_duration
from ravska_core.working import BadInput

from api.cooks.day_changes import MoveDocument, StartNowDocument, begin_now, move_piece, take_way_out
from api.cooks.planned import (
    DayPieceOut,
    MostSides,
    Planned,
    planned,
    planned_of,
    read_sides,
)
from api.cooks.shown import own_faults
from api.cooks.store import one_cook
from api.cooks.ticking import tick_step
from api.plumbing.answers import Router
from api.plumbing.asked import going, let_go
from api.plumbing.problems import Conflict, Gather
from api.plumbing.quantities import Duration
from api.plumbing.typed import Key, Version

router = Router()

ZoneName = Annotated[str, Field(max_length=60)]
Travels = Literal["hot", "cold"]


@dataclass(frozen=True, slots=True)
class NightOut:
    """When everybody sleeps."""

    begins_at: datetime
    ends_at: datetime


@dataclass(frozen=True, slots=True)
class StepWas:
    """A step as it was in the plan that was kept."""

    letter: str
    key: str
    says: str
    begins_at: datetime


@dataclass(frozen=True, slots=True)
class PlanWas:
    """A plan that was kept: when, and its steps. `changed` says that another version of Ravska plans it now."""

    at: datetime
    steps: list[StepWas]
    changed: bool


@dataclass(frozen=True, slots=True)
class DayOut:
    """A cook's day. `zone` is the household's, or as long as nobody kept one (`asked`) that of the screen.

    `away` is how long the way to where it is eaten is, as typed, empty where it is eaten here; `next` is to be done
    first.
    """

    id: UUID
    version: int
    name: str
    people: int
    zone: str
    asked: bool
    away: str
    travels: Travels
    waves: int
    waves_apart: str
    waves_say: tuple[str, ...]
    pieces: list[DayPieceOut]
    day: DayReading
    next: tuple[DayStep, ...]
    nights: list[NightOut]
    was: PlanWas | None
    calendar: bool
    now: datetime


@router.reads("/{uuid:cook_id}/day")
def read_day_of_cook(request: HttpRequest, cook_id: UUID, zone: ZoneName = "") -> DayOut:
    """Return a cook's day, planned backwards from its serving. `zone` is that of the screen, until one is kept."""
    return read_day_of(cook_id, zone)


def read_day_of(cook_id: UUID, zone: str) -> DayOut:
    """Return a cook's day by the household's clock, or by that of a screen where nobody kept one."""
    return day_out(planned_of(cook_id, zone))


PLANS_BY = "1"
"""Which version of the planner made a plan; raised whenever the same day comes to another plan."""


def day_out(of: Planned) -> DayOut:
    """Return a day as it is planned now, beside the plan that was kept."""
    day, _ = read_day(of.supper)
    cook, serve_at, now = of.cook, of.cook.serve_at, timezone.now()
    slept = [
        NightOut(serve_at + timedelta(minutes=falls), serve_at + timedelta(minutes=rises))
        for falls, rises in of.supper.nights
        if serve_at + timedelta(minutes=rises) > day.begins_at and falls < 0
    ]
    return DayOut(
        cook.pk, cook.version, cook.name, cook.people, of.zone, not cook.household.preferences.zone,
        say_duration(cook.away_min * 60) if cook.away_min is not None else "", _travels(cook), cook.waves,
        say_duration(cook.waves_min * 60), waves_said(of.supper, cook.eaters), of.pieces, day, next_steps(day, now),
        slept, _was(cook), bool(cook.calendar_key), now,
    )  # fmt: skip


def _travels(cook: Cook) -> Travels:
    return "cold" if cook.travels == "cold" else "hot"


def _was(cook: Cook) -> PlanWas | None:
    kept = cook.plan_was
    if not kept:
        return None
    steps = [
        StepWas(row["letter"], row["key"], row["says"], datetime.fromisoformat(row["begins_at"]))
        for row in kept["steps"]
    ]
    return PlanWas(datetime.fromisoformat(kept["at"]), steps, kept.get("by") != PLANS_BY)


@router.reads("/{uuid:cook_id}/day/ways-out")
def read_ways_out(
    request: HttpRequest, cook_id: UUID, zone: ZoneName = "", asked: UUID | None = None
) -> list[OutOfClash]:
    """Return ways out of what clashes in a cook's day, each tried by planning anew; none where nothing clashes.

    It can be let go by the key it was `asked` under.
    """
    of = planned_of(cook_id, zone)
    _, found = read_day(of.supper)
    return list(ways_out(of.supper, of.nights_of, found, going(asked)))


class LetGoOut(Schema):
    """A question is let go, or will be as soon as it comes."""

    ok: bool = True


@router.hears("/asked/{uuid:asked}/let-go")
def let_question_go(request: HttpRequest, asked: UUID) -> LetGoOut:
    """Let go what takes long by the key that it was asked under: ways out, or beginning now."""
    let_go(asked)
    return LetGoOut()


class PinDocument(Schema):
    """When a task of a lane is to begin, by its key; none where it is to be when it fits."""

    letter: Annotated[str, Field(max_length=4)]
    key: Key
    begins_at: AwareDatetime | None = None


class DaySave(Schema):
    """What a day is moved by: when supper is, how many pairs of hands there are, where it is eaten, in how many waves.

    What is left out stays; `away` is empty where it is eaten here.
    """

    version: Version
    serve_at: AwareDatetime | None = None
    people: Annotated[int, Field(ge=1, le=12)] | None = None
    away: Duration | None = None
    travels: Travels | None = None
    waves: Annotated[int, Field(ge=1, le=6)] | None = None
    waves_apart: Duration | None = None
    sides: MostSides | None = None
    pin: PinDocument | None = None
    moved: MoveDocument | None = None


@router.puts("/{uuid:cook_id}/day")
def save_day(request: HttpRequest, cook_id: UUID, document: DaySave, zone: ZoneName = "") -> DayOut:
    """Move a day; 409 with the day as it stands when the cook was changed meanwhile."""

    def change(cook: Cook) -> None:
        given = _given(document)
        if document.serve_at is not None:
            for fault in own_faults(cook.name, document.serve_at, cook.eaters):
                raise fault
            given["serve_at"] = document.serve_at
        for field, value in given.items():
            setattr(cook, field, value)
        cook.save(update_fields=list(given))
        if document.sides is not None:
            set_sides(cook, [(side.name, side.model_dump()) for side in document.sides])
        if document.moved is not None:
            move_piece(cook, document.moved, "moved.onto")
        if document.pin is not None:
            one = document.pin
            _step_of(planned_of(cook.pk, zone), one.letter, one.key, "pin.key")
            if one.begins_at is not None and abs(one.begins_at - cook.serve_at) > _FAR:
                raise BadInput("pin.begins_at", "A step lies at most two weeks from supper; drop it nearer.")
            pin(cook, one.letter, one.key, one.begins_at)

    return _changed(cook_id, document.version, zone, change)


_FAR = timedelta(days=14)


def _given(document: DaySave) -> dict[str, Any]:
    """Return what was said of a cook's day, by its column; all that cannot be read is named together."""
    gather, given = Gather(), dict[str, Any]()
    for field in ("people", "travels", "waves"):
        if getattr(document, field) is not None:
            given[field] = getattr(document, field)
    for field, column, most in (("away", "away_min", 1440), ("waves_apart", "waves_min", 180)):
        typed = getattr(document, field)
        if typed is None:
            continue
        lasts = gather.value_if(field, typed)
        if lasts is not None and not 60 <= lasts <= most * 60:
            gather.refuse(field, f"Between 1 min and {say_duration(most * 60)}.")
        elif lasts is not None or field == "away":
            given[column] = None if lasts is None else round(lasts / 60)
    if document.sides is not None:
        read_sides(document.sides, gather)
    gather.finish()
    return given


def _step_of(of: Planned, letter: str, key: str, field: str) -> DayStep:
    """Return a step of a day.

    Raises
    ------
    BadInput
        At `field` where this day has none such.
    """
    day, _ = read_day(of.supper)
    found = next((step for step in day.steps if (step.letter, step.key) == (letter, key)), None)
    if found is None:
        raise BadInput(field, "This day has no such step any more; look at it again.")
    return found


def _home_step(cook: Cook, told: DayStep) -> Step | None:
    """Return Home's step that one of a day is one with, so that it is ticked in both."""
    piece = next((one for one in cook.pieces.all() if one.letter == told.letter), None)
    if piece is None or not told.step:
        return None
    layers = list(piece.layers.all())
    of = None if told.layer is None else layers[told.layer].pk
    return next((step for step in piece.steps.all() if step.kind == told.step and step.layer_id == of), None)


class TickDayDocument(Schema):
    """A task of a lane that is done, by its key, and when if not now; or that is not done after all."""

    version: Version
    letter: Annotated[str, Field(max_length=4)]
    key: Key
    done: bool = True
    at: AwareDatetime | None = None


@router.posts("/{uuid:cook_id}/day/tick")
def tick_task(request: HttpRequest, cook_id: UUID, document: TickDayDocument, zone: ZoneName = "") -> DayOut:
    """Tick a task of a day, or take the tick away; the first tick keeps the plan as it was."""

    def change(cook: Cook) -> None:
        now = timezone.now()
        at = document.at or now
        of = planned(one_cook(cook.pk), zone)
        told = _step_of(of, document.letter, document.key, "key")
        if document.done:
            if at > now + timedelta(minutes=1) or at < now - _FAR:
                raise BadInput("at", "That is done now, or was within the last two weeks.")
            if not cook.plan_was:
                _keep(cook, of)
        step = _home_step(cook, told)
        if step is not None:
            tick_step(cook, step, at if document.done else None)
        else:
            tick(cook, document.letter, document.key, at if document.done else None)

    return _changed(cook_id, document.version, zone, change)


def tick_by_tap(cook: Cook, letter: str, key: str, at: datetime) -> None:
    """Tick a step of a day as it is noted at the fire; one that is not there any more is not ticked.

    It stands outside the cook's version, as all that is noted there does.
    """
    with transaction.atomic():
        of = planned(one_cook(cook.pk), "")
        day, _ = read_day(of.supper)
        told = next((step for step in day.steps if (step.letter, step.key) == (letter, key)), None)
        if told is None or told.done:
            return
        if not of.cook.plan_was:
            _keep(of.cook, of)
        step = _home_step(of.cook, told)
        if step is not None:
            tick_step(of.cook, step, at)
        else:
            tick(of.cook, letter, key, at)


class KeepPlanDocument(Schema):
    """Which plan is kept: the day as it is planned now, or none."""

    version: Version
    kept: bool = True


@router.posts("/{uuid:cook_id}/day/keep")
def keep_plan(request: HttpRequest, cook_id: UUID, document: KeepPlanDocument, zone: ZoneName = "") -> DayOut:
    """Keep the plan as it is now, to see later what became of it; or let it go."""

    def change(cook: Cook) -> None:
        if document.kept:
            _keep(cook, planned(one_cook(cook.pk), zone))
        else:
            cook.plan_was = None
            cook.save(update_fields=["plan_was"])

    return _changed(cook_id, document.version, zone, change)


def _keep(cook: Cook, of: Planned) -> None:
    day, _ = read_day(of.supper)
    cook.plan_was = {
        "at": timezone.now().isoformat(), "by": PLANS_BY,
        "steps": [
            {"letter": step.letter, "key": step.key, "says": step.says, "begins_at": step.begins_at.isoformat()}
            for step in day.steps
        ],
    }  # fmt: skip
    cook.save(update_fields=["plan_was"])


@router.reads("/{uuid:cook_id}/day/start-now")
def read_start_now(
    request: HttpRequest, cook_id: UUID, zone: ZoneName = "", asked: UUID | None = None
) -> list[StartNow]:
    """Return what could be done if it were begun now: supper by each way, and what that costs.

    It can be let go by the key it was `asked` under.
    """
    of = planned_of(cook_id, zone)
    now = timezone.now().replace(second=0, microsecond=0)
    return list(start_now(of.supper, now, of.nights_of, going(asked)))


@router.posts("/{uuid:cook_id}/day/start-now")
def begin_from_now(request: HttpRequest, cook_id: UUID, document: StartNowDocument, zone: ZoneName = "") -> DayOut:
    """Begin now: holds as short, and the fire as hot, as that way says, and supper when it says."""
    return _changed(cook_id, document.version, zone, lambda cook: begin_now(cook, document))


class WayOutDocument(Schema):
    """A way out that is taken: its key, as it was told."""

    version: Version
    key: Annotated[list[Annotated[str, Field(max_length=40)]], Field(min_length=2, max_length=4)]


@router.posts("/{uuid:cook_id}/day/way-out")
def take_a_way_out(request: HttpRequest, cook_id: UUID, document: WayOutDocument, zone: ZoneName = "") -> DayOut:
    """Take a way out, and return the day planned anew."""
    return _changed(cook_id, document.version, zone, lambda cook: take_way_out(cook, document.key))


def _changed(cook_id: UUID, version: int, zone: str, change: Callable[[Cook], None]) -> DayOut:
    try:
        with transaction.atomic():
            cook = one_cook(cook_id)
            claim_version(cook, version)
            change(cook)
    except Stale:
        raise Conflict(read_day_of(cook_id, zone)) from None
    return read_day_of(cook_id, zone)

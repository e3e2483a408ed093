"""Day: a cook planned backwards from its serving, what clashes in it, and ways out."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Annotated
from uuid import UUID

from book.models import Cook, Piece, Stale, claim_version
from book.models.values import phases_from
from book.tasting import check_untasted
from django.conf import settings
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja import Schema
from pydantic import AwareDatetime, Field
from ravska_core.catalogue import said_name
from ravska_core.day import DayPiece, DayReading, OutOfClash, Supper, find_zone, nights, read_day, ways_out
from ravska_core.heat import heated
from ravska_core.meat import find_cut
from ravska_core.units import say_temperature
from ravska_core.working import BadInput

from api.cooks.phases import phases_typed, read_phases, stored_phases
from api.cooks.shown import own_faults
from api.cooks.store import one_cook, piece_of, was_never_read
from api.plumbing.answers import Router
from api.plumbing.problems import Conflict, Gather
from api.plumbing.quantities import FireTemperature
from api.plumbing.typed import Version

router = Router()

ZoneName = Annotated[str, Field(max_length=60)]


@dataclass(frozen=True, slots=True)
class DayPieceOut:
    """A piece in a day: its letter and name, what it is, and why it could not be planned, where it could not."""

    letter: str
    name: str
    about: str
    problem: str = ""


@dataclass(frozen=True, slots=True)
class NightOut:
    """When everybody sleeps."""

    begins_at: datetime
    ends_at: datetime


@dataclass(frozen=True, slots=True)
class DayOut:
    """A cook's day. `zone` is the household's, or as long as nobody kept one (`asked`) that of the screen."""

    id: UUID
    version: int
    name: str
    people: int
    zone: str
    asked: bool
    pieces: list[DayPieceOut]
    day: DayReading
    nights: list[NightOut]
    now: datetime


NightsOf = Callable[[datetime], tuple[tuple[int, int], ...]]


def _nights_of(cook: Cook, zone: str) -> NightsOf:
    """Return the nights of a day by its serving time, on the household's clock."""
    kept, found = cook.household.preferences, find_zone(zone)
    return lambda serve_at: nights(serve_at, found, kept.sleeps, kept.rises)


_SHARED_KINDS = {"broiler": "oven"}
"""Kinds of cookers that are one device with another."""


def _day_piece(piece: Piece, appetite: str) -> DayPiece:
    """Return a piece of the book as its day is planned from it.

    Raises
    ------
    BadInput
        As the piece, a layer or a phase is refused.
    """
    if piece.unread and was_never_read(piece):
        field, sentence = next(iter(piece.unread["fields"].items()))
        raise BadInput(field, sentence)
    seasoned = piece.seasoned(appetite)
    layers = list(piece.layers.all())
    names = tuple(
        layer.blend.name if layer.blend else said_name(layer.grind) if layer.grind else "" for layer in layers
    )
    places = {layer.pk: at for at, layer in enumerate(layers)}
    done = frozenset(
        (step.kind, places.get(step.layer_id) if step.layer_id else None)
        for step in piece.steps.all() if step.done_at is not None
    )  # fmt: skip
    if not piece.phases:
        return DayPiece(piece.letter, seasoned, names=names, done=done)
    phases, cookers = phases_from(piece.phases)
    keys = tuple(
        row["typed"].get("cooker") or _SHARED_KINDS.get(cooker.kind, cooker.kind)
        for row, cooker in zip(piece.phases, cookers, strict=True)
    )
    found = DayPiece(piece.letter, seasoned, heated(seasoned, phases, cookers), keys, names, done)
    if found.heat is not None and found.heat.done_s is None:
        raise BadInput("phases", found.heat.says[0])
    return found


@dataclass(frozen=True, slots=True)
class _Planned:
    """A cook with what its day is planned from."""

    cook: Cook
    zone: str
    nights_of: NightsOf
    pieces: list[DayPieceOut]
    supper: Supper


def _planned(cook_id: UUID, zone: str) -> _Planned:
    cook = one_cook(cook_id)
    zone = cook.household.preferences.zone or zone or settings.TIME_ZONE
    nights_of = _nights_of(cook, zone)
    found, told = [], []
    for piece in cook.pieces.all():
        about = find_cut(piece.cut).name
        try:
            found.append(_day_piece(piece, cook.appetite))
            told.append(DayPieceOut(piece.letter, piece.name, about))
        except BadInput as refusal:
            told.append(DayPieceOut(piece.letter, piece.name, about, refusal.sentence))
    now = timezone.now().replace(second=0, microsecond=0)
    # a supper that is over is looked at as it would have been
    supper = Supper(
        tuple(found), cook.serve_at, nights_of(cook.serve_at), cook.people, now if now < cook.serve_at else None
    )
    return _Planned(cook, zone, nights_of, told, supper)


@router.reads("/{uuid:cook_id}/day")
def read_day_of_cook(request: HttpRequest, cook_id: UUID, zone: ZoneName = "") -> DayOut:
    """Return a cook's day, planned backwards from its serving. `zone` is that of the screen, until one is kept."""
    return read_day_of(cook_id, zone)


def read_day_of(cook_id: UUID, zone: str) -> DayOut:
    """Return a cook's day by the household's clock, or by that of a screen where nobody kept one."""
    of = _planned(cook_id, zone)
    day, _ = read_day(of.supper)
    serve_at = of.cook.serve_at
    slept = [
        NightOut(serve_at + timedelta(minutes=falls), serve_at + timedelta(minutes=rises))
        for falls, rises in of.supper.nights
        if serve_at + timedelta(minutes=rises) > day.begins_at and falls < 0
    ]
    asked = not of.cook.household.preferences.zone
    return DayOut(cook_id, of.cook.version, of.cook.name, of.cook.people, of.zone, asked, of.pieces, day, slept,
                  timezone.now())  # fmt: skip


@router.reads("/{uuid:cook_id}/day/ways-out")
def read_ways_out(request: HttpRequest, cook_id: UUID, zone: ZoneName = "") -> list[OutOfClash]:
    """Return ways out of what clashes in a cook's day, each tried by planning anew; none where nothing clashes."""
    of = _planned(cook_id, zone)
    _, found = read_day(of.supper)
    return list(ways_out(of.supper, of.nights_of, found))


class DaySave(Schema):
    """What a day is moved by: when supper is, and how many pairs of hands there are; what is left out stays."""

    version: Version
    serve_at: AwareDatetime | None = None
    people: Annotated[int, Field(ge=1, le=12)] | None = None


@router.puts("/{uuid:cook_id}/day")
def save_day(request: HttpRequest, cook_id: UUID, document: DaySave, zone: ZoneName = "") -> DayOut:
    """Move a day; 409 with the day as it stands when the cook was changed meanwhile."""

    def change(cook: Cook) -> None:
        if document.people is not None:
            cook.people = document.people
        if document.serve_at is not None:
            for fault in own_faults(cook.name, document.serve_at, cook.eaters):
                raise fault
            cook.serve_at = document.serve_at
        cook.save(update_fields=["people", "serve_at"])

    return _changed(cook_id, document.version, zone, change)


class WayOutDocument(Schema):
    """A way out that is taken: its key, as it was told."""

    version: Version
    key: Annotated[list[Annotated[str, Field(max_length=20)]], Field(min_length=2, max_length=3)]


@router.posts("/{uuid:cook_id}/day/way-out")
def take_way_out(request: HttpRequest, cook_id: UUID, document: WayOutDocument, zone: ZoneName = "") -> DayOut:
    """Take a way out, and return the day planned anew."""
    return _changed(cook_id, document.version, zone, lambda cook: _take(cook, document.key))


def _changed(cook_id: UUID, version: int, zone: str, change: Callable[[Cook], None]) -> DayOut:
    try:
        with transaction.atomic():
            cook = one_cook(cook_id)
            claim_version(cook, version)
            change(cook)
    except Stale:
        raise Conflict(read_day_of(cook_id, zone)) from None
    return read_day_of(cook_id, zone)


def _number(text: str, low: float, high: float) -> float:
    """Return a number in a key.

    Raises
    ------
    BadInput
        At ``key``.
    """
    try:
        found = float(text)
    except ValueError:
        found = math.nan
    if not low <= found <= high:
        raise BadInput("key", "This is no way out of this day; ask for them again.")
    return found


def _take(cook: Cook, key: list[str]) -> None:
    """Change a cook by a way out.

    Raises
    ------
    BadInput
        At ``key`` where it is none, or what was tasted would change.
    """
    kind, of = key[0], key[1]
    if kind == "later":
        cook.serve_at += timedelta(minutes=_number(of, 1, 2880))
        cook.save(update_fields=["serve_at"])
        return
    if kind == "people":
        cook.people = int(_number(of, 1, 12))
        cook.save(update_fields=["people"])
        return
    if kind not in ("oven", "heat") or (kind == "heat" and len(key) < 3):
        raise BadInput("key", "This is no way out of this day; ask for them again.")
    check_untasted(cook, "key")
    piece = piece_of(cook, of)
    typed = phases_typed(piece.phases)
    scale = cook.household.preferences.temperature
    for at, phase in enumerate(typed):
        if phase.surround != "indirect":
            continue
        if kind == "oven" and phase.vessel in ("foil", "pan", "pot"):
            typed[at] = phase.model_copy(update={"surround": "oven", "near": False, "wood": "", "cooker": ""})
        elif kind == "heat":
            aimed = FireTemperature(say_temperature(_number(key[2], 40, 350), scale))
            typed[at] = phase.model_copy(update={"aimed": aimed, "band": FireTemperature("")})
    gather = Gather()
    read_phases(typed, gather, "phases")
    gather.finish()
    piece.phases = stored_phases(typed)
    piece.save(update_fields=["phases"])

"""Thermometers: what any of them sends, kept in the book before it is answered; see docs/thermometer.md."""

import threading
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from secrets import token_hex
from typing import Annotated, Any
from uuid import UUID

from book.fires import FAR_AHEAD_S, FAR_BACK, Shown, device_of, hear, keep_readings
from book.models import Device
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja import Schema
from ninja.errors import HttpError
from pydantic import AwareDatetime, Field, TypeAdapter, ValidationError
from ravska_core.working import BadInput

from api.plumbing.answers import Router
from api.plumbing.problems import sentence_of
from api.plumbing.typed import Typed

router = Router()

MOST_ROWS = 1000

_RIGHT_S = 5.0
"""A clock that is less than so wrong is taken to be right: what is between is the way [s]."""


class ShownDocument(Schema):
    """What a channel showed: at a moment by the device's own clock, or so many seconds before it sent that."""

    channel: Annotated[str, Field(min_length=1, max_length=40)]
    celsius: Annotated[float, Field(ge=-60, le=700, allow_inf_nan=False)]
    at: AwareDatetime | None = None
    ago_s: Annotated[float, Field(ge=0, le=14 * 86_400)] | None = None


class SentDocument(Schema):
    """What a device sends: when that is by its own clock, readings in any order, and orders it has carried out."""

    sent_at: AwareDatetime | None = None
    readings: Annotated[list[dict[str, Any]], Field(max_length=MOST_ROWS)]
    done: Annotated[list[Typed], Field(max_length=50)] = Field(default=[])


@dataclass(frozen=True, slots=True)
class RowRefused:
    """A row that was not taken: its number, from 1 on, the field, and why."""

    row: int
    field: str
    sentence: str


@dataclass(frozen=True, slots=True)
class DeviceOrder:
    """What a simulated device is to do; a real one need not know any. `id` is told back."""

    do: str
    name: str = ""
    number: float = 0.0
    id: str = field(default_factory=lambda: token_hex(6))


@dataclass(frozen=True, slots=True)
class TakenOut:
    """How many readings are new and how many were known, which rows were refused, how fast the device's clock is.

    `now` is what it should show.
    """

    taken: int
    known: int
    refused: list[RowRefused]
    offset_s: float
    now: datetime
    do: list[DeviceOrder]


class _Orders:
    """What simulated devices are to do next; of no other kind."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._of: dict[UUID, deque[DeviceOrder]] = {}

    def tell(self, device: UUID, order: DeviceOrder) -> None:
        with self._lock:
            self._of.setdefault(device, deque(maxlen=50)).append(order)

    def for_(self, device: UUID, done: list[str]) -> list[DeviceOrder]:
        with self._lock:
            left = [order for order in self._of.get(device, ()) if order.id not in done]
            self._of[device] = deque(left, maxlen=50)
            return left


orders = _Orders()

clock_of_device: list[Callable[[Device, datetime], datetime]] = []
"""How a simulated device's time goes; said by who starts it."""

_row = TypeAdapter(ShownDocument)


def _device(request: HttpRequest) -> Device:
    _, _, token = request.headers.get("Authorization", "").partition(" ")
    found = device_of(token)
    if found is None:
        raise HttpError(403, "No device has this token, or it was revoked; make another one at the fire's probes.")
    return found


@router.hears("/thermometer/readings")
def send_temperatures(request: HttpRequest, document: SentDocument) -> TakenOut:
    """Take what a thermometer shows, each reading once, in any order; the rows that cannot be are named one by one."""
    device, now = _device(request), timezone.now()
    for clock in clock_of_device:
        now = clock(device, now)
    offset = document.sent_at - now if document.sent_at is not None else timedelta()
    # how far a simulated one lags is its speed, not its clock
    if device.simulated or abs(offset.total_seconds()) < _RIGHT_S:
        offset = timedelta()
    shown, refused = read_rows(document.readings, now, offset)
    with transaction.atomic():
        taken, known = keep_readings(device, shown, offset)
        hear(device, offset.total_seconds())
    return TakenOut(taken, known, refused, offset.total_seconds(), now, orders.for_(device.pk, document.done))


def read_rows(rows: list[dict[str, Any]], now: datetime, offset: timedelta) -> tuple[list[Shown], list[RowRefused]]:
    """Read rows of readings; those that cannot be are named, and the others are taken."""
    shown, refused = list[Shown](), list[RowRefused]()
    for number, row in enumerate(rows, 1):
        try:
            shown.append(_read_row(_row.validate_python(row), now, offset))
        except ValidationError as error:
            first = error.errors()[0]
            refused.append(RowRefused(number, ".".join(map(str, first["loc"])), sentence_of(dict(first))))
        except BadInput as bad:
            refused.append(RowRefused(number, bad.argument, bad.sentence))
    return shown, refused


def _read_row(row: ShownDocument, now: datetime, offset: timedelta) -> Shown:
    if (row.at is None) == (row.ago_s is None):
        raise BadInput("at", "Say when: “at” by the device's clock, or “ago_s” in seconds before it was sent.")
    shown_at = row.at if row.at is not None else now + offset - timedelta(seconds=round(row.ago_s or 0))
    at = shown_at - offset
    if at > now + timedelta(seconds=FAR_AHEAD_S):
        raise BadInput("at", "That is in the future by this server's clock; say in “sent_at” what the device's shows.")
    if at < now - FAR_BACK:
        raise BadInput("at", "That is more than two weeks ago; send what was read since.")
    return Shown(row.channel, shown_at, row.celsius)

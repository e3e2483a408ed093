"""Scales: what any scale or its bridge sends, what it is told, and the simulated one beside the weigh-out.

The interface is open and documented in docs/scale.md: a device posts its readings and finds in the answer what it is
to do. Nothing of it is kept in the book; the last readings live here, in memory.
"""

import secrets
import threading
import time
from collections import deque
from dataclasses import dataclass, field
from threading import Thread
from typing import Annotated, Literal

from devices.simulated_scale import Device
from django.conf import settings
from django.http import HttpRequest
from ninja import Schema
from pydantic import AfterValidator, Field
from ravska_core.bowl import ScaleSettings
from ravska_core.working import BadInput

from api.plumbing.answers import Router
from api.plumbing.typed import Number, Typed

router = Router()

LOST_AFTER_S = 1.5
"""A scale that has said nothing for so long is shown as lost [s]."""

FORGOTTEN_AFTER_S = 3600.0
_MOST_SCALES = 8
_MOST_ORDERS = 50

ScaleName = Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[\w .-]+$")]


class ScaleReadingDocument(Schema):
    """What a scale shows at its own time [s]: grams less tare, none under overload."""

    at_s: Annotated[float, Field(ge=0, le=1e9, allow_inf_nan=False)]
    grams: Annotated[float, Field(ge=-60_000, le=60_000, allow_inf_nan=False)] | None = None
    settled: bool = False
    overload: bool = False


class ScaleReadings(Schema):
    """What a device sends, a few times a second, oldest reading first; `done` are the orders it has carried out."""

    scale: ScaleName = "kitchen"
    kind: Typed = ""
    capacity_g: Annotated[float, Field(ge=10, le=60_000)] = 5000.0
    resolution_g: Annotated[float, Field(ge=0.001, le=100)] = 1.0
    readings: Annotated[list[ScaleReadingDocument], Field(max_length=200)]
    done: Annotated[list[Typed], Field(max_length=_MOST_ORDERS)] | None = None


@dataclass(frozen=True, slots=True)
class OrderOut:
    """What a device is to do: tare; a simulated one also put, pour, clear, drop out, stop. `id` is told back."""

    do: str
    grams: float = 0.0
    seconds: float = 0.0
    id: str = field(default_factory=lambda: secrets.token_hex(6))


@dataclass(frozen=True, slots=True)
class OrdersOut:
    do: list[OrderOut]


@dataclass(frozen=True, slots=True)
class ScaleNow:
    """What a scale shows now: live, lost (silent for a while) or none; `tares` counts how often it was told to."""

    state: Literal["live", "lost", "none"]
    scale: str
    kind: str
    grams: float | None
    settled: bool
    overload: bool
    resolution_g: float
    capacity_g: float
    tares: int
    silent_s: float


@dataclass
class _Known:
    kind: str = ""
    capacity_g: float = 5000.0
    resolution_g: float = 1.0
    last: ScaleReadingDocument | None = None
    heard: float = 0.0
    tares: int = 0
    taring: bool = False
    orders: deque[OrderOut] = field(default_factory=lambda: deque(maxlen=_MOST_ORDERS))


class _Hub:
    """The scales that have been heard of, shared by the server's threads."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._scales: dict[str, _Known] = {}

    def hear(self, sent: ScaleReadings) -> list[OrderOut]:
        now = time.monotonic()
        with self._lock:
            for name in [n for n, s in self._scales.items() if now - s.heard > FORGOTTEN_AFTER_S]:
                del self._scales[name]
            if sent.scale not in self._scales and len(self._scales) >= _MOST_SCALES:
                raise BadInput("scale", f"{_MOST_SCALES} scales are connected already; switch one off.")
            known = self._scales.setdefault(sent.scale, _Known())
            known.kind, known.capacity_g, known.resolution_g = sent.kind, sent.capacity_g, sent.resolution_g
            known.heard = now
            if sent.readings:
                known.last = sent.readings[-1]
            told_back = sent.done is not None
            orders = [order for order in known.orders if order.id not in (sent.done or ())]
            # an answer can be lost on its way: what is not told back as done is told again, but for the last thing
            # a device ever does
            left = [order for order in orders if told_back and order.do != "stop"]
            known.orders = deque(left, maxlen=_MOST_ORDERS)
            # readings sent before the order to tare arrived still show the old weight
            known.taring = any(order.do == "tare" for order in orders)
            return orders

    def now(self, name: str = "") -> ScaleNow:
        with self._lock:
            found = self._find(name)
            if found is None:
                return ScaleNow("none", "", "", None, False, False, 0.1, 0.0, 0, 0.0)
            name, known = found
            silent = time.monotonic() - known.heard
            live = silent < LOST_AFTER_S
            last = known.last
            tared = known.taring or any(order.do == "tare" for order in known.orders)
            return ScaleNow(
                state="live" if live else "lost",
                scale=name,
                kind=known.kind,
                grams=last.grams if last and live else None,
                settled=bool(last and live and last.settled and not tared),
                overload=bool(last and live and last.overload),
                resolution_g=known.resolution_g,
                capacity_g=known.capacity_g,
                tares=known.tares,
                silent_s=round(silent, 1),
            )

    def tell(self, order: OrderOut, name: str = "") -> None:
        with self._lock:
            found = self._find(name)
            if found is None:
                raise BadInput("scale", "No scale is connected; start the simulated one, or weigh by hand.")
            _, known = found
            if order.do == "tare" and time.monotonic() - known.heard > LOST_AFTER_S:
                raise BadInput("scale", "The scale is silent; see to its link, or write what it shows by hand.")
            known.orders.append(order)
            known.tares += order.do == "tare"

    def _find(self, name: str) -> tuple[str, _Known] | None:
        if name:
            return (name, self._scales[name]) if name in self._scales else None
        return max(self._scales.items(), key=lambda item: item[1].heard, default=None)

    def forget(self) -> None:
        with self._lock:
            self._scales.clear()


hub = _Hub()


@router.hears("/scale/readings")
def send_readings(request: HttpRequest, document: ScaleReadings) -> OrdersOut:
    """Take what a scale shows; the answer says what it is to do. For scales and bridges, see docs/scale.md."""
    return OrdersOut(hub.hear(document))


@router.reads("/scale")
def read_scale(request: HttpRequest) -> ScaleNow:
    """Return what the scale that was heard last shows now."""
    return hub.now()


@router.hears("/scale/tare")
def tare(request: HttpRequest) -> ScaleNow:
    """Tell the scale to show what lies on it as nothing."""
    hub.tell(OrderOut("tare"))
    return hub.now()


def _resolution(grams: float) -> float:
    if grams not in (0.1, 1.0):
        raise ValueError("A simulated scale shows every 0.1 g or every gram; choose one.")
    return grams


class SimulatedScaleDocument(Schema):
    """The simulated scale that is to be started."""

    resolution_g: Annotated[float, AfterValidator(_resolution)] = 0.1
    capacity_g: Annotated[float, Field(ge=10, le=50_000)] = 5000.0
    drop_outs_a_minute: Annotated[float, Field(ge=0, le=60)] = 0.0


class HandlingDocument(Schema):
    """What hands do at the simulated scale: put so many grams on, pour so many a second, clear it, lose it, stop it."""

    do: Literal["put", "pour", "clear", "drop out", "stop"]
    grams: Number = 0.0
    seconds: Annotated[float, Field(ge=0, le=600)] = 0.0


_running: list[Thread] = []


@router.hears("/scale/simulated")
def start_simulated(request: HttpRequest, document: SimulatedScaleDocument) -> ScaleNow:
    """Start the simulated scale; it connects over the open interface like any other, and ends with the server."""
    now = hub.now()
    _running[:] = [device for device in _running if device.is_alive()]
    if now.state == "live" or _running:
        return now  # one is there, or on its way
    scale = ScaleSettings(document.capacity_g, document.resolution_g, drop_outs_a_minute=document.drop_outs_a_minute)
    device = Device(f"http://{request.get_host()}", scale, token=settings.DEVICE_TOKEN)
    _running.append(Thread(target=device.run, name="simulated scale", daemon=True))
    _running[-1].start()
    return now


@router.hears("/scale/simulated/handle")
def handle_simulated(request: HttpRequest, document: HandlingDocument) -> ScaleNow:
    """Do something at the simulated scale; a real one is handled by hand."""
    now = hub.now()
    if now.state != "none" and now.kind != "simulated":
        raise BadInput("do", "This scale is a real one; put it on by hand.")
    hub.tell(OrderOut(document.do, document.grams, document.seconds))
    return hub.now()

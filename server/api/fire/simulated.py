"""The simulated thermometer of a cook: a process of its own that the server begins and ends with itself.

It speaks the open interface like any other device. What is tapped at the fire is done at the simulated one too.
"""

import threading
from dataclasses import dataclass
from datetime import datetime
from multiprocessing import get_context
from multiprocessing.context import SpawnProcess
from uuid import UUID, uuid4

from book.fires import clock_of, new_device, set_clock
from book.models import Cook, Device, ProbeUse
from devices.simulated_thermometer import Deed, begin
from django.db.transaction import on_commit
from django.utils import timezone
from ravska_core.fire import Tap
from ravska_core.meat import read_piece
from ravska_core.working import BadInput

from api.devices.thermometer import DeviceOrder, clock_of_device, orders
from api.fire.state import Loaded

_DONE_THERE = ("on", "off", "rest", "wrap", "unwrap", "lid", "fuel", "spritz", "baste", "set")
"""What is tapped that is done at the simulated fire too."""

_MOST = 4


@dataclass(frozen=True)
class Running:
    """A simulated thermometer that runs: its device and its process."""

    device: UUID
    process: SpawnProcess


_lock = threading.Lock()
_running: dict[UUID, Running] = {}


def simulator_of(cook_id: UUID) -> UUID | None:
    """Return the device that simulates a cook's probes; none where none runs."""
    found = _running.get(cook_id)
    return found.device if found is not None and found.process.is_alive() else None


def _its_clock(device: Device, now: datetime) -> datetime:
    """Return what a simulated device's clock is held against: that of the cook it is put to."""
    if not device.simulated:
        return now
    for cook_id, running in list(_running.items()):
        if running.device == device.pk:
            return clock_of(Cook(pk=cook_id), now)[0]
    return now


clock_of_device.append(_its_clock)


def _deeds(taps: tuple[Tap, ...], began_at: datetime) -> list[Deed]:
    """Return what was tapped so far as it is done at the simulated fire."""
    return [
        ((tap.at - began_at).total_seconds(), _done_as(tap), tap.letter, tap.celsius or 0.0)
        for tap in taps
        if tap.what in _DONE_THERE
    ]


def _done_as(tap: Tap) -> str:
    return "spritz" if tap.what == "baste" else tap.what


def hand_over(cook_id: UUID, tap: Tap) -> None:
    """Do at the simulated fire what was tapped, where one runs."""
    device = simulator_of(cook_id)
    if device is not None and tap.what in _DONE_THERE:
        order = DeviceOrder(_done_as(tap), tap.letter, tap.celsius or 0.0)
        on_commit(lambda: orders.tell(device, order))


def put_to(loaded: Loaded, address: str, speed: float, steady: bool, seed: int | None) -> None:
    """Put a simulated thermometer to a cook, its probes into all its pieces; another speed where one is there.

    Raises
    ------
    BadInput
        Where nothing of the cook can be read, or as many run already.
    """
    cook, now = loaded.cook, timezone.now()
    with _lock:
        there = simulator_of(cook.pk)
        if there is not None:
            set_clock(cook, now, speed)
            orders.tell(there, DeviceOrder("speed", "", speed))
            return
        if sum(one.process.is_alive() for one in _running.values()) >= _MOST:
            raise BadInput("speed", f"{_MOST} simulated thermometers run already; switch one off.")
        readable = [one for one in loaded.made if one.heated is not None and one.phases]
        if not readable:
            raise BadInput("speed", "No piece of this cook can be read yet; say in Coat what it weighs.")
        device, token = new_device(cook.household, "Simulated", simulated=True)
        began_at = loaded.began_at or loaded.now
        taps = loaded.fire.taps if loaded.fire is not None else ()
        pieces = []
        for one in readable:
            solid = read_piece(one.piece.as_core()).solid
            first = one.phases[0]
            pieces.append({
                "name": one.piece.letter, "length_cm": solid.length_cm, "width_cm": solid.width_cm,
                "thickness_cm": solid.thickness_cm, "surface": True, "cold": True,
                "liquid": first.surround in ("covered liquid", "water bath"), "wrapped": first.vessel == "foil",
            })  # fmt: skip
        aimed = next((phase.aimed_c for phase in readable[0].phases), 120.0)
        burns = {"kind": "steady" if steady else "charcoal", "set_c": min(aimed, 260.0)}
        elapsed = max(0.0, (loaded.now - began_at).total_seconds())
        _use_probes(cook, device, readable, began_at)
        set_clock(cook, now, speed)
        process = get_context("spawn").Process(
            target=begin, name="simulated thermometer", daemon=True,
            args=(address, token, pieces, burns, device.pk.int % 2**31 if seed is None else seed, began_at.isoformat(),
                  speed, _deeds(taps, began_at), elapsed),
        )  # fmt: skip

        def set_going() -> None:
            process.start()
            _running[cook.pk] = Running(device.pk, process)

        # its token is known to others only once it is in the book
        on_commit(set_going)


def _use_probes(cook: Cook, device: Device, readable: list, from_at: datetime) -> None:  # type: ignore[type-arg]
    rows = [ProbeUse(cook=cook, device=device, channel="pit", role="pit", name="pit", from_at=from_at, key=uuid4())]
    for one in readable:
        letter = one.piece.letter
        rows.append(ProbeUse(cook=cook, device=device, channel=letter, role="centre", piece=one.piece, from_at=from_at,
                             name=f"{letter} centre", key=uuid4()))  # fmt: skip
        rows.append(ProbeUse(cook=cook, device=device, channel=f"{letter} surface", role="surface", piece=one.piece,
                             from_at=from_at, name=f"{letter} surface", key=uuid4()))  # fmt: skip
    ProbeUse.objects.bulk_create(rows)


def take_away(cook: Cook) -> None:
    """Take a simulated thermometer away from a cook; the cook's clock goes on as everybody's from there."""
    with _lock:
        found = _running.pop(cook.pk, None)
        if found is not None:
            orders.tell(found.device, DeviceOrder("stop"))
            Device.objects.filter(pk=found.device).update(revoked_at=timezone.now())
            found.process.terminate()
        set_clock(cook, timezone.now(), 1.0)

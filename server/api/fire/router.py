"""Fire: a cook as it happens. What is noted is only added; what was read is in the book before it is answered."""

from base64 import b64decode
from binascii import Error as NotBase64
from dataclasses import dataclass, replace
from datetime import timedelta
from typing import Annotated
from uuid import UUID

import numpy as np
from book.fires import cook_on_fire, new_device, said_of
from book.models import LARGEST_PHOTO, TAKEN_BACK, Cook, Device, Event, Photo, ProbeUse, Reading
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from pydantic import Field, TypeAdapter, ValidationError
from ravska_core.fire import check_tap, offset_says, read_fire
from ravska_core.meat import find_cut, read_piece
from ravska_core.working import BadInput

from api.cooks.day import tick_by_tap
from api.devices.thermometer import DeviceOrder, orders
from api.fire.documents import (
    KINDS_OUT,
    DeviceDocument,
    DeviceMadeOut,
    DeviceOut,
    FireOut,
    FirePieceOut,
    HandDocument,
    NotedOut,
    PhotoDocument,
    ProbeDocument,
    ProbeLineOut,
    ProbeOut,
    SimulatedDocument,
    TapDocument,
    TapRefused,
    TapsDocument,
    event_out,
)
from api.fire.series import numbers_of, thinned
from api.fire.simulated import hand_over, put_to, simulator_of, take_away
from api.fire.state import Loaded, Made, ask_forecasts, load_fire, step_of_tap
from api.plumbing.answers import Router
from api.plumbing.household import household
from api.plumbing.problems import sentence_of

router = Router()

_tap = TypeAdapter(TapDocument)

_AHEAD_S = 120.0
"""A tap lies at most so far ahead of its cook's clock: two phones are never wholly alike [s]."""


@dataclass(frozen=True, slots=True)
class FireCookOut:
    """The cook whose fire is looked at, none where there is no cook."""

    id: UUID | None


@router.reads("/cook")
def find_fire(request: HttpRequest) -> FireCookOut:
    """Return the cook that is on the fire, else the one in hand, else none."""
    home = household()
    found = cook_on_fire(home) or Cook.objects.filter(household=home, in_hand=True, deleted_at__isnull=True).first()
    return FireCookOut(None if found is None else found.pk)


@router.reads("/{uuid:cook_id}")
def read_fire_of_cook(request: HttpRequest, cook_id: UUID, after: Annotated[int, Field(ge=0, le=2**62)] = 0) -> FireOut:
    """Return a cook at its fire as it stands; of readings those after a number, all of them thinned from the first."""
    loaded = load_fire(cook_id, timezone.now())
    ask_forecasts(loaded)
    return fire_out(loaded, after)


@router.posts("/{uuid:cook_id}/simulated")
def put_simulated(request: HttpRequest, cook_id: UUID, document: SimulatedDocument) -> FireOut:
    """Put the simulated thermometer to a cook, or have its time go at another speed."""
    loaded = load_fire(cook_id, timezone.now())
    address = f"{request.scheme}://{request.get_host()}"
    put_to(loaded, address, document.speed, document.steady, document.seed)
    return replace(fire_out(load_fire(cook_id, timezone.now())), simulated=True)


@router.posts("/{uuid:cook_id}/simulated/stop")
def stop_simulated(request: HttpRequest, cook_id: UUID) -> FireOut:
    """Take the simulated thermometer away; the cook's own clock goes on as everybody's from there."""
    take_away(load_fire(cook_id, timezone.now()).cook)
    return fire_out(load_fire(cook_id, timezone.now()))


@router.posts("/{uuid:cook_id}/simulated/handle")
def handle_simulated_probes(request: HttpRequest, cook_id: UUID, document: HandDocument) -> FireOut:
    """Do with the simulated probes what hands do: put one that slipped back."""
    device = simulator_of(cook_id)
    if device is None:
        raise BadInput("do", "No simulated thermometer runs at this fire.")
    orders.tell(device, DeviceOrder(document.do, document.letter))
    return fire_out(load_fire(cook_id, timezone.now()))


def fire_out(loaded: Loaded, after: int = 0) -> FireOut:
    """Return a cook at its fire as a document."""
    cook, letters = loaded.cook, {piece.pk: piece.letter for piece in loaded.cook.pieces.all()}
    events = [
        event_out(row, letters.get(row.piece_id, "") if row.piece_id else "")
        for row in sorted(loaded.events, key=lambda row: (row.at, row.noted_at))
        if row.what != "silence"
    ]
    lines, last = _lines(loaded, after, letters)
    cookers = [getattr(one.cookers[0], "says", "") for one in loaded.made if one.cookers]
    simulated = simulator_of(cook.pk)
    return FireOut(
        cook.pk, cook.name, loaded.now, loaded.speed, cook.serve_at, loaded.began_at, loaded.ended_at,
        [_piece_out(one) for one in loaded.made], cookers[0] if cookers else "",
        None if loaded.fire is None else read_fire(loaded.fire), events, lines, last, _probes(loaded, letters),
        KINDS_OUT, simulated is not None, cook.noted,
    )  # fmt: skip


def _piece_out(made: Made) -> FirePieceOut:
    piece = made.piece
    about, shape, sides = find_cut(piece.cut).name, "box", (20.0, 12.0, 8.0)
    faces: tuple[str, ...] = ()
    try:
        read = read_piece(piece.as_core())
        solid, faces = read.solid, tuple(face.name for face in read.faces)
        shape, sides = solid.shape, (solid.length_cm, solid.width_cm, solid.thickness_cm)
    except BadInput:
        pass
    return FirePieceOut(
        piece.letter, piece.name, about, shape, *sides, piece.count, tuple(phase.says for phase in made.phases),
        made.says, faces,
    )  # fmt: skip


def _lines(loaded: Loaded, after: int, letters: dict[UUID, str]) -> tuple[list[ProbeLineOut], int]:
    """Return lines of readings after a number, and the highest number among them."""
    found, last = [], after
    for span in loaded.spans:
        use = span.use
        if after:
            rows = list(numbers_of(span, after))
            last = max([last, *(row[0] for row in rows)])
            times, celsius = np.array([row[1] for row in rows]), np.array([row[2] for row in rows])
        else:
            last, (times, celsius) = loaded.last, loaded.shown[span]
        if not len(times):
            continue
        times, celsius = thinned(times, celsius)
        found.append(
            ProbeLineOut(
                use.device_id,
                use.channel,
                use.role,
                letters.get(use.piece_id, "") if use.piece_id else "",
                [round(one, 1) for one in times.tolist()],
                [round(one, 2) for one in celsius.tolist()],
            )
        )
    return found, last


def _probes(loaded: Loaded, letters: dict[UUID, str]) -> list[ProbeOut]:
    """Return channels of the household's devices that were heard lately, and what they are used for here."""
    used = {(span.use.device_id, span.use.channel): span.use for span in loaded.spans}
    found = []
    for device in Device.objects.filter(household=loaded.cook.household_id, revoked_at__isnull=True):
        newest = Reading.objects.filter(device=device, at__gte=loaded.now - _HEARD).order_by("-id")[:60]
        shown = {row.channel: row for row in reversed(newest)}
        mine = [channel for of, channel in used if of == device.pk]
        for channel in dict.fromkeys([*mine, *sorted(shown)]):
            use, row = used.get((device.pk, channel)), shown.get(channel)
            found.append(
                ProbeOut(
                    device.pk,
                    device.name,
                    channel,
                    use.role if use else "none",
                    letters.get(use.piece_id, "") if use and use.piece_id else "",
                    use.name if use else "",
                    row.celsius if row else None,
                    row.at if row else None,
                    offset_says(device.offset_s),
                    device.simulated,
                )
            )
    return found


_HEARD = timedelta(minutes=30)


@router.posts("/{uuid:cook_id}/taps")
def note_taps(request: HttpRequest, cook_id: UUID, document: TapsDocument) -> NotedOut:
    """Note taps in the order they were made, each once; those that cannot be are named one by one."""
    loaded = load_fire(cook_id, timezone.now())
    noted, refused = [], []
    for row, raw in enumerate(document.taps):
        try:
            one = _tap.validate_python(raw)
            _note(loaded, one)
            noted.append(one.key)
        except ValidationError as error:
            first = error.errors()[0]
            refused.append(TapRefused(row, ".".join(map(str, first["loc"])), sentence_of(dict(first))))
        except BadInput as bad:
            refused.append(TapRefused(row, bad.argument, bad.sentence))
    return NotedOut(noted, refused)


def _note(loaded: Loaded, one: TapDocument) -> Event | None:
    """Note a tap; none where it was noted before.

    Raises
    ------
    BadInput
        At the field that cannot be.
    """
    if Event.objects.filter(key=one.key).exists():
        return None
    cook = loaded.cook
    before = Event.objects.filter(key=one.of, cook=cook).first() if one.of is not None else None
    if one.of is not None and before is None:
        raise BadInput("of", "That is not in this log any more; look at it again.")
    if one.what == TAKEN_BACK:
        if before is None:
            raise BadInput("of", "Say which is taken back.")
        return Event.objects.create(
            cook=cook, piece_id=before.piece_id, what=TAKEN_BACK, at=before.at, key=one.key, of=before.key
        )
    at = one.at or loaded.now
    if (at - loaded.now).total_seconds() > _AHEAD_S:
        raise BadInput("at", "That is still to come; note it when it is done.")
    if loaded.now - at > _FAR:
        raise BadInput("at", "That is more than two weeks ago; check the date.")
    tap = one.as_tap(at)
    pieces = {piece.letter: piece for piece in cook.pieces.all()}
    check_tap(tap, list(pieces))
    step = step_of_tap(loaded, tap)
    tap = replace(tap, step=step)
    row = Event.objects.create(
        cook=cook, piece=pieces.get(tap.letter), what=tap.what, note=tap.note, said=said_of(tap), at=tap.at,
        key=one.key, of=one.of,
    )  # fmt: skip
    if step:
        tick_by_tap(cook, tap.letter, step, tap.at)
    hand_over(cook.pk, tap)
    return row


_FAR = timedelta(days=14)


@router.posts("/{uuid:cook_id}/probes")
def use_probe(request: HttpRequest, cook_id: UUID, document: ProbeDocument) -> FireOut:
    """Say what a channel measures from now on, or from a time; of a pit or a piece, under a name."""
    loaded = load_fire(cook_id, timezone.now())
    if not ProbeUse.objects.filter(key=document.key).exists():
        device = Device.objects.filter(pk=document.device, household=loaded.cook.household_id).first()
        if device is None:
            raise BadInput("device", "That device is not in the book any more; look at the probes again.")
        piece = next((one for one in loaded.cook.pieces.all() if one.letter == document.letter), None)
        if document.role in ("centre", "surface") and piece is None:
            raise BadInput("letter", "Say in which piece it is.")
        ProbeUse.objects.create(
            cook=loaded.cook, device=device, channel=document.channel, role=document.role,
            piece=piece if document.role in ("centre", "surface") else None, name=document.name.strip(),
            from_at=document.from_at or loaded.now, key=document.key,
        )  # fmt: skip
    return fire_out(load_fire(cook_id, timezone.now()))


def _device_out(device: Device) -> DeviceOut:
    return DeviceOut(
        device.pk, device.name, device.made_at, device.heard_at, device.revoked_at is not None,
        offset_says(device.offset_s), device.simulated,
    )  # fmt: skip


@router.reads("/devices")
def list_devices(request: HttpRequest) -> list[DeviceOut]:
    """Return the thermometers that may send readings, and those that no longer may."""
    return [_device_out(one) for one in Device.objects.filter(household=household(), simulated=False)]


@router.posts("/devices")
def make_device(request: HttpRequest, document: DeviceDocument) -> DeviceMadeOut:
    """Let a thermometer send readings: its token is told this once, and only what it is made of is kept."""
    device, token = new_device(household(), document.name.strip())
    return DeviceMadeOut(_device_out(device), token)


@router.posts("/devices/{uuid:device_id}/revoke")
def revoke_device(request: HttpRequest, device_id: UUID) -> DeviceOut:
    """Take a device's token away; what it sent stays."""
    device = Device.objects.filter(pk=device_id, household=household()).first()
    if device is None:
        raise Http404
    if device.revoked_at is None:
        device.revoked_at = timezone.now()
        device.save(update_fields=["revoked_at"])
    return _device_out(device)


@router.posts("/{uuid:cook_id}/photo")
def note_photo(request: HttpRequest, cook_id: UUID, document: PhotoDocument) -> NotedOut:
    """Note a photo, as small as the page made it; what it tells of place and camera is cut out."""
    loaded = load_fire(cook_id, timezone.now())
    try:
        jpeg = stripped(b64decode(document.jpeg, validate=True))
    except (NotBase64, ValueError):
        raise BadInput("jpeg", "That is no JPEG; take the photo again.") from None
    if len(jpeg) > LARGEST_PHOTO:
        raise BadInput("jpeg", "A photo is kept with at most 300 kB; make it smaller.")
    row = _note(loaded, document.tap)
    if row is not None:
        Photo.objects.create(event=row, jpeg=jpeg)
    return NotedOut([document.tap.key], [])


def stripped(jpeg: bytes) -> bytes:
    """Return a JPEG without its application and comment segments, which say where and by what it was taken.

    ISO/IEC 10918-1, annex B: segments are FF, a marker, and a length of two bytes; the scan goes on to the end.

    Raises
    ------
    ValueError
        For what is no JPEG.
    """
    if jpeg[:2] != b"\xff\xd8":
        raise ValueError
    found, at = [b"\xff\xd8"], 2
    while at + 4 <= len(jpeg):
        if jpeg[at] != 0xFF:
            raise ValueError
        marker, length = jpeg[at + 1], int.from_bytes(jpeg[at + 2 : at + 4], "big")
        if marker == 0xDA:
            return b"".join([*found, jpeg[at:]])
        if not (0xE0 <= marker <= 0xEF or marker == 0xFE):
            found.append(jpeg[at : at + 2 + length])
        at += 2 + length
    raise ValueError


@router.reads("/photos/{uuid:key}")
def read_photo(request: HttpRequest, key: UUID) -> HttpResponse:
    """Return a photo by the key of its event."""
    found = Photo.objects.filter(event__key=key).first()
    if found is None:
        raise Http404
    return HttpResponse(bytes(found.jpeg), content_type="image/jpeg")

"""Readings of a cook as CSV, out and in, and thinned where the household asks for it."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Annotated
from uuid import NAMESPACE_URL, UUID, uuid5

import numpy as np
from book.backups import backup_of
from book.fires import Shown, keep_readings, new_device, said_of
from book.models import Cook, Device, Event, Piece, ProbeUse, Reading
from book.tasting import trial_of
from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Schema
from pydantic import Field
from ravska_core.day import find_zone
from ravska_core.fire import (
    BY_HAND,
    MEASURES,
    MOST_REFUSED,
    ReadRow,
    RowFault,
    Tap,
    read_readings,
    stay,
    write_readings,
)
from ravska_core.working import BadInput

from api.fire.series import numbers_of
from api.fire.state import Loaded, forget, load_fire
from api.plumbing.answers import Router

router = Router()

LARGEST_PART = 900_000
"""So much of a file is taken at once [characters]; the page sends a longer one in parts."""

_BEFORE, _AFTER = timedelta(hours=1), timedelta(hours=12)


class ReadingsDocument(Schema):
    """A file of readings, or a part of it with its head; `first_line` is the line its first row has in the file.

    `zone` is whose clock times without an offset are of.
    """

    text: Annotated[str, Field(max_length=LARGEST_PART)]
    first_line: Annotated[int, Field(ge=2, le=10_000_000)] = 2
    zone: Annotated[str, Field(max_length=60)] = ""


@dataclass(frozen=True, slots=True)
class BroughtInOut:
    """How many readings are new and how many were known, how many are not of this cook's time, and what is wrong.

    What could not be read is told by line and column.
    """

    taken: int
    known: int
    outside: int
    faults: list[RowFault]


@dataclass(frozen=True, slots=True)
class ThinnedOut:
    """How many readings of a cook there are, how many would stay, and why they cannot be thinned; empty if they can."""

    readings: int
    stay: int
    why_not: str


@router.reads("/{uuid:cook_id}/readings.csv")
def take_readings_out(request: HttpRequest, cook_id: UUID) -> HttpResponse:
    """Write all readings of a cook as CSV: moment, what was measured, of which piece, by what, temperature [C]."""
    loaded = load_fire(cook_id, timezone.now())
    letters = {piece.pk: piece.letter for piece in loaded.cook.pieces.all()}
    written = _shown(loaded)
    for row in loaded.events:
        if row.what == "read":
            letter = letters.get(row.piece_id, "") if row.piece_id else ""
            written.append(ReadRow(row.at, row.said["word"], letter, BY_HAND, row.said["celsius"]))
    answer = HttpResponse(write_readings(written), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="readings.csv"'
    return answer


def _shown(loaded: Loaded) -> list[ReadRow]:
    """Return what probes showed of a cook, as a file has it."""
    letters = {piece.pk: piece.letter for piece in loaded.cook.pieces.all()}
    found = []
    for span in loaded.spans:
        use = span.use
        letter = letters.get(use.piece_id, "") if use.piece_id else ""
        for _, at, celsius in numbers_of(span):
            moment = datetime.fromtimestamp(at, UTC)
            found.append(ReadRow(moment, use.role, letter, f"{use.device.name}/{use.channel}", celsius))
    return found


def _same(row: ReadRow) -> tuple[object, ...]:
    """Return what tells a reading from another, whatever showed it."""
    role = row.measured if row.measured in MEASURES else "spot"
    return role, row.letter, round(row.at.timestamp(), 2), round(row.celsius, 2)


@router.posts("/{uuid:cook_id}/readings")
def bring_readings_in(request: HttpRequest, cook_id: UUID, document: ReadingsDocument) -> BroughtInOut:
    """Take readings in from CSV, each once; lines that cannot be are named one by one and stop no others."""
    loaded = load_fire(cook_id, timezone.now())
    if loaded.began_at is None:
        raise BadInput("text", "Note first when this went on the fire; then its readings have where to go.")
    pieces = {piece.letter: piece for piece in loaded.cook.pieces.all()}
    zone = find_zone(document.zone) if document.zone else None
    rows, faults = read_readings(document.text, list(pieces), zone, document.first_line)
    earliest = loaded.began_at - _BEFORE
    latest = loaded.now if loaded.ended_at is None else min(loaded.now, loaded.ended_at + _AFTER)
    mine = [row for row in rows if earliest <= row.at <= latest]
    if rows and not mine:
        span = f"{_said(earliest)} to {_said(latest)} (UTC)"
        raise BadInput("text", f"None of this is of this cook, whose fire was on from {span}; look at its dates.")
    by_hand = [row for row in mine if row.probe == BY_HAND]
    # what came from a probe of this cook and went out as a file is known when it comes back
    there = {_same(row) for row in _shown(loaded)}
    new = [row for row in mine if row.probe != BY_HAND and _same(row) not in there]
    taken, known = _keep_shown(loaded.cook, new, pieces)
    known += len(mine) - len(by_hand) - len(new)
    noted, noted_before = _keep_typed(loaded.cook, by_hand, pieces)
    forget()
    return BroughtInOut(taken + noted, known + noted_before, len(rows) - len(mine), faults[:MOST_REFUSED])


def _said(at: datetime) -> str:
    return at.astimezone(UTC).strftime("%Y-%m-%d %H:%M")


def _keep_shown(cook: Cook, rows: list[ReadRow], pieces: Mapping[str, Piece]) -> tuple[int, int]:
    """Keep what probes showed, under a device that stands for files."""
    if not rows:
        return 0, 0
    device = _device_of_files(cook)
    channels = dict[str, list[ReadRow]]()
    for row in rows:
        channels.setdefault(f"{row.measured} {row.letter} {row.probe}"[:40], []).append(row)
    shown = [Shown(channel, row.at, row.celsius) for channel, found in channels.items() for row in found]
    counts = keep_readings(device, shown, timedelta())
    for channel, found in channels.items():
        first, key = found[0], uuid5(NAMESPACE_URL, f"{cook.pk} {channel}")
        piece = pieces.get(first.letter) if first.measured in ("centre", "surface") else None
        role = first.measured if first.measured in MEASURES else "spot"
        ProbeUse.objects.get_or_create(
            key=key,
            defaults={
                "cook": cook, "device": device, "channel": channel, "role": role, "piece": piece, "name": first.probe,
                "from_at": min(row.at for row in found) - _BEFORE,
            },
        )  # fmt: skip
    return counts


def _device_of_files(cook: Cook) -> Device:
    """Return the device that a cook's files are readings of; nobody has its token."""
    name = f"Files of {cook.name}"[:40]
    found = Device.objects.filter(uses__cook=cook, name=name, revoked_at__isnull=False).first()
    if found is None:
        found, _ = new_device(cook.household, name)
        found.revoked_at = timezone.now()
        found.save(update_fields=["revoked_at"])
    return found


def _keep_typed(cook: Cook, rows: list[ReadRow], pieces: Mapping[str, Piece]) -> tuple[int, int]:
    """Note what was read by hand; what stands in the log already is not noted again."""
    there = {
        (row.at, row.said.get("word"), row.piece_id) for row in Event.objects.filter(cook=cook, what="read")
    }  # fmt: skip
    new = 0
    for row in rows:
        piece = pieces.get(row.letter)
        if (row.at, row.measured, piece.pk if piece else None) in there:
            continue
        key = uuid5(NAMESPACE_URL, f"{cook.pk} {row.at.isoformat()} {row.measured} {row.letter}")
        tap = Tap(str(key), "read", row.at, row.letter, word=row.measured, celsius=row.celsius)
        _, made = Event.objects.get_or_create(
            key=key, defaults={"cook": cook, "piece": piece, "what": "read", "said": said_of(tap), "at": row.at}
        )
        new += made
    return new, len(rows) - new


@router.reads("/{uuid:cook_id}/thinned")
def read_thinned(request: HttpRequest, cook_id: UUID) -> ThinnedOut:
    """Say how many readings of a cook would stay if they were thinned: extremes, and all that is near an event."""
    loaded = load_fire(cook_id, timezone.now())
    keeps, goes = _parted(loaded)
    return ThinnedOut(keeps + len(goes), keeps, _why_not(loaded))


@router.posts("/{uuid:cook_id}/thin")
def thin_readings(request: HttpRequest, cook_id: UUID) -> ThinnedOut:
    """Thin the readings of a cook that is over, once the whole book was copied into its backups."""
    loaded = load_fire(cook_id, timezone.now())
    refused = _why_not(loaded)
    if refused:
        raise BadInput("cook", refused)
    keeps, goes = _parted(loaded)
    if goes:
        _copied_first()
        for at in range(0, len(goes), 500):
            Reading.objects.filter(pk__in=goes[at : at + 500]).delete()
        forget()
    return ThinnedOut(keeps, keeps, "")


def _copied_first() -> None:
    """Copy the book: what is thinned can only come back from a backup."""
    book = Path(str(settings.DATABASES["default"]["NAME"]))
    if book.is_file():
        backup_of(book, timezone.now())


def _why_not(loaded: Loaded) -> str:
    trial = trial_of(loaded.cook)
    if trial is not None and trial.is_tasted():
        return "This cook was tasted: all its readings stay, as the verdict stands on them."
    if loaded.ended_at is None:
        return "This fire is not over yet; its readings are thinned when all is off."
    return ""


def _parted(loaded: Loaded) -> tuple[int, list[int]]:
    """Return how many readings stay, and the numbers of those that go."""
    events = [row.at.timestamp() for row in loaded.events]
    keeps, goes = 0, list[int]()
    for span in loaded.spans:
        rows = list(numbers_of(span))
        times = np.array([at for _, at, _ in rows])
        left = stay(times, np.array([celsius for _, _, celsius in rows]), events)
        keeps += int(left.sum())
        goes += [number for (number, _, _), keep in zip(rows, left, strict=True) if not keep]
    return keeps, goes

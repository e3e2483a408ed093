"""The fire of a cook in the book: its log as it stands, its own clock, its probes, and what was read of them."""

import hashlib
import secrets
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

from django.db.models import Q, QuerySet
from django.utils import timezone
from ravska_core.fire import OnBoard, Tap, eaten_an_eater, in_order, weighings
from ravska_core.meat import PORTION_G, find_cut
from ravska_core.working import BadInput

from book.models import TAKEN_BACK, Cook, CookClock, Device, Event, Household, Piece, ProbeUse, Reading

_SAID = ("word", "celsius", "grams", "count", "x", "y", "near", "side", "phase", "step")

SILENT = timedelta(seconds=15)
"""A simulated thermometer has ended that was not heard for so long, as when the server was begun anew."""

FAR_AHEAD_S, FAR_BACK = 90.0, timedelta(days=14)
"""A reading lies at most so far ahead of now [s], and no further back."""


def said_of(tap: Tap) -> dict[str, Any]:
    """Return what was said with a tap, as the book keeps it: nothing of what was left out."""
    return {name: value for name in _SAID if (value := getattr(tap, name)) not in (None, "")}


def stands(events: Iterable[Event]) -> list[Event]:
    """Return events that stand: of one that was moved the last, of one that was taken back none."""
    rows = sorted(events, key=lambda row: (row.noted_at, row.key))
    gone = {row.of for row in rows if row.of is not None}
    return [row for row in rows if row.what != TAKEN_BACK and row.key not in gone]


def tap_of(row: Event, letters: dict[UUID, str]) -> Tap:
    """Return an event as the core takes it; of a piece that is gone, of the whole cook."""
    letter = letters.get(row.piece_id, "") if row.piece_id else ""
    return Tap(str(row.key), row.what, row.at, letter, row.note, **row.said)


def taps_of(events: Iterable[Event], pieces: Iterable[Piece]) -> tuple[Tap, ...]:
    """Return what stands of a cook's log, in the order it happened."""
    letters = {piece.pk: piece.letter for piece in pieces}
    return in_order([tap_of(row, letters) for row in stands(events)])


def clock_of(cook: Cook, wall: datetime) -> tuple[datetime, float]:
    """Return what a cook's own clock shows at a moment, and how many times as fast it goes."""
    row = CookClock.objects.filter(cook=cook).order_by("-wall_at").first()
    if row is None:
        return wall, 1.0
    if row.speed == 1.0:
        return row.shows_at + (wall - row.wall_at), 1.0
    # a clock that is faster goes with its simulated thermometer; from when that fell silent it goes as everybody's
    heard = Device.objects.filter(uses__cook=cook, simulated=True).order_by("-made_at").values_list("heard_at").first()
    last = max(row.wall_at, heard[0]) if heard is not None and heard[0] is not None else row.wall_at
    if wall - last <= SILENT:
        return row.shows_at + (wall - row.wall_at) * row.speed, row.speed
    return row.shows_at + (last - row.wall_at) * row.speed + (wall - last), 1.0


def set_clock(cook: Cook, wall: datetime, speed: float) -> None:
    """Have a cook's clock go so fast from now on."""
    shows, _ = clock_of(cook, wall)
    CookClock.objects.create(cook=cook, wall_at=wall, shows_at=shows, speed=speed)


def began_at(taps: Sequence[Tap]) -> datetime | None:
    """Return when a fire began: by the word, else when the first piece went on; None where it has not."""
    times = [tap.at for tap in taps if tap.what in ("began", "on")]
    return min(times) if times else None


def ended_at(taps: Sequence[Tap]) -> datetime | None:
    """Return when a fire ended, unless something went on after that."""
    ends = [tap.at for tap in taps if tap.what == "ended"]
    if not ends or any(tap.what in ("began", "on") and tap.at > max(ends) for tap in taps):
        return None
    return max(ends)


_MOST_COOKS = 24
"""One's own yields and portions go by so many of the last cooks."""


def own_yields(household: Household, cut: str) -> list[float]:
    """Return what this household's fires left of a cut where it was weighed cooked [0 to 1], the first first."""
    found = []
    for taps, pieces in _weighed_cooks(household, Q(what="weight", piece_id__in=_pieces_of(household, cut))):
        kept = [weighings(taps, _on_board(piece)).kept for piece in pieces if piece.cut == cut]
        found += [one for one in kept if one is not None]
    return found


def own_eaten(household: Household) -> list[float]:
    """Return what this household's eaters ate of meat, in shares of the usual portion, the first cook first."""
    found = []
    for taps, pieces in _weighed_cooks(household, Q(what="fed")):
        each = eaten_an_eater(taps, [_on_board(piece) for piece in pieces])
        if each is not None:
            found.append(each / PORTION_G[pieces[0].cook.appetite])
    return found


def _pieces_of(household: Household, cut: str) -> QuerySet[Piece, UUID]:
    return Piece.objects.filter(cook__household=household, cut=cut).values_list("pk", flat=True)


def _weighed_cooks(household: Household, having: Q) -> list[tuple[tuple[Tap, ...], list[Piece]]]:
    """Return the logs and pieces of the last cooks that have such events, the first first."""
    cooks = Event.objects.filter(having, cook__household=household, cook__deleted_at__isnull=True)
    last = Cook.objects.filter(pk__in=cooks.values("cook")).order_by("-serve_at")[:_MOST_COOKS]
    found = []
    for cook in reversed(last.prefetch_related("pieces", "events")):
        pieces = list(cook.pieces.all())
        found.append((taps_of(cook.events.all(), pieces), pieces))
    return [(taps, pieces) for taps, pieces in found if pieces]


def _on_board(piece: Piece) -> OnBoard:
    try:
        return OnBoard(piece.letter, piece.mass_g, find_cut(piece.cut).bone_share)
    except BadInput:
        return OnBoard(piece.letter, piece.mass_g)


def cook_on_fire(household: Household) -> Cook | None:
    """Return the cook whose fire began last and has not ended."""
    begun = Event.objects.filter(
        Q(what="began") | Q(what="on"), cook__household=household, cook__deleted_at__isnull=True
    )  # fmt: skip
    for cook_id in dict.fromkeys(begun.order_by("-at").values_list("cook_id", flat=True)):
        taps = taps_of(Event.objects.filter(cook_id=cook_id), ())
        if began_at(taps) is not None and ended_at(taps) is None:
            return Cook.objects.get(pk=cook_id)
    return None


def hashed(token: str) -> str:
    """Return what the book keeps of a token: nothing that it could be made from again."""
    return hashlib.sha256(token.strip().encode()).hexdigest()


def new_device(household: Household, name: str, simulated: bool = False) -> tuple[Device, str]:
    """Make a device; its token is told this once."""
    token = secrets.token_urlsafe(32)
    return Device.objects.create(household=household, name=name, token_hash=hashed(token), simulated=simulated), token


def device_of(token: str) -> Device | None:
    """Return the device that a token is of; None where there is none, or it was revoked."""
    return Device.objects.filter(token_hash=hashed(token), revoked_at__isnull=True).first()


@dataclass(frozen=True)
class Shown:
    """A reading as a device sends it: channel, when by its own clock, and temperature [C]."""

    channel: str
    shown_at: datetime
    celsius: float


def keep_readings(device: Device, shown: Sequence[Shown], offset: timedelta) -> tuple[int, int]:
    """Keep what a device shows, each once; return how many are new and how many were known.

    Moments are kept by this server's clock: a device's own, less how fast it is.
    """
    rows: dict[tuple[str, datetime], Reading] = {}
    for one in shown:
        at = one.shown_at - offset
        row = Reading(device=device, channel=one.channel, shown_at=one.shown_at, at=at, celsius=one.celsius)
        rows.setdefault((one.channel, one.shown_at), row)
    times = [shown_at for _, shown_at in rows]
    known = set()
    if times:
        there = Reading.objects.filter(device=device, shown_at__gte=min(times), shown_at__lte=max(times))
        known = set(there.values_list("channel", "shown_at")) & set(rows)
    new = [row for key, row in rows.items() if key not in known]
    Reading.objects.bulk_create(new, ignore_conflicts=True)
    return len(new), len(shown) - len(new)


def hear(device: Device, offset_s: float) -> None:
    """Keep that a device was heard, and how fast its clock is."""
    Device.objects.filter(pk=device.pk).update(heard_at=timezone.now(), offset_s=offset_s)


def uses_of(cook: Cook) -> list[ProbeUse]:
    """Return what channels measure of a cook, in the order that it was said."""
    return list(ProbeUse.objects.filter(cook=cook).select_related("device"))

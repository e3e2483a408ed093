"""The log of a cook: events, photos and readings, only ever added. They stand outside the cook's version."""

from typing import Any, ClassVar

from django.db import models
from django.db.models import Q
from django.db.models.functions import Length
from django.utils import timezone
from ravska_core.fire import KINDS

from book.models.cooks import Cook
from book.models.household import Household
from book.models.pieces import Piece
from book.models.rows import Row, between, named, one_of

models.BinaryField.register_lookup(Length)

TAKEN_BACK = "undone"
EVENTS = (*KINDS, TAKEN_BACK)
ROLES = ("pit", "centre", "surface", "spot", "none")
"""What a probe can measure; ``none`` for one that is not in use."""

LARGEST_PHOTO = 300_000
"""[bytes]"""


def _points_at(of: type[models.Model], name: str) -> "models.ForeignKey[Any, Any]":
    """Return a key of something that may be gone by now; what was noted of it stays as it was."""
    return models.ForeignKey(of, models.DO_NOTHING, null=True, related_name=name, db_constraint=False)


class Event(Row):
    """Something that happened to a cook or a piece of it: when, when it was noted, and what was said with it.

    `key` is the screen's own, so that an event sent twice counts once. One that was moved is noted again with `of` the
    key of the one it stands for; one that was taken back is followed by ``undone`` of it.
    """

    cook = models.ForeignKey(Cook, on_delete=models.PROTECT, related_name="events")
    piece = _points_at(Piece, "events")
    what = models.CharField(max_length=12)
    note = models.CharField(max_length=400, default="", blank=True)
    said = models.JSONField(default=dict, blank=True)
    at = models.DateTimeField()
    noted_at = models.DateTimeField(default=timezone.now)
    key = models.UUIDField(unique=True)
    of = models.UUIDField(null=True)

    class Meta:
        ordering: ClassVar = ["at", "noted_at"]
        constraints: ClassVar = [
            one_of("what", EVENTS, "event_what"),
            models.CheckConstraint(condition=~Q(what="note") | ~Q(note=""), name="event_note_says_something"),
            models.CheckConstraint(condition=~Q(what=TAKEN_BACK) | Q(of__isnull=False), name="event_undone_of"),
        ]


class Photo(Row):
    """A picture taken at the fire, as small as it was made there, without a word of where and by what it was taken."""

    event = models.OneToOneField(Event, on_delete=models.CASCADE, related_name="photo")
    jpeg = models.BinaryField()

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=Q(jpeg__length__gte=1, jpeg__length__lte=LARGEST_PHOTO), name="photo_small"
            ),
        ]


class Device(Row):
    """A thermometer that may send readings: by a token that only it knows, until that is revoked.

    `offset_s` is how fast its clock was when it was last heard [s].
    """

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="devices")
    name = models.CharField(max_length=40)
    token_hash = models.CharField(max_length=64, unique=True)
    simulated = models.BooleanField(default=False)
    made_at = models.DateTimeField(default=timezone.now)
    revoked_at = models.DateTimeField(null=True)
    heard_at = models.DateTimeField(null=True)
    offset_s = models.FloatField(default=0.0)

    class Meta:
        ordering: ClassVar = ["made_at"]
        constraints: ClassVar = [named("name", "device_named")]


class ProbeUse(Row):
    """What a channel of a device measures of a cook, from a time on until it is said otherwise."""

    cook = models.ForeignKey(Cook, on_delete=models.PROTECT, related_name="probes")
    device = models.ForeignKey(Device, on_delete=models.PROTECT, related_name="uses")
    channel = models.CharField(max_length=40)
    role = models.CharField(max_length=8)
    piece = _points_at(Piece, "probes")
    name = models.CharField(max_length=40, default="", blank=True)
    from_at = models.DateTimeField()
    noted_at = models.DateTimeField(default=timezone.now)
    key = models.UUIDField(unique=True)

    class Meta:
        ordering: ClassVar = ["from_at", "noted_at"]
        constraints: ClassVar = [
            named("channel", "probe_channel"),
            one_of("role", ROLES, "probe_role"),
            models.CheckConstraint(
                condition=Q(role__in=["centre", "surface"], piece__isnull=False)
                | (~Q(role__in=["centre", "surface"]) & Q(piece__isnull=True)),
                name="probe_in_a_piece_or_not",
            ),
        ]


class Reading(models.Model):
    """A temperature [C] that a channel of a device showed at one time; the same one counts once.

    `shown_at` is by the device's own clock, `at` by this server's. Its number says in which order readings came in.
    """

    id = models.BigAutoField(primary_key=True)
    device = models.ForeignKey(Device, on_delete=models.PROTECT, related_name="readings")
    channel = models.CharField(max_length=40)
    shown_at = models.DateTimeField()
    at = models.DateTimeField()
    celsius = models.FloatField()
    noted_at = models.DateTimeField(default=timezone.now)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["device", "channel", "shown_at"], name="reading_once"),
            between("celsius", -60, 700, "reading_celsius"),
        ]


class CookClock(Row):
    """How a cook's own clock goes from a moment on: what it showed then, and how many times as fast it goes.

    Only simulated cooks have one that is not everybody's.
    """

    cook = models.ForeignKey(Cook, on_delete=models.CASCADE, related_name="clocks")
    wall_at = models.DateTimeField()
    shows_at = models.DateTimeField()
    speed = models.FloatField(default=1.0)

    class Meta:
        ordering: ClassVar = ["wall_at"]
        constraints: ClassVar = [between("speed", 0, 120, "cook_clock_speed")]

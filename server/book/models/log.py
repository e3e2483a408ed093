"""The log of a cook: events and readings, only ever added. They stand outside the cook's version."""

from typing import Any, ClassVar

from django.db import models
from django.db.models import Q
from django.utils import timezone

from book.models.cooks import Cook
from book.models.pieces import Piece
from book.models.rows import Row, between, one_of
from book.models.steps import Step

EVENTS = ("began", "ended", "note")
MEASURED = ("pit", "centre", "surface")


def _points_at(of: type[models.Model], name: str) -> "models.ForeignKey[Any, Any]":
    """Return a key of something that may be gone by now; what was noted of it stays as it was."""
    return models.ForeignKey(of, models.DO_NOTHING, null=True, related_name=name, db_constraint=False)


class Event(Row):
    """Something that happened to a cook, a piece or a step of it: when, and when it was noted.

    `key` is the screen's own, so that an event sent twice counts once.
    """

    cook = models.ForeignKey(Cook, on_delete=models.PROTECT, related_name="events")
    piece = _points_at(Piece, "events")
    step = _points_at(Step, "events")
    what = models.CharField(max_length=12)
    note = models.CharField(max_length=400, default="", blank=True)
    at = models.DateTimeField()
    noted_at = models.DateTimeField(default=timezone.now)
    key = models.UUIDField(unique=True)

    class Meta:
        ordering: ClassVar = ["at", "noted_at"]
        constraints: ClassVar = [
            one_of("what", EVENTS, "event_what"),
            models.CheckConstraint(condition=~Q(what="note") | ~Q(note=""), name="event_note_says_something"),
        ]


class Reading(Row):
    """A temperature [C] that a probe or a person read, of the pit or of a piece, at one time."""

    cook = models.ForeignKey(Cook, on_delete=models.PROTECT, related_name="readings")
    piece = _points_at(Piece, "readings")
    measured = models.CharField(max_length=8)
    celsius = models.FloatField()
    device = models.CharField(max_length=40, default="", blank=True)
    at = models.DateTimeField()
    key = models.UUIDField(unique=True)

    class Meta:
        ordering: ClassVar = ["at"]
        constraints: ClassVar = [
            one_of("measured", MEASURED, "reading_measured"),
            between("celsius", -40, 600, "reading_celsius"),
            models.CheckConstraint(
                condition=Q(measured="pit", piece__isnull=True) | (~Q(measured="pit") & Q(piece__isnull=False)),
                name="reading_of_pit_or_piece",
            ),
        ]

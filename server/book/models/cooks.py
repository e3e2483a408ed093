"""Cooks: the event its pieces are served at."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from ravska_core.day import TRAVELS
from ravska_core.meat import PORTION_G

from book.models.household import Household
from book.models.rows import Row, between, named, one_of


class Cook(Row):
    """The event: pieces that are seasoned, cooked and served at one time."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="cooks")
    name = models.CharField(max_length=80)
    serve_at = models.DateTimeField()
    in_hand = models.BooleanField(default=False)
    eaters = models.PositiveSmallIntegerField(null=True)
    appetite = models.CharField(max_length=8, default="usual")
    # pairs of hands in the kitchen
    people = models.PositiveSmallIntegerField(default=1)
    # eaten somewhere else: minutes on the way there, none where it is eaten here; hot, or cold
    away_min = models.PositiveSmallIntegerField(null=True)
    travels = models.CharField(max_length=4, default="hot")
    # what is grilled to order comes in so many waves, so far apart
    waves = models.PositiveSmallIntegerField(default=1)
    waves_min = models.PositiveSmallIntegerField(default=20)
    # tasks of its day by lane and key: when they were said to begin [min, 0 at serving], and when they were done
    pins = models.JSONField(default=dict, blank=True)
    ticks = models.JSONField(default=dict, blank=True)
    # the plan as it was kept: when, by which version, and its steps
    plan_was = models.JSONField(null=True)
    # what signs the address of its calendar; empty where it has none
    calendar_key = models.CharField(max_length=43, default="", blank=True)
    # what to do otherwise next time, and what was noted so on the cook this one was begun from
    note = models.TextField(default="", blank=True)
    noted = models.TextField(default="", blank=True)
    # what of it could not be read, by field, as typed; the columns hold what it was last read as
    unread = models.JSONField(default=dict, blank=True)
    version = models.PositiveIntegerField(default=1)
    deleted_at = models.DateTimeField(null=True)

    # counted by who loads it: cards that are in, and how many of them by who knew which was which
    handed_in: int
    knowing: int

    class Meta:
        ordering: ClassVar = ["-serve_at"]
        constraints: ClassVar = [
            named("name", "cook_named"),
            models.UniqueConstraint(
                fields=["household"], condition=Q(in_hand=True), name="one_cook_in_hand_a_household"
            ),
            models.CheckConstraint(condition=Q(in_hand=False) | Q(deleted_at__isnull=True), name="deleted_not_in_hand"),
            one_of("appetite", tuple(PORTION_G), "cook_appetite"),
            between("people", 1, 12, "cook_people"),
            models.CheckConstraint(
                condition=Q(away_min__isnull=True) | Q(away_min__gte=1, away_min__lte=1440), name="cook_away"
            ),
            one_of("travels", TRAVELS, "cook_travels"),
            between("waves", 1, 6, "cook_waves"),
            between("waves_min", 1, 180, "cook_waves_apart"),
            models.UniqueConstraint(fields=["calendar_key"], condition=~Q(calendar_key=""), name="one_cook_a_calendar"),
            models.CheckConstraint(
                condition=Q(eaters__isnull=True) | Q(eaters__gte=1, eaters__lte=500), name="cook_eaters"
            ),
        ]

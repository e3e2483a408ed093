"""Cooks: the event its pieces are served at."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
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
                condition=Q(eaters__isnull=True) | Q(eaters__gte=1, eaters__lte=500), name="cook_eaters"
            ),
        ]

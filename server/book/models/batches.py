"""Batches: a blend weighed out, pour by pour, and the jar it ends in.

A pour is only added, or taken back; what lies in the bowl is their sum, so that nothing weighed is lost.
"""

from collections.abc import Iterable
from typing import ClassVar
from uuid import UUID

from django.db import models
from django.db.models import Q
from django.utils import timezone

from book.models.blends import Blend, Revision
from book.models.household import Household
from book.models.rows import Row, above_zero, between, named, one_of

STATES = ("weighing", "mixed", "left")
POURS = ("weighed", "by hand", "spooned out", "corrected")


class Batch(Row):
    """A blend mixed once: which revision, how much was wanted, and where it stands.

    `resolution_g` is what the scale showed by; `taste` what was said before corrections.
    """

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="batches")
    blend = models.ForeignKey(Blend, on_delete=models.PROTECT, related_name="batches")
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, related_name="batches")
    name = models.CharField(max_length=80)
    wanted_g = models.FloatField()
    resolution_g = models.FloatField(default=0.1)
    state = models.CharField(max_length=8, default="weighing")
    version = models.PositiveIntegerField(default=1)
    started_at = models.DateTimeField(default=timezone.now)
    mixed_at = models.DateTimeField(null=True)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["-started_at"]
        constraints: ClassVar = [
            named("name", "batch_named"),
            one_of("state", STATES, "batch_state"),
            between("wanted_g", 0.5, 50_000, "batch_wanted"),
            models.CheckConstraint(
                condition=Q(state="mixed", mixed_at__isnull=False) | (~Q(state="mixed") & Q(mixed_at__isnull=True)),
                name="mixed_has_a_time",
            ),
        ]


class BatchLine(Row):
    """A line of a batch in the order it is weighed: what, and how much is wanted now [g].

    `line` is its place in the revision; what a correction brought in has none.
    """

    batch = models.ForeignKey(Batch, on_delete=models.CASCADE, related_name="lines")
    position = models.PositiveSmallIntegerField()
    line = models.PositiveSmallIntegerField(null=True)
    name = models.CharField(max_length=120)
    grind = models.CharField(max_length=80, default="", blank=True)
    wanted_g = models.FloatField()
    done = models.BooleanField(default=False)

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["batch", "position"], name="batch_line_position"),
            models.CheckConstraint(condition=Q(line__isnull=False) | ~Q(grind=""), name="batch_line_of_something"),
            between("wanted_g", 0, 60_000, "batch_line_wanted"),
        ]


class Pour(Row):
    """Something that went into the bowl, or came out again, at one time [g]; `number` is its place in the batch.

    A clock can be set back; the number cannot.
    """

    number = models.PositiveIntegerField()
    line = models.ForeignKey(BatchLine, on_delete=models.CASCADE, related_name="pours")
    grams = models.FloatField()
    how = models.CharField(max_length=12, default="weighed")
    at = models.DateTimeField(default=timezone.now)
    # the key a screen gives a pour, so that one sent twice counts once
    key = models.UUIDField(unique=True)

    class Meta:
        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["line", "number"], name="pour_number"),
            one_of("how", POURS, "pour_how"),
            models.CheckConstraint(
                condition=(Q(how="spooned out", grams__lt=0) & Q(grams__gte=-60_000))
                | (~Q(how="spooned out") & Q(grams__gt=0, grams__lte=60_000)),
                name="pour_only_spooned_out_is_taken",
            ),
        ]


class Jar(Row):
    """A batch on the shelf: how much of it is left [g], whether raw-meat hands touched it, and whether it is frozen."""

    batch = models.OneToOneField(Batch, on_delete=models.CASCADE, related_name="jar")
    size_ml = models.FloatField()
    left_g = models.FloatField()
    clean = models.BooleanField(default=True)  # type: ignore[assignment]  # a jar is clean; forms are not used here
    frozen = models.BooleanField(default=False)
    filled_at = models.DateTimeField(default=timezone.now)

    class Meta:
        constraints: ClassVar = [
            models.CheckConstraint(condition=above_zero("size_ml"), name="jar_size"),
            between("left_g", 0, 60_000, "jar_left"),
        ]


def in_jars_g(blends: Iterable[UUID]) -> dict[UUID, float]:
    """Return what clean jars hold of blends [g], by blend."""
    rows = Jar.objects.filter(batch__blend_id__in=list(blends), clean=True, batch__deleted_at__isnull=True)
    found: dict[UUID, float] = dict(rows.values_list("batch__blend_id").annotate(left=models.Sum("left_g")))
    return found

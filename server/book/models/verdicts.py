"""Verdicts across cooks: what a question's table chose before it looked, and what was decided."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from django.utils import timezone

from book.models.blends import Blend
from book.models.household import Household
from book.models.rows import Row, between, named, one_of

QUESTIONS = ("way", "blend", "revision")
"""What two ways can be: ways of seasoning, blends, or two revisions of a blend."""

DECIDED = ("keep", "change", "drop")


class Band(Row):
    """The difference that matters to a table in one question [points], chosen before it looked; half a point else."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="bands")
    kind = models.CharField(max_length=8)
    first = models.CharField(max_length=60)
    second = models.CharField(max_length=60)
    margin = models.FloatField()

    class Meta:
        constraints: ClassVar = [
            one_of("kind", QUESTIONS, "band_kind"),
            between("margin", 0.1, 3, "band_margin"),
            models.UniqueConstraint(fields=["household", "kind", "first", "second"], name="one_band_a_question"),
        ]


class Decision(Row):
    """What was decided of one side of a question, on one cut or all: keep, change or drop it, and why.

    `side` is the way or blend it is about as its question has it, `blend` the blend whose next revision it is written
    to, where it is of one. `verdict` is what was known then, in words.
    """

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="decisions")
    kind = models.CharField(max_length=8)
    first = models.CharField(max_length=60)
    second = models.CharField(max_length=60)
    side = models.CharField(max_length=60)
    cut = models.CharField(max_length=60, default="", blank=True)
    blend = models.ForeignKey(Blend, on_delete=models.PROTECT, null=True, related_name="decisions")
    what = models.CharField(max_length=8)
    reason = models.CharField(max_length=160)
    verdict = models.CharField(max_length=400, default="", blank=True)
    at = models.DateTimeField(default=timezone.now)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["-at"]
        constraints: ClassVar = [
            one_of("kind", QUESTIONS, "decision_kind"),
            one_of("what", DECIDED, "decision_what"),
            named("reason", "decision_reason"),
            models.CheckConstraint(condition=Q(side=models.F("first")) | Q(side=models.F("second")),
                                   name="decision_side"),
        ]  # fmt: skip

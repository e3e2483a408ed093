"""Weigh-backs: what a coat really weighed."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from django.utils import timezone

from book.models.household import Household
from book.models.layers import Layer
from book.models.rows import Row, above_zero, one_of


class WeighBack(Row):
    """What was weighed after a coat: what was taken, what is left, what fell off, and the coat that comes to."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="weigh_backs")
    layer = models.ForeignKey(Layer, on_delete=models.SET_NULL, null=True, related_name="weigh_backs")
    # as which kind of layer it went on: a paste lies heavier than a rub
    kind = models.CharField(max_length=16, default="rub")
    cut = models.CharField(max_length=60)
    surface = models.CharField(max_length=8)
    taken_g = models.FloatField()
    left_g = models.FloatField()
    fell_g = models.FloatField()
    pan_g = models.FloatField(default=0.0)
    # share of what was put on that stays; none where what fell and melted off was not looked for
    stays = models.FloatField(null=True)
    coat_g_100cm2 = models.FloatField()
    at = models.DateTimeField(default=timezone.now)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["at"]
        constraints: ClassVar = [
            one_of("kind", ("rub", "paste"), "weigh_back_kind"),
            models.CheckConstraint(
                condition=above_zero("taken_g")
                & Q(left_g__gte=0, fell_g__gte=0, pan_g__gte=0)
                & above_zero("coat_g_100cm2")
                & (Q(stays__isnull=True) | Q(stays__gte=0, stays__lte=1)),
                name="weigh_back_whole",
            ),
        ]

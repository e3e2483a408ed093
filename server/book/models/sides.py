"""Sides: what is cooked beside the meat, as typed, and who eats of all of it."""

from typing import ClassVar

from django.db import models
from ravska_core.day import MOST_SIDES

from book.models.cooks import Cook
from book.models.rows import Row, between, named
from book.models.trials import Taster


class SideDish(Row):
    """A side of a cook: `typed` is its document as it was typed."""

    cook = models.ForeignKey(Cook, on_delete=models.CASCADE, related_name="sides")
    position = models.PositiveSmallIntegerField()
    name = models.CharField(max_length=80)
    typed = models.JSONField(default=dict)

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            named("name", "side_named"),
            between("position", 0, MOST_SIDES - 1, "side_position"),
            models.UniqueConstraint(fields=["cook", "position"], name="one_side_a_place"),
        ]


class Seat(Row):
    """Somebody who eats at a cook."""

    cook = models.ForeignKey(Cook, on_delete=models.CASCADE, related_name="seats")
    taster = models.ForeignKey(Taster, on_delete=models.CASCADE, related_name="seats")

    class Meta:
        ordering: ClassVar = ["taster__nickname"]
        constraints: ClassVar = [models.UniqueConstraint(fields=["cook", "taster"], name="one_seat_a_taster")]

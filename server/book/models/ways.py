"""Ways: named stacks to start from, the household's own; the shipped ones stand in the core."""

from typing import ClassVar

from django.db import models
from django.utils import timezone

from book.models.household import Household
from book.models.layers import LayerRow, layer_constraints
from book.models.rows import Row, named


class Way(Row):
    """A named stack of the household's own to start from."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="ways")
    name = models.CharField(max_length=80)
    made_at = models.DateTimeField(default=timezone.now)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["name", "made_at"]
        constraints: ClassVar = [named("name", "way_named")]


class WayLayer(LayerRow):
    """One layer of a way."""

    way = models.ForeignKey(Way, on_delete=models.CASCADE, related_name="layers")

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["way", "position"], name="way_layer_position"),
            *layer_constraints("way_layer"),
        ]

"""Steps: what is done with a piece, from mixing to the plate."""

from typing import ClassVar

from django.db import models
from ravska_core.coat import STEP_KINDS

from book.models.layers import Layer
from book.models.pieces import Piece
from book.models.rows import Row, between, one_of


class Step(Row):
    """A step of a piece. One of a layer lasts as long as that is held; the others say for themselves.

    It keeps its key as long as the piece has a step of its kind for its layer, so that what was noted can point at it.
    """

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="steps")
    position = models.PositiveSmallIntegerField()
    kind = models.CharField(max_length=8)
    layer = models.ForeignKey(Layer, on_delete=models.SET_NULL, null=True, related_name="steps")
    lasts_s = models.FloatField()
    done_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["piece", "position"], name="step_position"),
            one_of("kind", STEP_KINDS, "step_kind"),
            between("lasts_s", 0, 7 * 86_400, "step_lasts"),
        ]

    def length_s(self) -> float:
        """Return how long the step lasts [s]: its layer's hold where it has one."""
        if self.layer is not None and self.layer.hold_s is not None:
            return self.layer.hold_s
        return self.lasts_s

"""Layers: what is put on a piece, one after another."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from ravska_core.coat import AFTER_BATH, LAYER_KINDS, plain
from ravska_core.coat import Layer as CoreLayer
from ravska_core.measure import Amount
from ravska_core.meat import PLACES

from book.models.blends import Blend, Revision
from book.models.pieces import Piece
from book.models.rows import Row, above_zero, between, one_of
from book.models.values import injection_from


def layer_constraints(of: str) -> list[models.CheckConstraint]:
    """Return what must hold for a row of layers: a kind, what goes on, a dose unless it is the rest, and a hold."""
    held = [key for key, kind in LAYER_KINDS.items() if kind.hold_s is not None]
    return [
        one_of("kind", tuple(LAYER_KINDS), f"{of}_kind"),
        models.CheckConstraint(
            condition=Q(blend__isnull=False, grind="")
            | (Q(blend__isnull=True) & ~Q(grind=""))
            | Q(kind="drippings", blend__isnull=True, grind=""),
            name=f"{of}_of_blend_or_grind",
        ),
        models.CheckConstraint(condition=Q(dose__isnull=True) | Q(dose__gt=0), name=f"{of}_dose"),
        models.CheckConstraint(condition=~Q(kind__in=held) | above_zero("hold_s"), name=f"{of}_held"),
        one_of("after", tuple(AFTER_BATH), f"{of}_after"),
        one_of("place", ("", *PLACES), f"{of}_place"),
        between("times", 1, 40, f"{of}_times"),
        models.CheckConstraint(
            condition=Q(reserve__isnull=True, reserve_unit="")
            | (above_zero("reserve") & Q(reserve_unit__in=["g", "ml"])),
            name=f"{of}_reserve",
        ),
    ]


class LayerRow(Row):
    """What a layer says of itself, on a piece or in a way to start from. A dose of none is the rest to the target."""

    position = models.PositiveSmallIntegerField()
    kind = models.CharField(max_length=16)
    blend = models.ForeignKey(Blend, on_delete=models.PROTECT, null=True, related_name="%(class)ss")
    grind = models.CharField(max_length=80, default="", blank=True)
    dose = models.FloatField(null=True)
    dose_typed = models.CharField(max_length=40, default="", blank=True)
    vessel = models.CharField(max_length=12, default="", blank=True)
    hold_s = models.FloatField(null=True)
    hold_typed = models.CharField(max_length=40, default="", blank=True)
    hold_c = models.FloatField(default=4.0)
    hold_c_typed = models.CharField(max_length=40, default="", blank=True)
    place = models.CharField(max_length=12, default="", blank=True)
    into_pot = models.BooleanField(default=False)
    stays = models.FloatField(null=True)
    stays_typed = models.CharField(max_length=40, default="", blank=True)
    after = models.CharField(max_length=8, default="wiped")
    eaten = models.FloatField(null=True)
    eaten_typed = models.CharField(max_length=40, default="", blank=True)
    times = models.PositiveSmallIntegerField(default=1)
    reserve = models.FloatField(null=True)
    reserve_unit = models.CharField(max_length=2, default="", blank=True)
    reserve_typed = models.CharField(max_length=40, default="", blank=True)
    injection = models.JSONField(default=dict, blank=True)

    class Meta:
        abstract = True

    def as_core(self, revision: Revision | None = None) -> CoreLayer:
        blend = None
        if self.blend is not None:
            blend = self.blend.as_core(revision)
        elif self.grind:
            blend = plain(self.grind)
        return CoreLayer(
            self.kind, blend, self.dose, self.hold_s or 0.0, self.hold_c, self.stays, self.after, self.eaten,
            self.times, Amount(self.reserve, self.reserve_unit) if self.reserve is not None else None,
            injection_from(self.injection), self.place, self.into_pot,
        )  # fmt: skip


class Layer(LayerRow):
    """One thing put on a piece. It follows its blend's draft until it is mixed; then it pins that revision."""

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="layers")
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, null=True, related_name="layers")

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["piece", "position"], name="layer_position"),
            *layer_constraints("layer"),
        ]

    def as_core(self, revision: Revision | None = None) -> CoreLayer:
        return super().as_core(self.revision if revision is None else revision)

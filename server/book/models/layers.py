"""Layers: what is put on a piece, one after another."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from ravska_core.coat import AFTER_BATH, LAYER_KINDS, SHARED, Portion, plain
from ravska_core.coat import Layer as CoreLayer
from ravska_core.measure import Amount
from ravska_core.meat import PLACES

from book.models.batches import in_jars_g
from book.models.blends import Blend, Revision
from book.models.pieces import Piece
from book.models.rows import Row, above_zero, between, one_of
from book.models.values import injection_from, weighed_from


def layer_constraints(of: str) -> list[models.CheckConstraint]:
    """Return what must hold for a row of layers: a kind, what goes on, a dose unless it is the rest, and a hold."""
    held = [key for key, kind in LAYER_KINDS.items() if kind.hold_s is not None]
    return [
        one_of("kind", tuple(LAYER_KINDS), f"{of}_kind"),
        models.CheckConstraint(
            condition=Q(blend__isnull=False, grind="")
            | (Q(blend__isnull=True) & ~Q(grind=""))
            | Q(kind__in=("drippings", "cooking liquid"), blend__isnull=True, grind=""),
            name=f"{of}_of_blend_or_grind",
        ),
        models.CheckConstraint(condition=Q(dose__isnull=True) | Q(dose__gt=0), name=f"{of}_dose"),
        one_of("dose_unit", ("", "g", "ml", *SHARED), f"{of}_dose_unit"),
        one_of("dose_per", ("", "kg", "100 cm²"), f"{of}_dose_per"),
        models.CheckConstraint(
            condition=(Q(dose_unit="", dose_per="", dose_rest=False) | Q(dose__isnull=False))
            & (Q(dose_rest=False) | Q(dose_unit__in=SHARED))
            & (~Q(dose_unit__in=SHARED) | Q(dose__lte=1, dose_per="")),
            name=f"{of}_portion",
        ),
        models.CheckConstraint(
            condition=Q(mixed_g__isnull=True) | (above_zero("mixed_g") & Q(dose_unit__in=SHARED)), name=f"{of}_mixed"
        ),
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
    """What a layer says of itself, on a piece or in a way to start from. A dose of none is the rest to the target.

    A dose counts on the dial of its kind, or in `dose_unit`; `mixed_g` is what a share came to when it was mixed [g].
    """

    position = models.PositiveSmallIntegerField()
    kind = models.CharField(max_length=16)
    blend = models.ForeignKey(Blend, on_delete=models.PROTECT, null=True, related_name="%(class)ss")
    grind = models.CharField(max_length=80, default="", blank=True)
    dose = models.FloatField(null=True)
    dose_typed = models.CharField(max_length=40, default="", blank=True)
    dose_unit = models.CharField(max_length=5, default="", blank=True)
    dose_per = models.CharField(max_length=8, default="", blank=True)
    dose_error = models.FloatField(default=0.0)
    dose_rest = models.BooleanField(default=False)
    mixed_g = models.FloatField(null=True)
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
    # what was weighed of a bath
    weighed = models.JSONField(default=dict, blank=True)

    class Meta:
        abstract = True

    def portion(self) -> Portion | None:
        """Return how much goes on where that is not set on the dial; what was mixed follows its batch no more."""
        if not self.dose_unit or self.dose is None:
            return None
        if self.mixed_g is not None:
            return Portion(self.mixed_g, "g")
        holds_g = None
        if self.dose_unit == "jar" and self.blend_id is not None:
            holds_g = in_jars_g([self.blend_id]).get(self.blend_id)
        return Portion(self.dose, self.dose_unit, self.dose_error, self.dose_per, self.dose_rest, holds_g)

    def as_core(self, revision: Revision | None = None) -> CoreLayer:
        blend = None
        if self.blend is not None:
            blend = self.blend.as_core(revision)
        elif self.grind:
            blend = plain(self.grind)
        return CoreLayer(
            self.kind, blend, None if self.dose_unit else self.dose, self.hold_s or 0.0, self.hold_c, self.stays,
            self.after, self.eaten, self.times,
            Amount(self.reserve, self.reserve_unit) if self.reserve is not None else None,
            injection_from(self.injection), self.place, self.into_pot, self.portion(), weighed_from(self.weighed),
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

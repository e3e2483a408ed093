"""Cooks: the event, its pieces, their layers and steps."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from ravska_core import coat as core_coat
from ravska_core import cuts as core_cuts
from ravska_core.doses import ADHESION_CEILING, VESSELS
from ravska_core.schedule import STEP_KINDS

from book.models.blends import Blend, Revision
from book.models.household import Household
from book.models.rows import Row, above_zero, between, named, one_of

LAYER_KINDS = ("rub", "marinade", "salt")


class Cook(Row):
    """The event: pieces that are seasoned, cooked and served at one time."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="cooks")
    name = models.CharField(max_length=80)
    serve_at = models.DateTimeField()
    in_hand = models.BooleanField(default=False)
    version = models.PositiveIntegerField(default=1)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["-serve_at"]
        constraints: ClassVar = [
            named("name", "cook_named"),
            models.UniqueConstraint(
                fields=["household"], condition=Q(in_hand=True), name="one_cook_in_hand_a_household"
            ),
            models.CheckConstraint(condition=Q(in_hand=False) | Q(deleted_at__isnull=True), name="deleted_not_in_hand"),
        ]


class Piece(Row):
    """Meat on the board."""

    cook = models.ForeignKey(Cook, on_delete=models.CASCADE, related_name="pieces")
    cut = models.CharField(max_length=60)
    mass_g = models.FloatField()
    mass_typed = models.CharField(max_length=40)
    count = models.PositiveSmallIntegerField(default=1)
    coat_bare_face = models.BooleanField(default=False)
    length_typed = models.CharField(max_length=40, default="", blank=True)
    width_typed = models.CharField(max_length=40, default="", blank=True)
    thickness_typed = models.CharField(max_length=40, default="", blank=True)
    length_cm = models.FloatField(null=True)
    width_cm = models.FloatField(null=True)
    thickness_cm = models.FloatField(null=True)

    class Meta:
        constraints: ClassVar = [
            named("cut", "piece_cut"),
            between("mass_g", 1, 100_000, "piece_mass"),
            between("count", 1, 200, "piece_count"),
            models.CheckConstraint(
                condition=Q(length_cm__isnull=True, width_cm__isnull=True, thickness_cm__isnull=True)
                | (above_zero("length_cm") & above_zero("width_cm") & above_zero("thickness_cm")),
                name="piece_measured_whole_or_not",
            ),
        ]

    def as_core(self) -> core_cuts.Piece:
        measures = None
        if self.length_cm is not None and self.width_cm is not None and self.thickness_cm is not None:
            measures = core_cuts.Measures(self.length_cm, self.width_cm, self.thickness_cm)
        return core_cuts.Piece(self.cut, self.mass_g, self.count, self.coat_bare_face, measures)


class Layer(Row):
    """One thing put on a piece. It follows its blend's draft until it is mixed; then it pins that revision."""

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="layers")
    position = models.PositiveSmallIntegerField()
    kind = models.CharField(max_length=10)
    blend = models.ForeignKey(Blend, on_delete=models.PROTECT, null=True, related_name="layers")
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, null=True, related_name="layers")
    coat_g_100cm2 = models.FloatField(null=True)
    surface = models.CharField(max_length=10, default="", blank=True)
    vessel = models.CharField(max_length=12, default="", blank=True)
    grind = models.CharField(max_length=80, default="", blank=True)
    percent = models.FloatField(null=True)
    hold_s = models.FloatField(null=True)
    hold_typed = models.CharField(max_length=40, default="", blank=True)
    hold_c = models.FloatField(default=4.0)

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["piece", "position"], name="layer_position"),
            models.CheckConstraint(
                condition=(
                    Q(kind="rub", blend__isnull=False, surface__in=list(ADHESION_CEILING))
                    & above_zero("coat_g_100cm2")
                    & above_zero("hold_s")
                )
                | (Q(kind="marinade", blend__isnull=False, vessel__in=list(VESSELS)) & above_zero("hold_s"))
                | (Q(kind="salt", blend__isnull=True) & above_zero("percent") & ~Q(grind="")),
                name="layer_whole",
            ),
        ]

    def as_core(self) -> core_coat.Layer:
        if self.kind == "salt":
            return core_coat.SaltLayer(self.grind, self.percent or 0.0)
        assert self.blend is not None
        blend = self.blend.as_core(self.revision)
        hold_s = self.hold_s or 0.0
        if self.kind == "rub":
            return core_coat.RubLayer(blend, self.coat_g_100cm2 or 0.0, self.surface, hold_s, self.hold_c)
        return core_coat.MarinadeLayer(blend, self.vessel, hold_s, self.hold_c)


class Step(Row):
    """A step of a piece. A coat or a bag lasts as long as its layer is held; the others say for themselves."""

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
        """Return how long the step lasts [s]: its layer's hold for a coat or a bag."""
        if self.kind in ("coat", "bag") and self.layer is not None and self.layer.hold_s is not None:
            return self.layer.hold_s
        return self.lasts_s

"""Cooks: the event, its pieces, their layers and steps; and stacks of layers to copy from."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from django.utils import timezone
from ravska_core.catalogue import Bone
from ravska_core.coat import AFTER_BATH, LAYER_KINDS, STEP_KINDS, injection_of, plain
from ravska_core.coat import Layer as CoreLayer
from ravska_core.measure import parse_amount
from ravska_core.meat import CUT_INTO, GRADES, PLACES, PORTION_G, Measures, Stage
from ravska_core.meat import Piece as CorePiece

from book.models.blends import Blend, Revision
from book.models.household import Household
from book.models.rows import Row, above_zero, between, named, one_of


class Cook(Row):
    """The event: pieces that are seasoned, cooked and served at one time."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="cooks")
    name = models.CharField(max_length=80)
    serve_at = models.DateTimeField()
    in_hand = models.BooleanField(default=False)
    eaters = models.PositiveSmallIntegerField(null=True)
    appetite = models.CharField(max_length=8, default="usual")
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
            one_of("appetite", tuple(PORTION_G), "cook_appetite"),
            models.CheckConstraint(
                condition=Q(eaters__isnull=True) | Q(eaters__gte=1, eaters__lte=500), name="cook_eaters"
            ),
        ]


class Piece(Row):
    """Meat on the board."""

    cook = models.ForeignKey(Cook, on_delete=models.CASCADE, related_name="pieces")
    cut = models.CharField(max_length=60)
    mass_g = models.FloatField()
    mass_typed = models.CharField(max_length=40)
    untrimmed_g = models.FloatField(null=True)
    untrimmed_typed = models.CharField(max_length=40, default="", blank=True)
    count = models.PositiveSmallIntegerField(default=1)
    grade = models.CharField(max_length=10, default="ordinary")
    faces = models.JSONField(default=dict, blank=True)
    surface = models.CharField(max_length=6, default="moist")
    length_typed = models.CharField(max_length=40, default="", blank=True)
    width_typed = models.CharField(max_length=40, default="", blank=True)
    thickness_typed = models.CharField(max_length=40, default="", blank=True)
    length_cm = models.FloatField(null=True)
    width_cm = models.FloatField(null=True)
    thickness_cm = models.FloatField(null=True)
    cut_into = models.CharField(max_length=8, default="", blank=True)
    cut_cm = models.FloatField(null=True)
    cut_typed = models.CharField(max_length=40, default="", blank=True)
    thin_cm = models.FloatField(null=True)
    thin_typed = models.CharField(max_length=40, default="", blank=True)
    endpoint_c = models.FloatField(null=True)
    endpoint_typed = models.CharField(max_length=40, default="", blank=True)
    pierced = models.BooleanField(default=False)
    bones = models.JSONField(default=list, blank=True)
    target_percent = models.FloatField(null=True)
    target_typed = models.CharField(max_length=40, default="", blank=True)
    stages = models.JSONField(default=list, blank=True)

    class Meta:
        constraints: ClassVar = [
            named("cut", "piece_cut"),
            between("mass_g", 1, 100_000, "piece_mass"),
            between("count", 1, 200, "piece_count"),
            one_of("grade", tuple(GRADES), "piece_grade"),
            one_of("surface", ("moist", "dry"), "piece_surface"),
            models.CheckConstraint(
                condition=Q(length_cm__isnull=True, width_cm__isnull=True, thickness_cm__isnull=True)
                | (above_zero("length_cm") & above_zero("width_cm") & above_zero("thickness_cm")),
                name="piece_measured_whole_or_not",
            ),
            models.CheckConstraint(
                condition=Q(cut_into="", cut_cm__isnull=True) | (Q(cut_into__in=CUT_INTO) & above_zero("cut_cm")),
                name="piece_cut_up_or_not",
            ),
            models.CheckConstraint(
                condition=Q(endpoint_c__isnull=True) | Q(endpoint_c__gte=30, endpoint_c__lte=100), name="piece_endpoint"
            ),
        ]

    def as_core(self) -> CorePiece:
        measures = None
        if self.length_cm is not None and self.width_cm is not None and self.thickness_cm is not None:
            measures = Measures(self.length_cm, self.width_cm, self.thickness_cm)
        return CorePiece(
            self.cut, self.mass_g, self.count, self.untrimmed_g, self.grade, self.faces, self.surface, measures,
            self.cut_into, self.cut_cm, self.thin_cm, self.endpoint_c, self.pierced,
            tuple(Bone(*rod) for rod in self.bones),
            tuple(Stage(one["what"], one["place"], one["hold_c"], one["hold_s"]) for one in self.stages),
        )  # fmt: skip


def _layer_constraints(of: str) -> list[models.CheckConstraint]:
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
    ]


class LayerRow(Row):
    """What a layer says of itself, on a piece or in a stack to copy from. A dose of none is the rest to the target."""

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
            self.times, parse_amount(self.reserve_typed, "reserve") if self.reserve_typed else None,
            injection_of(self.injection), self.place, self.into_pot,
        )  # fmt: skip


class Layer(LayerRow):
    """One thing put on a piece. It follows its blend's draft until it is mixed; then it pins that revision."""

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="layers")
    revision = models.ForeignKey(Revision, on_delete=models.PROTECT, null=True, related_name="layers")

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["piece", "position"], name="layer_position"),
            *_layer_constraints("layer"),
        ]

    def as_core(self, revision: Revision | None = None) -> CoreLayer:
        return super().as_core(self.revision if revision is None else revision)


class Stack(Row):
    """A named list of layers to copy from."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="stacks")
    name = models.CharField(max_length=80)
    made_at = models.DateTimeField(default=timezone.now)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["name", "made_at"]
        constraints: ClassVar = [named("name", "stack_named")]


class StackLayer(LayerRow):
    """One layer of a named stack."""

    stack = models.ForeignKey(Stack, on_delete=models.CASCADE, related_name="layers")

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["stack", "position"], name="stack_layer_position"),
            *_layer_constraints("stack_layer"),
        ]


class WeighBack(Row):
    """What was weighed after a coat: what was taken, what is left, what fell off, and the coat that comes to."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="weigh_backs")
    layer = models.ForeignKey(Layer, on_delete=models.SET_NULL, null=True, related_name="weigh_backs")
    cut = models.CharField(max_length=60)
    surface = models.CharField(max_length=8)
    taken_g = models.FloatField()
    left_g = models.FloatField()
    fell_g = models.FloatField()
    coat_g_100cm2 = models.FloatField()
    at = models.DateTimeField(default=timezone.now)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["at"]
        constraints: ClassVar = [
            models.CheckConstraint(
                condition=above_zero("taken_g") & Q(left_g__gte=0, fell_g__gte=0) & above_zero("coat_g_100cm2"),
                name="weigh_back_whole",
            )
        ]


class Step(Row):
    """A step of a piece. One of a layer lasts as long as that is held; the others say for themselves."""

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

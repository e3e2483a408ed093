"""The household's book: what is kept, with its rules in the database.

Ingredients and cuts are named by their catalogue keys. Amounts are canonical (g, cm, s, C);
beside them stands what the cook typed, to be shown back as typed.
"""

import uuid
from collections.abc import Iterable
from fractions import Fraction
from typing import ClassVar

from django.db import models
from django.db.models import F, Q
from django.db.models.functions import Length
from django.utils import timezone
from ravska_core import balance as core_balance
from ravska_core import blends as core_blends
from ravska_core import coat as core_coat
from ravska_core import cuts as core_cuts
from ravska_core.blends import KINDS
from ravska_core.doses import ADHESION_CEILING, VESSELS
from ravska_core.ratios import TOTALS, WRITTEN
from ravska_core.schedule import STEP_KINDS
from ravska_core.spoons import SPOON_SETS

models.CharField.register_lookup(Length)

LAYER_KINDS = ("rub", "marinade", "salt")


def _one_of(field: str, values: tuple[str, ...] | list[str], name: str) -> models.CheckConstraint:
    return models.CheckConstraint(condition=Q(**{f"{field}__in": list(values)}), name=name)


def _between(field: str, low: float, high: float, name: str) -> models.CheckConstraint:
    return models.CheckConstraint(condition=Q(**{f"{field}__gte": low, f"{field}__lte": high}), name=name)


def _above_zero(field: str) -> Q:
    # said twice, as a check that comes to NULL lets the row in
    return Q(**{f"{field}__isnull": False, f"{field}__gt": 0})


def _named(field: str, name: str) -> models.CheckConstraint:
    return models.CheckConstraint(condition=Q(**{f"{field}__length__gte": 1}), name=name)


class Row(models.Model):
    """A row with a key that stays unique when books are merged."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)

    class Meta:
        abstract = True


class Household(Row):
    """Who owns the book."""

    name = models.CharField(max_length=80)

    class Meta:
        constraints: ClassVar = [_named("name", "household_named")]


class Preferences(Row):
    """How this household reads numbers and looks at screens."""

    household = models.OneToOneField(Household, on_delete=models.CASCADE, related_name="preferences")
    units = models.CharField(max_length=8, default="metric")
    temperature = models.CharField(max_length=1, default="C")
    spoon_set = models.CharField(max_length=12, default="us")
    theme = models.CharField(max_length=8, default="enamel")
    single_keys = models.BooleanField(default=True)

    class Meta:
        constraints: ClassVar = [
            _one_of("units", ("us", "metric"), "preferences_units"),
            _one_of("temperature", ("C", "F"), "preferences_temperature"),
            _one_of("spoon_set", list(SPOON_SETS), "preferences_spoons"),
            _one_of("theme", ("enamel", "iron"), "preferences_theme"),
        ]


class Price(Row):
    """What the household pays for an ingredient, instead of the catalogue's estimate."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="prices")
    ingredient = models.CharField(max_length=60)
    per_100g = models.FloatField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["household", "ingredient"], name="one_price_an_ingredient"),
            _named("ingredient", "price_ingredient"),
            _between("per_100g", 0, 10_000, "price_in_range"),
        ]


class BlendSet(models.QuerySet["Blend"]):
    def with_drafts(self) -> "BlendSet":
        """Load the working drafts with their lines; kept revisions stay where they are."""
        drafts = Revision.objects.filter(kept_at__isnull=True).prefetch_related("lines")
        return self.prefetch_related(models.Prefetch("revisions", queryset=drafts, to_attr="drafts"))


class Blend(Row):
    """A mixture by ratio: one working draft, and the revisions that were kept."""

    objects = BlendSet.as_manager()

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="blends")
    name = models.CharField(max_length=80)
    kind = models.CharField(max_length=20)
    fire = models.CharField(max_length=12, default="", blank=True)
    batch_g = models.FloatField(default=100.0)
    batch_typed = models.CharField(max_length=40, default="100 g")
    version = models.PositiveIntegerField(default=1)
    created_at = models.DateTimeField(default=timezone.now)
    archived_at = models.DateTimeField(null=True)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["created_at", "name"]
        constraints: ClassVar = [
            _named("name", "blend_named"),
            _one_of("kind", KINDS, "blend_kind"),
            _one_of("fire", ("", *core_blends.FIRES), "blend_fire"),
            _between("batch_g", core_blends.LOWEST_BATCH_G, core_blends.HIGHEST_BATCH_G, "blend_batch"),
        ]

    def draft(self) -> "Revision":
        """Return the working draft, the one loaded by `BlendSet.with_drafts` when it was."""
        loaded: list[Revision] | None = getattr(self, "drafts", None)
        return loaded[0] if loaded else self.revisions.get(kept_at__isnull=True)

    def as_core(
        self, revision: "Revision | None" = None, met: dict[uuid.UUID, core_blends.Blend] | None = None, depth: int = 0
    ) -> core_blends.Blend:
        """Return the blend as the core reads it, from a kept revision or else its draft.

        `met` gathers the blends inside by the key of their revision or draft, so that each is built once.
        """
        of = revision or self.draft()
        met = {} if met is None else met
        if of.pk not in met:
            lines: tuple[core_blends.Line, ...] = ()
            if depth <= core_blends.DEEPEST:  # the core refuses what lies deeper
                lines = tuple(line.as_core(met, depth) for line in of.lines.all())
            met[of.pk] = core_blends.Blend(self.kind, lines, self.batch_g, self.name, self.fire)
        return met[of.pk]

    def keep(self, note: str) -> "Revision":
        """Keep the draft as an immutable revision and go on with a copy; the same lines are not kept twice.

        Blends inside are kept first, and the revision pins the states they were in.
        """
        draft = self.draft()
        lines = list(draft.lines.select_related("inside"))
        for line in lines:
            if line.inside is not None:
                line.inside_revision = line.inside.keep(f"inside {self.name}"[:200])
        parent = draft.parent
        if parent is not None and [x.content() for x in parent.lines.all()] == [x.content() for x in lines]:
            return parent
        last = self.revisions.aggregate(last=models.Max("number"))["last"] or 0
        draft.number, draft.note, draft.kept_at = last + 1, note, timezone.now()
        draft.save()
        Line.objects.bulk_update(lines, ["inside_revision"])
        self.follow(draft)
        return draft

    def follow(self, kept: "Revision") -> "Revision":
        """Go on from a kept revision, of this blend or of the one it branches from, with a draft of the same lines."""
        self.revisions.filter(kept_at__isnull=True).delete()
        draft = Revision.objects.create(blend=self, parent=kept, written=kept.written, base=kept.base, total=kept.total)
        Line.objects.bulk_create(line.copy_to(draft) for line in kept.lines.all())
        self.drafts = [draft]
        return draft


class Revision(Row):
    """A state of a blend's lines: the working draft while not kept, immutable afterwards.

    `written` says how the numbers read, `base` which line counts 1 when they are relative.
    """

    blend = models.ForeignKey(Blend, on_delete=models.CASCADE, related_name="revisions")
    parent = models.ForeignKey("self", on_delete=models.PROTECT, null=True, related_name="children")
    number = models.PositiveIntegerField(null=True)
    note = models.CharField(max_length=200, default="", blank=True)
    written = models.CharField(max_length=8, default="parts")
    base = models.PositiveSmallIntegerField(default=0)
    total = models.CharField(max_length=5, default="free")
    kept_at = models.DateTimeField(null=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["blend"], condition=Q(kept_at__isnull=True), name="one_draft_a_blend"),
            models.UniqueConstraint(fields=["blend", "number"], name="revision_number"),
            models.CheckConstraint(
                condition=Q(kept_at__isnull=True, number__isnull=True) | Q(kept_at__isnull=False, number__isnull=False),
                name="kept_is_numbered",
            ),
            _one_of("written", WRITTEN, "revision_written"),
            _one_of("total", TOTALS, "revision_total"),
        ]


class Line(Row):
    """A line of a revision: a grind or a blend inside, and how many parts of it, exactly and as typed.

    A draft's line follows the draft of the blend inside; a kept one pins its revision.
    """

    revision = models.ForeignKey(Revision, on_delete=models.CASCADE, related_name="lines")
    position = models.PositiveSmallIntegerField()
    grind = models.CharField(max_length=80, default="", blank=True)
    inside = models.ForeignKey(Blend, on_delete=models.PROTECT, null=True, related_name="within")
    inside_revision = models.ForeignKey(Revision, on_delete=models.PROTECT, null=True, related_name="within")
    parts_numerator = models.BigIntegerField()
    parts_denominator = models.BigIntegerField()
    parts_typed = models.CharField(max_length=40)
    exact_typed = models.CharField(max_length=40, default="", blank=True)
    basis = models.CharField(max_length=8, default="spoon")
    lock = models.CharField(max_length=8, default="", blank=True)
    least_percent = models.FloatField(null=True)
    most_percent = models.FloatField(null=True)

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["revision", "position"], name="line_position"),
            models.CheckConstraint(
                condition=Q(parts_numerator__gt=0, parts_denominator__gt=0), name="line_parts_above_zero"
            ),
            _one_of("basis", core_blends.BASES, "line_basis"),
            _one_of("lock", core_blends.LOCKS, "line_lock"),
            models.CheckConstraint(
                condition=(Q(grind__length__gte=1) & Q(inside__isnull=True)) | (Q(grind="") & Q(inside__isnull=False)),
                name="line_grind_or_blend",
            ),
            models.CheckConstraint(
                condition=Q(inside_revision__isnull=True) | Q(inside__isnull=False), name="line_pins_what_it_holds"
            ),
        ]

    def content(self) -> tuple[object, ...]:
        return (
            self.grind, self.inside_id, self.inside_revision_id, self.parts_numerator, self.parts_denominator,
            self.basis,
        )  # fmt: skip

    def as_core(self, met: dict[uuid.UUID, core_blends.Blend] | None = None, depth: int = 0) -> core_blends.Line:
        inside = self.inside.as_core(self.inside_revision, met, depth + 1) if self.inside is not None else None
        parts = Fraction(self.parts_numerator, self.parts_denominator)
        return core_blends.Line(self.grind, parts, self.basis, self.lock, inside)

    def copy_to(self, revision: Revision) -> "Line":
        """Return a copy of the line for a draft, which follows the blend inside again."""
        return Line(
            revision=revision,
            position=self.position,
            grind=self.grind,
            inside_id=self.inside_id,
            parts_numerator=self.parts_numerator,
            parts_denominator=self.parts_denominator,
            parts_typed=self.parts_typed,
            exact_typed=self.exact_typed,
            basis=self.basis,
            lock=self.lock,
            least_percent=self.least_percent,
            most_percent=self.most_percent,
        )


def load_inside(lines: Iterable[Line]) -> None:
    """Load the blends inside lines, and those inside them, in a few queries a level."""
    waiting = [line for line in lines if line.inside_id]
    for _ in range(core_blends.DEEPEST + 1):
        if not waiting:
            return
        models.prefetch_related_objects(
            waiting,
            models.Prefetch("inside", queryset=Blend.objects.with_drafts()),
            models.Prefetch("inside_revision", queryset=Revision.objects.prefetch_related("lines")),
        )
        waiting = [
            inner
            for line in waiting
            if line.inside is not None
            for inner in (line.inside_revision or line.inside.draft()).lines.all()
            if inner.inside_id
        ]


class Target(Row):
    """What a blend is aimed at: at least and at most, in the unit of its scale."""

    blend = models.ForeignKey(Blend, on_delete=models.CASCADE, related_name="targets")
    what = models.CharField(max_length=10)
    low = models.FloatField(null=True)
    high = models.FloatField(null=True)

    class Meta:
        ordering: ClassVar = ["what"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["blend", "what"], name="one_target_a_scale"),
            _one_of("what", core_balance.TARGETS, "target_what"),
            models.CheckConstraint(
                condition=Q(low__isnull=True) | Q(high__isnull=True) | Q(low__lte=F("high")), name="target_in_order"
            ),
        ]


class Use(Row):
    """What some of a blend's batch is planned for: by a weight, or by what a blend or a layer takes (`of`)."""

    blend = models.ForeignKey(Blend, on_delete=models.CASCADE, related_name="uses")
    position = models.PositiveSmallIntegerField()
    name = models.CharField(max_length=80)
    of = models.CharField(max_length=60, default="", blank=True)
    mass_g = models.FloatField(null=True)
    mass_typed = models.CharField(max_length=40, default="", blank=True)

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["blend", "position"], name="use_position"),
            models.CheckConstraint(condition=~Q(of="") | _above_zero("mass_g"), name="use_of_or_mass"),
        ]


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
            _named("name", "cook_named"),
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
            _named("cut", "piece_cut"),
            _between("mass_g", 1, 100_000, "piece_mass"),
            _between("count", 1, 200, "piece_count"),
            models.CheckConstraint(
                condition=Q(length_cm__isnull=True, width_cm__isnull=True, thickness_cm__isnull=True)
                | (_above_zero("length_cm") & _above_zero("width_cm") & _above_zero("thickness_cm")),
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
                    & _above_zero("coat_g_100cm2")
                    & _above_zero("hold_s")
                )
                | (Q(kind="marinade", blend__isnull=False, vessel__in=list(VESSELS)) & _above_zero("hold_s"))
                | (Q(kind="salt", blend__isnull=True) & _above_zero("percent") & ~Q(grind="")),
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
            _one_of("kind", STEP_KINDS, "step_kind"),
            _between("lasts_s", 0, 7 * 86_400, "step_lasts"),
        ]

    def length_s(self) -> float:
        """Return how long the step lasts [s]: its layer's hold for a coat or a bag."""
        if self.kind in ("coat", "bag") and self.layer is not None and self.layer.hold_s is not None:
            return self.layer.hold_s
        return self.lasts_s


class Trial(Row):
    """What a cook compares: a question, the one factor that should differ, and the seed of its shuffling.

    It has no version: cards are only added, taken back or put in again, from several phones at once.
    """

    cook = models.OneToOneField(Cook, on_delete=models.CASCADE, related_name="trial")
    question = models.CharField(max_length=200)
    factor = models.CharField(max_length=80, default="seasoning")
    seed = models.BigIntegerField()
    revealed_at = models.DateTimeField(null=True)


class Arm(Row):
    """One side of a trial, with its piece and the code it is tasted under."""

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="arms")
    label = models.CharField(max_length=1)
    name = models.CharField(max_length=40)
    piece = models.OneToOneField(Piece, on_delete=models.PROTECT, related_name="arm")

    class Meta:
        ordering: ClassVar = ["label"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["trial", "label"], name="arm_label"),
            _one_of("label", tuple("ABCDEFGH"), "arm_letter"),
            _named("name", "arm_named"),
        ]

    def as_core(self) -> core_coat.Arm:
        return core_coat.Arm(self.label, self.piece.as_core(), tuple(x.as_core() for x in self.piece.layers.all()))


class Sample(Row):
    """An arm as tasters meet it: a three-digit code."""

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="samples")
    arm = models.OneToOneField(Arm, on_delete=models.CASCADE, related_name="sample")
    code = models.CharField(max_length=3)

    class Meta:
        constraints: ClassVar = [models.UniqueConstraint(fields=["trial", "code"], name="sample_code")]


class Taster(Row):
    """Who tastes, by nickname."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="tasters")
    nickname = models.CharField(max_length=40)

    class Meta:
        ordering: ClassVar = ["nickname"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["household", "nickname"], name="taster_nickname"),
            _named("nickname", "taster_named"),
        ]


class Card(Row):
    """One taster's card at a trial: the order served, scores, and which sample was preferred, if any."""

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="cards")
    taster = models.ForeignKey(Taster, on_delete=models.PROTECT, related_name="cards")
    number = models.PositiveSmallIntegerField()
    served = models.JSONField()
    prefers = models.ForeignKey(Sample, on_delete=models.PROTECT, null=True, related_name="+")
    blind = models.BooleanField()
    scored_at = models.DateTimeField(default=timezone.now)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["trial", "taster"], condition=Q(deleted_at__isnull=True), name="one_card_a_taster"
            ),
            models.UniqueConstraint(fields=["trial", "number"], name="card_number"),
        ]


class Score(Row):
    """What a card says of one sample on one scale."""

    card = models.ForeignKey(Card, on_delete=models.CASCADE, related_name="scores")
    sample = models.ForeignKey(Sample, on_delete=models.PROTECT, related_name="scores")
    scale = models.CharField(max_length=20)
    value = models.PositiveSmallIntegerField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["card", "sample", "scale"], name="one_score_a_scale"),
            _between("value", 1, 9, "score_value"),
        ]


class Stale(Exception):  # noqa: N818 - a state of the book, not a fault
    """The row was changed since the writer read it."""


def claim_version(row: Blend | Cook, version: int) -> None:
    """Raise the row's version from `version` by one in the database, or raise `Stale` if it moved meanwhile."""
    if not type(row).objects.filter(pk=row.pk, version=version).update(version=F("version") + 1):
        raise Stale
    row.version = version + 1

"""Blends: working drafts, kept revisions, their lines, what they are aimed at and planned for."""

import uuid
from collections.abc import Sequence
from datetime import datetime
from fractions import Fraction
from typing import ClassVar

from django.db import models
from django.db.models import F, Q
from django.utils import timezone
from ravska_core.blend import (
    BASES,
    DEEPEST,
    FIRES,
    HIGHEST_BATCH_G,
    HIGHEST_ERROR,
    KINDS,
    LOCKS,
    LOWEST_BATCH_G,
    TARGETS,
    TOTALS,
    WRITTEN,
    as_read,
)
from ravska_core.blend import Blend as CoreBlend
from ravska_core.blend import Line as CoreLine
from ravska_core.working import BadInput

from book.models.household import Household
from book.models.rows import Row, above_zero, between, named, one_of
from book.models.values import known_from, label_from, method_from, no_method, stored_reading


def line_key(grind: str, blend: uuid.UUID | None, held: bool) -> str:
    """Return what a step of a method calls a line: its grind, its blend, or the sieve of that."""
    return grind or f"{'sieve:' if held else ''}{blend}"


class BlendSet(models.QuerySet["Blend"]):
    def with_drafts(self) -> "BlendSet":
        """Load the working drafts with their lines; kept revisions stay where they are."""
        drafts = Revision.objects.filter(kept_at__isnull=True).prefetch_related("lines")
        loaded = models.Prefetch("revisions", queryset=drafts, to_attr="drafts")
        return self.prefetch_related(loaded)  # type: ignore[no-redef]  # `follow` sets it too


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

    # counted and looked up by who loads it: revisions kept, the blend it branched off, and when it was cooked with last
    kept: int
    branch_of: str | None
    last_cook: datetime | None

    class Meta:
        ordering: ClassVar = ["created_at", "name"]
        constraints: ClassVar = [
            named("name", "blend_named"),
            one_of("kind", KINDS, "blend_kind"),
            one_of("fire", ("", *FIRES), "blend_fire"),
            between("batch_g", LOWEST_BATCH_G, HIGHEST_BATCH_G, "blend_batch"),
        ]

    def draft(self) -> "Revision":
        """Return the working draft, the one loaded by `BlendSet.with_drafts` when it was."""
        loaded: list[Revision] | None = getattr(self, "drafts", None)
        return loaded[0] if loaded else self.revisions.get(kept_at__isnull=True)

    def as_core(
        self, revision: "Revision | None" = None, met: dict[uuid.UUID, CoreBlend] | None = None, depth: int = 0
    ) -> CoreBlend:
        """Return the blend as the core reads it, from a kept revision or else its draft.

        `met` gathers the blends inside by the key of their revision or draft, so that each is built once.
        """
        of = revision or self.draft()
        met = {} if met is None else met
        if of.pk not in met:
            lines: tuple[CoreLine, ...] = ()
            keys: list[str] = []
            if depth <= DEEPEST:  # the core refuses what lies deeper
                rows = list(of.lines.all())
                lines, keys = tuple(line.as_core(met, depth) for line in rows), [line.key() for line in rows]
            met[of.pk] = CoreBlend(
                self.kind,
                lines,
                self.batch_g,
                self.name,
                self.fire,
                method_from(of.method, keys),
                label_from(of.label),
                str(self.pk),
            )
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
        self._record(lines)
        same = parent is not None and (parent.method, parent.label) == (draft.method, draft.label)
        if parent and same and [x.content() for x in parent.lines.all()] == [x.content() for x in lines]:
            return parent
        last = self.revisions.aggregate(last=models.Max("number"))["last"] or 0
        # what a verdict decided of this blend waits at its draft, and goes with the revision that follows
        said = f"{note} ({draft.note})" if note and draft.note else note or draft.note
        draft.number, draft.note, draft.kept_at = last + 1, said[:200], timezone.now()
        draft.save()
        Line.objects.bulk_update(lines, ["inside_revision", "as_read"])
        self.follow(draft)
        return draft

    def _record(self, lines: Sequence["Line"]) -> None:
        """Record with the lines to be kept what they are read with now; what cannot be read is kept without."""
        core = CoreBlend(self.kind, tuple(line.as_core() for line in lines), self.batch_g, self.name)
        try:
            found = as_read(core)
        except BadInput:
            return
        for line, read in zip(lines, found, strict=True):
            line.as_read = stored_reading(read)

    def follow(self, kept: "Revision") -> "Revision":
        """Go on from a kept revision, of this blend or of the one it branches from, with a draft of the same lines."""
        self.revisions.filter(kept_at__isnull=True).delete()
        draft = Revision.objects.create(
            blend=self, parent=kept, written=kept.written, base=kept.base, total=kept.total, method=kept.method,
            label=kept.label,
        )  # fmt: skip
        Line.objects.bulk_create(line.copy_to(draft) for line in kept.lines.all())
        self.drafts = [draft]
        return draft


class Revision(Row):
    """A state of a blend's lines: the working draft while not kept, immutable afterwards.

    `written` says how the numbers read, `base` which line counts 1 when they are relative. `method` holds the steps
    and `label` a bought blend's panel, each as typed and as it was read.
    """

    blend = models.ForeignKey(Blend, on_delete=models.CASCADE, related_name="revisions")
    parent = models.ForeignKey("self", on_delete=models.PROTECT, null=True, related_name="children")
    number = models.PositiveIntegerField(null=True)
    note = models.CharField(max_length=200, default="", blank=True)
    written = models.CharField(max_length=8, default="parts")
    base = models.PositiveSmallIntegerField(default=0)
    total = models.CharField(max_length=5, default="free")
    method = models.JSONField(default=no_method)
    label = models.JSONField(null=True, blank=True)
    kept_at = models.DateTimeField(null=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["blend"], condition=Q(kept_at__isnull=True), name="one_draft_a_blend"),
            models.UniqueConstraint(fields=["blend", "number"], name="revision_number"),
            models.CheckConstraint(
                condition=Q(kept_at__isnull=True, number__isnull=True) | Q(kept_at__isnull=False, number__isnull=False),
                name="kept_is_numbered",
            ),
            one_of("written", WRITTEN, "revision_written"),
            one_of("total", TOTALS, "revision_total"),
        ]


class Line(Row):
    """A line of a revision: a grind or a blend inside, and how many parts of it, exactly and as typed.

    A draft's line follows the draft of the blend inside; a kept one pins its revision. `error` says how far an amount
    by eye may be off, `said` how it was written where it came from, `swap` the grind it names to take instead; `held`
    that of the blend inside what its sieve held back goes in. `as_read` of a kept line is the mass, composition and
    density it was read with, so that it reads the same whatever the tables say later.
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
    error = models.FloatField(default=0.0)
    said = models.CharField(max_length=80, default="", blank=True)
    swap = models.CharField(max_length=80, default="", blank=True)
    basis = models.CharField(max_length=8, default="spoon")
    lock = models.CharField(max_length=8, default="", blank=True)
    least_percent = models.FloatField(null=True)
    most_percent = models.FloatField(null=True)
    held = models.BooleanField(default=False)
    as_read = models.JSONField(null=True)

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["revision", "position"], name="line_position"),
            models.CheckConstraint(
                condition=Q(parts_numerator__gt=0, parts_denominator__gt=0), name="line_parts_above_zero"
            ),
            one_of("basis", BASES, "line_basis"),
            between("error", 0, HIGHEST_ERROR, "line_error"),
            one_of("lock", LOCKS, "line_lock"),
            models.CheckConstraint(
                condition=(Q(grind__length__gte=1) & Q(inside__isnull=True)) | (Q(grind="") & Q(inside__isnull=False)),
                name="line_grind_or_blend",
            ),
            models.CheckConstraint(
                condition=Q(inside_revision__isnull=True) | Q(inside__isnull=False), name="line_pins_what_it_holds"
            ),
            models.CheckConstraint(condition=Q(held=False) | Q(inside__isnull=False), name="line_held_of_a_blend"),
        ]

    def content(self) -> tuple[object, ...]:
        return (
            self.grind, self.inside_id, self.inside_revision_id, self.parts_numerator, self.parts_denominator,
            self.basis, self.error, self.held, known_from(self.as_read),
        )  # fmt: skip

    def as_core(self, met: dict[uuid.UUID, CoreBlend] | None = None, depth: int = 0) -> CoreLine:
        inside = self.inside.as_core(self.inside_revision, met, depth + 1) if self.inside is not None else None
        parts = Fraction(self.parts_numerator, self.parts_denominator)
        known = known_from(self.as_read)
        return CoreLine(self.grind, parts, self.basis, self.lock, inside, self.error, self.held, known)

    def key(self) -> str:
        """Return what a step of the method calls this line."""
        return line_key(self.grind, self.inside_id, self.held)

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
            error=self.error,
            said=self.said,
            swap=self.swap,
            basis=self.basis,
            lock=self.lock,
            least_percent=self.least_percent,
            most_percent=self.most_percent,
            held=self.held,
        )


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
            one_of("what", TARGETS, "target_what"),
            models.CheckConstraint(
                condition=Q(low__isnull=True) | Q(high__isnull=True) | Q(low__lte=F("high")), name="target_in_order"
            ),
        ]


class Use(Row):
    """What some of a blend's batch is planned for: by a weight, or by what a blend or a layer takes (`of`).

    With neither it is not said yet how much.
    """

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
            models.CheckConstraint(condition=Q(mass_g__isnull=True) | above_zero("mass_g"), name="use_mass"),
        ]

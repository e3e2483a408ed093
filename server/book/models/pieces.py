"""Pieces: the meat on the board."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from ravska_core.catalogue import Bone
from ravska_core.coat import Seasoned
from ravska_core.heat import on_fire_of
from ravska_core.meat import CUT_INTO, GRADES, Measures, Stage, serving_of
from ravska_core.meat import Piece as CorePiece

from book.models.cooks import Cook
from book.models.rows import Row, above_zero, between, named, one_of
from book.models.values import phases_from

LETTERS = "ABCDEFGH"
"""The letters of a cook's pieces; there are as many pieces at most."""


class Piece(Row):
    """Meat on the board: its letter, its name, its place in the order there, and its layers, which are its stack."""

    cook = models.ForeignKey(Cook, on_delete=models.CASCADE, related_name="pieces")
    letter = models.CharField(max_length=1)
    name = models.CharField(max_length=40)
    position = models.PositiveSmallIntegerField()
    cut = models.CharField(max_length=60)
    mass_g = models.FloatField()
    mass_typed = models.CharField(max_length=160)
    # what each weighs, where several of unlike weight are one piece here
    masses_g = models.JSONField(default=list, blank=True)
    untrimmed_g = models.FloatField(null=True)
    untrimmed_typed = models.CharField(max_length=40, default="", blank=True)
    # how much of it a plate takes, where that is not by the appetite
    serving_g = models.FloatField(null=True)
    serving_typed = models.CharField(max_length=40, default="", blank=True)
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
    # what it goes through on the fire: as typed, and as it was read
    phases = models.JSONField(default=list, blank=True)
    # as it is typed where not all of it could be read: the rest of the row, and its layers, are what was last read
    unread = models.JSONField(null=True, blank=True)

    class Meta:
        ordering: ClassVar = ["position"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["cook", "letter"], name="piece_letter_once"),
            one_of("letter", tuple(LETTERS), "piece_letter"),
            named("name", "piece_named"),
            named("cut", "piece_cut"),
            between("mass_g", 1, 100_000, "piece_mass"),
            between("count", 1, 200, "piece_count"),
            models.CheckConstraint(
                condition=Q(serving_g__isnull=True) | Q(serving_g__gte=1, serving_g__lte=1000), name="piece_serving"
            ),
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
            tuple(self.masses_g),
        )  # fmt: skip

    def seasoned(self, appetite: str) -> Seasoned:
        """Return the piece with its stack as the core reads it, for eaters of an appetite."""
        layers = tuple(layer.as_core() for layer in self.layers.all())
        portion_g = serving_of(self.cut, self.serving_g, appetite)
        core = self.as_core()
        fire = on_fire_of(core, *phases_from(self.phases)) if self.phases else None
        return Seasoned(self.letter, core, layers, self.target_percent, portion_g, fire)

"""What the household has of its own in the catalogue: ingredients, cuts, and names for them or for others."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from django.utils import timezone

from book.models.household import Household
from book.models.rows import Row, named, one_of


class OwnRow(Row):
    """Something of the household's own: `typed` is the document as it was typed, `values` what the core reads of it.

    One that is in use is not deleted but retired: it is offered no more, and reads on where it is.
    """

    name = models.CharField(max_length=60)
    typed = models.JSONField(default=dict)
    values = models.JSONField(default=dict)
    version = models.PositiveIntegerField(default=1)
    created_at = models.DateTimeField(default=timezone.now)
    retired_at = models.DateTimeField(null=True)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        abstract = True
        ordering: ClassVar = ["created_at", "name"]

    @property
    def key(self) -> str:
        """What the catalogue calls it."""
        return f"own-{self.pk.hex[:16]}"


class OwnIngredient(OwnRow):
    """An ingredient of the household's own; values: shares [mass fractions], a level spoon [g], its like."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="own_ingredients")
    made_from = models.CharField(max_length=8)

    class Meta(OwnRow.Meta):
        constraints: ClassVar = [
            named("name", "own_ingredient_named"),
            one_of("made_from", ("label", "amounts", "like"), "own_ingredient_made_from"),
            models.UniqueConstraint(
                fields=["household", "name"], condition=Q(deleted_at__isnull=True), name="one_own_ingredient_a_name"
            ),
        ]


class OwnCut(OwnRow):
    """A cut of the household's own; values: its like, measures [cm], weight [g], shares of bone, faces and trim."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="own_cuts")

    class Meta(OwnRow.Meta):
        constraints: ClassVar = [
            named("name", "own_cut_named"),
            models.UniqueConstraint(
                fields=["household", "name"], condition=Q(deleted_at__isnull=True), name="one_own_cut_a_name"
            ),
        ]


class OwnCooker(OwnRow):
    """A cooker of the household's own; values: its kind, and what of it is otherwise [cm2, °C, K, s, kg/h or kW]."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="own_cookers")

    class Meta(OwnRow.Meta):
        constraints: ClassVar = [
            named("name", "own_cooker_named"),
            models.UniqueConstraint(
                fields=["household", "name"], condition=Q(deleted_at__isnull=True), name="one_own_cooker_a_name"
            ),
        ]


class OwnName(Row):
    """What the household calls an ingredient or a cut, its own or another of the catalogue: `means` is its key."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="own_names")
    name = models.CharField(max_length=60)
    means = models.CharField(max_length=60)

    class Meta:
        ordering: ClassVar = ["name"]
        constraints: ClassVar = [
            named("name", "own_name_named"),
            named("means", "own_name_means"),
            models.UniqueConstraint(fields=["household", "name"], name="one_own_name"),
        ]

"""What the household has of its own in the catalogue: ingredients, and names for them or for others."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from django.utils import timezone

from book.models.household import Household
from book.models.rows import Row, named, one_of


class OwnIngredient(Row):
    """An ingredient of the household's own: as typed, and as it was read.

    `typed` is the document as it was typed, `values` what the core reads of it: shares [mass fractions], what a level
    spoon weighs [g], what it is like. One that is in use is not deleted but retired: it is offered no more, and reads
    on where it is.
    """

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="own_ingredients")
    name = models.CharField(max_length=60)
    made_from = models.CharField(max_length=8)
    typed = models.JSONField(default=dict)
    values = models.JSONField(default=dict)
    version = models.PositiveIntegerField(default=1)
    created_at = models.DateTimeField(default=timezone.now)
    retired_at = models.DateTimeField(null=True)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["created_at", "name"]
        constraints: ClassVar = [
            named("name", "own_ingredient_named"),
            one_of("made_from", ("label", "amounts", "like"), "own_ingredient_made_from"),
            models.UniqueConstraint(
                fields=["household", "name"], condition=Q(deleted_at__isnull=True), name="one_own_ingredient_a_name"
            ),
        ]

    @property
    def key(self) -> str:
        """What the catalogue calls it."""
        return f"own-{self.pk.hex[:16]}"


class OwnName(Row):
    """What the household calls an ingredient, its own or another of the catalogue."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="own_names")
    name = models.CharField(max_length=60)
    ingredient = models.CharField(max_length=60)

    class Meta:
        ordering: ClassVar = ["name"]
        constraints: ClassVar = [
            named("name", "own_name_named"),
            named("ingredient", "own_name_ingredient"),
            models.UniqueConstraint(fields=["household", "name"], name="one_own_name"),
        ]

"""Who owns the book, and how they read numbers."""

from datetime import time
from typing import ClassVar

from django.db import models
from ravska_core.measure import SPOON_SETS

from book.models.rows import Row, between, named, one_of


class Household(Row):
    """Who owns the book."""

    name = models.CharField(max_length=80)

    class Meta:
        constraints: ClassVar = [named("name", "household_named")]


class Preferences(Row):
    """How this household reads numbers and looks at screens."""

    household = models.OneToOneField(Household, on_delete=models.CASCADE, related_name="preferences")
    units = models.CharField(max_length=8, default="metric")
    temperature = models.CharField(max_length=1, default="C")
    spoon_set = models.CharField(max_length=12, default="us")
    # names of the set's measures that are not in the drawer, with semicolons between them
    spoons_lacking = models.CharField(max_length=200, default="", blank=True)
    theme = models.CharField(max_length=8, default="enamel")
    single_keys = models.BooleanField(default=True)
    # how high above the sea the kitchen is: water boils lower there
    height_m = models.FloatField(default=0.0)
    height_typed = models.CharField(max_length=40, default="", blank=True)
    # the zone of the world's clocks, empty until it was asked, and when the household sleeps by it
    zone = models.CharField(max_length=60, default="", blank=True)
    sleeps = models.TimeField(default=time(23, 0))
    rises = models.TimeField(default=time(7, 0))

    class Meta:
        constraints: ClassVar = [
            one_of("units", ("us", "metric"), "preferences_units"),
            one_of("temperature", ("C", "F"), "preferences_temperature"),
            one_of("spoon_set", list(SPOON_SETS), "preferences_spoons"),
            one_of("theme", ("enamel", "iron"), "preferences_theme"),
            between("height_m", 0, 5500, "preferences_height"),
        ]


class Price(Row):
    """What the household pays for an ingredient, instead of the catalogue's estimate."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="prices")
    ingredient = models.CharField(max_length=60)
    per_100g = models.FloatField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["household", "ingredient"], name="one_price_an_ingredient"),
            named("ingredient", "price_ingredient"),
            between("per_100g", 0, 10_000, "price_in_range"),
        ]


class Stock(Row):
    """What of a grind the household has, as typed and as read [g]; no weight where there is plenty of it."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="stock")
    grind = models.CharField(max_length=60)
    typed = models.CharField(max_length=60)
    grams = models.FloatField(null=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["household", "grind"], name="one_stock_a_grind"),
            named("grind", "stock_grind"),
            named("typed", "stock_typed"),
            models.CheckConstraint(
                condition=models.Q(grams__isnull=True) | models.Q(grams__gte=0, grams__lte=60_000),
                name="stock_in_range",
            ),
        ]

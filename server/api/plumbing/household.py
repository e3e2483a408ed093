"""Whose book this is."""

from book.models import Household, Preferences, Price
from book.snapshot import is_reading
from book.unchanged import kept_while_unchanged
from django.db import transaction
from ravska_core.measure import SPOON_SETS, SpoonSet, own_spoons


class FirstUse(Exception):  # noqa: N818 - a state of the book, not a fault
    """The book has no household yet, and is only read now; `household` makes it when called by itself."""


def household() -> Household:
    """Return the household of this book with its preferences, made on first use, once however many ask at a time.

    Raises
    ------
    FirstUse
        Where it would have to be made while the book is only read.
    """
    found = Household.objects.select_related("preferences").first()
    if found is not None:
        return found
    if is_reading():
        raise FirstUse
    with transaction.atomic():
        found = Household.objects.select_related("preferences").first()
        if found is None:
            found = Household.objects.create(name="Our household")
            Preferences.objects.create(household=found)
    return found


@kept_while_unchanged
def prices() -> dict[str, float]:
    """Return the household's own prices by ingredient [per 100 g]."""
    return dict(Price.objects.order_by().values_list("ingredient", "per_100g"))


@kept_while_unchanged
def spoon_set() -> SpoonSet:
    """Return the spoons amounts are measured out in; asked for at every key, so it loads nothing else."""
    found = Preferences.objects.order_by().values_list("spoon_set", "spoons_lacking")[:1]
    return next((spoons_of(*row) for row in found), SPOON_SETS["us"])


def spoons_of(key: str, lacking: str) -> SpoonSet:
    """Return the spoons a household owns, from how the book keeps them."""
    return own_spoons(key, frozenset(filter(None, lacking.split(";"))))

"""What every row of the book has: its key, its checks in the database, its version."""

import uuid
from collections.abc import Sequence
from typing import Any, TypeVar

from django.db import models
from django.db.models import F, Q
from django.db.models.functions import Length

models.CharField.register_lookup(Length)


def one_of(field: str, values: tuple[str, ...] | list[str], name: str) -> models.CheckConstraint:
    return models.CheckConstraint(condition=Q(**{f"{field}__in": list(values)}), name=name)


def between(field: str, low: float, high: float, name: str) -> models.CheckConstraint:
    return models.CheckConstraint(condition=Q(**{f"{field}__gte": low, f"{field}__lte": high}), name=name)


def above_zero(field: str) -> Q:
    # said twice, as a check that comes to NULL lets the row in
    return Q(**{f"{field}__isnull": False, f"{field}__gt": 0})


def named(field: str, name: str) -> models.CheckConstraint:
    return models.CheckConstraint(condition=Q(**{f"{field}__length__gte": 1}), name=name)


class Row(models.Model):
    """A row with a key that stays unique when books are merged."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)

    class Meta:
        abstract = True


Stored = TypeVar("Stored", bound=Row)

_APART = 1000
"""Where rows wait while others take their places; no list of rows is that long."""


def store_rows(model: type[Stored], rows: Sequence[Stored]) -> None:
    """Insert or update rows in one statement."""
    if rows:
        fields = [field.attname for field in model._meta.concrete_fields if not field.primary_key]
        model._default_manager.bulk_create(rows, update_conflicts=True, unique_fields=["id"], update_fields=fields)


def store_in_order(model: type[Stored], rows: Sequence[Stored]) -> None:
    """Insert or update rows that stand in an order, in two statements, so that places change hands unharmed."""
    if rows:
        there = model._default_manager.filter(pk__in=[row.pk for row in rows])
        there.update(position=F("position") + _APART)
        store_rows(model, rows)


def values_of(row: Row) -> dict[str, object]:
    """Return what a row holds, to see later whether it was changed."""
    return {field.attname: getattr(row, field.attname) for field in row._meta.concrete_fields}


class Stale(Exception):  # noqa: N818 - a state of the book, not a fault
    """The row was changed since the writer read it."""


def claim_version(row: Any, version: int) -> None:
    """Raise the row's version from `version` by one in the database, or raise `Stale` if it moved meanwhile."""
    if not type(row).objects.filter(pk=row.pk, version=version).update(version=F("version") + 1):
        raise Stale
    row.version = version + 1

"""What every row of the book has: its key, its checks in the database, its version."""

import uuid
from typing import Any

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


class Stale(Exception):  # noqa: N818 - a state of the book, not a fault
    """The row was changed since the writer read it."""


def claim_version(row: Any, version: int) -> None:
    """Raise the row's version from `version` by one in the database, or raise `Stale` if it moved meanwhile."""
    if not type(row).objects.filter(pk=row.pk, version=version).update(version=F("version") + 1):
        raise Stale
    row.version = version + 1

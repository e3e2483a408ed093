"""Lists that open whatever one of their rows holds."""

import logging
from collections.abc import Callable, Iterable
from datetime import UTC, datetime
from typing import Any, TypeVar

from book.models import Row
from django.db import DatabaseError
from django.db.models import QuerySet

log = logging.getLogger(__name__)

NEVER = datetime(2000, 1, 1, tzinfo=UTC)
"""When something was, where that cannot be read any more."""

SPOILED = "This cannot be read any more. Delete it, or put a backup from before back: `make restore`."

Found = TypeVar("Found", bound=Row)
Shown = TypeVar("Shown")


def rows_of(found: QuerySet[Found]) -> tuple[list[Found], list[Any]]:
    """Return the rows of a query, and the keys of those that cannot even be loaded."""
    try:
        return list(found), []
    except DatabaseError:
        raise  # it is not a row that is at fault
    except Exception:
        log.exception("rows of %s are looked at one by one", found.model.__name__)
    rows, spoiled = [], []
    for key in found.prefetch_related(None).values_list("pk", flat=True):
        try:
            rows.append(found.get(pk=key))
        except DatabaseError:
            raise
        except Exception:
            spoiled.append(key)
    return rows, spoiled


def each_shown(rows: Iterable[Found], show: Callable[[Found], Shown], spoiled: Callable[[Found], Shown]) -> list[Shown]:
    """Return every row as it is shown; one that cannot be is shown as what it is, and closes no list."""
    found = []
    for row in rows:
        try:
            _check(row)
            found.append(show(row))
        except DatabaseError:
            raise
        except Exception:
            log.exception("a row of %s cannot be shown", type(row).__name__)
            found.append(spoiled(row))
    return found


def _check(row: Row) -> None:
    """Refuse a row that lacks what no row lacks: what cannot be read of it, as a date, is read as nothing."""
    lacks = [of.name for of in row._meta.concrete_fields if not of.null and getattr(row, of.attname) is None]
    if lacks:
        raise ValueError(", ".join(lacks))

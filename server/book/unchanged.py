"""Keeping what was found in the book for as long as the book stays as it is: a screen asks for it at every key."""

import sqlite3
import threading
from collections.abc import Callable, Hashable
from functools import wraps
from typing import Any, TypeVar

from django.db import connection

from book.snapshot import is_reading

_MOST_KEPT = 128
_kept = threading.local()

Found = TypeVar("Found")


def _as_it_is() -> dict[Hashable, Any]:
    """Return what this thread found since the book last changed; nothing when it did.

    SQLite counts what its own connection changed, and tells of a commit by any other.
    """
    connection.ensure_connection()
    book: sqlite3.Connection = connection.connection
    stamp = book.execute("PRAGMA data_version").fetchone()[0], book.total_changes
    if getattr(_kept, "book", None) is not book or _kept.stamp != stamp or len(_kept.found) > _MOST_KEPT:
        _kept.book, _kept.stamp, _kept.found = book, stamp, {}
    return _kept.found  # type: ignore[no-any-return]  # a thread's own attributes have no types


def kept_while_unchanged(find: Callable[..., Found]) -> Callable[..., Found]:
    """Return `find`, asked once for as long as nothing in the book changes.

    Within a transaction that writes it is asked each time: what is found there may be taken back. What it returns is
    shared, and not to be changed by who is given it.
    """

    @wraps(find)
    def kept(*args: Hashable) -> Found:
        if connection.in_atomic_block and not is_reading():
            return find(*args)
        found = _as_it_is()
        key = (find, args)
        if key not in found:
            found[key] = find(*args)
        return found[key]  # type: ignore[no-any-return]  # what stands there is what it found

    return kept

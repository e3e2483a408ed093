"""Reading the book as it was at one moment, while others write to it."""

from collections.abc import Iterator
from contextlib import contextmanager

from django.db import connection, transaction


@contextmanager
def one_version() -> Iterator[None]:
    """Read all that is asked within as the book was at one moment; writers are not kept waiting.

    Nothing is to be written within; in a transaction that is open already, that one's state of the book is read.
    """
    if connection.in_atomic_block:
        yield
        return
    connection.ensure_connection()
    usual, connection.transaction_mode = connection.transaction_mode, "DEFERRED"  # type: ignore[attr-defined]  # SQLite's
    try:
        with transaction.atomic():
            connection.transaction_mode = usual  # type: ignore[attr-defined]
            connection.only_reads = True  # type: ignore[attr-defined]
            yield
    finally:
        connection.transaction_mode = usual  # type: ignore[attr-defined]
        connection.only_reads = False  # type: ignore[attr-defined]


def is_reading() -> bool:
    """Tell whether what is asked now is read as the book was at one moment, and nothing is written."""
    return getattr(connection, "only_reads", False)

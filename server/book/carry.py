"""Carrying a book over to another schema: a checked copy first, the work on the side, then all of it or nothing.

Migrations run on a copy of the book. Only when that copy is whole, and holds what the book held, does it become the
book, in one write of SQLite's own; until then, and after anything that fails, the old book is as it was.
"""

import hashlib
import json
import sqlite3
from collections.abc import Collection, Iterator, Mapping
from contextlib import closing, contextmanager
from dataclasses import dataclass, field
from datetime import datetime
from pathlib import Path

FOLDER = "backups"
"""Where copies of a book lie, beside it."""

RECORDED: Mapping[str, tuple[str, ...]] = {
    "book_card": ("id", "trial_id", "taster_id", "number", "served", "prefers_id", "blind", "scored_at", "deleted_at"),
    "book_score": ("card_id", "sample_id", "scale", "value"),
    "book_look": ("trial_id", "taster_id", "at"),
    "book_pour": ("id", "line_id", "grams", "how", "at", "key"),
    "book_revision": ("id", "blend_id", "parent_id", "number", "note", "written", "base", "total", "kept_at",
                      "method", "label"),
    "book_line": (
        "id", "revision_id", "position", "grind", "inside_id", "inside_revision_id", "parts_numerator",
        "parts_denominator", "parts_typed", "exact_typed", "said", "basis", "lock",
    ),
    "book_weighback": ("id", "cut", "surface", "taken_g", "left_g", "fell_g", "coat_g_100cm2", "at", "deleted_at"),
}  # fmt: skip
"""What was typed and recorded and must come through every migration as it is: table and columns."""

_AS_TYPED = """CASE WHEN json_type("{0}", '$.typed') IS NULL THEN json("{0}") ELSE json_extract("{0}", '$.typed') END"""
"""What was typed of a column that holds what it was read as too, or did not yet."""


@dataclass(frozen=True)
class Reshapes:
    """What a migration may change of the number of rows: tables it fills or empties, and tables under a new name."""

    tables: Collection[str] = ()
    renamed: Mapping[str, str] = field(default_factory=dict)


NOTHING = Reshapes()


class Spoiled(Exception):  # noqa: N818 - a state of the book, not a fault
    """A copy of a book is not whole, or does not hold what the book held."""


def _tables(book: sqlite3.Connection) -> list[str]:
    rows = book.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND name LIKE 'book\\_%' ESCAPE '\\'")
    return sorted(name for (name,) in rows)


def row_counts(book: sqlite3.Connection) -> dict[str, int]:
    """Return how many rows each table of the book has."""
    return {name: book.execute(f'SELECT COUNT(*) FROM "{name}"').fetchone()[0] for name in _tables(book)}


def recorded(book: sqlite3.Connection, columns: Mapping[str, Collection[str]] | None = None) -> dict[str, str]:
    """Return a hash a table of what was typed and recorded in cards, pours, revisions and weigh-backs.

    `columns` limits it to those that another book has too, as `recorded_columns` tells them.
    """
    wanted = recorded_columns(book) if columns is None else columns
    found = {}
    for table, names in wanted.items():
        listed = ", ".join(_AS_TYPED.format(name) if name in ("method", "label") else f'"{name}"' for name in names)
        digest = hashlib.sha256()
        rows = book.execute(f'SELECT {listed} FROM "{table}"').fetchall()
        for row in sorted(json.dumps(row, default=str) for row in rows):
            digest.update(row.encode())
        found[table] = digest.hexdigest()
    return found


def recorded_columns(book: sqlite3.Connection) -> dict[str, tuple[str, ...]]:
    """Return which of the recorded columns this book has, a table."""
    found = {}
    for table in set(_tables(book)) & RECORDED.keys():
        there = {row[1] for row in book.execute(f'PRAGMA table_info("{table}")')}
        found[table] = tuple(name for name in RECORDED[table] if name in there)
    return found


def check_whole(book: sqlite3.Connection) -> None:
    """Check that a book is sound: its pages, its keys to other rows.

    Raises
    ------
    Spoiled
        With what SQLite says of it.
    """
    (said,) = book.execute("PRAGMA integrity_check(1)").fetchone()
    if said != "ok":
        raise Spoiled(f"The book is damaged: {said}.")
    lost = book.execute("PRAGMA foreign_key_check").fetchone()
    if lost is not None:
        raise Spoiled(f"A row of {lost[0]} points at one of {lost[2]} that is not there.")


def _compare(before: sqlite3.Connection, after: sqlite3.Connection, reshapes: Reshapes = NOTHING) -> None:
    now = row_counts(after)
    for table, count in row_counts(before).items():
        to = reshapes.renamed.get(table, table)
        if table not in reshapes.tables and now.get(to, 0) != count:  # a table that goes must be empty
            raise Spoiled(f"{table} had {count} rows and would have {now.get(to, 0)}.")
    there = recorded_columns(after)
    both = {table: [name for name in names if name in there[table]]
            for table, names in recorded_columns(before).items() if table in there}  # fmt: skip
    was, became = recorded(before, both), recorded(after, both)
    moved = [table for table in both if was[table] != became[table]]
    if moved:
        raise Spoiled(f"What was recorded in {' and '.join(sorted(moved))} would not be the same.")


def copy_checked(book: Path, to: Path) -> None:
    """Copy a book that may be in use, and check that the copy is whole and has as many rows in every table.

    Raises
    ------
    Spoiled
        When it has not; nothing is left of the copy then.
    """
    half = to.with_name(f"{to.name}.half")
    half.unlink(missing_ok=True)
    try:
        with closing(sqlite3.connect(book)) as source, closing(sqlite3.connect(half)) as copy:
            # from here on the source is read as it is now, whoever writes to it meanwhile
            source.execute("BEGIN")
            source.execute("SELECT COUNT(*) FROM sqlite_master").fetchone()
            source.backup(copy)
            check_whole(copy)
            _compare(source, copy)
        half.chmod(0o600)
        half.replace(to)
    finally:
        half.unlink(missing_ok=True)


def own_folder(book: Path) -> Path:
    """Return the folder that copies of a book go to, for its owner alone, made when it is not there."""
    folder = book.with_name(FOLDER)
    folder.mkdir(mode=0o700, exist_ok=True)
    return folder


def _copied_before(book: Path) -> None:
    """Copy a book before it is carried over, under a name that says so, and never over another copy."""
    folder, stamp = own_folder(book), f"{datetime.now():%Y%m%d-%H%M%S}"
    for number in range(1, 1000):
        to = folder / f"{book.stem}-before-{stamp}{'' if number == 1 else f'-{number}'}{book.suffix}"
        if not to.exists():
            copy_checked(book, to)
            return
    raise FileExistsError(f"{folder} is full of copies made at {stamp}")


@contextmanager
def carried_over(book: Path, reshapes: Reshapes = NOTHING) -> Iterator[Path]:
    """Give a copy of a book to be migrated; when all went well it becomes the book, else the book stays.

    A checked copy of the old book is left in its folder of backups. `reshapes` names what may have another number of
    rows.

    Raises
    ------
    Spoiled
        When the copy does not hold what the book held; the book is as it was.
    """
    aside = book.with_name(f"{book.name}.carrying")
    _remove(aside)
    try:
        with closing(sqlite3.connect(book)) as old:
            read_at = _written(old)
            _copied_before(book)
            with closing(sqlite3.connect(aside)) as new:
                old.backup(new)
            yield aside
            with closing(sqlite3.connect(aside)) as new:
                check_whole(new)
                _compare(old, new, reshapes)
                if _written(old) != read_at:
                    raise Spoiled("Another Ravska wrote to the book meanwhile; end it and start again.")
                new.backup(old)  # one transaction: a kill leaves the old book or the new one
    finally:
        _remove(aside)


def _written(book: sqlite3.Connection) -> int:
    """Return a number that changes when another connection has written to the book."""
    found: int = book.execute("PRAGMA data_version").fetchone()[0]
    return found


def _remove(file: Path) -> None:
    for ending in ("", "-wal", "-shm", "-journal"):
        file.with_name(file.name + ending).unlink(missing_ok=True)

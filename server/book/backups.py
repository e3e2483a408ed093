"""Backups of the book in a folder of their own, which of them are kept, and putting one back in the book's place."""

import fcntl
import os
import re
import sqlite3
from collections.abc import Iterable, Iterator
from contextlib import ExitStack, closing, contextmanager, suppress
from datetime import datetime, timedelta
from pathlib import Path

from book.carry import FOLDER, Spoiled, check_whole, copy_checked, own_folder

LOCK = "ravska.lock"
DAYS, WEEKS = 7, 8
"""The newest backup is kept of each of so many days and weeks that have one."""

_OURS = re.compile(r"ravska-(\d{8}-\d{6})\.sqlite3")
_ANY = re.compile(r"ravska-(?:before-)?(\d{8}-\d{6})(?:-\d+)?\.sqlite3")
_BESIDE = ("-wal", "-shm")


class Refused(Exception):  # noqa: N818 - a state of the book, not a fault
    """A backup or a restore that cannot be, as a sentence that says what to do."""


@contextmanager
def in_use(book: Path) -> Iterator[None]:
    """Hold a book for a server, or for a restore; the hold ends with its process, however that ends.

    Raises
    ------
    Refused
        When another process holds it.
    """
    with ExitStack() as opened:
        lock = _opened(book.with_name(LOCK))
        if lock is not None:  # where nothing can be written, nobody writes to the book either
            opened.callback(os.close, lock)
            try:
                fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except OSError:
                raise Refused(f"A Ravska has the book in {book.parent} open; end it first.") from None
        yield


def _opened(lock: Path) -> int | None:
    for how in (os.O_RDWR | os.O_CREAT, os.O_RDONLY):
        with suppress(OSError):
            return os.open(lock, how, 0o600)
    return None


def backup_of(book: Path, at: datetime) -> Path:
    """Copy a book that may be in use into its folder of backups, and check that the copy is whole.

    The folder and its files are for their owner alone. What is older than is kept goes; see `pruned`.

    Raises
    ------
    Refused
        When there is no book, or it is damaged; no file is left then.
    """
    if not book.is_file() or not book.stat().st_size:
        raise Refused(f"There is no book at {book}, so there is nothing to copy.")
    folder = own_folder(book)
    to = folder / f"ravska-{at:%Y%m%d-%H%M%S}.sqlite3"
    if to.exists():
        raise Refused(f"There is a backup of this very second already: {to}.")
    try:
        copy_checked(book, to)
    except (Spoiled, sqlite3.DatabaseError) as fault:
        raise Refused(f"The book could not be copied whole, so no backup was made. {fault}") from fault
    for old in pruned(folder.iterdir(), at):
        old.unlink()
    return to


def made_at(backup: Path) -> datetime | None:
    """Return when a backup was made, as its name says; None for a file that is none of ours."""
    ours = _OURS.fullmatch(backup.name)
    return datetime.strptime(ours[1], "%Y%m%d-%H%M%S") if ours else None


def newest(book: Path) -> Path | None:
    """Return the newest copy of a book that is whole, one made before a carrying over too; None when there is none."""
    folder = book.with_name(FOLDER)
    copies = [(found[1], file) for file in folder.glob("*") if (found := _ANY.fullmatch(file.name))]
    return next((file for _, file in sorted(copies, reverse=True) if _is_whole(file)), None)


def pruned(files: Iterable[Path], at: datetime) -> list[Path]:
    """Return which backups go: all but the newest of each of the last days and weeks, and the newest whole one."""
    ours = sorted(((when, file) for file in files if (when := made_at(file))), reverse=True)
    kept: dict[tuple[str, object], Path] = {}
    for when, file in ours:
        if when > at - timedelta(days=DAYS):
            kept.setdefault(("day", when.date()), file)
        if when > at - timedelta(weeks=WEEKS):
            kept.setdefault(("week", when.isocalendar()[:2]), file)
    whole = next((file for _, file in ours if _is_whole(file)), None)
    stays = {*kept.values(), whole}
    return [file for _, file in ours if file not in stays]


def due(book: Path, at: datetime) -> bool:
    """Tell whether a book has no backup of the last day."""
    folder = book.with_name(FOLDER)
    made = [when for file in folder.iterdir() if (when := made_at(file))] if folder.is_dir() else []
    return book.is_file() and (not made or max(made) < at - timedelta(days=1))


def restore(book: Path, backup: Path, at: datetime) -> Path | None:
    """Put a backup in the book's place; the present book is set aside whole, in a folder that is returned.

    Raises
    ------
    Refused
        When the backup is missing or damaged, or a server has the book; everything is then as it was.
    """
    if not backup.is_file():
        raise Refused(f"There is no backup at {backup}; `ls {book.with_name(FOLDER)}` lists them.")
    if backup.resolve() == book.resolve():
        raise Refused("That is the book itself; name one of its backups.")
    with in_use(book):
        fresh = book.with_name(f"{book.name}.restoring")
        fresh.unlink(missing_ok=True)
        try:
            copy_checked(backup, fresh)
        except (Spoiled, sqlite3.DatabaseError) as fault:
            raise Refused(f"This backup is not whole, so the book stays as it is. {fault}") from fault
        with open(fresh, "rb") as written:
            os.fsync(written.fileno())
        beside = [file for ending in _BESIDE if (file := book.with_name(book.name + ending)).exists()]
        aside = book.with_name(f"set-aside-{at:%Y%m%d-%H%M%S}") if book.exists() or beside else None
        if aside is not None:
            aside.mkdir(mode=0o700)
            if book.exists():
                # at every moment a book lies in its place: this one until the other takes it, in one step
                os.link(book, aside / book.name)
            for file in beside:
                file.replace(aside / file.name)
        fresh.replace(book)
    return aside


def _is_whole(file: Path) -> bool:
    try:
        with closing(sqlite3.connect(f"{file.resolve().as_uri()}?mode=ro&immutable=1", uri=True)) as opened:
            check_whole(opened)
            found = opened.execute("SELECT COUNT(*) FROM sqlite_master WHERE name = 'book_household'").fetchone()
            return bool(found[0])
    except (Spoiled, sqlite3.DatabaseError):
        return False

"""In what condition a book is: ready, or why not, each as a sentence that says what to do."""

import logging
import os
import shutil
import sqlite3
import threading
import time
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Literal

from django.db.migrations.loader import MigrationLoader

from book.backups import newest
from book.carry import FOLDER

log = logging.getLogger("ravska")

State = Literal[
    "ready", "fresh", "lost", "empty", "damaged", "newer", "unmigrated", "read-only", "full", "unreachable"
]  # fmt: skip

LEAST_FREE = 4 * 2**20
"""With less than this free on its disk a book is not written to [bytes]."""

_LOOKS_EVERY_S = 2.0
_TRACES = ("{0}-wal", "{0}-shm", "{0}.carrying", "{0}.restoring", "set-aside-*", f"{FOLDER}/*", "{1}-*")


@dataclass(frozen=True, slots=True)
class Condition:
    """What a book is like; `says` is empty when it is ready."""

    state: State
    says: tuple[str, ...] = ()

    @property
    def is_open(self) -> bool:
        """Whether it can be read, so that the application is shown."""
        return self.state in ("ready", "full")


READY = Condition("ready")
TITLES: dict[State, str] = {
    "lost": "The book is not where it was",
    "empty": "The book is empty of everything",
    "damaged": "The book is damaged",
    "newer": "The book is from a newer Ravska",
    "unmigrated": "The book is from an earlier Ravska",
    "read-only": "The book cannot be written to",
    "full": "The disk is full",
    "unreachable": "The book cannot be reached",
}


def once_was(book: Path) -> bool:
    """Tell whether there was a book in this folder: copies of it, its log, or what was set aside."""
    names = (trace.format(book.name, book.stem) for trace in _TRACES)
    return any(next(book.parent.glob(name), None) for name in names)


def _way_back(book: Path) -> str:
    backup = newest(book)
    if backup is None:
        where = book.with_name(FOLDER)
        return (
            f"There is no whole backup in {where}; if you keep copies elsewhere, put one back: `make restore FROM=…`."
        )
    back = "End Ravska, then put it back by `make restore`: it sets aside what is there now, and loses nothing of it."
    return f"The newest good backup is {backup}. {back}"


def _refused(book: Path, fault: sqlite3.Error | OSError) -> Condition:
    """Return what SQLite, or the system, says of a book as a condition."""
    name = getattr(fault, "sqlite_errorname", "") or ""
    if name.startswith(("SQLITE_BUSY", "SQLITE_LOCKED")):
        return READY  # somebody writes to it just now
    if name.startswith(("SQLITE_CORRUPT", "SQLITE_NOTADB")):
        return Condition("damaged", (f"SQLite cannot read {book}: {fault}.", _way_back(book)))
    if name.startswith("SQLITE_FULL") or _is_full(book):
        return _full(book)
    if name.startswith(("SQLITE_READONLY", "SQLITE_CANTOPEN", "SQLITE_PERM")) or isinstance(fault, PermissionError):
        return _read_only(book)
    return Condition("unreachable", (f"The disk does not give {book}: {fault}.", _way_back(book)))


def _read_only(book: Path) -> Condition:
    says = f"{book}, its folder or its disk does not let Ravska write. Nothing was changed."
    return Condition("read-only", (says, "See to its permissions, or to how its disk is mounted; then load this page."))


def _full(book: Path) -> Condition:
    says = f"The disk that holds {book.parent} is full. What is in the book can be read; nothing can be saved."
    return Condition("full", (says, "Make room on it; what was typed is saved then."))


def _is_full(book: Path) -> bool:
    try:
        return shutil.disk_usage(book.parent).free < LEAST_FREE
    except OSError:
        return False


def _of_schema(opened: sqlite3.Connection, book: Path) -> Condition:
    """Tell whether a book is of the schema this Ravska knows."""
    tables = {name for (name,) in opened.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    if "django_migrations" not in tables or "book_household" not in tables:
        says = f"{book} holds nothing of Ravska's: no household, no blend, no cook."
        return Condition("empty", (says, _way_back(book)))
    applied = {name for (name,) in opened.execute("SELECT name FROM django_migrations WHERE app = 'book'")}
    known = {name for app, name in MigrationLoader(None).graph.nodes if app == "book"}
    if applied - known:
        says = f"{book} was carried over by a later Ravska, up to {max(applied - known)}. It is as it was."
        back = "Start that Ravska again; or go on with this one from a backup made before. " + _way_back(book)
        return Condition("newer", (says, back))
    if known - applied:
        says = f"{book} is from before {min(known - applied)}. It is as it was."
        return Condition(
            "unmigrated", (says, "End Ravska, then carry it over by `make migrate`: a copy is made first.")
        )
    return READY


def condition_of(book: Path, check: bool) -> Condition:
    """Return in what condition a book is; `check` looks through all of its pages, which takes a second a few 100 MB."""
    if not book.exists():
        if not once_was(book):
            return Condition("fresh")
        return Condition("lost", (f"There is no book at {book} any more, though there was one.", _way_back(book)))
    try:
        if not book.stat().st_size:
            says = f"{book} is a file of length zero."
            anew = "If there was nothing in it yet, delete it to begin anew."
            return Condition("empty", (says, _way_back(book), anew))
        # SQLite itself opens what it may not write to for reading, and says nothing
        if not (os.access(book, os.W_OK) and os.access(book.parent, os.W_OK)):
            return _read_only(book)
        with closing(sqlite3.connect(f"{book.resolve().as_uri()}?mode=rw", uri=True, timeout=0)) as opened:
            if check:
                (said,) = opened.execute("PRAGMA quick_check(1)").fetchone()
                if said != "ok":
                    log.error("the book is damaged: %s", said)
                    return Condition("damaged", (f"Some pages of {book} cannot be read any more.", _way_back(book)))
            found = _of_schema(opened, book)
            if found == READY:
                opened.execute("BEGIN IMMEDIATE")
                opened.execute("ROLLBACK")
            return _full(book) if found == READY and _is_full(book) else found
    except (sqlite3.Error, OSError) as fault:
        return _refused(book, fault)


class Watch:
    """Knows the condition of the book a server has; looks again now and then, so that what was seen to is seen."""

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock, self._lock = clock, threading.Lock()
        self._book: Path | None = None
        self._found, self._looked, self._check = READY, 0.0, False

    def begin(self, book: Path, found: Condition) -> None:
        """Watch over a book that was found so."""
        with self._lock:
            self._book, self._found, self._looked = book, found, self._clock()

    def doubt(self) -> None:
        """Look through the whole book at the next occasion: something was wrong with it."""
        with self._lock:
            self._looked, self._check = 0.0, True

    def now(self) -> Condition:
        """Return the condition as it was found a moment ago; ready where nothing is watched."""
        with self._lock:
            if self._book is None:
                return READY
            # while all is well the writes themselves tell; what was damaged stays so until Ravska is started again
            well = self._found == READY and not self._check
            settled = self._found.state in ("damaged", "lost", "empty", "newer", "unmigrated")
            if not (well or settled) and self._clock() - self._looked >= _LOOKS_EVERY_S:
                self._found, self._looked = condition_of(self._book, self._check), self._clock()
                self._check = False
            return self._found

    def look(self) -> Condition:
        """Return the condition as it is now."""
        with self._lock:
            if self._book is not None and self._found.state in ("ready", "full", "read-only", "unreachable"):
                self._found, self._looked = condition_of(self._book, self._check), self._clock()
                self._check = False
            return self._found


watch = Watch()

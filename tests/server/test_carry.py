"""Books of every released schema are carried over whole, or stay as they were."""

import os
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path

import pytest
from book.carry import (
    RECORDED,
    Reshapes,
    Spoiled,
    carried_over,
    check_whole,
    copy_checked,
    recorded,
    recorded_columns,
    row_counts,
)
from django.core.management import CommandError, call_command
from django.db import connections

BOOKS = Path(__file__).parent / "books"
FIRST_CARD = "rowid = (SELECT MIN(rowid) FROM book_card)"
RELEASED = sorted(BOOKS.glob("*.sql"))
# the oldest passes every migration and the last holds the most; `make reliability` carries all of them over
CARRIED = RELEASED if os.environ.get("RAVSKA_EVERY_BOOK") else [RELEASED[0], RELEASED[len(RELEASED) // 2], RELEASED[-1]]
ROOT = Path(__file__).resolve().parents[2]


def make_book(dump: Path, folder: Path) -> Path:
    book = folder / "ravska.sqlite3"
    with closing(sqlite3.connect(book)) as empty:
        empty.executescript(dump.read_text())
        empty.execute("PRAGMA journal_mode=WAL")
    return book


def manage(folder: Path, *words: str) -> subprocess.CompletedProcess:
    env = os.environ | {"RAVSKA_DATA": str(folder), "PYTHONPATH": "core:server"}
    command = [sys.executable, "server/manage.py", *words]
    return subprocess.run(command, env=env, cwd=ROOT, capture_output=True, text=True, check=False)


def summary(book: Path) -> tuple[dict[str, int], dict[str, str]]:
    with closing(sqlite3.connect(book)) as opened:
        check_whole(opened)
        counts = row_counts(opened)
        return {table: counts[table] for table in RECORDED if table in counts}, recorded(opened)


def copies(folder: Path) -> list[Path]:
    return sorted((folder / "backups").glob("ravska-before-*.sqlite3"))


@pytest.mark.parametrize("dump", CARRIED, ids=lambda dump: dump.stem)
def test_a_book_of_a_released_schema_is_carried_over_and_opens(dump, tmp_path):
    book = make_book(dump, tmp_path)
    with closing(sqlite3.connect(book)) as opened:
        columns = recorded_columns(opened)
        counts, typed = row_counts(opened), recorded(opened)
    done = manage(tmp_path, "migrate", "--skip-checks")
    assert done.returncode == 0, done.stderr
    with closing(sqlite3.connect(book)) as opened:
        check_whole(opened)
        there = recorded_columns(opened)
        both = {table: [name for name in names if name in there[table]] for table, names in columns.items()}
        now = row_counts(opened)
        assert {table: now[table] for table in columns} == {table: counts[table] for table in columns}
        if dump == RELEASED[-1]:
            assert recorded(opened, both) == typed
    env = os.environ | {"RAVSKA_DATA": str(tmp_path)}
    opened = subprocess.run([sys.executable, str(BOOKS / "open_all.py")], env=env, capture_output=True, text=True)
    assert opened.returncode == 0, opened.stderr
    assert len(opened.stdout.splitlines()) == 1, opened.stdout


def test_the_old_book_is_copied_beside_before_it_is_carried_over(tmp_path):
    book = make_book(RELEASED[0], tmp_path)
    was = summary(book)
    assert manage(tmp_path, "migrate", "--skip-checks").returncode == 0
    (copy,) = copies(tmp_path)
    assert summary(copy) == was
    assert manage(tmp_path, "migrate", "--skip-checks").returncode == 0
    assert copies(tmp_path) == [copy]  # nothing to carry over, so nothing is copied
    assert {file.name for file in tmp_path.glob("*carrying*")} == set()


def made_of(book: Path) -> tuple[list[tuple], list[tuple]]:
    """Return what a book is made of, and which migrations made it."""
    with closing(sqlite3.connect(book)) as opened:
        check_whole(opened)
        return (
            opened.execute("SELECT type, name, tbl_name, sql FROM sqlite_master ORDER BY type, name").fetchall(),
            opened.execute("SELECT app, name FROM django_migrations ORDER BY id").fetchall(),
        )


def test_a_new_book_is_made_at_once_and_is_what_all_migrations_make_of_it(tmp_path):
    at_once, step_by_step = tmp_path / "new", tmp_path / "slow"
    for folder, how in ((at_once, []), (step_by_step, ["--step-by-step"])):
        folder.mkdir()
        done = manage(folder, "migrate", "--skip-checks", *how)
        assert done.returncode == 0, done.stderr
        assert ("Applying" in done.stdout) == bool(how)  # else run make fresh
        assert copies(folder) == []
    assert made_of(at_once / "ravska.sqlite3") == made_of(step_by_step / "ravska.sqlite3")


def test_a_migration_can_be_taken_back_and_the_book_opens_as_before(tmp_path):
    # of the schema before the last: what it has no place for cannot be taken back, and is not
    book = make_book(RELEASED[-2], tmp_path)
    was = summary(book)
    assert manage(tmp_path, "migrate", "--skip-checks").returncode == 0
    for target in (RELEASED[-2].stem, "", RELEASED[-1].stem, ""):
        done = manage(tmp_path, "migrate", "--skip-checks", "book", *filter(None, [target]))
        assert done.returncode == 0, done.stderr
        counts, typed = summary(book)
        if target == RELEASED[-2].stem:
            assert (counts, typed) == was
    assert summary(book)[1]["book_card"] == was[1]["book_card"]
    assert summary(book)[1]["book_pour"] == was[1]["book_pour"]


@pytest.fixture
def last(tmp_path) -> Path:
    return make_book(RELEASED[-1], tmp_path)


def change(book: Path, sql: str) -> None:
    with closing(sqlite3.connect(book)) as opened, opened:
        opened.execute("PRAGMA foreign_keys = OFF")
        opened.execute(sql)


@pytest.mark.parametrize(
    ("sql", "says"),
    [
        ("DELETE FROM book_score", "book_score had"),
        ("UPDATE book_pour SET grams = grams + 1", "recorded in book_pour"),
        ("UPDATE book_card SET served = '[]'", "recorded in book_card"),
        ("UPDATE book_line SET parts_typed = '9' WHERE position = 0", "recorded in book_line"),
        ("UPDATE book_weighback SET left_g = 1", "recorded in book_weighback"),
        ("DELETE FROM book_waylayer", "book_waylayer had"),
        (
            "UPDATE book_card SET taster_id = 'nobody' WHERE rowid = (SELECT MIN(rowid) FROM book_card)",
            "points at one of book_taster",
        ),
    ],
)
def test_a_copy_that_lost_something_does_not_become_the_book(last, sql, says):
    was = last.read_bytes()
    with pytest.raises(Spoiled, match=says), carried_over(last) as aside:
        change(aside, sql)
    assert last.read_bytes() == was


def test_a_table_that_a_migration_reshapes_may_lose_rows(last):
    with carried_over(last, Reshapes(("book_waylayer",))) as aside:
        change(aside, "DELETE FROM book_waylayer")
    with closing(sqlite3.connect(last)) as opened:
        assert row_counts(opened)["book_waylayer"] == 0


def test_what_fails_halfway_leaves_the_old_book_and_its_copy(last):
    was = summary(last)

    def half(aside: Path) -> None:
        change(aside, "DROP TABLE book_waylayer")
        change(aside, "SELECT nothing")

    with pytest.raises(sqlite3.OperationalError), carried_over(last) as aside:
        half(aside)
    assert summary(last) == was
    assert summary(copies(last.parent)[0]) == was
    assert not list(last.parent.glob("*.carrying*"))


def test_a_write_of_another_ravska_meanwhile_is_not_lost(last):
    with pytest.raises(Spoiled, match="Another Ravska"), carried_over(last):
        change(last, "UPDATE book_household SET name = 'Mill House'")
    with closing(sqlite3.connect(last)) as opened:
        assert opened.execute("SELECT name FROM book_household").fetchone() == ("Mill House",)


def test_a_damaged_book_is_not_copied_as_if_it_were_whole(last, tmp_path):
    data = bytearray(last.read_bytes())
    data[4096 * 6 : 4096 * 9] = b"\x07" * (4096 * 3)
    last.write_bytes(data)
    with pytest.raises((Spoiled, sqlite3.DatabaseError)):
        copy_checked(last, tmp_path / "copy.sqlite3")
    assert not list(tmp_path.glob("copy*"))


def test_the_command_says_that_the_book_is_as_it_was(last, monkeypatch, django_db_blocker):
    from book.management.commands import migrate

    def lose(self, *args, **options):
        change(Path(connections["carried"].settings_dict["NAME"]), "DELETE FROM book_card")

    settings = connections["default"].settings_dict | {"NAME": str(last)}
    monkeypatch.setitem(connections.databases, "carried", settings)
    monkeypatch.setattr(migrate.Migrate, "handle", lose)
    monkeypatch.setattr(migrate.Command, "_plan", lambda *_: [(None, False)])
    # a browser test before this one leaves its loop running in the same process
    monkeypatch.setenv("DJANGO_ALLOW_ASYNC_UNSAFE", "1")
    was = summary(last)
    with django_db_blocker.unblock(), pytest.raises(CommandError, match="is as it was"):
        call_command("migrate", database="carried", skip_checks=True)
    assert summary(last) == was
    assert not [file for file in last.parent.iterdir() if "carrying" in file.name]


def test_a_table_with_rows_is_not_dropped_in_silence(last):
    with pytest.raises(Spoiled, match="book_waylayer had"), carried_over(last) as aside:
        change(aside, "DROP TABLE book_waylayer")


def test_copies_of_one_second_do_not_meet(last):
    for _ in range(2):
        with carried_over(last):
            pass
    assert len({file.name for file in copies(last.parent)}) == 2

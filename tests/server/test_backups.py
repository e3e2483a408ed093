"""Backups of a book in use, which are kept, and putting one back: what is damaged or in use is refused and stays."""

import multiprocessing
import sqlite3
import stat
from contextlib import closing
from datetime import datetime, timedelta
from io import StringIO
from pathlib import Path

import pytest
from book.backups import Refused, backup_of, due, in_use, made_at, newest, pruned, restore
from django.conf import settings
from django.core.management import CommandError, call_command

NOW = datetime(2027, 5, 4, 3, 0)


@pytest.fixture
def book(tmp_path) -> Path:
    """A book in WAL mode whose last row still lies in its log."""
    file = tmp_path / "book" / "ravska.sqlite3"
    file.parent.mkdir()
    with closing(sqlite3.connect(file)) as opened:
        opened.executescript("PRAGMA journal_mode=WAL; CREATE TABLE book_household (name TEXT)")
        opened.execute("INSERT INTO book_household VALUES ('Weir')")
        opened.commit()
    return file


def names(file: Path) -> list[str]:
    with closing(sqlite3.connect(file)) as opened:
        return [name for (name,) in opened.execute("SELECT name FROM book_household")]


def write(file: Path, name: str) -> None:
    with closing(sqlite3.connect(file)) as opened:
        opened.execute("INSERT INTO book_household VALUES (?)", (name,))
        opened.commit()


def damage(file: Path) -> None:
    content = bytearray(file.read_bytes())
    content[100:3000] = b"\xff" * 2900
    file.write_bytes(content)


def test_a_backup_of_a_book_in_use_is_whole_and_its_owners_alone(book):
    with closing(sqlite3.connect(book)) as server:
        server.execute("INSERT INTO book_household VALUES ('Mill')")
        server.commit()  # it lies in the log only
        copy = backup_of(book, NOW)
        assert names(copy) == ["Weir", "Mill"]
    assert copy == book.parent / "backups" / "ravska-20270504-030000.sqlite3"
    assert stat.S_IMODE(copy.stat().st_mode) == 0o600
    assert stat.S_IMODE(copy.parent.stat().st_mode) == 0o700
    with pytest.raises(Refused, match="this very second"):
        backup_of(book, NOW)
    assert newest(book) == copy


def test_a_book_that_is_not_there_or_not_whole_gives_no_backup_and_leaves_no_file(book):
    with pytest.raises(Refused, match="There is no book"):
        backup_of(book.with_name("other.sqlite3"), NOW)
    kept = backup_of(book, NOW)
    damage(book)
    with pytest.raises(Refused, match="could not be copied whole"):
        backup_of(book, NOW + timedelta(hours=1))
    assert list(kept.parent.iterdir()) == [kept]
    book.write_bytes(b"")
    with pytest.raises(Refused, match="There is no book"):
        backup_of(book, NOW)


def test_the_newest_of_seven_days_and_eight_weeks_are_kept_and_nothing_else_is_touched(book):
    copy = backup_of(book, NOW)
    folder = copy.parent
    others = [folder / "ravska-before-20200101-000000.sqlite3", folder / "mine.sqlite3", folder / "ravska-2020.sqlite3"]
    for file in others:
        file.write_bytes(b"of somebody else")
    for hours in range(6, 24 * 120, 6):
        (folder / f"ravska-{NOW - timedelta(hours=hours):%Y%m%d-%H%M%S}.sqlite3").write_bytes(copy.read_bytes())
    gone = pruned(folder.iterdir(), NOW)
    left = sorted(when for file in folder.iterdir() if file not in gone and (when := made_at(file)))
    # the newest of each day of the last seven: today's, and 21:00 of those before
    days = [when for when in left if when > NOW - timedelta(days=7)]
    assert days[-1] == NOW
    assert [when.hour for when in days[:-1]] == [21] * 7
    weeks = {when.isocalendar()[:2] for when in left}
    assert len(weeks) in (8, 9)
    assert min(left) > NOW - timedelta(weeks=8)
    assert not set(gone) & set(others)
    backup_of(book, NOW + timedelta(hours=1))
    assert all(file.exists() for file in others)
    assert not any(file.exists() for file in gone)


def test_the_newest_whole_backup_stays_however_old_and_a_damaged_one_is_not_taken_for_it(book):
    old = backup_of(book, NOW - timedelta(days=300))
    new = old.with_name("ravska-20270504-030000.sqlite3")
    new.write_bytes(old.read_bytes())
    damage(new)
    assert pruned([old, new], NOW) == []
    assert newest(book) == old


def test_one_is_due_after_a_day(book):
    assert due(book, NOW)
    backup_of(book, NOW)
    assert not due(book, NOW + timedelta(hours=24))
    assert due(book, NOW + timedelta(hours=24, seconds=1))
    assert not due(book.with_name("none.sqlite3"), NOW)


def test_a_restore_sets_the_book_aside_with_its_log(book):
    copy = backup_of(book, NOW)
    server = sqlite3.connect(book)
    server.execute("INSERT INTO book_household VALUES ('since')")
    server.commit()
    # as after a kill: the last row is in the log alone
    killed = book.with_name("killed")
    killed.mkdir()
    for ending in ("", "-wal", "-shm"):
        file = book.with_name(book.name + ending)
        (killed / file.name).write_bytes(file.read_bytes())
    server.close()
    for file in killed.iterdir():
        file.replace(book.parent / file.name)
    aside = restore(book, copy, NOW)
    assert names(book) == ["Weir"]
    assert aside is not None
    assert names(aside / book.name) == ["Weir", "since"]
    assert names(copy) == ["Weir"]
    assert not list(book.parent.glob("*restoring*"))


def test_a_restore_that_is_killed_before_its_last_step_leaves_a_book_in_its_place(book, monkeypatch):
    copy = backup_of(book, NOW)
    write(book, "since")
    step = Path.replace

    def killed(self: Path, to: Path) -> Path:
        if to == book:
            raise KeyboardInterrupt
        return step(self, to)

    monkeypatch.setattr(Path, "replace", killed)
    with pytest.raises(KeyboardInterrupt):
        restore(book, copy, NOW)
    monkeypatch.undo()
    assert names(book) == ["Weir", "since"]
    assert restore(book, copy, NOW + timedelta(seconds=1)) is not None
    assert names(book) == ["Weir"]


def test_a_book_that_is_lost_is_put_back_and_a_log_without_a_book_does_not_spoil_it(book):
    copy = backup_of(book, NOW)
    book.with_name(f"{book.name}-wal").write_bytes(b"of a book that is gone")
    book.unlink()
    aside = restore(book, copy, NOW)
    assert aside is not None
    assert [file.read_bytes() for file in aside.iterdir()] == [b"of a book that is gone"]
    assert names(book) == ["Weir"]
    book.unlink()
    assert restore(book, copy, NOW) is None


def test_a_damaged_backup_or_the_book_itself_is_refused_and_the_book_stays(book):
    copy = backup_of(book, NOW)
    write(book, "since")
    damage(copy)
    with pytest.raises(Refused, match="not whole"):
        restore(book, copy, NOW)
    (book.parent / "letter.txt").write_text("no book at all")
    with pytest.raises(Refused, match="not whole"):
        restore(book, book.parent / "letter.txt", NOW)
    with pytest.raises(Refused, match="the book itself"):
        restore(book, book, NOW)
    with pytest.raises(Refused, match="There is no backup"):
        restore(book, copy.with_name("none"), NOW)
    assert names(book) == ["Weir", "since"]
    assert not list(book.parent.glob("set-aside*"))


def hold(book: Path, held, end) -> None:
    with in_use(book):
        held.set()
        end.wait(60)


def test_while_a_server_has_the_book_nothing_is_put_in_its_place_and_a_kill_lets_go(book):
    copy = backup_of(book, NOW)
    spawn = multiprocessing.get_context("spawn")
    held, end = spawn.Event(), spawn.Event()
    server = spawn.Process(target=hold, args=(book, held, end))
    server.start()
    assert held.wait(60)
    with pytest.raises(Refused, match="end it first"):
        restore(book, copy, NOW)
    server.kill()
    server.join()
    restore(book, copy, NOW)
    assert names(book) == ["Weir"]


def test_the_commands_say_what_they_did_and_what_to_do(book, monkeypatch):
    monkeypatch.setitem(settings.DATABASES["default"], "NAME", str(book))
    with pytest.raises(CommandError, match="no whole backup"):
        call_command("restore", stdout=StringIO())
    out = StringIO()
    call_command("backup", stdout=out)
    assert "Keep one on another disk too" in out.getvalue()
    write(book, "since")
    call_command("restore", stdout=out)
    assert "is the book now. The book that was there lies in" in out.getvalue()
    assert names(book) == ["Weir"]
    with pytest.raises(CommandError, match="There is no backup"):
        call_command("restore", "nowhere.sqlite3", stdout=out)

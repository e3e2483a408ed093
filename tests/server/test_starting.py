"""Each state a book can be found in at the start is a plain sentence on page and console, and in the API."""

import json
import os
import shutil
import signal
import sqlite3
import subprocess
import sys
import threading
import time
import urllib.request
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing, suppress
from datetime import datetime
from pathlib import Path
from urllib.error import HTTPError

import pytest
from book.backups import backup_of, restore
from book.carry import check_whole
from running import OWN_PAGE, SLOWEST_START_S
from test_carry import BOOKS, make_book

ROOT = Path(__file__).resolve().parents[2]


def asked(address: str, path: str, body: object = None, headers: dict[str, str] = OWN_PAGE) -> tuple[int, str]:
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(f"{address}{path}", data, {"Content-Type": "application/json"} | headers)
    try:
        with urllib.request.urlopen(request, timeout=60) as answer:
            return answer.status, answer.read().decode()
    except HTTPError as problem:
        return problem.code, problem.read().decode()


@pytest.fixture
def start(tmp_path, free_port):
    """Start a server on a folder with `serve` and more words; return its address, its process and what it says."""
    servers: list[subprocess.Popen] = []

    def begin(*words: str, **env: str) -> tuple[str, subprocess.Popen, Callable[[], str]]:
        console = tmp_path.with_name(f"{tmp_path.name}-console-{len(servers)}")
        listen = f"127.0.0.1:{free_port}"
        here = os.environ | {"RAVSKA_DATA": str(tmp_path), "RAVSKA_LISTEN": listen, "PYTHONUNBUFFERED": "1"} | env
        command = [sys.executable, str(ROOT / "server/manage.py"), "serve", *words]
        with console.open("w") as out:
            servers.append(subprocess.Popen(command, env=here, stdout=out, stderr=out))
        until = time.monotonic() + SLOWEST_START_S
        while time.monotonic() < until and servers[-1].poll() is None and "Ravska is at" not in console.read_text():
            time.sleep(0.05)
        return f"http://{listen}", servers[-1], console.read_text

    yield begin
    for server in servers:
        server.kill()
        server.wait()


@pytest.fixture
def book(tmp_path, demo_data) -> Path:
    shutil.copytree(demo_data, tmp_path, dirs_exist_ok=True)
    return tmp_path / "ravska.sqlite3"


def blends_in(book: Path) -> int:
    with closing(sqlite3.connect(book)) as opened:
        check_whole(opened)
        return opened.execute("SELECT COUNT(*) FROM book_blend").fetchone()[0]


def cut_off(book: Path) -> None:
    content = bytearray(book.read_bytes())
    content[8192:60_000] = os.urandom(60_000 - 8192)
    book.write_bytes(content)


def from_a_newer_one(book: Path) -> None:
    with closing(sqlite3.connect(book)) as opened:
        opened.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('book', '0999_later', '2030-01-01')")
        opened.commit()


def from_an_older_one(book: Path) -> None:
    with closing(sqlite3.connect(book)) as opened:
        opened.execute("DELETE FROM django_migrations WHERE app = 'book' AND name LIKE '0009%'")
        opened.commit()


def lost(book: Path) -> None:
    book.unlink()


def no_book(book: Path) -> None:
    book.write_text("Lamb rub: 2 parts salt, 1 part pepper. " * 99)


def emptied(book: Path) -> None:
    book.write_bytes(b"")


@pytest.mark.parametrize(
    ("spoil", "state", "title"),
    [
        (cut_off, "damaged", "The book is damaged"),
        (no_book, "damaged", "The book is damaged"),
        (emptied, "empty", "The book is empty of everything"),
        (lost, "lost", "The book is not where it was"),
        (from_a_newer_one, "newer", "The book is from a newer Ravska"),
        (from_an_older_one, "unmigrated", "The book is from an earlier Ravska"),
    ],
)
def test_a_book_that_cannot_be_opened_says_why_and_names_the_newest_good_backup(spoil, state, title, book, start):
    backup = backup_of(book, datetime(2027, 5, 4, 3, 0))
    for beside in ("-wal", "-shm"):
        book.with_name(book.name + beside).unlink(missing_ok=True)
    spoil(book)
    was = book.read_bytes() if book.exists() else None
    demo = [] if state == "unmigrated" else ["--demo"]
    address, server, console = start(*demo)
    status, page = asked(address, "/coat")
    assert (status, title in page) == (503, True)
    problem = json.loads(asked(address, "/api/blends")[1])
    assert (problem["status"], problem["title"]) == (503, title)
    ready = asked(address, "/api/ready")
    assert (ready[0], json.loads(ready[1])["state"]) == (503, state)
    for said in (page, problem["detail"], console(), ready[1]):
        assert "Traceback" not in said
        if state != "unmigrated":  # its book is as good as any backup
            assert str(backup) in said
            assert "make restore" in said
    assert asked(address, "/api/ping")[0] == 200
    assert asked(address, "/api/blends", {})[0] == 503
    server.send_signal(signal.SIGTERM)
    assert server.wait(60) == 0
    assert (book.read_bytes() if book.exists() else None) == was
    restore(book, backup, datetime(2027, 5, 4, 9, 0))
    assert blends_in(book) > 3


def test_the_demo_moves_into_a_new_folder_and_never_where_a_book_once_was(start, tmp_path):
    address, server, _ = start("--demo")
    assert len(json.loads(asked(address, "/api/blends")[1])) > 3
    assert json.loads(asked(address, "/api/ready")[1]) == {"state": "ready"}
    server.send_signal(signal.SIGTERM)
    assert server.wait(60) == 0
    assert "started" in (tmp_path / "ravska.log").read_text()
    backup_of(tmp_path / "ravska.sqlite3", datetime.now())
    (tmp_path / "ravska.sqlite3").unlink()
    address, server, _console = start("--demo")
    assert asked(address, "/api/blends")[0] == 503
    assert not (tmp_path / "ravska.sqlite3").exists()


def test_first_use_by_eight_at_once_makes_one_household_with_its_preferences(start, tmp_path):
    address, _, _ = start()
    with ThreadPoolExecutor(8) as windows:
        paths = ["/api/book/preferences", "/api/blends", "/api/cooks/in-hand", "/api/shelf/prices"] * 2
        answers = list(windows.map(lambda path: asked(address, path), paths))
    assert {status for status, _ in answers} == {200}
    with closing(sqlite3.connect(tmp_path / "ravska.sqlite3")) as opened:
        assert opened.execute("SELECT COUNT(*) FROM book_household").fetchone() == (1,)
        assert opened.execute("SELECT COUNT(*) FROM book_preferences").fetchone() == (1,)


@pytest.mark.parametrize(
    ("env", "says"),
    [
        ({"RAVSKA_LISTEN": "nonsense"}, "Cannot listen at nonsense"),
        ({"RAVSKA_LISTEN": "127.0.0.1:99999"}, "Cannot listen at 127.0.0.1:99999"),
        ({"RAVSKA_LISTEN": "203.0.113.7:8000"}, "Cannot listen at 203.0.113.7:8000"),
        ({"RAVSKA_DATA": "/dev/null/book"}, "Ravska cannot keep its book in /dev/null/book"),
        ({"RAVSKA_DATA": "/proc/book"}, "Ravska cannot keep its book in /proc/book"),
    ],
)
def test_an_address_or_a_folder_that_cannot_be_is_a_sentence(env, says, start):
    _, server, console = start(**env)
    assert server.wait(60) != 0
    assert says in console()
    assert "Traceback" not in console()


def test_a_kill_while_it_is_carried_over_leaves_the_old_book_or_the_new_one(start, tmp_path):
    book = make_book(BOOKS / "0006.sql", tmp_path)
    with closing(sqlite3.connect(book)) as opened:
        blends = opened.execute("SELECT COUNT(*) FROM book_blend").fetchone()[0]
    manage = [sys.executable, str(ROOT / "server/manage.py"), "migrate", "--skip-checks"]
    env = os.environ | {"RAVSKA_DATA": str(tmp_path)}
    # killed at whatever it is at once the copy to work on is there, and a little later each time
    for later in (0.0, 0.2):
        migration = subprocess.Popen(manage, env=env, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        while migration.poll() is None and not (tmp_path / "ravska.sqlite3.carrying").exists():
            time.sleep(0.005)
        time.sleep(later)
        migration.kill()
        migration.wait()
        assert blends_in(book) == blends
    address, _, _ = start("--demo")
    assert json.loads(asked(address, "/api/ready")[1])["state"] == "ready"
    assert len(json.loads(asked(address, "/api/blends")[1])) == blends
    assert list((tmp_path / "backups").iterdir())


def test_the_drill_of_a_kill_a_backup_under_load_damage_and_a_restore(book, start, tmp_path):
    address, server, _ = start()
    rub = json.loads(asked(address, "/api/blends")[1])[0]
    acknowledged: dict[str, str] = {}
    stop = threading.Event()

    def write(n: int) -> None:
        body = {"name": f"Writer {n}", "kind": "dry rub", "batch": "90 g", "lines": []}
        with suppress(OSError, ValueError):
            while not stop.is_set():
                status, made = asked(address, "/api/blends", body)
                if status == 201:
                    acknowledged[json.loads(made)["id"]] = body["name"]

    writers = [threading.Thread(target=write, args=(n,)) for n in range(4)]
    for writer in writers:
        writer.start()
    while len(acknowledged) < 20:
        time.sleep(0.01)
    before = dict(acknowledged)
    backup = backup_of(book, datetime(2027, 5, 4, 3, 0))  # in the midst of the writing
    while len(acknowledged) < 40:
        time.sleep(0.01)
    server.kill()
    server.wait()
    stop.set()
    for writer in writers:
        writer.join()
    with closing(sqlite3.connect(book)) as opened:
        check_whole(opened)
        there = {key for (key,) in opened.execute("SELECT id FROM book_blend")}
    assert {key.replace("-", "") for key in acknowledged} <= there
    for beside in ("-wal", "-shm"):
        book.with_name(book.name + beside).unlink(missing_ok=True)
    cut_off(book)
    address, server, _ = start()
    assert json.loads(asked(address, "/api/ready")[1])["state"] == "damaged"
    server.send_signal(signal.SIGTERM)
    assert server.wait(60) == 0
    env = os.environ | {"RAVSKA_DATA": str(tmp_path)}
    restored = [sys.executable, str(ROOT / "server/manage.py"), "restore"]
    said = subprocess.run(restored, env=env, check=True, capture_output=True, text=True).stdout
    assert str(backup) in said
    address, _, _ = start()
    assert json.loads(asked(address, "/api/ready")[1]) == {"state": "ready"}
    rows = {row["id"] for row in json.loads(asked(address, "/api/blends")[1])}
    assert {rub["id"], *before} <= rows


def test_the_log_says_where_a_fault_was_and_not_what_was_typed(tmp_path):
    import logging

    from book.management.commands.serve import NoText

    def misread(typed: str) -> float:
        return float(typed)

    try:
        misread("my secret rub")
    except ValueError as fault:
        record = logging.LogRecord("ravska", logging.ERROR, "", 1, "PUT", (), (type(fault), fault, fault.__traceback__))
    logging.Formatter().format(record)  # the console's has said it before, with its words
    said = NoText("%(levelname)s %(message)s").format(record)
    assert "secret" not in said
    assert "test_starting.py" in said
    assert "misread" in said
    assert "ValueError" in said

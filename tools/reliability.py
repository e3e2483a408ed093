"""Attack a running Ravska, and say what came of it: the figures of docs/reliability.md.

`make reliability` runs all of it, ``tools/reliability.py kills imports`` what is named. Each figure is measured on a
server and a demo book of its own. What needs a disk of its own (full, read-only) mounts one in memory, as root only.
"""

import json
import os
import random
import shutil
import signal
import socket
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.request
import uuid
from collections import Counter
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing, contextmanager, suppress
from http.client import HTTPException
from pathlib import Path
from typing import NamedTuple

import at_the_fire
from playwright.sync_api import sync_playwright
from running import CHROMIUM, OWN_PAGE, ROOT, wait_until_up

MANAGE = [sys.executable, str(ROOT / "server/manage.py")]


class Answer(NamedTuple):
    status: int
    document: dict


class Book:
    """A server on a demo book of its own, that can be killed and started again."""

    def __init__(self, data: Path, *command: str) -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.data, self.command = data, [*(command or MANAGE), "serve", "--demo"]
        self.address = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self) -> None:
        here = os.environ | {"RAVSKA_DATA": str(self.data), "RAVSKA_LISTEN": f"127.0.0.1:{self.port}"}
        self.server = subprocess.Popen(self.command, env=here, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        wait_until_up(self.server, self.address)

    def kill(self) -> None:
        self.server.kill()
        self.server.wait()

    def end(self) -> int:
        self.server.send_signal(signal.SIGTERM)
        return self.server.wait(60)

    def __call__(self, method: str, path: str, body: object = None, key: str = "") -> Answer:
        """Ask; an answer that did not come raises OSError."""
        data = None if body is None else json.dumps(body).encode()
        headers = {"Content-Type": "application/json"} | OWN_PAGE | ({"Idempotency-Key": key} if key else {})
        request = urllib.request.Request(f"{self.address}/api/{path}", data, headers, method=method)
        try:
            with urllib.request.urlopen(request, timeout=30) as answer:
                return Answer(answer.status, json.load(answer))
        except urllib.error.HTTPError as problem:
            return Answer(problem.code, json.load(problem))

    def memory_mb(self) -> float:
        status = Path(f"/proc/{self.server.pid}/status").read_text()
        return int(status.split("VmRSS:")[1].split()[0]) / 1024

    def whole(self) -> bool:
        with closing(sqlite3.connect(self.data / "ravska.sqlite3")) as book:
            return (
                book.execute("PRAGMA integrity_check").fetchone() == ("ok",)
                and not book.execute("PRAGMA foreign_key_check").fetchall()
            )


@contextmanager
def demo(*command: str) -> Iterator[Book]:
    with tempfile.TemporaryDirectory(prefix="ravska-") as data:
        book = Book(Path(data), *command)
        try:
            yield book
        finally:
            book.kill()


def rub_of(book: Book) -> dict:
    row = next(row for row in book("GET", "blends").document if row["name"] == "Weir House lamb rub")
    return book("GET", f"blends/{row['id']}").document


def kills(times: int = 100, writers: int = 7) -> str:
    """Kill the server at random moments under writers; all that was acknowledged must be there afterwards."""
    rng = random.Random(14)
    acknowledged: Counter[str] = Counter()
    lost: list[str] = []
    twice = 0
    with demo() as book:
        blank = {"kind": "dry rub", "batch": "100 g", "lines": [{"grind": "cumin/ground", "parts": "1"}]}
        for at in range(times):
            known: dict[str, int] = {}
            stop = threading.Event()

            def write(n: int, at: int = at, known: dict[str, int] = known, stop: threading.Event = stop) -> None:
                name, key = f"Kill {at} writer {n}", str(uuid.uuid4())
                try:
                    made = book("POST", "blends", blank | {"name": name}, key)
                    if made.status != 201:
                        return
                    known[name], document = 1, made.document
                    for parts in range(2, 10_000):
                        if stop.is_set():
                            return
                        document["lines"][0]["parts"] = str(parts)
                        answer = book("PUT", f"blends/{document['id']}", document, str(uuid.uuid4()))
                        if answer.status == 200:
                            document, known[name] = answer.document, parts
                except (OSError, ValueError, HTTPException):
                    return  # the server was killed while it answered

            threads = [threading.Thread(target=write, args=(n,)) for n in range(writers)]
            for thread in threads:
                thread.start()
            time.sleep(rng.uniform(0.02, 0.9))
            book.kill()
            stop.set()
            for thread in threads:
                thread.join()
            if not book.whole():
                lost.append(f"the book itself at kill {at}")
            with closing(sqlite3.connect(book.data / "ravska.sqlite3")) as opened:
                rows = opened.execute(
                    "SELECT b.name, CAST(l.parts_typed AS INTEGER) FROM book_blend b JOIN book_revision r "
                    "ON r.blend_id = b.id AND r.kept_at IS NULL JOIN book_line l ON l.revision_id = r.id "
                    "WHERE b.name LIKE ?",
                    (f"Kill {at} writer %",),
                ).fetchall()
            there = dict(rows)
            twice += len(rows) - len(there)
            for name, parts in known.items():
                acknowledged["writes"] += parts
                if there.get(name, 0) < parts:
                    lost.append(name)
            book.start()
    return (
        f"{times} kills at random moments under {writers} writers: {acknowledged['writes']:,} writes acknowledged, "
        f"{len(lost)} lost, {twice} made twice; pages and keys whole after every kill"
    )


def _hostile(rng: random.Random) -> str:
    parts = [
        "2 tsp salt",
        "1 cup",
        "½",
        "<script type='application/ld+json'>",
        "</script>",
        '{"@type":"Recipe"',
        '"',
        ",",
        "\n",
        "\x00",
        "\ud800",
        "<![x y>",
        "<!--",
        "| a |",
        "# ",
        "ingredient,amount\n",
        "of each",
        "1/0",
        "9" * 40,
        "\u202e",
        "'; DROP TABLE book_blend; --",
        "{{7*7}}",
        "../../etc/passwd",
        "(",
        "[",
        "&#x110000;",
        "½ ½",
        "-",
        "sugar, salt, spices (paprika, [pepper",
        "ñ",
        "\t",
        "1e999",
        "NaN",
    ]
    text = "".join(rng.choice(parts) for _ in range(rng.choice((1, 5, 40, 400))))
    return text * rng.choice((1, 1, 1, 300))


def imports(times: int = 400) -> str:
    """Bring in hostile lists, labels, recipes and CSV; nothing may change, and nothing may fault."""
    rng = random.Random(15)
    answers: Counter[int] = Counter()
    slowest = 0.0
    with demo() as book:
        before = json.dumps([book("GET", path).document for path in ("blends", "cooks", "batches", "cooks/ways")])
        for at in range(times):
            text = _hostile(rng)
            bodies = [
                ("blends/bring", {"text": text, "kind": "dry rub"}),
                ("blends/bring", {"text": f"<html>{text}", "kind": "marinade"}),
                ("blends/bring", {"text": f"ingredient,amount\n{text}", "kind": "dry rub"}),
                (
                    "blends/label",
                    {
                        "ingredients": text[:3000],
                        "kind": "dry rub",
                        "batch": "100 g",
                        "label": {"portion": "1 g", "sodium": text[:20]},
                    },
                ),
            ]
            began = time.monotonic()
            answers[book("POST", *bodies[at % 4]).status // 100] += 1
            slowest = max(slowest, time.monotonic() - began)
        after = json.dumps([book("GET", path).document for path in ("blends", "cooks", "batches", "cooks/ways")])
    changed = "nothing changed" if before == after else "SOMETHING CHANGED"
    return (
        f"{times} hostile lists, pages, CSV and labels: {answers[2]} read, {answers[4]} refused in a sentence, "
        f"{answers[5]} faults, {changed}; the slowest took {slowest:.1f} s"
    )


def crowd(clients: int = 20, seconds: float = 60) -> str:
    """Let many read and write at once; none may be told that the book is locked."""
    said: Counter[str] = Counter()
    took: list[float] = []
    with demo() as book:
        until = time.monotonic() + seconds
        blank = rub_of(book)

        def act(n: int) -> None:
            mine = book("POST", "blends", blank | {"name": f"Client {n}"}, str(uuid.uuid4())).document
            turn = 0
            while time.monotonic() < until:
                turn += 1
                began = time.monotonic()
                if turn % 3:
                    mine["batch"] = f"{50 + turn % 900} g"
                    answer = book("PUT", f"blends/{mine['id']}", mine, str(uuid.uuid4()))
                    mine = answer.document if answer.status == 200 else mine
                else:
                    answer = book("GET", ("cooks/in-hand", "blends", "batches")[turn // 3 % 3])
                took.append(time.monotonic() - began)
                said[f"{answer.status}"] += 1
                if answer.status == 503:
                    said["locked"] += 1

        threads = [threading.Thread(target=act, args=(n,)) for n in range(clients)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
    took.sort()
    wrong = sum(count for status, count in said.items() if status != "200")
    return (
        f"{clients} clients for {seconds:.0f} s: {len(took):,} answers, {said['locked']} of them “locked”, {wrong} "
        f"refused; half within {took[len(took) // 2] * 1000:.0f} ms, 99 of 100 within "
        f"{took[int(len(took) * 0.99)] * 1000:.0f} ms"
    )


def idle(connections: int = 110) -> str:
    """Dial and say nothing; others must be answered, and the idle be closed."""
    with demo() as book:
        silent = [socket.create_connection(("127.0.0.1", book.port)) for _ in range(connections)]
        began = time.monotonic()
        book("GET", "cooks/in-hand")
        answered = time.monotonic() - began
        began = time.monotonic()
        silent[0].settimeout(120)
        while silent[0].recv(100):
            pass
        closed = time.monotonic() - began
        for connection in silent:
            connection.close()
        code = book.end()
    return (
        f"{connections} connections that say nothing: Home answered beside them in {answered * 1000:.0f} ms, they "
        f"were closed after {closed:.0f} s, and the server ended with code {code} on SIGTERM"
    )


@contextmanager
def disk(megabytes: int) -> Iterator[Path]:
    """Mount a small disk in memory."""
    at = Path(tempfile.mkdtemp(prefix="ravska-disk-"))
    subprocess.run(["mount", "-t", "tmpfs", "-o", f"size={megabytes}m", "tmpfs", str(at)], check=True)
    try:
        yield at
    finally:
        subprocess.run(["umount", "-l", str(at)], check=True)
        at.rmdir()


def full() -> str:
    """Fill the disk that holds the book: reading goes on, writing is refused in a sentence, and room mends it."""
    with disk(40) as at:
        book = Book(at)
        try:
            rub = rub_of(book)
            ballast = at / "ballast"
            out = os.open(ballast, os.O_CREAT | os.O_WRONLY)
            with suppress(OSError):
                while True:
                    os.write(out, b"x" * 4096)
            os.close(out)
            refused = Answer(200, {})
            for turn in range(400):
                refused = book("PUT", f"blends/{rub['id']}", rub | {"batch": f"{60 + turn % 40} g"}, str(uuid.uuid4()))
                if refused.status != 200:
                    break
                rub = refused.document
            reads = book("GET", "blends").status
            ready = book("GET", "ready")
            book.kill()
            book.start()  # on a full disk too
            again = book("GET", "ready").document.get("state"), book("GET", "blends").status
            ballast.unlink()
            time.sleep(2.5)
            rub = rub_of(book)
            mended = book("PUT", f"blends/{rub['id']}", rub | {"batch": "77 g"}, str(uuid.uuid4())).status
            whole = book.whole()
        finally:
            book.kill()
    return (
        f"Disk full: a save is answered {refused.status} “{refused.document['detail']}”, lists still {reads}, "
        f"/api/ready says {ready.document['state']}; started anew on the full disk it says {again[0]} and lists "
        f"{again[1]}; with room again a save is answered {mended}, the book is {'whole' if whole else 'DAMAGED'}"
    )


def read_only() -> str:
    """Mount the disk that holds the book read-only."""
    with disk(40) as at:
        book = Book(at)
        try:
            rub = rub_of(book)
            book.kill()
            subprocess.run(["mount", "-o", "remount,ro", str(at)], check=True)
            book.start()
            ready = book("GET", "ready")
            page = urllib.request.Request(f"{book.address}/coat")
            try:
                urllib.request.urlopen(page, timeout=30).close()
                shown = "the application"
            except urllib.error.HTTPError as problem:
                shown = problem.read().decode().split("<h1>")[1].split("</h1>")[0]
            subprocess.run(["mount", "-o", "remount,rw", str(at)], check=True)
            time.sleep(2.5)
            mended = book("PUT", f"blends/{rub['id']}", rub | {"batch": "77 g"}, str(uuid.uuid4())).status
        finally:
            book.kill()
    return (
        f"Disk read-only: /api/ready says {ready.document['state']}, the page “{shown}”; writable again, a save is "
        f"answered {mended} without a new start"
    )


def clock() -> str:
    """Set the server's clock back an hour in the middle of a batch, a save and a revision."""
    wrapper = (
        "import sys, datetime, pathlib\n"
        f"sys.path[:0] = [{str(ROOT / 'server')!r}, {str(ROOT / 'core')!r}]\n"
        "import os; os.environ['DJANGO_SETTINGS_MODULE'] = 'ravska.settings'\n"
        "from django.utils import timezone\n"
        "was, mark = timezone.now, pathlib.Path(os.environ['RAVSKA_DATA']) / 'hour-back'\n"
        "timezone.now = lambda: was() - datetime.timedelta(hours=1 if mark.exists() else 0)\n"
        "from django.core.management import execute_from_command_line\n"
        "execute_from_command_line(['manage.py', *sys.argv[1:]])\n"
    )
    with demo(sys.executable, "-c", wrapper) as book:
        rub = rub_of(book)
        batch = book("POST", "batches", {"blend": rub["id"], "version": rub["version"], "wanted": "90 g"}).document
        keys = [str(uuid.uuid4()) for _ in range(3)]
        for at, key in enumerate(keys):
            if at == 1:
                (book.data / "hour-back").touch()
            pour = {"version": batch["version"], "line": batch["current"], "grams": 1.0, "key": key}
            batch = book("POST", f"batches/{batch['id']}/pour", pour).document
        last = batch["last_pour"] == keys[2]
        batch = book("POST", f"batches/{batch['id']}/take-back", {"version": batch["version"]}).document
        back = batch["last_pour"] == keys[1]
        rub = rub_of(book)
        rub["lines"][0]["parts"] = "9"
        rub = book("PUT", f"blends/{rub['id']}", rub, str(uuid.uuid4())).document
        kept = book("POST", f"blends/{rub['id']}/keep", {"version": rub["version"], "note": "an hour ago"}).status
        numbers = [
            node["number"]
            for node in book("GET", f"blends/{rub['id']}/tree").document
            if node["blend_id"] == rub["id"] and node["number"]
        ]
        home = book("GET", "cooks/in-hand").status
    ordered = "in order" if numbers == sorted(numbers) and kept == 200 else "OUT OF ORDER"
    return (
        f"Clock set back an hour between pours: the last pour is {'the last made' if last and back else 'WRONG'}, "
        f"revisions stand {ordered}, Home answers {home}"
    )


def phones(pages: int = 20) -> str:
    """Open a taster's phone many times over, each with the card of the trial."""
    with demo() as book, sync_playwright() as playwright:
        trial = book("GET", "cooks/in-hand").document["cook"]["trial"]["id"]
        browser = playwright.chromium.launch(**CHROMIUM)
        faults: list[str] = []
        began = time.monotonic()
        opened = []
        for _ in range(pages):
            page = browser.new_page(viewport={"width": 390, "height": 844})
            page.on("pageerror", lambda fault: faults.append(str(fault)))
            page.goto(f"{book.address}/table/{trial}")
            opened.append(page)
        for page in opened:
            page.get_by_role("main").wait_for()
            page.wait_for_load_state("networkidle")
        took = time.monotonic() - began
        began = time.monotonic()
        home = book("GET", "cooks/in-hand").status
        answer_ms = (time.monotonic() - began) * 1000
        memory = book.memory_mb()
        browser.close()
    return (
        f"{pages} pages of a taster's phone: all open after {took:.0f} s with {len(faults)} faults, Home then answers "
        f"{home} in {answer_ms:.0f} ms, the server holds {memory:.0f} MB"
    )


def cards(tasters: int = 24) -> str:
    """Hand in the cards of a whole table at once, each twice under its key, as phones with a bad network do."""
    with demo() as book:
        trial = book("GET", "cooks/in-hand").document["cook"]["trial"]["id"]
        codes = book("GET", f"trials/{trial}").document["codes"]

        def hand_in(name: str) -> list[int]:
            key = str(uuid.uuid4())
            card = {"taster": name, "scores": [], "prefers": codes[0]}
            return [book("POST", f"trials/{trial}/cards", card, key).status for _ in range(2)]

        began = time.monotonic()
        with ThreadPoolExecutor(tasters) as phones:
            answers = list(phones.map(hand_in, [f"Boat {n}" for n in range(tasters)]))
        took = time.monotonic() - began
        kept = len(book("GET", f"trials/{trial}").document["cards"])
    fine = sum(answer == [201, 201] for answer in answers)
    return f"{tasters} cards at once, each sent twice: {fine} answered, {kept} kept, in {took:.1f} s"


def hour(edits: int = 3600) -> str:
    """Make an hour's edits as fast as they go, a blend and a cook saved and read in turn; memory must be flat."""
    with demo() as book:
        rub = rub_of(book)
        cook = book("GET", f"cooks/{book('GET', 'cooks/in-hand').document['cook']['id']}").document
        held: list[float] = []
        for turn in range(edits):
            if turn % 2:
                rub["batch"] = f"{50 + turn % 900} g"
                book("POST", "blends/read", rub)
                rub = book("PUT", f"blends/{rub['id']}", rub, str(uuid.uuid4())).document
            else:
                cook["pieces"][0]["mass"] = f"{2000 + turn % 900} g"
                book("POST", "cooks/coat/read", {"pieces": cook["pieces"], "before": []})
                cook = book("PUT", f"cooks/{cook['id']}", cook, str(uuid.uuid4())).document
            if turn in (edits // 6, edits // 3, edits * 2 // 3, edits - 1):
                held.append(book.memory_mb())
        size = (book.data / "ravska.sqlite3").stat().st_size / 2**20
    grew = ", ".join(f"{mb:.0f}" for mb in held)
    return (
        f"An hour's edits ({edits:,} saves, each with its reading): the server holds {grew} MB after a sixth, a "
        f"third, two thirds and all of them; the book is {size:.0f} MB, the answers of the last hour in it"
    )


def gigabyte() -> str:
    """Back a book of 1 GB up, and put it back."""
    with tempfile.TemporaryDirectory(prefix="ravska-") as data:
        here = os.environ | {"RAVSKA_DATA": data}
        for command in ("migrate", "load_demo"):
            subprocess.run([*MANAGE, command], env=here, check=True, stdout=subprocess.DEVNULL)
        file = Path(data) / "ravska.sqlite3"
        with closing(sqlite3.connect(file)) as opened:
            for _ in range(1024):
                row = (uuid.uuid4().hex, "PUT /", "", 200, os.urandom(2**20), "2027-05-04 09:00:00")
                opened.execute(
                    "INSERT INTO book_answered (id, asked, digest, status, answer, at) VALUES (?, ?, ?, ?, ?, ?)", row
                )
            opened.commit()
        took = []
        for command in ("backup", "restore"):
            began = time.monotonic()
            subprocess.run([*MANAGE, command], env=here, check=True, stdout=subprocess.DEVNULL)
            took.append(time.monotonic() - began)
        size = file.stat().st_size / 2**30
        shutil.rmtree(Path(data) / "backups")
    return f"A book of {size:.2f} GB: backed up and checked in {took[0]:.0f} s, put back and checked in {took[1]:.0f} s"


def at_fire(attack: Callable[[Book], str]) -> Callable[[], str]:
    """Return an attack on a fire, each on a book of its own."""

    def act() -> str:
        with demo() as book:
            return attack(book)

    return act


ATTACKS: dict[str, Callable[[], str]] = {
    "kills": kills,
    "imports": imports,
    "crowd": crowd,
    "idle": idle,
    "full": full,
    "read-only": read_only,
    "clock": clock,
    "phones": phones,
    "cards": cards,
    "hour": hour,
    "gigabyte": gigabyte,
    "stream": at_fire(at_the_fire.stream),
    "beside-a-forecast": at_fire(at_the_fire.beside_a_forecast),
    "fire-kills": at_fire(at_the_fire.fire_kills),
    "drawn": at_fire(at_the_fire.drawn),
    "burning-day": at_fire(at_the_fire.burning_day),
}


def main() -> None:
    for name in sys.argv[1:] or ATTACKS:
        print(f"- {ATTACKS[name]()}.", flush=True)


if __name__ == "__main__":
    main()

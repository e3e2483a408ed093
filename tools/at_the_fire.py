"""What a fire withstands: streams of readings, pages, kills, a day at 120 times; part of `make reliability`."""

import http.client
import json
import random
import sqlite3
import threading
import time
import uuid
from contextlib import closing, suppress
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Protocol

from playwright.sync_api import sync_playwright
from running import CHROMIUM


class Burning(Protocol):
    """A server on a demo book, as `reliability` starts it."""

    data: Path
    address: str
    port: int

    def __call__(self, method: str, path: str, body: object = None, key: str = "") -> tuple[int, dict]: ...

    def start(self) -> None: ...

    def kill(self) -> None: ...

    def memory_mb(self) -> float: ...

    def whole(self) -> bool: ...


class Probe:
    """A thermometer with a kept-alive connection."""

    def __init__(self, book: Burning, token: str) -> None:
        self.connection = http.client.HTTPConnection("127.0.0.1", book.port, timeout=30)
        self.headers = {"Content-Type": "application/json", "Authorization": f"Bearer {token}"}

    def send(self, rows: list[dict]) -> tuple[int, float]:
        """Send readings; return how many were new, and how long the answer took [ms]."""
        began = time.perf_counter()
        self.connection.request(
            "POST", "/api/devices/thermometer/readings", json.dumps({"readings": rows}), self.headers
        )
        answer = self.connection.getresponse()
        told = json.load(answer)
        return told["taken"], (time.perf_counter() - began) * 1000


def _thermometer(book: Burning, hours_ago: float = 0) -> tuple[str, Probe]:
    """Return the cook that is on the fire, and a thermometer with its probes in it since so long."""
    since = (datetime.now(UTC) - timedelta(hours=hours_ago)).isoformat()
    cook = book("GET", "fire/cook")[1]["id"]
    made = book("POST", "fire/devices", {"name": "Many channels"})[1]
    for channel, role, letter in (("0", "centre", "A"), ("1", "centre", "B"), ("2", "pit", "")):
        use = {"key": str(uuid.uuid4()), "device": made["device"]["id"], "channel": channel, "role": role}
        use["from_at"] = since
        book("POST", f"fire/{cook}/probes", use | {"letter": letter})
    return cook, Probe(book, made["token"])


def _share(ms: list[float], share: float) -> float:
    return sorted(ms)[min(len(ms) - 1, int(len(ms) * share))]


def _kept(book: Burning) -> int:
    with closing(sqlite3.connect(book.data / "ravska.sqlite3")) as opened:
        device = opened.execute("SELECT id FROM book_device WHERE name = 'Many channels'").fetchone()[0]
        return int(opened.execute("SELECT count(*) FROM book_reading WHERE device_id = ?", (device,)).fetchone()[0])


def beside_a_forecast(book: Burning) -> str:
    """Send a reading of four channels each second beside one page, as a household does."""
    return stream(book, 40, 16, 1)


def stream(book: Burning, seconds: int = 60, a_second: int = 200, pages: int = 20) -> str:
    """Send readings while twenty pages look on and both pieces are forecast; then all of it again, out of order."""
    cook, probe = _thermometer(book)
    sent, took, looked = list[list[dict]](), list[float](), list[float]()
    taken, until, faults = 0, time.monotonic() + seconds, list[str]()

    def look() -> None:
        after = 0
        while time.monotonic() < until:
            began = time.perf_counter()
            status, told = book("GET", f"fire/{cook}?after={after}")
            looked.append((time.perf_counter() - began) * 1000)
            if status != 200:
                faults.append(str(status))
                continue
            after = told["last"]
            time.sleep(2)

    threads = [threading.Thread(target=look) for _ in range(pages)]
    for thread in threads:
        thread.start()
    began = time.monotonic()
    for turn in range(seconds * 4):
        at = datetime.now(UTC)
        each = a_second // 4
        rows = [
            {"channel": str(one % 10), "celsius": 60 + turn / 60 if one % 10 < 2 else 150.0,
             "at": (at - timedelta(milliseconds=5 * one)).isoformat()}
            for one in range(each)
        ]  # fmt: skip
        new, ms = probe.send(rows)
        taken += new
        took.append(ms)
        sent.append(rows)
        time.sleep(max(0.0, began + (turn + 1) / 4 - time.monotonic()))
    for thread in threads:
        thread.join()
    again = random.Random(3).sample(sent, 60)
    for rows in again:
        random.Random(4).shuffle(rows)
    twice = sum(probe.send(rows)[0] for rows in again)
    return (
        f"{a_second} readings a second for {seconds} s beside {pages} pages and the forecasts: {taken:,} acknowledged, "
        f"{_kept(book):,} in the book, {twice} kept twice when sent again; answered within {_share(took, 0.5):.0f} ms, "
        f"19 of 20 within {_share(took, 0.95):.0f}; pages within {_share(looked, 0.5):.0f} ms, 19 of 20 within "
        f"{_share(looked, 0.95):.0f}, {len(faults)} faults; the server holds {book.memory_mb():.0f} MB"
    )


def fire_kills(book: Burning, times: int = 40) -> str:
    """Kill the server at random moments under readings and taps; all that was acknowledged must be there."""
    rng, readings, taps = random.Random(21), 0, set[str]()
    cook, probe = _thermometer(book)
    token = probe.headers["Authorization"].split()[1]
    for _ in range(times):
        probe, stop = Probe(book, token), threading.Event()
        counted = [0]

        def tap(stop: threading.Event = stop) -> None:
            with suppress(OSError, ValueError, http.client.HTTPException):
                while not stop.is_set():
                    key = str(uuid.uuid4())
                    body = {"taps": [{"key": key, "what": "spritz", "letter": "A"}]}
                    if key in book("POST", f"fire/{cook}/taps", body)[1].get("noted", ()):
                        taps.add(key)

        def read(probe: Probe = probe, stop: threading.Event = stop, counted: list[int] = counted) -> None:
            with suppress(OSError, ValueError, http.client.HTTPException):
                while not stop.is_set():
                    rows = [{"channel": "0", "celsius": 61.0, "at": datetime.now(UTC).isoformat()}]
                    counted[0] += probe.send(rows)[0]

        threads = [threading.Thread(target=tap), threading.Thread(target=read)]
        for thread in threads:
            thread.start()
        time.sleep(rng.uniform(0.05, 0.8))
        book.kill()
        stop.set()
        for thread in threads:
            thread.join()
        readings += counted[0]
        if not book.whole():
            return "A kill at the fire DAMAGED the book"
        book.start()
    with closing(sqlite3.connect(book.data / "ravska.sqlite3")) as opened:
        there = {row[0].replace("-", "") for row in opened.execute("SELECT key FROM book_event WHERE what = 'spritz'")}
    lost = sum(key.replace("-", "") not in there for key in taps)
    return (
        f"{times} kills at the fire: {readings:,} readings and {len(taps):,} taps acknowledged, "
        f"{max(0, readings - _kept(book))} and {lost} of them lost; the book whole after each"
    )


def drawn(book: Burning) -> str:
    """Draw twelve hours of four probes read every five seconds."""
    cook, probe = _thermometer(book, 13)
    times = [5.0 * at for at in range(12 * 720)]
    book("POST", f"fire/{cook}/taps", {"taps": [
        {"key": str(uuid.uuid4()), "what": "on", "letter": "A",
         "at": (datetime.now(UTC) - timedelta(hours=12)).isoformat()}]})  # fmt: skip
    for use in ("0", "1", "2", "3"):
        for at in range(0, len(times), 1000):
            probe.send([
                {"channel": use, "celsius": 20 + ago / 900 % 60 + random.Random(ago).random(), "ago_s": ago}
                for ago in times[at : at + 1000]
            ])  # fmt: skip
    asked = []
    for _ in range(7):
        began = time.perf_counter()
        _, told = book("GET", f"fire/{cook}")
        asked.append((time.perf_counter() - began) * 1000)
    points = max(len(line["at"]) for line in told["lines"])
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(**CHROMIUM)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.add_init_script(
            "const look = () => { const far = [...document.querySelectorAll('.picture path')]"
            ".some((one) => (one.getAttribute('d') ?? '').length > 20000);"
            "if (far) window.drawnAt = performance.now(); else requestAnimationFrame(look) }; look()"
        )
        page.goto(f"{book.address}/fire/{cook}")
        page.wait_for_function("() => window.drawnAt")
        ms = page.evaluate(
            "(cook) => { const asked = performance.getEntriesByType('resource')"
            ".find((one) => one.name.includes(`/api/fire/${cook}?after=0`));"
            "return window.drawnAt - asked.responseEnd }",
            cook,
        )
        browser.close()
    return (
        f"{_kept(book):,} readings of 12 h: the first answer takes {asked[0]:.0f} ms, the next "
        f"{_share(asked[1:], 0.5):.0f}; at most {points:,} points a probe are sent, and drawn {ms:.0f} ms later"
    )


def burning_day(book: Burning, minutes: float = 12) -> str:
    """Let the simulated thermometer go through a day at 120 times speed, with a page that looks on."""
    cook = book("GET", "fire/cook")[1]["id"]
    book("POST", f"fire/{cook}/simulated", {"speed": 120})
    began, after, held = time.monotonic(), 0, list[float]()
    while time.monotonic() - began < minutes * 60:
        _, told = book("GET", f"fire/{cook}?after={after}")
        after = told["last"]
        if time.monotonic() - began > (len(held) + 1) * minutes * 60 / 6:
            held.append(book.memory_mb())
        time.sleep(2)
    with closing(sqlite3.connect(book.data / "ravska.sqlite3")) as opened:
        count = opened.execute(
            "SELECT count(*) FROM book_reading JOIN book_device ON device_id = book_device.id WHERE simulated"
        ).fetchone()[0]
    grew = ", ".join(f"{mb:.0f}" for mb in held)
    return f"{minutes * 2:.0f} h of readings at 120 times: {count:,} kept, the server holds {grew} MB after each sixth"

"""A Ravska of its own for a tool: a fresh demo book in a temporary folder, served on a free port."""

import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import NamedTuple, Protocol

ROOT = Path(__file__).resolve().parents[1]
CHROMIUM = {
    "executable_path": "/usr/bin/chromium",
    "args": [
        "--headless",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
    ],
}


OWN_PAGE = {"Sec-Fetch-Site": "same-origin"}
"""What a browser says of a request by a page of the server's own; without it no write is taken."""


class Served(NamedTuple):
    """A server that is up: where, and which process it is."""

    address: str
    process: int


class Process(Protocol):
    """What tells whether it has ended: then something else than None."""

    def poll(self) -> int | None: ...


SLOWEST_START_S = 180


def wait_until_up(server: Process, address: str) -> None:
    """Wait for a server to answer, as long as a slow machine may take.

    Raises
    ------
    RuntimeError
        When it ended instead, or never answers.
    """
    until = time.monotonic() + SLOWEST_START_S
    while time.monotonic() < until and server.poll() is None:
        try:
            urllib.request.urlopen(f"{address}/api/ping", timeout=20).close()
            return
        except OSError:
            time.sleep(0.05)
    raise RuntimeError(f"The server at {address} does not answer.")


@contextmanager
def running() -> Iterator[Served]:
    """Yield a server that is up, and end it afterwards."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    with tempfile.TemporaryDirectory(prefix="ravska-") as data:
        here = os.environ | {"RAVSKA_DATA": data, "RAVSKA_LISTEN": f"127.0.0.1:{port}"}
        manage = [sys.executable, str(ROOT / "server/manage.py")]
        for command in ("migrate", "load_demo"):
            subprocess.run([*manage, command], env=here, check=True, stdout=subprocess.DEVNULL)
        server = subprocess.Popen([*manage, "serve"], env=here, stdout=subprocess.DEVNULL)
        try:
            wait_until_up(server, f"http://127.0.0.1:{port}")
            yield Served(f"http://127.0.0.1:{port}", server.pid)
        finally:
            server.terminate()
            server.wait()

"""The real interface in headless Chromium, on a server of its own with a fresh demo book."""

import json
import os
import shutil
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect
from running import CHROMIUM, wait_until_up

ROOT = Path(__file__).resolve().parents[2]
# no verdict by the clock: this only bounds how long a broken test waits
expect.set_options(timeout=60_000)
MANAGE = [sys.executable, str(ROOT / "server/manage.py")]


@pytest.fixture(scope="session")
def browser_type_launch_args():
    return CHROMIUM


@pytest.fixture
def browser_context_args():
    return {
        "viewport": {"width": 1280, "height": 800}, "timezone_id": "Europe/Berlin", "reduced_motion": "reduce",
        # what is kept for a lost server would answer before what a test puts in its place
        "service_workers": "block",
    }  # fmt: skip


class Forked:
    """A process of the nursery's."""

    def __init__(self, process: int) -> None:
        self.process = process

    def poll(self) -> int | None:
        try:
            os.kill(self.process, 0)
        except ProcessLookupError:
            return 0
        return None

    def kill(self) -> None:
        if self.poll() is None:
            os.kill(self.process, signal.SIGKILL)
        while self.poll() is None:
            time.sleep(0.01)


@pytest.fixture(scope="session")
def nursery() -> Iterator[subprocess.Popen[str]]:
    with subprocess.Popen(
        [sys.executable, str(ROOT / "tests/nursery.py")], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
    ) as process:
        yield process


class Server:
    """Ravska as `make demo` serves it, on a free port; can be lost and come back."""

    def __init__(self, nursery: subprocess.Popen[str], data: Path, port: int) -> None:
        self.nursery = nursery
        self.url = f"http://127.0.0.1:{port}"
        self.env = os.environ | {"RAVSKA_DATA": str(data), "RAVSKA_LISTEN": f"127.0.0.1:{port}"}
        self.start()

    def start(self) -> None:
        assert self.nursery.stdin is not None
        assert self.nursery.stdout is not None
        self.nursery.stdin.write(json.dumps(self.env) + "\n")
        self.nursery.stdin.flush()
        self.process = Forked(int(self.nursery.stdout.readline()))
        wait_until_up(self.process, self.url)

    def lose(self) -> None:
        self.process.kill()


@pytest.fixture
def ravska(tmp_path, demo_data, free_port, nursery):
    data = tmp_path / "book"
    shutil.copytree(demo_data, data)
    server = Server(nursery, data, free_port)
    yield server
    server.lose()


@pytest.fixture
def page(page: Page, ravska) -> Page:
    """A page whose errors fail the test."""
    faults: list[str] = []
    page.on("pageerror", lambda fault: faults.append(str(fault)))
    page.set_default_timeout(60_000)
    page.goto(ravska.url)
    yield page
    assert faults == []

"""The real interface in headless Chromium, on a server of its own with a fresh demo book."""

import os
import shutil
import subprocess
import sys
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
    return {"viewport": {"width": 1280, "height": 800}, "timezone_id": "Europe/Berlin", "reduced_motion": "reduce"}


class Server:
    """Ravska as `make demo` serves it, on a free port; can be lost and come back."""

    def __init__(self, data: Path, port: int) -> None:
        self.url = f"http://127.0.0.1:{port}"
        self.env = os.environ | {"RAVSKA_DATA": str(data), "RAVSKA_LISTEN": f"127.0.0.1:{port}"}
        self.process: subprocess.Popen | None = None
        self.start()

    def start(self) -> None:
        self.process = subprocess.Popen([*MANAGE, "serve"], env=self.env, stdout=subprocess.DEVNULL)
        wait_until_up(self.process, self.url)

    def lose(self) -> None:
        assert self.process is not None
        self.process.kill()
        self.process.wait()


@pytest.fixture
def ravska(tmp_path, demo_data, free_port):
    data = tmp_path / "book"
    shutil.copytree(demo_data, data)
    server = Server(data, free_port)
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

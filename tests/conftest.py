import os
import socket
import subprocess
import sys
import tempfile
from pathlib import Path

import pytest
from hypothesis import settings

ROOT = Path(__file__).resolve().parents[1]

# settings read these on import: tests keep their hands off the household's own book
os.environ["RAVSKA_DATA"] = tempfile.mkdtemp(prefix="ravska-test-")
os.environ["RAVSKA_HOSTS"] = "127.0.0.1,localhost,testserver"


# the same examples on every run, and no verdict by the clock: first calls load scipy and pint
settings.register_profile("steady", deadline=None, derandomize=True, database=None, max_examples=50)
settings.load_profile("steady")


@pytest.fixture(scope="session")
def demo_data(tmp_path_factory) -> Path:
    """A folder with the demo book, made once; whoever serves it serves a copy."""
    data = tmp_path_factory.mktemp("demo")
    here = os.environ | {"RAVSKA_DATA": str(data)}
    for command in ("migrate", "load_demo"):
        subprocess.run(
            [sys.executable, str(ROOT / "server/manage.py"), command], env=here, check=True, capture_output=True
        )
    return data


@pytest.fixture
def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]

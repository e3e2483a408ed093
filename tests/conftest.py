import fcntl
import gc
import os
import socket
import subprocess
import sys
import tempfile
from pathlib import Path

import pytest
from hypothesis import Phase, settings

ROOT = Path(__file__).resolve().parents[1]

# settings read these on import: tests keep their hands off the household's own book
os.environ["RAVSKA_DATA"] = tempfile.mkdtemp(prefix="ravska-test-")
os.environ["RAVSKA_HOSTS"] = "127.0.0.1,localhost,testserver"


# the same examples on every run, and no verdict by the clock: first calls load scipy and pint
settings.register_profile("steady", deadline=None, derandomize=True, database=None, max_examples=50)
# a mutant only has to fail: no smallest example is looked for
settings.register_profile("mutants", settings.get_profile("steady"), phases=[Phase.explicit, Phase.generate])
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE", "steady"))


def pytest_collection_finish() -> None:
    """Leave what was collected out of every later collection of garbage: the cases of the whole API are a gigabyte."""
    gc.collect()
    gc.freeze()


@pytest.fixture(scope="session")
def demo_data(tmp_path_factory) -> Path:
    """A folder with the demo book, made once by whichever worker comes first; whoever serves it serves a copy."""
    mine = tmp_path_factory.getbasetemp()
    data = (mine.parent if "PYTEST_XDIST_WORKER" in os.environ else mine) / "demo"
    with data.with_suffix(".lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not data.exists():
            half = data.with_suffix(".half")
            half.mkdir(exist_ok=True)
            here = os.environ | {"RAVSKA_DATA": str(half)}
            manage = [sys.executable, str(ROOT / "server/manage.py")]
            for command in (["migrate", "--skip-checks"], ["load_demo"]):
                subprocess.run([*manage, *command], env=here, check=True, capture_output=True)
            half.rename(data)
    return data


@pytest.fixture
def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]

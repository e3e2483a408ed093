import os
import socket
import tempfile

import pytest
from hypothesis import settings

# settings read these on import: tests keep their hands off the household's own book
os.environ["RAVSKA_DATA"] = tempfile.mkdtemp(prefix="ravska-test-")
os.environ["RAVSKA_HOSTS"] = "127.0.0.1,localhost,testserver"


# the same examples on every run, and no verdict by the clock: first calls load scipy and pint
settings.register_profile("steady", deadline=None, derandomize=True, database=None)
settings.load_profile("steady")


@pytest.fixture
def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]

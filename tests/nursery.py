"""Servers that start fast: one process that has the application in hand, and a fork of it for each.

Nothing of a book is touched before a fork: settings, and with them whose book it is, are read anew after it.
Lines of JSON come in, each the surroundings of one server; the number of its process goes out.
"""

import gc
import json
import os
import signal
import sys
import tempfile
from pathlib import Path


def serve(here: dict[str, str]) -> None:
    """Become a server in surroundings of its own."""
    from django.conf import settings
    from django.core.management import execute_from_command_line
    from django.db import connections
    from django.utils.functional import empty

    os.environ.clear()
    os.environ.update(here)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ravska.settings")
    for known in connections.all(initialized_only=True):
        assert known.connection is None, "no book is opened before a fork"
        del connections[known.alias]
    del sys.modules["ravska.settings"]
    settings._wrapped = empty
    for alias, database in connections.settings.items():
        database["NAME"] = settings.DATABASES[alias]["NAME"]
    nothing = os.open(os.devnull, os.O_RDWR)
    os.dup2(nothing, 0)
    os.dup2(nothing, 1)
    execute_from_command_line(["manage.py", "serve"])


def grow_up() -> None:
    """Have in hand what a server is made of, and what its first answers load."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ravska.settings")
    os.environ["RAVSKA_DATA"] = tempfile.mkdtemp(prefix="ravska-nursery-")
    import django

    django.setup()
    import api.main  # noqa: F401
    import waitress.server  # noqa: F401
    from book.management.commands.serve import _warm_up
    from django.db import connections

    _warm_up()
    assert connections.settings
    gc.freeze()


def main() -> None:
    grow_up()
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)
    for line in sys.stdin:
        process = os.fork()
        if process == 0:
            signal.signal(signal.SIGCHLD, signal.SIG_DFL)
            serve(json.loads(line))
            os._exit(0)
        print(process, flush=True)


if __name__ == "__main__":
    sys.path[:0] = [str(Path(__file__).resolve().parents[1] / floor) for floor in ("core", "server")]
    main()

"""Servers that start fast: one process that has what they are made of in hand, and a fork of it for each.

Only libraries and the core are imported before a fork: settings, and with them whose book it is, are read after it.
Lines of JSON come in, each the surroundings of one server; the number of its process goes out.
"""

import importlib
import json
import os
import signal
import sys
from pathlib import Path

HEAVY = ("django.core.management", "pydantic", "waitress.server", "ravska_core.trial", "ravska_core.day")


def serve(here: dict[str, str]) -> None:
    """Become a server."""
    from django.core.management import execute_from_command_line

    os.environ.clear()
    os.environ.update(here)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ravska.settings")
    nothing = os.open(os.devnull, os.O_RDWR)
    os.dup2(nothing, 0)
    os.dup2(nothing, 1)
    execute_from_command_line(["manage.py", "serve"])


def main() -> None:
    for name in HEAVY:
        importlib.import_module(name)
    assert "ravska.settings" not in sys.modules, "settings would be those of whoever began the nursery"
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

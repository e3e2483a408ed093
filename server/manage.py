"""Django's command line for Ravska."""

import os
import sys
from pathlib import Path


def main() -> None:
    here = Path(__file__).resolve().parent
    sys.path[:0] = [str(here), str(here.parent / "core")]
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ravska.settings")
    from django.core.management import execute_from_command_line

    execute_from_command_line(sys.argv)


if __name__ == "__main__":
    main()

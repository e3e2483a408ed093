import gc
import logging
import os
import signal
import sys
import threading
import time
from datetime import datetime
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from book.backups import Refused, backup_of, due, in_use

MOST_CONNECTIONS, IDLE_S, LOOKS_EVERY_S = 1000, 30, 600

log = logging.getLogger(__name__)

LARGEST_REQUEST = 8 * 2**20
"""What is read of a request at most [bytes]; what one may hold is said by its address."""


def _ended(*_: object) -> None:
    """Let what is being answered come to its end, then end."""
    sys.exit(0)


def _back_up_daily(book: Path) -> None:
    """Make a backup whenever the newest is more than a day old, as long as the server runs."""
    while True:
        time.sleep(LOOKS_EVERY_S)
        try:
            if due(book, datetime.now()):
                backup_of(book, datetime.now())
        except (Refused, OSError) as fault:
            log.error("No backup was made: %s", fault)


class Command(BaseCommand):
    help = "Serve Ravska in production mode. RAVSKA_LISTEN says where (127.0.0.1:8000)."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--demo", action="store_true", help="bring the book up to date and fill an empty one first")

    def handle(self, *args: object, **options: object) -> None:
        book = Path(str(settings.DATABASES["default"]["NAME"]))
        try:
            with in_use(book):
                self._serve(book, bool(options["demo"]))
        except Refused as refusal:
            raise CommandError(str(refusal)) from None

    def _serve(self, book: Path, demo: bool) -> None:
        if demo:
            call_command("migrate", verbosity=0)
            call_command("load_demo", stdout=self.stdout)

        import waitress
        from ravska.wsgi import application
        from ravska_core.catalogue import catalogue
        from ravska_core.measure import parse_mass_g
        from ravska_core.meat import ellipsoid_area_cm2

        # load now what the first edit would wait for, then leave it out of every later collection
        catalogue()
        parse_mass_g("1 lb")
        ellipsoid_area_cm2(3, 2, 1)
        gc.collect()
        gc.freeze()
        gc.set_threshold(100_000, 50, 100)

        listen = os.environ.get("RAVSKA_LISTEN", "127.0.0.1:8000")
        try:
            server = waitress.create_server(
                application,
                listen=listen,
                threads=8,
                ident="ravska",
                # tabs left open, and whoever only dials, take nobody else's place; poll knows no end of files
                connection_limit=MOST_CONNECTIONS,
                asyncore_use_poll=True,
                channel_timeout=IDLE_S,
                cleanup_interval=5,
                max_request_body_size=LARGEST_REQUEST,
            )
        except OSError as error:
            raise CommandError(
                f"Cannot listen at {listen}: {error.strerror}. Is Ravska running there already? "
                "Set RAVSKA_LISTEN to another address, such as 127.0.0.1:8001."
            ) from None
        signal.signal(signal.SIGTERM, _ended)
        threading.Thread(target=_back_up_daily, args=(book,), daemon=True).start()
        self.stdout.write(f"Ravska is at http://{listen} (Ctrl+C ends it)")
        self.stdout.flush()
        server.run()

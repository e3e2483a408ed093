import gc
import logging
import os
import signal
import sys
import threading
import time
from datetime import datetime
from logging.handlers import RotatingFileHandler
from pathlib import Path
from urllib.parse import urlsplit

import waitress
from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import DatabaseError, connection
from django.utils import timezone
from ravska_core.catalogue import catalogue
from ravska_core.measure import parse_mass_g
from ravska_core.meat import ellipsoid_area_cm2
from waitress.server import BaseWSGIServer

from book.answered import let_go
from book.backups import Refused, backup_of, due, in_use
from book.condition import READY, TITLES, Condition, condition_of, watch

MOST_CONNECTIONS, IDLE_S, LOOKS_EVERY_S = 1000, 30, 600

log = logging.getLogger("ravska")

LARGEST_REQUEST = 8 * 2**20
"""What is read of a request at most [bytes]; what one may hold is said by its address."""

LOG, LARGEST_LOG, LOGS = "ravska.log", 500_000, 3


class NoText(logging.Formatter):
    """Says of a fault where it was, but not its words: what somebody typed may stand in them."""

    def format(self, record: logging.LogRecord) -> str:
        return super().format(logging.makeLogRecord(record.__dict__ | {"exc_text": None}))

    def formatException(self, ei) -> str:  # type: ignore[no-untyped-def]  # noqa: N802 - the library's name
        kind, _, trace = ei
        places = []
        while trace is not None:
            code = trace.tb_frame.f_code
            places.append(f"  {Path(code.co_filename).name}:{trace.tb_lineno} {code.co_name}")
            trace = trace.tb_next
        return "\n".join([*places, f"  {kind.__module__}.{kind.__qualname__}" if kind else ""])


def _keep_log(folder: Path) -> None:
    """Keep what happens in a file beside the book that never grows large."""
    logging.raiseExceptions = False  # a log that cannot be written, as on a full disk, stops nothing
    kept = RotatingFileHandler(folder / LOG, maxBytes=LARGEST_LOG, backupCount=LOGS, encoding="utf-8", delay=True)
    kept.setFormatter(NoText("%(asctime)s %(levelname)s %(name)s: %(message)s"))
    logging.getLogger().addHandler(kept)
    log.setLevel(logging.INFO)


def _ended(*_: object) -> None:
    """Let what is being answered come to its end, then end."""
    log.info("ended")
    sys.exit(0)


def _listening(listen: str) -> BaseWSGIServer:
    """Return a server that listens at an address, before anything is done to the book.

    Raises
    ------
    Refused
        When it cannot listen there.
    """
    from ravska.wsgi import application

    try:
        if not urlsplit(f"//{listen}").port:
            raise ValueError
        return waitress.create_server(
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
    except (OSError, ValueError, OverflowError) as error:
        why = getattr(error, "strerror", None) or "that is no address and port"
        raise Refused(
            f"Cannot listen at {listen}: {why}. Is Ravska running there already? "
            "Set RAVSKA_LISTEN to another address, such as 127.0.0.1:8001."
        ) from None


def _warm_up() -> None:
    """Load now what the first edit would wait for, then leave it out of every later collection."""
    catalogue()
    parse_mass_g("1 lb")
    ellipsoid_area_cm2(3, 2, 1)
    gc.collect()
    gc.freeze()
    gc.set_threshold(100_000, 50, 100)


def _keep_house(book: Path) -> None:
    """Let old answers go, and make a backup whenever the newest is more than a day old, as long as the server runs."""
    while True:
        time.sleep(LOOKS_EVERY_S)
        try:
            if watch.look() == READY:
                let_go(timezone.now())
                if due(book, datetime.now()):
                    log.info("backup %s", backup_of(book, datetime.now()).name)
        except (Refused, OSError, DatabaseError):
            log.exception("no backup was made")
        finally:
            connection.close()


class Command(BaseCommand):
    help = "Serve Ravska in production mode. RAVSKA_LISTEN says where (127.0.0.1:8000)."
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--demo", action="store_true", help="bring the book up to date, and fill a new one first")

    def handle(self, *args: object, **options: object) -> None:
        book = Path(str(settings.DATABASES["default"]["NAME"]))
        try:
            with in_use(book):
                self._serve(book, bool(options["demo"]))
        except Refused as refusal:
            raise CommandError(str(refusal)) from None

    def _opened(self, book: Path, demo: bool) -> Condition:
        """Bring the book to where it can be served, as far as that is wanted; return in what condition it is then."""
        found = condition_of(book, check=True)
        new = found.state == "fresh" or (demo and found.state == "unmigrated")
        if not new and found != READY:
            return found
        try:
            if new:
                call_command("migrate", verbosity=0)
            if demo:
                call_command("load_demo", stdout=self.stdout)
        except (CommandError, DatabaseError, OSError) as fault:
            now = condition_of(book, check=True)
            return now if now.state not in ("unmigrated", "fresh") else Condition("unmigrated", (str(fault), *now.says))
        finally:
            connection.close()
        return condition_of(book, check=False) if new else found

    def _serve(self, book: Path, demo: bool) -> None:
        listen = os.environ.get("RAVSKA_LISTEN", "127.0.0.1:8000")
        server = _listening(listen)
        _keep_log(book.parent)  # after the application, which sets up the console's
        found = self._opened(book, demo)
        watch.begin(book, found)
        log.info("started at %s, the book is %s", listen, found.state)
        _warm_up()
        signal.signal(signal.SIGTERM, _ended)
        threading.Thread(target=_keep_house, args=(book,), daemon=True).start()
        if found != READY:
            self.stdout.write("\n".join([f"{TITLES[found.state]}.", *found.says]).replace("`", ""))
        self.stdout.write(f"Ravska is at http://{listen} (Ctrl+C ends it)")
        self.stdout.flush()
        server.run()

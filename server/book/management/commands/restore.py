from datetime import datetime
from pathlib import Path

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from book.backups import Refused, newest, restore
from book.carry import FOLDER


class Command(BaseCommand):
    help = "Put a backup in the book's place: the newest that is whole, or the file named."
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("backup", nargs="?", type=Path, help="a file of the folder of backups")

    def handle(self, *args: object, **options: object) -> None:
        book = Path(str(settings.DATABASES["default"]["NAME"]))
        named = options["backup"]
        backup = named if isinstance(named, Path) else newest(book)
        if backup is None:
            raise CommandError(f"There is no whole backup in {book.with_name(FOLDER)}; name a file.")
        try:
            aside = restore(book, backup, datetime.now())
        except Refused as refusal:
            raise CommandError(str(refusal)) from None
        before = f" The book that was there lies in {aside}, with its log." if aside else ""
        self.stdout.write(f"{backup} is the book now.{before} `make demo`, or `migrate`, brings it up to date.")

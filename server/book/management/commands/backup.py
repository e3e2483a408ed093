from datetime import datetime
from pathlib import Path

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from book.backups import Refused, backup_of
from book.carry import FOLDER


class Command(BaseCommand):
    help = "Copy the book into its folder of backups, while Ravska runs or not."
    requires_system_checks = ()

    def handle(self, *args: object, **options: object) -> None:
        book = Path(str(settings.DATABASES["default"]["NAME"]))
        try:
            copy = backup_of(book, datetime.now())
        except Refused as refusal:
            raise CommandError(str(refusal)) from None
        self.stdout.write(
            f"The book was copied to {copy}, and the copy is whole. Keep one on another disk too: copy "
            f"{book.with_name(FOLDER)} there from time to time."
        )

import sqlite3
from datetime import datetime
from pathlib import Path

from django.conf import settings
from django.core.management.base import BaseCommand


class Command(BaseCommand):
    help = "Copy the book safely while Ravska runs."
    requires_system_checks = ()

    def handle(self, *args: object, **options: object) -> None:
        book = Path(str(settings.DATABASES["default"]["NAME"]))
        copy = book.with_name(f"{book.stem}-{datetime.now():%Y%m%d-%H%M%S}.sqlite3")
        with sqlite3.connect(book) as source, sqlite3.connect(copy) as target:
            source.backup(target)
        self.stdout.write(f"The book was copied to {copy}")

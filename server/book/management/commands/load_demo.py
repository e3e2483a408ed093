from datetime import datetime

from django.core.management.base import BaseCommand

from book.demo import load_demo


class Command(BaseCommand):
    help = "Fill an empty book with the demo household's supper season."
    requires_system_checks = ()

    def handle(self, *args: object, **options: object) -> None:
        loaded = load_demo(datetime.now().astimezone())
        self.stdout.write("The demo household moved in." if loaded else "The book is not empty: left as it is.")

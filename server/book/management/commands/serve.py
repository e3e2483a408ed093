import gc
import os

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser


class Command(BaseCommand):
    help = "Serve Ravska in production mode. RAVSKA_LISTEN says where (127.0.0.1:8000)."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--demo", action="store_true", help="bring the book up to date and fill an empty one first")

    def handle(self, *args: object, **options: object) -> None:
        if options["demo"]:
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
            server = waitress.create_server(application, listen=listen, threads=8, ident="ravska")
        except OSError as error:
            raise CommandError(
                f"Cannot listen at {listen}: {error.strerror}. Is Ravska running there already? "
                "Set RAVSKA_LISTEN to another address, such as 127.0.0.1:8001."
            ) from None
        self.stdout.write(f"Ravska is at http://{listen} (Ctrl+C ends it)")
        self.stdout.flush()
        server.run()

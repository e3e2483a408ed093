import os

from django.core.management.base import BaseCommand


class Command(BaseCommand):
    help = "Serve Ravska in production mode. RAVSKA_LISTEN says where (127.0.0.1:8000)."

    def handle(self, *args, **options) -> None:
        import waitress
        from ravska.wsgi import application

        listen = os.environ.get("RAVSKA_LISTEN", "127.0.0.1:8000")
        self.stdout.write(f"Ravska is at http://{listen} (Ctrl+C ends it)")
        self.stdout.flush()
        waitress.serve(application, listen=listen, threads=8, ident="ravska")

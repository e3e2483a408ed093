import json

from django.core.management.base import BaseCommand


class Command(BaseCommand):
    help = "Print the API's OpenAPI document."

    def handle(self, *args, **options) -> None:
        from api.main import api

        self.stdout.write(json.dumps(api.get_openapi_schema(), indent=2))

"""Print the API's OpenAPI document."""

import json
import os

import django

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ravska.settings")
    django.setup()
    from api.main import api

    print(json.dumps(api.get_openapi_schema(), indent=2))

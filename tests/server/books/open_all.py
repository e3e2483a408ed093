"""Open every list and every document of the book in RAVSKA_DATA; print what did not open, and how many did."""

import os
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[3]


def addresses() -> list[str]:
    """Return the address of every list and document of the book."""
    from book.models import Batch, Blend, Cook, Trial

    found = [
        "cooks/in-hand",
        "cooks",
        "blends",
        "batches",
        "cooks/ways",
        "shelf/catalogue",
        "book/preferences",
        "shelf/prices",
        "shelf/own-ingredients",
        "shelf/own-cuts",
        "shelf/own-names",
    ]
    for blend in Blend.objects.filter(deleted_at__isnull=True):
        found += [f"blends/{blend.pk}{rest}" for rest in ("", "/tree")]
    for cook in Cook.objects.filter(deleted_at__isnull=True):
        found += [f"cooks/{cook.pk}", f"cooks/{cook.pk}/totals"]
    found += [f"batches/{batch.pk}" for batch in Batch.objects.filter(deleted_at__isnull=True)]
    for trial in Trial.objects.filter(cook__deleted_at__isnull=True):
        found += [f"trials/{trial.pk}", f"trials/{trial.pk}/verdict"]
    return found


def main() -> None:
    sys.path[:0] = [str(ROOT / "core"), str(ROOT / "server")]
    os.environ["DJANGO_SETTINGS_MODULE"] = "ravska.settings"
    os.environ["RAVSKA_HOSTS"] = "testserver"
    import django

    django.setup()
    from django.test import Client

    client = Client(raise_request_exception=False)
    opened = 0
    for address in addresses():
        answer = client.get(f"/api/{address}")
        if answer.status_code == 200:
            opened += 1
        else:
            print(f"{answer.status_code} /api/{address}")
    print(f"{opened} opened")


if __name__ == "__main__":
    main()

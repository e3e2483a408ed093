"""What verdicts cost on a large book: a thousand cooks and twenty thousand cards, made from one supper of the demo.

``make bench`` runs it in a process and a folder of its own and prints what answers take.
"""

import os
import random
import statistics
import sys
import tempfile
import time
import uuid
from datetime import UTC, datetime, timedelta

COOKS, TASTERS, RUNS = 1000, 20, 25
CUTS = ("duck-leg", "beef-cheek", "lamb-shoulder", "goat-leg", "venison-haunch", "turkey-breast", "trout-whole")


def fill() -> None:
    """Fill the book with suppers like one of the demo's, each of a cut and with scores of its own."""
    from api.verdicts.records import compare
    from book.models import Card, Cook, Layer, Piece, Sample, Score, Taster, Trial

    chance = random.Random(7)
    trial = Trial.objects.select_related("cook").get(cook__name="Basin regatta, duck legs")
    pieces = list(trial.cook.pieces.prefetch_related("layers"))
    compared = compare([trial])[trial.pk]
    tasters = Taster.objects.bulk_create(
        Taster(household=trial.cook.household, nickname=f"Boat {at}") for at in range(TASTERS)
    )
    made: dict[type, list[object]] = {model: [] for model in (Cook, Piece, Layer, Trial, Sample, Card, Score)}

    def copied(row: object, **changed: object) -> object:
        fields = {field.attname: getattr(row, field.attname) for field in row._meta.concrete_fields}  # type: ignore[attr-defined]
        one = type(row)(**(fields | {"id": uuid.uuid4()} | changed))
        made[type(row)].append(one)
        return one

    for at in range(COOKS):
        cut = CUTS[at % len(CUTS)]
        serve_at = datetime(2020, 1, 1, 18, tzinfo=UTC) + timedelta(days=2 * at)
        cook = copied(trial.cook, name=f"Supper {at}", serve_at=serve_at, in_hand=False)
        mine = copied(trial, cook_id=cook.id, compared=compared)  # type: ignore[attr-defined]
        samples = []
        for code, piece in zip(("111", "222"), pieces, strict=True):
            other = copied(piece, cook_id=cook.id, cut=cut)  # type: ignore[attr-defined]
            for layer in piece.layers.all():
                copied(layer, piece_id=other.id)  # type: ignore[attr-defined]
            samples.append(Sample(trial_id=mine.id, piece_id=other.id, code=code))  # type: ignore[attr-defined]
        made[Sample] += samples
        moved = chance.gauss(0.4, 0.7)
        for number, taster in enumerate(tasters):
            card = Card(trial_id=mine.id, taster=taster, number=number, served=["111", "222"], blind=True)  # type: ignore[attr-defined]
            made[Card].append(card)
            for sample, side in zip(samples, (-1, 1), strict=True):
                value = min(9, max(1, round(6 + side * moved / 2 + chance.gauss(0, 1))))
                made[Score].append(Score(card=card, sample=sample, scale="overall", value=value))
    for model, rows in made.items():
        model._default_manager.bulk_create(rows, batch_size=500)  # type: ignore[attr-defined]


def main() -> None:
    """Print what the large book's verdicts cost."""
    import django

    django.setup()
    from django.core.management import call_command

    call_command("migrate", verbosity=0)
    call_command("load_demo", verbosity=0)
    from book.models import Card
    from django.test import Client
    from django.utils import timezone

    fill()
    client = Client(headers={"Host": "localhost"})

    def ask(path: str) -> float:
        start = time.perf_counter()
        assert client.get(f"/api/verdicts{path}").status_code == 200
        return (time.perf_counter() - start) * 1000

    asks = "?kind=way&first=rubbed&second=marinated"
    print(f"{'verdicts of 1,000 cooks and 20,000 cards':<44}{'p50 ms':>9}{'p95 ms':>9}{'':>18}{'budget':>9}")
    print(f"{'the first after a start':<44}{ask(asks):>9.0f}")
    cards = list(Card.objects.filter(trial__cook__name__startswith="Supper")[:RUNS])
    for name, changes, budget in (("rows, unchanged", False, 150), ("rows, a card taken back", True, 150)):
        found = []
        for card in cards:
            if changes:
                Card.objects.filter(pk=card.pk).update(deleted_at=timezone.now())
            found.append(ask(asks))
        found.sort()
        print(f"{name:<44}{statistics.median(found):>9.1f}{found[int(len(found) * 0.95)]:>9.1f}{'':>18}{budget:>6} ms")
    Card.objects.filter(pk=cards[0].pk).update(deleted_at=None)
    print(f"{'a cell of 143 cooks':<44}{ask(f'/cell{asks}&cut=duck-leg'):>9.0f}")


if __name__ == "__main__":
    with tempfile.TemporaryDirectory(prefix="ravska-large-") as data:
        os.environ["RAVSKA_DATA"] = data
        os.environ["DJANGO_SETTINGS_MODULE"] = "ravska.settings"
        sys.exit(main())

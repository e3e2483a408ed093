"""Write the demo book of a released schema as an SQL dump: ``python make_dump.py CHECKOUT > 0006.sql``.

CHECKOUT is a work tree of the commit that released the schema. Keys, codes and times are seeded, so that a dump made
again is the same. Beside the demo there are cooks of one piece, of eight, and with a question of their own where the
schema has them.
"""

import os
import random
import secrets
import sqlite3
import sys
import tempfile
import uuid
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path
from unittest import mock

NOW = datetime(2027, 5, 4, 9, 0, tzinfo=UTC)


def fill(checkout: Path) -> None:
    """Make the book of a checkout in RAVSKA_DATA."""
    sys.path[:0] = [str(checkout / "core"), str(checkout / "server")]
    os.environ["DJANGO_SETTINGS_MODULE"] = "ravska.settings"
    import django

    django.setup()
    from django.core.management import call_command

    call_command("migrate", verbosity=0)
    from book import demo

    demo.load_demo(NOW)
    more_cooks()
    things_of_ones_own()
    doses_as_said()


def doses_as_said() -> None:
    """Dose layers in grams, in a rate, as a share of the batch and of the jar, where the schema has that."""
    from book import models

    rows = models.Layer.objects.filter(blend__isnull=False).order_by(
        "piece__cook__serve_at", "piece__letter", "position"
    )
    if not hasattr(models.Layer(), "dose_unit"):
        return
    said = (("30 g", "g", "", 30.0), ("3 tbsp", "ml", "", 44.4), ("20 g/kg", "g", "kg", 20.0),
            ("half of it", "batch", "", 0.5), ("a third of the jar", "jar", "", 1 / 3))  # fmt: skip
    for row, (typed, unit, per, value) in zip(rows, said, strict=False):
        models.Layer.objects.filter(pk=row.pk).update(
            dose_typed=typed, dose_unit=unit, dose_per=per, dose=value, dose_error=0.01
        )
    models.Layer.objects.filter(pk=rows[3].pk).update(mixed_g=45.0)
    models.Cook.objects.filter(name="Wharf lunch, duck legs").update(note="Salt it the night before.")
    if not hasattr(models.Piece(), "masses_g"):
        return
    models.Piece.objects.filter(cook__name="Wharf lunch, duck legs", letter="A").update(
        mass_g=620.0, mass_typed="300 and 320 g", masses_g=[300.0, 320.0], count=2, serving_g=90.0, serving_typed="90 g"
    )


def things_of_ones_own() -> None:
    """Add an ingredient in a blend, a cut on a piece and a name of the household's own, where the schema has them."""
    from book import models

    if not hasattr(models, "OwnCut"):
        return
    house = models.Household.objects.get()
    values = {"like": "", "spoon": "tbsp", "wet": False, "allergens": ["celery"], "spoon_g": 9.0, "nacl": 0.12}
    typed = {"name": "Chandlery dust", "made_from": "amounts", "salt": "12", "spoon": "tbsp", "spoon_mass": "9 g",
             "allergens": ["celery"]}  # fmt: skip
    dust = models.OwnIngredient.objects.create(
        household=house, name="Chandlery dust", made_from="amounts", typed=typed, values=values, created_at=NOW
    )
    line = models.Line.objects.filter(revision__blend__household=house).order_by("pk").first()
    models.Line.objects.filter(pk=line.pk).update(grind=f"{dust.key}/own")
    values = {"like": "lamb-shoulder", "shape": "cylinder", "measures": [20.0, 10.0, 10.0], "mass_g": 1665.0,
              "bone_share": 0.1, "faces": [["fat cap", 0.2]], "trims": [["flap", 0.1, "pot"]]}  # fmt: skip
    typed = {"name": "Lock roll", "like": "lamb-shoulder", "shape": "cylinder", "length": "20 cm", "width": "10 cm",
             "thickness": "10 cm", "mass": "1665 g", "bone": "10", "faces": [{"name": "fat cap", "share": "20"}],
             "trims": [{"what": "flap", "share": "10", "becomes": "pot"}]}  # fmt: skip
    roll = models.OwnCut.objects.create(household=house, name="Lock roll", typed=typed, values=values, created_at=NOW)
    piece = models.Piece.objects.filter(cut="lamb-shoulder").order_by("pk").first()
    models.Piece.objects.filter(pk=piece.pk).update(cut=roll.key)
    models.OwnName.objects.create(household=house, name="quay salt", means="sea-salt-flake")


def more_cooks() -> None:
    """Add a cook of one piece, one of eight, and one that asks a question of its own, where arms may be those."""
    from book import models
    from book.cooks import Beginning, begin_cook

    if not hasattr(models, "StackLayer"):
        return  # a cook had two arms then, always
    house = models.Household.objects.get()
    rub = models.Blend.objects.filter(kind="dry rub").order_by("created_at").first()
    begin_cook(house, "Trout for one", NOW, [Beginning("Rubbed", "trout-whole", 400.0, "400 g", rub)], seed=11)
    eight = begin_cook(
        house, "Weir night", NOW, [Beginning(f"Leg {n}", "duck-leg", 300.0, "300 g", rub) for n in range(8)], seed=12
    )
    # of eight pieces two are compared at most
    models.Sample.objects.filter(trial=eight.trial, arm__label__gt="B").delete()
    asked = begin_cook(
        house, "Ferry lunch", NOW, [Beginning(f"Breast {n}", "duck-breast", 350.0, "350 g", rub) for n in "xy"], seed=13
    )
    models.Trial.objects.filter(cook=asked).update(question="Which skin shatters?")
    dealt = begin_cook(
        house, "Lock-keeper's tea", NOW, [Beginning(n, "duck-breast", 350.0, "350 g", rub) for n in ("Dry", "Wet")],
        seed=14,
    )  # fmt: skip
    models.Sample.objects.filter(trial=dealt.trial).delete()  # set beside each other, nothing is compared


def main() -> None:
    seeded = random.Random(7)
    data = Path(tempfile.mkdtemp())
    os.environ["RAVSKA_DATA"] = str(data)

    def key() -> uuid.UUID:
        return uuid.UUID(int=seeded.getrandbits(128), version=4)

    with (
        mock.patch.object(uuid, "uuid4", key),
        mock.patch.object(secrets, "randbits", seeded.getrandbits),
        mock.patch("django.utils.timezone.now", return_value=NOW),
    ):
        fill(Path(sys.argv[1]).resolve())
    with closing(sqlite3.connect(data / "ravska.sqlite3")) as book:
        for line in book.iterdump():
            print(line)


if __name__ == "__main__":
    main()

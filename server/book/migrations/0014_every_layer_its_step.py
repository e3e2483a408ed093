"""Every layer has its step: binders, what goes on over the fire, and what is put on at the board."""

from django.db import migrations, models
from django.db.models import F, Q

NEW = ("bind", "pot", "again", "spritz", "baste", "wrap", "glaze", "catch", "finish")
BEFORE_FIRE = {"binder": ("bind", 300.0)}
# share of the time on the fire that is left when it begins
DURING = {"second injection": ("again", 1 / 2), "spritz": ("spritz", 2 / 3), "baste": ("baste", 2 / 3),
          "wrap": ("wrap", 1 / 3), "drippings": ("catch", 0.0), "glaze": ("glaze", None),
          "cooking liquid": ("pot", None)}  # fmt: skip
APART = 1000


def add_steps(apps, schema_editor):
    layer, step = (apps.get_model("book", name) for name in ("Layer", "Step"))
    kinds = [*BEFORE_FIRE, *DURING, "finishing salt"]
    pieces = set(layer.objects.filter(kind__in=kinds).values_list("piece_id", flat=True))
    for piece in pieces:
        rows = list(step.objects.filter(piece_id=piece).order_by("position"))
        layers = list(layer.objects.filter(piece_id=piece).order_by("position"))
        place = {one.pk: at for at, one in enumerate(layers)}
        fire_s = next((row.lasts_s for row in rows if row.kind == "on"), 0.0)
        for at, one in enumerate(layers):
            if one.kind in BEFORE_FIRE:
                kind, lasts = BEFORE_FIRE[one.kind]
                where = next((n for n, row in enumerate(rows) if row.kind == "on" or place.get(row.layer_id, -1) > at), 0)
            elif one.kind in DURING:
                kind, left = DURING[one.kind]
                lasts = min(1200.0, fire_s / 4) if kind == "glaze" else one.hold_s if left is None else fire_s * left
                where = next((n for n, row in enumerate(rows) if row.kind == "rest"), len(rows))
            elif one.kind == "finishing salt":
                kind, lasts = "finish", 0.0
                where = next((n for n, row in enumerate(rows) if row.kind == "plate"), len(rows))
            else:
                continue
            rows.insert(where, step(piece_id=piece, kind=kind, layer_id=one.pk, lasts_s=lasts or 0.0, position=0))
        step.objects.filter(piece_id=piece).update(position=F("position") + APART)
        for position, row in enumerate(rows):
            row.position = position
            row.save()


def take_steps(apps, schema_editor):
    apps.get_model("book", "Step").objects.filter(kind__in=NEW).delete()


def kinds(allowed):
    return models.CheckConstraint(condition=Q(kind__in=list(allowed)), name="step_kind")


class Migration(migrations.Migration):
    dependencies = [("book", "0013_own_cuts")]
    reshapes = ("step",)  # layers that had none get theirs

    operations = [
        migrations.RemoveConstraint(model_name="step", name="step_kind"),
        migrations.RunPython(migrations.RunPython.noop, take_steps),
        migrations.AddConstraint(
            model_name="step",
            constraint=kinds(("mix", "inject", "bind", "coat", "bag", "wipe", "salt", "on", "pot", "again", "spritz",
                              "baste", "wrap", "glaze", "catch", "rest", "finish", "plate")),
        ),
        migrations.RunPython(add_steps, migrations.RunPython.noop),
    ]  # fmt: skip

"""Writes are known by their key, so that none is done twice; pours are counted in the order they were made."""

import uuid

import django.utils.timezone
from django.db import migrations, models


def count_pours(apps, schema_editor):
    Pour = apps.get_model("book", "Pour")
    number: dict[object, int] = {}
    for pour in Pour.objects.select_related("line").order_by("line__batch", "at", "pk"):
        pour.number = number[pour.line.batch_id] = number.get(pour.line.batch_id, 0) + 1
        pour.save(update_fields=["number"])


class Migration(migrations.Migration):
    dependencies = [("book", "0008_values_beside_what_was_typed")]

    operations = [
        migrations.CreateModel(
            name="Answered",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("asked", models.CharField(max_length=200)),
                ("digest", models.CharField(max_length=64)),
                ("status", models.PositiveSmallIntegerField()),
                ("answer", models.BinaryField(null=True)),
                ("at", models.DateTimeField(db_index=True, default=django.utils.timezone.now)),
            ],
            options={"abstract": False},
        ),
        migrations.AddField("pour", "number", models.PositiveIntegerField(default=0), preserve_default=False),
        migrations.RunPython(count_pours, migrations.RunPython.noop),
        migrations.AlterModelOptions("pour", options={"ordering": ["number"]}),
        migrations.AddConstraint(
            "pour", models.UniqueConstraint(fields=("line", "number"), name="pour_number")
        ),
    ]

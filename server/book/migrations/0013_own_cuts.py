"""Cuts of the household's own; an own name may mean one."""

import uuid

import django.db.models.deletion
import django.utils.timezone
from django.db import migrations, models
from django.db.models import Q


class Migration(migrations.Migration):
    dependencies = [("book", "0012_things_of_ones_own")]

    operations = [
        migrations.CreateModel(
            name="OwnCut",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("name", models.CharField(max_length=60)),
                ("typed", models.JSONField(default=dict)),
                ("values", models.JSONField(default=dict)),
                ("version", models.PositiveIntegerField(default=1)),
                ("created_at", models.DateTimeField(default=django.utils.timezone.now)),
                ("retired_at", models.DateTimeField(null=True)),
                ("deleted_at", models.DateTimeField(null=True)),
                ("household", models.ForeignKey(
                    on_delete=django.db.models.deletion.CASCADE, related_name="own_cuts", to="book.household")),
            ],
            options={
                "ordering": ["created_at", "name"],
                "abstract": False,
                "constraints": [
                    models.CheckConstraint(condition=Q(name__length__gte=1), name="own_cut_named"),
                    models.UniqueConstraint(
                        condition=Q(deleted_at__isnull=True), fields=("household", "name"), name="one_own_cut_a_name"
                    ),
                ],
            },
        ),
        migrations.RemoveConstraint(model_name="ownname", name="own_name_ingredient"),
        migrations.RenameField(model_name="ownname", old_name="ingredient", new_name="means"),
        migrations.AddConstraint(
            model_name="ownname",
            constraint=models.CheckConstraint(condition=Q(means__length__gte=1), name="own_name_means"),
        ),
    ]  # fmt: skip

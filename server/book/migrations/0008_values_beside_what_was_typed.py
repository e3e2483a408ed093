"""Methods, labels, injections and reserves hold what they were read as; kept lines what they were read with.

What cannot be read any more keeps what was typed, without a value, and is refused at its field until it is written
again. A line that was kept before this records what it reads as now: nothing older is known of it.
"""

from fractions import Fraction

from django.db import migrations, models
from ravska_core.blend import Blend, Line, as_read
from ravska_core.measure import parse_amount
from ravska_core.working import BadInput

import book.models.values
from book.models.values import (
    label_from,
    method_from,
    stored,
    stored_injection,
    stored_label,
    stored_method,
    stored_reading,
    typed_of,
)


def _or_unread(store, typed):
    try:
        return store(typed)
    except BadInput:
        return stored(typed, None)


def read_all(apps, schema_editor):
    Revision = apps.get_model("book", "Revision")
    for revision in Revision.objects.all():
        revision.method = _or_unread(stored_method, revision.method)
        revision.label = _or_unread(stored_label, revision.label)
        revision.save(update_fields=["method", "label"])
    for name in ("Layer", "WayLayer"):
        for layer in apps.get_model("book", name).objects.exclude(injection={}, reserve_typed=""):
            layer.injection = _or_unread(stored_injection, layer.injection)
            if layer.reserve_typed:
                try:
                    found = parse_amount(layer.reserve_typed, "reserve")
                    layer.reserve, layer.reserve_unit = found.value, found.unit
                except BadInput:
                    layer.reserve_typed = ""
            layer.save(update_fields=["injection", "reserve", "reserve_unit", "reserve_typed"])
    record_kept(Revision, apps.get_model("book", "Line"))


def record_kept(Revision, Line_):
    """Record with every kept line the mass, composition and density it reads with."""
    revisions = {row.pk: row for row in Revision.objects.select_related("blend")}
    drafts = {row.blend_id: row.pk for row in revisions.values() if row.kept_at is None}
    lines = {}
    for line in Line_.objects.order_by("position"):
        lines.setdefault(line.revision_id, []).append(line)
    met = {}

    def core(key):
        if key not in met:
            revision, rows = revisions[key], lines.get(key, [])
            keys = [row.grind or f"{'sieve:' if row.held else ''}{row.inside_id}" for row in rows]
            met[key] = Blend(
                revision.blend.kind,
                tuple(
                    Line(
                        row.grind, Fraction(row.parts_numerator, row.parts_denominator), row.basis, row.lock,
                        core(row.inside_revision_id or drafts[row.inside_id]) if row.inside_id else None,
                        row.error, row.held,
                    )
                    for row in rows
                ),
                revision.blend.batch_g, revision.blend.name, revision.blend.fire,
                method_from(revision.method, keys), label_from(revision.label), str(revision.blend_id),
            )  # fmt: skip
        return met[key]

    for key, revision in revisions.items():
        if revision.kept_at is None or key not in lines:
            continue
        try:
            found = as_read(core(key))
        except BadInput:
            continue  # an ingredient left the tables: it goes on being asked for
        for row, read in zip(lines[key], found, strict=True):
            row.as_read = stored_reading(read)
        Line_.objects.bulk_update(lines[key], ["as_read"])


def typed_again(apps, schema_editor):
    for revision in apps.get_model("book", "Revision").objects.all():
        revision.method = typed_of(revision.method)
        revision.label = typed_of(revision.label) if revision.label else None
        revision.save(update_fields=["method", "label"])
    for name in ("Layer", "WayLayer"):
        for layer in apps.get_model("book", name).objects.exclude(injection={}):
            layer.injection = typed_of(layer.injection)
            layer.save(update_fields=["injection"])


def _reserve(of):
    return models.CheckConstraint(
        condition=models.Q(
            models.Q(("reserve__isnull", True), ("reserve_unit", "")),
            models.Q(("reserve__gt", 0), ("reserve__isnull", False), ("reserve_unit__in", ["g", "ml"])),
            _connector="OR",
        ),
        name=f"{of}_reserve",
    )


class Migration(migrations.Migration):
    dependencies = [
        ("book", "0007_pieces_ways_and_log"),
    ]

    operations = [
        migrations.AddField("layer", "reserve", models.FloatField(null=True)),
        migrations.AddField("layer", "reserve_unit", models.CharField(blank=True, default="", max_length=2)),
        migrations.AddField("waylayer", "reserve", models.FloatField(null=True)),
        migrations.AddField("waylayer", "reserve_unit", models.CharField(blank=True, default="", max_length=2)),
        migrations.AddField("line", "as_read", models.JSONField(null=True)),
        migrations.AlterField("revision", "method", models.JSONField(default=book.models.values.no_method)),
        migrations.RunPython(read_all, typed_again),
        migrations.AddConstraint("layer", _reserve("layer")),
        migrations.AddConstraint("waylayer", _reserve("way_layer")),
    ]

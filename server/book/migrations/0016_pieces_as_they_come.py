"""Pieces of unlike weight, servings of their own, baths as they were weighed, and what is set aside for later."""

from django.db import migrations, models


def as_before(apps, schema_editor):
    """Let go of what the older book has no room for: a pot of nothing but a bath, the step of setting aside."""
    for name in ("Layer", "WayLayer"):
        bare = apps.get_model("book", name).objects.filter(kind="cooking liquid", blend__isnull=True, grind="")
        bare.update(grind="water/liquid", dose=10.0, dose_typed="10")
    apps.get_model("book", "Step").objects.filter(kind="aside").delete()


def name_pastes(apps, schema_editor):
    """Say of what was weighed back of a paste that it was one, where its layer is still there."""
    apps.get_model("book", "WeighBack").objects.filter(layer__kind="paste").update(kind="paste")


class Migration(migrations.Migration):

    dependencies = [
        ('book', '0015_doses_as_said'),
    ]

    operations = [
        migrations.RemoveConstraint(
            model_name='layer',
            name='layer_of_blend_or_grind',
        ),
        migrations.RemoveConstraint(
            model_name='step',
            name='step_kind',
        ),
        migrations.RemoveConstraint(
            model_name='waylayer',
            name='way_layer_of_blend_or_grind',
        ),
        migrations.RemoveConstraint(
            model_name='weighback',
            name='weigh_back_whole',
        ),
        migrations.AddField(
            model_name='layer',
            name='weighed',
            field=models.JSONField(blank=True, default=dict),
        ),
        migrations.AddField(
            model_name='piece',
            name='masses_g',
            field=models.JSONField(blank=True, default=list),
        ),
        migrations.AddField(
            model_name='piece',
            name='serving_g',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='piece',
            name='serving_typed',
            field=models.CharField(blank=True, default='', max_length=40),
        ),
        migrations.AddField(
            model_name='waylayer',
            name='weighed',
            field=models.JSONField(blank=True, default=dict),
        ),
        migrations.AddField(
            model_name='weighback',
            name='kind',
            field=models.CharField(default='rub', max_length=16),
        ),
        migrations.AddField(
            model_name='weighback',
            name='pan_g',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='weighback',
            name='stays',
            field=models.FloatField(null=True),
        ),
        migrations.AlterField(
            model_name='piece',
            name='mass_typed',
            field=models.CharField(max_length=160),
        ),
        migrations.RunPython(name_pastes, migrations.RunPython.noop),
        migrations.AddConstraint(
            model_name='weighback',
            constraint=models.CheckConstraint(condition=models.Q(('kind__in', ['rub', 'paste'])), name='weigh_back_kind'),
        ),
        migrations.AddConstraint(
            model_name='layer',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('blend__isnull', False), ('grind', '')), models.Q(('blend__isnull', True), models.Q(('grind', ''), _negated=True)), models.Q(('blend__isnull', True), ('grind', ''), ('kind__in', ('drippings', 'cooking liquid'))), _connector='OR'), name='layer_of_blend_or_grind'),
        ),
        migrations.AddConstraint(
            model_name='piece',
            constraint=models.CheckConstraint(condition=models.Q(('serving_g__isnull', True), models.Q(('serving_g__gte', 1), ('serving_g__lte', 1000)), _connector='OR'), name='piece_serving'),
        ),
        migrations.AddConstraint(
            model_name='step',
            constraint=models.CheckConstraint(condition=models.Q(('kind__in', ['mix', 'aside', 'inject', 'bind', 'coat', 'bag', 'wipe', 'salt', 'on', 'pot', 'again', 'spritz', 'baste', 'wrap', 'glaze', 'catch', 'rest', 'stir', 'finish', 'dress', 'plate', 'pass'])), name='step_kind'),
        ),
        migrations.AddConstraint(
            model_name='waylayer',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('blend__isnull', False), ('grind', '')), models.Q(('blend__isnull', True), models.Q(('grind', ''), _negated=True)), models.Q(('blend__isnull', True), ('grind', ''), ('kind__in', ('drippings', 'cooking liquid'))), _connector='OR'), name='way_layer_of_blend_or_grind'),
        ),
        migrations.AddConstraint(
            model_name='weighback',
            constraint=models.CheckConstraint(condition=models.Q(('taken_g__gt', 0), ('taken_g__isnull', False), ('fell_g__gte', 0), ('left_g__gte', 0), ('pan_g__gte', 0), ('coat_g_100cm2__gt', 0), ('coat_g_100cm2__isnull', False), models.Q(('stays__isnull', True), models.Q(('stays__gte', 0), ('stays__lte', 1)), _connector='OR')), name='weigh_back_whole'),
        ),
        migrations.RunPython(migrations.RunPython.noop, as_before),
    ]

"""Pieces carry their own letter and name, ways have their name, a trial is there only when something is tasted.

A trial with a code dealt, a question of its own, a number of cards of its own, a card, a look or a reveal stays whole.
"""

import secrets
import uuid

import django.db.models.deletion
import django.utils.timezone
from django.db import migrations, models

LETTERS = "ABCDEFGH"
USUAL_CARDS, USUAL_FACTOR = 12, "seasoning"


def question_of(names):
    return f"{names[0]} or {names[1].lower()}?" if len(names) > 1 else f"How is it {names[0].lower()}?" if names else ""


def usual_questions(names):
    """Return what was asked of a cook that nobody asked anything else of: of all its pieces, or the first one."""
    return {question_of(names), question_of(names[:2]), question_of(names[:1])}


def touched(trial, names):
    """Tell whether something of a trial would be lost with it."""
    return (
        trial.samples.exists()
        or trial.cards.exists()
        or trial.looks.exists()
        or trial.revealed_at is not None
        or trial.question not in usual_questions(names)
        or trial.planned_cards != USUAL_CARDS
        or trial.factor != USUAL_FACTOR
    )


def give_letters(apps, schema_editor):
    Trial, Sample, Piece = (apps.get_model("book", name) for name in ("Trial", "Sample", "Piece"))
    for trial in Trial.objects.all():
        names = []
        for position, arm in enumerate(trial.arms.order_by("label")):
            names.append(arm.name)
            Piece.objects.filter(pk=arm.piece_id).update(letter=arm.label, name=arm.name, position=position)
            Sample.objects.filter(arm=arm).update(piece=arm.piece_id)
        if not touched(trial, names):
            trial.arms.all().delete()
            trial.delete()
    # a piece that no arm knew of: it was on no screen, and takes the next letter that is free
    for piece in Piece.objects.filter(name=""):
        mine = Piece.objects.filter(cook=piece.cook_id).exclude(name="")
        taken = set(mine.values_list("letter", flat=True))
        piece.letter = next(letter for letter in LETTERS if letter not in taken)
        piece.name, piece.position = "Another piece", mine.count()
        piece.save(update_fields=["letter", "name", "position"])


def give_arms(apps, schema_editor):
    Trial, Sample, Piece, Arm, Cook = (
        apps.get_model("book", name) for name in ("Trial", "Sample", "Piece", "Arm", "Cook")
    )
    for cook in Cook.objects.all():
        pieces = list(Piece.objects.filter(cook=cook).order_by("letter"))
        trial = Trial.objects.filter(cook=cook).first()
        if trial is None:
            names = [piece.name for piece in pieces]
            trial = Trial.objects.create(cook=cook, question=question_of(names), seed=secrets.randbits(31))
        for piece in pieces:
            arm = Arm.objects.create(trial=trial, label=piece.letter, name=piece.name, piece=piece)
            Sample.objects.filter(piece=piece).update(arm=arm)




ONLY_ADDED = """
CREATE TRIGGER "{table}_only_added" BEFORE UPDATE ON "{table}"
BEGIN SELECT RAISE(ABORT, 'what was noted is only ever added to'); END
"""


class Migration(migrations.Migration):
    reshapes = ("trial", "arm")
    renames = {"stack": "way", "stacklayer": "waylayer"}

    dependencies = [
        ("book", "0006_right_and_safe"),
    ]

    operations = [
        migrations.AddField("piece", "letter", models.CharField(max_length=1, default="A"), preserve_default=False),
        migrations.AddField("piece", "name", models.CharField(max_length=40, default=""), preserve_default=False),
        migrations.AddField("piece", "position", models.PositiveSmallIntegerField(default=0), preserve_default=False),
        migrations.AddField(
            "sample",
            "piece",
            models.OneToOneField(
                null=True, on_delete=django.db.models.deletion.PROTECT, related_name="sample", to="book.piece"
            ),
        ),
        migrations.AlterField(
            "sample",
            "arm",
            models.OneToOneField(
                null=True, on_delete=django.db.models.deletion.CASCADE, related_name="sample", to="book.arm"
            ),
        ),
        migrations.RunPython(give_letters, give_arms),
        migrations.AlterField(
            "sample",
            "piece",
            models.OneToOneField(
                on_delete=django.db.models.deletion.PROTECT, related_name="sample", to="book.piece"
            ),
        ),
        migrations.RemoveField("sample", "arm"),
        migrations.DeleteModel("Arm"),
        migrations.AlterModelOptions(name='piece', options={'ordering': ['position']}),
        migrations.AddConstraint(
            model_name='piece',
            constraint=models.UniqueConstraint(fields=('cook', 'letter'), name='piece_letter_once'),
        ),
        migrations.AddConstraint(
            model_name='piece',
            constraint=models.CheckConstraint(condition=models.Q(('letter__in', ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H'])), name='piece_letter'),
        ),
        migrations.AddConstraint(
            model_name='piece',
            constraint=models.CheckConstraint(condition=models.Q(('name__length__gte', 1)), name='piece_named'),
        ),
        migrations.RemoveConstraint('stack', 'stack_named'),
        migrations.RemoveConstraint('stacklayer', 'stack_layer_position'),
        migrations.RemoveConstraint('stacklayer', 'stack_layer_kind'),
        migrations.RemoveConstraint('stacklayer', 'stack_layer_of_blend_or_grind'),
        migrations.RemoveConstraint('stacklayer', 'stack_layer_dose'),
        migrations.RemoveConstraint('stacklayer', 'stack_layer_held'),
        migrations.RemoveConstraint('stacklayer', 'stack_layer_after'),
        migrations.RemoveConstraint('stacklayer', 'stack_layer_place'),
        migrations.RemoveConstraint('stacklayer', 'stack_layer_times'),
        migrations.RenameModel('Stack', 'Way'),
        migrations.RenameModel('StackLayer', 'WayLayer'),
        migrations.RenameField('waylayer', 'stack', 'way'),
        migrations.AlterField(
            'way',
            'household',
            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='ways', to='book.household'),
        ),
        migrations.AlterField(
            'waylayer',
            'blend',
            models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='%(class)ss', to='book.blend'),
        ),
        migrations.AddConstraint(
            model_name='way',
            constraint=models.CheckConstraint(condition=models.Q(('name__length__gte', 1)), name='way_named'),
        ),
        migrations.AddConstraint(
            model_name='waylayer',
            constraint=models.UniqueConstraint(fields=('way', 'position'), name='way_layer_position'),
        ),
        migrations.AddConstraint(
            model_name='waylayer',
            constraint=models.CheckConstraint(condition=models.Q(('kind__in', ['pre-salt', 'injection', 'marinade', 'binder', 'rub', 'paste', 'second injection', 'spritz', 'baste', 'wrap', 'cooking liquid', 'drippings', 'glaze', 'finishing salt'])), name='way_layer_kind'),
        ),
        migrations.AddConstraint(
            model_name='waylayer',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('blend__isnull', False), ('grind', '')), models.Q(('blend__isnull', True), models.Q(('grind', ''), _negated=True)), models.Q(('blend__isnull', True), ('grind', ''), ('kind', 'drippings')), _connector='OR'), name='way_layer_of_blend_or_grind'),
        ),
        migrations.AddConstraint(
            model_name='waylayer',
            constraint=models.CheckConstraint(condition=models.Q(('dose__isnull', True), ('dose__gt', 0), _connector='OR'), name='way_layer_dose'),
        ),
        migrations.AddConstraint(
            model_name='waylayer',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('kind__in', ['pre-salt', 'injection', 'marinade', 'rub', 'paste', 'cooking liquid']), _negated=True), models.Q(('hold_s__gt', 0), ('hold_s__isnull', False)), _connector='OR'), name='way_layer_held'),
        ),
        migrations.AddConstraint(
            model_name='waylayer',
            constraint=models.CheckConstraint(condition=models.Q(('after__in', ['wiped', 'rinsed', 'as it is'])), name='way_layer_after'),
        ),
        migrations.AddConstraint(
            model_name='waylayer',
            constraint=models.CheckConstraint(condition=models.Q(('place__in', ['', 'fridge', 'cool box', 'bench', 'outside', 'warm water', 'pot'])), name='way_layer_place'),
        ),
        migrations.AddConstraint(
            model_name='waylayer',
            constraint=models.CheckConstraint(condition=models.Q(('times__gte', 1), ('times__lte', 40)), name='way_layer_times'),
        ),
        migrations.CreateModel(
            name='Event',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('what', models.CharField(max_length=12)),
                ('note', models.CharField(blank=True, default='', max_length=400)),
                ('at', models.DateTimeField()),
                ('noted_at', models.DateTimeField(default=django.utils.timezone.now)),
                ('key', models.UUIDField(unique=True)),
            ],
            options={
                'ordering': ['at', 'noted_at'],
            },
        ),
        migrations.CreateModel(
            name='Reading',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('measured', models.CharField(max_length=8)),
                ('celsius', models.FloatField()),
                ('device', models.CharField(blank=True, default='', max_length=40)),
                ('at', models.DateTimeField()),
                ('key', models.UUIDField(unique=True)),
            ],
            options={
                'ordering': ['at'],
            },
        ),
        migrations.AddField(
            model_name='event',
            name='cook',
            field=models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='events', to='book.cook'),
        ),
        migrations.AddField(
            model_name='event',
            name='piece',
            field=models.ForeignKey(db_constraint=False, null=True, on_delete=django.db.models.deletion.DO_NOTHING, related_name='events', to='book.piece'),
        ),
        migrations.AddField(
            model_name='event',
            name='step',
            field=models.ForeignKey(db_constraint=False, null=True, on_delete=django.db.models.deletion.DO_NOTHING, related_name='events', to='book.step'),
        ),
        migrations.AddField(
            model_name='reading',
            name='cook',
            field=models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='readings', to='book.cook'),
        ),
        migrations.AddField(
            model_name='reading',
            name='piece',
            field=models.ForeignKey(db_constraint=False, null=True, on_delete=django.db.models.deletion.DO_NOTHING, related_name='readings', to='book.piece'),
        ),
        migrations.AddConstraint(
            model_name='event',
            constraint=models.CheckConstraint(condition=models.Q(('what__in', ['began', 'ended', 'note'])), name='event_what'),
        ),
        migrations.AddConstraint(
            model_name='event',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('what', 'note'), _negated=True), models.Q(('note', ''), _negated=True), _connector='OR'), name='event_note_says_something'),
        ),
        migrations.AddConstraint(
            model_name='reading',
            constraint=models.CheckConstraint(condition=models.Q(('measured__in', ['pit', 'centre', 'surface'])), name='reading_measured'),
        ),
        migrations.AddConstraint(
            model_name='reading',
            constraint=models.CheckConstraint(condition=models.Q(('celsius__gte', -40), ('celsius__lte', 600)), name='reading_celsius'),
        ),
        migrations.AddConstraint(
            model_name='reading',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('measured', 'pit'), ('piece__isnull', True)), models.Q(models.Q(('measured', 'pit'), _negated=True), ('piece__isnull', False)), _connector='OR'), name='reading_of_pit_or_piece'),
        ),
        migrations.RunSQL(
            ONLY_ADDED.format(table='book_event'), 'DROP TRIGGER "book_event_only_added"'
        ),
        migrations.RunSQL(
            ONLY_ADDED.format(table='book_reading'), 'DROP TRIGGER "book_reading_only_added"'
        ),
    ]

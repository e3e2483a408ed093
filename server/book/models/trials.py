"""Trials: samples, tasters, their cards and scores."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from django.utils import timezone
from ravska_core.meat import PORTION_G
from ravska_core.trial import KINDS, MOST_CARDS, PLANNED_CARDS, USUAL_SCALES

from book.models.cooks import Cook
from book.models.household import Household
from book.models.pieces import Piece
from book.models.rows import Row, between, named, one_of


def usual_scales() -> list[str]:
    """Return what a card asks where nobody chose."""
    return list(USUAL_SCALES)


class Trial(Row):
    """What is tasted of a cook: a question, its kind, the one factor that should differ, and the seed of its lots.

    A cook has one only when something of it is to be tasted.

    `planned_cards` is how many cards it takes, stated before the first is in. `sides` names a two-by-two: both rows,
    then both columns. `parts` are what is dealt out by lot of a joint or a pack. `guess` says whether cards end with
    one, None where looks decide. `serving` is how it is served, as it was said. The version counts changes of the
    design; cards are only added, taken back or put in again, from several phones at once, and change none.
    """

    cook = models.OneToOneField(Cook, on_delete=models.CASCADE, related_name="trial")
    question = models.CharField(max_length=200)
    kind = models.CharField(max_length=12, default="preference")
    factor = models.CharField(max_length=80, default="seasoning")
    seed = models.CharField(max_length=64)
    planned_cards = models.PositiveSmallIntegerField(default=PLANNED_CARDS)
    scales = models.JSONField(default=usual_scales)
    words = models.JSONField(default=list, blank=True)
    guess = models.BooleanField(null=True)
    sides = models.JSONField(default=list, blank=True)
    parts = models.JSONField(default=list, blank=True)
    serving = models.JSONField(default=dict, blank=True)
    version = models.PositiveIntegerField(default=1)
    revealed_at = models.DateTimeField(null=True)
    # what differed between its samples, kept since the reveal so that a verdict of many cooks need not work it out
    compared = models.JSONField(null=True)

    class Meta:
        constraints: ClassVar = [
            between("planned_cards", 1, MOST_CARDS, "trial_planned_cards"),
            one_of("kind", tuple(KINDS), "trial_kind"),
            named("question", "trial_asks"),
            named("seed", "trial_seed"),
        ]

    def is_tasted(self) -> bool:
        """Tell whether a card is in, so that what was tasted must not change any more."""
        return self.cards.filter(deleted_at__isnull=True).exists()


class Sample(Row):
    """A plate of a trial, which tasters meet as a three-digit code: of a piece, or the hidden twin of another plate.

    `row` and `column` are its place in a two-by-two. `portion` is how it is cut for the plates, as it was said, and
    `plate_s` how long it took from the fire to them [s], where that was said at the table.
    """

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="samples")
    piece = models.OneToOneField(Piece, on_delete=models.PROTECT, null=True, related_name="sample")
    twin_of = models.OneToOneField("self", on_delete=models.CASCADE, null=True, related_name="twin")
    code = models.CharField(max_length=3)
    row = models.PositiveSmallIntegerField(null=True)
    column = models.PositiveSmallIntegerField(null=True)
    portion = models.JSONField(default=dict, blank=True)
    plate_s = models.FloatField(null=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["trial", "code"], name="sample_code"),
            models.CheckConstraint(
                condition=Q(piece__isnull=False, twin_of__isnull=True) | Q(piece__isnull=True, twin_of__isnull=False),
                name="sample_of_a_piece_or_a_twin",
            ),
            models.CheckConstraint(
                condition=Q(row__isnull=True, column__isnull=True) | Q(row__in=(0, 1), column__in=(0, 1)),
                name="sample_crossed",
            ),
            models.UniqueConstraint(fields=["trial", "row", "column"], name="one_sample_a_side"),
            models.CheckConstraint(condition=Q(plate_s__isnull=True) | Q(plate_s__gte=0), name="sample_plate_s"),
        ]

    def meat(self) -> Piece:
        """Return the piece that is on the plate."""
        of = self.piece if self.twin_of is None else self.twin_of.piece
        assert of is not None
        return of


class Taster(Row):
    """Who eats and tastes, by nickname: of the household or a guest, what they avoid, how much they eat."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="tasters")
    nickname = models.CharField(max_length=40)
    guest = models.BooleanField(default=False)
    avoids = models.JSONField(default=list, blank=True)
    appetite = models.CharField(max_length=8, default="usual")
    version = models.PositiveIntegerField(default=1)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["nickname"]
        constraints: ClassVar = [
            one_of("appetite", tuple(PORTION_G), "taster_appetite"),
            models.UniqueConstraint(fields=["household", "nickname"], name="taster_nickname"),
            named("nickname", "taster_named"),
        ]


class Look(Row):
    """Who saw which plate is which before the reveal, as whoever plates has to; that person's card is not blind."""

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="looks")
    taster = models.ForeignKey(Taster, on_delete=models.PROTECT, related_name="looks")
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering: ClassVar = ["at"]
        constraints: ClassVar = [models.UniqueConstraint(fields=["trial", "taster"], name="one_look_a_taster")]


class Serving(Row):
    """The plates that somebody is to taste, in their order, by code: seated before, or walked in.

    `number` is its place in the blocks of orders; `short` a child's card; `gone_at` is when they left without one.
    """

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="servings")
    taster = models.ForeignKey(Taster, on_delete=models.PROTECT, related_name="servings")
    number = models.PositiveSmallIntegerField()
    served = models.JSONField(default=list)
    short = models.BooleanField(default=False)
    gone_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["trial", "taster"], name="one_serving_a_taster"),
            models.UniqueConstraint(fields=["trial", "number"], name="serving_number"),
        ]


class Card(Row):
    """One taster's card at a trial: the order served, scores, and what it says first.

    `prefers` is the plate that was preferred, `odd` the one picked out of three, `guess` the one taken for the sample
    that was asked after. `words` are what was said of plates, by code. `whole` says that its taster finished it.
    """

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="cards")
    taster = models.ForeignKey(Taster, on_delete=models.PROTECT, related_name="cards")
    number = models.PositiveSmallIntegerField()
    served = models.JSONField()
    prefers = models.ForeignKey(Sample, on_delete=models.PROTECT, null=True, related_name="+")
    odd = models.ForeignKey(Sample, on_delete=models.PROTECT, null=True, related_name="+")
    guess = models.ForeignKey(Sample, on_delete=models.PROTECT, null=True, related_name="+")
    words = models.JSONField(default=dict, blank=True)
    short = models.BooleanField(default=False)
    whole = models.BooleanField(default=True)
    blind = models.BooleanField()
    scored_at = models.DateTimeField(default=timezone.now)
    deleted_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["trial", "taster"], condition=Q(deleted_at__isnull=True), name="one_card_a_taster"
            ),
            models.UniqueConstraint(fields=["trial", "number"], name="card_number"),
        ]


class Score(Row):
    """What a card says of one sample on one scale."""

    card = models.ForeignKey(Card, on_delete=models.CASCADE, related_name="scores")
    sample = models.ForeignKey(Sample, on_delete=models.PROTECT, related_name="scores")
    scale = models.CharField(max_length=20)
    value = models.PositiveSmallIntegerField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["card", "sample", "scale"], name="one_score_a_scale"),
            between("value", 1, 9, "score_value"),
        ]

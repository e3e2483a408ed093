"""Trials: samples, tasters, their cards and scores."""

from typing import ClassVar

from django.db import models
from django.db.models import Q
from django.utils import timezone
from ravska_core.meat import PORTION_G
from ravska_core.trial import MOST_CARDS, PLANNED_CARDS

from book.models.cooks import Cook
from book.models.household import Household
from book.models.pieces import Piece
from book.models.rows import Row, between, named, one_of


class Trial(Row):
    """What is tasted of a cook: a question, the one factor that should differ, and the seed of its shuffling.

    A cook has one only when something of it is to be tasted.

    `planned_cards` is how many cards it takes, stated before the first is in.
    It has no version: cards are only added, taken back or put in again, from several phones at once.
    """

    cook = models.OneToOneField(Cook, on_delete=models.CASCADE, related_name="trial")
    question = models.CharField(max_length=200)
    factor = models.CharField(max_length=80, default="seasoning")
    seed = models.BigIntegerField()
    planned_cards = models.PositiveSmallIntegerField(default=PLANNED_CARDS)
    revealed_at = models.DateTimeField(null=True)

    class Meta:
        constraints: ClassVar = [between("planned_cards", 1, MOST_CARDS, "trial_planned_cards")]

    def is_tasted(self) -> bool:
        """Tell whether a card is in, so that what was tasted must not change any more."""
        return self.cards.filter(deleted_at__isnull=True).exists()


class Sample(Row):
    """A piece that is tasted, one arm of its trial: tasters meet it as a three-digit code."""

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="samples")
    piece = models.OneToOneField(Piece, on_delete=models.PROTECT, related_name="sample")
    code = models.CharField(max_length=3)

    class Meta:
        constraints: ClassVar = [models.UniqueConstraint(fields=["trial", "code"], name="sample_code")]


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


class Card(Row):
    """One taster's card at a trial: the order served, scores, and which sample was preferred, if any."""

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="cards")
    taster = models.ForeignKey(Taster, on_delete=models.PROTECT, related_name="cards")
    number = models.PositiveSmallIntegerField()
    served = models.JSONField()
    prefers = models.ForeignKey(Sample, on_delete=models.PROTECT, null=True, related_name="+")
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

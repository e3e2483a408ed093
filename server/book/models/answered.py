"""Writes that were answered, so that one sent again, as its answer was lost, is not done twice."""

from django.db import models
from django.utils import timezone

from book.models.rows import Row


class Answered(Row):
    """A write by the key its sender gave it: what was asked, and what was answered, which is let go of after a while.

    `asked` is the method and the address, `digest` of what was sent; `answer` is the document, compressed.
    """

    asked = models.CharField(max_length=200)
    digest = models.CharField(max_length=64)
    status = models.PositiveSmallIntegerField()
    answer = models.BinaryField(null=True)
    at = models.DateTimeField(default=timezone.now, db_index=True)

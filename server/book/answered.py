"""A write that is sent again under its key is answered as it was, and not done twice."""

import zlib
from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID

from book.models.answered import Answered

ANSWERS_KEPT, KEYS_KEPT = timedelta(hours=1), timedelta(days=90)
"""How long an answer is kept to be given again, and how long it is known that a write was done."""


class Reused(Exception):  # noqa: N818 - a state of the book, not a fault
    """A key that came with another write before."""


class LongAgo(Exception):  # noqa: N818 - a state of the book, not a fault
    """A write that was done, and whose answer is not kept any more."""


@dataclass(frozen=True, slots=True)
class Answer:
    """What a write was answered."""

    status: int
    document: bytes


def answer_to(key: UUID, asked: str, digest: str) -> Answer | None:
    """Return what a write was answered when it came before, None when it is new.

    Raises
    ------
    Reused
        When the key came with something else.
    LongAgo
        When the write was done, and its answer is not kept any more.
    """
    before = Answered.objects.filter(pk=key).first()
    if before is None:
        return None
    if (before.asked, before.digest) != (asked[:200], digest):
        raise Reused
    if before.answer is None:
        raise LongAgo
    return Answer(before.status, zlib.decompress(before.answer))


def remember(key: UUID, asked: str, digest: str, answer: Answer) -> None:
    """Note what a write was answered; in one transaction with the write itself."""
    packed = zlib.compress(answer.document, 1)
    Answered.objects.create(pk=key, asked=asked[:200], digest=digest, status=answer.status, answer=packed)


def let_go(at: datetime) -> None:
    """Let go of answers and keys that are older than is kept."""
    Answered.objects.filter(at__lt=at - ANSWERS_KEPT, answer__isnull=False).update(answer=None)
    Answered.objects.filter(at__lt=at - KEYS_KEPT).delete()

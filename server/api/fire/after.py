"""After the cook: how it went, what is left over, and what of it tells a fair test."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from book.models import Cook, Event
from django.http import HttpRequest
from django.utils import timezone
from ravska_core.fire import AfterReading, Happened, happened, read_after

from api.cooks.shown import logs_of
from api.fire.state import load_fire
from api.plumbing.answers import Router

router = Router()


@dataclass(frozen=True, slots=True)
class NextTimeOut:
    """What to do otherwise next time: the key of its event, of which piece, in words."""

    key: UUID
    letter: str
    note: str


@dataclass(frozen=True, slots=True)
class AfterOut:
    """A cook after its fire; `reading` is none before anything has been on it."""

    reading: AfterReading | None
    next_time: list[NextTimeOut]


@router.reads("/{uuid:cook_id}/after")
def read_after_fire(request: HttpRequest, cook_id: UUID) -> AfterOut:
    """Return how a cook went: real times against the plan, what was lost, eaten and left over."""
    loaded = load_fire(cook_id, timezone.now())
    letters = {piece.pk: piece.letter for piece in loaded.cook.pieces.all()}
    notes = [
        NextTimeOut(row.key, letters.get(row.piece_id, "") if row.piece_id else "", row.note)
        for row in loaded.events if row.what == "next time"
    ]  # fmt: skip
    fire, cook = loaded.fire, loaded.cook
    reading = None if fire is None else read_after(fire, _kept_off(cook), cook.appetite)
    return AfterOut(reading, notes)


def _kept_off(cook: Cook) -> dict[str, datetime]:
    """Return when each piece was to come off by the plan that was kept."""
    rows = (cook.plan_was or {}).get("steps", ())
    return {row["letter"]: datetime.fromisoformat(row["begins_at"]) for row in rows if row["key"] == "off"}


def _logs_of(cook: Cook) -> Mapping[str, Happened]:
    """Return what happened to a cook's pieces on the fire; nothing where none was on it."""
    if not Event.objects.filter(cook=cook, what="on").exists():
        return {}
    fire = load_fire(cook.pk, timezone.now()).fire
    if fire is None:
        return {}
    return {told.letter: told for one in fire.pieces if (told := happened(one, fire)) is not None}


logs_of.append(_logs_of)

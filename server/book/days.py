"""The day of a cook in the book: its sides, what was said and what was done of its tasks, the plan that was kept."""

from collections.abc import Mapping
from datetime import datetime, timedelta
from typing import Any

from book.models import Cook, SideDish


def minutes_of(ticks: Mapping[str, str], serve_at: datetime) -> dict[str, int]:
    """Return when tasks were done [min, 0 at serving], from moments as the book keeps them."""
    return {key: round((datetime.fromisoformat(at) - serve_at).total_seconds() / 60) for key, at in ticks.items()}


def set_sides(cook: Cook, typed: list[tuple[str, dict[str, Any]]]) -> None:
    """Keep these sides of a cook, by name and document, in order, and none else."""
    cook.sides.all().delete()
    SideDish.objects.bulk_create(
        SideDish(cook=cook, position=at, name=name, typed=document) for at, (name, document) in enumerate(typed)
    )


def pin(cook: Cook, lane: str, key: str, begins_at: datetime | None) -> None:
    """Say when a task of a lane begins, or let it be when it fits."""
    of = dict(cook.pins.get(lane, {}))
    if begins_at is None:
        of.pop(key, None)
    else:
        of[key] = round((begins_at - cook.serve_at) / timedelta(minutes=1))
    cook.pins = {name: keys for name, keys in (cook.pins | {lane: of}).items() if keys}
    cook.save(update_fields=["pins"])


def tick(cook: Cook, lane: str, key: str, at: datetime | None) -> None:
    """Keep that a task of a lane was done at a time, or that it was not."""
    of = dict(cook.ticks.get(lane, {}))
    if at is None:
        of.pop(key, None)
    else:
        of[key] = at.isoformat()
    cook.ticks = {name: keys for name, keys in (cook.ticks | {lane: of}).items() if keys}
    cook.save(update_fields=["ticks"])

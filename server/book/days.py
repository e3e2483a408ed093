"""The day of a cook in the book: its sides, what was said and what was done of its tasks, the plan that was kept."""

from collections.abc import Collection, Mapping
from datetime import datetime, timedelta
from typing import Any

from ravska_core.day import BUY

from book.models import Cook, SideDish


def minutes_of(ticks: Mapping[str, str], serve_at: datetime) -> dict[str, int]:
    """Return when tasks were done [min, 0 at serving], from moments as the book keeps them."""
    return {key: round((datetime.fromisoformat(at) - serve_at).total_seconds() / 60) for key, at in ticks.items()}


def set_sides(cook: Cook, typed: list[tuple[str, dict[str, Any]]]) -> None:
    """Keep these sides of a cook, by name and document, in order, and none else.

    What was said and done of a side goes with its name, wherever it stands now.
    """
    was = {row.name: letter_of_side(row.position) for row in cook.sides.all()}
    cook.sides.all().delete()
    for kept in ("pins", "ticks"):
        found = {lane: keys for lane, keys in getattr(cook, kept).items() if not lane.startswith("S")}
        for at, (name, _) in enumerate(typed):
            keys = getattr(cook, kept).get(was.get(name, ""))
            if keys:
                found[letter_of_side(at)] = keys
        setattr(cook, kept, found)
    cook.save(update_fields=["pins", "ticks"])
    SideDish.objects.bulk_create(
        SideDish(cook=cook, position=at, name=name, typed=document) for at, (name, document) in enumerate(typed)
    )


def letter_of_side(at: int) -> str:
    """Return what a side is told apart by, beside the letters of pieces."""
    return f"S{at + 1}"


def forget_others(cook: Cook, letters: Collection[str]) -> None:
    """Let go what was said and done of pieces that are not on the board any more."""

    def stays(lane: str) -> bool:
        return lane in letters or lane.startswith(("S", BUY))

    kept = {
        column: {lane: keys for lane, keys in getattr(cook, column).items() if stays(lane)}
        for column in ("pins", "ticks")
    }
    if any(getattr(cook, column) != found for column, found in kept.items()):
        Cook.objects.filter(pk=cook.pk).update(**kept)


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

"""A cook's day planned from the book: its pieces, sides and table as the core takes them."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Annotated
from uuid import UUID

from book.days import letter_of_side, minutes_of
from book.models import Cook, Piece
from book.models.values import phases_from
from django.conf import settings
from django.utils import timezone
from pydantic import BaseModel, Field
from ravska_core.catalogue import said_name
from ravska_core.day import (
    SHARED,
    Away,
    DayPiece,
    OnFire,
    Side,
    Supper,
    Waves,
    check_side,
    find_zone,
    nights,
    on_fires,
)
from ravska_core.heat import Cooker, find_cooker, heated
from ravska_core.meat import find_cut
from ravska_core.working import BadInput

from api.cooks.store import one_cook, was_never_read
from api.plumbing.problems import Gather
from api.plumbing.quantities import Duration, FireTemperature
from api.plumbing.typed import Key, MaybeName

NightsOf = Callable[[datetime], tuple[tuple[int, int], ...]]


class SideDocument(BaseModel):
    """A side as typed: its name, how long it cooks, where and how hot, how long it keeps hands busy before that.

    Somebody stands beside what is `tended`; `waits` is how long it can stand once it is done.
    """

    name: MaybeName
    minutes: Duration = Duration("")
    hands: Duration = Duration("")
    waits: Duration = Duration("")
    cooker: Key = ""
    aimed: FireTemperature = FireTemperature("")
    tended: bool = False


@dataclass(frozen=True, slots=True)
class DayPieceOut:
    """A piece or a side in a day: its letter and name, what it is, and why it could not be planned, where it could not.

    A `side` is as it was typed; `fires` are the cookers that a piece is on, each with others that could do it.
    """

    letter: str
    name: str
    about: str
    problem: str = ""
    side: SideDocument | None = None
    fires: tuple[OnFire, ...] = ()


@dataclass(frozen=True, slots=True)
class Planned:
    """A cook with what its day is planned from."""

    cook: Cook
    zone: str
    nights_of: NightsOf
    pieces: list[DayPieceOut]
    supper: Supper


def _minutes(typed: Duration, field: str) -> int:
    return round(typed.read(field) / 60) if typed else 0


def read_side(document: SideDocument, letter: str) -> Side:
    """Read a side as typed.

    Raises
    ------
    BadInput
        At the field that cannot be.
    """
    device = find_cooker(document.cooker, "oven") if document.cooker else None
    aimed = document.aimed.read("aimed") if document.aimed else None
    key = SHARED.get(document.cooker, document.cooker)
    found = Side(
        letter, document.name.strip(), _minutes(document.minutes, "minutes"), _minutes(document.hands, "hands"),
        _minutes(document.waits, "waits"), key, device, sum(aimed) / 2 if aimed else None, document.tended,
    )  # fmt: skip
    check_side(found)
    return found


def read_sides(documents: list[SideDocument], gather: Gather) -> None:
    """Read all sides as typed; all that cannot be read is gathered."""
    for at, document in enumerate(documents):
        gather.attempt(f"sides.{at}", read_side, document, letter_of_side(at))


def day_key(typed: str, cooker: Cooker) -> str:
    """Return the key that a day shares a cooker by: that of the household's own, else its kind."""
    key = typed or cooker.kind
    return SHARED.get(key, key)


MostSides = Annotated[list[SideDocument], Field(max_length=12)]


def _day_piece(piece: Piece, cook: Cook, whole: bool) -> DayPiece:
    """Return a piece of the book as its day is planned from it; what a trial hides is named only where `whole`.

    Raises
    ------
    BadInput
        As the piece, a layer or a phase is refused.
    """
    if piece.unread and was_never_read(piece):
        field, sentence = next(iter(piece.unread["fields"].items()))
        raise BadInput(field, sentence)
    seasoned = piece.seasoned(cook.appetite)
    layers = list(piece.layers.all())
    names = tuple(
        layer.blend.name if layer.blend else said_name(layer.grind) if layer.grind else "" for layer in layers
    )
    places = {layer.pk: at for at, layer in enumerate(layers)}
    was = {step.kind + str(step.layer_id): step for step in piece.steps.all() if step.done_at is not None}
    done = {
        (step.kind, places.get(step.layer_id) if step.layer_id else None):
            round((step.done_at - cook.serve_at).total_seconds() / 60)
        for step in was.values() if step.done_at is not None
    }  # fmt: skip
    ticked, pins = minutes_of(cook.ticks.get(piece.letter, {}), cook.serve_at), cook.pins.get(piece.letter, {})
    names = names if whole else tuple("" for _ in names)
    if not piece.phases:
        return DayPiece(piece.letter, seasoned, names=names, done=done, ticked=ticked, pins=pins)
    phases, cookers = phases_from(piece.phases)
    keys = tuple(
        day_key(row["typed"].get("cooker", ""), cooker) for row, cooker in zip(piece.phases, cookers, strict=True)
    )
    found = DayPiece(piece.letter, seasoned, heated(seasoned, phases, cookers), keys, names, done, ticked, pins)
    if found.heat is not None and found.heat.done_s is None:
        raise BadInput("phases", found.heat.says[0])
    return found


def hidden(cook: Cook) -> bool:
    """Tell whether a trial of this cook hides yet which plate is which."""
    trial = getattr(cook, "trial", None)
    return trial is not None and trial.revealed_at is None


def planned_of(cook_id: UUID, zone: str, whole: bool = True) -> Planned:
    """Return a cook with what its day is planned from; where not `whole`, without what a trial hides."""
    return planned(one_cook(cook_id), zone, whole)


def planned(cook: Cook, zone: str, whole: bool = True) -> Planned:
    """Return a cook of the book, loaded, with what its day is planned from."""
    kept = cook.household.preferences
    zone = kept.zone or zone or settings.TIME_ZONE
    clock = find_zone(zone)

    def nights_of(serve_at: datetime) -> tuple[tuple[int, int], ...]:
        return nights(serve_at, clock, kept.sleeps, kept.rises)

    whole = whole or not hidden(cook)
    pieces, sides, told = [], [], []
    for piece in cook.pieces.all():
        about, name = find_cut(piece.cut).name, piece.name if whole else f"Piece {piece.letter}"
        try:
            found = _day_piece(piece, cook, whole)
            pieces.append(found)
            told.append(DayPieceOut(piece.letter, name, about, fires=on_fires(found)))
        except BadInput as refusal:
            told.append(DayPieceOut(piece.letter, name, about, refusal.sentence))
    for at, row in enumerate(cook.sides.all()):
        letter, typed = letter_of_side(at), SideDocument(**row.typed)
        about = "side" if not typed.cooker else f"side, {find_name(typed.cooker)}"
        try:
            side = read_side(typed, letter)
            sides.append(_with_ticks(side, cook))
            told.append(DayPieceOut(letter, row.name, about, "", typed))
        except BadInput as refusal:
            told.append(DayPieceOut(letter, row.name, "side", refusal.sentence, typed))
    now = timezone.now().replace(second=0, microsecond=0)
    supper = Supper(
        tuple(pieces), cook.serve_at, nights_of(cook.serve_at), cook.people,
        # a supper that is over is looked at as it would have been
        now if now < cook.serve_at else None, tuple(sides),
        Away(cook.away_min, cook.travels) if cook.away_min is not None else None,
        Waves(cook.waves, cook.waves_min) if cook.waves > 1 else None,
        minutes_of(cook.ticks.get("buy", {}), cook.serve_at).get("buy"),
    )  # fmt: skip
    return Planned(cook, zone, nights_of, told, supper)


def find_name(key: str) -> str:
    """Return how a cooker is called, or its key where it is not in the book any more."""
    try:
        return find_cooker(key, "oven").says
    except BadInput:
        return key


def _with_ticks(side: Side, cook: Cook) -> Side:
    return replace(
        side, ticked=minutes_of(cook.ticks.get(side.letter, {}), cook.serve_at), pins=cook.pins.get(side.letter, {})
    )  # fmt: skip

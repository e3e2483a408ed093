"""Cook it again: a past cook begun anew, on another day, with other meat of other weight, its doses scaled."""

from dataclasses import replace
from datetime import timedelta
from typing import Annotated
from uuid import UUID

from book.cooks import copy_cook
from book.models import Layer, Piece
from book.steps import lay_out_steps
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja import Schema
from pydantic import AwareDatetime, Field
from ravska_core.coat import EACH_TIME, CoatReading, LayerShown, read_coat
from ravska_core.measure import SCALE_ERROR
from ravska_core.meat import find_cut
from ravska_core.working import BadInput, say

from api.cooks.documents import Letter
from api.cooks.shown import CookOut, cook_out, own_faults
from api.cooks.store import one_cook, one_typed, read_stored
from api.plumbing.answers import Created, Router
from api.plumbing.household import spoon_set
from api.plumbing.problems import Gather
from api.plumbing.quantities import Masses, MassOfPieces
from api.plumbing.typed import Key, MaybeName

router = Router()

WEEK = timedelta(days=7)


class AgainPiece(Schema):
    """What a piece is of this time, and how heavy; empty as it was."""

    letter: Letter
    cut: Key = ""
    mass: Masses = Masses("")


class AgainDocument(Schema):
    """How a cook is begun again: its name, when it is served, its meat; what is not said is as it was.

    Without a day it is served a week or more later, on the same day of the week.
    """

    name: MaybeName = ""
    serve_at: AwareDatetime | None = None
    pieces: Annotated[list[AgainPiece], Field(max_length=8)] = Field(default=[])


AS_IT_WAS = AgainDocument()


@router.posts("/{uuid:cook_id}/copy")
def cook_again(request: HttpRequest, cook_id: UUID, document: AgainDocument = AS_IT_WAS) -> Created[CookOut]:
    """Begin a cook like this one and take it in hand; what was said in grams or spoons is scaled to the other meat."""
    with transaction.atomic():
        cook = one_cook(cook_id)
        weeks = max(1, -((cook.serve_at - timezone.now()) // WEEK))
        serve_at = document.serve_at or cook.serve_at + weeks * WEEK
        gather = Gather()
        gather.errors += own_faults(document.name or cook.name, serve_at, None)
        masses = [
            gather.attempt(f"pieces.{at}", one.mass.of, 1, "mass") if one.mass else None
            for at, one in enumerate(document.pieces)
        ]
        for at, one in enumerate(document.pieces):
            if one.cut:
                gather.attempt(f"pieces.{at}", find_cut, one.cut)
        gather.finish()
        readings = read_stored(cook, spoon_set())
        made = copy_cook(cook, serve_at, document.name)
        pieces = {piece.letter: piece for piece in one_cook(made.pk).pieces.all()}
        for one, mass in zip(document.pieces, masses, strict=True):
            piece, before = pieces.get(one.letter), readings.get(one.letter)
            if piece is None:
                raise BadInput("pieces", "That piece is not on the board of this cook.")
            if (one.cut and one.cut != piece.cut) or (mass is not None and mass.mass_g != piece.mass_g):
                _put(piece, one, mass)
                if isinstance(before, CoatReading):
                    scale_doses(piece, before, made.appetite)
    return Created(cook_out(one_typed(made.pk)))


def _put(piece: Piece, one: AgainPiece, mass: MassOfPieces | None) -> None:
    """Put other meat in the place of a piece; what was measured of the one before does not hold for it."""
    if mass is not None:
        piece.mass_g, piece.mass_typed, piece.masses_g = mass.mass_g, one.mass, list(mass.masses_g)
        piece.count = mass.count if mass.count > 1 else piece.count
    unmeasured(piece)
    other = bool(one.cut) and one.cut != piece.cut
    if other:
        piece.cut, piece.faces, piece.bones, piece.unread = one.cut, {}, [], None
    piece.save()
    if other:
        piece.steps.all().delete()
        lay_out_steps(piece)


def unmeasured(piece: Piece) -> None:
    """Take back what was measured of a piece, of which that does not hold any more."""
    piece.untrimmed_g, piece.untrimmed_typed = None, ""
    piece.length_typed = piece.width_typed = piece.thickness_typed = piece.thin_typed = ""
    piece.length_cm = piece.width_cm = piece.thickness_cm = piece.thin_cm = None


def scale_doses(piece: Piece, before: CoatReading, appetite: str) -> None:
    """Dose what was said in g or ml so that it lies on the dial where it lay, on the meat as it is now."""
    rows = [row for row in piece.layers.all() if row.dose_unit in ("g", "ml") and not row.dose_per]
    if not rows:
        return
    settings = {row.pk: shown.dose_setting for row, shown in zip(piece.layers.all(), before.layers, strict=True)}
    seasoned = piece.seasoned(appetite)
    on_dial = tuple(
        replace(core, dose=settings[row.pk], portion=None) if row in rows else core
        for row, core in zip(piece.layers.all(), seasoned.layers, strict=True)
    )
    try:
        now = read_coat(replace(seasoned, layers=on_dial), spoon_set(), cored=False)
    except BadInput:
        return  # the other meat cannot take this stack; Coat says what is wrong
    for row, shown in zip(piece.layers.all(), now.layers, strict=True):
        if row in rows:
            _dose(row, shown)


def _dose(row: Layer, shown: LayerShown) -> None:
    times = row.times if row.kind in EACH_TIME else 1
    amount = (shown.dose_g if row.dose_unit == "g" else shown.volume_ml) / times
    row.dose_typed = f"{say(amount, 3)} {row.dose_unit}"
    row.dose, row.dose_error = float(say(amount, 3)), SCALE_ERROR
    row.save(update_fields=["dose", "dose_typed", "dose_error"])

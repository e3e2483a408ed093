"""A joint divided: part of it becomes a piece of its own, on this board or in a cook of another day."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated
from uuid import UUID

from book.cooks import copy_piece, unweighed
from book.models import Cook, Layer, Piece, Stale, claim_version
from book.steps import lay_out_steps
from book.tasting import check_untasted
from django.db import transaction
from django.http import HttpRequest
from ninja import Schema
from pydantic import AwareDatetime, Field
from ravska_core.coat import LAYER_KINDS, SHARED, CoatReading
from ravska_core.meat import PLACES, read_piece
from ravska_core.meat import Piece as CorePiece
from ravska_core.working import BadInput, say

from api.cooks.again import scale_doses, unmeasured
from api.cooks.shown import CookOut, cook_out, own_faults
from api.cooks.store import one_cook, one_typed, piece_of, read_stored
from api.cooks.ways import free_letter
from api.plumbing.answers import Router
from api.plumbing.household import household, spoon_set
from api.plumbing.problems import Conflict, Gather
from api.plumbing.quantities import Masses
from api.plumbing.typed import MaybeName, Version

router = Router()

THAW_S = 24 * 3600.0
"""How long a frozen part usually thaws in the fridge [s] (common practice, no source)."""


class DivideDocument(Schema):
    """Which piece is divided, and what the part weighs that is taken off it.

    With `serve_at` it becomes a cook of its own, else another piece of this one; `frozen` says that it is frozen
    meanwhile, and thawed before.
    """

    version: Version
    letter: Annotated[str, Field(pattern="^[A-H]$")]
    mass: Masses
    name: MaybeName = ""
    serve_at: AwareDatetime | None = None
    frozen: bool = False


@dataclass(frozen=True, slots=True)
class DividedOut:
    """This cook with what is left on its board, and the other cook where the part has one."""

    cook: CookOut
    other: UUID | None
    other_name: str


@router.posts("/{uuid:cook_id}/divide")
def divide(request: HttpRequest, cook_id: UUID, document: DivideDocument) -> DividedOut:
    """Take part of a piece off it; what was said in grams or spoons goes on each part as heavy as it was."""
    try:
        with transaction.atomic():
            cook = one_cook(cook_id)
            claim_version(cook, document.version)
            piece = piece_of(cook, document.letter)
            if piece.unread:
                raise BadInput("letter", f"Something of {piece.name} could not be read; put it right in Coat first.")
            if hasattr(piece, "sample"):
                check_untasted(cook, "letter")
            gather = Gather()
            part = gather.attempt("", document.mass.of, 1, "mass")
            if document.serve_at is not None:
                gather.errors += own_faults(document.name or cook.name, document.serve_at, None)
            gather.finish()
            assert part is not None
            left_g = piece.mass_g - part.mass_g
            if left_g < 1:
                raise BadInput("mass", f"The whole piece weighs {say(piece.mass_g, 4)} g; write a weight below that.")
            before = read_stored(cook, spoon_set())[piece.letter]
            whole = piece.as_core()
            other = None
            if document.serve_at is not None:
                other = _another_day(cook, piece, document.name, document.serve_at)
            taken = [one.letter for one in cook.pieces.all()] if other is None else []
            made = copy_piece(
                piece, cook=other or cook, letter=free_letter(taken), position=len(taken),
                name=(document.name if other is None and document.name else f"Part of {piece.name}")[:40],
                target_percent=piece.target_percent,
            )  # fmt: skip
            each_g = piece.mass_g / piece.count
            _weigh(made, part.mass_g, document.mass, part.masses_g, part.count, piece.count, each_g)
            rest = _without(piece.masses_g, list(part.masses_g) or [part.mass_g])
            _weigh(piece, left_g, _said(rest, left_g), tuple(rest), max(1, len(rest)), piece.count, each_g)
            if document.frozen:
                thaw = {"what": "thaw", "place": "fridge", "hold": "24 h", "hold_at": ""}
                made.stages = [
                    {**thaw, "hold_c": PLACES["fridge"].usual_c, "hold_s": THAW_S},
                    *(stage for stage in made.stages if stage["what"] != "thaw"),
                ]
            for layer in piece.layers.all():
                Layer.objects.filter(pk=layer.pk).update(**unweighed(layer))
            for row in (made, piece):
                row.save()
                lay_out_steps(row)
                _share_out(row, whole)
                if isinstance(before, CoatReading):
                    scale_doses(_fresh(row), before, cook.appetite)
    except Stale:
        raise Conflict(cook_out(one_typed(cook_id))) from None
    return DividedOut(cook_out(one_typed(cook_id)), other.pk if other else None, other.name if other else "")


def _another_day(cook: Cook, piece: Piece, said: str, serve_at: datetime) -> Cook:
    name = said or f"{cook.name}, the rest of {piece.name}"
    return Cook.objects.create(
        household=household(), name=name[:80], serve_at=serve_at, eaters=None, appetite=cook.appetite,
        noted=cook.note or cook.noted,
    )  # fmt: skip


def _weigh(
    row: Piece, mass_g: float, typed: str, masses_g: tuple[float, ...], count: int, of: int, each_g: float
) -> None:
    """Let a piece weigh so much; what was measured of the whole does not hold for a part of it."""
    unmeasured(row)
    row.mass_g, row.mass_typed = mass_g, typed
    row.masses_g = list(masses_g) if len(masses_g) > 1 else []
    # so many of several alike, or one joint cut in two
    row.count = count if count > 1 else max(1, min(of, round(mass_g / each_g))) if of > 1 else 1


def _without(masses_g: list[float], taken: list[float]) -> list[float]:
    """Return the weights of unlike pieces without those that are taken; none where they are none of them."""
    rest = list(masses_g)
    for mass in taken:
        near = [one for one in rest if abs(one - mass) < 0.5]
        if not near:
            return []
        rest.remove(near[0])
    return rest


def _said(masses_g: list[float], left_g: float) -> str:
    if len(masses_g) > 1:
        return ", ".join(f"{mass:g}" for mass in masses_g[:-1]) + f" and {masses_g[-1]:g} g"
    return f"{left_g:.0f} g"


def _share_out(row: Piece, whole: CorePiece) -> None:
    """Let a part take as much of a share of a batch or of the jars as it is of the whole, by surface or by weight."""
    part = row.as_core()
    by_area = read_piece(part).coatable.value / max(1e-9, read_piece(whole).coatable.value)
    for layer in row.layers.filter(dose_unit__in=SHARED, dose_rest=False):
        ratio = by_area if LAYER_KINDS[layer.kind].by == "area" else part.mass_g / whole.mass_g
        share = (layer.dose or 0.0) * ratio
        of = "this batch" if layer.dose_unit == "batch" else "the jar"
        layer.dose, layer.dose_typed = share, f"{say(share * 100, 3)} % of {of}"
        layer.mixed_g = None if layer.mixed_g is None else layer.mixed_g * ratio
        layer.save(update_fields=["dose", "dose_typed", "mixed_g"])


def _fresh(row: Piece) -> Piece:
    """Return a piece with its layers as they are in the book now."""
    return Piece.objects.prefetch_related("layers__blend", "layers__revision").get(pk=row.pk)

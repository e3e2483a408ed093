"""Setting up the next trial: two pieces of a cut that differ in one thing, seasoned as they were before."""

from collections.abc import Sequence
from contextlib import suppress
from datetime import datetime, timedelta

from django.db.models import QuerySet
from ravska_core.across import upper
from ravska_core.meat import find_cut
from ravska_core.trial import USUAL_SCALES
from ravska_core.working import BadInput, say

from book.cooks import Beginning, begin_cook, copied, unweighed
from book.evening import even_layers, even_salt, tasted_pieces
from book.models import Cook, Household, Piece, Taster, Trial
from book.steps import lay_out_steps
from book.tasting import arrange, question_of, seat


def next_saturday_supper(now: datetime) -> datetime:
    """Return the next Saturday 18:30 that is at least 30 hours away."""
    supper = now.replace(hour=18, minute=30, second=0, microsecond=0)
    supper += timedelta(days=(5 - now.weekday()) % 7)
    return supper if supper - now >= timedelta(hours=30) else supper + timedelta(days=7)


def usual_piece(household: Household, cut: str) -> tuple[float, list[object]]:
    """Return what a piece of a cut weighs here [g], and how it is cooked, as it was last; usual weight where never."""
    last = _pieces(household).filter(cut=cut, count=1).order_by("-cook__serve_at").first()
    if last is not None:
        return last.mass_g, last.phases
    found = find_cut(cut)
    return round((found.usual_low_g + found.usual_high_g) / 2, -1), []


def _pieces(household: Household) -> "QuerySet[Piece]":
    return Piece.objects.filter(cook__household=household, cook__deleted_at__isnull=True, unread__isnull=True)


def set_up_trial(
    household: Household, now: datetime, cut: str, examples: Sequence[Piece], names: tuple[str, str],
    tasters: Sequence[Taster],
) -> tuple[Cook, list[str]]:  # fmt: skip
    """Begin a cook of two pieces of a cut, seasoned as these examples were, with a trial that is scored.

    What else they differed in is evened out where one tap can; what is left is said.
    """
    grams, phases = usual_piece(household, cut)
    titles = [upper(name)[:40] for name in names]
    beginnings = [Beginning(title, cut, grams, f"{say(grams, 4)} g", None) for title in titles]
    about = f"{find_cut(cut).name}, {names[0]} or {names[1]}"
    cook = begin_cook(household, about[:80], next_saturday_supper(now), beginnings)
    wanted = {piece.target_percent: piece.target_typed for piece in examples if piece.target_percent is not None}
    target = next(iter(wanted.items())) if len(wanted) == 1 else (None, "")
    for piece, example in zip(cook.pieces.all(), examples, strict=True):
        piece.phases, piece.surface = list(phases), example.surface
        piece.target_percent, piece.target_typed = target
        piece.save(update_fields=["phases", "surface", "target_percent", "target_typed"])
        for layer in example.layers.all():
            copied(layer, piece=piece, revision=None, mixed_g=None, **unweighed(layer))
        lay_out_steps(piece)
    said = []
    with suppress(BadInput):
        even_layers(cook, both=False)
        said.append("What only one of them had besides is left off, so that one thing differs.")
    with suppress(BadInput):
        even_salt(cook)
        said.append("Both carry the same salt.")
    _design(cook, names, tasters)
    return cook, said


def _design(cook: Cook, names: tuple[str, str], tasters: Sequence[Taster]) -> None:
    trial: Trial = cook.trial
    trial.kind, trial.planned_cards, trial.scales = "scores", max(1, len(tasters)), list(USUAL_SCALES)
    trial.question = question_of([upper(name) for name in names])
    trial.save()
    arrange(trial, False)
    seat(trial, [(taster, False) for taster in tasters])
    for piece in tasted_pieces(cook):
        lay_out_steps(piece)

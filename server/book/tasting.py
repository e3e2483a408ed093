"""What of a cook is tasted: a trial is made when something is to be, and gone again when nothing of it was used."""

import secrets
from collections.abc import Mapping, Sequence
from uuid import UUID

from ravska_core.trial import PLANNED_CARDS, blind_codes
from ravska_core.working import BadInput

from book.models import LETTERS, Cook, Piece, Sample, Trial

FROZEN = (
    "Tasting cards are in, so the pieces that were tasted stay as they were: their layers, names and numbers. "
    "Make a copy of this cook and change that."
)


def trial_of(cook: Cook) -> Trial | None:
    """Return the trial of a cook, where something of it is tasted."""
    found: Trial | None = getattr(cook, "trial", None)
    return found


def question_of(names: Sequence[str]) -> str:
    """Return what a trial asks: which of two pieces, or how the one comes out."""
    return f"{names[0]} or {names[1].lower()}?" if len(names) > 1 else f"How is it {names[0].lower()}?"


def taste(cook: Cook, pieces: Sequence[Piece], seed: int | None = None) -> Trial | None:
    """Make these the pieces that are tasted, each under a code of its own; the others cook beside them.

    A piece that was tasted before keeps its code. A trial of which nothing was used goes with its last piece.

    Raises
    ------
    BadInput
        At ``pieces`` when cards are in already, so that what was tasted must not change.
    """
    trial = trial_of(cook)
    if trial is None:
        if not pieces:
            return None
        seed = secrets.randbits(31) if seed is None else seed
        trial = Trial.objects.create(cook=cook, question=question_of([piece.name for piece in pieces]), seed=seed)
        cook.trial = trial
    samples = {sample.piece_id: sample for sample in trial.samples.all()}
    wanted = {piece.pk for piece in pieces}
    if samples.keys() == wanted:
        return trial
    check_no_card(trial)
    own = _asks_as_usual(trial, samples)
    trial.samples.exclude(piece__in=wanted).delete()
    taken = {sample.code for key, sample in samples.items() if key in wanted}
    codes = iter([code for code in blind_codes(trial.seed, 2 * len(LETTERS)) if code not in taken])
    Sample.objects.bulk_create(
        Sample(trial=trial, piece=piece, code=next(codes)) for piece in pieces if piece.pk not in samples
    )
    if not pieces and own and not _used(trial):
        trial.delete()
        return None
    if pieces and own:
        trial.question = question_of([piece.name for piece in pieces])
        trial.save(update_fields=["question"])
    return trial


def _asks_as_usual(trial: Trial, samples: Mapping[UUID, Sample]) -> bool:
    """Tell whether nobody asked anything of the cook's own."""
    names = list(Piece.objects.filter(cook=trial.cook_id).order_by("position").values_list("pk", "name"))
    tasted = [name for key, name in names if key in samples]
    every = [name for _, name in names]
    usual = {question_of(some) for some in (tasted, every, every[:1], tasted[:1]) if some}
    return trial.question in usual


def _used(trial: Trial) -> bool:
    return trial.looks.exists() or trial.revealed_at is not None or trial.planned_cards != PLANNED_CARDS


def check_no_card(trial: Trial) -> None:
    """Refuse to change which pieces are tasted once a card names them, even one that was taken back since.

    Raises
    ------
    BadInput
        At ``pieces``.
    """
    if trial.cards.exists():
        sentence = "Tasting cards were handed in, so the pieces that were tasted stay; begin another cook for others."
        raise BadInput("pieces", sentence)


def check_untasted(cook: Cook, field: str = "") -> None:
    """Refuse to change what was tasted.

    Raises
    ------
    BadInput
        When a card is in.
    """
    trial = trial_of(cook)
    if trial is not None and trial.is_tasted():
        raise BadInput(field, FROZEN)

"""What of a cook is tasted: a trial is made when something is to be, and gone again when nothing of it was used."""

import secrets
from collections.abc import Mapping, Sequence
from datetime import timedelta
from random import Random
from uuid import UUID

from django.db.models import F, Max
from django.utils import timezone
from ravska_core.trial import (
    KINDS,
    MOST_SAMPLES,
    PLANNED_CARDS,
    USUAL_SCALES,
    blind_codes,
    check_samples,
    find_kind,
    serving_order,
    triangle_order,
)
from ravska_core.working import BadInput

from book.models import Cook, Piece, Sample, Serving, Taster, Trial

FROZEN = (
    "Tasting cards are in, so the pieces that were tasted stay as they were: their layers, names and numbers. "
    "Make a copy of this cook and change that."
)

TASTED = "tasted"
"""What a refusal is coded with where cards are in, so that what was tasted must not change any more."""

EVENING = timedelta(hours=18)
"""Two tastings are of one evening where they are served no further apart; no code comes twice in one."""


def trial_of(cook: Cook) -> Trial | None:
    """Return the trial of a cook, where something of it is tasted."""
    found: Trial | None = getattr(cook, "trial", None)
    return found


def question_of(names: Sequence[str]) -> str:
    """Return what a trial asks: which of its pieces, or how the one comes out."""
    if len(names) < 2:
        return f"How is it {names[0].lower()}?"
    first, *others = names
    said = [name.lower() for name in others]
    return f"{', '.join([first, *said[:-1]])} or {said[-1]}?"[:200]


def new_seed() -> str:
    """Return a seed that codes and orders do not give away."""
    return secrets.token_hex(32)


def taste(cook: Cook, pieces: Sequence[Piece], seed: str | None = None) -> Trial | None:
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
        trial = Trial.objects.create(
            cook=cook, question=question_of([piece.name for piece in pieces]), seed=seed or new_seed()
        )
        cook.trial = trial
    samples = {sample.piece_id: sample for sample in trial.samples.filter(piece__isnull=False)}
    wanted = {piece.pk for piece in pieces}
    if samples.keys() == wanted:
        return trial
    check_no_card(trial)
    own = _asks_as_usual(trial, samples)
    has_twin = _has_twin(trial)
    trial.samples.filter(piece__isnull=False).exclude(piece__in=wanted).delete()
    for piece in pieces:
        if piece.pk not in samples:
            _add_plate(trial, piece=piece)
    if not pieces and own and not _used(trial):
        trial.delete()
        return None
    if pieces and own:
        trial.question = question_of([piece.name for piece in pieces])
    trial.version += 1  # who has its design open with other pieces is told so
    arrange(trial, has_twin)
    return trial


def choose(cook: Cook, pieces: Sequence[Piece]) -> Trial | None:
    """Make these the pieces that are tasted, as `taste` does; whoever has the cook open is told that they moved."""
    before = set(Sample.objects.filter(trial__cook=cook, piece__isnull=False).values_list("piece_id", flat=True))
    trial = taste(cook, pieces)
    if before != {piece.pk for piece in pieces}:
        Cook.objects.filter(pk=cook.pk).update(version=F("version") + 1)
    return trial


def _taken(cook: Cook) -> set[str]:
    """Return the codes that plates of the same evening have."""
    return set(
        Sample.objects.filter(
            trial__cook__household=cook.household_id, trial__cook__serve_at__gte=cook.serve_at - EVENING,
            trial__cook__serve_at__lte=cook.serve_at + EVENING,
        ).values_list("code", flat=True)
    )  # fmt: skip


def _add_plate(trial: Trial, **of: object) -> Sample:
    """Put one more plate on a trial's table, under a code that no plate of the evening has."""
    (code,) = blind_codes(trial.seed, 1, _taken(trial.cook))
    return Sample.objects.create(trial=trial, code=code, **of)


def new_codes(cook: Cook) -> None:
    """Give the plates of a cook other codes where its evening has become that of another with the same ones."""
    trial = trial_of(cook)
    if trial is None or trial.cards.exists():
        return
    mine = list(trial.samples.all())
    elsewhere = Sample.objects.filter(
        code__in=[sample.code for sample in mine], trial__cook__household=cook.household_id,
        trial__cook__serve_at__gte=cook.serve_at - EVENING, trial__cook__serve_at__lte=cook.serve_at + EVENING,
    ).exclude(trial=trial)  # fmt: skip
    doubled = set(elsewhere.values_list("code", flat=True))
    for sample in mine:
        if sample.code in doubled:
            (sample.code,) = blind_codes(trial.seed, 1, _taken(cook))
            sample.save(update_fields=["code"])
    if doubled:
        lay_orders(trial)


def _has_twin(trial: Trial) -> bool:
    return KINDS[trial.kind].twin and trial.samples.filter(twin_of__isnull=False).exists()


def plates_of(trial: Trial) -> list[Sample]:
    """Return the plates of a trial by their pieces, a twin after the plate it is like: an order that tells."""
    rows = trial.samples.select_related("piece", "twin_of__piece")
    return sorted(rows, key=lambda sample: (sample.meat().letter, sample.twin_of_id is not None))


def arrange(trial: Trial, twin: bool) -> None:
    """Bring plates and orders in line with what a trial is: a triangle has two of each piece, else one may be twinned.

    Which is twinned is by lot. A kind that cannot take so many pieces becomes a ranking; a two-by-two that has lost a
    piece is none any more; where a sitting is full there is no twin. Only while no card was in.
    """
    pieces = list(trial.samples.filter(piece__isnull=False).select_related("piece").order_by("piece__letter"))
    if len(pieces) > KINDS[trial.kind].most:
        trial.kind = "ranking"
    if len(pieces) != 4 or trial.kind not in ("ranking", "scores"):
        trial.sides = []
    if not trial.sides:
        trial.samples.update(row=None, column=None)
    wants = [one.pk for one in pieces] if trial.kind == "triangle" else []
    if twin and KINDS[trial.kind].twin and 0 < len(pieces) < MOST_SAMPLES:
        wants = [Random(f"twin {trial.seed}").choice(pieces).pk]
    trial.samples.filter(twin_of__isnull=False).exclude(twin_of__in=wants).delete()
    there = set(trial.samples.filter(twin_of__isnull=False).values_list("twin_of_id", flat=True))
    for one in pieces:
        if one.pk in wants and one.pk not in there:
            _add_plate(trial, twin_of=one)
    trial.save()
    lay_orders(trial)


def lay_orders(trial: Trial) -> None:
    """Give everybody who is seated and has no card yet the order of the plates as they are now."""
    plates = plates_of(trial)
    done = set(trial.cards.filter(deleted_at__isnull=True).values_list("taster_id", flat=True))
    for serving in trial.servings.all():
        if serving.taster_id not in done:
            serving.served = order_of(trial, plates, serving.number)
            serving.save(update_fields=["served"])


def order_of(trial: Trial, plates: Sequence[Sample], number: int) -> list[str]:
    """Return the codes that card `number` is served, in order; none with fewer than two pieces."""
    if len(plates) < 2:
        return []
    if trial.kind == "triangle":
        return [plates[at].code for at in triangle_order(trial.seed, number)] if len(plates) == 4 else []
    codes = sorted(sample.code for sample in plates)
    return [codes[at] for at in serving_order(trial.seed, len(codes), number)]


def serving_of(trial: Trial, taster: Taster, short: bool = False) -> Serving:
    """Return the plates that somebody is served; who walks in gets the next order."""
    found = trial.servings.filter(taster=taster).first()
    if found is not None:
        return found
    number = next_number(trial)
    return Serving.objects.create(
        trial=trial, taster=taster, number=number, short=short, served=order_of(trial, plates_of(trial), number)
    )


def next_number(trial: Trial) -> int:
    """Return the number of the next order: no card or serving of the trial has it."""
    last = [
        rows.aggregate(last=Max("number"))["last"]
        for rows in (trial.servings.all(), trial.cards.all())
    ]  # fmt: skip
    return max([at for at in last if at is not None], default=-1) + 1


def copy_design(old: Trial, trial: Trial) -> None:
    """Ask another cook what this one asked, of pieces with the same letters; nobody is seated, nothing served yet."""
    for name in ("question", "kind", "factor", "planned_cards", "scales", "words", "guess", "sides", "parts"):
        setattr(trial, name, getattr(old, name))
    trial.serving = {key: value for key, value in old.serving.items() if key != "shared"}
    trial.save()
    crossed = {sample.meat().letter: sample for sample in plates_of(old) if sample.twin_of_id is None}
    for sample in trial.samples.filter(piece__isnull=False).select_related("piece"):
        was = crossed.get(sample.meat().letter)
        if was is not None:
            sample.row, sample.column, sample.portion = was.row, was.column, was.portion
            sample.save(update_fields=["row", "column", "portion"])
    arrange(trial, _has_twin(old))


def seat(trial: Trial, tasters: Sequence[tuple[Taster, bool]]) -> None:
    """Seat these, each with whether their card is a child's, and nobody else but who has handed in a card."""
    keep = {taster.pk for taster, _ in tasters}
    done = set(trial.cards.values_list("taster_id", flat=True))
    trial.servings.exclude(taster_id__in=keep | done).delete()
    # numbers that became free are dealt out again while nobody has tasted, so that the orders stay balanced
    if not done:
        for number, serving in enumerate(trial.servings.order_by("number")):
            if serving.number != number:
                serving.number = number
                serving.save(update_fields=["number"])
    for taster, short in tasters:
        serving = serving_of(trial, taster, short)
        if serving.short != short or serving.gone_at is not None:
            serving.short, serving.gone_at = short, None
            serving.save(update_fields=["short", "gone_at"])
    lay_orders(trial)


def leave(serving: Serving, gone: bool) -> None:
    """Say that somebody left without a card, or that they are back."""
    serving.gone_at = timezone.now() if gone else None
    serving.save(update_fields=["gone_at"])


def check_design(trial: Trial, samples: int, twin: bool, crossed: bool, kind: str) -> None:
    """Refuse a design that cannot be, or one that comes after the first card.

    Raises
    ------
    BadInput
        At the field that is at fault; coded as tasted where a card is in.
    """
    check_samples(find_kind(kind), samples, twin, crossed)
    # one that was taken back can still be put in again
    if trial.cards.exists():
        raise BadInput("kind", "A card is in, so the design stays as it was tasted; copy the cook for another.", TASTED)


def _asks_as_usual(trial: Trial, samples: Mapping[UUID | None, Sample]) -> bool:
    """Tell whether nobody asked anything of the cook's own."""
    names = list(Piece.objects.filter(cook=trial.cook_id).order_by("position").values_list("pk", "name"))
    tasted = [name for key, name in names if key in samples]
    every = [name for _, name in names]
    usual = {question_of(some) for some in (tasted, every, every[:1], every[:2], tasted[:1], tasted[:2]) if some}
    return trial.question in usual


def _used(trial: Trial) -> bool:
    used = trial.looks.exists() or trial.servings.exists() or trial.revealed_at is not None
    designed = trial.words or trial.sides or trial.parts or trial.serving or trial.guess is not None
    asked = trial.planned_cards != PLANNED_CARDS or tuple(trial.scales) != USUAL_SCALES
    return used or asked or bool(designed)


def check_no_card(trial: Trial) -> None:
    """Refuse to change which pieces are tasted once a card names them, even one that was taken back since.

    Raises
    ------
    BadInput
        At ``pieces``.
    """
    if trial.cards.exists():
        sentence = "Tasting cards were handed in, so the pieces that were tasted stay; begin another cook for others."
        raise BadInput("pieces", sentence, TASTED)


def check_untasted(cook: Cook, field: str = "") -> None:
    """Refuse to change what was tasted.

    Raises
    ------
    BadInput
        When a card is in.
    """
    trial = trial_of(cook)
    if trial is not None and trial.is_tasted():
        raise BadInput(field, FROZEN, TASTED)

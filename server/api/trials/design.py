"""Table: the design of a trial, who tastes, how it is served, and the one look at which plate is which."""

from collections.abc import Sequence
from uuid import UUID

from book.cooks import copy_piece
from book.evening import give_layers, puts_of, take_layers, tasted_pieces
from book.models import LETTERS, Look, Piece, Stale, Trial, claim_version
from book.steps import lay_out_steps
from book.tasting import arrange, check_design, choose, question_of, seat
from django.db import transaction
from django.http import HttpRequest
from ravska_core.measure import parse_duration_s, parse_length_cm
from ravska_core.trial import FairTest, changes, check_scales, deal, guesses
from ravska_core.working import BadInput

from api.cooks.shown import fair_test
from api.cooks.store import cooks, load, one_cook, read_stored, spoons_for
from api.plumbing.answers import Created, Router
from api.plumbing.problems import Conflict, Gather
from api.plumbing.versions import VersionDocument
from api.trials.documents import (
    DesignDocument,
    DesignOut,
    LookDocument,
    LookOut,
    NewTrial,
    PieceServed,
    PlatingOut,
    SeatsSave,
    ServedSave,
    TableOut,
)
from api.trials.store import Loaded, as_core, check_may_eat, find_trial, load_trial, loaded, taster_named
from api.trials.table import dealt_out, design_out, table_out

router = Router()


@router.posts("")
def begin_trial(request: HttpRequest, document: NewTrial) -> Created[DesignOut]:
    """Begin a trial of a cook's pieces, or take these as the ones that are tasted where it has one."""
    with transaction.atomic():
        cook = one_cook(document.cook_id)
        chosen = _chosen(list(cook.pieces.all()), document.letters)
        if len(chosen) < 2:
            raise BadInput("letters", "Choose two pieces or more to taste against each other.")
        trial = choose(cook, chosen)
        assert trial is not None
    return Created(design_out(trial.pk))


def _chosen(pieces: Sequence[Piece], letters: Sequence[str]) -> list[Piece]:
    there = {piece.letter for piece in pieces}
    if set(letters) - there:
        raise BadInput("letters", "One of these pieces is not on the board any more; choose again.")
    return [piece for piece in pieces if piece.letter in letters]


def _claimed(trial_id: UUID, version: int) -> Trial:
    trial = find_trial(trial_id)
    claim_version(trial, version)
    return trial


@router.reads("/{uuid:trial_id}/design")
def read_design(request: HttpRequest, trial_id: UUID) -> DesignOut:
    """Return a trial's design, by its pieces; no code stands in it."""
    return design_out(trial_id)


@router.puts("/{uuid:trial_id}/design")
def save_design(request: HttpRequest, trial_id: UUID, document: DesignDocument) -> DesignOut:
    """Save a trial's design, before its first card; 409 with the other version when it was changed meanwhile."""
    try:
        with transaction.atomic():
            trial = _claimed(trial_id, document.version)
            _design(trial, document)
    except Stale:
        raise Conflict(design_out(trial_id)) from None
    return design_out(trial_id)


def _design(trial: Trial, document: DesignDocument) -> None:
    pieces = list(trial.cook.pieces.all())
    gather = Gather()
    chosen = gather.attempt("", _chosen, pieces, document.letters)
    scales = gather.attempt("", check_scales, document.scales)
    if chosen is not None:
        gather.attempt("", _check_design, trial, len(chosen), document.twin, bool(document.sides), document.kind)
        if document.parts:
            gather.attempt("", deal, trial.seed, document.parts, max(2, len(chosen)))
    if document.sides and (len(document.sides) != 4 or len(set(document.sides)) != 4):
        gather.refuse("sides", "Name both rows and both columns of the two-by-two, each by another word.")
    places = {(one.row, one.column) for one in document.crossed}
    crossed = {one.letter for one in document.crossed}
    if document.sides and (len(places) != 4 or crossed != set(document.letters)):
        gather.refuse("crossed", "Put each of the four pieces on its own side of the two-by-two.")
    gather.finish()
    assert chosen is not None
    assert scales is not None
    trial.question, trial.kind, trial.planned_cards = document.question, document.kind, document.cards
    trial.scales, trial.words, trial.guess = list(scales), list(dict.fromkeys(document.words)), document.guess
    trial.sides, trial.parts = list(document.sides), list(document.parts)
    trial.save()
    trial.cook.trial = trial
    choose(trial.cook, chosen)
    trial.question = document.question
    _cross(trial, document)
    arrange(trial, document.twin)


_FIELDS = {"samples": "letters", "two_by_two": "sides"}
"""Where a design's document holds what the core calls by a name of its own."""


def _check_design(trial: Trial, samples: int, twin: bool, crossed: bool, kind: str) -> None:
    try:
        check_design(trial, samples, twin, crossed, kind)
    except BadInput as refusal:
        raise BadInput(_FIELDS.get(refusal.argument, refusal.argument), refusal.sentence, refusal.code) from None


def _cross(trial: Trial, document: DesignDocument) -> None:
    trial.samples.update(row=None, column=None)
    for one in document.crossed if document.sides else []:
        trial.samples.filter(piece__letter=one.letter).update(row=one.row, column=one.column)


@router.puts("/{uuid:trial_id}/seats")
def save_seats(request: HttpRequest, trial_id: UUID, document: SeatsSave) -> TableOut:
    """Seat these tasters, each with an order of plates of their own; nobody is given what they may not eat."""
    try:
        with transaction.atomic():
            trial = _claimed(trial_id, document.version)
            found = loaded(trial)
            gather, seated = Gather(), []
            for at, one in enumerate(document.seats):
                taster = taster_named(one.taster, guest=True)
                gather.attempt(f"seats.{at}", check_may_eat, found, taster)
                seated.append((taster, one.short))
            gather.finish()
            seat(trial, list({taster.pk: (taster, short) for taster, short in seated}.values()))
    except Stale:
        raise Conflict(table_out(trial_id)) from None
    return table_out(trial_id)


@router.puts("/{uuid:trial_id}/serving")
def save_serving(request: HttpRequest, trial_id: UUID, document: ServedSave) -> DesignOut:
    """Say how a trial is served, and each of its pieces; a record that may still be written while cards come in."""
    try:
        with transaction.atomic():
            trial = _claimed(trial_id, document.version)
            trial.serving = document.serving.model_dump(exclude_defaults=True)
            trial.save(update_fields=["serving"])
            gather = Gather()
            for at, one in enumerate(document.pieces):
                gather.attempt(f"pieces.{at}", _serve, trial, one)
            gather.finish()
    except Stale:
        raise Conflict(design_out(trial_id)) from None
    return design_out(trial_id)


def _serve(trial: Trial, one: PieceServed) -> None:
    portion: dict[str, object] = one.portion.model_dump(exclude={"thickness"}, exclude_defaults=True)
    if one.portion.thickness:
        portion["thickness_mm"] = _thickness_mm(one.portion.thickness)
    plate_s = None
    if one.plate_min:
        plate_s = parse_duration_s(one.plate_min, "plate_min", 6 * 3600)
    trial.samples.filter(piece__letter=one.letter).update(portion=portion, plate_s=plate_s)


def _thickness_mm(typed: str) -> float:
    mm = parse_length_cm(typed, "portion.thickness") * 10
    if not 1 <= mm <= 100:
        raise BadInput("portion.thickness", "Slices are between 1 mm and 10 cm thick; write it such as 8 mm.")
    return mm


@router.reads("/{uuid:trial_id}/fair")
def read_fair(request: HttpRequest, trial_id: UUID) -> FairTest | None:
    """Compare everything recorded of the pieces that are tasted, pair by pair; none with fewer than two of them."""
    found = load_trial(trial_id)
    cook = load(cooks().get(pk=found.trial.cook_id))
    guessed = guesses(as_core(found)) if found.revealed else None
    return fair_test(cook, read_stored(cook, spoons_for(cook)), guessed)


@router.posts("/{uuid:trial_id}/two-by-two")
def cross_it(request: HttpRequest, trial_id: UUID, document: VersionDocument) -> DesignOut:
    """Make a trial that changes two things the two-by-two that answers both: two more pieces, as heavy as theirs."""
    try:
        with transaction.atomic():
            trial = _claimed(trial_id, document.version)
            _make_crossed(trial)
    except Stale:
        raise Conflict(design_out(trial_id)) from None
    return design_out(trial_id)


def _make_crossed(trial: Trial) -> None:
    check_design(trial, 4, False, True, "scores")
    cook = one_cook(trial.cook_id)
    pieces = tasted_pieces(cook)
    if len(pieces) != 2:
        raise BadInput("version", "A two-by-two is made of two pieces that differ in two things.")
    a, b = pieces
    found = changes(a.letter, puts_of(a), b.letter, puts_of(b))
    extra = next((change for change in found[1:] if change.what == "layer" and change.letter), None)
    free = [letter for letter in LETTERS if letter not in {piece.letter for piece in cook.pieces.all()}]
    if extra is None:
        raise BadInput("version", "These two do not differ in a second layer, so there is nothing to cross.")
    if len(free) < 2:
        raise BadInput("version", "There is no room for two more pieces; take some off the board first.")
    has, lacks = (a, b) if extra.letter == a.letter else (b, a)
    bare = copy_piece(has, cook=cook, letter=free[0], position=len(LETTERS), name=f"{has.name}, plain"[:40])
    take_layers(bare, extra.of)
    dressed = copy_piece(
        lacks, cook=cook, letter=free[1], position=len(LETTERS) + 1, name=f"{lacks.name}, dressed"[:40]
    )
    give_layers(has, dressed, extra.of)
    for piece in (bare, dressed):
        lay_out_steps(piece)
    choose(trial.cook, [a, b, bare, dressed])
    trial = Trial.objects.get(pk=trial.pk)
    column = {has.letter: 0, bare.letter: 0, lacks.letter: 1, dressed.letter: 1}
    row_of = {has.letter: 1, bare.letter: 0, lacks.letter: 0, dressed.letter: 1}
    trial.kind = "scores"
    trial.sides = [f"Without {extra.of}"[:40], f"With {extra.of}"[:40], has.name, lacks.name]
    trial.question = question_of([has.name, lacks.name])[:-1] + f", with and without {extra.of}?"
    trial.question = trial.question[:200]
    trial.save()
    for sample in trial.samples.select_related("piece"):
        sample.row, sample.column = row_of[sample.meat().letter], column[sample.meat().letter]
        sample.save(update_fields=["row", "column"])
    arrange(trial, False)


@router.posts("/{uuid:trial_id}/looks")
def look(request: HttpRequest, trial_id: UUID, document: LookDocument) -> LookOut:
    """Tell the plate numbers by piece, and write down first who looked: nothing else tells them before the reveal."""
    with transaction.atomic():
        found = load_trial(trial_id)
        if not found.plates:
            raise BadInput("who", "No piece of this cook is tasted, so there are no numbers to plate under.")
        Look.objects.get_or_create(trial=found.trial, taster=taster_named(document.who, guest=True))
    return _seen(found)


def _seen(found: Loaded) -> LookOut:
    letters = {plate.code: plate.meat().letter for plate in found.plates}
    plates = [
        PlatingOut(plate.meat().letter, plate.meat().name, plate.code, plate.twin_of_id is not None)
        for plate in found.plates
    ]
    orders = {one.taster.nickname: [letters[code] for code in one.served] for one in found.servings}
    seen = found.trial.looks.select_related("taster").values_list("taster__nickname", flat=True)
    return LookOut(plates, dealt_out(found), orders, found.trial.seed, list(seen))

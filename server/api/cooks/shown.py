"""Cooks as documents: as typed, for Coat; and as they stand on Home, with readings, steps and what comes next."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from book.models import Cook, Piece
from book.tasting import trial_of
from ravska_core.coat import CoatReading, Planned
from ravska_core.day import count_back
from ravska_core.meat import MOST_EATERS
from ravska_core.trial import ArmRecord, FairTest, compare_arms
from ravska_core.working import BadInput, Figure

from api.cooks.documents import CookSave, PieceDocument, good_document, piece_document
from api.cooks.readings import LayerMarkOut, layer_mark
from api.cooks.store import is_tasted, read_stored, spoons_for, was_never_read
from api.plumbing.problems import FieldError, at_field, field_error


@dataclass(frozen=True, slots=True)
class TrialMarkOut:
    """What is to be known of a cook's trial beside it: its question, how many cards are in, whether it is revealed."""

    id: UUID
    question: str
    cards: int
    revealed: bool


@dataclass(frozen=True, slots=True)
class CookOut:
    """A cook as typed. `trial` is there when something of it is to be tasted.

    `errors` says what could not be read, by field; `before` holds those pieces as they were last read, if ever.
    """

    id: UUID
    version: int
    name: str
    serve_at: datetime
    in_hand: bool
    eaters: int | None
    appetite: str
    trial: TrialMarkOut | None
    pieces: list[PieceDocument]
    errors: list[FieldError]
    before: list[PieceDocument]


@dataclass(frozen=True, slots=True)
class StepOut:
    id: UUID
    kind: str
    layer: int | None
    begins_at: datetime
    before: Figure
    lasts_s: float
    done_at: datetime | None


@dataclass(frozen=True, slots=True)
class BoardPieceOut:
    """A piece on the board: as what could be read of it is typed, what its layers are drawn with, steps and reading.

    `problems` are what could not be read; a reading beside them rests on what was last read instead.
    """

    typed: PieceDocument
    marks: list[LayerMarkOut]
    steps: list[StepOut]
    reading: CoatReading | None
    problems: list[FieldError]


@dataclass(frozen=True, slots=True)
class NextOut:
    """The one next thing to do."""

    letter: str
    step_id: UUID
    kind: str
    begins_at: datetime


@dataclass(frozen=True, slots=True)
class BoardOut:
    """A cook as it stands: its pieces with their steps and readings, what comes next, and whether a test is fair.

    `fair` is there when two pieces are tasted against each other.
    """

    id: UUID
    version: int
    name: str
    serve_at: datetime
    in_hand: bool
    eaters: int | None
    appetite: str
    trial: TrialMarkOut | None
    pieces: list[BoardPieceOut]
    next: NextOut | None
    fair: FairTest | None


def trial_mark(cook: Cook) -> TrialMarkOut | None:
    """Return what is to be known of a cook's trial, counted as `typed_cooks` counts."""
    trial = trial_of(cook)
    if trial is None:
        return None
    return TrialMarkOut(trial.pk, trial.question, cook.handed_in, trial.revealed_at is not None)


YEARS = range(2000, 2101)
"""When a cook can be served."""


def own_faults(name: str, serve_at: datetime, eaters: int | None) -> list[BadInput]:
    """Return what is wrong with what a cook says of itself."""
    found = []
    if not name:
        found.append(BadInput("name", "Write something here; it cannot be empty."))
    if serve_at.year not in YEARS:
        found.append(BadInput("serve_at", f"Serve between the years {YEARS[0]} and {YEARS[-1]}."))
    if eaters is not None and not 1 <= eaters <= MOST_EATERS:
        found.append(BadInput("eaters", f"Cook for 1 to {MOST_EATERS} eaters: a whole number."))
    return found


def typed_own(document: CookSave, field: str) -> object:
    """Return what was typed of a cook's own, as the book can keep it."""
    typed = getattr(document, field)
    return typed.isoformat() if isinstance(typed, datetime) else typed


def cook_out(cook: Cook) -> CookOut:
    """Return a cook, loaded through `typed_cooks`, as its document."""
    pieces = list(cook.pieces.all())
    own = {"name": cook.name, "serve_at": cook.serve_at, "eaters": cook.eaters} | cook.unread
    serve_at = datetime.fromisoformat(own["serve_at"]) if isinstance(own["serve_at"], str) else own["serve_at"]
    errors = [field_error(fault) for fault in own_faults(own["name"], serve_at, own["eaters"])]
    for at, piece in enumerate(pieces):
        errors += unread_errors(piece, f"pieces.{at}.")
    return CookOut(
        cook.pk, cook.version, own["name"], serve_at, cook.in_hand, own["eaters"], cook.appetite, trial_mark(cook),
        [piece_document(piece, is_tasted(piece)) for piece in pieces], errors,
        [good_document(piece, is_tasted(piece)) for piece in pieces if piece.unread and not was_never_read(piece)],
    )  # fmt: skip


def unread_errors(piece: Piece, under: str = "") -> list[FieldError]:
    """Return what could not be read of a piece, by field below `under`."""
    fields = piece.unread["fields"] if piece.unread else {}
    return [FieldError(field=f"{under}{path}", sentence=sentence) for path, sentence in fields.items()]


def fair_test(cook: Cook, readings: dict[str, CoatReading | BadInput]) -> FairTest | None:
    """Compare what is recorded so far of the two pieces that are tasted; None with fewer."""
    tasted = [piece for piece in cook.pieces.all() if is_tasted(piece)]
    if len(tasted) < 2:
        return None
    a, b = (_record(piece, readings[piece.letter]) for piece in tasted[:2])
    return compare_arms(a, b, cook.handed_in, cook.knowing)


def _record(piece: Piece, reading: CoatReading | BadInput) -> ArmRecord:
    salt, states = None, list(piece.faces.values())
    if not isinstance(reading, BadInput):
        salt, states = reading.salt.value, [face.state for face in reading.piece.faces]
    lasts = {step.kind: step.length_s() for step in piece.steps.all()}
    return ArmRecord(
        letter=piece.letter,
        cut=piece.cut,
        count=piece.count,
        mass_g=piece.mass_g,
        salt_percent=salt,
        fire_s=lasts.get("on"),
        rest_s=lasts.get("rest"),
        surface_coated="coated" in states,
    )


def _steps(cook: Cook, piece: Piece) -> list[StepOut]:
    steps = list(piece.steps.all())
    places = {layer.pk: at for at, layer in enumerate(piece.layers.all())}
    times = count_back(cook.serve_at, [Planned(step.kind, step.length_s()) for step in steps])
    return [
        StepOut(
            step.id,
            step.kind,
            places.get(step.layer_id) if step.layer_id else None,
            begins,
            before,
            step.length_s(),
            step.done_at,
        )
        for step, (begins, before) in zip(steps, times, strict=True)
    ]


def board_out(cook: Cook) -> BoardOut:
    """Return a cook, loaded through `cooks`, as it stands on Home."""
    readings = read_stored(cook, spoons_for(cook))
    pieces = []
    for piece in cook.pieces.all():
        found = readings[piece.letter]
        marks = [layer_mark(layer.blend, layer.revision, layer.grind) for layer in piece.layers.all()]
        pieces.append(
            BoardPieceOut(
                typed=good_document(piece, is_tasted(piece)),
                marks=marks,
                steps=_steps(cook, piece),
                reading=None if isinstance(found, BadInput) else found,
                problems=unread_errors(piece)
                or ([field_error(at_field(found))] if isinstance(found, BadInput) else []),
            )
        )
    waiting = [
        NextOut(piece.typed.letter, step.id, step.kind, step.begins_at)
        for piece in pieces
        for step in piece.steps
        if step.done_at is None
    ]
    fair = fair_test(cook, readings)
    return BoardOut(
        id=cook.pk,
        version=cook.version,
        name=cook.name,
        serve_at=cook.serve_at,
        in_hand=cook.in_hand,
        eaters=cook.eaters,
        appetite=cook.appetite,
        trial=trial_mark(cook),
        pieces=pieces,
        next=min(waiting, key=lambda found: found.begins_at, default=None),
        fair=fair,
    )

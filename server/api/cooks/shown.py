"""Cooks as documents: as typed, for Coat; and as they stand on Home, with readings, steps and what comes next."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from itertools import combinations
from uuid import UUID

from book.evening import puts_of
from book.models import Cook, Piece
from book.models.values import phases_from
from book.tasting import trial_of
from ravska_core.catalogue import said_name
from ravska_core.coat import BESIDE, ON_THE_FIRE, SET_BY_THEMSELVES, CoatReading, Planned, Wanted, for_later, mixed_once
from ravska_core.day import count_back
from ravska_core.fire import Happened
from ravska_core.heat import SURROUNDS
from ravska_core.meat import MOST_EATERS
from ravska_core.trial import ArmRecord, FairTest, Guesses, PlatePortion, Served, compare_samples
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

    `errors` says what could not be read, by field; `before` holds those pieces as they were last read, if ever. `note`
    is for the next time, `noted` what was noted so on the cook that this one was begun from.
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
    note: str
    noted: str


@dataclass(frozen=True, slots=True)
class MixOut:
    """What is mixed of a blend at once, for all pieces that take it: how much, and what is set aside of it first [g].

    `amount` is in `unit`; none where a layer of it could not be read.
    """

    name: str
    amount: float | None
    unit: str
    aside_g: float
    letters: list[str]


@dataclass(frozen=True, slots=True)
class StepOut:
    """A step of a piece; `settable` where a cook sets its length by itself.

    `mixes` is what a mixing takes in: a blend that several pieces take is mixed once; or what is set aside for later.
    """

    id: UUID
    kind: str
    layer: int | None
    begins_at: datetime
    before: Figure
    lasts_s: float
    done_at: datetime | None
    settable: bool
    mixes: list[MixOut]


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

    `fair` is there when two pieces are tasted against each other; `noted` is what was noted for next time on the cook
    that this one was begun from.
    """

    id: UUID
    version: int
    name: str
    serve_at: datetime
    in_hand: bool
    eaters: int | None
    noted: str
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
        cook.note, cook.noted,
    )  # fmt: skip


def unread_errors(piece: Piece, under: str = "") -> list[FieldError]:
    """Return what could not be read of a piece, by field below `under`."""
    fields = piece.unread["fields"] if piece.unread else {}
    return [FieldError(field=f"{under}{path}", sentence=sentence) for path, sentence in fields.items()]


logs_of: list[Callable[[Cook], Mapping[str, Happened]]] = []
"""What happened to a cook's pieces on the fire, by their letters; said by the fire, which is above this."""


def fair_test(
    cook: Cook, readings: dict[str, CoatReading | BadInput], guessed: Guesses | None = None
) -> FairTest | None:
    """Compare what is recorded so far of the pieces that are tasted; None with fewer than two.

    What was guessed of the plates is told with it only once they are revealed.
    """
    tasted = [piece for piece in cook.pieces.all() if is_tasted(piece)]
    trial = trial_of(cook)
    if len(tasted) < 2 or trial is None:
        return None
    records = arm_records(cook, readings)
    shared = tuple(trial.serving.get("shared", ()))
    asked = bool(cook.handed_in) and trial.cards.filter(deleted_at__isnull=True, guess__isnull=False).exists()
    served = Served(cook.handed_in, cook.knowing, shared, asked, guessed)
    return compare_samples(records, pairs_of(tasted), served)


def arm_records(cook: Cook, readings: dict[str, CoatReading | BadInput]) -> list[ArmRecord]:
    """Return what is recorded of the pieces of a cook that are tasted, in their order."""
    logs: dict[str, Happened] = {}
    for told in logs_of:
        logs.update(told(cook))
    tasted = [piece for piece in cook.pieces.all() if is_tasted(piece)]
    return [_record(piece, readings[piece.letter], logs.get(piece.letter)) for piece in tasted]


def pairs_of(tasted: Sequence[Piece]) -> list[tuple[int, int]]:
    """Return the places of the pieces that are read against each other: all, or those in a row of a two-by-two."""
    rows = [piece.sample.row for piece in tasted]
    return [
        (a, b) for a, b in combinations(range(len(tasted)), 2) if rows[a] == rows[b]
    ] or [(0, 1)]  # fmt: skip


def _record(piece: Piece, reading: CoatReading | BadInput, log: Happened | None) -> ArmRecord:
    salt, states = None, list(piece.faces.values())
    if not isinstance(reading, BadInput):
        salt, states = reading.salt.value, [face.state for face in reading.piece.faces]
    lasts = {step.kind: step.length_s() for step in piece.steps.all()}
    phases, _ = phases_from(piece.phases)
    hot = [phase for phase in phases if SURROUNDS[phase.surround].hot]
    return ArmRecord(
        letter=piece.letter,
        cut=piece.cut,
        count=piece.count,
        mass_g=piece.mass_g,
        salt_percent=salt,
        fire_s=lasts.get("on") if log is None or log.fire_s is None else log.fire_s,
        rest_s=lasts.get("rest") if log is None or log.rest_s is None else log.rest_s,
        surface_coated="coated" in states,
        beside=_beside(piece, reading),
        phases=tuple(phase.where for phase in phases) if phases else None,
        wood=tuple(phase.wood for phase in phases if phase.wood),
        done=hot[-1].ends if hot else "",
        log=log,
        name=piece.name,
        stack=puts_of(piece),
        masses_g=tuple(piece.masses_g),
        portion=PlatePortion(**piece.sample.portion),
        plate_s=piece.sample.plate_s,
    )


def _beside(piece: Piece, reading: CoatReading | BadInput) -> tuple[tuple[str, float], ...]:
    """Return what is eaten with a piece, by name, and how much of it a serving gets [g]."""
    if isinstance(reading, BadInput):
        return ()
    return tuple(
        (layer.blend.name if layer.blend else said_name(layer.grind), found.dose_g / reading.servings.value)
        for layer, found in zip(piece.layers.all(), reading.layers, strict=True)
        if layer.kind in BESIDE
    )


def _steps(cook: Cook, piece: Piece) -> list[StepOut]:
    steps = list(piece.steps.all())
    places = {layer.pk: at for at, layer in enumerate(piece.layers.all())}
    fire_s = max((step.length_s() for step in steps if step.kind == "on"), default=0.0)
    planned = [
        Planned(step.kind, min(step.length_s(), fire_s) if step.kind in ON_THE_FIRE else step.length_s())
        for step in steps
    ]
    found = [
        StepOut(
            step.id,
            step.kind,
            places.get(step.layer_id) if step.layer_id else None,
            begins,
            before,
            plan.lasts_s,
            step.done_at,
            # how long it is on the fire and rests is told by its phases, where it has some
            step.kind in SET_BY_THEMSELVES and not (piece.phases and step.kind in ("on", "rest")),
            [],
        )
        for step, plan, (begins, before) in zip(steps, planned, count_back(cook.serve_at, planned), strict=True)
    ]
    return sorted(found, key=lambda step: step.begins_at)


_Readings = Mapping[str, CoatReading | BadInput]


def mixing_of(cook: Cook) -> list[list[tuple[Piece, int]]]:
    """Return the layers, by piece and place, whose blends the mixing of each piece of a cook takes in."""
    pieces = list(cook.pieces.all())
    mixing = [next((step for step in _steps(cook, piece) if step.kind == "mix"), None) for piece in pieces]
    done = [step is not None and step.done_at is not None for step in mixing]
    # a revision is what was mixed; one that was only pinned, as before a tasting, is mixed by nothing yet
    mixed = {layer.revision_id for place, piece in enumerate(pieces) if done[place] for layer in piece.layers.all()}
    wanted = [
        Wanted(place, at, (layer.blend_id, was and layer.revision_id), was)
        for place, piece in enumerate(pieces)
        for at, layer in enumerate(piece.layers.all())
        if layer.blend_id is not None
        for was in [layer.revision_id is not None and layer.revision_id in mixed]
    ]
    begins = [None if step is None else step.begins_at.timestamp() for step in mixing]
    return [[(pieces[one.place], one.layer) for one in taken] for taken in mixed_once(wanted, begins, done)]


def _mixes(taken: Sequence[tuple[Piece, int]], readings: _Readings) -> list[MixOut]:
    # two blends may have one name, and one that changed since it was mixed is another
    found: dict[tuple[UUID | None, UUID | None], MixOut] = {}
    for piece, at in taken:
        layer = piece.layers.all()[at]
        mark = layer_mark(layer.blend, layer.revision, layer.grind)
        reading = readings[piece.letter]
        read = None if isinstance(reading, BadInput) else reading.layers[at]
        one = MixOut(
            name=mark.blend_name,
            amount=None if read is None else read.dose.value,
            unit="g" if read is None else read.dose.unit,
            aside_g=0.0 if read is None else read.reserve_g,
            letters=[piece.letter],
        )
        of = (layer.blend_id, layer.revision_id if mark.changed_since else None)
        before = found.get(of)
        found[of] = one if before is None else _both(before, one)
    return list(found.values())


def _both(a: MixOut, b: MixOut) -> MixOut:
    known = a.amount is not None and b.amount is not None and a.unit == b.unit
    return MixOut(
        name=a.name,
        amount=(a.amount or 0.0) + (b.amount or 0.0) if known else None,
        unit=a.unit,
        aside_g=a.aside_g + b.aside_g,
        letters=[*a.letters, *(letter for letter in b.letters if letter not in a.letters)],
    )


def _steps_with_mixing(
    cook: Cook, piece: Piece, taken: Sequence[tuple[Piece, int]], readings: _Readings
) -> list[StepOut]:
    """Return the steps of a piece; a mixing that another piece's takes in is none of them."""
    mixes = {"mix": _mixes(taken, readings), "aside": _asides(piece, readings[piece.letter])}
    return [
        replace(step, mixes=mixes.get(step.kind, []))
        for step in _steps(cook, piece)
        if step.kind != "mix" or mixes["mix"]
    ]


def _asides(piece: Piece, reading: CoatReading | BadInput) -> list[MixOut]:
    """Return what is set aside of a piece's layers before any of it touches raw meat."""
    if isinstance(reading, BadInput):
        return []
    rows = list(piece.layers.all())
    names = [row.blend.name if row.blend else said_name(row.grind) if row.grind else ""
             for row in rows]  # fmt: skip
    later = for_later([(row.blend_id or row.grind, row.kind) for row in rows])
    asides = [(at, reading.layers[at].dose.value, reading.layers[at].dose.unit) for at in later]
    asides += [(at, read.reserve_g, "g") for at, read in enumerate(reading.layers) if read.reserve_g > 0]
    return [MixOut(names[at], amount, unit, 0.0, [piece.letter]) for at, amount, unit in asides]


def board_out(cook: Cook) -> BoardOut:
    """Return a cook, loaded through `cooks`, as it stands on Home."""
    readings = read_stored(cook, spoons_for(cook))
    pieces = []
    for piece, taken in zip(cook.pieces.all(), mixing_of(cook), strict=True):
        found = readings[piece.letter]
        marks = [layer_mark(layer.blend, layer.revision, layer.grind) for layer in piece.layers.all()]
        pieces.append(
            BoardPieceOut(
                typed=good_document(piece, is_tasted(piece)),
                marks=marks,
                steps=_steps_with_mixing(cook, piece, taken, readings),
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
        noted=cook.noted,
        appetite=cook.appetite,
        trial=trial_mark(cook),
        pieces=pieces,
        next=min(waiting, key=lambda found: found.begins_at, default=None),
        fair=fair,
    )

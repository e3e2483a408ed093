"""Trials as documents: their design, who tastes what in which order, how it is served, and cards."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AfterValidator, Field
from ravska_core.trial import LONGEST_WORD, MOST_CARDS, MOST_WORDS, Balance, Shows, TrialKind

from api.plumbing.typed import Name, Note, Typed, Version, printable

Code = Annotated[str, Field(pattern=r"^\d{3}$")]
Letter = Annotated[str, Field(pattern=r"^[A-H]$")]
KindKey = Literal["preference", "ranking", "scores", "triangle"]
Word = Annotated[str, Field(max_length=LONGEST_WORD, min_length=1), AfterValidator(printable)]
Part = Annotated[str, Field(max_length=40, min_length=1), AfterValidator(printable)]
Short = Annotated[str, Field(max_length=40), AfterValidator(printable)]
Nickname = Annotated[Name, Field(max_length=40)]


@dataclass(frozen=True, slots=True)
class ScaleOut:
    """A scale of the card with its limits; one of just right has its right in the middle."""

    name: str
    low: int
    high: int


@dataclass(frozen=True, slots=True)
class CardOut:
    """A card that is in. What it says first is told after the reveal: `prefers` a code, where it prefers one."""

    id: UUID
    taster: str
    served: list[str]
    blind: bool
    short: bool
    whole: bool
    prefers: str | None


@dataclass(frozen=True, slots=True)
class ServingOut:
    """Who tastes what in which order. `state` is ``waits``, ``in`` or ``gone``; `says` is what to know before serving.

    `order` is empty where they must not be served; `card_id` is their card, once it is in.
    """

    taster_id: UUID
    taster: str
    number: int
    order: list[str]
    state: Literal["waits", "in", "gone"]
    short: bool
    says: str
    card_id: UUID | None


@dataclass(frozen=True, slots=True)
class TastedPieceOut:
    """A piece of the cook: whether it is tasted, its side of a two-by-two, how it is cut for the plates as it was said.

    Nothing of it says which plate it is. `plate_min` is how long it took from the fire to the plates [min], as typed.
    """

    letter: str
    name: str
    cut: str
    tasted: bool
    row: int | None
    column: int | None
    portion: "PortionDocument"
    plate_min: str


@dataclass(frozen=True, slots=True)
class WaitingOut:
    """How long the plates may wait: when the first came off the fire, until when they should be served, and how."""

    first_off: datetime | None
    until: datetime | None
    says: str


@dataclass(frozen=True, slots=True)
class RevealedPlateOut:
    """A plate with its piece, told after the reveal: who liked it best, how it was liked, what was said of it."""

    code: str
    letter: str
    name: str
    twin: bool
    best_of: list[str]
    mean: float | None
    words: list[str]


@dataclass(frozen=True, slots=True)
class RevealOut:
    """What was hidden: the plates with their pieces, in the order they are turned, the seed, and what was dealt."""

    plates: list[RevealedPlateOut]
    seed: str
    dealt: dict[str, list[str]]
    at: datetime


class PortionDocument(Schema):
    """How a sample is cut for the plates: along or across the grain, how thick, how much crust, from where in it."""

    grain: Literal["", "along", "across"] = ""
    thickness: Typed = ""
    crust: Literal["", "none", "an edge", "all of it"] = ""
    place: Literal["", "middle", "end", "all over"] = ""


class ServingDocument(Schema):
    """How a trial is served: how warm, what to sip between, dim light or the crust off, what samples shared."""

    warm: Typed = ""
    sip: Short = ""
    dim: bool = False
    crust_off: bool = False
    shared: Annotated[list[Literal["one board", "one bag", "one pan", "one drip line", "one knife"]],
                      Field(max_length=5)] = Field(default=[])  # fmt: skip
    note: Note = ""


class PieceServed(Schema):
    """How one piece is served: how it is cut, and how long it took from the fire to the plates, as typed."""

    letter: Letter
    portion: PortionDocument = PortionDocument()
    plate_min: Typed = ""


class ServedSave(Schema):
    """How a trial is served, and each of its pieces."""

    version: Version
    serving: ServingDocument
    pieces: Annotated[list[PieceServed], Field(max_length=8)] = Field(default=[])


class Crossed(Schema):
    """A piece on its side of a two-by-two."""

    letter: Letter
    row: Annotated[int, Field(ge=0, le=1)]
    column: Annotated[int, Field(ge=0, le=1)]


class DesignDocument(Schema):
    """A trial's design.

    `letters` are the pieces that are tasted; `sides` names a two-by-two, both rows, then both columns, and `crossed`
    says where each piece stands in it. `guess` says whether cards end with one; null leaves it to what looks tell.
    """

    version: Version
    question: Annotated[Name, Field(max_length=200)]
    kind: KindKey
    letters: Annotated[list[Letter], Field(max_length=8)]
    cards: Annotated[int, Field(ge=1, le=MOST_CARDS)]
    twin: bool = False
    scales: Annotated[list[Annotated[str, Field(max_length=20)]], Field(max_length=20)]
    words: Annotated[list[Word], Field(max_length=40)] = Field(default=[])
    guess: bool | None = None
    sides: Annotated[list[Part], Field(max_length=4)] = Field(default=[])
    crossed: Annotated[list[Crossed], Field(max_length=4)] = Field(default=[])
    parts: Annotated[list[Part], Field(max_length=24)] = Field(default=[])


class NewTrial(Schema):
    """A trial to begin of a cook."""

    cook_id: UUID
    letters: Annotated[list[Letter], Field(max_length=8)]


class SeatDocument(Schema):
    """Somebody who is to taste; `short` gives them a child's card."""

    taster: Nickname
    short: bool = False


class SeatsSave(Schema):
    """Who is to taste, and nobody else but who has handed in a card."""

    version: Version
    seats: Annotated[list[SeatDocument], Field(max_length=MOST_CARDS)]


class GoneDocument(Schema):
    """Somebody who left without a card, or is back."""

    taster: Nickname
    gone: bool = True


class LookDocument(Schema):
    """Who looks at which plate is which, as whoever plates has to."""

    who: Nickname


@dataclass(frozen=True, slots=True)
class PlatingOut:
    """Which number a piece is plated under, and whether that plate is the hidden twin of another."""

    letter: str
    name: str
    code: str
    twin: bool


@dataclass(frozen=True, slots=True)
class LookOut:
    """The plates by piece, what is dealt to each, the orders by letter, the seed, and who has seen them.

    The cards of those who have are not blind.
    """

    plates: list[PlatingOut]
    dealt: dict[str, list[str]]
    orders: dict[str, list[str]]
    seed: str
    seen_by: list[str]


class ScoreDocument(Schema):
    code: Code
    scale: Annotated[str, Field(max_length=20)]
    value: Annotated[int, Field(ge=1, le=9)]


class SaidDocument(Schema):
    """What was said of a plate, in words."""

    code: Code
    words: Annotated[list[Word], Field(max_length=MOST_WORDS)]


class CardDocument(Schema):
    """A card as filled in: who, scores, what is preferred or odd, a guess, and words.

    `served` may be left out: it is the order that the taster was given. An order of plates is scored on the scale
    “rank”, 1 for the best, alike where they are alike; a child's faces on “face”. `left` says that its taster went
    before it was whole: what is there counts.
    """

    taster: Nickname
    served: Annotated[list[Code], Field(max_length=8)] = Field(default=[])
    scores: Annotated[list[ScoreDocument], Field(max_length=160)] = Field(default=[])
    prefers: Code | None = None
    odd: Code | None = None
    guess: Code | None = None
    words: Annotated[list[SaidDocument], Field(max_length=8)] = Field(default=[])
    short: bool = False
    left: bool = False


@dataclass(frozen=True, slots=True)
class DesignOut:
    """A trial's design, by its pieces; no code stands in it.

    `kinds` and `all_scales` are what can be chosen. `guess` says whether cards end with one, null where `looks`, how
    plates can be told apart, decides. `shows` is what these tasters can show, `shows_says` in words.
    """

    trial_id: UUID
    cook_id: UUID
    version: int
    question: str
    kind: KindKey
    kinds: list[TrialKind]
    pieces: list[TastedPieceOut]
    twin: bool
    cards: int
    scales: list[str]
    all_scales: list[ScaleOut]
    words: list[str]
    guess: bool | None
    looks: str
    sides: list[str]
    parts: list[str]
    serving: ServingDocument
    shows: list[Shows]
    shows_says: str
    tasted: bool
    revealed: bool


@dataclass(frozen=True, slots=True)
class TableOut:
    """A trial as its tasters see it: who tastes what in which order, cards in. No plate is named until the reveal.

    `next_order` is what who walks in is served. `planned_cards` is how many it takes, stated before the first is in;
    `seen_by` names who looked at the plating; `tasters` who can taste, those who do so most first; `eats` who has a
    seat at the meal. `guess` is the question that ends a card, empty where none does;
    `missing` says what it takes to taste anything, empty when two pieces are there.
    """

    trial_id: UUID
    cook_id: UUID
    version: int
    cook: str
    question: str
    kind: KindKey
    asks: str
    codes: list[str]
    next_order: list[str]
    scales: list[ScaleOut]
    words: list[str]
    guess: str
    sip: str
    servings: list[ServingOut]
    balance: Balance
    waiting: WaitingOut
    cards: list[CardOut]
    planned_cards: int
    tasters: list[str]
    eats: list[str]
    seen_by: list[str]
    shows_says: str
    revealed: RevealOut | None
    missing: str

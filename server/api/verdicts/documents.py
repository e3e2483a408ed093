"""Verdicts across cooks as documents."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field
from ravska_core.across import Across, CellReading, NextTrial, SaltLiked, TraitSaid

from api.plumbing.typed import Key, Reason
from api.trials.documents import Nickname
from api.verdicts.pages import Choices
from api.verdicts.questions import CookLeftOut, Kind, PairOut, Question, Side


@dataclass(frozen=True, slots=True)
class DecisionOut:
    """What was decided of a side of a question, on one cut or on all, why, and what was known then."""

    id: UUID
    kind: Kind
    first: str
    second: str
    side: str
    name: str
    cut: str
    what: Literal["keep", "change", "drop"]
    reason: str
    verdict: str
    at: datetime
    blend_id: UUID | None


@dataclass(frozen=True, slots=True)
class AcrossOut:
    """A question's page: a row a cut, the pairs the book can answer, and what can be asked for.

    `can_choose` says that nobody has looked yet, so that the difference that matters may still be chosen.
    """

    kind: Kind
    first: str
    second: str
    page: Across
    pairs: list[PairOut]
    choices: Choices
    left_out: list[CookLeftOut]
    cooks: int
    cards: int
    can_choose: bool
    decisions: list[DecisionOut]


@dataclass(frozen=True, slots=True)
class CookOfCellOut:
    """Which tasting a cook of a cell is: its trial, when it was served."""

    cook_id: UUID
    trial_id: UUID
    serve_at: datetime


@dataclass(frozen=True, slots=True)
class CellOut:
    """The evidence of one cut; `reading` is none where nobody scored both yet."""

    kind: Kind
    first: str
    second: str
    cut: str
    names: tuple[str, str]
    margin: float
    reading: CellReading | None
    cooks: list[CookOfCellOut]
    decisions: list[DecisionOut]


@dataclass(frozen=True, slots=True)
class PlateOut:
    """A plate of the matrix: two sides over all cuts, what is known of them, and its grains by side."""

    first: str
    second: str
    names: tuple[str, str]
    state: str
    headline: str
    says: list[str]
    grains: list[str]
    points: list[float]
    cooks: int
    cards: int


@dataclass(frozen=True, slots=True)
class SideName:
    key: str
    name: str


@dataclass(frozen=True, slots=True)
class MatrixOut:
    """All sides of a kind against each other; `best` is the one that is better than each other by the rule."""

    kind: Kind
    sides: list[SideName]
    plates: list[PlateOut]
    best: str | None
    says: str


@dataclass(frozen=True, slots=True)
class KnownPairOut:
    """What is known of one pair, in sentences."""

    kind: Kind
    first: str
    second: str
    names: tuple[str, str]
    known: list[str]
    unknown: list[str]
    traits: list[TraitSaid]
    says: list[str]


@dataclass(frozen=True, slots=True)
class KnownOut:
    """What the book knows: pair by pair, the salt this table likes, and what was decided."""

    pairs: list[KnownPairOut]
    salt: SaltLiked
    decisions: list[DecisionOut]
    cooks: int
    cards: int
    model: str


@dataclass(frozen=True, slots=True)
class StockSaid:
    name: str
    says: str


@dataclass(frozen=True, slots=True)
class IdeaOut:
    """A trial that can be cooked next, with what of its blends is in jars."""

    trial: NextTrial
    cut_name: str
    stock: list[StockSaid]


@dataclass(frozen=True, slots=True)
class IdeasOut:
    """The trials that can be cooked next, the likeliest to settle its cut first, and who would taste."""

    ideas: list[IdeaOut]
    tasters: list[str]
    says: str


class NextDocument(Schema):
    """A trial to set up: of which question, on which cut, with which tasters."""

    question: Question
    cut: Key
    tasters: Annotated[list[Nickname], Field(max_length=20)] = Field(default=[])


@dataclass(frozen=True, slots=True)
class SetUpOut:
    """A cook that was set up with its trial; `says` is what is to be known of it."""

    cook_id: UUID
    trial_id: UUID
    name: str
    says: list[str]


class BandDocument(Schema):
    """The difference that matters to a table in one question [points], chosen before it looks."""

    kind: Kind
    first: Side
    second: Side
    margin: Annotated[float, Field(ge=0.1, le=3)]


class DecisionDocument(Schema):
    """What is decided of one side of a question, on one cut or all of them, and why."""

    kind: Kind
    first: Side
    second: Side
    side: Side
    cut: Annotated[str, Field(max_length=60)] = ""
    what: Literal["keep", "change", "drop"]
    reason: Reason


class SaltDocument(Schema):
    """The cook whose pieces are to have the salt this table likes."""

    cook_id: UUID


@dataclass(frozen=True, slots=True)
class SaltOut:
    """The salt this table likes, and the cook in hand, whose pieces can be given it."""

    salt: SaltLiked
    cook_id: UUID | None
    cook: str
    wanted: list[str]

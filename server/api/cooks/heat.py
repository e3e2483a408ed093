"""Heat: what its phases do to a piece, without saving anything; and what a cut can begin from."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, TypeVar, cast

from book.own import retired_cookers
from django.http import HttpRequest
from ninja import Schema
from pydantic import Field
from ravska_core.cautions import minimum_centre_c
from ravska_core.heat import (
    COOKER_KINDS,
    SURROUNDS,
    THREADED,
    VESSELS,
    Done,
    Heated,
    HeatReading,
    Otherwise,
    heated,
    kitchen,
    place_among,
    read_heat,
    starts_for,
    usual_phase,
    what_if,
    words_for,
)
from ravska_core.meat import find_cut
from ravska_core.units import say_temperature

from api.cooks.documents import Appetite, Blends, PieceDocument, read_pieces
from api.cooks.phases import MOST_TYPED, PLAIN, PhaseDocument, SurroundKey, VesselKey, as_typed, cooker_of, read_phases
from api.plumbing.answers import Router
from api.plumbing.household import household
from api.plumbing.problems import Gather
from api.plumbing.typed import Key

router = Router()

Found = TypeVar("Found")


class PhaseWantedDocument(Schema):
    """One more phase that is wanted, by its surround, and the surrounds of those there are, in order."""

    surround: SurroundKey
    surrounds: Annotated[list[SurroundKey], Field(max_length=MOST_TYPED)]


@dataclass(frozen=True, slots=True)
class PhasePutOut:
    """A phase as is usual for its surround, as it would be typed, and where it goes."""

    phase: PhaseDocument
    place: int


@router.asks("/heat/phase")
def usual_phase_of(request: HttpRequest, document: PhaseWantedDocument) -> PhasePutOut:
    """Return one more phase, as is usual for what it is, and where among the others it goes."""
    made = as_typed(usual_phase(document.surround), household().preferences.temperature)
    return PhasePutOut(made, place_among(document.surrounds, document.surround))


class HeatDocument(Schema):
    """What heat is reckoned from: a piece as typed, with its phases."""

    piece: PieceDocument
    appetite: Appetite = "usual"


@router.asks("/heat/read")
def read_heat_of_piece(request: HttpRequest, document: HeatDocument) -> HeatReading:
    """Say what its phases do to a piece: curves, when it is done as twenty chances, loss, feel and cautions."""
    return _of_piece(document, read_heat)


@router.asks("/heat/what-if")
def what_if_of_piece(request: HttpRequest, document: HeatDocument) -> list[Otherwise]:
    """Say what ten degrees more, half the thickness or a wrap would do to a piece, each by itself."""
    return list(_of_piece(document, what_if))


def _of_piece(document: HeatDocument, what: Callable[[Heated], Found]) -> Found:
    """Return what a piece as typed comes to; all that cannot be read is refused together, under ``piece``."""
    piece = document.piece
    blends = Blends(piece.layers)
    blends.share([piece], document.appetite)
    (seasoned,) = read_pieces([piece], blends, document.appetite, "piece", fired=False)
    gather = Gather()
    phases = read_phases(piece.phases, gather, "piece.phases")
    cookers = [cooker_of(one) for one in piece.phases]
    found = gather.attempt("piece", lambda: what(heated(blends.told(seasoned), phases, cookers)))
    gather.finish()
    assert found is not None
    return found


@dataclass(frozen=True, slots=True)
class StartOut:
    """A run of phases to begin from, as it would be typed, and whose school it is."""

    key: str
    name: str
    school: str
    phases: list[PhaseDocument]


@dataclass(frozen=True, slots=True)
class SurroundOut:
    """What can be around meat: how it is said, its usual heat as it would be typed, and vessels that do for it.

    `at_heat` says that only one side is at the heat, `plain` that its heat needs not be said.
    """

    key: SurroundKey
    says: str
    usual: str
    vessels: list[VesselKey]
    at_heat: bool
    plain: bool


@dataclass(frozen=True, slots=True)
class CookerOfPhaseOut:
    """A cooker a phase can be on: the household's own or a kind, what it does, and when it is ready."""

    key: str
    says: str
    own: bool
    surrounds: list[str]
    ready: str


@dataclass(frozen=True, slots=True)
class HeatOfCutOut:
    """What a cut can begin from: runs of phases, words for done by school, and the usual minimum of its centre [C].

    Beside them what any phase can be: surrounds, what `vessels` are called, what can be threaded between meat on a
    skewer, and cookers, own ones first.
    """

    starts: list[StartOut]
    words: list[Done]
    minimum_c: float
    minimum_says: str
    surrounds: list[SurroundOut]
    vessels: dict[str, str]
    threads: dict[str, str]
    cookers: list[CookerOfPhaseOut]


@router.reads("/heat/cut")
def heat_of_cut(request: HttpRequest, cut: Key) -> HeatOfCutOut:
    """Return the runs of phases a cut can begin from and the words for how done it is."""
    found = find_cut(cut)
    scale = household().preferences.temperature
    starts = [
        StartOut(one.key, one.name, one.school, [as_typed(phase, scale) for phase in one.phases])
        for one in starts_for(found)
    ]
    surrounds = [
        SurroundOut(
            cast(SurroundKey, key), one.says, say_temperature(one.usual_c, scale),
            cast(list[VesselKey], list(one.vessels)),
            one.one_side, key in PLAIN,
        )
        for key, one in SURROUNDS.items()
    ]  # fmt: skip
    retired = retired_cookers()
    cookers = [
        CookerOfPhaseOut(key, one.says, own, list(one.surrounds), one.ready)
        for own, known in ((True, kitchen().cookers), (False, COOKER_KINDS))
        for key, one in known.items()
        if key not in retired
    ]
    least_c, says = minimum_centre_c(found.animal, found.minced)
    threads = {key: one.says for key, one in THREADED.items()}
    words = list(words_for(found.animal, found.minced))
    return HeatOfCutOut(starts, words, least_c, says, surrounds, dict(VESSELS), threads, cookers)

"""Verdict: the difference that matters in a question, chosen before anything of it is revealed."""

from dataclasses import dataclass
from itertools import combinations
from uuid import UUID

from book.models import Band
from django.http import HttpRequest
from ravska_core.across import MARGINS, margin_words, way_of
from ravska_core.working import BadInput

from api.plumbing.answers import Router
from api.plumbing.household import household
from api.trials.store import load_trial
from api.verdicts.documents import BandDocument
from api.verdicts.pages import offered
from api.verdicts.questions import Kind, Question, blend_names, margin_of, name_of, ordered

router = Router()


@dataclass(frozen=True, slots=True)
class MarginOut:
    points: float
    says: str


@dataclass(frozen=True, slots=True)
class BandOut:
    """A question with the difference that matters in it [points] and in words, and whether that may still be chosen.

    `choices` are what can be, in words.
    """

    kind: Kind
    first: str
    second: str
    names: tuple[str, str]
    margin: float
    says: str
    can_choose: bool
    choices: list[MarginOut]


def has_looked(kind: str, first: str, second: str) -> bool:
    """Tell whether a card of a pair has been revealed, so that its band must not be chosen any more."""
    return any((pair.kind, pair.first, pair.second) == (kind, first, second) for pair in offered())


@router.reads("/bands/{uuid:trial_id}")
def read_bands(request: HttpRequest, trial_id: UUID) -> list[BandOut]:
    """Return the questions of ways that a trial is to answer, with the difference that matters in each."""
    pieces = load_trial(trial_id).pieces
    ways = [way_of([(layer.kind, layer.hold_s) for layer in piece.layers.all()]) for piece in pieces]
    pairs = dict.fromkeys(ordered("way", one, other) for one, other in combinations(ways, 2) if one != other)
    return [_band_out("way", first, second) for first, second in pairs]


def _band_out(kind: Kind, first: str, second: str) -> BandOut:
    blends = blend_names()
    margin = margin_of(Question(kind=kind, first=first, second=second))
    names = (name_of(kind, first, blends), name_of(kind, second, blends))
    choices = [MarginOut(points, says) for points, says in MARGINS.items()]
    return BandOut(
        kind, first, second, names, margin, margin_words(margin), not has_looked(kind, first, second), choices
    )


@router.puts("/band")
def choose_band(request: HttpRequest, document: BandDocument) -> BandOut:
    """Choose the difference that matters in a question, before anything of it has been revealed."""
    blends = blend_names()
    for side in (document.first, document.second):
        name_of(document.kind, side, blends)
    first, second = ordered(document.kind, document.first, document.second)
    if has_looked(document.kind, first, second):
        raise BadInput("margin", "Cards of this question are told already; what matters is chosen before looking.")
    Band.objects.update_or_create(
        household=household(), kind=document.kind, first=first, second=second, defaults={"margin": document.margin}
    )
    return _band_out(document.kind, first, second)

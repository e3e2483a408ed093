"""Verdict: two ways over all cuts, one cut's evidence, all ways against each other, and what is known."""

from collections.abc import Sequence
from uuid import UUID

from book.models import Cook
from book.tasting import check_untasted, trial_of
from django.db import transaction
from django.http import HttpRequest
from ninja import Query
from ravska_core.across import (
    MODEL_VERSION,
    CutRow,
    SaltVote,
    headline_within,
    salt_liked,
    upper,
)
from ravska_core.meat import find_cut
from ravska_core.trial import SALT_SCALE
from ravska_core.working import BadInput, say

from api.cooks.store import one_cook
from api.plumbing.answers import Router
from api.plumbing.household import household
from api.trials.router import after_reveal
from api.verdicts.bands import has_looked
from api.verdicts.decisions import decisions
from api.verdicts.documents import (
    AcrossOut,
    CellOut,
    CookOfCellOut,
    KnownOut,
    KnownPairOut,
    MatrixOut,
    PlateOut,
    SaltDocument,
    SaltOut,
    SideName,
)
from api.verdicts.pages import cell_of, choices, evidence_of, known_records, offered, page_of, resolved
from api.verdicts.questions import Kind, PairOut, Question, Who, blend_names, name_of
from api.verdicts.records import keep_compared, nicknames

router = Router()
after_reveal.append(keep_compared)

MOST_PAIRS = 6
"""Of how many pairs the page of what is known tells, the fullest."""


@router.reads("")
def read_across_cooks(request: HttpRequest, question: Query[Question]) -> AcrossOut:
    """Return what the book says of two ways: a row a cut."""
    question = resolved(question)
    page, found = page_of(question), evidence_of(question)
    counted = found.evidence.counted()
    return AcrossOut(
        question.kind, question.first, question.second, page, offered(), choices(), found.left_out, counted.cooks,
        counted.cards, not has_looked(question.kind, question.first, question.second),
        decisions(question.kind, question.first, question.second),
    )  # fmt: skip


@router.reads("/pairs")
def list_pairs(request: HttpRequest) -> list[PairOut]:
    """Return the pairs that the book can answer, the fullest first."""
    return offered()


@router.reads("/cell")
def read_cell_of(request: HttpRequest, cut: str, question: Query[Question]) -> CellOut:
    """Return the evidence of one cut: its cooks and cards, what carries and muddies it, and how belief grew."""
    question = resolved(question)
    reading, found = cell_of(question, cut), evidence_of(question)
    served = {row.cook: row.serve_at for row in known_records()}
    rows = [
        CookOfCellOut(UUID(cook.key), found.trials[UUID(cook.key)], served[UUID(cook.key)])
        for cook in found.evidence.cooks if cook.cut == cut
    ]  # fmt: skip
    decided = [one for one in decisions(question.kind, question.first, question.second) if one.cut in ("", cut)]
    return CellOut(
        question.kind, question.first, question.second, cut, found.names, found.margin, reading, rows, decided
    )


@router.reads("/matrix")
def read_matrix(request: HttpRequest, kind: Kind = "way", cut: str = "", who: Who = "table") -> MatrixOut:
    """Return all sides of a kind against each other, each pair by its own evidence."""
    pairs = [pair for pair in offered() if pair.kind == kind]
    blends = blend_names()
    plates = [plate for pair in pairs if (plate := _plate(pair, cut, who)) is not None]
    keys = list(dict.fromkeys(side for plate in plates for side in (plate.first, plate.second)))
    names = [SideName(key, name_of(kind, key, blends)) for key in keys]
    best = _best(keys, plates)
    said = "None is known to be better than each other." if len(keys) > 1 else ""
    for one in names:
        if one.key == best:
            said = f"{upper(one.name)} is better than each other."
    return MatrixOut(kind, names, plates, best, said)


def _plate(pair: PairOut, cut: str, who: Who) -> PlateOut | None:
    page = page_of(Question(kind=pair.kind, first=pair.first, second=pair.second, who=who))
    row = page.all_cuts if not cut else next((one for one in page.rows if one.cut == cut), None)
    if row is None:
        return None
    grains = row.belief.grains if row.belief else ()
    return PlateOut(
        pair.first, pair.second, page.names, row.state, row.headline, list(row.says), [one.side for one in grains],
        [one.points for one in grains], row.counted.cooks, row.counted.cards,
    )  # fmt: skip


def _best(keys: Sequence[str], plates: Sequence[PlateOut]) -> str | None:
    """Return the side that the rule names against each other; None where it does not."""
    won = {(plate.first if plate.state == "first" else plate.second, plate.second if plate.state == "first" else
            plate.first) for plate in plates if plate.state in ("first", "second")}  # fmt: skip
    if len(keys) < 2:
        return None
    return next((key for key in keys if all((key, other) in won for other in keys if other != key)), None)


@router.reads("/known")
def read_known(request: HttpRequest) -> KnownOut:
    """Return what the book knows, in sentences, to be read out or printed."""
    pairs = [_known_pair(pair) for pair in offered()[:MOST_PAIRS]]
    rows = known_records()
    scored = [sum("overall" in card.scores for card in row.cards) for row in rows]
    return KnownOut(pairs, salt_liked(_salt_votes()), decisions(), len(rows), sum(scored), MODEL_VERSION)


def _known_pair(pair: PairOut) -> KnownPairOut:
    page = page_of(Question(kind=pair.kind, first=pair.first, second=pair.second))
    known: list[str] = []
    unknown: list[str] = []
    for row in page.rows:
        name = find_cut(row.cut).name
        (unknown if row.state == "not yet known" else known).append(f"{name}: {_in_short(row, page.names)}")
    return KnownPairOut(
        pair.kind, pair.first, pair.second, page.names, known, unknown, list(page.traits), list(page.says)
    )  # fmt: skip


def _in_short(row: CutRow, names: tuple[str, str]) -> str:
    return f"{headline_within(row.state, row.headline, names)}. {' '.join(row.says)}"


def _salt_votes() -> list[SaltVote]:
    names = nicknames()
    votes = []
    for row in known_records():
        salt = {sample.key: sample.salt_percent for sample in row.samples}
        for card in row.cards:
            for key, vote in card.scores.get(SALT_SCALE, {}).items():
                percent = salt.get(key)
                if percent is not None and card.blind and not card.short:
                    votes.append(SaltVote(names.get(card.taster, ""), percent, vote))
    return votes


@router.reads("/salt")
def read_salt(request: HttpRequest) -> SaltOut:
    """Return the salt this table likes, and the cook in hand, whose pieces can be given it."""
    cook = Cook.objects.filter(household=household(), in_hand=True).select_related("trial").first()
    free = cook is not None and (trial_of(cook) is None or not cook.trial.is_tasted())
    pieces = [] if cook is None else list(cook.pieces.all())
    return SaltOut(
        salt_liked(_salt_votes()), cook.pk if cook and free else None, cook.name if cook else "",
        [piece.target_typed for piece in pieces],
    )  # fmt: skip


@router.posts("/salt")
def want_salt(request: HttpRequest, document: SaltDocument) -> SaltOut:
    """Make the salt this table likes the salt wanted of a cook's pieces."""
    liked = salt_liked(_salt_votes()).liked
    if liked is None:
        raise BadInput("cook_id", "It is not known yet what salt this table likes.")
    with transaction.atomic():
        cook = one_cook(document.cook_id)
        check_untasted(cook, "cook_id")
        percent = round(liked.value, 1)
        cook.pieces.update(target_percent=percent, target_typed=say(percent, 2))
        Cook.objects.filter(pk=cook.pk).update(version=cook.version + 1)
    return read_salt(request)

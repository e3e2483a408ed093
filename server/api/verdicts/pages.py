"""What the book says of a question, worked out once for as long as it stays as it is."""

from dataclasses import dataclass
from uuid import UUID

from book.models import Cook, Piece, Taster
from book.unchanged import kept_while_unchanged
from ravska_core.across import (
    SCHOOLS,
    TRAITS,
    Across,
    CellReading,
    NextTrial,
    has_trait,
    next_trials,
    read_across,
    read_cell,
    say_quicker,
)
from ravska_core.meat import find_cut
from ravska_core.working import BadInput

from api.plumbing.household import household
from api.verdicts.questions import SEASONS, Found, PairOut, Question, blend_names, find, name_of, ordered, pairs_of
from api.verdicts.records import TrialRecord, nicknames, records


@dataclass(frozen=True, slots=True)
class Named:
    """Something that can be asked for, and what it is called."""

    key: str
    name: str


@dataclass(frozen=True, slots=True)
class Choices:
    """What can be asked for: seasons, cookers, tasters, schools and traits that this book has cooks of."""

    cuts: list[str]
    seasons: list[str]
    cookers: list[str]
    tasters: list[str]
    schools: list[Named]
    traits: list[Named]


def cook_names() -> dict[UUID, str]:
    """Return what the cooks of this household are called."""
    return dict(Cook.objects.filter(household=household()).order_by().values_list("pk", "name"))


@kept_while_unchanged
def known_records() -> list[TrialRecord]:
    """Return what every revealed tasting says."""
    return records()


@kept_while_unchanged
def offered() -> list[PairOut]:
    """Return the pairs that the book can answer, the fullest first."""
    return pairs_of(known_records())


@kept_while_unchanged
def choices() -> Choices:
    """Return what can be asked for."""
    rows = known_records()
    samples = [sample for row in rows for sample in row.samples]
    cuts = sorted({sample.cut for sample in samples})
    names = nicknames()
    return Choices(
        cuts=cuts,
        seasons=[name for name, months in SEASONS.items() if any(row.serve_at.month in months for row in rows)],
        cookers=sorted({cooker for row in rows for cooker in row.cookers}),
        tasters=sorted(names[key] for key in frozenset[UUID]().union(*(row.tasters for row in rows)) if key in names),
        schools=[Named(key, name) for key, name in SCHOOLS.items() if any(one.school == key for one in samples)],
        traits=[
            Named(key, name) for one in TRAITS
            for key, name, wanted in ((one.key, one.have, True), (f"not {one.key}", one.lack, False))
            if any(has_trait(one.key, find_cut(cut)) == wanted for cut in cuts)
        ],
    )  # fmt: skip


def _key(question: Question) -> tuple[str, ...]:
    return tuple(str(value) for value in resolved(question).model_dump().values())


def _question(key: tuple[str, ...]) -> Question:
    return Question.model_validate(dict(zip(Question.model_fields, key, strict=True)))


def resolved(question: Question) -> Question:
    """Return a question with its two sides in their order: those asked about, else the pair the book knows most of.

    Raises
    ------
    BadInput
        At ``first`` where there is no such side.
    """
    if question.first and question.second:
        blends = blend_names()
        for side in (question.first, question.second):
            name_of(question.kind, side, blends)
        first, second = ordered(question.kind, question.first, question.second)
        return question.model_copy(update={"first": first, "second": second})
    known = [(pair.kind, pair.first, pair.second) for pair in offered()] or [("way", "rubbed", "marinated")]
    kind, first, second = known[0]
    return question.model_copy(update={"kind": kind, "first": first, "second": second})


def evidence_of(question: Question) -> Found:
    """Return what the book says of a question, cook by cook."""
    return _evidence(_key(question))


@kept_while_unchanged
def _evidence(key: tuple[str, ...]) -> Found:
    return find(_question(key), known_records(), cook_names())


def page_of(question: Question) -> Across:
    """Return a question's page: a row a cut."""
    return _page(_key(question))


@kept_while_unchanged
def _page(key: tuple[str, ...]) -> Across:
    question, found = _question(key), _evidence(key)
    quicker = {cut: say_quicker(found.names, holds) for cut, holds in found.holds.items()}
    return read_across(found.evidence, found.names, question.who, found.margin, quicker)


def cell_of(question: Question, cut: str) -> CellReading | None:
    """Return the evidence of one cut of a question.

    Raises
    ------
    BadInput
        At ``cut`` where the book has nothing of it.
    """
    return _cell(_key(question), cut)


@kept_while_unchanged
def _cell(key: tuple[str, ...], cut: str) -> CellReading | None:
    question, found = _question(key), _evidence(key)
    if cut not in found.evidence.cuts:
        raise BadInput("cut", "Nothing of this cut was tasted in this question; choose another row.")
    quicker = say_quicker(found.names, found.holds[cut])
    return read_cell(found.evidence, cut, found.names, question.who, found.margin, quicker)


def ideas_of(question: Question) -> tuple[NextTrial, ...]:
    """Return the trials that can be cooked next for a question, the likeliest to settle its cut first."""
    return _ideas(_key(question))


@kept_while_unchanged
def _ideas(key: tuple[str, ...]) -> tuple[NextTrial, ...]:
    question, found = _question(key), _evidence(key)
    return next_trials(found.evidence, cuts_at_hand(), at_table(found), question.who, found.margin)


def at_table(found: Found) -> list[str]:
    """Return who usually tastes of those who are still in the book."""
    rows = Taster.objects.filter(household=household(), deleted_at__isnull=True)
    there = set(rows.values_list("nickname", flat=True))
    return [name for name in found.evidence.usual_tasters() if name in there]


def cuts_at_hand() -> list[str]:
    """Return the cuts that this household cooks, the latest first."""
    rows = Piece.objects.filter(cook__household=household(), cook__deleted_at__isnull=True, unread__isnull=True)
    return list(dict.fromkeys(rows.order_by("-cook__serve_at", "position").values_list("cut", flat=True)))

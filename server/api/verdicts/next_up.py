"""Verdict: what to cook next, and setting it up with one tap."""

from collections.abc import Sequence
from uuid import UUID

from book.models import Blend, Cook, Piece, Taster, in_jars_g
from book.next_trial import set_up_trial
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja import Query
from ravska_core.meat import find_cut
from ravska_core.working import BadInput, say

from api.plumbing.answers import Created, Router
from api.plumbing.household import household
from api.trials.store import load_trial, may_not_eat
from api.verdicts.documents import IdeaOut, IdeasOut, NextDocument, SetUpOut, StockSaid
from api.verdicts.pages import at_table, evidence_of, ideas_of, known_records, resolved
from api.verdicts.questions import Question, blend_names
from api.verdicts.records import SampleRecord

router = Router()


@router.reads("/next")
def read_next(request: HttpRequest, question: Query[Question]) -> IdeasOut:
    """Return the trials that can be cooked next, the likeliest to settle its cut first, and why."""
    question = resolved(question)
    found = evidence_of(question)
    who = at_table(found)
    if not found.evidence.scored:
        says = "Nothing was scored in this question yet; begin a cook of two pieces and taste it."
        return IdeasOut([], who, says)
    lacking = {idea.cut: _lacking(question, idea.cut) for idea in ideas_of(question)}
    rows = [
        IdeaOut(idea, find_cut(idea.cut).name, _stock(question, idea.cut))
        for idea in ideas_of(question) if not lacking[idea.cut]
    ]  # fmt: skip
    return IdeasOut(rows, who, "" if rows else next(iter(lacking.values()), ""))


def _examples(question: Question, cut: str) -> tuple[SampleRecord, SampleRecord] | None:
    """Return the samples of both sides that were cooked last, of this cut where there are some."""
    found = evidence_of(question)
    keys = [UUID(cook.key) for cook in found.evidence.cooks]
    records = [row for row in known_records() if row.cook in keys]
    for row in sorted(records, key=lambda row: (row.samples[0].cut == cut, row.serve_at), reverse=True):
        sides = [
            next((one for one in row.samples if _is_side(one, question, side)), None)
            for side in (question.first, question.second)
        ]
        if sides[0] is not None and sides[1] is not None:
            return sides[0], sides[1]
    return None


def _is_side(sample: SampleRecord, question: Question, side: str) -> bool:
    key = {"way": sample.way, "blend": str(sample.blend), "revision": f"{sample.blend}@{sample.revision}"}
    return key[question.kind] == side


def _blends_of(question: Question, cut: str) -> list[UUID]:
    examples = _examples(question, cut)
    return [] if examples is None else [one.blend for one in examples if one.blend is not None]


def _lacking(question: Question, cut: str) -> str:
    """Say what is missing to cook this pair again: a blend that was deleted, or an earlier revision."""
    if question.kind == "revision":
        return "Only the latest revision of a blend can be cooked; begin a copy of the cook and pin the earlier one."
    gone = Blend.objects.filter(pk__in=_blends_of(question, cut), deleted_at__isnull=False).values_list(
        "name", flat=True
    )
    return f"{', '.join(gone)} was deleted; bring it back before it is cooked again." if gone else ""


def _stock(question: Question, cut: str) -> list[StockSaid]:
    blends = _blends_of(question, cut)
    jars, names = in_jars_g(blends), blend_names()
    return [
        StockSaid(names[str(key)], f"{say(jars[key], 3)} g in a jar" if jars.get(key) else "to be mixed")
        for key in dict.fromkeys(blends)
    ]  # fmt: skip


@router.posts("/next")
def set_up_next(request: HttpRequest, document: NextDocument) -> Created[SetUpOut]:
    """Set up a trial: its cook with two pieces seasoned as they were, its design and its tasters."""
    question = resolved(document.question)
    find_cut(document.cut)
    examples = _examples(question, document.cut)
    lacking = _lacking(question, document.cut)
    if examples is None or lacking:
        raise BadInput("cut", lacking or "No cook has both of these yet; begin one and put them on its pieces.")
    found = evidence_of(question)
    with transaction.atomic():
        pieces = [Piece.objects.get(sample__pk=one.key) for one in examples]
        wanted = document.tasters or at_table(found)
        rows = list(Taster.objects.filter(household=household(), nickname__in=wanted, deleted_at__isnull=True))
        unknown = sorted(set(document.tasters) - {row.nickname for row in rows})
        if unknown:
            raise BadInput("tasters", f"Nobody of this household is called {unknown[0]}; choose who tastes anew.")
        cook, said = set_up_trial(household(), timezone.localtime(), document.cut, pieces, found.names, rows)
        said += _seat_who_may(cook, rows)
    return Created(SetUpOut(cook.pk, cook.trial.pk, cook.name, said))


def _seat_who_may(cook: Cook, rows: Sequence[Taster]) -> list[str]:
    """Take those off the table who may not eat one of the plates."""
    table = load_trial(cook.trial.pk)
    refused, asked = may_not_eat(table, rows)
    table.trial.servings.filter(taster__in=refused).delete()
    return [*refused.values(), *asked.values()]

"""Verdict: what was decided of ways and blends: keep, change or drop, and why."""

from typing import Literal, cast
from uuid import UUID

from book.models import Blend, Decision
from django.db import transaction
from django.http import Http404, HttpRequest
from django.utils import timezone
from ravska_core.working import BadInput

from api.plumbing.answers import Created, Router
from api.plumbing.household import household
from api.verdicts.documents import DecisionDocument, DecisionOut
from api.verdicts.pages import page_of
from api.verdicts.questions import Kind, Question, blend_names, name_of, ordered

router = Router()
What = Literal["keep", "change", "drop"]


def decisions(kind: str = "", first: str = "", second: str = "") -> list[DecisionOut]:
    """Return what was decided, the latest first: of one question, or of all."""
    rows = Decision.objects.filter(household=household(), deleted_at__isnull=True)
    if kind:
        rows = rows.filter(kind=kind, first=first, second=second)
    blends = blend_names()
    return [
        DecisionOut(
            row.pk, cast(Kind, row.kind), row.first, row.second, row.side,
            name_of(cast(Kind, row.kind), row.side, blends), row.cut, cast(What, row.what), row.reason, row.verdict,
            row.at, row.blend_id,
        )
        for row in rows
    ]  # fmt: skip


@router.reads("/decisions")
def list_decisions(request: HttpRequest) -> list[DecisionOut]:
    """Return all that was decided, the latest first."""
    return decisions()


@router.posts("/decisions")
def decide_on(request: HttpRequest, document: DecisionDocument) -> Created[list[DecisionOut]]:
    """Keep, change or drop a side, and why; of a blend it goes with the next revision that is kept of it."""
    if document.side not in (document.first, document.second):
        raise BadInput("side", "Decide on one of the two sides that were compared.")
    blends = blend_names()
    for one in (document.first, document.second):
        name_of(document.kind, one, blends)
    key = document.side.partition("@")[0]
    first, second = ordered(document.kind, document.first, document.second)
    page = page_of(Question(kind=document.kind, first=first, second=second))
    row = next((one for one in page.rows if one.cut == document.cut), None) if document.cut else page.all_cuts
    if row is None:
        raise BadInput("cut", "Nothing of this cut was tasted in this question; decide on another or on all.")
    with transaction.atomic():
        blend = None if document.kind == "way" else Blend.objects.get(pk=UUID(key), household=household())
        Decision.objects.create(
            household=household(), kind=document.kind, first=first, second=second, side=document.side,
            cut=document.cut, blend=blend, what=document.what, reason=document.reason,
            verdict=f"{row.headline}. {' '.join(row.says)}"[:400],
        )  # fmt: skip
        if blend is not None:
            blend.revisions.filter(kept_at__isnull=True).update(note=_note(document.what, document.reason))
    return Created(decisions(document.kind, first, second))


def _note(what: str, reason: str) -> str:
    return f"decided to {what}: {reason}"[:200]


@router.posts("/decisions/{uuid:decision_id}/delete")
def take_back_decision(request: HttpRequest, decision_id: UUID) -> list[DecisionOut]:
    """Take a decision back; `restore` makes it again."""
    return _set_decision(decision_id, taken_back=True)


@router.posts("/decisions/{uuid:decision_id}/restore")
def restore_decision(request: HttpRequest, decision_id: UUID) -> list[DecisionOut]:
    """Undo taking a decision back."""
    return _set_decision(decision_id, taken_back=False)


def _set_decision(decision_id: UUID, taken_back: bool) -> list[DecisionOut]:
    with transaction.atomic():
        row = Decision.objects.filter(pk=decision_id, household=household()).select_related("blend").first()
        if row is None:
            raise Http404
        row.deleted_at = timezone.now() if taken_back else None
        row.save(update_fields=["deleted_at"])
        note = _note(row.what, row.reason)
        if row.blend is not None:
            draft = row.blend.revisions.filter(kept_at__isnull=True)
            if taken_back:
                draft.filter(note=note).update(note="")
            else:
                draft.filter(note="").update(note=note)
    return decisions(row.kind, row.first, row.second)

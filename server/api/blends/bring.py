"""Blend: bring lists, recipes and labels in, take blends out. What is read here is shown first; nothing is saved."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import count
from typing import Annotated, Literal, cast
from uuid import UUID

from book.models import Blend, line_key
from book.models.values import label_of
from django.http import HttpRequest, HttpResponse
from ninja import Schema
from pydantic import AfterValidator, Field
from ravska_core.blend import DRIED, DRY_KINDS, Line, read_ingredients, say_parts
from ravska_core.bowl import MOST_USES
from ravska_core.catalogue import catalogue, folded, said_name
from ravska_core.exchange import (
    LONGEST_FILE,
    Item,
    ListLine,
    Taken,
    answered,
    by_eye,
    in_hand,
    read_amount,
    steps_of,
    take,
    usual_kind,
    write_csv,
    write_jsonld,
    write_markdown,
)
from ravska_core.exchange import bring as core_bring
from ravska_core.working import BadInput, Figure, say

from api.blends.documents import (
    Basis,
    BlendDocument,
    BlendKind,
    LabelDocument,
    LineDocument,
    MethodStepDocument,
    StatedShare,
    UseDocument,
    Written,
)
from api.blends.exact import Exact, exact_of, read_exact
from api.blends.reading import BlendAsTyped, read_document, written_parts
from api.blends.readings import BlendReadingOut, reading_out
from api.blends.store import one_blend, typed_out
from api.plumbing.answers import Router
from api.plumbing.household import household, spoon_set
from api.plumbing.problems import Gather
from api.plumbing.quantities import BatchMass
from api.plumbing.typed import Key, Typed, printable

router = Router()


class AnswerDocument(Schema):
    """What the cook said to a line that was asked about: what it is, how much, or that it is left out."""

    line: Annotated[int, Field(ge=0, le=10_000)]
    item: Annotated[int, Field(ge=0, le=100)] = 0
    grind: Key = ""
    blend: UUID | None = None
    amount: Typed = ""
    leave_out: bool = False


class BringDocument(Schema):
    """A text as it was pasted or a file's content, with the answers to what was asked."""

    text: Annotated[str, Field(max_length=LONGEST_FILE)]
    format: Literal["", "list", "jsonld", "csv", "markdown"] = ""
    answers: Annotated[list[AnswerDocument], Field(max_length=400, default=[])]


@dataclass(frozen=True, slots=True)
class ChoiceOut:
    grind: str
    name: str


ItemStatus = Literal["understood", "what", "how much", "left out"]


@dataclass(frozen=True, slots=True)
class ItemOut:
    """An ingredient of a line: what was understood, how much of it, and what is asked.

    `called` is its name as it was written; `unread` are the words of the line that were not used, from and to; `weighs`
    and `spoons` say what it is on the bench; `swap` what the line names to take instead; `usual` amounts to choose from
    where one is asked for.
    """

    text: str
    status: ItemStatus
    name: str
    grind: str
    blend: UUID | None
    says: str
    amount: str
    error: float
    note: str
    question: str
    closest: list[ChoiceOut]
    problem: str
    called: str
    unread: list[tuple[int, int]]
    weighs: str
    spoons: str
    swap: str
    uses: list[str]
    usual: list[str]


LineStatus = Literal["understood", "what", "how much", "heading", "remark"]


@dataclass(frozen=True, slots=True)
class ListLineOut:
    """A line as it stands in the text, by number from 1."""

    number: int
    text: str
    status: LineStatus
    items: list[ItemOut]


@dataclass(frozen=True, slots=True)
class BroughtOut:
    """What a text holds, line by line, and the blend it would make once nothing is asked any more.

    `exact` is that blend to the last digit, with its locks, targets, label and method, where the text was taken out of
    a Ravska and nothing of it was changed since.
    """

    format: str
    name: str
    kind: str
    lines: list[ListLineOut]
    steps: list[str]
    notes: list[str]
    asked: int
    batch: str
    written: Written
    made: list[LineDocument]
    method: list[MethodStepDocument]
    uses: list[UseDocument]
    exact: BlendDocument | None
    problems: list[str]


def _own_blends() -> dict[str, str]:
    rows = Blend.objects.filter(household=household(), deleted_at__isnull=True).order_by("-created_at")
    return {folded(name).strip(): str(key) for key, name in rows.values_list("pk", "name")}


def _says(item: Item) -> str:
    amount = item.amount
    if amount is None:
        return ""
    unit = {"ml": "ml", "g": "g", "part": "parts", "percent": "%"}.get(amount.kind, amount.kind)
    number = say_parts(amount.exact) if amount.exact is not None else say(amount.value, 3)
    off = f", ±{amount.error * 100:.0f} %" if by_eye(amount) else ""
    return f"{number} {unit}{off}"


def _answered(item: Item, answer: AnswerDocument, gather: Gather, field: str) -> Item:
    """Return an item with what the cook said of it."""
    grind = answer.grind
    if grind and grind not in catalogue().grinds:
        gather.refuse(f"{field}.grind", "This ingredient is not in the catalogue; choose another.")
        grind = ""
    amount = gather.attempt_or(field, None, read_amount, answer.amount, spoon_set()) if answer.amount else None
    found = answered(item, grind, str(answer.blend) if answer.blend and not grind else "", amount)
    if answer.amount and found.status == "how much" and amount is not None:
        gather.refuse(f"{field}.amount", found.question)
    return found


def _item_out(item: Item, left_out: bool, problem: str, own: Line | None) -> ItemOut:
    held = in_hand(item, spoon_set(), own)
    return ItemOut(
        text=item.text,
        status="left out" if left_out else cast(ItemStatus, item.status),
        name=said_name(item.grind) if item.grind else item.name,
        grind=item.grind,
        blend=UUID(item.blend) if item.blend else None,
        says=_says(item),
        amount=item.amount.said if item.amount else "",
        error=item.amount.error if item.amount else 0.0,
        note=item.note,
        question="" if left_out else item.question,
        closest=[ChoiceOut(key, said_name(key)) for key in item.closest],
        problem=problem,
        called=item.name,
        unread=[] if left_out else list(item.unread),
        weighs=f"{say(held.grams, 3)} g" if held else "",
        spoons=held.spoons if held else "",
        swap=said_name(item.swap) if item.swap else "",
        uses=list(item.uses),
        usual=list(item.usual),
    )


@router.asks("/bring")
def bring(request: HttpRequest, document: BringDocument) -> BroughtOut:
    """Read a list, a schema.org recipe, CSV or Markdown line by line; what is not understood is asked about."""
    owned = spoon_set()
    found = core_bring(document.text, document.format, owned, _own_blends())
    answers = {(answer.line, answer.item): answer for answer in document.answers}
    fields = {(answer.line, answer.item): f"answers.{at}" for at, answer in enumerate(document.answers)}
    gather = Gather()
    read: list[tuple[ListLine, list[tuple[Item, bool]]]] = []
    for at, line in enumerate(found.lines):
        items = []
        for place, item in enumerate(line.items):
            answer = answers.get((at, place))
            if answer is not None and not answer.leave_out:
                item = _answered(item, answer, gather, fields[at, place])
            items.append((item, answer is not None and answer.leave_out))
        read.append((line, items))
    gather.finish()
    exact = read_exact(found.exact) if not document.answers else Exact(None)
    if exact.typed is not None:
        if sum(bool(items) for _, items in read) == len(exact.typed.document.lines):
            read = [
                (line, [(_exactly(item, at, exact.typed), out) for item, out in items])
                for line, items, at in _placed(read)
            ]
        else:
            exact = Exact(None)
    taking = [item for _, items in read for item, out in items if not out]
    owns = {item.blend: _nested(item) for item in taking if item.blend}
    asked = sum(item.status != "understood" for item in taking)
    made: Taken | None = None
    problems: dict[int, str] = {}
    general: list[str] = []
    if taking and not asked:
        try:
            made = take(
                [(item, replace(own, held=item.held) if (own := owns.get(item.blend)) else None) for item in taking]
            )
        except BadInput as refusal:
            step = refusal.argument.split(".")
            if len(step) > 1 and step[1].isdecimal():
                problems[int(step[1])] = refusal.sentence
            general.append(refusal.sentence)
    elif not taking:
        general.append("Every ingredient is left out, so there is nothing to make a blend of.")
    taken = count()
    out = [
        ListLineOut(
            number=line.number,
            text=line.text,
            status=_status(line, items),
            items=[
                _item_out(item, left, "" if left else problems.get(next(taken), ""), owns.get(item.blend))
                for item, left in items
            ],
        )
        for line, items in read
    ]
    method: list[MethodStepDocument] = []
    if made is not None:
        method = _method(found.steps, taking)
    title = found.name or _title(found.lines)
    batch = found.batch or (f"{made.batch_g:g} g" if made else "")
    return BroughtOut(
        format=found.format,
        name=title,
        kind=usual_kind(found.kind, taking, title),
        lines=out,
        steps=list(found.steps),
        notes=[*found.notes, *filter(None, [exact.note])],
        asked=asked,
        batch=batch,
        written=cast(Written, made.written if made else "parts"),
        made=_lines_out(made, taking) if made else [],
        method=method,
        uses=_uses(taking) if made else [],
        exact=exact.typed.document if exact.typed is not None else None,
        problems=general,
    )


def _placed(
    read: Sequence[tuple[ListLine, list[tuple[Item, bool]]]],
) -> list[tuple[ListLine, list[tuple[Item, bool]], int]]:
    """Return lines with the place of each among those that hold an ingredient."""
    at, found = 0, []
    for line, items in read:
        found.append((line, items[:1], at))
        at += bool(items)
    return found


def _exactly(item: Item, at: int, typed: BlendAsTyped) -> Item:
    """Return an item as the exact blend has it, whatever could be read of its text."""
    line = typed.document.lines[at]
    blend = str(line.blend) if line.blend else ""
    return replace(item, status="understood", grind=line.grind, blend=blend, held=line.held, question="", unread=())


_HEADED = re.compile(r"(?:for|from|the|a|my|our)\s+", re.IGNORECASE)


def _title(lines: Sequence[ListLine]) -> str:
    """Return what a list is called by the heading it begins with: “For the pot:” is the pot."""
    first = next((line for line in lines if line.text.strip()), None)
    if first is None or first.status != "heading":
        return ""
    said = first.text.strip("#*: \t")
    while (filler := _HEADED.match(said)) is not None:
        said = said[filler.end() :]
    return said[:1].upper() + said[1:80]


def _status(line: ListLine, items: Sequence[tuple[Item, bool]]) -> LineStatus:
    if not items:
        return cast(LineStatus, line.status)
    waiting = [item.status for item, out in items if not out]
    return cast(LineStatus, next((status for status in ("what", "how much") if status in waiting), "understood"))


def _nested(item: Item) -> Line | None:
    if not item.blend:
        return None
    row = Blend.objects.filter(household=household(), pk=item.blend).with_drafts().first()
    if row is None:
        raise BadInput("items", "A blend that this list names is not in the book any more; choose another.")
    return Line("", Fraction(1), "spoon", blend=row.as_core(), held=item.held)


def _uses(items: Sequence[Item]) -> list[UseDocument]:
    """Return what the list says some of the batch is for, how much of it not said yet."""
    said = [f"{use}: {said_name(item.grind) if item.grind else item.name}" for item in items for use in item.uses]
    return [UseDocument(name=name[:80].capitalize()) for name in dict.fromkeys(said)][:MOST_USES]


def _lines_out(made: Taken, items: Sequence[Item]) -> list[LineDocument]:
    found = []
    for line, item, said in zip(made.lines, items, made.said, strict=True):
        text, exact = written_parts(line.parts)
        found.append(
            LineDocument(
                grind=item.grind if not item.blend else "",
                blend=UUID(item.blend) if item.blend else None,
                held=line.held,
                parts=text,
                exact=exact,
                basis=cast(Basis, line.basis),
                error=say(line.error * 100, 3) if line.error else "",
                swap=item.swap,
                said=(said if item.amount and item.amount.kind not in ("part", "percent") else "")[:80],
            )
        )
    return found


def _method(steps: Sequence[str], items: Sequence[Item]) -> list[MethodStepDocument]:
    """Return steps as documents: our own sentences become what they do, others keep their words."""
    names = [said_name(item.grind) if item.grind else item.name.strip('“”"') for item in items]
    keys = [line_key(item.grind, UUID(item.blend) if item.blend else None, item.held) for item in items]
    found = []
    for step in steps_of(steps, names):
        found.append(
            MethodStepDocument(
                do=step.do,
                of=[keys[line] for line in step.of],
                to=step.to,
                by=f"by {say(step.by * 100, 4)} %" if step.by else "",
                lasts=f"{step.lasts_s / 60:g} min" if step.lasts_s else "",
                note=step.note,
            )
        )
    return found


FORMATS: dict[str, tuple[str, str]] = {
    "jsonld": ("application/ld+json", "jsonld"),
    "csv": ("text/csv; charset=utf-8", "csv"),
    "markdown": ("text/markdown; charset=utf-8", "md"),
}


@router.reads("/{uuid:blend_id}/take-out/{kind}")
def take_out(request: HttpRequest, blend_id: UUID, kind: Literal["jsonld", "csv", "markdown"]) -> HttpResponse:
    """Return a blend as a file: schema.org Recipe JSON-LD, CSV or Markdown."""
    row = one_blend(blend_id)
    draft = row.draft()
    exact = exact_of(typed_out(row, draft, draft.lines.all(), row.targets.all(), row.uses.all()))
    write = {"jsonld": write_jsonld, "csv": write_csv, "markdown": write_markdown}[kind]
    media, ending = FORMATS[kind]
    answer = HttpResponse(write(row.as_core(), spoon_set(), exact), content_type=media)
    name = "-".join(filter(None, ("".join(c if c.isalnum() else " " for c in folded(row.name))).split())) or "blend"
    answer["Content-Disposition"] = f'attachment; filename="{name[:60].encode("ascii", "ignore").decode()}.{ending}"'
    return answer


class ReadLabelDocument(Schema):
    """A label as it is being typed: the panel, the list of ingredients, and what unknown names were said to be."""

    label: LabelDocument
    ingredients: Annotated[str, Field(max_length=4000), AfterValidator(printable)]
    kind: BlendKind = "dry rub"
    batch: BatchMass = BatchMass("100 g")
    chosen: Annotated[dict[Annotated[str, Field(max_length=400)], Key], Field(max_length=60, default={})]


@dataclass(frozen=True, slots=True)
class LabelNameOut:
    """An ingredient of a label: what it was read as or what comes closest, with the range of its share [%]."""

    name: str
    grind: str
    said: str
    closest: list[ChoiceOut]
    minor: bool
    stated: float | None
    share: Figure | None


@dataclass(frozen=True, slots=True)
class LabelOut:
    """What a label says: its ingredients, and once all are known the lines, the panel to keep, and the reading."""

    names: list[LabelNameOut]
    unknown: int
    lines: list[LineDocument]
    label: LabelDocument | None
    reading: BlendReadingOut | None


@router.asks("/label")
def read_label(request: HttpRequest, document: ReadLabelDocument) -> LabelOut:
    """Say what a bought blend's label tells of its recipe, with the range of everything. Nothing is saved."""
    label_of(document.label.model_dump())  # a panel that cannot be is said before any name is asked about
    names = read_ingredients(document.ingredients)
    dry = document.kind in DRY_KINDS
    grinds: list[str] = []
    for name in names:
        chosen = document.chosen.get(name.name, "")
        grind = chosen if chosen in catalogue().grinds else name.grind or ""
        grinds.append(DRIED.get(grind, grind) if dry and not chosen else grind)
    unknown = sum(not grind for grind in grinds)
    reading, lines, kept = None, [], None
    if not unknown:
        minor = next((at for at, name in enumerate(names) if name.minor), None)
        stated = [StatedShare(place=at, share=name.stated) for at, name in enumerate(names) if name.stated]
        kept = document.label.model_copy(update={"minor_from": minor, "stated": stated})
        lines = [
            LineDocument(grind=grind, parts="1", basis="scale", said=name.name)
            for grind, name in zip(grinds, names, strict=True)
        ]
        typed = read_document(
            BlendDocument(name="bought", kind=document.kind, batch=document.batch, lines=lines, label=kept)
        )
        lines = typed.document.lines
        reading = reading_out(typed.blend, lines, {})
    return LabelOut(
        names=[
            LabelNameOut(
                name=name.name,
                grind=grind,
                said=said_name(grind) if grind else "",
                closest=[ChoiceOut(key, said_name(key)) for key in name.closest],
                minor=name.minor,
                stated=name.stated,
                share=reading.lines[at].share if reading else None,
            )
            for at, (name, grind) in enumerate(zip(names, grinds, strict=True))
        ],
        unknown=unknown,
        lines=lines,
        label=kept,
        reading=reading,
    )

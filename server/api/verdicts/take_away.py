"""Verdict: what is taken away of a question, as CSV of its cards and of what is believed, and as Markdown."""

import csv
import io
from collections.abc import Iterable, Sequence

from django.http import HttpRequest, HttpResponse
from ninja import Query
from ravska_core.across import MODEL_VERSION, PairCook, headline_within, say_counted, upper
from ravska_core.meat import find_cut

from api.plumbing.answers import Router
from api.verdicts.pages import evidence_of, page_of
from api.verdicts.questions import Question

router = Router()
_FORMULA = ("=", "+", "-", "@", "\t", "\r")


def _file(text: str, kind: str, name: str) -> HttpResponse:
    answer = HttpResponse(text, content_type=f"text/{kind}; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{name}"'
    return answer


def _csv(rows: Iterable[Sequence[object]]) -> str:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    for row in rows:
        # what a spreadsheet would take for a formula is text
        writer.writerow([f"'{cell}" if isinstance(cell, str) and cell.startswith(_FORMULA) else cell for cell in row])
    return out.getvalue()


@router.reads("/cards.csv")
def take_cards_away(request: HttpRequest, question: Query[Question]) -> HttpResponse:
    """Write every card that a question rests on, with what else differed in its cook."""
    found = evidence_of(question)
    first, second = found.names
    rows: list[Sequence[object]] = [
        ("cook", "served", "cut", "taster", first, second, "difference", "second came first", "blind", "also differed")
    ]
    for cook in found.evidence.cooks:
        muddy = "; ".join(f"{one.what} {one.size:+.2f}" for one in cook.muddied)
        for card in cook.cards:
            came = {0.5: "yes", -0.5: "no"}.get(card.first, "")
            given = [round(value, 2) for value in (*card.liked, card.difference)]
            knew = "yes" if card.blind else "no"
            rows.append((cook.name, cook.at[:10], find_cut(cook.cut).name, card.taster, *given, came, knew, muddy))
    return _file(_csv(rows), "csv", "verdict-cards.csv")


@router.reads("/posterior.csv")
def take_posterior_away(request: HttpRequest, question: Query[Question]) -> HttpResponse:
    """Write what is believed of every cut: second less first in points, its chances, and its twenty grains."""
    page = page_of(question)
    rows: list[Sequence[object]] = [
        ("cut", "cooks", "cards", "clean cooks", "clean cards", "verdict", "mean", "2.5 %", "97.5 %", "P first better",
         "P no matter", "P second better", *(f"grain {at}" for at in range(1, 21)))
    ]  # fmt: skip
    for row in (*page.rows, page.all_cuts):
        counted, one = row.counted, row.belief
        name = find_cut(row.cut).name if row.cut else "all cuts"
        believed: list[float] = []
        if one is not None:
            chances = (one.chances.first, one.chances.neither, one.chances.second)
            believed = [one.mean, one.low, one.high, *chances, *(grain.points for grain in one.grains)]
        rows.append((name, counted.cooks, counted.cards, counted.clean_cooks, counted.clean_cards, row.headline,
                     *(round(value, 4) + 0.0 for value in believed)))  # fmt: skip
    return _file(_csv(rows), "csv", "verdict-posterior.csv")


@router.reads("/verdict.md")
def take_verdict_away(request: HttpRequest, question: Query[Question]) -> HttpResponse:
    """Write a question's verdict as Markdown, naming the model's version and the cards it rests on."""
    page, found = page_of(question), evidence_of(question)
    counted = found.evidence.counted()
    whose = "this table" if question.who == "table" else "a guest"
    whole = f"{say_counted(counted.cooks, 'cook')} with {say_counted(counted.cards, 'card')}"
    clean = f"{say_counted(counted.clean_cooks, 'cook')} with {say_counted(counted.clean_cards, 'card')}"
    rests_on = f"{whole}; clean of these are {clean}"
    model = f"Model {MODEL_VERSION}; what matters is {page.margin:g} points of nine."
    title = f"{upper(page.names[0])} or {page.names[1]}?"
    lines = [f"# {_escaped(title)}", "", f"For {whose}: {rests_on}. {model}", ""]
    for row in page.rows:
        headline = headline_within(row.state, row.headline, page.names)
        lines += ["## " + _escaped(f"{find_cut(row.cut).name}: {headline}"), ""]
        lines += [_escaped(sentence) for sentence in row.says]
        mine = [cook for cook in found.evidence.cooks if cook.cut == row.cut]
        lines += ["", f"Cooks: {'; '.join(map(_cook, mine))}.", ""]
    lines += [_escaped(trait.says) for trait in page.traits] + [_escaped(sentence) for sentence in page.says]
    lines += [f"Left out: {_escaped(one.cook)}. {one.says}" for one in found.left_out]
    lines += ["", "Safe temperatures and times follow your local food-safety rules, whatever is liked better."]
    return _file("\n".join(lines) + "\n", "markdown", "verdict.md")


def _cook(cook: PairCook) -> str:
    tasters = ", ".join(card.taster for card in cook.cards) or "votes only"
    return f"{_escaped(cook.name)} ({say_counted(len(cook.cards), 'card')}: {_escaped(tasters)})"


def _escaped(text: str) -> str:
    return "".join(f"\\{letter}" if letter in "\\`*_{}[]<>#|" else letter for letter in text)

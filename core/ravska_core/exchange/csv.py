"""Blends as CSV."""

import csv
import io
import re
from collections.abc import Mapping
from dataclasses import replace

from ravska_core.blend import KINDS, Blend
from ravska_core.exchange.forms import Brought, beside, exact_beside, mass_of, on_paper, said_number
from ravska_core.exchange.items import ListLine
from ravska_core.exchange.lists import MOST_LIST_LINES, read_list
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.working import BadInput

_COLUMNS = (
    "blend", "kind", "batch", "ingredient", "amount", "grams", "share %", "parts", "basis", "step", "exact",
)  # fmt: skip


def _cell(text: str) -> str:
    """Return a cell that no spreadsheet takes for a formula."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t") else text


def write_csv(blend: Blend, owned: SpoonSet = SPOON_SETS["us"], exact: str = "") -> str:
    """Return a blend as CSV: a row a line as a cook would write it, then a row a step.

    Share and parts stand in columns of their own, and so does, in the first row, what the blend is exactly.
    """
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n")
    rows.writerow(_COLUMNS)
    paper = on_paper(blend, owned)
    held = beside(exact, paper, [f"{line.amount} {line.name}" for line in paper.lines]) if exact else ""
    head, ending = [_cell(paper.name), blend.kind, paper.makes], held
    for line, of, shown in zip(paper.lines, blend.lines, paper.reading.lines if paper.reading else (), strict=True):
        rows.writerow([*head, _cell(line.name), _cell(line.amount), said_number(shown.mass.value),
                       said_number(shown.share.value), str(of.parts), of.basis, "", ending])  # fmt: skip
        head, ending = ["", "", ""], ""
    for text in paper.steps:
        rows.writerow([*head, "", "", "", "", "", "", _cell(text), ending])
        head, ending = ["", "", ""], ""
    return out.getvalue()


def _never_closed(text: str, line: int, mark: str) -> tuple[int, int] | None:
    """Return the line and column of the quote that opens a cell at or after a line and is closed nowhere."""
    at = 0
    for _ in range(line - 1):
        at = text.find("\n", at) + 1
    opened: tuple[int, int] | None = None
    column, begins = 1, True  # whether a cell begins here
    while at < len(text):
        char = text[at]
        if opened is None and char == '"' and begins:
            opened = line, column
        elif opened is not None and char == '"':
            if text[at + 1 : at + 2] == '"':  # doubled it stands for itself
                at, column = at + 2, column + 2
                continue
            opened = None
        begins = opened is None and char in (mark, "\n", "\r")
        line, column = (line + 1, 1) if char == "\n" else (line, column + 1)
        at += 1
    return opened


def _cut_off(line: int, column: int, said: str) -> BadInput:
    return BadInput(
        "text", f"Line {line}, column {column}: this table is cut off: {said}. Save it as CSV again, whole."
    )


def from_csv(text: str, owned: SpoonSet, blends: Mapping[str, str]) -> Brought:
    first = text.split("\n", 1)[0]
    mark = max((",", ";", "\t"), key=first.count)
    reader = csv.reader(io.StringIO(text), delimiter=mark, strict=True)
    rows: list[tuple[int, list[str]]] = []
    begins = 1
    try:
        for row in reader:
            rows.append((reader.line_num, row))
            begins = reader.line_num + 1
            if len(rows) > MOST_LIST_LINES * 2:
                raise BadInput("text", f"Line {reader.line_num}, column 1: that is too much for one recipe.")
    except csv.Error as fault:
        if (opened := _never_closed(text, begins, mark)) is not None:
            line, column = opened
            raise _cut_off(line, column, "a cell in quotes begins here and never ends") from None
        raise BadInput(
            "text", f"Line {reader.line_num}, column 1: this row cannot be read ({fault}); save the table as CSV again."
        ) from None
    whole = {len(row) for _, row in rows[:-1] if any(row)}
    if len(rows) > 1 and len(whole) == 1 and len(rows[-1][1]) < max(whole) and not text.endswith(("\n", "\r")):
        last = text.splitlines()[-1]
        said = f"the file ends in the middle of a row, after {len(rows[-1][1])} of {max(whole)} cells"
        raise _cut_off(rows[-1][0], len(last) + 1, said)
    head = [cell.strip().lower() for cell in rows[0][1]]
    if "ingredient" not in head:
        raise BadInput("text", "Line 1, column 1: the first row must name the columns, with “ingredient” among them.")
    if len(set(filter(None, head))) < len(list(filter(None, head))):
        raise BadInput("text", "Line 1, column 1: a column stands there twice; give each its own name.")
    found: list[ListLine] = []
    about = {"blend": "", "kind": "", "batch": ""}
    steps: list[str] = []
    notes: list[str] = []
    entries: list[str] = []
    held = ""
    for number, row in rows[1:]:
        if not any(cell.strip() for cell in row):
            continue
        if len(row) > len(head):
            raise BadInput(
                "text",
                f"Line {number}, column {len(head) + 1}: this row has {len(row)} cells, the first has {len(head)}.",
            )
        cells = dict(zip(head, (_uncell(cell.strip()) for cell in row), strict=False))
        for key in about:
            about[key] = about[key] or cells.get(key, "")
        if cells.get("step"):
            steps.append(cells["step"][:400])
        name, amount = cells.get("ingredient", ""), cells.get("amount", "")
        held = held or cells.get("exact", "")
        if not amount and cells.get("parts"):
            amount = f"{cells['parts']} parts" + (f" by {cells['basis']}" if cells.get("basis") else "")
        if not amount and cells.get("grams"):
            amount = f"{cells['grams']} g"
        if name or amount:
            entries.append(f"{amount} {name}")
            weighs = f" ({cells['grams']} g)" if amount and cells.get("grams") and "g" not in amount.split() else ""
            said = re.sub(r"\s+", " ", f"{amount} {name}{weighs}" if amount and name else amount or name)
            found += (replace(line, number=number) for line in read_list(said, owned, blends))
    unknown = [name for name in head if name and name not in _COLUMNS]
    if unknown:
        notes.append(f"Not used: {', '.join(unknown)[:200]}.")
    exact, why = exact_beside(held, [*entries, *steps, about["batch"]])
    notes += [why] if why else []
    kind = about["kind"].lower()
    return Brought("csv", about["blend"][:80], kind if kind in KINDS else "", mass_of(about["batch"]), tuple(found),
                   tuple(steps), tuple(notes), exact)  # fmt: skip


def _uncell(text: str) -> str:
    return text[1:] if len(text) > 1 and text[0] == "'" and text[1] in "=+-@\t" else text

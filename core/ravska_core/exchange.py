"""Blends taken out and brought in: schema.org Recipe as JSON-LD, CSV, Markdown, and plain lists.

Every format holds its ingredients as lines that `lists` reads, so that one reader understands all of them and what is
written can be read back.

References
----------
https://schema.org/Recipe, HowToStep, NutritionInformation; RFC 4180 for CSV; CommonMark for Markdown.
"""

import csv
import html
import io
import json
import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from html.parser import HTMLParser
from typing import Any

from ravska_core.blends import DRY_KINDS, KINDS, Blend, parts_of
from ravska_core.composition import read_blend
from ravska_core.lists import LONGEST_TEXT, MOST_LIST_LINES, SIEVED, ListLine, read_list
from ravska_core.measures import measures
from ravska_core.method import MOST_STEPS, parse_step, say_step
from ravska_core.spoons import SPOON_SETS, SpoonSet
from ravska_core.working import BadInput, say

FORMATS = ("list", "jsonld", "csv", "markdown")
LONGEST_FILE = 400_000
_COLUMNS = ("blend", "kind", "batch", "ingredient", "amount", "share %", "grams", "step")


@dataclass(frozen=True)
class Brought:
    """What a text or file holds: a name and kind as far as it says, its lines, its steps, and remarks to show."""

    format: str
    name: str
    kind: str
    batch: str
    lines: tuple[ListLine, ...]
    steps: tuple[str, ...]
    notes: tuple[str, ...]


# taking out


def _number(value: float) -> str:
    return say(value, 4)


def ingredient_lines(blend: Blend, written: str = "parts") -> list[str]:
    """Return a blend's lines as text that reads back the same: ``4 parts by spoon of black pepper, cracked``."""
    found = []
    for line, part in zip(blend.lines, parts_of(blend.lines), strict=True):
        name = part.name
        if line.blend is not None:
            name = f"{SIEVED} “{line.blend.name}”" if line.held else f"“{name}”"
        number = str(line.parts)
        amount = (
            f"{number} %" if written == "percent" else f"{number} part{'' if line.parts == 1 else 's'} by {line.basis}"
        )
        found.append(f"{amount}{f' ±{say(line.error * 100, 4)} %' if line.error else ''} of {name}")
    return found


def step_lines(blend: Blend) -> list[str]:
    """Return a blend's method as sentences."""
    names = [part.name for part in parts_of(blend.lines)] if blend.lines else []
    return [say_step(step, names) for step in blend.method]


def _batch(blend: Blend) -> str:
    return f"{_number(blend.batch_g)} g"


def write_jsonld(blend: Blend, written: str = "parts") -> str:
    """Return a blend as a schema.org Recipe in JSON-LD, with its steps and what 100 g of it hold."""
    document: dict[str, Any] = {
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": blend.name,
        "recipeCategory": blend.kind,
        "recipeYield": _batch(blend),
        "recipeIngredient": ingredient_lines(blend, written),
        "recipeInstructions": [
            {"@type": "HowToStep", "position": at, "text": text} for at, text in enumerate(step_lines(blend), 1)
        ],
    }
    if blend.fire:
        document["cookingMethod"] = blend.fire
    if blend.lines:
        found = read_blend(blend)
        document["nutrition"] = {
            "@type": "NutritionInformation",
            "servingSize": "100 g",
            "sodiumContent": f"{found.sodium_share * 100_000:.0f} mg",
            "sugarContent": f"{found.sugar.value:.1f} g",
            "fatContent": f"{found.fat_share * 100:.1f} g",
        }
    return json.dumps(document, ensure_ascii=False, indent=2) + "\n"


def _cell(text: str) -> str:
    """Return a cell that no spreadsheet takes for a formula."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t") else text


def write_csv(blend: Blend, written: str = "parts") -> str:
    """Return a blend as CSV: a row a line with its share and grams, then a row a step."""
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n")
    rows.writerow(_COLUMNS)
    head = [_cell(blend.name), blend.kind, _batch(blend)]
    reading = read_blend(blend) if blend.lines else None
    for at, text in enumerate(ingredient_lines(blend, written)):
        amount, _, name = text.partition(" of ")
        assert reading is not None
        line = reading.lines[at]
        rows.writerow([*(head if at == 0 else ["", "", ""]), _cell(name), _cell(amount),
                       _number(line.share.value), _number(line.mass.value), ""])  # fmt: skip
    for at, text in enumerate(step_lines(blend)):
        rows.writerow([*(head if at == 0 and reading is None else ["", "", ""]), "", "", "", "", _cell(text)])
    if reading is None and not blend.method:
        rows.writerow([*head, "", "", "", "", ""])
    return out.getvalue()


def write_markdown(blend: Blend, written: str = "parts") -> str:
    """Return a blend as Markdown: its name, kind and batch, a list of ingredients, numbered steps."""
    name = re.sub(r"([\\`*_{}\[\]<>#|])", r"\\\1", blend.name)
    text = [f"# {name}", "", f"*{blend.kind}, {_batch(blend)}*", "", "## Ingredients", ""]
    text += [f"- {line}" for line in ingredient_lines(blend, written)]
    if blend.method:
        text += ["", "## Method", "", *(f"{at}. {step}" for at, step in enumerate(step_lines(blend), 1))]
    return "\n".join(text) + "\n"


# bringing in


def _readable(text: str) -> str:
    if len(text) > LONGEST_FILE:
        raise BadInput(
            "text", f"That is more than {LONGEST_FILE // 1000} kB, too much for a recipe; bring in one at a time."
        )
    text = text.removeprefix("\ufeff")
    fault = re.search("[\ud800-\udfff\x00-\x08\x0b\x0c\x0e-\x1f\ufffd]", text)
    if fault:
        line = text.count("\n", 0, fault.start()) + 1
        column = fault.start() - (text.rfind("\n", 0, fault.start()) + 1) + 1
        raise BadInput(
            "text", f"Line {line}, column {column}: this character cannot be read; save the file as UTF-8 text."
        )
    return text


def guess_format(text: str) -> str:
    """Return which format a text most likely is in."""
    start = text.lstrip()[:2000]
    if start[:1] in ("{", "[") and re.search(r'[{\[]\s*["{\[]', start):
        return "jsonld"
    if re.search(r"<script[^>]*ld\+json", text, re.IGNORECASE):
        return "jsonld"
    first = start.split("\n", 1)[0].lower()
    if "ingredient" in first and re.search(r"[,;\t]", first) and not re.search(r"\d", first):
        return "csv"
    if re.search(r"^#{1,3} \S", start, re.MULTILINE) or re.search(r"^\|.*\|\s*$", start, re.MULTILINE):
        return "markdown"
    return "list"


def bring(
    text: str,
    format_: str = "",
    owned: SpoonSet = SPOON_SETS["us"],
    blends: Mapping[str, str] | None = None,
) -> Brought:
    """Read a text or file as a blend, line by line; nothing of it is dropped without a word.

    Parameters
    ----------
    text : str
        A list, or a file's content.
    format_ : str
        One of `FORMATS`, or "" to go by what it looks like.

    Raises
    ------
    BadInput
        At ``text``, with line and column, for a file that is damaged or holds no recipe.
    """
    text = _readable(text)
    if not text.strip():
        raise BadInput("text", "There is nothing here; paste a list of ingredients or a recipe.")
    format_ = format_ or guess_format(text)
    if format_ == "jsonld":
        found = _from_jsonld(text, owned, blends or {})
    elif format_ == "csv":
        found = _from_csv(text, owned, blends or {})
    elif format_ == "markdown":
        found = _from_markdown(text, owned, blends or {})
    else:
        found = Brought("list", "", "", "", read_list(text, owned, blends), (), ())
    if not any(line.items for line in found.lines):
        raise BadInput("text", "I find no ingredient in this; paste a list with one ingredient a line.")
    if len(found.steps) > MOST_STEPS:
        notes = (*found.notes, f"Only the first {MOST_STEPS} steps fit; the others are left out.")
        found = replace(found, steps=found.steps[:MOST_STEPS], notes=notes)
    return found


def steps_of(steps: Sequence[str], names: Sequence[str]) -> list[Any]:
    """Read sentences as steps of a blend whose lines are called `names`."""
    from ravska_core.catalogue import catalogue

    grinds = sorted({grind.name for grind in catalogue().grinds.values()})
    return [parse_step(step, names, grinds) for step in steps]


class _Scripts(HTMLParser):
    """Gathers the JSON-LD scripts of a page."""

    def __init__(self) -> None:
        super().__init__()
        self.found: list[tuple[int, str]] = []
        self._inside = False

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        self._inside = tag == "script" and "ld+json" in (dict(attrs).get("type") or "")

    def handle_endtag(self, tag: str) -> None:
        self._inside = False

    def handle_data(self, data: str) -> None:
        if self._inside:
            self.found.append((self.getpos()[0] - 1, data))


def _json(text: str, lines_before: int) -> Any:
    try:
        return json.loads(text, parse_constant=lambda name: None)
    except json.JSONDecodeError as fault:
        raise BadInput(
            "text",
            f"Line {fault.lineno + lines_before}, column {fault.colno}: this is not JSON here ({fault.msg.lower()}); "
            "save the recipe again or paste its list of ingredients.",
        ) from None
    except (RecursionError, ValueError):
        raise BadInput(
            "text", "Line 1, column 1: this JSON is nested too deep or holds a number too long for a recipe."
        ) from None


def _recipes(node: Any, depth: int = 0) -> Iterator[dict[str, Any]]:
    if depth > 12:
        return
    if isinstance(node, list):
        for part in node[:500]:
            yield from _recipes(part, depth + 1)
    elif isinstance(node, dict):
        types = node.get("@type")
        named = types if isinstance(types, list) else [types]
        if any(isinstance(t, str) and t.rsplit("/", 1)[-1] == "Recipe" for t in named):
            yield node
        else:
            for key in ("@graph", "mainEntity", "mainEntityOfPage", "itemListElement", "item"):
                if key in node:
                    yield from _recipes(node[key], depth + 1)


def _plain(value: Any) -> str:
    if isinstance(value, list):
        value = next((part for part in value if part), "")
    if not isinstance(value, str | int | float):
        return ""
    text = html.unescape(re.sub(r"<[^>]{0,200}>", " ", str(value)))
    return re.sub(r"\s+", " ", text).strip()


def _instructions(node: Any, depth: int = 0) -> Iterator[str]:
    if depth > 6:
        return
    if isinstance(node, str):
        for part in re.split(r"\n+|(?<=[.!?])\s+(?=[A-ZÄÖÜ])", html.unescape(re.sub(r"<[^>]{0,200}>", "\n", node))):
            if part.strip():
                yield re.sub(r"\s+", " ", part).strip()[:400]
    elif isinstance(node, list):
        for part in node[:200]:
            yield from _instructions(part, depth + 1) if not isinstance(part, str) else iter([_plain(part)[:400]])
    elif isinstance(node, dict):
        if "itemListElement" in node:
            yield from _instructions(node["itemListElement"], depth + 1)
        else:
            text = _plain(node.get("text") or node.get("name") or "")
            if text:
                yield text[:400]


def _from_jsonld(text: str, owned: SpoonSet, blends: Mapping[str, str]) -> Brought:
    blocks = [(0, text)]
    if text.lstrip()[:1] not in ("{", "["):
        scripts = _Scripts()
        scripts.feed(text)
        blocks = scripts.found
    recipes = [recipe for before, block in blocks for recipe in _recipes(_json(block, before))]
    if not recipes:
        raise BadInput("text", "Line 1, column 1: there is no schema.org Recipe in this file; paste its list instead.")
    recipe, notes = recipes[0], []
    if len(recipes) > 1:
        notes.append(f"The file holds {len(recipes)} recipes; this is the first, bring the others in one by one.")
    raw = recipe.get("recipeIngredient", recipe.get("ingredients", []))
    raw = raw if isinstance(raw, list) else [raw]
    entries = [_plain(entry) for entry in raw if not isinstance(entry, dict | list)]
    if len(entries) < len(raw):
        notes.append(f"{len(raw) - len(entries)} ingredients are no text; write them in yourself.")
    _not_too_many(entries)
    lines = read_list("\n".join(entry or "-" for entry in entries), owned, blends) if entries else ()
    kind = _plain(recipe.get("recipeCategory", "")).lower()
    return Brought(
        "jsonld",
        _plain(recipe.get("name", ""))[:80],
        kind if kind in KINDS else "",
        _mass_of(_plain(recipe.get("recipeYield", ""))),
        _where(lines, entries, text),
        tuple(step for step in _instructions(recipe.get("recipeInstructions", [])) if step),
        tuple(notes),
    )


def _not_too_many(entries: Sequence[str]) -> None:
    if len(entries) > MOST_LIST_LINES or sum(map(len, entries)) > LONGEST_TEXT:
        raise BadInput("text", f"That is too much for one recipe; it may hold {MOST_LIST_LINES} ingredients.")


def _where(lines: Sequence[ListLine], entries: Sequence[str], text: str) -> tuple[ListLine, ...]:
    """Return lines numbered as they stand in the file they came from."""
    found, at = [], 0
    for line in lines:
        entry = json.dumps(entries[line.number - 1], ensure_ascii=False)[1:-1]
        place = text.find(entry, at)
        at = place if place >= 0 else at
        found.append(replace(line, number=text.count("\n", 0, at) + 1))
    return tuple(found)


def _mass_of(text: str) -> str:
    """Return a yield that is a weight, as text, or nothing."""
    found = re.search(r"\d+(?:[.,]\d+)?\s*(?:kg|g|oz|lb)\b", text)
    return found[0] if found else ""


def _from_csv(text: str, owned: SpoonSet, blends: Mapping[str, str]) -> Brought:
    first = text.split("\n", 1)[0]
    mark = max((",", ";", "\t"), key=first.count)
    reader = csv.reader(io.StringIO(text), delimiter=mark, strict=True)
    rows: list[tuple[int, list[str]]] = []
    try:
        for row in reader:
            rows.append((reader.line_num, row))
            if len(rows) > MOST_LIST_LINES * 2:
                raise BadInput("text", f"Line {reader.line_num}, column 1: that is too much for one recipe.")
    except csv.Error as fault:
        raise BadInput(
            "text", f"Line {reader.line_num}, column 1: this row cannot be read ({fault}); save the table as CSV again."
        ) from None
    head = [cell.strip().lower() for cell in rows[0][1]]
    if "ingredient" not in head:
        raise BadInput("text", "Line 1, column 1: the first row must name the columns, with “ingredient” among them.")
    if len(set(filter(None, head))) < len(list(filter(None, head))):
        raise BadInput("text", "Line 1, column 1: a column stands there twice; give each its own name.")
    found: list[ListLine] = []
    about = {"blend": "", "kind": "", "batch": ""}
    steps: list[str] = []
    notes: list[str] = []
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
        if not amount and cells.get("parts"):
            amount = f"{cells['parts']} parts" + (f" by {cells['basis']}" if cells.get("basis") else "")
        if not amount and cells.get("grams"):
            amount = f"{cells['grams']} g"
        if name or amount:
            said = re.sub(r"\s+", " ", f"{amount} of {name}" if amount and name else amount or name)
            found += (replace(line, number=number) for line in read_list(said, owned, blends))
    unknown = [name for name in head if name and name not in {*_COLUMNS, "parts", "basis"}]
    if unknown:
        notes.append(f"Not used: {', '.join(unknown)[:200]}.")
    kind = about["kind"].lower()
    return Brought("csv", about["blend"][:80], kind if kind in KINDS else "", _mass_of(about["batch"]), tuple(found),
                   tuple(steps), tuple(notes))  # fmt: skip


def _uncell(text: str) -> str:
    return text[1:] if len(text) > 1 and text[0] == "'" and text[1] in "=+-@\t" else text


_METHOD = re.compile(r"method|instruction|direction|preparation|steps?|zubereitung|how to", re.IGNORECASE)


def _from_markdown(text: str, owned: SpoonSet, blends: Mapping[str, str]) -> Brought:
    from markdown_it import MarkdownIt

    if len(text) > LONGEST_FILE // 4:
        raise BadInput("text", f"That is more than {LONGEST_FILE // 4000} kB, too much for a recipe in Markdown.")
    try:
        tokens = MarkdownIt("commonmark", {"maxNesting": 20}).enable("table").parse(text)
    except RecursionError:
        raise BadInput("text", "Line 1, column 1: this Markdown is nested too deep for a recipe.") from None
    name = kind = batch = ""
    entries: list[tuple[int, str]] = []
    steps: list[str] = []
    remarks: list[tuple[int, str]] = []
    method = False
    trail: list[str] = []
    row: list[str] = []
    for token in tokens:
        if token.type.endswith("_open"):
            trail.append(token.type)
            row = [] if token.type == "tr_open" else row
        elif token.type.endswith("_close"):
            trail.pop()
            if token.type == "tr_close" and "thead_open" not in trail and any(row):
                entries.append(((token.map or [0])[0] + 1 or 1, " ".join(filter(None, row))))
        elif token.type == "inline":
            at = (token.map or [0])[0] + 1
            content = "".join(
                "\n" if child.type in ("softbreak", "hardbreak") else child.content for child in token.children or []
            ).strip()
            if "heading_open" in trail:
                method = bool(_METHOD.search(content)) or (method and trail.count("heading_open") > 1)
                if not name and not method and not re.match(r"ingredients|zutaten", content, re.IGNORECASE):
                    name = content
                else:
                    remarks.append((at, f"{content}:"))
            elif "td_open" in trail or "th_open" in trail:
                row.append(content)
            elif method or ("ordered_list_open" in trail and entries):
                steps += (part.strip()[:400] for part in content.split("\n") if part.strip())
            elif "list_item_open" in trail:
                entries += ((at + n, part) for n, part in enumerate(content.split("\n")) if part.strip())
            else:
                said = re.fullmatch(rf"({'|'.join(KINDS)}), (.*)", content)
                if said and not kind:
                    kind, batch = said[1], _mass_of(said[2])
                else:
                    remarks += ((at + n, part) for n, part in enumerate(content.split("\n")) if part.strip())
        elif token.type in ("fence", "code_block", "html_block"):
            at = (token.map or [0])[0] + 1
            remarks += ((at + n, part) for n, part in enumerate(token.content.split("\n")) if part.strip())
    if not entries:  # no list at all: every line may be an ingredient
        entries, remarks = [r for r in remarks if not r[1].endswith(":")], [r for r in remarks if r[1].endswith(":")]
    _not_too_many([entry for _, entry in entries])
    lines: list[ListLine] = []
    for at, entry in entries:
        lines += (replace(line, number=at) for line in read_list(entry, owned, blends))
    lines += (ListLine(at, remark, "heading" if remark.endswith(":") else "remark") for at, remark in remarks)
    return Brought("markdown", name[:80], kind, batch, tuple(sorted(lines, key=lambda x: x.number)), tuple(steps), ())


def usual_kind(brought: Brought) -> str:
    """Return which kind of blend a list most likely is: what it says, else dry rub or marinade by its ingredients."""
    from ravska_core.catalogue import catalogue

    if brought.kind:
        return brought.kind
    grinds = [item.grind for line in brought.lines for item in line.items if item.grind]
    known = catalogue().grinds
    wet = any(known[grind].ingredient.water > 0.4 for grind in grinds)
    fat = any(known[grind].ingredient.family == "fat" for grind in grinds)
    return "marinade" if wet else "paste" if fat else DRY_KINDS[0]


def measure_names(owned: SpoonSet) -> list[str]:
    """Return every measure that a list may use, for help on the screen."""
    return sorted({measure.said for measure in measures(owned).values()})

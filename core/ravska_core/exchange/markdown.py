"""Blends as Markdown."""

import re
from collections.abc import Mapping
from dataclasses import replace

from markdown_it import MarkdownIt

from ravska_core.blend import KINDS, Blend
from ravska_core.exchange.forms import LONGEST_FILE, Brought, beside, check_length, exact_beside, mass_of, on_paper
from ravska_core.exchange.items import ListLine
from ravska_core.exchange.lists import read_list
from ravska_core.measure import SPOON_SETS, SpoonSet
from ravska_core.working import BadInput


def _escaped(text: str) -> str:
    return re.sub(r"([\\`*_{}\[\]<>#|])", r"\\\1", text)


_EXACT = re.compile(r"<!-- exact ratio of Ravska: (.*) -->", re.DOTALL)


def write_markdown(blend: Blend, owned: SpoonSet = SPOON_SETS["us"], exact: str = "") -> str:
    """Return a blend as Markdown: its name, kind and batch, a list of ingredients, numbered steps.

    What it is exactly lies in a comment at its end.
    """
    paper = on_paper(blend, owned)
    entries = [line.text for line in paper.lines]
    text = [f"# {_escaped(paper.name)}", "", f"*{blend.kind}, {paper.makes}*", "", "## Ingredients", ""]
    text += [f"- {_escaped(entry)}" for entry in entries]
    text += ["", "## Method", "", *(f"{at}. {_escaped(step)}" for at, step in enumerate(paper.steps, 1))]
    if exact:
        # two hyphens would end the comment, so they are written as JSON may write them
        held = beside(exact, paper, entries).replace("--", "-\\u002d")
        text += ["", f"<!-- exact ratio of Ravska: {held} -->"]
    return "\n".join(text) + "\n"


_METHOD = re.compile(r"method|instruction|direction|preparation|steps?|zubereitung|how to", re.IGNORECASE)


def from_markdown(text: str, owned: SpoonSet, blends: Mapping[str, str]) -> Brought:

    if len(text) > LONGEST_FILE // 4:
        raise BadInput("text", f"That is more than {LONGEST_FILE // 4000} kB, too much for a recipe in Markdown.")
    comment = _EXACT.search(text)
    text, held = (text[: comment.start()], comment[1]) if comment else (text, "")
    try:
        tokens = MarkdownIt("commonmark", {"maxNesting": 20}).enable("table").parse(text)
    except RecursionError:
        raise BadInput("text", "Line 1, column 1: this Markdown is nested too deep for a recipe.") from None
    name = kind = batch = makes = ""
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
                    kind, batch, makes = said[1], mass_of(said[2]), said[2]
                else:
                    remarks += ((at + n, part) for n, part in enumerate(content.split("\n")) if part.strip())
        elif token.type in ("fence", "code_block", "html_block"):
            at = (token.map or [0])[0] + 1
            remarks += ((at + n, part) for n, part in enumerate(token.content.split("\n")) if part.strip())
    if not entries:  # no list at all: every line may be an ingredient
        entries, remarks = [r for r in remarks if not r[1].endswith(":")], [r for r in remarks if r[1].endswith(":")]
    check_length([entry for _, entry in entries])
    lines: list[ListLine] = []
    for at, entry in entries:
        lines += (replace(line, number=at) for line in read_list(entry, owned, blends))
    lines += (ListLine(at, remark, "heading" if remark.endswith(":") else "remark") for at, remark in remarks)
    exact, why = exact_beside(held, [*(entry for _, entry in entries), *steps, makes])
    found = tuple(sorted(lines, key=lambda x: x.number))
    return Brought("markdown", name[:80], kind, batch, found, tuple(steps), (why,) if why else (), exact)

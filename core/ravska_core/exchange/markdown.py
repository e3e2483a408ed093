"""Blends as Markdown."""

import re
from collections.abc import Mapping
from dataclasses import replace

from markdown_it import MarkdownIt

from ravska_core.blend import KINDS, Blend
from ravska_core.exchange.forms import (
    LONGEST_FILE,
    Brought,
    batch_words,
    check_length,
    ingredient_lines,
    mass_of,
    step_lines,
)
from ravska_core.exchange.items import ListLine
from ravska_core.exchange.lists import read_list
from ravska_core.measure import SpoonSet
from ravska_core.working import BadInput


def write_markdown(blend: Blend, written: str = "parts") -> str:
    """Return a blend as Markdown: its name, kind and batch, a list of ingredients, numbered steps."""
    name = re.sub(r"([\\`*_{}\[\]<>#|])", r"\\\1", blend.name)
    text = [f"# {name}", "", f"*{blend.kind}, {batch_words(blend)}*", "", "## Ingredients", ""]
    text += [f"- {line}" for line in ingredient_lines(blend, written)]
    if blend.method:
        text += ["", "## Method", "", *(f"{at}. {step}" for at, step in enumerate(step_lines(blend), 1))]
    return "\n".join(text) + "\n"


_METHOD = re.compile(r"method|instruction|direction|preparation|steps?|zubereitung|how to", re.IGNORECASE)


def from_markdown(text: str, owned: SpoonSet, blends: Mapping[str, str]) -> Brought:

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
                    kind, batch = said[1], mass_of(said[2])
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
    return Brought("markdown", name[:80], kind, batch, tuple(sorted(lines, key=lambda x: x.number)), tuple(steps), ())

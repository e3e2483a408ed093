"""What every form of a blend on paper shares."""

import json
import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ravska_core.blend import Blend, parts_of, say_step
from ravska_core.exchange.items import ListLine
from ravska_core.exchange.lists import LONGEST_TEXT, MOST_LIST_LINES
from ravska_core.exchange.words import SIEVED
from ravska_core.working import BadInput, say

FORMATS = ("list", "jsonld", "csv", "markdown")

LONGEST_FILE = 400_000


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


def said_number(value: float) -> str:
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


def batch_words(blend: Blend) -> str:
    return f"{said_number(blend.batch_g)} g"


def check_length(entries: Sequence[str]) -> None:
    if len(entries) > MOST_LIST_LINES or sum(map(len, entries)) > LONGEST_TEXT:
        raise BadInput("text", f"That is too much for one recipe; it may hold {MOST_LIST_LINES} ingredients.")


def where_in(lines: Sequence[ListLine], entries: Sequence[str], text: str) -> tuple[ListLine, ...]:
    """Return lines numbered as they stand in the file they came from."""
    found, at = [], 0
    for line in lines:
        entry = json.dumps(entries[line.number - 1], ensure_ascii=False)[1:-1]
        place = text.find(entry, at)
        at = place if place >= 0 else at
        found.append(replace(line, number=text.count("\n", 0, at) + 1))
    return tuple(found)


def mass_of(text: str) -> str:
    """Return a yield that is a weight, as text, or nothing."""
    found = re.search(r"\d+(?:[.,]\d+)?\s*(?:kg|g|oz|lb)\b", text)
    return found[0] if found else ""

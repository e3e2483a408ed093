"""What every form of a blend on paper shares."""

import json
import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType

from ravska_core.blend import Blend, BlendReading, Line, parts_of, read_blend, say_step, usual_steps
from ravska_core.exchange.items import ListLine
from ravska_core.exchange.lists import LONGEST_TEXT, MOST_LIST_LINES
from ravska_core.exchange.words import SIEVED
from ravska_core.measure import SPOON_SETS, SpoonSet, measure_out
from ravska_core.working import BadInput, say

FORMATS = ("list", "jsonld", "csv", "markdown")

LONGEST_FILE = 400_000


@dataclass(frozen=True)
class Brought:
    """What a text or file holds: a name and kind as far as it says, its lines, its steps, and remarks to show.

    `exact` is what one that Ravska wrote carries beside its text, where that still stands as it was written.
    """

    format: str
    name: str
    kind: str
    batch: str
    lines: tuple[ListLine, ...]
    steps: tuple[str, ...]
    notes: tuple[str, ...]
    exact: str = ""


# taking out

PORTIONS = MappingProxyType(
    {
        **dict.fromkeys(("dry rub", "finishing salt"), ("tsp", 1.0)),
        **dict.fromkeys(("paste", "binder", "glaze"), ("tbsp", 1.0)),
        **dict.fromkeys(("marinade", "injection", "spritz", "cooking liquid"), ("cup", 0.25)),
    }
)
"""What a portion of a kind of blend is said to be (common practice, no source)."""


@dataclass(frozen=True)
class PaperLine:
    """A line on paper: how much as it is taken, of what, and the same the other way."""

    amount: str
    name: str
    also: str

    @property
    def text(self) -> str:
        return f"{self.amount} {self.name}" + (f" ({self.also})" if self.also else "")


@dataclass(frozen=True)
class Paper:
    """A blend as a cook would write it: name, what it makes, each line as spoons, name and grams, steps, a portion."""

    name: str
    makes: str
    lines: tuple[PaperLine, ...]
    steps: tuple[str, ...]
    portion: str
    portion_g: float
    reading: BlendReading | None


def said_number(value: float) -> str:
    return say(value, 4)


def on_paper(blend: Blend, owned: SpoonSet = SPOON_SETS["us"]) -> Paper:
    """Return a blend as it goes out: spoons and grams of the batch, steps that are never none, a portion, a name."""
    reading = _reading(blend)
    names = [part.name for part in parts_of(blend.lines)] if blend.lines else []
    lines = []
    if reading is not None:
        for line, part, name, shown in zip(blend.lines, parts_of(blend.lines), names, reading.lines, strict=True):
            if line.blend is not None:
                name = f"{SIEVED} “{line.blend.name}”" if line.held else f"“{line.blend.name}”"
            lines.append(_paper_line(line, name, shown.mass.value, part.density_g_ml, owned))
    method = blend.method or (usual_steps(blend.kind, [part.leaves for part in parts_of(blend.lines)]) if names else ())
    steps = [say_step(step, names) for step in method]
    portion, portion_g = _portion(blend.kind, reading, owned)
    makes = f"{said_number(blend.batch_g)} g"
    return Paper(
        blend.name or blend.kind.capitalize(), makes, tuple(lines), tuple(steps or ["Mix everything well."]), portion,
        portion_g, reading,
    )  # fmt: skip


def _reading(blend: Blend) -> BlendReading | None:
    if not blend.lines:
        return None
    try:
        return read_blend(blend)
    except BadInput:
        # what its method asks for cannot be done; what goes in is known all the same
        return read_blend(replace(blend, method=()))


def _paper_line(line: Line, name: str, mass_g: float, density_g_ml: float, owned: SpoonSet) -> PaperLine:
    grams = f"{say(mass_g, 3)} g"
    found = measure_out(mass_g / density_g_ml, owned)
    spoons = found.text if found.count else ""
    about = "about " if line.error else ""
    if line.basis == "spoon" and spoons:
        return PaperLine(about + spoons, name, grams)
    return PaperLine(about + grams, name, spoons)


def _portion(kind: str, reading: BlendReading | None, owned: SpoonSet) -> tuple[str, float]:
    spoon, count = PORTIONS[kind]
    volume = count * next(one.volume_ml for one in (*owned.spoons, *SPOON_SETS["us"].spoons) if one.name == spoon)
    grams = volume * (reading.density_g_ml if reading is not None else 1.0)
    return f"{'¼' if count < 1 else '1'} {spoon} ({say(grams, 2)} g)", grams


def beside(exact: str, paper: Paper, entries: Sequence[str]) -> str:
    """Return what goes beside a text: the exact blend, and the text it is of, so that a change of that is seen."""
    return json.dumps({"of": [*entries, *paper.steps, paper.makes], "exact": exact}, ensure_ascii=False)


def exact_beside(found: str, said: Sequence[str]) -> tuple[str, str]:
    """Return the exact blend that came beside a text that still says the same, or a note why it does not count."""
    if not found:
        return "", ""
    try:
        held = json.loads(found)
        of, exact = held["of"], held["exact"]
    except (ValueError, KeyError, TypeError, RecursionError):
        return "", "The exact ratio that came with this is damaged; it is read from its text."
    if not isinstance(exact, str) or of != list(said):
        return "", "The text was changed since it was written out, so it is read from the text, by spoons and grams."
    return exact, ""


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

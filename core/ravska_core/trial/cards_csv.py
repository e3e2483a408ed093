"""Cards as CSV, out and in: a row for each plate of each taster."""

import csv
import io
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from types import MappingProxyType

from ravska_core.trial.tasting import FACE_SCALE, LIKING_SCALES, LONGEST_WORD, MOST_CARDS, RANK_SCALE, RIGHT_SCALES
from ravska_core.working import BadInput

SCALES = (RANK_SCALE, *LIKING_SCALES, *RIGHT_SCALES, FACE_SCALE)
COLUMNS = ("taster", "plate", "place", "prefers", "odd", "guess", *SCALES, "words", "child")
"""The columns of cards; all but taster and plate may be left out or empty."""

MOST_ROWS = 8 * MOST_CARDS
_FORMULA = ("=", "+", "-", "@")
_YES: Mapping[str, bool] = MappingProxyType(
    {"": False, "0": False, "no": False, "x": True, "1": True, "yes": True, "true": True}
)


@dataclass
class PaperCard:
    """A card from a file: who, the plates in their order, what it says of each, and where that stands.

    `at` gives line and column [both from 1 on] for a path into the card, such as ``prefers`` or ``scores.3``.
    """

    taster: str
    line: int
    served: list[str] = field(default_factory=list)
    places: list[int] = field(default_factory=list)
    scores: list[tuple[str, str, int]] = field(default_factory=list)
    words: list[tuple[str, list[str]]] = field(default_factory=list)
    prefers: str | None = None
    odd: str | None = None
    guess: str | None = None
    short: bool = False
    at: dict[str, tuple[int, int]] = field(default_factory=dict)

    def order(self) -> list[str]:
        """Return its plates in the order they were served; as they stand where no place is given."""
        if 0 in self.places or len(set(self.places)) < len(self.places):
            return []
        return [code for _, code in sorted(zip(self.places, self.served, strict=True))]


@dataclass(frozen=True)
class CardFault:
    """What of a file cannot be read: its line and column, both from 1 on, and why."""

    line: int
    column: int
    sentence: str


def _cell(text: str) -> str:
    """Return a cell that no spreadsheet takes for a formula."""
    return f"'{text}" if text.startswith(_FORMULA) else text


def write_cards(cards: Iterable[PaperCard], pieces: Mapping[str, str]) -> str:
    """Write cards; `pieces` names what is on a plate by its code, once that is told."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow([*COLUMNS, *(["piece"] if pieces else [])])
    for card in cards:
        scores = {(code, scale): value for code, scale, value in card.scores}
        said = dict(card.words)
        for place, code in enumerate(card.served, 1):
            row = [_cell(card.taster), code, place]
            row += ["x" if one == code else "" for one in (card.prefers, card.odd, card.guess)]
            row += [scores.get((code, scale), "") for scale in SCALES]
            row += [_cell("; ".join(said.get(code, []))), "x" if card.short else ""]
            writer.writerow(row + ([_cell(pieces[code])] if pieces else []))
    return out.getvalue()


def read_cards(text: str) -> tuple[list[PaperCard], list[CardFault]]:
    """Read cards: those whose every row can be, and of the others why not, by line and column.

    Raises
    ------
    BadInput
        At ``text`` for what has no head with taster and plate, or more rows than are taken at once.
    """
    lines = text.removeprefix("\ufeff").splitlines()
    if not lines:
        raise BadInput("text", "That file is empty.")
    parts = max(",;\t", key=lines[0].count)
    reader = csv.reader(iter(lines), delimiter=parts, strict=True)
    head = [name.strip().lower() for name in next(reader)]
    column = {name: at for at, name in enumerate(head)}
    if "taster" not in column or "plate" not in column:
        raise BadInput("text", f"Line 1 names the columns: {', '.join(COLUMNS)}; taster and plate at least.")
    cards: dict[str, PaperCard] = {}
    faults: list[CardFault] = []
    for line, cells in _rows(reader, faults):
        if line > MOST_ROWS + 1:
            raise BadInput("text", f"At most {MOST_CARDS} cards at once; send the file in parts.")
        _read_row(line, cells, column, cards, faults)
    wrong = {fault.line for fault in faults}
    return [card for card in cards.values() if not wrong & {line for line, _ in card.at.values()}], faults


def _rows(reader: Iterator[list[str]], faults: list[CardFault]) -> Iterable[tuple[int, list[str]]]:
    while True:
        line = getattr(reader, "line_num", 0) + 1
        try:
            cells = next(reader)
        except StopIteration:
            return
        except csv.Error:
            faults.append(CardFault(line, 1, "This line cannot be read as CSV; look at its quotation marks."))
            return
        if any(cell.strip() for cell in cells):
            yield line, cells


def _read_row(
    line: int, cells: Sequence[str], column: Mapping[str, int], cards: dict[str, PaperCard], faults: list[CardFault]
) -> None:
    def cell(name: str) -> str:
        at = column.get(name, len(cells))
        text = cells[at].strip() if at < len(cells) else ""
        return text[1:] if text.startswith("'") and text[1:].startswith(_FORMULA) else text

    def place_of(name: str) -> tuple[int, int]:
        return line, column.get(name, 0) + 1

    def fault(name: str, sentence: str) -> None:
        faults.append(CardFault(*place_of(name), sentence))

    taster, code = cell("taster")[:40], cell("plate")
    if not taster:
        fault("taster", "Say who tasted: a nickname.")
    if not (len(code) == 3 and code.isdigit()):
        fault("plate", "Write the three digits of the plate, such as 417.")
    card = cards.setdefault(taster.lower(), PaperCard(taster, line))
    card.at.setdefault("taster", place_of("taster"))
    card.at[f"line {line}"] = place_of("plate")
    if code in card.served:
        fault("plate", f"Plate {code} stands twice on this card.")
    card.served.append(code)
    card.at[f"plate {code}"] = place_of("plate")
    card.places.append(int(cell("place")) if cell("place").isdigit() else 0)
    for name in ("prefers", "odd", "guess"):
        if cell(name).lower() not in _YES:
            fault(name, "Mark the plate with x, or leave it empty.")
        elif _YES[cell(name).lower()]:
            if getattr(card, name) is not None:
                fault(name, "Only one plate of a card can have this mark.")
            setattr(card, name, code)
            card.at[name] = place_of(name)
    if cell("child").lower() not in _YES:
        fault("child", "Mark a child’s card with x, or leave it empty.")
    card.short |= _YES.get(cell("child").lower(), False)
    for scale in SCALES:
        if not cell(scale):
            continue
        if not cell(scale).isdigit() or not 1 <= int(cell(scale)) <= 9:
            fault(scale, f"Write {scale} as a whole number from 1 on, or leave it empty.")
            continue
        card.at[f"scores.{len(card.scores)}"] = place_of(scale)
        card.scores.append((code, scale, int(cell(scale))))
    words = [word.strip() for word in cell("words").replace(",", ";").split(";") if word.strip()]
    if any(len(word) > LONGEST_WORD for word in words):
        fault("words", f"Part words by semicolons; one has at most {LONGEST_WORD} letters.")
    elif words:
        card.at[f"words.{len(card.words)}"] = place_of("words")
        card.words.append((code, words))

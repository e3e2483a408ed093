"""Readings as CSV, out and in: moment, what was measured, of which piece, by what, temperature [°C]."""

import csv
import io
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, tzinfo
from itertools import islice
from types import MappingProxyType

from ravska_core.fire.taps import MEASURES, SPOTS
from ravska_core.working import BadInput, in_range

COLUMNS = ("at", "measured", "piece", "probe", "celsius")
BY_HAND = "by hand"

MOST_ROWS, MOST_REFUSED = 20_000, 50
"""So many rows are read at once, and so many refusals told."""

_FORMULA = ("=", "+", "-", "@")
_LOWEST_C, _HIGHEST_C = -60.0, 700.0
_AS_C: Mapping[str, Callable[[float], float]] = MappingProxyType(
    {
        "celsius": lambda value: value,
        "fahrenheit": lambda value: (value - 32) / 1.8,
    }
)


@dataclass(frozen=True)
class ReadRow:
    """A reading from a file: when, what it measured, of which piece, by what, and its temperature [°C]."""

    at: datetime
    measured: str
    letter: str
    probe: str
    celsius: float


@dataclass(frozen=True)
class RowFault:
    """What cannot be read: its line and its column, both from 1 on, and why."""

    line: int
    column: int
    sentence: str


def write_readings(rows: Iterable[ReadRow]) -> str:
    """Write readings, with a head that says what each column is."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    for row in rows:
        # a spreadsheet would take some names for a formula
        probe = f"'{row.probe}" if row.probe.startswith(_FORMULA) else row.probe
        writer.writerow([row.at.isoformat(), row.measured, row.letter, probe, row.celsius])
    return out.getvalue()


def read_readings(
    text: str, letters: Sequence[str], zone: tzinfo | None = None, first_line: int = 2
) -> tuple[list[ReadRow], list[RowFault]]:
    """Read readings: rows that can be, and of those that cannot why, by line and column.

    Parameters
    ----------
    text : str
        A head, then a row a reading; parted by commas, semicolons or tabs. Columns `at` and `celsius` or `fahrenheit`
        must be there.
    letters : sequence of str
        The cook's pieces.
    zone : tzinfo
        Whose clock a time without an offset is of.
    first_line : int
        The number of the first row's line, where a long file comes in parts.

    Raises
    ------
    BadInput
        At ``text`` for what has no such head, or more rows than are taken at once.
    """
    lines = text.removeprefix("\ufeff").splitlines()
    if not lines:
        raise BadInput("text", "That file is empty.")
    parts = max(",;\t", key=lines[0].count)
    reader = csv.reader(iter(lines), delimiter=parts)
    head = [name.strip().lower() for name in next(reader)]
    column = {name: at for at, name in enumerate(head)}
    scale = next((name for name in _AS_C if name in column), "")
    if "at" not in column or not scale:
        raise BadInput("text", f"Line 1 names the columns: {', '.join(COLUMNS)}; at and celsius at least.")
    found, faults = list[ReadRow](), list[RowFault]()
    for row in islice(_rows(reader, first_line, faults), MOST_ROWS + 1):
        if len(found) + len(faults) >= MOST_ROWS:
            raise BadInput("text", f"At most {MOST_ROWS} readings at once; send the file in parts.")
        line, cells = row
        try:
            found.append(_read(cells, column, scale, letters, zone))
        except BadInput as bad:
            faults.append(RowFault(line, column.get(bad.argument, 0) + 1, bad.sentence))
    return found, faults


def _rows(reader: Iterator[list[str]], first_line: int, faults: list[RowFault]) -> Iterator[tuple[int, list[str]]]:
    while True:
        line = getattr(reader, "line_num", 0) - 1 + first_line
        try:
            cells = next(reader)
        except StopIteration:
            return
        except csv.Error:
            faults.append(RowFault(line, 1, "This line cannot be read as CSV; look at its quotation marks."))
            return
        if any(cell.strip() for cell in cells):
            yield line, cells


def _read(
    cells: Sequence[str], column: Mapping[str, int], scale: str, letters: Sequence[str], zone: tzinfo | None
) -> ReadRow:
    def cell(name: str) -> str:
        at = column.get(name, len(cells))
        return cells[at].strip() if at < len(cells) else ""

    letter, measured = cell("piece").upper(), cell("measured").lower()
    measured = measured or ("centre" if letter else "pit")
    if measured not in (*MEASURES, *SPOTS, "spot"):
        raise BadInput("measured", f"Measured is one of {', '.join((*MEASURES, *SPOTS))}.")
    if measured in ("centre", "surface") and letter not in letters:
        raise BadInput("piece", f"Say of which piece: {', '.join(letters)}.")
    return ReadRow(
        _moment(cell("at"), zone), measured, letter if letter in letters else "", _plain(cell("probe"))[:30] or "file",
        _degrees(cell(scale), scale),
    )  # fmt: skip


def _plain(probe: str) -> str:
    return probe[1:] if probe.startswith("'") and probe[1:].startswith(_FORMULA) else probe


def _moment(said: str, zone: tzinfo | None) -> datetime:
    try:
        at = datetime.fromisoformat(said)
    except ValueError:
        raise BadInput("at", "Write the time as 2027-06-12T14:05:00+02:00.") from None
    if at.tzinfo is not None:
        return at
    if zone is None:
        raise BadInput("at", "Write the time with its offset, as 2027-06-12T14:05:00+02:00.")
    first, second = at.replace(tzinfo=zone, fold=0), at.replace(tzinfo=zone, fold=1)
    if first.utcoffset() != second.utcoffset():
        raise BadInput("at", "The clocks were changed in this hour; write the time with its offset, as +01:00.")
    return first


def _degrees(said: str, scale: str) -> float:
    try:
        value = _AS_C[scale](float(said.replace(",", ".")))
    except ValueError:
        raise BadInput(scale, "Write the temperature as a number, for example 71.5.") from None
    in_range(scale, value, _LOWEST_C, _HIGHEST_C, "A probe shows between -60 and 700 °C; check the column.")
    return round(value, 2)

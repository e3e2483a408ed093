"""A row of a table, read cell by cell; what cannot be is refused with its file, line and column."""

import csv
import math
from collections.abc import Callable, Mapping
from types import MappingProxyType
from typing import TypeVar


class CatalogueError(ValueError):
    """A catalogue row that cannot be right: says file, line and column."""

    def __init__(self, file: str, line: int, column: str, problem: str) -> None:
        super().__init__(f"{file}, line {line}, column {column}: {problem}")
        self.file, self.line, self.column = file, line, column


class Row:
    """One row of a table being read, with accessors that name the column in what they refuse."""

    def __init__(self, file: str, line: int, cells: dict[str, str | None]) -> None:
        self.file, self.line, self.cells = file, line, cells

    def refuse(self, column: str, problem: str) -> CatalogueError:
        return CatalogueError(self.file, self.line, column, problem)

    def text(self, column: str, one_of: tuple[str, ...] | Mapping[str, object] | None = None) -> str:
        value = (self.cells.get(column) or "").strip()
        if one_of is not None and value not in one_of:
            raise self.refuse(column, f"“{value}” is none of {', '.join(sorted(one_of))}")
        return value

    def required(self, column: str) -> str:
        value = self.text(column)
        if not value:
            raise self.refuse(column, "must not be empty")
        return value

    def number(self, column: str, low: float, high: float) -> float:
        text = self.required(column)
        try:
            value = float(text)
        except ValueError:
            raise self.refuse(column, f"“{text}” is not a number") from None
        if not (math.isfinite(value) and low <= value <= high):
            raise self.refuse(column, f"{text} lies outside {low:g} to {high:g}")
        return value

    def words(self, column: str, one_of: tuple[str, ...] | None = None) -> tuple[str, ...]:
        words = tuple(word.strip() for word in self.text(column).split(";") if word.strip())
        for word in words:
            if one_of is not None and word not in one_of:
                raise self.refuse(column, f"“{word}” is none of {', '.join(one_of)}")
        return words


Record = TypeVar("Record")


Key = TypeVar("Key")


def read_rows(
    file: str, text: str, build: Callable[[Row], Record], key: Callable[[Record], Key]
) -> MappingProxyType[Key, Record]:
    reader = csv.DictReader(text.splitlines())
    columns = reader.fieldnames or []
    records: dict[Key, Record] = {}
    for cells in reader:
        row = Row(file, reader.line_num, cells)
        if None in cells or None in cells.values():
            raise row.refuse(columns[-1] if columns else "?", f"the row must have {len(columns)} cells")
        record = build(row)
        if key(record) in records:
            raise row.refuse(columns[0], f"{key(record)} stands here twice")
        records[key(record)] = record
    return MappingProxyType(records)

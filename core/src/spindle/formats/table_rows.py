"""Rows of a sheet's tables in JSON and CSV: checked cell by cell, each mistake with its place."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Mapping
from typing import Final

from spindle.drives.tables import TABLES, Column, Row, Table
from spindle.errors import CaseError
from spindle.formats.place import Place, is_unfit, is_within, kind_of
from spindle.words.bounds import CONTENT_HASH

MAX_ROWS: Final = 200
MAX_CELL: Final = 300
FORMULA_STARTS: Final = ("=", "+", "-", "@", "\t", "\r")
"""A text cell that begins so would be run as a formula by a spreadsheet; it is refused wherever it comes from."""


def read_tables(value: object, place: str, known: Mapping[str, Table] = TABLES) -> dict[str, tuple[Row, ...]]:
    """Return the tables of a sheet, a drive's or (``known``) a console's; a table that is not there is empty.

    Raises
    ------
    CaseError
        At the first cell that is wrong, a row that is named twice, or limits the wrong way round.
    """
    tables = Place(value, place, known)
    return {name: read_rows(table, tables.items(name, lambda row, _: row), tables.at(name)) for name, table in known.items() if name in tables}


def read_rows(table: Table, rows: Iterable[object], place: str, *, most: int = MAX_ROWS) -> tuple[Row, ...]:
    """Return the checked rows of one table.

    Raises
    ------
    CaseError
        At the first cell that is wrong, at a row that is named twice, or past ``most`` rows.
    """
    found: list[Row] = []
    seen: dict[tuple[object, ...], int] = {}
    for n, value in enumerate(rows):
        if n >= most:
            raise CaseError(place, f"more than {most} rows")
        row = _row(table, value, f"{place}/{n}")
        key = tuple(row[k] for k in table.key)
        if key in seen:
            raise CaseError(f"{place}/{n}", f"the same {' and '.join(table.key)} as row {seen[key]}: {', '.join(map(str, key))}")
        seen[key] = n
        found.append(row)
    return tuple(found)


def _row(table: Table, value: object, place: str) -> Row:
    row = Place(value, place, [c.id for c in table.columns])
    read = {c.id: _cell(c, row.raw(c.id) if c.id in row else _absent(c, row), row.at(c.id)) for c in table.columns}
    _check_bands(table, read, row)
    for low, high in (*table.ordered, *table.bands):
        if read[low] is not None and float(str(read[low])) > float(str(read[high])):
            raise CaseError(row.at(high), f"is below {low} ({read[low]} > {read[high]})")
    return read


def _check_bands(table: Table, read: Row, row: Place) -> None:
    """Refuse half a band, and a row that has none of those that its table knows."""
    for low, high in table.bands:
        if (read[low] is None) is not (read[high] is None):
            missing, there = (low, high) if read[low] is None else (high, low)
            raise CaseError(row.at(missing), f"is missing: a band has both ends, and there is {there}")
    if table.bands and all(read[low] is None for low, _ in table.bands):
        ways = " or ".join(f"{low} with {high}" for low, high in table.bands)
        raise CaseError(row.at(table.bands[0][0]), f"is missing: a row needs {ways}")


def _absent(column: Column, row: Place) -> object:
    if column.kind == "flag":
        return False
    if not column.optional:
        raise CaseError(row.at(column.id), "is missing")
    return None


def _cell(column: Column, value: object, place: str) -> object:
    if value is None and column.optional:
        return None
    if column.kind == "flag":
        if not isinstance(value, bool):
            raise CaseError(place, f"expected true or false, got {kind_of(value)}")
        return value
    if column.kind in ("number", "count"):
        return _number(column, value, place)
    if not isinstance(value, str):
        raise CaseError(place, f"expected a text, got {kind_of(value)}")
    return _text(column, value, place)


def _number(column: Column, value: object, place: str) -> float | int:
    if isinstance(value, bool) or not isinstance(value, int | float) or not is_within(value, column.low, column.high):
        unit = f" {column.unit}" if column.unit else ""
        raise CaseError(place, f"expected a number from {column.low:g} to {column.high:g}{unit}, got {kind_of(value)}")
    if column.kind == "count":
        if value != int(value):
            raise CaseError(place, f"expected a whole number, got {value}")
        return int(value)
    return float(value)


def _text(column: Column, value: str, place: str) -> str:
    if column.choices:
        if value not in column.choices:
            raise CaseError(place, f"{value!r} is none of {', '.join(column.choices)}")
        return value
    if column.kind == "picture":
        if not re.fullmatch(CONTENT_HASH, value):
            raise CaseError(place, "is no picture: it is named by the 64 digits and letters, a to f, that its content makes")
        return value
    if value != value.strip() or not value:
        raise CaseError(place, "is empty, or has blanks around it")
    if len(value) > MAX_CELL or is_unfit(value) or any(ord(c) < 32 for c in value):
        raise CaseError(place, f"longer than {MAX_CELL} characters, or with control characters in it")
    if value.startswith(FORMULA_STARTS):
        raise CaseError(place, f"begins with {value[0]!r}: a spreadsheet would run that as a formula; write it another way")
    return value


def write_tables(tables: Mapping[str, tuple[Row, ...]]) -> dict[str, list[dict[str, object]]]:
    """Return the JSON of the tables, without empty cells; :func:`read_tables` gives them back."""
    return {name: [{k: v for k, v in row.items() if v is not None} for row in rows] for name, rows in tables.items() if rows}


def write_csv(table: Table, rows: Iterable[Row]) -> str:
    """Return one table as CSV, its column ids on the first line; flags are yes and no."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([c.id for c in table.columns])
    writer.writerows([[_cell_text(row[c.id]) for c in table.columns] for row in rows])
    return out.getvalue()


def _cell_text(value: object) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return "" if value is None else repr(value) if isinstance(value, float) else str(value)


def read_csv(table: Table, text: str, *, most: int = MAX_ROWS) -> tuple[Row, ...]:
    """Return the rows of one table from CSV.

    Raises
    ------
    CaseError
        With the line and the column of the first mistake.
    """
    columns = {c.id: c for c in table.columns}
    reader = csv.reader(io.StringIO(text), strict=True)
    try:
        lines = [(reader.line_num, cells) for cells in reader if cells]
    except csv.Error as error:
        raise CaseError(f"line {reader.line_num}", f"is no CSV: {error}") from error
    if not lines:
        raise CaseError("line 1", f"the first line names the columns: {','.join(columns)}")
    head = lines[0][1]
    missing = [c.id for c in table.columns if c.id not in head and not c.optional and c.kind != "flag"]  # a file from before a column was there still reads
    if missing or len(set(head)) < len(head) or not columns.keys() >= set(head):
        raise CaseError("line 1", f"the columns have to be {','.join(columns)}; got {','.join(head)[:MAX_CELL]}")
    rows = []
    for number, cells in lines[1:]:
        if len(cells) != len(head):
            raise CaseError(f"line {number}", f"has {len(cells)} cells, the first line {len(head)}")
        rows.append({name: _typed(columns[name], cell, f"line {number}, {name}") for name, cell in zip(head, cells, strict=True) if cell})
    places = [number for number, _ in lines[1:]]
    try:
        return read_rows(table, rows, "", most=most)
    except CaseError as error:
        _, *at = error.place.split("/")
        if not at:
            raise CaseError("the file", error.message.removeprefix(": ")) from error
        row, *column = at
        raise CaseError(", ".join([f"line {places[int(row)]}", *column]), error.message.removeprefix(f"{error.place}: ")) from error


def _typed(column: Column, cell: str, place: str) -> object:
    if column.kind == "flag":
        if cell not in ("yes", "no"):
            raise CaseError(place, f"expected yes or no, got {cell[:40]!r}")
        return cell == "yes"
    if column.kind in ("number", "count"):
        try:
            return float(cell)
        except ValueError:
            raise CaseError(place, f"expected a number with a decimal point, got {cell[:40]!r}") from None
    return cell


def harmless(value: object) -> object:
    """Return a cell as it may go out to a spreadsheet: text that would be run as a formula begins with an apostrophe.

    >>> harmless("=1+1"), harmless(-3.5)
    ("'=1+1", -3.5)
    """
    return f"'{value}" if isinstance(value, str) and value.startswith(FORMULA_STARTS) else value

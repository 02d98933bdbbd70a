"""A console's sheet as a file: versioned JSON, refused as a whole at its first mistake."""

from __future__ import annotations

from typing import Any, Final

from spindle.bench.opening.steps import read_opening
from spindle.drives.console_sheet import ConsoleSheet
from spindle.drives.tables import CONSOLE_TABLES
from spindle.errors import CaseError, SheetError
from spindle.formats.place import Place
from spindle.formats.sheet_file import check_head, read_name
from spindle.formats.table_rows import read_tables, write_tables

FORMAT: Final = "tidy-spindle-console"
VERSION: Final = 1


def read_console(value: object) -> ConsoleSheet:
    """Return the console's sheet of a JSON object.

    Raises
    ------
    SheetError
        With the place of the first mistake.
    """
    try:
        return _console(value)
    except CaseError as error:
        raise SheetError(error.place, error.message.removeprefix(f"{error.place}: ")) from error


def _console(value: object) -> ConsoleSheet:
    sheet = Place(value, "", ("format", "version", "maker", "console", "revision", "tables"))
    check_head(sheet, FORMAT, VERSION)
    maker, console, revision = (read_name(sheet.text(name), f"/{name}") for name in ("maker", "console", "revision"))
    tables = read_tables(sheet.pairs("tables"), "/tables", CONSOLE_TABLES)
    read_opening({}, tables)
    return ConsoleSheet(maker, console, revision, tables)


def write_console(sheet: ConsoleSheet) -> dict[str, Any]:
    """Return the JSON object of a console's sheet; :func:`read_console` gives the same back."""
    own = {"maker": sheet.maker, "console": sheet.console, "revision": sheet.revision, "tables": write_tables(sheet.tables)}
    return {"format": FORMAT, "version": VERSION, **own}

"""Reading what is known of consoles outside their drive, and how a unit is opened by both sheets."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from apps.drives.models import Console, Layer, Sheet
from apps.drives.selectors import _called, _compiled, _full, _named, full_sheet
from django.db.models import Subquery
from spindle.bench.opening.steps import Opening, read_opening
from spindle.drives.console_sheet import ConsoleSheet
from spindle.drives.tables import CONSOLE_TABLES, pictures_in
from spindle.errors import NotFoundError
from spindle.formats.console_file import FORMAT, VERSION, read_console
from spindle.formats.table_rows import write_csv

Named = tuple[str, str, str]
"""Maker, console and revision: what names a console's sheet."""


def current_console(named: Named) -> Console | None:
    """Return the newest version of a console's sheet, None if nobody has written one."""
    maker, console, revision = named
    return Console.objects.select_related("by").filter(maker=maker, console=console, revision=revision, is_current=True).first()


def console_of(named: Named) -> Console:
    """Return the newest version of a console's sheet, or raise NotFoundError."""
    found = current_console(named)
    if found is None:
        raise NotFoundError(f"There is no sheet of the console {' '.join(named)}.")
    return found


def document_of(found: Console) -> dict[str, Any]:
    """Return a console's sheet as the JSON object of its format."""
    return {"format": FORMAT, "version": VERSION, "maker": found.maker, "console": found.console, "revision": found.revision, "tables": found.tables}


@lru_cache(maxsize=256)
def console_sheet(pk: int) -> ConsoleSheet:
    """Return a version of a console's sheet as the rules read it. It never changes, so it may be kept."""
    return read_console(document_of(Console.objects.get(pk=pk)))


def console_csv(named: Named, table: str) -> str:
    """Return one table of a console's newest sheet as CSV, or raise NotFoundError."""
    if table not in CONSOLE_TABLES:
        raise NotFoundError(f"There is no table {table!r}; there are {', '.join(CONSOLE_TABLES)}.")
    return write_csv(CONSOLE_TABLES[table], console_sheet(console_of(named).pk).tables.get(table, ()))


def forget_sheets() -> None:
    """Forget what was read of sheets: for a database whose numbers begin anew."""
    for kept in (_full, _called, _named, _compiled, console_sheet, _opening):
        kept.cache_clear()


def opening_of(sheet: Sheet) -> Opening:
    """Return how a unit with this drive is opened: outside by the newest sheet of its console, inside by its own."""
    return _opening(sheet.pk, in_use(sheet).console)


@dataclass(frozen=True, slots=True)
class InUse:
    """By number what is newest beside a version of a sheet: that of its variant, its console's sheet and what was learnt; None where there is none."""

    sheet: int
    console: int | None
    layer: int | None

    def opening(self, sheet: Sheet) -> Opening:
        """Return how a unit with that drive is opened."""
        return _opening(sheet.pk, self.console)


def in_use(sheet: Sheet) -> InUse:
    """Return what is newest beside a version of a sheet. One query."""
    named = {"maker": sheet.maker, "console": sheet.console, "revision": sheet.revision}
    consoles = Console.objects.filter(**named, is_current=True).values("pk")[:1]
    layers = Layer.objects.filter(is_used=True).values("pk")[:1]
    current = Sheet.objects.filter(variant=sheet.variant, is_current=True).annotate(console_pk=Subquery(consoles), layer_pk=Subquery(layers))
    return InUse(*current.order_by().values_list("pk", "console_pk", "layer_pk").get())


@lru_cache(maxsize=512)
def _opening(sheet: int, console: int | None) -> Opening:
    return read_opening(full_sheet(sheet).tables, console_sheet(console).tables if console is not None else None)


def pictures_of_sheets() -> set[str]:
    """Return the names of the pictures that any version of any sheet shows, a drive's or a console's."""
    return {name for rows in (Sheet.objects, Console.objects) for tables in rows.values_list("tables", flat=True) for name in pictures_in(tables)}

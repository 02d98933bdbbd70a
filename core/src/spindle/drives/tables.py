"""The tables of a drive sheet and of a console's, declared once: reading, writing, CSV, the JSON schema and the editor all follow from here."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from types import MappingProxyType
from typing import Any, Final, Literal

from spindle.drives.levels import LEVELS
from spindle.shipped import read_toml


class Origin(StrEnum):
    """Where a value comes from."""

    MAKER = "maker"
    SHOP = "shop"
    SELLER = "seller"
    HEARSAY = "hearsay"


class Confidence(StrEnum):
    """How sure a value is."""

    SURE = "sure"
    FAIR = "fair"
    DOUBTFUL = "doubtful"


ORIGIN_NAMES: Final = MappingProxyType(
    {Origin.MAKER: "maker's document", Origin.SHOP: "shop's own", Origin.SELLER: "seller's claim", Origin.HEARSAY: "hearsay"}
)

Row = Mapping[str, object]
"""One row of a table: column id -> text, number, flag, or None where an optional one is empty."""


@dataclass(frozen=True, slots=True)
class Column:
    """One column. ``low`` and ``high`` bound numbers, in its unit."""

    id: str
    name: str
    kind: Literal["text", "number", "count", "flag", "choice", "picture"]
    unit: str = ""
    low: float = 0.0
    high: float = 0.0
    choices: tuple[str, ...] = ()
    optional: bool = False


@dataclass(frozen=True, slots=True)
class Table:
    """One table: its columns, which of them name a row, and pairs that may not be the wrong way round; of ``bands`` a row has one at least."""

    id: str
    title: str
    about: str
    columns: tuple[Column, ...]
    key: tuple[str, ...]
    ordered: tuple[tuple[str, str], ...] = ()
    bands: tuple[tuple[str, str], ...] = ()


PROVENANCE: Final = (
    Column("origin", "From", "choice", choices=tuple(Origin)),
    Column("confidence", "How sure", "choice", choices=tuple(Confidence)),
    Column("said", "Whose, how often", "text", optional=True),
)
"""The last columns of every table."""


def _column(entry: Mapping[str, Any]) -> Column:
    choices = tuple(LEVELS) if entry.get("choices") == "levels" else tuple(entry.get("choices", ()))
    return Column(**{**entry, "choices": choices})


def _table(entry: Mapping[str, Any]) -> Table:
    ordered, bands = (tuple((a, b) for a, b in entry.get(name, ())) for name in ("ordered", "bands"))
    return Table(entry["id"], entry["title"], entry["about"], (*map(_column, entry["columns"]), *PROVENANCE), tuple(entry["key"]), ordered, bands)


TABLES: Final[Mapping[str, Table]] = MappingProxyType({e["id"]: _table(e) for e in read_toml("spindle.drives", "tables")["tables"]})

OUTSIDE: Final = ("opening", "ways", "screws", "connectors", "notes")


def _outside(table: Table) -> Table:
    """Return a table as a console's sheet has it: what is outside the drive is of no level of it."""
    return replace(table, columns=tuple(c for c in table.columns if c.id != "level"), key=tuple(k for k in table.key if k != "level"))


CONSOLE_TABLES: Final[Mapping[str, Table]] = MappingProxyType({name: _outside(TABLES[name]) for name in OUTSIDE})
"""What a console's sheet holds, said once for all the drives that it may carry: how it is opened down to the drive."""


def pictures_in(tables: Mapping[str, Sequence[Row]]) -> frozenset[str]:
    """Return the names of the pictures that a sheet's tables show."""
    cells = [(t.id, c.id) for t in TABLES.values() for c in t.columns if c.kind == "picture"]
    return frozenset(str(row[column]) for table, column in cells for row in tables.get(table, ()) if row.get(column))

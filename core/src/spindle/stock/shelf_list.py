"""The shelf as a list to be kept in a spreadsheet: what stands in a row, and which rows speak of what is here already."""

from __future__ import annotations

import hashlib
import json
from typing import Any, Final

from spindle.drives.levels import LEVELS
from spindle.drives.tables import Column, Row, Table
from spindle.errors import InvalidError
from spindle.words.health import Health

MOST_ROWS: Final = 20_000
SHELF: Final = Table(
    "shelf",
    "The shelf",
    "One row for each tag. A row without a tag is a part that comes onto the shelf; one with a tag says how many are here, where, and what a piece costs.",
    (
        Column("tag", "Tag", "text", optional=True),
        Column("level", "Level", "choice", choices=tuple(LEVELS)),
        Column("code", "Code", "text"),
        Column("name", "Name", "text", optional=True),
        Column("count", "Here", "count", high=10_000),
        Column("health", "Known", "choice", choices=tuple(Health)),
        Column("complete", "Complete", "flag"),
        Column("lot", "Lot", "text", optional=True),
        Column("place", "Where", "text", optional=True),
        Column("piece", "A piece costs", "number", high=100_000, optional=True),
        Column("saved", "As it was saved", "text", optional=True),
    ),
    ("tag", "level", "code", "health", "complete", "lot", "place", "piece"),
)
ORDERS: Final = Table(
    "orders",
    "Orders",
    "Every order, on its way, arrived or cancelled.",
    (
        Column("tag", "Tag", "text"),
        Column("supplier", "Supplier", "text"),
        Column("level", "Level", "choice", choices=tuple(LEVELS)),
        Column("code", "Code", "text"),
        Column("packs", "Packs", "count"),
        Column("pack_size", "Pieces in a pack", "count"),
        Column("pack", "A pack costs", "number"),
        Column("ordered_on", "Ordered", "text"),
        Column("arrived_on", "Arrived", "text", optional=True),
        Column("cancelled", "Cancelled: why", "text", optional=True),
    ),
    ("tag",),
)
FIXED: Final = ("level", "code", "health", "complete")
"""What a list does not change of a part that is here: what it is, and how it is known (that follows from checks)."""
LISTED: Final = ("count", "lot", "place", "piece")
"""What a list may put right."""


def mark_of(row: Row) -> str:
    """Return a short mark of what a list may put right in a row: by it is seen, as the list comes back, who has changed what.

    Letters stand around it, so that no spreadsheet takes it for a number.
    """
    told = json.dumps([row[name] for name in LISTED])
    return f"m{hashlib.sha256(told.encode()).hexdigest()[:8]}x"


def put_right_by(row: Row, here: Row) -> dict[str, Any]:
    """Return what a row of a list puts right of the part that it names; nothing where nobody touched it, whatever happened to the part meanwhile.

    Parameters
    ----------
    row, here : the row as it comes back, and as it would be saved now

    Raises
    ------
    InvalidError
        If it would make another part of it, or was touched in the list and on the shelf since the list was saved.
    """
    for name in FIXED:
        if row[name] != here[name]:
            says = f"{row['tag']} is {here[name]!r} here, and a list does not make it {row[name]!r}: what is known of a part comes from its checks."
            raise InvalidError(name, says)
    differs = {name: row[name] for name in LISTED if row[name] is not None and row[name] != here[name]}
    if not differs or row["saved"] == mark_of(row):
        return {}
    if row["saved"] is not None and row["saved"] != mark_of(here):
        now = ", ".join(f"{name} {here[name]}" for name in differs)
        raise InvalidError("saved", f"{row['tag']} was changed here after this list was saved: {now}. Save the list anew, and put it right there.")
    return differs

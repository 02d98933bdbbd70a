"""The shelf as a list to be kept in a spreadsheet: what stands in a row, and which rows speak of what is here already."""

from __future__ import annotations

from typing import Final

from spindle.drives.levels import LEVELS
from spindle.drives.tables import Column, Table
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

"""What the shop knows about one console revision outside its drive: how it is opened, said once for all the drives that it may carry."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from spindle.drives.tables import Row


@dataclass(frozen=True, slots=True)
class ConsoleSheet:
    """One console revision, by maker, console and revision; ``tables`` are those of :data:`spindle.drives.tables.CONSOLE_TABLES`."""

    maker: str
    console: str
    revision: str
    tables: Mapping[str, tuple[Row, ...]] = field(default_factory=dict)

"""The shelf in a spreadsheet: a list goes out, and comes back with new rows, counts, drawers and prices. A bad one changes nothing."""

from __future__ import annotations

import hashlib
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Final

from apps.people.models import User
from apps.shelf.models import Order, Part
from apps.shelf.selectors import stock
from apps.shelf.services.pieces import shelf_write
from apps.shelf.services.stock import Arrival, Correction, arrived, put_right
from apps.writing.once import Command, Once
from spindle.drives.tables import Row
from spindle.errors import CaseError, InvalidError, SheetError
from spindle.formats.sheet_file import decode
from spindle.formats.table_rows import harmless, read_csv, write_csv
from spindle.stock.shelf_list import MOST_ROWS, ORDERS, SHELF, mark_of, put_right_by

MOST_BYTES: Final = 4_000_000
"""A list of as many rows as are taken, with room."""


@dataclass(frozen=True)
class Listed:
    """What came of a list: how many tags are new, were put right, and stay as they are."""

    new: int
    put_right: int
    same: int


def shelf_csv() -> str:
    """Return everything on the shelf, and what is used up, as CSV; text that a spreadsheet would run is made harmless."""
    return write_csv(SHELF, (_row(part) for part in stock().select_related("kind").order_by("pk").iterator(chunk_size=1_000)))


def orders_csv() -> str:
    """Return every order as CSV, oldest first."""
    told = Order.objects.select_related("kind", "supplier").order_by("pk").iterator(chunk_size=1_000)
    return write_csv(ORDERS, (_order(order) for order in told))


def take_list(command: Command, read: Callable[[int], bytes]) -> Listed:
    """Take a list in. Rows without a tag come onto the shelf; of the others counts, lots, drawers and prices are put right. An empty cell changes nothing.

    Raises
    ------
    NotAllowedError, KeyReusedError
    InvalidError
        At the first row that cannot be read, names no part of the stock, makes another part of it, or was touched on both sides;
        with its place. Nothing is changed then.
    """
    raw = read(MOST_BYTES + 1)
    with shelf_write(command, "list", {"sha256": hashlib.sha256(raw).hexdigest()}) as write:
        if write.is_replay:
            return Listed(*map(int, write.result.split()))
        try:
            rows = read_csv(SHELF, decode(raw, MOST_BYTES), most=MOST_ROWS)
        except (CaseError, SheetError) as error:
            raise InvalidError(error.place, error.message) from error
        found = _taken(rows, command.user, write)
        write.result = f"{found.new} {found.put_right} {found.same}"
    return found


def _taken(rows: tuple[Row, ...], user: User, write: Once) -> Listed:
    tags = Counter(_tag(row) for row in rows if row["tag"])
    here = {part.tag: part for part in stock().select_related("kind").filter(tag__in=tags)}
    came: Counter[str] = Counter()
    for n, row in enumerate(rows, 2):
        try:
            came[_take(row, tags, here, user, write)] += 1
        except InvalidError as error:
            raise InvalidError(f"row {n}, {error.params['place']}", error.message) from error
    return Listed(came["new"], came["put right"], came["same"])


def _take(row: Row, tags: Counter[str], here: dict[str, Part], user: User, write: Once) -> str:
    """Take one row in, and return what came of it: new, put right, same."""
    if not row["tag"]:
        arrived(_arrival(row), user, write.at)
        return "new"
    if tags[_tag(row)] > 1:
        raise InvalidError("tag", f"{row['tag']} stands twice in this list.")
    part = here.get(_tag(row))
    if part is None:
        raise InvalidError("tag", f"There is no part {row['tag']} in the stock. Leave the tag empty for one that is new.")
    differs = put_right_by(row, _row(part))
    if not differs:
        return "same"
    cents = _cents(differs.pop("piece")) if "piece" in differs else None
    put_right(part, Correction(**differs, piece_cents=cents), user, write.at)
    return "put right"


def _tag(row: Row) -> str:
    return str(row["tag"]).upper()


def _arrival(row: Row) -> Arrival:
    told: dict[str, Any] = {name: row[name] or "" for name in ("name", "lot", "place")}
    told |= {name: row[name] for name in ("level", "code", "count", "health")}
    return Arrival(**told, pack_cents=_cents(float(str(row["piece"] or 0))), is_complete=bool(row["complete"]))


def _cents(price: float) -> int:
    return round(price * 100)


def _row(part: Part) -> dict[str, object]:
    text = {"code": part.kind.code, "name": part.kind.name, "lot": part.lot or None, "place": part.place or None}
    known = {"tag": part.tag, "level": part.kind.level, "count": part.count, "health": part.health, "complete": part.is_complete}
    row = {**known, **{name: harmless(value) for name, value in text.items()}, "piece": part.piece_cents / 100}
    return {**row, "saved": mark_of(row)}


def _order(order: Order) -> dict[str, object]:
    own = {"tag": order.tag, "level": order.kind.level, "packs": order.packs, "pack_size": order.pack_size, "pack": order.pack_cents / 100}
    text = {"supplier": order.supplier.name, "code": order.kind.code, "cancelled": order.cancelled or None}
    days = {"ordered_on": order.ordered_on.isoformat(), "arrived_on": order.arrived_on.isoformat() if order.arrived_on else None}
    return {**own, **days, **{name: harmless(value) for name, value in text.items()}}

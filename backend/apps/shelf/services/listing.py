"""The shelf in a spreadsheet: a list goes out, and comes back with new rows, counts, drawers and prices. A bad one changes nothing."""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Final

from apps.people.models import User
from apps.shelf.models import Order, Part
from apps.shelf.selectors import stock
from apps.shelf.services.pieces import shelf_write
from apps.shelf.services.stock import Arrival, Correction, arrived, put_right
from apps.writing.once import Command, Once
from spindle.errors import CaseError, InvalidError, SheetError
from spindle.formats.sheet_file import decode
from spindle.formats.table_rows import harmless, read_csv, write_csv
from spindle.stock.shelf_list import FIXED, LISTED, MOST_ROWS, ORDERS, SHELF

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
        At the first row that cannot be read, names no part of the stock, or says that a part is another; with its place. Nothing is changed then.
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


def _taken(rows: tuple[Any, ...], user: User, write: Once) -> Listed:
    tags = [str(row["tag"]).upper() for row in rows if row["tag"]]
    here = {part.tag: part for part in stock().select_related("kind").filter(tag__in=tags)}
    new = put = 0
    for n, row in enumerate(rows, 2):
        place = f"row {n}"
        if not row["tag"]:
            _arrive(row, place, user, write)
            new += 1
            continue
        part = here.get(str(row["tag"]).upper())
        if part is None:
            raise InvalidError(f"{place}, tag", f"There is no part {row['tag']} in the stock. Leave the tag empty for one that is new.")
        told = _told(row, _row(part), place)
        if told is not None:
            put_right(part, told, user, write.at)
            put += 1
    return Listed(new, put, len(rows) - new - put)


def _arrive(row: Any, place: str, user: User, write: Once) -> None:
    plain: dict[str, Any] = {name: row[name] or "" for name in ("name", "lot", "place")}
    cents = round((row["piece"] or 0) * 100)
    one = Arrival(row["level"], row["code"], count=row["count"], pack_cents=cents, health=row["health"], is_complete=row["complete"], **plain)
    try:
        arrived(one, user, write.at)
    except InvalidError as error:
        raise InvalidError(f"{place}, {error.params['place']}", error.message) from error


def _told(row: Any, known: dict[str, object], place: str) -> Correction | None:
    """Return what a row puts right of a part; None if it says what stands there."""
    for name in FIXED:
        if row[name] != known[name]:
            says = f"{row['tag']} is {known[name]!r} here, and a list does not make it {row[name]!r}: what is known of a part comes from its checks."
            raise InvalidError(f"{place}, {name}", says)
    differs = {name: row[name] for name in LISTED if row[name] is not None and row[name] != known[name]}
    if not differs:
        return None
    cents = round(differs.pop("piece") * 100) if "piece" in differs else None
    return Correction(**differs, piece_cents=cents)


def _row(part: Part) -> dict[str, object]:
    text = {"code": part.kind.code, "name": part.kind.name, "lot": part.lot or None, "place": part.place or None}
    known = {"tag": part.tag, "level": part.kind.level, "count": part.count, "health": part.health, "complete": part.is_complete}
    return {**known, **{name: harmless(value) for name, value in text.items()}, "piece": part.piece_cents / 100}


def _order(order: Order) -> dict[str, object]:
    own = {"tag": order.tag, "level": order.kind.level, "packs": order.packs, "pack_size": order.pack_size, "pack": order.pack_cents / 100}
    text = {"supplier": order.supplier.name, "code": order.kind.code, "cancelled": order.cancelled or None}
    days = {"ordered_on": order.ordered_on.isoformat(), "arrived_on": order.arrived_on.isoformat() if order.arrived_on else None}
    return {**own, **days, **{name: harmless(value) for name, value in text.items()}}

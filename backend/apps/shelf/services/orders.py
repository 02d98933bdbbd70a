"""Orders: placed, here, cancelled."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

from apps.shelf.models import Order, Part, Supplier
from apps.shelf.selectors import part_by_tag
from apps.shelf.services.pieces import kind_of, new_part, next_tag, note, shelf_write
from apps.shop.selectors import the_shop
from apps.writing.once import Command
from spindle.errors import InvalidError, NotFoundError, NotNowError


@dataclass(frozen=True)
class Wanted:
    """What is ordered, in packs. Money in cents."""

    supplier: str
    level: str
    code: str
    name: str
    packs: int
    pack_size: int
    pack_cents: int
    ordered_on: date


OLDEST_DAYS: Final = 3 * 365
"""An order older than that is a mistyped year: it would tell a lead time of years."""
LONGEST_DAYS: Final = 365
"""A parcel that took longer than a year is none that teaches anything."""


def _check_dates(ordered: date, arrived: date | None, today: date, *, place: str) -> None:
    """Refuse dates that a supplier's lead time must not learn from.

    Raises
    ------
    InvalidError
    """
    if not today - timedelta(days=OLDEST_DAYS) <= ordered <= today:
        raise InvalidError("ordered_on", f"Ordered on {ordered:%-d %b %Y}? It has to be in the last three years, and not after today.")
    if arrived is not None and not ordered <= arrived <= min(today, ordered + timedelta(days=LONGEST_DAYS)):
        raise InvalidError(place, f"It was ordered on {ordered:%-d %b %Y}; it came on that day or within a year of it, and not after today.")


def order(command: Command, wanted: Wanted) -> Order:
    """Write an order down."""
    with shelf_write(command, "order", vars(wanted)) as write:
        if write.is_replay:
            return Order.objects.get(tag=write.result)
        _check_dates(wanted.ordered_on, None, the_shop().day_of(write.at), place="ordered_on")
        supplier, _ = Supplier.objects.get_or_create(name=wanted.supplier)
        kind = kind_of(wanted.level, wanted.code, wanted.name)
        own = {"packs": wanted.packs, "pack_size": wanted.pack_size, "pack_cents": wanted.pack_cents, "ordered_on": wanted.ordered_on}
        placed = Order.objects.create(tag=next_tag(Order, "O"), supplier=supplier, kind=kind, **own)
        write.result = placed.tag
        note(placed.tag, "ordered", f"{placed.count} {kind.name} from {supplier.name}", command.user, write.at)
    return placed


def arrive(command: Command, tag: str, *, on: date, place: str, count: int | None = None) -> Part:
    """Put what came of an order on the shelf. With its last piece it has arrived, and its days teach how long this supplier takes.

    Parameters
    ----------
    count : pieces that came now; None is all that had not come

    Raises
    ------
    NotNowError
        If it has arrived or was cancelled before.
    InvalidError
        If more came than was still to come, or the date cannot be.
    """
    with shelf_write(command, "arrive", {"tag": tag, "on": on, "place": place, "count": count}) as write:
        if write.is_replay:
            return part_by_tag(write.result)
        placed = _open_order(tag)
        _check_dates(placed.ordered_on, on, the_shop().day_of(write.at), place="on")
        now = placed.left if count is None else count
        if not 1 <= now <= placed.left:
            raise InvalidError("count", f"{placed.left} of {placed.tag} had not come yet, and {now} came now? Count again; what is too many is another order.")
        placed.came += now
        placed.arrived_on = None if placed.left else on
        placed.save(update_fields=["came", "arrived_on"])
        part = new_part(placed.kind, write.at, count=now, order=placed, place=place, piece_cents=placed.piece_cents)
        write.result = part.tag
        note(part.tag, "came", f"{now} of {placed.tag} from {placed.supplier.name}", command.user, write.at)
    return part


def correct_dates(command: Command, tag: str, *, ordered_on: date, arrived_on: date | None) -> Order:
    """Put the dates of an order right: a mistyped year would teach a wrong lead time for good. The trail keeps what stood there.

    Raises
    ------
    NotFoundError
        If there is no such order.
    InvalidError
        If the dates cannot be, or an order that has arrived would be on its way again.
    """
    with shelf_write(command, "correct_order", {"tag": tag, "ordered_on": ordered_on, "arrived_on": arrived_on}) as write:
        placed = _order(tag)
        if not write.is_replay:
            if (arrived_on is None) != (placed.arrived_on is None):
                raise InvalidError("arrived_on", "Only the dates are put right here, not whether it has come.")
            _check_dates(ordered_on, arrived_on, the_shop().day_of(write.at), place="arrived_on")
            was = " to ".join(f"{d:%-d %b %Y}" for d in (placed.ordered_on, placed.arrived_on) if d)
            placed.ordered_on, placed.arrived_on = ordered_on, arrived_on
            placed.save(update_fields=["ordered_on", "arrived_on"])
            write.result = placed.tag
            note(placed.tag, "corrected", f"dates put right; they were {was}", command.user, write.at)
    return placed


def cancel_order(command: Command, tag: str, why: str) -> Order:
    """An order will not come."""
    with shelf_write(command, "cancel", {"tag": tag, "why": why}) as write:
        if write.is_replay:
            return Order.objects.get(tag=tag.strip().upper())
        placed = _open_order(tag)
        placed.cancelled = why
        placed.save(update_fields=["cancelled"])
        write.result = placed.tag
    return placed


def _order(tag: str) -> Order:
    found = Order.objects.select_related("kind", "supplier").filter(tag=tag.strip().upper()).first()
    if found is None:
        raise NotFoundError(f"There is no order {tag}.")
    return found


def _open_order(tag: str) -> Order:
    found = _order(tag)
    if found.arrived_on or found.cancelled:
        raise NotNowError(f"{found.tag} {'has arrived' if found.arrived_on else 'was cancelled'} already.", reason="done")
    return found

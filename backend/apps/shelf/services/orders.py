"""Orders: placed, here, cancelled."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from apps.shelf.models import Order, Part, Supplier
from apps.shelf.selectors import part_by_tag
from apps.shelf.services.pieces import kind_of, new_part, next_tag, note, shelf_write
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


def order(command: Command, wanted: Wanted) -> Order:
    """Write an order down."""
    with shelf_write(command, "order", vars(wanted)) as write:
        if write.is_replay:
            return Order.objects.get(tag=write.result)
        supplier, _ = Supplier.objects.get_or_create(name=wanted.supplier)
        kind = kind_of(wanted.level, wanted.code, wanted.name)
        own = {"packs": wanted.packs, "pack_size": wanted.pack_size, "pack_cents": wanted.pack_cents, "ordered_on": wanted.ordered_on}
        placed = Order.objects.create(tag=next_tag(Order, "O"), supplier=supplier, kind=kind, **own)
        write.result = placed.tag
        note(placed.tag, "ordered", f"{placed.count} {kind.name} from {supplier.name}", command.user, write.at)
    return placed


def arrive(command: Command, tag: str, *, on: date, place: str) -> Part:
    """An order is here: its pieces go on the shelf, and its days teach how long this supplier takes.

    Raises
    ------
    NotNowError
        If it has arrived or was cancelled before.
    """
    with shelf_write(command, "arrive", {"tag": tag, "on": on, "place": place}) as write:
        if write.is_replay:
            return part_by_tag(write.result)
        placed = _open_order(tag)
        if on < placed.ordered_on:
            raise InvalidError("on", f"It was ordered on {placed.ordered_on:%-d %b %Y}; it cannot have come before.")
        placed.arrived_on = on
        placed.save(update_fields=["arrived_on"])
        part = new_part(placed.kind, write.at, count=placed.count, order=placed, place=place, piece_cents=placed.piece_cents)
        write.result = part.tag
        note(part.tag, "came", f"{placed.count} of {placed.tag} from {placed.supplier.name}", command.user, write.at)
    return part


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


def _open_order(tag: str) -> Order:
    found = Order.objects.select_related("kind", "supplier").filter(tag=tag.strip().upper()).first()
    if found is None:
        raise NotFoundError(f"There is no order {tag}.")
    if found.arrived_on or found.cancelled:
        raise NotNowError(f"{found.tag} {'has arrived' if found.arrived_on else 'was cancelled'} already.", reason="done")
    return found

"""How orders are shown."""

from __future__ import annotations

from api.shelf import order_schemas as v
from apps.shelf.models import Order
from apps.shelf.selectors import Expected
from spindle.drives.levels import LEVELS


def order_view(expected: Expected) -> v.OrderView:
    """Return an order on its way."""
    order = expected.order
    return v.OrderView(
        tag=order.tag,
        supplier=order.supplier.name,
        level_name=LEVELS[order.kind.level].name,
        code=order.kind.code,
        name=order.kind.name,
        count=order.left,
        came=order.came,
        piece_cents=order.piece_cents,
        ordered_on=order.ordered_on,
        waited_days=expected.waited_days,
        half_days=expected.half_days,
        most_days=expected.most_days,
        past=expected.n,
    )


def past_order_view(order: Order) -> v.PastOrderView:
    """Return an order that has arrived."""
    return v.PastOrderView(
        tag=order.tag,
        supplier=order.supplier.name,
        name=order.kind.name,
        count=order.count,
        ordered_on=order.ordered_on,
        arrived_on=order.arrived_on or order.ordered_on,
    )

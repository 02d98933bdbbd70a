"""Orders: what is on its way, from whom, and under which codes."""

from __future__ import annotations

from api.common import READS, WRITES, SignedIn, Tag, view_before_commit
from api.shelf import order_schemas as v
from api.shelf.order_views import order_view, past_order_view
from api.shelf.schemas import PartDetailView
from api.shelf.views import part_detail_view
from apps.jobs.selectors import part_detail
from apps.shelf.selectors import expected_orders, known_codes, known_suppliers, part_by_tag, past_orders
from apps.shelf.services import orders as order_services
from apps.shop.selectors import the_shop
from apps.writing.once import Command
from ninja import Router

router = Router(tags=["shelf"])


@router.get("/shelf/orders", response={200: list[v.OrderView], **READS}, operation_id="orders")
def orders(request: SignedIn) -> list[v.OrderView]:
    """Return what is on its way, soonest first."""
    return [order_view(e) for e in expected_orders(the_shop().today())]


@router.get("/shelf/suppliers", response={200: list[str], **READS}, operation_id="suppliers")
def suppliers(request: SignedIn) -> list[str]:
    """Return whom the shop has ordered from, by name."""
    return known_suppliers()


@router.get("/shelf/codes", response={200: list[v.CodeView], **READS}, operation_id="codes")
def codes(request: SignedIn) -> list[v.CodeView]:
    """Return the kinds of parts that are known by their code: of the shelf, and of the current sheets."""
    return [v.CodeView(level=level, code=code, name=name) for (level, code), name in known_codes().items()]


@router.post("/shelf/orders", response={200: list[v.OrderView], **WRITES}, operation_id="order")
@view_before_commit
def place_order(request: SignedIn, body: v.OrderIn) -> list[v.OrderView]:
    """Write an order down."""
    order_services.order(Command(request.user, body.key), order_services.Wanted(**body.dict(exclude={"key"})))
    return orders(request)


@router.post("/shelf/orders/{tag}/arrive", response={200: PartDetailView, **WRITES}, operation_id="arrive")
@view_before_commit
def arrive(request: SignedIn, tag: Tag, body: v.ArriveIn) -> PartDetailView:
    """An order is here, or some of it: its pieces go on the shelf."""
    part = order_services.arrive(Command(request.user, body.key), tag, on=body.on, place=body.place, count=body.count)
    return part_detail_view(part_detail(part_by_tag(part.tag)))


@router.post("/shelf/orders/{tag}/dates", response={200: v.PastOrderView | None, **WRITES}, operation_id="correct_dates")
@view_before_commit
def correct_dates(request: SignedIn, tag: Tag, body: v.DatesIn) -> v.PastOrderView | None:
    """Put the dates of an order right."""
    placed = order_services.correct_dates(Command(request.user, body.key), tag, ordered_on=body.ordered_on, arrived_on=body.arrived_on)
    return past_order_view(placed) if placed.arrived_on else None


@router.get("/shelf/past-orders", response={200: list[v.PastOrderView], **READS}, operation_id="past_orders")
def past(request: SignedIn) -> list[v.PastOrderView]:
    """Return the orders that came last, newest first."""
    return [past_order_view(o) for o in past_orders()]


@router.post("/shelf/orders/{tag}/cancel", response={200: list[v.OrderView], **WRITES}, operation_id="cancel_order")
@view_before_commit
def cancel(request: SignedIn, tag: Tag, body: v.CancelIn) -> list[v.OrderView]:
    """An order will not come."""
    order_services.cancel_order(Command(request.user, body.key), tag, body.why)
    return orders(request)

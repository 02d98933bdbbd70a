"""Orders: they come whole or in parts, once, and teach how long a supplier takes."""

import uuid
from datetime import timedelta

from apps.shelf.models import Order
from django.utils import timezone


def key():
    return str(uuid.uuid4())


def test_an_order_arrives_once_at_the_price_of_a_piece_and_teaches_the_wait(bram):
    today = timezone.localdate()
    body = {"supplier": "Lantern Parts", "level": "fuse", "code": "VU-15F", "packs": 2, "pack_size": 3, "pack_cents": 100}
    orders = bram.post("/shelf/orders", key=key(), ordered_on=str(today - timedelta(days=4)), **body).json()
    mine = next(o for o in orders if o["code"] == "VU-15F")
    assert (mine["count"], mine["piece_cents"], mine["past"]) == (6, 34, 4)
    assert 0 < mine["half_days"] < mine["most_days"]
    part = bram.post(f"/shelf/orders/{mine['tag']}/arrive", key=key(), on=str(today), place="F1").json()
    assert (part["count"], part["piece_cents"]) == (6, 34)
    assert bram.post(f"/shelf/orders/{mine['tag']}/arrive", key=key(), on=str(today)).status_code == 409


def test_an_order_may_come_in_parts_and_has_arrived_with_its_last_piece(bram):
    order = Order.objects.get(tag="O-0009")
    came = lambda **more: bram.post("/shelf/orders/O-0009/arrive", key=key(), on=str(timezone.localdate()), **more)  # noqa: E731  # asked three times
    here = next(o for o in bram.get("/shelf/orders").json() if o["tag"] == "O-0009")
    assert (order.count, here["count"], here["came"]) == (2, 2, 0)
    assert came(count=3).json()["params"]["place"] == "count"
    assert came(count=1).json()["count"] == 1
    here = next(o for o in bram.get("/shelf/orders").json() if o["tag"] == "O-0009")
    assert (here["count"], here["came"]) == (1, 1)
    assert came().json()["count"] == 1
    order.refresh_from_db()
    assert (order.came, order.left, order.arrived_on) == (2, 0, timezone.localdate())
    assert came().status_code == 409


def test_known_codes_are_those_of_the_shelf_and_of_the_current_sheets(bram):
    codes = {(c["level"], c["code"]): c["name"] for c in bram.get("/shelf/codes").json()}
    assert codes["pickup", "VL-30"]
    assert codes["drive", "VM-S41"] == ""
    assert list(codes) == sorted(codes)

"""The shelf and its orders as lists for a spreadsheet, out and in."""

from __future__ import annotations

from api.common import READS, WRITES, Key, SignedIn, View, view_before_commit
from apps.shelf.services.listing import orders_csv, shelf_csv, take_list
from apps.shop.selectors import the_shop
from apps.writing.once import Command
from django.http import HttpResponse
from ninja import File, Form, Router
from ninja.files import UploadedFile

router = Router(tags=["shelf"])


class ListedView(View):
    """What came of a list of the shelf: tags that are new, were put right, and stay as they are."""

    new: int
    put_right: int
    same: int


@router.get("/shelf/list.csv", response={200: None, **READS}, operation_id="shelf_table")
def shelf(request: SignedIn) -> HttpResponse:
    """Return the shelf as CSV."""
    return _csv(shelf_csv(), "shelf")


@router.get("/shelf/orders.csv", response={200: None, **READS}, operation_id="orders_table")
def orders(request: SignedIn) -> HttpResponse:
    """Return every order as CSV."""
    return _csv(orders_csv(), "orders")


@router.post("/shelf/list", response={200: ListedView, **WRITES}, operation_id="take_list")
@view_before_commit
def take(request: SignedIn, key: Form[Key], file: File[UploadedFile]) -> ListedView:
    """Take a list of the shelf in: new rows, counts, drawers, prices. A bad one changes nothing."""
    return ListedView.model_validate(take_list(Command(request.user, key), file.read))


def _csv(text: str, name: str) -> HttpResponse:
    answer = HttpResponse(text, content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{name}-{the_shop().today().isoformat()}.csv"'
    return answer

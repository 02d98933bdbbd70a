"""Drive sheets, and the key that tells which drive this is."""

from __future__ import annotations

from api.identifying import key_view
from api.presenters import sheet_view
from api.requests import SignedIn
from api.schemas import KeyIn, KeyView, Problem, SheetView
from apps.drives.selectors import current_sheets, key_reading
from ninja import Router

router = Router(tags=["drives"])


@router.get("/sheets", response={200: list[SheetView], 401: Problem}, operation_id="sheets")
def sheets(request: SignedIn) -> list[SheetView]:
    """Return the current drive sheets."""
    return [sheet_view(sheet) for sheet in current_sheets()]


@router.post("/key", response={200: KeyView, 400: Problem, 401: Problem, 403: Problem, 422: Problem}, operation_id="key")
def key(request: SignedIn, body: KeyIn) -> KeyView:
    """Return which drive it can be by what was seen so far, and what to look at next. Nothing is written."""
    reading, by_variant = key_reading(body.answers)
    return key_view(reading, by_variant)

"""The owner's page, from the shop's side: made, shown with its code, and whether it was opened and answered."""

from __future__ import annotations

from datetime import datetime

import segno
from api.common import READS, WRITES, OnceIn, SignedIn, Tag, View, view_before_commit
from apps.owner_page.selectors import Standing, newest_page, standing_of
from apps.owner_page.services import make_page
from apps.people.permissions import require
from apps.writing.once import Command
from apps.writing.secrets import secret_of
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router
from spindle.words.duty import Duty

router = Router(tags=["agree"])


class OwnerPageView(View):
    """A page that the owner answers on."""

    address: str
    code: str
    """The address as a picture to hold a phone at, a data address."""
    standing: Standing
    ends_at: datetime
    seen_at: datetime | None
    answered_at: datetime | None


def _view(request: HttpRequest, tag: str) -> OwnerPageView | None:
    page = newest_page(tag)
    if page is None:
        return None
    address = request.build_absolute_uri(f"/o/{secret_of('owner-page', page.pk)}")
    code = segno.make_qr(address, error="m").svg_data_uri(scale=4, border=4, dark="#1c2b2a", light="#fbfaf5")
    return OwnerPageView(
        address=address, code=code, standing=standing_of(page, timezone.now()), ends_at=page.ends_at, seen_at=page.seen_at, answered_at=page.answered_at
    )


@router.get("/owner-page", response={200: OwnerPageView | None, **READS, 403: WRITES[403]}, operation_id="owner_page")
def read(request: SignedIn, tag: Tag) -> OwnerPageView | None:
    """Return the newest page of a job, null if none was made. Its address is an answer in the owner's name: who may not write that down does not see it."""
    require(request.user, Duty.AGREE)
    return _view(request, tag.strip().upper())


@router.post("/owner-page", response={200: OwnerPageView | None, **WRITES}, operation_id="make_owner_page")
@view_before_commit
def make(request: SignedIn, tag: Tag, body: OnceIn) -> OwnerPageView | None:
    """Make a page for what is proposed now; it withdraws the one before."""
    make_page(Command(request.user, body.key), tag)
    return _view(request, tag.strip().upper())

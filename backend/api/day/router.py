"""The day: the week as it was last worked out, what a new promise would be worth, and calendars."""

from __future__ import annotations

from typing import Annotated

from api.common import READS, WRITES, Number, OnceIn, SignedIn, view_before_commit
from api.day.schemas import CalendarIn, CalendarView, PromiseView, WeekView
from api.day.views import calendar_view, offer_view, week_view
from apps.day.addresses import addresses, end_address, make_address
from apps.day.calendar import calendar_of
from apps.day.selectors import offer, the_week
from apps.shelf.selectors import expected_orders
from apps.shop.selectors import the_shop
from apps.writing.copy import from_the_copy
from apps.writing.once import Command
from django.http import HttpResponse
from django.utils import timezone
from ninja import Path, Query, Router

router = Router(tags=["day"])


@router.get("/week", response={200: WeekView, **READS}, operation_id="week")
@from_the_copy
def week(request: SignedIn, whole: bool = False) -> WeekView:  # a query
    """Return the week as it was last worked out; unless ``whole``, those that come first. Nothing is worked out here: nobody waits for it."""
    shop, now = the_shop(), timezone.now()
    return week_view(the_week(shop), expected_orders(shop.day_of(now)), shop, now, whole=whole)


@router.get("/week/offer", response={200: PromiseView, **READS}, operation_id="week_offer")
def week_offer(request: SignedIn, sheet_id: Annotated[Number, Query()]) -> PromiseView:
    """Return by when a unit of a drive that comes in now would be done, and whose promise that moves."""
    return offer_view(offer(sheet_id, the_shop(), timezone.now()))


@router.get("/week/calendar.ics", response={200: None, **READS}, operation_id="calendar_file")
def calendar_file(request: SignedIn) -> HttpResponse:
    """Return the shop's days as a file for a calendar program."""
    answer = HttpResponse(calendar_of(the_shop(), timezone.now()), content_type="text/calendar; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="days.ics"'
    return answer


@router.get("/calendars", response={200: list[CalendarView], **READS, 403: WRITES[403]}, operation_id="calendars")
def calendars(request: SignedIn) -> list[CalendarView]:
    """Return the addresses that stand; for managers."""
    return [calendar_view(a) for a in addresses(request.user)]


@router.post("/calendars", response={200: list[CalendarView], **WRITES}, operation_id="make_calendar")
@view_before_commit
def make(request: SignedIn, body: CalendarIn) -> list[CalendarView]:
    """Make an address for a calendar program."""
    make_address(Command(request.user, body.key), body.name)
    return calendars(request)


@router.post("/calendars/{number}/end", response={200: list[CalendarView], **WRITES}, operation_id="end_calendar")
@view_before_commit
def end(request: SignedIn, number: Annotated[Number, Path()], body: OnceIn) -> list[CalendarView]:
    """Take an address back."""
    end_address(Command(request.user, body.key), number)
    return calendars(request)

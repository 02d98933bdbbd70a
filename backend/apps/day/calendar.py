"""The shop's days for a calendar program (RFC 5545): promises, deliveries, guarantees. Tags and models alone: a calendar leaves the house."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date, datetime, timedelta
from typing import Final

from apps.jobs.models import HEAVY, Job
from apps.jobs.selectors import the_day
from apps.shelf.selectors import expected_orders
from apps.shop.models import Shop
from icalendar import Calendar, Event

ENDED_DAYS: Final = 30
"""Guarantees that ended longer ago are not told any more."""


def calendar_of(shop: Shop, now: datetime) -> bytes:
    """Return the shop's days as iCalendar. An event keeps its UID for good, and its SEQUENCE rises whenever it may have changed."""
    calendar = Calendar()
    calendar.add("prodid", "-//Tidy Spindle//day//EN")
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    calendar.add("x-wr-calname", shop.name)
    calendar.add("x-wr-timezone", shop.time_zone)
    for event in (*_promises(now), *_deliveries(shop.day_of(now), now), *_guarantees(shop.day_of(now), now)):
        calendar.add_component(event)
    content: bytes = calendar.to_ical()
    return content


def _event(uid: str, day: date, says: str, sequence: int, now: datetime) -> Event:
    event = Event()
    event.add("uid", f"{uid}@tidy-spindle")
    event.add("dtstamp", now)
    event.add("dtstart", day)
    event.add("dtend", day + timedelta(days=1))
    event.add("summary", says)
    event.add("sequence", sequence)
    event.add("transp", "TRANSPARENT")
    return event


def _promises(now: datetime) -> Iterator[Event]:
    for row in the_day():
        if row.promised_on is not None:
            yield _event(f"promise-{row.tag}", row.promised_on, f"{row.tag} is promised ({row.sheet.variant})", row.version, now)


def _deliveries(today: date, now: datetime) -> Iterator[Event]:
    for found in expected_orders(today):
        order, usual = found.order, today + timedelta(days=round(found.half_days))
        yield _event(f"order-{order.tag}", usual, f"{order.tag} may come: {order.left} × {order.kind.name}", int(found.waited_days), now)


def _guarantees(today: date, now: datetime) -> Iterator[Event]:
    for row in Job.objects.filter(guarantee_until__gte=today - timedelta(days=ENDED_DAYS)).select_related("sheet").defer(*HEAVY):
        if row.guarantee_until is not None:
            yield _event(f"guarantee-{row.tag}", row.guarantee_until, f"{row.tag}: the guarantee ends ({row.sheet.variant})", row.version, now)

"""How the week is shown."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date, datetime, timedelta
from typing import Any, Final

from api.day.schemas import CalendarView, DeliveryView, MovedPromiseView, PromiseDayView, PromiseView, WeekDayView, WeekRowView, WeekView
from apps.day.addresses import path_of
from apps.day.models import CalendarAddress
from apps.day.selectors import Week, in_order
from apps.jobs.models import Job
from apps.shelf.selectors import Expected
from apps.shop.models import Shop
from spindle.day.hours import Hours
from spindle.day.promise import Offer
from spindle.job.stages import NAMES, Stage

SHOWN_DAYS: Final = 14
FIRST: Final = {"owner": "Waits for the owner’s word", "part": "Waits for a part", "alone": "Waits for what passes by itself"}


def week_view(week: Week, coming: list[Expected], shop: Shop, now: datetime, *, whole: bool) -> WeekView:
    """Return the week, its jobs as they stand now: one that was closed since is left out. Unless ``whole``, those that come first."""
    today, hours, body = shop.day_of(now), shop.hours(), week.body
    shown, units = in_order(week, whole=whole)
    return WeekView(
        computed_at=week.computed_at,
        is_stale=week.is_stale,
        benches=shop.benches,
        rule_name=body.get("rule_name", ""),
        saves_cents=body.get("saves_cents", 0),
        units=units,
        rows=[_row(job, told, lifted=job.tag in body["lifted"]) for job, told in shown],
        unread=body.get("unread", []),
        owner_min=body.get("owner_min"),
        answers=body.get("answers", 0),
        unanswered=body.get("unanswered", 0),
        days=_days(today, hours),
        deliveries=[_delivery(e, today) for e in coming],
    )


def _days(today: date, hours: Hours) -> list[WeekDayView]:
    days = [today + timedelta(days=n) for n in range(SHOWN_DAYS)]
    return [WeekDayView(day=d, is_open=hours.is_open(d)) for d in days]


def _row(job: Job, told: Mapping[str, Any], *, lifted: bool) -> WeekRowView:
    return WeekRowView(
        tag=job.tag,
        console=f"{job.sheet.maker} {job.sheet.console}",
        variant=job.sheet.variant,
        stage_name=NAMES[Stage(job.stage)],
        hands=job.hands,
        promised_on=job.promised_on,
        why=_why(told, lifted=lifted),
        **{k: told[k] for k in ("half", "nine", "p_kept", "begins", "bench_min", "first")},
    )


def _why(told: Mapping[str, Any], *, lifted: bool) -> str:
    """Return why it stands where it does, in a few words."""
    if told["first"] in FIRST:
        return FIRST[told["first"]]
    if told["first"] is None:
        return "Waits to be fetched"
    why = ["for somebody who solders"] if told.get("iron") else []
    return ", ".join([*(["taken first: that helps the others most"] if lifted else []), *why]).capitalize()


def _delivery(found: Expected, today: date) -> DeliveryView:
    days = [today + timedelta(days=max(round(n), 0)) for n in (found.half_days, found.most_days)]
    name = f"{found.order.left} × {found.order.kind.name}"
    return DeliveryView(tag=found.order.tag, name=name, half=days[0], nine=days[1], is_late=found.is_late)


def offer_view(offer: Offer | None) -> PromiseView:
    """Return an offer, or that there is none yet."""
    if offer is None:
        return PromiseView(is_ready=False, days=[], moved=[])
    moved = [MovedPromiseView(tag=t, before=b, after=a) for t, b, a in offer.moved]
    return PromiseView(is_ready=True, days=[PromiseDayView(day=d, p=p) for d, p in offer.days], moved=moved)


def calendar_view(address: CalendarAddress) -> CalendarView:
    """Return an address with where it is fetched."""
    return CalendarView(id=address.pk, name=address.name, path=path_of(address), at=address.at)

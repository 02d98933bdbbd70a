"""Reading the day: what there is to do, the week as it was last worked out, and what a new promise would be worth."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterator, Mapping
from dataclasses import asdict, dataclass, is_dataclass
from datetime import date, datetime
from typing import Any, Final

from apps.day.models import JobWays, SheetWays, WeekPlan
from apps.drives.selectors import layer_number
from apps.jobs.models import Job, TapeLine
from apps.jobs.selectors import shelf_for, the_day
from apps.shelf.selectors import lead_times, open_orders
from apps.shop.models import Shop
from django.db.models import Count, Max, Sum
from django.utils import timezone
from spindle.day.drawing import Around, held, in_any_hands
from spindle.day.hours import Clock
from spindle.day.legs import Future, JobAhead, Leg, LegKind, Pace, read
from spindle.day.owners import Waits, owners_pace, waits_of
from spindle.day.promise import Offer, offer_for
from spindle.day.worlds import Floor
from spindle.job.stages import Acts, Stage
from spindle.stock.lead_time import lead_time

VERSION: Final = 3
"""Raised when ways are drawn otherwise: those that are kept are drawn anew then."""
AT_FIRST: Final = 40
"""Units of the week that are shown at first, in its order: more than a fortnight's work of one bench."""
LAST_ANSWERS: Final = 200
"""So many of the owners' last answers say how long they take."""
OFFER_WORLDS: Final = 120
"""Worlds behind an offer at the counter, where somebody waits."""


def rests_on_now(shop: Shop) -> str:
    """Return what the week rests on, in a few words: while it stays the same, so does the week. Three cheap queries."""
    jobs = Job.objects.exclude(stage=Stage.CLOSED.value).aggregate(n=Count("pk"), s=Sum("version"), m=Max("pk"))
    now = timezone.now().astimezone(shop.clock)
    return f"{VERSION} {jobs['n']} {jobs['s']} {jobs['m']} {shop.version} {shop.shelf_version} {layer_number()} {now:%Y-%m-%d %H}"


def pace_of(shop: Shop) -> tuple[Pace, Waits]:
    """Return the pace of this shop by what its owners took for their last answers and for those that are waited for still, and both. Three queries."""
    waiting = set(Job.objects.filter(acts=Acts.OWNER.value).exclude(stage=Stage.CLOSED.value).values_list("pk", flat=True))
    last = TapeLine.objects.filter(kind="consent").order_by("-pk").values_list("job_id", flat=True)[:LAST_ANSWERS]
    said = TapeLine.objects.filter(job__in=waiting | set(last), kind__in=("proposal", "consent")).order_by("job_id", "number")
    by_the_clock = ((job, kind, at.astimezone(shop.clock)) for job, kind, at in said.values_list("job_id", "kind", "at"))
    this_morning = timezone.now().astimezone(shop.clock).replace(hour=0, minute=0, second=0, microsecond=0)  # so that it does not move by the hour
    waits = waits_of(by_the_clock, shop.hours(), this_morning, waiting)
    return owners_pace(waits), waits


def floor_of(shop: Shop, now: datetime, pace: Pace) -> Floor:
    """Return where the work is done, and at which pace."""
    return Floor(Clock(shop.hours(), now.astimezone(shop.clock)), shop.benches, pace, shop.without_iron)


def seed_of(shop: Shop, now: datetime) -> int:
    """Return the seed of a day: the same all day, so that what moves is what somebody did."""
    return shop.day_of(now).toordinal()


def deliveries(today: date) -> dict[str, Leg]:
    """Return the wait for the first order of each level that is on its way. Two queries."""
    orders = list(open_orders().select_related("kind").order_by("-ordered_on"))
    times, unknown = lead_times({o.supplier_id for o in orders}), lead_time([])
    found = {}
    for order in orders:
        time = times.get(order.supplier_id, unknown)
        found[order.kind.level] = Leg(LegKind.PART, time.quantile(0.5), float((today - order.ordered_on).days), time.sigma)
    return found


@dataclass(frozen=True)
class Due:
    """A job in the house, and what its ways rest on."""

    row: Job
    around: Around
    rests_on: str


def due_jobs(shop: Shop, pace: Pace) -> Iterator[Due]:
    """Yield every job in the house with what its ways rest on: its tape, what the shelf holds for it, what is on its way, the days to its promise."""
    coming, layer, economy = deliveries(shop.today()), layer_number(), [asdict(shop.economy()), pace.owner_min]
    shelves: dict[int, str] = {}  # a shelf of thousands of parts is read to its end once for each sheet, and not for each job
    for row in the_day():
        if row.sheet_id not in shelves:
            shelves[row.sheet_id] = _hash(shelf_for(row.sheet_id, shop))
        want = getattr(row, "want", None)
        is_here = want is None or getattr(row, "may_be_here", False)
        around = Around(shop.price_cents_per_min / 100, None if is_here or want is None else coming.get(want.level))
        yield Due(row, around, _hash(row.pk, row.version, layer, _days_left(row, shop), shelves[row.sheet_id], asdict(around), economy))


def _days_left(row: Job, shop: Shop) -> int | None:
    return None if row.promised_on is None else max((row.promised_on - shop.today()).days, 0)


def sheet_rests_on(sheet_id: int, shop: Shop, pace: Pace) -> str:
    """Return what the ways of an unseen unit of a drive rest on."""
    return _hash(sheet_id, layer_number(), shop.price_cents_per_min, asdict(shop.economy()), pace.owner_min)


def _hash(*what: object) -> str:
    return hashlib.sha256(json.dumps([VERSION, *what], default=plain).encode()).hexdigest()


def plain(value: Any) -> Any:
    """Return what JSON does not know as it does: the same in every process, so a set in its order."""
    if isinstance(value, frozenset):
        return sorted(value)
    return asdict(value) if is_dataclass(value) and not isinstance(value, type) else str(value)


def ways_here(ways: tuple[Future, ...], shop: Shop) -> tuple[Future, ...]:
    """Return ways with the iron marked only where not everybody here solders."""
    return ways if shop.without_iron else in_any_hands(ways)


def ahead_of(row: Job, ways: tuple[Future, ...], shop: Shop, now: datetime) -> JobAhead:
    """Return a job as the day sees it, what holds its power off now included."""
    minutes = 0.0 if row.held_until is None else max((row.held_until - now).total_seconds() / 60, 0.0)
    return JobAhead(row.tag, row.sheet.variant, held(ways_here(ways, shop), minutes), row.promised_on, shop.late_day_cents / 100, shop.day_cents / 100)


def kept_ways() -> dict[int, JobWays]:
    """Return the ways that are kept, by job. One query."""
    return {w.job_id: w for w in JobWays.objects.all()}


@dataclass(frozen=True)
class Week:
    """The week as it was last worked out; empty before it ever was."""

    body: Mapping[str, Any]
    computed_at: datetime | None
    is_stale: bool


def the_week(shop: Shop) -> Week:
    """Return the week as it was last worked out, and whether something has changed since."""
    kept = WeekPlan.objects.filter(pk=1).first()
    if kept is None:
        return Week({}, None, is_stale=True)
    return Week(kept.body, kept.computed_at, kept.rests_on != rests_on_now(shop))


def in_order(week: Week, *, whole: bool) -> tuple[list[tuple[Job, Mapping[str, Any]]], int]:
    """Return the jobs of a week that are in the house still with what it says of each, those that come first or all; and how many there are. Two queries."""
    here = set(the_day().values_list("tag", flat=True))
    told = [t for t in week.body.get("rows", []) if t["tag"] in here]
    shown = told if whole else told[:AT_FIRST]
    rows = {row.tag: row for row in the_day().filter(tag__in=[t["tag"] for t in shown])}
    return [(rows[t["tag"]], t) for t in shown if t["tag"] in rows], len(told)


def offer(sheet_id: int, shop: Shop, now: datetime) -> Offer | None:
    """Return by when a unit of a drive that comes in now would be done, and whose promise that moves; None while its ways are not drawn yet."""
    unseen = SheetWays.objects.filter(sheet_id=sheet_id).select_related("sheet").first()
    week = the_week(shop)
    if unseen is None or week.computed_at is None:
        return None
    kept = kept_ways()
    jobs = [ahead_of(row, read(kept[row.pk].body), shop, now) for row in the_day() if row.pk in kept]
    new = JobAhead("new", unseen.sheet.variant, ways_here(read(unseen.body), shop), None, shop.late_day_cents / 100, shop.day_cents / 100)
    return offer_for(new, jobs, week.body["rule"], floor_of(shop, now, pace_of(shop)[0]), seed=seed_of(shop, now), n=OFFER_WORLDS)

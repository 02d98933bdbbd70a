"""Working the day out, apart from anybody's request: the ways of each job that changed, then the week over all of them."""

from __future__ import annotations

import zlib
from collections.abc import Callable
from datetime import datetime
from time import monotonic
from typing import Any, Final

import numpy as np
from apps.day.models import JobWays, SheetWays, WeekPlan
from apps.day.selectors import Due, ahead_of, due_jobs, floor_of, kept_ways, pace_of, rests_on_now, seed_of, sheet_rests_on
from apps.drives.models import Sheet
from apps.drives.selectors import model_in_use
from apps.jobs.selectors import job_row, open_job
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from spindle.day.drawing import FUTURES, draw_futures, unseen_futures
from spindle.day.legs import JobAhead, Pace, read, written
from spindle.day.orders import NAMES
from spindle.day.promise import Row, Week, plan_week
from spindle.errors import SpindleError
from spindle.job.stages import Stage

WAYS: Final = FUTURES
"""Ways that are drawn of each job."""
IMPROVED_S: Final = 3.0
"""So long it is looked for what is worth taking first against the rule."""


def refresh(now: datetime, keep_going: Callable[[], bool] = lambda: True) -> bool:
    """Work the week out if what it rests on has changed. Return whether it was.

    A job that cannot be read is left out, and named in the week. ``keep_going`` is asked before each job.
    """
    shop = the_shop()
    rests_on = rests_on_now(shop)
    if WeekPlan.objects.filter(pk=1, rests_on=rests_on).exists():
        return False
    JobWays.objects.filter(job__stage=Stage.CLOSED.value).delete()
    kept, jobs, unread = kept_ways(), [], []
    pace, waits = pace_of(shop)
    for due in due_jobs(shop, pace):
        if not keep_going():
            return False
        try:
            jobs.append(_ahead(due, kept.get(due.row.pk), shop, pace, now))
        except (SpindleError, LookupError, ValueError, TypeError):  # what its tape or sheet can hold that no rule knows
            unread.append(due.row.tag)
    until = monotonic() + IMPROVED_S
    week = plan_week(jobs, floor_of(shop, now, pace), seed=seed_of(shop, now), keep_going=lambda: keep_going() and monotonic() < until)
    owners = {"owner_min": pace.owner_min, "answers": len(waits.answered), "unanswered": len(waits.so_far)}
    WeekPlan.objects.update_or_create(pk=1, defaults={"computed_at": now, "rests_on": rests_on, "body": {**_body(week, unread), **owners}})
    return True


def _ahead(due: Due, kept: JobWays | None, shop: Shop, pace: Pace, now: datetime) -> JobAhead:
    if kept is None or kept.rests_on != due.rests_on:
        state = open_job(job_row(due.row.tag), shop).state
        rng = np.random.default_rng(zlib.crc32(due.row.tag.encode()))
        body = written(draw_futures(state, due.around, pace, rng, n=WAYS))
        kept, _ = JobWays.objects.update_or_create(job=due.row, defaults={"rests_on": due.rests_on, "body": body})
    return ahead_of(due.row, read(kept.body), shop, now)


def draw_unseen(keep_going: Callable[[], bool] = lambda: True) -> int:
    """Draw the ways of unseen units of every current sheet whose ways rest on something else by now. Return how many were drawn."""
    shop, drawn = the_shop(), 0
    pace, _ = pace_of(shop)
    kept = dict(SheetWays.objects.values_list("sheet_id", "rests_on"))
    for sheet in Sheet.objects.filter(is_current=True):
        rests_on = sheet_rests_on(sheet.pk, shop, pace)
        if kept.get(sheet.pk) == rests_on or not keep_going():
            continue
        rng = np.random.default_rng(sheet.pk)
        futures = unseen_futures(model_in_use(sheet.pk), shop.economy(), shop.price_cents_per_min / 100, pace, rng, n=WAYS)
        SheetWays.objects.update_or_create(sheet=sheet, defaults={"rests_on": rests_on, "body": written(futures)})
        drawn += 1
    return drawn


def _body(week: Week, unread: list[str]) -> dict[str, Any]:
    chosen = week.chosen
    return {
        "rule": chosen.name,
        "rule_name": NAMES[chosen.name],
        "saves_cents": round(100 * chosen.saves_eur) if chosen.is_cheaper else 0,
        "lifted": [week.rows[chosen.order.index(n)].tag for n in chosen.lifted],
        "rows": [_row(r) for r in week.rows],
        "unread": unread,
    }


def _row(row: Row) -> dict[str, Any]:
    return {
        "tag": row.tag,
        "half": row.half.isoformat(),
        "nine": row.nine.isoformat(),
        "p_kept": row.p_kept,
        "begins": None if row.begins is None else row.begins.isoformat(),
        "bench_min": round(row.bench_min),
        "first": None if row.first is None else row.first.value,
        "iron": row.iron,
    }

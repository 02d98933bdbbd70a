"""Which open jobs want the same scarce part, and who should get it: a proposal with its reason, written nowhere."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from datetime import date
from statistics import median

from apps.drives.selectors import full_sheet, named_codes, statements
from apps.jobs.models import Want
from apps.shelf.selectors import Expected, days_since, expected_orders, open_orders, stock
from spindle.diagnosis.given.economy import Economy
from spindle.drives.levels import LEVELS
from spindle.drives.matching import USABLE, Statement
from spindle.stock.assignment import Given, Spare, Wish, assign
from spindle.stock.lead_time import DECILES, lead_time
from spindle.words.health import P_BAD_ITEM, Health

MOST_WISHES = 400
MOST_PIECES = 400
_ASKED = ("level", "p_success", "since", "job__tag", "job__promised_on", "job__sheet__variant")
"""What is read of a want; the sheets of hundreds of jobs would be most of the work."""


@dataclass(frozen=True)
class Scarce:
    """One level at which open jobs want parts: who gets which, who waits, and for what."""

    level: str
    here: int
    wishes: list[Want]
    given: tuple[Given, ...]
    next_order: Expected | None
    next_days: float

    @property
    def waits(self) -> list[Want]:
        """Those who go without for now."""
        has = {g.job for g in self.given}
        return [w for w in self.wishes if w.job.tag not in has]


def all_scarce(economy: Economy, today: date) -> list[Scarce]:
    """Return, for every level that open jobs want parts of, who should get them. Six queries and one for each level, however many jobs and parts there are.

    The next delivery is the soonest order on its way that fits anybody; without one, a new order at an unknown supplier's pace.
    """
    wishes: dict[str, list[Want]] = defaultdict(list)
    for want in Want.objects.select_related("job__sheet").only(*_ASKED).order_by("since"):
        wishes[want.level].append(want)
    if not wishes:
        return []
    said: dict[str, list[Statement]] = defaultdict(list)
    for statement in statements():
        said[statement.level].append(statement)
    coming: dict[str, list[Expected]] = defaultdict(list)
    for order in expected_orders(today, open_orders().filter(kind__level__in=wishes).select_related("kind", "supplier")):
        coming[order.order.kind.level].append(order)
    return [_scarce(level, wishes[level][:MOST_WISHES], said[level], coming[level], economy=economy, today=today) for level in LEVELS if level in wishes]


def _scarce(level: str, wishes: list[Want], said: list[Statement], on_the_way: list[Expected], *, economy: Economy, today: date) -> Scarce:
    fits = _fitting(level, wishes, said)
    codes = {code for _, code in fits}
    pieces = [
        Spare(tag, code, 1.0 - P_BAD_ITEM[Health(health)])
        for tag, code, health, count in stock()
        .filter(kind__level=level, kind__code__in=codes, count__gt=0)
        .values_list("tag", "kind__code", "health", "count")[:MOST_PIECES]
        for _ in range(min(count, len(wishes)))
    ]
    next_order = next((e for e in on_the_way if e.order.kind.code in codes), None)
    waits = next_order.waits if next_order else tuple(lead_time([]).quantile(p) for p in DECILES)
    given = assign([_wish(w, today) for w in wishes], pieces[:MOST_PIECES], lambda v, c: (v, c) in fits, waits=waits, economy=economy)
    return Scarce(level, len(pieces), wishes, given, next_order, median(waits))


def _fitting(level: str, wishes: list[Want], said: list[Statement]) -> set[tuple[str, str]]:
    """Return which (variant, code) fit among what the jobs' sheets and the shop's statements name."""
    found = set()
    for variant, pk in {w.job.sheet.variant: w.job.sheet_id for w in wishes}.items():
        about = [s for s in said if s.variant == variant]
        named = named_codes(full_sheet(pk), about, is_complete=False, levels=[level])
        found |= {(variant, code) for (v, code), match in named.items() if match.verdict in USABLE}
    return found


def _wish(want: Want, today: date) -> Wish:
    job = want.job
    left = None if job.promised_on is None else float((job.promised_on - today).days)
    return Wish(job.tag, job.sheet.variant, want.p_success, left, days_since(want.since))

"""Reading the record: how honest the advice was, and the figures of the month. What was taken in by mistake counts nowhere; practice has no job."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta
from statistics import median
from typing import Final

from apps.jobs.models import VOIDED, Job
from apps.people.models import User
from apps.people.permissions import require
from apps.shelf.models import Part
from apps.shop.models import Shop
from django.db.models import F, Q, Sum
from spindle.drives.levels import LEVEL_OF_REPAIR
from spindle.job.state import REPAIRED, SERVICED
from spindle.learning.reliability import Reliability, reliability
from spindle.words.duty import Duty

MONTHS: Final = 12
LIES_DAYS: Final = 365
"""Stock that came longer ago lies."""


@dataclass(frozen=True)
class Advice:
    """What was said of repairs, and what came of them: all of them, those that the advice put first, and those that somebody chose instead.

    Attributes
    ----------
    parts_for_nothing : repairs with a part, tried and not clean, a closed job
    jobs : closed jobs that it rests on
    """

    all_: Reliability
    followed: Reliability
    chosen: Reliability
    parts_for_nothing: float
    jobs: int


def advice() -> Advice:
    """Return how honest the advice was, over every closed job in which a repair was proposed and tried. One query."""
    rows = list(Job.objects.filter(closed_at__isnull=False).exclude(outcome__startswith=VOIDED).exclude(judged=[]).values_list("judged", "tried"))
    told = [(float(p), bool(first), bool(clean)) for judged, _ in rows for _, p, first, clean in judged]
    in_vain = sum(not clean and repair in LEVEL_OF_REPAIR for _, tried in rows for repair, clean in tried)

    def of(which: set[bool]) -> Reliability:
        own = [(p, clean) for p, first, clean in told if first in which]
        return reliability([p for p, _ in own], [clean for _, clean in own])

    return Advice(of({True, False}), of({True}), of({False}), in_vain / len(rows) if rows else 0.0, len(rows))


@dataclass(frozen=True)
class Month:
    """One month of the shop, by its own clock; ``days`` is the median from the counter to the hand-back, None where nothing went out."""

    first: date
    taken_in: int
    handed_back: int
    late: int
    promised: int
    repaired: int
    came_back: int
    days: float | None
    paid_cents: int
    unpaid: int
    """Handed back without a word of what was paid."""


@dataclass(frozen=True)
class Figures:
    """The last months, this one first, and what lies on the shelf."""

    months: list[Month]
    stock_cents: int
    stock_pieces: int
    lies_cents: int
    lies_pieces: int


def figures(user: User, shop: Shop) -> Figures:
    """Return the figures of the month, for who runs the shop. Three queries, however long the record is.

    Raises
    ------
    NotAllowedError
    """
    require(user, Duty.SHOP)
    firsts = list(_firsts(shop.today()))
    since = firsts[-1]
    own = Job.objects.exclude(outcome__startswith=VOIDED)
    came_in: dict[date, list[bool]] = {f: [] for f in firsts}
    for at, is_covered in own.filter(taken_in_at__date__gte=since - timedelta(days=1)).values_list("taken_in_at", "is_covered"):
        came_in.get(shop.day_of(at).replace(day=1), []).append(is_covered)
    went: dict[date, list[tuple[float, bool | None, str, int | None]]] = {f: [] for f in firsts}
    told = "taken_in_at", "closed_at", "promised_on", "outcome", "paid_cents"
    for taken, closed, promised, outcome, paid in own.filter(closed_at__date__gte=since - timedelta(days=1)).values_list(*told):
        day = shop.day_of(closed)
        is_late = None if promised is None else day > promised
        went.get(day.replace(day=1), []).append(((closed - taken).total_seconds() / 86_400, is_late, outcome, paid))
    return Figures([_month(f, came_in[f], went[f]) for f in firsts], *_stock(shop))


def _firsts(today: date) -> Iterator[date]:
    first = today.replace(day=1)
    for _ in range(MONTHS):
        yield first
        first = (first - timedelta(days=1)).replace(day=1)


def _month(first: date, came_in: list[bool], went: list[tuple[float, bool | None, str, int | None]]) -> Month:
    return Month(
        first=first,
        taken_in=len(came_in),
        handed_back=len(went),
        late=sum(bool(late) for _, late, _, _ in went),
        promised=sum(late is not None for _, late, _, _ in went),
        repaired=sum(outcome in (REPAIRED, SERVICED) for _, _, outcome, _ in went),
        came_back=sum(came_in),
        days=median(d for d, _, _, _ in went) if went else None,
        paid_cents=sum(paid or 0 for _, _, _, paid in went),
        unpaid=sum(paid is None for _, _, _, paid in went),
    )


def _stock(shop: Shop) -> tuple[int, int, int, int]:
    old = Q(at__date__lt=shop.today() - timedelta(days=LIES_DAYS))
    here = Part.objects.filter(count__gt=0, is_owned=False)
    worth = {"cents": Sum(F("count") * F("piece_cents"), default=0), "pieces": Sum("count", default=0)}
    all_, lies = here.aggregate(**worth), here.filter(old).aggregate(**worth)
    return int(all_["cents"]), int(all_["pieces"]), int(lies["cents"]), int(lies["pieces"])

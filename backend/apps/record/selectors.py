"""Reading the record: how honest the advice was, and the figures of the month. What was taken in by mistake counts nowhere; practice has no job."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta
from statistics import median
from typing import Any, Final

from apps.jobs.models import VOIDED, Job
from apps.people.models import User
from apps.people.permissions import require
from apps.shelf.models import Part, Supplier
from apps.shelf.selectors import expected_orders, lead_times
from apps.shop.models import Shop
from django.db.models import F, Q, Sum
from spindle.drives.levels import LEVEL_OF_REPAIR
from spindle.job.state import REPAIRED, SERVICED
from spindle.learning.past import PROBABLE
from spindle.learning.reliability import ENOUGH, Reliability, reliability, wilson
from spindle.stock.lead_time import lead_time
from spindle.words.duty import Duty

MONTHS: Final = 12
TOP: Final = 3
"""So many suspects a technician holds in mind."""
LIES_DAYS: Final = 365
"""Stock that came longer ago lies."""


@dataclass(frozen=True)
class Share:
    """k of n, with the 95 % interval of the share."""

    k: int
    n: int

    @property
    def low(self) -> float:
        """The lower end."""
        return wilson(self.k, self.n)[0]

    @property
    def high(self) -> float:
        """The upper end."""
        return wilson(self.k, self.n)[1]

    @property
    def is_enough(self) -> bool:
        """True if there are enough cases to say anything."""
        return self.n >= ENOUGH


@dataclass(frozen=True)
class Money:
    """What owners paid over what the first repair was offered for, in cents: the mean, and between which four of five lie."""

    n: int
    mean_cents: int
    low_cents: int
    high_cents: int

    @property
    def is_enough(self) -> bool:
        """True if there are enough cases to say anything."""
        return self.n >= ENOUGH


@dataclass(frozen=True)
class Advice:
    """What was said of repairs, and what came of them: all of them, those that the advice put first, and those that somebody chose instead.

    Attributes
    ----------
    parts_for_nothing : repairs with a part, tried and not clean, a closed job
    jobs : closed jobs that it rests on
    first, first_three : of the confirmed causes, how many were the first suspect, or among three, when the fault had been seen
    proven_back, probable_back : of the units that went home proven and probable, how many came back with the same fault inside the guarantee
    money : what was paid over what was offered first
    """

    all_: Reliability
    followed: Reliability
    chosen: Reliability
    parts_for_nothing: float
    jobs: int
    first: Share
    first_three: Share
    proven_back: Share
    probable_back: Share
    money: Money


def advice() -> Advice:
    """Return how honest the advice was, over every closed job in which a repair was proposed and tried. Two queries."""
    told_of = "judged", "tried", "past", "offered_cents", "paid_cents", "pk"
    rows = list(Job.objects.filter(closed_at__isnull=False).exclude(outcome__startswith=VOIDED).exclude(judged=[]).values_list(*told_of))
    back = set(Job.objects.filter(returns__isnull=False, is_covered=True).values_list("returns_id", flat=True))
    told = [(float(p), bool(first), bool(clean)) for judged, *_ in rows for _, p, first, clean in judged]
    in_vain = sum(not clean and repair in LEVEL_OF_REPAIR for _, tried, *_ in rows for repair, clean in tried)
    ranks = [_rank(past) for _, _, past, *_ in rows if past and past["is_confirmed"]]
    home = [(past["weight"], pk in back) for _, tried, past, _, _, pk in rows if past and tried and tried[-1][1] and past["weight"] > 0]

    def of(which: set[bool]) -> Reliability:
        own = [(p, clean) for p, first, clean in told if first in which]
        return reliability([p for p, _ in own], [clean for _, clean in own])

    return Advice(
        of({True, False}),
        of({True}),
        of({False}),
        in_vain / len(rows) if rows else 0.0,
        len(rows),
        first=Share(sum(r == 0 for r in ranks), len(ranks)),
        first_three=Share(sum(r < TOP for r in ranks), len(ranks)),
        proven_back=_back([b for w, b in home if w > PROBABLE]),
        probable_back=_back([b for w, b in home if w <= PROBABLE]),
        money=_money([paid - offered for *_, offered, paid, _ in rows if offered is not None and paid is not None]),
    )


def _rank(past: dict[str, Any]) -> int:
    """Return how many faults were likelier than the one that it was, when the fault had been seen."""
    seen, cause = past["seen"], next(iter(past["closing"]))
    return sum(p > seen.get(cause, 0.0) for p in seen.values())


def _back(came_back: list[bool]) -> Share:
    return Share(sum(came_back), len(came_back))


def _money(over: list[int]) -> Money:
    if not over:
        return Money(0, 0, 0, 0)
    ordered = sorted(over)
    return Money(len(over), round(sum(over) / len(over)), ordered[len(over) // 10], ordered[-1 - len(over) // 10])


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
class SupplierFigures:
    """How long a supplier takes, by n past orders: half of them within, and nine in ten; what is on its way, and what of it is late."""

    name: str
    n: int
    half_days: float
    nine_days: float
    on_the_way: int
    late: int


@dataclass(frozen=True)
class Figures:
    """The last months, this one first, and what lies on the shelf."""

    months: list[Month]
    stock_cents: int
    stock_pieces: int
    lies_cents: int
    lies_pieces: int
    suppliers: list[SupplierFigures]


def figures(user: User, shop: Shop) -> Figures:
    """Return the figures of the month, for who runs the shop. Seven queries, however long the record is.

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
    return Figures([_month(f, came_in[f], went[f]) for f in firsts], *_stock(shop), suppliers=_suppliers(shop))


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


def _suppliers(shop: Shop) -> list[SupplierFigures]:
    """Return how long each supplier takes, the slowest first."""
    times, names = lead_times(), dict(Supplier.objects.values_list("pk", "name"))
    coming: dict[int, list[bool]] = {}
    for expected in expected_orders(shop.today()):
        coming.setdefault(expected.order.supplier_id, []).append(expected.is_late)
    unknown = lead_time([])
    found = [(pk, times.get(pk, unknown), coming.get(pk, [])) for pk in names if pk in times or pk in coming]
    rows = [SupplierFigures(names[pk], t.n, t.quantile(0.5), t.quantile(0.9), len(late), sum(late)) for pk, t, late in found]
    return sorted(rows, key=lambda r: -r.nine_days)

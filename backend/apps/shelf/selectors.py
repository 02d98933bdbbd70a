"""Reading the shelf: what is here, what is wanted, what is on its way, what a donor still has, and what a unit can use of it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from apps.drives.selectors import current_named, full_sheet, named_codes, statements
from apps.errors import NotFoundError
from apps.shelf.models import Check, Donor, Kind, Movement, Order, Part, Taking
from django.db.models import Case, Count, F, Prefetch, Q, QuerySet, Sum, When, Window
from django.db.models.functions import RowNumber
from django.utils import timezone
from spindle.diagnosis.given.case import Stock
from spindle.drives.full_sheet import FullSheet
from spindle.drives.levels import LEVELS
from spindle.drives.matching import USABLE, Match, Verdict
from spindle.stock.conditions import Condition, condition, pieces_left, share
from spindle.stock.lead_time import DECILES, LeadTime, lead_time
from spindle.words.health import Health

SHOWN = 60
KINDS_SEARCHED = 200
OF_A_KIND = 2
"""Parts of one kind and health that are looked at for a unit, cheapest first: more of the same say nothing new."""
DONORS = 8
"""Donors that are looked at for a unit: of its own variant first, then those in which the most was seen to work."""
BEST = {"shelf": 3, "donor": 1}
"""Sources that the advice compares for one repair, at most: of the shelf and what is on its way, and of donors, each of which is a test more."""


def stock() -> QuerySet[Part]:
    """Return what the shop may use: nothing of an owner's is ever in it."""
    return Part.objects.filter(owner_job__isnull=True)


def part_by_tag(tag: str) -> Part:
    """Return one part with its kind, origin and custody, or raise NotFoundError."""
    found = Part.objects.select_related("kind", "donor", "order__supplier", "owner_job").filter(tag__iexact=tag).first()
    if found is None:
        raise NotFoundError(f"There is no part {tag}.")
    return found


def search_parts(words: str = "", *, level: str = "", only_here: bool = True) -> list[Part]:
    """Return the shelf's parts by tag, code, name or place, at most :data:`SHOWN`. Two queries."""
    found = stock().select_related("kind", "donor", "owner_job")
    if only_here:
        found = found.filter(count__gt=0)
    if level:
        found = found.filter(kind__in=list(Kind.objects.filter(level=level).values_list("pk", flat=True)))
    words = words.strip()
    if words:
        kinds = list(Kind.objects.filter(Q(code__icontains=words) | Q(name__icontains=words)).values_list("pk", flat=True)[:KINDS_SEARCHED])
        found = found.filter(
            Q(tag__startswith=words.upper()) | Q(kind__in=kinds) | Q(place__startswith=words) | Q(place__startswith=words[0].upper() + words[1:])
        )
    return sorted(found.order_by("kind_id", "pk")[:SHOWN], key=lambda p: (p.kind.level, p.kind.code, p.pk))


@dataclass(frozen=True)
class KindCount:
    """A kind with how many are here, on their way, and wanted by open jobs."""

    kind: Kind
    here: int
    coming: int

    @property
    def is_short(self) -> bool:
        """True if fewer are here and coming than the shelf should hold."""
        return self.here + self.coming < self.kind.min_count


def short_kinds() -> list[KindCount]:
    """Return the kinds that have fallen below their minimum, orders on their way counted. Two queries."""
    here = Kind.objects.filter(min_count__gt=0).annotate(here=Sum("parts__count", filter=Q(parts__owner_job__isnull=True), default=0))
    coming: dict[int, int] = {}
    for kind, packs, size in open_orders().values_list("kind", "packs", "pack_size"):
        coming[kind] = coming.get(kind, 0) + packs * size
    counts = [KindCount(k, k.here, coming.get(k.pk, 0)) for k in here]
    return [c for c in counts if c.is_short]


def open_orders() -> QuerySet[Order]:
    """Return the orders that are on their way."""
    return Order.objects.filter(arrived_on__isnull=True, cancelled="")


@dataclass(frozen=True)
class Expected:
    """An order on its way with when it is expected: days from today for half and for nine in ten of such orders."""

    order: Order
    waited_days: float
    half_days: float
    most_days: float
    n: int
    """Past orders of this supplier that it rests on."""
    waits: tuple[float, ...]
    """Ten equally likely days from today."""


def lead_times(suppliers: Iterable[int] | None = None) -> dict[int, LeadTime]:
    """Return each supplier's lead time from its past orders. One query."""
    past = Order.objects.filter(arrived_on__isnull=False)
    if suppliers is not None:
        past = past.filter(supplier__in=set(suppliers))
    days: dict[int, list[float]] = {}
    for supplier, ordered, arrived in past.values_list("supplier", "ordered_on", "arrived_on"):
        days.setdefault(supplier, []).append(float((arrived - ordered).days) if arrived else 0.0)
    return {s: lead_time(d) for s, d in days.items()}


def expected_orders(orders: Iterable[Order] | None = None, *, today: date | None = None) -> list[Expected]:
    """Return the orders on their way, soonest first. Two queries."""
    found = list(open_orders().select_related("kind", "supplier") if orders is None else orders)
    times = lead_times({o.supplier_id for o in found})
    unknown = lead_time([])
    now = today or timezone.localdate()
    rows = []
    for order in found:
        time = times.get(order.supplier_id, unknown)
        waited = float((now - order.ordered_on).days)
        waits = tuple(time.remaining(p, waited) for p in DECILES)
        rows.append(Expected(order, waited, time.remaining(0.5, waited), time.remaining(0.9, waited), time.n, waits))
    return sorted(rows, key=lambda e: e.half_days)


# --- donors


def donor_by_tag(tag: str) -> Donor:
    """Return one donor with everything that is shown of it, or raise NotFoundError."""
    found = _donors().filter(tag__iexact=tag).first()
    if found is None:
        raise NotFoundError(f"There is no donor {tag}.")
    return found


def donors(*, only_here: bool = True) -> list[Donor]:
    """Return the donors, newest first, at most :data:`SHOWN`. Three queries."""
    found = _donors().order_by("-pk")
    return list((found.filter(is_scrapped=False) if only_here else found)[:SHOWN])


def _donors() -> QuerySet[Donor]:
    checks = Prefetch("checks", Check.objects.select_related("by"))
    return Donor.objects.select_related("sheet").prefetch_related(checks, Prefetch("parts", Part.objects.select_related("kind")))


@dataclass(frozen=True)
class DonorPiece:
    """One piece of a donor: what it is good for, and whether it is still in there."""

    level: str
    code: str
    condition: Condition
    gone: str
    """Why it is not there any more; empty if it is."""


def donor_pieces(donor: Donor) -> list[DonorPiece]:
    """Return what a donor is made of, by its sheet, with the health of each piece."""
    unit = full_sheet(donor.sheet_id)
    seen = seen_of(donor.checks.all())
    left = set(() if donor.is_scrapped else pieces_left((*unit.pieces, "drive"), donor.gone))
    why = {p: "" if p in left else donor.gone.get(p, "a piece of it is gone") for p in ("drive", *unit.pieces)}
    return [
        DonorPiece(level, next(iter(unit.codes(level))), condition(level, seen, others=unit.pieces), why[level])
        for level in ("drive", *(p for p in unit.pieces if p != "drive"))
    ]


def seen_of(checks: Iterable[Check]) -> dict[str, bool]:
    """Return what was seen, function by function; the newest counts."""
    return {c.function: c.works for c in checks}


# --- what a unit can use


@dataclass(frozen=True)
class Offer:
    """Something that one repair of a unit could use: on the shelf, in a donor, or on its way."""

    tag: str
    level: str
    code: str
    match: Match
    where: str
    place: str
    health: Health
    works: frozenset[str]
    fails: frozenset[str]
    cents: int
    wait_days: float = 0.0
    most_days: float = 0.0

    def stock_for(self, repair: str) -> Stock:
        """Return it as the diagnosis reads it."""
        known = self.health, self.works, self.fails
        return Stock(repair, self.tag, *known, self.cents / 100, self.wait_days, self.where == "donor")


Fits = dict[tuple[str, str], Match]
OFFERED = frozenset({*USABLE, Verdict.PART})


def sources_for(unit: FullSheet, *, levels: Iterable[str] | None = None) -> list[Offer]:
    """Return everything that is here, in donors or on its way and fits this unit, in part or with transfers. Seven queries at most."""
    said = statements(variant=unit.drive.variant)
    bare, complete = (named_codes(unit, said, is_complete=c) for c in (False, True))
    asked = set(LEVELS if levels is None else levels)
    wanted = Q(pk__in=[])
    for level in asked:
        codes = [c for (v, c), m in bare.items() if v == level and m.verdict in OFFERED]
        if codes:
            wanted |= Q(level=level, code__in=codes)
    kinds = {k.pk: k for k in Kind.objects.filter(wanted)}
    return [*_on_shelf(kinds, bare, complete), *_on_their_way(kinds, bare), *_in_donors(unit, asked, complete)]


def _on_shelf(kinds: dict[int, Kind], bare: Fits, complete: Fits) -> list[Offer]:
    best = Window(RowNumber(), partition_by=[F("kind"), F("health")], order_by=[F("piece_cents").asc(), F("pk").asc()])
    found = []
    for part in stock().filter(kind__in=kinds, count__gt=0).annotate(rank=best).filter(rank__lte=OF_A_KIND):
        kind = kinds[part.kind_id]
        fit = (complete if part.is_complete else bare)[kind.level, kind.code]
        known = Health(part.health), frozenset(part.works), frozenset(part.fails)
        found.append(Offer(part.tag, kind.level, kind.code, fit, "shelf", part.place, *known, part.piece_cents))
    return found


def _on_their_way(kinds: dict[int, Kind], bare: Fits) -> list[Offer]:
    orders = list(open_orders().filter(kind__in=kinds).select_related("supplier"))
    if not orders:
        return []
    none: frozenset[str] = frozenset()
    return [
        Offer(
            e.order.tag,
            kinds[e.order.kind_id].level,
            kinds[e.order.kind_id].code,
            bare[kinds[e.order.kind_id].level, kinds[e.order.kind_id].code],
            "order",
            e.order.supplier.name,
            Health.NEW,
            none,
            none,
            e.order.piece_cents,
            e.half_days,
            e.most_days,
        )
        for e in expected_orders(orders)
    ]


def _in_donors(unit: FullSheet, levels: set[str], complete: Fits) -> list[Offer]:
    """Return the pieces that are left in donors: of this variant first, then of others whose sheets name something that fits."""
    fitting = {key for key, m in complete.items() if m.verdict in OFFERED and key[0] in levels}
    variants = [v for v, named in current_named().items() if named & fitting]
    found = []
    same = Case(When(sheet__variant=unit.drive.variant, then=1), default=0)
    good = Count("checks", filter=Q(checks__works=True))
    some = Donor.objects.filter(sheet__variant__in=variants, is_scrapped=False).annotate(same=same, good=good)
    for donor in some.order_by("-same", "-good", "-pk").prefetch_related("checks")[:DONORS]:
        pieces = donor_pieces(donor)
        for piece in pieces:
            if piece.gone or piece.level not in levels or LEVELS[piece.level].ages_unused:
                continue
            fit = complete.get((piece.level, piece.code))
            if fit is not None and fit.verdict in OFFERED:
                cents = round(donor.bought_cents * share(piece.level, unit.pieces))
                known = piece.condition.health, piece.condition.works, piece.condition.fails
                tag = f"{donor.tag} {LEVELS[piece.level].name.lower()}"
                found.append(Offer(tag, piece.level, piece.code, fit, "donor", donor.place, *known, cents))
    return found


def stock_for(unit: FullSheet, repairs: Iterable[str]) -> tuple[Stock, ...]:
    """Return the shelf as the diagnosis of a unit reads it: for each repair the best few sources, what fits in part only left out."""
    usable = [s for s in sources_for(unit) if s.match.verdict in USABLE]
    found: list[Stock] = []
    may = set(repairs)
    for level in LEVELS.values():
        for where, best in BEST.items():
            here = sorted((s for s in usable if s.level == level.id and (s.where == "donor") is (where == "donor")), key=_order)[:best]
            found += [s.stock_for(r) for r in level.repairs if r in may for s in here]
    return tuple(found)


def _order(source: Offer) -> tuple[Any, ...]:
    failed = bool(source.fails & set(LEVELS[source.level].functions))
    return (failed, source.wait_days, source.health is Health.UNKNOWN, source.cents, source.tag)


# --- custody, and what was taken


def away(job: int | None = None) -> list[Part]:
    """Return owners' parts that are out of their unit, longest first. One query."""
    found = Part.objects.filter(away_since__isnull=False).select_related("kind", "owner_job")
    return list((found if job is None else found.filter(owner_job=job)).order_by("away_since")[:200])


def taken(job: int) -> list[Taking]:
    """Return what was taken from the shelf for a job and is neither fitted for good nor back."""
    return list(Taking.objects.filter(job=job, ended="").select_related("part__kind").order_by("pk"))


def holders(part: Part) -> list[dict[str, Any]]:
    """Return who has pieces of a part: job, by whom, since when."""
    rows = Taking.objects.filter(part=part, ended="").select_related("job", "by").order_by("-pk")[:5]
    return [{"job": r.job.tag, "by": r.by.get_full_name() or r.by.username, "at": r.at.isoformat()} for r in rows]


def days_since(at: datetime) -> float:
    """Return the days since a moment."""
    return (timezone.now() - at).total_seconds() / 86_400


def trail(tag: str) -> list[Movement]:
    """Return what happened to a thing, newest first, at most :data:`SHOWN`."""
    return list(Movement.objects.filter(tag=tag).select_related("by").order_by("-at", "-pk")[:SHOWN])

"""Reading the shelf: what is here, what is short, what is on its way, and what a donor still has."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime

from apps.drives.selectors import current_named, full_sheet, model_of
from apps.shelf.models import Check, Donor, Kind, Movement, Order, Part, Supplier
from django.db.models import Prefetch, Q, QuerySet, Sum
from django.utils import timezone
from spindle.bench.tools.belts import AtHand
from spindle.errors import NotFoundError
from spindle.stock.conditions import Condition, condition, pieces_left, share, worth_of
from spindle.stock.lead_time import DECILES, LeadTime, lead_time

SHOWN = 60
KINDS_SEARCHED = 200


def stock() -> QuerySet[Part]:
    """Return what the shop may use: nothing of an owner's is ever in it."""
    return Part.objects.filter(is_owned=False)


def part_by_tag(tag: str) -> Part:
    """Return one part with its kind and origin, or raise NotFoundError."""
    found = Part.objects.select_related("kind", "donor", "order__supplier").filter(tag=tag.strip().upper()).first()
    if found is None:
        raise NotFoundError(f"There is no part {tag}.")
    return found


def search_parts(words: str = "", *, level: str = "", only_here: bool = True) -> list[Part]:
    """Return the shelf's parts by tag, code, name or place, at most :data:`SHOWN`. Two queries."""
    found = stock().select_related("kind", "donor")
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


def belts_here() -> list[AtHand]:
    """Return the belts that lie on the shelf and whose size somebody has said, one for each kind: where the first of them lies."""
    found = stock().select_related("kind").filter(kind__level="belt", count__gt=0, kind__around_mm__isnull=False).order_by("kind_id", "pk").distinct("kind_id")
    return [AtHand(f"{p.tag} {p.kind.name}{f', {p.place}' if p.place else ''}", p.kind.around_mm or 0.0, p.kind.section_mm or 0.0) for p in found[:SHOWN]]


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
    here = Kind.objects.filter(min_count__gt=0).annotate(here=Sum("parts__count", filter=Q(parts__is_owned=False), default=0))
    coming: dict[int, int] = {}
    for kind, packs, size, came in open_orders().values_list("kind", "packs", "pack_size", "came"):
        coming[kind] = coming.get(kind, 0) + packs * size - came
    counts = [KindCount(k, k.here, coming.get(k.pk, 0)) for k in here]
    return [c for c in counts if c.is_short]


def open_orders() -> QuerySet[Order]:
    """Return the orders that are on their way."""
    return Order.objects.filter(arrived_on__isnull=True, cancelled="")


def past_orders(limit: int = 12) -> list[Order]:
    """Return the orders that came last, newest first: the lead times rest on such."""
    return list(Order.objects.filter(arrived_on__isnull=False).select_related("kind", "supplier").order_by("-arrived_on", "-pk")[:limit])


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
    is_late: bool
    """Nine in ten of this supplier's orders were here sooner."""


def lead_times(suppliers: Iterable[int] | None = None) -> dict[int, LeadTime]:
    """Return each supplier's lead time from its past orders. One query."""
    past = Order.objects.filter(arrived_on__isnull=False)
    if suppliers is not None:
        past = past.filter(supplier__in=set(suppliers))
    days: dict[int, list[float]] = {}
    for supplier, ordered, arrived in past.values_list("supplier", "ordered_on", "arrived_on"):
        days.setdefault(supplier, []).append(float((arrived - ordered).days) if arrived else 0.0)
    return {s: lead_time(d) for s, d in days.items()}


def expected_orders(today: date, orders: Iterable[Order] | None = None) -> list[Expected]:
    """Return the orders on their way, soonest first, as it looks on that day. Two queries."""
    found = list(open_orders().select_related("kind", "supplier") if orders is None else orders)
    times = lead_times({o.supplier_id for o in found})
    unknown = lead_time([])
    rows = []
    for order in found:
        time = times.get(order.supplier_id, unknown)
        waited = float((today - order.ordered_on).days)
        waits = tuple(time.remaining(p, waited) for p in DECILES)
        rows.append(Expected(order, waited, time.remaining(0.5, waited), time.remaining(0.9, waited), time.n, waits, waited > time.quantile(0.9)))
    return sorted(rows, key=lambda e: e.half_days)


# --- donors


def donor_by_tag(tag: str) -> Donor:
    """Return one donor with everything that is shown of it, or raise NotFoundError."""
    found = _donors().filter(tag=tag.strip().upper()).first()
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


def piece_cents(donor: Donor, level: str) -> int:
    """Return what a piece of a donor has cost: its share of the donor's price by what the pieces would cost new."""
    return round(donor.bought_cents * share(level, full_sheet(donor.sheet_id).pieces, worth_of(model_of(donor.sheet_id))))


def seen_of(checks: Iterable[Check]) -> dict[str, bool]:
    """Return what was seen, function by function; the newest counts."""
    return {c.function: c.works for c in checks}


def days_since(at: datetime) -> float:
    """Return the days since a moment."""
    return (timezone.now() - at).total_seconds() / 86_400


def trail(tag: str) -> list[Movement]:
    """Return what happened to a thing, newest first, at most :data:`SHOWN`."""
    return list(Movement.objects.filter(tag=tag).select_related("by").order_by("-at", "-pk")[:SHOWN])


@dataclass(frozen=True)
class DonorDetail:
    """A donor with what happened to it."""

    donor: Donor
    trail: list[Movement]


def donor_detail(donor: Donor) -> DonorDetail:
    """Return a donor with everything that is shown of it."""
    return DonorDetail(donor, trail(donor.tag))


def known_suppliers() -> list[str]:
    """Return whom the shop has ordered from, by name."""
    return list(Supplier.objects.order_by("name").values_list("name", flat=True))


def known_codes() -> dict[tuple[str, str], str]:
    """Return the name of every kind of part that is known, by level and code: those of the shelf, and what the current sheets name."""
    named = {pair: "" for pairs in current_named().values() for pair in pairs}
    return dict(sorted({**named, **{(k.level, k.code): k.name for k in Kind.objects.all()}}.items()))

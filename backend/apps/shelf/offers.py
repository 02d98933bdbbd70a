"""What a unit can use: everything that is here, in donors or on its way and fits it, and the best of it for the advice."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import Any

from apps.drives.selectors import current_named, named_codes, statements
from apps.shelf.models import Donor, Kind
from apps.shelf.selectors import donor_pieces, expected_orders, open_orders, piece_cents, stock
from django.db.models import Case, Count, F, Q, When, Window
from django.db.models.functions import RowNumber
from spindle.diagnosis.given.case import Stock
from spindle.drives.full_sheet import FullSheet
from spindle.drives.levels import LEVELS
from spindle.drives.matching import USABLE, Match, Verdict
from spindle.words.health import Health

OF_A_KIND = 2
"""Parts of one kind and health that are looked at for a unit, cheapest first: more of the same say nothing new."""
DONORS = 8
"""Donors that are looked at for a unit: of its own variant first, then those in which the most was seen to work."""
BEST = {"shelf": 3, "donor": 1}
"""Sources that the advice compares for one repair, at most: of the shelf and what is on its way, and of donors, each of which is a test more."""


@dataclass(frozen=True)
class Offer:
    """Something that one repair of a unit could use: on the shelf, in a donor, or on its way."""

    tag: str
    """The tag of the part, the donor or the order."""
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

    @property
    def item(self) -> str:
        """What it is called as a physical thing: a donor is many."""
        return f"{self.tag} {LEVELS[self.level].name.lower()}" if self.where == "donor" else self.tag

    def stock_for(self, repair: str) -> Stock:
        """Return it as the diagnosis reads it."""
        known = self.health, self.works, self.fails
        return Stock(repair, self.item, *known, self.cents / 100, self.wait_days, self.where == "donor")


Fits = dict[tuple[str, str], Match]
OFFERED = frozenset({*USABLE, Verdict.PART})


def offers_for(unit: FullSheet, today: date, *, levels: Iterable[str] | None = None) -> list[Offer]:
    """Return everything that is here, in donors or on its way and fits this unit, in part or with transfers. Eight queries at most."""
    said = statements(variant=unit.drive.variant)
    bare, complete = (named_codes(unit, said, is_complete=c) for c in (False, True))
    asked = set(LEVELS if levels is None else levels)
    wanted = Q(pk__in=[])
    for level in asked:
        codes = [c for (v, c), m in bare.items() if v == level and m.verdict in OFFERED]
        if codes:
            wanted |= Q(level=level, code__in=codes)
    kinds = {k.pk: k for k in Kind.objects.filter(wanted)}
    return [*_on_shelf(kinds, bare, complete), *_on_their_way(kinds, bare, today), *_in_donors(unit, asked, complete)]


def _on_shelf(kinds: dict[int, Kind], bare: Fits, complete: Fits) -> list[Offer]:
    best = Window(RowNumber(), partition_by=[F("kind"), F("health")], order_by=[F("piece_cents").asc(), F("pk").asc()])
    found = []
    for part in stock().filter(kind__in=kinds, count__gt=0).annotate(rank=best).filter(rank__lte=OF_A_KIND):
        kind = kinds[part.kind_id]
        fit = (complete if part.is_complete else bare)[kind.level, kind.code]
        known = Health(part.health), frozenset(part.works), frozenset(part.fails)
        found.append(Offer(part.tag, kind.level, kind.code, fit, "shelf", part.place, *known, part.piece_cents))
    return found


def _on_their_way(kinds: dict[int, Kind], bare: Fits, today: date) -> list[Offer]:
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
        for e in expected_orders(today, orders)
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
        for piece in donor_pieces(donor):
            if piece.gone or piece.level not in levels or LEVELS[piece.level].ages_unused:
                continue
            fit = complete.get((piece.level, piece.code))
            if fit is not None and fit.verdict in OFFERED:
                cents = piece_cents(donor, piece.level)
                known = piece.condition.health, piece.condition.works, piece.condition.fails
                found.append(Offer(donor.tag, piece.level, piece.code, fit, "donor", donor.place, *known, cents))
    return found


def stock_for(unit: FullSheet, repairs: Iterable[str], today: date) -> tuple[Stock, ...]:
    """Return the shelf as the diagnosis of a unit reads it: for each repair the best few sources, what fits in part only left out."""
    usable = [s for s in offers_for(unit, today) if s.match.verdict in USABLE]
    found: list[Stock] = []
    may = set(repairs)
    for level in LEVELS.values():
        for where, best in BEST.items():
            here = sorted((s for s in usable if s.level == level.id and (s.where == "donor") is (where == "donor")), key=_rank)[:best]
            found += [s.stock_for(r) for r in level.repairs if r in may for s in here]
    return tuple(found)


def _rank(source: Offer) -> tuple[Any, ...]:
    failed = bool(source.fails & set(LEVELS[source.level].functions))
    return (failed, source.wait_days, source.health is Health.UNKNOWN, source.cents, source.tag)

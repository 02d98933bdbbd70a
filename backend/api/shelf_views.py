"""Views of the shelf."""

from __future__ import annotations

from collections.abc import Iterable

from apps.drives.selectors import homes_of_part
from apps.shelf.models import Check, Donor, Movement, Part
from apps.shelf.scarce import Scarce
from apps.shelf.selectors import Expected, KindCount, donor_pieces, holders, trail
from spindle.drives.levels import LEVELS

from . import shelf_schemas as v
from .drive_views import fit_view


def part_view(part: Part) -> v.PartView:
    """Return a part for the list."""
    return v.PartView(
        tag=part.tag,
        level=part.kind.level,
        level_name=LEVELS[part.kind.level].name,
        code=part.kind.code,
        name=part.kind.name,
        count=part.count,
        health=part.health,
        works=part.works,
        fails=part.fails,
        is_complete=part.is_complete,
        lot=part.lot,
        place=part.place,
        piece_cents=part.piece_cents,
        origin=part.donor.tag if part.donor else "",
        owner_job=part.owner_job.tag if part.owner_job else "",
        away_since=part.away_since,
    )


def part_detail_view(part: Part) -> v.PartDetailView:
    """Return a part with its trail and where it fits."""
    return v.PartDetailView(
        **part_view(part).dict(),
        functions=list(LEVELS[part.kind.level].functions),
        checks=_checks(part.checks.select_related("by")),
        trail=_trail(trail(part.tag)),
        holders=[v.HolderView(**h) for h in holders(part)],
        fits=[fit_view(f) for f in homes_of_part(part.kind.level, part.kind.code)],
    )


def donor_view(donor: Donor) -> v.DonorView:
    """Return a donor for the list."""
    pieces = donor_pieces(donor)
    return v.DonorView(
        tag=donor.tag,
        variant=donor.sheet.variant,
        family=donor.sheet.facts["family"],
        sheet_id=donor.sheet_id,
        place=donor.place,
        origin=donor.origin,
        left=sum(not p.gone for p in pieces),
        of=len(pieces),
        is_scrapped=donor.is_scrapped,
    )


def donor_detail_view(donor: Donor) -> v.DonorDetailView:
    """Return a donor taken apart on paper."""
    pieces = [
        v.PieceView(
            level=p.level,
            level_name=LEVELS[p.level].name,
            code=p.code,
            functions={f: w.value for f, w in p.condition.functions.items()},
            health=p.condition.health.value,
            gone=p.gone,
        )
        for p in donor_pieces(donor)
    ]
    return v.DonorDetailView(
        **donor_view(donor).dict(),
        bought_cents=donor.bought_cents,
        pieces=pieces,
        checks=_checks(donor.checks.all()),
        trail=_trail(trail(donor.tag)),
        parts=[p.tag for p in donor.parts.all()],
    )


def order_view(expected: Expected) -> v.OrderView:
    """Return an order on its way."""
    order = expected.order
    return v.OrderView(
        tag=order.tag,
        supplier=order.supplier.name,
        level_name=LEVELS[order.kind.level].name,
        code=order.kind.code,
        name=order.kind.name,
        count=order.count,
        piece_cents=order.piece_cents,
        ordered_on=order.ordered_on,
        waited_days=expected.waited_days,
        half_days=expected.half_days,
        most_days=expected.most_days,
        past=expected.n,
    )


def wanted_view(short: Iterable[KindCount], scarce: Iterable[Scarce]) -> v.WantedView:
    """Return what is short, and who should get what."""
    return v.WantedView(
        short=[v.ShortView(level=c.kind.level, code=c.kind.code, name=c.kind.name, here=c.here, coming=c.coming, least=c.kind.min_count) for c in short],
        scarce=[
            v.ScarceView(
                level_name=LEVELS[s.level].name,
                here=s.here,
                wanted=len(s.wishes),
                given=[v.GivenView(job=g.job, piece=g.piece, reason=g.reason) for g in s.given],
                waits=[v.WaitsView(job=w.job.tag, promised_on=w.job.promised_on) for w in s.waits],
                next_tag=s.next_order.order.tag if s.next_order else "",
                next_days=s.next_days,
            )
            for s in scarce
        ],
    )


def _checks(checks: Iterable[Check]) -> list[v.SeenView]:
    found = [v.SeenView(function=c.function, works=c.works, unit=c.unit, by=c.by.get_full_name() or c.by.username, at=c.at) for c in checks]
    return sorted(found, key=lambda c: c.at, reverse=True)


def _trail(rows: Iterable[Movement]) -> list[v.MovementView]:
    return [v.MovementView(text=m.text, by=m.by.get_full_name() or m.by.username, at=m.at) for m in rows]

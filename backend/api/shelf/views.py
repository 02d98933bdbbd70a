"""Views of the shelf."""

from __future__ import annotations

from collections.abc import Iterable

from api.drives.views import fit_view
from api.shelf import schemas as v
from apps.jobs.models import Custody
from apps.jobs.scarce import Scarce
from apps.jobs.selectors import PartDetail
from apps.shelf.models import Check, Donor, Movement, Part
from apps.shelf.selectors import DonorDetail, KindCount, donor_pieces
from spindle.drives.levels import LEVELS


def part_view(part: Part, custody: Custody | None = None) -> v.PartView:
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
        owner_job=custody.job.tag if custody else "",
        away_since=custody.away_since if custody else None,
    )


def away_view(custody: Custody) -> v.PartView:
    """Return an owner's part that is out of its unit."""
    return part_view(custody.part, custody)


def part_detail_view(detail: PartDetail) -> v.PartDetailView:
    """Return a part with its trail and where it fits."""
    return v.PartDetailView(
        **dict(part_view(detail.part, detail.custody)),
        around_mm=detail.part.kind.around_mm,
        section_mm=detail.part.kind.section_mm,
        functions=list(LEVELS[detail.part.kind.level].functions),
        checks=_checks(detail.checks),
        trail=_trail(detail.trail),
        holders=[v.HolderView(**h) for h in detail.holders],
        fits=[fit_view(f) for f in detail.fits],
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


def donor_detail_view(detail: DonorDetail) -> v.DonorDetailView:
    """Return a donor taken apart on paper."""
    donor = detail.donor
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
        **dict(donor_view(donor)),
        bought_cents=donor.bought_cents,
        pieces=pieces,
        checks=_checks(donor.checks.all()),
        trail=_trail(detail.trail),
        parts=[p.tag for p in donor.parts.all()],
    )


def wanted_view(short: Iterable[KindCount], scarce: Iterable[Scarce]) -> v.WantedView:
    """Return what is short, and who should get what."""
    return v.WantedView(
        short=[v.ShortView(level=c.kind.level, code=c.kind.code, name=c.kind.name, here=c.here, coming=c.coming, least=c.kind.min_count) for c in short],
        scarce=[
            v.ScarceView(
                level=s.level,
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
    found = [v.SeenView(function=c.function, works=c.works, unit=c.unit, by=c.by.shown_name, at=c.at) for c in checks]
    return sorted(found, key=lambda c: c.at, reverse=True)


def _trail(rows: Iterable[Movement]) -> list[v.MovementView]:
    return [v.MovementView(text=m.text, by=m.by.shown_name, at=m.at) for m in rows]

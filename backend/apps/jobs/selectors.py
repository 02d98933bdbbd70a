"""Reading jobs: one job whole, the list of the day, what was tried, and what of the shelf is with them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import date, datetime
from typing import Any

from apps.drives.models import Sheet
from apps.drives.selectors import Fit, full_sheet, homes_of_part, key_reading, model_of, named_sheet
from apps.jobs.folding import kept_value, make_room
from apps.jobs.models import HEAVY, SHEETS_BODY, Custody, Job, Taking
from apps.shelf.models import Check, Kind, Movement, Part
from apps.shelf.offers import stock_for
from apps.shelf.selectors import trail
from apps.shop.models import Shop
from django.db.models import BooleanField, Exists, ExpressionWrapper, OuterRef, Q, QuerySet
from django.utils import timezone
from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.economy import Economy
from spindle.drives.full_sheet import FullSheet
from spindle.drives.key import Reading
from spindle.errors import NotFoundError
from spindle.job import value
from spindle.job.asking import Speech
from spindle.job.ledger import says
from spindle.job.stages import Stage
from spindle.job.state import JobState, bench_of, state_of
from spindle.learning.claims import Tried

MOST_KEPT = 256
"""Readings of the shelf that a process keeps: one for each sheet that is on the benches, and some."""
_readings: dict[tuple[int, int, date], tuple[Stock, ...]] = {}


def whole_jobs() -> QuerySet[Job]:
    """Return jobs with what folding their tape needs beside it: what their sheet is called, and after which job they came back."""
    former = [f"returns__{f.name}" for f in Job._meta.concrete_fields if f.name not in ("id", "tag", "bridged")]
    return Job.objects.select_related("sheet", "returns").defer(*SHEETS_BODY, *former)


def job_row(tag: str, *, to_write: bool = False) -> Job:
    """Return the row of one job with what its sheet is called, or raise NotFoundError; ``to_write`` holds it until the transaction ends."""
    rows = Job.objects.select_for_update() if to_write else Job.objects.all()
    try:
        row = rows.get(tag=tag.strip().upper())
    except Job.DoesNotExist:
        raise NotFoundError(f"There is no job {tag}.") from None
    row.sheet = named_sheet(row.sheet_id)
    return row


@dataclass(frozen=True)
class OpenJob:
    """A job on somebody's screen: its row, and everything that follows from its tape."""

    row: Job
    state: JobState
    shop: Shop
    unit: FullSheet
    identity: Reading | None = None
    """Which drive it can be by what the eye saw; None if nobody looked."""
    sheets: Mapping[str, Sheet] = field(default_factory=dict)
    """The current sheets by variant, where somebody looked."""
    now: datetime = field(default_factory=timezone.now)

    @property
    def job(self) -> value.Job:
        """The job itself."""
        return self.state.job

    @property
    def speech(self) -> Speech:
        """What its lines need to be said."""
        return Speech(self.job, self.shop.sign)


def open_job(row: Job, shop: Shop, *, with_shelf: bool = True) -> OpenJob:
    """Return a job as its screens show it. The shelf moves the advice and no stage: who asks for no advice leaves it out."""
    return shown_as(row, kept_value(row, shop), shop, shelf_for(row.sheet_id, shop) if with_shelf else ())


def shown_as(row: Job, job: value.Job, shop: Shop, shelf: tuple[Stock, ...]) -> OpenJob:
    """Return a job that is at hand already as its screens show it."""
    state = state_of(job, economy_of(job, shop), shelf, bench_of(job, timezone.now(), shop.lacks))
    identity, sheets = key_reading(job.looks) if job.looks else (None, {})
    return OpenJob(row, state, shop, full_sheet(row.sheet_id), identity, sheets)


def economy_of(job: value.Job, shop: Shop) -> Economy:
    """Return the shop's figures with the days that are left of a job's promise, 0 if it has passed."""
    promised = job.notes.promised_on
    return replace(shop.economy(), promise_days=None if promised is None else float(max((promised - shop.today()).days, 0)))


def shelf_for(sheet_id: int, shop: Shop, *, is_fresh: bool = False) -> tuple[Stock, ...]:
    """Return what the shelf holds for a drive, as the diagnosis reads it.

    Kept for as long as the database says that nothing of shelf, sheets and sayings has changed. ``is_fresh``: read anew and keep
    nothing, for a write that has changed the shelf itself and may yet be taken back.
    """
    if is_fresh or shop.pk is None:
        return _read_shelf(sheet_id, shop)
    at = (sheet_id, shop.shelf_version, shop.today())
    if at not in _readings:
        make_room(_readings, MOST_KEPT)
        _readings[at] = _read_shelf(sheet_id, shop)
    return _readings[at]


def _read_shelf(sheet_id: int, shop: Shop) -> tuple[Stock, ...]:
    return stock_for(full_sheet(sheet_id), [r.id for r in model_of(sheet_id).repairs], shop.today())


def changes_since(job: value.Job, version: int, sign: str) -> list[dict[str, Any]]:
    """Return what was written to a job after a version, in words, for somebody whose write came too late."""
    return [{"by": x.by, "at": x.at.isoformat(), "text": says(x, Speech(job, sign))} for x in job.lines if x.version > version]


def the_day() -> QuerySet[Job]:
    """Return every job in the house by promise, each with what it waits for and whether a part that it wants lies on the shelf. One query.

    The rows are for a list: who opens a job reads it whole.
    """
    lies_here = Exists(Part.objects.filter(kind=OuterRef("pk"), count__gt=0, is_owned=False))
    on_the_shelf = Kind.objects.filter(lies_here).values("level")  # asked once, and not once for each job
    may_be_here = ExpressionWrapper(Q(want__level__in=on_the_shelf), BooleanField())
    return Job.objects.select_related("sheet", "want").defer(*HEAVY).annotate(may_be_here=may_be_here).exclude(stage=Stage.CLOSED.value)


def tried_repairs() -> list[Tried]:
    """Return every trial of one repair alone, of every job, as the proof has left it: what the claims register counts. One query."""
    rows = Job.objects.exclude(tried=[]).values_list("sheet__variant", "tried")
    return [Tried(variant, repair, is_clean) for variant, tried in rows for repair, is_clean in tried]


def away() -> list[Custody]:
    """Return owners' parts that are out of their unit, longest first. One query."""
    return list(Custody.objects.filter(away_since__isnull=False).select_related("part__kind", "part__donor", "job").order_by("away_since"))


def owner_of(part: Part) -> str:
    """Return the tag of the job whose owner a part belongs to; "" if it is the shop's."""
    return Custody.objects.filter(part=part).values_list("job__tag", flat=True).first() or "" if part.is_owned else ""


@dataclass(frozen=True)
class PartDetail:
    """A part with everything that is shown of it."""

    part: Part
    custody: Custody | None
    checks: list[Check]
    trail: list[Movement]
    holders: list[dict[str, Any]]
    fits: list[Fit]


def part_detail(part: Part) -> PartDetail:
    """Return a part with whose it is, what it was seen to do, what happened to it, who has some, and where it fits."""
    custody = Custody.objects.select_related("job").filter(part=part).first() if part.is_owned else None
    checks = list(part.checks.select_related("by"))
    return PartDetail(part, custody, checks, trail(part.tag), holders(part), homes_of_part(part.kind.level, part.kind.code))


def holders(part: Part) -> list[dict[str, Any]]:
    """Return who has pieces of a part: job, by whom, since when."""
    rows = Taking.objects.filter(part=part, ended="").select_related("job", "by").order_by("-pk")[:5]
    return [{"job": r.job.tag, "by": r.by.shown_name, "at": r.at.isoformat()} for r in rows]

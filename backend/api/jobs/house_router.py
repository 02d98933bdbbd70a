"""The house: the day, taking in, searching, what was tried."""

from __future__ import annotations

from typing import Annotated

from api.common import READS, WRITES, Short, SignedIn, as_json, view_before_commit
from api.jobs.diagnosis_schemas import ClaimView
from api.jobs.diagnosis_views import claim_view
from api.jobs.house_schemas import FoundView, HouseView, IntakeIn, OwnerView, PastJobView, PromptView
from api.jobs.house_views import house_view, past_job_view
from api.jobs.schemas import JobView
from api.jobs.views import job_view
from apps.drives.selectors import family_by_variant
from apps.jobs.history import closed_jobs, owners
from apps.jobs.house import in_the_house
from apps.jobs.selectors import open_job, tried_repairs
from apps.jobs.services.take_in import Intake, take_in
from apps.shop.selectors import the_shop
from apps.tags.searching import find as find_all
from apps.writing.copy import from_the_copy
from apps.writing.once import Command
from django.http import HttpResponse
from django.utils import timezone
from ninja import Query, Router
from spindle.faults.library import MODELS
from spindle.job.prompts import PROMPTS
from spindle.job.stages import Acts
from spindle.learning.claims import register

router = Router(tags=["jobs"])


@router.get("/day", response={200: HouseView, **READS}, operation_id="day")
def day(request: SignedIn, words: Short = "", whole: Annotated[list[Acts], Query()] = []) -> HttpResponse:  # noqa: B006  # a query's default
    """Return what is in the house by who must act and by promise: the units that hold every word, the first of each group or, where asked, all."""
    now = timezone.now()
    return as_json(house_view(in_the_house(words, whole, now, the_shop().day_of(now))))


@router.get("/search", response={200: list[FoundView], **READS}, operation_id="search")
def find(request: SignedIn, q: Annotated[Short, Query()]) -> list[FoundView]:
    """Return jobs, drive sheets, parts, donors and orders that hold every word; a word may be slipped."""
    return [FoundView.model_validate(f) for f in find_all(q)]


@router.get("/closed", response={200: list[PastJobView], **READS}, operation_id="closed")
@from_the_copy
def closed(request: SignedIn, q: Short = "", after: Short = "") -> list[PastJobView]:
    """Return closed jobs, newest first, a page at a time."""
    today = the_shop().today()
    return [past_job_view(j, today) for j in closed_jobs(q, after=after)]


@router.get("/owners", response={200: list[OwnerView], **READS}, operation_id="owners")
@from_the_copy
def known_owners(request: SignedIn, q: Annotated[Short, Query()]) -> list[OwnerView]:
    """Return owners by name or phone, with their earlier units and jobs."""
    today = the_shop().today()
    return [OwnerView(name=o.name, contact=o.contact, jobs=[past_job_view(j, today) for j in o.jobs]) for o in owners(q)]


@router.get("/prompts", response={200: list[PromptView], **READS}, operation_id="prompts")
def prompts(request: SignedIn) -> list[PromptView]:
    """Return what is asked when a unit is taken in."""
    return [PromptView.model_validate(p) for p in PROMPTS]


@router.get("/claims", response={200: list[ClaimView], **READS}, operation_id="claims")
@from_the_copy
def claims(request: SignedIn) -> list[ClaimView]:
    """Return the rules of thumb with the shop's own counts for and against."""
    entries = register(MODELS.values(), tried_repairs(), family_by_variant())
    return [claim_view(e, MODELS[e.family]) for e in entries]


@router.post("/jobs", response={200: JobView, **WRITES}, operation_id="take_in")
@view_before_commit
def create(request: SignedIn, body: IntakeIn) -> HttpResponse:
    """Take a unit in."""
    row = take_in(Command(request.user, body.key), Intake(**body.dict(exclude={"key"})))
    return as_json(job_view(open_job(row, the_shop())))

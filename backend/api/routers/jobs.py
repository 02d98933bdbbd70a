"""The day, taking in, searching, and drive sheets."""

from __future__ import annotations

from typing import Annotated

from api.isolating import claim_view
from api.presenters import day_row_view, job_view
from api.requests import SignedIn
from api.schemas import ClaimView, DayRowView, FoundView, IntakeIn, JobView, Problem, PromptView, Short
from apps.drives.selectors import family_by_variant
from apps.jobs.selectors import job_state, search, the_day, tried_repairs
from apps.jobs.services.take_in import Intake, take_in
from apps.shop.selectors import the_shop
from ninja import Query, Router
from spindle.faults.library import MODELS
from spindle.job.prompts import PROMPTS
from spindle.job.stages import NAMES, Stage
from spindle.learning.claims import register

router = Router(tags=["jobs"])


@router.get("/day", response={200: list[DayRowView], 401: Problem}, operation_id="day")
def day(request: SignedIn) -> list[DayRowView]:
    """Return the jobs in the house by promise."""
    return [day_row_view(row) for row in the_day()]


@router.get("/search", response={200: list[FoundView], 400: Problem, 401: Problem, 422: Problem}, operation_id="search")
def find(request: SignedIn, q: Annotated[Short, Query()]) -> list[FoundView]:
    """Return jobs by tag, owner, console or drive."""
    return [
        FoundView(tag=j.tag, console=f"{j.sheet.maker} {j.sheet.console}", owner_name=j.owner_name, stage_name=NAMES[Stage(j.stage)]) for j in search(q)
    ]  # fmt: skip


@router.get("/prompts", response={200: list[PromptView], 401: Problem}, operation_id="prompts")
def prompts(request: SignedIn) -> list[PromptView]:
    """Return what is asked when a unit is taken in."""
    return [PromptView.model_validate(p, from_attributes=True) for p in PROMPTS]


@router.get("/claims", response={200: list[ClaimView], 401: Problem}, operation_id="claims")
def claims(request: SignedIn) -> list[ClaimView]:
    """Return the rules of thumb with the shop's own counts for and against."""
    entries = register(MODELS.values(), tried_repairs(), family_by_variant())
    return [claim_view(e, MODELS[e.family]) for e in entries]


@router.post("/jobs", response={200: JobView, 400: Problem, 401: Problem, 403: Problem, 404: Problem, 422: Problem}, operation_id="take_in")
def create(request: SignedIn, body: IntakeIn) -> JobView:
    """Take a unit in."""
    intake = Intake(**body.dict(exclude={"key"}))
    return job_view(job_state(take_in(request.user, body.key, intake)), the_shop().price_cents_per_min)

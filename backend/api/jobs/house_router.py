"""The house: the day, taking in, searching, what was tried."""

from __future__ import annotations

from typing import Annotated

from api.common import READS, WRITES, Short, SignedIn, as_json, view_before_commit
from api.jobs.diagnosis_schemas import ClaimView
from api.jobs.diagnosis_views import claim_view
from api.jobs.house_schemas import DayRowView, FoundView, InstrumentIn, InstrumentsView, InstrumentView, IntakeIn, PromptView
from api.jobs.schemas import JobView
from api.jobs.views import day_row_view, job_view
from apps.drives.selectors import family_by_variant
from apps.jobs.selectors import open_job, search, the_day, tried_repairs
from apps.jobs.services.take_in import Intake, take_in
from apps.shop.selectors import the_shop
from apps.shop.services import say_instrument
from apps.writing.once import Command
from django.http import HttpResponse
from ninja import Query, Router
from spindle.faults.library import MODELS
from spindle.job.prompts import PROMPTS
from spindle.job.stages import NAMES, Stage
from spindle.learning.claims import register
from spindle.words.bench import INSTRUMENT_NAMES

router = Router(tags=["jobs"])


@router.get("/day", response={200: list[DayRowView], **READS}, operation_id="day")
def day(request: SignedIn) -> list[DayRowView]:
    """Return every job in the house by promise."""
    return [day_row_view(row) for row in the_day()]


@router.get("/search", response={200: list[FoundView], **READS}, operation_id="search")
def find(request: SignedIn, q: Annotated[Short, Query()]) -> list[FoundView]:
    """Return jobs by tag, owner, console or drive."""
    return [
        FoundView(tag=j.tag, console=f"{j.sheet.maker} {j.sheet.console}", owner_name=j.owner_name, stage_name=NAMES[Stage(j.stage)]) for j in search(q)
    ]  # fmt: skip


@router.get("/prompts", response={200: list[PromptView], **READS}, operation_id="prompts")
def prompts(request: SignedIn) -> list[PromptView]:
    """Return what is asked when a unit is taken in."""
    return [PromptView.model_validate(p) for p in PROMPTS]


@router.get("/instruments", response={200: InstrumentsView, **READS}, operation_id="instruments")
def instruments(request: SignedIn) -> InstrumentsView:
    """Return what this shop has, of what not every shop has."""
    return _instruments()


@router.post("/instruments", response={200: InstrumentsView, **WRITES}, operation_id="say_instrument")
@view_before_commit
def instrument(request: SignedIn, body: InstrumentIn) -> HttpResponse:
    """Say whether the shop has an instrument."""
    say_instrument(Command(request.user, body.key), body.instrument, is_there=body.is_there)
    return as_json(_instruments())


def _instruments() -> InstrumentsView:
    lacks = the_shop().lacks
    return InstrumentsView(instruments=[InstrumentView(id=i, name=name, is_there=i not in lacks) for i, name in INSTRUMENT_NAMES.items()])


@router.get("/claims", response={200: list[ClaimView], **READS}, operation_id="claims")
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

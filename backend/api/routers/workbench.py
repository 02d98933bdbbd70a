"""Parts and drives in a job: what the unit can use, levels compared, swap plans, custody, which drive it really is."""

from __future__ import annotations

from typing import Annotated

from api import drive_schemas as d
from api.requests import SignedIn
from api.routers.bench import ERRORS, WRITES, Tag, command_of, view_of
from api.schemas import JobView, Word
from api.workbench_views import plan_view, workbench_view
from apps.jobs.selectors import job_by_tag, job_state
from apps.jobs.services import drive, parts
from apps.jobs.workbench import level_rows, plan_of, unit_sources
from apps.shop.selectors import the_shop
from ninja import Query, Router

router = Router(tags=["workbench"])


@router.get("/workbench", response={200: d.WorkbenchView, **ERRORS}, operation_id="workbench")
def workbench(request: SignedIn, tag: Tag) -> d.WorkbenchView:
    """Return what this unit can use, and how the levels of repair compare."""
    state = job_state(job_by_tag(tag))
    return workbench_view(state, unit_sources(state), level_rows(state, the_shop().price_cents_per_min))


@router.get("/swap-plan", response={200: d.SwapPlanView, **ERRORS, 409: ERRORS[400]}, operation_id="swap_plan")
def plan(request: SignedIn, tag: Tag, level: Annotated[Word, Query()], from_donor: bool = True) -> d.SwapPlanView:
    """Return how another part of that level goes into this console, and the way back."""
    return plan_view(plan_of(job_state(job_by_tag(tag), with_shelf=False), level, from_donor=from_donor))


@router.post("/takings", response=WRITES, operation_id="take_part")
def take(request: SignedIn, tag: Tag, body: d.TakeIn) -> JobView:
    """Take a part from the shelf for a repair of this job."""
    parts.take_part(command_of(request, tag, body), body.part, body.repair)
    return view_of(tag)


@router.post("/returns", response=WRITES, operation_id="put_back")
def put_back(request: SignedIn, tag: Tag, body: d.PutBackIn) -> JobView:
    """Put a part that was taken back on the shelf, with what it was seen to do."""
    parts.put_back(command_of(request, tag, body), body.line, body.seen)
    return view_of(tag)


@router.post("/custody", response=WRITES, operation_id="take_out_own")
def own_out(request: SignedIn, tag: Tag, body: d.OwnOutIn) -> JobView:
    """Put an owner's part that leaves its unit under a tag of its own."""
    parts.take_out_own(command_of(request, tag, body), body.level, body.place)
    return view_of(tag)


@router.post("/custody-back", response=WRITES, operation_id="bring_own_back")
def own_back(request: SignedIn, tag: Tag, body: d.OwnBackIn) -> JobView:
    """Note that an owner's part is back in its unit."""
    parts.bring_own_back(command_of(request, tag, body), body.part)
    return view_of(tag)


@router.post("/custody-release", response=WRITES, operation_id="release_own")
def own_release(request: SignedIn, tag: Tag, body: d.OwnReleaseIn) -> JobView:
    """Note that the owner leaves a part with the shop."""
    parts.release_own(command_of(request, tag, body), body.part, body.by_name)
    return view_of(tag)


@router.post("/drive", response=WRITES, operation_id="identify")
def identify(request: SignedIn, tag: Tag, body: d.LooksIn) -> JobView:
    """Note what the eye saw of the drive, and take another sheet if it says so."""
    drive.identify(command_of(request, tag, body), body.looks, body.sheet_id)
    return view_of(tag)

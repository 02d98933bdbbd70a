"""The calculators of the bench: what they ask, what they answer; with a job, what its sheet already says and which of its questions they speak to."""

from __future__ import annotations

from typing import Annotated

from api.common import READS, WRITES, Short, SignedIn, Tag, Word, view_before_commit
from api.measuring.schemas import (
    AddressIn,
    CalculationView,
    InputsIn,
    LineIn,
    MeasuredView,
    MeterIn,
    MeterView,
    ReadIn,
    RunIn,
    RunView,
    TakenView,
    ToolView,
    WhoAnswersView,
)
from api.measuring.views import calculation_view, measured_views, run_view, taken_view, tool_views
from apps.jobs.readings import State, read_before
from apps.jobs.selectors import OpenJob, job_row, open_job
from apps.shelf.selectors import belts_here
from apps.shop.selectors import meters, the_shop
from apps.shop.services.meters import MeterSaid, read_meter, say_meter, try_meter, understand
from apps.writing.once import Command
from ninja import Path, Query, Router
from spindle.bench.tools.catalogue import tool as tool_of

router = Router(tags=["measuring"])
OfJob = Annotated[Short | None, Query()]


def _shown(tag: str | None) -> OpenJob | None:
    return None if tag is None else open_job(job_row(tag), the_shop(), with_shelf=False)


@router.get("/tools", response={200: list[ToolView], **READS}, operation_id="tools")
def tools(request: SignedIn, tag: OfJob = None) -> list[ToolView]:
    """Return every calculator with its fields."""
    return tool_views(_shown(tag), belts_here())


@router.post("/tools/{name}", response={200: CalculationView, **READS}, operation_id="calculate")
def calculate(request: SignedIn, name: Annotated[Word, Path()], body: InputsIn, tag: OfJob = None) -> CalculationView:
    """Return what a calculator answers, or what is missing or wrong. Nothing is kept: that is asked of a job."""
    return calculation_view(tool_of(name), body.inputs, _shown(tag))


@router.get("/jobs/{tag}/measured", response={200: list[MeasuredView], **READS}, operation_id="measured")
def measured(request: SignedIn, tag: Tag) -> list[MeasuredView]:
    """Return what was measured on a job, newest first."""
    shown = open_job(job_row(tag), the_shop(), with_shelf=False)
    return measured_views(shown)


@router.get("/meters", response={200: list[MeterView], **READS}, operation_id="meters")
def all_meters(request: SignedIn) -> list[MeterView]:
    """Return the shop's meters."""
    return [MeterView.model_validate(m) for m in meters()]


@router.post("/meters", response={200: list[MeterView], **WRITES}, operation_id="say_meter")
@view_before_commit
def meter(request: SignedIn, body: MeterIn) -> list[MeterView]:
    """Set a meter up, or put one right."""
    said = MeterSaid(body.name, body.address, {q: f.model_dump() for q, f in body.functions.items()}, body.leads_ohm, body.is_here)
    say_meter(Command(request.user, body.key), said, pk=body.id)
    return [MeterView.model_validate(m) for m in meters()]


@router.post("/meters/try", response={200: WhoAnswersView, **WRITES}, operation_id="try_meter")
def try_one(request: SignedIn, body: AddressIn) -> WhoAnswersView:
    """Ask who answers at an address. It takes less than five seconds, whatever is there."""
    return WhoAnswersView(says=try_meter(request.user, body.address))


@router.post("/meters/{meter_id}/read", response={200: TakenView, **WRITES}, operation_id="read_meter")
def read_one(request: SignedIn, meter_id: Annotated[int, Path(ge=1, le=2_000_000_000)], body: ReadIn) -> TakenView:
    """Return what a meter reads now. It takes less than five seconds, whatever it does."""
    return taken_view(read_meter(request.user, meter_id, body.quantity, before=body.before))


@router.post("/meters/line", response={200: TakenView, **WRITES}, operation_id="read_line")
def read_line(request: SignedIn, body: LineIn) -> TakenView:
    """Return what a line says that came from a meter on the bench's own computer."""
    return taken_view(understand(body.quantity, body.text, before=body.before))


@router.get("/jobs/{tag}/run", response={200: RunView, **READS}, operation_id="run_chart")
def run(request: SignedIn, tag: Tag, state: Query[RunIn]) -> RunView:
    """Return the same points in the same state over time, on this unit and on every other of its model."""
    found, chart = read_before(job_row(tag), state.about, State(state.quantity, state.mains, state.disc, state.switch))
    return run_view(found, chart, state.quantity)

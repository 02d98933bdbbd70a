"""One job: everything that is read of it, and the one write, which answers with the job as it then stands."""

from __future__ import annotations

from typing import Annotated, Any

from api.common import READS, WRITES, OnceIn, SignedIn, Tag, Word, as_json
from api.jobs.counter_schemas import PulseView
from api.jobs.diagnosis_schemas import OutlookView, QuestionView, SchoolView
from api.jobs.diagnosis_views import question_view, school_views, told_look
from api.jobs.house_schemas import PastJobView
from api.jobs.house_views import past_job_view
from api.jobs.mat_schemas import DraftedView, MatView
from api.jobs.mat_views import mat_view
from api.jobs.schemas import JobView
from api.jobs.views import job_view
from api.jobs.workbench_schemas import SwapPlanView, WorkbenchView
from api.jobs.workbench_views import plan_view, workbench_view
from api.wire_asks import AskIn, ask_of
from apps.jobs.history import earlier
from apps.jobs.outlook import deeper_look
from apps.jobs.presence import pulse
from apps.jobs.records import record_of
from apps.jobs.selectors import OpenJob, job_row, open_job
from apps.jobs.services.recording import draft_sheets
from apps.jobs.services.writing import JobCommand, write
from apps.jobs.workbench import level_rows, parking_of, plan_of, unit_sources
from apps.reports.services import hand_back_pdf, receipt_pdf
from apps.shop.selectors import the_shop
from apps.writing.once import Command
from django.http import HttpResponse, JsonResponse
from django.utils import timezone
from ninja import Query, Router
from spindle.formats.case_file import write_case

router = Router(tags=["bench"])


def _open(tag: str, *, with_shelf: bool = True) -> OpenJob:
    return open_job(job_row(tag), the_shop(), with_shelf=with_shelf)


@router.get("", response={200: JobView, **READS}, operation_id="job")
def read(request: SignedIn, tag: Tag) -> HttpResponse:
    """Return a job with everything that its screens show."""
    return as_json(job_view(_open(tag)))


@router.post("/lines", response={200: JobView, **WRITES}, operation_id="ask")
def ask(request: SignedIn, tag: Tag, body: AskIn) -> HttpResponse:  # type: ignore[valid-type]  # made from the asks of the core
    """Do what is asked of a job, told apart by ``do``."""
    said: Any = body
    command = JobCommand(request.user, tag, said.key, said.version)
    done = write(command, ask_of(said), job_view)
    return as_json(done.view.model_copy(update={"is_new": done.is_new}))


@router.post("/pulse", response={200: PulseView, **READS}, operation_id="pulse")
def beat(request: SignedIn, tag: Tag) -> PulseView:
    """Say that this screen is open; return the job's version and who else looks at it."""
    return PulseView.model_validate(pulse(tag, request.user, timezone.now()))


@router.get("/questions", response={200: list[QuestionView], **READS}, operation_id="questions")
def questions(request: SignedIn, tag: Tag) -> list[QuestionView]:
    """Return every question that this drive can answer, for logging a finding that was not asked for."""
    return [question_view(q) for q in _open(tag, with_shelf=False).job.model.questions.values()]


@router.get("/outlook", response={200: OutlookView, **READS, 409: WRITES[409]}, operation_id="outlook")
def outlook(request: SignedIn, tag: Tag) -> dict[str, Any]:
    """Return the advice looked into two steps deep, and the money by simulated futures. It takes up to a second."""
    return deeper_look(_open(tag), request.user, told_look, request.META.get("waitress.client_disconnected", bool))


@router.get("/schools", response={200: list[SchoolView], **READS}, operation_id="schools")
def schools(request: SignedIn, tag: Tag) -> list[SchoolView]:
    """Return what rules of thumb would cost from here, beside the advice."""
    return school_views(_open(tag))


@router.get("/case", response={200: dict, **READS}, operation_id="case")
def case(request: SignedIn, tag: Tag) -> dict[str, object]:
    """Return the job as a case file of the open format."""
    return write_case(_open(tag).state.case)


@router.get("/record", response={200: dict, **READS}, operation_id="record")
def record(request: SignedIn, tag: Tag) -> HttpResponse:
    """Return the whole job as a file of its open format."""
    row = job_row(tag)
    answer = JsonResponse(record_of(row), json_dumps_params={"indent": 1, "ensure_ascii": False})
    answer["Content-Disposition"] = f'attachment; filename="{row.tag}.json"'
    return answer


@router.get("/report.pdf", response={200: None, **READS}, operation_id="report")
def report(request: SignedIn, tag: Tag) -> HttpResponse:
    """Return the report that goes back with the unit."""
    shown = _open(tag)
    answer = HttpResponse(hand_back_pdf(shown), content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="{shown.job.tag}.pdf"'
    return answer


@router.get("/earlier", response={200: list[PastJobView], **READS}, operation_id="earlier")
def earlier_jobs(request: SignedIn, tag: Tag) -> list[PastJobView]:
    """Return the other jobs of this unit and of its owner, newest first."""
    today = the_shop().today()
    return [past_job_view(j, today) for j in earlier(job_row(tag))]


@router.get("/receipt.pdf", response={200: None, **READS}, operation_id="receipt")
def receipt(request: SignedIn, tag: Tag) -> HttpResponse:
    """Return the receipt that the owner gets when a unit is handed in."""
    shown = _open(tag, with_shelf=False)
    answer = HttpResponse(receipt_pdf(shown), content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="{shown.job.tag}-receipt.pdf"'
    return answer


@router.get("/workbench", response={200: WorkbenchView, **READS}, operation_id="workbench")
def workbench(request: SignedIn, tag: Tag) -> WorkbenchView:
    """Return what this unit can use, and how the levels of repair compare."""
    shown = _open(tag)
    return workbench_view(shown, unit_sources(shown), level_rows(shown), parking_of(shown))


@router.get("/mat", response={200: MatView, **READS}, operation_id="mat")
def mat(request: SignedIn, tag: Tag, goal: Annotated[str, Query(max_length=40, pattern=r"^[a-z0-9_]*$")] = "") -> MatView:
    """Return how this unit is opened and shut: what is open, what lies on the mat, and the quickest way to a goal and back."""
    return mat_view(_open(tag, with_shelf=False), goal)


@router.post("/recorded-sheets", response={200: DraftedView, **WRITES}, operation_id="draft_sheets")
def draft(request: SignedIn, tag: Tag, body: OnceIn) -> DraftedView:
    """Write what was recorded while this unit was opened into its sheets, as their next versions."""
    return DraftedView(written=draft_sheets(Command(request.user, body.key), tag))


@router.get("/swap-plan", response={200: SwapPlanView, **READS, 409: WRITES[409]}, operation_id="swap_plan")
def plan(request: SignedIn, tag: Tag, level: Annotated[Word, Query()], from_donor: bool = True) -> SwapPlanView:
    """Return how another part of that level goes into this console, and the way back."""
    return plan_view(plan_of(_open(tag, with_shelf=False), level, from_donor=from_donor))

"""One job: everything that is read, and every write. A write answers with the job as it then stands."""

from __future__ import annotations

from typing import Annotated

from api.presenters import job_view, move_view, question_view
from api.requests import SignedIn
from api.schemas import (
    AdvanceIn,
    AmendIn,
    AnswerIn,
    CheckIn,
    ConsentIn,
    DepthIn,
    GoBackIn,
    JobView,
    MainsIn,
    OutlookView,
    PartIn,
    PassIn,
    Problem,
    ProposalIn,
    QuestionView,
    RemarkIn,
    Short,
    StepIn,
    StrikeIn,
    TrialIn,
    Write,
)
from apps.jobs.selectors import deeper_look, job_by_tag, job_state, model_of_job
from apps.jobs.services import repair, stages, tape
from apps.jobs.services.take_in import amend
from apps.jobs.services.writing import Command
from apps.reports.services import hand_back_pdf
from apps.shop.selectors import the_shop
from django.http import HttpResponse
from ninja import Path, Router
from spindle.diagnosis.given.case import Answer, Change, Setting, Stock, Trial
from spindle.formats.case_file import write_case
from spindle.words.bench import Depth

router = Router(tags=["bench"])
Tag = Annotated[Short, Path()]
ERRORS = {400: Problem, 401: Problem, 403: Problem, 404: Problem, 422: Problem}
WRITES = {200: JobView, **ERRORS, 409: Problem}


def view_of(tag: str) -> JobView:
    """Return a job as it stands now."""
    return job_view(job_state(job_by_tag(tag)), the_shop().price_cents_per_min)


def command_of(request: SignedIn, tag: str, body: Write) -> Command:
    """Return who writes to which job, with which key, on which version."""
    return Command(request.user, tag, body.key, body.version)


def _answer(body: AnswerIn) -> Answer:
    return Answer(
        body.question, body.outcome, body.source, body.tries, body.failed, body.seconds, Setting(**body.setting.dict()) if body.setting else Setting()
    )


@router.get("", response={200: JobView, **ERRORS}, operation_id="job")
def read(request: SignedIn, tag: Tag) -> JobView:
    """Return a job with everything that its screens show."""
    return view_of(tag)


@router.get("/questions", response={200: list[QuestionView], **ERRORS}, operation_id="questions")
def questions(request: SignedIn, tag: Tag) -> list[QuestionView]:
    """Return every question that this drive can answer, for logging a finding that was not asked for."""
    return [question_view(q) for q in model_of_job(job_by_tag(tag)).questions.values()]


@router.get("/outlook", response={200: OutlookView, **ERRORS}, operation_id="outlook")
def outlook(request: SignedIn, tag: Tag) -> OutlookView:
    """Return the advice looked into two steps deep, and the money by simulated futures. It takes up to a second."""
    state = job_state(job_by_tag(tag))
    look = deeper_look(state)
    return OutlookView(
        version=state.job.version,
        first=move_view(look.first, state.model),
        is_same=look.is_same,
        mean_cents=round(100 * look.outturn.mean_eur),
        low_cents=round(100 * look.outturn.low_eur),
        high_cents=round(100 * look.outturn.high_eur),
        p_repaired=look.outturn.p_repaired,
    )


@router.get("/case", response={200: dict, **ERRORS}, operation_id="case")
def case(request: SignedIn, tag: Tag) -> dict[str, object]:
    """Return the job as a case file of the open format."""
    return write_case(job_state(job_by_tag(tag)).case)


@router.get("/report.pdf", response={200: None, **ERRORS}, operation_id="report")
def report(request: SignedIn, tag: Tag) -> HttpResponse:
    """Return the report that goes back with the unit."""
    job = job_by_tag(tag)
    answer = HttpResponse(hand_back_pdf(job_state(job), the_shop()), content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="{job.tag}.pdf"'
    return answer


@router.post("/answers", response=WRITES, operation_id="add_answer")
def answers(request: SignedIn, tag: Tag, body: AnswerIn) -> JobView:
    """Log an answer."""
    tape.add_answer(command_of(request, tag, body), _answer(body))
    return view_of(tag)


@router.post("/trials", response=WRITES, operation_id="add_trial")
def trials(request: SignedIn, tag: Tag, body: TrialIn) -> JobView:
    """Log what a trial after one or more changes showed."""
    changes = tuple(Change(c.repair, c.item, c.health, frozenset(c.works), frozenset(c.fails), c.lot, c.stays) for c in body.changes)
    tape.add_trial(command_of(request, tag, body), Trial(changes, body.result, body.clean_passes))
    return view_of(tag)


@router.post("/parts", response=WRITES, operation_id="add_part")
def parts(request: SignedIn, tag: Tag, body: PartIn) -> JobView:
    """Note a part for this job that is at hand, a donor's or on its way."""
    known = body.item, body.health, frozenset(body.works), frozenset(body.fails)
    tape.add_part(command_of(request, tag, body), Stock(body.repair, *known, body.price_cents / 100, body.wait_days, body.is_donor))
    return view_of(tag)


@router.post("/remarks", response=WRITES, operation_id="add_remark")
def remarks(request: SignedIn, tag: Tag, body: RemarkIn) -> JobView:
    """Log a remark."""
    tape.add_remark(command_of(request, tag, body), body.text)
    return view_of(tag)


@router.post("/strikes", response=WRITES, operation_id="strike")
def strikes(request: SignedIn, tag: Tag, body: StrikeIn) -> JobView:
    """Strike a finding."""
    tape.strike(command_of(request, tag, body), body.line, body.why)
    return view_of(tag)


@router.post("/restores", response=WRITES, operation_id="restore")
def restores(request: SignedIn, tag: Tag, body: StrikeIn) -> JobView:
    """Let a struck finding stand again."""
    tape.restore(command_of(request, tag, body), body.line)
    return view_of(tag)


@router.post("/intake", response=WRITES, operation_id="amend")
def amend_intake(request: SignedIn, tag: Tag, body: AmendIn) -> JobView:
    """Complete what was written down at the counter."""
    given = body.dict(exclude={"key", "version"}, exclude_none=True)
    amend(command_of(request, tag, body), given)
    return view_of(tag)


@router.post("/mains", response=WRITES, operation_id="set_mains")
def mains(request: SignedIn, tag: Tag, body: MainsIn) -> JobView:
    """Say that the mains is live or out."""
    tape.set_mains(command_of(request, tag, body), is_live=body.is_live)
    return view_of(tag)


@router.post("/depth", response=WRITES, operation_id="set_depth")
def depth(request: SignedIn, tag: Tag, body: DepthIn) -> JobView:
    """Say how far the unit is open."""
    tape.set_depth(command_of(request, tag, body), Depth(body.depth))
    return view_of(tag)


@router.post("/advance", response=WRITES, operation_id="advance")
def advance(request: SignedIn, tag: Tag, body: AdvanceIn) -> JobView:
    """Leave a stage for the next one."""
    stages.advance(command_of(request, tag, body), body.stage)
    return view_of(tag)


@router.post("/go-back", response=WRITES, operation_id="go_back")
def go_back(request: SignedIn, tag: Tag, body: GoBackIn) -> JobView:
    """Go back to an earlier stage."""
    stages.go_back(command_of(request, tag, body), body.to, body.why)
    return view_of(tag)


@router.post("/proposals", response=WRITES, operation_id="propose")
def proposals(request: SignedIn, tag: Tag, body: ProposalIn) -> JobView:
    """Propose a repair, or to hand the unit back as it is."""
    stages.propose(command_of(request, tag, body), body.repair)
    return view_of(tag)


@router.post("/consents", response=WRITES, operation_id="consent")
def consents(request: SignedIn, tag: Tag, body: ConsentIn) -> JobView:
    """Record what the owner said."""
    stages.record_consent(
        command_of(request, tag, body), is_agreed=body.is_agreed, amount_cents=body.amount_cents, by_name=body.by_name, how=body.how
    )  # fmt: skip
    return view_of(tag)


@router.post("/steps", response=WRITES, operation_id="mark_step")
def steps(request: SignedIn, tag: Tag, body: StepIn) -> JobView:
    """Mark a step of the repair."""
    repair.mark_step(command_of(request, tag, body), body.step, is_done=body.is_done, fuse=body.fuse)
    return view_of(tag)


@router.post("/checks", response=WRITES, operation_id="mark_check")
def checks(request: SignedIn, tag: Tag, body: CheckIn) -> JobView:
    """Record one check of the proof."""
    repair.mark_check(command_of(request, tag, body), body.check, is_passed=body.is_passed)
    return view_of(tag)


@router.post("/passes", response=WRITES, operation_id="add_pass")
def passes(request: SignedIn, tag: Tag, body: PassIn) -> JobView:
    """Record one more pass of the proof."""
    repair.add_pass(command_of(request, tag, body), is_clean=body.is_clean)
    return view_of(tag)

"""The repair step by step, and its proof, as they go over the wire."""

from __future__ import annotations

from typing import Literal

from api.jobs import diagnosis_schemas as d
from api.jobs import proof_schemas as proof
from api.jobs import schemas as s
from api.jobs.diagnosis_views import caution_views
from apps.jobs.selectors import OpenJob
from spindle.bench.proof import ProofCheck
from spindle.diagnosis.explaining.diagnose import Diagnosis
from spindle.drives.at_hand import at_step
from spindle.job.hazards import passes_at
from spindle.job.ledger import says
from spindle.job.state import is_done
from spindle.job.value import Job
from spindle.repairs.procedure import Step

_CHECKED: dict[bool | None, Literal["open", "passed", "failed"]] = {True: "passed", False: "failed", None: "open"}


def procedure_view(shown: OpenJob) -> s.ProcedureView | None:
    """Return how the chosen repair is done, and how far it is; None if nothing is repaired."""
    own, job = shown.state.procedure, shown.job
    if own is None:
        return None
    repair = job.model.repairs[job.model.repair_index[own.repair]]
    trial = job.trial_since_proposal
    return s.ProcedureView(
        repair=own.repair,
        name=repair.name,
        skill=own.skill,
        tools=list(own.tools),
        transfers=list(own.transfers),
        proves=own.proves,
        goes_wrong=own.goes_wrong,
        fuse_rating=job.model.sheet.fuse_rating,
        uses_item=repair.uses_item,
        steps=[_step(step, shown) for step in shown.state.steps],
        trial=trial.result.value if trial else "",
    )


def _step(step: Step, shown: OpenJob) -> s.StepView:
    job = shown.job
    part = job.part_in_hand(job.proposal.repair) if step.takes_part and job.proposal else None
    done = job.ticks.get(f"{step.plan}:{step.id}") if step.plan else part or job.steps.get(step.id)
    return s.StepView(
        id=step.id,
        text=step.text,
        mains=step.mains.value,
        cautions=caution_views(step.cautions),
        is_done=is_done(step, job),
        is_trial=step.is_trial,
        reads_fuse=step.reads_fuse,
        done_by=done.by if done and is_done(step, job) else "",
        until=passes_at(job.holds, step.clears, shown.now),
        takes_part=step.takes_part,
        part=says(part, shown.speech) if part else "",
        is_inside=step.is_inside and max(job.depth, step.opens_to) > 0,
        asks_photo=step.asks_photo,
        opens_to=int(step.opens_to),
        details=list(step.details),
        sheet=d.AtHandView.model_validate(at_step(step.id, shown.unit)),
    )


def _check(check: ProofCheck, job: Job) -> proof.CheckView:
    why = job.left_out.get(check.id, "")
    return proof.CheckView(
        id=check.id,
        title=check.title,
        how=check.how,
        state="left" if why else _CHECKED[job.checks.get(check.id)],
        tries=check.tries,
        done=job.tried.get(check.id, 0),
        waits_for=check.waits_for,
        question=check.question,
        is_timed=check.is_timed,
        reference_s=check.reference.mean_s if check.reference else None,
        may_be_left=check.may_be_left,
        why_left=why,
    )


def proof_view(shown: OpenJob, found: Diagnosis) -> proof.ProofView:
    """Return the proof so far."""
    job, state = shown.job, shown.state
    cause = state.cause
    return proof.ProofView(
        checks=[_check(c, job) for c in state.checks],
        account=[proof.OnAccountView(**line.body, at=line.at) for line in job.account],
        passes=job.passes,
        passes_needed=state.ending.passes_wanted,
        outcome=state.verdict,
        p_fixed=state.p_fixed,
        p_fail_per_try=found.ending.p_shows,
        cause=cause.text,
        p_cause=cause.p,
        confirmed=None if job.confirmed is None else proof.ConfirmedView(fault=job.confirmed.body["fault"], by=job.confirmed.body["by"]),
        verdict=found.ending.verdict if state.p_fixed else "",  # type: ignore[arg-type]  # pydantic checks the word
        says=found.ending.says if state.p_fixed else "",
    )

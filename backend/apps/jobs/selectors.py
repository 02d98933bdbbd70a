"""Reading jobs: one job whole, what stands in the way of its next stage, the list of the day."""

from __future__ import annotations

from dataclasses import dataclass, replace
from time import perf_counter
from typing import Any

import numpy as np
from apps.drives.selectors import full_sheet, model_of
from apps.errors import NotFoundError
from apps.jobs.lines import line_text
from apps.jobs.models import Job, TapeLine
from apps.jobs.record import Line, Record, fold
from apps.shelf.models import Part
from apps.shelf.selectors import away, stock_for
from apps.shop.selectors import the_shop
from django.db.models import Q
from django.utils import timezone
from spindle.bench.classes import classes_to_try
from spindle.bench.proof import ProofCheck, proof_profile
from spindle.diagnosis.belief.ending import Ending, judge_ending
from spindle.diagnosis.belief.posterior import Belief, believe
from spindle.diagnosis.evidence.gather import baseline_failures
from spindle.diagnosis.explaining.advice import advise, look_ahead
from spindle.diagnosis.explaining.diagnose import Diagnosis, diagnose
from spindle.diagnosis.explaining.moves import Move
from spindle.diagnosis.given.case import Answer, Case, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.futures import Outturn, outturn
from spindle.faults.model import QuestionKind
from spindle.formats.case_file import read_stock
from spindle.job.prompts import open_prompts, power_hold
from spindle.job.stages import JobFacts, Missing, Stage, missing
from spindle.learning.claims import Tried
from spindle.repairs.library import procedure_for
from spindle.repairs.procedure import Procedure, Step, steps_from
from spindle.words.bench import Depth

_SEEN_KINDS = (QuestionKind.INTAKE, QuestionKind.BASELINE, QuestionKind.DISC_CLASS)


def model_of_job(job: Job) -> CompiledModel:
    """Return the fault model of the job's drive."""
    return model_of(job.sheet_id)


def job_by_tag(tag: str) -> Job:
    """Return one job with its sheet, or raise NotFoundError."""
    job = Job.objects.select_related("sheet").filter(tag__iexact=tag).first()
    if job is None:
        raise NotFoundError(f"There is no job {tag}.")
    return job


def lines_of(job: Job) -> list[Line]:
    """Return the tape of a job, oldest first."""
    rows = TapeLine.objects.filter(job=job).select_related("by")
    return [Line(r.number, r.version, r.kind, r.body, r.at, r.by.get_full_name() or r.by.username) for r in rows]


def changes_since(job: Job, version: int) -> list[dict[str, Any]]:
    """Return what was written to a job after a version, in words, for somebody whose write came too late."""
    model = model_of_job(job)
    return [{"by": line.by, "at": line.at.isoformat(), "text": line_text(line, model)} for line in lines_of(job) if line.version > version]


@dataclass(frozen=True)
class JobState:
    """One job with everything that its screens show."""

    job: Job
    record: Record
    model: CompiledModel
    case: Case
    facts: JobFacts
    missing: tuple[Missing, ...]
    power_hold: str
    procedure: Procedure | None
    steps: tuple[Step, ...]
    checks: tuple[ProofCheck, ...]
    passes_needed: int
    p_fixed: float
    away: tuple[Part, ...] = ()


@dataclass(frozen=True)
class Known:
    """What the caller of :func:`job_state` has fetched already, for many jobs at once."""

    lines: list[Line]
    economy: Economy
    away: tuple[Part, ...]


def job_state(job: Job, *, lines: list[Line] | None = None, known: Known | None = None, with_shelf: bool = True) -> JobState:
    """Return a job's state, computed from its tape.

    ``lines`` spares fetching the tape; ``known`` everything. The shelf moves the advice and no stage: who asks for no advice leaves it out.
    """
    model = model_of_job(job)
    record = fold(known.lines if known else lines_of(job) if lines is None else lines)
    stock = tuple(read_stock(stock_body(line), f"/tape/{n}", model.sheet) for n, line in record.parts.items())
    if with_shelf:
        has_one = {line.body["repair"] for line in record.takings.values()}
        stock += stock_for(full_sheet(job.sheet_id), [r.id for r in model.repairs if r.id not in has_one])
    gone_out = known.away if known else tuple(away(job.pk))
    own = replace(known.economy if known else the_shop().economy(), promise_days=_days_left(job))
    case = Case(model.sheet, tuple(record.findings), Depth(job.depth), own, stock)
    belief = believe(case.findings, model)
    procedure, steps = _procedure(record, model)
    checks = proof_profile(model.sheet, model.model, baseline_failures(belief.evidence, model))
    ending = judge_ending(belief, model, case.economy)
    is_clean = record.trial_since_proposal is not None and record.trial_since_proposal.result is TrialResult.CLEAN
    sure = ending.p_cured if is_clean else 0.0
    facts = replace(
        _facts(job, record, model, belief, steps, checks, ending), away=tuple(f"{p.tag} {p.kind.name}" for p in gone_out), loose=loose_parts(record)
    )
    open_ = missing(Stage(job.stage), facts)
    hold = power_hold(tuple(record.findings))
    return JobState(job, record, model, case, facts, open_, hold, procedure, steps, checks, ending.passes_wanted, sure, gone_out)


def stock_body(line: Line) -> dict[str, Any]:
    """Return a part line as the case format knows it, without the shelf's own number."""
    return {k: v for k, v in line.body.items() if k != "taking"}


def loose_parts(record: Record) -> tuple[str, ...]:
    """Return the tags that were taken from the shelf and that nothing has fitted."""
    return tuple(line.body["item"] for line in record.takings.values() if line.body["item"] not in record.fitted_items)


def _days_left(job: Job) -> float | None:
    """Return the days until the promised date, 0 if it has passed."""
    return None if job.promised_on is None else float(max((job.promised_on - timezone.localdate()).days, 0))


def diagnosis_of(state: JobState) -> Diagnosis:
    """Return the diagnosis of a job."""
    return diagnose(state.case, state.model)


@dataclass(frozen=True)
class DeeperLook:
    """The first move two steps deep, whether one step says the same, and what the advice's own policy would pay from here."""

    first: Move
    is_same: bool
    outturn: Outturn


def deeper_look(state: JobState, *, budget_s: float = 0.3) -> DeeperLook:
    """Return the deeper look at a job, two steps deep within a time budget.

    The futures are thrown with the job's own seed: the same findings show the same figure.
    """
    begun = perf_counter()
    belief = believe(state.case.findings, state.model)
    once = look_ahead(state.case, state.model, belief)
    twice = look_ahead(state.case, state.model, belief, keep_going=lambda: perf_counter() - begun < budget_s)
    rng = np.random.default_rng([state.job.pk, len(state.record.lines)])
    first = advise(state.case, state.model, belief, twice).moves[0]
    return DeeperLook(first, once.pick == twice.pick, outturn(once.position, once.plan.problem, rng))


def _procedure(record: Record, model: CompiledModel) -> tuple[Procedure | None, tuple[Step, ...]]:
    if record.proposal is None or not record.proposal.repair:
        return None, ()
    procedure = procedure_for(model.sheet.family, record.proposal.repair)
    return procedure, steps_from(procedure, record.repair_depth)


def _facts(job: Job, record: Record, model: CompiledModel, belief: Belief, steps: tuple[Step, ...], checks: tuple[ProofCheck, ...], ending: Ending) -> JobFacts:  # noqa: PLR0917  # all of them are what a stage may ask
    answered = {f.what.question for f in record.findings if isinstance(f.what, Answer) and not f.is_struck}
    trial = record.trial_since_proposal
    proposal = record.proposal
    procedure = procedure_for(model.sheet.family, proposal.repair) if proposal and proposal.repair else None
    agreed = [c.body["amount_cents"] for c in record.consents if c.body["is_agreed"]]
    own_consent = any(c.body["is_agreed"] and proposal and c.number > proposal.number for c in record.consents)
    return JobFacts(
        has_complaint=bool(job.complaint.strip()),
        open_condition_prompts=open_prompts(job.condition),
        has_limit=job.limit_cents is not None,
        has_supply=bool(job.supply.strip()),
        has_contact=bool(job.owner_contact.strip()),
        answered=frozenset(answered),
        seen_at_least=model.model.seen_at_least,
        classes_to_try=classes_to_try(answered, model.sheet),
        findings_beyond_baseline=sum(_is_beyond_baseline(f.what, model) for f in record.findings if not f.is_struck),
        top_part_p=float(belief.p_part.max()),
        proposed_repair=proposal.repair if proposal else "",
        is_advised=proposal.is_advised if proposal else False,
        proposed_cents=proposal.total_cents if proposal else 0,
        agreed_cents=max([job.limit_cents or 0, *agreed]),
        needs_consent=procedure.alters_unit if procedure else "",
        has_consent=own_consent,
        open_steps=tuple(s.text for n, s in enumerate(steps) if n not in record.steps and not s.is_trial),
        has_trial=trial is not None,
        trial_is_clean=trial is not None and trial.result is TrialResult.CLEAN,
        open_checks=tuple(c.title for c in checks if c.id not in record.checks),
        failed_checks=(*(c.title for c in checks if record.checks.get(c.id) is False), *(["a pass"] if record.has_failed_pass else [])),
        passes=record.passes,
        passes_needed=ending.passes_wanted,
        is_probable=ending.verdict == "probable",
        depth=job.depth,
        is_live=job.is_live,
        ends_unrepaired=proposal is not None and not proposal.repair,
    )


def _is_beyond_baseline(what: object, model: CompiledModel) -> bool:
    if isinstance(what, Trial):
        return True
    return isinstance(what, Answer) and model.family_questions[what.question].kind not in _SEEN_KINDS


@dataclass(frozen=True)
class DayRow:
    """One job of the day and what it waits for."""

    job: Job
    waits_for: str


def the_day(*, with_closed: bool = False) -> list[DayRow]:
    """Return the jobs in the house by promise, each with what it waits for. A handful of queries, however many jobs there are."""
    jobs = Job.objects.select_related("sheet")
    if not with_closed:
        jobs = jobs.exclude(stage=Stage.CLOSED.value)
    found = list(jobs[:200])
    tapes: dict[int, list[Line]] = {job.pk: [] for job in found}
    for row in TapeLine.objects.filter(job__in=found).select_related("by"):
        tapes[row.job_id].append(Line(row.number, row.version, row.kind, row.body, row.at, row.by.username))
    rows = []
    economy = the_shop().economy()
    out: dict[int, list[Part]] = {}
    for part in away():
        out.setdefault(part.owner_job_id or 0, []).append(part)
    for job in found:
        state = job_state(job, known=Known(tapes[job.pk], economy, tuple(out.get(job.pk, ()))), with_shelf=False)
        waits = state.power_hold or (state.missing[0].text if state.missing else "")
        rows.append(DayRow(job, waits))
    return rows


def search(words: str, *, limit: int = 8) -> list[Job]:
    """Return jobs whose tag, owner, console or variant holds the words; an exact tag comes first."""
    words = words.strip()
    if not words:
        return []
    like = Q(tag__icontains=words) | Q(owner_name__icontains=words) | Q(sheet__console__icontains=words) | Q(sheet__variant__icontains=words)
    found = list(Job.objects.select_related("sheet").filter(like).order_by("-taken_in_at")[:50])
    return sorted(found, key=lambda j: j.tag.lower() != words.lower())[:limit]


def tried_repairs() -> list[Tried]:
    """Return every trial of one repair alone, of every job: what the claims register counts. Two queries."""
    struck: set[tuple[int, int]] = set()
    for job, kind, body in TapeLine.objects.filter(kind__in=("strike", "restore")).order_by("job", "number").values_list("job", "kind", "body"):
        (struck.add if kind == "strike" else struck.discard)((job, body["line"]))
    trials = TapeLine.objects.filter(kind="trial").values_list("job", "number", "job__sheet__variant", "body")
    return [
        Tried(variant, body["changes"][0]["repair"], body["result"] == TrialResult.CLEAN.value)
        for job, number, variant, body in trials
        if len(body["changes"]) == 1 and (job, number) not in struck
    ]

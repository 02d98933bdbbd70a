"""What a job that closes will teach, read from its tape by the shipped model, whatever was learnt before."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise, takewhile
from typing import Final

from spindle.diagnosis.belief.ending import judge_ending
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.given.case import Answer, Finding, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.plan import TRIAL_MIN, ask_minutes, bench_minutes
from spindle.diagnosis.planning.problem import Asked
from spindle.faults.model import QuestionKind
from spindle.job.line import Line
from spindle.job.stages import Stage
from spindle.job.state import JobState
from spindle.job.value import Job
from spindle.learning.past import CONFIRMED, GIVEN_UP, PROBABLE, PROVEN, Done, Looked, Past, Saw, Took, TriedAlone, kept
from spindle.offers.ends import UNREPAIRED
from spindle.repairs.procedures import procedure_for
from spindle.words.bench import Depth
from spindle.words.witness import Witness

_BEYOND_US: Final = frozenset({UNREPAIRED, "not_to_be_had"})
"""Ends of units with a fault of the list that nobody cured; every other end says that it was something else."""


def past_of(state: JobState) -> Past:
    """Return what a closed job teaches. A service, and an end that says it was something else, say nothing of a cause; what was tried counts all the same."""
    job = state.job
    model = job.model.shipped
    names = [f.id for f in model.faults]
    seen, belief = believe(_before(job.findings, _seen_until(job)), model), believe(job.findings, model)
    ending = judge_ending(belief, model, state.case.economy)
    is_cured = job.is_trial_clean and ending.p_cured > 0.0 and not state.is_service
    confirmed = job.confirmed.body["fault"] if is_cured and job.confirmed is not None else ""
    is_confirmed = confirmed in model.fault_index
    is_proven = is_cured and ending.verdict == "proven"
    return Past(
        variant=job.start.sheet.variant,
        family=model.model.family,
        weight=(CONFIRMED if is_confirmed else PROVEN if is_proven else PROBABLE) if is_cured else _weight_uncured(job),
        is_confirmed=is_confirmed,
        seen=kept(names, list(seen.p)),
        closing={confirmed: 1.0} if is_confirmed else kept(names, list(belief.p)),
        tried=tuple(_tried(job)),
        took=tuple(_took(job)),
        seconds=_seconds(job) if is_proven else None,
        way=_way(job) if is_confirmed else (),
        looked=tuple(_looked(job)),
        saw=_saw(job),
    )


def _weight_uncured(job: Job) -> float:
    end = job.proposal.end if job.proposal else ""
    return GIVEN_UP if end in _BEYOND_US and job.voided is None else 0.0


def _seen_until(job: Job) -> int:
    left = (line.number for line in job.lines if line.kind == "stage" and line.body["from"] == Stage.FAULT_SEEN.value)
    return next(left, job.next_number)


def _before(findings: tuple[Finding, ...], number: int) -> tuple[Finding, ...]:
    return tuple(f for f in findings if int(f.id) < number)


def _tried(job: Job) -> Iterator[TriedAlone]:
    """Yield what was tried alone; what changed part of it is neither."""
    for trial in job.trials:
        if len(trial.changes) == 1 and trial.result is not TrialResult.CHANGED:
            change = trial.changes[0]
            yield TriedAlone(change.repair, trial.result is TrialResult.CLEAN, change.item, change.health)


def _way(job: Job) -> tuple[Done, ...]:
    """Return what was done at the bench up to the trial that cured, in its order; () where two things were changed at once, or one twice."""
    way: list[Done] = []
    for finding in job.findings[: job.trial_at + 1]:
        what = finding.what
        if finding.is_struck:
            continue
        if isinstance(what, Answer) and _at_the_bench(what, job.model.shipped):
            way.append(Done(what.question, what.outcome))
        elif isinstance(what, Trial):
            if len(what.changes) > 1 or what.changes[0].repair in {d.what for d in way}:
                return ()
            way.append(Done(what.changes[0].repair, "clean" if what.result is TrialResult.CLEAN else "", is_repair=True))
    return tuple(way)


def _at_the_bench(what: Answer, model: CompiledModel) -> bool:
    question = model.questions.get(what.question)
    is_ours = question is not None and question.kind is not QuestionKind.INTAKE and question.outcome(what.outcome) is not None
    return is_ours and what.source is Witness.BENCH and not what.setting.is_elsewhere


def _took(job: Job) -> Iterator[Took]:
    """Yield how long each repair took that was begun at Repair and tried there."""
    began: Line | None = None
    for line in job.lines:
        if line.kind == "stage":
            began = line if line.body["to"] == Stage.REPAIR.value else None
        elif line.kind == "trial" and began is not None and line.number not in job.struck and len(line.body["changes"]) == 1:
            yield from _one(job, began, line)
            began = None


def _one(job: Job, began: Line, tried: Line) -> Iterator[Took]:
    index = job.model.repair_index.get(tried.body["changes"][0]["repair"])
    minutes = (tried.at - began.at).total_seconds() / 60.0
    if index is None or minutes <= 0.0:
        return
    repair = job.model.shipped.repairs[index]
    opened = job.model.model.depths.open_min
    way = max(opened[int(repair.depth)] - opened[int(Depth(began.body["depth"]))], 0.0)
    is_iron = procedure_for(job.model.model.family, repair.id).skill == "soldering"
    yield Took(repair.id, tried.by, round(minutes, 2), round(bench_minutes(repair, job.model.shipped) + TRIAL_MIN + way, 2), is_iron)


def _looked(job: Job) -> Iterator[Looked]:
    """Yield how long each look of the search took that was made once, right after something else that the same hand wrote down."""
    model = job.model.shipped
    searched = job.findings[: job.trial_at] if job.trial_at >= 0 else job.findings  # in the proof it is the disc that takes its time
    answers = {int(f.id): f.what for f in searched if not f.is_struck}
    for before, line in pairwise(job.lines):
        what = answers.get(line.number)
        if not isinstance(what, Answer) or what.tries is not None or before.by != line.by or not _at_the_bench(what, model):
            continue
        minutes, question = (line.at - before.at).total_seconds() / 60.0, model.questions[what.question]
        if minutes > 0.0:
            yield Looked(question.id, line.by, round(minutes, 2), round(ask_minutes(Asked(question.id, question=question), model), 2))


def _saw(job: Job) -> tuple[Saw, ...]:
    """Return what was seen of the unit as it came: the last word on each question before the first trial, where it was one look with one answer."""
    until, told = _seen_until(job), {}
    for finding in takewhile(lambda f: not isinstance(f.what, Trial), job.findings):
        what = finding.what
        if isinstance(what, Answer) and not finding.is_struck and _at_the_bench(what, job.model.shipped):
            told[what.question] = None if what.tries is not None or what.weights else Saw(what.question, what.outcome, int(finding.id) < until)
    return tuple(saw for saw in told.values() if saw is not None)


def _seconds(job: Job) -> dict[str, float] | None:
    """Return the times to play that were taken since the clean trial and in the proof, by class of disc: of starts that were good."""
    asked = job.model.family_questions
    timed = {}
    for finding in job.findings[job.trial_at + 1 :] if job.trial_at >= 0 else ():
        what = finding.what
        if not isinstance(what, Answer) or finding.is_struck or what.seconds is None or what.setting.is_elsewhere:
            continue
        if asked[what.question].kind is QuestionKind.DISC_CLASS and what.outcome not in asked[what.question].fails:
            timed[what.question] = float(what.seconds)
    for line in job.lines:
        if (
            line.number in job.proofs
            and line.body.get("is_passed")
            and line.body.get("seconds")
            and asked[line.body["question"]].kind is QuestionKind.DISC_CLASS
        ):
            timed[line.body["question"]] = float(line.body["seconds"])
    return timed or None

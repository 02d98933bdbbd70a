"""What the proof makes of the trial that it proves."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import wraps

from spindle.diagnosis.given.case import TrialResult
from spindle.job.line import Line
from spindle.job.value import Job


def taken_back(job: Job) -> Job:
    """Return the job after a failure in the proof: no pass counts, and the clean trial was not clean."""
    return amended(replace(job, passes=0), TrialResult.NO_CHANGE)


def proven_by(fold: Callable[[Job, Line], Job]) -> Callable[[Job, Line], Job]:
    """Let a line of the proof be struck: it did not happen then. One that stands is among the proofs of its job."""

    @wraps(fold)
    def folded(job: Job, line: Line) -> Job:
        if line.number in job.struck:
            return job
        return fold(replace(job, proofs=job.proofs | {line.number}), line)

    return folded


def amended(job: Job, result: TrialResult, passes: int = 1) -> Job:
    """Return the job with its clean trial amended by some passes; a trial that was not clean stays as it is."""
    trial = job.trial_since_proposal
    if trial is None or trial.result is not TrialResult.CLEAN:
        return job
    now = replace(trial, result=result, clean_passes=trial.clean_passes + (passes if result is TrialResult.CLEAN else 0))
    at = job.trial_at
    return replace(job, findings=(*job.findings[:at], replace(job.findings[at], what=now), *job.findings[at + 1 :]))

"""What the proof makes of the trial that it proves."""

from __future__ import annotations

from dataclasses import replace

from spindle.diagnosis.given.case import TrialResult
from spindle.job.value import Job


def taken_back(job: Job) -> Job:
    """Return the job after a failure in the proof: no pass counts, and the clean trial was not clean."""
    return amended(replace(job, passes=0), TrialResult.NO_CHANGE)


def amended(job: Job, result: TrialResult) -> Job:
    """Return the job with its clean trial amended by one pass; a trial that was not clean stays as it is."""
    trial = job.trial_since_proposal
    if trial is None or trial.result is not TrialResult.CLEAN:
        return job
    now = replace(trial, result=result, clean_passes=trial.clean_passes + (1 if result is TrialResult.CLEAN else 0))
    at = job.trial_at
    return replace(job, findings=(*job.findings[:at], replace(job.findings[at], what=now), *job.findings[at + 1 :]))

"""What was said of each repair when it was proposed, and what came of it: how honest the advice is can be counted from tapes alone."""

from __future__ import annotations

from dataclasses import dataclass

from spindle.diagnosis.given.case import Trial, TrialResult
from spindle.job.value import Job


@dataclass(frozen=True, slots=True)
class Judged:
    """One proposed repair that was tried: how likely it was said to cure, whether the advice put it first, and whether it came out clean."""

    repair: str
    p_success: float
    is_advised: bool
    is_clean: bool


def judged_in(job: Job) -> tuple[Judged, ...]:
    """Return every proposal of a job whose repair was tried before the next one, as the proof has left it.

    A proposal that was never tried (the owner said no, it went back as it was) judges nothing; one that was tried twice counts by its last trial.
    """
    made = [line for line in job.lines if line.kind == "proposal" and line.body["repair"]]
    found = []
    for line, ends in zip(made, [*(x.number for x in made[1:]), job.next_number], strict=False):
        own = [t for n, t in _trials(job) if line.number < n < ends and any(c.repair == line.body["repair"] for c in t.changes)]
        if own:
            told = line.body
            found.append(Judged(told["repair"], float(told["p_success"]), bool(told.get("is_advised", False)), own[-1].result is TrialResult.CLEAN))
    return tuple(found)


def _trials(job: Job) -> list[tuple[int, Trial]]:
    return [(int(f.id), f.what) for f in job.findings if isinstance(f.what, Trial) and not f.is_struck]

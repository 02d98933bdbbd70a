"""What keeps the laser dark under an open lid: a switch may be bridged only while another one is known to work, on this very unit."""

from __future__ import annotations

from spindle.diagnosis.given.case import TrialResult
from spindle.errors import NotNowError
from spindle.faults.model import Repair
from spindle.job.value import Job


def bridged(job: Job) -> frozenset[str]:
    """Return the repairs that bridged a switch of this unit and stay: of an earlier job, or of this one after a clean trial or by somebody's word.

    A new switch in the place of a bridge ends it.
    """
    repairs, found = {r.id: r for r in job.model.model.repairs}, set(job.start.bridged)
    for trial in job.trials:
        for repair in (repairs.get(c.repair) for c in trial.changes if c.stays or trial.result is TrialResult.CLEAN):
            if repair is None:  # of a model that had more repairs
                continue
            if repair.only_after:
                found.add(repair.id)
            elif repair.uses_item:
                found -= {i for i in found if i in repairs and set(repairs[i].cures) <= set(repair.cures)}
    return frozenset(found)


def interlocks_left(job: Job, repair: Repair) -> int:
    """Return how many lid switches would still darken the laser after a bridge: those of the drive, less those that are bridged."""
    return job.model.sheet.lid_switches - len(bridged(job) | {repair.id})


def check_interlock(job: Job, repair: Repair) -> None:
    """Refuse a bridge that would leave no switch, or whose other switch was not seen to work on this unit.

    Raises
    ------
    NotNowError
    """
    if not repair.only_after:
        return
    if interlocks_left(job, repair) < 1:
        raise NotNowError("Refused: no lid switch would be left. Nothing would darken the laser as the lid lifts.", reason="interlock")
    question, outcome = repair.only_after.split("=")
    said = job.said.get(question)
    if said is None or said.outcome != outcome:
        asked = job.model.family_questions[question].ask
        raise NotNowError(f"Refused: the other lid switch has to be seen to work on this unit first ({asked}).", reason="interlock")

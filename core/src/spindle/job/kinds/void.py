"""A unit taken in by mistake: the job leaves the day, its tape stays, and it can be let stand again."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Final

from spindle.errors import InvalidError, NotNowError
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, World, one
from spindle.job.effects import Unwant, Want
from spindle.job.line import Line
from spindle.job.stages import Stage
from spindle.job.value import Job
from spindle.words.bench import Mains
from spindle.words.bounds import TextBound
from spindle.words.duty import Duty


@dataclass(frozen=True, slots=True)
class Void:
    """Take a job out of the day: it should not have been taken in."""

    why: Annotated[str, TextBound(120, least=1, is_stripped=True)]


@dataclass(frozen=True, slots=True)
class Unvoid:
    """It was no mistake: the job goes on where it stood."""


def _decide(job: Job, ask: Void, _world: World) -> Decision:
    if not ask.why.strip():
        raise InvalidError("why", "Why was it a mistake? Write it down: whoever looks for this unit reads it.")
    if job.takings or job.away or job.on_trial:
        raise NotNowError("Parts are out of this unit or in it. Put them back first: a job with parts is no mistake.", reason="parts")
    if job.is_left:
        raise NotNowError("The owner left this unit here, and it is kept for parts: that was no mistake.", reason="left")
    if job.depth:
        raise NotNowError("The unit is open. Close it up first.", reason="open")
    return one("void", {"why": ask.why, "from": job.stage.value}, Unwant())


def _undo(job: Job, _ask: Unvoid, _world: World) -> Decision:
    if job.voided is None:
        raise NotNowError("This job is closed. A return opens a new one.", reason="closed")
    waits_for = job.proposal if job.proposal is not None and job.proposal.repair else None
    return one("void", {"why": "", "from": job.voided.body["from"]}, *([Want(waits_for.repair, waits_for.p_success)] if waits_for else []))


def _fold(job: Job, line: Line) -> Job:
    if line.body["why"]:
        return replace(job, stage=Stage.CLOSED, voided=line)
    return replace(job, stage=Stage(line.body["from"]), voided=None)


KIND: Final = LineKind(
    "void",
    lambda body, _: f"Taken in by mistake: {body['why']}" if body["why"] else "No mistake: the job stands again",
    _fold,
    (AskKind("void", Void, _decide, Needs(OPEN, Duty.TAKE_IN, Mains.OUT)), AskKind("unvoid", Unvoid, _undo, Needs(frozenset({Stage.CLOSED}), Duty.TAKE_IN))),
)

"""The job moves along: forwards only when nothing is missing, backwards with a reason."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.errors import NotNowError
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.effects import Effect, FitForGood, Unwant
from spindle.job.line import Line
from spindle.job.stages import NAMES, Stage, following, may_return, missing
from spindle.job.state import state_of
from spindle.job.value import Job
from spindle.repairs.procedure import OPENING_IDS, PLUG
from spindle.words.bench import Depth, Power
from spindle.words.bounds import Short
from spindle.words.duty import Duty

_WHO: Final = {Stage.TAKEN_IN: Duty.TAKE_IN, Stage.AGREE: Duty.AGREE, Stage.HAND_BACK: Duty.HAND_BACK}


@dataclass(frozen=True, slots=True)
class Advance:
    """Leave this stage for the next."""

    stage: Stage


@dataclass(frozen=True, slots=True)
class GoBack:
    """Go back to an earlier stage."""

    to: Stage
    why: Short = ""


def _advance(job: Job, ask: Advance, world: World) -> Decision:
    if job.stage is not ask.stage:
        raise NotNowError(f"The job is at {NAMES[job.stage]}, not at {NAMES[ask.stage]}.", reason="other_stage")
    left = missing(ask.stage, state_of(job, world.economy).facts)
    if left:
        raise NotNowError(f"{NAMES[ask.stage]} cannot be left yet: {left[0].text}", reason="missing", missing=[{"code": m.code, "text": m.text} for m in left])
    to = following(ask.stage)
    settled: tuple[Effect, ...] = (*map(FitForGood, job.takings), Unwant()) if to is Stage.CLOSED else ()
    return one("stage", _move(job, to), *settled)


def _go_back(job: Job, ask: GoBack, _world: World) -> Decision:
    if not may_return(job.stage, ask.to):
        raise NotNowError(f"From {NAMES[job.stage]} a job cannot go back to {NAMES[ask.to]}.", reason="order")
    if job.is_left:
        raise NotNowError("The owner left this unit here, and it is kept for parts: nothing of it is repaired any more.", reason="left")
    return one("stage", _move(job, ask.to, ask.why))


def _move(job: Job, to: Stage, why: str = "") -> dict[str, Any]:
    return {"from": job.stage.value, "to": to.value, "depth": int(job.depth), "why": why}


def _fold(job: Job, line: Line) -> Job:
    """A repair that begins, also for the second time, starts as open as the unit is then, with the plug as it is: the way in is gone anew.

    What is not closed nobody has fetched, and a cause that was confirmed is a suspicion again once the bench looks further.
    """
    to, origin = Stage(line.body["to"]), Stage(line.body["from"])
    if to is not Stage.CLOSED:
        job = replace(job, collected=None)
    if may_return(origin, to):
        job = replace(job, confirmed=None)
    if (origin, to) != (Stage.AGREE, Stage.REPAIR):
        return replace(job, stage=to)
    unplugged = {PLUG: line} if job.power is Power.OUT else {}
    steps = {i: x for i, x in job.steps.items() if i not in OPENING_IDS} | unplugged
    return replace(job, stage=to, repair_depth=Depth(line.body["depth"]), steps=steps)


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    return f"{NAMES[Stage(body['from'])]} → {NAMES[Stage(body['to'])]}" + (f": {body['why']}" if body.get("why") else "")


KIND: Final = LineKind(
    "stage",
    _says,
    _fold,
    (AskKind("advance", Advance, _advance, lambda ask: Needs(OPEN, _WHO.get(ask.stage, Duty.BENCH))), AskKind("go_back", GoBack, _go_back, Needs(OPEN))),
)

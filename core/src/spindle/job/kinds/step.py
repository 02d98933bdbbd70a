"""A step of the repair is done, or not done after all. It is known by its id: no other step can stand for it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any, Final

from spindle.bench.fuse_replacement import check_replacement
from spindle.errors import InvalidError, NotFoundError, NotNowError
from spindle.job.asking import NOTHING_CHANGES, AskKind, Decision, LineKind, Needs, Speech, World, check_mains, opened_to
from spindle.job.hazards import cleared, opened, undone
from spindle.job.line import Draft, Line
from spindle.job.stages import Stage
from spindle.job.state import steps_of
from spindle.job.value import Job
from spindle.repairs.procedure import Step
from spindle.words.bounds import Short, Word


@dataclass(frozen=True, slots=True)
class MarkStep:
    """Mark a step done or not done; ``fuse`` is what is printed on the one that went in, at the step that asks for it."""

    step: Word
    is_done: bool
    fuse: Short = ""


def _decide(job: Job, ask: MarkStep, world: World) -> Decision:
    own = next((s for s in steps_of(job) if s.id == ask.step), None)
    if own is None:
        raise NotFoundError(f"This repair has no step {ask.step!r}.")
    if own.is_trial:
        raise InvalidError("step", "The trial is recorded by what it showed.")
    fuse = ask.fuse if own.reads_fuse else ""
    was = job.steps.get(own.id)
    if (was is not None) == ask.is_done and (was is None or was.body.get("fuse", "") == fuse):
        return NOTHING_CHANGES
    drafts: tuple[Draft, ...] = ()
    if ask.is_done:
        if job.is_refused:
            raise NotNowError("The owner did not agree to this repair: go back to Agree.", reason="refused")
        check_mains(job, own.mains, world.now)
        _check_dry(job, own, world.now)
        if own.reads_fuse:
            check_replacement(fuse, job.model.sheet.fuse_rating)
        drafts = opened_to(job, own.opens_to)
    return Decision((*drafts, Draft("step", {"step": own.id, "text": own.text, "is_done": ask.is_done, "fuse": fuse})))


def _check_dry(job: Job, step: Step, now: datetime) -> None:
    """Refuse to call it dry before its minutes have passed: whoever knows better lifts the hold by name.

    Raises
    ------
    NotNowError
    """
    wet = next((h for h in job.hazards(now) if h.code in step.clears and h.until is not None), None)
    if wet is not None and wet.until is not None:
        left = -(-(wet.until - now).total_seconds() // 60)
        raise NotNowError(f"It is not dry yet: {left:.0f} more minutes. {wet.text}", reason="wet")


def _fold(job: Job, line: Line) -> Job:
    step = _id(job, line.body)
    steps = {i: x for i, x in job.steps.items() if i != step}
    if not line.body["is_done"]:
        return replace(job, steps=steps, holds=undone(job.holds, step))
    wet, holds = job.wet, job.holds
    own = next((s for s in steps_of(job) if s.id == step), None)
    if own is not None:
        holds = opened(cleared(holds, own.clears, step), own.opens, line.at, step)
    if own is not None and "solvent" in own.cautions and job.proposal is not None:
        wet |= {job.model.repairs[job.model.repair_index[job.proposal.repair]].part}
    return replace(job, steps={**steps, step: line}, wet=wet, holds=holds)


def _id(job: Job, body: Mapping[str, Any]) -> str:
    """Return the id of the step that a line is about. Older lines know its place and its text: the text tells."""
    if isinstance(body["step"], str):
        return body["step"]
    return next((s.id for s in steps_of(job) if s.text == body["text"]), f"place_{body['step']}")


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    fuse = f" Fuse fitted: {body['fuse']}" if body.get("fuse") else ""
    return f"{'Done' if body['is_done'] else 'Not done after all'}: {body['text']}{fuse}"


KIND: Final = LineKind("step", _says, _fold, (AskKind("step", MarkStep, _decide, Needs(frozenset({Stage.REPAIR}))),))

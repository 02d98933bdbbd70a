"""A step of the repair is done, or not done after all. It is known by its id: no other step can stand for it; one of a swap plan is its tick."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime
from math import ceil
from typing import Any, Final

from spindle.bench.fuse import check_replacement
from spindle.errors import InvalidError, NotFoundError, NotNowError
from spindle.job.asking import NOTHING_CHANGES, AskKind, Decision, LineKind, Needs, Speech, World
from spindle.job.barring import check_hands, check_mains
from spindle.job.hazards import cleared, opened, passes_at, undone
from spindle.job.line import Draft, Line
from spindle.job.opening import opened_to
from spindle.job.stages import Stage
from spindle.job.state import is_done, steps_of
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
    if elsewhere := _done_by(own):
        raise InvalidError("step", elsewhere)
    fuse = ask.fuse if own.reads_fuse else ""
    if is_done(own, job) == ask.is_done and (not ask.is_done or not own.reads_fuse or job.steps[own.id].body.get("fuse", "") == fuse):
        return NOTHING_CHANGES
    drafts: tuple[Draft, ...] = ()
    if ask.is_done:
        if job.is_refused:
            raise NotNowError("The owner did not agree to this repair: go back to Agree.", reason="refused")
        check_mains(job, own.mains, world.now)
        _check_time(own, job, world.now)
        if own.reads_fuse:
            check_replacement(fuse, job.model.sheet.fuse_rating)
        drafts = opened_to(job, own.opens_to, world.now)
    said = {"step": own.id, "text": own.text, "is_done": ask.is_done}
    return Decision((*drafts, Draft("tick", {"plan": own.plan, **said}) if own.plan else Draft("step", {**said, "fuse": fuse})))


def _check_time(step: Step, job: Job, now: datetime) -> None:
    dry_at = passes_at(job.holds, step.clears, now)
    if dry_at is not None:
        left = ceil((dry_at - now).total_seconds() / 60)
        raise NotNowError(f"It is not dry yet: {left} min more. Whoever knows better lifts the hold, by name.", reason="wet")
    if step.is_inside:
        check_hands(job, max(job.depth, step.opens_to), now)


def _done_by(step: Step) -> str:
    """Return by what a step is done that nobody ticks; "" for all others."""
    if step.is_trial:
        return "The trial is recorded by what it showed."
    return "Say which part goes in: take it from the shelf, or note one that lies here." if step.takes_part else ""


def _fold(job: Job, line: Line) -> Job:
    step = _id(job, line.body)
    steps = {i: x for i, x in job.steps.items() if i != step}
    if not line.body["is_done"]:
        return replace(job, steps=steps, holds=undone(job.holds, step))
    wet, holds = job.wet, job.holds
    own = next((s for s in steps_of(job) if s.id == step), None)
    if own is not None:
        holds = opened(cleared(holds, own.clears, step), own.opens, line.at, job.start.sheet.waits)
        if "wet" in own.opens and job.proposal is not None:
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

"""Doing and proving the repair: steps, checks, passes."""

from __future__ import annotations

from apps.errors import InvalidError, NotFoundError, NotNowError
from apps.jobs.models import Job
from apps.jobs.selectors import job_state
from apps.jobs.services.tape import check_mains, deepen
from apps.jobs.services.writing import Command, writing
from apps.people.permissions import Action
from spindle.bench.fuse import check_replacement
from spindle.job.stages import Stage
from spindle.words.bench import Depth, Mains


def mark_step(command: Command, step: int, *, is_done: bool, fuse: str = "") -> Job:
    """Mark a step of the repair done, or not done after all.

    Raises
    ------
    NotNowError
        If the mains state is not the step's.
    InvalidError
        If the step is the trial, which is recorded by what it showed.
    spindle.errors.RefusedError
        If the fuse that was fitted may not be.
    """
    with writing(command, Action.BENCH, "step", {"step": step, "is_done": is_done, "fuse": fuse}) as write:
        if not write.is_replay:
            if Stage(write.job.stage) is not Stage.REPAIR:
                raise NotNowError("Steps are marked while repairing.", reason="other_stage")
            state = job_state(write.job, lines=list(write.record.lines), with_shelf=False)
            if not 0 <= step < len(state.steps):
                raise NotFoundError(f"This repair has no step {step + 1}.")
            own = state.steps[step]
            if own.is_trial:
                raise InvalidError("step", "The trial is recorded by what it showed.")
            if is_done:
                check_mains(write, own.mains)
                if own.reads_fuse:
                    check_replacement(fuse, state.model.sheet.fuse_rating)
                deepen(write, own.opens_to)
            write.append("step", {"step": step, "text": own.text, "is_done": is_done, "fuse": fuse if own.reads_fuse else ""})
    return write.job


def mark_check(command: Command, check: str, *, is_passed: bool) -> Job:
    """Record one check of the proof."""
    with writing(command, Action.BENCH, "check", {"check": check, "is_passed": is_passed}) as write:
        if not write.is_replay:
            _check_proving(write.job)
            checks = {c.id: c for c in job_state(write.job, lines=list(write.record.lines), with_shelf=False).checks}
            if check not in checks:
                raise NotFoundError(f"The proof has no check {check!r}.")
            check_mains(write, Mains.LIVE)
            write.append("check", {"check": check, "title": checks[check].title, "is_passed": is_passed})
    return write.job


def add_pass(command: Command, *, is_clean: bool) -> Job:
    """Record one more pass of the proof: the whole way from insert to play and eject."""
    with writing(command, Action.BENCH, "pass", {"is_clean": is_clean}) as write:
        if not write.is_replay:
            _check_proving(write.job)
            check_mains(write, Mains.LIVE)
            write.append("pass", {"is_clean": is_clean})
    return write.job


def _check_proving(job: Job) -> None:
    if Stage(job.stage) is not Stage.PROVE:
        raise NotNowError("This belongs to the proof.", reason="other_stage")
    if job.depth != Depth.CLOSED:
        raise NotNowError("Close the unit first: proof counts with the screws in.", reason="open")

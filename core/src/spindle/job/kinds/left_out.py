"""A check of the proof is left out, with the reason: what could not be tried is not told as tried."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any, Final

from spindle.errors import NotFoundError, NotNowError
from spindle.job.asking import NOTHING_CHANGES, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.proving import proven_by
from spindle.job.stages import Stage
from spindle.job.state import state_of
from spindle.job.value import Job
from spindle.words.bounds import TextBound, Word


@dataclass(frozen=True, slots=True)
class LeaveCheck:
    """This check cannot be done here, and why."""

    check: Word
    why: Annotated[str, TextBound(120, least=1, is_stripped=True)]


def _decide(job: Job, ask: LeaveCheck, world: World) -> Decision:
    check = next((c for c in state_of(job, world.economy).checks if c.id == ask.check), None)
    if check is None:
        raise NotFoundError(f"The proof has no check {ask.check!r}.")
    if not check.may_be_left:
        raise NotNowError(f"“{check.title}” is part of every proof: it passes or it fails.", reason="not_left")
    if job.left_out.get(check.id) == ask.why:
        return NOTHING_CHANGES
    return one("left_out", {"check": check.id, "title": check.title, "why": ask.why})


@proven_by
def _fold(job: Job, line: Line) -> Job:
    name = line.body["check"]
    checks = {k: v for k, v in job.checks.items() if k != name}
    return replace(job, checks=checks, left_out={**job.left_out, name: line.body["why"]})


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    return f"Not tried: {body['title']}, because {body['why']}"


KIND: Final = LineKind("left_out", _says, _fold, (AskKind("leave_check", LeaveCheck, _decide, Needs(frozenset({Stage.PROVE}))),), is_finding=True)

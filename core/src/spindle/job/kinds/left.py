"""The owner leaves the whole unit here: it is kept for parts, and nobody fetches it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Final

from spindle.errors import InvalidError, NotNowError
from spindle.job.asking import AskKind, Decision, LineKind, Needs, World, one
from spindle.job.effects import UnitLeft
from spindle.job.line import Line
from spindle.job.stages import Stage
from spindle.job.value import Job
from spindle.words.bounds import TextBound
from spindle.words.duty import Duty


@dataclass(frozen=True, slots=True)
class LeaveUnit:
    """The owner leaves the unit with the shop."""

    by_name: Annotated[str, TextBound(120, is_stripped=True)]


def _decide(job: Job, ask: LeaveUnit, _world: World) -> Decision:
    if not ask.by_name.strip():
        raise InvalidError("by_name", "Who leaves it here? Write down the name: it was theirs.")
    if job.proposal is None or job.proposal.repair:
        raise NotNowError("A unit that was repaired goes back to its owner.", reason="repaired")
    if job.is_left:
        raise NotNowError("It was left here already, and is kept for parts.", reason="left")
    return one("left", {"by_name": ask.by_name}, UnitLeft(ask.by_name))


def _fold(job: Job, line: Line) -> Job:
    return replace(job, collected=line)


KIND: Final = LineKind(
    "left",
    lambda body, _: f"Left here for parts by {body['by_name']}",
    _fold,
    (AskKind("leave_unit", LeaveUnit, _decide, Needs(frozenset({Stage.HAND_BACK}), Duty.HAND_BACK)),),
)

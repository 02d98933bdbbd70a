"""Who fetched the unit. It is written down before the job is closed: afterwards nobody remembers."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Final

from spindle.errors import InvalidError, NotNowError
from spindle.job.asking import NOTHING_CHANGES, AskKind, Decision, LineKind, Needs, World, one
from spindle.job.line import Line
from spindle.job.stages import Stage
from spindle.job.value import Job
from spindle.words.bounds import TextBound
from spindle.words.duty import Duty


@dataclass(frozen=True, slots=True)
class Collect:
    """Somebody fetches the unit."""

    by_name: Annotated[str, TextBound(120, least=1, is_stripped=True)]


def _decide(job: Job, ask: Collect, _world: World) -> Decision:
    if not ask.by_name.strip():
        raise InvalidError("by_name", "Who fetches it? Write down the name.")
    if job.is_left:
        raise NotNowError("The owner left this unit here, and it is kept for parts: nobody fetches it.", reason="left")
    if job.collected is not None and job.collected.body["by_name"] == ask.by_name:
        return NOTHING_CHANGES
    return one("collected", {"by_name": ask.by_name})


def _fold(job: Job, line: Line) -> Job:
    return replace(job, collected=line)


KIND: Final = LineKind(
    "collected",
    lambda body, _: f"Fetched by {body['by_name']}",
    _fold,
    (AskKind("collect", Collect, _decide, Needs(frozenset({Stage.HAND_BACK}), Duty.HAND_BACK)),),
)

"""What the cause turned out to be, and by what it is known: asked as the unit goes home, for it is worth ten jobs that only worked again."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.errors import InvalidError, NotNowError
from spindle.faults.model import LEAK, NOTHING
from spindle.job.asking import NOTHING_CHANGES, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.stages import Stage
from spindle.job.value import Job
from spindle.words.bounds import WordOrNone
from spindle.words.known import KNOWN_BY, Known


@dataclass(frozen=True, slots=True)
class ConfirmCause:
    """The cause is known by this, or it is not known for certain; then no fault is named."""

    by: Known
    fault: WordOrNone = ""


def _decide(job: Job, ask: ConfirmCause, _world: World) -> Decision:
    if not job.is_trial_clean:
        raise NotNowError("A cause is confirmed once the repair has come out clean: before that it is a suspicion.", reason="not_clean")
    if ask.by is Known.NOT_KNOWN:
        if ask.fault:
            raise InvalidError("fault", "Name the fault and by what it is known, or say that it is not known.")
    elif ask.fault not in job.model.fault_index or ask.fault == NOTHING:
        raise InvalidError("fault", "Name the fault that it was, one that this drive can have.")
    body = {"by": ask.by.value, "fault": ask.fault}
    return NOTHING_CHANGES if job.confirmed is not None and job.confirmed.body == body else one("confirmed", body)


def _fold(job: Job, line: Line) -> Job:
    return replace(job, confirmed=line)


def _says(body: Mapping[str, Any], speech: Speech) -> str:
    if not body["fault"]:
        return "Cause not known for certain"
    index = speech.job.model.fault_index.get(body["fault"])
    name = "something that is not on the list" if body["fault"] == LEAK else body["fault"] if index is None else speech.job.model.faults[index].name
    return f"Cause confirmed: {name}, {KNOWN_BY[Known(body['by'])]}"


_NEEDS: Final = Needs(frozenset({Stage.PROVE, Stage.HAND_BACK}))
KIND: Final = LineKind("confirmed", _says, _fold, (AskKind("confirm_cause", ConfirmCause, _decide, _NEEDS),))

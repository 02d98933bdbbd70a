"""More passes of the proof: the whole way from insert to play and eject, one or several in a row."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any, Final

from spindle.diagnosis.given.case import TrialResult
from spindle.errors import InvalidError
from spindle.job.asking import AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.proving import amended, proven_by, taken_back
from spindle.job.stages import Stage
from spindle.job.value import Job
from spindle.words.bench import Depth, Mains
from spindle.words.bounds import NumberBound


@dataclass(frozen=True, slots=True)
class AddPass:
    """So many passes were clean, or one failed."""

    is_clean: bool
    count: Annotated[int, NumberBound(1, 50)] = 1


def _decide(_job: Job, ask: AddPass, _world: World) -> Decision:
    if ask.count > 1 and not ask.is_clean:
        raise InvalidError("count", "Passes fail one at a time: write down the clean ones first, then the one that failed.")
    return one("pass", {"is_clean": ask.is_clean, **({"count": ask.count} if ask.count > 1 else {})})


@proven_by
def _fold(job: Job, line: Line) -> Job:
    if not line.body["is_clean"]:
        return taken_back(replace(job, failed_passes=job.failed_passes + 1))
    count = line.body.get("count", 1)
    return amended(replace(job, passes=job.passes + count), TrialResult.CLEAN, count)


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    if not body["is_clean"]:
        return "Pass failed"
    return f"{body['count']} clean passes" if "count" in body else "Clean pass"


_NEEDS: Final = Needs(frozenset({Stage.PROVE}), mains=Mains.LIVE, depth=Depth.CLOSED)
KIND: Final = LineKind("pass", _says, _fold, (AskKind("pass", AddPass, _decide, _NEEDS),), is_finding=True)

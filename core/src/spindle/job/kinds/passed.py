"""One more pass of the proof: the whole way from insert to play and eject."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

from spindle.diagnosis.given.case import TrialResult
from spindle.job.asking import AskKind, Decision, LineKind, Needs, World, one
from spindle.job.line import Line
from spindle.job.proving import amended, taken_back
from spindle.job.stages import Stage
from spindle.job.value import Job
from spindle.words.bench import Depth, Mains


@dataclass(frozen=True, slots=True)
class AddPass:
    """A pass was clean, or it failed."""

    is_clean: bool


def _decide(_job: Job, ask: AddPass, _world: World) -> Decision:
    return one("pass", {"is_clean": ask.is_clean})


def _fold(job: Job, line: Line) -> Job:
    if not line.body["is_clean"]:
        return taken_back(replace(job, failed_passes=job.failed_passes + 1))
    return amended(replace(job, passes=job.passes + 1), TrialResult.CLEAN)


_NEEDS: Final = Needs(frozenset({Stage.PROVE}), mains=Mains.LIVE, depth=Depth.CLOSED)
KIND: Final = LineKind("pass", lambda body, _: "Clean pass" if body["is_clean"] else "Pass failed", _fold, (AskKind("pass", AddPass, _decide, _NEEDS),))

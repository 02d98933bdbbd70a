"""Words for people; no weight. The only thing that a closed job still takes."""

from __future__ import annotations

from typing import Final

from spindle.diagnosis.given.case import Remark
from spindle.formats.case_file import write_what
from spindle.job.asking import ALWAYS, AskKind, Decision, LineKind, Needs, World, one
from spindle.job.findings import fold_finding
from spindle.job.value import Job
from spindle.words.duty import Duty


def _decide(_job: Job, ask: Remark, _world: World) -> Decision:
    return one("remark", write_what(ask))


KIND: Final = LineKind(
    "remark", lambda body, _: str(body["text"]), fold_finding, (AskKind("remark", Remark, _decide, Needs(ALWAYS, Duty.NOTE)),), is_finding=True
)

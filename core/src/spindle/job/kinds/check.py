"""A check of the proof. A failure takes the clean trial back: it was luck, or another fault."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.errors import NotFoundError
from spindle.job.asking import NOTHING_CHANGES, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.proving import taken_back
from spindle.job.stages import Stage
from spindle.job.state import state_of
from spindle.job.value import Job
from spindle.words.bench import Depth, Mains
from spindle.words.bounds import Word


@dataclass(frozen=True, slots=True)
class MarkCheck:
    """A check passed or failed."""

    check: Word
    is_passed: bool


def _decide(job: Job, ask: MarkCheck, world: World) -> Decision:
    titles = {c.id: c.title for c in state_of(job, world.economy).checks}
    if ask.check not in titles:
        raise NotFoundError(f"The proof has no check {ask.check!r}.")
    if job.checks.get(ask.check) is ask.is_passed:
        return NOTHING_CHANGES
    return one("check", {"check": ask.check, "title": titles[ask.check], "is_passed": ask.is_passed})


def _fold(job: Job, line: Line) -> Job:
    job = replace(job, checks={**job.checks, line.body["check"]: line.body["is_passed"]})
    return job if line.body["is_passed"] else taken_back(job)


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    return f"{'Passed' if body['is_passed'] else 'Failed'}: {body['title']}"


_NEEDS: Final = Needs(frozenset({Stage.PROVE}), mains=Mains.LIVE, depth=Depth.CLOSED)
KIND: Final = LineKind("check", _says, _fold, (AskKind("check", MarkCheck, _decide, _NEEDS),))

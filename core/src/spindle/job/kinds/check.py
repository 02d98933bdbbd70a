"""A check of the proof, try by try where it is done several times. A failure takes the clean trial back: it was luck, or another fault."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.errors import NotFoundError
from spindle.job.asking import NOTHING_CHANGES, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.proving import proven_by, taken_back
from spindle.job.stages import Stage
from spindle.job.state import state_of
from spindle.job.value import Job
from spindle.words.bench import Depth, Mains
from spindle.words.bounds import Word


@dataclass(frozen=True, slots=True)
class MarkCheck:
    """A check passed or failed; of one that is done several times, one try, or all that are left (``is_all``)."""

    check: Word
    is_passed: bool
    is_all: bool = True


def _decide(job: Job, ask: MarkCheck, world: World) -> Decision:
    check = next((c for c in state_of(job, world.economy).checks if c.id == ask.check), None)
    if check is None:
        raise NotFoundError(f"The proof has no check {ask.check!r}.")
    if job.checks.get(ask.check) is ask.is_passed:
        return NOTHING_CHANGES
    body: dict[str, Any] = {"check": check.id, "title": check.title, "is_passed": ask.is_passed}
    done = job.tried.get(check.id, 0) + 1
    if ask.is_passed and not ask.is_all and done < check.tries:
        return one("check", {**body, "done": done, "of": check.tries})
    return one("check", body)


@proven_by
def _fold(job: Job, line: Line) -> Job:
    name = line.body["check"]
    if "done" in line.body:
        return replace(job, tried={**job.tried, name: job.tried.get(name, 0) + 1})
    job = replace(job, checks={**job.checks, name: line.body["is_passed"]}, tried={k: n for k, n in job.tried.items() if k != name})
    return job if line.body["is_passed"] else taken_back(job)


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    if "done" in body:
        return f"{body['title']}: {body['done']} of {body['of']} good"
    return f"{'Passed' if body['is_passed'] else 'Failed'}: {body['title']}"


_NEEDS: Final = Needs(frozenset({Stage.PROVE}), mains=Mains.LIVE, depth=Depth.CLOSED)
KIND: Final = LineKind("check", _says, _fold, (AskKind("check", MarkCheck, _decide, _NEEDS),), is_finding=True)

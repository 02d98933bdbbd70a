"""A check of the proof, try by try where it is done several times. A failure takes the clean trial back: it was luck, or another fault."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any, Final

from spindle.bench.proof import ProofCheck
from spindle.diagnosis.evidence.playtime import judge_time
from spindle.errors import InvalidError, NotFoundError
from spindle.job.asking import NOTHING_CHANGES, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.barring import check_wait
from spindle.job.hazards import Bars
from spindle.job.line import Line
from spindle.job.proving import proven_by, taken_back
from spindle.job.stages import Stage
from spindle.job.state import state_of
from spindle.job.value import Job
from spindle.words.bench import Depth, Mains
from spindle.words.bounds import NumberBound, Word

EVEN: Final = 0.5
"""A start that is likelier slow than usual is not called a pass."""


@dataclass(frozen=True, slots=True)
class MarkCheck:
    """A check passed or failed; of one that is done several times, one try, or all that are left (``is_all``). ``seconds`` is the time to play."""

    check: Word
    is_passed: bool
    is_all: bool = True
    seconds: Annotated[float, NumberBound(0, 3_600, is_above=True)] | None = None


def _decide(job: Job, ask: MarkCheck, world: World) -> Decision:
    check = next((c for c in state_of(job, world.economy).checks if c.id == ask.check), None)
    if check is None:
        raise NotFoundError(f"The proof has no check {ask.check!r}.")
    if job.checks.get(ask.check) is ask.is_passed and ask.seconds is None:
        return NOTHING_CHANGES
    if check.waits_for and ask.is_passed:
        check_wait(job, Bars(check.waits_for), world.now)
    body: dict[str, Any] = {"check": check.id, "title": check.title, "is_passed": ask.is_passed, **_timed(ask, check)}
    done = job.tried.get(check.id, 0) + 1
    if ask.is_passed and not ask.is_all and done < check.tries:
        return one("check", {**body, "done": done, "of": check.tries})
    return one("check", body)


def _timed(ask: MarkCheck, check: ProofCheck) -> dict[str, Any]:
    """Return the time to play as the line keeps it, held against healthy units; a slow start is no pass."""
    if ask.seconds is None:
        return {}
    timed = {"seconds": ask.seconds, "question": check.question}
    if check.reference is None:
        return timed
    told = judge_time(ask.seconds, check.reference)
    if ask.is_passed and told.p_usual < EVEN:
        raise InvalidError("seconds", f"{told.says}. That is no pass: time it again, or it fails.")
    return {**timed, "time_says": told.says}


@proven_by
def _fold(job: Job, line: Line) -> Job:
    name = line.body["check"]
    if "done" in line.body:
        return replace(job, tried={**job.tried, name: job.tried.get(name, 0) + 1})
    tried, left = {k: n for k, n in job.tried.items() if k != name}, {k: why for k, why in job.left_out.items() if k != name}
    job = replace(job, checks={**job.checks, name: line.body["is_passed"]}, tried=tried, left_out=left)
    return job if line.body["is_passed"] else taken_back(job)


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    if "done" in body:
        return f"{body['title']}: {body['done']} of {body['of']} good"
    time = f", {body['seconds']:g} s to play" + (f" ({body['time_says']})" if "time_says" in body else "") if "seconds" in body else ""
    return f"{'Passed' if body['is_passed'] else 'Failed'}: {body['title']}{time}"


_NEEDS: Final = Needs(frozenset({Stage.PROVE}), mains=Mains.LIVE, depth=Depth.CLOSED)
KIND: Final = LineKind("check", _says, _fold, (AskKind("check", MarkCheck, _decide, _NEEDS),), is_finding=True)

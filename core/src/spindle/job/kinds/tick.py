"""A step of a swap plan, ticked off: seen on every screen, and known by its id."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.drives.levels import LEVELS
from spindle.errors import InvalidError
from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.barring import check_hands
from spindle.job.line import Line
from spindle.job.value import Job
from spindle.words.bounds import LongText, Word


@dataclass(frozen=True, slots=True)
class Tick:
    """Tick a step of a plan off, or not after all. ``plan`` is the level that is swapped, ``text`` what the step says."""

    plan: Word
    step: Word
    text: LongText
    is_done: bool


def _decide(job: Job, ask: Tick, world: World) -> Decision:
    if ask.plan not in LEVELS:
        raise InvalidError("plan", f"There is no level {ask.plan!r}; there are {', '.join(LEVELS)}.")
    if (f"{ask.plan}:{ask.step}" in job.ticks) == ask.is_done:
        return NOTHING_CHANGES
    if ask.is_done:
        check_hands(job, job.depth, world.now)
    return one("tick", {"plan": ask.plan, "step": ask.step, "text": ask.text, "is_done": ask.is_done})


def _fold(job: Job, line: Line) -> Job:
    name = f"{line.body['plan']}:{line.body['step']}"
    ticks = {i: x for i, x in job.ticks.items() if i != name}
    return replace(job, ticks={**ticks, name: line} if line.body["is_done"] else ticks)


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    return f"Swap plan, {LEVELS[body['plan']].name.lower()}: {'done' if body['is_done'] else 'not done after all'}: {body['text']}"


KIND: Final = LineKind("tick", _says, _fold, (AskKind("tick", Tick, _decide, Needs(OPEN)),))

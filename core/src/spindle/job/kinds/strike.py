"""A finding or part is struck: its weight goes, the line stays. What was taken with it goes back on the shelf."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Final

from spindle.errors import NotFoundError
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.effects import Effect
from spindle.job.line import Line
from spindle.job.takings import given_back
from spindle.job.value import Job
from spindle.words.bounds import Number, Short


@dataclass(frozen=True, slots=True)
class Strike:
    """Strike a line."""

    line: Number
    why: Short = ""


def _decide(job: Job, ask: Strike, _world: World) -> Decision:
    if ask.line not in job.standing:
        raise NotFoundError(f"Line {ask.line} is no finding, or is struck already.")
    taken = job.takings.get(ask.line)
    effects: tuple[Effect, ...] = () if taken is None else given_back(job, taken)
    return one("strike", {"line": ask.line, "why": ask.why}, *effects)


def _touches(job: Job, ask: Strike) -> set[str]:
    return {job.takings[ask.line].body["item"]} if ask.line in job.takings else set()


def _strikes(struck: dict[int, Line], line: Line) -> None:
    struck[line.body["line"]] = line


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    return f"Struck line {body['line']}" + (f": {body['why']}" if body.get("why") else "")


KIND: Final = LineKind("strike", _says, asks=(AskKind("strike", Strike, _decide, Needs(OPEN), _touches),), strikes=_strikes)

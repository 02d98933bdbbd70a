"""A struck line stands again. What it had taken from the shelf is taken anew, by the same line, if it is still there."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from spindle.drives.levels import LEVEL_OF_REPAIR
from spindle.errors import NotFoundError
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, World, one
from spindle.job.effects import Effect, Take, Unwant
from spindle.job.line import Line
from spindle.job.takings import check_piece
from spindle.job.value import Job
from spindle.words.bounds import Number


@dataclass(frozen=True, slots=True)
class Restore:
    """Let a struck line stand again."""

    line: Number


def _decide(job: Job, ask: Restore, world: World) -> Decision:
    if ask.line not in job.struck:
        raise NotFoundError(f"Line {ask.line} is not struck.")
    body, effects = {"line": ask.line}, list[Effect]()
    was = job.lines[ask.line - 1].body
    if was.get("taking"):
        piece = world.piece(was["item"], LEVEL_OF_REPAIR[was["repair"]])
        if piece is None:
            raise NotFoundError(f"There is no part {was['item']} any more.")
        check_piece(piece, was["repair"], world)
        effects += [Take(ask.line, piece.tag, level=piece.level), Unwant(was["repair"])]
    return one("restore", body, *effects)


def _touches(job: Job, ask: Restore) -> set[str]:
    was = job.lines[ask.line - 1].body if ask.line in job.struck else {}
    return {was["item"]} if was.get("taking") else set()


def _strikes(struck: dict[int, Line], line: Line) -> None:
    struck.pop(line.body["line"], None)


KIND: Final = LineKind(
    "restore", lambda body, _: f"Line {body['line']} stands again", asks=(AskKind("restore", Restore, _decide, Needs(OPEN), _touches),), strikes=_strikes
)

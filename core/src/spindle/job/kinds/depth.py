"""How far the unit is open. Opening it further needs the mains out, and so does closing it up."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Final

from spindle.errors import NotNowError
from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, World, one
from spindle.job.barring import check_mains, check_wait
from spindle.job.hazards import Bars
from spindle.job.line import Line
from spindle.job.opening import at_depth, before_depth, depth_body
from spindle.job.value import Job
from spindle.words.bench import DEPTH_NAMES, Depth, Mains
from spindle.words.bounds import NumberBound


@dataclass(frozen=True, slots=True)
class SetDepth:
    """Say how far the unit is open now."""

    depth: Annotated[int, NumberBound(int(Depth.CLOSED), int(Depth.DECK_OUT))]


def _decide(job: Job, ask: SetDepth, world: World) -> Decision:
    if ask.depth == job.depth:
        return NOTHING_CHANGES
    depth = Depth(ask.depth)
    if depth > job.depth or depth is Depth.CLOSED:
        check_mains(job, Mains.OUT, world.now)
    if depth > job.depth:
        check_wait(job, Bars.OPENING, world.now)
    left = before_depth(job, depth) if depth < job.depth else ()
    if left:
        raise NotNowError(f"On the mat still: {', '.join(left)}. Put back each, with its look, and the unit is as shut as they are.", reason="mat")
    return one("depth", depth_body(job, depth))


def _fold(job: Job, line: Line) -> Job:
    return at_depth(replace(job, mat=job.mat.with_open(tuple(line.body.get("steps", ())), line.body.get("side", ""))), Depth(line.body["depth"]))


KIND: Final = LineKind("depth", lambda body, _: f"Unit {DEPTH_NAMES[Depth(body['depth'])]}", _fold, (AskKind("depth", SetDepth, _decide, Needs(OPEN)),))

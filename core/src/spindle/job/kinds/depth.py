"""How far the unit is open. Opening it further needs the mains out."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Final

from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, World, check_mains, one
from spindle.job.line import Line
from spindle.job.value import Job
from spindle.repairs.procedure import OPENS_TO
from spindle.words.bench import DEPTH_NAMES, Depth, Mains
from spindle.words.bounds import NumberBound


@dataclass(frozen=True, slots=True)
class SetDepth:
    """Say how far the unit is open now."""

    depth: Annotated[int, NumberBound(int(Depth.CLOSED), int(Depth.DECK_OUT))]


def _decide(job: Job, ask: SetDepth, world: World) -> Decision:
    if ask.depth == job.depth:
        return NOTHING_CHANGES
    if ask.depth > job.depth:
        check_mains(job, Mains.OUT, world.now)
    return one("depth", {"depth": ask.depth})


def _fold(job: Job, line: Line) -> Job:
    """What was opened and is shut again has to be opened again: those steps are done no more."""
    depth = Depth(line.body["depth"])
    steps = {i: x for i, x in job.steps.items() if OPENS_TO.get(i, Depth.CLOSED) <= depth} if depth < job.depth else job.steps
    return replace(job, depth=depth, steps=steps, repair_depth=min(job.repair_depth, depth))


KIND: Final = LineKind("depth", lambda body, _: f"Unit {DEPTH_NAMES[Depth(body['depth'])]}", _fold, (AskKind("depth", SetDepth, _decide, Needs(OPEN)),))

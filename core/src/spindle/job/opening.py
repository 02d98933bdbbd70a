"""How a job's unit is opened and shut: what a depth takes with it, and what has to go back before it is less open."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from spindle.bench.opening.mat import left_open
from spindle.bench.opening.order import Move, way_back, way_in
from spindle.bench.opening.steps import Opening
from spindle.drives.levels import LEVEL_OF_REPAIR, LEVELS
from spindle.job.barring import check_wait
from spindle.job.hazards import Bars
from spindle.job.line import Draft
from spindle.job.value import Job
from spindle.repairs.procedure import OPENS_TO
from spindle.repairs.procedures import procedure_on
from spindle.words.bench import DEPTH_NAMES, Depth


@dataclass(frozen=True, slots=True)
class Goal:
    """Where a hand wants to get: open so far, or a level of the drive that comes out."""

    id: str
    name: str
    steps: frozenset[str]


def goals_of(opening: Opening) -> tuple[Goal, ...]:
    """Return every depth and every part that the sheets of a unit lead to; where they lead to none yet, as far as they go."""
    depths = [Goal(f"depth_{int(d)}", DEPTH_NAMES[d], opening.leading_to(d)) for d in Depth if d > Depth.CLOSED]
    levels = [Goal(v.id, f"{v.name.lower()} out", opening.freeing(v.id)) for v in LEVELS.values()]
    known = {g.steps for g in depths}  # the deck is out at a depth of that name: one of the two is enough
    found = tuple(g for g in (*depths, *(v for v in levels if v.steps not in known)) if g.steps)
    return found or ((Goal("all", "as far as the sheets go", frozenset(opening.steps)),) if opening.steps else ())


def pictured(job: Job) -> dict[str, str]:
    """Return how each recorded step looked, as the hash of its picture: the newest of that step, or else the newest since the step before it was recorded."""
    found, before = {}, 0
    for number, body in zip(sorted(job.records), job.recorded, strict=True):
        step = f"{body['whose']}:{body['step']}"
        own = [p.hash for p in job.photos.values() if p.of == step]
        if picture := own[-1] if own else _loose(job, before, number):
            found[step] = picture
        before = number
    return found


def next_picture(job: Job) -> str:
    """Return the hash of the photo that goes with the step which is recorded next; "" if there is none."""
    return _loose(job, max(job.records, default=0), job.next_number)


def _loose(job: Job, after: int, before: int) -> str:
    """Return the hash of the newest photo of nothing by name between two lines."""
    return next((p.hash for p in reversed(list(job.photos.values())) if not p.of and after < p.line < before), "")


def goal_of(job: Job) -> Goal | None:
    """Return where the work of a job has to get: to the part that its repair puts in, to that repair's depth, or to where it can be looked at."""
    goals = {g.id: g for g in goals_of(job.opening)}
    repair = job.proposal.repair if job.proposal is not None else ""
    procedure = procedure_on(job.model.sheet.family, job.model.repairs[job.model.repair_index[repair]]) if repair else None
    part = LEVEL_OF_REPAIR.get(repair, "")
    wanted = [
        part,
        *(g.id for g in goals.values() if part and g.steps == job.opening.freeing(part)),
        f"depth_{int(procedure.depth) if procedure else int(Depth.DRIVE_OPEN)}",
        *goals,
    ]
    return next((goals[w] for w in wanted if w in goals), None)


def opened_to(job: Job, depth: Depth, now: datetime) -> tuple[Draft, ...]:
    """Return the line that says how far a step has opened the unit, if it was not as open before.

    Raises
    ------
    NotNowError
        While charge remains: no hand goes in.
    """
    if depth <= job.depth:
        return ()
    check_wait(job, Bars.OPENING, now)
    return (Draft("depth", depth_body(job, depth)),)


def depth_body(job: Job, depth: Depth) -> dict[str, Any]:
    """Return the body of a line that says how far the unit is open. What its sheets name on the way there is open then: it has to go back."""
    moves = _on_the_way(job, depth) if depth > job.depth else ()
    side = next((up for m in reversed(moves) if (up := m.step.side or m.turn_to)), "")
    return {"depth": int(depth), **({"steps": [m.step.id for m in moves], "side": side} if moves else {})}


def _on_the_way(job: Job, depth: Depth) -> tuple[Move, ...]:
    opening = job.opening
    goal = next((g for d in sorted(Depth) if d >= depth and (g := opening.leading_to(d))), frozenset())
    return way_in(opening, job.mat.open, goal, job.mat.side).moves if goal else ()


def before_depth(job: Job, depth: Depth) -> tuple[str, ...]:
    """Return the names of what has to go back before the unit is open no further than that."""
    opening = job.opening
    if depth is Depth.CLOSED:
        return left_open(job.mat, opening)
    return tuple(m.step.name for m in way_back(opening, job.mat.open, opening.leading_to(depth), job.mat.side).moves)


def at_depth(job: Job, depth: Depth) -> Job:
    """Return the job with its unit open so far, and never less than what lies open on its mat (a struck step that stands again opens it anew).

    What was opened and is shut has to be opened again: those steps of a repair are done no more.
    """
    opening = job.opening
    depth = max([depth, *(opening.steps[s].opens_to for s in job.mat.open if s in opening.steps)])
    steps = {i: x for i, x in job.steps.items() if OPENS_TO.get(i, Depth.CLOSED) <= depth} if depth < job.depth else job.steps
    return replace(job, depth=depth, steps=steps, repair_depth=min(job.repair_depth, depth))

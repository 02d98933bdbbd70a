"""A step of opening the unit is done, or put back. In the order of its sheets: nothing comes off that something still holds."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.bench.opening.mat import checks_back
from spindle.bench.opening.order import first_needed, resting_on
from spindle.bench.opening.steps import SIDES, Opening, OpeningStep
from spindle.errors import InvalidError, NotFoundError, NotNowError
from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.barring import check_mains, check_wait
from spindle.job.hazards import Bars
from spindle.job.line import Line
from spindle.job.opening import at_depth
from spindle.job.value import Job
from spindle.repairs.procedure import OPENS_TO
from spindle.words.bench import Depth
from spindle.words.bounds import Short


@dataclass(frozen=True, slots=True)
class OpenStep:
    """Mark a step of the opening order done, or put back.

    ``way`` is the one that was taken where shops dispute; ``turned_to`` the side to which the unit was turned before it, "" for not at all.
    """

    step: Short
    is_open: bool
    way: Short = ""
    turned_to: Short = ""


def _decide(job: Job, ask: OpenStep, world: World) -> Decision:
    opening = job.opening
    if (ask.step in job.mat.open) == ask.is_open:
        return NOTHING_CHANGES
    step = opening.steps.get(ask.step)
    if step is None:
        if ask.is_open:
            raise NotFoundError(f"The sheets of this unit have no step {ask.step!r}.")
        return one("opened", {"step": ask.step, "name": ask.step.partition(":")[2], "is_open": False, "depth": int(job.depth)})
    if ask.turned_to not in ("", *SIDES):
        raise InvalidError("turned_to", f"A unit lies with one of these up: {', '.join(SIDES)}.")
    check_mains(job, step.mains, world.now)
    check_wait(job, Bars.OPENING, world.now)
    (_check_in if ask.is_open else _check_back)(opening, step, job)
    body: dict[str, Any] = {
        "step": step.id,
        "name": step.name,
        "side": step.side or ask.turned_to,
        "is_open": ask.is_open,
        "depth": int(_depth_after(opening, step, job, is_open=ask.is_open)),
    }
    seen = [] if ask.is_open else list(checks_back(step, job.mat))
    return one("opened", {**body, **({"way": ask.way.strip()} if ask.way.strip() else {}), **({"seen": seen} if seen else {})})


def _check_in(opening: Opening, step: OpeningStep, job: Job) -> None:
    needed = first_needed(opening, step.id, frozenset(job.mat.open))
    if needed:
        raise NotNowError(f"First: {opening.steps[needed].name}. It still holds this.", reason="held")


def _check_back(opening: Opening, step: OpeningStep, job: Job) -> None:
    inner = resting_on(opening, step.id, frozenset(job.mat.open).intersection(opening.steps))
    if inner:
        raise NotNowError(f"First put back: {opening.steps[inner].name}. It lies under this.", reason="resting")


def _depth_after(opening: Opening, step: OpeningStep, job: Job, *, is_open: bool) -> Depth:
    if is_open:
        return max(job.depth, step.opens_to)
    if step.opens_to is Depth.CLOSED:
        return job.depth
    return max((opening.steps[s].opens_to for s in job.mat.open if s != step.id and s in opening.steps), default=Depth.CLOSED)


def _fold(job: Job, line: Line) -> Job:
    """Opened step by step, the repair's own step to that depth is done with it."""
    step, depth = line.body["step"], Depth(line.body["depth"])
    side = line.body.get("side", "")
    mat = job.mat.with_open((step,), side) if line.body["is_open"] else job.mat.without(step, side)
    done = {i: line for i, d in OPENS_TO.items() if job.depth < d <= depth}
    return at_depth(replace(job, mat=mat, steps={**done, **job.steps}), depth)


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    way = f", {body['way']}" if body.get("way") else ""
    seen = f". Looked at: {'; '.join(body['seen'])}" if body.get("seen") else ""
    return f"{'Opened' if body['is_open'] else 'Back'}: {body['name']}{way}{seen}"


KIND: Final = LineKind("opened", _says, _fold, (AskKind("open_step", OpenStep, _decide, Needs(OPEN)),))

"""Views of a unit that is opened and shut."""

from __future__ import annotations

from api.jobs import mat_schemas as m
from apps.jobs.selectors import OpenJob
from spindle.bench.opening.mat import Mat, checks_back, lies_out, looks_first, state_of_place
from spindle.bench.opening.order import Way, first_needed, resting_on, way_back, way_in
from spindle.bench.opening.steps import INSIDE, OUTSIDE, Group, Opening, OpeningStep
from spindle.drives.tables import TABLES
from spindle.errors import NotFoundError
from spindle.job.opening import goal_of, goals_of, next_picture
from spindle.job.value import Job


def mat_view(shown: OpenJob, wanted: str) -> m.MatView:
    """Return the mat of a job, with the way to what is wanted; "" is where its work has to get.

    Raises
    ------
    NotFoundError
        If the sheets lead to no such goal.
    """
    job = shown.job
    opening, mat = job.opening, job.mat
    goals = goals_of(opening)
    goal = next((g for g in goals if g.id == wanted), None) if wanted else goal_of(job)
    if wanted and goal is None:
        raise NotFoundError(f"The sheets of this unit lead to no {wanted!r}.")
    return m.MatView(
        goals=[m.GoalView.model_validate(g) for g in goals],
        goal=goal.id if goal else "",
        steps=[_step(step, opening, mat) for step in opening.steps.values()],
        way_in=_way(way_in(opening, mat.open, goal.steps, mat.side) if goal else Way()),
        way_back=_way(way_back(opening, mat.open, side=mat.side)),
        recorded=sorted(job.records),
        next_picture=next_picture(job),
        to_record=[w for w in (OUTSIDE, INSIDE) if not job.start.sheet.opening.says_of(w)],
        latches=list(next(c for c in TABLES["connectors"].columns if c.id == "latch").choices),
        says=_says(opening, mat),
    )


def mat_brief(job: Job) -> m.MatBriefView:
    """Return of a job's mat what every bench screen shows."""
    opening = job.opening
    lost = next((s for s in job.mat.open if s not in opening.steps), "")
    moves = way_back(opening, job.mat.open, side=job.mat.side).moves
    back = m.NextBackView(step=lost, name=lost.partition(":")[2], turn_to="", checks=[]) if lost else None
    if moves and not lost:
        step = moves[0].step
        back = m.NextBackView(step=step.id, name=step.name, turn_to=moves[0].turn_to, checks=list(checks_back(step, job.mat)))
    return m.MatBriefView(has_order=bool(opening.steps), left=len(job.mat.open), next_back=back)


def _way(way: Way) -> m.WayView:
    moves = [m.MoveOnView(step=x.step.id, turn_to=x.turn_to, falls=[h.falls for h in x.holds]) for x in way.moves]
    return m.WayView(minutes=way.minutes, moves=moves)


def _step(step: OpeningStep, opening: Opening, mat: Mat) -> m.MatStepView:
    now = frozenset(mat.open)
    is_open = step.id in now
    held = resting_on(opening, step.id, now.intersection(opening.steps)) if is_open else first_needed(opening, step.id, now)
    return m.MatStepView(
        id=step.id,
        name=step.name,
        kind=step.kind.value,
        is_outside=step.id.startswith(f"{OUTSIDE}:"),
        side=step.side,
        minutes=step.minutes,
        is_open=is_open,
        held=opening.steps[held].name if held else "",
        looks=list(looks_first(step)),
        checks=list(checks_back(step, mat)),
        photo_first=step.asks_photo,
        picture=step.picture,
        mains=step.mains.value,
        ways=[m.DisputeView.model_validate(w) for w in step.ways],
        groups=[_group(g, opening, mat) for g in step.groups],
    )


def _group(group: Group, opening: Opening, mat: Mat) -> m.ScrewGroupView:
    at = dict(zip(group.places, group.at, strict=True)) if group.at else {}
    odd = mat.odd
    return m.ScrewGroupView(
        id=group.id,
        name=group.name,
        screw=group.screw.text,
        length_mm=group.screw.length_mm,
        thread_mm=group.screw.thread_mm,
        head=group.screw.head,
        colour=group.screw.colour,
        captive=group.captive,
        places=[
            m.ScrewPlaceView(
                id=p, at=at.get(p), state=state_of_place(mat, opening, p), why="; ".join(t for t in (odd[p].text, odd[p].why) if t) if p in odd else ""
            )
            for p in group.places
        ],
    )


def _says(opening: Opening, mat: Mat) -> list[str]:
    if not opening.steps:
        return ["The sheets of this unit do not say how it is opened."]
    names = [opening.steps[s].name if s in opening.steps else s.partition(":")[2] for s in mat.open]
    out = [f"{n} × {opening.groups[g].screw.text} ({opening.groups[g].name})" for g, n in lies_out(mat, opening).items()]
    return [f"Open: {', '.join(names)}." if names else "Nothing is open.", f"On the mat: {'; '.join(out)}." if out else "No screw lies on the mat."]

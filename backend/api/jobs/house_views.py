"""How the house is shown: a job of the day, a job of before, an owner."""

from __future__ import annotations

from datetime import date

from api.jobs.house_schemas import DayGroupView, DayRowView, HouseView, PastJobView
from apps.jobs.house import House
from apps.jobs.models import Job
from spindle.drives.levels import LEVELS
from spindle.job.stages import NAMES, Acts, Stage


def house_view(house: House) -> HouseView:
    """Return the day, group by group."""
    groups = [DayGroupView(acts=g.acts, count=g.count, rows=[_row(row, g.acts) for row in g.rows]) for g in house.groups]
    return HouseView(units=house.units, due=house.due, groups=groups)


def _row(row: Job, acts: Acts) -> DayRowView:
    want = getattr(row, "want", None)
    return DayRowView(
        tag=row.tag,
        console=f"{row.sheet.maker} {row.sheet.console}",
        variant=row.sheet.variant,
        owner_name=row.owner_name,
        hands=row.hands,
        complaint=row.complaint,
        stage=Stage(row.stage),
        stage_name=NAMES[Stage(row.stage)],
        promised_on=row.promised_on,
        waits_for=row.waits_for,
        wants=LEVELS[want.level].name.lower() if want is not None and row.stage == Stage.REPAIR else "",
        held_until=row.held_until if acts is Acts.WAIT else None,
        taken_in_at=row.taken_in_at,
        is_return=row.returns_id is not None,
        power=row.power,  # type: ignore[arg-type]
    )


def past_job_view(row: Job, today: date) -> PastJobView:
    """Return a job of before, or one of the same owner's that is here now."""
    return PastJobView(
        tag=row.tag,
        console=f"{row.sheet.maker} {row.sheet.console}",
        variant=row.sheet.variant,
        sheet_id=row.sheet_id,
        owner_name=row.owner_name,
        owner_contact=row.owner_contact,
        complaint=row.complaint,
        taken_in_at=row.taken_in_at,
        closed_at=row.closed_at,
        outcome=row.outcome or f"In the house: {NAMES[Stage(row.stage)]}",
        guarantee_until=row.guarantee_until,
        is_covered=row.is_inside_guarantee(today),
        is_void=row.is_void,
        returns=row.returns.tag if row.returns else "",
    )

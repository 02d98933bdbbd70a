"""How the house is shown: a job of the day, a job of before, an owner."""

from __future__ import annotations

from datetime import date, datetime

from api.jobs.house_schemas import DayRowView, PastJobView
from apps.jobs.models import Job
from spindle.drives.levels import LEVELS
from spindle.job.stages import NAMES, Acts, Stage, acts_now


def day_row_view(row: Job, now: datetime) -> DayRowView:
    """Return one job of the day, as :func:`~apps.jobs.selectors.the_day` reads it."""
    want = getattr(row, "want", None)
    wants = LEVELS[want.level].name.lower() if want is not None and row.stage == Stage.REPAIR else ""
    is_held = row.held_until is not None and row.held_until > now
    lacks_part = bool(wants) and not getattr(row, "may_be_here", False)
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
        acts=acts_now(Acts(row.acts), is_held=is_held, lacks_part=lacks_part),
        wants=wants,
        held_until=row.held_until if is_held else None,
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

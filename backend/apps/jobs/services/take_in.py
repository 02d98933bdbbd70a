"""Taking a unit in."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from datetime import date

from apps.drives.selectors import sheet
from apps.jobs.models import Job
from apps.jobs.selectors import economy_of, start_of
from apps.jobs.services.writing import append, keep
from apps.shop.selectors import the_shop
from apps.writing.once import Command, lock, once
from spindle.job.ledger import after, fold
from spindle.job.prompts import check_condition
from spindle.job.state import state_of
from spindle.job.taking_in import opening
from spindle.words.duty import Duty


@dataclass(frozen=True)
class Intake:
    """What the counter writes down. Money in cents."""

    sheet_id: int
    owner_name: str
    owner_contact: str
    complaint: str
    supply: str
    limit_cents: int | None
    promised_on: date | None
    condition: dict[str, str]


def take_in(command: Command, intake: Intake) -> Job:
    """Take a unit in: the job, its tag, and what the condition amounts to on its tape. The same key takes in once.

    Raises
    ------
    NotAllowedError, NotFoundError, KeyReusedError
    InvalidError
        If a condition is none of its prompt's.
    """
    drive = sheet(intake.sheet_id)
    check_condition(intake.condition)
    with once(command, Duty.TAKE_IN, "take_in", asdict(intake)) as write:
        if write.is_replay:
            return Job.objects.select_related("sheet").get(tag=write.result)
        lock("counter")
        notes = {k: v for k, v in asdict(intake).items() if k != "sheet_id"}
        row = Job.objects.create(tag=_next_tag(), sheet=drive, taken_in_at=write.at, **notes)
        new = fold(start_of(row), ())
        job = after(new, opening(new), at=write.at, by=command.user.shown_name)
        append(row, new, job, command.user)
        keep(row, state_of(job, economy_of(job, the_shop())))
        write.result = row.tag
    return row


def _next_tag() -> str:
    last = Job.objects.order_by("-pk").values_list("tag", flat=True).first()
    return f"K-{(int(last.split('-')[1]) if last else 100) + 1:04d}"

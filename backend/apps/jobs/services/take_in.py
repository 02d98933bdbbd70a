"""Taking a unit in."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass, field
from datetime import date

from apps.drives.selectors import sheet
from apps.jobs.folding import start_of
from apps.jobs.models import Job
from apps.jobs.selectors import economy_of, job_row
from apps.jobs.services.writing import append, keep
from apps.shelf.services.pieces import next_tag
from apps.shop.selectors import the_shop
from apps.writing.once import Command, lock, once
from spindle.errors import InvalidError
from spindle.job.ledger import after, fold
from spindle.job.prompts import check_condition
from spindle.job.stages import Stage
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
    returns: str = ""
    """Tag of the job after which this unit came back."""
    is_same_fault: bool = False
    looks: Mapping[str, str] = field(default_factory=dict)
    """What the eye saw of the drive at the counter."""
    """The owner says that it is the fault that was repaired."""


def take_in(command: Command, intake: Intake) -> Job:
    """Take a unit in: the job, its tag, and what the condition amounts to on its tape. The same key takes in once.

    Raises
    ------
    NotAllowedError, NotFoundError, KeyReusedError
    InvalidError
        If a condition is none of its prompt's, or it came back from a job that is still open.
    CaseError
        If what the eye saw is nothing that the key knows.
    """
    drive = sheet(intake.sheet_id)
    check_condition(intake.condition)
    before = _returns(intake)
    with once(command, Duty.TAKE_IN, "take_in", asdict(intake)) as write:
        if write.is_replay:
            return job_row(write.result)
        lock("counter")
        notes = {k: v for k, v in asdict(intake).items() if k not in ("sheet_id", "returns", "is_same_fault", "looks")}
        covered = before is not None and intake.is_same_fault and before.is_inside_guarantee(the_shop().today())
        row = Job.objects.create(tag=next_tag(Job, "K", begins=100), sheet=drive, taken_in_at=write.at, returns=before, is_covered=covered, **notes)
        new = fold(start_of(row), ())
        job = after(new, opening(new, intake.looks), at=write.at, by=command.user.shown_name)
        append(row, new, job, command.user)
        keep(row, state_of(job, economy_of(job, the_shop())), the_shop())
        write.result = row.tag
    return row


def _returns(intake: Intake) -> Job | None:
    if not intake.returns:
        return None
    before = job_row(intake.returns)
    if before.stage != Stage.CLOSED:
        raise InvalidError("returns", f"{before.tag} is still in the house: go on with it there.")
    if before.is_void:
        raise InvalidError("returns", f"{before.tag} was taken in by mistake: nothing comes back from it. Let it stand again, or take the unit in anew.")
    return before

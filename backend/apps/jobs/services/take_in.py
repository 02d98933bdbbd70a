"""Taking a unit in."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from datetime import date, datetime
from types import MappingProxyType
from typing import Any, Final

from apps.drives.selectors import model_of, sheet
from apps.errors import InvalidError, NotNowError
from apps.jobs.models import Job, LineKind, TapeLine
from apps.jobs.services.writing import Command, writing
from apps.people.models import User
from apps.people.permissions import Action
from apps.people.writes import Order, lock, once
from spindle.diagnosis.given.case import Answer
from spindle.formats.case_file import write_what
from spindle.job.prompts import PROMPTS, findings_of
from spindle.job.stages import Stage


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


def take_in(user: User, key: str, intake: Intake, *, at: datetime | None = None) -> Job:
    """Take a unit in: the job, its tag, and what the condition amounts to on its tape. The same key takes in once.

    Raises
    ------
    NotAllowedError, NotFoundError, KeyReusedError
    InvalidError
        If a condition is none of its prompt's.
    """
    drive = sheet(intake.sheet_id)
    _check_condition(intake.condition)
    with once(Order(user, key, at), Action.TAKE_IN, "take_in", asdict(intake)) as write:
        if write.is_replay:
            return Job.objects.get(tag=write.result)
        lock("counter")
        job = Job.objects.create(tag=_next_tag(), sheet=drive, taken_in_at=write.at, **_fields(intake))
        model = model_of(drive.pk)
        answers = [a for a in findings_of(intake.condition) if a.question in model.family_questions]
        for number, answer in enumerate(answers, start=1):
            TapeLine.objects.create(job=job, number=number, version=1, kind=LineKind.ANSWER, body=write_what(answer), at=write.at, by=user)
        if answers:
            job.version = 1
            job.save(update_fields=["version"])
        write.result = job.tag
    return job


def amend(command: Command, changes: dict[str, Any]) -> Job:
    """Complete what was written down at the counter, while the unit is only taken in.

    Raises
    ------
    NotNowError
        If the job has gone on.
    InvalidError
        If a condition is none of its prompt's.
    """
    with writing(command, Action.TAKE_IN, "amend", changes) as write:
        if not write.is_replay:
            if Stage(write.job.stage) is not Stage.TAKEN_IN:
                raise NotNowError("The counter's notes are complete: add a remark instead.", reason="other_stage")
            condition = {**write.job.condition, **changes.get("condition", {})}
            _check_condition(condition)
            known = {f.what.question for f in write.record.findings if isinstance(f.what, Answer) and not f.is_struck}
            for name, value in {**changes, "condition": condition}.items():
                setattr(write.job, name, value)
            write.append("intake", {"what": [_NAMES[name] for name in changes]})
            for answer in findings_of(condition):
                if answer.question not in known:
                    write.append("answer", write_what(answer))
    return write.job


_NAMES: Final = MappingProxyType(
    {
        "owner_name": "owner",
        "owner_contact": "how to reach the owner",
        "complaint": "complaint",
        "supply": "supply",
        "limit_cents": "spending limit",
        "promised_on": "promise",
        "condition": "condition",
    }
)


def _fields(intake: Intake) -> dict[str, Any]:
    own = asdict(intake)
    del own["sheet_id"]
    return own


def _check_condition(condition: dict[str, str]) -> None:
    known = {p.id: {c.id for c in p.choices} for p in PROMPTS}
    for prompt, choice in condition.items():
        if choice not in known.get(prompt, set()):
            raise InvalidError(f"condition.{prompt}", f"{choice!r} is no answer to the prompt {prompt!r}.")


def _next_tag() -> str:
    last = Job.objects.order_by("-pk").values_list("tag", flat=True).first()
    return f"K-{(int(last.split('-')[1]) if last else 100) + 1:04d}"

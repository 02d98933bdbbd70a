"""How every write to a job happens: once per key, on the version the writer saw, onto the end of the tape."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from apps.errors import NotFoundError, StaleWriteError
from apps.jobs.models import Job, TapeLine
from apps.jobs.record import Record, fold
from apps.jobs.selectors import changes_since, lines_of, model_of_job
from apps.people.models import User
from apps.people.permissions import Action, require
from apps.people.writes import digest_of, note_write, written_before
from django.db import transaction
from django.utils import timezone
from spindle.diagnosis.given.compiled import CompiledModel


@dataclass(frozen=True)
class Command:
    """Who writes to which job, with which idempotency key, on which version."""

    user: User
    tag: str
    key: str
    version: int
    at: datetime | None = None
    """When it happened; None is now."""


@dataclass
class Writing:
    """A write in progress, inside its transaction, with the job locked."""

    job: Job
    user: User
    is_replay: bool
    at: datetime
    record: Record = field(default_factory=Record)
    _next: int = 1

    @property
    def model(self) -> CompiledModel:
        """The fault model of the job's drive."""
        return model_of_job(self.job)

    def append(self, kind: str, body: dict[str, Any]) -> int:
        """Append a line to the tape; return its number."""
        number = self._next
        TapeLine.objects.create(job=self.job, number=number, version=self.job.version + 1, kind=kind, body=body, at=self.at, by=self.user)
        self._next += 1
        return number


@contextmanager
def writing(command: Command, action: Action, what: str, body: dict[str, Any]) -> Iterator[Writing]:
    """Open a write to a job, or a replay of one that is done already (then nothing must be written).

    Raises
    ------
    NotAllowedError
        If the user's role may not do it.
    NotFoundError
        If there is no such job.
    KeyReusedError
        If the key was used for something else.
    StaleWriteError
        If the job has moved on since ``command.version``; says how.
    """
    require(command.user, action)
    with transaction.atomic():
        job = Job.objects.select_for_update().filter(tag=command.tag).first()
        if job is None:
            raise NotFoundError(f"There is no job {command.tag}.")
        digest = digest_of(what, {"tag": command.tag, **body})
        if written_before(command.key, digest) is not None:
            yield Writing(job, command.user, True, timezone.now())
            return
        if command.version != job.version:
            raise StaleWriteError(
                "Somebody else wrote to this job meanwhile. Nothing of yours is lost: look at what changed, then send it again.",
                version=job.version,
                changed=changes_since(job, command.version),
            )
        lines = lines_of(job)
        write = Writing(job, command.user, False, command.at or timezone.now(), fold(lines), len(lines) + 1)
        yield write
        job.version += 1
        job.save()
        note_write(command.key, digest, job.tag, command.user, write.at)

"""What was here before: closed jobs, owners whom the shop knows, and the earlier jobs of a unit."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

from apps.jobs.models import HEAVY, Job
from apps.jobs.searching import matching
from apps.jobs.selectors import job_row
from django.db.models import Q, QuerySet
from spindle.errors import NotFoundError
from spindle.job.stages import Stage

PAGE: Final = 50
MOST_OWNERS: Final = 6


def closed_jobs(words: str, *, after: str = "") -> list[Job]:
    """Return closed jobs, newest first, a page of them: those that come after the job of a tag, and that hold the words if there are any.

    Raises
    ------
    NotFoundError
        If there is no such closed job.
    """
    rows = matching(words) if words.strip() else Job.objects.all()
    rows = rows.select_related("sheet", "returns").defer(*HEAVY).filter(stage=Stage.CLOSED.value)
    if after:
        last = job_row(after)
        if last.closed_at is None:
            raise NotFoundError(f"{last.tag} is no closed job.")
        rows = rows.filter(Q(closed_at__lt=last.closed_at) | Q(closed_at=last.closed_at, pk__lt=last.pk))
    return list(rows.order_by("-closed_at", "-pk")[:PAGE])


@dataclass(frozen=True)
class Owner:
    """An owner whom the shop knows, with every job of theirs, newest first."""

    name: str
    contact: str
    jobs: tuple[Job, ...]


def owners(words: str) -> list[Owner]:
    """Return owners by name or phone, whoever was here last first."""
    if not words.strip():
        return []
    seen = matching(words, in_owner=True).order_by("-taken_in_at").values_list("owner_name", "owner_contact")[:200]
    people = list(dict.fromkeys((name, contact) for name, contact in seen))[:MOST_OWNERS]
    return [Owner(name, contact, tuple(_of(name, contact))) for name, contact in people]


def _of(name: str, contact: str) -> QuerySet[Job]:
    rows = Job.objects.filter(owner_name__iexact=name.strip(), owner_contact__iexact=contact.strip())
    return rows.select_related("sheet", "returns").defer(*HEAVY).order_by("-taken_in_at")[:PAGE]


def earlier(row: Job) -> list[Job]:
    """Return the other jobs of a job's owner, and every job that its unit came back from or for, newest first."""
    chain = {j.pk for j in _chain(row)}
    rows = [*_of(row.owner_name, row.owner_contact), *Job.objects.select_related("sheet", "returns").filter(pk__in=chain)]
    return sorted({j.pk: j for j in rows if j.pk != row.pk}.values(), key=lambda j: j.taken_in_at, reverse=True)


def _chain(row: Job) -> Iterable[Job]:
    back = row.returns
    while back is not None:
        yield back
        back = back.returns
    new = list(Job.objects.filter(returns=row))
    while new:
        yield from new
        new = list(Job.objects.filter(returns__in=new))

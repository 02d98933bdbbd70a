"""Who has a job on their screen, and whether it has moved on: asked every few seconds by every open screen, so it is cheap."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Final

from apps.jobs.models import Job, Presence
from apps.people.models import User
from spindle.errors import NotFoundError

AWAY_AFTER: Final = timedelta(seconds=15)
"""Three missed beats: who has not asked for so long has left."""


@dataclass(frozen=True)
class Pulse:
    """The version that a job has now, and who else looks at it."""

    version: int
    others: list[str]


def pulse(tag: str, user: User, now: datetime) -> Pulse:
    """Note that somebody looks at a job, and return how it stands. Three queries, and nothing of its tape is read."""
    row = Job.objects.filter(tag=tag.strip().upper()).values_list("pk", "version").first()
    if row is None:
        raise NotFoundError(f"There is no job {tag}.")
    job, version = row
    Presence.objects.bulk_create([Presence(job_id=job, user=user, at=now)], update_conflicts=True, unique_fields=["job", "user"], update_fields=["at"])
    others = Presence.objects.filter(job_id=job, at__gt=now - AWAY_AFTER).exclude(user=user).select_related("user")
    return Pulse(version, sorted(p.user.shown_name for p in others))

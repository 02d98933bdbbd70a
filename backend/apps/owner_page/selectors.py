"""Reading owners' pages: by their secret from outside, by their job from inside."""

from __future__ import annotations

from datetime import datetime
from enum import StrEnum

from apps.jobs.folding import value_of
from apps.owner_page.models import OwnerPage
from apps.writing.secrets import hash_of


class Standing(StrEnum):
    """Whether a page can be answered."""

    OPEN = "open"
    ANSWERED = "answered"
    ENDED = "ended"
    WITHDRAWN = "withdrawn"


def page_by(secret: str) -> OwnerPage | None:
    """Return the page with that secret, None if there is none."""
    return OwnerPage.objects.select_related("job__sheet", "job__returns").filter(token_hash=hash_of(secret)).first()


def newest_page(tag: str) -> OwnerPage | None:
    """Return the newest page of a job, None if none was made."""
    return OwnerPage.objects.select_related("job__sheet", "job__returns").filter(job__tag=tag).first()


def standing_of(page: OwnerPage, now: datetime) -> Standing:
    """Tell whether a page can be answered: once, for a while, and while the job still wants the owner's word on what it proposes."""
    if page.answered_at is not None:
        return Standing.ANSWERED
    is_newest = not OwnerPage.objects.filter(job=page.job_id, pk__gt=page.pk).exists()
    if not is_newest or not value_of(page.job).wants_answer(page.proposal, page.at):
        return Standing.WITHDRAWN
    return Standing.ENDED if now >= page.ends_at else Standing.OPEN

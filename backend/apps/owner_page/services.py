"""Making an owner's page, and taking its answer: once, onto the job's tape."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta
from typing import Any, Final, Literal

from apps.jobs.folding import value_of
from apps.jobs.selectors import job_row, open_job
from apps.jobs.services.writing import JobCommand, write
from apps.owner_page.models import OwnerPage
from apps.owner_page.selectors import Standing, standing_of
from apps.owner_page.telling import told_to_owner
from apps.people.services import owners_hand
from apps.shop.selectors import the_shop
from apps.writing.once import Command, once
from apps.writing.secrets import hash_of, secret_of
from django.db import transaction
from django.utils import timezone
from spindle.errors import InvalidError, NotNowError
from spindle.job.kinds.consent import Consent
from spindle.job.kinds.owner_says import OwnerSays, OwnerWant
from spindle.words.duty import Duty

PAGE_DAYS: Final = 14
"""As long as an offer of a small shop usually stands."""
HOW: Final = "on the owner’s page"


@dataclass(frozen=True)
class OwnerAnswer:
    """What the owner sends: ``choice`` is yes, no, another or question."""

    choice: Literal["yes", "no", "another", "question"]
    by_name: str
    text: str = ""
    repair: str = ""


def make_page(command: Command, tag: str) -> OwnerPage:
    """Make a page for what is proposed now. It withdraws the one before.

    Raises
    ------
    NotAllowedError, NotFoundError
    NotNowError
        If no repair is proposed.
    """
    row = job_row(tag)
    with once(command, Duty.AGREE, "owner_page", {"tag": row.tag}) as write_once:
        if write_once.is_replay:
            return OwnerPage.objects.select_related("job__sheet", "job__returns").get(pk=int(write_once.result))
        shown = open_job(row, the_shop())
        proposal = shown.job.proposal
        if proposal is None or not proposal.repair:
            raise NotNowError("Propose a repair first: there is nothing yet that the owner could answer.", reason="no_proposal")
        own = {"proposal": proposal.number, "told": told_to_owner(shown), "by": command.user, "at": write_once.at}
        page = OwnerPage.objects.create(job=row, token_hash=f"making {command.key}", ends_at=write_once.at + timedelta(days=PAGE_DAYS), **own)
        page.token_hash = hash_of(secret_of("owner-page", page.pk))
        page.save(update_fields=["token_hash"])
        write_once.result = str(page.pk)
    return page


def note_seen(page: OwnerPage) -> None:
    """Write down that the page was opened, the first time."""
    OwnerPage.objects.filter(pk=page.pk, seen_at=None).update(seen_at=timezone.now())


def answer_page(page: OwnerPage, answer: OwnerAnswer) -> None:
    """Put the owner's answer onto the job's tape. The page takes one, and one alone: whoever comes second is told so.

    Raises
    ------
    NotNowError
        If it was answered, has ended or was withdrawn.
    InvalidError
        If the name or the question is missing, or the other repair was not on the page.
    """
    with transaction.atomic():
        locked = OwnerPage.objects.select_for_update(of=("self",)).select_related("job__sheet", "job__returns").get(pk=page.pk)
        standing = standing_of(locked, timezone.now())
        if standing is not Standing.OPEN:
            raise NotNowError("This page can no longer be answered.", reason=standing.value)
        ask = _ask_of(locked, answer)
        job = value_of(locked.job)
        write(JobCommand(owners_hand(), job.tag, f"owner-page-{locked.pk}", job.version), ask, lambda _: None)
        locked.answered_at = timezone.now()
        locked.save(update_fields=["answered_at"])


def _ask_of(page: OwnerPage, answer: OwnerAnswer) -> Any:
    name = answer.by_name.strip()
    if not name:
        raise InvalidError("by_name", "Please write your name.")
    if answer.choice in ("yes", "no"):
        return Consent(answer.choice == "yes", page.told["offers"][0]["total_cents"], name, HOW)
    if answer.choice == "another" and answer.repair not in [o["repair"] for o in page.told["offers"][1:]]:
        raise InvalidError("repair", "Please pick one of the offers on this page.")
    want = OwnerWant.ANOTHER if answer.choice == "another" else OwnerWant.QUESTION
    return OwnerSays(want, name, HOW, answer.text, answer.repair if want is OwnerWant.ANOTHER else "")

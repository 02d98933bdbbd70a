"""The deeper look at a job: two steps ahead, and the money by simulated futures.

It is dear, so it is kept for as long as what it rests on stays the same, made in a process of its own that stands back behind answers,
given up as soon as nobody waits for it, and made once at a time for one person. What it says depends on the findings alone: not on the
machine's load, nor on a remark.
"""

from __future__ import annotations

import hashlib
import json
import logging
import time
from collections.abc import Callable
from dataclasses import asdict, dataclass
from datetime import timedelta
from typing import Any, Final, TypeAlias
from uuid import UUID, uuid4

import numpy as np
from apps.drives.selectors import layer_number
from apps.jobs.models import Outlook, WantedLook
from apps.jobs.selectors import OpenJob, job_row, open_job
from apps.people.models import User
from apps.refusals import SupersededError
from apps.shop.selectors import the_shop
from django.conf import settings
from django.db import transaction
from django.utils import timezone
from spindle.diagnosis.explaining.advice import advise
from spindle.diagnosis.explaining.moves import Move
from spindle.diagnosis.given.case import Remark
from spindle.diagnosis.planning.futures import Outturn, outturn
from spindle.diagnosis.planning.outlook import look_ahead
from spindle.formats.case_file import write_case

BUDGET_S: Final = 5.0
"""Beyond this nobody waits any more, and the machine is wanted by others. It is given up then, with no other figure in its place."""
ASKED_EVERY_S: Final = 0.1
"""Seconds between two glances at whether it is there, and at whether anybody still waits."""
_log = logging.getLogger(__name__)


@dataclass(frozen=True)
class DeeperLook:
    """The first move two steps deep, whether one step says the same, and what the advice's own policy would pay from here."""

    first: Move
    is_same: bool
    outturn: Outturn


Telling: TypeAlias = Callable[[DeeperLook, OpenJob], dict[str, Any]]
"""How a deeper look is told to whoever asked."""


def deeper_look(shown: OpenJob, user: User, build: Telling, is_left: Callable[[], bool]) -> dict[str, Any]:
    """Return the deeper look at a job, from what is kept if nothing that counts has changed; else as soon as it is made.

    Parameters
    ----------
    build : tells a look that is made here and now, where no process for looks runs (``settings.LOOKS_APART``)
    is_left : tells whether the asker has left

    Raises
    ------
    SupersededError
        If the asker left or asked for something newer, the job changed meanwhile, or it took beyond :data:`BUDGET_S`.
    """
    rests_on, ticket, end = rests_on_of(shown), uuid4(), time.monotonic() + BUDGET_S
    kept = Outlook.objects.filter(job=shown.row, rests_on=rests_on)
    if (found := kept.first()) is not None:
        return _body(found)
    WantedLook.objects.update_or_create(user=user, defaults={"job": shown.row, "ticket": ticket, "at": timezone.now(), "is_taken": False})
    while True:
        if not settings.LOOKS_APART:
            keep_looks(build, lambda: not is_left())
        is_wanted = _is_wanted(ticket)
        if (found := kept.first()) is not None:
            return _body(found)
        if not is_wanted:
            raise SupersededError("Given up: a newer look was asked for, or the job has changed.")
        if is_left() or time.monotonic() > end:
            WantedLook.objects.filter(ticket=ticket).delete()
            raise SupersededError("The deeper look took too long on this machine. The next move stands as it is.")
        time.sleep(ASKED_EVERY_S)


def keep_looks(build: Telling, goes_on: Callable[[], bool]) -> None:
    """Make every deeper look that is wanted, oldest first, for as long as ``goes_on`` says so. What breaks is told in the log and no longer wanted."""
    while goes_on() and (wanted := WantedLook.objects.filter(is_taken=False).order_by("at").first()) is not None:
        mine = WantedLook.objects.filter(ticket=wanted.ticket)
        if _is_late(wanted):  # whoever asked for it has ended
            mine.delete()
        elif mine.filter(is_taken=False).update(is_taken=True):
            try:
                _make(wanted, build, goes_on)
            except SupersededError:
                continue
            except Exception:
                _log.exception("a deeper look at %s was not made", wanted.job_id)
                mine.delete()


def _make(wanted: WantedLook, build: Telling, goes_on: Callable[[], bool]) -> None:
    shown = open_job(job_row(wanted.job.tag), the_shop())
    rests_on = rests_on_of(shown)
    with transaction.atomic():
        if not Outlook.objects.filter(job=shown.row, rests_on=rests_on).exists():  # somebody else may have asked for the same
            body = build(_look(shown, int(rests_on[:12], 16), _while_wanted(wanted, goes_on)), shown)
            Outlook.objects.update_or_create(job=shown.row, defaults={"rests_on": rests_on, "body": body})
        WantedLook.objects.filter(ticket=wanted.ticket).delete()


def rests_on_of(shown: OpenJob) -> str:
    """Return a digest of everything that a deeper look at a job rests on."""
    case = shown.state.case
    counted = write_case(case)
    counted["findings"] = [f for f, x in zip(counted["findings"], case.findings, strict=True) if not x.is_struck and not isinstance(x.what, Remark)]  # type: ignore[call-overload]
    return hashlib.sha256(json.dumps([shown.row.sheet_id, layer_number(), counted, asdict(case.economy)], sort_keys=True, default=str).encode()).hexdigest()


def _body(found: Outlook) -> dict[str, Any]:
    body: dict[str, Any] = found.body
    return body


def _is_wanted(ticket: UUID) -> bool:
    return WantedLook.objects.filter(ticket=ticket).exists()


def _is_late(wanted: WantedLook) -> bool:
    return bool(wanted.at < timezone.now() - timedelta(seconds=BUDGET_S))


def _while_wanted(wanted: WantedLook, goes_on: Callable[[], bool]) -> Callable[[], bool]:
    """Return what tells whether to go on: it raises as soon as nobody waits for the look."""
    glanced = time.monotonic()

    def go_on() -> bool:
        nonlocal glanced
        if time.monotonic() >= glanced + ASKED_EVERY_S:
            glanced = time.monotonic()
            if not goes_on() or _is_late(wanted) or not _is_wanted(wanted.ticket):
                raise SupersededError("Nobody waits for it any more.")
        return True

    return go_on


def _look(shown: OpenJob, seed: int, go_on: Callable[[], bool]) -> DeeperLook:
    case, model, belief = shown.state.case, shown.job.model, shown.state.belief
    once = look_ahead(case, model, belief)
    twice = look_ahead(case, model, belief, keep_going=go_on)
    first = advise(case, model, belief, twice).moves[0]
    return DeeperLook(first, once.pick == twice.pick, outturn(once.position, once.plan.problem, np.random.default_rng(seed), keep_going=go_on))

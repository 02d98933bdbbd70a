"""The deeper look at a job: two steps ahead, and the money by simulated futures.

It is dear, so it is kept for as long as what it rests on stays the same, given up as soon as nobody waits for it, and done once at a
time for one person. What it says depends on the findings alone: not on the machine's load, nor on a remark.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable
from dataclasses import asdict, dataclass
from time import monotonic
from typing import Any, Final

import numpy as np
from apps.drives.selectors import layer_number
from apps.jobs.models import Outlook
from apps.jobs.selectors import OpenJob
from apps.people.models import User
from apps.refusals import SupersededError
from django.db.models import F
from spindle.diagnosis.explaining.advice import advise
from spindle.diagnosis.explaining.moves import Move
from spindle.diagnosis.given.case import Remark
from spindle.diagnosis.planning.futures import Outturn, outturn
from spindle.diagnosis.planning.outlook import look_ahead
from spindle.formats.case_file import write_case

BUDGET_S: Final = 5.0
"""Beyond this nobody waits any more, and the machine is wanted by others. It is given up then, with no other figure in its place."""


@dataclass(frozen=True)
class DeeperLook:
    """The first move two steps deep, whether one step says the same, and what the advice's own policy would pay from here."""

    first: Move
    is_same: bool
    outturn: Outturn


def deeper_look(shown: OpenJob, user: User, build: Callable[[DeeperLook], dict[str, Any]], is_left: Callable[[], bool]) -> dict[str, Any]:
    """Return the deeper look at a job as ``build`` makes it, from what is kept if nothing that counts has changed.

    Parameters
    ----------
    is_left : tells whether the asker has left

    Raises
    ------
    SupersededError
        If the asker left or asked for something newer, or it took beyond :data:`BUDGET_S`.
    """
    rests_on = _rests_on(shown)
    kept = Outlook.objects.filter(job=shown.row, rests_on=rests_on).first()
    if kept is not None:
        found: dict[str, Any] = kept.body
        return found
    body = build(_look(shown, int(rests_on[:12], 16), _waited_for(user, is_left)))
    Outlook.objects.update_or_create(job=shown.row, defaults={"rests_on": rests_on, "body": body})
    return body


def _rests_on(shown: OpenJob) -> str:
    case = shown.state.case
    counted = write_case(case)
    counted["findings"] = [f for f, x in zip(counted["findings"], case.findings, strict=True) if not x.is_struck and not isinstance(x.what, Remark)]  # type: ignore[call-overload]
    return hashlib.sha256(json.dumps([shown.row.sheet_id, layer_number(), counted, asdict(case.economy)], sort_keys=True, default=str).encode()).hexdigest()


def _waited_for(user: User, is_left: Callable[[], bool]) -> Callable[[], bool]:
    """Return what tells whether to go on: it raises as soon as nobody waits for the answer."""
    User.objects.filter(pk=user.pk).update(looks=F("looks") + 1)
    ticket = User.objects.values_list("looks", flat=True).get(pk=user.pk)
    end = monotonic() + BUDGET_S

    def go_on() -> bool:
        if is_left() or User.objects.values_list("looks", flat=True).get(pk=user.pk) != ticket:
            raise SupersededError("Given up: a newer look was asked for.")
        if monotonic() > end:
            raise SupersededError("The deeper look took too long on this machine. The next move stands as it is.")
        return True

    return go_on


def _look(shown: OpenJob, seed: int, go_on: Callable[[], bool]) -> DeeperLook:
    case, model, belief = shown.state.case, shown.job.model, shown.state.belief
    once = look_ahead(case, model, belief)
    twice = look_ahead(case, model, belief, keep_going=go_on)
    first = advise(case, model, belief, twice).moves[0]
    return DeeperLook(first, once.pick == twice.pick, outturn(once.position, once.plan.problem, np.random.default_rng(seed), keep_going=go_on))

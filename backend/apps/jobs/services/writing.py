"""The one write: lock, key, version, fold, decide, append, effects, and the view before the commit.

What may happen to a job is decided by :mod:`spindle.job.ledger`; here it is made to happen once, for one writer at a time, or not at all.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import asdict, dataclass
from datetime import datetime, timedelta
from functools import partial
from typing import Any, Generic, TypeVar

from apps.jobs.carrying_out import Writer, carry_out
from apps.jobs.folding import keep_folded, kept_value
from apps.jobs.models import VOIDED, Job, TapeLine
from apps.jobs.selectors import OpenJob, changes_since, job_row, shelf_for, shown_as
from apps.jobs.world import ShopWorld
from apps.people.models import User
from apps.people.permissions import require
from apps.refusals import StaleWriteError
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from apps.writing.once import Command, claim, digest_of, trying_twice
from django.db.transaction import on_commit
from django.utils import timezone
from spindle.diagnosis.given.case import Trial, TrialResult
from spindle.job import effects, value
from spindle.job.asking import Decision
from spindle.job.interlocks import bridged
from spindle.job.judged import judged_in
from spindle.job.ledger import ASKS, after, decide
from spindle.job.past import past_of
from spindle.job.stages import Stage
from spindle.job.state import JobState
from spindle.learning.past import write_past

_T = TypeVar("_T")
KEPT_AS = 4
"""Raised when something else is kept of a job beside its tape: rows of closed jobs are made anew then, and not at every start."""
_SHELF = (effects.Take, effects.GiveBack, effects.OwnLeft, effects.OwnOut, effects.UnitLeft)


@dataclass(frozen=True)
class JobCommand:
    """Who writes to which job, with which idempotency key, on which version, and when it happened (None is now)."""

    user: User
    tag: str
    key: str
    version: int
    at: datetime | None = None


@dataclass(frozen=True)
class Written(Generic[_T]):
    """What a write answers with: the view, and whether anything was written."""

    view: _T
    is_new: bool


def write(command: JobCommand, ask: Any, build: Callable[[OpenJob], _T]) -> Written[_T]:
    """Do what is asked of a job, once, and return the view of the job as it then stands.

    The view is built before the commit: what cannot be shown is not written. A replay writes nothing, and so does what changes nothing.

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
    NotNowError, InvalidError, GoneError, RefusedError
        If the ledger refuses it.
    """
    require(command.user, ASKS[type(ask)].needed(ask).duty)
    return trying_twice(partial(_write, command, ask, build))


def _write(command: JobCommand, ask: Any, build: Callable[[OpenJob], _T]) -> Written[_T]:
    row = job_row(command.tag, to_write=True)
    digest = digest_of(ASKS[type(ask)].name, {"tag": row.tag, **asdict(ask)})
    is_replay = claim(Command(command.user, command.key, command.at), digest, row.tag) is not None
    shop = the_shop()
    job = kept_value(row, shop)
    if is_replay:
        return Written(build(_shown(row, job, shop)), False)
    if command.version != job.version:
        raise StaleWriteError(
            "Somebody else wrote to this job meanwhile. Nothing of yours is lost: look at what changed, then send it again.",
            version=job.version,
            changed=changes_since(job, command.version, shop.sign),
        )
    at = command.at or timezone.now()
    world = ShopWorld(row, job, shop, at)
    world.hold(ASKS[type(ask)].touches(job, ask))
    decision = decide(job, ask, world)
    if not decision.drafts:
        return Written(build(_shown(row, job, shop)), False)
    now = after(job, decision, at=at, by=command.user.shown_name)
    append(row, job, now, command.user)
    carry_out(decision.effects, Writer(row, command.user, now.lines[-1].at))
    shown = _shown(row, now, shop, has_moved_shelf=_moves_shelf(decision))
    keep(row, shown.state, shop)
    view = build(shown)
    on_commit(partial(keep_folded, row, now, shop))
    return Written(view, True)


def _moves_shelf(decision: Decision) -> bool:
    return any(isinstance(x, _SHELF) for x in decision.effects)


def _shown(row: Job, job: value.Job, shop: Shop, *, has_moved_shelf: bool = False) -> OpenJob:
    return shown_as(row, job, shop, shelf_for(row.sheet_id, shop, is_fresh=has_moved_shelf))


def append(row: Job, was: value.Job, now: value.Job, by: User) -> None:
    """Append the lines that a job has gained to its tape."""
    new = now.lines[len(was.lines) :]
    TapeLine.objects.bulk_create(TapeLine(job=row, number=x.number, version=x.version, kind=x.kind, body=x.body, at=x.at, by=by) for x in new)


def keep(row: Job, state: JobState, shop: Shop) -> None:
    """Keep beside the tape where a job stands by it, for lists and searches."""
    job, notes = state.job, state.job.notes
    row.owner_name, row.owner_contact, row.complaint, row.supply = notes.owner_name, notes.owner_contact, notes.complaint, notes.supply
    row.limit_cents, row.promised_on, row.condition = notes.limit_cents, notes.promised_on, dict(notes.condition)
    row.stage, row.depth, row.power, row.version = job.stage.value, int(job.depth), job.power.value, job.version
    row.waits_for, row.tried, row.acts = state.waits_for, tried_in(job), state.acts.value
    row.hands = job.lines[-1].by if job.lines else ""
    row.held_until = max((h.until for h in job.hazards(job.lines[-1].at) if h.until), default=None) if job.lines else None
    row.bridged = sorted(bridged(job))
    row.judged = [[j.repair, j.p_success, j.is_advised, j.is_clean] for j in judged_in(job)]
    row.offered_cents = next((x.body["total_cents"] for x in job.lines if x.kind == "proposal" and x.body["repair"]), None)
    row.paid_cents = None if job.paid is None else job.paid.body["cents"]
    row.is_covered, row.kept_as = notes.is_covered, KEPT_AS
    _keep_end(row, state, shop)
    row.past = write_past(past_of(state)) if row.closed_at is not None and job.voided is None else None
    row.save()


def _keep_end(row: Job, state: JobState, shop: Shop) -> None:
    """Keep when and how a job ended, once, as it closes: later figures of the shop give no guarantee and take none. A voided one has none."""
    job = state.job
    if job.stage is not Stage.CLOSED:
        row.closed_at, row.outcome, row.guarantee_until = None, "", None
    if job.stage is not Stage.CLOSED or row.closed_at is not None:
        return
    last = next(line for line in reversed(job.lines) if line.kind in ("stage", "void"))
    row.closed_at = last.at
    row.outcome = f"{VOIDED}{job.voided.body['why']}"[:60] if job.voided else state.verdict
    days = 0 if job.voided else shop.guarantee(state.guarantee_days)
    row.guarantee_until = shop.day_of(last.at) + timedelta(days=days) if days else None


def tried_in(job: value.Job) -> list[list[Any]]:
    """Return every standing trial of one repair alone, and whether it came out clean and the proof left it so."""
    return [[t.changes[0].repair, t.result is TrialResult.CLEAN] for t in job.trials if isinstance(t, Trial) and len(t.changes) == 1]

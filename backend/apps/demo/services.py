"""Loading the demo scenario through the same services that the screens use, so that no tape can say what a bench could not."""

from __future__ import annotations

import json
from collections.abc import Callable
from datetime import datetime, time, timedelta
from functools import cache
from typing import Any

from apps.demo.shelf import load_sheets, load_shelf
from apps.drives.selectors import sheet_of
from apps.jobs.models import Job, LineKind, TapeLine
from apps.jobs.selectors import job_state
from apps.jobs.services import drive, parts, repair, stages, tape
from apps.jobs.services.take_in import Intake, take_in
from apps.jobs.services.writing import Command
from apps.people.models import User
from apps.shop.models import Shop
from django.conf import settings
from django.core.management import call_command
from django.db import transaction
from django.utils import timezone
from spindle.diagnosis.given.case import Answer, Change, Stock, Trial, TrialResult
from spindle.job.stages import Stage
from spindle.words.bench import Depth
from spindle.words.health import Health
from spindle.words.witness import Witness


@cache
def _scenario() -> dict[str, Any]:
    found: dict[str, Any] = json.loads((settings.DEMO / "scenario.json").read_text(encoding="utf-8"))
    return found


def sign_ins() -> list[tuple[str, str, str]]:
    """Return (role, name, password) of everybody in the demo."""
    return [(p["role"], p["username"], p["password"]) for p in _scenario()["people"]]


def is_empty() -> bool:
    """Tell whether nobody has used this database yet."""
    return not User.objects.exists()


def wipe() -> None:
    """Throw everything away. The tape refuses deletion, so the tables are emptied whole."""
    call_command("flush", "--no-input", verbosity=0)


@transaction.atomic
def load() -> None:
    """Load shop, people, drive sheets and jobs."""
    scenario = _scenario()
    Shop.objects.create(pk=1, **scenario["shop"])
    for person in scenario["people"]:
        own = {k: v for k, v in person.items() if k != "password"}
        User.objects.create_user(**own, password=person["password"])
    load_sheets()
    load_shelf()
    for job in scenario["jobs"]:
        _load_job(job)


def _load_job(told: dict[str, Any]) -> None:
    today = timezone.localdate()
    clock = timezone.make_aware(datetime.combine(today - timedelta(days=told["days_ago"]), time(9, 5)))
    told_promise = told.get("promised_in_days")
    intake = Intake(
        sheet_id=sheet_of(told["variant"]).pk,
        condition=told["condition"],
        promised_on=None if told_promise is None else today + timedelta(days=told_promise),
        **told["intake"],
    )
    job = take_in(User.objects.get(username=told.get("taken_in_by", "nia")), f"demo-{told['days_ago']}-{intake.owner_name}", intake, at=clock)
    for n, event in enumerate(told["events"]):
        clock += timedelta(days=event.get("after_days", 0), minutes=event.get("after_min", 3))
        who = User.objects.get(username=event.get("by", "bram"))
        job = _EVENTS[event["do"]](Command(who, job.tag, f"demo-{job.tag}-{n}", job.version, clock), event)


def _answer(command: Command, event: dict[str, Any]) -> Job:
    answer = Answer(event["q"], event["o"], Witness(event.get("source", "bench")), event.get("tries"), event.get("failed"), event.get("seconds"))
    return tape.add_answer(command, answer)


def _trial(command: Command, event: dict[str, Any]) -> Job:
    changes = tuple(Change(c["repair"], c.get("item", ""), Health(c.get("health", "new"))) for c in event["changes"])
    return tape.add_trial(command, Trial(changes, TrialResult(event["result"]), event.get("passes", 0)))


def _part(command: Command, event: dict[str, Any]) -> Job:
    known = event["item"], Health(event["health"]), frozenset(event.get("works", ())), frozenset(event.get("fails", ()))
    return tape.add_part(command, Stock(event["repair"], *known, event.get("price_eur", 0.0), event.get("wait_days", 0.0), event.get("is_donor", False)))


def _steps(command: Command, event: dict[str, Any]) -> Job:
    """Mark the steps up to a number done, each with its own mains state."""
    job = Job.objects.get(tag=command.tag)
    state = job_state(job, with_shelf=False)
    for n, step in enumerate(state.steps[: event.get("upto", len(state.steps))]):
        if not step.is_trial:
            now = Command(command.user, command.tag, f"{command.key}-{n}", job.version, command.at)
            fuse = state.model.sheet.fuse_rating if step.reads_fuse else ""
            job = repair.mark_step(now, n, is_done=True, fuse=fuse)
    return job


def _checks(command: Command, event: dict[str, Any]) -> Job:
    """Pass the first checks of the proof."""
    job = Job.objects.get(tag=command.tag)
    for n, check in enumerate(job_state(job, with_shelf=False).checks[: event.get("upto", 99)]):
        job = repair.mark_check(Command(command.user, command.tag, f"{command.key}-{n}", job.version, command.at), check.id, is_passed=True)
    return job


def _passes(command: Command, event: dict[str, Any]) -> Job:
    job = Job.objects.get(tag=command.tag)
    for n in range(event["count"]):
        job = repair.add_pass(Command(command.user, command.tag, f"{command.key}-{n}", job.version, command.at), is_clean=True)
    return job


def _strike(command: Command, event: dict[str, Any]) -> Job:
    """Strike the answer to a question."""
    line = TapeLine.objects.get(job__tag=command.tag, kind=LineKind.ANSWER, body__question=event["q"])
    return tape.strike(command, line.number, event["why"])


_EVENTS: dict[str, Callable[[Command, dict[str, Any]], Job]] = {
    "answer": _answer,
    "trial": _trial,
    "part": _part,
    "steps": _steps,
    "checks": _checks,
    "passes": _passes,
    "drive": lambda c, e: drive.identify(c, e["looks"], None),
    "take": lambda c, e: parts.take_part(c, e["part"], e["repair"]),
    "own_out": lambda c, e: parts.take_out_own(c, e["level"], e["place"]),
    "remark": lambda c, e: tape.add_remark(c, e["text"]),
    "strike": _strike,
    "mains": lambda c, e: tape.set_mains(c, is_live=e["live"]),
    "depth": lambda c, e: tape.set_depth(c, Depth(e["depth"])),
    "advance": lambda c, e: stages.advance(c, Stage(e["stage"])),
    "propose": lambda c, e: stages.propose(c, e["repair"]),
    "consent": lambda c, e: stages.record_consent(c, is_agreed=e["agreed"], amount_cents=e["cents"], by_name=e["name"], how=e["how"]),
}

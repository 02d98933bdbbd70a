"""Loading the demo scenario through the same services that the screens use, so that no tape can say what a bench could not."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterable, Iterator
from datetime import datetime, time, timedelta
from functools import cache
from typing import Any

from apps.demo.pictures import drawn
from apps.demo.shelf import load_sheets, load_shelf
from apps.demo.sounds import played
from apps.drives.consoles import forget_sheets
from apps.drives.selectors import sheet_of
from apps.jobs.folding import value_of
from apps.jobs.models import Job
from apps.jobs.selectors import job_row, open_job
from apps.jobs.services.take_in import Intake, take_in
from apps.jobs.services.writing import JobCommand, write
from apps.people.models import OWNERS_HAND, User
from apps.photos.services import keep_photo
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from apps.sounds.services import keep_sound
from apps.writing.models import UsedKey
from apps.writing.once import Command
from django.conf import settings
from django.core.management import call_command
from django.db import connection, transaction
from django.utils import timezone
from spindle.bench.opening.order import way_back
from spindle.diagnosis.given.case import Answer, Change, Remark, Trial, TrialResult
from spindle.job.hazards import COLD_MIN, WARM_MIN, Bars
from spindle.job.kinds.check import MarkCheck
from spindle.job.kinds.collected import Collect
from spindle.job.kinds.consent import Consent
from spindle.job.kinds.custody import TakeOutOwn
from spindle.job.kinds.depth import SetDepth
from spindle.job.kinds.drive import Identify
from spindle.job.kinds.mains import SetMains
from spindle.job.kinds.opened import OpenStep
from spindle.job.kinds.paid import TakePayment, Tender
from spindle.job.kinds.part import NotePart, TakePart
from spindle.job.kinds.passed import AddPass
from spindle.job.kinds.photo import Moment, Photograph
from spindle.job.kinds.proposal import Propose
from spindle.job.kinds.sound import Did, KeepSound
from spindle.job.kinds.stage import Advance
from spindle.job.kinds.step import MarkStep
from spindle.job.kinds.strike import Strike
from spindle.job.kinds.told import Means, TellOwner
from spindle.job.stages import Stage
from spindle.job.state import is_done, steps_of
from spindle.words.bench import Depth, Power
from spindle.words.health import Health
from spindle.words.witness import Witness

YEAR_TAGS = [f"K-{n}" for n in range(2_001, 2_601)]
"""Tags of the closed jobs of the demo's year: those below are told in the scenario and in the tests."""


@cache
def _scenario() -> dict[str, Any]:
    found: dict[str, Any] = json.loads((settings.DEMO / "scenario.json").read_text(encoding="utf-8"))
    return found


def sign_ins() -> list[tuple[str, str, str]]:
    """Return (role, name, password) of everybody in the demo."""
    return [(p["role"], p["username"], p["password"]) for p in _scenario()["people"]]


def published_sign_ins() -> list[str]:
    """Return who can sign in with a password of the demo: everybody can read those."""
    here = {u.username: u for u in User.objects.filter(is_active=True)}
    return [name for _, name, password in sign_ins() if name in here and here[name].check_password(password)]


def is_empty() -> bool:
    """Tell whether nobody has used this database yet."""
    return not User.objects.exists()


def holds_more() -> list[str]:
    """Return what this database holds that the demo does not bring: to be asked about before it is thrown away."""
    jobs, people = Job.objects.count() - len(_scenario()["jobs"]), User.objects.exclude(username=OWNERS_HAND).count() - len(_scenario()["people"])
    jobs -= Job.objects.filter(tag__in=YEAR_TAGS).count()
    found = [(jobs, "jobs"), (people, "people"), (UsedKey.objects.exclude(key__startswith="demo-").count(), "writes")]
    return [f"{n} {what}" for n, what in found if n > 0]


def wipe() -> None:
    """Throw everything away. The tape refuses even that, unless the session says that it means it."""
    with connection.cursor() as cursor:
        cursor.execute("SET spindle.may_wipe = 'yes'")
        call_command("flush", "--no-input", verbosity=0)
        cursor.execute("RESET spindle.may_wipe")
    forget_sheets()


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
    counter = User.objects.get(username=told.get("taken_in_by", "nia"))
    tag = take_in(Command(counter, f"demo-{told['days_ago']}-{intake.owner_name}", clock), intake).tag
    for n, event in enumerate(told["events"]):
        clock += timedelta(days=event.get("after_days", 0), minutes=event.get("after_min", 3))
        who = User.objects.get(username=event.get("by", "bram"))
        for m, ask in enumerate(_EVENTS[event["do"]](tag, event)):
            if isinstance(ask, timedelta):
                clock += ask
                continue
            row = Job.objects.select_related("sheet").get(tag=tag)
            bars = (Bars.POWER, Bars.OPENING)  # a bench waits until it is dry, and until no charge is left
            clock = max([clock, *(h.until for b in bars for h in value_of(row).hazards(clock, b) if h.until)])
            write(JobCommand(who, tag, f"demo-{tag}-{n}-{m}", row.version, clock), ask, lambda _: None)


def _answer(_tag: str, event: dict[str, Any]) -> Iterator[Any]:
    yield Answer(event["q"], event["o"], Witness(event.get("source", "bench")), event.get("tries"), event.get("failed"), event.get("seconds"))


def _trial(_tag: str, event: dict[str, Any]) -> Iterator[Any]:
    changes = tuple(Change(c["repair"], c.get("item", ""), Health(c.get("health", "new"))) for c in event["changes"])
    yield Trial(changes, TrialResult(event["result"]), event.get("passes", 0))


def _part(_tag: str, event: dict[str, Any]) -> Iterator[Any]:
    known = event["item"], Health(event["health"]), frozenset(event.get("works", ())), frozenset(event.get("fails", ()))
    price = round(100 * event.get("price_eur", 0.0))
    yield NotePart(event["repair"], *known, price, event.get("wait_days", 0.0), event.get("is_donor", False))


def _steps(tag: str, event: dict[str, Any]) -> Iterator[Any]:
    """Mark the steps up to a number done, each with its own mains state."""
    job = value_of(job_row(tag))
    for step in steps_of(job)[: event.get("upto", 99)]:
        if step.takes_part:
            yield from [] if is_done(step, job) or job.proposal is None else [NotePart(job.proposal.repair)]
        elif not step.is_trial:
            yield MarkStep(step.id, True, job.model.sheet.fuse_rating if step.reads_fuse else "")


def _shut(tag: str, depth: Depth) -> Iterator[Any]:
    """Put back what is open deeper than that, each step with its look; or open it so far."""
    job = value_of(job_row(tag))
    opening = job.opening
    keep = opening.leading_to(depth) if depth else ()
    yield from (OpenStep(m.step.id, False) for m in way_back(opening, job.mat.open, keep).moves if depth < job.depth or not depth)
    yield SetDepth(depth)


def _photo(_tag: str, event: dict[str, Any]) -> Iterator[Any]:
    """Send a drawn picture, and keep it with the job."""
    kept = keep_photo(User.objects.get(username=event.get("by", "bram")), drawn(event["drawn"]))
    yield Photograph(kept.hash, event.get("of", ""), Moment(event.get("moment", "free")), event.get("says", ""), event.get("for_owner", False))


def _sound(tag: str, event: dict[str, Any]) -> Iterator[Any]:
    """Send a recording that the library of sounds plays, and keep it with the job."""
    family = value_of(job_row(tag)).model.sheet.family
    kept = keep_sound(User.objects.get(username=event.get("by", "bram")), played(event["scene"], family, event["seed"]))
    yield KeepSound(kept.hash, Did(event.get("did", "insert")), event.get("disc", ""), "on", event.get("microphone", ""))


def _checks(tag: str, event: dict[str, Any]) -> Iterator[Any]:
    """Pass the first checks of the proof."""
    state = open_job(job_row(tag), the_shop(), with_shelf=False).state
    for check in state.checks[: event.get("upto", 99)]:
        if check.waits_for == Bars.COLD_START:
            yield from (SetMains(Power.OUT), timedelta(minutes=COLD_MIN), SetMains(Power.LIVE))
        if check.waits_for == Bars.WARM_START:
            yield timedelta(minutes=WARM_MIN)
        yield MarkCheck(check.id, True)


def _strike(tag: str, event: dict[str, Any]) -> Iterator[Any]:
    """Strike the answer to a question."""
    line = next(x for x in value_of(job_row(tag)).lines if x.kind == "answer" and x.body["question"] == event["q"])
    yield Strike(line.number, event["why"])


_EVENTS: dict[str, Callable[[str, dict[str, Any]], Iterable[Any]]] = {
    "answer": _answer,
    "trial": _trial,
    "part": _part,
    "steps": _steps,
    "checks": _checks,
    "strike": _strike,
    "passes": lambda _, e: [AddPass(True, e["count"])],
    "drive": lambda _, e: [Identify(e["looks"])],
    "take": lambda _, e: [TakePart(e["part"], e["repair"])],
    "own_out": lambda _, e: [TakeOutOwn(e["level"], e["place"])],
    "photo": _photo,
    "sound": _sound,
    "remark": lambda _, e: [Remark(e["text"])],
    "mains": lambda _, e: [SetMains(Power.LIVE if e["live"] else Power.OUT)],
    "depth": lambda tag, e: _shut(tag, Depth(e["depth"])),
    "advance": lambda _, e: [Advance(Stage(e["stage"]))],
    "tell": lambda _, e: [TellOwner(Means(e["means"]), e["what"])],
    "paid": lambda _, e: [TakePayment(e["cents"], Tender(e["how"]))],
    "collect": lambda _, e: [Collect(e["name"])],
    "propose": lambda _, e: [Propose(e["repair"])],
    "consent": lambda _, e: [Consent(e["agreed"], e["cents"], e["name"], e["how"])],
}

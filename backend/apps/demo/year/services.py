"""Loading the year: drawn by its seed, carried through, and written in bulk with what a write would have kept beside each tape."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from datetime import datetime, time, timedelta
from functools import cached_property
from typing import Any, Final

import numpy as np
from apps.demo.services import YEAR_TAGS
from apps.demo.year.bench import BenchJob, Hand, Hidden
from apps.drives.selectors import sheet_of
from apps.jobs.folding import sheet_ref
from apps.jobs.models import Job, TapeLine
from apps.jobs.services.writing import keep
from apps.people.models import User
from apps.shelf.models import Kind, Part
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from django.conf import settings
from django.utils import timezone
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.plan import plan_for
from spindle.drives.levels import LEVEL_OF_REPAIR
from spindle.errors import SpindleError
from spindle.job import value
from spindle.job.ledger import after, fold
from spindle.job.prompts import PROMPTS
from spindle.job.state import state_of
from spindle.job.taking_in import opening
from spindle.job.value import Notes, Start
from spindle.study.worlds import Setup, TrueWorld, units_of, world_of
from spindle.words.health import P_BAD_ITEM, Health

_WHOLE: Final = {p.id: p.choices[0].id for p in PROMPTS if not p.may_stay_open}


def truth() -> dict[str, Any]:
    """Return what is true of the year, and what a record of it has to find."""
    found: dict[str, Any] = json.loads((settings.DEMO / "year.json").read_text(encoding="utf-8"))
    return found


@dataclass(frozen=True)
class _Drive:
    """One drive of the shop, made ready, with what is true of it."""

    variant: str
    ready: Setup
    world: TrueWorld


class Year:
    """The year while it is drawn."""

    def __init__(self, told: dict[str, Any]) -> None:
        self._told, self._rng = told, np.random.default_rng(told["seed"])
        self._shop: Shop = the_shop()
        self._people = {u.username: u for u in User.objects.all()}
        self._by_name = {u.shown_name: u for u in self._people.values()}

    @cached_property
    def _drives(self) -> dict[str, _Drive]:
        variants = sorted({*self._told["weak"], *Job.objects.values_list("sheet__variant", flat=True)})
        return {v: self._drive(v) for v in variants}

    def _drive(self, variant: str) -> _Drive:
        model = sheet_ref(sheet_of(variant)).model.shipped
        ready = Setup(model.model.family, model, plan_for(model, Economy()))
        world = replace(world_of("matched", ready, self._rng), success=model.success)
        weak = self._told["weak"].get(variant)
        if weak:
            prior = world.prior.copy()
            prior[model.fault_index[weak["fault"]]] *= weak["times"]
            world = replace(world, prior=prior / prior.sum())
        return _Drive(variant, ready, world)

    def load(self, jobs: int) -> int:
        """Write that many closed jobs, oldest first, and return how many there are; one that cannot be carried through is left out."""
        self._lots()
        now, written = timezone.now(), 0
        for n in range(jobs):
            day = (now - timedelta(days=self._told["days"] * (jobs - n) / jobs)).date()
            at = timezone.make_aware(datetime.combine(day, time(9, int(self._rng.integers(0, 50)))))
            written += self._one(YEAR_TAGS[n], at, now)
        return written

    def _lots(self) -> None:
        lots = self._told["lots"]
        kind = Kind.objects.filter(level=lots["level"]).order_by("pk")[0]
        for lot in (*lots["good"], lots["bad"]):
            Part.objects.create(tag=_part_tag(lot), kind=kind, count=0, lot=lot, health=Health.NEW.value, at=timezone.now(), piece_cents=1_200)

    def _one(self, tag: str, at: datetime, now: datetime) -> bool:
        names = list(self._drives)
        weight = np.array([float(self._told["common"].get(v, 1)) for v in names])
        drive = self._drives[names[int(self._rng.choice(len(names), p=weight / weight.sum()))]]
        unit = units_of(drive.world, drive.ready, 1, self._rng)[0]
        hidden = Hidden(unit, drive.world.success, self._part, self._told["confirmed"])
        person = sorted(self._told["hands"])[int(self._rng.integers(len(self._told["hands"])))]
        hand = Hand(self._people[person].shown_name, **self._told["hands"][person])
        sheet = sheet_of(drive.variant)
        owner = f"{self._told['owners'][int(self._rng.integers(len(self._told['owners'])))]}, copy {int(self._rng.integers(1, 40))}"
        promised = (at + timedelta(days=int(self._rng.integers(5, 12)))).date()
        notes = Notes(owner, "desk", "It does not play.", "Own, sealed inside", 20_000, promised, _WHOLE)
        new = fold(Start(tag, sheet_ref(sheet), notes), ())
        begun = after(new, opening(new), at=at, by=self._people["nia"].shown_name)
        try:
            job = BenchJob(begun, drive.ready, hidden, hand, at=at, rng=self._rng).done()
        except SpindleError:
            return False
        if job.lines[-1].at >= now:
            return False
        self._keep(job, sheet.pk, at)
        return True

    def _part(self, repair: str) -> tuple[str, Health, bool]:
        """Return a part: of one of the lots, where it is of their level; else one that nobody marked."""
        lots = self._told["lots"]
        if LEVEL_OF_REPAIR.get(repair) != lots["level"]:
            return "", Health.NEW, bool(self._rng.random() >= P_BAD_ITEM[Health.NEW])
        lot = [*lots["good"], lots["bad"]][int(self._rng.integers(len(lots["good"]) + 1))]
        p_bad = lots["bad_share"] if lot == lots["bad"] else P_BAD_ITEM[Health.NEW]
        return _part_tag(lot), Health.NEW, bool(self._rng.random() >= p_bad)

    def _keep(self, job: value.Job, sheet: int, at: datetime) -> None:
        notes = job.notes
        row = Job.objects.create(tag=job.tag, sheet_id=sheet, taken_in_at=at, owner_name=notes.owner_name, owner_contact=notes.owner_contact)
        TapeLine.objects.bulk_create(
            TapeLine(job=row, number=x.number, version=x.version, kind=x.kind, body=x.body, at=x.at, by=self._by_name.get(x.by) or self._people[x.by])
            for x in job.lines
        )
        keep(row, state_of(job, Economy()), self._shop)


def _part_tag(lot: str) -> str:
    return f"P-9{lot[-3:]}"


def load_year(jobs: int | None = None) -> int:
    """Write the demo's past, and return how many jobs there are."""
    told = truth()
    return Year(told).load(told["jobs"] if jobs is None else jobs)

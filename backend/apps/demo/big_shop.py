"""A big shop, generated: as many parts, donors and jobs as a chain of counters would have, for measuring and for trying by hand."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta
from random import Random
from typing import Any

from apps.drives.models import Sheet
from apps.drives.selectors import current_full
from apps.jobs.models import Job, Want
from apps.people.models import User
from apps.shelf.models import Check, Donor, Kind, Order, Part, Supplier
from django.db import transaction
from django.utils import timezone
from spindle.drives.levels import LEVELS
from spindle.job.stages import Stage
from spindle.words.health import FUNCTIONS, Health

FIRST_NUMBER = 100_000
"""Generated tags begin here, far from what is counted up by hand."""
OPEN_SHARE = 0.06
"""Six in a hundred jobs of a shop's record are open."""
WANT_SHARE = 0.6
"""Of the open ones, those that wait for a part: every one that is scarce at once, which is more than a real shop has."""


@dataclass(frozen=True)
class Size:
    """How big the shop is."""

    kinds: int = 2_000
    parts: int = 50_000
    donors: int = 5_000
    jobs: int = 10_000
    orders: int = 2_000


@transaction.atomic
def fill(size: Size, seed: int) -> None:
    """Add a generated shop to the demo's sheets and people; the same seed makes the same shop."""
    rng = Random(seed)
    sheets = list(Sheet.objects.filter(is_current=True).order_by("variant"))
    kinds = _kinds(size, rng)
    orders = _orders(size, rng, kinds)
    donors = _donors(size, rng, sheets)
    _parts(size, rng, kinds, (donors, orders))
    _jobs(size, rng, sheets)


def _kinds(size: Size, rng: Random) -> list[Kind]:
    named = sorted({(v, c) for s in current_full().values() for v in LEVELS for c in s.codes(v)})
    more = [(rng.choice(list(LEVELS)), f"X{n:04d}-{rng.randrange(10, 99)}") for n in range(size.kinds - len(named))]
    Kind.objects.bulk_create((Kind(level=v, code=c, name=f"{LEVELS[v].name} {c}") for v, c in [*named, *more]), ignore_conflicts=True)
    return list(Kind.objects.order_by("pk"))


def _orders(size: Size, rng: Random, kinds: list[Kind]) -> list[Order]:
    suppliers = [Supplier.objects.get_or_create(name=f"Supplier {n}")[0] for n in range(40)]
    today = timezone.localdate()

    def one(n: int) -> Order:
        ordered = today - timedelta(days=rng.randrange(1, 700))
        took = rng.randrange(1, 25)
        arrived = ordered + timedelta(days=took) if ordered + timedelta(days=took) < today and rng.random() < 0.97 else None
        own: dict[str, Any] = {"packs": rng.randrange(1, 5), "pack_size": rng.choice([1, 1, 5, 10]), "pack_cents": rng.randrange(100, 6000)}
        return Order(tag=f"O-{FIRST_NUMBER + n}", supplier=rng.choice(suppliers), kind=rng.choice(kinds), ordered_on=ordered, arrived_on=arrived, **own)

    return Order.objects.bulk_create([one(n) for n in range(size.orders)], batch_size=2_000)


def _donors(size: Size, rng: Random, sheets: list[Sheet]) -> list[Donor]:
    now, by = timezone.now(), User.objects.order_by("pk")[0]
    donors = Donor.objects.bulk_create(
        (
            Donor(tag=f"D-{FIRST_NUMBER + n}", sheet=rng.choice(sheets), bought_cents=rng.randrange(0, 4000), place=f"Rack {rng.randrange(1, 60)}", at=now)
            for n in range(size.donors)
        ),
        batch_size=2_000,
    )
    Check.objects.bulk_create(
        (Check(donor=d, function=f, works=rng.random() < 0.7, unit="", by=by, at=now) for d in donors for f in rng.sample(FUNCTIONS, 3)), batch_size=5_000
    )
    return donors


def _parts(size: Size, rng: Random, kinds: list[Kind], origins: tuple[list[Donor], list[Order]]) -> None:
    donors, orders = origins
    now, healths = timezone.now(), [h.value for h in Health]

    def one(n: int) -> Part:
        donor = rng.choice(donors) if rng.random() < 0.3 else None
        order = None if donor else rng.choice(orders)
        own: dict[str, Any] = {"count": rng.choice([0, 0, 1, 1, 1, 2, 5, 20]), "health": rng.choice(healths), "place": f"Drawer {rng.randrange(1, 400)}"}
        return Part(
            tag=f"P-{FIRST_NUMBER + n}", kind=rng.choice(kinds), donor=donor, order=order, is_complete=donor is not None, at=now, piece_cents=500, **own
        )

    Part.objects.bulk_create((one(n) for n in range(size.parts)), batch_size=5_000)


def _jobs(size: Size, rng: Random, sheets: list[Sheet]) -> None:
    now, today = timezone.now(), timezone.localdate()
    levels = [v for v in LEVELS.values() if v.repairs]

    def one(n: int) -> Job:
        stage = rng.choice([s for s in Stage if s is not Stage.CLOSED]) if rng.random() < OPEN_SHARE else Stage.CLOSED
        own: dict[str, Any] = {"owner_name": f"Owner {n}", "owner_contact": "", "complaint": "Generated.", "supply": "own"}
        promised = today + timedelta(days=rng.randrange(-5, 30))
        return Job(tag=f"K-{FIRST_NUMBER + n}", sheet=rng.choice(sheets), taken_in_at=now, promised_on=promised, stage=stage.value, **own)

    jobs = Job.objects.bulk_create([one(n) for n in range(size.jobs)], batch_size=2_000)
    waiting = [j for j in jobs if j.stage != Stage.CLOSED.value and rng.random() < WANT_SHARE]
    wanted = [rng.choice([v for v in levels if v.id == "pickup"] if rng.random() < 0.5 else levels) for _ in waiting]
    Want.objects.bulk_create(
        Want(job=j, level=v.id, repair=v.repairs[0], p_success=rng.uniform(0.2, 0.95), since=now - timedelta(days=rng.randrange(0, 20)))
        for j, v in zip(waiting, wanted, strict=True)
    )

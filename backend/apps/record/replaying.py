"""Closed jobs played again by each way, one after the other while nobody waits for it; and what that says of the advice."""

from __future__ import annotations

import zlib
from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

import numpy as np
from apps.drives.selectors import model_of
from apps.jobs.models import Job
from apps.record.models import Replayed
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from django.db.models import F, Q, QuerySet
from spindle.learning.past import Past, read_past
from spindle.study.replay import ADVICE, WAYS, WORLD, replayed

AT_ONCE: Final = 4
"""So many are played before the process rests: about two seconds."""
TWO_SIDED: Final = 1.96


@dataclass(frozen=True)
class ByWay:
    """What the units with a confirmed cause cost by one way, in cents, the mean; and how much more than by the advice on the same units.

    ``low_cents`` and ``high_cents`` are the ends of the 95 % interval of that difference.
    """

    way: str
    name: str
    mean_cents: int
    more_cents: int
    low_cents: int
    high_cents: int


@dataclass(frozen=True)
class AgainstSchools:
    """The units that were played again, of all that could be, and what they cost by each way."""

    played: int
    of: int
    ways: tuple[ByWay, ...]


def replay_closed(goes_on: Callable[[], bool]) -> int:
    """Play some closed jobs again that nobody has played by today's models and figures, the newest first. Return how many."""
    shop, done = the_shop(), 0
    rows = _confirmed().exclude(replayed__in=_as_now(Replayed.objects.all(), _world(shop))).order_by("-closed_at")
    for pk, tag, version, sheet, past in rows.values_list("pk", "tag", "version", "sheet_id", "past")[:AT_ONCE]:
        if not goes_on():
            break
        cents = _cents(read_past(past), sheet, tag, shop) if past else {}
        Replayed.objects.update_or_create(job_id=pk, defaults={"version": version, "world": _world(shop), "cents": cents})
        done += 1
    return done


def against_schools() -> AgainstSchools:
    """Return what the closed jobs with a confirmed cause would have cost by each way, as far as they were played as things are now. Three queries."""
    jobs = _confirmed()
    rows = [c for c in _as_now(Replayed.objects.filter(job__in=jobs), _world(the_shop())).values_list("cents", flat=True) if c]
    could_be = jobs.count()
    if len(rows) < 2:
        return AgainstSchools(len(rows), could_be, ())
    cents = {way: np.array([row[way] for row in rows], dtype=float) for way in WAYS}
    return AgainstSchools(len(rows), could_be, tuple(_by_way(way, cents[way], cents[ADVICE]) for way in WAYS))


def _as_now(rows: QuerySet[Replayed], world: str) -> QuerySet[Replayed]:
    """Return those that were played by today's models and figures, on the tape as it is: others are played anew, and would mix two moneys."""
    return rows.filter(world=world, version=F("job__version"))


def _by_way(way: str, own: np.ndarray, advice: np.ndarray) -> ByWay:
    more = own - advice
    off = TWO_SIDED * float(more.std(ddof=1)) / len(more) ** 0.5
    mean = float(more.mean())
    return ByWay(way, WAYS[way], round(float(own.mean())), round(mean), round(mean - off), round(mean + off))


def _confirmed() -> QuerySet[Job]:
    """Jobs that can be played again: the cause was confirmed, and one thing was done after the other."""
    return Job.objects.filter(closed_at__isnull=False, past__is_confirmed=True).exclude(Q(past__way=[]) | Q(past__way__isnull=True))


def _world(shop: Shop) -> str:
    return f"{WORLD} {shop.version}"


def _cents(past: Past, sheet: int, tag: str, shop: Shop) -> dict[str, int]:
    """Return what a job costs by each way; nothing where the drive of today's models has no such cause, question or repair."""
    try:
        eur = replayed(model_of(sheet), shop.economy(), next(iter(past.closing)), past.way, zlib.crc32(tag.encode()))
    except (KeyError, ValueError):
        return {}
    return {way: round(100 * x) for way, x in eur.items()}

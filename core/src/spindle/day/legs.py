"""What is left of a job, as legs: minutes at the bench, and waits that leave the bench to others."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from enum import StrEnum
from typing import Any


class LegKind(StrEnum):
    """Who or what has the unit."""

    BENCH = "bench"
    ALONE = "alone"
    PART = "part"
    OWNER = "owner"


@dataclass(frozen=True, slots=True)
class Leg:
    """One stretch of a job.

    Attributes
    ----------
    amount : minutes; of a part, the days that it usually takes
    since : of a part that is on its way, days since it was ordered
    sigma : of a part, how its supplier's days scatter (of the logarithm); 0: as the pace says
    iron : at the bench: it needs somebody who solders
    """

    kind: LegKind
    amount: float
    since: float = 0.0
    sigma: float = 0.0
    iron: bool = False


Future = tuple[Leg, ...]
"""One way that a job may go, in usual minutes and days; empty for one that only waits to be fetched."""


def written(futures: Sequence[Future]) -> list[list[list[object]]]:
    """Return futures as JSON holds them."""
    return [[[leg.kind.value, round(leg.amount, 2), leg.since, leg.sigma, leg.iron] for leg in f] for f in futures]


def read(body: Sequence[Sequence[Sequence[Any]]]) -> tuple[Future, ...]:
    """Return the futures that were written so."""
    return tuple(tuple(Leg(LegKind(kind), *numbers) for kind, *numbers in f) for f in body)


@dataclass(frozen=True, slots=True)
class Pace:
    """How a shop's minutes and days scatter, until its own record says better.

    Attributes
    ----------
    minutes_sigma : of the logarithm: two thirds of the stints take 0.7 to 1.4 times the usual minutes, as hands and screws differ
    owner_min, owner_sigma : an owner's word, in open minutes: half of them say it within six hours, and one in six takes over sixteen
    lead_sigma : a part of seven days comes within five to ten in two thirds of the cases
    set_up_min : to read the sheet and lay out the tools, where the unit before was of another model
    """

    minutes_sigma: float = 0.35
    owner_min: float = 360.0
    owner_sigma: float = 1.0
    lead_sigma: float = 0.35
    set_up_min: float = 4.0


@dataclass(frozen=True)
class JobAhead:
    """A job as the day sees it.

    Attributes
    ----------
    model : which drive it is: two of a model one after the other are set up once
    futures : ways that it may go, equally likely; at least one
    late_eur, day_eur : what a day past the promise, and any day at all, costs the shop
    """

    tag: str
    model: str
    futures: tuple[Future, ...]
    promised: date | None = None
    late_eur: float = 3.0
    day_eur: float = 1.2

    @property
    def bench_min(self) -> float:
        """Mean minutes at the bench that are left."""
        return sum(leg.amount for f in self.futures for leg in f if leg.kind is LegKind.BENCH) / len(self.futures)

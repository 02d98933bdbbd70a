"""What may be said of each job: the day by which it is done half of the time, nine times in ten, and how likely its promise is."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime
from typing import Final

import numpy as np

from spindle.day.hours import Clock
from spindle.day.legs import Future, JobAhead, LegKind
from spindle.day.orders import Chosen, choose, rule_of
from spindle.day.worlds import WORLDS, Floor, draw_worlds, in_order, run
from spindle.diagnosis.given.compiled import Floats

HALF: Final = 0.5
NINE: Final = 0.9
LEAST_TENTHS: Final = 3
"""A day on which it would be done less often is no promise."""
OFFERED_AHEAD: Final = 90
"""Days ahead that are looked at."""
MOVED: Final = 0.05
"""A chance that moves by less than this is not spoken of."""


@dataclass(frozen=True)
class Row:
    """One job in the order of the day.

    Attributes
    ----------
    half, nine : by the end of which day it can be fetched half of the time, and nine times in ten
    p_kept : P(done on or before its promised day); None without one
    begins : when somebody next has it on the bench, as half of the worlds say; None if nobody has to
    bench_min : usual minutes at the bench that are left
    first : who or what has it now
    iron : what is next at the bench takes somebody who solders, where not everybody does
    """

    tag: str
    half: date
    nine: date
    p_kept: float | None
    begins: datetime | None
    bench_min: float
    first: LegKind | None
    iron: bool = False


@dataclass(frozen=True)
class Week:
    """The order of the jobs, and what may be said of each."""

    rows: tuple[Row, ...]
    chosen: Chosen


def plan_week(jobs: Sequence[JobAhead], floor: Floor, *, seed: int, n: int = WORLDS, keep_going: Callable[[], bool] = lambda: True) -> Week:
    """Return the order in which jobs are done with the least expected cost, and when each is done.

    Parameters
    ----------
    seed : the same jobs with the same seed give the same week
    n : worlds
    keep_going : asked before each look at what might be taken first against the rule
    """
    worlds = draw_worlds(jobs, floor.pace, seed=seed, n=n)
    chosen = choose(worlds, floor, keep_going=keep_going)
    return Week(tuple(_row(jobs[i], chosen.came.done[i], chosen.came.begun[i], floor.clock) for i in chosen.order), chosen)


def _row(job: JobAhead, done: Floats, begun: Floats, clock: Clock) -> Row:
    days = _days(done, clock)
    half, nine = _about_half(days), int(np.quantile(days, NINE, method="inverted_cdf"))
    begins = float(np.median(begun))
    return Row(
        job.tag,
        clock.days[half],
        clock.days[nine],
        None if job.promised is None else kept(days, job.promised, clock),
        clock.moment(begins) if np.isfinite(begins) else None,
        job.bench_min,
        _first(job.futures),
        _takes_iron(job.futures),
    )


def _days(done: Floats, clock: Clock) -> Floats:
    """Return the place of the day on which it is done, in each world."""
    return np.array([clock.done_on(t) for t in done])


def _about_half(days: Floats) -> int:
    """Return the place of the day by whose end it is done nearest to half of the time: the first by which it is at least half is three in five on average."""
    places, counts = np.unique(days, return_counts=True)
    return int(places[np.argmin(np.abs(np.cumsum(counts) / len(days) - HALF))])


def kept(days: Floats, promised: date, clock: Clock) -> float:
    """Return the share of worlds in which a job is done by a day."""
    return float(np.mean(days <= (promised - clock.days[0]).days))


def _first(futures: Sequence[Future]) -> LegKind | None:
    """Return who or what most of a job's futures begin with."""
    firsts = [f[0].kind for f in futures if f]
    return max(LegKind, key=firsts.count) if firsts else None


def _takes_iron(futures: Sequence[Future]) -> bool:
    """Tell whether the next stretch at the bench needs the iron in most of a job's futures."""
    nexts = [next((leg.iron for leg in f if leg.kind is LegKind.BENCH), False) for f in futures]
    return 2 * sum(nexts) > len(nexts)


@dataclass(frozen=True)
class Offer:
    """What a new promise would be worth.

    Attributes
    ----------
    days : (day, P(done by its end)), the first open day for each tenth of a chance from :data:`LEAST_TENTHS` on
    moved : (tag, before, after) of each promise whose chance this unit moves by over :data:`MOVED`
    """

    days: tuple[tuple[date, float], ...]
    moved: tuple[tuple[str, float, float], ...]


def offer_for(new: JobAhead, jobs: Sequence[JobAhead], rule: str, floor: Floor, *, seed: int, n: int = WORLDS) -> Offer:
    """Return by which day a unit that just came in would be done, and what that does to the promises given.

    It is taken by what waiting costs, as if it were promised for the day by which it would be done half of the time if it came last.

    Parameters
    ----------
    rule : by which the week is worked; see :data:`~spindle.day.orders.NAMES`
    """
    clock = floor.clock
    worlds = draw_worlds([*jobs, new], floor.pace, seed=seed, n=n)
    before = run(replace(worlds, jobs=tuple(jobs), ways=tuple(w[:-1] for w in worlds.ways)), rule_of(rule, jobs, floor), floor)
    last = run(worlds, in_order(range(len(jobs) + 1)), floor)
    promised = replace(new, promised=clock.days[clock.done_on(float(np.median(last.done[-1])))])
    came = run(worlds, rule_of(rule, [*jobs, promised], floor), floor)
    moved = []
    for i, job in enumerate(jobs):
        if job.promised is None:
            continue
        was, now = (kept(_days(r.done[i], clock), job.promised, clock) for r in (before, came))
        if abs(was - now) >= MOVED:
            moved.append((job.tag, was, now))
    return Offer(tuple(_days_offered(_days(came.done[-1], clock), clock)), tuple(moved))


def _days_offered(days: Floats, clock: Clock) -> Iterator[tuple[date, float]]:
    least = LEAST_TENTHS
    for day in clock.days[:OFFERED_AHEAD]:
        p = kept(days, day, clock)
        if clock.hours.is_open(day) and round(10 * p) >= least:
            yield day, p
            least = round(10 * p) + 1

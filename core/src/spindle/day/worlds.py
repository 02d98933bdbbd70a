"""Many worlds of one shop: every job goes one of its ways, takes its own minutes, and the benches work through them in one order.

What a job would take in a world hangs on the job and the seed alone, so that two orders are compared in pairs (common random numbers; A. M. Law,
*Simulation Modeling and Analysis*, 5th ed., 11.2).
"""

from __future__ import annotations

import heapq
import zlib
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Final

import numpy as np
from scipy.special import ndtr, ndtri

from spindle.day.hours import Clock
from spindle.day.legs import Future, JobAhead, Leg, LegKind, Pace
from spindle.diagnosis.given.compiled import Floats

WORLDS: Final = 200
"""Enough for a chance of nine in ten within two in a hundred."""

Wait = tuple[LegKind, float]
Stint = tuple[tuple[Wait, ...], float, bool]
"""What is waited for, the minutes at the bench after it, and whether they need somebody who solders."""


@dataclass(frozen=True)
class Worlds:
    """How each job goes in each world: ``ways[world][job]`` is a row of stints."""

    jobs: tuple[JobAhead, ...]
    ways: tuple[tuple[tuple[Stint, ...], ...], ...]


@dataclass(frozen=True)
class Floor:
    """Where the work is done: the shop's hours, the people who can work at a time, the pace, and how many of the people do not solder."""

    clock: Clock
    benches: int = 1
    pace: Pace = field(default_factory=Pace)
    without_iron: int = 0


@dataclass(frozen=True)
class Run:
    """What came of one order.

    Attributes
    ----------
    done, begun : ndarray of shape (n_jobs, n_worlds)
        Open minutes until it can be fetched, and until somebody next has it on the bench (infinite if nobody has to).
    """

    done: Floats
    begun: Floats


def draw_worlds(jobs: Sequence[JobAhead], pace: Pace, *, seed: int, n: int = WORLDS) -> Worlds:
    """Return ``n`` worlds of these jobs."""
    columns = [_ways(job, pace, seed, n) for job in jobs]
    return Worlds(tuple(jobs), tuple(tuple(c[w] for c in columns) for w in range(n)))


def _ways(job: JobAhead, pace: Pace, seed: int, n: int) -> list[tuple[Stint, ...]]:
    rng = np.random.default_rng([seed, zlib.crc32(job.tag.encode())])
    legs = max((len(f) for f in job.futures), default=0)
    which, u = rng.integers(len(job.futures), size=n), rng.random((n, max(legs, 1)))
    return [stints_of(job.futures[k], u[w], pace) for w, k in enumerate(which)]


def stints_of(future: Future, u: Floats, pace: Pace) -> tuple[Stint, ...]:
    """Return the stints of a future where each leg takes what its chance ``u`` says; at 0.5 the usual."""
    stints: list[Stint] = []
    waits: list[Wait] = []
    for leg, chance in zip(future, u, strict=False):
        amount = _taken(leg, float(chance), pace)
        if leg.kind is not LegKind.BENCH:
            waits.append((leg.kind, amount))
            continue
        if stints and not waits and stints[-1][2] == leg.iron:
            stints[-1] = (stints[-1][0], stints[-1][1] + amount, leg.iron)
            continue
        stints.append((tuple(waits), amount, leg.iron))
        waits = []
    return (*stints, (tuple(waits), 0.0, False)) if waits else tuple(stints)


def _taken(leg: Leg, u: float, pace: Pace) -> float:
    """Return what a leg takes in a world, by its chance ``u``; a delivery that is late already is known to be late."""
    if leg.kind is LegKind.ALONE:
        return leg.amount
    if leg.kind is LegKind.BENCH:
        return float(leg.amount * np.exp(pace.minutes_sigma * ndtri(u) - pace.minutes_sigma**2 / 2.0))  # the usual minutes are a mean
    if leg.kind is LegKind.OWNER:
        return float(leg.amount * np.exp(pace.owner_sigma * ndtri(u)))
    sigma = leg.sigma or pace.lead_sigma
    known = float(ndtr(np.log(leg.since / leg.amount) / sigma)) if leg.since > 0.0 and leg.amount > 0.0 else 0.0
    at = min(known + u * (1.0 - known), 1.0 - 1e-9)
    return max(float(leg.amount * np.exp(sigma * ndtri(at))) - leg.since, 1.0)


@dataclass(frozen=True)
class Rule:
    """What is taken first of all that is ready; less comes first.

    Attributes
    ----------
    rank : of each job for each of its stints; later ones are as the last
    like : the same where a unit of its model lies set up; None if that moves nothing
    """

    rank: tuple[tuple[float, ...], ...]
    like: tuple[tuple[float, ...], ...] | None = None

    def lifted(self, first: Sequence[int]) -> Rule:
        """Return the rule with these jobs before all others, until each has been on the bench once."""
        place = {job: (-1e12 + n) for n, job in enumerate(first)}
        own = [((place[n], *(r[1:] or r[-1:])) if n in place else r) for n, r in enumerate(self.rank)]
        like = None if self.like is None else tuple((place[n], *(r[1:] or r[-1:])) if n in place else r for n, r in enumerate(self.like))
        return Rule(tuple(own), like)


def in_order(order: Sequence[int]) -> Rule:
    """Return the rule of a fixed order of jobs, the most urgent first."""
    rank = [0.0] * len(order)
    for n, job in enumerate(order):
        rank[job] = float(n)
    return Rule(tuple((r,) for r in rank))


def run(worlds: Worlds, rule: Rule, floor: Floor) -> Run:
    """Return what comes of a rule: whoever is free takes what it says is most urgent of all that is ready."""
    shape = len(worlds.jobs), len(worlds.ways)
    done, begun = np.zeros(shape), np.full(shape, np.inf)
    for w, ways in enumerate(worlds.ways):
        _OneWorld(worlds.jobs, ways, floor, rule).play(done[:, w], begun[:, w])
    return Run(done, begun)


class _Benches:
    """People who work, those who solder and those who do not, and which model each has before them."""

    def __init__(self, floor: Floor) -> None:
        n = max(floor.benches, 1)
        self._free: list[list[tuple[float, int]]] = [[], []]
        for who in range(n):
            heapq.heappush(self._free[who < max(n - floor.without_iron, 1)], (0.0, who))
        self._before: dict[int, str] = {}
        self._set_up_min = floor.pace.set_up_min

    def free_at(self, *, solders: bool) -> float:
        """Return when the next of those who solder is free, or of those who do not; infinite if there are none."""
        free = self._free[solders]
        return free[0][0] if free else float("inf")

    def model(self, *, solders: bool) -> str:
        """Return what lies set up before whoever of them is free first."""
        return self._before.get(self._free[solders][0][1], "")

    def take(self, at: float, minutes: float, model: str, *, solders: bool) -> float:
        """Let whoever of them is free first do it; return when it is done. Another unit of the same model is not set up again."""
        _, who = heapq.heappop(self._free[solders])
        end = at + minutes + (0.0 if self._before.get(who) == model else self._set_up_min)
        self._before[who] = model
        heapq.heappush(self._free[solders], (end, who))
        return end


class _Ready:
    """What is ready, the most urgent first; and the same for each model, as it would be were that set up."""

    def __init__(self, jobs: Sequence[JobAhead], rule: Rule) -> None:
        self._jobs, self._rule = jobs, rule
        self._all: list[tuple[float, int, int]] = []
        self._like: dict[str, list[tuple[float, int, int]]] = {}
        self._in: set[tuple[int, int]] = set()

    def __bool__(self) -> bool:
        return bool(self._in)

    def add(self, job: int, stint: int) -> None:
        """A job is ready for a stint."""
        self._in.add((job, stint))
        heapq.heappush(self._all, (_rank(self._rule.rank[job], stint), job, stint))
        if self._rule.like is not None:
            heapq.heappush(self._like.setdefault(self._jobs[job].model, []), (_rank(self._rule.like[job], stint), job, stint))

    def top(self, model: str) -> tuple[float, int, int] | None:
        """Return the most urgent, where a model lies set up; None if nothing is ready."""
        best = self._top(self._all)
        like = self._top(self._like.get(model, []))
        return min(best, like) if best and like else best or like

    def take(self, model: str) -> tuple[int, int]:
        """Take the most urgent, where a model lies set up."""
        _, job, stint = self.top(model)  # type: ignore[misc]  # something is ready
        self._in.discard((job, stint))
        return job, stint

    def _top(self, heap: list[tuple[float, int, int]]) -> tuple[float, int, int] | None:
        while heap and heap[0][1:] not in self._in:
            heapq.heappop(heap)
        return heap[0] if heap else None


def _rank(ranks: Sequence[float], stint: int) -> float:
    return ranks[stint] if stint < len(ranks) else ranks[-1]


class _OneWorld:
    """The jobs in one world, each at its next stint."""

    def __init__(self, jobs: Sequence[JobAhead], ways: Sequence[tuple[Stint, ...]], floor: Floor, rule: Rule) -> None:
        self._jobs, self._ways, self._clock = jobs, ways, floor.clock
        self._benches, self._ready = _Benches(floor), (_Ready(jobs, rule), _Ready(jobs, rule))
        self._coming: list[tuple[float, int, int]] = []

    def play(self, done: Floats, begun: Floats) -> None:
        """Work until nothing is left, and write down when each was begun and done."""
        for job in range(len(self._ways)):
            self._goes_on(job, 0, 0.0, done)
        coming, benches, now = self._coming, self._benches, 0.0
        while coming or any(self._ready):
            solders, at = self._next_hand()
            now = max(now, coming[0][0] if np.isinf(at) else at)
            if coming and coming[0][0] <= now:
                while coming and coming[0][0] <= now:
                    self._is_ready(*heapq.heappop(coming)[1:])
                continue
            job, n = self._taken_by(solders=solders)
            begun[job] = min(begun[job], now)
            self._goes_on(job, n + 1, benches.take(now, self._ways[job][n][1], self._jobs[job].model, solders=solders), done)

    def _is_ready(self, job: int, n: int) -> None:
        self._ready[self._ways[job][n][2]].add(job, n)

    def _next_hand(self) -> tuple[bool, float]:
        """Return who can go on first with what is ready, and when: whoever does not solder leaves the others to the iron. Infinite if nobody can."""
        plain, iron = self._ready
        others, solderers = self._benches.free_at(solders=False), self._benches.free_at(solders=True)
        if plain and others <= solderers:
            return False, others
        if plain or iron:
            return True, solderers
        return True, float("inf")

    def _taken_by(self, *, solders: bool) -> tuple[int, int]:
        """Take the most urgent of what they can do."""
        plain, iron = self._ready
        model = self._benches.model(solders=solders)
        first, other = (r.top(model) for r in (plain, iron)) if solders else (plain.top(model), None)
        return iron.take(model) if first is None or (other is not None and other < first) else plain.take(model)

    def _goes_on(self, job: int, n: int, at: float, done: Floats) -> None:
        """Wait for the bench again, or be done: what is only waited for needs nobody."""
        way = self._ways[job]
        at = _ready(way[n][0], at, self._clock) if n < len(way) else at
        if n < len(way) and way[n][1]:
            heapq.heappush(self._coming, (at, job, n))
        else:
            done[job] = at


def _ready(waits: Sequence[Wait], at: float, clock: Clock) -> float:
    for kind, amount in waits:
        if kind is LegKind.PART:
            at = clock.after_days(at, amount)
        elif kind is LegKind.ALONE:
            at = clock.after_alone(at, amount)
        else:
            at += amount
    return at


def lateness(worlds: Worlds, came: Run, clock: Clock) -> Floats:
    """Return what each world costs, in euro: each day until a job is done, and more for each day past its promise; of shape (n_worlds,)."""
    day = np.searchsorted(clock.opens_at, came.done, side="left") - 1
    day = np.clip(day, 0, len(clock.days) - 1)
    first = clock.days[0]
    promised = np.array([np.inf if j.promised is None else (j.promised - first).days for j in worlds.jobs])[:, None]
    late = np.array([j.late_eur for j in worlds.jobs])[:, None] * np.maximum(day - promised, 0.0)
    waits = np.array([j.day_eur for j in worlds.jobs])[:, None] * day
    return np.asarray((late + waits).sum(axis=0))

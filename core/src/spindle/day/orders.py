"""In which order the bench takes its jobs: four rules played in the same worlds, the cheapest of them, and what is worth being taken first against it.

References
----------
.. [1] A. P. J. Vepsalainen, T. E. Morton, "Priority rules for job shops with weighted tardiness costs", Management Science 33(8), 1987.
.. [2] D. P. Bertsekas, *Rollout, Policy Iteration, and Distributed Reinforcement Learning*, 2020, ch. 2: one step better than the rule that goes on.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from itertools import permutations
from types import MappingProxyType
from typing import Final

import numpy as np

from spindle.day.hours import Clock
from spindle.day.legs import JobAhead, LegKind
from spindle.day.worlds import Floor, Rule, Run, Worlds, in_order, lateness, run, stints_of
from spindle.diagnosis.given.compiled import Floats

LOOK_AHEAD: Final = 30.0
"""Of [1]_: a job whose slack is over so many usual jobs is not urgent yet. Two, as there, were worse than going by promise; 10 saved 8 %, 30 and 100 11 %."""
SURE: Final = 2.0
"""Standard errors by which taking another first has to be better in pairs before it is done."""
COMPARED: Final = 60
"""Worlds in which rules are compared: they differ by much."""
SMALL: Final = 6
"""So few jobs are tried in every order."""
TRIED_IN: Final = 10
"""Worlds for that."""
CANDIDATES: Final = 4
"""Jobs that are tried first instead of the rule's own."""
USUAL_MIN: Final = 60.0


@dataclass(frozen=True)
class _Ahead:
    """A job by its stints: the usual minutes of each, and what is left from its begin on, waits included, all in open minutes."""

    takes: tuple[float, ...]
    left: tuple[float, ...]
    due: float
    bench_min: float


def _ahead(job: JobAhead, floor: Floor) -> _Ahead:
    per_day = floor.clock.opens_at[28] / 28
    takes: dict[int, list[float]] = {}
    left: dict[int, list[float]] = {}
    for future in job.futures:
        stints, rest = stints_of(future, np.full(max(len(future), 1), 0.5), floor.pace), 0.0
        for n in range(len(stints) - 1, -1, -1):
            waits, minutes, _ = stints[n]
            rest += minutes
            takes.setdefault(n, []).append(minutes)
            left.setdefault(n, []).append(rest)
            rest += sum(amount * (per_day if kind is LegKind.PART else 1.0) for kind, amount in waits)
    mean = [[float(np.mean(v[n])) for n in sorted(v)] for v in (takes, left)]
    return _Ahead(tuple(mean[0]), tuple(mean[1]), _due(job, floor.clock), job.bench_min)


def _due(job: JobAhead, clock: Clock) -> float:
    """Return the open minutes until the promised day ends; none is promised: never."""
    if job.promised is None:
        return math.inf
    place = (job.promised - clock.days[0]).days + 1
    return clock.opens_at[min(max(place, 0), len(clock.opens_at) - 1)]


def _by_promise(jobs: Sequence[JobAhead], ahead: Sequence[_Ahead], _floor: Floor) -> Rule:
    return in_order(sorted(range(len(jobs)), key=lambda n: (ahead[n].due, jobs[n].tag)))


def _shortest_first(jobs: Sequence[JobAhead], ahead: Sequence[_Ahead], _floor: Floor) -> Rule:
    return in_order(sorted(range(len(jobs)), key=lambda n: (ahead[n].bench_min, jobs[n].tag)))


def _by_cost(jobs: Sequence[JobAhead], ahead: Sequence[_Ahead], floor: Floor) -> Rule:
    """What waiting costs, for each minute that the next stint takes [1]_: a job that has slack costs less yet, and a wait for a part takes slack.

    It is reckoned as of now: while time goes on, all that has slack becomes more urgent by the same factor.
    """
    return Rule(_urgencies(jobs, ahead, floor.pace.set_up_min))


def _by_cost_in_batches(jobs: Sequence[JobAhead], ahead: Sequence[_Ahead], floor: Floor) -> Rule:
    return replace(_by_cost(jobs, ahead, floor), like=_urgencies(jobs, ahead, 0.0))


def _urgencies(jobs: Sequence[JobAhead], ahead: Sequence[_Ahead], set_up_min: float) -> tuple[tuple[float, ...], ...]:
    usual = LOOK_AHEAD * (sum(a.bench_min for a in ahead) / max(len(ahead), 1) or USUAL_MIN)
    return tuple(_urgency(j, a, usual, set_up_min) for j, a in zip(jobs, ahead, strict=True))


def _urgency(job: JobAhead, ahead: _Ahead, usual: float, set_up_min: float) -> tuple[float, ...]:
    eur = [job.day_eur + job.late_eur * math.exp(-max(ahead.due - left, 0.0) / usual) for left in ahead.left]
    return tuple(-e / max(takes + set_up_min, 0.5) for e, takes in zip(eur, ahead.takes, strict=True)) or (0.0,)


RULES: Final = MappingProxyType({"promise": _by_promise, "shortest": _shortest_first, "cost": _by_cost, "batched": _by_cost_in_batches})
NAMES: Final = MappingProxyType(
    {
        "promise": "by promise",
        "shortest": "shortest first",
        "cost": "by what waiting costs",
        "batched": "by what waiting costs, like models together",
        "every": "the best of every order",
    }
)


def rule_of(name: str, jobs: Sequence[JobAhead], floor: Floor) -> Rule:
    """Return a rule for these jobs; see :data:`RULES`. The best of every order says nothing of one job more: what waiting costs does."""
    return RULES.get(name, _by_cost_in_batches)(jobs, [_ahead(j, floor) for j in jobs], floor)


@dataclass(frozen=True)
class Chosen:
    """What is worked by.

    Attributes
    ----------
    name : see :data:`NAMES`
    lifted : places of jobs that are taken before all others, against the rule
    eur : what it costs in each world
    saves_eur, error_eur : against the order by promise, in pairs, and the standard error of that
    """

    rule: Rule
    name: str
    lifted: tuple[int, ...]
    came: Run
    eur: Floats
    saves_eur: float
    error_eur: float

    @property
    def is_cheaper(self) -> bool:
        """True if it is cheaper than going by promise beyond :data:`SURE`: only then is anything said of it."""
        return self.saves_eur > SURE * self.error_eur

    @property
    def order(self) -> tuple[int, ...]:
        """Places of the jobs as they are usually begun; what needs nobody any more comes last."""
        begun = np.median(self.came.begun, axis=1) if self.came.begun.size else np.zeros(0)
        return tuple(int(n) for n in np.lexsort((np.arange(len(begun)), self.came.done.mean(axis=1), begun)))


def choose(worlds: Worlds, floor: Floor, *, keep_going: Callable[[], bool] = lambda: True) -> Chosen:
    """Return the cheapest rule in these worlds, with what is worth taking first against it, for as long as ``keep_going`` says so."""
    some = replace(worlds, ways=worlds.ways[:COMPARED])
    rules = {name: rule_of(name, worlds.jobs, floor) for name in RULES}
    if len(worlds.jobs) <= SMALL:
        rules["every"] = _best_of_every(worlds, floor)
    compared = {name: float(_cost(some, rule, floor).mean()) for name, rule in rules.items()}
    name = min(compared, key=lambda n: compared[n])
    best = _Played.of(worlds, rules[name], floor)
    base = best if name == "promise" else _Played.of(worlds, rules["promise"], floor)
    rule, lifted, best = (rules[name], (), best) if name == "every" else _lift(worlds, best, rules[name], floor, keep_going)
    saves = base.eur - best.eur
    return Chosen(rule, name, lifted, best.came, best.eur, float(saves.mean()), standard_error(saves))


@dataclass(frozen=True)
class _Played:
    came: Run
    eur: Floats

    @staticmethod
    def of(worlds: Worlds, rule: Rule, floor: Floor) -> _Played:
        """Play a rule in these worlds."""
        came = run(worlds, rule, floor)
        return _Played(came, lateness(worlds, came, floor.clock))


def _cost(worlds: Worlds, rule: Rule, floor: Floor) -> Floats:
    return _Played.of(worlds, rule, floor).eur


def _best_of_every(worlds: Worlds, floor: Floor) -> Rule:
    few = replace(worlds, ways=worlds.ways[:TRIED_IN])
    return in_order(min(permutations(range(len(worlds.jobs))), key=lambda order: float(_cost(few, in_order(order), floor).mean())))


def _lift(worlds: Worlds, best: _Played, rule: Rule, floor: Floor, keep_going: Callable[[], bool]) -> tuple[Rule, tuple[int, ...], _Played]:
    """Return what is better with one job before all others than by the rule alone [2]_, for as many as there are benches."""
    lifted: tuple[int, ...] = ()
    for _ in range(floor.benches):
        begun = np.median(best.came.begun, axis=1)
        first = [int(n) for n in np.argsort(begun, kind="stable") if np.isfinite(begun[n]) and n not in lifted]
        for n in first[1 : 1 + CANDIDATES]:
            if not keep_going():
                break
            played = _Played.of(worlds, rule.lifted((*lifted, n)), floor)
            saves = best.eur - played.eur
            if saves.mean() > max(SURE * standard_error(saves), 0.0):
                best, lifted = played, (*lifted, n)
                break
    return rule.lifted(lifted), lifted, best


def standard_error(values: Floats | Sequence[float]) -> float:
    """Return the standard error of a mean; 0 for a single value."""
    return float(np.std(values, ddof=1) / math.sqrt(len(values))) if len(values) > 1 else 0.0

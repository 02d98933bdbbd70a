"""How good the promises are, and what the order is worth: shops drawn from a seed, each worked once by what is true there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Any, Final

import numpy as np

from spindle.day.drawing import FUTURES, Telling, joined
from spindle.day.hours import Clock, read_hours
from spindle.day.legs import Future, JobAhead, Leg, LegKind, Pace
from spindle.day.orders import RULES, choose, rule_of, standard_error
from spindle.day.promise import plan_week
from spindle.day.worlds import Floor, draw_worlds, in_order, lateness, run
from spindle.diagnosis.planning.futures import by_choice, play
from spindle.diagnosis.planning.lookahead import pick
from spindle.diagnosis.planning.plan import minutes_of
from spindle.study.policies import start_of
from spindle.study.worlds import SHEETS, Setup, setup, units_of, world_of

HOURS: Final = read_hours("Mon-Fri 9:00-12:30 13:15-18:00\nSat 9:00-13:00")
MORNING: Final = datetime(2026, 3, 2, 9, 0)  # noqa: DTZ001  # a shop's own clock
JOBS: Final = 24
"""In the house, for two benches: about four days of work."""
BUSY: Final = (60, 80, 120)
"""Jobs for one bench: ten days, two weeks and four weeks of work."""
WAYS: Final = 240
"""Ways that units of a family go, drawn once for a study."""
AGREED: Final = (30.0, 60.0, 90.0, 120.0)
TRUE_PACE: Final = Pace(minutes_sigma=0.45, owner_min=300.0, owner_sigma=1.2, lead_sigma=0.45)
"""A shop that is not as we think: its hands, owners and suppliers scatter more."""


@dataclass(frozen=True)
class Pools:
    """Ways that units of each family go: as the advice expects, and as they truly do."""

    expected: dict[str, tuple[Future, ...]]
    true: dict[str, tuple[Future, ...]]


def pools(seed: int, *, world: str = "matched", n: int = WAYS) -> Pools:
    """Return both, the true one played by the same advice in another world."""
    ready = [setup(f) for f in SHEETS]
    return Pools({r.family: _ways(r, "matched", n, [seed, 1]) for r in ready}, {r.family: _ways(r, world, n, [seed, 2]) for r in ready})


def _ways(ready: Setup, world: str, n: int, seed: list[int]) -> tuple[Future, ...]:
    rng = np.random.default_rng(seed)
    units = [u for _ in range(4) for u in units_of(world_of(world, ready, rng), ready, n // 4, rng)]
    agreed = rng.choice(AGREED, len(units))
    games = play(units, start_of(ready), ready.problem, by_choice(pick))
    minutes = minutes_of(ready.plan, ready.model)
    anybody = [False] * len(ready.plan.repairs)
    return tuple(joined(Telling(minutes, anybody, Pace(), float(a), 0.9).legs(g)) for g, a in zip(games, agreed, strict=True))


def a_shop(known: Pools, rng: np.random.Generator, floor: Floor, *, jobs: int = JOBS) -> tuple[list[JobAhead], list[JobAhead]]:
    """Return the jobs of one shop as it believes them, and as they are: each with the one way that it goes.

    A third of them are begun: what came before their first wait is done. One in four has no promise; the others were promised as a careful counter
    does: for a day by which they would be done three times in four if nobody else were there, and up to three more.
    """
    believed, true = [], []
    for n in range(jobs):
        family = str(rng.choice(list(SHEETS)))
        is_begun = rng.random() < 1 / 3
        expected = [_begun(f) if is_begun else f for f in known.expected[family]]
        expected = [expected[i] for i in rng.integers(len(expected), size=FUTURES)]
        way = known.true[family][int(rng.integers(len(known.true[family])))]
        job = JobAhead(f"K-{n:04}", f"{family} {rng.integers(3)}", tuple(expected), late_eur=float(rng.choice([3.0, 3.0, 12.0])))
        believed.append(job)
        true.append(replace(job, futures=(_begun(way) if is_begun else way,)))
    alone = run(draw_worlds(believed, floor.pace, seed=int(rng.integers(2**31)), n=40), in_order(range(jobs)), replace(floor, benches=jobs)).done
    for n, done in enumerate(np.quantile(alone, 0.75, axis=1)):
        day = floor.clock.days[floor.clock.done_on(float(done))] + timedelta(days=int(rng.integers(4)))
        promised = None if rng.random() < 1 / 4 else day
        believed[n], true[n] = replace(believed[n], promised=promised), replace(true[n], promised=promised)
    return believed, true


def _begun(future: Future) -> Future:
    waits = next((n for n, leg in enumerate(future) if leg.kind is not LegKind.BENCH), 0)
    return future[waits:] or (Leg(LegKind.BENCH, 10.0),)


def study_promises(cases: int, seed: int, *, ways: int = WAYS) -> dict[str, Any]:
    """Return how often the day that was named was kept, over ``cases`` jobs, where the shop is as believed and where it is not (target D1)."""
    return {
        name: _kept(cases, seed, pools(seed, world=world, n=ways), pace)
        for name, world, pace in (("as believed", "matched", Pace()), ("unlike it", "perturbed", TRUE_PACE))
    }


def _kept(cases: int, seed: int, known: Pools, pace: Pace) -> dict[str, Any]:
    rng = np.random.default_rng([seed, 3])
    floor = Floor(Clock(HOURS, MORNING), 2)
    half, nine, said, came_true, n = 0, 0, [], [], 0
    while n < cases:
        believed, true = a_shop(known, rng, floor)
        week = plan_week(believed, floor, seed=int(rng.integers(2**31)), keep_going=lambda: False)
        worlds = draw_worlds(true, pace, seed=int(rng.integers(2**31)), n=1)
        done = run(worlds, week.chosen.rule, floor).done[:, 0]
        day = {job.tag: floor.clock.days[floor.clock.done_on(t)] for job, t in zip(true, done, strict=True)}
        for row, job in zip(week.rows, (believed[i] for i in week.chosen.order), strict=True):
            n, half, nine = n + 1, half + (day[row.tag] <= row.half), nine + (day[row.tag] <= row.nine)
            if row.p_kept is not None and job.promised is not None:
                said.append(row.p_kept)
                came_true.append(day[row.tag] <= job.promised)
    return {"jobs": n, "half": half / n, "nine": nine / n, "promises": _reliability(said, came_true)}


def _reliability(said: Sequence[float], came: Sequence[bool]) -> dict[str, Any]:
    p, kept = np.array(said), np.array(came, dtype=float)
    place = np.minimum((p * 5).astype(int), 4)
    rows = [{"said": float(p[place == k].mean()), "kept": float(kept[place == k].mean()), "n": int((place == k).sum())} for k in range(5) if (place == k).any()]
    return {"n": len(p), "error": float(sum(r["n"] * abs(r["said"] - r["kept"]) for r in rows) / max(len(p), 1)), "rows": rows}


def study_orders(cases: int, seed: int, *, ways: int = WAYS, busy: Sequence[int] = BUSY) -> dict[str, Any]:
    """Return what each rule costs in ``cases`` busy shops, each worked once as it truly goes, in pairs (target D2)."""
    known, floor = pools(seed, n=ways), Floor(Clock(HOURS, MORNING), 1)
    return {"shops": cases, "jobs": {n: _paid(known, floor, cases, n, seed) for n in busy}}


def _paid(known: Pools, floor: Floor, shops: int, jobs: int, seed: int) -> dict[str, Any]:
    rng = np.random.default_rng([seed, 4])
    paid: dict[str, list[float]] = {name: [] for name in (*RULES, "chosen", "a bench each")}
    used: dict[str, int] = {}
    for _ in range(shops):
        believed, true = a_shop(known, rng, floor, jobs=jobs)
        plan_seed, true_seed = (int(x) for x in rng.integers(2**31, size=2))
        chosen = choose(draw_worlds(believed, floor.pace, seed=plan_seed), floor, keep_going=lambda: False)
        used[chosen.name] = used.get(chosen.name, 0) + 1
        came = draw_worlds([replace(j, day_eur=0.0) for j in true], floor.pace, seed=true_seed, n=20)
        rules = {name: rule_of(name, believed, floor) for name in RULES} | {"chosen": chosen.rule}
        for name, rule in rules.items():
            paid[name].append(float(lateness(came, run(came, rule, floor), floor.clock).mean()))
        alone = run(came, rules["promise"], replace(floor, benches=len(believed)))
        paid["a bench each"].append(float(lateness(came, alone, floor.clock).mean()))
    base = np.array(paid["promise"])
    mean = float(base.mean())
    found = {name: {"late_eur": float(np.mean(v)), "saves": 1 - float(np.mean(v)) / mean, "error": standard_error(base - v) / mean} for name, v in paid.items()}
    return {"rules": found, "chosen": used}

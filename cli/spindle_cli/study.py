"""``./spindle study`` and ``./spindle optimum``: played over the cores, with a progress bar, as JSON."""

from __future__ import annotations

import os
import sys
from collections.abc import Callable, Iterable, Sequence
from concurrent.futures import ProcessPoolExecutor, as_completed
from dataclasses import asdict, dataclass, is_dataclass
from time import perf_counter
from typing import Any, Final

import numpy as np
from spindle.day.study import study_orders, study_promises
from spindle.diagnosis.planning.futures import Game, play
from spindle.practice.study import study_practice
from spindle.study.beyond import knowing, oracle
from spindle.study.learning import study_learning
from spindle.study.measures import as_json, ceiling, paired, summarise
from spindle.study.measuring.alignments import study_alignment
from spindle.study.measuring.flexes import study_flex
from spindle.study.measuring.meters import study_readings
from spindle.study.measuring.orders import study_ordering
from spindle.study.measuring.parts import study_belt, study_capacitors, study_fuse, study_shim
from spindle.study.measuring.screws import study_screws
from spindle.study.measuring.switches import study_switch
from spindle.study.measuring.trimmers import study_creep, study_trimmer
from spindle.study.optimum import Shortfall, random_problem, shortfall
from spindle.study.paid import study_money
from spindle.study.pairs import study_pairs
from spindle.study.policies import POLICIES, as_at_the_bench, start_of
from spindle.study.readings import study_donors, study_proof, study_slips
from spindle.study.sound.measured import study_ears, study_hearing
from spindle.study.sound_units import study_sound
from spindle.study.worlds import SHEETS, setup, units_of, world_of

CHUNK: Final = 50
"""Units of one task: each chunk draws its own perturbed world, so that a study sees many of them."""
BEYOND: Final = ("knowing", "oracle")
"""Played beside every policy: nobody has them at a bench."""
SIZES: Final = ((7, 5, 3), (8, 7, 5))
"""Faults, repairs and tests of the small instances."""
MEASURES: Final[dict[str, Callable[..., dict[str, Any]]]] = {
    "pairs": study_pairs,
    "slips": study_slips,
    "donors": study_donors,
    "proof": study_proof,
    "money": study_money,
    "sound": study_sound,
    "ears": study_ears,
}


BENCH_MEASURES: Final[dict[str, Callable[[int, int], dict[str, Any]]]] = {
    "readings": study_readings,
    "trimmer": study_trimmer,
    "creep": study_creep,
    "alignment": study_alignment,
    "switch": study_switch,
    "flex": study_flex,
    "fuse": study_fuse,
    "belt": study_belt,
    "day_promises": study_promises,
    "day_orders": study_orders,
    "shim": study_shim,
    "capacitors": study_capacitors,
    "ordering": study_ordering,
    "screws": study_screws,
    "hearing": study_hearing,
    "practice": study_practice,
    "learning": study_learning,
}
"""Of the calculators: they know no loader family."""


def bench_study(measure: str, *, cases: int, seed: int) -> dict[str, Any]:
    """Return the seeded figures of one calculator as JSON values."""
    return {"format": "tidy-spindle-study", "version": 1, "cases": cases, "seed": seed, "measure": measure, "found": BENCH_MEASURES[measure](cases, seed)}


def _games(family: str, place: Place, policies: Sequence[str], n: int, *, seed: list[int]) -> tuple[str, dict[str, list[Game]], tuple[float, float]]:
    """Play one chunk of units by every policy."""
    ready = setup(family, shop=place.shop)
    rng = np.random.default_rng(seed)
    true = world_of(place.world, ready, rng)
    units = units_of(true, ready, n, rng)
    ways = {name: as_at_the_bench(ready, POLICIES[name](ready)) for name in policies}
    games = {name: play(units, start_of(ready), ready.problem, way) for name, way in ways.items()}
    return family, {**games, "knowing": knowing(units, true, ready), "oracle": oracle(units, ready)}, ceiling(units, ready)


def _measure(measure: str, family: str, n: int, seed: int) -> tuple[str, dict[str, Any]]:
    found = MEASURES[measure](setup(family), n, seed)
    return family, {k: asdict(v) if is_dataclass(v) and not isinstance(v, type) else v for k, v in found.items()}


def _gaps(size: tuple[int, int, int], seed: int, i: int) -> tuple[tuple[int, int, int], Shortfall]:
    return size, shortfall(*random_problem(*size, np.random.default_rng([seed, *size, i])))


def _run(tasks: Iterable[tuple[Any, ...]], label: str, jobs: int | None) -> Iterable[Any]:
    """Yield the results of tasks run over the cores, with a progress bar on standard error."""
    work = list(tasks)
    begun = perf_counter()
    with ProcessPoolExecutor(max_workers=jobs or os.cpu_count()) as pool:
        waiting = [pool.submit(*task) for task in work]
        for done, future in enumerate(as_completed(waiting), 1):
            yield future.result()
            left = (perf_counter() - begun) / done * (len(work) - done)
            bar = "#" * (24 * done // len(work))
            sys.stderr.write(f"\r{label} [{bar:<24}] {done}/{len(work)}, about {left:.0f} s left ")
            sys.stderr.flush()
    sys.stderr.write("\n")


@dataclass(frozen=True, slots=True)
class Place:
    """Where units are played: a world, and a shop."""

    world: str
    shop: str


def study(*, cases: int, seed: int, place: Place, policies: Sequence[str], families: Sequence[str], measure: str, jobs: int | None) -> dict[str, Any]:
    """Return a study as JSON values."""
    head = {"format": "tidy-spindle-study", "version": 1, "cases": cases, "seed": seed, "measure": measure}
    if measure != "games":
        found = dict(_run(((_measure, measure, f, cases, seed) for f in families), measure, jobs))
        return {**head, "families": {f: found[f] for f in families}}
    sizes = [min(CHUNK, cases - at) for at in range(0, cases, CHUNK)]
    games: dict[str, dict[str, dict[int, list[Game]]]] = {f: {p: {} for p in (*policies, *BEYOND)} for f in families}
    best: dict[str, list[tuple[float, float]]] = {f: [] for f in families}
    tasks = [(_chunk, f, place, tuple(policies), n, [seed, list(SHEETS).index(f), c]) for c, n in enumerate(sizes) for f in families]
    for chunk, (family, played, top) in _run(tasks, f"study, {place.world}, {place.shop}", jobs):
        best[family].append(top)
        for name, own in played.items():
            games[family][name][chunk] = own
    return {**head, "world": place.world, "shop": place.shop, "families": {f: _family(f, place.shop, games[f], best[f]) for f in families}}


def _chunk(family: str, place: Place, policies: Sequence[str], n: int, seed: list[int]) -> tuple[int, Any]:
    return seed[-1], _games(family, place, policies, n, seed=seed)


def _family(family: str, shop: str, by_chunk: dict[str, dict[int, list[Game]]], best: list[tuple[float, float]]) -> dict[str, Any]:
    ready = setup(family, shop=shop)
    flat = {name: [g for c in sorted(own) for g in own[c]] for name, own in by_chunk.items()}
    mine = flat.get("planner", next(iter(flat.values())))
    top1, top3 = np.mean(best, axis=0)
    return {
        "faults": len(ready.model.faults),
        "questions": len(ready.plan.asks),
        "repairs": len(ready.plan.repairs),
        "ceiling": {"top1": round(float(top1), 4), "top3": round(float(top3), 4)},
        "policies": {name: as_json(summarise(own, ready)) for name, own in flat.items()},
        "planner_against": {name: as_json(paired(mine, own)) for name, own in flat.items() if own is not mine},
    }


def optimum_study(*, cases: int, seed: int, jobs: int | None) -> dict[str, Any]:
    """Return how far one and two steps end from the exact optimum on small instances, as JSON values; gaps in percent."""
    found: dict[tuple[int, int, int], list[Shortfall]] = {size: [] for size in SIZES}
    for size, one in _run(((_gaps, size, seed, i) for size in reversed(SIZES) for i in range(cases)), "optimum", jobs):
        found[size].append(one)
    return {
        "format": "tidy-spindle-optimum",
        "version": 1,
        "cases": cases,
        "seed": seed,
        "sizes": [
            {
                "faults": size[0],
                "repairs": size[1],
                "tests": size[2],
                "one_step_gap_percent": _over(gaps, "one"),
                "two_step_gap_percent": _over(gaps, "two"),
                "predicted_over_paid_percent": round(float(np.mean([100 * (g.predicted / g.one - 1) for g in gaps])), 3),
                "invariant_broken": sum(not g.holds() for g in gaps),
            }
            for size, gaps in found.items()
        ],
    }


def _over(gaps: list[Shortfall], name: str) -> float:
    return round(float(np.mean([100 * (getattr(g, name) / g.optimum - 1) for g in gaps])), 3)

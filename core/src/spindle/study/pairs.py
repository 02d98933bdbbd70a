"""Two faults in one unit: what going on blindly costs, and what asking again after every failed repair saves (target 11)."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import Floats
from spindle.diagnosis.planning.lookahead import Position, one_step, pick_in_pairs
from spindle.diagnosis.planning.problem import Flags, Ints
from spindle.faults.model import NOTHING
from spindle.study.policies import start_of
from spindle.study.worlds import Setup

FUSE_AND_SWITCH: Final = {"tray": ("fuse_open", "switch_shut"), "slot": ("fuse_open", "switch_insert"), "lid": ("fuse_open", "switch_lid_a")}
QUICK: Final = 3
"""Quick observations asked again after a failed repair."""
_MAX: Final = 60


@dataclass
class Bench:
    """One unit with one or two faults, its dice thrown per fault; what is known of it, and what it has cost."""

    ready: Setup
    alive: list[int]
    shows: dict[int, Ints]
    cures: dict[int, Flags]
    at: Position
    said: dict[int, int] = field(default_factory=dict)
    tried: list[int] = field(default_factory=list)
    cost_eur: float = 0.0

    def look(self, q: int) -> int:
        """Return what the drive shows now: the worse of what its faults show."""
        return max(int(self.shows[f][q]) for f in self.alive)


@dataclass(frozen=True)
class PairPlay:
    """One policy on two-fault units (or one-fault units), mean cost in euro and share repaired."""

    mean_eur: float
    repaired: float


def throw(faults: list[int], ready: Setup, rng: np.random.Generator) -> Bench:
    """Return a unit with these faults."""
    problem = ready.problem
    shows, cures = {}, {}
    for f in faults:
        blocks = zip(problem.first_row[:-1], problem.first_row[1:], strict=True)
        shows[f] = np.array([rng.choice(b - a, p=problem.at_home[a:b, f] / problem.at_home[a:b, f].sum()) for a, b in blocks])
        cures[f] = rng.random(len(problem.success)) < problem.success[:, f]
    return Bench(ready, list(faults), shows, cures, start_of(ready))


def play_pair(bench: Bench, *, restarts: bool) -> tuple[float, bool]:
    """Play one unit; return (cost in euro, repaired)."""
    problem = bench.ready.problem
    for _ in range(_MAX):
        at = bench.at
        move = pick_in_pairs(at, one_step(at, problem), problem)
        if move.kind == "stop":
            return bench.cost_eur + problem.give_up_eur + float(problem.close[at.state]), False
        if move.kind == "ask":
            bench.cost_eur += problem.asking(at.state, move.index)
            bench.said[move.index] = bench.look(move.index)
            bench.at = _scaled(at.after_answer(move.index, bench.said[move.index], problem))
            continue
        bench.cost_eur += float(problem.cost[at.state, move.index])
        bench.tried.append(move.index)
        bench.cost_eur += sum(float(problem.fades_eur[move.index, f]) for f in bench.alive if bench.cures[f][move.index])
        bench.alive = [f for f in bench.alive if not bench.cures[f][move.index]]
        if not bench.alive:
            return bench.cost_eur + float(problem.close_after[at.state, move.index]), True
        cured = at.w * problem.success[move.index]
        bench.at = _scaled(at.after_repair(move.index, problem))
        if restarts:
            _ask_again(bench, cured / cured.sum())
    return bench.cost_eur + problem.give_up_eur + float(problem.close[bench.at.state]), False


def _scaled(at: Position) -> Position:
    return replace(at, w=at.w / at.w.sum())


def _ask_again(bench: Bench, cured: Floats) -> None:
    """Ask the quickest failing observations again; if one has changed, restart with what still holds."""
    problem, model = bench.ready.problem, bench.ready.model
    asks = bench.ready.plan.asks
    failing = [q for q, o in bench.said.items() if (x := asks[q].question) is not None and x.is_behaviour and x.outcomes[o].id in x.fails]
    again = sorted(failing, key=lambda q: problem.ask[bench.at.state, q])[:QUICK]
    bench.cost_eur += sum(problem.asking(bench.at.state, q) for q in again)
    now = {q: bench.look(q) for q in again}
    if all(now[q] == bench.said[q] for q in again):
        return
    bench.said = {q: o for q, o in bench.said.items() if (x := asks[q].question) is not None and not x.is_behaviour} | now
    w = model.prior * (1.0 + model.pair_excess @ cured)
    rows = np.array([problem.first_row[q] + o for q, o in bench.said.items()], dtype=np.int64)
    is_home = bool(problem.brings_home[rows].any())
    w = w * problem.rows(is_home=is_home)[rows].prod(axis=0)
    for a in bench.tried:
        w = w * (1.0 - problem.success[a])
    still = np.array([q not in bench.said for q in range(len(asks))])
    bench.at = Position(w / w.sum(), bench.at.state, bench.at.free, still, is_home)


def study_pairs(ready: Setup, n: int, seed: int) -> dict[str, PairPlay]:
    """Return how two-fault units (fuse and switch) and one-fault units fare, with and without restarting."""
    pair = [ready.model.fault_index[f] for f in FUSE_AND_SWITCH[ready.family]]
    prior = np.where([bool(f.opened_by) or f.id == NOTHING for f in ready.model.faults], 0.0, ready.model.prior)
    found = {}
    for kind in ("pair", "single"):
        for restarts in (True, False):
            played = []
            for i in range(n):
                rng = np.random.default_rng([seed, i])
                faults = pair if kind == "pair" else [int(rng.choice(len(prior), p=prior / prior.sum()))]
                played.append(play_pair(throw(faults, ready, rng), restarts=restarts))
            name = f"{kind}_{'restart' if restarts else 'blind'}"
            found[name] = PairPlay(float(np.mean([c for c, _ in played])), float(np.mean([r for _, r in played])))
    return found

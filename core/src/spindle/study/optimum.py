"""The exact optimum on small instances, and what the planner pays there.

References
----------
.. [1] T. J. Ottosen, *Solutions and Heuristics for Troubleshooting with Dependent Actions*, 2012, ch. 3 (exhaustive search).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from spindle.diagnosis.planning.cost import expected_cost
from spindle.diagnosis.planning.lookahead import Choice, Pick, Position, one_step, two_step
from spindle.diagnosis.planning.problem import Problem

Chooser = Callable[[Position, Problem], Pick]


def random_problem(n_faults: int, n_repairs: int, n_tests: int, rng: np.random.Generator) -> tuple[Problem, Position]:
    """Return a small instance of the same build as the real ones: three depths, costs of the same sizes, one fault off the list."""
    opened = np.cumsum([0.0, rng.uniform(3, 8), rng.uniform(2, 5)])
    closed = opened * rng.uniform(0.7, 1.1)
    own = rng.uniform(2, 30, n_repairs) + rng.choice([0.0, 10.0, 40.0], n_repairs)
    depth = rng.integers(0, 3, n_repairs)
    ends = np.maximum(np.arange(3)[:, None], depth[None])
    success = np.where(rng.random((n_repairs, n_faults)) < 0.45, rng.uniform(0.3, 0.96, (n_repairs, n_faults)), 0.0)
    success[:, -1] = 0.0
    success[rng.integers(0, n_repairs, n_faults - 1), np.arange(n_faults - 1)] = rng.uniform(0.6, 0.96, n_faults - 1)
    p = rng.beta(0.6, 0.6, (n_tests, n_faults)) * 0.96 + 0.02
    likelihood = np.concatenate([np.array([p[t], 1.0 - p[t]]) for t in range(n_tests)]) if n_tests else np.zeros((0, n_faults))
    asking, asked_in = rng.uniform(0.5, 6, n_tests), np.maximum(np.arange(3)[:, None], rng.integers(0, 3, n_tests)[None])
    w = rng.dirichlet(np.full(n_faults, 0.8))
    problem = Problem(
        success=success,
        cost=opened[ends] - opened[:, None] + own[None],
        ends=ends,
        close_after=closed[ends],
        close=closed,
        give_up_eur=150.0,
        likelihood=likelihood,
        at_home=likelihood,
        away=likelihood,
        p_home=np.ones(n_faults),
        brings_home=np.zeros(2 * n_tests, dtype=bool),
        first_row=np.arange(0, 2 * n_tests + 1, 2),
        ask=opened[asked_in] - opened[:, None] + asking[None],
        asked_in=asked_in,
        shuts=np.zeros((2 * n_tests, n_tests), dtype=bool),
        is_dear=np.zeros(n_repairs, dtype=bool),
        buys=np.zeros(n_repairs, dtype=bool),
        targets=np.zeros((n_repairs, n_faults), dtype=bool),
        fades_eur=70.0 * rng.beta(0.4, 2.0, (n_repairs, n_faults)),
        real=np.ones(n_faults, dtype=bool),
        sound=np.zeros(n_faults),
    )
    return problem, Position(w, 0, np.ones(n_repairs, dtype=bool), np.ones(n_tests, dtype=bool))


def _key(at: Position, answers: tuple[int, ...]) -> tuple[object, ...]:
    return (answers, at.free.tobytes(), at.state)


def optimum(problem: Problem, start: Position) -> float:
    """Return the least expected cost of any way to go on, in euro: every order of every move, by dynamic programming."""
    known: dict[tuple[object, ...], float] = {}

    def value(at: Position, answers: tuple[int, ...]) -> float:
        weight = float(at.w.sum())
        if weight < 1e-12:
            return 0.0
        key = _key(at, answers)
        if key in known:
            return known[key]
        best = problem.giving_up(at.w, at.state)
        for a in np.flatnonzero(at.free):
            if float(problem.success[a] @ at.w) > 0.0:
                spent = weight * problem.cost[at.state, a] + problem.curing(at.w, at.state, int(a))
                if spent < best:
                    best = min(best, float(spent) + value(at.after_repair(int(a), problem), answers))
        for q in np.flatnonzero(at.open_):
            spent = weight * problem.asking(at.state, int(q))
            if spent < best:
                best = min(best, spent + sum(value(at.after_answer(int(q), o, problem), _with(answers, int(q), o)) for o in range(_outcomes(problem, int(q)))))
        known[key] = best
        return best

    return value(start, (-1,) * problem.ask.shape[1])


def policy_cost(problem: Problem, start: Position, choose: Chooser) -> float:
    """Return the exact expected cost of a policy, in euro: every answer and every failure is followed."""
    known: dict[tuple[object, ...], float] = {}

    def value(at: Position, answers: tuple[int, ...]) -> float:
        weight = float(at.w.sum())
        if weight < 1e-12:
            return 0.0
        key = _key(at, answers)
        if key not in known:
            known[key] = _follow(at, answers, choose(at, problem), weight)
        return known[key]

    def _follow(at: Position, answers: tuple[int, ...], move: Pick, weight: float) -> float:
        if move.kind == "stop":
            return problem.giving_up(at.w, at.state)
        if move.kind == "repair":
            spent = weight * problem.cost[at.state, move.index] + problem.curing(at.w, at.state, move.index)
            return float(spent) + value(at.after_repair(move.index, problem), answers)
        branches = (value(at.after_answer(move.index, o, problem), _with(answers, move.index, o)) for o in range(_outcomes(problem, move.index)))
        return weight * problem.asking(at.state, move.index) + sum(branches)

    return value(start, (-1,) * problem.ask.shape[1])


def _outcomes(problem: Problem, q: int) -> int:
    return int(problem.first_row[q + 1] - problem.first_row[q])


def _with(answers: tuple[int, ...], q: int, outcome: int) -> tuple[int, ...]:
    return (*answers[:q], outcome, *answers[q + 1 :])


def least(choice: Choice) -> Pick:
    """Return the move of least expected cost, without house rules."""
    if choice.stop <= choice.least:
        return Pick("stop")
    q = int(choice.ask.argmin()) if len(choice.ask) else -1
    a = int(choice.repair.argmin())
    return Pick("repair", a) if q < 0 or choice.repair[a] <= choice.ask[q] else Pick("ask", q)


def by_one_step(at: Position, problem: Problem) -> Pick:
    """Choose with one step of look-ahead."""
    return least(one_step(at, problem))


def by_two_steps(at: Position, problem: Problem) -> Pick:
    """Choose with two steps of look-ahead."""
    return least(two_step(at, problem, one_step(at, problem)))


@dataclass(frozen=True)
class Shortfall:
    """One instance: the optimum, what one and two steps pay, what one step predicts, the sequence without tests, giving up; in euro."""

    optimum: float
    one: float
    two: float
    predicted: float
    sequence: float
    stop: float

    def holds(self, slack: float = 1e-9) -> bool:
        """Tell whether ``optimum <= cost of the policy <= its predicted least <= sequence <= giving up``."""
        chain = (self.optimum, self.one, self.predicted, self.sequence, self.stop)
        return all(a <= b + slack for a, b in pairwise(chain)) and self.optimum <= self.two + slack


def shortfall(problem: Problem, start: Position) -> Shortfall:
    """Return how far from the optimum the planner ends on one instance."""
    once = one_step(start, problem)
    sequence, _ = expected_cost(start.w[None], np.array([start.state]), start.free[None], problem)
    return Shortfall(
        optimum(problem, start),
        policy_cost(problem, start, by_one_step),
        policy_cost(problem, start, by_two_steps),
        once.least,
        float(sequence[0]),
        problem.giving_up(start.w, start.state),
    )

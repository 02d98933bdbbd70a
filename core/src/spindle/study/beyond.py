"""What nobody has at a bench, to hold the advice against: a planner that knows the world, and one that knows the fault."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from spindle.diagnosis.given.compiled import silent
from spindle.diagnosis.planning.futures import Game, Unit, play
from spindle.diagnosis.planning.problem import Problem
from spindle.study.policies import as_at_the_bench, planner, start_of
from spindle.study.worlds import Setup, TrueWorld
from spindle.words.bench import Reach


def knowing(units: Sequence[Unit], world: TrueWorld, ready: Setup) -> list[Game]:
    """Play units by the advice's own policy on the world's own tables: what is dearer without them is the price of not knowing the world."""
    start = replace(start_of(ready), w=world.prior)
    return play(units, start, known_problem(world, ready), as_at_the_bench(ready, planner(ready)))


def oracle(units: Sequence[Unit], ready: Setup) -> list[Game]:
    """Play units by a policy that knows the fault and asks nothing: what is dearer than this went into looking and into wrong repairs."""
    games: list[Game] = []
    for unit in units:
        start = start_of(ready)
        known = replace(start, w=np.eye(len(start.w))[unit.fault], open_=np.zeros_like(start.open_))
        games += play([unit], known, ready.problem, planner(ready))
    return games


def known_problem(world: TrueWorld, ready: Setup) -> Problem:
    """Return the problem with the world's own chances; of what needs a disc, home and not home mixed as the world has it."""
    problem, asks = ready.problem, ready.plan.asks
    at_home = world.likelihood / np.repeat(np.add.reduceat(world.likelihood, problem.first_row[:-1], axis=0), np.diff(problem.first_row), axis=0)
    home = next(n for n, a in enumerate(asks) if a.id == ready.model.model.home)
    question = ready.model.questions[ready.model.model.home]
    goes_in = np.array([o.id not in question.stops for o in question.outcomes])
    p_home = at_home[problem.rows_of(home)][goes_in].sum(axis=0)
    likelihood = at_home.copy()
    for n, asked in enumerate(asks):
        if asked.question is not None and asked.question.stage >= Reach.DISC:
            rows = problem.rows_of(n)
            likelihood[rows] = p_home * at_home[rows] + (1.0 - p_home) * silent(asked.question)[:, None]
    return replace(problem, at_home=at_home, likelihood=likelihood, success=world.success)

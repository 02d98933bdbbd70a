"""The next move by looking one or two steps ahead; every branch is valued by the closed form of :mod:`~spindle.diagnosis.planning.cost`.

References
----------
.. [1] F. V. Jensen et al., "The SACSO methodology for troubleshooting complex systems", AI EDAM 15, 2001.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import Floats
from spindle.diagnosis.planning.cost import expected_cost
from spindle.diagnosis.planning.problem import Flags, Ints, Problem

TIE: Final = 0.01
"""Moves whose expected costs differ by less than this share are a tie."""
REAL_WEIGHT: Final = 0.08
"""P(fault) from which a cheap cause has real weight: one unit in twelve."""
CHEAP_SHARE: Final = 0.5
"""A cause is cheap where its own step costs less than this share of the dear one's."""
WIDTH: Final = 5
"""Moves that the second step looks into, by their one-step cost."""
CURIOUS: Final = 2
"""Moves that it looks into besides, by information per euro."""


@dataclass(frozen=True)
class Position:
    """Where one unit stands.

    Attributes
    ----------
    w : ndarray of shape (n_faults,)
        P(fault); need not sum to 1.
    free : ndarray of shape (n_repairs,)
        Repairs not tried yet.
    open_ : ndarray of shape (n_questions,)
        Questions not asked yet.
    """

    w: Floats
    depth: int
    free: Flags
    open_: Flags

    def after_repair(self, a: int, problem: Problem) -> Position:
        """Return where the unit stands when repair ``a`` left the fault."""
        free = self.free.copy()
        free[a] = False
        return Position(self.w * (1.0 - problem.success[a]), int(problem.ends[self.depth, a]), free, self.open_)

    def after_answer(self, q: int, outcome: int, problem: Problem) -> Position:
        """Return where the unit stands after that answer."""
        still = self.open_.copy()
        still[q] = False
        w = self.w * problem.likelihood[problem.first_row[q] + outcome]
        return Position(w, max(self.depth, int(problem.ask_depth[q])), self.free, still)


@dataclass(frozen=True)
class Choice:
    """The moves from one position with their expected cost to the end, in euro times the position's weight.

    Attributes
    ----------
    ask : ndarray of shape (n_questions,), inf where not open
    repair : ndarray of shape (n_repairs,), inf where not free or without a chance
    stop : float
    branch, first : ndarray of shape (n_rows,)
        Value of each answer's branch, and the repair that would be best there (-1: give up).
    """

    ask: Floats
    repair: Floats
    stop: float
    branch: Floats
    first: Ints

    @property
    def least(self) -> float:
        """Cost of the best move."""
        return float(min(self.ask.min(initial=np.inf), self.repair.min(initial=np.inf), self.stop))


def one_step(position: Position, problem: Problem) -> Choice:
    """Return every move's expected cost with one step of look-ahead, all branches in one call."""
    return one_step_many([position], problem)[0]


def one_step_many(positions: list[Position], problem: Problem) -> list[Choice]:
    """Return :func:`one_step` for several positions in one batch."""
    n_rows, n_repairs = len(problem.likelihood), len(problem.success)
    question_of = np.repeat(np.arange(len(problem.ask_cost)), np.diff(problem.first_row))
    weights, depths, free, cuts, picked = [], [], [], [0], []
    for at in positions:
        rows = np.flatnonzero(at.open_[question_of])
        fails = np.flatnonzero(at.free)
        after = np.repeat(at.free[None], len(fails), axis=0)
        after[np.arange(len(fails)), fails] = False
        weights += [at.w * problem.likelihood[rows], at.w * (1.0 - problem.success[fails])]
        depths += [np.maximum(at.depth, problem.ask_depth[question_of[rows]]), problem.ends[at.depth, fails]]
        free += [np.repeat(at.free[None], len(rows), axis=0), after]
        cuts.append(cuts[-1] + len(rows) + len(fails))
        picked.append((rows, fails))
    value, first = expected_cost(np.vstack(weights), np.concatenate(depths), np.vstack(free), problem)
    out = []
    for n, (at, (rows, fails)) in enumerate(zip(positions, picked, strict=True)):
        own, own_first = value[cuts[n] : cuts[n + 1]], first[cuts[n] : cuts[n + 1]]
        branch, branch_first = np.zeros(n_rows), np.full(n_rows, -1, dtype=np.int64)
        branch[rows], branch_first[rows] = own[: len(rows)], own_first[: len(rows)]
        ws = float(at.w.sum())
        needed = np.maximum(at.depth, problem.ask_depth)
        ask = np.add.reduceat(branch, problem.first_row[:-1]) if len(problem.ask_cost) else np.zeros(0)
        ask = np.where(at.open_, ask + ws * (problem.ask_cost + problem.open_[needed] - problem.open_[at.depth]), np.inf)
        p = problem.success[fails] @ at.w
        repair = np.full(n_repairs, np.inf)
        reached = ws * problem.cost[at.depth, fails] + p * problem.close_after[at.depth, fails] + own[len(rows) :]
        repair[fails] = np.where(p > 0.0, reached, np.inf)
        out.append(Choice(ask, repair, ws * problem.giving_up(at.depth), branch, branch_first))
    return out


def information(position: Position, problem: Problem) -> Floats:
    """Return the expected information of each question in nat, of shape (n_questions,)."""
    p = position.w / position.w.sum()
    joint = problem.likelihood * p
    marginal = joint.sum(axis=1, keepdims=True)
    terms = (joint * np.log(np.maximum(problem.likelihood, 1e-300) / marginal)).sum(axis=1)
    return np.asarray(np.add.reduceat(terms, problem.first_row[:-1])) if len(problem.ask_cost) else np.zeros(0)


def two_step(position: Position, problem: Problem, once: Choice, keep_going: Callable[[], bool] = lambda: True) -> Choice:
    """Return the choice with its most promising moves looked into one step deeper.

    Looks into the :data:`WIDTH` cheapest moves and the :data:`CURIOUS` most telling questions, cheapest first, for as long
    as ``keep_going`` says so. A move's deeper value is never above its one-step value, so a move that was not looked into
    may seem dearer than it is, never cheaper.
    """
    n_ask = len(once.ask)
    both = np.concatenate([once.ask, once.repair])
    telling = np.where(position.open_, information(position, problem) / np.maximum(problem.ask_cost, 0.3), -1.0)
    chosen = [int(i) for i in both.argsort()[:WIDTH] if np.isfinite(both[i])]
    chosen += [int(q) for q in telling.argsort()[::-1][:CURIOUS] if telling[q] > 0 and int(q) not in chosen]
    ask, repair = once.ask.copy(), once.repair.copy()
    for i in chosen:
        if not keep_going():
            break
        if i < n_ask:
            n_out = int(problem.first_row[i + 1] - problem.first_row[i])
            branches = [position.after_answer(i, o, problem) for o in range(n_out)]
            deeper = sum(min(c.least, float(once.branch[problem.first_row[i] + o])) for o, c in enumerate(one_step_many(branches, problem)))
            ask[i] = position.w.sum() * problem.asking(position.depth, i) + deeper
        else:
            a = i - n_ask
            p = float(problem.success[a] @ position.w)
            base = position.w.sum() * problem.cost[position.depth, a] + p * problem.close_after[position.depth, a]
            deeper = one_step(position.after_repair(a, problem), problem).least
            repair[a] = min(repair[a], float(base + deeper))
    return Choice(ask, repair, once.stop, once.branch, once.first)


@dataclass(frozen=True)
class Pick:
    """The move to make: ``ask``, ``repair`` or ``stop`` with its index, and the dear repair that it was put before, if any."""

    kind: str
    index: int = -1
    held_back: int = -1


def pick(position: Position, choice: Choice, problem: Problem) -> Pick:
    """Return the move to make: the cheapest, but doing before asking within a tie, and a cheap cause before a dear part.

    A look that saves less than :data:`TIE` is no progress. A dear part waits while a cheap untested cause has real
    weight (trap T32).
    """
    best = choice.least
    a = int(choice.repair.argmin()) if len(choice.repair) else -1
    if a >= 0 and choice.repair[a] <= best * (1.0 + TIE):
        cheap = _cheap_cause(position, a, choice, problem)
        return Pick("repair", a) if cheap < 0 else Pick("repair", cheap, held_back=a)
    if choice.stop <= best:
        return Pick("stop")
    return Pick("ask", int(choice.ask.argmin()))


def _cheap_cause(position: Position, dear: int, choice: Choice, problem: Problem) -> int:
    """Return the best cheap repair whose own target has real weight and is not the dear one's, or -1."""
    if not problem.is_dear[dear]:
        return -1
    p = position.w / position.w.sum()
    likely = (p >= REAL_WEIGHT) & problem.real & ~problem.targets[dear]
    cures_likely = ((problem.success >= 0.45) & likely).any(axis=1)
    is_cheap = (problem.cost[position.depth] < CHEAP_SHARE * problem.cost[position.depth, dear]) & ~problem.is_dear
    fit = position.free & cures_likely & is_cheap & np.isfinite(choice.repair)
    if not fit.any():
        return -1
    return int(np.where(fit, choice.repair, np.inf).argmin())

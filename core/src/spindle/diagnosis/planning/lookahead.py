"""The next move by looking one or two steps ahead; every branch is valued by the closed form of :mod:`~spindle.diagnosis.planning.cost`.

References
----------
.. [1] F. V. Jensen et al., "The SACSO methodology for troubleshooting complex systems", AI EDAM 15, 2001.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import Floats
from spindle.diagnosis.planning.cost import expected_cost
from spindle.diagnosis.planning.problem import Flags, Ints, Problem

TIE: Final = 0.01
"""Moves whose expected costs differ by less than this share are a tie: "either" is said."""
DOING_FIRST: Final = 0.003
"""Within this share doing comes before asking, unless a part has to be bought for it."""
GUARD: Final = 0.02
"""How much dearer than the best a cheap step may be, and still go before a dear part (trap T32)."""
NEXT_ASKED: Final = 6
"""Questions that are looked at in pairs: the most promising by one step. Eight cost twice as much and were no better on 150 units a family."""
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
    state : int
        The state of the bench; see :func:`~spindle.diagnosis.planning.problem.state_of`.
    free : ndarray of shape (n_repairs,)
        Repairs not tried yet.
    open_ : ndarray of shape (n_questions,)
        Questions that can be asked and were not yet.
    """

    w: Floats
    state: int
    free: Flags
    open_: Flags
    is_home: bool = False
    """The disc is known to get home."""

    def after_repair(self, a: int, problem: Problem) -> Position:
        """Return where the unit stands when repair ``a`` left the fault."""
        free = self.free.copy()
        free[a] = False
        return Position(self.w * problem.left[a], int(problem.ends[self.state, a]), free, self.open_, self.is_home)

    def after_answer(self, q: int, outcome: int, problem: Problem) -> Position:
        """Return where the unit stands after that answer: what it leaves out of reach, or answers, is not asked."""
        row = int(problem.first_row[q]) + outcome
        still = self.open_ & ~problem.shuts[row]
        still[q] = False
        w = self.w * problem.rows(is_home=self.is_home)[row]
        return Position(w, int(problem.asked_in[self.state, q]), self.free, still, self.is_home or bool(problem.brings_home[row]))


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
    here : ndarray of shape (n_states,)
        The repair that is best in each state of the bench (-1: give up): opening alone can change it, no answer needed.
    """

    ask: Floats
    repair: Floats
    stop: float
    branch: Floats
    first: Ints
    here: Ints

    @property
    def least(self) -> float:
        """Cost of the best move."""
        return float(min(self.ask.min(initial=np.inf), self.repair.min(initial=np.inf), self.stop))


def one_step(position: Position, problem: Problem) -> Choice:
    """Return every move's expected cost with one step of look-ahead, all branches in one call."""
    return one_step_many([position], problem)[0]


def one_step_many(positions: list[Position], problem: Problem) -> list[Choice]:
    """Return :func:`one_step` for several positions in one batch."""
    n_rows, n_repairs, places = len(problem.likelihood), len(problem.success), np.arange(len(problem.close))
    question_of = problem.question_of
    weights, states, free, cuts, picked = [], [], [], [0], []
    for at in positions:
        rows = np.flatnonzero(at.open_[question_of])
        fails = np.flatnonzero(at.free)
        after = np.repeat(at.free[None], len(fails), axis=0)
        after[np.arange(len(fails)), fails] = False
        weights += [at.w * problem.rows(is_home=at.is_home)[rows], np.repeat(at.w[None], len(places), axis=0), at.w * problem.left[fails]]
        states += [problem.asked_in[at.state, question_of[rows]], places, problem.ends[at.state, fails]]
        free += [np.repeat(at.free[None], len(rows) + len(places), axis=0), after]
        cuts.append(cuts[-1] + len(rows) + len(places) + len(fails))
        picked.append((rows, fails))
    value, first = expected_cost(np.vstack(weights), np.concatenate(states), np.vstack(free), problem)
    out = []
    for n, (at, (rows, fails)) in enumerate(zip(positions, picked, strict=True)):
        own, own_first = value[cuts[n] : cuts[n + 1]], first[cuts[n] : cuts[n + 1]]
        branch, branch_first = np.zeros(n_rows), np.full(n_rows, -1, dtype=np.int64)
        branch[rows], branch_first[rows] = own[: len(rows)], own_first[: len(rows)]
        ws = float(at.w.sum())
        ask = np.add.reduceat(branch, problem.first_row[:-1]) if len(at.open_) else np.zeros(0)
        ask = np.where(at.open_, ask + ws * problem.ask[at.state], np.inf)
        p = problem.success[fails] @ at.w
        fades = problem.goodwill[fails] @ at.w
        repair = np.full(n_repairs, np.inf)
        reached = ws * problem.cost[at.state, fails] + p * problem.close_after[at.state, fails] + fades + own[len(rows) + len(places) :]
        repair[fails] = np.where(problem.aims[fails] @ at.w > 0.0, reached, np.inf)
        out.append(Choice(ask, repair, problem.giving_up(at.w, at.state), branch, branch_first, own_first[len(rows) : len(rows) + len(places)]))
    return out


def information(position: Position, problem: Problem) -> Floats:
    """Return the expected information of each question in nat, of shape (n_questions,)."""
    p = position.w / position.w.sum()
    likelihood = problem.rows(is_home=position.is_home)
    joint = likelihood * p
    marginal = joint.sum(axis=1, keepdims=True)
    terms = (joint * np.log(np.maximum(likelihood, 1e-300) / marginal)).sum(axis=1)
    return np.asarray(np.add.reduceat(terms, problem.first_row[:-1])) if len(position.open_) else np.zeros(0)


def in_pairs(position: Position, problem: Problem, once: Choice) -> Choice:
    """Return the choice with its most promising questions valued as if the best of the others could be asked next.

    One step sees each cheap look alone, and two looks that tell only together seem idle. After each answer the branch is worth the
    least of going on as in one step, and of asking one more of the :data:`NEXT_ASKED` and then going on so.
    """
    few = np.array([q for q in once.ask.argsort()[:NEXT_ASKED] if np.isfinite(once.ask[q])], dtype=np.int64)
    rows = np.flatnonzero(np.isin(problem.question_of, few))
    of = problem.question_of[rows]
    one, two = np.nonzero((of[:, None] != of) & ~problem.shuts[rows[:, None], of])
    if not len(one):
        return once
    now = problem.rows(is_home=position.is_home)[rows]
    home = problem.brings_home[rows] | position.is_home
    between = problem.asked_in[position.state, of]
    states = problem.asked_in[between[one], of[two]]
    # which of two looks comes first changes nothing but where the bench stands then, unless one of them tells of the way home
    is_news = (home[one] | home[two]) & (not position.is_home)
    name = np.where(~is_news, np.minimum(one, two) * len(rows) + np.maximum(one, two), one * len(rows) + two)
    _, some, back = np.unique(name * len(problem.close) + states, return_index=True, return_inverse=True)
    told = np.where(home[one[some], None], problem.at_home[rows[two[some]]], problem.likelihood[rows[two[some]]])
    value, _ = expected_cost(position.w * now[one[some]] * told, states[some], np.repeat(position.free[None], len(some), axis=0), problem)
    then = np.full((len(rows), len(once.ask)), np.inf)
    then[one, of[two]] = 0.0
    np.add.at(then, (one, of[two]), value[back])
    asked = (now @ position.w)[:, None] * problem.ask[between]
    saved = np.zeros_like(once.branch)
    saved[rows] = np.maximum(once.branch[rows] - (then + asked).min(axis=1), 0.0)
    return replace(once, ask=once.ask - np.add.reduceat(saved, problem.first_row[:-1]))


def two_step(position: Position, problem: Problem, once: Choice, keep_going: Callable[[], bool] = lambda: True) -> Choice:
    """Return the choice with its most promising moves looked into one step deeper.

    Looks into the :data:`WIDTH` cheapest moves and the :data:`CURIOUS` most telling questions, cheapest first, for as long
    as ``keep_going`` says so. A move's deeper value is never above its one-step value, so a move that was not looked into
    may seem dearer than it is, never cheaper.
    """
    n_ask = len(once.ask)
    both = np.concatenate([once.ask, once.repair])
    telling = np.where(position.open_, information(position, problem) / np.maximum(problem.ask[position.state], 0.3), -1.0)
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
            ask[i] = min(ask[i], position.w.sum() * problem.asking(position.state, i) + deeper)
        else:
            a = i - n_ask
            base = position.w.sum() * problem.cost[position.state, a] + problem.curing(position.w, position.state, a)
            deeper = one_step(position.after_repair(a, problem), problem).least
            repair[a] = min(repair[a], float(base + deeper))
    return replace(once, ask=ask, repair=repair)


@dataclass(frozen=True)
class Pick:
    """The move to make: ``ask``, ``repair`` or ``stop`` with its index, and the dear repair that it was put before, if any."""

    kind: str
    index: int = -1
    held_back: int = -1


def pick(position: Position, choice: Choice, problem: Problem) -> Pick:
    """Return the move to make: the cheapest, but doing before asking within a hair, and a cheap cause before a dear part.

    A look that saves less than :data:`DOING_FIRST` is no progress. A dear part waits while a cheap untested cause has real
    weight and its step is hardly dearer to the end (trap T32).
    """
    best = choice.least
    a = int(choice.repair.argmin()) if len(choice.repair) else -1
    q = int(choice.ask.argmin()) if len(choice.ask) else -1
    slack = 0.0 if a < 0 or problem.buys[a] else DOING_FIRST
    if a >= 0 and choice.repair[a] <= best * (1.0 + slack):
        cheap = _cheap_cause(position, a, choice, problem)
        return Pick("repair", a) if cheap < 0 else Pick("repair", cheap, held_back=a)
    if choice.stop <= best:
        return Pick("stop")
    return Pick("ask", q)


def pick_in_pairs(position: Position, once: Choice, problem: Problem) -> Pick:
    """Return the move that the advice makes: one step, with questions looked at in pairs."""
    return pick(position, in_pairs(position, problem, once), problem)


def _cheap_cause(position: Position, dear: int, choice: Choice, problem: Problem) -> int:
    """Return the best cheap repair whose own target has real weight and is not the dear one's, or -1."""
    if not problem.is_dear[dear]:
        return -1
    p = position.w / position.w.sum()
    likely = (p >= REAL_WEIGHT) & problem.real & ~problem.targets[dear]
    cures_likely = ((problem.success >= 0.45) & likely).any(axis=1)
    is_cheap = (problem.cost[position.state] < CHEAP_SHARE * problem.cost[position.state, dear]) & ~problem.buys
    fit = position.free & cures_likely & is_cheap & (choice.repair <= choice.least * (1.0 + GUARD))
    if not fit.any():
        return -1
    return int(np.where(fit, choice.repair, np.inf).argmin())

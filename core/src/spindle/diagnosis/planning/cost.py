"""The expected cost to the end: the closed form that values every state, and the cost of fixed ways to go on.

References
----------
.. [1] D. Heckerman, J. S. Breese, K. Rommelse, "Decision-theoretic troubleshooting", CACM 38(3), 1995.
.. [2] T. J. Ottosen, *Solutions and Heuristics for Troubleshooting with Dependent Actions*, 2012, ch. 4 (the p/c sequence).
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import Floats
from spindle.diagnosis.planning.problem import Flags, Ints, Problem

_TINY: Final = 1e-15
MAX_STEPS: Final = 16
"""Repairs looked ahead in the closed form; what is left after sixteen failed repairs is given up."""


def expected_cost(weights: Floats, state: Ints, available: Flags, problem: Problem) -> tuple[Floats, Ints]:
    """Return the expected cost of repair from many states at once, by the adaptive p/c sequence with best truncation.

    From each state the repair with the highest chance per euro is taken again and again, what comes back after it counted among its cost
    (so two that cure the same are in the right order: exchange them and compare); the result is the cheapest
    place to stop and give the unit back. It is homogeneous of degree 1 in the weights, so branches of a test need no
    further multiplication.

    Parameters
    ----------
    weights : ndarray of shape (n_states, n_faults)
        Unnormalised P(fault) of each state.
    state : ndarray of shape (n_states,)
        The state of the bench in each.
    available : ndarray of shape (n_states, n_repairs)
        Repairs that may still be tried.

    Returns
    -------
    cost : ndarray of shape (n_states,)
        Expected cost in euro, times the state's total weight.
    first : ndarray of shape (n_states,)
        Index of the first repair of the sequence; -1 where giving up at once is best.

    References
    ----------
    The module's [1]_ and [2]_; giving up as an action of its own as in Jensen et al., "The SACSO methodology", 2001.
    """
    w, d, free = np.array(weights, dtype=float), np.array(state, dtype=np.int64), np.array(available, dtype=bool)
    n, n_repairs = free.shape
    at = rows = np.arange(n)
    spent, rest = np.zeros(n), w.sum(axis=1)
    best, first = w @ problem.give_up + rest * problem.close[d], np.full(n, -1, dtype=np.int64)
    least, firsts, begun = best.copy(), first.copy(), first  # the same of the rows that still go on, and the first repair of each
    never = w @ (problem.incurable * problem.give_up)
    for step in range(MAX_STEPS):
        gains = w @ problem.pull  # a trial that would be clean anyway is no reason for a repair
        cure, fades = gains[:, :n_repairs], gains[:, n_repairs:]
        ratio = np.where(free, cure / (rest[:, None] * problem.cost[d] + fades), 0.0)
        a = ratio.argmax(axis=1)
        cured = w * problem.success[a]
        p = cured.sum(axis=1)
        alive = free[at, a] & (cure[at, a] > _TINY)
        begun = a if step == 0 else begun
        spent = spent + rest * problem.cost[d, a] + p * problem.close_after[d, a] + fades[at, a]
        w -= cured
        rest = rest - p
        d = problem.ends[d, a]
        free[at, a] = False
        total = spent + w @ problem.give_up + rest * problem.close[d]
        better = alive & (total < least)
        least, firsts = np.where(better, total, least), np.where(better, begun, firsts)
        keep = alive & (spent + never + rest * problem.least_on < least)  # exact: what is spent only grows, and nothing goes on for less
        if not keep.all():
            best[rows], first[rows] = least, firsts
            if not keep.any():
                return best, first
            rows, w, d, free, spent, rest, never = (x[keep] for x in (rows, w, d, free, spent, rest, never))
            least, firsts, begun, at = least[keep], firsts[keep], begun[keep], np.arange(len(rows))
    best[rows], first[rows] = least, firsts
    return best, first


def fixed_order_cost(weights: Floats, state: int, order: Sequence[int], problem: Problem) -> float:
    """Return the expected cost of trying repairs in a fixed order to its end, then giving the unit back, in euro times the total weight.

    Parameters
    ----------
    weights : ndarray of shape (n_faults,)
        P(fault); need not sum to 1.
    order : indices of repairs, each at most once
    """
    w = np.array(weights, dtype=float)
    total, d = 0.0, state
    for a in order:
        total += float(w.sum()) * problem.cost[d, a] + problem.curing(w, d, a)
        w = w * (1.0 - problem.success[a])
        d = int(problem.ends[d, a])
    return total + problem.giving_up(w, d)

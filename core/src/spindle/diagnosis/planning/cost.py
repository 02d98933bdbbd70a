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
_CROWDED: Final = 0.7
"""While more than this share of the rows goes on, the others are carried along: to pick rows out costs as much as a step."""
MAX_STEPS: Final = 16
"""Repairs looked ahead in the closed form; what is left after sixteen failed repairs is given up."""


def expected_cost(weights: Floats, state: Ints, available: Flags, problem: Problem) -> tuple[Floats, Ints]:
    """Return the expected cost of repair from many states at once, by the adaptive p/c sequence with best truncation.

    From each state the repair with the highest chance per euro is taken again and again, what comes back after it counted among its cost
    (so two that cure the same are in the right order: exchange them and compare); the result is the cheapest
    place to stop and give the unit back. A sequence ends where going on cannot pay any more: what no repair cures would pay for whatever
    is tried from there, and a repair gains at most what giving up costs for what it cures. It is homogeneous of degree 1 in the weights,
    so branches of a test need no further multiplication.

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
    w, d, free = np.array(weights, dtype=float), np.array(state, dtype=np.int64), np.array(available, dtype=float)
    n, n_repairs = free.shape
    at: Ints = np.arange(n)
    rows = at
    going = np.ones(n, dtype=bool)
    spent, before, closing = (np.asarray(np.zeros(n)) for _ in range(3))
    best, first = np.empty(n), np.full(n, -1, dtype=np.int64)
    least, firsts, begun = np.full(n, np.inf), first.copy(), first  # the same of the rows that are still at hand, and the first repair of each
    tried_in_vain = (w @ problem.incurable)[:, None] * problem.least_each
    for step in range(MAX_STEPS + 1):
        told = w @ problem.pull  # a trial that would be clean anyway is no reason for a repair
        cure, fades, rest, gone = told[:, :n_repairs] * free, told[:, n_repairs : 2 * n_repairs], told[:, -2], told[:, -1]
        spent += (before - rest) * closing
        total = spent + gone + rest * problem.close[d]
        better = going & (total < least)
        least, firsts = np.where(better, total, least), np.where(better, begun, firsts)
        if step == MAX_STEPS:
            break
        price = problem.cost.take(d, axis=0) * rest[:, None] + fades
        a = (cure / price).argmax(axis=1)
        may_gain = np.maximum(cure * problem.give_up_eur - tried_in_vain, 0.0) @ np.ones(n_repairs)
        going &= (cure[at, a] > _TINY) & (total - rest * problem.close_more[d] - may_gain < least)
        n_going = int(going.sum())
        if n_going == 0:
            break
        if n_going < _CROWDED * len(going):
            best[rows], first[rows] = least, firsts
            rows, d, firsts, begun, a = (x[going] for x in (rows, d, firsts, begun, a))
            w, free, spent, rest, price, least, tried_in_vain = (x[going] for x in (w, free, spent, rest, price, least, tried_in_vain))
            at, going = np.arange(n_going), np.ones(n_going, dtype=bool)
        begun = a if step == 0 else begun
        spent += price[at, a]
        before, closing = rest, problem.close_after[d, a]
        w *= problem.left.take(a, axis=0)
        d = problem.ends[d, a]
        free[at, a] = 0.0
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

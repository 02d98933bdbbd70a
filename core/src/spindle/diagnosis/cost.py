"""What moves cost, and the expected cost to the end: the closed form that values every state.

References
----------
.. [1] D. Heckerman, J. S. Breese, K. Rommelse, "Decision-theoretic troubleshooting", CACM 38(3), 1995.
.. [2] T. J. Ottosen, *Solutions and Heuristics for Troubleshooting with Dependent Actions*, 2012, ch. 4 (the p/c sequence).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from spindle.diagnosis.compiled import CompiledModel, Floats
from spindle.faults.model import Depth, Question, Repair

TRIAL_MIN: Final = 3.0
"""Bench minutes of the trial after a repair: one insert, one start, one eject."""
MAX_STEPS: Final = 16
"""Repairs looked ahead in the closed form; what is left after sixteen failed repairs is given up."""


@dataclass(frozen=True, slots=True)
class Economy:
    """The shop's own figures, in euro. They move the stopping point more than any likelihood does.

    The defaults are our invented counter's: 36 euro an hour, a lost fee, goodwill and a written-off unit when one goes
    back unrepaired (rather too high than too low), the price of a used drive when one is spoilt, and what a day's wait
    is worth in goodwill and shelf room.
    """

    rate_eur_per_min: float = 0.6
    day_eur: float = 1.2
    give_up_eur: float = 150.0
    damage_eur: float = 60.0


@dataclass(frozen=True)
class CostTables:
    """Costs of every repair from every depth, in euro.

    Attributes
    ----------
    cost, ends, close_after : ndarray of shape (n_depths, n_repairs)
        Cost of the repair begun at that depth; the depth where it ends; cost of closing the unit from there.
    close : ndarray of shape (n_depths,)
        Cost of closing the unit from each depth.
    success : ndarray of shape (n_repairs, n_faults)
        P(repair cures fault), a bad new part allowed for.
    """

    economy: Economy
    cost: Floats
    ends: NDArray[np.int64]
    close_after: Floats
    close: Floats
    open_: Floats
    success: Floats

    def opening(self, depth: int, needed: int) -> float:
        """Return the cost of opening from ``depth`` to at least ``needed``, in euro."""
        return float(self.open_[max(depth, needed)] - self.open_[depth])

    def giving_up(self, depth: int) -> float:
        """Return the cost of handing the unit back unrepaired from that depth, in euro."""
        return self.economy.give_up_eur + float(self.close[depth])


def part_terms(repair: Repair, model: CompiledModel) -> tuple[float, float]:
    """Return (price in euro, wait in days) of a repair's part on this drive: the sheet's figures before the family's."""
    sheet = model.sheet.prices.get(repair.id)
    return (repair.part_eur, repair.wait_days) if sheet is None else (sheet.price_eur, sheet.wait_days)


def cost_tables(model: CompiledModel, economy: Economy, *, p_bad_new: float = 0.04) -> CostTables:
    """Return the cost tables of a model for one shop's figures."""
    rate = economy.rate_eur_per_min
    open_ = rate * np.array(model.model.depths.open_min)
    close = rate * np.array(model.model.depths.close_min)
    n_depths, n = len(open_), len(model.repairs)
    cost, ends = np.empty((n_depths, n)), np.empty((n_depths, n), dtype=np.int64)
    success = model.success.copy()
    for a, repair in enumerate(model.repairs):
        price, wait = part_terms(repair, model)
        own = rate * (repair.bench_min + TRIAL_MIN) + price + wait * economy.day_eur + repair.p_damage * economy.damage_eur
        for d in range(n_depths):
            ends[d, a] = max(d, repair.depth)
            cost[d, a] = open_[ends[d, a]] - open_[d] + own
        if repair.uses_item:
            success[a] *= 1.0 - p_bad_new
    return CostTables(economy, cost, ends, close[ends], close, open_, success)


def question_cost(question: Question, depth: Depth | int, tables: CostTables) -> float:
    """Return what it costs to ask a question from that depth, in euro (opening included)."""
    return tables.opening(int(depth), question.depth) + tables.economy.rate_eur_per_min * question.bench_min


def expected_cost(weights: Floats, depth: NDArray[np.int64], available: NDArray[np.bool_], tables: CostTables) -> tuple[Floats, NDArray[np.int64]]:
    """Return the expected cost of repair from many states at once, by the adaptive p/c sequence with best truncation.

    From each state the repair with the highest chance per euro is taken again and again; the result is the cheapest
    place to stop and give the unit back. It is homogeneous of degree 1 in the weights, so branches of a test need no
    further multiplication.

    Parameters
    ----------
    weights : ndarray of shape (n_states, n_faults)
        Unnormalised P(fault) of each state.
    depth : ndarray of shape (n_states,)
        How deep each is open.
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
    w = np.array(weights, dtype=float)
    n = len(w)
    d = np.array(depth, dtype=np.int64)
    free = np.array(available, dtype=bool)
    spent = np.zeros(n)
    rest = w.sum(axis=1)
    best = rest * (tables.economy.give_up_eur + tables.close[d])
    first = np.full(n, -1, dtype=np.int64)
    pending = np.full(n, -1, dtype=np.int64)  # the first repair of a row whose sequence has not paid off yet
    rows = np.arange(n)
    fail = 1.0 - tables.success
    for step in range(MAX_STEPS):
        cure = w @ tables.success.T
        ratio = np.where(free, cure / tables.cost[d], 0.0)
        a = ratio.argmax(axis=1)
        at = np.arange(len(rows))
        p = cure[at, a]
        alive = ratio[at, a] > 0.0
        if step == 0:
            pending[rows] = a
        spent = spent + rest * tables.cost[d, a] + p * tables.close_after[d, a]
        w *= fail[a]
        rest = rest - p
        d = tables.ends[d, a]
        free[at, a] = False
        total = spent + rest * (tables.economy.give_up_eur + tables.close[d])
        better = alive & (total < best[rows])
        best[rows[better]] = total[better]
        first[rows[better]] = pending[rows[better]]
        keep = alive & (spent < best[rows])  # exact: what is spent only grows
        if not keep.any():
            break
        rows, w, d, free, spent, rest = rows[keep], w[keep], d[keep], free[keep], spent[keep], rest[keep]
    return best, first


def fixed_order_cost(weights: Floats, depth: int, order: list[int], tables: CostTables) -> float:
    """Return the expected cost of trying repairs in a fixed order to its end, then giving the unit back, in euro."""
    w = np.array(weights, dtype=float)
    total, d = 0.0, depth
    for a in order:
        p = float(w @ tables.success[a])
        total += float(w.sum()) * tables.cost[d, a] + p * tables.close_after[d, a]
        w = w * (1.0 - tables.success[a])
        d = int(tables.ends[d, a])
    return total + float(w.sum()) * tables.giving_up(d)

"""One drive's moves as arrays: what each step costs from each depth, what it cures, what each answer would say."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from spindle.diagnosis.belief.trials import p_bad
from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.diagnosis.given.economy import Economy
from spindle.faults.model import LEAK, Question, QuestionKind, Repair
from spindle.words.bench import Depth
from spindle.words.health import P_BAD_ITEM, Health
from spindle.words.witness import UNRELIABILITY, Witness

TRIAL_MIN: Final = 3.0
"""Bench minutes of the trial after a repair: one insert, one start, one eject."""
TAKE_BACK: Final = 0.6
"""Taking a tried part out again and the old one in costs this share of fitting it: the way is known now."""
LEAST_EUR: Final = 1e-3
"""No step is free: where a shop's own minute costs nothing, steps without a part would divide by nothing. A tenth of a cent."""
DEAR_EUR: Final = 15.0
"""A part from this price on is dear: cheap untested causes come first (trap T32)."""

Ints = NDArray[np.int64]
Flags = NDArray[np.bool_]


@dataclass(frozen=True)
class Problem:
    """Costs in euro, chances in [0, 1]; D depths, A repairs, Q questions, F faults.

    Attributes
    ----------
    success : ndarray of shape (A, F)
        P(repair cures fault), a bad part allowed for.
    cost, ends, close_after : ndarray of shape (D, A)
        Cost of the repair begun at that depth; the depth where it ends; cost of closing the unit from there.
    close, open_ : ndarray of shape (D,)
        Cost of closing the unit from each depth; of opening it to there.
    likelihood : ndarray of shape (R, F)
        P(answer | fault) as the bench would log it, the answers of all questions stacked.
    first_row : ndarray of shape (Q + 1,)
        Where each question's answers begin in ``likelihood``.
    ask_cost, ask_depth : ndarray of shape (Q,)
        Cost of asking without the way in; the depth that it needs.
    is_dear : ndarray of shape (A,)
        The part is dear enough to wait for cheap causes.
    targets : ndarray of shape (A, F)
        True where the fault sits in the repair's own part.
    real : ndarray of shape (F,)
        False for the leak.
    """

    success: Floats
    cost: Floats
    ends: Ints
    close_after: Floats
    close: Floats
    open_: Floats
    give_up_eur: float
    likelihood: Floats
    first_row: Ints
    ask_cost: Floats
    ask_depth: Ints
    is_dear: Flags
    targets: Flags
    real: Flags

    def giving_up(self, depth: int) -> float:
        """Return the cost of handing the unit back unrepaired from that depth, in euro."""
        return self.give_up_eur + float(self.close[depth])

    def asking(self, depth: int, question: int) -> float:
        """Return what it costs to ask from that depth, in euro (opening included)."""
        needed = max(depth, int(self.ask_depth[question]))
        return float(self.ask_cost[question] + self.open_[needed] - self.open_[depth])


@dataclass(frozen=True)
class Asked:
    """A question as a move, or a swap test with a donor's part."""

    id: str
    question: Question | None = None
    swap: Stock | None = None
    repair: Repair | None = None


@dataclass(frozen=True)
class Plan:
    """A problem with what its rows stand for."""

    problem: Problem
    asks: tuple[Asked, ...]
    sources: tuple[Stock | None, ...]
    """Where each repair's part comes from; None where it is ordered, or none is needed."""
    economy: Economy
    repairs: tuple[Repair, ...]


def part_terms(repair: Repair, model: CompiledModel) -> tuple[float, float]:
    """Return (price in euro, wait in days) of a repair's part on this drive: the sheet's figures before the family's."""
    sheet = model.sheet.prices.get(repair.id)
    return (repair.part_eur, repair.wait_days) if sheet is None else (sheet.price_eur, sheet.wait_days)


def bench_minutes(repair: Repair, model: CompiledModel) -> float:
    """Return the bench minutes of a repair on this drive."""
    return repair.bench_min + sum(more for feature, more in repair.extra_min.items() if feature in model.sheet.features)


@lru_cache(maxsize=64)
def plan_for(model: CompiledModel, economy: Economy, *, stock: tuple[Stock, ...] = ()) -> Plan:
    """Return the problem of one drive with the shop's figures and what the shelf holds.

    Intake questions are no moves: they are asked at the counter. Nothing of what was found is in it, so that the jobs on like
    drives share it: what was asked already is closed in the :class:`~spindle.diagnosis.planning.lookahead.Position`.
    """
    repairs = model.repairs
    sources = tuple(_best_source(r, stock, model, economy) for r in repairs)
    rate = economy.rate_eur_per_min
    open_, close = rate * np.array(model.model.depths.open_min), rate * np.array(model.model.depths.close_min)
    own = np.array([_own_cost(r, s, model, economy) for r, s in zip(repairs, sources, strict=True)])
    depth = np.array([int(r.depth) for r in repairs])
    ends = np.maximum(np.arange(len(open_))[:, None], depth[None])
    success = model.success.copy()
    for a, (repair, source) in enumerate(zip(repairs, sources, strict=True)):
        if repair.uses_item:
            success[a] *= 1.0 - (P_BAD_ITEM[Health.NEW] if source is None else p_bad(source, model))
    asks = [Asked(q.id, question=q) for q in model.questions.values() if q.kind is not QuestionKind.INTAKE]
    asks += [Asked(f"swap:{s.repair}:{s.item}", swap=s, repair=_repair(s.repair, model)) for s in stock if s.is_donor and s.repair in model.repair_index]
    blocks = [_block(a, model) for a in asks]
    part_of = {p.id: n for n, p in enumerate(model.parts)}
    targets = np.array([model.membership[part_of[r.part]] > 0 if r.part in part_of else np.zeros(len(model.faults), dtype=bool) for r in repairs])
    problem = Problem(
        success=success,
        cost=np.maximum(open_[ends] - open_[:, None] + own[None], LEAST_EUR),
        ends=ends,
        close_after=close[ends],
        close=close,
        open_=open_,
        give_up_eur=economy.give_up_eur,
        likelihood=np.vstack([np.zeros((0, len(model.faults))), *blocks]),
        first_row=np.cumsum([0, *(len(b) for b in blocks)]),
        ask_cost=np.array([rate * ask_minutes(a, model) for a in asks]),
        ask_depth=np.array([int(a.question.depth if a.question else a.repair.depth if a.repair else Depth.CLOSED) for a in asks], dtype=np.int64),
        is_dear=np.array([_price(r, s, model)[0] >= DEAR_EUR for r, s in zip(repairs, sources, strict=True)]),
        targets=targets,
        real=np.array([f.id != LEAK for f in model.faults]),
    )
    return Plan(problem, tuple(asks), sources, economy, repairs)


def _repair(repair_id: str, model: CompiledModel) -> Repair:
    return model.repairs[model.repair_index[repair_id]]


def _price(repair: Repair, source: Stock | None, model: CompiledModel) -> tuple[float, float]:
    return part_terms(repair, model) if source is None else (source.price_eur, source.wait_days)


def _own_cost(repair: Repair, source: Stock | None, model: CompiledModel, economy: Economy) -> float:
    price, wait = _price(repair, source, model)
    work = economy.rate_eur_per_min * (bench_minutes(repair, model) + TRIAL_MIN)
    return work + price + economy.waiting(wait) + repair.p_damage * economy.damage_eur


def _best_source(repair: Repair, stock: Sequence[Stock], model: CompiledModel, economy: Economy) -> Stock | None:
    """Return the source that a cure costs the least from: price and wait over the chance that the part is good."""
    offers = [s for s in stock if s.repair == repair.id]
    if not offers or not repair.uses_item:
        return None
    weight = model.prior * model.success[model.repair_index[repair.id]]

    def dear(source: Stock | None) -> float:
        bad = P_BAD_ITEM[Health.NEW] if source is None else float(weight @ p_bad(source, model) / weight.sum())
        return _own_cost(repair, source, model, economy) / max(1.0 - bad, 0.01)

    return min([None, *offers], key=dear)


def _block(asked: Asked, model: CompiledModel) -> Floats:
    """Return P(answer | fault) of one question as the bench would log it; for a swap test: without change, and cured."""
    eps = UNRELIABILITY[Witness.BENCH]
    if asked.question is not None:
        table = model.likelihood[asked.question.id]
    else:
        if asked.swap is None or asked.repair is None:
            raise TypeError("a move that asks is a question or a swap")
        cured = model.success[model.repair_index[asked.repair.id]] * (1.0 - p_bad(asked.swap, model))
        table = np.array([1.0 - cured, cured])
    return np.asarray((1.0 - eps) * table + eps / len(table))


def ask_minutes(asked: Asked, model: CompiledModel) -> float:
    """Return the bench minutes of a question, or of a swap test with the way back, opening apart."""
    if asked.question is not None:
        return asked.question.bench_min
    return 0.0 if asked.repair is None else bench_minutes(asked.repair, model) * (1.0 + TAKE_BACK) + TRIAL_MIN

"""From a drive, the shop's figures and the shelf to a :class:`~spindle.diagnosis.planning.problem.Problem`: ways, prices, chances."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Final

import numpy as np

from spindle.diagnosis.belief.intermittence import SLIP
from spindle.diagnosis.belief.items import p_bad
from spindle.diagnosis.belief.likelihood import logged, unreliability
from spindle.diagnosis.evidence.reach import shut_by
from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.compiled import CompiledModel, Floats, silent
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.problem import Asked, Flags, Ints, Plan, Problem, state_of
from spindle.drives.levels import RANK_OF_REPAIR
from spindle.faults.lasting import USED_SHARE, well_after
from spindle.faults.model import LEAK, NOTHING, QuestionKind, Repair
from spindle.words.bench import Depth, Mains, Reach
from spindle.words.health import Health
from spindle.words.witness import UNRELIABILITY, Witness

TRIAL_MIN: Final = 3.0
"""Bench minutes of the trial after a repair: one insert, one start, one eject."""
TAKE_BACK: Final = 0.6
"""Taking a tried part out again and the old one in costs this share of fitting it: the way is known now."""
MAINS_MIN: Final = 2.0
"""Minutes to put the mains in or take them out: plug, switch, wait for the charge, start."""
SET_UP_MIN: Final = 6.0
"""Minutes to make an open drive ready to run: plugs back on, frame, disc."""
LEAST_EUR: Final = 1e-3
"""No step is free: where a shop's own minute costs nothing, steps without a part would divide by nothing. A tenth of a cent."""
DEAR_EUR: Final = 15.0
"""A part from this price on is dear: cheap untested causes come first (trap T32)."""


def part_terms(repair: Repair, model: CompiledModel) -> tuple[float, float]:
    """Return (price in euro, wait in days) of a repair's part on this drive: the sheet's figures before the family's."""
    sheet = model.sheet.prices.get(repair.id)
    return (repair.part_eur, repair.wait_days) if sheet is None else (sheet.price_eur, sheet.wait_days)


def bench_minutes(repair: Repair, model: CompiledModel) -> float:
    """Return the bench minutes of a repair on this drive, at the pace of this shop where one was learnt."""
    planned = repair.bench_min + sum(more for feature, more in repair.extra_min.items() if feature in model.sheet.features)
    return planned * model.pace.get(repair.id, 1.0)


@lru_cache(maxsize=64)
def plan_for(model: CompiledModel, economy: Economy, *, stock: tuple[Stock, ...] = ()) -> Plan:
    """Return the problem of one drive with the shop's figures and what the shelf holds.

    Intake questions are no moves: they are asked at the counter. Nothing of what was found is in it, so that the jobs on like
    drives share it: what was asked already is closed in the :class:`~spindle.diagnosis.planning.lookahead.Position`.
    """
    repairs, ways = model.repairs, _Ways(model, economy)
    sources = tuple(_best_source(r, stock, model, economy) for r in repairs)
    success = model.success.copy()
    for a, (repair, source) in enumerate(zip(repairs, sources, strict=True)):
        if repair.uses_item:
            success[a] *= 1.0 - (model.bad_item[Health.NEW] if source is None else p_bad(source, model))
    success[:, model.sound > 0.0] = 1.0 - SLIP
    asks = [Asked(q.id, question=q) for q in model.questions.values() if q.kind is not QuestionKind.INTAKE and q.id not in model.unmovable]
    asks += [Asked(f"swap:{s.repair}:{s.item}", swap=s, repair=_repair(s.repair, model)) for s in stock if s.is_donor and s.repair in model.repair_index]
    blocks, homes = ([_block(a, model, is_home=h) for a in asks] for h in (False, True))
    none = np.zeros((0, len(model.faults)))
    own = np.array([_own_cost(r, s, model, economy) for r, s in zip(repairs, sources, strict=True)])
    cost, ends = ways.table([_needs_of_repair(r) for r in repairs])
    ask, asked_in = ways.table([_needs_of(a) for a in asks])
    prices = np.array([_price(r, s, model)[0] for r, s in zip(repairs, sources, strict=True)])
    p_year = _p_year(model, sources)
    problem = Problem(
        success=success,
        cost=np.maximum(cost + own, LEAST_EUR),
        ends=ends,
        close_after=ways.close[ends],
        close=ways.close,
        give_up_eur=economy.give_up_eur,
        likelihood=np.vstack([none, *blocks]),
        at_home=np.vstack([none, *homes]),
        away=np.vstack([none, *(_when_away(a, home, model) for a, home in zip(asks, homes, strict=True))]),
        p_home=model.p_home,
        brings_home=np.array([p >= Reach.DISC for a in asks for p in _proves(a)]),
        first_row=np.cumsum([0, *(len(b) for b in blocks)]),
        ask=ask + np.array([economy.rate_eur_per_min * ask_minutes(a, model) for a in asks]),
        asked_in=asked_in,
        shuts=_shuts(asks, model),
        is_dear=prices >= DEAR_EUR,
        buys=prices > 0.0,
        targets=_targets(model),
        fades_eur=economy.return_eur * (1.0 - p_year),
        real=np.array([f.id not in (LEAK, NOTHING) for f in model.faults]),
        sound=model.sound,
    )
    advisable = np.array([not r.only_after and r.id not in model.unmovable for r in repairs])
    return Plan(problem, tuple(asks), sources, economy, repairs, p_year, advisable)


def _p_year(model: CompiledModel, sources: Sequence[Stock | None]) -> Floats:
    """A donor's part has half of its life behind it; that a used drive is as old as the one that failed is in its own figure."""
    is_used = np.array([s is not None and s.is_donor and RANK_OF_REPAIR.get(r.id) != "whole" for r, s in zip(model.repairs, sources, strict=True)])
    p = well_after(model.lasts_months * np.where(is_used, USED_SHARE, 1.0)[:, None])
    return np.where(model.sound > 0.0, 1.0, p)


@dataclass(frozen=True)
class Minutes:
    """What a plan's moves take, whatever they cost.

    Attributes
    ----------
    ask, repair : ndarray of shape (S, Q) and (S, A)
        Bench minutes of a move begun in that state of the bench, the way there and a repair's trial included.
    close : ndarray of shape (S,)
    wait_days, price_eur : ndarray of shape (A,)
        Of the part that a repair would use.
    """

    ask: Floats
    repair: Floats
    close: Floats
    wait_days: Floats
    price_eur: Floats


def minutes_of(plan: Plan, model: CompiledModel) -> Minutes:
    """Return the bench minutes of each move of a plan, and the terms of its parts."""
    ways = _Ways(model, replace(plan.economy, rate_eur_per_min=1.0))
    terms = np.array([_price(r, s, model) for r, s in zip(plan.repairs, plan.sources, strict=True)]).reshape(-1, 2)
    own = np.array([bench_minutes(r, model) + TRIAL_MIN for r in plan.repairs])
    asking = np.array([ask_minutes(a, model) for a in plan.asks])
    ask, repair = (ways.table(needs)[0] for needs in ([_needs_of(a) for a in plan.asks], [_needs_of_repair(r) for r in plan.repairs]))
    return Minutes(ask + asking, repair + own, ways.close, terms[:, 1], terms[:, 0])


@dataclass(frozen=True)
class _Needs:
    """What a move needs of the bench, and how it leaves it: no deeper than ``most``, no less than ``least``, mains out, live or either."""

    least: int
    most: int
    mains: Mains
    leaves: Mains


class _Ways:
    """What it costs to bring the bench from each state to where a move can be done."""

    def __init__(self, model: CompiledModel, economy: Economy) -> None:
        self._rate = economy.rate_eur_per_min
        self._open = self._rate * np.array(model.model.depths.open_min)
        self._close = self._rate * np.array(model.model.depths.close_min)
        self.close: Floats = np.repeat(self._close, 2)

    def table(self, needs: Sequence[_Needs]) -> tuple[Floats, Ints]:
        """Return the cost of the way to each move, and the state in which it leaves the bench; both of shape (S, moves)."""
        cost, ends = np.zeros((len(self.close), len(needs))), np.zeros((len(self.close), len(needs)), dtype=np.int64)
        for state in range(len(self.close)):
            for n, need in enumerate(needs):
                cost[state, n], ends[state, n] = self._way(state, need)
        return cost, ends

    def _way(self, state: int, need: _Needs) -> tuple[float, int]:
        depth, is_live = divmod(state, 2)
        there = min(max(depth, need.least), need.most)
        opening = self._open[there] - self._open[depth] if there >= depth else self._close[depth] - self._close[there]
        during = bool(is_live) if need.mains is Mains.ANY else need.mains is Mains.LIVE
        after = during if need.leaves is Mains.ANY else need.leaves is Mains.LIVE
        turns = (during != bool(is_live)) + (after != during)
        return float(opening + self._rate * MAINS_MIN * turns), state_of(there, is_live=after)


def _needs_of(asked: Asked) -> _Needs:
    if asked.question is None:
        return _needs_of_repair(asked.repair)
    question = asked.question
    takes_a_disc = question.stage >= Reach.DISC and question.depth <= Depth.COVER_OFF
    return _Needs(int(question.depth), int(Depth.COVER_OFF if takes_a_disc else Depth.DECK_OUT), question.mains, Mains.ANY)


def _needs_of_repair(repair: Repair | None) -> _Needs:
    """A repair is done with the mains out, and tried with the mains in."""
    return _Needs(int(repair.depth if repair else Depth.CLOSED), int(Depth.DECK_OUT), Mains.OUT, Mains.LIVE)


def _shuts(asks: Sequence[Asked], model: CompiledModel) -> Flags:
    place = {a.id: n for n, a in enumerate(asks)}
    rows = []
    for asked in asks:
        for outcome in asked.question.outcomes if asked.question else (None, None):
            shut = shut_by(asked.question, outcome.id, model.questions) if asked.question and outcome else set()
            rows.append([place[q] for q in shut if q in place])
    flags = np.zeros((len(rows), len(asks)), dtype=bool)
    for n, shut_places in enumerate(rows):
        flags[n, shut_places] = True
    return flags


def _targets(model: CompiledModel) -> Flags:
    part_of = {p.id: n for n, p in enumerate(model.parts)}
    none = np.zeros(len(model.faults), dtype=bool)
    return np.array([model.membership[part_of[r.part]] > 0 if r.part in part_of else none for r in model.repairs])


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
        bad = model.bad_item[Health.NEW] if source is None else float(weight @ p_bad(source, model) / weight.sum())
        return _own_cost(repair, source, model, economy) / max(1.0 - bad, 0.01)

    return min([None, *offers], key=dear)


def _proves(asked: Asked) -> list[Reach]:
    return [asked.question.proves.get(o.id, Reach.NOTHING) for o in asked.question.outcomes] if asked.question else [Reach.NOTHING] * 2


def _block(asked: Asked, model: CompiledModel, *, is_home: bool) -> Floats:
    """Return P(answer | fault) of one question as the bench would log it; for a swap test: without change, and cured."""
    eps = UNRELIABILITY[Witness.BENCH] if asked.question is None else unreliability(Witness.BENCH, asked.question)
    if asked.question is not None:
        return logged(asked.question, model, is_home=is_home, source=Witness.BENCH, eps=eps)
    if asked.swap is None or asked.repair is None:
        raise TypeError("a move that asks is a question or a swap")
    cured = model.success[model.repair_index[asked.repair.id]] * (1.0 - p_bad(asked.swap, model))
    cured = np.where(model.sound > 0.0, 1.0 - SLIP, cured)
    return np.asarray((1.0 - eps) * np.array([1.0 - cured, cured]) + eps / 2.0)


def _when_away(asked: Asked, at_home: Floats, model: CompiledModel) -> Floats:
    """Return P(answer | fault) where the disc does not get home."""
    if asked.question is None or asked.question.stage < Reach.DISC:
        return at_home
    eps = unreliability(Witness.BENCH, asked.question)
    row = (1.0 - eps) * silent(asked.question) + eps / len(asked.question.outcomes)
    return np.repeat(row[:, None], len(model.faults), axis=1)


def ask_minutes(asked: Asked, model: CompiledModel) -> float:
    """Return the bench minutes of a question, or of a swap test with the way back, opening apart; at the pace of this shop where one was learnt."""
    if asked.question is not None:
        is_set_up = asked.question.mains is Mains.LIVE and asked.question.depth >= Depth.DRIVE_OPEN
        return (asked.question.bench_min + (SET_UP_MIN if is_set_up else 0.0)) * model.pace.get(asked.question.id, 1.0)
    return 0.0 if asked.repair is None else bench_minutes(asked.repair, model) * (1.0 + TAKE_BACK) + TRIAL_MIN

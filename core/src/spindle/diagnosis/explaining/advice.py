"""The next moves of a case, with what they cost, what each answer would do, and why."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from heapq import nsmallest
from typing import Final

import numpy as np

from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.explaining.moves import Advice, MindHolder, Moves
from spindle.diagnosis.explaining.telling import Ranked, Telling
from spindle.diagnosis.given.case import Case
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.diagnosis.planning.cost import expected_cost
from spindle.diagnosis.planning.lookahead import TIE
from spindle.diagnosis.planning.outlook import Outlook, look_ahead
from spindle.diagnosis.planning.schools import School, schools_from
from spindle.faults.model import LEAK

THINK_ABOVE: Final = 0.25
"""Share of "not on the list" above which the honest advice is to stop and think."""


def advise(case: Case, model: CompiledModel, belief: Belief, outlook: Outlook | None = None) -> Advice:
    """Return the next moves by expected cost, the move to make first, and what speaks beside them."""
    seen = look_ahead(case, model, belief) if outlook is None else outlook
    told = Telling(seen.plan, seen.position, seen.choice, belief, model)
    picked = seen.pick
    ranked = sorted(told.ranked(), key=lambda r: ((r.kind, r.index) != (picked.kind, picked.index), r.is_idle, r.expected_eur))
    saves = _savings(ranked)
    return Advice(
        moves=Moves([r.p_cures for r in ranked], lambda n: told.move(ranked[n], saves[n])),
        mind_changes=told.mind_changes(ranked),
        best_repair=told.best_repair,
        is_tie=len(ranked) > 1 and abs(ranked[1].expected_eur - ranked[0].expected_eur) < TIE * ranked[0].expected_eur and picked.held_back < 0,
        should_think=float(belief.p[model.fault_index[LEAK]]) > THINK_ABOVE,
        barred=seen.barred,
        same_go=told.same_go(ranked),
        held_back=seen.plan.repairs[picked.held_back].id if picked.held_back >= 0 else "",
    )


def schools_beside(seen: Outlook, belief: Belief, model: CompiledModel) -> tuple[School, ...]:
    """Return the schools of thought beside the advice, cheapest first. The flow chart follows every branch: it takes longer than the advice itself."""
    return schools_from(seen.position, seen.plan, model, {q: o.outcome for q, o in belief.evidence.said.items()})


def mind_holders(without: Mapping[str, Floats], seen: Outlook, model: CompiledModel, best: str) -> tuple[MindHolder, ...]:
    """Return the findings that hold the best repair where it is: without one of them another would be best.

    Parameters
    ----------
    without : mapping of finding id to P(fault | all other findings), of shape (n_faults,)
    """
    if not without:
        return ()
    n = len(without)
    depth, free = np.full(n, seen.position.state), np.tile(seen.position.free, (n, 1))
    _, first = expected_cost(np.array(list(without.values())), depth, free, seen.plan.problem)
    names = ["" if a < 0 else model.repairs[a].id for a in first]
    return tuple(MindHolder(f, r) for f, r in zip(without, names, strict=True) if r != best)


def _savings(ranked: Sequence[Ranked]) -> list[float]:
    """Return what each move saves against the best move of another kind of step (a question against the best repair or stop), in euro."""
    doing = min((r.expected_eur for r in ranked if r.kind != "ask"), default=None)
    least = nsmallest(2, ranked, key=lambda r: r.expected_eur)
    saved = []
    for one in ranked:
        other = doing if one.kind == "ask" else min((r.expected_eur for r in least if r is not one), default=None)
        saved.append(0.0 if other is None else max(0.0, other - one.expected_eur))
    return saved

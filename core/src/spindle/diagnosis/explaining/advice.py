"""The next moves of a case, with what they cost, what each answer would do, and why."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from heapq import nsmallest
from typing import Final

import numpy as np

from spindle.diagnosis.belief.intermittence import widest_count
from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.explaining.moves import Advice, MindChange, MindHolder, Move
from spindle.diagnosis.explaining.telling import Ranked, Telling
from spindle.diagnosis.given.case import Answer, Case, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.diagnosis.planning.cost import expected_cost
from spindle.diagnosis.planning.lookahead import TIE, Choice, Pick, Position, one_step, pick, two_step
from spindle.diagnosis.planning.problem import Plan, plan_for
from spindle.diagnosis.planning.schools import School, schools_from
from spindle.faults.model import LEAK
from spindle.words.health import Health

THINK_ABOVE: Final = 0.25
"""Share of "not on the list" above which the honest advice is to stop and think."""


@dataclass(frozen=True)
class Outlook:
    """A case as the search sees it: the plan, where the unit stands, and every move's value."""

    plan: Plan
    position: Position
    choice: Choice

    @property
    def pick(self) -> Pick:
        """The move to make."""
        return pick(self.position, self.choice, self.plan.problem)


def tried_repairs(case: Case, model: CompiledModel) -> set[str]:
    """Return the repairs that are not offered again.

    The same one twice has little extra chance; a swap with a donor of unknown health was hardly a try, and is left free.
    """
    changes = [c for f in case.standing if isinstance(f.what, Trial) for c in f.what.changes]
    return {c.repair for c in changes if not (model.repairs[model.repair_index[c.repair]].uses_item and c.health is Health.UNKNOWN and not c.works)}


def _blocked(belief: Belief, model: CompiledModel) -> set[str]:
    said = {f"{q}={a.outcome}" for q, a in belief.evidence.said.items()}
    return {r.id for r in model.repairs if r.blocked_by in said}


def _says_nothing(belief: Belief) -> set[str]:
    """Return the questions that would weigh nothing now: how often it fails, once that was counted, or once it works."""
    evidence = belief.evidence
    is_counted = widest_count(evidence.answers.values()) is not None
    return {"repeats"} if is_counted or any(t.result is TrialResult.CLEAN for t in evidence.trials) else set()


def look_ahead(case: Case, model: CompiledModel, belief: Belief, *, keep_going: Callable[[], bool] | None = None) -> Outlook:
    """Return every move's expected cost from here: one step ahead, or two for as long as ``keep_going`` says so."""
    plan = plan_for(model, case.economy, stock=case.stock)
    logged = {f.what.question for f in case.standing if isinstance(f.what, Answer)}
    swapped = {c.item for f in case.standing if isinstance(f.what, Trial) for c in f.what.changes if c.item}
    asked = logged | set(belief.evidence.answers) | _says_nothing(belief)
    out = tried_repairs(case, model) | _blocked(belief, model)
    free = np.array([r.id not in out for r in model.repairs])
    open_ = np.array([a.id not in asked if a.swap is None else a.swap.item not in swapped for a in plan.asks], dtype=bool)
    position = Position(belief.p, int(case.depth), free, open_)
    choice = one_step(position, plan.problem)
    if keep_going is not None:
        choice = two_step(position, plan.problem, choice, keep_going)
    return Outlook(plan, position, choice)


def advise(case: Case, model: CompiledModel, belief: Belief, outlook: Outlook | None = None) -> Advice:
    """Return the next moves by expected cost, the move to make first, and what speaks beside them."""
    seen = look_ahead(case, model, belief) if outlook is None else outlook
    told = Telling(seen.plan, seen.position, seen.choice, belief, model)
    picked = seen.pick
    ranked = sorted(told.ranked(), key=lambda r: ((r.kind, r.index) != (picked.kind, picked.index), r.is_idle, r.expected_eur))
    moves = tuple(told.move(r, eur) for r, eur in zip(ranked, _savings(ranked), strict=True))
    return Advice(
        moves=moves,
        mind_changes=_mind_changes(moves, told.best_at, seen.position.depth),
        best_repair=told.best_at[seen.position.depth],
        is_tie=len(moves) > 1 and abs(moves[1].expected_eur - moves[0].expected_eur) < TIE * moves[0].expected_eur and picked.held_back < 0,
        should_think=float(belief.p[model.fault_index[LEAK]]) > THINK_ABOVE,
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
    depth, free = np.full(n, seen.position.depth), np.tile(seen.position.free, (n, 1))
    _, first = expected_cost(np.array(list(without.values())), depth, free, seen.plan.problem)
    names = ["" if a < 0 else model.repairs[a].id for a in first]
    return tuple(MindHolder(f, r) for f, r in zip(without, names, strict=True) if r != best)


def _mind_changes(moves: Sequence[Move], best_at: Sequence[str], depth: int) -> tuple[MindChange, ...]:
    """Return the open answers that would change the best repair, likeliest per euro first. None is a result: stop asking."""
    found = [
        MindChange(move.id, a.outcome, a.chance, move.step_eur, a.next_repair, move.title, a.label)
        for move in moves
        for a in move.answers
        if a.next_repair != best_at[max(depth, move.depth)]
    ]
    return tuple(sorted(found, key=lambda c: c.chance / max(c.step_eur, 0.5), reverse=True))


def _savings(ranked: Sequence[Ranked]) -> list[float]:
    """Return what each move saves against the best move of another kind of step (a question against the best repair or stop), in euro."""
    doing = min((r.expected_eur for r in ranked if r.kind != "ask"), default=None)
    least = nsmallest(2, ranked, key=lambda r: r.expected_eur)
    saved = []
    for one in ranked:
        other = doing if one.kind == "ask" else min((r.expected_eur for r in least if r is not one), default=None)
        saved.append(0.0 if other is None else max(0.0, other - one.expected_eur))
    return saved

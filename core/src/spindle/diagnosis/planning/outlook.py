"""A case as the search sees it: what can be done from here, and what each move would cost to the end."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from spindle.diagnosis.belief.intermittence import widest_count
from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.given.case import Answer, Case, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.lookahead import Choice, Pick, Position, in_pairs, one_step, pick, two_step
from spindle.diagnosis.planning.plan import plan_for
from spindle.diagnosis.planning.possible import Barred, barred_asks, barred_repairs
from spindle.diagnosis.planning.problem import Plan, state_of
from spindle.words.bench import Power
from spindle.words.health import Health


@dataclass(frozen=True)
class Outlook:
    """A case as the search sees it: the plan, where the unit stands, and every move's value."""

    plan: Plan
    position: Position
    choice: Choice
    barred: tuple[Barred, ...] = ()

    @property
    def pick(self) -> Pick:
        """The move to make."""
        return pick(self.position, self.choice, self.plan.problem)


def unseen(model: CompiledModel, plan: Plan) -> Position:
    """Return where a unit stands of which nothing is known: closed, everything still to try, and nothing opened that only our own steps open."""
    w = np.where([bool(f.opened_by) for f in model.faults], 0.0, model.prior)
    return Position(w / w.sum(), 0, plan.advisable.copy(), np.ones(len(plan.asks), dtype=bool))


def tried_repairs(case: Case, model: CompiledModel) -> set[str]:
    """Return the repairs that are not offered again.

    The same one twice has little extra chance; a swap with a donor of unknown health was hardly a try, and is left free.
    """
    changes = [c for f in case.standing if isinstance(f.what, Trial) for c in f.what.changes]
    return {c.repair for c in changes if not (model.repairs[model.repair_index[c.repair]].uses_item and c.health is Health.UNKNOWN and not c.works)}


def _blocked(belief: Belief, model: CompiledModel) -> set[str]:
    """Return the repairs that no advice names: what an answer speaks against, what only a person may choose, what is no move on this drive."""
    said = _said(belief)
    return {r.id for r in model.repairs if r.blocked_by in said or r.only_after or r.id in model.unmovable}


def _says_nothing(belief: Belief, model: CompiledModel) -> set[str]:
    """Return the questions that would weigh nothing now: how often it fails, once that was counted, or once it works; what nothing seen asks for."""
    evidence, said = belief.evidence, _said(belief)
    is_counted = widest_count(evidence.answers.values()) is not None
    idle = {q.id for q in model.questions.values() if q.only_after and said.isdisjoint(q.only_after.split())}
    return idle | ({"repeats"} if is_counted or any(t.result is TrialResult.CLEAN for t in evidence.trials) else set())


def _said(belief: Belief) -> set[str]:
    return {f"{q}={a.outcome}" for q, a in belief.evidence.said.items()}


def look_ahead(case: Case, model: CompiledModel, belief: Belief, *, keep_going: Callable[[], bool] | None = None) -> Outlook:
    """Return every move's expected cost from here: one step ahead, or two for as long as ``keep_going`` says so."""
    model = belief.evidence.narrowed(model)
    failed = {(c.repair, c.item) for t in belief.evidence.trials if t.result is not TrialResult.CLEAN for c in t.changes if c.item}
    plan = plan_for(model, case.economy, stock=tuple(s for s in case.stock if (s.repair, s.item) not in failed))
    logged = {f.what.question for f in case.standing if isinstance(f.what, Answer) and not f.what.setting.is_elsewhere}
    swapped = {c.item for f in case.standing if isinstance(f.what, Trial) for c in f.what.changes if c.item}
    asked = logged | set(belief.evidence.answers) | _says_nothing(belief, model)
    out = tried_repairs(case, model) | _blocked(belief, model)
    not_now, not_here = barred_asks(case, belief, plan), barred_repairs(case, plan)
    free = np.array([r.id not in out and a not in not_here for a, r in enumerate(model.repairs)])
    left = [a.id not in asked if a.swap is None else a.swap.item not in swapped for a in plan.asks]
    open_ = np.array([is_left and n not in not_now for n, is_left in enumerate(left)], dtype=bool)
    barred = (*(why for n, why in not_now.items() if left[n]), *(why for a, why in not_here.items() if model.repairs[a].id not in out))
    position = Position(belief.p, state_of(case.depth, is_live=case.bench.power is not Power.OUT), free, open_, belief.evidence.far.is_home)
    choice = in_pairs(position, plan.problem, one_step(position, plan.problem))
    if keep_going is not None:
        choice = two_step(position, plan.problem, choice, keep_going)
    return Outlook(plan, position, choice, barred)

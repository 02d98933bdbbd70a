"""The next moves of a case, with what they cost, what each answer would do, and why."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from heapq import nsmallest
from typing import Final

import numpy as np

from spindle.diagnosis.belief.intermittence import widest_count
from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.explaining.moves import Advice, AnswerPreview, MindChange, MindHolder, Move, MoveKind
from spindle.diagnosis.explaining.why import why_ask, why_repair, why_stop
from spindle.diagnosis.given.case import Answer, Case, Stock, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.diagnosis.planning.cost import expected_cost
from spindle.diagnosis.planning.lookahead import TIE, Choice, Pick, Position, one_step, pick, two_step
from spindle.diagnosis.planning.problem import Asked, Plan, ask_minutes, bench_minutes, part_terms, plan_for
from spindle.diagnosis.planning.schools import School, schools_from
from spindle.faults.model import LEAK, Outcome
from spindle.words.health import Health

THINK_ABOVE: Final = 0.25
"""Share of "not on the list" above which the honest advice is to stop and think."""
_SWAP_ANSWERS: Final = (Outcome("no_change", "No change", "No change with the donor's part"), Outcome("clean", "Works", "Works with the donor's part"))


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
    logged = {f.what.question for f in case.standing if isinstance(f.what, Answer)}
    swapped = {c.item for f in case.standing if isinstance(f.what, Trial) for c in f.what.changes if c.item}
    plan = plan_for(model, case.economy, stock=case.stock, skip_questions=frozenset(logged | set(belief.evidence.answers) | _says_nothing(belief)))
    out = tried_repairs(case, model) | _blocked(belief, model)
    free = np.array([r.id not in out for r in model.repairs])
    position = Position(belief.p, int(case.depth), free, np.array([a.swap is None or a.swap.item not in swapped for a in plan.asks], dtype=bool))
    choice = one_step(position, plan.problem)
    if keep_going is not None:
        choice = two_step(position, plan.problem, choice, keep_going)
    return Outlook(plan, position, choice)


def advise(case: Case, model: CompiledModel, belief: Belief, outlook: Outlook | None = None) -> Advice:
    """Return the next moves by expected cost, the move to make first, and what speaks beside them."""
    seen = look_ahead(case, model, belief) if outlook is None else outlook
    plan, at, choice = seen.plan, seen.position, seen.choice
    asks = [_ask_move(n, a, seen, model) for n, a in enumerate(plan.asks) if np.isfinite(choice.ask[n])]
    repairs = [_repair_move(int(a), seen, model) for a in np.flatnonzero(np.isfinite(choice.repair))]
    stop = Move(MoveKind.STOP, "hand_back", "Hand it back unrepaired", plan.problem.giving_up(at.depth), 0.0, why=why_stop(belief, model))
    best_at = _best_repair_at(seen, model)
    moves = sorted([*repairs, *asks, stop], key=lambda m: (_is_idle(m, best_at, at.depth), m.expected_eur))
    picked = seen.pick
    first = stop.id if picked.kind == "stop" else plan.asks[picked.index].id if picked.kind == "ask" else plan.repairs[picked.index].id
    moves = [*(m for m in moves if m.id == first), *(m for m in moves if m.id != first)]
    held_back = plan.repairs[picked.held_back].id if picked.held_back >= 0 else ""
    return Advice(
        moves=tuple(_with_savings(moves)),
        mind_changes=_mind_changes(asks, best_at, at.depth),
        best_repair=best_at[at.depth],
        is_tie=len(moves) > 1 and abs(moves[1].expected_eur - moves[0].expected_eur) < TIE * moves[0].expected_eur and not held_back,
        should_think=float(belief.p[model.fault_index[LEAK]]) > THINK_ABOVE,
        held_back=held_back,
    )


def schools_beside(seen: Outlook, belief: Belief, model: CompiledModel) -> tuple[School, ...]:
    """Return the schools of thought beside the advice, cheapest first. The flow chart follows every branch: it takes longer than the advice itself."""
    return schools_from(seen.position, seen.plan, model, {q: o.outcome for q, o in belief.evidence.said.items()})


def _repair_move(a: int, seen: Outlook, model: CompiledModel) -> Move:
    repair, source, at = model.repairs[a], seen.plan.sources[a], seen.position
    price, wait = part_terms(repair, model) if source is None else (source.price_eur, source.wait_days)
    return Move(
        MoveKind.REPAIR,
        repair.id,
        repair.name,
        expected_eur=float(seen.choice.repair[a]),
        saves_eur=0.0,
        step_eur=float(seen.plan.problem.cost[at.depth, a]),
        bench_min=bench_minutes(repair, model),
        opening_min=_opening_min(at.depth, repair.depth, model),
        part_eur=price,
        wait_days=wait,
        depth=repair.depth,
        p_cures=float(at.w @ seen.plan.problem.success[a]),
        mains="out",
        why=why_repair(repair, at.w, seen.plan.problem.success[a], model),
        repair=repair.id,
        item="" if source is None else source.item,
        source=_source_word(source),
    )


def _source_word(source: Stock | None) -> str:
    if source is None:
        return ""
    return "donor" if source.is_donor else "transit" if source.wait_days > 0 else "shelf"


def _ask_move(n: int, asked: Asked, seen: Outlook, model: CompiledModel) -> Move:
    problem, at, choice = seen.plan.problem, seen.position, seen.choice
    outcomes = _SWAP_ANSWERS if asked.question is None else asked.question.outcomes
    previews = []
    for o, outcome in enumerate(outcomes):
        row = int(problem.first_row[n]) + o
        joint = at.w * problem.likelihood[row]
        chance, top, first = float(joint.sum()), int(joint.argmax()), int(choice.first[row])
        repair = "" if first < 0 else model.repairs[first].id
        previews.append(AnswerPreview(outcome.id, outcome.label, chance, model.faults[top].id, float(joint[top]) / chance, repair))
    expected, step = float(choice.ask[n]), problem.asking(at.depth, n)
    why = why_ask(previews, at.w, model)
    if asked.swap is not None and asked.repair is not None:
        name = f"Try {asked.swap.item or 'the donor’s part'}: {asked.repair.name.lower()}, then the old one back"
        return Move(
            MoveKind.SWAP,
            asked.id,
            name,
            expected,
            0.0,
            step,
            bench_min=ask_minutes(asked, model),
            opening_min=_opening_min(at.depth, asked.repair.depth, model),
            depth=asked.repair.depth,
            mains="out",
            answers=tuple(previews),
            why=why,
            repair=asked.repair.id,
            item=asked.swap.item,
            source="donor",
        )
    question = model.questions[asked.id]
    return Move(
        MoveKind.ASK,
        question.id,
        question.ask,
        expected,
        0.0,
        step,
        bench_min=question.bench_min,
        opening_min=_opening_min(at.depth, question.depth, model),
        depth=question.depth,
        mains=question.mains,
        cautions=question.cautions,
        answers=tuple(previews),
        why=why,
    )


def _is_idle(move: Move, best_at: Sequence[str], depth: int) -> bool:
    """Tell whether a question changes nothing: whatever its answer, the best repair stays. Such a look stands behind all others."""
    return bool(move.answers) and all(a.next_repair == best_at[max(depth, move.depth)] for a in move.answers)


def _opening_min(depth: int, needed: int, model: CompiledModel) -> float:
    table = model.model.depths.open_min
    return float(table[max(depth, needed)] - table[depth])


def _with_savings(moves: Sequence[Move]) -> list[Move]:
    """Give each move what it saves against the best move of another kind of step (a question against the best repair or stop)."""
    doing = min((m.expected_eur for m in moves if m.kind is not MoveKind.ASK), default=None)
    least = nsmallest(2, moves, key=lambda m: m.expected_eur)
    done = []
    for move in moves:
        rest = [m.expected_eur for m in least if m is not move]
        other = doing if move.kind is MoveKind.ASK else min(rest, default=None)
        done.append(replace(move, saves_eur=0.0 if other is None else max(0.0, other - move.expected_eur)))
    return done


def _best_repair_at(seen: Outlook, model: CompiledModel) -> list[str]:
    """Return the repair that is best now at each depth ("" where giving up is): opening alone can change it, no answer needed."""
    n = len(seen.plan.problem.close)
    _, first = expected_cost(np.tile(seen.position.w, (n, 1)), np.arange(n), np.tile(seen.position.free, (n, 1)), seen.plan.problem)
    return ["" if a < 0 else model.repairs[a].id for a in first]


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


def _mind_changes(asks: Sequence[Move], best_at: Sequence[str], depth: int) -> tuple[MindChange, ...]:
    """Return the open answers that would change the best repair, likeliest per euro first. None is a result: stop asking."""
    found = [
        MindChange(move.id, a.outcome, a.chance, move.step_eur, a.next_repair, move.title, a.label)
        for move in asks
        for a in move.answers
        if a.next_repair != best_at[max(depth, move.depth)]
    ]
    return tuple(sorted(found, key=lambda c: c.chance / max(c.step_eur, 0.5), reverse=True))

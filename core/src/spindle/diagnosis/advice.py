"""The next move: what lowers the expected cost to a working, closed unit the most, and why."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np
from numpy.typing import NDArray

from spindle.diagnosis.case import UNRELIABILITY, Case, Source, Trial
from spindle.diagnosis.compiled import CompiledModel, Floats
from spindle.diagnosis.cost import CostTables, cost_tables, expected_cost, fixed_order_cost, part_terms, question_cost
from spindle.diagnosis.moves import Advice, AnswerPreview, MindChange, Move, MoveKind, School
from spindle.diagnosis.posterior import Belief
from spindle.diagnosis.why import why_ask, why_repair, why_stop
from spindle.faults.model import LEAK, Question, QuestionKind, Repair

THINK_ABOVE: Final = 0.25
"""Share of "not on the list" above which the honest advice is to stop and think."""
TIE: Final = 0.01
"""Moves whose expected costs differ by less than this share are a tie."""
DEAR_EUR: Final = 15.0
"""A part from this price on is dear: cheap untested causes come first (trap T32)."""
REAL_WEIGHT: Final = 0.08
"""P(fault) from which a cheap cause has real weight: one unit in twelve."""
CHEAP_SHARE: Final = 0.5
"""A cause is cheap where its own step costs less than this share of the dear one's."""


@dataclass(frozen=True)
class _State:
    """What the search needs to know of a case."""

    w: Floats
    depth: int
    free: NDArray[np.bool_]
    questions: tuple[Question, ...]


def tried_repairs(case: Case) -> set[str]:
    """Return the repairs that were tried: the same one twice has little extra chance."""
    return {c.repair for f in case.standing if isinstance(f.what, Trial) for c in f.what.changes}


def advise(case: Case, model: CompiledModel, belief: Belief) -> Advice:
    """Return the next moves by expected cost with one step of look-ahead.

    Every answer of every open question and every failed repair is a branch; all branches are valued by one call of
    :func:`~spindle.diagnosis.cost.expected_cost`.

    References
    ----------
    .. [1] F. V. Jensen et al., "The SACSO methodology for troubleshooting complex systems", AI EDAM 15, 2001.
    """
    tables = cost_tables(model, case.economy)
    state = _state(case, model, belief)
    predictive = {q.id: _predictive(model, q) for q in state.questions}
    blocks = [state.w * predictive[q.id] for q in state.questions]
    fails = state.w * (1.0 - tables.success)
    values, firsts = _value_all(state, blocks, fails, tables, model)
    best_at = _best_repair_at(state, tables, model)

    repairs = _repair_moves(state, values[len(blocks)], tables, model)
    asks = [
        _ask_move(q, state, (blocks[n], values[n], firsts[n]), tables, model) for n, q in enumerate(state.questions)
    ]  # fmt: skip
    stop = Move(MoveKind.STOP, "hand_back", "Hand it back unrepaired", tables.giving_up(state.depth), 0.0, why=why_stop(belief, model))
    moves = _doing_before_asking(sorted([*repairs, *asks, stop], key=lambda m: m.expected_eur))
    moves, held_back = _cheap_causes_first(moves, belief, model)
    p_leak = float(belief.p[model.fault_index[LEAK]])
    return Advice(
        moves=tuple(_with_savings(moves)),
        schools=_schools(state, tables, model),
        mind_changes=_mind_changes(asks, best_at, state.depth),
        best_repair=best_at[state.depth],
        is_tie=len(moves) > 1 and abs(moves[1].expected_eur - moves[0].expected_eur) < TIE * moves[0].expected_eur and not held_back,
        should_think=p_leak > THINK_ABOVE,
        held_back=held_back,
    )


def _state(case: Case, model: CompiledModel, belief: Belief) -> _State:
    tried = tried_repairs(case)
    answered = set(belief.evidence.answers)
    skip = {f.what.question for f in case.standing if hasattr(f.what, "question")} | answered
    questions = tuple(q for q in model.questions.values() if q.id not in skip and q.kind is not QuestionKind.INTAKE)
    free = np.array([r.id not in tried for r in model.repairs])
    return _State(belief.p, int(case.depth), free, questions)


def _predictive(model: CompiledModel, question: Question) -> Floats:
    """Return P(answer | fault) as the bench would log it, of shape (n_outcomes, n_faults)."""
    eps = UNRELIABILITY[Source.BENCH]
    return (1.0 - eps) * model.likelihood[question.id] + eps / len(question.outcomes)


def _value_all(state: _State, blocks: list[Floats], fails: Floats, tables: CostTables, model: CompiledModel) -> tuple[list[Floats], list[NDArray[np.int64]]]:
    """Value every branch at once: one block per question, the last one for the repairs."""
    depths = [np.full(len(b), max(state.depth, q.depth)) for b, q in zip(blocks, state.questions, strict=True)]
    depths.append(tables.ends[state.depth])
    free = [np.tile(state.free, (len(b), 1)) for b in blocks]
    after = np.tile(state.free, (len(model.repairs), 1))
    np.fill_diagonal(after, False)
    value, first = expected_cost(np.vstack([*blocks, fails]), np.concatenate(depths), np.vstack([*free, after]), tables)
    cuts = np.cumsum([len(b) for b in blocks])
    return np.split(value, cuts), np.split(first, cuts)


def _repair_moves(state: _State, values: Floats, tables: CostTables, model: CompiledModel) -> list[Move]:
    moves = []
    for a, repair in enumerate(model.repairs):
        p = float(state.w @ tables.success[a])
        if not state.free[a] or p <= 0.0:
            continue
        cost = float(tables.cost[state.depth, a])
        price, wait = part_terms(repair, model)
        moves.append(
            Move(
                MoveKind.REPAIR,
                repair.id,
                repair.name,
                expected_eur=cost + p * float(tables.close_after[state.depth, a]) + float(values[a]),
                saves_eur=0.0,
                step_eur=cost,
                bench_min=repair.bench_min,
                opening_min=_opening_min(state.depth, repair.depth, model),
                part_eur=price,
                wait_days=wait,
                depth=repair.depth,
                p_cures=p,
                mains="out",
                why=why_repair(repair, state.w, tables.success[a], model),
            )
        )
    return moves


def _ask_move(question: Question, state: _State, branches: tuple[Floats, Floats, NDArray[np.int64]], tables: CostTables, model: CompiledModel) -> Move:
    block, values, firsts = branches
    cost = question_cost(question, state.depth, tables)
    previews = []
    for n, outcome in enumerate(question.outcomes):
        chance = float(block[n].sum())
        top = int(block[n].argmax())
        repair = "" if firsts[n] < 0 else model.repairs[firsts[n]].id
        previews.append(AnswerPreview(outcome.id, outcome.label, chance, model.faults[top].id, float(block[n, top]) / chance, repair))
    return Move(
        MoveKind.ASK,
        question.id,
        question.ask,
        expected_eur=cost + float(values.sum()),
        saves_eur=0.0,
        step_eur=cost,
        bench_min=question.bench_min,
        opening_min=_opening_min(state.depth, question.depth, model),
        depth=question.depth,
        mains=question.mains,
        cautions=question.cautions,
        answers=tuple(previews),
        why=why_ask(previews, state.w, model),
    )


def _opening_min(depth: int, needed: int, model: CompiledModel) -> float:
    table = model.model.depths.open_min
    return float(table[max(depth, needed)] - table[depth])


def _doing_before_asking(moves: list[Move]) -> list[Move]:
    """Put the best repair first where asking before it would save less than a tie: a look that changes nothing is no progress."""
    best = moves[0].expected_eur
    repair = next((m for m in moves if m.kind is MoveKind.REPAIR and m.expected_eur <= best * (1.0 + TIE)), None)
    return moves if repair is None else [repair, *(m for m in moves if m is not repair)]


def _cheap_causes_first(moves: list[Move], belief: Belief, model: CompiledModel) -> tuple[list[Move], str]:
    """Put the best cheap step before a dear part while a cheap untested cause has real weight (trap T32)."""
    first = moves[0]
    if first.kind is not MoveKind.REPAIR or first.part_eur < DEAR_EUR:
        return moves, ""
    likely = {f.id for f, p in zip(model.faults, belief.p, strict=True) if p >= REAL_WEIGHT and f.id != LEAK}
    for move in moves[1:]:
        is_cheap = move.step_eur < CHEAP_SHARE * first.step_eur and move.part_eur < DEAR_EUR
        if move.kind is MoveKind.REPAIR and is_cheap:
            own = model.repairs[model.repair_index[move.id]]
            dear = model.repairs[model.repair_index[first.id]]
            if any(own.cures.get(f, 0.0) >= 0.5 and f not in _own_target(dear, model) for f in likely):
                return [move, *(m for m in moves if m is not move)], first.id
    return moves, ""


def _own_target(repair: Repair, model: CompiledModel) -> set[str]:
    """Return the faults that sit in the repair's own part: what it is meant for, not what it happens to take along."""
    return {f.id for f in model.faults if f.part == repair.part}


def _with_savings(moves: Sequence[Move]) -> list[Move]:
    """Give each move what it saves against the best move of another kind of step (a question against the best repair or stop)."""
    done = []
    for move in moves:
        others = [m.expected_eur for m in moves if m is not move and (move.kind is not MoveKind.ASK or m.kind is not MoveKind.ASK)]
        done.append(replace(move, saves_eur=max(0.0, min(others) - move.expected_eur) if others else 0.0))
    return done


def _schools(state: _State, tables: CostTables, model: CompiledModel) -> tuple[School, ...]:
    found = []
    for id_, (name, order) in model.model.schools.items():
        left = [model.repair_index[r] for r in order if r in model.repair_index and state.free[model.repair_index[r]]]
        first = model.repairs[left[0]].id if left else ""
        found.append(School(id_, name, fixed_order_cost(state.w, state.depth, left, tables), first))
    return tuple(sorted(found, key=lambda s: s.expected_eur))


def _best_repair_at(state: _State, tables: CostTables, model: CompiledModel) -> list[str]:
    """Return the repair that is best now at each depth ("" where giving up is): opening alone can change it, no answer needed."""
    n = len(tables.close)
    _, first = expected_cost(np.tile(state.w, (n, 1)), np.arange(n), np.tile(state.free, (n, 1)), tables)
    return ["" if a < 0 else model.repairs[a].id for a in first]


def _mind_changes(asks: Sequence[Move], best_at: Sequence[str], depth: int) -> tuple[MindChange, ...]:
    """Return the open answers that would change the best repair, likeliest per euro first. None is a result: stop asking."""
    found = [
        MindChange(move.id, a.outcome, a.chance, move.step_eur, a.next_repair)
        for move in asks
        for a in move.answers
        if a.next_repair != best_at[max(depth, move.depth)]
    ]
    return tuple(sorted(found, key=lambda c: c.chance / max(c.step_eur, 0.5), reverse=True))

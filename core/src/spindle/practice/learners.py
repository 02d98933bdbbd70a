"""Learners who play by a script: the planner with careful hands, the flow chart, and whoever tries anything."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.futures import Game
from spindle.practice.advice import careful
from spindle.practice.session import after, begin
from spindle.practice.state import Care, Do, Move, Session
from spindle.study.policies import POLICIES

Learner = Callable[[Session, np.random.Generator], Move]


def planner(s: Session, _rng: np.random.Generator) -> Move:
    """The advice, with careful hands."""
    return careful(s)


def flow_chart(s: Session, _rng: np.random.Generator) -> Move:
    """The family's flow chart, box by box, with nobody's care."""
    if s.is_clean:
        return Move(Do.HAND_BACK)
    game = Game(s.hidden.sound, s.at, _history(s))
    move = POLICIES["flow_chart"](s.ready)([game], s.ready.problem)[0]
    first = [a.id for a in s.ready.plan.asks if a.id in s.ready.model.model.seen_at_least and a.id not in s.looks]
    if first:
        return Move(Do.LOOK, first[0])
    if move.kind == "ask":
        return Move(Do.LOOK, s.ready.plan.asks[move.index].id)
    return Move(Do.REPAIR, s.ready.plan.repairs[move.index].id) if move.kind == "repair" else Move(Do.HAND_BACK)


def _history(s: Session) -> tuple[tuple[str, int, int], ...]:
    asks, repairs = {a.id: n for n, a in enumerate(s.ready.plan.asks)}, {r.id: n for n, r in enumerate(s.ready.plan.repairs)}
    seen = []
    for name, n in asks.items():
        if name in s.looks:
            question = s.ready.plan.asks[n].question
            seen.append(("ask", n, [o.id for o in question.outcomes].index(s.answers[name]) if question else 0))
    return tuple(sorted((*seen, *(("repair", repairs[r], 0) for r in s.tried))))


def random_hand(s: Session, rng: np.random.Generator) -> Move:
    """Tries whatever comes to hand, half of the time with care, and gives up now and then."""
    if s.is_clean:
        return Move(Do.HAND_BACK)
    if rng.random() < 0.03:
        return Move(Do.HAND_BACK)
    open_ = np.flatnonzero(s.at.open_)
    if len(open_) and rng.random() < 0.6:
        return Move(Do.LOOK, s.ready.plan.asks[int(rng.choice(open_))].id)
    care = frozenset(c for c in Care if rng.random() < 0.5)
    return Move(Do.REPAIR, s.ready.plan.repairs[int(rng.integers(len(s.ready.plan.repairs)))].id, care)


LEARNERS: Final[dict[str, Learner]] = {"planner": planner, "flow_chart": flow_chart, "random": random_hand}


def played(lesson: str, seed: int, learner: str, *, drive: CompiledModel | None = None) -> Session:
    """Return the session that a scripted learner plays to its end."""
    session, rng = begin(lesson, seed, drive=drive), np.random.default_rng([seed, 73])
    while not session.is_over:
        move = LEARNERS[learner](session, rng) if len(session.done) < 100 else Move(Do.HAND_BACK)
        session = after(session, move)
    return session

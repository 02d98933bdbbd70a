"""What the planner would do on a practice unit, with careful hands; and a move laid beside it, by the planner's own figures."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from spindle.diagnosis.planning.lookahead import Choice, Pick, in_pairs, one_step, pick
from spindle.practice.meter import POINTS, STATES
from spindle.practice.state import Beside, Care, Do, Move, Session, needs_board
from spindle.words.bench import DEPTH_NAMES, Depth, Mains

CARE_WORDS: Final = {Care.DRY: "let it dry", Care.LOOK_OVER: "look over every flex", Care.OWN_BOARD: "move the own board across"}

RAISE, LEVEL = "raise_drive", "level_reading"
"""More light, and what is measured before it."""


def careful(s: Session) -> Move:
    """Return the best move by the planner’s figures: dry, looked over, own board, the level before more light, nothing loose under power, proved."""
    return _careful(s, None if s.is_clean else choice_of(s))


def _careful(s: Session, choice: Choice | None) -> Move:
    if choice is None:
        return Move(Do.HAND_BACK) if s.is_proved else Move(Do.PROVE)
    move = _as_move(pick(s.at, choice, s.ready.problem), s)
    if move.what == RAISE and LEVEL not in s.answers and LEVEL in {a.id for a in s.ready.plan.asks}:
        move = Move(Do.LOOK, LEVEL)
    if not s.knows_loose or not _is_live(move, s):
        return move
    return Move(Do.LOOK, "object_search") if "object_search" not in s.answers else Move(Do.REPAIR, "remove_object", frozenset({Care.LOOK_OVER}))


def _as_move(best: Pick, s: Session) -> Move:
    if best.kind == "stop":
        return Move(Do.HAND_BACK)
    if best.kind == "ask":
        return Move(Do.LOOK, s.ready.plan.asks[best.index].id)
    repair = s.ready.plan.repairs[best.index]
    care = {Care.LOOK_OVER} | ({Care.DRY} if repair.wet else set()) | ({Care.OWN_BOARD} if needs_board(s, repair.id) else set())
    return Move(Do.REPAIR, repair.id, frozenset(care))


def _is_live(move: Move, s: Session) -> bool:
    """A repair is tried under power; a look is as its question asks."""
    if move.do is Do.REPAIR:
        return move.what != "remove_object"
    asked = next((a.question for a in s.ready.plan.asks if a.id == move.what), None)
    return asked is not None and asked.mains is Mains.LIVE


def choice_of(s: Session) -> Choice:
    """Return every move's expected cost to the end, questions looked at in pairs."""
    return in_pairs(s.at, s.ready.problem, one_step(s.at, s.ready.problem))


def besides(s: Session, move: Pick) -> Beside:
    """Return a move beside the planner's: both by the planner's own figures, in euro. Nothing where nobody judges, or the last trial was clean."""
    if not s.is_judged or s.is_clean:
        return Beside(0.0, careful(s) if s.is_judged else None)
    choice, problem = choice_of(s), s.ready.problem
    best = _careful(s, choice)
    mine = _as_move(move, s)
    if (mine.do, mine.what) == (best.do, best.what):
        return Beside(0.0, best)
    theirs = pick(s.at, choice, problem)
    more, at = (_worth(choice, move) - _worth(choice, theirs)) / float(s.at.w.sum()), s.at.state
    lost = {"ask": problem.ask[at], "repair": problem.cost[at], "stop": np.array([np.inf])}[move.kind]  # whoever goes on well after it has lost no more
    return Beside(max(0.0, min(float(more), float(lost[move.index]))), best)


def moved_by_hand(s: Session, state: int, eur: float) -> Beside:
    """Return opening, shutting or turning the mains beside the planner's move: what it costs to the end from there, and to get there, more than from here."""
    if not s.is_judged or s.is_clean:
        return Beside(0.0, careful(s) if s.is_judged else None)
    here, there = choice_of(s), choice_of(replace(s, at=replace(s.at, state=state)))
    more = eur + (there.least - here.least) / float(s.at.w.sum())
    return Beside(max(0.0, min(more, eur)), _careful(s, here))


def _worth(choice: Choice, move: Pick) -> float:
    return choice.stop if move.kind == "stop" else float((choice.ask if move.kind == "ask" else choice.repair)[move.index])


def in_words(move: Move, s: Session) -> str:
    """Return a move as the bench says it."""
    match move.do:
        case Do.LOOK:
            title = next(a.title for a in s.ready.plan.asks if a.id == move.what)
            return f"{title} ({STATES[move.mains]})" if move.mains in STATES and move.what in POINTS else title
        case Do.SWAP:
            return f"A donor’s part: {in_words(replace(move, do=Do.REPAIR), s)}"
        case Do.REPAIR:
            return next(r.name for r in s.ready.plan.repairs if r.id == move.what)
        case Do.GUESS:
            return f"First guess: {part_name(s, move.what)}"
        case Do.OPEN:
            return f"By hand: {DEPTH_NAMES[Depth[move.what.upper()]]}"
        case Do.MAINS:
            return "Mains in" if move.mains is Mains.LIVE else "Mains out"
        case _:
            return _WORDS[move.do]


_WORDS: Final = {Do.PROVE: "Three passes more", Do.HAND_BACK: "Hand it back", Do.HINT: "Ask for a hint", Do.LISTEN: "Listen while a disc goes in"}


def with_care(move: Move, s: Session) -> str:
    """Return a move with the care that belongs to it."""
    return ", ".join([in_words(move, s), *(CARE_WORDS[c] for c in Care if c in move.care)])


@dataclass(frozen=True, slots=True)
class Suspected:
    """A fault, or a part, with its probability."""

    id: str
    part: str
    name: str
    p: float


def suspects_of(s: Session) -> tuple[list[Suspected], list[Suspected]]:
    """Return every fault of this drive, and every part, the likeliest first: what the bench would show beside its next move."""
    model, p = s.ready.model, s.at.w / s.at.w.sum()
    faults = [Suspected(f.id, f.part, f.name, float(x)) for f, x in zip(model.faults, p, strict=True)]
    parts = [Suspected(x.id, x.id, x.name, float(total)) for x, total in zip(model.parts, model.membership @ p, strict=True)]
    return sorted(faults, key=lambda x: -x.p), sorted(parts, key=lambda x: -x.p)


def part_name(s: Session, part: str) -> str:
    """Return what a part is called."""
    return next(p.name for p in s.ready.model.parts if p.id == part)

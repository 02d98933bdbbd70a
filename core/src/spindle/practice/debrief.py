"""Afterwards: what it came to beside the planner on the same unit, move by move, and the traps by name."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from spindle.diagnosis.given.compiled import CompiledModel
from spindle.practice.advice import in_words, part_name, with_care
from spindle.practice.hidden import draw_hidden
from spindle.practice.learners import played
from spindle.practice.session import HINT_EUR, replay
from spindle.practice.state import Do, Done, Session
from spindle.practice.traps import CARELESS, LEAST_EUR, NAMES

MASTERED_TIMES = 1.35
"""A lesson is mastered at up to so many times what the planner paid, without its trap and without a hint."""
LOOKED_SHARE = 0.5
"""Who looked at less than half of what the planner did was lucky, or gave up unseen."""


A_COIN = 0.25
"""What always saying one half comes to."""


@dataclass(frozen=True, slots=True)
class Step:
    """A move in the debriefing: what was done, what came of it, what it cost more than the best, what that was, and traps in words."""

    did: str
    says: str
    mishap: str
    regret_eur: float
    best: str
    traps: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Score:
    """What a session came to.

    Attributes
    ----------
    cost_eur, planner_eur, times : what was spent, by the planner on the same unit, and the one in times of the other
    needless : repairs that bought a part and cured nothing
    risks : moves that were careless or did harm
    guess : the first guess beside the truth, in words; "" if none was made
    is_mastered : ended as it should, looked at, near the planner, without the lesson's trap
    hidden : what was wrong, in words
    """

    cost_eur: float
    minutes: float
    planner_eur: float
    planner_minutes: float
    times: float
    is_repaired: bool
    needless: int
    risks: int
    hints: int
    guess: str
    is_mastered: bool
    hidden: tuple[str, ...]
    traps: tuple[str, ...]
    steps: tuple[Step, ...]


def scored(over: Session, *, is_led: bool = False) -> Score:
    """Return what a session that is over came to: its moves are played again, each laid beside the best one.

    ``is_led``: whoever played was shown the next move before each. That is no test, and masters nothing.
    """
    drive = over.ready.model
    s = replay(over.lesson.id, over.seed, [d.move for d in over.done], drive=drive, is_judged=True)
    best = _planner(s.lesson.id, s.seed, drive)
    faults = {u.fault for u in draw_hidden(s.lesson, s.seed, s.ready).units}
    parts = {r.id: r for r in s.ready.plan.repairs}
    needless = sum(d.move.do is Do.REPAIR and parts[d.move.what].uses_item and not d.has_cured for d in s.done)
    traps = tuple(dict.fromkeys(t for d in s.done if d.beside for t in d.beside.traps))
    hints = sum(d.move.do is Do.HINT for d in s.done)
    looked = len(s.looks) >= LOOKED_SHARE * len(best.looks)
    as_should = looked and (s.is_repaired or not best.is_repaired)
    near = s.cost_eur - HINT_EUR * hints <= MASTERED_TIMES * best.cost_eur
    return Score(
        round(s.cost_eur, 2),
        round(s.minutes, 1),
        round(best.cost_eur, 2),
        round(best.minutes, 1),
        round(s.cost_eur / max(best.cost_eur, 1.0), 2),
        s.is_repaired,
        needless,
        sum(bool(d.mishap) or bool(d.beside and CARELESS & set(d.beside.traps)) for d in s.done),
        hints,
        _judged(s, faults),
        as_should and near and not hints and not is_led and (not s.lesson.trap or s.lesson.trap not in traps),
        tuple(s.ready.model.faults[f].name for f in sorted(faults)) or ("Nothing",),
        traps,
        tuple(step_of(d, s) for d in s.done),
    )


def _judged(s: Session, faults: set[int]) -> str:
    """Return the first guess beside the truth, by its squared distance (G. W. Brier, 1950)."""
    if s.guess is None:
        return ""
    part, percent = s.guess
    brier = (percent / 100 - float(any(s.ready.model.faults[f].part == part for f in faults))) ** 2
    return f"{part_name(s, part)}, {percent} percent: {'well' if brier <= A_COIN else 'badly'} judged ({brier:.2f}; 0 is perfect, {A_COIN} a coin)"


def step_of(done: Done, s: Session) -> Step:
    """Return a move beside the best one, in words; of a session that is judged."""
    beside = done.beside
    is_dearer = beside is not None and beside.regret_eur >= LEAST_EUR
    return Step(
        in_words(done.move, s),
        done.says,
        done.mishap,
        round(beside.regret_eur, 2) if beside and is_dearer else 0.0,
        with_care(beside.best, s) if beside and beside.best and is_dearer else "",
        tuple(NAMES[t] for t in beside.traps) if beside else (),
    )


@lru_cache(256)
def _planner(lesson: str, seed: int, drive: CompiledModel) -> Session:
    return played(lesson, seed, "planner", drive=drive)

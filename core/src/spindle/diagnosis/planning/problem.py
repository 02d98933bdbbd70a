"""One drive's moves as arrays: what each step costs in each state of the bench, what it cures, what each answer would say."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.compiled import Floats
from spindle.diagnosis.given.economy import Economy
from spindle.faults.model import Question, Repair

Ints = NDArray[np.int64]
Flags = NDArray[np.bool_]


@dataclass(frozen=True)
class Problem:
    """Costs in euro, chances in [0, 1]; S states of the bench, A repairs, Q questions, F faults, R answers of all questions.

    A state is how far the unit is open and whether the mains are in; see :func:`state_of`.

    Attributes
    ----------
    success : ndarray of shape (A, F)
        P(repair cures fault), a bad part allowed for.
    cost, ends, close_after : ndarray of shape (S, A)
        Cost of the repair begun in that state, the way there included; the state where it ends; cost of closing the unit from there.
    close : ndarray of shape (S,)
        Cost of closing the unit from each state.
    likelihood, at_home : ndarray of shape (R, F)
        P(answer | fault) as the bench would log it, the answers of all questions stacked; the same once the disc is known to get home.
    away : ndarray of shape (R, F)
        The same where it does not get home: every later stage is silent.
    p_home : ndarray of shape (F,)
        P(the disc gets home | fault).
    brings_home : ndarray of shape (R,)
        True where an answer shows that it does.
    first_row : ndarray of shape (Q + 1,)
        Where each question's answers begin in ``likelihood``.
    ask, asked_in : ndarray of shape (S, Q)
        Cost of asking in that state, the way there included; the state in which it leaves the bench.
    shuts : ndarray of shape (R, Q)
        True where an answer leaves a question out of reach, or answers it.
    is_dear, buys : ndarray of shape (A,)
        The part is dear enough to wait for cheap causes; it has to be paid for at all.
    targets : ndarray of shape (A, F)
        True where the fault sits in the repair's own part.
    fades_eur : ndarray of shape (A, F)
        What it costs later that the fault is back within a year, where that repair cured it: its chance times what a return costs.
    real : ndarray of shape (F,)
        False for the leak, and for "nothing wrong".
    sound : ndarray of shape (F,)
        1 at "nothing wrong": the trial after any repair comes out clean then, and handing the unit back costs no more than closing it.
    """

    success: Floats
    cost: Floats
    ends: Ints
    close_after: Floats
    close: Floats
    give_up_eur: float
    likelihood: Floats
    at_home: Floats
    away: Floats
    p_home: Floats
    brings_home: Flags
    first_row: Ints
    ask: Floats
    asked_in: Ints
    shuts: Flags
    is_dear: Flags
    buys: Flags
    targets: Flags
    fades_eur: Floats
    real: Flags
    sound: Floats

    @cached_property
    def aims(self) -> Floats:
        """What each repair is there to cure: ``success`` without the clean trial of a sound unit, of shape (A, F)."""
        return self.success * (1.0 - self.sound)

    @cached_property
    def goodwill(self) -> Floats:
        """Expected cost of what comes back after each repair, of shape (A, F)."""
        return self.success * self.fades_eur

    @cached_property
    def give_up(self) -> Floats:
        """Cost of handing the unit back unrepaired, closing apart, for each fault, of shape (F,)."""
        return self.give_up_eur * (1.0 - self.sound)

    @cached_property
    def pull(self) -> Floats:
        """``aims``, ``goodwill``, one and ``give_up`` beside each other, for one product with many weights, of shape (F, 2 A + 2)."""
        return np.ascontiguousarray(np.vstack([self.aims, self.goodwill, np.ones_like(self.sound), self.give_up]).T)

    @cached_property
    def left(self) -> Floats:
        """P(repair leaves fault), of shape (A, F)."""
        return 1.0 - self.success

    @cached_property
    def incurable(self) -> Floats:
        """Share of each fault that is left after every repair there is, of shape (F,)."""
        return np.asarray(np.prod(1.0 - self.success, axis=0))

    @cached_property
    def least_each(self) -> Floats:
        """What each repair costs where it is cheapest, of shape (A,)."""
        return np.asarray(self.cost.min(axis=0))

    @cached_property
    def close_more(self) -> Floats:
        """What closing costs in each state beyond where it is cheapest, a repaired unit's included, of shape (S,)."""
        return self.close - min(float(self.close.min()), float(self.close_after.min(initial=np.inf)))

    @cached_property
    def question_of(self) -> Ints:
        """The question of each answer, of shape (R,)."""
        return np.repeat(np.arange(len(self.first_row) - 1), np.diff(self.first_row))

    def giving_up(self, w: Floats, state: int) -> float:
        """Return the cost of handing the unit back from that state, in euro times the total weight of ``w``, of shape (F,)."""
        return float(w @ self.give_up + w.sum() * self.close[state])

    def curing(self, w: Floats, state: int, repair: int) -> float:
        """Return what the units that a repair cures cost after it, in euro times the total weight of ``w``: closing, and what comes back."""
        return float(w @ self.success[repair] * self.close_after[state, repair] + w @ self.goodwill[repair])

    def asking(self, state: int, question: int) -> float:
        """Return what it costs to ask in that state, in euro (the way there included)."""
        return float(self.ask[state, question])

    def rows(self, *, is_home: bool) -> Floats:
        """Return P(answer | fault), of shape (R, F), with the disc home for certain or not."""
        return self.at_home if is_home else self.likelihood

    def rows_of(self, question: int) -> slice:
        """Return where the answers of a question stand."""
        return slice(int(self.first_row[question]), int(self.first_row[question + 1]))


def state_of(depth: int, *, is_live: bool) -> int:
    """Return the state of the bench: how far the unit is open, and whether the mains are in."""
    return 2 * depth + is_live


def depth_in(state: int) -> int:
    """Return how far the unit is open in a state."""
    return state // 2


def is_live_in(state: int) -> bool:
    """Tell whether the mains are in, in a state."""
    return bool(state % 2)


@dataclass(frozen=True)
class Asked:
    """A question as a move, or a swap test with a donor's part."""

    id: str
    question: Question | None = None
    swap: Stock | None = None
    repair: Repair | None = None

    @property
    def title(self) -> str:
        """What it asks, in words."""
        if self.question is not None:
            return self.question.ask
        item, name = (self.swap.item if self.swap else "") or "the donor’s part", self.repair.name.lower() if self.repair else ""
        return f"Try {item}: {name}, then the old one back"


@dataclass(frozen=True)
class Plan:
    """A problem with what its rows stand for."""

    problem: Problem
    asks: tuple[Asked, ...]
    sources: tuple[Stock | None, ...]
    """Where each repair's part comes from; None where it is ordered, or none is needed."""
    economy: Economy
    repairs: tuple[Repair, ...]
    p_year: Floats
    """P(still well after a year | the repair cured the fault, with the part that it would use), of shape (A, F)."""
    advisable: Flags
    """Which repairs an advice may name, of shape (A,): none that takes away from what keeps people safe, none that is no move on this drive."""

    @cached_property
    def place_of(self) -> Mapping[str, int]:
        """Position of each question and swap test among the asks."""
        return {a.id: n for n, a in enumerate(self.asks)}

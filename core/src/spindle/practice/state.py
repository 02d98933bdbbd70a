"""A practice unit as a value: its moves, what came of each, and where the bench stands."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

import numpy as np

from spindle.diagnosis.planning.lookahead import Position
from spindle.diagnosis.planning.plan import part_terms
from spindle.drives.sheet import Pairing
from spindle.faults.model import CANT_TELL
from spindle.practice.hidden import Hidden
from spindle.practice.lessons import Lesson
from spindle.practice.meter import Tips
from spindle.study.worlds import Setup
from spindle.words.bench import Mains


class Do(StrEnum):
    """What a learner can do."""

    LOOK = "look"
    REPAIR = "repair"
    SWAP = "swap"
    PROVE = "prove"
    HAND_BACK = "hand_back"
    LISTEN = "listen"
    HINT = "hint"
    GUESS = "guess"
    OPEN = "open"
    MAINS = "mains"


class Care(StrEnum):
    """What a careful hand does beside a repair."""

    DRY = "dry"
    LOOK_OVER = "look_over"
    OWN_BOARD = "own_board"


@dataclass(frozen=True, slots=True)
class Move:
    """One thing that a learner does.

    ``what`` is a question or a repair by its id (a swap is a repair with a donor's part), the part of a guess, or how far it is opened;
    ``care`` is how carefully. ``mains`` is the state in which something is measured, where any is the one that its limit is for; or
    what it is turned to.
    """

    do: Do
    what: str = ""
    care: frozenset[Care] = frozenset()
    percent: int = 0
    mains: Mains = Mains.ANY


@dataclass(frozen=True, slots=True)
class Beside:
    """A move beside the best one: what it was expected to cost to the end more than the best, and what that was; None where nobody judges."""

    regret_eur: float
    best: Move | None
    traps: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Done:
    """A move with what came of it: the world's answer in words, what it cost, and how it stood beside the best."""

    move: Move
    says: str
    outcome: str = ""
    eur: float = 0.0
    minutes: float = 0.0
    beside: Beside | None = None
    mishap: str = ""
    has_cured: bool = False
    """A repair that took at least one fault away."""


@dataclass(frozen=True)
class Session:
    """Where a practice unit stands. What is ``hidden`` is the world's alone.

    Attributes
    ----------
    at : where the bench stands by what was seen: belief, state, what is free and open
    answers : question -> outcome, the newest
    readings : question -> what the meter showed, the newest
    tips : where the meter's tips lie; None until something is measured, and after a repair
    tried, swapped : repairs that were tried, and those that a donor's part was tried for, which changed nothing
    is_clean, is_proved : the last trial came out clean, and three passes more did
    listened_at : repairs that were tried when somebody listened last; -1 if nobody did
    is_over, is_repaired : it has been handed back, working or not
    """

    lesson: Lesson
    seed: int
    ready: Setup
    hidden: Hidden
    at: Position
    done: tuple[Done, ...] = ()
    answers: dict[str, str] = field(default_factory=dict)
    looks: dict[str, int] = field(default_factory=dict)
    readings: dict[str, str] = field(default_factory=dict)
    tips: Tips | None = None
    tried: tuple[str, ...] = ()
    swapped: tuple[str, ...] = ()
    is_clean: bool = False
    is_proved: bool = False
    listened_at: int = -1
    is_over: bool = False
    is_repaired: bool = False
    guess: tuple[str, int] | None = None
    is_judged: bool = False
    """Each move is laid beside the best one: that takes longer than to answer it, and is done once it is over."""

    @property
    def cost_eur(self) -> float:
        """All that was spent."""
        return sum(d.eur for d in self.done)

    @property
    def minutes(self) -> float:
        """Minutes at the bench."""
        return sum(d.minutes for d in self.done)

    @property
    def knows_loose(self) -> bool:
        """Something is known to be loose inside, and not out yet."""
        heard = self.answers.get("rattle") == "rattles" or self.answers.get("object_search") == "found"
        return heard and "remove_object" not in self.tried and self.answers.get("object_search") != "nothing"

    @property
    def has_repaired(self) -> bool:
        """Something was tried already, with a new part or a donor's: a first guess comes too late."""
        return any(d.move.do in {Do.REPAIR, Do.SWAP} for d in self.done)

    @property
    def may_play(self) -> bool:
        """Somebody has listened to it as it is now."""
        return self.listened_at == len(self.tried)

    @property
    def rng(self) -> np.random.Generator:
        """The dice of the next move."""
        return np.random.default_rng([self.seed, 72, self.lesson.number, len(self.done)])


def look_cost(s: Session, question: int) -> tuple[float, float]:
    """Return what a look costs from here, in euro, and its minutes; the way there included."""
    eur = s.ready.problem.asking(s.at.state, question)
    return eur, eur / s.ready.plan.economy.rate_eur_per_min


def repair_cost(s: Session, repair: int) -> tuple[float, float]:
    """Return what a repair costs from here, in euro, its part and its wait included, and the minutes at the bench."""
    economy, (price_eur, wait_days) = s.ready.plan.economy, part_terms(s.ready.plan.repairs[repair], s.ready.model)
    eur = float(s.ready.problem.cost[s.at.state, repair])
    return eur, max(0.0, (eur - price_eur - economy.waiting(wait_days)) / economy.rate_eur_per_min)


def needs_board(s: Session, repair: str) -> bool:
    """Whether a repair brings a board that the console does not know."""
    return repair == "replace_drive" and s.ready.model.sheet.pairing is Pairing.BOARD


def is_known(s: Session, question: str) -> bool:
    """Whether a question was answered."""
    return s.answers.get(question, CANT_TELL) != CANT_TELL

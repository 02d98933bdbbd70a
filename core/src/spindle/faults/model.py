"""The words in which a fault model is declared: faults, questions with their rows, repairs, and how deep the unit is open.

A model is data. :mod:`spindle.diagnosis.compiled` turns it into arrays for one drive.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import IntEnum, StrEnum
from typing import Final

CANT_TELL: Final = "cant_tell"
"""Answer to any question; it is logged and weighs nothing."""
LEAK: Final = "not_listed"
"""The fault that is always in every model: "not on the list"."""


class Depth(IntEnum):
    """How far the unit is open."""

    CLOSED = 0
    COVER_OFF = 1
    DRIVE_OPEN = 2
    DECK_OUT = 3


class Mains(StrEnum):
    """The mains state that a step needs."""

    ANY = "any"
    LIVE = "live"
    OUT = "out"


class QuestionKind(StrEnum):
    """Where a question belongs on the screens."""

    INTAKE = "intake"
    BASELINE = "baseline"
    DISC_CLASS = "disc_class"
    LOOK = "look"
    TEST = "test"
    READING = "reading"


@dataclass(frozen=True, slots=True)
class Part:
    """A sub-assembly: what is drawn on the plan, shaded by suspicion, and swapped. ``short`` fits on a tape."""

    id: str
    name: str
    short: str


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing that can be wrong. ``prior`` is its share of the faulty units of the family that reach a bench."""

    id: str
    part: str
    name: str
    prior: float
    why: str
    needs: str = ""
    """A feature of the drive sheet without which the fault cannot exist."""


@dataclass(frozen=True, slots=True)
class Outcome:
    """One possible answer: its label on the button, and the line it becomes on the tape."""

    id: str
    label: str
    line: str


@dataclass(frozen=True, slots=True)
class Row:
    """P(outcome | fault) in whole percent for some faults (space-separated ids; ``*`` is everything not named)."""

    faults: str
    percent: tuple[int, ...]
    why: str


@dataclass(frozen=True, slots=True)
class Question:
    """An observation, test or reading with its answers and their chances under each fault."""

    id: str
    kind: QuestionKind
    ask: str
    how: str
    outcomes: tuple[Outcome, ...]
    rows: tuple[Row, ...]
    bench_min: float
    depth: Depth = Depth.CLOSED
    mains: Mains = Mains.ANY
    cautions: tuple[str, ...] = ()
    needs: str = ""
    temper: float = 1.0
    """Exponent on the likelihood: below 1 for questions that partly see the same thing as another."""
    order: int = 0
    """Place in the baseline sequence; 0 for questions outside it."""
    fails: tuple[str, ...] = ()
    """Outcomes that mean "this stage did not work", worst last."""

    def outcome(self, outcome_id: str) -> Outcome | None:
        """Return the outcome of that id, or None."""
        return next((o for o in self.outcomes if o.id == outcome_id), None)


@dataclass(frozen=True, slots=True)
class Repair:
    """A repair or swap with what it costs here and what it cures."""

    id: str
    part: str
    name: str
    cures: Mapping[str, float]
    """P(this cures the fault, done once with a good part)."""
    bench_min: float
    depth: Depth
    part_eur: float = 0.0
    wait_days: float = 0.0
    p_damage: float = 0.0
    uses_item: bool = False
    """True if a new or donor part goes in, whose own health is uncertain."""
    why: str = ""
    needs: str = ""
    stopgap: bool = False
    worsens: Mapping[str, float] = field(default_factory=dict)
    """P(it gets worse | this fault, not cured): a reflow that makes it worse speaks for the chip (trap T4)."""


@dataclass(frozen=True, slots=True)
class Depths:
    """Cumulative minutes to open the unit to each depth, and to close it from there."""

    open_min: tuple[float, ...]
    close_min: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class FaultModel:
    """Everything that is believed about one loader family."""

    family: str
    parts: tuple[Part, ...]
    faults: tuple[Fault, ...]
    questions: tuple[Question, ...]
    repairs: tuple[Repair, ...]
    depths: Depths
    schools: Mapping[str, tuple[str, tuple[str, ...]]] = field(default_factory=dict)
    """Rule-of-thumb orders of repair: id -> (name, repair ids in order)."""

"""What the advice consists of: moves, previews, notices."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import overload

from spindle.diagnosis.planning.possible import Barred
from spindle.words.bench import Depth


class MoveKind(StrEnum):
    """Ask a question, try a donor's part, do a repair, or stop and hand the unit back."""

    ASK = "ask"
    SWAP = "swap"
    REPAIR = "repair"
    STOP = "stop"


@dataclass(frozen=True)
class AnswerPreview:
    """What one answer would do, before it is given."""

    outcome: str
    label: str
    chance: float
    top_fault: str
    top_p: float
    next_repair: str
    """The repair that would then be best; empty where giving the unit back would be."""


@dataclass(frozen=True)
class Move:
    """One thing to do next, with its price and its expected cost to the end ("at most about": it is an upper bound)."""

    kind: MoveKind
    id: str
    title: str
    expected_eur: float
    saves_eur: float
    step_eur: float = 0.0
    bench_min: float = 0.0
    opening_min: float = 0.0
    part_eur: float = 0.0
    wait_days: float = 0.0
    depth: Depth = Depth.CLOSED
    mains: str = "any"
    p_cures: float = 0.0
    p_lasts_year: float = 0.0
    """P(a repair cures, and the unit is still well after a year)."""
    cautions: tuple[str, ...] = ()
    answers: tuple[AnswerPreview, ...] = ()
    why: str = ""
    repair: str = ""
    """The repair of a swap test or a repair."""
    item: str = ""
    """The part on the shelf, at a donor or on its way that it would use; empty if one is ordered or none is needed."""
    source: str = ""
    """"shelf", "donor" or "transit"; empty if it is ordered or none is needed."""


class Moves(Sequence[Move]):
    """Moves in their order, each told when somebody looks at it: of a hundred, a screen shows six.

    Parameters
    ----------
    p_cures : P(cured) of each move, 0 where it repairs nothing
    tell : returns the move of a place in the order
    """

    def __init__(self, p_cures: Sequence[float], tell: Callable[[int], Move]) -> None:
        self._p_cures, self._tell = p_cures, tell
        self._told: dict[int, Move] = {}

    def __len__(self) -> int:
        return len(self._p_cures)

    @overload
    def __getitem__(self, place: int) -> Move: ...
    @overload
    def __getitem__(self, place: slice) -> tuple[Move, ...]: ...
    def __getitem__(self, place: int | slice) -> Move | tuple[Move, ...]:
        places = range(len(self))[place]
        return self._at(places) if isinstance(places, int) else tuple(self._at(n) for n in places)

    def repairs(self, at_least: float) -> Iterator[Move]:
        """Yield the repairs that cure at least so often, likeliest first; of those that cure alike the better move."""
        for n in sorted((n for n, p in enumerate(self._p_cures) if p >= at_least), key=lambda n: -self._p_cures[n]):
            yield self._at(n)

    def _at(self, n: int) -> Move:
        if n not in self._told:
            self._told[n] = self._tell(n)
        return self._told[n]


@dataclass(frozen=True, slots=True)
class SameGo:
    """A look that pays by itself and lies where the first move opens the unit anyway: done in the same go, for its own minutes alone."""

    id: str
    title: str
    """What it is a look at: its question up to the colon, or without its mark."""
    bench_min: float


@dataclass(frozen=True)
class MindChange:
    """An answer not yet given, to a question or by a swap, that would change the best repair."""

    question: str
    outcome: str
    chance: float
    step_eur: float
    next_repair: str
    ask: str
    """The question, or the swap that asks, in words."""
    label: str


@dataclass(frozen=True)
class MindHolder:
    """A finding without which another repair would be best ("" where giving up would be)."""

    finding: str
    repair: str


@dataclass(frozen=True)
class Notice:
    """Something that has to be said beside the next move. ``findings`` are the lines it is about."""

    code: str
    text: str
    findings: tuple[str, ...] = ()


@dataclass(frozen=True)
class Advice:
    """The moves from here, best first, and what speaks beside them."""

    moves: Moves
    mind_changes: tuple[MindChange, ...]
    best_repair: str
    barred: tuple[Barred, ...] = ()
    is_tie: bool = False
    should_think: bool = False
    same_go: tuple[SameGo, ...] = ()
    held_back: str = ""
    """A dear repair that stands behind a cheap untested cause (trap T32); empty if none."""

"""What a decision does beside the tape: to the shelf, to what a job waits for, to its sheet. Carried out by whoever keeps those."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from spindle.job.value import SheetRef
from spindle.words.health import Health


@dataclass(frozen=True, slots=True)
class Take:
    """One piece leaves the shelf, or the donor that it sits in, for the line of that number. Taken for good until it is given back."""

    line: int
    tag: str
    origin: str = ""
    """The donor that it is taken out of; "" if it lies on the shelf."""
    level: str = ""


@dataclass(frozen=True, slots=True)
class GiveBack:
    """The piece that a line took goes back on the shelf, with what it was seen to do."""

    line: int
    seen: Mapping[str, bool] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class FitForGood:
    """The piece that a line took stays in the unit that goes home."""

    line: int


@dataclass(frozen=True, slots=True)
class Want:
    """The job waits for the part of this repair; a repair that takes none waits for nothing."""

    repair: str
    p_success: float


@dataclass(frozen=True, slots=True)
class Unwant:
    """The job waits no more for the part of a repair; for nothing at all if it is ""."""

    repair: str = ""


@dataclass(frozen=True, slots=True)
class OwnOut:
    """An owner's part leaves its unit under a tag of its own."""

    tag: str
    level: str
    place: str


@dataclass(frozen=True, slots=True)
class OwnBack:
    """An owner's part is back in its unit."""

    tag: str


@dataclass(frozen=True, slots=True)
class OwnLeft:
    """The owner leaves a part with the shop."""

    tag: str
    by_name: str


@dataclass(frozen=True, slots=True)
class UnitLeft:
    """The owner leaves the unit with the shop: it becomes a donor."""

    by_name: str


@dataclass(frozen=True, slots=True)
class UseSheet:
    """The job goes by another sheet from here."""

    sheet: SheetRef


Effect = Take | GiveBack | FitForGood | Want | Unwant | OwnOut | OwnBack | OwnLeft | UnitLeft | UseSheet


@dataclass(frozen=True, slots=True)
class ShelfPiece:
    """A piece as the shelf or a donor has it. ``tag`` is the one that it has, or gets when it is taken out of its donor."""

    tag: str
    level: str
    health: Health = Health.NEW
    works: frozenset[str] = frozenset()
    fails: frozenset[str] = frozenset()
    price_cents: int = 0
    is_here: bool = True
    donor: str = ""
    owner: str = ""
    """The job whose owner it belongs to; "" if it is the shop's."""

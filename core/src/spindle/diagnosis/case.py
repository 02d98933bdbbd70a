"""A bench case: the drive, the findings in their order, how deep the unit is open."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from enum import StrEnum
from types import MappingProxyType
from typing import Final

from spindle.diagnosis.cost import Economy
from spindle.drives.sheet import DriveSheet
from spindle.faults.model import Depth


class Source(StrEnum):
    """Who says so. What the bench logged weighs most, the owner's report least (trap T19)."""

    BENCH = "bench"
    REMEMBERED = "remembered"
    OWNER = "owner"


UNRELIABILITY: Final = MappingProxyType({Source.BENCH: 0.03, Source.REMEMBERED: 0.10, Source.OWNER: 0.20})
"""P(the answer is a mere guess), by source: one slip in thirty at the bench; invented, of the size that people admit to."""


class Health(StrEnum):
    """What is known of a part before it goes in."""

    PROVEN = "proven"
    NEW = "new"
    UNKNOWN = "unknown"


P_BAD_ITEM: Final = MappingProxyType({Health.PROVEN: 0.01, Health.NEW: 0.04, Health.UNKNOWN: 0.35})
"""P(the part itself is bad): new does not mean good (trap T25), and a third of unknown donors were donors for that reason."""


class TrialResult(StrEnum):
    """What a trial after one or more changes showed."""

    NO_CHANGE = "no_change"
    WORSE = "worse"
    CLEAN = "clean"


@dataclass(frozen=True, slots=True)
class Answer:
    """An answer to a question; ``failed`` of ``tries`` where it was tried more than once."""

    question: str
    outcome: str
    source: Source = Source.BENCH
    tries: int | None = None
    failed: int | None = None


@dataclass(frozen=True, slots=True)
class Change:
    """One thing changed: a repair, and the physical item that went in, if any."""

    repair: str
    item: str = ""
    health: Health = Health.NEW


@dataclass(frozen=True, slots=True)
class Trial:
    """A trial after everything in ``changes`` was changed together; they share its credit (trap T17)."""

    changes: tuple[Change, ...]
    result: TrialResult
    clean_passes: int = 0


@dataclass(frozen=True, slots=True)
class Remark:
    """Words for people; no weight."""

    text: str


@dataclass(frozen=True, slots=True)
class Finding:
    """One line of the tape."""

    id: str
    what: Answer | Trial | Remark
    is_struck: bool = False


@dataclass(frozen=True, slots=True)
class Case:
    """Everything that the diagnosis is computed from. Nothing of the result is kept in it."""

    sheet: DriveSheet
    findings: tuple[Finding, ...] = ()
    depth: Depth = Depth.CLOSED
    economy: Economy = field(default_factory=Economy)

    @property
    def standing(self) -> tuple[Finding, ...]:
        """The findings that are not struck."""
        return tuple(f for f in self.findings if not f.is_struck)

    def without(self, finding_id: str) -> Case:
        """Return the case as it would stand with that finding struck."""
        return replace(self, findings=tuple(f for f in self.findings if f.id != finding_id))

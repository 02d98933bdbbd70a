"""A bench case: the drive, the findings in their order, how deep the unit is open, and what the shelf holds for it."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum
from typing import Annotated

from spindle.diagnosis.given.economy import Economy
from spindle.drives.sheet import DriveSheet
from spindle.words.bench import Depth, Instrument, Power
from spindle.words.bounds import LengthBound, NumberBound, Short, TextBound, Tries, Word
from spindle.words.health import Health
from spindle.words.witness import Witness


class TrialResult(StrEnum):
    """What a trial after one or more changes showed."""

    NO_CHANGE = "no_change"
    WORSE = "worse"
    CHANGED = "changed"
    """Part of the trouble is gone, or it is another now: one fault of two may be cured."""
    CLEAN = "clean"


@dataclass(frozen=True, slots=True)
class Change:
    """One thing changed: a repair, and the physical item that went in, if any."""

    repair: Word
    item: Short = ""
    health: Health = Health.NEW
    works: Annotated[frozenset[Word], LengthBound(6)] = frozenset()
    """Functions in which the item is known good (trap T14); see :data:`spindle.words.health.FUNCTIONS`."""
    fails: Annotated[frozenset[Word], LengthBound(6)] = frozenset()
    """Functions in which it is known to fail."""
    lot: Short = ""
    """Items of one lot share their luck."""
    stays: bool = False
    """True if the item stayed in after a trial without change; by default the original goes back."""


@dataclass(frozen=True, slots=True)
class Setting:
    """The state in which something was seen. An empty field was not said, and is taken as the question asks for it."""

    mains: Annotated[str, TextBound(4, "^(|live|out)$")] = ""
    """"live" or "out"."""
    cover: Annotated[str, TextBound(3, "^(|on|off)$")] = ""
    """"on" or "off"."""
    disc_side: Annotated[str, TextBound(5, "^(|right|wrong)$")] = ""
    """"right" or "wrong" way round for the position on the bench (trap T23)."""
    board: Annotated[str, TextBound(5, "^(|own|other)$")] = ""
    """"own" or "other": whose drive board was fitted (traps T15 and T16)."""
    console: Annotated[str, TextBound(5, "^(|own|other)$")] = ""
    """"other": this drive on another console, known to be good."""
    fitted: Annotated[tuple[Change, ...], LengthBound(4)] = ()
    """What sat in it instead of the unit's own part, each named by the repair that fits it."""
    on: Short = ""
    """The donor that it was seen on, by itself: it says nothing of this unit until a piece of that donor is in it."""

    @property
    def is_elsewhere(self) -> bool:
        """True if it is not about this unit with its own parts."""
        return bool(self.fitted or self.on or self.console == "other")


@dataclass(frozen=True, slots=True)
class Weight:
    """How far a measured value speaks for one answer."""

    outcome: Word
    share: Annotated[float, NumberBound(0.0, 1.0)]


@dataclass(frozen=True, slots=True)
class Answer:
    """An answer to a question; ``failed`` of ``tries`` where it was tried more than once; ``seconds`` to play where timed.

    ``weights`` where it was measured: how far the value speaks for each answer, summing to 1; ``outcome`` is the one that it speaks for most.
    """

    question: Word
    outcome: Word
    source: Witness = Witness.BENCH
    tries: Annotated[int, NumberBound(1, 1_000)] | None = None
    failed: Tries | None = None
    seconds: Annotated[float, NumberBound(0.1, 3_600)] | None = None
    setting: Setting = Setting()
    weights: Annotated[tuple[Weight, ...], LengthBound(12)] = ()


@dataclass(frozen=True, slots=True)
class Trial:
    """A trial after everything in ``changes`` was changed together; they share its credit (trap T17)."""

    changes: Annotated[tuple[Change, ...], LengthBound(8, 1)]
    result: TrialResult
    clean_passes: Tries = 0


@dataclass(frozen=True, slots=True)
class Remark:
    """Words for people; no weight."""

    text: Annotated[str, TextBound(2_000, least=1, is_stripped=True)]


@dataclass(frozen=True, slots=True)
class Finding:
    """One line of the tape."""

    id: str
    what: Answer | Trial | Remark
    is_struck: bool = False


@dataclass(frozen=True, slots=True)
class Stock:
    """A part for one repair that is here, a donor's, or on its way: it changes what the repair costs, and how sure it is."""

    repair: str
    item: str = ""
    health: Health = Health.NEW
    works: frozenset[str] = frozenset()
    fails: frozenset[str] = frozenset()
    price_eur: float = 0.0
    wait_days: float = 0.0
    """0 if it is here; the days that are left if it is in transit."""
    is_donor: bool = False
    """A donor's part can be tried and taken out again: a swap test."""


@dataclass(frozen=True, slots=True)
class Bench:
    """The state of the bench beside the findings: what can be done on it now."""

    power: Power = Power.OUT
    no_power: str | None = None
    """Why no step that needs power may be done now, in words; empty if none is barred, None if the findings alone say it."""
    lacks: frozenset[Instrument] = frozenset()
    """Instruments that the shop does not have."""


@dataclass(frozen=True, slots=True)
class Case:
    """Everything that the diagnosis is computed from. Nothing of the result is kept in it."""

    sheet: DriveSheet
    findings: tuple[Finding, ...] = ()
    depth: Depth = Depth.CLOSED
    economy: Economy = field(default_factory=Economy)
    stock: tuple[Stock, ...] = ()
    bench: Bench = Bench()

    @property
    def standing(self) -> tuple[Finding, ...]:
        """The findings that are not struck."""
        return tuple(f for f in self.findings if not f.is_struck)

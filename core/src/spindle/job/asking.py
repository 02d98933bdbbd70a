"""What an ask is: its body, what it needs, how it is decided; and what a kind of line is: how it is folded and said."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final, Protocol

from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.economy import Economy
from spindle.errors import NotNowError
from spindle.job.barring import check_mains
from spindle.job.effects import Effect, ShelfPiece
from spindle.job.line import Draft, Line
from spindle.job.stages import NAMES, Stage
from spindle.job.value import Job, SheetRef
from spindle.sound.listening import Heard
from spindle.words.bench import Depth, Instrument, Mains
from spindle.words.duty import Duty

OPEN: Final = frozenset(s for s in Stage if s is not Stage.CLOSED)
ALWAYS: Final = frozenset(Stage)


class World(Protocol):
    """What a decision may ask beyond the job itself. It is asked, never changed: what changes is an effect."""

    @property
    def now(self) -> datetime:
        """The moment of the ask."""

    @property
    def economy(self) -> Economy:
        """The shop's figures."""

    @property
    def lacks(self) -> frozenset[Instrument]:
        """The instruments that the shop does not have."""

    @property
    def price_cents_per_min(self) -> int:
        """What the shop charges for a minute."""

    def stock(self) -> tuple[Stock, ...]:
        """Return what the shelf holds for this unit, without what the job's own tape speaks of."""

    def piece(self, tag: str, level: str) -> ShelfPiece | None:
        """Return the piece of that tag, or the piece of that level in the donor of that tag; None if there is no such thing."""

    def gone(self, piece: ShelfPiece) -> NotNowError | Exception:
        """Return the error that says who has the last one and what else fits."""

    def has_photo(self, name: str) -> bool:
        """Tell whether the picture of that hash was sent."""

    def heard(self, name: str) -> Heard:
        """Return what is in the recording of that hash, or raise NotFoundError."""

    def sheet(self, number: int) -> SheetRef:
        """Return a version of a drive sheet, or raise NotFoundError."""


@dataclass(frozen=True, slots=True)
class Decision:
    """What comes of an ask: lines for the tape, and effects beside it. Nothing at all if it changes nothing."""

    drafts: tuple[Draft, ...] = ()
    effects: tuple[Effect, ...] = ()


NOTHING_CHANGES: Final = Decision()


def one(kind: str, body: Mapping[str, Any], *effects: Effect) -> Decision:
    """Return the decision for one line."""
    return Decision((Draft(kind, body),), effects)


@dataclass(frozen=True, slots=True)
class Needs:
    """What an ask needs. Whoever says nothing may do it in no stage."""

    when: frozenset[Stage] = frozenset()
    duty: Duty = Duty.BENCH
    mains: Mains = Mains.ANY
    depth: Depth | None = None
    """The unit has to be open exactly so far."""

    def check(self, job: Job, now: datetime) -> None:
        """Refuse what the state of the job does not allow.

        Raises
        ------
        NotNowError
        """
        if job.stage not in self.when:
            if job.stage is Stage.CLOSED:
                raise NotNowError("This job is closed. A return opens a new one.", reason="closed")
            where = " or ".join(NAMES[s] for s in Stage if s in self.when) or "no stage"
            raise NotNowError(f"The job is at {NAMES[job.stage]}: this is done at {where}.", reason="other_stage")
        if self.depth is not None and (job.depth != self.depth or (self.depth is Depth.CLOSED and job.mat.open)):
            raise NotNowError("Close the unit first: proof counts with the screws in.", reason="open")
        check_mains(job, self.mains, now)


@dataclass(frozen=True, slots=True)
class Speech:
    """What a line needs to be said in plain words: the drive's vocabulary, and the sign of the shop's money."""

    job: Job
    sign: str = "€"


@dataclass(frozen=True)
class AskKind:
    """One thing that can be asked of a job.

    Attributes
    ----------
    name : what the wire calls it
    body : the dataclass of what it says; bounds stand at its fields (:mod:`spindle.words.bounds`)
    needs : what it needs, or what it needs by what it says
    touches : the tags of the shelf's things that it may move: they are locked, in one order, before it is decided
    """

    name: str
    body: type[Any]
    decide: Callable[[Job, Any, World], Decision]
    needs: Needs | Callable[[Any], Needs] = Needs()
    touches: Callable[[Job, Any], Iterable[str]] = lambda _job, _ask: ()

    def needed(self, ask: Any) -> Needs:
        """Return what this very ask needs."""
        return self.needs if isinstance(self.needs, Needs) else self.needs(ask)


@dataclass(frozen=True)
class LineKind:
    """One kind of line.

    Attributes
    ----------
    fold : the job after the line; a line that is only there to be read leaves it as it is
    says : the line in plain words
    is_finding : it stands among the findings, and can be struck there
    weighs : it is evidence, where it stands
    strikes : for lines that strike others or let them stand again: changes the map of struck lines, before anything is folded
    """

    name: str
    says: Callable[[Mapping[str, Any], Speech], str]
    fold: Callable[[Job, Line], Job] = lambda job, _line: job
    asks: tuple[AskKind, ...] = ()
    is_finding: bool = False
    weighs: bool = False
    strikes: Callable[[dict[int, Line], Line], None] | None = None

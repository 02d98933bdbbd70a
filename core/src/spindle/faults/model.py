"""The words in which a fault model is declared: faults, questions with their rows, repairs, and how deep the unit is open.

A model is data. :mod:`spindle.diagnosis.given.compiled` turns it into arrays for one drive.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any, Final

from spindle.words.bench import Depth, Mains, Reach

CANT_TELL: Final = "cant_tell"
"""Answer to any question; it is logged and weighs nothing."""
LEAK: Final = "not_listed"
"""The fault that is always in every model: "not on the list"."""
NOTHING: Final = "nothing_wrong"
"""The other one that always is: the drive is sound, and the trouble lay elsewhere or came and went (C65)."""
SOUND_PART: Final = "nothing"
"""The part that it is listed under."""


class QuestionKind(StrEnum):
    """Where a question belongs on the screens."""

    INTAKE = "intake"
    BASELINE = "baseline"
    DISC_CLASS = "disc_class"
    LOOK = "look"
    TEST = "test"
    READING = "reading"


@dataclass(frozen=True, slots=True)
class SubAssembly:
    """A sub-assembly: what is drawn on the plan, shaded by suspicion, and swapped. ``short`` fits on a tape."""

    id: str
    name: str
    short: str
    function: str = "starts"
    """What fails with it, one of :data:`spindle.words.health.FUNCTIONS`: a donor is known good function by function."""


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
    opened_by: str = ""
    """Set on handling faults only: the kind of step of ours that can bring it (see :data:`HANDLING`). Its ``prior`` is then
    the chance that such a step brings it, and it weighs nothing before a step was done (trap T18)."""
    like: str = ""
    """Faults whose signs a handling fault shows, where no row names it: the mean of theirs."""


HANDLING: Final = ("opened", "wet", "mechanism", "item")
"""What a step of ours can bring trouble by: the drive was opened, cleaner was used, gears were apart, an item stayed in."""


@dataclass(frozen=True, slots=True)
class Outcome:
    """One possible answer: its label on the button, and the line it becomes on the tape."""

    id: str
    label: str
    line: str


@dataclass(frozen=True, slots=True)
class Row:
    """P(outcome | fault) in whole percent for some faults.

    ``faults`` holds space-separated ids. ``*`` is everything not named, ``diode:…`` the diodes of this drive by what they
    read, ``@group`` the faults that the loader family puts in that group.
    """

    faults: str
    percent: tuple[int, ...]
    why: str
    needs: str = ""
    """A feature of the drive sheet without which the row does not hold."""


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
    short: str = ""
    """Its name on a small card, where it has one."""
    fails: tuple[str, ...] = ()
    """Outcomes that mean "this stage did not work", worst last."""
    normal: str = ""
    """The answer of a sound unit, where it is not the first."""
    stage: Reach = Reach.NOTHING
    """How far the drive must have come for this to be seen at all."""
    proves: Mapping[str, Reach] = field(default_factory=dict)
    """Answer -> how far the drive came, if that is the answer."""
    stops: Mapping[str, Reach] = field(default_factory=dict)
    """Answer -> what the drive did not reach, if that is the answer."""
    instrument: str = ""
    """What it takes that not every shop has; see :class:`spindle.words.bench.Instrument`."""
    slip: float = 1.0
    """How often the eye is wrong here, against usual: nobody takes a dark console for one that runs."""
    only_after: str = ""
    """Answers (``question=outcome``) of which one has to stand for it to be worth asking: a console that is lit is not tried without its drive."""
    once_there: bool = False
    """Asked only once the drive was seen to come as far as its stage: what does not turn has no sound of turning."""
    unless: str = ""
    """Features of a drive with any of which nobody can ask it there; a tape that has it is read all the same."""
    where: Mapping[str, Mapping[str, Any]] = field(default_factory=dict)
    """Feature of a drive -> what is different there: how deep it lies, what it takes, what it is called."""

    @property
    def is_behaviour(self) -> bool:
        """True if it watches what the drive does; a look at a part itself does not age by a change elsewhere."""
        return self.kind in (QuestionKind.BASELINE, QuestionKind.DISC_CLASS) or self.mains is Mains.LIVE

    @property
    def bad(self) -> tuple[str, ...]:
        """Outcomes that speak for a fault, worst last: those that fail, or all but the normal one."""
        normal = self.normal or self.outcomes[0].id
        return self.fails or tuple(o.id for o in self.outcomes if o.id != normal)

    @property
    def mildest_first(self) -> tuple[str, ...]:
        """Its answers from the normal one to the worst."""
        worse = self.bad
        return (*(o.id for o in self.outcomes if o.id not in worse), *worse)

    @property
    def name(self) -> str:
        """What it is called where there is little room."""
        return self.short or self.id.replace("_", " ")

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
    lasts_months: float
    """Within this time the fault is back in one unit of two; see :mod:`spindle.faults.lasting`."""
    lasts_why: str
    fades: Mapping[str, float] = field(default_factory=dict)
    """The same for faults that it only covers up: fault -> months."""
    part_eur: float = 0.0
    wait_days: float = 0.0
    p_damage: float = 0.0
    uses_item: bool = False
    """True if a new or donor part goes in, whose own health is uncertain."""
    why: str = ""
    needs: str = ""
    stopgap: bool = False
    wet: bool = False
    """True if cleaner is used: it has to dry before power (trap T35)."""
    extra_min: Mapping[str, float] = field(default_factory=dict)
    """Bench minutes more where the drive sheet has the feature ("motor_soldered": 12)."""
    blocked_by: str = ""
    """``question=outcome`` after which it is not offered: a level that reads high is no reason for more drive (trap T12)."""
    blocked_why: str = ""
    """What that answer says against it, in words."""
    only_after: str = ""
    """``question=outcome`` that has to stand before a person may choose it. No advice names such a repair: it takes away from what keeps people safe."""
    instrument: str = ""
    """What it takes that not every shop has; see :class:`spindle.words.bench.Instrument`."""
    worsens: Mapping[str, float] = field(default_factory=dict)
    """P(it gets worse | this fault, not cured): a reflow that makes it worse speaks for the chip (trap T4)."""
    after: Mapping[str, float] = field(default_factory=dict)
    """``question=outcome`` -> P(it cures what it cures at all), once that was seen: cleaning frees a dirty contact and mends no broken lever."""
    unless: str = ""
    """Features of a drive with any of which it is no move there; a tape that has it is read all the same."""
    where: Mapping[str, Mapping[str, Any]] = field(default_factory=dict)
    """Feature of a drive -> what is different there; of ``cures``, what comes on top."""


@dataclass(frozen=True, slots=True)
class Depths:
    """Cumulative minutes to open the unit to each depth, and to close it from there."""

    open_min: tuple[float, ...]
    close_min: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Pair:
    """Two faults that travel together: given one, the other is ``lift`` times likelier than its prior."""

    one: str
    other: str
    lift: float
    why: str


@dataclass(frozen=True, slots=True)
class Link:
    """One link of a signal path: what sits in it, which question tests it alone, which tests everything up to here."""

    id: str
    name: str
    faults: str
    tested_by: tuple[str, ...] = ()
    passed_by: tuple[str, ...] = ()
    """Questions whose good answer passes this link and every one before it."""
    needs: str = ""


@dataclass(frozen=True, slots=True)
class Path:
    """A chain of links from the source to what should happen."""

    id: str
    title: str
    links: tuple[Link, ...]


@dataclass(frozen=True, slots=True)
class ChartNode:
    """One box of a flow chart: ask, and go on by the answer; or do the repairs in order, and go on if none helped."""

    ask: str = ""
    then: Mapping[str, str] = field(default_factory=dict)
    """Answer id -> next node; ``*`` for every answer not named."""
    do: tuple[str, ...] = ()
    after: str = ""
    """Next node when every repair of ``do`` left the fault; "" hands the unit back."""


@dataclass(frozen=True, slots=True)
class Claim:
    """A rule of thumb of the trade that a shop's own counts can speak for or against (C19)."""

    id: str
    text: str
    repair: str
    helps_at_least: float
    """The share of trials of the repair that has to come out clean for the claim to hold; negative: at most this share."""


@dataclass(frozen=True, slots=True)
class FaultModel:
    """Everything that is believed about one loader family."""

    family: str
    parts: tuple[SubAssembly, ...]
    faults: tuple[Fault, ...]
    questions: tuple[Question, ...]
    repairs: tuple[Repair, ...]
    depths: Depths
    groups: Mapping[str, str] = field(default_factory=dict)
    """Name of a group in the shared rows -> this family's faults in it, space-separated."""
    seen_at_least: tuple[str, ...] = ()
    """Baseline stages that have to be answered before isolation begins."""
    reseats: Mapping[Depth, Mapping[str, float]] = field(default_factory=dict)
    """What any repair at that depth or deeper cures by the way: taking the drive out reseats its flex (trap T17)."""
    pairs: tuple[Pair, ...] = ()
    paths: tuple[Path, ...] = ()
    chart: Mapping[str, ChartNode] = field(default_factory=dict)
    """A good flow chart with looks, meter and donors; it begins at ``start``."""
    claims: tuple[Claim, ...] = ()
    home: str = ""
    """The question that shows whether the disc gets home: the hidden step that every later stage shares."""
    way_in: tuple[str, ...] = ()
    """Faults of the way in: where the disc is home all the same, the drive does what a sound one does."""
    schools: Mapping[str, tuple[str, tuple[str, ...]]] = field(default_factory=dict)
    """Rule-of-thumb orders of repair: id -> (name, repair ids in order)."""

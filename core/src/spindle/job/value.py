"""A job as a value: what its tape amounts to, the state of the bench included. Made by :mod:`spindle.job.ledger` alone."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Any

from spindle.bench.opening.mat import Mat
from spindle.bench.opening.recording import recorded_opening
from spindle.bench.opening.steps import NOTHING, Opening, joined
from spindle.diagnosis.given.case import Answer, Change, Finding, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.drives.full_sheet import FullSheet
from spindle.drives.levels import LEVELS
from spindle.job.hazards import Bars, Hazard, Holds, Waits, open_hazards, waits_of
from spindle.job.line import Line
from spindle.job.recordings import Photo, Sound
from spindle.job.stages import Stage
from spindle.words.bench import Depth, Power


@dataclass(frozen=True, slots=True)
class Notes:
    """What the counter wrote down. Money in cents."""

    owner_name: str = ""
    owner_contact: str = ""
    complaint: str = ""
    supply: str = ""
    limit_cents: int | None = None
    promised_on: date | None = None
    condition: Mapping[str, str] = field(default_factory=dict)
    """Prompt id -> choice id."""
    returns: str = ""
    """Tag of the job after which this unit came back; "" if it is here for the first time."""
    is_covered: bool = False
    """It is back with the same fault inside its guarantee: the owner pays nothing."""


@dataclass(frozen=True, slots=True)
class SheetRef:
    """A version of a drive sheet: its number in the record, its name, and the fault model cut to its drive."""

    number: int
    variant: str
    version: int
    model: CompiledModel
    opening: Opening = NOTHING
    """How a unit with it is opened, by the sheets of console and drive; empty if they do not say."""
    full: FullSheet | None = field(default=None, compare=False)
    """Everything that the sheet says; None where only its facts are known."""
    newest: int = 0
    """The number of the newest version of that sheet."""

    @property
    def name(self) -> str:
        """Variant and version, as a line says it."""
        return f"{self.variant} v{self.version}"

    @property
    def waits(self) -> Waits:
        """How long holds last on this drive, by its sheet, in minutes."""
        return waits_of(self.full.rows("waits")) if self.full is not None else {}


@dataclass(frozen=True, slots=True)
class Start:
    """A job before anything happened to it: its tag, the sheet of its drive, and the counter's notes."""

    tag: str
    sheet: SheetRef
    notes: Notes = Notes()
    bridged: frozenset[str] = frozenset()
    """Bridges of lid switches that earlier jobs left in the unit, by the repair that made them."""


@dataclass(frozen=True, slots=True)
class Proposal:
    """What was proposed to the owner last. An empty repair is the decision to hand the unit back as it is."""

    repair: str
    name: str
    total_cents: int
    p_success: float
    is_advised: bool
    number: int
    p_lasts_year: float | None = None
    """None on older lines."""
    end: str = ""
    """How it ends where nothing is repaired; "" for a repair."""


def level_of(out: Line) -> str:
    """Return the level of an own part that is out; older lines know its name alone."""
    return str(out.body.get("level") or next((v.id for v in LEVELS.values() if v.name == out.body["name"]), ""))


@dataclass(frozen=True)
class Job:
    """Where a job stands.

    Attributes
    ----------
    struck : struck line number -> the line that struck it
    holds : what was opened that bars something (the power, a hand, a start that counts), by its kind, cleared or not
    power, depth, wet : the state of the bench: the mains, how far the unit is open, and the parts that cleaner has wetted since
        the mains was last live
    parts : parts for this job that are here, a donor's or on their way, by line number; struck ones are not in it
    away : own parts that are out of the unit, by tag; ``own_out`` counts all that ever were
    looks : what the eye saw of the drive, for the identification key
    repair_depth : how deep the unit was open when the repair began: its steps start there
    mat : which steps in are open, and the places whose screw is not simply its own
    owner_wants : a question or wish of the owner that nobody has answered yet
    recorded, records : steps that were written down while a unit was opened that no sheet knows, and the numbers of their lines
    photos : those that stand, by the number of their line
    sounds : recordings that stand, by the number of their line
    steps, ticks : what was done, by the id of the step; of swap plans by plan and step
    checks, tried : of the proof: which passed; of those that are done several times, how often they were good so far
    left_out : checks that could not be done here, and why
    account : what would be done on the owner's account, and whether the owner agreed
    proofs : numbers of the lines of the proof that stand: they can be struck
    told, collected : who told the owner what, and who fetched the unit
    confirmed : what the cause turned out to be, and by what it is known; None if nobody said
    paid : what was paid in all and how, None if nobody wrote it down
    voided : why it was taken in by mistake, and where it stood then; None for a real job
    on_trial : what sits in it for trying instead of its own parts
    trial_at : place in ``findings`` of the trial since the proposal, -1 if there is none
    """

    start: Start
    notes: Notes
    lines: tuple[Line, ...] = ()
    struck: Mapping[int, Line] = field(default_factory=dict)
    stage: Stage = Stage.TAKEN_IN
    power: Power = Power.OUT
    depth: Depth = Depth.CLOSED
    wet: frozenset[str] = frozenset()
    holds: Holds = field(default_factory=dict)
    findings: tuple[Finding, ...] = ()
    parts: Mapping[int, Line] = field(default_factory=dict)
    away: Mapping[str, Line] = field(default_factory=dict)
    own_out: int = 0
    looks: Mapping[str, str] = field(default_factory=dict)
    proposal: Proposal | None = None
    consents: tuple[Line, ...] = ()
    repair_depth: Depth = Depth.CLOSED
    steps: Mapping[str, Line] = field(default_factory=dict)
    ticks: Mapping[str, Line] = field(default_factory=dict)
    checks: Mapping[str, bool] = field(default_factory=dict)
    tried: Mapping[str, int] = field(default_factory=dict)
    left_out: Mapping[str, str] = field(default_factory=dict)
    account: tuple[Line, ...] = ()
    proofs: frozenset[int] = frozenset()
    passes: int = 0
    failed_passes: int = 0
    on_trial: tuple[Change, ...] = ()
    told: tuple[Line, ...] = ()
    paid: Line | None = None
    collected: Line | None = None
    confirmed: Line | None = None
    voided: Line | None = None
    trial_at: int = -1
    mat: Mat = field(default_factory=Mat)
    photos: Mapping[int, Photo] = field(default_factory=dict)
    sounds: Mapping[int, Sound] = field(default_factory=dict)
    owner_wants: Line | None = None
    recorded: tuple[Mapping[str, Any], ...] = ()
    records: frozenset[int] = frozenset()

    @property
    def tag(self) -> str:
        """The job's tag."""
        return self.start.tag

    @property
    def model(self) -> CompiledModel:
        """The fault model of its drive."""
        return self.start.sheet.model

    @property
    def version(self) -> int:
        """How often it was written to: that of its last line."""
        return self.lines[-1].version if self.lines else 0

    @property
    def next_number(self) -> int:
        """The number of the next line."""
        return len(self.lines) + 1

    @property
    def opening(self) -> Opening:
        """How its unit is opened: by its sheets, and by what was recorded of it where they say nothing."""
        told = self.start.sheet.opening
        return joined(told, recorded_opening(self.recorded)) if self.recorded else told

    def wants_answer(self, proposal: int, since: datetime) -> bool:
        """Tell whether the owner's word on a proposal is still wanted: it stands, no work on it has begun, and nobody has said anything since."""
        stands = self.proposal is not None and self.proposal.number == proposal and self.stage in (Stage.ISOLATE, Stage.AGREE)
        return stands and not any(c.at > since for c in self.consents)

    @property
    def owner_asks(self) -> str:
        """What the owner wants besides yes and no, in a sentence; "" if nothing waits for an answer."""
        if self.owner_wants is None:
            return ""
        asked = self.owner_wants.body
        return f"The owner would rather have: {asked['name']}." if asked["name"] else f"The owner asks: {asked['text']}"

    def hazards(self, now: datetime, bars: Bars | None = Bars.POWER) -> tuple[Hazard, ...]:
        """Return what keeps the power off at a moment, or bars something else; with None, whatever is open."""
        return open_hazards(self.holds, now, bars)

    @property
    def is_left(self) -> bool:
        """True if the owner left the unit here: it is a donor, and nobody's job to repair or to fetch any more."""
        return self.collected is not None and self.collected.kind == "left"

    @property
    def takings(self) -> dict[int, Line]:
        """Those of its parts that were taken from the shelf and are not back, by the number of the line."""
        return {n: line for n, line in self.parts.items() if line.body.get("taking")}

    def part_in_hand(self, repair: str) -> Line | None:
        """Return the part that lies ready for a repair: taken from the shelf, or noted as here; None if it is still to come, or was tried in vain."""
        in_vain = {c.item for t in self.trials if t.result is not TrialResult.CLEAN for c in t.changes if c.item}
        mine = [x for x in self.parts.values() if x.body["repair"] == repair and x.body["item"] not in in_vain]
        here = [x for x in mine if x.body.get("taking") or not (x.body["is_donor"] or x.body["wait_days"])]
        return here[-1] if here else None

    @property
    def trials(self) -> list[Trial]:
        """The trials that stand."""
        return [f.what for f in self.findings if isinstance(f.what, Trial) and not f.is_struck]

    @property
    def trial_since_proposal(self) -> Trial | None:
        """The newest trial since the last proposal, as the proof has left it."""
        what = self.findings[self.trial_at].what if self.trial_at >= 0 else None
        return what if isinstance(what, Trial) else None

    @property
    def is_trial_clean(self) -> bool:
        """True if that trial came out clean and nothing in the proof took it back."""
        trial = self.trial_since_proposal
        return trial is not None and trial.result is TrialResult.CLEAN

    @property
    def fitted(self) -> dict[str, str]:
        """What stayed in after a clean trial, or because somebody said so: tag of the item -> the repair that put it in."""
        return {c.item: c.repair for t in self.trials for c in t.changes if c.item and (c.stays or t.result is TrialResult.CLEAN)}

    @property
    def gaps(self) -> tuple[Line, ...]:
        """Own parts that are out with nothing in their place: the unit shows nothing until one is in."""
        fitted = {*self.fitted.values(), *(c.repair for c in self.on_trial)}
        return tuple(out for out in self.away.values() if not fitted & set(LEVELS[level].repairs if (level := level_of(out)) in LEVELS else ()))

    @property
    def loose(self) -> tuple[str, ...]:
        """Tags that were taken from the shelf and that nothing has fitted."""
        fitted = self.fitted
        return tuple(line.body["item"] for line in self.takings.values() if line.body["item"] not in fitted)

    @property
    def standing(self) -> frozenset[int]:
        """Numbers of the findings, parts, photos, recordings, recorded steps and lines of the proof that are not struck: what can be struck."""
        retold = frozenset(s.retold for s in self.sounds.values() if s.retold)
        kept = frozenset(self.parts) | frozenset(self.photos) | frozenset(self.sounds) | retold
        return frozenset(int(f.id) for f in self.findings if not f.is_struck) | kept | self.proofs | self.records

    @property
    def said(self) -> dict[str, Answer]:
        """The newest standing answer to each question, about this unit with its own parts."""
        mine = [f.what for f in self.findings if isinstance(f.what, Answer) and not f.is_struck and not f.what.setting.is_elsewhere]
        return {a.question: a for a in mine}

    @property
    def is_refused(self) -> bool:
        """True if the owner's last word was no: nothing is repaired then, whatever the limit was."""
        return bool(self.consents) and not self.consents[-1].body["is_agreed"]

    def charged(self, cents: int) -> int:
        """Return what the owner pays of an amount: nothing where the guarantee covers it."""
        return 0 if self.notes.is_covered else cents

    @property
    def agreed_cents(self) -> int:
        """What may be spent: the limit, or a higher amount agreed since. After a "no" only what was agreed after it counts."""
        words = [(bool(c.body["is_agreed"]), int(c.body["amount_cents"])) for c in self.consents]
        last_no = max((n for n, (is_agreed, _) in enumerate(words) if not is_agreed), default=-1)
        limit = (self.notes.limit_cents or 0) if last_no < 0 else 0
        return max([limit, *(cents for _, cents in words[last_no + 1 :])])

    @property
    def has_own_consent(self) -> bool:
        """True if the owner agreed to the very proposal that stands."""
        return any(c.body["is_agreed"] and self.proposal is not None and c.number > self.proposal.number for c in self.consents) and not self.is_refused

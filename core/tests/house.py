"""A house in memory for the laws of a job: two jobs, a shelf and a donor, and writes that happen once, on the version that was seen."""

from dataclasses import astuple, dataclass, field, replace
from datetime import UTC, datetime, timedelta
from functools import cache

from spindle.bench.opening.order import way_back
from spindle.bench.opening.steps import NOTHING, read_opening
from spindle.diagnosis.given.case import Answer, Change, Remark, Stock, Trial, TrialResult
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.drives.full_sheet import FullSheet
from spindle.drives.levels import LEVEL_OF_REPAIR
from spindle.drives.sheet import ReferenceTime
from spindle.errors import GoneError, NotFoundError
from spindle.faults.model import CANT_TELL, QuestionKind
from spindle.job import effects as e
from spindle.job.asking import Speech
from spindle.job.hazards import Bars
from spindle.job.kinds.check import MarkCheck
from spindle.job.kinds.collected import Collect
from spindle.job.kinds.consent import Consent
from spindle.job.kinds.depth import SetDepth
from spindle.job.kinds.hold import ClearHold, LiftHold
from spindle.job.kinds.intake import Amend
from spindle.job.kinds.mains import SetMains
from spindle.job.kinds.opened import OpenStep
from spindle.job.kinds.part import NotePart
from spindle.job.kinds.passed import AddPass
from spindle.job.kinds.proposal import Propose
from spindle.job.kinds.stage import Advance
from spindle.job.kinds.step import MarkStep
from spindle.job.ledger import ASKS, after, decide, fold, says
from spindle.job.prompts import PROMPTS
from spindle.job.stages import Stage
from spindle.job.state import is_done, state_of
from spindle.job.value import Notes, SheetRef, Start
from spindle.words.bench import Mains, Power
from spindle.words.health import Health

from .conftest import FAMILIES
from .sounds import KEPT

AT = datetime(2026, 3, 1, 9, 0, tzinfo=UTC)
ECONOMY = Economy()


class StaleError(Exception):
    """The version that the writer saw is not the job's any more."""


def value_of(job):
    """Everything that a job amounts to, but for the lines that say so."""
    return {"sheet": job.start.sheet.number} | {k: v for k, v in vars(job).items() if k not in ("lines", "struck", "start")}


@dataclass
class House:
    """Jobs by tag, pieces by tag (level, how many are here), the levels that are left in the donor, what each line took."""

    sheets: list
    jobs: dict = field(default_factory=dict)
    shelf: dict = field(default_factory=dict)
    donor: set = field(default_factory=set)
    takings: dict = field(default_factory=dict)
    fitted: list = field(default_factory=list)
    own: dict = field(default_factory=dict)
    used: dict = field(default_factory=dict)
    now: datetime = AT
    tick: timedelta = timedelta(minutes=2)
    """How long each thing that is written takes."""
    moved: list = field(default_factory=list)
    """What the last ask moved beside the tape, in a few words."""

    def __post_init__(self):
        model = self.sheets[0].model
        levels = sorted({LEVEL_OF_REPAIR[r.id] for r in model.repairs if r.id in LEVEL_OF_REPAIR})
        self.jobs = {tag: fold(Start(tag, self.sheets[0], Notes(complaint="Clicks.")), ()) for tag in ("K-1", "K-2")}
        self.shelf = {f"P-{n}": [level, 1 + n % 2] for n, level in enumerate(levels[:6])}
        self.donor = set(levels[2:5])
        self.born = dict(self.count())

    def count(self):
        """How many pieces of each level there are, wherever they are."""
        total = {}
        for level, n in [(lv, n) for lv, n in self.shelf.values()] + [(lv, 1) for lv in self.donor] + [(self.shelf[t][0], 1) for t in self.takings.values()]:
            total[level] = total.get(level, 0) + n
        for tag in self.fitted:
            total[self.shelf[tag][0]] = total.get(self.shelf[tag][0], 0) + 1
        return total

    def ask(self, tag, ask, *, key, version):
        """Do what is asked of a job, once; return whether anything was written. Raises what the ledger raises, and StaleError."""
        if key in self.used:
            return False
        job = self.jobs[tag]
        if version != job.version:
            raise StaleError
        decision = decide(job, ask, World(self, job))
        self.used[key] = ask
        if not decision.drafts:
            return False
        now = after(job, decision, at=self.now, by="bram")
        self.now += self.tick
        touched = {*ASKS[type(ask)].touches(job, ask)}
        moved = {x.origin or x.tag for x in decision.effects if isinstance(x, e.Take)} | {
            self.takings[tag, x.line] for x in decision.effects if isinstance(x, e.GiveBack)
        }
        assert moved <= touched, "what an ask moves is locked before it is decided"
        self.moved = [
            " ".join([type(x).__name__, *(str(v) for v in astuple(x) if isinstance(v, str | int | dict) and v not in ("", {}))]) for x in decision.effects
        ]
        for effect in decision.effects:
            self.carry_out(tag, effect)
        self.jobs[tag] = now
        return True

    def carry_out(self, tag, effect):
        match effect:
            case e.Take(line, piece, origin, level):
                if origin:
                    self.donor.remove(level)
                    self.shelf[piece] = [level, 1]
                self.shelf[piece][1] -= 1
                assert self.shelf[piece][1] >= 0
                assert (tag, line) not in self.takings
                self.takings[tag, line] = piece
            case e.GiveBack(line):
                self.shelf[self.takings.pop((tag, line))][1] += 1
            case e.FitForGood(line):
                self.fitted.append(self.takings.pop((tag, line)))
            case e.OwnOut(part, level):
                self.own[part] = (tag, level)
            case e.OwnLeft(part):
                self.own.pop(part)

    def can_be_read(self, tag):
        """Fold the tape anew, say every line, and compute what every screen needs; return the state."""
        job = self.jobs[tag]
        assert value_of(fold(job.start, job.lines)) == value_of(job)
        assert all(says(line, Speech(job)) for line in job.lines)
        return state_of(job, ECONOMY, World(self, job).stock())


class World:
    """The house as one job's rules see it."""

    economy = ECONOMY
    price_cents_per_min = 90
    lacks: frozenset = frozenset()

    def __init__(self, house, job):
        self.house, self.job = house, job

    @property
    def now(self):
        return self.house.now

    def stock(self):
        repairs = {LEVEL_OF_REPAIR[r.id]: r.id for r in self.job.model.repairs if r.id in LEVEL_OF_REPAIR}
        return tuple(Stock(repairs[level], t) for t, (level, n) in self.house.shelf.items() if n and level in repairs)

    def piece(self, tag, level):
        if tag == "D-1":
            free = f"P-{len(self.house.shelf)}"
            return e.ShelfPiece(free if level in self.house.donor else "D-1", level, Health.UNKNOWN, is_here=level in self.house.donor, donor="D-1")
        if tag in self.house.own:
            owner, level = self.house.own[tag]
            return e.ShelfPiece(tag, level, Health.UNKNOWN, is_here=False, owner=owner)
        if tag not in self.house.shelf:
            return None
        level, n = self.house.shelf[tag]
        known = (Health.UNKNOWN, frozenset({"spins"}), frozenset({"reads"})) if tag == "P-2" else ()
        return e.ShelfPiece(tag, level, *known, is_here=n > 0, price_cents=250)

    def gone(self, piece):
        return GoneError(f"{piece.tag} is gone.")

    def heard(self, name):
        if name not in KEPT:
            raise NotFoundError("There is no such recording.")
        return KEPT[name]

    def has_photo(self, name):
        return name.startswith("a")

    def sheet(self, number):
        if not 0 < number <= len(self.house.sheets):
            raise NotFoundError("no sheet")
        return self.house.sheets[number - 1]


_SURE = {"origin": "shop", "confidence": "sure"}
_SCREWS = {"place": "rear", "count": 2, "head": "cross 1", "thread_mm": 3.0, "length_mm": 8.0, "depth_mm": 9.0, "reaches": "the fan"} | _SURE
_STEPS = [
    {"step": "Screws", "kind": "screws", "takes": "rear"},
    {"step": "Cover", "kind": "lift off", "after": "Screws", "opens_to": "cover off", "tether": "the eject lead"},
    {"step": "Plug", "kind": "connector", "after": "Cover", "takes": "Drive plug"},
    {"step": "Roof", "kind": "clip", "after": "Plug", "opens_to": "drive open"},
    {"step": "Deck", "kind": "lift off", "after": "Roof", "opens_to": "deck out", "frees": "deck"},
]
_PLUG = {"name": "Drive plug", "latch": "friction", "tracks": 4, "lets_go": "by its housing"} | _SURE
OPENING = read_opening({"opening": tuple({"minutes": 1.0} | s | _SURE for s in _STEPS), "screws": (_SCREWS,), "connectors": (_PLUG,)})

WAITS = {f: [{"what": "plug", "minutes": 30.0}, {"what": "warm", "minutes": 6.0}] for f in ("tray", "lid")}
"""How long sheets ask to wait, by family; of a slot drive nothing is said."""
HALF_BUILT = {"lid": [{"at": "cover off", "as_far_as": None}, {"at": "drive open", "as_far_as": "spins a disc"}]}
"""How far sheets say a drive can be tried before its screws are in, by family."""


def full_of(sheet):
    """A whole sheet about these facts."""
    tables = {"waits": tuple(WAITS.get(sheet.family, ())), "half_built": tuple(HALF_BUILT.get(sheet.family, ()))}
    return FullSheet("M", "C", "1", sheet, tables=tables)


def sheets_of(sheet):
    """Three sheets of one family: itself, a newer version, and one that allows less. Of a tray it is said how it is opened."""
    opening = OPENING if sheet.family == "tray" else NOTHING
    times = {c: ReferenceTime(14.0, 1.0, 12) for c in sheet.classes if c == "film_bd"}
    sheet = replace(sheet, reference_times=times)
    bare = replace(sheet, variant="X-1", has_trimmer=False, fuse_rating="", has_electrolytics=False, has_alignment=False)
    return [
        SheetRef(n, s.variant, 1 + (n == 2), compile_model(s), NOTHING if s is bare else opening, None if s is bare else full_of(s))
        for n, s in enumerate((sheet, sheet, bare), start=1)
    ]


SHEETS = {family: sheets_of(sheet) for family, sheet in FAMILIES.items()}
WHOLE = {p.id: p.choices[0].id for p in PROMPTS if not p.may_stay_open}


def forward(job):  # noqa: C901, PLR0912  # one way for each stage
    """What a bench would do next: the way of a straightforward job, so that every stage is reached."""
    state = state_of(job, ECONOMY)
    if not state.missing:
        return Advance(job.stage)
    now = job.lines[-1].at + House.tick if job.lines else AT
    held = {h.code: h for h in job.hazards(now)}
    waits = {h.bars: h for h in job.hazards(now, None) if h.code not in held}
    shut = ClearHold("charge") if Bars.OPENING in waits and job.mat.open else shutting(job)
    live = SetMains(Power.LIVE) if job.power is not Power.LIVE else None
    live = live and next((ClearHold(code) if h.clears else LiftHold(code, "Bram", "dry") for code, h in held.items() if code != "rattle"), live)
    if job.stage is Stage.TAKEN_IN:
        return Amend("Wenna", "0491", "Clicks.", "own", 90_000, None, WHOLE)
    if job.stage is Stage.FAULT_SEEN:
        left = [*(q for q in state.facts.seen_at_least if q not in job.said), *state.facts.classes_to_try]
        question = job.model.family_questions[left[0]]
        return Answer(left[0], CANT_TELL) if question.mains is not Mains.LIVE else live or Answer(left[0], question.outcomes[-1].id)
    if job.stage is Stage.ISOLATE:
        if job.proposal is not None:
            return Answer(next(q.id for q in job.model.questions.values() if q.kind is QuestionKind.LOOK), CANT_TELL)
        return Propose(job.model.repairs[len(job.lines) % len(job.model.repairs)].id)
    if job.stage is Stage.AGREE:
        return Consent(True, state.facts.proposed_cents, "Wenna", "by phone")
    if job.stage is Stage.REPAIR:
        step = next((s for s in state.steps if not (s.is_trial or is_done(s, job))), None)
        if step is None:
            return live or Trial((Change(job.proposal.repair),), TrialResult.CLEAN, 1)
        if step.takes_part:
            return NotePart(job.proposal.repair)
        if step.mains is Mains.OUT and job.power is not Power.OUT:
            return SetMains(Power.OUT)
        if "wet" in step.clears and "wet" in held:
            return LiftHold("wet", "Bram", "thumb test: dry")
        if step.is_inside and Bars.OPENING in waits:
            return ClearHold("charge")
        return MarkStep(step.id, True, job.model.sheet.fuse_rating)
    if job.stage is Stage.PROVE:
        check = next((c for c in state.checks if c.id not in job.checks), None)
        wait = waits.get(check.waits_for) if check and job.power is Power.LIVE else None
        if wait:
            return LiftHold(wait.code, "Bram", "the clock on the wall")
        if state.missing[0].code == "mains" or job.depth or job.mat.open:
            return SetMains(Power.OUT) if job.power is not Power.OUT else shut
        return live or (MarkCheck(check.id, True) if check else AddPass(True))
    if state.missing[0].code == "collected":
        return Collect("Wenna")
    return SetMains(Power.OUT) if job.power is not Power.OUT else shut if job.depth or job.mat.open else Remark("waits")


def shutting(job):
    """What shuts a unit next: what lies on the mat goes back one by one."""
    moves = way_back(job.start.sheet.opening, job.mat.open).moves
    return OpenStep(moves[0].step.id, False) if moves else SetDepth(0)


@cache
def on_the_way(family):
    """The straightforward job of a family at every point of its way, from the counter to closed."""
    house = House(SHEETS[family])
    points = [house.jobs["K-1"]]
    while points[-1].stage is not Stage.CLOSED:
        assert house.ask("K-1", forward(points[-1]), key=f"w{len(points)}", version=points[-1].version)
        points.append(house.jobs["K-1"])
    return points

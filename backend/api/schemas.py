"""What goes over the wire. Money in cents, minutes as minutes, probabilities in [0, 1]."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Any, Literal

from apps.jobs.models import LineKind
from ninja import Schema
from pydantic import Field, StringConstraints
from spindle.diagnosis.given.case import TrialResult
from spindle.job.stages import Stage
from spindle.words.health import Health
from spindle.words.witness import Witness

_NO_NUL = r"^[^\u0000]*$"
Short = Annotated[str, StringConstraints(max_length=120, pattern=_NO_NUL)]
Text = Annotated[str, StringConstraints(max_length=2_000, pattern=_NO_NUL)]
Word = Annotated[str, StringConstraints(pattern=r"^[a-z0-9_]{1,40}$")]
Key = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9-]{8,64}$")]
Cents = Annotated[int, Field(ge=0, le=10_000_000)]
Version = Annotated[int, Field(ge=0, le=2_000_000_000)]
Number = Annotated[int, Field(ge=0, le=2_000_000_000)]


class Problem(Schema):
    """Every error."""

    status: int
    code: str
    title: str
    params: dict[str, Any]


# --- people


class SignIn(Schema):
    """Name and password."""

    username: Short
    password: Short


class Me(Schema):
    """Who is signed in, and what they may do."""

    name: str
    role: str
    may: list[str]


class Session(Schema):
    """The session of this browser."""

    user: Me | None
    csrf_token: str
    shop: str


# --- writes


class Write(Schema):
    """What every write to a job carries: its idempotency key, and the version that the writer saw."""

    key: Key
    version: Version


class SettingIn(Schema):
    """The state in which something was seen; empty where it was as the question asks."""

    mains: Literal["", "live", "out"] = ""
    cover: Literal["", "on", "off"] = ""
    disc_side: Literal["", "right", "wrong"] = ""
    board: Literal["", "own", "other"] = ""


class AnswerIn(Write):
    """An answer to a question."""

    question: Word
    outcome: Word
    source: Witness = Witness.BENCH
    tries: Annotated[int, Field(ge=1, le=1000)] | None = None
    failed: Annotated[int, Field(ge=0, le=1000)] | None = None
    seconds: Annotated[float, Field(gt=0, le=3600)] | None = None
    setting: SettingIn | None = None


Functions = Annotated[list[Literal["starts", "loads", "spins", "reads", "seeks", "powers"]], Field(max_length=6)]


class ItemIn(Schema):
    """A part that goes in, and what is known of it function by function."""

    repair: Word
    item: Short = ""
    health: Health = Health.NEW
    works: Functions = Field(default_factory=list)
    fails: Functions = Field(default_factory=list)


class ChangeIn(ItemIn):
    """One thing changed in a trial."""

    lot: Short = ""
    stays: bool = False


class PartIn(Write, ItemIn):
    """A part for this job that is at hand, a donor's or on its way."""

    price_cents: Cents = 0
    wait_days: Annotated[float, Field(ge=0, le=365)] = 0
    is_donor: bool = False


class TrialIn(Write):
    """A trial after one or more changes."""

    changes: Annotated[list[ChangeIn], Field(min_length=1, max_length=8)]
    result: TrialResult
    clean_passes: Annotated[int, Field(ge=0, le=1000)] = 0


class RemarkIn(Write):
    """A remark."""

    text: Annotated[Text, StringConstraints(min_length=1, strip_whitespace=True)]


class StrikeIn(Write):
    """A strike, or taking one back."""

    line: Number
    why: Short = ""


class MainsIn(Write):
    """The mains state."""

    is_live: bool


class DepthIn(Write):
    """How far the unit is open."""

    depth: Annotated[int, Field(ge=0, le=3)]


class AdvanceIn(Write):
    """Leave this stage for the next."""

    stage: Stage


class GoBackIn(Write):
    """Go back to an earlier stage."""

    to: Stage
    why: Short = ""


class ProposalIn(Write):
    """Propose a repair; an empty one is to hand the unit back as it is."""

    repair: Annotated[str, StringConstraints(pattern=r"^[a-z0-9_]{0,40}$")]


class ConsentIn(Write):
    """What the owner said."""

    is_agreed: bool
    amount_cents: Cents
    by_name: Short
    how: Short


class StepIn(Write):
    """A step of the repair."""

    step: Annotated[int, Field(ge=0, le=200)]
    is_done: bool
    fuse: Short = ""


class CheckIn(Write):
    """A check of the proof."""

    check: Word
    is_passed: bool


class PassIn(Write):
    """One more pass of the proof."""

    is_clean: bool


class IntakeIn(Schema):
    """A unit taken in."""

    key: Key
    sheet_id: Annotated[int, Field(ge=1, le=2_000_000_000)]
    owner_name: Short
    owner_contact: Short
    complaint: Text
    supply: Short
    limit_cents: Cents | None
    promised_on: date | None
    condition: dict[Word, Word]


class AmendIn(Write):
    """What the counter adds later; what is left out stays as it is."""

    owner_name: Short | None = None
    owner_contact: Short | None = None
    complaint: Text | None = None
    supply: Short | None = None
    limit_cents: Cents | None = None
    promised_on: date | None = None
    condition: dict[Word, Word] | None = None


# --- reads


class OutcomeView(Schema):
    """One answer that can be given; ``is_failure`` counts it among the failed tries."""

    id: str
    label: str
    is_failure: bool


class CautionView(Schema):
    """A caution."""

    id: str
    short: str
    text: str


class QuestionView(Schema):
    """A question that can be asked of this drive."""

    id: str
    kind: str
    ask: str
    how: str
    outcomes: list[OutcomeView]
    bench_min: float
    depth: int
    mains: str
    cautions: list[CautionView]


class GivenAnswer(Schema):
    """The answer that stands."""

    outcome: str
    label: str
    is_failure: bool
    tries: int | None
    failed: int | None
    seconds: float | None
    time_says: str


class BaselineView(Schema):
    """One stage of the baseline, or one disc class."""

    question: QuestionView
    name: str
    nm: int | None
    is_supported: bool
    reference_s: float | None
    answer: GivenAnswer | None


class WeightView(Schema):
    """How far a finding moved a part."""

    part: str
    name: str
    db: float


class TapeLineView(Schema):
    """One line of the tape."""

    number: int
    at: datetime
    by: str
    kind: LineKind
    question: str
    text: str
    can_strike: bool
    struck_by: str
    struck_why: str
    weights: list[WeightView]
    left_out: str


class SuspectView(Schema):
    """A fault, or a part, with its probability."""

    id: str
    part: str
    name: str
    p: float


class AnswerPreviewView(Schema):
    """What one answer would do."""

    outcome: str
    label: str
    chance: float
    top_fault: str
    top_p: float
    next_repair: str


class MoveView(Schema):
    """A next move."""

    kind: str
    id: str
    title: str
    how: str
    why: str
    expected_cents: int
    saves_cents: int
    step_cents: int
    bench_min: float
    opening_min: float
    part_cents: int
    wait_days: float
    depth: int
    mains: str
    p_cures: float
    cautions: list[CautionView]
    answers: list[AnswerPreviewView]
    repair: str
    item: str
    source: str


class SchoolView(Schema):
    """A rule of thumb beside the advice."""

    id: str
    name: str
    expected_cents: int
    first: str


class MindChangeView(Schema):
    """An open answer that would change the best repair."""

    question: str
    answer: str
    chance: float
    next_repair: str


class NoticeView(Schema):
    """Something that has to be said beside the next move; ``lines`` are the tape lines it is about."""

    code: str
    text: str
    lines: list[int]


class LinkView(Schema):
    """One link of a signal path."""

    id: str
    name: str
    state: Literal["pass", "fail", "open"]
    p: float
    says: str


class PathView(Schema):
    """A signal path with the test that halves it."""

    id: str
    title: str
    p: float
    links: list[LinkView]
    next_test: str
    next_ask: str
    before: float
    behind: float


class SwapRowView(Schema):
    """One item fitted at one trial."""

    line: int
    part: str
    repair: str
    item: str
    health: str
    result: str
    p_bad: float
    goes_back: bool
    stays: bool


class PartLineView(Schema):
    """A part for this job."""

    line: int
    repair: str
    name: str
    item: str
    health: str
    works: list[str]
    fails: list[str]
    price_cents: int
    wait_days: float
    is_donor: bool
    is_taken: bool
    """It was taken from the shelf, and can be put back."""


class SwapsView(Schema):
    """The swap table: what was fitted, what is at hand, what to try next."""

    rows: list[SwapRowView]
    parts: list[PartLineView]
    next_item: str
    next_repair: str
    p_cures: float


class DiagnosisView(Schema):
    """What the findings amount to, and what to do next."""

    suspects: list[SuspectView]
    parts: list[SuspectView]
    moves: list[MoveView]
    schools: list[SchoolView]
    mind_changes: list[MindChangeView]
    best_repair: str
    is_tie: bool
    notices: list[NoticeView]
    paths: list[PathView]
    swaps: SwapsView


class OutlookView(Schema):
    """The advice looked into two steps deep, and what it would pay from here by simulated futures."""

    version: int
    first: MoveView
    is_same: bool
    mean_cents: int
    low_cents: int
    high_cents: int
    p_repaired: float


class ClaimCountView(Schema):
    """A claim's record on one drive variant."""

    variant: str
    n_for: int
    n_against: int
    p_holds: float
    verdict: Literal["holds", "does not hold", "too little to say"]


class ClaimView(Schema):
    """A rule of thumb with the shop's own counts."""

    id: str
    family: str
    text: str
    repair: str
    limit: float
    counts: list[ClaimCountView]


class MissingView(Schema):
    """What a stage still needs."""

    code: str
    text: str


class StageView(Schema):
    """One stage on the stub."""

    id: Stage
    name: str
    state: Literal["done", "now", "ahead"]


class QuoteView(Schema):
    """A repair offered."""

    repair: str
    name: str
    labour_min: float
    labour_cents: int
    part_cents: int
    wait_days: float
    total_cents: int
    p_success: float
    guarantee_days: int
    alters_unit: str


class ProposalView(Schema):
    """What was proposed last."""

    repair: str
    name: str
    total_cents: int
    p_success: float


class ConsentView(Schema):
    """What the owner said."""

    is_agreed: bool
    amount_cents: int
    by_name: str
    how: str
    at: datetime
    recorded_by: str


class AgreeView(Schema):
    """Proposal and consent."""

    offers: list[QuoteView]
    proposal: ProposalView | None
    consents: list[ConsentView]
    agreed_cents: int
    needs_consent: str


class StepView(Schema):
    """One step of the repair."""

    text: str
    mains: str
    cautions: list[CautionView]
    is_done: bool
    is_trial: bool
    reads_fuse: bool
    done_by: str


class ProcedureView(Schema):
    """The repair that was chosen."""

    repair: str
    name: str
    skill: str
    tools: list[str]
    transfers: list[str]
    proves: str
    goes_wrong: str
    fuse_rating: str
    uses_item: bool
    steps: list[StepView]
    trial: str
    can_worsen: bool


class RepairView(Schema):
    """A repair that can be done on this drive."""

    id: str
    name: str
    uses_item: bool


class CheckView(Schema):
    """One check of the proof."""

    id: str
    title: str
    how: str
    state: Literal["open", "passed", "failed"]


class ProofView(Schema):
    """The proof so far."""

    checks: list[CheckView]
    passes: int
    passes_needed: int
    p_fixed: float
    p_fail_per_try: float
    verdict: Literal["", "go_on", "proven", "probable"]
    says: str


class DriveView(Schema):
    """The drive on the bench."""

    maker: str
    console: str
    revision: str
    variant: str
    family: str
    pairing: str
    has_trimmer: bool
    has_belt: bool
    lid_switches: int
    has_electrolytics: bool
    has_alignment: bool
    motor_soldered: bool
    fuse_rating: str
    wavelengths: list[int]
    label_faces: dict[str, str]


class PromptChoiceView(Schema):
    """One choice of a prompt."""

    id: str
    label: str


class KeyIn(Schema):
    """What the eye has seen so far: feature -> value, or "cant_see"."""

    answers: dict[Word, Word]


class FeatureView(Schema):
    """One thing to look at."""

    id: str
    ask: str
    how: str
    where: Literal["outside", "cover_off", "drive_open"]
    values: list[PromptChoiceView]


class CandidateView(Schema):
    """A drive that it can be, with the answers that speak against it."""

    sheet_id: int
    name: str
    variant: str
    p: float
    against: list[str]


class KeyView(Schema):
    """Where the identification key stands."""

    features: list[FeatureView]
    candidates: list[CandidateView]
    next_feature: str
    is_settled: bool
    differ: list[str]


class PromptView(Schema):
    """One condition prompt."""

    id: str
    ask: str
    choices: list[PromptChoiceView]


class ConditionView(Schema):
    """A condition that was noted."""

    id: str
    choice: str
    ask: str
    label: str


class CustodyView(Schema):
    """An owner's part that is out of its unit."""

    tag: str
    name: str
    place: str
    since: datetime
    is_key: bool
    """It carries the pairing: this console accepts no other."""


class IdentityView(Schema):
    """Which drive it can be by what the eye saw."""

    sheet_id: int
    variant: str
    p: float
    is_ours: bool
    against: list[str]


class JobView(Schema):
    """One job with everything that its screens show."""

    tag: str
    version: int
    stage: Stage
    stages: list[StageView]
    missing: list[MissingView]
    next_stage: str
    depth: int
    is_live: bool
    power_hold: str
    drive: DriveView
    owner_name: str
    owner_contact: str
    complaint: str
    condition: list[ConditionView]
    limit_cents: int | None
    supply: str
    promised_on: date | None
    taken_in_at: datetime
    bench_min: float
    tape: list[TapeLineView]
    diagnosis: DiagnosisView
    baseline: list[BaselineView]
    classes: list[BaselineView]
    classes_say: str
    agree: AgreeView
    procedure: ProcedureView | None
    repairs: list[RepairView]
    proof: ProofView
    custody: list[CustodyView]
    identity: list[IdentityView]
    looks: dict[str, str]
    sheet_version: int
    newer_sheet_id: int | None


class DayRowView(Schema):
    """One job of the day."""

    tag: str
    console: str
    variant: str
    owner_name: str
    complaint: str
    stage: Stage
    stage_name: str
    promised_on: date | None
    waits_for: str
    is_live: bool


class FoundView(Schema):
    """A job that was searched for."""

    tag: str
    console: str
    owner_name: str
    stage_name: str

"""What goes over the wire about jobs. Money in cents, minutes as minutes, probabilities in [0, 1]."""

from __future__ import annotations

from datetime import date, datetime
from typing import Literal

from api.common import View
from api.drives.schemas import DriveView
from api.jobs.counter_schemas import PaidView, ReturnView, ToldView
from api.jobs.diagnosis_schemas import AtHandView, CautionView, ConfigurationView, DiagnosisView, QuestionView, WeightView
from api.jobs.mat_schemas import MatBriefView, PhotoView
from api.jobs.proof_schemas import ProofView
from spindle.job.hazards import Bars
from spindle.job.stages import Stage


class GivenAnswer(View):
    """The answer that stands."""

    outcome: str
    label: str
    is_failure: bool
    tries: int | None
    failed: int | None
    seconds: float | None
    time_says: str


class BaselineView(View):
    """One stage of the baseline, or one disc class."""

    question: QuestionView
    name: str
    nm: int | None
    is_supported: bool
    reference_s: float | None
    answer: GivenAnswer | None


class TapeLineView(View):
    """One line of the tape."""

    number: int
    at: datetime
    by: str
    kind: str
    is_finding: bool
    """It can be struck."""
    weighs: bool
    """It is evidence: an answer or a trial."""
    question: str
    text: str
    struck_by: str
    struck_why: str
    weights: list[WeightView]
    left_out: str


class MissingView(View):
    """What a stage still needs."""

    code: str
    text: str


class StageView(View):
    """One stage on the stub."""

    id: Stage
    name: str
    state: Literal["done", "now", "ahead"]


class QuoteView(View):
    """A repair offered."""

    repair: str
    name: str
    labour_min: float
    labour_cents: int
    part_cents: int
    wait_days: float
    total_cents: int
    p_success: float
    p_lasts_year: float
    guarantee_days: int
    alters_unit: str


class ProposalView(View):
    """What was proposed last."""

    repair: str
    name: str
    total_cents: int
    p_success: float
    p_lasts_year: float | None
    end: str


class ConsentView(View):
    """What the owner said."""

    is_agreed: bool
    amount_cents: int
    by_name: str
    how: str
    at: datetime
    recorded_by: str


class EndView(View):
    """A way to end without a repair, and what it costs."""

    id: str
    name: str
    says: str
    total_cents: int
    is_likeliest: bool


class AgreeView(View):
    """Proposal and consent."""

    offers: list[QuoteView]
    ends: list[EndView]
    proposal: ProposalView | None
    consents: list[ConsentView]
    agreed_cents: int
    needs_consent: str


class StepView(View):
    """One step of the repair."""

    id: str
    text: str
    mains: str
    cautions: list[CautionView]
    is_done: bool
    is_trial: bool
    reads_fuse: bool
    done_by: str
    until: datetime | None
    """When what it says has come by itself: it is not done before that."""
    takes_part: bool
    part: str
    """The part that lies ready for it."""
    is_inside: bool
    """A hand goes into the unit for it."""
    asks_photo: bool
    opens_to: int
    """How far the unit is open once it is done; 0 for steps that open nothing."""
    details: list[str]
    sheet: AtHandView


class ProcedureView(View):
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


class RepairView(View):
    """A repair that can be done on this drive."""

    id: str
    name: str
    uses_item: bool
    takes: str
    """What goes in: the name of the sub-assembly; "" if nothing does."""
    alters: str
    """Of what nobody advises and only a person may choose: what it does to the unit; "" for all others."""


class ConditionView(View):
    """A condition that was noted."""

    id: str
    choice: str
    ask: str
    label: str


class CustodyView(View):
    """An owner's part that is out of its unit."""

    tag: str
    name: str
    place: str
    since: datetime
    is_key: bool
    """It carries the pairing: this console accepts no other."""


class IdentityView(View):
    """Which drive it can be by what the eye saw."""

    sheet_id: int
    variant: str
    p: float
    is_ours: bool
    against: list[str]


class HazardView(View):
    """What keeps the power off, or bars something else: its own test, if it has one, and when it has passed by itself."""

    code: str
    text: str
    clears: str
    until: datetime | None
    bars: Bars


class JobView(View):
    """One job with everything that its screens show."""

    tag: str
    version: int
    stage: Stage
    stages: list[StageView]
    missing: list[MissingView]
    next_stage: str
    depth: int
    power: Literal["out", "standby", "live"]
    hazards: list[HazardView]
    """What keeps the power off, and what clears it."""
    waits: list[HazardView]
    """What keeps a hand out, or a start from counting as cold or warm."""
    wet: list[str]
    drive: DriveView
    owner_name: str
    owner_contact: str
    complaint: str
    condition: list[ConditionView]
    limit_cents: int | None
    supply: str
    promised_on: date | None
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
    configuration: ConfigurationView
    measurable: list[str]
    """The questions that a calculator of the bench can speak to."""
    told: list[ToldView]
    paid: PaidView | None
    collected_by: str
    voided: str
    """Why it was taken in by mistake; "" for a real job."""
    returns: ReturnView | None
    guarantee_until: date | None
    """Of a closed job."""
    custody: list[CustodyView]
    identity: list[IdentityView]
    looks: dict[str, str]
    sheet_version: int
    newer_sheet_id: int | None
    ticks: list[str]
    mat: MatBriefView
    photos: list[PhotoView]
    sounds: int
    """How many recordings it has."""
    owner_asks: str
    """What the owner wants besides yes and no, in a sentence; "" if nothing waits for an answer."""
    """Steps of swap plans that are done, as plan:step."""
    is_new: bool = False
    """The write that this answers has written something; False for what was read, for a replay, and for what changed nothing."""

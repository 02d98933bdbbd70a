"""What goes over the wire about a diagnosis: suspects, moves, paths, swaps. Probabilities in [0, 1], money in cents."""

from __future__ import annotations

from typing import Literal

from api.common import View


class OutcomeView(View):
    """One answer that can be given; ``is_failure`` counts it among the failed tries."""

    id: str
    label: str
    is_failure: bool


class CautionView(View):
    """A caution."""

    id: str
    short: str
    text: str


class QuestionView(View):
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


class WeightView(View):
    """How far a finding moved a part."""

    part: str
    name: str
    db: float


class SuspectView(View):
    """A fault, or a part, with its probability."""

    id: str
    part: str
    name: str
    p: float


class AnswerPreviewView(View):
    """What one answer would do."""

    outcome: str
    label: str
    chance: float
    top_fault: str
    top_p: float
    next_repair: str


class SaidView(View):
    """One value as the drive's sheet has it."""

    text: str
    is_confirmed: bool


class AtHandView(View):
    """What the drive's sheet says of a step or question; ``lacks`` where it should and does not."""

    said: list[SaidView]
    lacks: bool


class SameGoView(View):
    """A look that is done in the same go as the first move."""

    id: str
    title: str
    bench_min: float


class MoveView(View):
    """A next move."""

    kind: str
    id: str
    title: str
    how: str
    why: str
    expected_cents: int
    saves_cents: int
    bench_min: float
    opening_min: float
    part_cents: int
    wait_days: float
    depth: int
    mains: str
    p_cures: float
    p_lasts_year: float
    cautions: list[CautionView]
    answers: list[AnswerPreviewView]
    repair: str
    item: str
    source: str
    sheet: AtHandView


class SchoolView(View):
    """A rule of thumb beside the advice."""

    id: str
    name: str
    expected_cents: int
    first: str


class MindChangeView(View):
    """An open answer that would change the best repair."""

    question: str
    answer: str
    chance: float
    next_repair: str


class NoticeView(View):
    """Something that has to be said beside the next move; ``lines`` are the tape lines it is about."""

    code: str
    text: str
    lines: list[int]


class LinkView(View):
    """One link of a signal path."""

    id: str
    name: str
    state: Literal["pass", "fail", "open"]
    p: float
    says: str


class PathView(View):
    """A signal path with the test that halves it."""

    id: str
    title: str
    p: float
    links: list[LinkView]
    next_ask: str
    before: float
    behind: float


class SwapRowView(View):
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


class PartLineView(View):
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


class FunctionHealthView(View):
    """How likely an item is bad in a function: by what was said of it, and by all that was seen."""

    function: str
    before: float
    p_bad: float


class ItemHealthView(View):
    """One item that was in the unit, or was looked at, function by function."""

    item: str
    functions: list[FunctionHealthView]


class SwapsView(View):
    """The swap table: what was fitted, what is at hand, what to try next."""

    rows: list[SwapRowView]
    parts: list[PartLineView]
    items: list[ItemHealthView]
    next_item: str
    next_repair: str
    p_cures: float
    bits: float
    minutes: float


class BarredView(View):
    """What cannot be done on the bench as it is, by one reason."""

    why: str
    titles: list[str]


class DiagnosisView(View):
    """What the findings amount to, and what to do next."""

    suspects: list[SuspectView]
    parts: list[SuspectView]
    moves: list[MoveView]
    mind_changes: list[MindChangeView]
    barred: list[BarredView]
    is_tie: bool
    same_go: list[SameGoView]
    notices: list[NoticeView]
    paths: list[PathView]
    swaps: SwapsView


class OutlookView(View):
    """The advice looked into two steps deep, and what it would pay from here by simulated futures."""

    version: int
    first: MoveView
    is_same: bool
    median_cents: int
    low_cents: int
    high_cents: int
    p_repaired: float


class ClaimCountView(View):
    """A claim's record on one drive variant."""

    variant: str
    n_for: int
    n_against: int
    p_holds: float
    verdict: Literal["holds", "does not hold", "too little to say"]


class ClaimView(View):
    """A rule of thumb with the shop's own counts."""

    id: str
    family: str
    text: str
    repair: str
    limit: float
    counts: list[ClaimCountView]


class PlaceNowView(View):
    """One place of the unit, and the item in it; "" for its own."""

    name: str
    item: str


class OnTrialView(View):
    """An item that sits in the unit for trying."""

    repair: str
    name: str
    item: str
    health: str


class ConfigurationView(View):
    """What sits where, and what to ask while another's item is in."""

    places: list[PlaceNowView]
    on_trial: list[OnTrialView]
    asks: list[QuestionView]

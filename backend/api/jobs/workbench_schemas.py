"""What goes over the wire about parts and plans in a job."""

from __future__ import annotations

from typing import Literal

from api.common import Cents, View
from api.drives.schemas import LevelView
from spindle.drives.matching import Verdict


class SourceView(View):
    """Something that this unit could use."""

    tag: str
    item: str
    """What it is called as a physical thing: a donor is many."""
    level: str
    level_name: str
    code: str
    where: Literal["shelf", "donor", "order"]
    place: str
    verdict: Verdict
    verdict_name: str
    reasons: list[str]
    transfers: list[str]
    health: str
    works: list[str]
    fails: list[str]
    cents: int
    wait_days: float
    most_days: float
    repairs: list[str]
    """Repairs of this drive that it can be used for; empty if it fits in part only."""
    p_cures: float


class LevelRowView(View):
    """The best repair of one level."""

    rank: str
    rank_name: str
    repair: str
    name: str
    level: str
    minutes: float
    total_cents: Cents
    part_cents: Cents
    wait_days: float
    skill: str
    p_success: float
    lasts_months: float
    p_lasts_year: float
    why: str
    item: str


class PlanStepView(View):
    """One step of a swap plan."""

    id: str
    text: str
    depth: Literal["cover_off", "drive_open"]
    cautions: list[str]
    details: list[str]


class SwapPlanView(View):
    """A swap plan in words."""

    level: str
    level_name: str
    purpose: Literal["repair", "test"]
    stays: list[str]
    moves: list[str]
    comes: list[str]
    steps: list[PlanStepView]
    back: list[PlanStepView]
    lost: str
    shows: list[str]
    warnings: list[str]


class LookView(View):
    """A look that still pays before a part is ordered."""

    id: str
    title: str
    saves_cents: int


class TogetherView(View):
    """What to do before the job waits for a part: looks first, and whether a second part goes into the parcel."""

    p_cures: float
    wait_days: float
    looks: list[LookView]
    second: str
    second_name: str
    second_cents: int
    p_used: float
    one_parcel_cents: int
    two_parcels_cents: int


class WorkbenchView(View):
    """What this unit can use, and how the levels of repair compare."""

    version: int
    sources: list[SourceView]
    levels: list[LevelRowView]
    pieces: list[LevelView]
    together: TogetherView | None
    """None where nothing that is proposed has to be ordered."""

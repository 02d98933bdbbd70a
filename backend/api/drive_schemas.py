"""What goes over the wire about drive sheets, what fits where, and swap plans."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from api.schemas import Cents, DriveView, FeatureView, Key, Number, PromptChoiceView, Short, Word, Write
from ninja import Schema
from pydantic import StringConstraints
from spindle.drives.matching import Verdict
from spindle.drives.tables import Confidence, Origin

Variant = Annotated[str, StringConstraints(min_length=1, max_length=40, pattern=r"^[^\u0000/]+$")]
Code = Annotated[str, StringConstraints(min_length=1, max_length=60, pattern=r"^[^\u0000]+$")]


class SheetView(Schema):
    """A drive sheet in the gallery."""

    id: int
    drive: DriveView
    version: int
    classes: list[str]
    also_in: list[str]


class VersionView(Schema):
    """One version of a sheet."""

    id: int
    version: int
    why: str
    by: str
    at: datetime | None


class GapView(Schema):
    """Something that the sheet ought to hold and does not."""

    table: str
    text: str


class SheetDetailView(SheetView):
    """A whole sheet: its document in the open format, and its versions."""

    document: dict[str, Any]
    is_current: bool
    versions: list[VersionView]
    gaps: list[GapView]


class SheetIn(Schema):
    """A sheet to save, made from a version (0: there is none yet)."""

    key: Key
    based_on: Number
    document: dict[str, Any]
    why: Short = ""


class ColumnView(Schema):
    """A column of a table, for the editor."""

    id: str
    name: str
    kind: Literal["text", "number", "count", "flag", "choice"]
    unit: str
    low: float
    high: float
    choices: list[str]
    optional: bool


class TableView(Schema):
    """A table of a sheet, for the editor."""

    id: str
    title: str
    about: str
    columns: list[ColumnView]


class LevelView(Schema):
    """A level at which parts are swapped."""

    id: str
    name: str
    rank: str
    functions: list[str]
    families: list[str]


class SheetFormView(Schema):
    """Everything that the editor needs to know: tables, levels, the words of the choices."""

    tables: list[TableView]
    levels: list[LevelView]
    features: list[FeatureView]
    repairs: dict[str, list[PromptChoiceView]]
    """Loader family -> the repairs that take a part, which a sheet can have a price for."""
    origins: dict[str, str]
    verdicts: dict[str, str]


class FitView(Schema):
    """Whether a kind of part fits a variant."""

    level: str
    level_name: str
    code: str
    variant: str
    verdict: Verdict
    verdict_name: str
    reasons: list[str]
    source: str
    transfers: list[str]
    shows: list[str]


class SayingView(Schema):
    """Something that was said about what fits."""

    level_name: str
    code: str
    variant: str
    verdict_name: str
    reason: str
    source: str
    by: str
    on: str


class FitsView(Schema):
    """What fits: the verdicts, and what was said, newest first."""

    fits: list[FitView]
    sayings: list[SayingView]


class SayIn(Schema):
    """Somebody says whether a kind of part fits a variant."""

    key: Key
    level: Word
    code: Code
    variant: Variant
    verdict: Literal[Verdict.FITS, Verdict.TRANSFERS, Verdict.PART, Verdict.NO]
    reason: Short = ""
    origin: Origin = Origin.SHOP
    confidence: Confidence = Confidence.SURE
    said: Short = ""
    works: list[Word] | None = None
    """Functions in which it works, where it fits in part."""


# --- in a job


class TakeIn(Write):
    """A part of the shelf for a repair of this job."""

    part: Short
    repair: Word


class PutBackIn(Write):
    """A part that was taken goes back, with what it was seen to do."""

    line: Number
    seen: dict[Word, bool]


class OwnOutIn(Write):
    """An owner's part leaves its unit."""

    level: Word
    place: Short


class OwnBackIn(Write):
    """An owner's part is back in its unit."""

    part: Short


class OwnReleaseIn(Write):
    """The owner leaves a part with the shop."""

    part: Short
    by_name: Short


class LooksIn(Write):
    """What the eye saw of the drive, and which sheet is taken then (null: the same)."""

    looks: dict[Word, Word]
    sheet_id: Number | None = None


class SourceView(Schema):
    """Something that this unit could use."""

    tag: str
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


class LevelRowView(Schema):
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


class PlanStepView(Schema):
    """One step of a swap plan."""

    text: str
    depth: Literal["cover_off", "drive_open"]
    cautions: list[str]
    details: list[str]


class SwapPlanView(Schema):
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


class WorkbenchView(Schema):
    """What this unit can use, and how the levels of repair compare."""

    version: int
    sources: list[SourceView]
    levels: list[LevelRowView]
    pieces: list[LevelView]

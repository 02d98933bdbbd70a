"""What goes over the wire about drives: their sheets, the key, and what fits where."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from api.common import Code, Key, Number, OnceIn, Short, Variant, View, Word
from ninja import Schema
from pydantic import Field, StringConstraints
from spindle.drives.matching import Verdict
from spindle.drives.tables import Confidence, Origin
from spindle.words.bounds import NO_NUL


class DriveView(View):
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


class PromptChoiceView(View):
    """One choice of a prompt."""

    id: str
    label: str


class FeatureView(View):
    """One thing to look at."""

    id: str
    ask: str
    how: str
    where: Literal["outside", "cover_off", "drive_open"]
    values: list[PromptChoiceView]


class CandidateView(View):
    """A drive that it can be, with the answers that speak against it."""

    sheet_id: int
    name: str
    variant: str
    p: float
    against: list[str]


class KeyView(View):
    """Where the identification key stands."""

    features: list[FeatureView]
    candidates: list[CandidateView]
    next_feature: str
    is_settled: bool
    differ: list[str]


class KeyIn(Schema):
    """What the eye has seen so far: feature -> value, or "cant_see"."""

    answers: dict[Word, Word]


class SheetView(View):
    """A drive sheet in the gallery."""

    id: int
    drive: DriveView
    version: int
    classes: list[str]
    also_in: list[str]


class VersionView(View):
    """One version of a sheet."""

    id: int
    version: int
    why: str
    by: str
    at: datetime | None


class GapView(View):
    """Something that the sheet ought to hold and does not."""

    table: str
    text: str


class SheetDetailView(SheetView):
    """A whole sheet: its document in the open format, and its versions."""

    document: dict[str, Any]
    is_current: bool
    is_retired: bool
    versions: list[VersionView]
    gaps: list[GapView]


Maker = Annotated[str, StringConstraints(max_length=80, pattern=NO_NUL)]


class BeginningIn(OnceIn):
    """A drive that has no sheet yet: like another, or bare by its loader family and what it plays."""

    maker: Maker
    console: Maker
    revision: Annotated[str, StringConstraints(max_length=40, pattern=NO_NUL)] = ""
    variant: Annotated[str, StringConstraints(max_length=40, pattern=r"^[^\u0000/]*$")] = ""
    """As it stands on the drive; "" if nobody has seen it: it gets a name to go on with."""
    family: Literal["", "tray", "slot", "lid"] = ""
    classes: Annotated[tuple[Word, ...], Field(max_length=12)] = ()
    like: Annotated[str, StringConstraints(max_length=40, pattern=r"^[^\u0000/]*$")] = ""


class RetireIn(OnceIn):
    """Whether a sheet is out of use."""

    is_retired: bool


class SheetIn(OnceIn):
    """A sheet to save, made from a version (0: there is none yet)."""

    based_on: Number
    document: dict[str, Any]
    why: Short = ""


class ConsoleView(View):
    """A console's sheet; version 0 where nobody has written one yet."""

    maker: str
    console: str
    revision: str
    version: int
    document: dict[str, Any]
    why: str
    by: str
    at: datetime | None


class ConsoleNamed(Schema):
    """Which console: by what names its sheet."""

    maker: Short
    console: Short
    revision: Short

    @property
    def whose(self) -> tuple[str, str, str]:
        """Maker, console and revision."""
        return self.maker, self.console, self.revision


class ConsoleIn(OnceIn):
    """A console's sheet to save, made from a version (0: there is none yet)."""

    based_on: Number
    document: dict[str, Any]
    why: Short = ""


class ColumnView(View):
    """A column of a table, for the editor."""

    id: str
    name: str
    kind: Literal["text", "number", "count", "flag", "choice", "picture"]
    unit: str
    low: float
    high: float
    choices: list[str]
    optional: bool


class TableView(View):
    """A table of a sheet, for the editor."""

    id: str
    title: str
    about: str
    columns: list[ColumnView]


class LevelView(View):
    """A level at which parts are swapped."""

    id: str
    name: str
    rank: str
    functions: list[str]
    families: list[str]


class SheetFormView(View):
    """Everything that the editor needs to know: tables, levels, the words of the choices."""

    tables: list[TableView]
    console_tables: list[TableView]
    levels: list[LevelView]
    features: list[FeatureView]
    repairs: dict[str, list[PromptChoiceView]]
    """Loader family -> the repairs that take a part, which a sheet can have a price for."""
    origins: dict[str, str]
    verdicts: dict[str, str]


class FitView(View):
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


class SayingView(View):
    """Something that was said about what fits."""

    level_name: str
    code: str
    variant: str
    verdict_name: str
    reason: str
    source: str
    by: str
    on: str


class FitsView(View):
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

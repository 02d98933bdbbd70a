"""What goes over the wire about the shelf. Money in cents, waits in days."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal

from api.common import Cents, Code, OnceIn, Place, Short, Variant, View, Word
from api.drives.schemas import FitView
from pydantic import Field, StringConstraints
from spindle.words.bounds import NO_NUL
from spindle.words.health import Health

Count = Annotated[int, Field(ge=0, le=10_000)]
Some = Annotated[int, Field(ge=1, le=10_000)]


class PartView(View):
    """A part on the shelf."""

    tag: str
    level: str
    level_name: str
    code: str
    name: str
    count: int
    health: str
    works: list[str]
    fails: list[str]
    is_complete: bool
    lot: str
    place: str
    piece_cents: int
    origin: str
    owner_job: str
    away_since: datetime | None


class SeenView(View):
    """What was seen to work or fail: when, by whom, in which unit."""

    function: str
    works: bool
    unit: str
    by: str
    at: datetime


class MovementView(View):
    """A line of a thing's trail."""

    text: str
    by: str
    at: datetime


class HolderView(View):
    """Who has a piece."""

    job: str
    by: str
    at: datetime


class PartDetailView(PartView):
    """A part with its trail, and where it fits; a belt with its size, where somebody has said it."""

    around_mm: float | None
    section_mm: float | None
    functions: list[str]
    checks: list[SeenView]
    trail: list[MovementView]
    holders: list[HolderView]
    fits: list[FitView]


class PieceView(View):
    """One piece of a donor."""

    level: str
    level_name: str
    code: str
    functions: dict[str, Literal["works", "fails", "suspect", "untested"]]
    health: str
    gone: str


class DonorView(View):
    """A donor in the list."""

    tag: str
    variant: str
    family: str
    sheet_id: int
    place: str
    origin: str
    left: int
    of: int
    is_scrapped: bool


class DonorDetailView(DonorView):
    """A donor taken apart on paper."""

    bought_cents: int
    pieces: list[PieceView]
    checks: list[SeenView]
    trail: list[MovementView]
    parts: list[str]


class ShortView(View):
    """A kind that has fallen below its minimum."""

    level: str
    code: str
    name: str
    here: int
    coming: int
    least: int


class GivenView(View):
    """One job gets one part."""

    job: str
    piece: str
    reason: str


class WaitsView(View):
    """A job that goes without for now."""

    job: str
    promised_on: date | None


class ScarceView(View):
    """Who should get the parts of one level."""

    level: str
    level_name: str
    here: int
    wanted: int
    given: list[GivenView]
    waits: list[WaitsView]
    next_tag: str
    next_days: float


class WantedView(View):
    """What is short, and what open jobs wait for."""

    short: list[ShortView]
    scarce: list[ScarceView]


class PlaceView(View):
    """Where a tag leads."""

    tag: str
    title: str
    path: str


# --- writes


class ReceiveIn(OnceIn):
    """Parts that come onto the shelf."""

    level: Word
    code: Code
    name: Short = ""
    count: Some
    pack_size: Some = 1
    pack_cents: Cents = 0
    health: Health = Health.NEW
    is_complete: bool = False
    lot: Annotated[str, Field(max_length=40, pattern=NO_NUL)] = ""
    place: Place = ""


class CorrectIn(OnceIn):
    """What of a part is otherwise than written; what is left out stays."""

    count: Annotated[int, Field(ge=0, le=10_000)] | None = None
    place: Place | None = None
    piece_cents: Cents | None = None
    lot: Annotated[str, StringConstraints(max_length=40, pattern=NO_NUL)] | None = None


class ScrapIn(OnceIn):
    """Pieces thrown away."""

    count: Some = 1
    why: Annotated[Short, Field(min_length=1)]


class ChecksIn(OnceIn):
    """What a part or donor was seen to do."""

    seen: dict[Word, bool]
    unit: Place = ""


class MinimumIn(OnceIn):
    """How many there should be at least."""

    level: Word
    code: Code
    count: Count


class SizeIn(OnceIn):
    """A belt's free length around and its section, in mm."""

    around_mm: Annotated[float, Field(ge=20, le=600)]
    section_mm: Annotated[float, Field(ge=0.5, le=6)]


class DonorIn(OnceIn):
    """A unit or drive kept for parts."""

    variant: Variant
    bought_cents: Cents = 0
    origin: Short = ""
    place: Place = ""


class HarvestIn(OnceIn):
    """A piece taken out of a donor."""

    level: Word
    place: Place = ""


class DonorScrapIn(OnceIn):
    """A donor or one of its pieces thrown away."""

    level: Annotated[str, Field(pattern=r"^[a-z_]{0,20}$")] = ""
    why: Annotated[Short, Field(min_length=1)]

"""What goes over the wire about the shelf. Money in cents, waits in days."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal

from api.drive_schemas import Code, FitView, Variant
from api.schemas import Cents, Key, Short, Word
from ninja import Schema
from pydantic import Field
from spindle.words.health import Health

Count = Annotated[int, Field(ge=0, le=10_000)]
Some = Annotated[int, Field(ge=1, le=10_000)]


class PartView(Schema):
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


class SeenView(Schema):
    """What was seen to work or fail: when, by whom, in which unit."""

    function: str
    works: bool
    unit: str
    by: str
    at: datetime


class MovementView(Schema):
    """A line of a thing's trail."""

    text: str
    by: str
    at: datetime


class HolderView(Schema):
    """Who has a piece."""

    job: str
    by: str
    at: datetime


class PartDetailView(PartView):
    """A part with its trail, and where it fits."""

    functions: list[str]
    checks: list[SeenView]
    trail: list[MovementView]
    holders: list[HolderView]
    fits: list[FitView]


class PieceView(Schema):
    """One piece of a donor."""

    level: str
    level_name: str
    code: str
    functions: dict[str, Literal["works", "fails", "suspect", "untested"]]
    health: str
    gone: str


class DonorView(Schema):
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


class OrderView(Schema):
    """An order on its way, with when it is expected."""

    tag: str
    supplier: str
    level_name: str
    code: str
    name: str
    count: int
    piece_cents: int
    ordered_on: date
    waited_days: float
    half_days: float
    most_days: float
    past: int


class ShortView(Schema):
    """A kind that has fallen below its minimum."""

    level: str
    code: str
    name: str
    here: int
    coming: int
    least: int


class GivenView(Schema):
    """One job gets one part."""

    job: str
    piece: str
    reason: str


class WaitsView(Schema):
    """A job that goes without for now."""

    job: str
    promised_on: date | None


class ScarceView(Schema):
    """Who should get the parts of one level."""

    level_name: str
    here: int
    wanted: int
    given: list[GivenView]
    waits: list[WaitsView]
    next_tag: str
    next_days: float


class WantedView(Schema):
    """What is short, and what open jobs wait for."""

    short: list[ShortView]
    scarce: list[ScarceView]


class PlaceView(Schema):
    """Where a tag leads."""

    tag: str
    title: str
    path: str


# --- writes


class Once(Schema):
    """What every write carries: its idempotency key."""

    key: Key


class ReceiveIn(Once):
    """Parts that come onto the shelf."""

    level: Word
    code: Code
    name: Short = ""
    count: Some
    pack_size: Some = 1
    pack_cents: Cents = 0
    health: Health = Health.NEW
    is_complete: bool = False
    lot: Short = ""
    place: Short = ""


class ScrapIn(Once):
    """Pieces thrown away."""

    count: Some = 1
    why: Annotated[Short, Field(min_length=1)]


class ChecksIn(Once):
    """What a part or donor was seen to do."""

    seen: dict[Word, bool]
    unit: Short = ""


class MinimumIn(Once):
    """How many there should be at least."""

    level: Word
    code: Code
    count: Count


class DonorIn(Once):
    """A unit or drive kept for parts."""

    variant: Variant
    bought_cents: Cents = 0
    origin: Short = ""
    place: Short = ""


class HarvestIn(Once):
    """A piece taken out of a donor."""

    level: Word
    place: Short = ""


class DonorScrapIn(Once):
    """A donor or one of its pieces thrown away."""

    level: Annotated[str, Field(pattern=r"^[a-z_]{0,20}$")] = ""
    why: Annotated[Short, Field(min_length=1)]


class OrderIn(Once):
    """An order."""

    supplier: Annotated[Short, Field(min_length=1, max_length=80)]
    level: Word
    code: Code
    name: Short = ""
    packs: Some
    pack_size: Some = 1
    pack_cents: Cents
    ordered_on: date


class ArriveIn(Once):
    """An order that is here."""

    on: date
    place: Short = ""


class CancelIn(Once):
    """An order that will not come."""

    why: Annotated[Short, Field(min_length=1)]

"""What goes over the wire about the day."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal

from api.common import OnceIn, View
from pydantic import Field, StringConstraints
from spindle.words.bounds import NO_NUL

Chance = Annotated[float, Field(ge=0, le=1)]


class WeekRowView(View):
    """One job in the order of the day: by which day it is done half of the time and nine times in ten, and how likely its promise is."""

    tag: str
    console: str
    variant: str
    stage_name: str
    hands: str
    """Who wrote to it last, by name."""
    promised_on: date | None
    half: date
    nine: date
    p_kept: Chance | None
    begins: datetime | None
    bench_min: int
    first: Literal["bench", "alone", "part", "owner"] | None
    why: str


class DeliveryView(View):
    """An order on its way: by when half, and nine in ten of such orders are here."""

    tag: str
    name: str
    half: date
    nine: date
    is_late: bool


class WeekDayView(View):
    """A day of the week's picture."""

    day: date
    is_open: bool


class WeekView(View):
    """The week as it was last worked out."""

    computed_at: datetime | None
    is_stale: bool
    benches: int
    rule_name: str
    saves_cents: int
    """Against going by promise; 0 where that is not sure."""
    units: int
    """The units that it was worked out for and that are in the house still: more than stand here where not all were asked for."""
    rows: list[WeekRowView]
    unread: list[str]
    owner_min: float | None
    """Half of the owners answer within so many open minutes, as it is reckoned with here."""
    answers: int
    """Answers of this shop's owners that it rests on."""
    unanswered: int
    """Those that are waited for still: they count as longer than they have been waited for. Where neither is any, it is what is usual elsewhere."""
    days: list[WeekDayView]
    deliveries: list[DeliveryView]


class PromiseDayView(View):
    """How likely a unit that comes in now is done by the end of a day."""

    day: date
    p: Chance


class MovedPromiseView(View):
    """Whose promise a new unit moves: its chance before and after."""

    tag: str
    before: Chance
    after: Chance


class PromiseView(View):
    """By when a unit that comes in now would be done; nothing while that is not worked out yet."""

    is_ready: bool
    days: list[PromiseDayView]
    moved: list[MovedPromiseView]


class CalendarIn(OnceIn):
    """Whose calendar an address is for."""

    name: Annotated[str, StringConstraints(max_length=60, pattern=NO_NUL)]


class CalendarView(View):
    """An address under which a calendar program fetches the days."""

    id: int
    name: str
    path: str
    at: datetime

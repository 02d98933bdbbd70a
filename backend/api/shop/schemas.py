"""What goes over the wire about the shop: its figures, what it has, who works there, and who changed what."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from api.common import Cents, Number, OnceIn, Place, Short, Text, View
from apps.people.models import Role
from apps.reports.labels import MOST_COLUMNS, MOST_ROWS
from pydantic import Field, StringConstraints
from spindle.words.bench import Instrument
from spindle.words.bounds import NO_NUL

Password = Annotated[str, StringConstraints(min_length=1, max_length=120, pattern=NO_NUL)]
Currency = Annotated[str, StringConstraints(pattern=r"^[A-Z]{3}$")]
Days = Annotated[int, Field(ge=0, le=3_650)]
Terms = Annotated[str, StringConstraints(max_length=1_000, pattern=NO_NUL)]


class InstrumentIn(OnceIn):
    """Whether the shop has an instrument."""

    instrument: Instrument
    is_there: bool


class InstrumentView(View):
    """An instrument that not every shop has."""

    id: Instrument
    name: str
    is_there: bool


class InstrumentsView(View):
    """All of them, in a fixed order."""

    instruments: list[InstrumentView]


class FiguresIn(OnceIn):
    """Some of the shop's figures, on the version that the writer saw; what is left out stays. Money in cents."""

    version: Number
    name: Short | None = None
    place: Short | None = None
    phone: Place | None = None
    terms: Terms | None = None
    currency: Currency | None = None
    time_zone: Place | None = None
    price_cents_per_min: Cents | None = None
    cost_cents_per_min: Cents | None = None
    day_cents: Cents | None = None
    late_day_cents: Cents | None = None
    give_up_cents: Cents | None = None
    damage_cents: Cents | None = None
    return_cents: Cents | None = None
    guarantee_days: Days | None = None
    opening: Annotated[str, StringConstraints(max_length=600, pattern=NO_NUL)] | None = None
    closed_days: Text | None = None
    benches: Annotated[int, Field(ge=1, le=20)] | None = None
    without_iron: Annotated[int, Field(ge=0, le=19)] | None = None
    label_columns: Annotated[int, Field(ge=1, le=MOST_COLUMNS)] | None = None
    label_rows: Annotated[int, Field(ge=1, le=MOST_ROWS)] | None = None


class TraceView(View):
    """Who changed what, from what, to what."""

    about: str
    field: str
    was: Any
    now: Any
    at: datetime
    by: str


class FiguresView(View):
    """The shop's figures with the newest changes of them. Money in cents."""

    version: int
    name: str
    place: str
    phone: str
    terms: str
    currency: str
    time_zone: str
    price_cents_per_min: int
    cost_cents_per_min: int
    day_cents: int
    late_day_cents: int
    give_up_cents: int
    damage_cents: int
    return_cents: int
    guarantee_days: int
    opening: str
    closed_days: str
    benches: int
    without_iron: int
    label_columns: int
    label_rows: int
    traces: list[TraceView]


class PersonView(View):
    """Somebody who works here, or did."""

    username: str
    shown_name: str
    role: Role
    is_active: bool
    has_first_password: bool
    last_login: datetime | None


class StaffView(View):
    """Everybody, with the newest changes."""

    people: list[PersonView]
    traces: list[TraceView]


class PersonIn(OnceIn):
    """Somebody new, with a first password that they have to change."""

    username: Annotated[str, StringConstraints(min_length=1, max_length=40, pattern=NO_NUL)]
    name: Short
    role: Role
    password: Password


class PersonChangeIn(OnceIn):
    """What changes of somebody; what is left out stays."""

    name: Short | None = None
    role: Role | None = None
    is_active: bool | None = None
    password: Password | None = None

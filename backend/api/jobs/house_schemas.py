"""What goes over the wire about the house: the day, taking in, what a search finds."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from api.common import Cents, Key, OnceIn, Short, Text, View, Word
from api.drives.schemas import PromptChoiceView
from ninja import Schema
from pydantic import Field
from spindle.job.stages import Stage
from spindle.words.bench import Instrument


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


class PromptView(View):
    """One condition prompt."""

    id: str
    ask: str
    choices: list[PromptChoiceView]


class DayRowView(View):
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
    power: Literal["out", "standby", "live"]


class FoundView(View):
    """A job that was searched for."""

    tag: str
    console: str
    owner_name: str
    stage_name: str

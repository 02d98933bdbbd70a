"""What goes over the wire about the house: the day, taking in, what a search finds."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal

from api.common import Cents, Key, Short, Text, View, Word
from api.drives.schemas import PromptChoiceView
from ninja import Schema
from pydantic import Field
from spindle.job.stages import Acts, Stage


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
    returns: Short = ""
    """Tag of the job after which this unit came back."""
    is_same_fault: bool = False
    """The owner says that it is the fault that was repaired."""
    looks: Annotated[dict[Word, Word], Field(default_factory=dict, max_length=40)]
    """What the eye saw of the drive at the counter."""


class PromptView(View):
    """One condition prompt."""

    id: str
    ask: str
    choices: list[PromptChoiceView]
    may_stay_open: bool


class DayRowView(View):
    """One job of the day."""

    tag: str
    console: str
    variant: str
    owner_name: str
    hands: str
    """Who wrote to it last."""
    complaint: str
    stage: Stage
    stage_name: str
    promised_on: date | None
    waits_for: str
    wants: str
    """The part that it waits for, by its level; "" if it waits for none."""
    held_until: datetime | None
    """Until when something passes by itself."""
    taken_in_at: datetime
    is_return: bool
    power: Literal["out", "standby", "live"]


class DayGroupView(View):
    """The units of which one and the same must happen next."""

    acts: Acts
    """Who must act next, or what they wait for."""
    count: int
    """How many there are: more than stand here where not all were asked for."""
    rows: list[DayRowView]


class HouseView(View):
    """What is in the house."""

    units: int
    """All of them, whatever words were asked for."""
    due: int
    """How many of all are promised for today, or were for a day before."""
    groups: list[DayGroupView]


class FoundView(View):
    """Something that was searched for, and where it leads."""

    kind: str
    key: str
    title: str
    line: str
    path: str


class PastJobView(View):
    """A job of before, or one of the same owner's that is here now."""

    tag: str
    console: str
    variant: str
    sheet_id: int
    owner_name: str
    owner_contact: str
    complaint: str
    taken_in_at: datetime
    closed_at: datetime | None
    outcome: str
    """How it came out; where it stands now if it is open."""
    guarantee_until: date | None
    is_covered: bool
    """Its guarantee counts today."""
    is_void: bool
    """It was taken in by mistake."""
    returns: str
    """The job after which it came back; "" if it was here for the first time."""


class OwnerView(View):
    """An owner whom the shop knows."""

    name: str
    contact: str
    jobs: list[PastJobView]

"""The calculators of the bench on the wire."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from api.common import OnceIn, View
from ninja import Schema
from pydantic import Field
from spindle.words.bounds import NO_NUL


class ChoiceView(View):
    """One of a few."""

    id: str
    name: str


class FieldView(View):
    """One thing that a calculator asks."""

    id: str
    name: str
    kind: str
    quantity: str
    unit: str
    choices: list[ChoiceView]
    columns: list[FieldView]
    optional: bool
    hint: str
    each_time: bool
    start: str


class StartView(View):
    """What a drive's sheet already says, as inputs, and of which thing."""

    name: str
    inputs: dict[str, Any]
    question: str


class ToolView(View):
    """A calculator: what it asks, and which questions of a drive it can speak to (on this drive, where one is given)."""

    id: str
    title: str
    about: str
    fields: list[FieldView]
    questions: list[str]
    starts: list[StartView]


class ReasonView(View):
    """One rule that spoke."""

    verdict: str
    text: str


class NumberView(View):
    """One number as it is read aloud."""

    name: str
    text: str


class ToldCautionView(View):
    """A caution that stands at what comes next."""

    id: str
    short: str
    text: str


class ShareView(View):
    """How far it speaks for one answer."""

    outcome: str
    label: str
    share: float


class SpeaksView(View):
    """What it says to a question of this drive."""

    question: str
    ask: str
    answers: list[ShareView]


class CalculatedView(View):
    """What a calculator answers."""

    headline: str
    verdict: str
    verdict_said: str
    reasons: list[ReasonView]
    numbers: list[NumberView]
    notes: list[str]
    cautions: list[ToldCautionView]
    picture: dict[str, Any]
    speaks: list[SpeaksView]
    may_power: bool | None
    mains: str
    next_rows: dict[str, dict[str, Any]]


class FaultView(View):
    """What is wrong or missing in what was typed, and where."""

    place: str
    text: str


class CalculationView(View):
    """An answer, or what has to be said or put right first: half a form is the usual state of one."""

    told: CalculatedView | None
    faults: list[FaultView]


class InputsIn(Schema):
    """What was typed or read."""

    inputs: dict[str, Any]


class ReadBeforeView(View):
    """One earlier reading of these points."""

    tag: str
    at: datetime
    value: float
    is_mine: bool


class RunView(View):
    """The same points over time; limits of their own once there are enough."""

    readings: list[ReadBeforeView]
    says: str
    median: float | None
    low: float | None
    high: float | None


class MeasuredView(View):
    """What was measured on a job, newest first, with the inputs that it came from."""

    line: int
    tool: str
    title: str
    about: str
    headline: str
    numbers: list[NumberView]
    inputs: dict[str, Any]
    is_struck: bool
    at: str
    by: str


Quantity = Literal["voltage", "resistance", "current"]


class SureIn(Schema):
    """How surely a meter reads: percent of the value, and so many of its last place, which is worth ``resolution`` in V, ohm or A."""

    pct: Annotated[float, Field(ge=0, le=20)] = 1.0
    digits: Annotated[float, Field(ge=0, le=100)] = 3.0
    resolution: Annotated[float, Field(ge=0, le=1000)] = 0.0


class RangeIn(SureIn):
    """The same in one range: up to so many V, ohm or A."""

    up_to: Annotated[float, Field(gt=0, le=1e9)]


class FunctionIn(SureIn):
    """How surely a meter reads one quantity, and in which ranges otherwise."""

    ranges: Annotated[list[RangeIn], Field(max_length=12, default_factory=list)]


class MeterView(View):
    """A meter that was set up."""

    id: int
    name: str
    address: str
    functions: dict[str, FunctionIn]
    leads_ohm: float | None
    is_here: bool


class MeterIn(OnceIn):
    """What a manager says of a meter; an id puts one right."""

    id: int | None = None
    name: Annotated[str, Field(max_length=60)]
    address: Annotated[str, Field(max_length=120)]
    functions: dict[Quantity, FunctionIn]
    leads_ohm: Annotated[float | None, Field(ge=0, le=3)] = None
    is_here: bool = True


class AddressIn(Schema):
    """Where a meter may be."""

    address: Annotated[str, Field(max_length=120)]


class WhoAnswersView(View):
    """Who answers there."""

    says: str


class ReadIn(Schema):
    """What is to be read."""

    quantity: Quantity
    before: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=2, default_factory=list)]


class LineIn(ReadIn):
    """A line that came from a meter on the bench's own computer."""

    text: Annotated[str, Field(max_length=200)]


class TakenView(View):
    """What a meter reads now, as it is typed and as it is read aloud; whether it holds; how sure the meter is, where that is known."""

    value: str
    shown: str
    holds: bool
    pct: float | None
    digits: float | None
    resolution: float | None
    leads_ohm: float | None


class RunIn(Schema):
    """Which points, and in which state."""

    about: Annotated[str, Field(max_length=120, pattern=NO_NUL)]
    quantity: Quantity
    mains: Annotated[str, Field(max_length=10, pattern=NO_NUL)]
    disc: Annotated[str, Field(max_length=10, pattern=NO_NUL)]
    switch: Annotated[str, Field(max_length=10, pattern=NO_NUL)]

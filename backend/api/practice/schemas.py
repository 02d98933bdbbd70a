"""Practice on the wire. Money in cents."""

from __future__ import annotations

from typing import Annotated

from api.common import OnceIn, View, Word
from api.drives.schemas import DriveView
from api.jobs.diagnosis_schemas import SuspectView
from pydantic import Field, StringConstraints
from spindle.practice.state import Care, Do
from spindle.words.bench import Mains

OneWord = Annotated[str, StringConstraints(pattern=r"^[a-z0-9_]{0,40}$")]


class LessonView(View):
    """A lesson, and how far somebody is with it."""

    id: str
    number: int
    name: str
    family: str
    teaches: str
    tries: int
    is_mastered: bool
    best_times: float | None
    open_run: int | None


class OwnDriveView(View):
    """A drive of the shop's sheets, and the lessons that can be played on it."""

    sheet: int
    name: str
    lessons: list[str]


class InClassView(View):
    """One person of the class."""

    name: str
    mastered: list[str]
    tries: int
    mean_times: float | None
    traps: list[str]


class BeginIn(OnceIn):
    """Which lesson."""

    lesson: Word
    sheet: Annotated[int, Field(ge=1, le=2_000_000_000)] | None = None
    """The sheet whose drive it is; none for the lesson's own."""
    tells_each: bool = False
    """What the planner would have done is told after each move."""
    is_led: bool = False
    """The next move is shown before each, as on the bench."""


class PracticeMoveIn(OnceIn):
    """A move, after so many."""

    after: Annotated[int, Field(ge=0, le=1_000)]
    do: Do
    what: OneWord = ""
    care: Annotated[list[Care], Field(max_length=3, default_factory=list)]
    percent: Annotated[int, Field(ge=0, le=100)] = 0
    mains: Mains = Mains.ANY


class PracticePartView(View):
    """A thing by its id and its name."""

    id: str
    name: str


class PracticeTipsView(View):
    """Where the tips of the meter go for a look, and the limit with the state that it is for."""

    points: str
    limit: str


class PracticeLookView(View):
    """Something that can be looked at, with what it would cost from here; with ``tips`` it is measured, in a state that the learner chooses."""

    id: str
    ask: str
    how: str
    group: str
    cents: int
    minutes: float
    answer: str
    cautions: list[str]
    tips: PracticeTipsView | None


class PracticeDoView(View):
    """One step of a repair, with what can hurt at it."""

    text: str
    cautions: list[str]


class PracticeTryView(View):
    """A repair that can be tried, with what it would cost from here."""

    id: str
    name: str
    part: str
    cents: int
    minutes: float
    part_cents: int
    wait_days: float
    is_wet: bool
    brings_board: bool
    donor_cents: int | None
    """What a donor's part costs if it stays; none if there is none here."""
    tried: int
    steps: list[PracticeDoView]
    goes_wrong: str


class PracticeAdviceView(View):
    """What the bench would advise now: its next move, and whom it suspects."""

    says: str
    do: Do
    what: str
    care: list[Care]
    drive: DriveView
    suspects: list[SuspectView]
    parts: list[SuspectView]


class PracticeWayView(View):
    """How far it can be opened or shut by hand from here, the minutes, and the steps of its sheet."""

    depth: str
    name: str
    is_now: bool
    is_shutting: bool
    """A flex can be forgotten: it was open, and will be shut."""
    minutes: float
    steps: list[str]


class PracticeBesideView(View):
    """A move beside the planner's: what that would have been, "" where it was as good, none where nobody can say; and how much cheaper to the end."""

    best: str | None
    regret_cents: int
    traps: list[str]


class PracticeLogView(View):
    """A move, and what came of it; beside the planner's, where that is told after each."""

    did: str
    says: str
    mishap: str
    cents: int
    at_min: float
    """At which minute of the unit it was done."""
    beside: PracticeBesideView | None


class PracticeStepView(View):
    """A move in the debriefing."""

    did: str
    says: str
    mishap: str
    regret_cents: int
    best: str
    traps: list[str]


class PracticeScoreView(View):
    """What it came to, beside the planner on the same unit."""

    cents: int
    minutes: float
    planner_cents: int
    planner_minutes: float
    is_repaired: bool
    is_mastered: bool
    needless: int
    risks: int
    hints: int
    guess: str
    hidden: list[str]
    steps: list[PracticeStepView]
    teaches: str


class PracticeRunView(View):
    """A practice unit as it stands. What is hidden in it is not here before it is over."""

    id: int
    lesson: str
    name: str
    number: int
    family: str
    drive: str
    """What it is, by its sheet; "" for the well-equipped one of the family."""
    sheet: int | None
    tells_each: bool
    is_led: bool
    moves: int
    told: list[str]
    is_live: bool
    ways: list[PracticeWayView]
    advice: PracticeAdviceView | None
    cents: int
    minutes: float
    is_clean: bool
    may_guess: bool
    may_play: bool
    """What it sounds like can be played: somebody has listened since the last repair."""
    is_over: bool
    guess: str
    parts: list[PracticePartView]
    looks: list[PracticeLookView]
    repairs: list[PracticeTryView]
    log: list[PracticeLogView]
    score: PracticeScoreView | None

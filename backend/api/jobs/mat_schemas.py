"""What goes over the wire about a unit that is opened and shut: its steps, its screws, the way in and the way back."""

from __future__ import annotations

from datetime import datetime

from api.common import View
from spindle.bench.opening.mat import PlaceState


class ScrewPlaceView(View):
    """The place of one screw."""

    id: str
    at: tuple[float, float] | None
    """Percent from the left and the top of the picture; None if nobody measured."""
    state: PlaceState
    why: str
    """What somebody said of it, and what went in instead."""


class ScrewGroupView(View):
    """Equal screws that hold one thing."""

    id: str
    name: str
    screw: str
    length_mm: float
    thread_mm: float
    head: str
    colour: str
    captive: bool
    places: list[ScrewPlaceView]


class DisputeView(View):
    """One of the ways in which shops do a step."""

    name: str
    how: str
    risk: str
    when: str


class MatStepView(View):
    """A step of the opening order, and whether it can be done now."""

    id: str
    name: str
    kind: str
    is_outside: bool
    side: str
    minutes: float
    is_open: bool
    held: str
    """What still holds it, or lies over it open; "" if it can be done or put back now."""
    looks: list[str]
    """What a hand has to know before it."""
    checks: list[str]
    """What is looked at when it goes back."""
    photo_first: bool
    picture: str
    mains: str
    ways: list[DisputeView]
    groups: list[ScrewGroupView]


class MoveOnView(View):
    """A step of a way: what the unit is turned to before it ("" for not at all), and what could fall out by that."""

    step: str
    turn_to: str
    falls: list[str]


class GoalView(View):
    """Somewhere to get to."""

    id: str
    name: str


class WayView(View):
    """Steps in order with their minutes."""

    minutes: float
    moves: list[MoveOnView]


class MatView(View):
    """The mat of a job."""

    goals: list[GoalView]
    goal: str
    steps: list[MatStepView]
    way_in: WayView
    way_back: WayView
    recorded: list[int]
    """Lines of the steps that were recorded here because no sheet has them: they can be struck."""
    next_picture: str
    """The photo that goes with the step which is recorded next."""
    to_record: list[str]
    """Of which sheets nobody has said how to open it: console, drive."""
    latches: list[str]
    says: list[str]
    """The state of the mat in words."""


class NextBackView(View):
    """What goes back next, with what is looked at."""

    step: str
    name: str
    turn_to: str
    checks: list[str]


class DraftedView(View):
    """The sheets into which recorded steps went, each with its version."""

    written: list[str]


class DotView(View):
    """A numbered point on a photo."""

    x: float
    y: float
    says: str


class PhotoView(View):
    """A photo of a job."""

    line: int
    hash: str
    of: str
    """The step of the opening order that it is of; "" for none."""
    moment: str
    about: str
    for_owner: bool
    at: datetime
    by: str
    dots: list[DotView]


class MatBriefView(View):
    """Of the mat, what every bench screen shows."""

    has_order: bool
    """The sheets say how this unit is opened."""
    left: int
    """Steps that are open."""
    next_back: NextBackView | None

"""What goes over the wire about the record."""

from __future__ import annotations

from datetime import date, datetime

from api.common import Number, OnceIn, View
from spindle.learning.layer import Part
from spindle.learning.telling import Told


class ReliableGroupView(View):
    """Chances that were said alike: their mean, how many, how many came true, and the 95 % interval of that share."""

    said: float
    n: int
    came: int
    low: float
    high: float


class ReliabilityView(View):
    """How chances that were said came out."""

    n: int
    is_enough: bool
    groups: list[ReliableGroupView]
    error: float
    log_loss: float
    base_log_loss: float


class CountedShareView(View):
    """k of n, with the 95 % interval of the share."""

    k: int
    n: int
    low: float
    high: float
    is_enough: bool


class MoneyView(View):
    """What was paid over what was offered first, in cents: the mean, and between which four of five lie."""

    n: int
    mean_cents: int
    low_cents: int
    high_cents: int
    is_enough: bool


class AdviceView(View):
    """How honest the advice was: of all repairs that were tried, of those it put first, and of those that somebody chose instead."""

    jobs: int
    parts_for_nothing: float
    every: ReliabilityView
    followed: ReliabilityView
    chosen: ReliabilityView
    first: CountedShareView
    first_three: CountedShareView
    proven_back: CountedShareView
    probable_back: CountedShareView
    money: MoneyView


class ByWayView(View):
    """What the units with a confirmed cause cost by one way, the mean; how much more than by the advice, and between which that lies."""

    way: str
    name: str
    mean_cents: int
    more_cents: int
    low_cents: int
    high_cents: int


class AgainstSchoolsView(View):
    """The units that were played again, of all that could be, and what they cost by each way."""

    played: int
    of: int
    ways: list[ByWayView]


class MonthView(View):
    """One month of the shop."""

    first: date
    taken_in: int
    handed_back: int
    late: int
    promised: int
    repaired: int
    came_back: int
    days: float | None
    paid_cents: int
    unpaid: int


class SupplierFiguresView(View):
    """How long a supplier takes, by n past orders, and what of it is on its way and late."""

    name: str
    n: int
    half_days: float
    nine_days: float
    on_the_way: int
    late: int


class FiguresOfMonthsView(View):
    """The last months, this one first, and what lies on the shelf."""

    months: list[MonthView]
    stock_cents: int
    stock_pieces: int
    lies_cents: int
    lies_pieces: int
    suppliers: list[SupplierFiguresView]


class UseLearntIn(OnceIn):
    """Put what was learnt to use; ``jobs``: over how many closed jobs it was shown."""

    jobs: Number


class LearntPartView(View):
    """How a part of what was learnt goes on predicting jobs that it has not seen: nats saved a job, with the standard error, over n."""

    part: Part
    n: int
    gain: float
    error: float
    is_better: bool
    since_version: bool
    """It is judged against what was put to use before, by the jobs since then alone; else against the shipped figures, by all."""


class LearntRowView(View):
    """One thing that was learnt: what was taken as true, what the jobs say, with its 90 % interval where one is known, over n."""

    about: Told
    of: str
    name: str
    was: float | None
    now: float
    n: float
    low: float | None
    high: float | None
    confirmed: int | None
    of_confirmed: int | None


class LayerView(View):
    """What is in use of what was learnt."""

    number: int
    at: datetime
    by: str
    jobs: int
    parts: list[Part]


class LearningView(View):
    """What the closed jobs teach, before it is put to use: over how many, how each part is judged, row by row; and what is in use."""

    jobs: int
    confirmed: int
    parts: list[LearntPartView]
    rows: list[LearntRowView]
    in_use: LayerView | None


class OtherSuspectView(View):
    """An open job that would get another first suspect."""

    tag: str
    variant: str
    was: str
    p_was: float
    now: str
    p_now: float


class OtherSuspectsView(View):
    """The open jobs that would get another first suspect."""

    jobs: list[OtherSuspectView]

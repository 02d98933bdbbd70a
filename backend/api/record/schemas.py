"""What goes over the wire about the record."""

from __future__ import annotations

from datetime import date

from api.common import View


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


class AdviceView(View):
    """How honest the advice was: of all repairs that were tried, of those it put first, and of those that somebody chose instead."""

    jobs: int
    parts_for_nothing: float
    every: ReliabilityView
    followed: ReliabilityView
    chosen: ReliabilityView


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


class FiguresOfMonthsView(View):
    """The last months, this one first, and what lies on the shelf."""

    months: list[MonthView]
    stock_cents: int
    stock_pieces: int
    lies_cents: int
    lies_pieces: int

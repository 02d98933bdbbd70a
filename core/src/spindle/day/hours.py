"""When the shop is open, and its time counted in open minutes from now: nights, Sundays and holidays cost a job nothing."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Iterator
from dataclasses import dataclass, field
from datetime import date, datetime, time, timedelta
from functools import cached_property
from itertools import accumulate, pairwise
from typing import Final

from spindle.errors import InvalidError

HORIZON_DAYS: Final = 400
"""No promise is given beyond that; what would take longer is said to take that long."""
DAY_MIN: Final = 24 * 60
DAYS: Final = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")

Spans = tuple[tuple[int, int], ...]


@dataclass(frozen=True)
class Hours:
    """When a shop is open.

    Attributes
    ----------
    week : for each weekday from Monday, spans as (from, to) in minutes of the day
    closed : days on which it is shut whatever the weekday
    """

    week: tuple[Spans, ...]
    closed: frozenset[date] = frozenset()

    def spans(self, day: date) -> Spans:
        """Return when it is open on a day."""
        return () if day in self.closed else self.week[day.weekday()]

    def is_open(self, day: date) -> bool:
        """Tell whether anybody is there on a day."""
        return bool(self.spans(day))

    def open_between(self, begins: datetime, ends: datetime) -> float:
        """Return the open minutes between two moments of the shop's own clock; 0 if the second is not after the first."""
        first, last = begins.date(), ends.date()
        found = 0.0
        for n in range((last - first).days + 1):
            day = first + timedelta(days=n)
            low = _of_day(begins) if day == first else 0.0
            high = _of_day(ends) if day == last else float(DAY_MIN)
            found += sum(max(min(b, high) - max(a, low), 0.0) for a, b in self.spans(day))
        return found


def check_hands(benches: int, without_iron: int) -> None:
    """Check that somebody of those who work at a time solders.

    Raises
    ------
    InvalidError
    """
    if without_iron >= benches:
        who = "the one who works here" if benches == 1 else f"all {benches} who work here at a time"
        raise InvalidError("without_iron", f"That would be {who}. If nobody solders, say so among what the shop has: then no advice asks for it.")


def read_hours(week: str, closed: str = "") -> Hours:
    """Return the hours that somebody wrote: a line for one day or several, and a line for each day, or row of days, that the shop is shut.

    Raises
    ------
    InvalidError
        At ``opening`` or ``closed_days``, naming the line: no day, no span, a span that ends before it begins, no open day, or a date that is none.

    >>> hours = read_hours("Mon-Fri 9:00-12:30 13:15-18:00\nSat 9:00-13:00", "2026-12-24 to 2026-12-26")
    >>> hours.spans(date(2026, 3, 7)), hours.is_open(date(2026, 12, 25))
    (((540, 780),), False)
    """
    days: list[Spans] = [()] * 7
    for line in filter(None, (x.strip() for x in week.splitlines())):
        named, _, rest = line.partition(" ")
        for n in _named(named, line):
            days[n] = _spans(rest, line)
    if not any(days):
        raise InvalidError("opening", "The shop is open on no day: write lines such as “Mon-Fri 9:00-17:30”.")
    return Hours(tuple(days), frozenset(_closed(closed)))


def _named(text: str, line: str) -> range:
    first, _, last = text.replace("–", "-").lower().partition("-")
    try:
        begins = DAYS.index(first[:3])
        return range(begins, DAYS.index((last or first)[:3]) + 1)
    except ValueError as error:
        raise InvalidError("opening", f"“{line}” begins with no day: write Mon, or Mon-Fri.") from error


def _spans(text: str, line: str) -> Spans:
    spans = tuple(_span(part, line) for part in text.split() if part != "closed")
    for (_, before), (after, _) in pairwise(spans):
        if after < before:
            raise InvalidError("opening", f"“{line}”: one span begins before the other has ended.")
    return spans


def _span(text: str, line: str) -> tuple[int, int]:
    said = f"“{line}”: “{text}” is no span; write one as 9:00-17:30."
    try:
        begins, ends = (_minute(t) for t in text.replace("–", "-").split("-"))
    except ValueError as error:
        raise InvalidError("opening", said) from error
    if begins >= ends:
        raise InvalidError("opening", said)
    return begins, ends


def _closed(text: str) -> Iterator[date]:
    for line in filter(None, (x.strip() for x in text.splitlines())):
        first, _, last = line.partition(" to ")
        try:
            begins, ends = date.fromisoformat(first.strip()), date.fromisoformat((last or first).strip())
        except ValueError as error:
            raise InvalidError("closed_days", f"“{line}” is no day: write 2026-12-24, or 2026-12-24 to 2027-01-02.") from error
        if not 0 <= (ends - begins).days <= HORIZON_DAYS:
            raise InvalidError("closed_days", f"“{line}”: it ends before it begins, or lasts over a year.")
        yield from (begins + timedelta(days=n) for n in range((ends - begins).days + 1))


def _of_day(moment: datetime) -> float:
    return moment.hour * 60 + moment.minute + moment.second / 60


def _minute(text: str) -> int:
    if text.strip() == "24:00":
        return DAY_MIN
    at = time.fromisoformat(text.strip().zfill(5))
    return at.hour * 60 + at.minute


@dataclass(frozen=True)
class Clock:
    """Open minutes from ``now`` on, and back to days and moments of the shop's own clock."""

    hours: Hours
    now: datetime
    """As the shop's clock shows it; with or without its zone, which is kept."""
    days: tuple[date, ...] = field(init=False)

    def __post_init__(self) -> None:
        """Lay the days out."""
        object.__setattr__(self, "days", tuple(self.now.date() + timedelta(days=n) for n in range(HORIZON_DAYS)))

    @cached_property
    def opens_at(self) -> list[float]:
        """The open minutes that have passed when each day begins."""
        return [0.0, *accumulate(sum(b - a for a, b in self._left(day)) for day in self.days)]

    def _left(self, day: date) -> list[tuple[float, float]]:
        passed = self.now.hour * 60 + self.now.minute if day == self.now.date() else 0
        return [(max(a, passed), b) for a, b in self.hours.spans(day) if b > passed]

    def day_at(self, minute: float) -> int:
        """Return the place of the day on which an open minute begins."""
        return min(bisect_right(self.opens_at, minute) - 1, HORIZON_DAYS - 1)

    def done_on(self, minute: float) -> int:
        """Return the place of the day on which something is done that ends at that minute: at closing time it is that very day."""
        return min(max(bisect_left(self.opens_at, minute) - 1, 0), HORIZON_DAYS - 1)

    def after_days(self, minute: float, days: float) -> float:
        """Return the minute at which something is there that comes so many days later: in the morning, for whoever opens."""
        if days <= 0.0:
            return minute
        return self.opens_at[min(self.day_at(minute) + max(round(days), 1), HORIZON_DAYS)]

    def after_alone(self, minute: float, passes_min: float) -> float:
        """Return the minute at which something has passed by itself, such as drying: what is left of it at closing time passes overnight."""
        return min(minute + passes_min, self.opens_at[self.day_at(minute) + 1])

    def moment(self, minute: float) -> datetime:
        """Return when an open minute is."""
        place = self.day_at(minute)
        left = minute - self.opens_at[place]
        for begins, ends in self._left(self.days[place]):
            if left < ends - begins:
                return datetime.combine(self.days[place], time(), self.now.tzinfo) + timedelta(minutes=begins + left)
            left -= ends - begins
        return datetime.combine(self.days[-1], time(), self.now.tzinfo)

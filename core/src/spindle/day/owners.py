"""How long owners think it over, by what they took before: in open minutes, log-normal, shrunk to what is usual."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from math import exp, log, pi, sqrt
from typing import Final

from scipy.special import log_ndtr

from spindle.day.hours import Hours
from spindle.day.legs import Pace
from spindle.learning.logs import Believed, of_logs

AT_THE_COUNTER_MIN: Final = 5.0
"""Who answers within that by the clock stood there, and was not waited for. Nobody else is counted as quicker: by night no open minute passes."""
STRENGTH: Final = 10.0
"""Answers that the usual wait is worth, and its spread."""
ROUNDS: Final = 12
"""Enough that the middle moves by less than a hundredth of a step."""
STEP: Final = 1.25
"""A wait moves by quarters: every job's ways are drawn anew when it does, and a day more or less is not told by less."""


@dataclass(frozen=True)
class Waits:
    """How long proposals waited, in open minutes: those that were answered, and so far those that are not."""

    answered: tuple[float, ...] = ()
    so_far: tuple[float, ...] = ()


def waits_of(said: Iterable[tuple[int, str, datetime]], hours: Hours, now: datetime, waiting: Collection[int] = ()) -> Waits:
    """Return how long each proposal waited for its first word; a second word on it was not waited for, nor who stood there.

    Parameters
    ----------
    said : (job, "proposal" or "consent", when by the shop's clock), each job's in the order of its tape
    waiting : jobs whose owner must act: their last proposal is waited for still. Of others nobody knows whether it was ever asked
    """
    asked: dict[int, datetime] = {}
    answered = []
    for job, kind, at in said:
        if kind == "proposal":
            asked[job] = at
        elif job in asked and at - (since := asked.pop(job)) > timedelta(minutes=AT_THE_COUNTER_MIN):
            answered.append(max(hours.open_between(since, at), AT_THE_COUNTER_MIN))
    so_far = (hours.open_between(since, now) for job, since in asked.items() if job in waiting)
    return Waits(tuple(answered), tuple(w for w in so_far if w > AT_THE_COUNTER_MIN))


def owners_pace(waits: Waits, usual: Pace | None = None) -> Pace:
    """Return the pace of a shop whose owners took so long.

    What is waited for still takes longer than it has: its log is taken as the mean of what is left of the normal above it, again and
    again until that stands (expectation and maximisation, A. P. Dempster et al., JRSS B 39, 1977).
    """
    usual = usual or Pace()
    logs, open_ = [log(w) for w in waits.answered], [log(w) for w in waits.so_far]
    found = _of(logs, usual)
    for _ in range(ROUNDS if open_ else 0):
        found = _of([*logs, *(_beyond(c, found.middle, sqrt(found.variance)) for c in open_)], usual)
    steps = round((found.middle - log(usual.owner_min)) / log(STEP))
    return replace(usual, owner_min=round(exp(log(usual.owner_min) + steps * log(STEP)), 1), owner_sigma=round(sqrt(found.variance), 1))


def _of(logs: Sequence[float], usual: Pace) -> Believed:
    return of_logs(logs, log(usual.owner_min), strength=STRENGTH, spread=usual.owner_sigma, sure=STRENGTH)


def _beyond(least: float, middle: float, spread: float) -> float:
    """Return the mean of a normal above a value."""
    z = (least - middle) / spread
    return float(max(middle + spread * exp(-0.5 * z * z - log_ndtr(-z)) / sqrt(2.0 * pi), least))

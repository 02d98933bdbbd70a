"""How long owners think it over, by what they took before: in open minutes, log-normal, shrunk to what is usual."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from math import exp, log, sqrt
from typing import Final

from spindle.day.hours import Hours
from spindle.day.legs import Pace
from spindle.learning.logs import of_logs

AT_THE_COUNTER_MIN: Final = 5.0
"""Who answers within that by the clock stood there, and was not waited for. Nobody else is counted as quicker: by night no open minute passes."""
STRENGTH: Final = 10.0
"""Answers that the usual wait is worth, and its spread."""
STEP: Final = 1.25
"""A wait moves by quarters: every job's ways are drawn anew when it does, and a day more or less is not told by less."""


def waits_of(said: Iterable[tuple[int, str, datetime]], hours: Hours) -> list[float]:
    """Return how long each proposal waited for its first word, in open minutes; a second word on it was not waited for, nor who stood there.

    Parameters
    ----------
    said : (job, "proposal" or "consent", when by the shop's clock), each job's in the order of its tape
    """
    asked: dict[int, datetime] = {}
    waits = []
    for job, kind, at in said:
        if kind == "proposal":
            asked[job] = at
        elif job in asked and at - (since := asked.pop(job)) > timedelta(minutes=AT_THE_COUNTER_MIN):
            waits.append(max(hours.open_between(since, at), AT_THE_COUNTER_MIN))
    return waits


def owners_pace(waits_min: Sequence[float], usual: Pace | None = None) -> tuple[Pace, int]:
    """Return the pace of a shop whose owners took so long, in open minutes above 0, and how many of them were waited for.

    Questions that nobody has answered yet are not among them: where many never are, the wait is longer than it says.
    """
    usual = usual or Pace()
    logs = [log(w) for w in waits_min]
    found = of_logs(logs, log(usual.owner_min), strength=STRENGTH, spread=usual.owner_sigma, sure=STRENGTH)
    steps = round((found.middle - log(usual.owner_min)) / log(STEP))
    return replace(usual, owner_min=round(exp(log(usual.owner_min) + steps * log(STEP)), 1), owner_sigma=round(sqrt(found.variance), 1)), len(logs)

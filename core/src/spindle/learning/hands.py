"""How long repairs take here, and who is quicker or slower at what: log-normal, shrunk to what was planned; pauses cut."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import exp, log
from statistics import median
from typing import Final

from spindle.learning.logs import of_logs
from spindle.learning.past import Took

PAUSE: Final = 4.0
"""What took over four times its median was a pause: somebody was called away. It counts as not timed."""
TYPED_LATER: Final = 0.15
"""What took under a seventh of what was planned was written down afterwards."""
STRENGTH: Final = 8.0
"""Jobs that the plan's own minutes are worth."""
A_HAND: Final = 2.0
"""Jobs that "as quick as the others" is worth, of a hand: people differ more than plans are wrong."""
SPREAD: Final = 0.35
"""Spread of the log of minutes for one hand at one repair: a third more or less. Invented; worth :data:`STRENGTH` jobs as well."""


@dataclass(frozen=True, slots=True)
class Pace:
    """How many times as long as planned: n timed, the middle, and its 90 % interval."""

    n: int
    factor: float
    low: float
    high: float


@dataclass(frozen=True)
class Hands:
    """Pace by repair; and by (person, whether it is soldering) against what the others take for the same repairs."""

    repairs: Mapping[str, Pace]
    people: Mapping[tuple[str, bool], Pace]


def learn_hands(took: Sequence[Took]) -> Hands:
    """Return the pace of each repair, and of each hand against it.

    A hand is judged against the same repairs in other hands, so that who gets the hard ones is not called slow.
    """
    own = _timed(took)
    shop = _shrunk([log(t.minutes / t.planned) for t in own], 0.0)
    of = {r: [t for t in own if t.repair == r] for r in sorted({t.repair for t in own})}
    repairs = {r: _shrunk([log(t.minutes / t.planned) for t in ts], log(shop.factor)) for r, ts in of.items()}
    people = {}
    for who, is_iron in sorted({(t.who, t.is_iron) for t in own}):
        others = {r: [log(t.minutes / t.planned) for t in ts if t.who != who] for r, ts in of.items()}
        usual = {r: log(_shrunk(logs, log(shop.factor)).factor) for r, logs in others.items()}
        people[who, is_iron] = _shrunk([log(t.minutes / t.planned) - usual[t.repair] for t in own if (t.who, t.is_iron) == (who, is_iron)], 0.0, A_HAND)
    return Hands(repairs, people)


def is_typed_later(took: Took) -> bool:
    """Tell whether so little time was taken that it was written down afterwards."""
    return took.minutes <= TYPED_LATER * took.planned


def is_timed(took: Took) -> bool:
    """Tell whether minutes were taken by the clock, and with no pause in them, by the plan alone."""
    return not is_typed_later(took) and took.minutes <= PAUSE * took.planned


def _timed(took: Sequence[Took]) -> list[Took]:
    """Leave out pauses, and what was written down afterwards; each repair by its own median."""
    ratios: dict[str, list[float]] = {}
    for t in took:
        if not is_typed_later(t):
            ratios.setdefault(t.repair, []).append(t.minutes / t.planned)
    middle = {r: median(x) for r, x in ratios.items()}
    return [t for t in took if t.repair in middle and not is_typed_later(t) and t.minutes / t.planned <= PAUSE * middle[t.repair]]


def _shrunk(logs: Sequence[float], towards: float, strength: float = STRENGTH) -> Pace:
    """Return the posterior of the mean of logs, as a factor."""
    found = of_logs(logs, towards, strength=strength, spread=SPREAD, sure=strength)
    return Pace(len(logs), exp(found.middle), exp(found.middle - found.half), exp(found.middle + found.half))

"""How long repairs and looks take here, and who is quicker or slower at what: log-normal, shrunk to what was planned; pauses cut."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from math import exp, log
from statistics import median
from typing import Final, Protocol, TypeVar

from spindle.learning.logs import of_logs
from spindle.learning.past import Looked, Took

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
    """Pace by repair, and by question that was looked at; and by (person, whether it is soldering) against what the others take for the same repairs."""

    repairs: Mapping[str, Pace]
    people: Mapping[tuple[str, bool], Pace]
    looks: Mapping[str, Pace]


class _Clocked(Protocol):
    """Something that took minutes where so many were planned."""

    @property
    def minutes(self) -> float: ...
    @property
    def planned(self) -> float: ...


_C = TypeVar("_C", bound=_Clocked)


def learn_hands(took: Sequence[Took], looked: Sequence[Looked] = ()) -> Hands:
    """Return the pace of each repair and of each look, and of each hand at repairs.

    A hand is judged against the same repairs in other hands, so that who gets the hard ones is not called slow.
    """
    own = _timed(took, _repair)
    shop = _shop(own)
    of = {r: [t for t in own if t.repair == r] for r in sorted({t.repair for t in own})}
    people = {}
    for who, is_iron in sorted({(t.who, t.is_iron) for t in own}):
        others = {r: [_off(t) for t in ts if t.who != who] for r, ts in of.items()}
        usual = {r: log(_shrunk(logs, log(shop.factor)).factor) for r, logs in others.items()}
        people[who, is_iron] = _shrunk([_off(t) - usual[t.repair] for t in own if (t.who, t.is_iron) == (who, is_iron)], 0.0, A_HAND)
    return Hands(_paces(own, _repair), people, _paces(_timed(looked, _question), _question))


def is_typed_later(took: _Clocked) -> bool:
    """Tell whether so little time was taken that it was written down afterwards."""
    return took.minutes <= TYPED_LATER * took.planned


def is_timed(took: _Clocked) -> bool:
    """Tell whether minutes were taken by the clock, and with no pause in them, by the plan alone."""
    return not is_typed_later(took) and took.minutes <= PAUSE * took.planned


def _repair(took: Took) -> str:
    return took.repair


def _question(looked: Looked) -> str:
    return looked.question


def _off(took: _Clocked) -> float:
    return log(took.minutes / took.planned)


def _shop(timed: Sequence[_Clocked]) -> Pace:
    return _shrunk([_off(t) for t in timed], 0.0)


def _paces(timed: Sequence[_C], of: Callable[[_C], str]) -> dict[str, Pace]:
    """Return the pace of each thing, shrunk to the shop's at all of them."""
    towards = log(_shop(timed).factor)
    logs: dict[str, list[float]] = {}
    for t in timed:
        logs.setdefault(of(t), []).append(_off(t))
    return {what: _shrunk(own, towards) for what, own in sorted(logs.items())}


def _timed(took: Sequence[_C], of: Callable[[_C], str]) -> list[_C]:
    """Leave out pauses, and what was written down afterwards; each thing by its own median."""
    ratios: dict[str, list[float]] = {}
    for t in took:
        if not is_typed_later(t):
            ratios.setdefault(of(t), []).append(t.minutes / t.planned)
    middle = {what: median(x) for what, x in ratios.items()}
    return [t for t in took if of(t) in middle and not is_typed_later(t) and t.minutes / t.planned <= PAUSE * middle[of(t)]]


def _shrunk(logs: Sequence[float], towards: float, strength: float = STRENGTH) -> Pace:
    """Return the posterior of the mean of logs, as a factor."""
    found = of_logs(logs, towards, strength=strength, spread=SPREAD, sure=strength)
    return Pace(len(logs), exp(found.middle), exp(found.middle - found.half), exp(found.middle + found.half))

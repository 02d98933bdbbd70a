"""How long repairs last, by what came back: units that have not come back yet count for as long as they have been away.

The time until the same fault is back is log-normal about a median (:mod:`spindle.faults.lasting`). The median is believed log-normal
about the shipped one; a return adds its density, a unit that is still away the chance that it is (right-censored). A Kaplan-Meier curve
would say the same of the months seen, and nothing of the year to come; one repair in one shop is too thin to read a shape from.

References
----------
.. [1] W. Q. Meeker, L. A. Escobar, *Statistical Methods for Reliability Data*, Wiley 1998, ch. 8 (log-normal, right-censored).
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.special import log_ndtr

from spindle.faults.lasting import SPREAD

DOUBT: Final = 0.5
"""Spread of the log of what was shipped: a median may well be half or twice of it."""
MOST_MONTHS: Final = 24.0
"""Who comes back after two years does not always come back to us: what lasts so long is not watched further."""
_STEPS: Final = np.linspace(-2.5, 2.5, 201)


@dataclass(frozen=True, slots=True)
class Away:
    """A repaired unit that went home: for how many months it has been watched, and whether it came back with the same fault then."""

    variant: str
    repair: str
    months: float
    came_back: bool


@dataclass(frozen=True, slots=True)
class Lasts:
    """How long a repair lasts: units, returns, months until one unit of two is back, and their 90 % interval."""

    n: int
    came_back: int
    months: float
    low: float
    high: float
    shipped: float

    @property
    def is_beyond_doubt(self) -> bool:
        """True if what was shipped lies outside the interval."""
        return not self.low <= self.shipped <= self.high


def learn_lasting(away: Iterable[Away], shipped: Mapping[str, float]) -> dict[str, Lasts]:
    """Return how long each repair lasts.

    Parameters
    ----------
    shipped : repair -> months until one unit of two is back, as shipped; others are left out

    Examples
    --------
    >>> found = learn_lasting([Away("V", "clean_lens", 12.0, False)] * 40, {"clean_lens": 12.0})["clean_lens"]
    >>> found.months > 12.0
    True
    """
    seen: dict[str, list[Away]] = {}
    for unit in away:
        if unit.repair in shipped and unit.months > 0.0:
            seen.setdefault(unit.repair, []).append(unit)
    return {repair: _lasts(units, shipped[repair]) for repair, units in sorted(seen.items())}


def _lasts(units: list[Away], shipped: float) -> Lasts:
    log_median = np.log(shipped) + _STEPS
    log_p = -0.5 * (_STEPS / DOUBT) ** 2
    for unit in units:
        z = (np.log(min(unit.months, MOST_MONTHS)) - log_median) / SPREAD
        log_p += -0.5 * z**2 if unit.came_back and unit.months <= MOST_MONTHS else log_ndtr(-z)
    p = np.exp(log_p - log_p.max())
    reached = np.cumsum(p) / p.sum()
    low, middle, high = (float(np.exp(log_median[int(np.searchsorted(reached, q))])) for q in (0.05, 0.5, 0.95))
    return Lasts(len(units), sum(u.came_back for u in units), middle, low, high, shipped)

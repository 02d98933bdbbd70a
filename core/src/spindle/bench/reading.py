"""What a reading is worth: its value from repeats, its uncertainty, whether it can tell, and how it speaks for each answer of a question.

The uncertainty is a standard one, combined as JCGM 100:2008 (*Guide to the expression of uncertainty in measurement*) combines: the maker's accuracy as
a rectangle (4.3.7), leads and spread as variances (5.1.2).
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.special import ndtr

from spindle.errors import InvalidError

LOW_OHM: Final = 10.0
"""Under it the leads are no longer nothing beside what is read."""
LEADS_OHM: Final = 0.35
"""What two bench leads and their tips have where nobody touched them together first: 0.1 to 0.6 in ordinary use."""
U_LEADS_OHM: Final = (0.05, 0.15)
"""Standard uncertainty of the leads, touched together before, and not."""
USUAL_SPREAD: Final = 0.002
"""Usual spread of repeats at a bench, as a share of the value: the hand at the tip, the unit's own drift."""
USUAL_SPREAD_OHM: Final = 0.03
"""And of a contact under ten ohm."""
WEIGHT_OF_USUAL: Final = 3.0
"""The usual spread counts like so many repeats: two readings that agree by chance do not make a meter perfect."""
MEDIAN_COST: Final = 1.57
"""A median's variance beside a mean's, for normal errors: pi / 2."""
TELLS: Final = 8.0
"""Band over u from which a reading tells in from out."""
ROUGHLY: Final = 4.0
"""Below it, it cannot: even mid-band is not sure at 19 of 20."""
FAR: Final = 4.0
"""Spreads from the median at which a repeat is asked for again."""


@dataclass(frozen=True, slots=True)
class Accuracy:
    """A meter's accuracy in one range, as its maker states it: ``pct`` of the value and ``digits`` of the last place."""

    pct: float = 1.0
    digits: float = 3.0
    resolution: float = 0.0
    """One count of the last place, in the working unit of the quantity."""

    def half_width(self, value: float) -> float:
        """Return the half-width of the rectangle around a value, in its unit."""
        return self.pct / 100.0 * abs(value) + self.digits * self.resolution


def accuracy_at(value: float, usual: Accuracy, ranges: Sequence[tuple[float, Accuracy]]) -> Accuracy:
    """Return the accuracy in the range that a value is read in: the smallest that holds it, as a meter chooses by itself; ``usual`` beyond all of them.

    Parameters
    ----------
    value : float, in the working unit of the quantity
    ranges : (the most that it reads, its accuracy) each, in any order
    """
    holds = [(most, own) for most, own in ranges if abs(value) <= most]
    return min(holds, key=lambda r: r[0])[1] if holds else usual


@dataclass(frozen=True, slots=True)
class Measured:
    """A reading from its repeats.

    Attributes
    ----------
    value : in the working unit; ``inf`` for an open circuit
    u : standard uncertainty in the same unit
    spread : standard deviation of one repeat, drawn to the usual one
    n : repeats that it rests on
    """

    value: float
    u: float
    spread: float
    n: int
    kind: str
    far: tuple[int, ...] = ()
    """Places of repeats that lie far from the others: two more are asked for, none is dropped."""

    @property
    def is_open(self) -> bool:
        """True if the meter showed an overload: open, and no number."""
        return math.isinf(self.value)


def usual_spread(value: float, kind: str) -> float:
    """Return the usual standard deviation of one repeat, in the unit of the value."""
    return USUAL_SPREAD * abs(value) + (USUAL_SPREAD_OHM if kind == "resistance" and abs(value) < LOW_OHM else 0.0)


def measure(values: Sequence[float], kind: str, accuracy: Accuracy, *, leads_ohm: float | None = None, place: str = "/values") -> Measured:
    """Return what repeats of one reading amount to.

    Parameters
    ----------
    values : sequence of float, in the working unit of ``kind``
        ``inf`` for an overload. One or two are averaged; of three or more it is the median.
    leads_ohm : float, optional
        What the tips touched together read. Under ten ohm it is subtracted; where it was not read, 0.35 is, less surely.

    Raises
    ------
    InvalidError
        If there is none, or some are open and some not, or a resistance is below zero: the circuit bears charge, or is live.

    Examples
    --------
    >>> m = measure([0.52, 0.5, 0.55], "resistance", Accuracy(0.8, 3, 0.01), leads_ohm=0.2)
    >>> round(m.value, 2), round(m.u, 2)
    (0.32, 0.06)
    """
    if not values:
        raise InvalidError(place, "Read it at least once.")
    found = np.asarray(values, dtype=float)
    if np.isinf(found).any():
        if not np.isinf(found).all():
            raise InvalidError(place, "Open at one look and not at another: the tips slip, or the contact itself comes and goes. Read again.")
        return Measured(math.inf, 0.0, 0.0, len(found), kind)
    n = len(found)
    value, c = (float(found.mean()), 1.0) if n <= 2 else (float(np.median(found)), MEDIAN_COST)
    leads, u_leads = _leads(value, kind, leads_ohm)
    if kind == "resistance" and value - leads < -2.0 * u_leads - accuracy.half_width(value):
        raise InvalidError(place, "A resistance below zero: there is charge in it, or power on it. Mains out, wait the sheet's minutes, read volts first.")
    s0 = usual_spread(value, kind)
    s2 = (WEIGHT_OF_USUAL * s0**2 + float(((found - found.mean()) ** 2).sum())) / (n + 2)
    u = math.sqrt(accuracy.half_width(value) ** 2 / 3.0 + u_leads**2 + c * s2 / n)
    return Measured(max(value - leads, 0.0) if kind == "resistance" else value, u, math.sqrt(s2), n, kind, far_repeats(found, s0))


def _leads(value: float, kind: str, leads_ohm: float | None) -> tuple[float, float]:
    """Return what the leads add, and how surely that is known; nothing from ten ohm on."""
    if kind != "resistance" or abs(value) >= LOW_OHM:
        return 0.0, 0.0
    return (LEADS_OHM, U_LEADS_OHM[1]) if leads_ohm is None else (leads_ohm, U_LEADS_OHM[0])


def far_repeats(values: Sequence[float] | np.ndarray, s0: float) -> tuple[int, ...]:
    """Return the places of repeats farther from the median than four spreads; the spread by the median deviation, never under the usual one."""
    found = np.asarray(values, dtype=float)
    if len(found) < 3:
        return ()
    away = np.abs(found - np.median(found))
    return tuple(int(i) for i in np.flatnonzero(away > FAR * max(1.4826 * float(np.median(away)), s0)))


def is_creeping(values: Sequence[float], s0: float) -> bool:
    """Tell whether repeats go one way by more than they spread: something charges or warms, and the number is of a moment."""
    found = np.asarray(values, dtype=float)
    if len(found) < 4 or not np.isfinite(found).all():
        return False
    steps = np.diff(found)
    return bool((np.all(steps > 0) or np.all(steps < 0)) and abs(found[-1] - found[0]) > FAR * s0)


@dataclass(frozen=True, slots=True)
class Limit:
    """A band in its own state, with its source. ``low`` or ``high`` may be infinite; under ``missing`` it is not too little, but not there."""

    low: float
    high: float
    source: str = ""
    missing: float | None = None

    @property
    def width(self) -> float:
        """The width of the band."""
        return self.high - self.low


class Can:
    """Whether a reading can tell in from out."""

    TELL, ROUGHLY, NOT = "tells", "roughly", "cannot_tell"


def can_tell(u: float, limit: Limit) -> str:
    """Return whether a reading of that uncertainty can tell in from out of the band."""
    if u <= 0 or math.isinf(limit.width):
        return Can.TELL
    return Can.TELL if limit.width / u >= TELLS else Can.ROUGHLY if limit.width / u >= ROUGHLY else Can.NOT


def repeats_needed(measured: Measured, accuracy: Accuracy, limit: Limit, *, leads_ohm: float | None = None) -> int | None:
    """Return how many repeats make a reading tell roughly; None if no number of them helps: the meter or its leads are too coarse."""
    _, u_leads = _leads(measured.value, measured.kind, leads_ohm)
    room = (limit.width / ROUGHLY) ** 2 - accuracy.half_width(measured.value) ** 2 / 3.0 - u_leads**2
    if room <= 0:
        return None
    return max(1, math.ceil(MEDIAN_COST * measured.spread**2 / room))


Interval = tuple[float, float]


def soft_weights(value: float, u: float, intervals: Mapping[str, Sequence[Interval]]) -> dict[str, float]:
    """Return how much a reading speaks for each answer: the chance that the true value lies in that answer's intervals.

    Virtual evidence (J. Pearl, *Probabilistic Reasoning*, 1988, 2.2.2) the reading's error being normal:
    ``w_o = sum Phi((hi - x) / u) - Phi((lo - x) / u)``.

    Parameters
    ----------
    intervals : mapping of answer to its intervals
        Together they tile the axis. Crisp as ``u`` goes to 0, and by nothing but how many intervals are unbounded as it goes to infinity.

    Returns
    -------
    dict of answer to weight, summing to 1

    Examples
    --------
    >>> w = soft_weights(11.58, 0.05, {"in_band": [(11.6, 12.6)], "sags": [(-math.inf, 11.6), (12.6, math.inf)]})
    >>> round(w["in_band"], 3)
    0.345
    """

    def below(edge: float) -> float:
        if math.isinf(edge) or u <= 0 or math.isinf(value):
            on_it = math.isfinite(value) and value == edge  # half to either side, as at the smallest u
            return 0.5 if on_it else 1.0 if value < edge or edge == math.inf else 0.0
        return float(ndtr((edge - value) / u))

    found = {answer: sum(below(hi) - below(lo) for lo, hi in own) for answer, own in intervals.items()}
    total = sum(found.values())
    return {answer: w / total for answer, w in found.items()}

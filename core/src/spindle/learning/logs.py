"""What a few readings say of a time: its log is taken as normal, and shrunk to what was believed before (normal-inverse-gamma).

References
----------
.. [1] K. P. Murphy, "Conjugate Bayesian analysis of the Gaussian distribution", 2007.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

from scipy.special import stdtrit


@dataclass(frozen=True, slots=True)
class Believed:
    """The log of a time: its middle, half of the middle's 90 % interval, and its variance from one reading to the next."""

    middle: float
    half: float
    variance: float


def of_logs(logs: Sequence[float], towards: float, *, strength: float, spread: float, sure: float) -> Believed:
    """Return the posterior of the mean and the variance of logs [1]_.

    Parameters
    ----------
    towards, strength : the mean that was believed before, and how many readings that is worth
    spread, sure : the standard deviation that was believed before, and how many readings that is worth; above 0
    """
    n = len(logs)
    mean = sum(logs) / n if n else towards
    weight = strength + n
    at = (strength * towards + n * mean) / weight if weight else towards
    a = (sure + n) / 2.0
    b = sure * spread**2 / 2.0 + sum((x - mean) ** 2 for x in logs) / 2.0 + (strength * n * (mean - towards) ** 2 / (2.0 * weight) if weight else 0.0)
    return Believed(at, float(stdtrit(2.0 * a, 0.95)) * sqrt(b / (a * weight)) if weight else float("inf"), b / a)

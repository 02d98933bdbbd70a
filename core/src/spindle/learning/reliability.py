"""How good chances were that somebody said: of what was called seven in ten, did seven in ten come true?

References
----------
.. [1] E. B. Wilson, "Probable inference, the law of succession, and statistical inference", JASA 22, 1927.
.. [2] J. Bröcker, L. A. Smith, "Increasing the reliability of reliability diagrams", Weather and Forecasting 22, 2007.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import log, sqrt
from typing import Final

import numpy as np

ENOUGH: Final = 20
"""Below so many cases a figure is an anecdote, and is shown as too few."""
GROUPS: Final = 5
_Z: Final = 1.959964
_LEAST: Final = 0.001
"""A chance that was said to be nothing costs no more than one in a thousand: one surprise must not be all."""


def wilson(k: int, n: int) -> tuple[float, float]:
    """Return the 95 % interval of a share, k of n [1]_; (0, 1) of none.

    >>> [round(x, 3) for x in wilson(8, 10)]
    [0.49, 0.943]
    """
    if n == 0:
        return 0.0, 1.0
    p, z2 = k / n, _Z * _Z
    middle, half = p + z2 / (2 * n), _Z * sqrt(p * (1 - p) / n + z2 / (4 * n * n))
    return max((middle - half) / (1 + z2 / n), 0.0), min((middle + half) / (1 + z2 / n), 1.0)


@dataclass(frozen=True, slots=True)
class Group:
    """Chances that were said alike: their mean, how many there were, how many came true, and the 95 % interval of that share."""

    said: float
    n: int
    came: int
    low: float
    high: float


@dataclass(frozen=True)
class Reliability:
    """How chances that were said came out.

    Attributes
    ----------
    groups : by what was said, a fifth of the range each; empty ones are left out
    error : mean distance between said and come true, weighted by how many (expected calibration error)
    log_loss, base_log_loss : nats a case, of what was said and of always saying the share that came true
    """

    n: int
    groups: tuple[Group, ...]
    error: float
    log_loss: float
    base_log_loss: float

    @property
    def is_enough(self) -> bool:
        """True if there are enough cases to say anything."""
        return self.n >= ENOUGH


def reliability(said: Sequence[float], came: Sequence[bool]) -> Reliability:
    """Return how chances came out [2]_.

    Parameters
    ----------
    said : chances in [0, 1]
    came : whether each came true, as many
    """
    p, true = np.asarray(said, dtype=float), np.asarray(came, dtype=bool)
    if not len(p):
        return Reliability(0, (), 0.0, 0.0, 0.0)
    place = np.minimum((p * GROUPS).astype(int), GROUPS - 1)
    groups = []
    for g in np.unique(place):
        own = true[place == g]
        groups.append(Group(float(p[place == g].mean()), len(own), int(own.sum()), *wilson(int(own.sum()), len(own))))
    error = sum(g.n * abs(g.said - g.came / g.n) for g in groups) / len(p)
    return Reliability(len(p), tuple(groups), float(error), _log_loss(p, true), _log_loss(np.full(len(p), true.mean()), true))


def _log_loss(p: np.ndarray, true: np.ndarray) -> float:
    return float(-sum(log(max(x if t else 1.0 - x, _LEAST)) for x, t in zip(p, true, strict=True)) / len(p))

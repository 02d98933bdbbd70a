"""How long an order takes: a distribution from what the supplier took before, not a single number (C52)."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, log, sqrt
from statistics import NormalDist
from typing import Final

PRIOR_MEDIAN_DAYS: Final = 7.0
"""A supplier that we know nothing of: half of its parcels are here within a week. Invented, in the middle of 2 to 25 days."""
PRIOR_SIGMA: Final = 0.6
"""Spread of the logarithm: nine in ten of such parcels need between 2.6 and 19 days."""
PRIOR_WEIGHT: Final = 2.0
"""The prior counts as that many parcels."""
SHORTEST_DAYS: Final = 0.5
"""Fetched over the counter on the same day: the logarithm needs more than nothing."""


DECILES: Final = tuple((n + 0.5) / 10 for n in range(10))
"""Ten equally likely values stand for a lead time where costs are averaged over it."""


@dataclass(frozen=True, slots=True)
class LeadTime:
    """Log-normal lead time of a supplier, in days."""

    mu: float
    sigma: float
    n: int

    def quantile(self, p: float) -> float:
        """Return the days within which a share ``p`` of new orders is here, p in (0, 1)."""
        return exp(NormalDist(self.mu, self.sigma).inv_cdf(p))

    def remaining(self, p: float, waited_days: float) -> float:
        """Return the days from now within which a share ``p`` of the orders that are not here after ``waited_days`` arrives.

        The same distribution, cut off at what was waited already: an order that is late is expected later than it was.
        """
        if waited_days <= 0:
            return self.quantile(p)
        normal = NormalDist(self.mu, self.sigma)
        gone = normal.cdf(log(waited_days))
        if gone > 1.0 - 1e-9:
            return waited_days  # far beyond all that was ever seen: as long again
        return max(exp(normal.inv_cdf(gone + p * (1.0 - gone))) - waited_days, 0.0)


def lead_time(past_days: Sequence[float]) -> LeadTime:
    """Return the lead time of a supplier from its past parcels, drawn towards what suppliers are like.

    Parameters
    ----------
    past_days : days from order to arrival, any order; below half a day counts as half a day

    References
    ----------
    .. [1] A. Gelman et al., *Bayesian Data Analysis*, 3rd ed., CRC 2013, ch. 3.3 (normal with conjugate prior), on log days.
    """
    logs = [log(max(d, SHORTEST_DAYS)) for d in past_days]
    n, prior = len(logs), log(PRIOR_MEDIAN_DAYS)
    mu = (PRIOR_WEIGHT * prior + sum(logs)) / (PRIOR_WEIGHT + n)
    spread = PRIOR_WEIGHT * (PRIOR_SIGMA**2 + (prior - mu) ** 2) + sum((x - mu) ** 2 for x in logs)
    return LeadTime(mu, sqrt(spread / (PRIOR_WEIGHT + n)), n)

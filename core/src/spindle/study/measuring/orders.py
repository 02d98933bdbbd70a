"""Invented second parts: ordered with the first, one at a time, or as the rule says."""

from __future__ import annotations

from typing import Any, Final

import numpy as np

from spindle.diagnosis.given.economy import Economy
from spindle.offers.ordering import BACK_SHARE, SHIP_EUR, SPREAD, mean_days, mean_of_sooner, saved_eur

DRAWS: Final = 20_000


def study_ordering(n: int, seed: int) -> dict[str, Any]:
    """Return how far the closed forms lie from drawn lead times, in standard errors, and what ordering one at a time or all at once costs beside the rule."""
    rng = np.random.default_rng([seed, 15])
    economy = Economy()
    forms, sums = [], {"rule": 0.0, "one_at_a_time": 0.0, "all_at_once": 0.0}
    for _ in range(n):
        a, b = (float(x) for x in rng.uniform(2.0, 25.0, 2))
        p_used, price, parcels = float(rng.uniform(0.05, 0.8)), float(rng.uniform(4.0, 60.0)), int(rng.choice([1, 2]))
        days_a, days_b = a * np.exp(SPREAD * rng.standard_normal(DRAWS)), b * np.exp(SPREAD * rng.standard_normal(DRAWS))
        saved = days_a if parcels == 1 and a >= b else days_b if parcels == 1 else np.minimum(days_a, days_b)
        stated = mean_days(max(a, b)) if parcels == 1 else mean_of_sooner(a, b)
        forms.append(abs(float(saved.mean()) - stated) / (float(saved.std()) / np.sqrt(DRAWS)))
        used = rng.random(DRAWS) < p_used
        later = np.where(used, economy.day_eur * saved + SHIP_EUR, 0.0)  # a second wait and a parcel
        now = np.where(used, 0.0, price * (1.0 - BACK_SHARE)) + (SHIP_EUR if parcels > 1 else 0.0)
        at_once = saved_eur(p_used, price, stated, economy, parcels=parcels) > 0.0
        for name, paid in (("rule", now if at_once else later), ("one_at_a_time", later), ("all_at_once", now)):
            sums[name] += float(paid.mean())
    return {
        "cases": n,
        "worst_standard_errors": round(float(max(forms)), 2),
        "over_three_standard_errors_percent": round(100 * float(np.mean(np.array(forms) > 3)), 2),
        "mean_eur": {name: round(total / n, 2) for name, total in sums.items()},
        "dearer_percent": {name: round(100 * (sums[name] / sums["rule"] - 1), 1) for name in ("one_at_a_time", "all_at_once")},
    }

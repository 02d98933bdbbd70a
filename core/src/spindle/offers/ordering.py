"""Before a job is parked for a part: which looks still pay, and whether a second part is ordered with the first (C37, C66)."""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import exp, log, sqrt
from statistics import NormalDist
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.outlook import Outlook
from spindle.diagnosis.planning.plan import part_terms
from spindle.diagnosis.planning.problem import Plan

SHIP_EUR: Final = 4.5
"""Carriage of one more parcel. Invented, a small padded one."""
BACK_SHARE: Final = 0.45
"""What a part that was not needed is worth: it goes back with a deduction, or lies until the next unit wants it. Invented."""
SPREAD: Final = 0.6
"""Spread of the logarithm of a lead time, of a supplier that nothing is known of; see :mod:`spindle.stock.lead_time`."""
WORTH_A_LOOK_EUR: Final = 0.5
"""A look that saves less than half a euro on average does not hold up an order."""
MOST_LOOKS: Final = 3


@dataclass(frozen=True, slots=True)
class Look:
    """A look that still pays before the part is ordered, and what it saves on average."""

    id: str
    title: str
    saves_eur: float


@dataclass(frozen=True, slots=True)
class Together:
    """What to do before a job waits for a part.

    Attributes
    ----------
    p_cures : P(the part that is proposed mends it)
    looks : dearest to leave out first
    second, second_name, second_eur : the best second part to order with it; "" if there is none
    p_used : P(the second is needed)
    one_parcel_eur, two_parcels_eur : what ordering it at once saves on average; below 0 it costs
    """

    repair: str
    p_cures: float
    wait_days: float
    looks: tuple[Look, ...]
    second: str = ""
    second_name: str = ""
    second_eur: float = 0.0
    p_used: float = 0.0
    one_parcel_eur: float = 0.0
    two_parcels_eur: float = 0.0


def mean_days(median_days: float) -> float:
    """Return the mean of a log-normal lead time."""
    return median_days * exp(SPREAD**2 / 2.0)


def mean_of_sooner(a_days: float, b_days: float) -> float:
    """Return the mean time until the sooner of two parcels is here, both log-normal and independent, from their medians.

    ``E min = E[A] Phi((mB - mA - s^2)/d) + E[B] Phi((mA - mB - s^2)/d)``, d^2 = 2 s^2.

    References
    ----------
    .. [1] S. Nadarajah, S. Kotz, "Exact distribution of the max/min of two Gaussian random variables", IEEE Trans. VLSI 16(2), 2008.
    """
    d, gap, phi = SPREAD * sqrt(2.0), log(b_days) - log(a_days), NormalDist().cdf
    return mean_days(a_days) * phi((gap - SPREAD**2) / d) + mean_days(b_days) * phi((-gap - SPREAD**2) / d)


def saved_eur(p_used: float, price_eur: float, days: float, economy: Economy, *, parcels: int) -> float:
    """Return what ordering a second part at once saves on average, in euro.

    Needed, it saves a second wait of ``days`` and a parcel; not needed, it costs what it loses by going back; in a parcel of its own it
    costs the carriage now.
    """
    gain = p_used * (economy.day_eur * days + SHIP_EUR)
    return gain - (1.0 - p_used) * price_eur * (1.0 - BACK_SHARE) - (SHIP_EUR if parcels > 1 else 0.0)


def before_parking(repair_id: str, model: CompiledModel, outlook: Outlook, economy: Economy) -> Together | None:
    """Return what to do before the job waits for the part of a repair; None if its part is here, or none is needed.

    Raises
    ------
    KeyError
        If this drive does not allow the repair.
    """
    a, plan, at = model.repair_index[repair_id], outlook.plan, outlook.position
    wait = _wait(a, plan, model)
    if wait <= 0.0:
        return None
    w = at.w / at.w.sum()
    p = float(plan.problem.aims[a] @ w)
    left = w * (1.0 - plan.problem.success[a])
    found = Together(repair_id, p, wait, _looks(a, outlook))
    ordered = [b for b in range(len(plan.repairs)) if b != a and at.free[b] and _wait(b, plan, model) > 0.0]
    options = []
    for b in ordered:
        p_used, price = float(plan.problem.aims[b] @ left), part_terms(plan.repairs[b], model)[0]
        one = saved_eur(p_used, price, mean_days(max(wait, _wait(b, plan, model))), economy, parcels=1)
        two = saved_eur(p_used, price, mean_of_sooner(wait, _wait(b, plan, model)), economy, parcels=2)
        options.append((one, two, b, p_used, price))
    if not options:
        return found
    one, two, b, p_used, price = max(options)
    second = plan.repairs[b]
    return replace(found, second=second.id, second_name=second.name, second_eur=price, p_used=p_used, one_parcel_eur=one, two_parcels_eur=two)


def _wait(a: int, plan: Plan, model: CompiledModel) -> float:
    source = plan.sources[a]
    return part_terms(plan.repairs[a], model)[1] if source is None and plan.repairs[a].uses_item else 0.0


def _looks(a: int, outlook: Outlook) -> tuple[Look, ...]:
    """Return the looks after which going on is cheaper than ordering at once."""
    choice, weight = outlook.choice, float(outlook.position.w.sum())
    saves = (choice.repair[a] - choice.ask) / weight
    best = [int(n) for n in np.argsort(-saves) if np.isfinite(choice.ask[n]) and saves[n] >= WORTH_A_LOOK_EUR and outlook.plan.asks[n].question is not None]
    return tuple(Look(outlook.plan.asks[n].id, outlook.plan.asks[n].title, float(saves[n])) for n in best[:MOST_LOOKS])

"""Who should get the scarce part: the assignment over open jobs that saves the most, as a proposal with its reason (C52)."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from statistics import median

import numpy as np
from scipy.optimize import linear_sum_assignment

from spindle.diagnosis.given.economy import Economy
from spindle.words.chances import percent


@dataclass(frozen=True, slots=True)
class Wish:
    """An open job that wants a part. ``days_left`` to its promise, None if nothing was promised; ``since_days`` it has waited."""

    job: str
    variant: str
    p_success: float
    days_left: float | None
    since_days: float = 0.0


@dataclass(frozen=True, slots=True)
class Spare:
    """A part that is here, with the chance that it is good."""

    tag: str
    code: str
    p_good: float


@dataclass(frozen=True, slots=True)
class Given:
    """One job gets one part; ``saves_eur`` against waiting for the next delivery."""

    job: str
    piece: str
    saves_eur: float
    reason: str


def assign(wishes: Sequence[Wish], pieces: Sequence[Spare], fits: Callable[[str, str], bool], *, waits: Sequence[float], economy: Economy) -> tuple[Given, ...]:
    """Return who gets which part: the total saving is the largest that any assignment has.

    A job that gets a part now saves its wait for the next delivery, weighed by the chance that part and repair mend the unit.

    Parameters
    ----------
    fits : (variant, code) -> bool
    waits : days until the next delivery, at least one, as equally likely values: the wait of whoever goes without

    References
    ----------
    .. [1] D. F. Crouse, "On implementing 2D rectangular assignment algorithms", IEEE TAES 52(4), 2016 (scipy's solver).
    """
    if not wishes or not pieces:
        return ()
    variants, codes = sorted({w.variant for w in wishes}), sorted({p.code for p in pieces})
    may = np.array([[fits(v, c) for c in codes] for v in variants])
    fit = may[np.ix_([variants.index(w.variant) for w in wishes], [codes.index(p.code) for p in pieces])]
    wait = np.array([saving(w, waits, economy) for w in wishes])
    chance = np.outer([w.p_success for w in wishes], [p.p_good for p in pieces])
    gain = np.where(fit, wait[:, None] * chance, 0.0)
    rows, columns = linear_sum_assignment(gain, maximize=True)
    found = [_given(wishes[r], pieces[c], float(gain[r, c]), waits) for r, c in zip(rows, columns, strict=True) if fit[r, c]]
    return tuple(sorted(found, key=lambda g: (-g.saves_eur, g.job)))


def saving(wish: Wish, waits: Sequence[float], economy: Economy) -> float:
    """Return what the wait for the next delivery costs a job on average, in euro; a hair more for who has waited longer, so that ties fall to them."""
    own = replace(economy, promise_days=wish.days_left)
    return sum(own.waiting(w) for w in waits) / len(waits) + min(wish.since_days, 365.0) * 1e-4 + 1e-6


def _given(wish: Wish, piece: Spare, saves: float, waits: Sequence[float]) -> Given:
    promise = "nothing promised" if wish.days_left is None else "promise passed" if wish.days_left <= 0 else f"promised in {wish.days_left:.0f} days"
    late = 0.0 if wish.days_left is None else sum(w > wish.days_left for w in waits) / len(waits)
    wait = f"the next delivery is about {median(waits):.0f} days off" + (f", too late for it in {percent(late)}" if late else "")
    return Given(wish.job, piece.tag, saves, f"{promise}; {wait}; mends it in {percent(wish.p_success * piece.p_good)}")

"""What trials after a repair or swap tell: a swap is only as good as the part that went in."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import product
from typing import Final

import numpy as np

from spindle.diagnosis.case import P_BAD_ITEM, Change, Trial, TrialResult
from spindle.diagnosis.compiled import CompiledModel, Floats
from spindle.errors import CaseError

P_WORSE: Final = 0.03
"""P(it gets worse | not cured) where the repair says nothing else: handling."""
MAX_OPEN_ITEMS: Final = 10
"""Items whose health is enumerated at once (those in trials that came out clean); a bench has one or two."""
_TINY: Final = 1e-12


def trials_log_likelihood(trials: Sequence[Trial], model: CompiledModel, *, p_fail_per_try: float) -> Floats:
    """Return ``log P(all trials | fault)`` with the health of each physical item as one hidden bit.

    For trials without change the sum over an item's health is closed:
    ``q + (1 - q) * prod(1 - s)`` over the trials that used it, so the same donor twice is one bit, not two tests.
    Items in trials that came out clean are enumerated. A clean trial of n passes has
    ``P = s + (1 - s) * (1 - p_fail_per_try)**n``: one success of an intermittent fault is no cure (trap T21).

    Parameters
    ----------
    trials : sequence of Trial
    p_fail_per_try : float
        How often one try fails while the fault is there, in (0, 1).

    Returns
    -------
    ndarray of shape (n_faults,)

    Raises
    ------
    CaseError
        If more than :data:`MAX_OPEN_ITEMS` items are part of clean trials.
    """
    named = [[(_key(c, t, n), c) for n, c in enumerate(trial.changes)] for t, trial in enumerate(trials)]
    p_bad: dict[str, float] = {}
    for changes in named:
        for key, change in changes:
            if key:
                known = P_BAD_ITEM[change.health]
                p_bad[key] = min(p_bad.get(key, known), known)  # what is known later counts for every trial of the item
    open_items = sorted({k for t, cs in zip(trials, named, strict=True) if t.result is TrialResult.CLEAN for k, _ in cs if k})
    if len(open_items) > MAX_OPEN_ITEMS:
        raise CaseError("/findings", f"{len(open_items)} different parts were in trials that came out clean; at most {MAX_OPEN_ITEMS} can be told apart")
    total = np.zeros(len(model.faults))
    for healths in product((True, False), repeat=len(open_items)):
        is_good = dict(zip(open_items, healths, strict=True))
        chance = float(np.prod([1 - p_bad[k] if good else p_bad[k] for k, good in is_good.items()]))
        total += chance * _given(trials, named, is_good, p_bad, model, p_fail_per_try=p_fail_per_try)
    return np.log(np.maximum(total, _TINY))


def _key(change: Change, trial: int, n: int) -> str:
    """Return the name of the physical item of a change; one nobody named is an item of its own."""
    return change.item or f"\0{trial}.{n}"


def _given(
    trials: Sequence[Trial],
    named: list[list[tuple[str, Change]]],
    is_good: dict[str, bool],
    p_bad: dict[str, float],
    model: CompiledModel,
    *,
    p_fail_per_try: float,
) -> Floats:
    """Return P(all trials | fault, health of the enumerated items), the other items summed out."""
    likelihood = np.ones(len(model.faults))
    fails_of_item: dict[str, Floats] = {}
    for trial, changes in zip(trials, named, strict=True):
        uncured = np.ones(len(model.faults))
        worse = np.full(len(model.faults), P_WORSE)
        for key, change in changes:
            repair = model.repairs[model.repair_index[change.repair]]
            fail = 1.0 - model.success[model.repair_index[change.repair]]
            for fault, chance in repair.worsens.items():
                worse[model.fault_index[fault]] = max(worse[model.fault_index[fault]], chance)
            if not repair.uses_item or is_good.get(key, False):
                uncured *= fail
            elif key not in is_good:
                fails_of_item[key] = fails_of_item.get(key, np.ones(len(fail))) * fail
        if trial.result is TrialResult.CLEAN:
            likelihood *= 1.0 - uncured * (1.0 - (1.0 - p_fail_per_try) ** max(trial.clean_passes, 1))
        else:
            likelihood *= uncured * (worse if trial.result is TrialResult.WORSE else 1.0 - worse)
    for key, fails in fails_of_item.items():
        likelihood *= p_bad[key] + (1.0 - p_bad[key]) * fails
    return likelihood


def p_cured(trials: Sequence[Trial], posterior: Floats, model: CompiledModel, *, p_fail_per_try: float) -> float:
    """Return P(the unit is cured | the last trial came out clean), 0 if it did not.

    ``posterior`` already holds the clean trial; the share of it that is a real cure is ``s / (s + (1 - s) r**n)``
    with ``r = 1 - p_fail_per_try``.
    """
    if not trials or trials[-1].result is not TrialResult.CLEAN:
        return 0.0
    last = trials[-1]
    uncured = np.ones(len(model.faults))
    for change in last.changes:
        repair = model.repairs[model.repair_index[change.repair]]
        s = model.success[model.repair_index[change.repair]]
        uncured = uncured * (1.0 - s * (1.0 - P_BAD_ITEM[change.health] if repair.uses_item else 1.0))
    lucky = uncured * (1.0 - p_fail_per_try) ** max(last.clean_passes, 1)
    return float(posterior @ ((1.0 - uncured) / np.maximum(1.0 - uncured + lucky, _TINY)))

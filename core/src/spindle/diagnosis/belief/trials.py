"""What trials after a repair or swap tell: a swap is only as good as the part that went in."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from typing import Final

import numpy as np

from spindle.diagnosis.belief.intermittence import Steadiness
from spindle.diagnosis.given.case import Change, Stock, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.errors import CaseError
from spindle.words.health import P_BAD_ITEM, P_BAD_KNOWN_FAILING, Health

P_WORSE: Final = 0.03
"""P(it gets worse | not cured) where the repair says nothing else: handling."""
MAX_OPEN_ITEMS: Final = 10
"""Items and lots whose health is enumerated at once (those in trials that came out clean); a bench has one or two."""
P_BAD_LOT: Final = 0.05
"""P(a whole lot is bad): one delivery in twenty. Invented."""
P_BAD_IN_BAD_LOT: Final = 0.7
_TINY: Final = 1e-12


def p_bad(item: Change | Stock, model: CompiledModel) -> Floats:
    """Return P(the item cannot cure the fault because it is bad itself), function by function, of shape (n_faults,) (trap T14)."""
    function = {p.id: p.function for p in model.parts}
    known = {**dict.fromkeys(item.works, P_BAD_ITEM[Health.PROVEN]), **dict.fromkeys(item.fails, P_BAD_KNOWN_FAILING)}
    return np.array([known.get(function[f.part], P_BAD_ITEM[item.health]) for f in model.faults])


@dataclass(frozen=True)
class _Items:
    """The physical items of all trials: how likely each is bad, and the lot it came from."""

    bad: dict[str, Floats]
    lot: dict[str, str]

    def bad_given(self, key: str, lot_is_bad: Mapping[str, bool]) -> Floats:
        """Return P(item bad | fault, state of its lot); over both states it is the item's own chance again."""
        lot = self.lot.get(key, "")
        if not lot:
            return self.bad[key]
        if lot_is_bad[lot]:
            return np.maximum(self.bad[key], P_BAD_IN_BAD_LOT)
        return np.clip((self.bad[key] - P_BAD_LOT * np.maximum(self.bad[key], P_BAD_IN_BAD_LOT)) / (1.0 - P_BAD_LOT), 1e-4, 1.0)


def trials_log_likelihood(trials: Sequence[Trial], model: CompiledModel, *, steadiness: Steadiness) -> Floats:
    """Return ``log P(all trials | fault)`` with the health of each physical item as one hidden bit.

    For trials without change the sum over an item's health is closed:
    ``q + (1 - q) * prod(1 - s)`` over the trials that used it, so the same donor twice is one bit, not two tests. q is
    the item's own in the function that the fault takes away. Items in trials that came out clean, and lots that several
    items share, are enumerated. A clean trial of n passes has ``P = s + (1 - s) * P(n clean | still there)``: one success
    of an intermittent fault is no cure (trap T21).

    Parameters
    ----------
    trials : sequence of Trial
    steadiness : Steadiness
        How often each fault shows at a try.

    Returns
    -------
    ndarray of shape (n_faults,)

    Raises
    ------
    CaseError
        If more than :data:`MAX_OPEN_ITEMS` items are part of clean trials or shared lots.
    """
    named = [[(_key(c, t, n), c) for n, c in enumerate(trial.changes)] for t, trial in enumerate(trials)]
    items = _items(named, model)
    open_items = sorted({k for t, cs in zip(trials, named, strict=True) if t.result is TrialResult.CLEAN for k, _ in cs if k in items.bad})
    lots = sorted(set(items.lot.values()))
    if len(open_items) + len(lots) > MAX_OPEN_ITEMS:
        raise CaseError("/findings", f"{len(open_items)} parts in clean trials and {len(lots)} lots; at most {MAX_OPEN_ITEMS} can be told apart")
    total = np.zeros(len(model.faults))
    for states in product((True, False), repeat=len(lots)):
        lot_is_bad = dict(zip(lots, states, strict=True))
        bad = {k: items.bad_given(k, lot_is_bad) for k in items.bad}
        p_lots = float(np.prod([P_BAD_LOT if b else 1.0 - P_BAD_LOT for b in states]))
        for healths in product((True, False), repeat=len(open_items)):
            is_good = dict(zip(open_items, healths, strict=True))
            chance = p_lots * np.prod([1.0 - bad[k] if good else bad[k] for k, good in is_good.items()], axis=0)
            total += chance * _given(trials, named, is_good, bad, model, steadiness=steadiness)
    return np.log(np.maximum(total, _TINY))


def _key(change: Change, trial: int, n: int) -> str:
    """Return the name of the physical item of a change; one nobody named is an item of its own."""
    return change.item or f"\0{trial}.{n}"


def _items(named: list[list[tuple[str, Change]]], model: CompiledModel) -> _Items:
    bad: dict[str, Floats] = {}
    lot: dict[str, str] = {}
    for key, change in (pair for changes in named for pair in changes):
        if not model.repairs[model.repair_index[change.repair]].uses_item:
            continue
        known = p_bad(change, model)
        bad[key] = np.minimum(bad.get(key, known), known)  # what is known later counts for every trial of the item
        if change.lot:
            lot[key] = change.lot
    shared = [name for name in set(lot.values()) if sum(v == name for v in lot.values()) > 1]
    return _Items(bad, {k: v for k, v in lot.items() if v in shared})


def _given(
    trials: Sequence[Trial],
    named: list[list[tuple[str, Change]]],
    is_good: dict[str, bool],
    bad: dict[str, Floats],
    model: CompiledModel,
    *,
    steadiness: Steadiness,
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
                if fault in model.fault_index:
                    worse[model.fault_index[fault]] = max(worse[model.fault_index[fault]], chance)
            if not repair.uses_item or is_good.get(key, False):
                uncured *= fail
            elif key not in is_good:
                fails_of_item[key] = fails_of_item.get(key, np.ones(len(fail))) * fail
        if trial.result is TrialResult.CLEAN:
            likelihood *= 1.0 - uncured * (1.0 - steadiness.p_clean(max(trial.clean_passes, 1)))
        elif trial.result is TrialResult.CHANGED:
            likelihood *= uncured  # what remains was not cured by it
        else:
            likelihood *= uncured * (worse if trial.result is TrialResult.WORSE else 1.0 - worse)
    for key, fails in fails_of_item.items():
        likelihood *= bad[key] + (1.0 - bad[key]) * fails
    return likelihood


def cure_curve(trials: Sequence[Trial], posterior: Floats, model: CompiledModel, steadiness: Steadiness) -> Callable[[int], float]:
    """Return P(cured | that many clean passes) as a function; 0 everywhere if the last trial was not clean.

    ``posterior`` already holds the clean trial with its passes; they are taken back fault by fault, so that the curve does
    not move while passes are counted: ``P(cured | n) = sum_f b s / sum_f b (s + (1 - s) c(n))`` with b the belief before
    the trial, s the chance that its changes cured f, c(n) that n passes are clean with f still there.
    """
    if not trials or trials[-1].result is not TrialResult.CLEAN:
        return lambda _: 0.0
    last = trials[-1]
    uncured = np.ones(len(model.faults))
    for change in last.changes:
        a = model.repair_index[change.repair]
        good = 1.0 - p_bad(change, model) if model.repairs[a].uses_item else 1.0
        uncured = uncured * (1.0 - model.success[a] * good)
    so_far = 1.0 - uncured + uncured * steadiness.p_clean(max(last.clean_passes, 1))
    before = posterior / np.maximum(so_far, _TINY)

    def p_cured(passes: int) -> float:
        lucky = uncured * steadiness.p_clean(passes)
        return float(before @ (1.0 - uncured)) / max(float(before @ (1.0 - uncured + lucky)), _TINY)

    return p_cured


def clean_so_far(trials: Sequence[Trial]) -> int:
    """Return the clean passes of the last trial; 0 if it was not clean."""
    return max(trials[-1].clean_passes, 1) if trials and trials[-1].result is TrialResult.CLEAN else 0

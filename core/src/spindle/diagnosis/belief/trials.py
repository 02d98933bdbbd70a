"""What trials after a repair or swap tell: a swap is only as good as the part that went in."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from itertools import product
from typing import Final

import numpy as np

from spindle.diagnosis.belief.configured import Bits, occasion_likelihood
from spindle.diagnosis.belief.intermittence import SLIP, Steadiness
from spindle.diagnosis.belief.items import P_BAD_LOT, Items, SeenWith, TrialWith, With, all_with, groups_of, items_of, p_bad
from spindle.diagnosis.evidence.configured import Occasion, bits_of
from spindle.diagnosis.given.case import Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel, Floats

P_WORSE: Final = 0.03
"""P(it gets worse | not cured) where the repair says nothing else: handling."""
_TINY: Final = 1e-12
"""Keeps a share of nothing from dividing by nothing."""


def trials_log_likelihood(
    trials: Sequence[Trial], model: CompiledModel, *, steadiness: Steadiness, occasions: Sequence[Occasion] = (), is_tampered: bool = False
) -> Floats:
    """Return ``log P(all trials, and all that was seen with others' items in it | fault)``, the health of each physical item hidden.

    Where an item is in one trial alone, the sum over its health is closed: its chance to leave the fault is ``q + (1 - q)(1 - s)``,
    and the trial's is their product. The same where it is in several trials of which none came out clean:
    ``q + (1 - q) prod(1 - s)``, so the same donor twice is one bit, not two tests. Only items that several trials share, one of them
    clean, lots that several items share, and the functions of items that something else was seen with are enumerated, group by group:
    what shares nothing is independent given the fault. q is the item's own in the function that the fault takes away. A clean trial of n
    passes has ``P = s + (1 - s) P(n clean | still there)``: one success of an intermittent fault is no cure (trap T21).

    Parameters
    ----------
    trials : sequence of Trial
    steadiness : Steadiness
        How often each fault shows at a try.
    occasions : what was seen in other configurations

    Returns
    -------
    ndarray of shape (n_faults,)

    References
    ----------
    .. [1] D. Koller, N. Friedman, *Probabilistic Graphical Models*, MIT Press 2009, ch. 9 (sums pushed inwards; cutset conditioning).
    """
    named = all_with(trials, occasions, model)
    items = items_of(named, model)
    tried, seen = np.zeros(len(model.faults)), np.zeros(len(model.faults))
    for group in groups_of(named, items):
        bits = Bits.over(bits_of((i for one in group if isinstance(one, SeenWith) for i in one.changes), model))
        joint = of_group(group, bits, items, model, steadiness=steadiness, is_tampered=is_tampered)
        if bits.of:
            seen += np.log(joint.sum(axis=0))
        else:
            tried += np.log(np.maximum(joint[0], _TINY))
    return np.asarray(np.maximum(tried, np.log(_TINY)) + seen)


def of_group(  # what was seen, and what is told apart of it
    group: Sequence[With], bits: Bits, items: Items, model: CompiledModel, *, steadiness: Steadiness, is_tampered: bool
) -> Floats:
    """Return P(state of the bits, all of one group | fault), of shape (n_states, n_faults); lots, and items to be told apart beside the bits, summed out."""
    tried = [one for one in group if isinstance(one, TrialWith)]
    uses = Counter(key for one in tried for key in one.items)
    by_bits = {key for key, _ in bits.of}
    clean = {key for one in tried if one.trial.result is TrialResult.CLEAN for key in one.items}
    open_items = sorted(key for key in clean if uses[key] > 1 and key not in by_bits)
    every = uses.keys() | by_bits
    lots = sorted({items.lot[key] for key in every if key in items.lot})
    seen = np.ones((len(bits.states), len(model.faults)))
    for one in group:
        if isinstance(one, SeenWith):
            seen = seen * occasion_likelihood(one.occasion, bits, model, is_tampered=is_tampered)
    total = np.zeros_like(seen)
    for states in product((True, False), repeat=len(lots)):
        lot_is_bad = dict(zip(lots, states, strict=True))
        bad = {key: items.bad_given(key, lot_is_bad) for key in every}
        p_lots = float(np.prod([P_BAD_LOT if b else 1.0 - P_BAD_LOT for b in states]))
        p_states = bits.chance({(k, g): float(bad[k][first_of(g, model)]) for k, g in bits.of})[:, None]
        for healths in product((True, False), repeat=len(open_items)):
            told = dict(zip(open_items, healths, strict=True))
            is_good = {k: np.full(len(model.faults), float(good)) for k, good in told.items()} | {k: _good_by_bits(k, bits, model) for k in by_bits}
            chance = p_lots * np.prod([1.0 - bad[k] if good else bad[k] for k, good in told.items()], axis=0)
            total += chance * p_states * _given(tried, is_good, {k: b for k, b in bad.items() if uses[k] == 1}, bad, model, steadiness=steadiness)
    return total * seen


def first_of(function: str, model: CompiledModel) -> int:
    """Return a fault of that function: an item is as likely bad for all of them."""
    of = {p.id: p.function for p in model.parts}
    return next(i for i, f in enumerate(model.faults) if of[f.part] == function)


def _good_by_bits(item: str, bits: Bits, model: CompiledModel) -> Floats:
    """Return 1 where the item is good in the function that the fault takes away, of shape (n_states, n_faults)."""
    of = {p.id: p.function for p in model.parts}
    good = np.ones((len(bits.states), len(model.faults)))
    for i, fault in enumerate(model.faults):
        if (item, of[fault.part]) in bits.of:
            good[:, i] = 1.0 - bits.is_bad((item, of[fault.part]))
    return good


def _given(  # the trials, and what is known, closed over or open of their items
    tried: Sequence[TrialWith],
    is_good: Mapping[str, Floats],
    alone: Mapping[str, Floats],
    bad: Mapping[str, Floats],
    model: CompiledModel,
    *,
    steadiness: Steadiness,
) -> Floats:
    """Return P(all trials of a group | fault, health of the items told apart), the others summed out."""
    likelihood: Floats = np.ones(len(model.faults))
    fails_of_item: dict[str, Floats] = {}
    for one in tried:
        uncured: Floats = np.ones(len(model.faults))
        for key, fail in _merged(one, model):
            if not key:
                uncured = uncured * fail
            elif key in is_good:
                uncured = uncured * (1.0 - is_good[key] * (1.0 - fail))
            elif key in alone:
                uncured = uncured * (alone[key] + (1.0 - alone[key]) * fail)
            else:
                fails_of_item[key] = fails_of_item.get(key, np.ones(len(fail))) * fail
        likelihood = likelihood * _result(one, uncured, model, steadiness=steadiness)
    for key, fails in fails_of_item.items():
        likelihood = likelihood * (bad[key] + (1.0 - bad[key]) * fails)
    return likelihood


def _merged(one: TrialWith, model: CompiledModel) -> list[tuple[str, Floats]]:
    """Return each item of a trial with its chance to leave the fault if it is good: one item fitted for two repairs is one bit still."""
    fails: list[tuple[str, Floats]] = []
    by_item: dict[str, Floats] = {}
    for key, change in one.changes:
        fail = 1.0 - model.success[model.repair_index[change.repair]]
        if key:
            by_item[key] = by_item.get(key, np.ones(len(fail))) * fail
        else:
            fails.append(("", fail))
    return [*fails, *by_item.items()]


def _result(one: TrialWith, uncured: Floats, model: CompiledModel, *, steadiness: Steadiness) -> Floats:
    """Return P(what the trial showed | fault) where its changes leave the fault with that chance."""
    if one.trial.result is TrialResult.CLEAN:
        return np.asarray(1.0 - uncured * (1.0 - steadiness.p_clean(max(one.trial.clean_passes, 1))))
    shown = np.where(model.sound > 0.0, SLIP, 1.0)  # a trial in vain has seen the fault
    if one.trial.result is TrialResult.CHANGED:
        return uncured * shown  # what remains was not cured by it
    worse = np.full(len(model.faults), P_WORSE)
    for _, change in one.changes:
        for fault, chance in model.repairs[model.repair_index[change.repair]].worsens.items():
            if fault in model.fault_index:
                worse[model.fault_index[fault]] = max(worse[model.fault_index[fault]], chance)
    return uncured * shown * (worse if one.trial.result is TrialResult.WORSE else 1.0 - worse)


def cure_curve(trials: Sequence[Trial], posterior: Floats, model: CompiledModel, steadiness: Steadiness) -> Callable[[int], float]:
    """Return P(cured | that many clean passes) as a function; 0 everywhere if the last trial was not clean.

    ``posterior`` already holds the clean trial with its passes; they are taken back fault by fault, so that the curve does
    not move while passes are counted: ``P(cured | n) = sum_f b s / sum_f b (s + (1 - s) c(n))`` with b the belief before
    the trial, s the chance that its changes cured f, c(n) that n passes are clean with f still there.

    Parameters
    ----------
    posterior : ndarray of shape (n_faults,)
        P(fault | everything, the clean trial included), summing to 1.

    References
    ----------
    .. [1] E. T. Jaynes, *Probability Theory*, CUP 2003, ch. 4 (Bayes over the faults, one by one).
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
        well = 1.0 - uncured + model.sound * lucky  # where nothing was wrong, nothing is left
        return float(before @ well) / max(float(before @ (1.0 - uncured + lucky)), _TINY)

    return p_cured


def clean_so_far(trials: Sequence[Trial]) -> int:
    """Return the clean passes of the last trial; 0 if it was not clean."""
    return max(trials[-1].clean_passes, 1) if trials and trials[-1].result is TrialResult.CLEAN else 0

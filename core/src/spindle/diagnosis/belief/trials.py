"""What trials after a repair or swap tell: a swap is only as good as the part that went in."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from typing import Final

import numpy as np

from spindle.diagnosis.belief.intermittence import SLIP, Steadiness
from spindle.diagnosis.given.case import Change, Stock, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.words.health import P_BAD_ITEM, P_BAD_KNOWN_FAILING, Health

P_WORSE: Final = 0.03
"""P(it gets worse | not cured) where the repair says nothing else: handling."""
P_BAD_LOT: Final = 0.05
"""P(a whole lot is bad): one delivery in twenty. Invented."""
P_BAD_IN_BAD_LOT: Final = 0.7
"""P(a part is bad | its lot is): most of it, for a lot is bad by its tooling or its storage. Invented."""
_TINY: Final = 1e-12
"""Keeps a share of nothing from dividing by nothing."""


def p_bad(item: Change | Stock, model: CompiledModel) -> Floats:
    """Return P(the item cannot cure the fault because it is bad itself), function by function, of shape (n_faults,) (trap T14)."""
    return _p_bad(item.health, {**dict.fromkeys(item.works, True), **dict.fromkeys(item.fails, False)}, model)


def _p_bad(health: Health, known: Mapping[str, bool], model: CompiledModel) -> Floats:
    function = {p.id: p.function for p in model.parts}
    chance = {f: P_BAD_ITEM[Health.PROVEN] if works else P_BAD_KNOWN_FAILING for f, works in known.items()}
    return np.array([chance.get(function[f.part], P_BAD_ITEM[health]) for f in model.faults])


@dataclass(frozen=True)
class _Items:
    """The physical items of all trials: how likely each is bad, and the lot it came from."""

    bad: dict[str, Floats]
    lot: dict[str, str]

    def bad_given(self, key: str, lot_is_bad: Mapping[str, bool]) -> Floats:
        """Return P(item bad | fault, state of its lot), of shape (n_faults,); over both states it is the item's own chance again."""
        lot = self.lot.get(key, "")
        if not lot:
            return self.bad[key]
        if lot_is_bad[lot]:
            return np.maximum(self.bad[key], P_BAD_IN_BAD_LOT)
        return np.clip((self.bad[key] - P_BAD_LOT * np.maximum(self.bad[key], P_BAD_IN_BAD_LOT)) / (1.0 - P_BAD_LOT), 1e-4, 1.0)


@dataclass(frozen=True)
class _Named:
    """A trial with the physical item of each of its changes; "" where the repair takes none."""

    trial: Trial
    changes: tuple[tuple[str, Change], ...]

    @property
    def items(self) -> set[str]:
        return {key for key, _ in self.changes if key}


def trials_log_likelihood(trials: Sequence[Trial], model: CompiledModel, *, steadiness: Steadiness) -> Floats:
    """Return ``log P(all trials | fault)`` with the health of each physical item as one hidden bit.

    Where an item is in one trial alone, the sum over its health is closed: its chance to leave the fault is ``q + (1 - q)(1 - s)``,
    and the trial's is their product. The same where it is in several trials of which none came out clean:
    ``q + (1 - q) prod(1 - s)``, so the same donor twice is one bit, not two tests. Only items that several trials share, one of them
    clean, and lots that several items share are enumerated, group by group: trials that share nothing are independent given the fault.
    q is the item's own in the function that the fault takes away. A clean trial of n passes has ``P = s + (1 - s) P(n clean | still
    there)``: one success of an intermittent fault is no cure (trap T21).

    Parameters
    ----------
    trials : sequence of Trial
    steadiness : Steadiness
        How often each fault shows at a try.

    Returns
    -------
    ndarray of shape (n_faults,)

    References
    ----------
    .. [1] D. Koller, N. Friedman, *Probabilistic Graphical Models*, MIT Press 2009, ch. 9 (sums pushed inwards; cutset conditioning).
    """
    named = [_Named(t, tuple((_key(c, n, m, model), c) for m, c in enumerate(t.changes))) for n, t in enumerate(trials)]
    items = _items(named, model)
    total = np.zeros(len(model.faults))
    for group in _groups(named, items):
        total += np.log(np.maximum(_of_group(group, items, model, steadiness=steadiness), _TINY))
    return np.maximum(total, np.log(_TINY))


def _key(change: Change, trial: int, n: int, model: CompiledModel) -> str:
    """Return the name of the physical item of a change; one nobody named is an item of its own, a repair without one has none."""
    if not model.repairs[model.repair_index[change.repair]].uses_item:
        return ""
    return change.item or f"\0{trial}.{n}"


def _items(named: Sequence[_Named], model: CompiledModel) -> _Items:
    """Return what is known of each item: its history in the order of the tape, and the last word on each function counts."""
    health: dict[str, Health] = {}
    known: dict[str, dict[str, bool]] = {}
    lot: dict[str, str] = {}
    for key, change in (pair for n in named for pair in n.changes if pair[0]):
        health[key] = change.health
        known.setdefault(key, {}).update({**dict.fromkeys(change.works, True), **dict.fromkeys(change.fails, False)})
        if change.lot:
            lot[key] = change.lot
    shared = {name for name, n in Counter(lot.values()).items() if n > 1}
    return _Items({k: _p_bad(h, known[k], model) for k, h in health.items()}, {k: v for k, v in lot.items() if v in shared})


def _groups(named: Sequence[_Named], items: _Items) -> list[list[_Named]]:
    """Return the trials in groups that share neither an item nor a lot with each other."""
    groups: list[tuple[set[str], list[_Named]]] = []
    for one in named:
        marks = one.items | {f"\0lot:{items.lot[k]}" for k in one.items if k in items.lot}
        together = [g for g in groups if g[0] & marks]
        groups = [g for g in groups if not g[0] & marks]
        groups.append((marks.union(*(g[0] for g in together)), [*(t for g in together for t in g[1]), one]))
    return [members for _, members in groups]


def _of_group(group: Sequence[_Named], items: _Items, model: CompiledModel, *, steadiness: Steadiness) -> Floats:
    """Return P(the trials of one group | fault), lots and the items that have to be told apart enumerated."""
    uses = Counter(key for one in group for key in one.items)
    clean = {key for one in group if one.trial.result is TrialResult.CLEAN for key in one.items}
    open_items = sorted(key for key in clean if uses[key] > 1)
    lots = sorted({items.lot[key] for key in uses if key in items.lot})
    total = np.zeros(len(model.faults))
    for states in product((True, False), repeat=len(lots)):
        lot_is_bad = dict(zip(lots, states, strict=True))
        bad = {key: items.bad_given(key, lot_is_bad) for key in uses}
        p_lots = float(np.prod([P_BAD_LOT if b else 1.0 - P_BAD_LOT for b in states]))
        for healths in product((True, False), repeat=len(open_items)):
            is_good = dict(zip(open_items, healths, strict=True))
            chance = p_lots * np.prod([1.0 - bad[k] if good else bad[k] for k, good in is_good.items()], axis=0)
            total += chance * _given(group, is_good, {k: b for k, b in bad.items() if uses[k] == 1}, bad, model, steadiness=steadiness)
    return total


def _given(  # the trials, and what is known, closed over or open of their items
    group: Sequence[_Named],
    is_good: Mapping[str, bool],
    alone: Mapping[str, Floats],
    bad: Mapping[str, Floats],
    model: CompiledModel,
    *,
    steadiness: Steadiness,
) -> Floats:
    """Return P(all trials of a group | fault, health of the enumerated items), the other items summed out."""
    likelihood = np.ones(len(model.faults))
    fails_of_item: dict[str, Floats] = {}
    for one in group:
        uncured = np.ones(len(model.faults))
        for key, fail in _merged(one, model):
            if not key or is_good.get(key, False):
                uncured *= fail
            elif key in alone:
                uncured *= alone[key] + (1.0 - alone[key]) * fail
            elif key not in is_good:
                fails_of_item[key] = fails_of_item.get(key, np.ones(len(fail))) * fail
        likelihood *= _result(one, uncured, model, steadiness=steadiness)
    for key, fails in fails_of_item.items():
        likelihood *= bad[key] + (1.0 - bad[key]) * fails
    return likelihood


def _merged(one: _Named, model: CompiledModel) -> list[tuple[str, Floats]]:
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


def _result(one: _Named, uncured: Floats, model: CompiledModel, *, steadiness: Steadiness) -> Floats:
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

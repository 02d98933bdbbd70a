"""The swap table: what was fitted at each trial, what it cleared, what has to go back, and what to try next (C14)."""

from __future__ import annotations

from dataclasses import dataclass
from math import log
from typing import Final

import numpy as np

from spindle.diagnosis.belief.items import p_bad
from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.given.case import Case, Change, Stock, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.lookahead import information
from spindle.diagnosis.planning.outlook import Outlook
from spindle.diagnosis.planning.plan import minutes_of

LN2: Final = log(2.0)
WORTH_TRYING: Final = 0.05
"""A donor's part that would work less often than one time in twenty is not worth its screws."""


@dataclass(frozen=True)
class SwapRow:
    """One item fitted at one trial."""

    finding: str
    part: str
    repair: str
    item: str
    health: str
    result: str
    p_bad: float
    """P(the item was bad in what mattered), before the trial."""
    stays: bool
    goes_back: bool
    """True if the original has still to go back in."""


@dataclass(frozen=True)
class SwapTable:
    """All swaps of a case, and the next combination to try."""

    rows: tuple[SwapRow, ...]
    next_item: str
    next_repair: str
    p_cures: float
    bits: float
    """What its trial would tell, in bits, on average over what it may show."""
    minutes: float
    """Bench minutes of it: opening, fitting, the trial, and the own part back in."""
    twice: tuple[str, ...]
    """Parts swapped twice by different items without change: look elsewhere (trap T15)."""


def swap_table(case: Case, model: CompiledModel, belief: Belief, outlook: Outlook) -> SwapTable:
    """Return the swap table with the best next combination: the donor's part whose trial lowers the expected cost the most."""
    rows = []
    for finding in case.standing:
        if isinstance(finding.what, Trial):
            rows += [_row(finding.id, c, finding.what, model, belief) for c in finding.what.changes if model.repairs[model.repair_index[c.repair]].uses_item]
    plan, at, value = outlook.plan, outlook.position, outlook.choice.ask
    swaps = [(n, a.swap, chance_with(a.swap, model, belief)) for n, a in enumerate(plan.asks) if a.swap is not None and np.isfinite(value[n])]
    worth = [s for s in swaps if s[2] >= WORTH_TRYING]
    twice = swapped_twice(case, model)
    if not worth:
        return SwapTable(tuple(rows), "", "", 0.0, 0.0, 0.0, twice)
    n, best, p = min(worth, key=lambda s: value[s[0]])
    minutes = float(minutes_of(plan, model).ask[at.state, n])
    return SwapTable(tuple(rows), best.item, best.repair, p, float(information(at, plan.problem)[n]) / LN2, minutes, twice)


def chance_with(part: Stock, model: CompiledModel, belief: Belief) -> float:
    """Return P(the unit works with that part in)."""
    return float(belief.p @ (model.success[model.repair_index[part.repair]] * (1.0 - p_bad(part, model))))


def _row(finding: str, change: Change, trial: Trial, model: CompiledModel, belief: Belief) -> SwapRow:
    a = model.repair_index[change.repair]
    weight = belief.p * model.success[a]
    bad = float(weight @ p_bad(change, model) / max(float(weight.sum()), 1e-12))
    failed = trial.result in (TrialResult.NO_CHANGE, TrialResult.WORSE)
    return SwapRow(
        finding, model.repairs[a].part, change.repair, change.item, change.health.value, trial.result.value, bad, change.stays, failed and not change.stays
    )


def swapped_twice(case: Case, model: CompiledModel) -> tuple[str, ...]:
    """Return the parts that two different items did not mend (trap T15)."""
    items: dict[str, set[str]] = {}
    for n, finding in enumerate(case.standing):
        if isinstance(finding.what, Trial) and finding.what.result in (TrialResult.NO_CHANGE, TrialResult.WORSE):
            for change in finding.what.changes:
                repair = model.repairs[model.repair_index[change.repair]]
                if repair.uses_item:
                    items.setdefault(repair.part, set()).add(change.item or f"\0{n}")
    return tuple(part for part, seen in items.items() if len(seen) >= 2)

"""What is known of each item that was in the unit, or was looked at: function by function, before and after (C64)."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from spindle.diagnosis.belief.configured import Bits
from spindle.diagnosis.belief.items import Items, SeenWith, With, all_with, groups_of, items_of
from spindle.diagnosis.belief.likelihood import is_tampered
from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.belief.trials import first_of, of_group
from spindle.diagnosis.evidence.configured import ANOTHER_CONSOLE, MAX_BITS, bits_of
from spindle.diagnosis.given.compiled import CompiledModel


@dataclass(frozen=True)
class FunctionHealth:
    """P(the item is bad in a function): by what was said of it, and by all that was seen."""

    function: str
    before: float
    p_bad: float


@dataclass(frozen=True)
class ItemHealth:
    """One item, function by function."""

    item: str
    functions: tuple[FunctionHealth, ...]


def item_health(belief: Belief, model: CompiledModel) -> tuple[ItemHealth, ...]:
    """Return the health of every item that has a name, in the order of the tape.

    ``P(bad | all) = sum_f P(f | all) P(bad | f, all)``, each group of what shares an item enumerated.
    """
    evidence = belief.evidence
    named = all_with(evidence.trials, evidence.occasions, model)
    items, found = items_of(named, model), dict[str, list[FunctionHealth]]()
    for group in groups_of(named, items):
        bits = _told_apart(group, model)
        if not bits.of:
            continue
        joint = of_group(group, bits, items, model, steadiness=belief.steadiness, is_tampered=is_tampered(evidence))
        by_state = (joint / joint.sum(axis=0)) @ belief.p
        for item, function in bits.of:
            after = float(by_state[np.asarray(bits.is_bad((item, function)), dtype=bool)].sum())
            found.setdefault(item, []).append(FunctionHealth(function, _before(item, function, items, model), after))
    order = dict.fromkeys(key for one in named for key, c in one.changes if c.item)
    return tuple(ItemHealth(i, tuple(found[i])) for i in order if i in found and i != ANOTHER_CONSOLE)


def _told_apart(group: Sequence[With], model: CompiledModel) -> Bits:
    """Every item of the group by its functions; where they are too many, those of other occasions alone: trials hide the rest."""
    every = bits_of(((key, c) for one in group for key, c in one.changes if c.item), model)
    if len(every) > MAX_BITS:
        every = bits_of((i for one in group if isinstance(one, SeenWith) for i in one.changes), model)
    return Bits.over(every)


def _before(item: str, function: str, items: Items, model: CompiledModel) -> float:
    return float(items.bad[item][first_of(function, model)])

"""The physical items of a tape: how likely each is bad, function by function, which lot it came from, and where it was in."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from spindle.diagnosis.evidence.configured import Occasion, functions_of, physical
from spindle.diagnosis.given.case import Change, Stock, Trial
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.words.health import P_BAD_KNOWN_FAILING, Health

P_BAD_LOT: Final = 0.05
"""P(a whole lot is bad): one delivery in twenty. Invented."""
P_BAD_IN_BAD_LOT: Final = 0.7
"""P(a part is bad | its lot is): most of it, for a lot is bad by its tooling or its storage. Invented."""


def p_bad(item: Change | Stock, model: CompiledModel) -> Floats:
    """Return P(the item cannot cure the fault because it is bad itself), function by function, of shape (n_faults,) (trap T14).

    What fitting it reseats by the way is cured by a bad one as well.
    """
    known = {**dict.fromkeys(item.works, True), **dict.fromkeys(item.fails, False)}
    return _p_bad(item.health, known, frozenset(functions_of(item.repair, model)), model)


def _p_bad(health: Health, known: Mapping[str, bool], can_be_bad: frozenset[str], model: CompiledModel) -> Floats:
    function = {p.id: p.function for p in model.parts}
    chance = {f: model.bad_item[Health.PROVEN] if works else P_BAD_KNOWN_FAILING for f, works in known.items()}
    return np.array([chance.get(function[f.part], model.bad_item[health]) if function[f.part] in can_be_bad else 0.0 for f in model.faults])


@dataclass(frozen=True)
class Items:
    """The physical items of a tape: how likely each is bad, and the lot it came from."""

    bad: dict[str, Floats]
    lot: dict[str, str]

    def bad_given(self, key: str, lot_is_bad: Mapping[str, bool]) -> Floats:
        """Return P(item bad | fault, state of its lot), of shape (n_faults,); over both states it is the item's own chance again."""
        lot = self.lot.get(key, "")
        if not lot:
            return self.bad[key]
        in_bad_lot = np.where(self.bad[key] > 0.0, np.maximum(self.bad[key], P_BAD_IN_BAD_LOT), 0.0)
        if lot_is_bad[lot]:
            return in_bad_lot
        return np.clip((self.bad[key] - P_BAD_LOT * in_bad_lot) / (1.0 - P_BAD_LOT), np.where(in_bad_lot > 0.0, 1e-4, 0.0), 1.0)


@dataclass(frozen=True)
class TrialWith:
    """A trial with the physical item of each of its changes; "" where the repair takes none."""

    trial: Trial
    changes: tuple[tuple[str, Change], ...]

    @property
    def items(self) -> set[str]:
        """The items that were in it."""
        return {key for key, _ in self.changes if key}


@dataclass(frozen=True)
class SeenWith:
    """An occasion that was seen with others' items in it, and which."""

    occasion: Occasion

    @property
    def changes(self) -> tuple[tuple[str, Change], ...]:
        """Each item with how it was fitted."""
        return self.occasion.what.items

    @property
    def items(self) -> set[str]:
        """The items that were in it."""
        return {key for key, _ in self.changes}


With = TrialWith | SeenWith
"""Whatever was seen with items in it."""


def all_with(trials: Sequence[Trial], occasions: Iterable[Occasion], model: CompiledModel) -> list[With]:
    """Return all that was seen with items in it, each item by its name; trials last, for what they say of an item was found out since."""
    tried = [TrialWith(t, tuple((_key(c, n, m, model), c) for m, c in enumerate(t.changes))) for n, t in enumerate(trials)]
    return [*(SeenWith(o) for o in occasions), *tried]


def _key(change: Change, trial: int, n: int, model: CompiledModel) -> str:
    """Return the name of the physical item of a change; one nobody named is an item of its own, a repair without one has none."""
    if not model.repairs[model.repair_index[change.repair]].uses_item:
        return ""
    return physical(change.item) or f"\0{trial}.{n}"


def items_of(named: Sequence[With], model: CompiledModel) -> Items:
    """Return what is known of each item: its history in the order of the tape, and the last word on each function counts."""
    health: dict[str, Health] = {}
    known: dict[str, dict[str, bool]] = {}
    lot: dict[str, str] = {}
    can_be_bad: dict[str, frozenset[str]] = {}
    for key, change in (pair for n in named for pair in n.changes if pair[0]):
        health[key] = change.health
        can_be_bad[key] = can_be_bad.get(key, frozenset()) | frozenset(functions_of(change.repair, model))
        known.setdefault(key, {}).update({**dict.fromkeys(change.works, True), **dict.fromkeys(change.fails, False)})
        if change.lot:
            lot[key] = change.lot
    shared = {name for name, n in Counter(lot.values()).items() if n > 1}
    return Items({k: _p_bad(h, known[k], can_be_bad[k], model) for k, h in health.items()}, {k: v for k, v in lot.items() if v in shared})


def groups_of(named: Sequence[With], items: Items) -> list[list[With]]:
    """Return them in groups that share neither an item nor a lot with each other."""
    groups: list[tuple[set[str], list[With]]] = []
    for one in named:
        marks = one.items | {f"\0lot:{items.lot[k]}" for k in one.items if k in items.lot}
        together = [g for g in groups if g[0] & marks]
        groups = [g for g in groups if not g[0] & marks]
        groups.append((marks.union(*(g[0] for g in together)), [*(t for g in together for t in g[1]), one]))
    return [members for _, members in groups]

"""What was seen in configurations: each item function by function good or bad, the unit's own fault where its own part sits (C64)."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import product

import numpy as np

from spindle.diagnosis.belief.likelihood import unreliability
from spindle.diagnosis.evidence.configured import Occasion, functions_of
from spindle.diagnosis.evidence.observation import Observation
from spindle.diagnosis.given.compiled import CompiledModel, Floats, silent
from spindle.faults.model import LEAK, NOTHING
from spindle.words.bench import Reach

Bit = tuple[str, str]
"""(item, function): whether that item is bad in that function."""


@dataclass(frozen=True)
class Bits:
    """Every state of some hidden bits.

    Attributes
    ----------
    of : the bits
    states : ndarray of shape (n_states, n_bits), True where bad
    """

    of: tuple[Bit, ...]
    states: Floats

    @classmethod
    def over(cls, of: tuple[Bit, ...]) -> Bits:
        """Return every state of these bits."""
        return cls(of, np.array(list(product((False, True), repeat=len(of))), dtype=bool).reshape(2 ** len(of), len(of)))

    def is_bad(self, bit: Bit) -> Floats:
        """Return in which states a bit is bad, of shape (n_states,)."""
        return np.asarray(self.states[:, self.of.index(bit)])

    def chance(self, p_bad: Mapping[Bit, float]) -> Floats:
        """Return P(state), the bits being independent, of shape (n_states,)."""
        p = np.array([p_bad[b] for b in self.of])
        return np.asarray(np.where(self.states, p, 1.0 - p).prod(axis=1))


def occasion_likelihood(occasion: Occasion, bits: Bits, model: CompiledModel, *, is_tampered: bool) -> Floats:
    """Return P(all that was seen on one occasion | state of the bits, fault), of shape (n_states, n_faults).

    Where the unit's own part is out, its fault shows with the chance that fitting the other leaves it in (``1 - s``); an item that is bad
    in a function shows what the faults of that function show, weighted by prior and by how surely the item takes their place. Several
    causes make the worse of their answers (noisy-max). That the disc gets home is one hidden step of all answers of the occasion.

    References
    ----------
    .. [1] F. J. Díez, "Parameter adjustment in Bayes networks: the generalized noisy OR-gate", UAI 1993.
    """
    out_of_it = _own_out(occasion, model)
    bad = [(bits.is_bad((key, g)), c.repair, g) for key, c in occasion.what.items for g in functions_of(c.repair, model)]
    shape = (len(bits.states), len(model.faults))
    plain, home, away = np.ones(shape), np.ones(shape), 1.0
    for seen in occasion.seen.values():
        row = _answer(seen, out_of_it, bad, model, is_tampered=is_tampered)
        if seen.question.stage < Reach.DISC or occasion.far.is_home:
            plain = plain * row
        else:
            home, away = home * row, away * _when_away(seen, is_tampered=is_tampered)
    sound = float(model.p_home[model.fault_index[NOTHING]])
    p_home = ((1.0 - out_of_it) * model.p_home + out_of_it * sound)[None] * np.ones(shape)
    for is_bad, repair, function in bad:
        p_home = p_home * np.where(is_bad, _home_of_bad(repair, function, model), 1.0)[:, None]
    return np.asarray(plain * (p_home * home + (1.0 - p_home) * away))


def _own_out(occasion: Occasion, model: CompiledModel) -> Floats:
    """Return P(the unit's own fault is out of it | fault), of shape (n_faults,): for certain on another unit."""
    if occasion.what.on:
        return np.ones(len(model.faults))
    left = np.prod([1.0 - model.success[model.repair_index[c.repair]] for c in occasion.what.changes], axis=0)
    return np.asarray((1.0 - left) * (1.0 - model.sound))


def _answer(seen: Observation, out_of_it: Floats, bad: Sequence[tuple[Floats, str, str]], model: CompiledModel, *, is_tampered: bool) -> Floats:
    """Return P(what was seen of one question | state, fault) with the disc home, of shape (n_states, n_faults)."""
    upto = _upto(seen.question.id, model)
    own = upto * (1.0 - out_of_it) + upto[:, [model.fault_index[NOTHING]]] * out_of_it
    items = np.ones((len(bad[0][0]), len(upto)))
    for is_bad, repair, function in bad:
        items = items * np.where(is_bad[:, None], _upto_of_bad(seen.question.id, repair, function, model)[None], 1.0)
    together = items[:, :, None] * own[None]
    chance = np.diff(together, axis=1, prepend=0.0)
    eps, n = unreliability(seen.source, seen.question, is_tampered=is_tampered), len(upto)
    order = seen.question.mildest_first
    return np.asarray(np.tensordot(seen.mix(order), (1.0 - eps) * np.maximum(chance, 0.0) + eps / n, axes=(0, 1)))


def _when_away(seen: Observation, *, is_tampered: bool) -> float:
    ids, eps = [o.id for o in seen.question.outcomes], unreliability(seen.source, seen.question, is_tampered=is_tampered)
    return float((((1.0 - eps) * silent(seen.question)) + eps / len(ids)) @ seen.mix(ids))


@lru_cache(maxsize=512)
def _upto(question_id: str, model: CompiledModel) -> Floats:
    """Return P(no worse than each answer | fault), the answers from normal to worst, of shape (n_outcomes, n_faults)."""
    question = model.questions[question_id]
    ids = [o.id for o in question.outcomes]
    return np.cumsum(model.likelihood[question_id][[ids.index(o) for o in question.mildest_first]], axis=0)


@lru_cache(maxsize=256)
def _weight_of_bad(repair: str, function: str, model: CompiledModel) -> Floats:
    """Return which faults an item has that is bad in a function, as shares that sum to 1, of shape (n_faults,)."""
    of = {p.id: p.function for p in model.parts}
    own = model.repairs[model.repair_index[repair]].cures
    is_in = np.array([of[f.part] == function and f.id in own and f.id != LEAK and not f.opened_by for f in model.faults])
    weight = model.prior * model.success[model.repair_index[repair]] * is_in
    return np.asarray(weight / weight.sum())


@lru_cache(maxsize=2048)
def _upto_of_bad(question_id: str, repair: str, function: str, model: CompiledModel) -> Floats:
    return np.asarray(_upto(question_id, model) @ _weight_of_bad(repair, function, model))


def _home_of_bad(repair: str, function: str, model: CompiledModel) -> float:
    return float(model.p_home @ _weight_of_bad(repair, function, model))

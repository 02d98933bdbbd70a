"""Does it fit better as two faults? Symptoms of a pair combine by noisy-max on answers ordered from normal to worst."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from spindle.diagnosis.belief.likelihood import is_tampered, unreliability
from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.faults.model import LEAK, NOTHING

BAYES_FACTOR: Final = 10.0
"""How many times better the best pair has to explain the findings than the best single fault before it is said."""


@dataclass(frozen=True)
class PairFit:
    """Two faults that explain the findings better than any one."""

    one: str
    other: str
    bayes_factor: float


def fit_pair(belief: Belief, model: CompiledModel) -> PairFit | None:
    """Return the best pair if it beats the best single fault by :data:`BAYES_FACTOR`, else None.

    P(answer of a pair) is that of the worse of two independent answers: with the answers ordered from normal to worst as the
    question itself declares it,
    ``P(max <= o) = P1(<= o) P2(<= o)``; "works while …" tests come out as AND by the same rule. Trials are left out: a repair
    cures its own fault and leaves the other. The pair with the highest prior times likelihood is compared, by likelihood alone.

    References
    ----------
    .. [1] F. J. Díez, "Parameter adjustment in Bayes networks: the generalized noisy OR-gate", UAI 1993.
    """
    n = len(model.faults)
    one, two = np.zeros(n), np.zeros((n, n))
    tampered = is_tampered(belief.evidence)
    for seen in belief.evidence.answers.values():
        single, pair = _log_rows(model, seen.question.id, seen.outcome, unreliability(seen.source, seen.question, is_tampered=tampered))
        one += single
        two += pair
    real = np.array([not f.opened_by and f.id not in (LEAK, NOTHING) for f in model.faults])
    allowed = np.triu(real[:, None] & real[None], 1)
    log_prior = np.log(model.prior)
    weight = np.where(allowed, two + log_prior[:, None] + log_prior[None] + np.log1p(model.pair_excess), -np.inf)
    i, j = np.unravel_index(int(weight.argmax()), weight.shape)
    factor = float(np.exp(min(two[i, j] - one.max(), 700.0)))
    if factor < BAYES_FACTOR:
        return None
    return PairFit(model.faults[i].id, model.faults[j].id, factor)


@lru_cache(maxsize=1024)
def _log_rows(model: CompiledModel, question_id: str, outcome: str, eps: float) -> tuple[Floats, Floats]:
    """Return log P(answer | fault) of shape (n_faults,) and log P(answer | both of a pair) of shape (n_faults, n_faults)."""
    question = model.questions[question_id]
    ids = [x.id for x in question.outcomes]
    order = list(question.mildest_first)
    table = model.likelihood[question.id][[ids.index(x) for x in order]]
    o = order.index(outcome)
    upto = np.cumsum(table, axis=0)
    pair = upto[o][:, None] * upto[o][None] - (upto[o - 1][:, None] * upto[o - 1][None] if o else 0.0)
    return np.log((1.0 - eps) * table[o] + eps / len(table)), np.log((1.0 - eps) * np.maximum(pair, 1e-9) + eps / len(table))

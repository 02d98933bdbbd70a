"""How often each fault is the cause, by a shop's own closed jobs: soft counts, shrunk from the model to its family to what was shipped.

A fault counts by how likely it is at the end of a job, never by the repair that happened to work: that made predictions worse than
no learning at all. Counting again by what was learnt made them no better, and noisier, so it is done once. "Not on the list" and
"nothing wrong" keep their shipped share: a unit that was given up is censored, not a leak.

A family is shrunk by a Dirichlet. A model differs from its family in a fault or two, and hardly in the rest, which no one
concentration can say: each of its faults is either as in the family, or its own (a gamma about the expected count, with a spike and a
slab). That predicted better than a Dirichlet in every world of the study (docs/record.md).

References
----------
.. [1] T. P. Minka, "Estimating a Dirichlet distribution", 2000 (the Polya likelihood of a concentration).
.. [2] W. DuMouchel, "Bayesian data mining in large frequency tables", The American Statistician 53, 1999 (gamma-Poisson shrinkage).
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.special import expit, gammaincinv, gammaln

from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.faults.model import LEAK, NOTHING
from spindle.learning.past import Past

CONCENTRATIONS: Final = np.geomspace(5.0, 200.0, 24)
"""How many jobs the belief above is worth, between an anecdote and a wall."""
AS_FAMILY: Final = 20.0
"""Shape of the spike: a fault that is as in the family is so within a quarter."""
OWN: Final = (1.0, 0.25)
"""Shape and rate of the slab: a fault of its own is four times as frequent, within a wide margin."""
P_OWN: Final = 0.02
"""One fault of fifty is a model's own: one a model or so. Invented, as the two above."""
_FAR_BELOW: Final = 1e-9


@dataclass(frozen=True)
class Causes:
    """What one family's jobs say.

    Attributes
    ----------
    share : variant -> fault -> its share among the faults of the list, summing to 1
    counted : variant -> fault -> soft count of jobs
    between : variant -> fault -> the 90 % interval of its share
    confirmed : variant -> fault -> jobs in which it was confirmed
    """

    share: Mapping[str, Mapping[str, float]]
    counted: Mapping[str, Mapping[str, float]]
    between: Mapping[str, Mapping[str, tuple[float, float]]]
    confirmed: Mapping[str, Mapping[str, int]]


def listed(model: CompiledModel) -> Floats:
    """Return 1 at the faults whose share can be learnt, of shape (n_faults,): not what our own steps bring, nor the two that every list ends with."""
    return np.array([float(not f.opened_by and f.id not in (LEAK, NOTHING)) for f in model.faults])


def learn_causes(pasts: Sequence[Past], models: Mapping[str, CompiledModel]) -> Causes:
    """Return the shares of the faults of one loader family.

    Parameters
    ----------
    pasts : closed jobs of the family
    models : the shipped model of each of its drives, by variant; jobs of other variants are left out
    """
    table = _Table(pasts, models)
    counts = {v: table.counted(v) for v in models}
    family = np.sum(list(counts.values()), axis=0)
    above = _concentration([family], [table.family])
    lift = (above * table.family + family) / (above + family.sum()) / np.maximum(table.family, _FAR_BELOW)
    own = {v: _Shrunk(counts[v], _normalised(table.base[v] * lift)) for v in models}
    return Causes(
        {v: table.named(own[v].share) for v in models},
        {v: table.named(counts[v]) for v in models},
        {v: dict(zip(table.names, own[v].between(), strict=True)) for v in models},
        {v: Counter(f for p in pasts if p.variant == v and p.is_confirmed for f in p.closing) for v in models},
    )


class _Shrunk:
    """The counts of one model against what its family expects: how many times as frequent each fault is, spike and slab [2]_."""

    def __init__(self, n: Floats, mean: Floats) -> None:
        self._n, self._expected = n, np.maximum(mean * n.sum(), _FAR_BELOW)
        spike = np.log(1.0 - P_OWN) + self._evidence(AS_FAMILY, AS_FAMILY)
        slab = np.log(P_OWN) + self._evidence(*OWN)
        self._p_own = expit(slab - spike)
        times = (1.0 - self._p_own) * self._times(AS_FAMILY, AS_FAMILY) + self._p_own * self._times(*OWN)
        self._scale = mean / max(float(mean @ times), _FAR_BELOW)
        self.share: Floats = self._scale * times

    def _evidence(self, shape: float, rate: float) -> Floats:
        """Return the log chance of each count, but for what both have in common."""
        e = self._expected
        return np.asarray(gammaln(shape + self._n) - gammaln(shape) + shape * np.log(rate / (rate + e)) + self._n * np.log(e / (rate + e)))

    def _times(self, shape: float, rate: float) -> Floats:
        return np.asarray((shape + self._n) / (rate + self._expected))

    def between(self) -> list[tuple[float, float]]:
        """Return the 90 % interval of each share, of the component that is likelier."""
        is_own = self._p_own > 0.5
        shape, rate = np.where(is_own, OWN[0], AS_FAMILY) + self._n, np.where(is_own, OWN[1], AS_FAMILY) + self._expected
        low, high = (self._scale * gammaincinv(shape, q) / rate for q in (0.05, 0.95))
        return [(float(a), float(b)) for a, b in zip(low, high, strict=True)]


class _Table:
    """One family's jobs as arrays over all faults of the family that can be learnt."""

    def __init__(self, pasts: Sequence[Past], models: Mapping[str, CompiledModel]) -> None:
        is_listed = {v: listed(m) for v, m in models.items()}
        of = {v: {f.id: float(p) for f, p, own in zip(m.faults, m.prior, is_listed[v], strict=True) if own} for v, m in models.items()}
        self.names = sorted({f for own in of.values() for f in own})
        self._place = {f: n for n, f in enumerate(self.names)}
        self.base = {v: _normalised(self._row(own)) for v, own in of.items()}
        shipped = {f.id: f.prior for m in models.values() for f in m.faults if f.id in self._place}
        self.family = _normalised(self._row(shipped))
        self._closing, self._weight = {}, {}
        for variant in models:
            own = [p for p in pasts if p.variant == variant]
            rows = np.array([self._row(p.closing) for p in own]).reshape(len(own), len(self.names))
            self._closing[variant] = rows
            self._weight[variant] = np.array([p.weight for p in own]) * np.minimum(rows.sum(axis=1), 1.0)

    def _row(self, of: Mapping[str, float]) -> Floats:
        row = np.zeros(len(self.names))
        for fault, p in of.items():
            if fault in self._place:
                row[self._place[fault]] = p
        return row

    def counted(self, variant: str) -> Floats:
        """Return the soft counts of a variant: each job by its chances among the faults of the list, as far as it is one of them."""
        rows = self._closing[variant]
        return np.asarray((self._weight[variant][:, None] * rows / np.maximum(rows.sum(axis=1, keepdims=True), _FAR_BELOW)).sum(axis=0))

    def named(self, row: Floats) -> dict[str, float]:
        return {f: float(p) for f, p in zip(self.names, row, strict=True) if p > 0.0}


def _normalised(row: Floats) -> Floats:
    return np.asarray(row / max(float(row.sum()), _FAR_BELOW))


def _concentration(counts: Sequence[Floats], means: Sequence[Floats]) -> float:
    """Return how many jobs the belief above is worth, by the Polya likelihood [1]_ of soft counts on a grid, between 5 and 200."""
    best = np.zeros(len(CONCENTRATIONS))
    for n, mean in zip(counts, means, strict=True):
        is_there = mean > 0.0
        for i, k in enumerate(CONCENTRATIONS):
            at = k * mean[is_there]
            best[i] += gammaln(k) - gammaln(k + n.sum()) + float((gammaln(at + n[is_there]) - gammaln(at)).sum())
    return float(CONCENTRATIONS[int(best.argmax())])

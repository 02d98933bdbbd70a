"""How often a repair cures, and how often a part is bad itself, by trials: a bad lot must not make its repair look bad.

Success is a Beta with the shipped chance at its mean, worth :data:`STRENGTH` jobs. The health of what went in is hidden: each trial in
vain is shared between "the part was bad", "it was not this fault" and "it was done in vain", by what is believed of each (soft EM).
The naive share of failures is far off: most parts that cured nothing were good ones in a unit with another fault.

References
----------
.. [1] A. P. Dempster, N. M. Laird, D. B. Rubin, "Maximum likelihood from incomplete data via the EM algorithm", JRSS B 39, 1977.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from math import prod
from typing import Final

from scipy.special import betaincinv

from spindle.diagnosis.given.compiled import CompiledModel
from spindle.learning.past import Past, TriedAlone
from spindle.words.health import P_BAD_ITEM, Health

STRENGTH: Final = 8.0
"""Jobs that the shipped chance of a repair, and of a part, is worth."""
A_SOURCE: Final = 4.0
"""Parts that "like all parts" is worth, of a lot or a donor: some are bad as a whole."""
ROUNDS: Final = 20
"""Rounds of counting again; the shares of bad parts move by less than one in two hundred after fifteen."""
_NOTHING: Final = 1e-12
_FEW: Final = 0.5
"""Less than half a job in all says nothing of a repair and a fault."""


Key = tuple[str, str]
"""Loader family and repair."""


@dataclass(frozen=True, slots=True)
class PartsHealth:
    """How often parts of one source are bad: n trials, soft count of bad ones, the mean and the 90 % interval, and what was taken for it before."""

    n: int
    bad: float
    mean: float
    low: float
    high: float
    shipped: float


@dataclass(frozen=True)
class Repairs:
    """What trials say.

    Attributes
    ----------
    success : (loader family, repair) -> fault -> P(cures), of those that enough was seen of
    counted : (loader family, repair) -> soft count of trials on a fault that it can cure
    health : what is known of a part -> how often it is bad
    sources : lot or donor -> how often its parts are bad
    """

    success: Mapping[Key, Mapping[str, float]]
    counted: Mapping[Key, float]
    health: Mapping[Health, PartsHealth]
    sources: Mapping[str, PartsHealth]


def learn_repairs(pasts: Sequence[Past], models: Mapping[str, CompiledModel], source_of: Mapping[str, str]) -> Repairs:
    """Return what trials say, each repair by its loader family, parts of all together.

    Jobs that were given up count here as well: their repairs were tried all the same.

    Parameters
    ----------
    source_of : tag of a part -> the lot or donor that it came from; others are of no source
    """
    return _Counting([j for p in pasts if p.variant in models for j in _job(p, models[p.variant], source_of)]).learnt()


@dataclass(frozen=True, slots=True)
class _Trial:
    key: Key
    what: TriedAlone
    source: str
    shipped: Mapping[str, float]
    uses_item: bool

    def says(self, q: float, cures: float) -> float:
        """Return P(what it showed | a fault that it cures with that chance), its part bad with chance q."""
        return (1.0 - q) * cures if self.what.is_clean else q + (1.0 - q) * (1.0 - cures)


@dataclass(frozen=True, slots=True)
class _Job:
    without: Mapping[str, float]
    """How likely each fault was, had nothing been tried: what trials showed must not be counted twice. Need not sum to 1."""
    trials: tuple[_Trial, ...]


def _job(past: Past, model: CompiledModel, source_of: Mapping[str, str]) -> Iterator[_Job]:
    trials = tuple(_trial(t, model, source_of) for t in past.tried if t.repair in model.repair_index)
    if not trials:
        return
    without = dict(past.closing)
    for trial in trials if not past.is_confirmed else ():
        q = P_BAD_ITEM[trial.what.health] if trial.uses_item else 0.0
        without = {f: p / said for f, p in without.items() if (said := trial.says(q, trial.shipped.get(f, 0.0))) > _NOTHING}
    yield _Job(without, trials)


def _trial(tried: TriedAlone, model: CompiledModel, source_of: Mapping[str, str]) -> _Trial:
    a = model.repair_index[tried.repair]
    shipped = {f.id: float(s) for f, s in zip(model.faults, model.success[a], strict=True) if s > 0.0}
    return _Trial((model.model.family, tried.repair), tried, source_of.get(tried.item, ""), shipped, model.repairs[a].uses_item)


class _Counting:
    """Jobs, and what is believed of repairs and parts while they are counted again and again."""

    def __init__(self, jobs: Sequence[_Job]) -> None:
        self._jobs = jobs
        trials = [t for job in jobs for t in job.trials]
        self._shipped: dict[Key, dict[str, float]] = {}
        for t in trials:
            self._shipped.setdefault(t.key, {}).update(t.shipped)
        self._health_of = {t.source: t.what.health for t in trials if t.source and t.uses_item}
        self._success = {r: dict(own) for r, own in self._shipped.items()}
        self._bad = dict(P_BAD_ITEM)
        self._bad_of: dict[str, float] = {}
        self._clear()

    def _clear(self) -> None:
        self._cured: dict[tuple[Key, str], float] = {}
        self._vain: dict[tuple[Key, str], float] = {}
        self._by_health: dict[Health, _Parts] = {}
        self._by_source: dict[str, _Parts] = {}

    def learnt(self) -> Repairs:
        """Count until it stands, and return what it says."""
        for _ in range(ROUNDS):
            self._clear()
            for job in self._jobs:
                self._count(job)
            self._believe()
        seen = {key: self._cured.get(key, 0.0) + self._vain.get(key, 0.0) for key in {*self._cured, *self._vain}}
        enough = {r: {f: p for f, p in own.items() if seen.get((r, f), 0.0) >= _FEW} for r, own in self._success.items()}
        return Repairs(
            success=enough,
            counted={r: sum(n for (q, _), n in seen.items() if q == r) for r in self._success},
            health={h: parts.health(P_BAD_ITEM[h]) for h, parts in self._by_health.items()},
            sources={s: parts.health(self._bad[self._health_of[s]], A_SOURCE) for s, parts in self._by_source.items()},
        )

    def _believe(self) -> None:
        for repair, own in self._shipped.items():
            self._success[repair] = {f: _mean(s, self._cured.get((repair, f), 0.0), self._vain.get((repair, f), 0.0)) for f, s in own.items()}
        self._bad = {h: self._by_health[h].mean(P_BAD_ITEM[h]) if h in self._by_health else P_BAD_ITEM[h] for h in Health}
        self._bad_of = {s: parts.mean(self._bad[self._health_of[s]], A_SOURCE) for s, parts in self._by_source.items()}

    def _count(self, job: _Job) -> None:
        """Share a job out: which fault it was, and of each trial whether its part was bad, or the repair done in vain."""
        chance = {id(t): self._bad_of.get(t.source, self._bad[t.what.health]) if t.uses_item else 0.0 for t in job.trials}
        joint = {f: p * prod(t.says(chance[id(t)], self._success[t.key].get(f, 0.0)) for t in job.trials) for f, p in job.without.items()}
        total = max(sum(joint.values()), _NOTHING)
        for trial in job.trials:
            self._share(trial, chance[id(trial)], {f: p / total for f, p in joint.items()})

    def _share(self, trial: _Trial, q: float, causes: Mapping[str, float]) -> None:
        own, repair, p_bad, told = self._success[trial.key], trial.key, 0.0, 0.0
        for fault, p in causes.items():
            cures = own.get(fault, 0.0)
            bad = 0.0 if trial.what.is_clean else q / max(trial.says(q, cures), _NOTHING)
            p_bad += p * bad
            told += p * cures
            if cures > 0.0:
                into = self._cured if trial.what.is_clean else self._vain
                into[repair, fault] = into.get((repair, fault), 0.0) + p * (1.0 - bad)
        if trial.uses_item:
            part = _Parts(1, p_bad, 1.0 if trial.what.is_clean else told)
            self._by_health[trial.what.health] = self._by_health.get(trial.what.health, _Parts()).and_(part)
            if trial.source:
                self._by_source[trial.source] = self._by_source.get(trial.source, _Parts()).and_(part)


@dataclass(frozen=True, slots=True)
class _Parts:
    """So many parts went in; the soft count of bad ones, and for how many it can be told: one in a unit with another fault says nothing."""

    n: int = 0
    bad: float = 0.0
    told: float = 0.0

    def and_(self, other: _Parts) -> _Parts:
        return _Parts(self.n + other.n, self.bad + other.bad, self.told + other.told)

    def mean(self, shipped: float, strength: float = STRENGTH) -> float:
        return (strength * shipped + self.bad) / (strength + self.n)

    def health(self, shipped: float, strength: float = STRENGTH) -> PartsHealth:
        mean, worth = self.mean(shipped, strength), strength + self.told
        low, high = betaincinv(mean * worth, (1.0 - mean) * worth, [0.05, 0.95])
        return PartsHealth(self.n, self.bad, mean, float(low), float(high), shipped)


def _mean(shipped: float, yes: float, no: float) -> float:
    return (STRENGTH * shipped + yes) / (STRENGTH + yes + no)

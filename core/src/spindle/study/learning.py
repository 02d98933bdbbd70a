"""What learning from closed jobs is worth (D4, D6): an invented shop closes jobs, and what it learns is asked about jobs that it has not seen.

The technician is plain on purpose: the stages, three looks, then repairs by chance per euro. The truth of each unit is known here, and
the figures are those of the true fault, not of what was believed at the end.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Any, Final

import numpy as np

from spindle.diagnosis.given.compiled import CompiledModel, Floats, compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.futures import Unit
from spindle.diagnosis.planning.lookahead import Position, information
from spindle.diagnosis.planning.plan import plan_for
from spindle.faults.model import QuestionKind
from spindle.learning.causes import listed
from spindle.learning.judging import cause_loss, judge
from spindle.learning.layer import Layer, Part, learn
from spindle.learning.past import CONFIRMED, GIVEN_UP, PROVEN, Past, Saw, TriedAlone, kept
from spindle.study.policies import start_of
from spindle.study.worlds import SHEETS, Setup, TrueWorld, units_of, world_of
from spindle.words.health import P_BAD_ITEM, Health

SIZES: Final = (20, 50, 100, 300)
NEW_JOBS: Final = 300
YEARS: Final = 1_000
"""Jobs after which what faults look like is asked about: of few faults are there forty units sooner."""
MODELS: Final = 3
"""Drive variants of a family that the shop sees; the second has a weakness."""
WEAKNESS: Final = 6.0
"""The weak model has its weak fault so many times as often."""

SHARE_CONFIRMED: Final = 0.35
"""Share of the cured jobs whose cause somebody confirms."""
LOOKS: Final = 3
MOST_TRIES: Final = 4
BAD_DONORS: Final = 0.5
BAD_LOT: Final = 0.6
_LOTS: Final = ("lot 1", "lot 2", "lot 3", "bad lot")


@dataclass(frozen=True)
class Shop:
    """One family's drives with what is true of each."""

    setups: dict[str, Setup]
    worlds: dict[str, TrueWorld]
    weak: tuple[str, int]
    """The weak variant, and the place of its weak fault."""

    @property
    def models(self) -> dict[str, CompiledModel]:
        """The shipped model of each variant."""
        return {v: s.model for v, s in self.setups.items()}


def open_shop(family: str, rng: np.random.Generator, *, differs: bool, looks_differ: bool = False) -> Shop:
    """Return an invented shop of one family: like the shipped model; with other shares, other cures, and one weak model; or with faults that look otherwise."""
    setups, worlds, weak = {}, {}, ("", -1)
    shared = rng.spawn(1)[0]
    lift = np.exp(shared.normal(0.0, 0.6, 80))
    odd = int(shared.integers(2**31))  # the same faults look the same on each of its drives
    for n in range(MODELS):
        model = compile_model(replace(SHEETS[family], variant=f"{family} {n}"))
        ready = Setup(family, model, plan_for(model, Economy()))
        true = world_of("rows", ready, np.random.default_rng(odd)) if looks_differ else world_of("matched", ready, rng)
        if differs:
            prior = true.prior * lift[: len(true.prior)]
            if n == 1:
                weak = (model.sheet.variant, int((listed(model) * model.prior).argsort()[-4]))
                prior[weak[1]] *= WEAKNESS
            true = replace(true, prior=prior / prior.sum(), success=np.clip(true.success * 0.9, 0.0, 1.0))
        setups[model.sheet.variant], worlds[model.sheet.variant] = ready, true
    return Shop(setups, worlds, weak)


def close_jobs(shop: Shop, n: int, rng: np.random.Generator) -> tuple[list[Past], list[int], dict[str, str]]:
    """Return n closed jobs in their order, the true fault of each, and the source of every part by its tag."""
    pasts, faults = [], []
    sources: dict[str, str] = {}
    names = list(shop.setups)
    for job in range(n):
        ready = shop.setups[names[int(rng.integers(len(names)))]]
        unit = units_of(shop.worlds[ready.model.sheet.variant], ready, 1, rng)[0]
        past = _Bench(ready, rng, sources, f"{job}", shop.worlds[ready.model.sheet.variant].success).close(unit)
        pasts.append(past)
        faults.append(unit.fault)
    return pasts, faults, sources


class _Bench:
    """One job, from the stages to the hand-back."""

    def __init__(self, ready: Setup, rng: np.random.Generator, sources: dict[str, str], tag: str, success: Floats) -> None:
        self._ready, self._rng, self._sources, self._tag, self._success = ready, rng, sources, tag, success

    def close(self, unit: Unit) -> Past:
        problem, model = self._ready.problem, self._ready.model
        at, saw = start_of(self._ready), []
        place = {a.id: q for q, a in enumerate(self._ready.plan.asks)}
        classes = [q.id for q in model.questions.values() if q.kind is QuestionKind.DISC_CLASS]
        for name in (*model.model.seen_at_least, *classes):
            if name in place and at.open_[place[name]]:
                at = at.after_answer(place[name], int(unit.shows[place[name]]), problem)
                saw.append(self._saw(place[name], unit, is_first=True))
        seen = at
        for _ in range(LOOKS):
            worth = np.where(at.open_, information(at, problem) / np.maximum(problem.ask[at.state], 0.3), 0.0)
            q = int(worth.argmax())
            if worth[q] > 0.0:
                at = at.after_answer(q, int(unit.shows[q]), problem)
                saw.append(self._saw(q, unit, is_first=False))
        at, tried = self._repaired(at, unit)
        is_cured = bool(tried) and tried[-1].is_clean
        is_confirmed = is_cured and bool(self._rng.random() < SHARE_CONFIRMED)
        fault = model.faults[unit.fault].id
        names = [f.id for f in model.faults]
        return Past(
            variant=model.sheet.variant,
            family=self._ready.family,
            weight=CONFIRMED if is_confirmed else PROVEN if is_cured else GIVEN_UP,
            is_confirmed=is_confirmed,
            seen=kept(names, list(seen.w / seen.w.sum())),
            closing={fault: 1.0} if is_confirmed else kept(names, list(at.w / at.w.sum())),
            tried=tuple(tried),
            saw=tuple(s for s in saw if s is not None),
        )

    def _saw(self, place: int, unit: Unit, *, is_first: bool) -> Saw | None:
        question = self._ready.plan.asks[place].question
        return None if question is None else Saw(question.id, question.outcomes[int(unit.shows[place])].id, is_first)

    def _repaired(self, at: Position, unit: Unit) -> tuple[Position, list[TriedAlone]]:
        problem, tried = self._ready.problem, []
        for n in range(MOST_TRIES):
            chance = problem.success @ at.w / at.w.sum()
            worth = np.where(at.free, chance / np.maximum(problem.cost[at.state], 1.0), 0.0)
            a = int(worth.argmax())
            if chance[a] < 0.05:
                break
            health, tag, is_good = self._part(a, n)
            is_clean = bool(is_good and self._rng.random() < self._success[a, unit.fault])
            tried.append(TriedAlone(self._ready.plan.repairs[a].id, is_clean, tag, health))
            works = self._ready.model.success[a] * (1.0 - (P_BAD_ITEM[health] if tag else 0.0))
            if is_clean:
                return replace(at, w=at.w * works), tried
            at = replace(at.after_repair(a, problem), w=at.w * (1.0 - works))
        return at, tried

    def _part(self, a: int, n: int) -> tuple[Health, str, bool]:
        if not self._ready.plan.repairs[a].uses_item:
            return Health.NEW, "", True
        tag = f"P-{self._tag}-{n}"
        if self._rng.random() < 0.4:
            self._sources[tag] = f"donor {tag}"
            return Health.UNKNOWN, tag, bool(self._rng.random() >= BAD_DONORS)
        self._sources[tag] = lot = _LOTS[int(self._rng.integers(len(_LOTS)))]
        p_bad = BAD_LOT if lot == "bad lot" else P_BAD_ITEM[Health.NEW]
        return Health.NEW, tag, bool(self._rng.random() >= p_bad)


def gain_on(pasts: Sequence[Past], faults: Sequence[int], layer: Layer, shop: Shop) -> Floats:
    """Return the nats that a layer saves over the shipped model at naming the true fault, from what was seen at first, of each new job."""
    over = {v: np.log(np.maximum(layer.over(m).prior, 1e-12) / np.maximum(m.prior, 1e-12)) for v, m in shop.models.items()}
    found = []
    for past, fault in zip(pasts, faults, strict=True):
        model = shop.models[past.variant]
        seen = np.array([past.seen.get(f.id, 1e-4) for f in model.faults])
        lifted = seen * np.exp(over[past.variant])
        found.append(float(np.log(lifted[fault] / lifted.sum()) - np.log(seen[fault] / seen.sum())))
    return np.array(found)


def looks_gain_on(pasts: Sequence[Past], faults: Sequence[int], layer: Layer, shop: Shop) -> float:
    """Return the nats that what faults look like, by a layer, saves at naming the true fault, of a new job in the mean."""
    own, gains = Layer().with_parts(layer, {Part.ROWS}), []
    for past, fault in zip(pasts, faults, strict=True):
        model = shop.models[past.variant]
        true = replace(past, closing={model.faults[fault].id: 1.0}, weight=CONFIRMED)
        gains.append(cause_loss(true, Layer(), model) - cause_loss(true, own, model))
    return float(np.mean(gains))


WORLDS: Final = {
    "like the shipped model": {"differs": False},
    "that differs": {"differs": True},
    "whose faults look otherwise": {"differs": False, "looks_differ": True},
}


def study_learning(cases: int, seed: int) -> dict[str, Any]:
    """Return what learning is worth in each world, over ``cases`` invented shops of each."""
    return {name: _world(cases, [seed, n], world) for n, (name, world) in enumerate(WORLDS.items())}


@dataclass(frozen=True)
class _Found:
    """What one invented shop showed: by number of jobs, the nats saved on new ones, and whether the causes were judged better by then."""

    gain: dict[int, float]
    is_used: dict[int, bool]
    donors_bad: float
    donors_failed: float
    worst_is_bad_lot: bool
    weak_is_found: bool
    looks_gain: float


def _shown_by(family: str, rng: np.random.Generator, world: dict[str, bool]) -> _Found:
    shop = open_shop(family, rng, **world)
    pasts, _, sources = close_jobs(shop, max(SIZES), rng)
    new, faults, _ = close_jobs(shop, NEW_JOBS, rng)
    years = [*pasts, *close_jobs(shop, YEARS - max(SIZES), rng)[0]]

    def learnt(jobs: Sequence[Past]) -> Layer:
        return learn(jobs, shop.models, source_of=sources).layer()

    lessons = learn(pasts, shop.models, source_of=sources)
    found = lessons.repairs
    often = {s: x.mean for s, x in found.sources.items() if x.n > 1}
    tried = [t for p in pasts for t in p.tried if t.health is Health.UNKNOWN]
    return _Found(
        gain={n: float(gain_on(new, faults, learnt(pasts[:n]), shop).mean()) for n in SIZES},
        is_used={n: judge(pasts[:n], shop.models, learnt)[Part.CAUSES].is_better for n in SIZES},
        donors_bad=found.health[Health.UNKNOWN].mean,
        donors_failed=1.0 - sum(t.is_clean for t in tried) / max(len(tried), 1),
        worst_is_bad_lot=max(often, key=lambda s: often[s]) == "bad lot",
        weak_is_found=world["differs"] and _is_found(shop, lessons.layer()),
        looks_gain=looks_gain_on(new, faults, learnt(years), shop),
    )


def _world(cases: int, seed: list[int], world: dict[str, bool]) -> dict[str, Any]:
    found = [_shown_by(list(SHEETS)[case % len(SHEETS)], np.random.default_rng([*seed, case]), world) for case in range(cases)]
    figures = {
        "nat better on new jobs, after n": {n: _told([f.gain[n] for f in found]) for n in SIZES},
        "the same, used only once judged better": {n: _told([f.gain[n] * f.is_used[n] for f in found]) for n in SIZES},
        "judged better, after n": {n: _mean(f.is_used[n] for f in found) for n in SIZES},
        "donors bad": {"true": BAD_DONORS, "learnt": _mean(f.donors_bad for f in found), "share of failures": _mean(f.donors_failed for f in found)},
        "the bad lot is the worst": _mean(f.worst_is_bad_lot for f in found),
        f"nat better by what faults look like, after {YEARS}": _told([f.looks_gain for f in found]),
    }
    return figures | ({"the weak model’s share is lifted at least twofold": _mean(f.weak_is_found for f in found)} if world["differs"] else {})


def _mean(of: Iterable[float]) -> float:
    return round(float(np.mean(list(of))), 3)


def _told(gains: Sequence[float]) -> dict[str, float]:
    se = float(np.std(gains, ddof=1) / np.sqrt(len(gains))) if len(gains) > 1 else float("nan")
    return {"mean": round(float(np.mean(gains)), 4), "se": round(se, 4), "worst shop": round(min(gains), 4)}


def _is_found(shop: Shop, layer: Layer) -> bool:
    variant, place = shop.weak
    model = shop.models[variant]
    return bool(layer.over(model).prior[place] >= 2.0 * model.prior[place])

"""The signal path as a chain of links, each passed, failed or open, and the halving test next (C17)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.given.rows import faults_named
from spindle.diagnosis.planning.problem import Plan
from spindle.faults.model import Link, Path

PASSED: Final = 0.02
"""A tested link with less than this share of the chain's suspicion has passed."""
FAILED: Final = 0.5
"""A link with more than this share of the chain's suspicion, its own test having spoken, has failed."""


@dataclass(frozen=True)
class LinkState:
    """One link: "pass", "fail" or "open", with its share of the chain's suspicion."""

    id: str
    name: str
    state: str
    p: float
    says: str


@dataclass(frozen=True)
class PathState:
    """A chain, and the test that halves what is left of it."""

    id: str
    title: str
    p: float
    """P(the fault sits somewhere in this chain)."""
    links: tuple[LinkState, ...]
    next_test: str
    splits: tuple[float, float]
    """Shares of the chain's suspicion before and behind where the next test cuts; (0, 0) if there is none."""


def signal_paths(belief: Belief, model: CompiledModel, plan: Plan, depth: int) -> tuple[PathState, ...]:
    """Return the chains of this drive, drawn from its sheet: links that it does not have are not in them."""
    return tuple(_state(p, belief, model, plan, depth) for p in model.model.paths)


def _links(path: Path, model: CompiledModel) -> list[Link]:
    has = model.sheet.features
    return [k for k in path.links if (not k.needs or k.needs in has) and _faults(k, model)]


def _faults(link: Link, model: CompiledModel) -> list[int]:
    return [model.fault_index[f] for f in faults_named(link.faults, model.model, model.sheet) if f in model.fault_index]


def _state(path: Path, belief: Belief, model: CompiledModel, plan: Plan, depth: int) -> PathState:
    links = _links(path, model)
    p = [float(belief.p[_faults(k, model)].sum()) for k in links]
    total = max(sum(p), 1e-12)
    said = belief.evidence.said
    states = []
    for n, link in enumerate(links):
        own = [t for t in link.tested_by if t in said]
        later = [t for k in links[n:] for t in k.passed_by if t in said and said[t].outcome not in model.questions[t].bad]
        share = p[n] / total
        bad = [t for t in own if said[t].outcome in model.questions[t].bad]
        # a good test passes a link whatever share is left of it in a chain that is nearly cleared
        state = "fail" if bad and share >= FAILED else "pass" if not bad and (own or later) and (p[n] < PASSED or share < 0.25) else "open"
        told = next((said[t] for t in (*bad, *own, *later)), None)
        says = "" if told is None else told.line
        states.append(LinkState(link.id, link.name, state, p[n], says))
    test, splits = _halving(links, p, plan, depth=depth, said=set(said))
    return PathState(path.id, path.title, min(sum(p), 1.0), tuple(states), test, splits)


def _halving(links: list[Link], p: list[float], plan: Plan, *, depth: int, said: set[str]) -> tuple[str, tuple[float, float]]:
    """Return the open test that cuts the chain's suspicion nearest to half, for what it costs."""
    total = sum(p)
    if total <= 0.0:
        return "", (0.0, 0.0)
    index = {a.id: n for n, a in enumerate(plan.asks)}
    best, found, cut = 0.0, "", (0.0, 0.0)
    for n, link in enumerate(links):
        tests = [(t, p[n]) for t in link.tested_by] + [(t, sum(p[: n + 1])) for t in link.passed_by]
        for test, before in tests:
            if test in said or test not in index:
                continue
            share = before / total
            worth = min(share, 1.0 - share) / max(plan.problem.asking(depth, index[test]), 0.3)
            if worth > best:
                best, found, cut = worth, test, (share, 1.0 - share)
    return found, cut

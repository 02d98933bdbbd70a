"""The signal path as a chain of links, each passed, failed or open, and the halving test next (C17)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.given.compiled import Chain, CompiledModel
from spindle.diagnosis.planning.problem import Plan
from spindle.faults.model import Link

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


def signal_paths(belief: Belief, model: CompiledModel, plan: Plan, state: int) -> tuple[PathState, ...]:
    """Return the chains of this drive, drawn from its sheet: links that it does not have are not in them. ``state`` is that of the bench."""
    return tuple(_state(chain, belief, model, plan, state) for chain in model.chains)


def _state(chain: Chain, belief: Belief, model: CompiledModel, plan: Plan, state: int) -> PathState:
    path, links = chain.path, chain.links
    p = [float(belief.p[at].sum()) for at in chain.faults]
    total = max(sum(p), 1e-12)
    said = belief.evidence.said
    found = []
    for n, link in enumerate(links):
        own = [t for t in link.tested_by if t in said]
        later = [t for k in links[n:] for t in k.passed_by if t in said and said[t].outcome not in model.questions[t].bad]
        share = p[n] / total
        bad = [t for t in own if said[t].outcome in model.questions[t].bad]
        # a good test passes a link whatever share is left of it in a chain that is nearly cleared
        stands = "fail" if bad and share >= FAILED else "pass" if not bad and (own or later) and (p[n] < PASSED or share < 0.25) else "open"
        told = next((said[t] for t in (*bad, *own, *later)), None)
        says = "" if told is None else told.line
        found.append(LinkState(link.id, link.name, stands, p[n], says))
    test, splits = _halving(links, p, plan, state=state, said=set(said))
    return PathState(path.id, path.title, min(sum(p), 1.0), tuple(found), test, splits)


def _halving(links: tuple[Link, ...], p: list[float], plan: Plan, *, state: int, said: set[str]) -> tuple[str, tuple[float, float]]:
    """Return the open test that cuts the chain's suspicion nearest to half, for what it costs."""
    total = sum(p)
    if total <= 0.0:
        return "", (0.0, 0.0)
    index = plan.place_of
    best, found, cut = 0.0, "", (0.0, 0.0)
    for n, link in enumerate(links):
        tests = [(t, p[n]) for t in link.tested_by] + [(t, sum(p[: n + 1])) for t in link.passed_by]
        for test, before in tests:
            if test in said or test not in index:
                continue
            share = before / total
            worth = min(share, 1.0 - share) / max(plan.problem.asking(state, index[test]), 0.3)
            if worth > best:
                best, found, cut = worth, test, (share, 1.0 - share)
    return found, cut

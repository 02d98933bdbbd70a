"""A unit whose cause was confirmed, played again: as it was done, by the advice, and by each school. In euro of the same plan."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from types import MappingProxyType
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.futures import Game, Policy, Unit, play, throw_units
from spindle.diagnosis.planning.lookahead import Pick
from spindle.diagnosis.planning.plan import plan_for
from spindle.diagnosis.planning.problem import Problem
from spindle.faults.library import MODELS
from spindle.learning.past import Done
from spindle.shipped import fingerprint
from spindle.study.policies import POLICIES, as_at_the_bench, start_of
from spindle.study.worlds import Setup

THROWS: Final = 4
"""A unit is played so often: what nobody looked at on it is drawn anew each time."""
HERE: Final = "here"
ADVICE: Final = "planner"
WAYS: Final[Mapping[str, str]] = MappingProxyType(
    {
        HERE: "As it was done here",
        ADVICE: "By the advice",
        "flow_chart": "By the flow chart",
        "clean_first": "Clean first",
        "pickup_first": "Pickup first",
        "cheapest_first": "The cheapest first",
    }
)
"""Ways to play a unit, by name. The schools of the fault models that every family has."""
WORLD: Final = fingerprint(*(("spindle.faults", name) for name in ("shared", *MODELS)), rules=1)
"""Names the models that a unit was played in."""


def replayed(model: CompiledModel, economy: Economy, cause: str, way: Sequence[Done], seed: int) -> dict[str, float]:
    """Return what a unit costs by each of :data:`WAYS`, in euro, the mean of :data:`THROWS`.

    What was seen and tried on it is as it was, whoever plays; what nobody looked at is drawn from the model, given the cause. All ways
    begin with the stages and classes that no job is isolated without.

    Parameters
    ----------
    cause : id of the confirmed fault
    way : what was done, in its order, the repair that cured it last

    Raises
    ------
    KeyError, ValueError
        If this drive has no such fault, question or repair, or a question no such answer.
    """
    ready = Setup(model.model.family, model, plan_for(model, economy))
    problem, place = ready.problem, {a.id: n for n, a in enumerate(ready.plan.asks)}
    steps = [Pick("repair", model.repair_index[d.what]) if d.is_repair else Pick("ask", place[d.what]) for d in way]
    units = [_as_seen(u, steps, way, ready) for u in _thrown(cause, ready, seed)]
    policies = {name: as_at_the_bench(ready, POLICIES[name](ready)) for name in WAYS if name != HERE} | {HERE: _again(steps)}
    return {name: float(np.mean([g.cost_eur for g in play(units, start_of(ready), problem, policies[name])])) for name in WAYS}


def _thrown(cause: str, ready: Setup, seed: int) -> list[Unit]:
    p, w = ready.problem, np.zeros(len(ready.model.faults))
    w[ready.model.fault_index[cause]] = 1.0
    return throw_units(THROWS, w, p.at_home, p.success, p.first_row, np.random.default_rng(seed), away=(p.p_home, p.away))


def _as_seen(unit: Unit, steps: Sequence[Pick], way: Sequence[Done], ready: Setup) -> Unit:
    """Return a unit that shows and bears what was seen and tried on the real one."""
    shows, cures = unit.shows.copy(), unit.cures.copy()
    for step, done in zip(steps, way, strict=True):
        if done.is_repair:
            cures[step.index] = done.came == "clean"
        else:
            shows[step.index] = [o.id for o in ready.model.questions[done.what].outcomes].index(done.came)
    return replace(unit, shows=shows, cures=cures)


def _again(steps: Sequence[Pick]) -> Policy:
    """Return the policy that does what was done, in its order."""

    def policy(games: list[Game], _problem: Problem) -> Sequence[Pick]:
        return [steps[len(g.way)] if len(g.way) < len(steps) else Pick("stop") for g in games]

    return policy

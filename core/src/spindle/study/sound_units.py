"""Units that nothing is wrong with: what they are charged, and how many of them get a part that they did not need (C65)."""

from __future__ import annotations

from dataclasses import replace
from types import MappingProxyType
from typing import Final

import numpy as np

from spindle.diagnosis.planning.futures import play
from spindle.faults.model import QuestionKind
from spindle.study.policies import POLICIES, as_at_the_bench, start_of
from spindle.study.worlds import Setup, TrueWorld, units_of, world_of

SLIPS: Final = MappingProxyType({"sound": 0.0, "a plug that comes and goes": 0.04, "a bad disc in the drawer": 0.12})
"""What else may be the matter -> the chance that one look at what the drive does seems to fail all the same, tried again and again."""
RIVALS: Final = ("planner", "flow_chart")


def study_sound(ready: Setup, n: int, seed: int) -> dict[str, dict[str, float]]:
    """Return for each kind of sound unit and each policy the mean cost in euro, and the share that was given a part, or any repair."""
    found = {}
    for kind, (name, slips) in enumerate(SLIPS.items()):
        rng = np.random.default_rng([seed, kind])
        units = units_of(_sound_world(ready, slips, rng), ready, n, rng)
        for policy in RIVALS:
            games = play(units, start_of(ready), ready.problem, as_at_the_bench(ready, POLICIES[policy](ready)))
            found[f"{name}, {policy}"] = {
                "mean_eur": round(float(np.mean([g.cost_eur for g in games])), 2),
                "given_a_part": float(np.mean([any(ready.plan.repairs[a].uses_item for a in g.repairs) for g in games])),
                "repaired": float(np.mean([bool(g.repairs) for g in games])),
            }
    return found


def _sound_world(ready: Setup, slips: float, rng: np.random.Generator) -> TrueWorld:
    """A world where nothing is wrong, and one disc class or stage in so many seems to fail."""
    world = world_of("matched", ready, rng)
    likelihood = world.likelihood.copy()
    for n, asked in enumerate(ready.plan.asks):
        question = asked.question
        if question is not None and question.kind in (QuestionKind.DISC_CLASS, QuestionKind.BASELINE) and question.bad:
            rows, ids = ready.problem.rows_of(n), [o.id for o in question.outcomes]
            fails = np.array([o in question.bad for o in ids])
            likelihood[rows] = (1.0 - slips) * likelihood[rows] + slips * (fails / fails.sum())[:, None]
    return replace(world, prior=ready.model.sound, likelihood=likelihood)

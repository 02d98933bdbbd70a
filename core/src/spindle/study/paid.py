"""Is the money on the screen what is then paid? Simulated futures against the units themselves (target 14)."""

from __future__ import annotations

import numpy as np

from spindle.diagnosis.planning.futures import by_choice, outturn, play
from spindle.diagnosis.planning.lookahead import one_step, pick
from spindle.study.policies import start_of
from spindle.study.worlds import Setup, units_of, world_of

MOVES_IN: int = 4
"""The figure is read after four moves: something is known, most is still to be paid."""


def study_money(ready: Setup, n: int, seed: int, *, world: str = "matched") -> dict[str, float]:
    """Return the shown mean, the one-step bound and the realised mean in euro, and how often the 80 % band held.

    The same units are played once to the end; each is looked at where it stood after :data:`MOVES_IN` moves.
    """
    rng = np.random.default_rng(seed)
    units = units_of(world_of(world, ready, rng), ready, n, rng)
    shown, bound, paid, inside = [], [], [], []
    policy = by_choice(pick)
    for i, unit in enumerate(units):
        game = play([unit], start_of(ready), ready.problem, policy, stop_after=MOVES_IN)[0]
        if game.is_over:
            continue
        future = outturn(game.at, ready.problem, np.random.default_rng([seed, i]))
        rest = play([unit], game.at, ready.problem, policy, known=game.history)[0].cost_eur
        shown.append(future.mean_eur)
        bound.append(one_step(game.at, ready.problem).least)
        paid.append(rest)
        inside.append(future.low_eur <= rest <= future.high_eur)
    return {
        "shown_mean_eur": float(np.mean(shown)),
        "bound_mean_eur": float(np.mean(bound)),
        "paid_mean_eur": float(np.mean(paid)),
        "band_held": float(np.mean(inside)),
        "units": len(paid),
    }

"""Invented switches under an invented thumb."""

from __future__ import annotations

from typing import Any, Final

import numpy as np

from spindle.bench.switch import WEIGHTS, Press, judge_switch

PRESSES: Final = 5
WORLDS: Final = {
    # sound ohms and their spread, dirty ohms, travel spread, share of the dirty that miss: (a, b)
    "matched": (0.15, 0.6, 3.0, 0.12, (1.2, 3.0)),
    "other": (0.25, 0.8, 1.5, 0.17, (1.0, 4.0)),
}


def _press(state: str, world: tuple[float, float, float, float, tuple[float, float]], misses: float, closes_at: float, rng: np.random.Generator) -> Press:
    sound, spread, dirty, travel, _ = world
    miss = {"sound": 0.01, "dirty": misses, "dead": 0.995, "late": 0.08, "stuck": 0.005}[state]
    if rng.random() < miss:
        return Press(closes=False)
    ohm = float(np.exp(rng.normal(np.log(dirty if state == "dirty" else sound), 1.0 if state == "dirty" else spread)))
    at = closes_at if state == "late" else float(np.clip(rng.normal(0.55, travel), 0, 1))
    return Press(closes=True, ohm=max(ohm + rng.normal(0, 0.05), 0.0), travel=float(np.clip(at + rng.normal(0, 0.02), 0, 1)))


def _judge(state: str, world: tuple[float, float, float, float, tuple[float, float]], rng: np.random.Generator, *, with_travel: bool) -> bool:
    """Make a switch, press it, and tell whether it is called failing."""
    misses, closes_at = float(rng.beta(*world[4])), float(rng.uniform(0.6, 1.0))
    presses = [_press(state, world, misses, closes_at, rng) for _ in range(PRESSES)]
    if not with_travel:
        presses = [Press(p.closes, p.ohm) for p in presses]
    opens = [bool(rng.random() > (0.97 if state == "stuck" else 0.01)) for _ in range(PRESSES)]
    return judge_switch(presses, releases=opens).fails_factor > 1.0


def study_switch(n: int, seed: int) -> dict[str, Any]:
    """Return how often five presses call a sound switch failing and a failing one sound, in a like and an unlike world."""
    found: dict[str, Any] = {}
    for name, world in WORLDS.items():
        for with_travel in (True, False):
            rng = np.random.default_rng([seed, len(name), with_travel])
            sound = [_judge("sound", world, rng, with_travel=with_travel) for _ in range(n)]
            kinds = rng.choice(list(WEIGHTS), n, p=list(WEIGHTS.values()))
            failing = [_judge(str(k), world, rng, with_travel=with_travel) for k in kinds]
            missed = {k: [not f for f, own in zip(failing, kinds, strict=True) if own == k] for k in WEIGHTS}
            found[f"{name}{'' if with_travel else '_without_travel'}"] = {
                "false_percent": round(100 * float(np.mean(sound)), 2),
                "missed_percent": round(100 * float(np.mean([not f for f in failing])), 2),
                "missed_by_kind_percent": {k: round(100 * float(np.mean(m)), 1) for k, m in missed.items() if m},
            }
    return found

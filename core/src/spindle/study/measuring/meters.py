"""Invented meters and hands: does the stated uncertainty cover, is soft evidence worth it, are slips found."""

from __future__ import annotations

from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from spindle.bench.reading import Accuracy, far_repeats, measure, soft_weights, usual_spread

EPS: Final = 0.02
"""Chance that an answer is a mere guess."""
WORLDS: Final = 12
NEAR: Final = (0.2, 0.8)
APART: Final = (0.05, 1.6)
"""How far inside and outside a band, in V, the values of a fault lie: between faults up to four times, and up to thirty."""
LEARNT_FROM: Final = (5, 20, 60)
"""Confirmed jobs a fault whose readings would be learnt from."""


def _true_read(value: float, accuracy: Accuracy, n: int, rng: np.random.Generator) -> tuple[list[float], float]:
    """Read a true value n times with a meter of its own error, and a hand of its own spread."""
    off = rng.uniform(-1, 1) * accuracy.half_width(value)
    spread = usual_spread(value, "voltage") * float(rng.lognormal(0, 0.35))
    return [float(x) for x in value + off + rng.normal(0, spread, n)], spread


def _coverage(n: int, count: int, rng: np.random.Generator) -> float:
    held = 0
    for _ in range(count):
        value = float(10 ** rng.uniform(-0.5, 1.5))
        accuracy = Accuracy(float(rng.choice([0.5, 0.8, 1.5])), float(rng.choice([1, 3])), 0.001 * value)
        found = measure(_true_read(value, accuracy, n, rng)[0], "voltage", accuracy)
        held += abs(found.value - value) <= 2 * found.u
    return held / count


def study_readings(n: int, seed: int) -> dict[str, Any]:
    """Return coverage by repeats, what soft evidence loses against the exact likelihood in twelve worlds, and how slips are found."""
    rng = np.random.default_rng([seed, 1])
    covered = {k: round(100 * _coverage(k, n, rng), 2) for k in range(1, 9)}
    worlds = [_world(n, np.random.default_rng([seed, 2, w])) for w in range(WORLDS)]
    apart = [_world(n, np.random.default_rng([seed, 4, w]), spread=APART) for w in range(WORLDS)]
    names = worlds[0].keys()
    loss = {name: round(float(np.mean([w[name] for w in worlds])), 4) for name in names}
    return {
        "covered_percent_by_repeats": covered,
        "nat_over_exact": loss,
        "nat_over_exact_where_faults_lie_apart": {name: round(float(np.mean([w[name] for w in apart])), 4) for name in names},
        "soft_over_crisp": round(loss["soft"] / loss["crisp"], 3),
        "worst_soft_over_crisp_nat": round(max(w["soft"] - w["crisp"] for w in worlds), 4),
        **_slips(n, np.random.default_rng([seed, 3])),
    }


def _world(n: int, rng: np.random.Generator, *, spread: tuple[float, float] = NEAR) -> dict[str, float]:
    """Two faults, a band, values of each fault: the log loss of soft, crisp, "can't tell" and learnt evidence over the exact likelihood."""
    low = 11.6
    in_band = {"sound": float(rng.uniform(0.9, 0.98)), "weak": float(rng.uniform(0.05, 0.2))}
    wide = {f: (float(rng.uniform(*spread)), float(rng.uniform(*spread))) for f in in_band}  # how far inside and outside values lie: of each fault its own
    u = float(rng.uniform(0.04, 0.2))

    def draw(fault: str) -> float:
        inside, outside = wide[fault]
        return float(low + rng.exponential(inside)) if rng.random() < in_band[fault] else float(low - rng.exponential(outside))

    told = {f: np.array([draw(f) + float(rng.normal(0, u)) for _ in range(max(LEARNT_FROM))]) for f in in_band}
    widths = {(f, k): _kernel(told[f][:k]) for f in in_band for k in LEARNT_FROM}
    losses: dict[str, list[float]] = {k: [] for k in ("soft", "crisp", "cant_tell", *(f"learnt_from_{k}" for k in LEARNT_FROM))}
    for _ in range(n):
        fault = "weak" if rng.random() < 0.5 else "sound"
        x = draw(fault) + float(rng.normal(0, u))
        exact = {f: _density(x, u, low, wide[f], p) for f, p in in_band.items()}
        w = soft_weights(x, u, {"in": [(low, np.inf)], "out": [(-np.inf, low)]})["in"]
        ways = {"soft": w, "crisp": float(x >= low), "cant_tell": float(x >= low) if abs(x - low) > 1.65 * u else None}
        best = np.log(_posterior(exact, fault))
        for name, share in ways.items():
            like = {f: 1.0 if share is None else (1 - EPS) * (share * p + (1 - share) * (1 - p)) + EPS / 2 for f, p in in_band.items()}
            losses[name].append(best - np.log(_posterior(like, fault)))
        for k in LEARNT_FROM:
            like = {f: (1 - EPS) * _learnt(x, told[f][:k], widths[f, k]) + EPS / 2 for f in in_band}
            losses[f"learnt_from_{k}"].append(best - np.log(_posterior(like, fault)))
    return {name: float(np.mean(own)) for name, own in losses.items()}


def _kernel(told: NDArray[np.float64]) -> float:
    """Return how wide a normal kernel is for readings of confirmed jobs, as B. W. Silverman says (*Density Estimation*, 1986, 3.4.2)."""
    quarter, three = np.quantile(told, [0.25, 0.75])
    return float(max(0.9 * min(float(told.std()), float(three - quarter) / 1.34) * len(told) ** -0.2, 0.02))


def _learnt(x: float, told: NDArray[np.float64], width: float) -> float:
    """Return the density at a reading by readings of confirmed jobs."""
    return float(np.exp(-0.5 * ((told - x) / width) ** 2).mean() / width / np.sqrt(2 * np.pi))


def _posterior(like: dict[str, float], fault: str) -> float:
    return like[fault] / sum(like.values())


def _density(x: float, u: float, low: float, wide: tuple[float, float], p_in: float) -> float:
    """Density of a reading: an exponential to either side of the limit, blurred by the meter; by sums over a fine grid."""
    grid = np.linspace(x - 5 * u, x + 5 * u, 61)
    side = np.where(grid >= low, p_in / wide[0] * np.exp(-(grid - low) / wide[0]), (1 - p_in) / wide[1] * np.exp((grid - low) / wide[1]))
    return float((side * np.exp(-0.5 * ((grid - x) / u) ** 2)).sum())


def _slips(n: int, rng: np.random.Generator) -> dict[str, float]:
    """How often five sound repeats are asked again, and how often a slip of twelve spreads is."""
    s0, false, found = 1.0, 0, 0
    for _ in range(n):
        sound = rng.normal(100.0, s0 * float(rng.lognormal(0, 0.25)), 5)
        false += bool(far_repeats(sound, s0))
        slipped = sound.copy()
        slipped[int(rng.integers(5))] += 12 * s0 * float(rng.choice([-1, 1]))
        found += bool(far_repeats(slipped, s0))
    return {"sound_sets_flagged_percent": round(100 * false / n, 2), "slips_found_percent": round(100 * found / n, 2)}

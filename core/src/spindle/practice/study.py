"""Five hundred units played by three scripted learners: what a lesson costs whom, and who walks into which trap."""

from __future__ import annotations

from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from typing import Any

import numpy as np

from spindle.practice.debrief import Score, scored
from spindle.practice.learners import LEARNERS, played
from spindle.practice.lessons import LESSONS

_Task = tuple[str, int]


def study_practice(n: int, seed: int) -> dict[str, Any]:
    """Return for ``n`` units, spread evenly over the lessons, what each learner pays, and which traps it walks into."""
    names = list(LESSONS)
    tasks = [(names[i % len(names)], 1_000_000 * seed + i) for i in range(n)]
    with ProcessPoolExecutor() as pool:
        found = list(pool.map(_all, tasks, chunksize=4))
    return {"learners": {who: _figures([scores[who] for scores in found]) for who in LEARNERS}, "lessons": _lessons(tasks, found)}


def _all(task: _Task) -> dict[str, Score]:
    return {who: scored(played(*task, who)) for who in LEARNERS}


def _figures(scores: list[Score]) -> dict[str, Any]:
    cost = np.array([s.cost_eur for s in scores])
    return {
        "mean_eur": round(float(cost.mean()), 2),
        "error_eur": round(float(cost.std(ddof=1) / np.sqrt(len(cost))), 2),
        "minutes": round(float(np.mean([s.minutes for s in scores])), 1),
        "repaired": round(float(np.mean([s.is_repaired for s in scores])), 3),
        "needless_parts": round(float(np.mean([s.needless for s in scores])), 2),
        "mastered": round(float(np.mean([s.is_mastered for s in scores])), 3),
        "traps": dict(Counter(t for s in scores for t in s.traps).most_common()),
    }


def _lessons(tasks: list[_Task], found: list[dict[str, Score]]) -> dict[str, Any]:
    return {
        name: {who: round(float(np.mean([f[who].cost_eur for t, f in zip(tasks, found, strict=True) if t[0] == name] or [0.0])), 1) for who in LEARNERS}
        for name in LESSONS
    }

"""Invented flexes, read pair by pair as advised, against the plain sweep."""

from __future__ import annotations

from typing import Any

import numpy as np

from spindle.bench.flex import PRIOR, Flex, Read, frame_of, judge_flex

MOST_READINGS = 120


def _readings(flex: Flex, what: int, rng: np.random.Generator) -> tuple[tuple[str, int], int]:
    """Read one flex as advised until it is sure; return what it was taken for, and after how many readings."""
    frame = frame_of(flex)
    place = {p: n for n, p in enumerate(frame.pairs)}
    done: list[Read] = []
    found = judge_flex(flex, done)
    while found.next_pair is not None and len(done) < MOST_READINGS:
        done.append(Read(found.next_pair, bool(rng.random() < frame.closed[place[found.next_pair], what])))
        found = judge_flex(flex, done)
    return found.likeliest, len(done)


def study_flex(n: int, seed: int) -> dict[str, Any]:
    """Return how often a flex is taken for what it is not, and the readings that it takes beside the sweep of every track and every gap."""
    rng = np.random.default_rng([seed, 24])
    flex = Flex(24, 0.5)
    frame = frame_of(flex)
    kinds = np.array([k for k, _ in frame.names])
    wrong: dict[str, list[bool]] = {k: [] for k in PRIOR}
    counts: dict[str, list[int]] = {k: [] for k in PRIOR}
    for _ in range(n):
        kind = str(rng.choice(list(PRIOR), p=list(PRIOR.values())))
        what = int(rng.choice(np.flatnonzero(kinds == kind)))
        taken, readings = _readings(flex, what, rng)
        wrong[kind].append((taken[0] == "sound") != (kind == "sound"))
        counts[kind].append(readings)
    sweep = flex.tracks + flex.tracks - 1
    faulty = [w for k, own in wrong.items() if k != "sound" for w in own]
    every = [c for own in counts.values() for c in own]
    open_miss = 1.0 - 0.97**flex.tracks
    return {
        "flexes": n,
        "false_percent": round(100 * float(np.mean(wrong["sound"])), 2),
        "missed_percent": round(100 * float(np.mean(faulty)), 2),
        "readings_mean": round(float(np.mean(every)), 1),
        "share_of_sweep": round(float(np.mean(every)) / sweep, 3),
        "readings_by_kind": {k: round(float(np.mean(c)), 1) for k, c in counts.items() if c},
        "any_open_calls_a_sound_one_open_percent": round(100 * open_miss, 1),
    }

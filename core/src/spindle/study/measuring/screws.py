"""Invented units that are shut with one screw mixed up: what is stopped as it goes in, what the counts alone tell afterwards, and where to look first."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from itertools import product
from typing import Any, Final

import numpy as np

from spindle.bench.screws import Screw, how_readily, may_go_in, wrong_places
from spindle.bench.verdict import Verdict

RULER_MM: Final = 0.2
"""How far a length read off a printed ruler is off at most: its lines are half a millimetre apart."""
TOLERANCE_MM: Final = 0.1
"""How far a screw is off its name at most."""


def study_screws(n: int, seed: int) -> dict[str, Any]:
    """Return shares of mix-ups that are stopped or seen, and how well the counts point to the wrong place."""
    rng = np.random.default_rng([seed, 14])
    closings = apart = caught = false = own = silent = shown = first = 0
    opened: list[float] = []
    for _ in range(n):
        groups = _unit(rng)
        mixed = _mix_up(groups, rng)
        if mixed is None:
            continue  # no screw of it goes into another's place
        place, screw = mixed
        closings += 1
        difference = groups[screw][0].length_mm - groups[place][0].length_mm
        if abs(difference) > 0.5:
            apart += 1
            caught += bool(may_go_in(_read(groups[screw][0], rng), groups[place][0])[1])
        for own_screw, _count in groups:
            own += 1
            false += may_go_in(_read(own_screw, rng), own_screw)[0] is Verdict.REFUSED
        if rng.random() < 0.43:
            silent += 1  # swapped both ways: nothing is left over
            continue
        left = [int(k == place) for k in range(len(groups))]
        wrong = dict.fromkeys(range(len(groups)), 0.0)
        for slip in wrong_places(groups, left):
            wrong[slip.place] += slip.expected if slip.screw is not None else 0.0
        shown += 1
        first += max(wrong, key=lambda g: wrong[g]) == place
        opened.append(_opened(wrong, groups, place))
    return {
        "closings": closings,
        "stopped_or_remarked_percent": round(100 * caught / apart, 2),
        "false_stops": false,
        "own_screws": own,
        "nothing_left_over_percent": round(100 * silent / closings, 1),
        "likeliest_is_true_percent": round(100 * first / shown, 1),
        "opened_of_any_order": round(float(np.mean(opened)), 3),
        "fillings_off": _against_all_fillings(min(n, 200), rng),
    }


def _opened(wrong: Mapping[int, float], groups: Sequence[tuple[Screw, int]], place: int) -> float:
    """Return how many places are opened until the wrong one is found, likeliest first, against any order: half of all."""
    chance = {g: w / groups[g][1] for g, w in wrong.items()}
    before = sum(groups[g][1] for g, c in chance.items() if c > chance[place])
    return (before + (groups[place][1] + 1) / 2) / ((sum(n for _, n in groups) + 1) / 2)


def _unit(rng: np.random.Generator) -> list[tuple[Screw, int]]:
    heads, colours, threads = ["cross 0", "cross 1", "hex lobe 8"], ["silver", "black"], [2.0, 2.5, 3.0]
    found = []
    for _ in range(int(rng.integers(3, 6))):
        length, thread = float(rng.choice([3, 4, 5, 6, 8, 10, 12, 16])), float(rng.choice(threads))
        found.append((Screw(length, thread, str(rng.choice(heads)), str(rng.choice(colours)), length + 0.3), int(rng.integers(1, 5))))
    return found


def _mix_up(groups: Sequence[tuple[Screw, int]], rng: np.random.Generator) -> tuple[int, int] | None:
    """Return a place's group and the group of the screw that went into it, as readily as a hand does so."""
    pairs = [(i, j) for i in range(len(groups)) for j in range(len(groups)) if i != j]
    readily = np.array([how_readily(groups[j][0], groups[i][0]) * groups[i][1] for i, j in pairs])
    readily[readily >= 1.0] = 0.0  # the same screw is no mix-up
    return pairs[int(rng.choice(len(pairs), p=readily / readily.sum()))] if readily.sum() else None


def _read(screw: Screw, rng: np.random.Generator) -> Screw:
    off = float(rng.uniform(-RULER_MM, RULER_MM))
    return Screw(screw.length_mm + off, screw.thread_mm, screw.head, screw.colour)


def _against_all_fillings(n: int, rng: np.random.Generator) -> float:
    """Return the largest difference to telling every filling one by one, on small units."""
    worst = 0.0
    for _ in range(n):
        groups = [(s, min(c, 2)) for s, c in _unit(rng)[:3]]
        left = [0] * len(groups)
        left[int(rng.integers(len(groups)))] = 1
        found = {(s.place, s.screw): s.expected for s in wrong_places(groups, left)}
        for key, expected in all_fillings(groups, left).items():
            if expected > 0.011:
                worst = max(worst, abs(found.get(key, 0.0) - expected))
    return worst


def all_fillings(groups: Sequence[tuple[Screw, int]], left: Sequence[int]) -> dict[tuple[int, int | None], float]:
    """Return the expected wrong places by telling every way to fill every single place: slow, and plain to see."""
    places = [i for i, (_, n) in enumerate(groups) for _ in range(n)]
    used = tuple(n - lie for (_, n), lie in zip(groups, left, strict=True))
    total = 0.0
    counts: dict[tuple[int, int | None], float] = {}
    for filling in product([*range(len(groups)), None], repeat=len(places)):
        if tuple(filling.count(j) for j in range(len(groups))) != used:
            continue
        weight = float(np.prod([1.0 if j is None else how_readily(groups[j][0], groups[i][0]) for i, j in zip(places, filling, strict=True)]))
        total += weight
        for i, j in zip(places, filling, strict=True):
            if j is None or (j != i and how_readily(groups[j][0], groups[i][0]) not in (0.0, 1.0)):
                counts[i, j] = counts.get((i, j), 0.0) + weight
    return {k: w / total for k, w in counts.items()}

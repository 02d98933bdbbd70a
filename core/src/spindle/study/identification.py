"""How many answers the identification key needs, and what one slip of the eye does to it."""

from __future__ import annotations

from typing import Final

import numpy as np

from spindle.drives.features import FEATURES
from spindle.drives.key import Reading, Variant, read_key

MOST_ANSWERS: Final = 8
"""More answers than this nobody gives: what is left then stays a set of candidates."""


def walk(variants: tuple[Variant, ...], right: Variant, *, slip_at: int = -1, rng: np.random.Generator | None = None) -> tuple[int, Reading]:
    """Answer what the key asks, truly but for one slip, until it settles or eight answers are given.

    Parameters
    ----------
    slip_at : int
        Which answer is wrong, counted from 0; -1 for none. Needs ``rng``.

    Returns
    -------
    answers : int
    reading : Reading
    """
    answers: dict[str, str] = {}
    reading = read_key(variants, answers)
    while reading.next_feature and len(answers) < MOST_ANSWERS:
        feature = FEATURES[reading.next_feature]
        value = right.looks[feature.id]
        if len(answers) == slip_at and rng is not None:
            value = str(rng.choice([v for v in feature.values if v != value]))
        answers[feature.id] = value
        reading = read_key(variants, answers)
    return len(answers), reading


def study_key(variants: tuple[Variant, ...], runs: int, seed: int) -> dict[str, float]:
    """Return the answers that true answering needs, and how often one slip at random leaves the right variant among the first three."""
    steps = [walk(variants, v)[0] for v in variants]
    rng = np.random.default_rng(seed)
    kept = []
    for _ in range(runs):
        right = variants[int(rng.integers(len(variants)))]
        length = max(walk(variants, right)[0], 1)
        _, reading = walk(variants, right, slip_at=int(rng.integers(length)), rng=rng)
        kept.append(right.id in [c.id for c in reading.candidates[:3]])
    return {"mean_answers": float(np.mean(steps)), "most_answers": float(max(steps)), "kept_after_a_slip": float(np.mean(kept)), "runs": runs}

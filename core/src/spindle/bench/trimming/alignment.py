"""Several trims that pull at each other: in the sheet's order, each by the law of one, and round again only where it pays.

Where a second round takes off too little, the cross-effects learnt from the turns made are solved together: a Newton step on the measured matrix.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import permutations
from typing import Final

import numpy as np

from spindle.bench.trimming.turning import DONE

PAYS: Final = 0.30
"""A round that takes off less of the error than this is followed by solving together, or by nothing."""
WELL: Final = 30.0
"""Condition number up to which the learnt matrix is believed."""
MOST_ROUNDS: Final = 6


@dataclass(frozen=True, slots=True)
class TurnMade:
    """One turn of one trim, and what it did to the reading of each, in half bands."""

    trim: int
    deg: float
    moved: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Round:
    """What to do after a full re-reading with nothing turned.

    Attributes
    ----------
    what : done, again (in order), together (the turns below) or stop
    turns_deg : one a trim, clockwise up; empty unless they are turned together
    """

    what: str
    turns_deg: tuple[float, ...] = ()


def next_round(errors: Sequence[np.ndarray], turns: Sequence[TurnMade], room: Sequence[tuple[float, float]]) -> Round:
    """Return whether another round pays.

    Parameters
    ----------
    errors : sequence of ndarray of shape (n_trims,), one a round
        Half bands from the aim, read with nothing turned: the first before any turn. Readings of one round belong together.
    turns : sequence of TurnMade
        Every turn so far: what they did to every reading.
    room : sequence of (lowest, highest), one a trim
        Where each reading may go, in half bands from its aim.
    """
    now = np.asarray(errors[-1], dtype=float)
    if np.all(np.abs(now) <= DONE):
        return Round("done")
    rounds = len(errors) - 1
    if rounds >= MOST_ROUNDS:
        return Round("stop")
    pays = rounds < 2 or _worst(errors[-1]) <= (1.0 - PAYS) * _worst(errors[-2])
    together = None if rounds < 2 else solve_together(now, turns, room)
    if together is not None:
        return Round("together", together)
    return Round("again" if pays else "stop")


def _worst(errors: np.ndarray) -> float:
    return float(np.abs(errors).max())


def cross_effects(n: int, turns: Sequence[TurnMade]) -> np.ndarray:
    """Return each reading per degree of each trim, of shape (n, n), by least squares over the turns made; a trim never turned has no effects."""
    matrix = np.zeros((n, n))
    for trim in range(n):
        own = [t for t in turns if t.trim == trim and t.deg != 0]
        if own:
            deg = np.array([t.deg for t in own])
            matrix[:, trim] = deg @ np.array([t.moved for t in own]) / (deg @ deg)
    return matrix


def solve_together(error: np.ndarray, turns: Sequence[TurnMade], room: Sequence[tuple[float, float]]) -> tuple[float, ...] | None:
    """Return the turns that should take the errors off at once: ``M t = -e``, by singular values of a condition under 30.

    A half or a quarter of them where the whole way would take a reading past its limit in every order of the trims; None if even that
    does, or if they would not halve the worst error.
    """
    matrix = cross_effects(len(error), turns)
    steep = np.abs(matrix).max(axis=0)
    if not np.isfinite(matrix).all() or not steep.any():
        return None
    scaled = matrix / np.where(steep > 0, steep, 1.0)[None, :]  # by each trim's own slope: a steep one is no ill one
    t = np.linalg.lstsq(scaled, -error, rcond=1.0 / WELL)[0] / np.where(steep > 0, steep, 1.0)
    if np.abs(error + matrix @ t).max() > np.abs(error).max() / 2.0:
        return None
    for share in (1.0, 0.5, 0.25):  # a part of the way stays nearer
        if any(_stays(error, matrix, share * t, order, room) for order in permutations(range(len(error)))):
            return tuple(float(x) for x in share * t)
    return None


def _stays(error: np.ndarray, matrix: np.ndarray, t: np.ndarray, order: Sequence[int], room: Sequence[tuple[float, float]]) -> bool:
    """Tell whether all readings stay inside while the trims are turned in that order."""
    low, high = (np.minimum(np.array([r[0] for r in room]), error), np.maximum(np.array([r[1] for r in room]), error))
    path = error[:, None] + np.cumsum((matrix * t[None, :])[:, list(order)], axis=1)
    return bool(np.all(path >= low[:, None]) and np.all(path <= high[:, None]))

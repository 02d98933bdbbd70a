"""Three trims that pull at each other, set in order."""

from __future__ import annotations

from typing import Any

import numpy as np

from spindle.bench.trimming.alignment import WELL, TurnMade, next_round
from spindle.bench.trimming.stops import LOOKS, Stop, Trimmer
from spindle.bench.trimming.turning import Aim, Next, next_step

COUPLING = 0.9
SPREAD = 0.02
"""Of one look, in half bands."""


class Coupled:
    """Readings of three trims, each pulled at by the others."""

    def __init__(self, rng: np.random.Generator, coupling: float, n: int = 3) -> None:
        self._rng = rng
        slopes = np.exp(rng.normal(np.log(0.12), 0.5, n)).clip(0.03, 0.35) * rng.choice([-1, 1], n)
        pull = rng.uniform(-coupling, coupling, (n, n))
        np.fill_diagonal(pull, 1.0)
        self._matrix = pull * slopes[None, :]
        self.condition = float(np.linalg.cond(pull))
        """Beyond 30 no maker could align it either: two trims do nearly the same."""
        self.z = rng.uniform(-3.0, 3.0, n)
        self._slack = np.zeros(n)
        self.n = n

    def turn(self, trim: int, deg: float) -> None:
        """Turn one: not quite so far, after the play is taken up."""
        moved = self._slack[trim] + deg * (1 + self._rng.normal(0, 0.12)) + self._rng.normal(0, 0.8)
        carried = max(moved - 0.75, 0.0) + min(moved + 0.75, 0.0)
        self._slack[trim] = moved - carried
        self.z = self.z + self._matrix[:, trim] * carried

    def read(self) -> np.ndarray:
        """Read all, three looks each."""
        return np.asarray(np.median(self.z[None, :] + self._rng.normal(0, SPREAD, (LOOKS, self.n)), axis=0))


def _set_one(unit: Coupled, trim: int, turns: list[TurnMade], error: np.ndarray) -> None:
    """Set one trim by the law of one, all readings taken at each of its stops."""
    trimmer, stops = Trimmer(-1.0, 1.0, "voltage", more_drive=1, u=SPREAD), [Stop(0.0, (float(error[trim]),) * LOOKS)]
    while True:
        step = next_step(trimmer, stops, Aim(0.0, 0.4))
        if step.what is not Next.TURN:
            return
        unit.turn(trim, step.turn_deg)
        now = unit.read()
        turns.append(TurnMade(trim, step.turn_deg, tuple(now - error)))
        error = now
        stops.append(Stop(step.turn_deg, (float(now[trim]),) * LOOKS))


def align(unit: Coupled, *, may_solve: bool = True) -> tuple[str, int]:
    """Align one; return how it ended and after how many rounds."""
    turns: list[TurnMade] = []
    errors = [unit.read()]
    room = [(-8.0, 8.0)] * unit.n
    while True:
        step = next_round(errors, turns, room)
        if step.what in ("done", "stop"):
            return step.what, len(errors) - 1
        if step.what == "again" or not may_solve:
            for trim in range(unit.n):
                _set_one(unit, trim, turns, unit.read())
        else:
            for trim, deg in enumerate(step.turns_deg):
                before = unit.read()
                unit.turn(trim, deg)
                turns.append(TurnMade(trim, deg, tuple(unit.read() - before)))
        errors.append(unit.read())


def study_alignment(n: int, seed: int) -> dict[str, Any]:
    """Return how often three trims are set, with solving together and without, and what one pass alone leaves out."""
    ends: dict[str, Any] = {}
    for name, coupling, may_solve in (("solving", COUPLING, True), ("in_turn_only", COUPLING, False), ("weak", 0.3, True)):
        rng = np.random.default_rng([seed, int(coupling * 10), may_solve])
        units = [Coupled(rng, coupling) for _ in range(n)]
        alignable = np.array([u.condition < WELL for u in units])
        went = [align(u, may_solve=may_solve) for u in units]
        ends[name] = {
            "units": n,
            "alignable": int(alignable.sum()),
            "done_of_alignable_percent": round(100 * float(np.mean([w == "done" for (w, _), a in zip(went, alignable, strict=True) if a])), 2),
            "done_percent": round(100 * float(np.mean([w == "done" for w, _ in went])), 2),
            "rounds_mean": round(float(np.mean([r for _, r in went])), 2),
            "more_than_one_pass_percent": round(100 * float(np.mean([r > 1 for _, r in went])), 1),
        }
    return ends

"""The meter of a practice unit: where its tips lie, the limit beside it, and the number that is read there, true only in the state of the limit."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

import numpy as np

from spindle.bench.quantity import said
from spindle.bench.reading import Interval, usual_spread
from spindle.bench.tools.readings import regions_of
from spindle.shipped import read_toml
from spindle.words.bench import Mains

REPEATS: Final = 3
"""Times that a hand reads before it says what stands there."""
CLOSED_OHM: Final[Interval] = (0.15, 0.7)
"""A closed contact or fuse with its leads; a coil has a few ohms more."""
COIL: Final[Interval] = (4.0, 9.0)
STATES: Final = {Mains.LIVE: "running", Mains.OUT: "mains out"}


@dataclass(frozen=True, slots=True)
class Point:
    """Two points of a practice unit. ``low`` and ``high`` in V, A or ohm; None where closed or open is all that is asked."""

    question: str
    points: str
    quantity: str
    mains: Mains
    low: float | None = None
    high: float | None = None

    @property
    def limit(self) -> str:
        """Return the limit in words, with the state that it is for."""
        band = "closed, a few ohms at most" if self.low is None or self.high is None else f"{said(self.low, self.quantity)} to {said(self.high, self.quantity)}"
        return f"{band}, {STATES[self.mains]}"


POINTS: Final = {row["question"]: Point(**{**row, "mains": Mains(row["mains"])}) for row in read_toml("spindle.practice", "points")["points"]}


@dataclass(frozen=True, slots=True)
class Tips:
    """Where the tips lie, the mains as it is meanwhile, and what is truly there: the answer that the drive hides."""

    point: Point
    mains: Mains
    outcome: str
    seed: tuple[int, ...]

    @property
    def tells(self) -> bool:
        """True if it is read in the state that the limit is for."""
        return self.mains is self.point.mains

    def value(self) -> float:
        """Return what is between the points, in V, A or ohm: the same each time; ``inf`` for an open circuit."""
        rng = np.random.default_rng(self.seed)
        if not self.tells:
            return float(rng.uniform(0.2, 40.0)) if self.point.quantity == "resistance" else 0.0  # ohms in a live circuit are no ohms
        low, high = _span(self.point, self.outcome, rng)
        return low if math.isinf(low) else float(rng.uniform(low, high))

    def read(self, rng: np.random.Generator, quantity: str | None = None) -> float:
        """Return one reading of a meter set to a quantity (its own if left out), with the noise of a hand; ``inf`` for an overload."""
        if quantity not in (None, self.point.quantity):
            return math.inf if quantity == "resistance" and self.mains is Mains.LIVE else 0.0
        value = self.value()
        if math.isinf(value) or value == 0.0:
            return value
        unsteady = 0.3 * value if self.point.quantity == "resistance" and not self.tells else 0.0
        return max(0.0, float(rng.normal(value, usual_spread(value, self.point.quantity) + unsteady + 2e-4)))

    def says(self, rng: np.random.Generator) -> str:
        """Return what the meter shows, read so often, as a hand writes it down."""
        shown = ", ".join(said(x, self.point.quantity) if math.isfinite(x) else "OL" for x in (self.read(rng) for _ in range(REPEATS)))
        return f"{self.point.points}, {STATES[self.mains]}: {shown}"


def _span(point: Point, outcome: str, rng: np.random.Generator) -> Interval:
    """Return from where to where the truth lies for an answer: well inside what is that answer's own, so that a careful reading finds it."""
    if point.low is None or point.high is None:
        if outcome in ("open", "fails"):
            return math.inf, math.inf
        return COIL if outcome == "good" else CLOSED_OHM
    regions = regions_of(point.question)[outcome]
    one = "in" if "in" in regions else str(rng.choice([r for r in regions if r != "missing"] or ["missing"]))
    band = point.high - point.low
    return {
        "missing": (0.0, 0.08 * point.low),
        "below": (0.7 * point.low, point.low - 0.15 * band),
        "in": (point.low + 0.15 * band, point.high - 0.15 * band),
        "above": (point.high + 0.15 * band, point.high + band),
    }[one]

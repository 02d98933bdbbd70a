"""A trimmer, and what was read at each stop of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Final

import numpy as np

from spindle.bench.reading import usual_spread
from spindle.errors import InvalidError

LOOKS: Final = 3
"""Readings at a stop: one may be a slipped tip."""
UNSTEADY: Final = 8.0
"""Usual spreads between the lowest and the highest of a stop's readings, beyond which a wiper is not quiet."""


@dataclass(frozen=True, slots=True)
class Trimmer:
    """What the sheet says of a trimmer, and how it is read.

    Attributes
    ----------
    low, high : the book's band, in ohm or V
    kind : "resistance" or "voltage"
    more_drive : 1 if a higher reading is more drive, -1 if a lower one is, 0 if nobody knows
    clockwise : 1 if a turn clockwise, seen from the front, raises the reading, -1 if it lowers it, 0 if nobody knows
    strong : the reading at which the drive is too strong; None where the sheet does not say: the band's own end then
    is_powered : it is read with the laser running; in ohms, mains out, a stop beyond the limit harms nothing
    u : standard uncertainty of a stop's median, in the unit of the reading
    """

    low: float
    high: float
    kind: str = "resistance"
    more_drive: int = 0
    clockwise: int = 0
    strong: float | None = None
    is_powered: bool = False
    u: float = 0.0

    def __post_init__(self) -> None:
        if not self.low < self.high:
            raise InvalidError("/high", f"A band from {self.low:g} to {self.high:g} is none: the second has to be larger.")
        if self.strong is not None and self.more_drive * (self.strong - self.centre) < 0:
            raise InvalidError("/strong", "The strong limit lies on the side of less drive: check which way the drive rises.")

    @property
    def centre(self) -> float:
        """The middle of the band."""
        return (self.low + self.high) / 2.0

    @property
    def half(self) -> float:
        """Half of the band: the unit in which everything is reckoned."""
        return (self.high - self.low) / 2.0

    @property
    def sign(self) -> int:
        """The direction of more drive along the reading; upwards where nobody knows: then both ends are limits."""
        return self.more_drive or 1

    @property
    def z_limit(self) -> float:
        """The strong limit in half bands from the centre, in the direction of more drive."""
        return 1.0 if self.strong is None else self.z(self.strong)

    @property
    def u_z(self) -> float:
        """The uncertainty in half bands."""
        return self.u / self.half

    def z(self, reading: float) -> float:
        """Return a reading in half bands from the centre, upwards with drive."""
        return self.sign * (reading - self.centre) / self.half

    def reading(self, z: float) -> float:
        """Return the reading at so many half bands from the centre."""
        return self.centre + self.sign * z * self.half


@dataclass(frozen=True, slots=True)
class Stop:
    """Where the trimmer stood: turned so far from the stop before (clockwise counts up), read so, and read again after a tap on the board."""

    turned_deg: float
    looks: tuple[float, ...]
    after_tap: tuple[float, ...] = ()
    passes: int = 0
    """Discs that read at this stop."""
    tries: int = 0

    @property
    def value(self) -> float:
        """What it reads: the median of all looks."""
        return float(np.median((*self.looks, *self.after_tap)))

    def is_unsteady(self, kind: str) -> bool:
        """Tell whether its looks lie farther apart than a hand explains."""
        return any(_spread(looks) > UNSTEADY * usual_spread(self.value, kind) for looks in (self.looks, self.after_tap) if len(looks) >= LOOKS)


def _spread(looks: Sequence[float]) -> float:
    return max(looks) - min(looks)


@dataclass(frozen=True, slots=True)
class Learnt:
    """What the stops so far have taught.

    Attributes
    ----------
    slope : half bands a degree clockwise; 0 if not known
    sign : 1, -1 or 0: which way a turn clockwise takes the drive
    steepest : the steepest of the last three moves, half bands a degree
    still_deg : degrees turned without any move, clockwise and the other way
    against : moves against the slope, and how many of them running
    unsteady : stops whose readings would not stand still
    """

    slope: float = 0.0
    sign: int = 0
    steepest: float = 0.0
    still_deg: tuple[float, float] = (0.0, 0.0)
    against: int = 0
    running: int = 0
    unsteady: int = 0
    moves: tuple[float, ...] = field(default=())


PLAY: Final = 0.2
"""A move under this share of the slope's was eaten by play in the screw."""
KEPT: Final = 0.4
"""Of the former slope at each move: tapers change it along the track."""
QUIET: Final = 4.0
"""Uncertainties that a reading has to move by before it has moved at all."""


def learn(trimmer: Trimmer, stops: Sequence[Stop]) -> Learnt:
    """Return what a row of stops teaches about slope, direction and the trimmer's manners; the first one is as found."""
    found = Learnt(sign=trimmer.clockwise * trimmer.sign, unsteady=sum(s.is_unsteady(trimmer.kind) for s in stops))
    for before, now in pairwise(stops):
        found = _moved(found, trimmer.z(now.value) - trimmer.z(before.value), now.turned_deg, QUIET * trimmer.u_z)
    return found


def _moved(was: Learnt, dz: float, deg: float, quiet: float) -> Learnt:
    """Return what is known after one turn."""
    if deg == 0:
        return was
    if abs(dz) < quiet:
        still = (was.still_deg[0] + max(deg, 0.0), was.still_deg[1] + max(-deg, 0.0))
        return Learnt(was.slope, was.sign, was.steepest, still, was.against, was.running, was.unsteady, was.moves)
    fresh = dz / deg
    moves = (*was.moves, abs(fresh))[-3:]
    steepest = max(moves)
    if was.slope == 0.0 and was.sign == 0:
        return Learnt(fresh, _sign(fresh), steepest, (0.0, 0.0), 0, 0, was.unsteady, moves)
    if _sign(fresh) != (_sign(was.slope) or was.sign):
        return _against(was, fresh, steepest, moves)
    slope = fresh if was.slope == 0.0 else was.slope / 2.0 if abs(fresh) < PLAY * abs(was.slope) else KEPT * was.slope + (1.0 - KEPT) * fresh
    return Learnt(slope, _sign(slope), steepest, (0.0, 0.0), was.against, 0, was.unsteady, moves)


def _against(was: Learnt, fresh: float, steepest: float, moves: tuple[float, ...]) -> Learnt:
    """Return what is known after a move the wrong way: once may be the hand; twice running, the first turn was the wrong one."""
    running = was.running + 1
    if running < 2:
        return Learnt(was.slope, was.sign, steepest, (0.0, 0.0), was.against + 1, running, was.unsteady, moves)
    return Learnt(fresh, _sign(fresh), steepest, (0.0, 0.0), was.against + 1, 0, was.unsteady, moves)


def _sign(value: float) -> int:
    return (value > 0) - (value < 0)

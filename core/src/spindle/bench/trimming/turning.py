"""The next turn of a trimmer: small at first, then by what the turns so far have taught, never past the limit by what is known.

A damped secant search (W. H. Press et al., *Numerical Recipes*, 9.2) with the steps of a careful hand. What matters is the small first turn and the room to
the limit; gains and caps changed twofold do nothing (``docs/measuring.md``).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import partial
from typing import Final

from spindle.bench.trimming.stops import LOOKS, Learnt, Stop, Trimmer, learn

FIRST_DEG: Final = 5.0
LEAST_FIRST_DEG: Final = 3.0
"""A hand does not turn less on purpose, the first time on an unknown screw: where there is less room, it is read in ohms first."""
LEAST_DEG: Final = 2.0
STEEPEST: Final = 0.5
"""Half bands a degree: the steepest that is believed of a trimmer whose slope nobody has seen."""
STILL_MOST_DEG: Final = 12.0
STILL_DEG: Final = 30.0
"""Degrees without any move, each way, after which it is the wrong trimmer, the wrong points, or its wiper is open."""
MOST_DEG: Final = 20.0
GAIN: Final = 0.7
NEAR_GAIN: Final = 0.5
NEAR: Final = 2.0
"""Half bands from the aim within which a turn is halved."""
MARGIN: Final = 1.4 * 2.0
"""A turn under power is bounded as if the track were so much steeper than seen, and the hand so much coarser."""
STOP_DEG: Final = 1.5
"""Room for less than this is room for none: no hand turns so little."""
MOST_TURNS: Final = 25
DONE: Final = 0.8
"""Half bands from the aim: inside the band by a fifth, so that closing up does not put it out."""
BACK: Final = 0.3
"""As closely is the as-found value put back."""
MOST_AGAINST: Final = 4
MOST_UNSTEADY: Final = 2


class Next(StrEnum):
    """What to do now."""

    LOOK = "look"
    TURN = "turn"
    TAP = "tap"
    DONE = "done"
    STOP = "stop"


@dataclass(frozen=True, slots=True)
class Aim:
    """Where to, in half bands from the centre, and how closely."""

    z: float = 0.0
    within: float = DONE


@dataclass(frozen=True, slots=True)
class Step:
    """The next step.

    Attributes
    ----------
    turn_deg : clockwise counts up, seen from the front; 0 unless it is a turn
    predicted : where the turn should take the reading, in half bands; the slope's own guess
    alarms : what is wrong, as codes of :data:`ALARMS`
    may_power : False while the drive may be over its strong limit
    back_deg : the one turn that should bring it back to as found
    """

    what: Next
    turn_deg: float = 0.0
    predicted: float | None = None
    alarms: tuple[str, ...] = ()
    may_power: bool = True
    back_deg: float = 0.0


ALARMS: Final = {
    "nothing_moves": "Nothing moved over 30° one way and 30° the other: it is the wrong trimmer, the wrong points, or its wiper is open.",
    "wiper_dirty": "The reading will not stand still at two stops: the wiper is dirty or worn. Power off, and set it back.",
    "wrong_way": "The reading went the other way. Was it turned as said, seen from the front?",
    "turns_over": "Its slope has changed its sign: the first turn was the wrong way round, or the sheet's direction is.",
    "wanders": "Four times it went against its own slope. Stop: something else moves it.",
    "not_settled": "25 turns and not there: it does not settle.",
    "no_room": "There is no room for a turn that a hand can make before the strong limit. Mains out, read it in ohms, and turn there.",
    "over_limit": "It may stand beyond the strong limit: no power until it is turned back, read in ohms.",
    "wiper_unsteady": "Three looks lie far apart: look three times more, with the tips held still.",
}


def next_step(trimmer: Trimmer, stops: Sequence[Stop], aim: Aim | None = None, *, since: int = 0) -> Step:
    """Return what to do next on the way to an aim.

    Parameters
    ----------
    stops : sequence of Stop
        In their order; the first is as found. Empty before it is read.
    aim : Aim, optional
        The band's centre if left out.
    since : int
        The stop at which this aim was taken: turns are counted from there.

    Returns
    -------
    Step
        A turn never predicts a value past the strong limit less two uncertainties, where it is read under power.
    """
    aim = aim or Aim()
    if not stops or len(stops[-1].looks) < LOOKS:
        return Step(Next.LOOK, may_power=not stops or _may_power(trimmer, stops[-1]))
    learnt, now = learn(trimmer, stops), stops[-1]
    step = partial(Step, may_power=_may_power(trimmer, now), back_deg=_back(trimmer, stops, learnt))
    wrong = _stops_it(learnt, len(stops) - 1 - since)
    if wrong:
        return step(Next.STOP, alarms=(wrong,))
    if now.is_unsteady(trimmer.kind) and len(now.looks) < 2 * LOOKS:
        return step(Next.LOOK, alarms=("wiper_unsteady",))
    notes = _notes(trimmer, learnt, stops)
    if abs(aim.z - trimmer.z(now.value)) <= aim.within:
        if len(now.after_tap) < LOOKS:
            return step(Next.TAP, alarms=notes)
        return step(Next.DONE, alarms=notes)
    deg = _turn(trimmer, stops, learnt, aim)
    if deg == 0.0:
        return step(Next.STOP, alarms=("no_room",))
    predicted = None if learnt.slope == 0.0 else trimmer.z(now.value) + learnt.slope * deg
    return step(Next.TURN, deg, predicted, notes)


def _may_power(trimmer: Trimmer, now: Stop) -> bool:
    z = trimmer.z(now.value)
    over = z > trimmer.z_limit - 2.0 * trimmer.u_z
    return not over if trimmer.more_drive else not over and z >= -1.0 + 2.0 * trimmer.u_z


def _stops_it(learnt: Learnt, turns: int) -> str:
    """Return the alarm that ends it; empty if none does."""
    if min(learnt.still_deg) >= STILL_DEG:
        return "nothing_moves"
    if learnt.unsteady >= MOST_UNSTEADY:
        return "wiper_dirty"
    if learnt.against >= MOST_AGAINST:
        return "wanders"
    return "not_settled" if turns >= MOST_TURNS else ""


def _notes(trimmer: Trimmer, learnt: Learnt, stops: Sequence[Stop]) -> tuple[str, ...]:
    before = learn(trimmer, stops[:-1]) if len(stops) > 1 else learnt
    said = []
    if not _may_power(trimmer, stops[-1]):
        said.append("over_limit")
    if learnt.against > before.against:
        said.append("turns_over" if learnt.running == 0 else "wrong_way")
    return tuple(said)


def _back(trimmer: Trimmer, stops: Sequence[Stop], learnt: Learnt) -> float:
    """Return the one turn back to as found: by the slope where it is known, else by the turns made."""
    if learnt.slope == 0.0:
        return -sum(s.turned_deg for s in stops)
    return (trimmer.z(stops[0].value) - trimmer.z(stops[-1].value)) / learnt.slope


def _turn(trimmer: Trimmer, stops: Sequence[Stop], learnt: Learnt, aim: Aim) -> float:
    """Return the next turn in degrees, clockwise up; 0 where there is no room for one."""
    z, last = trimmer.z(stops[-1].value), abs(stops[-1].turned_deg)
    error = aim.z - z
    if learnt.slope == 0.0:
        return _blind_turn(learnt, error, _room(trimmer, z, 0.0), last)  # the sheet's direction, or the hand, may be wrong
    gain = NEAR_GAIN if abs(error) <= NEAR else GAIN
    size = max(min(gain * abs(error / learnt.slope), MOST_DEG, 2.0 * max(last, LEAST_DEG)), LEAST_DEG)
    steepest = max(learnt.steepest, abs(learnt.slope))  # the slope remembers moves that are longer ago than the last three
    most = _room(trimmer, z, error) / (MARGIN * steepest)
    if most < STOP_DEG:
        return 0.0
    return (1 if error * learnt.slope > 0 else -1) * min(size, most)


def _room(trimmer: Trimmer, z: float, way: float) -> float:
    """Return how far it may move that way, in half bands: up (way > 0), down, or whichever is less (0); infinite where a move cannot hurt."""
    if not trimmer.is_powered:
        return math.inf
    up = max(trimmer.z_limit - 2.0 * trimmer.u_z - z, 0.0)
    down = math.inf if trimmer.more_drive else max(z + 1.0 - 2.0 * trimmer.u_z, 0.0)
    return min(up, down) if way == 0 else up if way > 0 else down


def _blind_turn(learnt: Learnt, error: float, room: float, last: float) -> float:
    """Return a turn of a screw whose slope nobody has seen: small, doubled while nothing moves, the other way after 30 degrees of nothing."""
    most = room / STEEPEST
    if most < LEAST_FIRST_DEG:
        return 0.0
    way = (1 if error > 0 else -1) * (learnt.sign or 1)
    if learnt.still_deg[0 if way > 0 else 1] >= STILL_DEG:
        way = -way
    size = min(2.0 * last, STILL_MOST_DEG) if max(learnt.still_deg) > 0 else FIRST_DEG
    return way * min(size, most)

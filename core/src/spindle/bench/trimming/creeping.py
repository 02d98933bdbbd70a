"""The other school: up from less drive until it reads, and what room is then left.

A worn diode needs more current for the same light; the first drive that reads says how worn it is. A healthy and a worn pickup can stand at the same
value (trap T11): the reserve tells them apart, the value does not.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from spindle.bench.trimming.stops import Stop, Trimmer
from spindle.bench.trimming.turning import BACK, Aim, Next, Step, next_step

STEP: Final = 0.5
"""Half bands from stop to stop: a drive that reads is not stepped over."""
LOWEST: Final = -1.0
WITHIN: Final = 0.25
FIRST_TRIES: Final = 3
"""Discs in a row; then five more, of which one may miss."""
MORE_TRIES: Final = 5
MISSES: Final = 1
AMPLE: Final = 0.8
FAIR: Final = 0.5
LITTLE: Final = 0.2


@dataclass(frozen=True, slots=True)
class Creep:
    """What to do next.

    Attributes
    ----------
    what : look, tap, turn, try, reads, back, refused or stop
    tries : discs to offer at this stop
    going_back : True on the way back to as found: nothing read up to the limit
    """

    what: str
    turn_deg: float = 0.0
    tries: int = 0
    alarms: tuple[str, ...] = ()
    going_back: bool = False
    may_power: bool = True


def reads(stop: Stop) -> bool | None:
    """Tell whether a stop reads repeatably: three running, then at most one miss in five; None before that is known."""
    if stop.tries < FIRST_TRIES:
        return None
    missed = stop.tries - stop.passes
    if stop.tries < FIRST_TRIES + MORE_TRIES:
        return None if missed == 0 else False
    return missed <= MISSES


def creep_step(trimmer: Trimmer, stops: Sequence[Stop]) -> Creep:
    """Return the next step of the creep; the first stop is as found.

    Needs the direction of more drive. As found above the band and failing, it is refused: more drive would only burn what is left (trap T12).
    """
    if not stops or len(stops[-1].looks) < 3:
        return Creep("look")
    now = stops[-1]
    tested = [i for i, s in enumerate(stops) if reads(s) is not None]
    if tested and tested[-1] == len(stops) - 1 and reads(now):
        return Creep("reads")
    if now.tries > 0 and reads(now) is None:
        return Creep("try", tries=MORE_TRIES if now.tries >= FIRST_TRIES else FIRST_TRIES - now.tries)
    if not tested:
        return Creep("try", tries=FIRST_TRIES)
    if trimmer.z(stops[0].value) > 1.0:
        return Creep("refused")
    since = tested[-1]
    aim = Aim(max(LOWEST, trimmer.z(stops[since].value) + STEP), WITHIN)
    if aim.z > trimmer.z_limit - 2.0 * trimmer.u_z - WITHIN:
        return _back(trimmer, stops, since)
    step = next_step(trimmer, stops, aim, since=since)
    if step.what in (Next.TAP, Next.DONE):
        return Creep("try", tries=FIRST_TRIES) if now.tries == 0 else Creep("stop", alarms=("not_settled",))
    if step.what is Next.STOP and step.alarms == ("no_room",):
        return _back(trimmer, stops, since)
    return _as_creep(step)


def _back(trimmer: Trimmer, stops: Sequence[Stop], since: int) -> Creep:
    """Return the next step back to as found."""
    step = next_step(trimmer, stops, Aim(trimmer.z(stops[0].value), BACK), since=since)
    return Creep("back", going_back=True) if step.what is Next.DONE else _as_creep(step, going_back=True)


def _as_creep(step: Step, *, going_back: bool = False) -> Creep:
    return Creep(step.what.value, step.turn_deg, alarms=step.alarms, going_back=going_back, may_power=step.may_power)


def reserve(trimmer: Trimmer, z_first: float) -> float:
    """Return what is left between the first drive that reads and the strong limit, as a share of the way from the band's low end: 1 is all."""
    return min(max((trimmer.z_limit - z_first) / (trimmer.z_limit + 1.0), 0.0), 1.0)


def worn(left: float) -> str:
    """Return the reserve in a word: ample, fair, little or none."""
    return "ample" if left >= AMPLE else "fair" if left >= FAIR else "little" if left >= LITTLE else "none"


def months_left(z_now: float, z_limit: float, rate: float | None) -> float | None:
    """Return how many months a stopgap may last, ``rate`` in half bands a month from the sheet; None where the sheet gives none: no rate, no date."""
    return None if not rate or rate <= 0 else max(z_limit - z_now, 0.0) / rate

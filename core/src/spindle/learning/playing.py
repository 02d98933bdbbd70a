"""How long healthy units take until they play: by drive and class of disc, from units that were proven, beside what the sheet says."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import exp, expm1, log, log1p, sqrt
from statistics import median
from typing import Final

from spindle.diagnosis.evidence.playtime import SLOW_RATIO
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.drives.sheet import ReferenceTime
from spindle.learning.logs import of_logs
from spindle.learning.past import Past

LEAST_UNITS: Final = 5
"""From so many units on a time is known that no sheet says: fewer would call the sixth slow by chance."""
SPREAD: Final = 0.12
"""Spread of the log among healthy units where no sheet says it: an eighth more or less, disc and hand on the stopwatch included. Invented."""
SURE: Final = 6.0
"""Readings that a spread is worth which was believed before: a handful of units says little of how far they lie apart."""
MOST: Final = 10.0
"""What a sheet's own time is worth at most, in readings: whoever wrote "22" may have read it on other discs."""


@dataclass(frozen=True, slots=True)
class Played:
    """A time to play as the units say it: over n of them, with the 90 % interval of its middle, and what the sheet says."""

    n: int
    now: ReferenceTime
    low: float
    high: float
    was: ReferenceTime | None


def logs_of(reference: ReferenceTime) -> tuple[float, float]:
    """Return the mean and the standard deviation of the log of a time that is told by its own mean and spread, taken as log-normal."""
    variance = log1p((reference.sd_s / reference.mean_s) ** 2)
    return log(reference.mean_s) - variance / 2.0, sqrt(variance)


def learn_playing(pasts: Sequence[Past], models: Mapping[str, CompiledModel]) -> dict[tuple[str, str], Played]:
    """Return the time to play of each (variant, class of disc) that enough proven units were timed with."""
    found = {}
    for variant, model in models.items():
        own = [p.seconds for p in pasts if p.variant == variant and p.seconds]
        for disc in sorted(model.sheet.classes):
            played = _played([log(s[disc]) for s in own if disc in s], model.sheet.reference_times.get(disc))
            if played is not None:
                found[variant, disc] = played
    return found


def _played(logs: Sequence[float], was: ReferenceTime | None) -> Played | None:
    logs = [x for x in logs if x < median(logs) + log(SLOW_RATIO)]  # a retry at the start: that unit was proven, this start was not a usual one
    if not logs or (was is None and len(logs) < LEAST_UNITS):
        return None
    towards, spread = (0.0, SPREAD) if was is None else logs_of(was)
    worth = 0.0 if was is None else min(float(was.n), MOST)
    found = of_logs(logs, towards, strength=worth, spread=spread, sure=SURE)
    mean = exp(found.middle + found.variance / 2.0)
    now = ReferenceTime(round(mean, 2), round(mean * sqrt(expm1(found.variance)), 3), round(worth) + len(logs))
    return Played(len(logs), now, exp(found.middle - found.half), exp(found.middle + found.half), was)

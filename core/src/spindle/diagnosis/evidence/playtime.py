"""Time to play against the shop's own reference: a ratio and a z-score, not a feeling (C10)."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, log, sqrt
from typing import Final

from spindle.drives.sheet import ReferenceTime

SLOW_RATIO: Final = 1.8
"""What "slow" usually is: a start that takes nearly twice as long, a retry or two. Invented, of the size of a retry."""
SLOW_SPREAD: Final = 0.45
"""Spread of log(ratio) among slow starts: from a fifth longer to three times as long."""
LEAST_SPREAD: Final = 0.05
"""No reference is better than five percent: stopwatch and thumb."""


@dataclass(frozen=True, slots=True)
class PlayTime:
    """A time to play, judged."""

    ratio: float
    z: float
    p_usual: float
    """P(a usual start rather than a slow one | this time), both taken as likely before."""

    @property
    def says(self) -> str:
        """The judgement in words."""
        word = "usual" if self.p_usual >= 0.8 else "slow" if self.p_usual <= 0.2 else "could be either"
        return f"{self.ratio:.2f} times the reference, z {self.z:+.1f}: {word}"


def judge_time(seconds: float, reference: ReferenceTime) -> PlayTime:
    """Return how a time to play compares with healthy units of the model.

    ``z = (t - mean) / (sd sqrt(1 + 1/n))``, the prediction error of one more reading after n. Usual starts are taken as
    log-normal about the reference, slow ones about :data:`SLOW_RATIO` times it.

    Examples
    --------
    >>> judge_time(21.0, ReferenceTime(14.0, 1.0, 12)).says
    '1.50 times the reference, z +6.7: slow'
    """
    ratio = seconds / reference.mean_s
    z = (seconds - reference.mean_s) / (reference.sd_s * sqrt(1.0 + 1.0 / reference.n))
    spread = max(reference.sd_s / reference.mean_s * sqrt(1.0 + 1.0 / reference.n), LEAST_SPREAD)
    x = log(ratio)
    usual = exp(-0.5 * (min(x, 0.0) ** 2 * 0.25 + max(x, 0.0) ** 2) / spread**2) / spread  # quicker than usual is no slow start
    slow = exp(-0.5 * ((x - log(SLOW_RATIO)) / SLOW_SPREAD) ** 2) / SLOW_SPREAD
    return PlayTime(ratio, z, max(usual, 1e-300) / (usual + slow) if usual + slow > 0 else 0.0)

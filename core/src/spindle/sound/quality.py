"""Whether a recording can be trusted: loud enough, not clipped, quiet before it begins. A poor one says "can't tell", never "nothing heard"."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np

from spindle.sound.hearing.pictures import FRAME_S, Floats, Pictures
from spindle.sound.wav import Recording


class Grade(StrEnum):
    """How good a recording is."""

    GOOD = "good"
    FAIR = "fair"
    POOR = "poor"


POOR_DBFS, FAIR_DBFS = -58.0, -48.0
POOR_CLIPPED, FAIR_CLIPPED = 0.03, 0.002
POOR_SNR_DB, FAIR_SNR_DB = 5.0, 9.0
"""By the estimate below, which reads some 8 dB high: it takes the loudest tenth for the unit."""
FAIR_SECONDS: Final = 8.0
_LEAD_S, _UNSTEADY_SHARE, _UNSTEADY_DB = 1.2, 0.15, 6.0
_DROP_S, _DROPS_POOR = 0.02, 3
_ENOUGH_TO_JUDGE: Final = 0.2


@dataclass(frozen=True, slots=True)
class Quality:
    """How good a recording is, and why in words that tell what to do.

    Attributes
    ----------
    level_dbfs : 99.5th percentile
    clipped : share of samples at the end of the scale
    snr_db : the loudest tenth over the room
    lead_in_steady : False where something sounds before the drive does: a voice, music
    """

    grade: Grade
    level_dbfs: float
    clipped: float
    snr_db: float
    length_s: float
    lead_in_steady: bool
    reasons: tuple[str, ...]


def quality_of(recording: Recording, of: Pictures) -> Quality:
    """Return how good a recording is."""
    x = np.abs(recording.samples).max(axis=1)
    level = 20.0 * np.log10(float(np.quantile(x, 0.995)) + 1e-9)
    clipped = float(np.mean(x >= 0.9985))
    drops, snr = _drops(x, recording.rate), snr_of(of)
    lead = of.bands[: round(_LEAD_S / FRAME_S)].mean(axis=1)
    steady = bool(np.mean(lead > _UNSTEADY_DB) <= _UNSTEADY_SHARE)
    poor = [
        (level < POOR_DBFS, "Too quiet: bring the microphone to a hand's breadth, or raise its level."),
        (clipped > POOR_CLIPPED, "Clipped: the microphone is too near or too loud."),
        (drops > _DROPS_POOR, f"{drops} gaps in the sound: another program or a loose plug breaks it."),
        (snr < POOR_SNR_DB, "The drive does not stand out of the room: stop the fan, come nearer, and record again."),
    ]
    fair = [
        (level < FAIR_DBFS, "Rather quiet: come nearer with the microphone."),
        (clipped > FAIR_CLIPPED, "Clipped here and there: a little further away."),
        (snr < FAIR_SNR_DB, "The room is nearly as loud as the drive."),
        (recording.length_s < FAIR_SECONDS, "Short: fifteen seconds say more."),
        (not steady, "Something sounds before the drive does: leave two quiet seconds first."),
        ("cut_off" in recording.notes, "The file breaks off: what is there was read."),
    ]
    why = tuple(text for so, text in poor if so)
    grade = Grade.POOR if why else Grade.FAIR if any(so for so, _ in fair) else Grade.GOOD
    return Quality(grade, round(float(level), 1), clipped, round(snr, 1), recording.length_s, steady, (*why, *(text for so, text in fair if so and not why)))


def snr_of(of: Pictures) -> float:
    """Return how far the loudest tenth of the frames stands over the room, dB."""
    power = 10.0 ** (of.level_db[:, 1:] / 10.0)
    room = float(np.sum(10.0 ** (of.room_db[1:] / 10.0)))
    loud = np.sort(power.sum(axis=1))[-max(1, len(power) // 10) :]
    return float(10.0 * np.log10(max(float(loud.mean()) - room, 1e-12) / room))


def _drops(x: Floats, rate: int) -> int:
    """Return how often the sound is exactly still for 20 ms or more between its first and its last sample that is not."""
    moving = np.flatnonzero(np.diff(x))
    return int(np.sum(np.diff(moving) > _DROP_S * rate)) if np.mean(x > 0.0) > _ENOUGH_TO_JUDGE else 0

"""A recording listened to: from the bytes of a file to events and answers."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Final

from spindle.sound.answers import HeardAnswer, answers_of, ear_of, knocks_of
from spindle.sound.hearing.columns import columns
from spindle.sound.hearing.confidence import honest
from spindle.sound.hearing.decoding import events_of
from spindle.sound.hearing.layer import shipped_layer
from spindle.sound.hearing.pictures import FRAME_S, Floats, heard, pictures_of
from spindle.sound.kinds import Event, Kind
from spindle.sound.measures import measured
from spindle.sound.quality import Grade, Quality, quality_of
from spindle.sound.wav import Recording

LEAST_P: Final = 0.45
"""An event under this chance is not shown."""
LEAST_JERK_P: Final = 0.8
"""A knock or a word sounds like a start that is given up: rooms alone had one a minute under this."""
KNOCKS_S: Final = 6.0
"""Where nothing of the drive is heard, knocks are looked for until then."""


@dataclass(frozen=True, slots=True)
class Heard:
    """What was heard.

    Attributes
    ----------
    knocks : blows on the case before the drive began; they count if somebody says that they were made
    from_s, to_s : the part of the recording that was listened to, still ends left out
    """

    quality: Quality
    events: tuple[Event, ...]
    knocks: int
    from_s: float
    to_s: float

    def answers(self, family: str, *, knocked_first: bool = False) -> list[HeardAnswer]:
        """Return what it says to the questions of a family; knocks count if somebody says that they were made."""
        return answers_of(self.events, family, ear_of(self.quality, self.events, self.knocks if knocked_first else 0))

    @property
    def rates(self) -> Mapping[str, float]:
        """Counts and rates: ``spin_ups``, ``spin_ups_a_minute``, ``hold_s``, ``ticks_a_second``, ``load_runs``."""
        count = Counter(e.kind for e in self.events)
        ticks = [e.measures["rate_hz"] for e in self.events if e.kind is Kind.TICKING]
        return MappingProxyType(
            {
                "spin_ups": float(count[Kind.SPIN_UP]),
                "spin_ups_a_minute": round(60.0 * count[Kind.SPIN_UP] / self.quality.length_s, 1),
                "hold_s": round(sum(e.length_s for e in self.events if e.kind is Kind.HOLD), 1),
                "ticks_a_second": round(max(ticks, default=0.0), 1),
                "load_runs": float(count[Kind.LOAD]),
            }
        )


@dataclass(frozen=True, slots=True)
class Pictured(Heard):
    """The same with its picture: bands over the room, dB, a row of 20 for every 20 ms from ``from_s`` on."""

    picture: Floats


def listen(recording: Recording) -> Pictured:
    """Return what a recording holds. Of a poor one nothing is sure, and its silence says nothing."""
    x, from_s = heard(recording.samples, recording.rate)
    of = pictures_of(x)
    quality = quality_of(recording, of)
    scores = shipped_layer().scores(columns(of))
    found = [e for e in honest(measured(events_of(scores, of.bands), of)) if e.p >= (LEAST_JERK_P if e.kind is Kind.JERK else LEAST_P)]
    begins = next((e.start_s for e in found if e.kind is not Kind.CLUNK), KNOCKS_S)  # a knock may sound like a clamp
    knocks = knocks_of(of, begins) if quality.grade is not Grade.POOR else 0
    moved = (replace(e, start_s=round(e.start_s + from_s, 3), end_s=round(e.end_s + from_s, 3)) for e in found)
    return Pictured(quality, tuple(moved), knocks, from_s, from_s + len(of.bands) * FRAME_S, of.bands)

"""What is kept of a unit beside words: photos and sounds, each named by the hash of its content."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Annotated

from spindle.diagnosis.given.case import Change
from spindle.sound.answers import Ear, ear_of
from spindle.sound.kinds import Event
from spindle.sound.listening import Heard
from spindle.words.bounds import NumberBound, Short


@dataclass(frozen=True, slots=True)
class Dot:
    """A point on a photo, in percent from the left and the top, and what it is."""

    x: Annotated[float, NumberBound(0, 100)]
    y: Annotated[float, NumberBound(0, 100)]
    says: Short = ""


@dataclass(frozen=True, slots=True)
class Photo:
    """A photo of the tape: the hash of its picture, the step that it is of ("" for none), and when: before the step, now that it is back, or free."""

    line: int
    hash: str
    of: str
    moment: str
    about: str
    for_owner: bool
    at: datetime
    by: str
    dots: tuple[Dot, ...] = ()


@dataclass(frozen=True, slots=True)
class Sound:
    """A recording of the tape.

    Attributes
    ----------
    events : what was heard in it, put right by ear where somebody did
    heard : what was heard at first, and how good the recording is; its knocks count only where somebody said that they were made
    did : what was done while it ran, in words
    fitted : what sat in the unit then
    taken : question -> number of the line by which its answer was taken from this recording
    """

    line: int
    hash: str
    did: str
    events: tuple[Event, ...]
    heard: Heard
    at: datetime
    by: str
    cover: str = ""
    microphone: str = ""
    disc: str = ""
    fitted: tuple[Change, ...] = ()
    retold: int = 0
    """Number of the line by which it was put right last; 0 if nobody did."""
    taken: Mapping[str, int] = field(default_factory=dict)

    @property
    def length_s(self) -> float:
        """Seconds that it lasts."""
        return self.heard.quality.length_s

    @property
    def ear(self) -> Ear:
        """What it is good for, by what is heard in it now: who drops the one sure sound drops the proof that it hears."""
        return ear_of(self.heard.quality, self.events, self.heard.knocks)

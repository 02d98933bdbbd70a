"""The kinds of sound that a drive makes, and one of them as heard."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum
from types import MappingProxyType
from typing import Final


class Lane(StrEnum):
    """What makes the sound; a lane of the picture each."""

    LOADER = "loader"
    SPINDLE = "spindle"
    SLED = "sled"
    LENS = "lens"
    ROUGH = "rough"


class Kind(StrEnum):
    """What is heard."""

    LOAD = "load"
    SLIP = "slip"
    HUM = "hum"
    SPIN_UP = "spin_up"
    HOLD = "hold"
    SPIN_DOWN = "spin_down"
    JERK = "jerk"
    CHIRP = "chirp"
    TICKING = "ticking"
    FOCUS = "focus"
    CLUNK = "clunk"
    GRIND = "grind"
    SCRAPE = "scrape"


LANES: Final = MappingProxyType(
    {
        Lane.LOADER: (Kind.LOAD, Kind.SLIP, Kind.HUM),
        Lane.SPINDLE: (Kind.SPIN_UP, Kind.HOLD, Kind.SPIN_DOWN, Kind.JERK),
        Lane.SLED: (Kind.CHIRP, Kind.TICKING),
        Lane.LENS: (Kind.FOCUS, Kind.CLUNK),
        Lane.ROUGH: (Kind.GRIND, Kind.SCRAPE),
    }
)
LANE_OF: Final = MappingProxyType({kind: lane for lane, kinds in LANES.items() for kind in kinds})

LANE_WORDS: Final = MappingProxyType(
    {Lane.LOADER: "Load motor", Lane.SPINDLE: "Spindle", Lane.SLED: "Sled", Lane.LENS: "Lens and clamp", Lane.ROUGH: "Rough sounds"}
)
KIND_WORDS: Final = MappingProxyType(
    {
        Kind.LOAD: "load run",
        Kind.SLIP: "motor slips",
        Kind.HUM: "hum, no run",
        Kind.SPIN_UP: "spin-up",
        Kind.HOLD: "hold",
        Kind.SPIN_DOWN: "spin-down",
        Kind.JERK: "jerk, given up",
        Kind.CHIRP: "chirp of the sled",
        Kind.TICKING: "rapid ticking",
        Kind.FOCUS: "lens searches",
        Kind.CLUNK: "clunk",
        Kind.GRIND: "grinding",
        Kind.SCRAPE: "scraping",
    }
)


@dataclass(frozen=True, slots=True)
class Event:
    """One sound.

    Attributes
    ----------
    start_s, end_s : seconds from the start of the recording
    p : how sure, in [0, 1]; 1 for a label that was made with the sound
    measures : what was measured on it by name, unit in the name: ``tau_s``, ``rate_hz``, ``turns_hz``, ``wobble``, ``dips``, ``falls_oct``
    """

    kind: Kind
    start_s: float
    end_s: float
    p: float = 1.0
    measures: dict[str, float] = field(default_factory=dict)

    @property
    def length_s(self) -> float:
        """Seconds that it lasts."""
        return self.end_s - self.start_s

    @property
    def lane(self) -> Lane:
        """What makes it."""
        return LANE_OF[self.kind]

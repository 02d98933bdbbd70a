"""The state of a unit on the bench: how far it is open, and its mains."""

from __future__ import annotations

from enum import IntEnum, StrEnum
from types import MappingProxyType
from typing import Final


class Depth(IntEnum):
    """How far the unit is open."""

    CLOSED = 0
    COVER_OFF = 1
    DRIVE_OPEN = 2
    DECK_OUT = 3


DEPTH_NAMES: Final = MappingProxyType({Depth.CLOSED: "closed up", Depth.COVER_OFF: "cover off", Depth.DRIVE_OPEN: "drive open", Depth.DECK_OUT: "deck out"})


class Mains(StrEnum):
    """The mains state that a step needs."""

    ANY = "any"
    LIVE = "live"
    OUT = "out"


class Power(StrEnum):
    """The mains state that a unit is in."""

    OUT = "out"
    STANDBY = "standby"
    """The plug is in and the console is off: parts of it are live."""
    LIVE = "live"


POWER_NAMES: Final = MappingProxyType({Power.OUT: "Mains out", Power.STANDBY: "Standby: plug in, console off", Power.LIVE: "Mains live"})

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


class Reach(IntEnum):
    """How far a drive comes with a disc: each step needs those before it."""

    NOTHING = 0
    POWER = 1
    DISC = 2
    """The disc is in, by the drive's own doing."""
    TURN = 3
    """The disc turns, and goes on turning."""
    READ = 4


class Instrument(StrEnum):
    """What a shop may have, or not, beside hand tools, a plain meter and practised hands: instruments, and skills as procedures name them."""

    SCOPE = "scope"
    LIGHT_METER = "light_meter"
    BENCH_SUPPLY = "bench_supply"
    HOT_AIR = "hot_air"
    SOLDERING = "soldering"
    EXPERIENCED = "experienced"


INSTRUMENT_NAMES: Final = MappingProxyType(
    {
        Instrument.SCOPE: "Oscilloscope",
        Instrument.LIGHT_METER: "Light meter for laser diodes",
        Instrument.BENCH_SUPPLY: "Bench supply or current clamp",
        Instrument.HOT_AIR: "Hot air, and the skill for fine chips",
        Instrument.SOLDERING: "Somebody who solders on small boards",
        Instrument.EXPERIENCED: "An experienced hand, for what a practised one should leave",
    }
)

"""The sub-assemblies of a drive, from the whole down to the single part (C22, C25)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any, Final

from spindle.shipped import read_toml


@dataclass(frozen=True, slots=True)
class Level:
    """One kind of sub-assembly. ``functions`` are what a donor has to be seen doing for it to be known good."""

    id: str
    name: str
    rank: str
    functions: tuple[str, ...]
    repairs: tuple[str, ...]
    """Repairs that put one in."""
    within: str = ""
    """The sub-assembly that it is a piece of; "" for what is no piece of the drive."""
    families: tuple[str, ...] = ("tray", "slot", "lid")
    ages_unused: bool = False
    """A donor's is as old as the one that failed, working or not: it is not offered as a repair."""
    has_wires: bool = False
    """It may hang on soldered wires, with an order and a polarity."""


def _level(entry: Mapping[str, Any]) -> Level:
    lists = {k: tuple(entry[k]) for k in ("functions", "repairs", "families") if k in entry}
    return Level(**{**entry, **lists})


_FILE: Final = read_toml("spindle.drives", "levels")
LEVELS: Final[Mapping[str, Level]] = MappingProxyType({e["id"]: _level(e) for e in _FILE["levels"]})
RANKS: Final[Mapping[str, str]] = MappingProxyType(_FILE["ranks"])
"""The levels at which one repairs, smallest first: id -> name."""
LEVEL_OF_REPAIR: Final[Mapping[str, str]] = MappingProxyType({r: level.id for level in LEVELS.values() for r in level.repairs})
RANK_OF_REPAIR: Final[Mapping[str, str]] = MappingProxyType({r: v.rank for v in LEVELS.values() for r in v.repairs} | _FILE["without_part"])
"""At which level a repair works; one that puts nothing in and alters no joint is at none."""


def is_within(level: str, whole: str) -> bool:
    """Tell whether a level is the other one or a piece of it, however deep."""
    while level:
        if level == whole:
            return True
        level = LEVELS[level].within
    return False


def pieces_of(family: str) -> tuple[Level, ...]:
    """Return the sub-assemblies that a drive of the family comes apart into, the whole first."""
    return tuple(v for v in LEVELS.values() if family in v.families and is_within(v.id, "drive"))

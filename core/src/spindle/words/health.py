"""What is known of a part before it goes in."""

from __future__ import annotations

from enum import StrEnum
from types import MappingProxyType
from typing import Final

FUNCTIONS: Final = ("starts", "loads", "spins", "reads", "seeks", "powers")
"""What a part can be known to do: start when told, move disc or tray, spin, read, move the sled, feed the board."""


class Health(StrEnum):
    """What is known of a part before it goes in."""

    PROVEN = "proven"
    NEW = "new"
    UNKNOWN = "unknown"


HEALTH_NAMES: Final = MappingProxyType({Health.PROVEN: "proven", Health.NEW: "new", Health.UNKNOWN: "doubtful"})
P_BAD_ITEM: Final = MappingProxyType({Health.PROVEN: 0.01, Health.NEW: 0.04, Health.UNKNOWN: 0.35})
"""P(the part itself is bad): new does not mean good (trap T25), and a third of unknown donors were donors for that reason."""
P_BAD_KNOWN_FAILING: Final = 0.97
"""P(bad) in a function that the part was seen to fail in: the look itself can be wrong."""

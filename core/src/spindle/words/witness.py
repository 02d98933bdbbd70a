"""Who says so, and how far that is to be trusted."""

from __future__ import annotations

from enum import StrEnum
from types import MappingProxyType
from typing import Final


class Witness(StrEnum):
    """Who says so. What the bench logged weighs most, the owner's report least (trap T19)."""

    BENCH = "bench"
    REMEMBERED = "remembered"
    OWNER = "owner"


UNRELIABILITY: Final = MappingProxyType({Witness.BENCH: 0.03, Witness.REMEMBERED: 0.10, Witness.OWNER: 0.20})
"""P(the answer is a mere guess), by witness: one slip in thirty at the bench; invented, of the size that people admit to."""

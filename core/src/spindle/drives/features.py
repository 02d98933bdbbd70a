"""What the eye can tell drive variants apart by: features with plain questions, from the outside inwards."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import IntEnum
from types import MappingProxyType
from typing import Final

from spindle.shipped import read_toml


class Reach(IntEnum):
    """Where one has to look. The value is about the minutes that it takes to get there."""

    OUTSIDE = 1
    COVER_OFF = 10
    DRIVE_OPEN = 16


@dataclass(frozen=True, slots=True)
class Feature:
    """One thing to look at, with the values that it can have (id -> label)."""

    id: str
    ask: str
    how: str
    values: Mapping[str, str]
    reach: Reach
    p_slip: float = 0.04
    """P(the eye is wrong): one look in twenty-five, more where things are small or half hidden. Invented."""


FEATURES: Final = MappingProxyType({f["id"]: Feature(**{**f, "reach": Reach[f["reach"].upper()]}) for f in read_toml("spindle.drives", "features")["features"]})

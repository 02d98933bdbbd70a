"""What a fuse is: its rated current and its speed."""

from __future__ import annotations

import re
from dataclasses import dataclass

from spindle.errors import SheetError

_RATING = re.compile(r"^\s*(?P<amp>\d+(?:\.\d+)?)\s*A\s+(?P<speed>fast|slow)\s*$", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Fuse:
    """A one-time fuse: rated current in ampere, and speed ("fast" or "slow")."""

    rated_a: float
    speed: str


def parse_fuse(text: str, *, place: str = "/fuse_rating") -> Fuse:
    """Return the fuse that ``text`` describes, as "1.5 A fast".

    Raises
    ------
    SheetError
        If current and speed cannot be read from it.

    Examples
    --------
    >>> parse_fuse("1.5 A fast")
    Fuse(rated_a=1.5, speed='fast')
    """
    found = _RATING.match(text)
    if not found or float(found["amp"]) <= 0:
        raise SheetError(place, f"{text!r} is no fuse rating; write current and speed, as '1.5 A fast'")
    return Fuse(float(found["amp"]), found["speed"].lower())

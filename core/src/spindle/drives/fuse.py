"""What a fuse is: its rated current and its speed."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Final

from spindle.errors import SheetError

_SPEEDS: Final = {
    "very fast": "very fast",
    "ff": "very fast",
    "fast": "fast",
    "f": "fast",
    "medium": "medium",
    "m": "medium",
    "slow": "slow",
    "t": "slow",
    "very slow": "very slow",
    "tt": "very slow",
}
"""Words, and the letters that IEC 60127 prints on a fuse."""
_AMPERE: Final = r"(?P<amp>\d+(?:[.,]\d+)?)\s*(?P<unit>mA|A)"
_RATING: Final = (
    re.compile(rf"^\s*{_AMPERE}[\s,]+(?P<speed>[a-z]+(?: [a-z]+)?)\s*$", re.IGNORECASE),
    re.compile(r"^\s*(?P<speed>FF|F|M|TT|T)\s*(?P<amp>\d+(?:[.,]\d+)?)\s*(?P<unit>mA|A)?(?:\s*[LHE])?\s*$", re.IGNORECASE),
)
"""As "1.5 A fast" or "500 mA slow" is said, and as "T0.5A" or "F500mAL" is printed."""


@dataclass(frozen=True, slots=True)
class Fuse:
    """A one-time fuse: rated current in ampere, and speed: very fast, fast, medium, slow or very slow."""

    rated_a: float
    speed: str


def parse_fuse(text: str, *, place: str = "/fuse_rating") -> Fuse:
    """Return the fuse that ``text`` describes: "1.5 A fast", "500 mA slow", or as it is printed, "T0.5A".

    Raises
    ------
    SheetError
        If current and speed cannot be read from it.

    Examples
    --------
    >>> parse_fuse("1.5 A fast")
    Fuse(rated_a=1.5, speed='fast')
    >>> parse_fuse("T500mA")
    Fuse(rated_a=0.5, speed='slow')
    """
    found = next((m for pattern in _RATING if (m := pattern.match(text))), None)
    speed = _SPEEDS.get(found["speed"].lower()) if found else None
    ampere = float(found["amp"].replace(",", ".")) * (1e-3 if (found["unit"] or "A").lower() == "ma" else 1.0) if found else 0.0
    if speed is None or ampere <= 0:
        raise SheetError(place, f"{text!r} is no fuse rating; write current and speed, as '1.5 A fast', or what is printed on it, as 'T0.5A'")
    return Fuse(round(ampere, 6), speed)

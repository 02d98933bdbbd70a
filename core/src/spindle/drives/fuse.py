"""What a fuse is: its rated current, its speed, and the volts that it can still part."""

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
_VOLTS: Final = r"(?:,?\s*(?<![\d.,])(?P<volts>\d+)\s*V)?\s*"
"""Never a digit of the current: "T1250V" says neither."""
_RATING: Final = (
    re.compile(rf"^\s*{_AMPERE}[\s,]+(?P<speed>(?:very )?[a-z]+){_VOLTS}$", re.IGNORECASE),
    re.compile(rf"^\s*(?P<speed>FF|F|M|TT|T)\s*(?P<amp>\d+(?:[.,]\d+)?)\s*(?P<unit>mA|A)?(?:\s*[LHE])?{_VOLTS}$", re.IGNORECASE),
)
"""As "1.5 A fast 250 V" or "500 mA slow" is said, and as "T0.5A", "F500mAL" or "F1.5AL250V" is printed."""


@dataclass(frozen=True, slots=True)
class Fuse:
    """A one-time fuse: rated current in ampere, speed (very fast, fast, medium, slow or very slow), and rated volts, 0 where they are not said."""

    rated_a: float
    speed: str
    rated_v: int = 0


def parse_fuse(text: str, *, place: str = "/fuse_rating") -> Fuse:
    """Return the fuse that ``text`` describes: "1.5 A fast", "500 mA slow", or as it is printed, "T0.5A".

    Raises
    ------
    SheetError
        If current and speed cannot be read from it.

    Examples
    --------
    >>> parse_fuse("1.5 A fast")
    Fuse(rated_a=1.5, speed='fast', rated_v=0)
    >>> parse_fuse("T500mAL250V")
    Fuse(rated_a=0.5, speed='slow', rated_v=250)
    """
    found = next((m for pattern in _RATING if (m := pattern.match(text))), None)
    speed = _SPEEDS.get(found["speed"].lower()) if found else None
    ampere = float(found["amp"].replace(",", ".")) * (1e-3 if (found["unit"] or "A").lower() == "ma" else 1.0) if found else 0.0
    if speed is None or ampere <= 0:
        raise SheetError(place, f"{text!r} is no fuse rating; write current and speed, as '1.5 A fast', or what is printed on it, as 'T0.5A'")
    return Fuse(round(ampere, 6), speed, int(found["volts"] or 0) if found else 0)

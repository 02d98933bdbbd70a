"""Things inside that do not belong there: what was expected against what was found, where else to look, and the chance that one more is there.

For each thing that is sought, by Bayes: ``left = p * sum_i share_i * miss_i / (p * sum_i share_i * miss_i + 1 - p)``, where a place that was not
looked at misses everything. Together: ``1 - prod(1 - left)``.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from math import prod
from types import MappingProxyType
from typing import Final

from spindle.errors import InvalidError

SAFE: Final = 0.02
"""Under this chance of one more the unit may have power: a loose coin found at the first spin is a lost pickup, so once in fifty is the most."""
EXPECTED: Final = 0.95
"""The owner who counts two has mostly lost two."""
ONE_MORE: Final = 0.15
"""Where something went in, something else went in as well in about one unit of seven: children post more than one thing (trap T24)."""


@dataclass(frozen=True, slots=True)
class Spot:
    """A place where things come to rest: its share of those that stay inside, magnetic ones and others, and how often one look misses one there."""

    name: str
    magnetic: float
    other: float
    miss: float


SPOTS: Final[Mapping[str, Spot]] = MappingProxyType(
    {
        "clamp": Spot("Clamp magnet", 0.30, 0.05, 0.05),
        "pickup": Spot("Pickup magnets and lens", 0.25, 0.05, 0.05),
        "gears": Spot("Gears, slider and arms", 0.10, 0.20, 0.15),
        "deck": Spot("Under the deck", 0.15, 0.30, 0.10),
        "mouth": Spot("Behind the slit or under the tray", 0.10, 0.20, 0.10),
        "floor": Spot("Console floor, fan and vents", 0.10, 0.20, 0.15),
    }
)
"""Iron goes to the magnets, all else falls: shares of our own benches, as plausible beginnings. A small part behind a gear is missed most."""


@dataclass(frozen=True, slots=True)
class Search:
    """What a search comes to: the chance that one more is inside, and the places that would lower it, best first."""

    chance: float
    by_thing: Mapping[str, float]
    look_next: tuple[str, ...]

    @property
    def is_safe(self) -> bool:
        """True if the unit may have power."""
        return self.chance < SAFE


def judge_search(expected: Mapping[str, int], found: Mapping[str, int], magnetic: Collection[str], looked: Mapping[str, int]) -> Search:
    """Return the chance that something is inside still.

    Parameters
    ----------
    expected, found : how many of each thing
    magnetic : the things that a magnet holds
    looked : how often each place of :data:`SPOTS` was looked at with care

    Raises
    ------
    InvalidError
        If a place is none, or a count is below nothing.
    """
    for place, times in looked.items():
        if place not in SPOTS or times < 0:
            raise InvalidError("looked", f"There is no place {place!r}; there are {', '.join(SPOTS)}.")
    if any(n < 0 for n in [*expected.values(), *found.values()]):
        raise InvalidError("expected", "Fewer than nothing cannot be inside.")
    sought: dict[str, float] = {}
    for thing, n in expected.items():
        for k in range(max(n - found.get(thing, 0), 0)):
            sought[f"{thing} {k + 1 + found.get(thing, 0)} of {n}"] = _left(EXPECTED, thing in magnetic, looked)
    if found:
        sought["one that nobody counted"] = _left(ONE_MORE, any(t in magnetic for t in found), looked)
    chance = 1.0 - prod(1.0 - p for p in sought.values())
    is_iron = any(t in magnetic for t in (*expected, *found))
    gain = {place: _share(spot, is_iron=is_iron) * spot.miss ** looked.get(place, 0) * (1.0 - spot.miss) for place, spot in SPOTS.items()}
    return Search(chance, sought, tuple(sorted(gain, key=lambda p: -gain[p])))


def _share(spot: Spot, *, is_iron: bool) -> float:
    return spot.magnetic if is_iron else spot.other


def _left(p: float, is_iron: bool, looked: Mapping[str, int]) -> float:  # private, and told by name below
    missed = sum(_share(spot, is_iron=is_iron) * spot.miss ** looked.get(place, 0) for place, spot in SPOTS.items())
    return p * missed / (p * missed + 1.0 - p)

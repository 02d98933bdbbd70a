"""Screws: whether one may go into a place, and which places probably got the wrong one if some are left over.

Lengths and threads in mm. From the counts of what was used and what is left, every filling of the places is weighed at once: the number of
fillings is a coefficient of a product of polynomials, one for each group of equal places.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import comb, exp
from typing import Final

from spindle.bench.verdict import Reason, Verdict, refused, worst
from spindle.errors import InvalidError

LONGER_MM: Final = 0.3
"""What a screw may be longer than its place's own: twice the tolerance that small screws are cut to (about 0.15 mm)."""
SHORTER_MM: Final = 0.3
SAME_THREAD_MM: Final = 0.15
"""Threads that differ by less are the same to a thumb rule; 2.0 and 2.3 are not."""
SLIP: Final = 0.08
"""How readily a hand puts a screw of another group into a place, against its own: seen as lookalikes of one length."""
FADE_MM: Final = 2.5
"""By how many millimetres of difference that becomes 1/e of it: a hand sees 3 mm."""
OTHER_HEAD: Final = 0.3
OTHER_COLOUR: Final = 0.5
LIKELY: Final = 0.01
"""Expected wrong places under which a group is not worth opening."""


@dataclass(frozen=True, slots=True)
class Screw:
    """A screw, or the one that a place has of its own. ``room_mm`` is what the place takes before the tip touches anything; None if nobody measured."""

    length_mm: float
    thread_mm: float
    head: str = ""
    colour: str = ""
    room_mm: float | None = None

    @property
    def text(self) -> str:
        """In words: head, thread by length, colour."""
        return ", ".join(x for x in (self.head, f"{self.thread_mm:g} × {self.length_mm:g} mm", self.colour) if x)

    @property
    def is_countersunk(self) -> bool:
        """True if the head is cut into a cone: on a flat seat it splits what it is driven into."""
        return "countersunk" in self.head.lower()


def may_go_in(screw: Screw, place: Screw, reaches: str = "") -> tuple[Verdict, tuple[Reason, ...]]:
    """Return whether a screw may go into a place, with every reason.

    ``REFUSED`` where it would reach, strip or split something. What holds less than the place's own is allowed, and said.

    Raises
    ------
    InvalidError
        If a length or thread is no size of a screw.
    """
    for name, value, most in (("length_mm", screw.length_mm, 60.0), ("thread_mm", screw.thread_mm, 8.0)):
        if not 0 < value <= most:
            raise InvalidError(name, f"A screw here is more than 0 and at most {most:g} mm, got {value:g}.")
    reasons = (*_stops(screw, place, reaches), *_remarks(screw, place))
    return worst(reasons), reasons


def _stops(screw: Screw, place: Screw, reaches: str) -> list[Reason]:
    found = []
    if abs(screw.thread_mm - place.thread_mm) > SAME_THREAD_MM:
        found.append(refused(f"A thread of {screw.thread_mm:g} mm in a place of {place.thread_mm:g} mm: it strips the hole or never bites."))
    over = screw.length_mm - place.length_mm
    if over > LONGER_MM and (place.room_mm is None or screw.length_mm > place.room_mm):
        room = "nobody measured how much room is under it" if place.room_mm is None else f"there is room for {place.room_mm:g} mm"
        found.append(refused(f"It is {over:.1f} mm longer than the place’s own, and {room}: it can reach {reaches or 'what lies under it'}."))
    if screw.is_countersunk and not place.is_countersunk:
        found.append(refused("A countersunk head on a flat seat splits what it holds."))
    return found


def _remarks(screw: Screw, place: Screw) -> list[Reason]:
    found = []
    if place.length_mm - screw.length_mm > SHORTER_MM:
        found.append(Reason(Verdict.ALLOWED, f"It is {place.length_mm - screw.length_mm:.1f} mm shorter than the place’s own: it holds by fewer turns."))
    if place.is_countersunk and not screw.is_countersunk:
        found.append(Reason(Verdict.ALLOWED, "A flat head stands proud of a countersunk seat: see that nothing rubs on it."))
    return found


@dataclass(frozen=True, slots=True)
class Slip:
    """A group of places, and how many of them are expected to hold a screw of another group, or none (``screw`` is None)."""

    place: int
    screw: int | None
    expected: float
    is_danger: bool = False
    """It is one that would have been stopped: opened first."""


def how_readily(screw: Screw, place: Screw) -> float:
    """Return how readily a screw goes into a place by mistake, 1 for its own: what strips is noticed."""
    if abs(screw.thread_mm - place.thread_mm) > SAME_THREAD_MM:
        return 0.0
    same_head, same_colour = screw.head == place.head, screw.colour == place.colour
    if same_head and same_colour and screw.length_mm == place.length_mm:
        return 1.0
    return SLIP * exp(-abs(screw.length_mm - place.length_mm) / FADE_MM) * (1.0 if same_head else OTHER_HEAD) * (1.0 if same_colour else OTHER_COLOUR)


def wrong_places(groups: Sequence[tuple[Screw, int]], left: Sequence[int], missing: Sequence[int] | None = None) -> tuple[Slip, ...]:
    """Return which places probably hold another group's screw, by what is left over and what was missing from the start.

    ``Z`` is the coefficient of ``x^used`` in ``prod_i (sum_j q_ij x_j)^n_i``, and ``wrong_ij = n_i q_ij Z(one place and one screw less) / Z``.

    Parameters
    ----------
    groups : each place's own screw and how many such places there are
    left : how many screws of each group lie there still
    missing : how many of each were not there to begin with

    Returns
    -------
    tuple of Slip
        What would have been stopped first, then by how many are expected; what is below :data:`LIKELY` is left out.

    Raises
    ------
    InvalidError
        If the counts do not come out: more screws than places, or no filling uses just these.
    """
    counts = [n for _, n in groups]
    used = tuple(n - gone - lie for n, gone, lie in zip(counts, missing or [0] * len(counts), left, strict=True))
    if any(u < 0 for u in used) or any(x < 0 for x in [*left, *(missing or ())]):
        raise InvalidError("left", "More are left over than there are of one kind: count again.")
    q = [[how_readily(screw, place) for screw, _ in groups] for place, _ in groups]
    empty = sum(counts) - sum(used)
    z = _fillings(counts, q, used, empty)
    if z <= 0:
        raise InvalidError("left", "No filling of the places uses just these screws: count again.")
    found = []
    for i, n in enumerate(counts):
        fewer = [m - (k == i) for k, m in enumerate(counts)]
        if empty:
            found.append(Slip(i, None, n * _fillings(fewer, q, used, empty - 1) / z))
        for j, (screw, _) in enumerate(groups):
            if q[i][j] in (0.0, 1.0) or not used[j]:
                continue
            less = tuple(u - (k == j) for k, u in enumerate(used))
            is_danger = may_go_in(screw, groups[i][0])[0] is Verdict.REFUSED
            found.append(Slip(i, j, n * q[i][j] * _fillings(fewer, q, less, empty) / z, is_danger))
    return tuple(sorted((s for s in found if s.expected > LIKELY), key=lambda s: (not s.is_danger, -s.expected)))


def _fillings(places: Sequence[int], q: Sequence[Sequence[float]], used: tuple[int, ...], empty: int) -> float:
    """Return the weight of all fillings that use so many of each screw and leave so many places empty."""
    ways: Mapping[tuple[int, ...], float] = {(0,) * (len(used) + 1): 1.0}
    most = (*used, empty)
    for n, row in zip(places, q, strict=True):
        ways = _times(ways, _power(n, (*row, 1.0), most), most)
    return ways.get(most, 0.0)


def _power(n: int, row: Sequence[float], most: Sequence[int]) -> Mapping[tuple[int, ...], float]:
    """Return ``(sum_j q_j x_j)^n`` as exponents -> coefficient, as far as they stay in bounds."""
    found: dict[tuple[int, ...], float] = {(): 1.0}
    left: dict[tuple[int, ...], int] = {(): n}
    for k, (value, bound) in enumerate(zip(row, most, strict=True)):
        next_found, next_left = {}, {}
        for exponents, weight in found.items():
            rest = left[exponents]
            takes = range(rest, rest + 1) if k == len(row) - 1 else range(min(rest, bound) + 1)
            for m in takes:
                if m > bound or (m and value == 0):
                    continue
                key = (*exponents, m)
                next_found[key] = weight * comb(rest, m) * value**m
                next_left[key] = rest - m
        found, left = next_found, next_left
    return found


def _times(a: Mapping[tuple[int, ...], float], b: Mapping[tuple[int, ...], float], most: Sequence[int]) -> dict[tuple[int, ...], float]:
    found: dict[tuple[int, ...], float] = {}
    for x, wx in a.items():
        for y, wy in b.items():
            key = tuple(m + n for m, n in zip(x, y, strict=True))
            if all(k <= bound for k, bound in zip(key, most, strict=True)):
                found[key] = found.get(key, 0.0) + wx * wy
    return found

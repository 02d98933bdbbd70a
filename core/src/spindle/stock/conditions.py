"""What a donor is good for: its pieces, and the health that each inherits from what the donor was seen to do (C51)."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.plan import part_terms
from spindle.drives.levels import LEVELS, is_within
from spindle.words.health import Health


class Works(StrEnum):
    """What is known of a function."""

    WORKS = "works"
    FAILS = "fails"
    SUSPECT = "suspect"
    """The donor fails at it, and this is one of several pieces that it can come from."""
    UNTESTED = "untested"


@dataclass(frozen=True, slots=True)
class Condition:
    """The health of one piece, function by function."""

    level: str
    functions: Mapping[str, Works]

    @property
    def health(self) -> Health:
        """Proven if all that it is for was seen to work; a donor's piece is never new."""
        return Health.PROVEN if self.functions and all(w is Works.WORKS for w in self.functions.values()) else Health.UNKNOWN

    @property
    def works(self) -> frozenset[str]:
        """Functions that were seen to work."""
        return frozenset(f for f, w in self.functions.items() if w is Works.WORKS)

    @property
    def fails(self) -> frozenset[str]:
        """Functions that were seen to fail."""
        return frozenset(f for f, w in self.functions.items() if w is Works.FAILS)


def condition(level: str, seen: Mapping[str, bool], *, others: Iterable[str] = ()) -> Condition:
    """Return the health of a piece by what was seen: function -> whether it worked. What nobody saw is untested.

    ``others`` are the pieces that were fitted with it when it was seen, each not made of others: where one of them has the same
    function, a failure is only a suspicion of each.
    """
    shared = {f for o in others if not is_within(o, level) for f in LEVELS[o].functions}
    bad = {f: Works.SUSPECT if f in shared else Works.FAILS for f in LEVELS[level].functions}
    states = {f: Works.UNTESTED if f not in seen else Works.WORKS if seen[f] else bad[f] for f in LEVELS[level].functions}
    return Condition(level, states)


LEAST_WORTH_EUR: Final = 1.0
"""What a piece is worth of which no price is known: a spring, a hub, a bracket. Not nothing, and little beside a motor."""


def worth_of(model: CompiledModel) -> dict[str, float]:
    """Return what a new piece of each level costs for this drive, in the shop's money: the dearest of the repairs that put one in."""
    prices = {r.id: part_terms(r, model)[0] for r in model.repairs if r.uses_item}
    return {v.id: max((prices[r] for r in v.repairs if r in prices), default=LEAST_WORTH_EUR) for v in LEVELS.values()}


def share(level: str, pieces: Iterable[str], worth: Mapping[str, float]) -> float:
    """Return what share of a donor's price a piece carries: its part of what the pieces would cost new; the whole carries all.

    Parameters
    ----------
    pieces : the levels that the donor comes apart into; those made of others (the whole, the deck) carry what is in them
    worth : level -> price of a new one, in the shop's money; a level without one counts as :data:`LEAST_WORTH_EUR`

    Examples
    --------
    >>> share("spindle_motor", ["drive", "spindle_motor", "clamp"], {"spindle_motor": 9.0, "clamp": 3.0})
    0.75
    """
    single = {p: max(worth.get(p, LEAST_WORTH_EUR), LEAST_WORTH_EUR) for p in pieces if p not in ("drive", "deck")}
    return sum(w for p, w in single.items() if is_within(p, level)) / (sum(single.values()) or 1.0)


def pieces_left(pieces: Iterable[str], gone: Iterable[str]) -> tuple[str, ...]:
    """Return what a donor still has: a piece is gone with itself, with what it sits in, and the whole with any of its pieces."""
    lost = tuple(gone)
    return tuple(p for p in pieces if not any(is_within(p, g) or is_within(g, p) for g in lost))

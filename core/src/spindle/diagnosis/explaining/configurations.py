"""What sits where, as a picture of places, and what to ask while another's item is in (C64)."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.evidence.configured import Configuration, physical
from spindle.diagnosis.given.case import Change
from spindle.drives.levels import LEVEL_OF_REPAIR, LEVELS, is_within
from spindle.faults.model import Question

_PLACES: Final = (
    ("Supply", ("supply",)),
    ("Cables", ("flex_board", "flex_pickup")),
    ("Drive board", ("board", "driver", "capacitors", "fuse", "chip")),
    ("Switches", ("switch_board", "switch", "lid")),
    ("Loader", ("load_motor", "gears", "rollers", "belt", "tray", "clamp")),
    ("Deck", ("deck", "rails", "follower", "switch_sled", "hub")),
    ("Motors", ("spindle_motor", "feed_motor")),
    ("Pickup", ("pickup",)),
)
"""The places of a unit, from the mains to the light."""
_MOVED_ACROSS: Final = frozenset({"board", "driver", "capacitors", "fuse", "chip"})
"""What stays the owner's when another drive goes in: the board moves across."""


@dataclass(frozen=True, slots=True)
class PlaceNow:
    """One place, and the item that sits in it; "" for the unit's own."""

    name: str
    item: str


def places(changes: Sequence[Change], family: str) -> tuple[PlaceNow, ...]:
    """Return what sits in each place of a drive of the family."""
    return tuple(
        PlaceNow(name, next((physical(c.item) for c in changes if _covers(c, here)), ""))
        for name, levels in _PLACES
        if (here := [v for v in levels if _has(v, family)])
    )


def _has(level: str, family: str) -> bool:
    return family in LEVELS[level].families


def _covers(change: Change, levels: Sequence[str]) -> bool:
    level = LEVEL_OF_REPAIR[change.repair]
    return any(is_within(v, level) and not (level == "drive" and v in _MOVED_ACROSS) for v in levels)


def to_ask_again(belief: Belief, changes: Sequence[Change]) -> tuple[Question, ...]:
    """Return what failed with the unit's own parts in it and was not yet looked at with these, the earliest stage first."""
    evidence, now = belief.evidence, Configuration(tuple(changes)).key
    seen = {q for o in evidence.occasions if o.what.key == now for q in o.seen}
    failed = [o.question for o in evidence.answers.values() if o.is_failure and o.question.is_behaviour and o.question.id not in seen]
    return tuple(sorted(failed, key=lambda q: (q.stage, q.order)))

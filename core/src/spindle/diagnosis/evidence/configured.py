"""What was fitted when: answers seen with another's items in the unit, on another console, or on a donor by itself (C64)."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Final

from spindle.diagnosis.evidence.observation import Observation
from spindle.diagnosis.evidence.reach import HowFar, how_far, is_out_of_reach
from spindle.diagnosis.given.case import Change, Setting
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.drives.levels import LEVEL_OF_REPAIR, LEVELS
from spindle.faults.model import LEAK, Question, QuestionKind
from spindle.words.bench import Reach
from spindle.words.health import Health

MAX_BITS: Final = 14
"""Functions of items that are told apart exactly: two whole drives and a part. More never occurred; what goes beyond is left out, and says so."""
WHOLE_DRIVE: Final = "replace_drive"
ANOTHER_CONSOLE: Final = "another console"
_OUTSIDE_THE_DRIVE: Final = ("replace_supply", "replace_lid")
"""What stays behind when the drive goes to another console, by the repairs that would replace it."""


@dataclass(frozen=True)
class Configuration:
    """What sits where. ``changes`` name each item by the repair that fits it; ``on``: nothing of this unit is in it."""

    changes: tuple[Change, ...]
    on: str = ""

    @property
    def items(self) -> tuple[tuple[str, Change], ...]:
        """What is in it that is not the unit's own, by whose health it shares."""
        return tuple((physical(c.item), c) for c in self.changes)

    @property
    def key(self) -> tuple[object, ...]:
        """Two with the same key hold the same items in the same places."""
        return (self.on, *sorted((c.repair, c.item) for c in self.changes))


@dataclass
class Occasion:
    """What was seen in one configuration, the newest of each question, and how far the drive came in it."""

    what: Configuration
    seen: dict[str, Observation] = field(default_factory=dict)
    far: HowFar = field(default_factory=HowFar)

    def is_beyond(self, seen: Observation) -> bool:
        """Tell whether something was seen of a stage that the drive had not reached on this occasion."""
        return seen is not self.far.halted_by and is_out_of_reach(seen.question, self.far.halted)

    def drop(self, is_out: Callable[[Observation], bool]) -> list[Observation]:
        """Take observations out, and return them."""
        out = [o for o in self.seen.values() if is_out(o)]
        for o in out:
            del self.seen[o.question.id]
        return out


def configuration(setting: Setting, model: CompiledModel) -> Configuration | None:
    """Return what sat where when something was seen; None if it was this unit with its own parts."""
    if not setting.is_elsewhere:
        return None
    if setting.on:
        return Configuration((Change(WHOLE_DRIVE, setting.on, Health.UNKNOWN),), setting.on)
    outside = (Change(r, ANOTHER_CONSOLE, Health.PROVEN) for r in _OUTSIDE_THE_DRIVE if r in model.repair_index and setting.console == "other")
    return Configuration((*setting.fitted, *outside))


def needs_pairing(kind: QuestionKind, stage: Reach) -> bool:
    """Tell whether a paired console that meets another board shows nothing of this: whether it spins is seen, whether it reads is not."""
    return kind is QuestionKind.DISC_CLASS or stage is Reach.READ


@lru_cache(maxsize=256)
def functions_of(repair: str, model: CompiledModel) -> tuple[str, ...]:
    """Return in which functions the item that a repair fits can be bad: what such a sub-assembly does, as far as a fault of it is known."""
    own = model.repairs[model.repair_index[repair]]
    of = {p.id: p.function for p in model.parts}
    faulty = {of[f.part] for f in model.faults if f.id in own.cures and f.id != LEAK and not f.opened_by}
    return tuple(sorted(faulty & set(LEVELS[LEVEL_OF_REPAIR[repair]].functions) if repair in LEVEL_OF_REPAIR else faulty))


def physical(item: str) -> str:
    """Return whose health an item shares: a piece that is named by its donor's tag first (``D-0001 deck``) is a piece of that donor."""
    return item.split(" ", 1)[0]


def bits_of(changes: Iterable[tuple[str, Change]], model: CompiledModel) -> tuple[tuple[str, str], ...]:
    """Return the hidden bits of some items, each with how it was fitted, sorted: (item, function)."""
    return tuple(sorted({(key, g) for key, c in changes if key for g in functions_of(c.repair, model)}))


class Elsewhere:
    """The occasions of a tape, gone through line by line. What they say of the unit's own parts never replaces what it did with them in."""

    def __init__(self, model: CompiledModel) -> None:
        self._model = model
        self._of: dict[tuple[object, ...], Occasion] = {}

    def add(self, now: Observation, where: Configuration) -> Observation | None:
        """Note what was seen; returns what it replaces, if anything."""
        occasion = self._of.setdefault(where.key, Occasion(where))
        former = occasion.seen.pop(now.question.id, None)
        occasion.seen[now.question.id] = now
        return former

    def age(self, is_aged: Callable[[Question], bool]) -> list[Observation]:
        """Drop and return what a change of this unit made old. What a donor showed by itself is as true after it as before."""
        return [o for occasion in self._of.values() if not occasion.what.on for o in occasion.drop(lambda o: is_aged(o.question))]

    def counted(self) -> tuple[list[Occasion], list[Observation], list[tuple[Observation, Reach | None]]]:
        """Return the occasions that count; what is left out as too many items to tell apart; and what was not reached, with where the drive stopped."""
        kept: list[Occasion] = []
        too_many, beyond = list[Observation](), list[tuple[Observation, Reach | None]]()
        for occasion in (o for o in self._of.values() if o.seen):
            if len(bits_of((i for o in (*kept, occasion) for i in o.what.items), self._model)) > MAX_BITS:
                too_many += occasion.seen.values()
                continue
            occasion.far = how_far(occasion.seen.values())
            beyond += [(o, occasion.far.halted) for o in occasion.drop(occasion.is_beyond)]
            kept.append(occasion)
        return kept, too_many, beyond

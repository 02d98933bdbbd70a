"""What one closed job teaches: what was believed when its fault had been seen, what at the end, which repairs were tried, how long they took.

It is small, and kept beside the job's tape; a shop's whole past is read without opening one tape.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass
from typing import Any, Final

from spindle.words.health import Health

LEAST: Final = 0.002
"""Chances below this are not kept of a job: together they are less than one fault in fifty."""

CONFIRMED: Final = 1.0
PROVEN: Final = 0.9
PROBABLE: Final = 0.5
GIVEN_UP: Final = 0.5
"""What the cause of a job counts. One that was given up counts by what was believed at its end, and at half: left out, the faults that
are hard to cure would grow rare by learning alone (measured, docs/record.md)."""


@dataclass(frozen=True, slots=True)
class TriedAlone:
    """One repair, tried alone; ``item`` is the tag of the part that went in, "" where nobody named it or none did."""

    repair: str
    is_clean: bool
    item: str = ""
    health: Health = Health.NEW


@dataclass(frozen=True, slots=True)
class Took:
    """How long a repair took by the clock, from its first step to its trial, and how long it was planned. ``is_iron``: it needs soldering."""

    repair: str
    who: str
    minutes: float
    planned: float
    is_iron: bool = False


@dataclass(frozen=True, slots=True)
class Looked:
    """How long a look took by the clock, from the line before it in the same hand to its answer, and how long it was planned."""

    question: str
    who: str
    minutes: float
    planned: float


@dataclass(frozen=True, slots=True)
class Saw:
    """What was seen once at the bench before anything was tried; ``is_first``: before "Fault seen" was left."""

    question: str
    outcome: str
    is_first: bool


@dataclass(frozen=True, slots=True)
class Done:
    """One thing that was done at the bench: a question with its answer, or a repair tried alone with whether it cured ("clean", "")."""

    what: str
    came: str
    is_repair: bool = False


@dataclass(frozen=True, slots=True)
class Past:
    """A closed job.

    Attributes
    ----------
    weight : what its cause counts: confirmed, proven by passes, probable or given up; 0 where nothing on the list was wrong with it
    seen, closing : fault -> P, as the shipped model believed when "Fault seen" was left, and at the end; a confirmed cause is 1 there
    seconds : class of disc -> time to play of the unit after it was proven
    way : everything that was done at the bench in its order; () where it was not one step after the other
    """

    variant: str
    family: str
    weight: float
    is_confirmed: bool
    seen: Mapping[str, float]
    closing: Mapping[str, float]
    tried: tuple[TriedAlone, ...] = ()
    took: tuple[Took, ...] = ()
    seconds: Mapping[str, float] | None = None
    way: tuple[Done, ...] = ()
    looked: tuple[Looked, ...] = ()
    saw: tuple[Saw, ...] = ()


def write_past(past: Past) -> dict[str, Any]:
    """Return it as JSON."""
    return asdict(past)


def read_past(told: Mapping[str, Any]) -> Past:
    """Return it from the JSON that :func:`write_past` wrote."""
    own = dict(told)
    tried = tuple(TriedAlone(**{**t, "health": Health(t["health"])}) for t in own.pop("tried"))
    took = tuple(Took(**t) for t in own.pop("took"))
    way = tuple(Done(**d) for d in own.pop("way", ()))
    looked = tuple(Looked(**k) for k in own.pop("looked", ()))
    saw = tuple(Saw(**s) for s in own.pop("saw", ()))
    return Past(**own, tried=tried, took=took, way=way, looked=looked, saw=saw)


def kept(names: Sequence[str], p: Sequence[float]) -> dict[str, float]:
    """Return chances by name as they are kept: those that amount to something, four digits of each."""
    return {name: round(float(x), 4) for name, x in zip(names, p, strict=True) if x >= LEAST}

"""Whole inserts as declarations (``scenes.toml``): read here, played by :mod:`spindle.sound.library.playing`."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Final

import numpy as np

from spindle.shipped import read_toml

_TOKEN: Final = re.compile(
    r"\(|\)x(?P<few>\d+)-(?P<many>\d+)"
    r"|(?P<name>[a-z]+)(?::(?P<low>[\d.]+)-(?P<high>[\d.]+))?(?P<how>(?:/[a-z]+)*)(?:\?(?P<chance>[\d.]+))?"
)


@dataclass(frozen=True, slots=True)
class Step:
    """One thing that happens: what, for how many seconds at least and at most, how, and how often at all."""

    name: str
    low_s: float = 0.0
    high_s: float = 0.0
    how: tuple[str, ...] = ()
    chance: float = 1.0


@dataclass(frozen=True, slots=True)
class Again:
    """Steps that happen again and again."""

    steps: tuple[Step | Again, ...]
    few: int
    many: int


@dataclass(frozen=True, slots=True)
class Scene:
    """A whole insert."""

    id: str
    name: str
    families: tuple[str, ...]
    steps: tuple[Step | Again, ...]

    def drawn(self, family: str, rng: np.random.Generator) -> list[Step]:
        """Return the steps as one unit plays them once: repeats counted, chances drawn, ``enter`` as its family does it."""
        return [_timed(step, rng) for step in _unfolded(self.steps, family, rng)]


def _unfolded(steps: tuple[Step | Again, ...], family: str, rng: np.random.Generator) -> list[Step]:
    found: list[Step] = []
    for step in steps:
        if isinstance(step, Again):
            for _ in range(int(rng.integers(step.few, step.many + 1))):
                found += _unfolded(step.steps, family, rng)
        elif rng.random() >= step.chance:
            continue
        elif step.name == "enter":
            found += _unfolded(ENTER[family], family, rng)
        else:
            found.append(step)
    return found


def _timed(step: Step, rng: np.random.Generator) -> Step:
    seconds = float(rng.uniform(step.low_s, step.high_s))
    return Step(step.name, seconds, seconds, step.how)


def read_steps(text: str) -> tuple[Step | Again, ...]:
    """Return the steps that ``text`` declares, as the head of ``scenes.toml`` says.

    Examples
    --------
    >>> read_steps("home (up hold:1-2/seeks down)x2-3")[1].many
    3
    """
    open_: list[list[Step | Again]] = [[]]
    for found in _TOKEN.finditer(text):
        if found[0] == "(":
            open_.append([])
        elif found["few"]:
            inner = tuple(open_.pop())
            open_[-1].append(Again(inner, int(found["few"]), int(found["many"])))
        else:
            how = tuple(h for h in found["how"].split("/") if h)
            open_[-1].append(Step(found["name"], float(found["low"] or 0.0), float(found["high"] or 0.0), how, float(found["chance"] or 1.0)))
    return tuple(open_[0])


_DECLARED: Final = read_toml("spindle.sound.library", "scenes")
ENTER: Final = {family: read_steps(text) for family, text in _DECLARED["enter"].items()}
SCENES: Final = {s["id"]: Scene(s["id"], s["name"], tuple(s["families"]), read_steps(s["steps"])) for s in _DECLARED["scenes"]}

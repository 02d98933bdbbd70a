"""Every calculator by its id."""

from __future__ import annotations

from collections.abc import Iterable
from types import MappingProxyType
from typing import Final

from spindle.bench.tools.alignments import ALIGNMENT
from spindle.bench.tools.belts import BELT
from spindle.bench.tools.board import CAPACITORS, SHIM
from spindle.bench.tools.contacts import FLEX, SWITCH
from spindle.bench.tools.fuses import BLOWN, FUSE, SUPPLY
from spindle.bench.tools.objects import OBJECTS
from spindle.bench.tools.readings import READING
from spindle.bench.tools.resets import RESET
from spindle.bench.tools.screws_left import SCREWS
from spindle.bench.tools.told import Tool
from spindle.bench.tools.trimmers import TRIMMER
from spindle.errors import NotFoundError

TOOLS: Final = MappingProxyType(
    {t.id: t for t in (READING, TRIMMER, ALIGNMENT, SWITCH, FLEX, FUSE, BLOWN, BELT, SHIM, CAPACITORS, SUPPLY, SCREWS, OBJECTS, RESET)}
)


def tool(name: str) -> Tool:
    """Return a calculator.

    Raises
    ------
    NotFoundError
        If there is none of that id.
    """
    if name not in TOOLS:
        raise NotFoundError(f"There is no calculator {name!r}; there are {', '.join(TOOLS)}.")
    return TOOLS[name]


def measurable(questions: Iterable[str]) -> frozenset[str]:
    """Return those of some questions that a calculator can speak to."""
    return _SPOKEN_TO & frozenset(questions)


_SPOKEN_TO: Final = frozenset(q for t in TOOLS.values() for q in t.questions)

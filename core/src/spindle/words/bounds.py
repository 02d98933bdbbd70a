"""What may be said in an ask: bounds that stand at the fields, for whoever takes asks from outside."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

NO_NUL = r"^[^\u0000]*$"
CONTENT_HASH = r"^[0-9a-f]{64}$"
"""The name of a picture or a recording: the SHA-256 of its content."""


@dataclass(frozen=True, slots=True)
class TextBound:
    """A text of so many characters that matches a pattern."""

    most: int
    pattern: str = NO_NUL
    least: int = 0
    is_stripped: bool = False


@dataclass(frozen=True, slots=True)
class NumberBound:
    """A number from ``low`` to ``high``; ``is_above`` leaves ``low`` itself out."""

    low: float
    high: float
    is_above: bool = False


@dataclass(frozen=True, slots=True)
class LengthBound:
    """A list of so many entries."""

    most: int
    least: int = 0


Short = Annotated[str, TextBound(120)]
LongText = Annotated[str, TextBound(2_000)]
Word = Annotated[str, TextBound(40, r"^[a-z0-9_]{1,40}$")]
WordOrNone = Annotated[str, TextBound(40, r"^[a-z0-9_]{0,40}$")]
Cents = Annotated[int, NumberBound(0, 10_000_000)]
Tries = Annotated[int, NumberBound(0, 1_000)]
Number = Annotated[int, NumberBound(0, 2_000_000_000)]

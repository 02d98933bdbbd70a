"""What a meter is to the bench, whatever it is: it says who it is, and reads. And every way in which it may not."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Protocol

from spindle.bench.quantity import read_quantity, said
from spindle.bench.reading import usual_spread
from spindle.errors import AskError, InvalidError

OVERLOAD: Final = 9e36
"""A meter that is over its range answers 9.9E37 (IEEE 488.2, SCPI-99 vol. 1, 7.2.1.5)."""
STEADY: Final = 3
"""So many in a row that lie together are a reading that holds."""


class MeterError(AskError):
    """A meter did not do what was asked. ``reason`` says how; the field stays for typing."""

    code = "meter"


@dataclass(frozen=True, slots=True)
class Taken:
    """One reading: its value in the working unit (``inf`` for an overload), and as it is typed."""

    quantity: str
    value: float

    @property
    def text(self) -> str:
        """The reading as somebody would type it: with its unit, OL for an overload."""
        return "OL" if math.isinf(self.value) else f"{self.value:.7g} {_UNIT[self.quantity]}"


_UNIT: Final = {"voltage": "V", "resistance": "ohm", "current": "A"}


class Meter(Protocol):
    """A meter that is open. It is closed by leaving its ``with``."""

    def identify(self) -> str:
        """Return who it says it is."""

    def read(self, quantity: str) -> Taken:
        """Return one reading of a quantity."""


def understood(text: str, quantity: str) -> Taken:
    """Return the reading that a meter's answer says, with its unit or without.

    Raises
    ------
    MeterError
        If it is no such reading: nothing, rubbish, another quantity.
    """
    answer = text.strip()
    if not answer:
        raise MeterError("The meter is silent. Is it on, and is its cable in?", reason="silent")
    try:
        value = float(answer)
    except ValueError:
        try:
            value = read_quantity(answer, quantity, place="/answer", default_unit=_UNIT[quantity])
        except InvalidError as error:
            raise MeterError(f"The meter answered {answer[:40]!r}, which is no {quantity}. Is it set to another function?", reason="rubbish") from error
    if math.isnan(value):
        raise MeterError("The meter answered that it has no number.", reason="rubbish")
    return Taken(quantity, math.inf if abs(value) >= OVERLOAD else value)


def is_steady(taken: Sequence[Taken]) -> bool:
    """Tell whether the last three lie as near to each other as a hand at the tips lets them, or are all open."""
    last = [t.value for t in taken[-STEADY:]]
    if len(last) < STEADY:
        return False
    if any(math.isinf(v) for v in last):
        return all(math.isinf(v) for v in last)
    return max(last) - min(last) <= 4.0 * usual_spread(last[-1], taken[-1].quantity)


def in_words(taken: Taken) -> str:
    """Return a reading as it is read aloud."""
    return said(taken.value, taken.quantity)

"""A JSON object being read with the place of every mistake."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping
from difflib import get_close_matches
from enum import StrEnum
from typing import Final, TypeVar

from spindle.errors import CaseError

MAX_FINDINGS: Final = 2_000
MAX_TEXT: Final = 4_000
MAX_SHOWN: Final = 40
"""Of a number that is wrong, so many digits are said back."""
_E = TypeVar("_E", bound=StrEnum)


class Place:
    """A JSON object being read: knows its place, hands out checked values, and names what it does not know.

    Whatever does not fit raises CaseError with its JSON pointer: a key that is missing or unknown, another kind of value, a number out of its limits.
    """

    def __init__(self, value: object, place: str, known: Iterable[str]) -> None:
        if not isinstance(value, dict):
            raise CaseError(place or "/", f"expected an object, got {kind_of(value)}")
        known = list(known)
        for key in value:
            if key not in known:
                near = get_close_matches(str(key), known, n=1)
                raise CaseError(f"{place}/{key}", f"unknown key{f'; did you mean {near[0]!r}?' if near else ', known: ' + ', '.join(known)}")
        self._value: Mapping[str, object] = value
        self.place = place

    def __contains__(self, key: str) -> bool:
        return key in self._value

    def at(self, key: str) -> str:
        """Return the JSON pointer of a key."""
        return f"{self.place}/{key}"

    def raw(self, key: str) -> object:
        """Return the value of a key that has to be there."""
        if key not in self._value:
            raise CaseError(self.at(key), "is missing")
        return self._value[key]

    def text(self, key: str, default: str | None = None) -> str:
        """Return a text."""
        if default is not None and key not in self._value:
            return default
        value = self.raw(key)
        if not isinstance(value, str):
            raise CaseError(self.at(key), f"expected a text, got {kind_of(value)}")
        if is_unfit(value):
            raise CaseError(self.at(key), f"longer than {MAX_TEXT} characters, or with a NUL or half a character in it")
        return value

    def number(self, key: str, default: float, *, low: float = 0.0, high: float = 1e6) -> float:
        """Return a finite number within its limits."""
        value = self._value.get(key, default)
        if isinstance(value, bool) or not isinstance(value, int | float) or not is_within(value, low, high):
            raise CaseError(self.at(key), f"expected a number from {low:g} to {high:g}, got {kind_of(value)}")
        return float(value)

    def count(self, key: str) -> int | None:
        """Return a whole number, or None if it is not there."""
        if key not in self._value:
            return None
        value = self.number(key, 0.0, high=1000)
        if value != int(value):
            raise CaseError(self.at(key), f"expected a whole number, got {value}")
        return int(value)

    def flag(self, key: str, default: bool) -> bool:
        """Return true or false."""
        value = self._value.get(key, default)
        if not isinstance(value, bool):
            raise CaseError(self.at(key), f"expected true or false, got {kind_of(value)}")
        return value

    def choice(self, key: str, kind: type[_E], default: _E | None = None) -> _E:
        """Return a member of an enumeration."""
        value = self.text(key, None if default is None else default.value)
        try:
            return kind(value)
        except ValueError:
            raise CaseError(self.at(key), f"{value!r} is none of {', '.join(k.value for k in kind)}") from None

    def items(self, key: str, read: Callable[[object, str], object]) -> list[object]:
        """Return a list, each entry read by ``read``."""
        value = self._value.get(key, [])
        if not isinstance(value, list):
            raise CaseError(self.at(key), f"expected a list, got {kind_of(value)}")
        if len(value) > MAX_FINDINGS:
            raise CaseError(self.at(key), f"{len(value)} entries; at most {MAX_FINDINGS}")
        return [read(item, f"{self.at(key)}/{n}") for n, item in enumerate(value)]

    def words(self, key: str, known: Iterable[str]) -> frozenset[str]:
        """Return a list of texts, each one of ``known``."""
        allowed = list(known)

        def one(value: object, place: str) -> object:
            if value not in allowed:
                raise CaseError(place, f"{value!r} is none of {', '.join(allowed)}")
            return value

        return frozenset(str(w) for w in self.items(key, one))

    def one_of(self, key: str, known: Iterable[str]) -> str:
        """Return a text that is one of ``known``, or "" if it is not there."""
        value = self.text(key, "")
        if value and value not in known:
            raise CaseError(self.at(key), f"{value!r} is none of {', '.join(known)}")
        return value

    def pairs(self, key: str) -> dict[str, object]:
        """Return an object with free keys."""
        value = self._value.get(key, {})
        if not isinstance(value, dict):
            raise CaseError(self.at(key), f"expected an object, got {kind_of(value)}")
        if any(is_unfit(name) for name in value):
            raise CaseError(self.at(key), f"has a name that is longer than {MAX_TEXT} characters, or with a NUL or half a character in it")
        return value


def is_within(value: float, low: float, high: float) -> bool:
    """Tell whether a number lies in its limits; whole numbers of any length are compared as such, never turned into a float first."""
    return (isinstance(value, int) or math.isfinite(value)) and low <= value <= high


def is_unfit(text: str) -> bool:
    """Tell whether a text is too long to be kept, or holds a NUL or half of a surrogate pair, which no database takes."""
    return len(text) > MAX_TEXT or "\0" in text or any("\ud800" <= c <= "\udfff" for c in text)


def kind_of(value: object) -> str:
    """Return what kind of JSON value this is, as an error says it."""
    names = {dict: "an object", list: "a list", str: "a text", bool: "true or false", type(None): "null"}
    return names.get(type(value), f"the number {str(value)[:MAX_SHOWN]}" if isinstance(value, int | float) else type(value).__name__)

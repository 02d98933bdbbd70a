"""Lessons as declarations (``lessons.toml``)."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from spindle.errors import NotFoundError
from spindle.shipped import read_toml


class Hides(StrEnum):
    """How what is hidden shows itself."""

    ONE = "one"
    TWO = "two"
    NONE = "none"
    COMES_AND_GOES = "comes_and_goes"
    TAMPERED = "tampered"


@dataclass(frozen=True, slots=True)
class Lesson:
    """A lesson: what may be hidden, what it teaches, and the trap that it sets ("" for none)."""

    id: str
    name: str
    family: str
    kind: Hides
    teaches: str
    faults: tuple[str, ...] = ()
    trap: str = ""
    number: int = 0


LESSONS: Final = {
    row["id"]: Lesson(row["id"], row["name"], row["family"], Hides(row["kind"]), row["teaches"], tuple(row.get("faults", ())), row.get("trap", ""), n)
    for n, row in enumerate(read_toml("spindle.practice", "lessons")["lessons"], start=1)
}


def lesson(name: str) -> Lesson:
    """Return a lesson.

    Raises
    ------
    NotFoundError
        If there is none of that id.
    """
    if name not in LESSONS:
        raise NotFoundError(f"There is no lesson {name!r}; there are {', '.join(LESSONS)}.")
    return LESSONS[name]

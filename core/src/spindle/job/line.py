"""A line of the tape."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any


@dataclass(frozen=True, slots=True)
class Line:
    """One thing that happened to a job: never changed, never deleted. ``version`` is the job's version that it belongs to."""

    number: int
    version: int
    kind: str
    body: Mapping[str, Any]
    at: datetime
    by: str


@dataclass(frozen=True, slots=True)
class Draft:
    """A line that is about to be written: its kind and body."""

    kind: str
    body: Mapping[str, Any]

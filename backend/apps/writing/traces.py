"""Who changed what, from what, to what, and when: for everything that has no tape of its own."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final

from apps.writing.models import Trace

SHOWN: Final = 50
"""The newest so many are shown; the others stay."""


@dataclass(frozen=True)
class Traced:
    """One change, as it is shown."""

    about: str
    field: str
    was: Any
    now: Any
    at: datetime
    by: str


def trace(about: str, was: Mapping[str, Any], now: Mapping[str, Any], *, by_id: int, at: datetime) -> list[str]:
    """Write down what differs, field by field, and return those fields."""
    changed = [name for name, value in now.items() if was.get(name) != value]
    Trace.objects.bulk_create(Trace(about=about, field=n, was=was.get(n), now=now[n], at=at, by_id=by_id) for n in changed)
    return changed


def traces_of(about: str) -> list[Traced]:
    """Return what was changed of a thing, or of all things whose name begins so, newest first."""
    rows = Trace.objects.filter(about__startswith=about).select_related("by").order_by("-pk")[:SHOWN]
    return [Traced(r.about, r.field, r.was, r.now, r.at, r.by.shown_name) for r in rows]

"""The same points over time: readings in one state, of this unit and of every other of its model."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Final

from apps.jobs.models import Job, TapeLine
from django.db.models import F, IntegerField, OuterRef, Q, Subquery, Value
from django.db.models.fields.json import KeyTextTransform
from django.db.models.functions import Cast, Coalesce
from spindle.bench.run_chart import RunChart, run_chart
from spindle.bench.tools.readings import value_read

MOST: Final = 60
"""Readings on one chart, the newest."""


@dataclass(frozen=True, slots=True)
class ReadBefore:
    """One reading of these points, in the working unit of its quantity."""

    tag: str
    at: datetime
    value: float
    is_mine: bool


@dataclass(frozen=True, slots=True)
class State:
    """The state in which something was read."""

    quantity: str
    mains: str
    disc: str
    switch: str


def read_before(row: Job, about: str, state: State) -> tuple[list[ReadBefore], RunChart | None]:
    """Return the readings of the same points in the same state on units of this model, oldest first, and their chart; struck ones are none."""
    of_line = Cast(KeyTextTransform("line", "body"), IntegerField())
    said = TapeLine.objects.filter(job=OuterRef("job"), kind__in=("strike", "restore")).annotate(of=of_line).filter(of=OuterRef("number")).order_by("-number")
    same = Q(kind="measured", body__tool="reading", body__about=about, job__sheet__variant=row.sheet.variant)
    there = Q(**{f"body__inputs__{name}": getattr(state, name) for name in ("quantity", "mains", "disc", "switch")})
    lines = TapeLine.objects.filter(same & there).annotate(tag=F("job__tag"), last_said=Coalesce(Subquery(said.values("kind")[:1]), Value("")))
    lines = lines.exclude(last_said="strike").order_by("-at", "-pk")[:MOST]
    found = [ReadBefore(line.tag, line.at, value, line.job_id == row.pk) for line in reversed(lines) if (value := value_read(line.body["inputs"])) is not None]
    return found, run_chart([r.value for r in found]) if found else None

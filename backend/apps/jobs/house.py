"""The day: who must act on which unit in the house. The first of each group are read, and the rest is counted: a house may hold hundreds."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from datetime import date, datetime
from typing import Final, NamedTuple

from apps.jobs.models import Job
from apps.jobs.selectors import the_day
from django.db.models import Q, QuerySet
from spindle.job.stages import NAMES, Acts, Stage, acts_now

AT_FIRST: Final = 25
"""Units of a group that are read at first: two screens of them."""
_KNOWN: Final = ("pk", "promised_on", "acts", "stage", "held_until", "want__level", "may_be_here")
_WORDS: Final = ("tag", "sheet__maker", "sheet__console", "sheet__variant", "owner_name", "hands", "complaint")


@dataclass(frozen=True)
class Group:
    """The units of which one and the same must happen next.

    Attributes
    ----------
    count : how many there are
    rows : the first of them, or all, by promise
    """

    acts: Acts
    count: int
    rows: list[Job]


@dataclass(frozen=True)
class House:
    """What is in the house: how many units in all and how many of them are due or late, whatever words were asked for."""

    units: int
    due: int
    groups: tuple[Group, ...]


class _Unit(NamedTuple):
    """What must be known of a unit to say who acts next, as ``_KNOWN`` reads it."""

    pk: int
    promised_on: date | None
    by_tape: str
    stage: str
    held_until: datetime | None
    level: str | None
    may_be_here: bool

    def acts(self, now: datetime) -> Acts:
        is_held = self.held_until is not None and self.held_until > now
        lacks_part = bool(self.level) and self.stage == Stage.REPAIR and not self.may_be_here
        return acts_now(Acts(self.by_tape), is_held=is_held, lacks_part=lacks_part)


def in_the_house(words: str, whole: Collection[Acts], now: datetime, today: date) -> House:
    """Return the units that hold every word, by who must act and then by promise; ``whole``: the groups of which all are read. Two or three queries."""
    rows = the_day()
    units = [_Unit(*u) for u in rows.values_list(*_KNOWN)]
    asked = set(_with_words(rows, words).values_list("pk", flat=True)) if words.strip() else {u.pk for u in units}
    by_acts: dict[Acts, list[int]] = {}
    for unit in units:
        if unit.pk in asked:
            by_acts.setdefault(unit.acts(now), []).append(unit.pk)
    read = {acts: keys if acts in whole else keys[:AT_FIRST] for acts, keys in by_acts.items()}
    at_hand = {row.pk: row for row in rows.filter(pk__in=[key for keys in read.values() for key in keys])}
    groups = tuple(Group(acts, len(by_acts[acts]), [at_hand[k] for k in keys if k in at_hand]) for acts, keys in read.items())
    return House(len(units), sum(u.promised_on is not None and u.promised_on <= today for u in units), groups)


def _with_words(rows: QuerySet[Job], words: str) -> QuerySet[Job]:
    for word in words.split():
        named = [stage.value for stage, name in NAMES.items() if word.lower() in name.lower()]
        rows = rows.filter(Q(stage__in=named) | _anywhere(word))
    return rows


def _anywhere(word: str) -> Q:
    found = Q()
    for field in _WORDS:
        found |= Q(**{f"{field}__icontains": word})
    return found

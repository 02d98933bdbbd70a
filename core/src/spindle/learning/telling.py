"""What was learnt, as rows that a table and a file show alike: what was taken as true, what the jobs say, how sure, and over how many."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np
from scipy.special import betaincinv

from spindle.diagnosis.given.compiled import CompiledModel, cures
from spindle.learning.causes import listed
from spindle.learning.layer import Lessons
from spindle.learning.rows import STRENGTH
from spindle.words.health import HEALTH_NAMES

WORTH_TELLING: Final = 1.25
"""A share that moved by less than a quarter is not told: it would move back."""
LEAST_JOBS: Final = 2.0


class Told(StrEnum):
    """What a row is about."""

    CAUSE = "cause"
    REPAIR = "repair"
    HEALTH = "health"
    SOURCE = "source"
    PACE = "pace"
    LOOK = "look"
    HAND = "hand"
    LASTS = "lasts"
    PLAYING = "playing"
    ROW = "row"


@dataclass(frozen=True, slots=True)
class Row:
    """One thing that was learnt.

    Attributes
    ----------
    of, name : of which drive, family or person, and what; of a time to play, the class of disc by its id
    was, now : shares in [0, 1]; times as long as planned; months; or seconds. ``was`` is None where nobody said anything
    low, high : the 90 % interval, where one is known
    n : jobs or trials that it rests on; soft counts are broken numbers
    confirmed, of_confirmed : of a cause: in so many jobs it was confirmed, of all of that drive whose cause was
    """

    about: Told
    of: str
    name: str
    was: float | None
    now: float
    n: float
    low: float | None = None
    high: float | None = None
    confirmed: int | None = None
    of_confirmed: int | None = None


def told(lessons: Lessons, models: Mapping[str, CompiledModel]) -> tuple[Row, ...]:
    """Return what was learnt, what moved most first within each kind."""
    known = (
        _causes(lessons, models),
        _repairs(lessons, models),
        _parts(lessons),
        _hands(lessons, models),
        _lasting(lessons, models),
        _playing(lessons, models),
        _rows(lessons, models),
    )
    rows = [row for kind in known for row in kind]
    kinds = list(Told)
    return tuple(sorted(rows, key=lambda r: (kinds.index(r.about), -r.n * abs(r.now - (r.was or 0.0)))))


def _causes(lessons: Lessons, models: Mapping[str, CompiledModel]) -> Iterator[Row]:
    layer = lessons.layer()
    for variant, model in models.items():
        causes, over = lessons.causes[model.model.family], layer.prior_over(model)
        counted, mass, sure = causes.counted[variant], float(model.prior @ listed(model)), causes.confirmed[variant]
        for fault, was, now in zip(model.faults, model.prior, over, strict=True):
            n = counted.get(fault.id, 0.0)
            if max(n, sum(counted.values()) * float(was)) >= LEAST_JOBS and not 1.0 / WORTH_TELLING < now / was < WORTH_TELLING:
                low, high = causes.between[variant][fault.id]
                yield Row(
                    Told.CAUSE, variant, fault.name, float(was), float(now), round(n, 1), mass * low, mass * high, sure.get(fault.id, 0), sum(sure.values())
                )


def _repairs(lessons: Lessons, models: Mapping[str, CompiledModel]) -> Iterator[Row]:
    """Yield the repairs that enough was seen of, each over the faults that it was tried on."""
    of = {m.model.family: m.model for m in models.values()}
    for (family, repair), own in lessons.repairs.success.items():
        n, found = lessons.repairs.counted[family, repair], next(r for r in of[family].repairs if r.id == repair)
        shipped = {f: p for f, p in cures(found, of[family]).items() if f in own}
        if n >= LEAST_JOBS and shipped:
            was, now = sum(shipped.values()) / len(shipped), sum(own[f] for f in shipped) / len(shipped)
            yield Row(Told.REPAIR, family, found.name, was, now, round(n, 1))


def _parts(lessons: Lessons) -> Iterator[Row]:
    for health, parts in lessons.repairs.health.items():
        yield Row(Told.HEALTH, "", f"{HEALTH_NAMES[health].capitalize()} parts", parts.shipped, parts.mean, parts.n, parts.low, parts.high)
    for source, parts in lessons.repairs.sources.items():
        if parts.n >= LEAST_JOBS:
            yield Row(Told.SOURCE, "", source, parts.shipped, parts.mean, parts.n, parts.low, parts.high)


def _hands(lessons: Lessons, models: Mapping[str, CompiledModel]) -> Iterator[Row]:
    names = {r.id: r.name for m in models.values() for r in m.repairs}
    for repair, pace in lessons.hands.repairs.items():
        if repair in names and pace.n >= LEAST_JOBS:
            yield Row(Told.PACE, "", names[repair], 1.0, pace.factor, pace.n, pace.low, pace.high)
    looks = {q.id: q.id.replace("_", " ").capitalize() for m in models.values() for q in m.questions.values()}
    for question, pace in lessons.hands.looks.items():
        if question in looks and pace.n >= LEAST_JOBS:
            yield Row(Told.LOOK, "", looks[question], 1.0, pace.factor, pace.n, pace.low, pace.high)
    for (who, is_iron), pace in lessons.hands.people.items():
        yield Row(Told.HAND, who, "Soldering" if is_iron else "Other repairs", 1.0, pace.factor, pace.n, pace.low, pace.high)


def _lasting(lessons: Lessons, models: Mapping[str, CompiledModel]) -> Iterator[Row]:
    names = {r.id: r.name for m in models.values() for r in m.repairs}
    for family, own in lessons.lasting.items():
        for repair, lasts in own.items():
            if lasts.came_back:
                yield Row(Told.LASTS, family, names[repair], lasts.shipped, lasts.months, lasts.n, lasts.low, lasts.high)


def _playing(lessons: Lessons, _models: Mapping[str, CompiledModel]) -> Iterator[Row]:
    for (variant, disc), played in lessons.playing.items():
        if played.n >= LEAST_JOBS:
            was = None if played.was is None else played.was.mean_s
            yield Row(Told.PLAYING, variant, disc, was, played.now.mean_s, played.n, played.low, played.high)


def _rows(lessons: Lessons, models: Mapping[str, CompiledModel]) -> Iterator[Row]:
    """Yield of each question under each fault the answer that moved most."""
    of = {m.model.family: m for m in models.values()}
    for family, questions in lessons.rows.items():
        model = of[family]
        for name, faults in questions.items():
            question = model.questions[name]
            for fault, counted in faults.items():
                was = model.likelihood[name][:, model.fault_index[fault]]
                now = counted.over(was, question)
                most = int(np.abs(now - was).argmax())
                low, high = betaincinv((STRENGTH + counted.n) * now[most], (STRENGTH + counted.n) * (1.0 - now[most]), [0.05, 0.95])
                words = f"{model.faults[model.fault_index[fault]].name}: {name.replace('_', ' ')} “{question.outcomes[most].label}”"
                yield Row(Told.ROW, family, words, float(was[most]), float(now[most]), round(counted.n, 1), float(low), float(high))

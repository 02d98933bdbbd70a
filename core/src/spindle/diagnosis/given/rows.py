"""The rows of a question, read for one drive: which faults a word stands for, and P(answer | fault) of each."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Final

import numpy as np
from numpy.typing import NDArray

from spindle.drives.sheet import DriveSheet
from spindle.errors import ModelError
from spindle.faults.model import NOTHING, Fault, FaultModel, Question, QuestionKind
from spindle.faults.scale import NEVER_FLOOR, ROW_FLOOR
from spindle.words.bench import Reach

SOUND_PERCENT: Final = 97.0
"""A sound drive gives the normal answer to nearly every question: one look in thirty is a slip."""


def likelihood_table(question: Question, faults: tuple[Fault, ...], model: FaultModel, sheet: DriveSheet) -> NDArray[np.float64]:
    """Return P(outcome | fault) of shape (n_outcomes, n_faults) from a question's rows.

    Rows are floored at :data:`~spindle.faults.scale.ROW_FLOOR`, a 0 lower, so that no answer is impossible, raised to the
    question's temper, and normalised per fault.

    Raises
    ------
    ModelError
        If a row names an unknown fault, names one twice, has the wrong length or does not sum to 100.
    """
    width = len(question.outcomes)
    rows, default = _read_rows(question, model, sheet)
    if question.kind is not QuestionKind.INTAKE:
        rows = {NOTHING: _of_a_sound_unit(question), **rows}
    if question.stage >= Reach.DISC:
        rows |= dict.fromkeys(model.way_in, _of_a_sound_unit(question))
    table = np.empty((width, len(faults)))
    for i, fault_ in enumerate(faults):
        own = [rows[fault_.id]] if fault_.id in rows else [rows.get(name, default) for name in fault_.like.split()] or [default]
        if any(percent is None for percent in own):
            raise ModelError(f"question {question.id!r} says nothing about {fault_.id!r} and has no default row")
        table[:, i] = np.mean(np.array(own, dtype=float), axis=0)
    table = np.maximum(table / 100.0, np.where(table > 0.0, ROW_FLOOR, NEVER_FLOOR)) ** question.temper
    return np.asarray(table / table.sum(axis=0))


def _of_a_sound_unit(question: Question) -> tuple[float, ...]:
    """Return the percentages of a drive that nothing is wrong with: the normal answer, but for a slip of the hand or the eye."""
    normal = question.normal or question.outcomes[0].id
    rest = (100.0 - SOUND_PERCENT) / (len(question.outcomes) - 1)
    return tuple(SOUND_PERCENT if o.id == normal else rest for o in question.outcomes)


def _read_rows(question: Question, model: FaultModel, sheet: DriveSheet) -> tuple[dict[str, tuple[float, ...]], tuple[float, ...] | None]:
    """Return the row of each fault that is named, and that of every other. A row for a feature of this drive replaces the plain one, and of two the later."""
    width = len(question.outcomes)
    default: tuple[float, ...] | None = None
    plain: dict[str, tuple[float, ...]] = {}
    special: dict[str, dict[str, tuple[float, ...]]] = {}
    for row in question.rows:
        if len(row.percent) != width or sum(row.percent) != 100:
            raise ModelError(f"question {question.id!r}, row {row.faults!r}: {row.percent} is not {width} percentages summing to 100")
        if row.needs and row.needs not in sheet.features:
            continue
        rows = special.setdefault(row.needs, {}) if row.needs else plain
        if "*" in row.faults.split():
            default = row.percent
        for fault in faults_named(row.faults, model, sheet):
            if fault in rows:
                raise ModelError(f"question {question.id!r} gives {fault!r} two rows")
            rows[fault] = row.percent
    for by_fault in special.values():
        plain |= by_fault
    return plain, default


def faults_named(words: str, model: FaultModel, sheet: DriveSheet) -> Iterator[str]:
    """Yield the fault ids behind the words of a row or a link: a fault itself, ``@group``, or the diodes that ``diode:…`` stands for here.

    The one reader of that language. ``*`` stands for every fault that no other row names, and is no word for a fault: it yields nothing.

    Raises
    ------
    ModelError
        If a word names nothing.
    """
    known = {f.id for f in model.faults}
    for word in words.split():
        if word != "*":
            yield from _expand(word, known, model, sheet)


def _expand(name: str, known: set[str], model: FaultModel, sheet: DriveSheet) -> Iterator[str]:
    if name.startswith("@"):
        if name[1:] not in model.groups:
            raise ModelError(f"a row names the unknown group {name!r}")
        for member in model.groups[name[1:]].split():
            yield from _expand(member, known, model, sheet)
        return
    if not name.startswith("diode:"):
        if name not in known:
            raise ModelError(f"a row names the unknown fault {name!r}")
        yield name
        return
    which = name.removeprefix("diode:")
    if not re.fullmatch(r"game|other|(not)?\d+", which):
        raise ModelError(f"a row names the unknown diodes {name!r}; known are diode:game, diode:other, diode:405 and diode:not405")
    for nm in sorted(sheet.wavelengths_nm):
        is_meant = {"game": nm == sheet.game_nm, "other": nm != sheet.game_nm, str(nm): True}
        if is_meant.get(which, which.startswith("not") and which != f"not{nm}"):
            yield f"pickup_{nm}"

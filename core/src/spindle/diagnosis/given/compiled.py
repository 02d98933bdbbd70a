"""A fault model turned into arrays for one drive: what cannot exist on this drive is not in it."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Final

import numpy as np
from numpy.typing import NDArray

from spindle.drives.sheet import DriveSheet
from spindle.errors import ModelError
from spindle.faults.library import MODELS
from spindle.faults.model import NOTHING, Fault, FaultModel, Question, QuestionKind, Repair, SubAssembly
from spindle.faults.scale import ROW_FLOOR
from spindle.words.bench import Reach
from spindle.words.health import P_BAD_ITEM, Health

Floats = NDArray[np.float64]
SOUND_PERCENT: Final = 97.0
"""A sound drive gives the normal answer to nearly every question: one look in thirty is a slip."""
SILENT: Final = 0.97
"""A drive whose disc is not home shows nothing at every later stage, but for a slip."""
RESEATED_MONTHS: Final = 40.0
"""How long a flex holds that a repair reseats by the way: it sits until somebody opens the unit again."""
UNOPENED: Final = 1e-6
"""Prior of a handling fault before a step of ours could have brought it: as good as none, and never impossible."""


@dataclass(frozen=True, eq=False)
class CompiledModel:
    """One drive's share of a fault model, as arrays. Two are the same only if they are one.

    Attributes
    ----------
    prior : ndarray of shape (n_faults,)
        P(fault), summing to 1.
    likelihood : mapping of question id to ndarray of shape (n_outcomes, n_faults)
        P(outcome | fault), each column summing to 1, floored and tempered; of what needs a disc: with the disc home.
    p_home : ndarray of shape (n_faults,)
        P(the disc gets home | fault).
    success : ndarray of shape (n_repairs, n_faults)
        P(repair cures fault).
    lasts_months : ndarray of shape (n_repairs, n_faults)
        Within this time the fault is back in one unit of two that the repair cured of it.
    membership : ndarray of shape (n_parts, n_faults)
        1 where the fault sits in the part.
    """

    model: FaultModel
    sheet: DriveSheet
    faults: tuple[Fault, ...]
    parts: tuple[SubAssembly, ...]
    questions: Mapping[str, Question]
    repairs: tuple[Repair, ...]
    prior: Floats
    likelihood: Mapping[str, Floats]
    success: Floats
    lasts_months: Floats
    membership: Floats
    p_home: Floats
    bad_item: Mapping[Health, float] = field(default_factory=lambda: dict(P_BAD_ITEM))
    """P(a part is bad itself), by what is known of it."""
    pace: Mapping[str, float] = field(default_factory=dict)
    """Repair -> how many times as long as planned it takes here."""
    learnt_over: CompiledModel | None = None
    """The shipped model that it was learnt over; None if nothing was learnt."""
    log_rows: dict[tuple[str, str, float, bool], Floats] = field(default_factory=dict)
    """log P(answer | fault) by question, answer and unreliability, filled as they are asked for: a drive's answers come back."""

    @property
    def shipped(self) -> CompiledModel:
        """The model before anything was learnt: what closed jobs teach is read by it."""
        return self.learnt_over or self

    @cached_property
    def fault_index(self) -> Mapping[str, int]:
        """Position of each fault id."""
        return {f.id: i for i, f in enumerate(self.faults)}

    @cached_property
    def sound(self) -> Floats:
        """1 at "nothing wrong", 0 elsewhere, of shape (n_faults,)."""
        return np.array([float(f.id == NOTHING) for f in self.faults])

    @cached_property
    def pair_excess(self) -> Floats:
        """``lift - 1`` of each declared pair of faults, of shape (n_faults, n_faults); 0 where none is declared."""
        excess = np.zeros((len(self.faults), len(self.faults)))
        for pair in self.model.pairs:
            if pair.one in self.fault_index and pair.other in self.fault_index:
                i, j = self.fault_index[pair.one], self.fault_index[pair.other]
                excess[i, j] = excess[j, i] = pair.lift - 1.0
        return excess

    @cached_property
    def repair_index(self) -> Mapping[str, int]:
        """Position of each repair id."""
        return {r.id: i for i, r in enumerate(self.repairs)}

    @cached_property
    def family_questions(self) -> Mapping[str, Question]:
        """Every question of the family, those that this drive cannot answer included."""
        return {q.id: q for q in self.model.questions}


def compile_model(sheet: DriveSheet) -> CompiledModel:
    """Return the fault model of the sheet's loader family, cut to this drive.

    Raises
    ------
    ModelError
        If there is no model for the family, or the model's declarations contradict themselves.
    """
    if sheet.family not in MODELS:
        raise ModelError(f"no fault model for the loader family {sheet.family!r}; known: {', '.join(MODELS)}", family=sheet.family)
    model = MODELS[sheet.family]
    has = sheet.features
    faults = tuple(f for f in model.faults if not f.needs or f.needs in has)
    questions = {q.id: q for q in model.questions if not q.needs or q.needs in has}
    repairs = tuple(r for r in model.repairs if not r.needs or r.needs in has)
    present = {f.part for f in faults}
    parts = tuple(p for p in model.parts if p.id in present)
    prior = np.array([f.prior * sheet.prior_factors.get(f.id, 1.0) for f in faults])
    index = {f.id: i for i, f in enumerate(faults)}
    success = np.zeros((len(repairs), len(faults)))
    for a, repair in enumerate(repairs):
        for fault, chance in cures(repair, model).items():
            if fault in index:
                success[a, index[fault]] = chance
    prior[[i for i, f in enumerate(faults) if f.opened_by]] = UNOPENED * prior.sum()
    tables = {q.id: likelihood_table(q, faults, model, sheet) for q in questions.values()}
    goes_in = [o.id not in questions[model.home].stops for o in questions[model.home].outcomes]
    p_home = np.where([f.id == NOTHING for f in faults], 1.0 - ROW_FLOOR, tables[model.home][goes_in].sum(axis=0))
    membership = np.array([[1.0 if f.part == p.id else 0.0 for f in faults] for p in parts])
    return CompiledModel(
        model=model,
        sheet=sheet,
        faults=faults,
        parts=parts,
        questions=questions,
        repairs=repairs,
        prior=prior / prior.sum(),
        likelihood=tables,
        success=success,
        lasts_months=_lasts_months(repairs, faults),
        membership=membership,
        p_home=p_home,
    )


def _lasts_months(repairs: tuple[Repair, ...], faults: tuple[Fault, ...]) -> Floats:
    """What is only reseated by the way holds as long as what is reseated on purpose, however short-lived the repair's own work is."""
    own = [[r.lasts_months if f.id in r.cures else max(r.lasts_months, RESEATED_MONTHS) for f in faults] for r in repairs]
    return np.array([[r.fades.get(f.id, months) for f, months in zip(faults, row, strict=True)] for r, row in zip(repairs, own, strict=True)])


def silent(question: Question) -> Floats:
    """Return P(outcome | the disc is not home) of a question that needs one, of shape (n_outcomes,): the last of its bad answers."""
    worst, n = question.bad[-1], len(question.outcomes)
    return np.array([SILENT if o.id == worst else (1.0 - SILENT) / (n - 1) for o in question.outcomes])


def cures(repair: Repair, model: FaultModel) -> dict[str, float]:
    """Return what a repair cures, what it reseats by the way included (trap T17)."""
    found = dict(repair.cures)
    for depth, by_the_way in model.reseats.items():
        if repair.depth >= depth:
            found = {**found, **{f: max(chance, found.get(f, 0.0)) for f, chance in by_the_way.items()}}
    return found


def likelihood_table(question: Question, faults: tuple[Fault, ...], model: FaultModel, sheet: DriveSheet) -> Floats:
    """Return P(outcome | fault) of shape (n_outcomes, n_faults) from a question's rows.

    Rows are floored at :data:`~spindle.faults.scale.ROW_FLOOR` so that no answer is impossible, raised to the
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
    table = np.maximum(table / 100.0, ROW_FLOOR) ** question.temper
    return np.asarray(table / table.sum(axis=0))


def _of_a_sound_unit(question: Question) -> tuple[float, ...]:
    """Return the percentages of a drive that nothing is wrong with: the normal answer, but for a slip of the hand or the eye."""
    normal = question.normal or question.outcomes[0].id
    rest = (100.0 - SOUND_PERCENT) / (len(question.outcomes) - 1)
    return tuple(SOUND_PERCENT if o.id == normal else rest for o in question.outcomes)


def _read_rows(question: Question, model: FaultModel, sheet: DriveSheet) -> tuple[dict[str, tuple[float, ...]], tuple[float, ...] | None]:
    """Return the row of each fault that is named, and that of every other. A row for a feature of this drive replaces the plain one."""
    width = len(question.outcomes)
    default: tuple[float, ...] | None = None
    plain: dict[str, tuple[float, ...]] = {}
    special: dict[str, tuple[float, ...]] = {}
    for row in question.rows:
        if len(row.percent) != width or sum(row.percent) != 100:
            raise ModelError(f"question {question.id!r}, row {row.faults!r}: {row.percent} is not {width} percentages summing to 100")
        if row.needs and row.needs not in sheet.features:
            continue
        rows = special if row.needs else plain
        if "*" in row.faults.split():
            default = row.percent
        for fault in faults_named(row.faults, model, sheet):
            if fault in rows:
                raise ModelError(f"question {question.id!r} gives {fault!r} two rows")
            rows[fault] = row.percent
    return {**plain, **special}, default


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

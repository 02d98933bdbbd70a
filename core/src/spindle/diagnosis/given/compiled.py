"""A fault model turned into arrays for one drive: what cannot exist on this drive is not in it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, Final, TypeVar

import numpy as np
from numpy.typing import NDArray

from spindle.diagnosis.given.rows import faults_named, likelihood_table
from spindle.drives.sheet import DriveSheet
from spindle.errors import ModelError
from spindle.faults.library import MODELS
from spindle.faults.model import NOTHING, Fault, FaultModel, Link, Path, Question, Repair, SubAssembly
from spindle.faults.scale import ROW_FLOOR
from spindle.words.health import P_BAD_ITEM, Health

Floats = NDArray[np.float64]
SILENT: Final = 0.97
"""A drive whose disc is not home shows nothing at every later stage, but for a slip."""
RESEATED_MONTHS: Final = 40.0
"""How long a flex holds that a repair reseats by the way: it sits until somebody opens the unit again."""
UNOPENED: Final = 1e-6
"""Prior of a handling fault before a step of ours could have brought it: as good as none, and never impossible."""


@dataclass(frozen=True)
class Chain:
    """A signal path as a drive has it: the links that are in it, and the positions of the faults that sit in each."""

    path: Path
    links: tuple[Link, ...]
    faults: tuple[list[int], ...]


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
    after_answers: dict[frozenset[str], CompiledModel] = field(default_factory=dict)
    """The same model where some answers say how a fault fails; see :meth:`given`. Filled as they are asked for."""
    unanswered: CompiledModel | None = None
    """The model before such answers; None if it is that itself."""
    log_rows: dict[tuple[str, str, float, bool], Floats] = field(default_factory=dict)
    """log P(answer | fault) by question, answer and unreliability, filled as they are asked for: a drive's answers come back."""

    @property
    def shipped(self) -> CompiledModel:
        """The model before anything was learnt: what closed jobs teach is read by it."""
        return self.learnt_over or self

    @cached_property
    def unmovable(self) -> frozenset[str]:
        """The questions and repairs that this drive has and nobody proposes on it."""
        has = self.sheet.features | {self.model.family}
        every: tuple[Question | Repair, ...] = (*self.questions.values(), *self.repairs)
        return frozenset(x.id for x in every if has & set(x.unless.split()))

    def given(self, said: Mapping[str, str]) -> CompiledModel:
        """Return the model as it is once these questions have those answers: how a fault was seen to fail says what can cure it.

        Of all that a repair cures its chance becomes the one that its ``after`` names.
        """
        told = frozenset(f"{q}={o}" for q, o in said.items()) & self._tellers
        plain = self.unanswered or self
        if not told:
            return plain
        if told not in self.after_answers:
            success = plain.success.copy()
            for a, repair in enumerate(self.repairs):
                for chance in (c for answer, c in repair.after.items() if answer in told):
                    success[a, [self.fault_index[f] for f in repair.cures if f in self.fault_index]] = chance
            self.after_answers[told] = replace(plain, success=success, unanswered=plain)
        return self.after_answers[told]

    @cached_property
    def _tellers(self) -> frozenset[str]:
        return frozenset(answer for r in self.repairs for answer in r.after)

    @cached_property
    def tells_of_cures(self) -> frozenset[str]:
        """The questions whose answer says what can cure a fault: how a trial in vain is read hangs on them."""
        return frozenset(answer.partition("=")[0] for answer in self._tellers)

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
    def chains(self) -> tuple[Chain, ...]:
        """The signal paths as this drive has them."""
        has, index = self.sheet.features, self.fault_index
        found = []
        for path in self.model.paths:
            links = ((k, [index[f] for f in faults_named(k.faults, self.model, self.sheet) if f in index]) for k in path.links if not k.needs or k.needs in has)
            here = [(k, at) for k, at in links if at]
            found.append(Chain(path, tuple(k for k, _ in here), tuple(at for _, at in here)))
        return tuple(found)

    @cached_property
    def repair_index(self) -> Mapping[str, int]:
        """Position of each repair id."""
        return {r.id: i for i, r in enumerate(self.repairs)}

    @cached_property
    def family_questions(self) -> Mapping[str, Question]:
        """Every question of the family, those that this drive cannot answer included."""
        return {**{q.id: q for q in self.model.questions}, **self.questions}


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
    faults = faults_of(sheet)
    questions = {q.id: on_this_drive(q, has) for q in model.questions if not q.needs or q.needs in has}
    repairs = tuple(on_this_drive(r, has) for r in model.repairs if not r.needs or r.needs in has)
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


def faults_of(sheet: DriveSheet) -> tuple[Fault, ...]:
    """Return the faults that a drive can have, of its family's model."""
    has = sheet.features
    return tuple(f for f in MODELS[sheet.family].faults if not f.needs or f.needs in has)


_Asked = TypeVar("_Asked", Question, Repair)


def on_this_drive(entry: _Asked, has: frozenset[str]) -> _Asked:
    """Return a question or repair as it is on a drive of those features: what is different there, and what it cures on top."""
    told: dict[str, Any] = {}
    for feature, own in entry.where.items():
        if feature in has:
            told |= own
            if isinstance(entry, Repair):
                told["cures"] = {**entry.cures, **told.get("cures", {})}
    return replace(entry, **told) if told else entry


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

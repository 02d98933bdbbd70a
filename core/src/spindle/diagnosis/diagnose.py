"""The whole answer for one case: suspects, weights, next moves."""

from __future__ import annotations

from dataclasses import dataclass

from spindle.diagnosis.advice import advise
from spindle.diagnosis.case import Case
from spindle.diagnosis.compiled import CompiledModel
from spindle.diagnosis.evidence import LeftOut
from spindle.diagnosis.moves import Advice
from spindle.diagnosis.posterior import Moved, believe, weights_of_evidence
from spindle.diagnosis.trials import p_cured

SHOWN_FROM_DB = 1.0
"""Weights below one deciban are not shown: nobody could notice them."""


@dataclass(frozen=True)
class Suspect:
    """One fault with its probability."""

    id: str
    part: str
    name: str
    p: float


@dataclass(frozen=True)
class PartSuspicion:
    """One sub-assembly with the sum of its faults."""

    id: str
    name: str
    p: float


@dataclass(frozen=True)
class PartWeight:
    """How far one finding moved one part, in decibans."""

    part: str
    db: float


@dataclass(frozen=True)
class FindingWeight:
    """What one finding moved: the parts it moved by a deciban or more, or why it moved none."""

    finding: str
    parts: tuple[PartWeight, ...]
    left_out: LeftOut | None


@dataclass(frozen=True)
class Diagnosis:
    """Everything that the screens and the command show of a case."""

    suspects: tuple[Suspect, ...]
    parts: tuple[PartSuspicion, ...]
    weights: tuple[FindingWeight, ...]
    advice: Advice
    p_cured: float
    p_fail_per_try: float


def diagnose(case: Case, model: CompiledModel) -> Diagnosis:
    """Return the diagnosis of a case. Everything is computed anew from the findings.

    Raises
    ------
    CaseError
        If a finding uses a word that the loader family does not have.
    """
    belief = believe(case.findings, model)
    suspects = sorted((Suspect(f.id, f.part, f.name, float(p)) for f, p in zip(model.faults, belief.p, strict=True)), key=lambda s: -s.p)
    parts = sorted((PartSuspicion(x.id, x.name, float(p)) for x, p in zip(model.parts, belief.p_part, strict=True)), key=lambda s: -s.p)
    moved = weights_of_evidence(case, model, belief)
    evidence = belief.evidence
    return Diagnosis(
        suspects=tuple(suspects),
        parts=tuple(parts),
        weights=tuple(_weight(f.id, moved.get(f.id), evidence.left_out.get(f.id), model) for f in case.findings),
        advice=advise(case, model, belief),
        p_cured=p_cured(evidence.trials, belief.p, model, p_fail_per_try=evidence.p_fail_per_try),
        p_fail_per_try=evidence.p_fail_per_try,
    )


def _weight(finding: str, moved: Moved | None, left_out: LeftOut | None, model: CompiledModel) -> FindingWeight:
    if moved is None:
        return FindingWeight(finding, (), left_out)
    ranked = sorted(zip(model.parts, moved.part_db, strict=True), key=lambda x: -abs(x[1]))
    return FindingWeight(finding, tuple(PartWeight(p.id, float(db)) for p, db in ranked if abs(db) >= SHOWN_FROM_DB), None)

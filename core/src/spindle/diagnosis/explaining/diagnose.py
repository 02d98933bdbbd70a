"""The whole answer for one case: suspects, weights, next moves, and what has to be said beside them."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from spindle.diagnosis.belief.contradictions import Contradiction, find_contradictions
from spindle.diagnosis.belief.ending import Ending, judge_ending
from spindle.diagnosis.belief.item_health import ItemHealth, item_health
from spindle.diagnosis.belief.posterior import Belief, believe
from spindle.diagnosis.belief.striking import Moved, weights_of_evidence
from spindle.diagnosis.belief.two_faults import PairFit, fit_pair
from spindle.diagnosis.evidence.gather import LeftOut
from spindle.diagnosis.explaining.advice import advise
from spindle.diagnosis.explaining.moves import Advice, Notice
from spindle.diagnosis.explaining.notices import notices
from spindle.diagnosis.explaining.signal_path import PathState, signal_paths
from spindle.diagnosis.explaining.swaps import SwapTable, swap_table
from spindle.diagnosis.given.case import Case
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.diagnosis.planning.outlook import Outlook, look_ahead

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
    notices: tuple[Notice, ...]
    contradictions: tuple[Contradiction, ...]
    two_faults: PairFit | None
    paths: tuple[PathState, ...]
    swaps: SwapTable
    items: tuple[ItemHealth, ...]
    ending: Ending
    belief: Belief
    outlook: Outlook
    without: Mapping[str, Floats]
    """Finding id -> P(fault | all other findings), of shape (n_faults,)."""

    @property
    def p_cured(self) -> float:
        """P(cured | the last trial came out clean); 0 if it did not."""
        return self.ending.p_cured


def diagnose(
    case: Case, model: CompiledModel, *, keep_going: Callable[[], bool] | None = None, belief: Belief | None = None, ending: Ending | None = None
) -> Diagnosis:
    """Return the diagnosis of a case. Everything is computed anew from the findings.

    With ``keep_going`` the moves are looked into two steps deep, for as long as it says so. Whoever has the ``belief`` of this very
    case already, or its ``ending``, spares computing it again.

    Raises
    ------
    CaseError
        If a finding uses a word that the loader family does not have.
    """
    belief = believe(case.findings, model) if belief is None else belief
    model = belief.evidence.narrowed(model)
    outlook = look_ahead(case, model, belief, keep_going=keep_going)
    advice = advise(case, model, belief, outlook)
    contradictions = find_contradictions(belief, model)
    pair = fit_pair(belief, model)
    suspects = sorted((Suspect(f.id, f.part, f.name, float(p)) for f, p in zip(model.faults, belief.p, strict=True)), key=lambda s: -s.p)
    parts = sorted((PartSuspicion(x.id, x.name, float(p)) for x, p in zip(model.parts, belief.p_part, strict=True)), key=lambda s: -s.p)
    moved = weights_of_evidence(case, model, belief)
    return Diagnosis(
        suspects=tuple(suspects),
        parts=tuple(parts),
        weights=tuple(_weight(f.id, moved.get(f.id), belief.evidence.left_out.get(f.id), model) for f in case.findings),
        advice=advice,
        notices=notices(case, model, belief, outlook, advice=advice, contradictions=contradictions, pair=pair),
        contradictions=contradictions,
        two_faults=pair,
        paths=signal_paths(belief, model, outlook.plan, outlook.position.state),
        swaps=swap_table(case, model, belief, outlook),
        items=item_health(belief, model),
        ending=judge_ending(belief, model, case.economy) if ending is None else ending,
        belief=belief,
        outlook=outlook,
        without={f: m.p_without for f, m in moved.items()},
    )


def _weight(finding: str, moved: Moved | None, left_out: LeftOut | None, model: CompiledModel) -> FindingWeight:
    if moved is None:
        return FindingWeight(finding, (), left_out)
    shown = [PartWeight(part.id, db) for part, db in zip(model.parts, moved.part_db.tolist(), strict=True) if abs(db) >= SHOWN_FROM_DB]
    return FindingWeight(finding, tuple(sorted(shown, key=lambda w: -abs(w.db))), None)

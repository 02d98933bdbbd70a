"""Repair levels compared (C25): joint or chip, sub-part, bare pickup, deck, whole drive, by what each asks and gives."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType
from typing import Final

from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.problem import Plan
from spindle.drives.levels import LEVELS, RANK_OF_REPAIR, RANKS
from spindle.faults.lasting import USED_SHARE
from spindle.offers.quote import WORTH_OFFERING, Quote, quote
from spindle.repairs.procedures import procedure_for

WORTH_NAMING: Final = 0.15
"""A part less suspect than this is not taken to be broken when a swap is planned."""
_LEVELS_OF_PART: Final = MappingProxyType(
    {
        "spindle": ("spindle_motor",),
        "load": ("load_motor", "gears"),
        "sled": ("feed_motor", "rails"),
        "lens": ("pickup",),
        "trimmer": ("pickup",),
        **dict.fromkeys(("switch_insert", "switch_home", "switch_open", "switch_shut", "switch_lid"), ("switch",)),
    }
)
"""Parts of the fault models that are no level by themselves."""


@dataclass(frozen=True, slots=True)
class LevelRow:
    """The best repair of one level, and how long it holds."""

    rank: str
    name: str
    quote: Quote
    skill: str
    source: Stock | None
    lasts_months: float
    why: str


def compare_levels(model: CompiledModel, belief: Belief, plan: Plan, *, price_cents_per_min: int) -> tuple[LevelRow, ...]:
    """Return for each level the repair that most likely helps, the smallest level first; a level that hardly helps is left out.

    How long it holds is said for the fault that it most likely cures.
    """
    best: dict[str, LevelRow] = {}
    for a, (repair, source) in enumerate(zip(plan.repairs, plan.sources, strict=True)):
        rank, cured = RANK_OF_REPAIR.get(repair.id, ""), plan.problem.aims[a] * belief.p
        p = float(cured.sum())
        if not rank or p < WORTH_OFFERING or (rank in best and best[rank].quote.p_success >= p):
            continue
        terms = None if source is None else (source.price_eur, source.wait_days)
        offer = quote(repair.id, p, float(plan.p_year[a] @ cured), model, price_cents_per_min=price_cents_per_min, terms=terms)
        procedure = procedure_for(model.sheet.family, repair.id)
        is_used = source is not None and source.is_donor and rank not in ("whole", "joint")
        months = float(model.lasts_months[a, int(cured.argmax())]) * (USED_SHARE if is_used else 1.0)
        why = "out of a donor: it has part of its life behind it" if is_used else repair.lasts_why
        best[rank] = LevelRow(rank, RANKS[rank], offer, procedure.skill, source, months, why)
    return tuple(best[r] for r in RANKS if r in best)


def suspect_levels(model: CompiledModel, belief: Belief) -> frozenset[str]:
    """Return the levels that a swap plan takes to be broken: those of every part that stands out."""
    parts = [p.id for p, p_part in zip(model.parts, belief.p_part, strict=True) if p_part >= WORTH_NAMING]
    return frozenset(v for part in parts for v in _LEVELS_OF_PART.get(part, (part,)) if v in LEVELS)

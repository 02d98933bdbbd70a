"""Repair levels compared (C25): joint or chip, sub-part, bare pickup, deck, whole drive, by what each asks and gives."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType
from typing import Final

from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.problem import Plan
from spindle.drives.levels import HOLDS, LEVELS, RANKS
from spindle.offers.quote import WORTH_OFFERING, Quote, quote
from spindle.repairs.procedures import procedure_for

USED_SHARE: Final = 0.5
"""What a donor's part has left of the life of a new one, on average: it failed nobody yet, and is about as old as the one that did. Invented."""


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
    """The best repair of one level. ``p_lasts_year``: the chance that it mends the unit and holds for a year."""

    rank: str
    name: str
    quote: Quote
    skill: str
    source: Stock | None
    lasts_months: float
    why: str
    p_lasts_year: float


def compare_levels(model: CompiledModel, belief: Belief, plan: Plan, *, price_cents_per_min: int) -> tuple[LevelRow, ...]:
    """Return for each level the repair that most likely helps, the smallest level first; a level that hardly helps is left out.

    A repair that holds for m months is taken to fail at a constant rate with that median: P(a year) = 2^(-12/m).
    """
    best: dict[str, LevelRow] = {}
    for a, (repair, source) in enumerate(zip(plan.repairs, plan.sources, strict=True)):
        hold = HOLDS.get(repair.id)
        p = float(plan.problem.aims[a] @ belief.p)
        if hold is None or p < WORTH_OFFERING or (hold.rank in best and best[hold.rank].quote.p_success >= p):
            continue
        terms = None if source is None else (source.price_eur, source.wait_days)
        offer = quote(repair.id, p, model, price_cents_per_min=price_cents_per_min, terms=terms)
        procedure = procedure_for(model.sheet.family, repair.id)
        is_used = source is not None and source.is_donor and hold.rank not in ("whole", "joint")
        months, why = (hold.lasts_months * USED_SHARE, "out of a donor: it has part of its life behind it") if is_used else (hold.lasts_months, hold.why)
        lasts = p * 2.0 ** (-12.0 / months)
        best[hold.rank] = LevelRow(hold.rank, RANKS[hold.rank], offer, procedure.skill, source, months, why, lasts)
    return tuple(best[r] for r in RANKS if r in best)


def suspect_levels(model: CompiledModel, belief: Belief) -> frozenset[str]:
    """Return the levels that a swap plan takes to be broken: those of every part that stands out."""
    parts = [p.id for p, p_part in zip(model.parts, belief.p_part, strict=True) if p_part >= WORTH_NAMING]
    return frozenset(v for part in parts for v in _LEVELS_OF_PART.get(part, (part,)) if v in LEVELS)

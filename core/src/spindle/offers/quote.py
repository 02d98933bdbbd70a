"""What a repair is offered for, from the shop's own figures."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import islice
from typing import Final

from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.explaining.moves import Moves
from spindle.diagnosis.given.case import Case
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.outlook import look_ahead
from spindle.diagnosis.planning.plan import TRIAL_MIN, bench_minutes, part_terms
from spindle.words.bench import Depth

WORTH_OFFERING: Final = 0.1
"""An owner is not asked to pay for what helps less than one time in ten."""
MAX_OFFERS: Final = 4
"""As many as an owner can hold against each other at a counter."""


@dataclass(frozen=True, slots=True)
class Quote:
    """A repair offered to the owner. Money in cents; ``p_lasts_year``: the chance that it mends the unit, and that it is still well after a year."""

    repair: str
    name: str
    labour_min: float
    labour_cents: int
    part_cents: int
    wait_days: float
    p_success: float
    p_lasts_year: float

    @property
    def total_cents(self) -> int:
        """Labour and part together."""
        return self.labour_cents + self.part_cents


def quote(
    repair_id: str, p_success: float, p_lasts_year: float, model: CompiledModel, *, price_cents_per_min: int, terms: tuple[float, float] | None = None
) -> Quote:
    """Return the offer for a repair: opening, work, trial and closing at the shop's price, and the part.

    The owner pays for the whole way in and out, whatever is open already: looking was the shop's own risk. ``terms`` are price in
    euro and wait in days of the part that would be used, if it is known; without them the sheet's count.

    Raises
    ------
    KeyError
        If this drive does not allow the repair.
    """
    repair = model.repairs[model.repair_index[repair_id]]
    depth = max(repair.depth, Depth.COVER_OFF)
    minutes = model.model.depths.open_min[depth] + bench_minutes(repair, model) + TRIAL_MIN + model.model.depths.close_min[depth]
    price, wait = part_terms(repair, model) if terms is None else terms
    return Quote(repair.id, repair.name, minutes, round(minutes * price_cents_per_min), round(price * 100), wait, p_success, p_lasts_year)


def offers(moves: Moves, model: CompiledModel, *, price_cents_per_min: int) -> tuple[Quote, ...]:
    """Return the repairs among the moves that are worth offering, likeliest to help first."""
    return tuple(
        quote(m.id, m.p_cures, m.p_lasts_year, model, price_cents_per_min=price_cents_per_min, terms=(m.part_eur, m.wait_days))
        for m in islice(moves.repairs(WORTH_OFFERING), MAX_OFFERS)
    )


def offer_for(repair_id: str, case: Case, model: CompiledModel, *, price_cents_per_min: int) -> tuple[Quote, bool]:
    """Return the offer for a repair as the findings and the shelf stand, and whether the advice puts it first.

    Raises
    ------
    KeyError
        If this drive does not allow the repair.
    """
    belief = believe(case.findings, model)
    outlook = look_ahead(case, model, belief)
    a = model.repair_index[repair_id]
    source = outlook.plan.sources[a]
    terms = None if source is None else (source.price_eur, source.wait_days)
    cured = belief.p * outlook.plan.problem.aims[a]
    p_lasts_year = float(outlook.plan.p_year[a] @ cured)
    is_first = outlook.pick.kind == "repair" and outlook.pick.index == a
    return quote(repair_id, float(cured.sum()), p_lasts_year, model, price_cents_per_min=price_cents_per_min, terms=terms), is_first
